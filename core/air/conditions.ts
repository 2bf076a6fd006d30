import type { PaintMethod } from '../model/paintMethod';
import type { ConditionLimits } from '../model/sheet';
import { dewPointC } from './dewPoint';
import type { WeatherHour } from './weather';

/**
 * What is usual where a sheet says nothing. Spread 3 °C [P: ISO 8502-4; CP], RH 85 %, 80 % for two-pack topcoats, air and
 * surface 10–30 °C [CP].
 */
const USUAL = { spreadMinC: 3, rhMax: 0.85, topcoatRhMax: 0.8, minC: 10, maxC: 30 } as const;

/** Outside the usual a start is a caution; below or above these it asks a reason. [CP] */
const USUAL_STOP = { minC: 5, surfaceMaxC: 40 } as const;

/** Above this wind, m/s, rolling outdoors and spraying are no good. [CP] */
const WIND_MAX_MS = { roller: 8, brush: 8, spray: 5, conventional: 5 } as const;

export interface Conditions {
  readonly airC: number;
  /** Share. */
  readonly rh: number;
  readonly surfaceC: number;
  readonly windMs?: number;
  readonly rainMm?: number;
}

/**
 * The conditions of some weather over a surface; what the weather does not tell is left out.
 * @example conditionsIn({ airC: 20, rh: 0.6 }, 18) // → { airC: 20, rh: 0.6, surfaceC: 18 }
 */
export const conditionsIn = (
  { airC, rh, windMs, rainMm }: Pick<WeatherHour, 'airC' | 'rh' | 'windMs' | 'rainMm'>,
  surfaceC: number,
): Conditions => ({
  airC,
  rh,
  surfaceC,
  ...(windMs === undefined ? {} : { windMs }),
  ...(rainMm === undefined ? {} : { rainMm }),
});

export type LimitKind =
  'spread' | 'humidity' | 'frost' | 'airCold' | 'airHot' | 'surfaceCold' | 'surfaceHot' | 'wind' | 'rain';

/** A figure this close to its limit keeps it: no instrument at a hull reads finer, and in words both would be the same. */
const AS_GOOD_AS: Partial<Record<LimitKind, number>> = { humidity: 0.0005, wind: 0.05, rain: 0 };
/** Of a temperature, °C. */
const AS_GOOD_AS_C = 0.005;

/** One limit that is broken: what was found and what is needed, in the core's unit of that quantity. */
export interface LimitBreak {
  readonly limit: LimitKind;
  readonly found: number;
  readonly needs: number;
  /** The sheet is silent: this is the usual limit. */
  readonly usual: boolean;
  /** To be heeded; it does not keep a coat from being started. */
  readonly caution: boolean;
}

export interface ConditionVerdict {
  /** Nothing but cautions. */
  readonly ok: boolean;
  readonly dewPointC: number;
  readonly spreadC: number;
  /** What keeps from starting before what is a caution. */
  readonly breaks: readonly LimitBreak[];
}

/**
 * Hold the conditions of a moment against the sheet's limits, the usual ones where the sheet is silent.
 * Breaks come worst for adhesion first: rain, frost, spread, humidity, surface, air, wind.
 * @param options.sheltered in a shed, a locker or a bilge: rain and wind do not reach it
 * @param options.topcoat a two-pack topcoat: it usually wants dryer air
 * @throws RangeError on impossible figures
 * @example
 *   checkConditions({
 *     conditions: { airC: 20, rh: 0.9, surfaceC: 19 },
 *     limits: sheet.limits,
 *     method: 'brush',
 *   }).breaks.map((b) => b.limit) // → ['spread', 'humidity']
 */
export function checkConditions(options: {
  conditions: Conditions;
  limits: ConditionLimits;
  method: PaintMethod;
  sheltered?: boolean;
  topcoat?: boolean;
}): ConditionVerdict {
  const { conditions: c, limits, method, sheltered = false, topcoat = false } = options;
  const dew = dewPointC({ airC: c.airC, rh: c.rh });
  const spreadC = c.surfaceC - dew;
  const breaks: LimitBreak[] = [];
  const above = (limit: LimitKind, found: number | undefined, steps: readonly Step[]) => {
    const step = steps.find((s) => found !== undefined && found > s.at + (AS_GOOD_AS[limit] ?? AS_GOOD_AS_C));
    if (step)
      breaks.push({ limit, found: found as number, needs: step.told, usual: step.usual, caution: step.caution });
  };
  const below = (limit: LimitKind, found: number, steps: readonly Step[]) => {
    const step = steps.find((s) => found < s.at - (AS_GOOD_AS[limit] ?? AS_GOOD_AS_C));
    if (step) breaks.push({ limit, found, needs: step.told, usual: step.usual, caution: step.caution });
  };
  if (!sheltered) above('rain', c.rainMm, sheetStep(0));
  if (limits.surfaceMinC === null || limits.surfaceMinC > 0) below('frost', c.surfaceC, usualStep(0));
  below('spread', spreadC, limits.spreadMinC === null ? usualStep(USUAL.spreadMinC) : sheetStep(limits.spreadMinC));
  above('humidity', c.rh, humiditySteps(limits, topcoat));
  below('surfaceCold', c.surfaceC, coldSteps(limits.surfaceMinC, limits.airMinC));
  above('surfaceHot', c.surfaceC, hotSteps(limits.surfaceMaxC, limits.airMaxC, USUAL_STOP.surfaceMaxC));
  below('airCold', c.airC, coldSteps(limits.airMinC, limits.surfaceMinC));
  above('airHot', c.airC, hotSteps(limits.airMaxC, limits.surfaceMaxC, null));
  if (!sheltered) above('wind', c.windMs, cautionStep(WIND_MAX_MS[method]));
  const held = breaks.filter((b) => !b.caution);
  return {
    ok: held.length === 0,
    dewPointC: dew,
    spreadC,
    breaks: [...held, ...breaks.filter((b) => b.caution)],
  };
}

/** A limit: where it lies, and the one that is told when it is broken. */
interface Step {
  readonly at: number;
  readonly told: number;
  readonly usual: boolean;
  readonly caution: boolean;
}

const sheetStep = (at: number): Step[] => [{ at, told: at, usual: false, caution: false }];
const usualStep = (at: number, told = at): Step[] => [{ at, told, usual: true, caution: false }];
const cautionStep = (at: number): Step[] => [{ at, told: at, usual: true, caution: true }];

function humiditySteps({ rhMax }: ConditionLimits, topcoat: boolean): Step[] {
  if (rhMax !== null) return sheetStep(rhMax);
  const usual = usualStep(USUAL.rhMax, topcoat ? USUAL.topcoatRhMax : USUAL.rhMax);
  return topcoat ? [...usual, ...cautionStep(USUAL.topcoatRhMax)] : usual;
}

/** Where a sheet gives one of air and surface, it is as good for the other: a winter grade says so once. */
function coldSteps(own: number | null, other: number | null): Step[] {
  if (own !== null) return sheetStep(own);
  const told = Math.min(USUAL.minC, other ?? USUAL.minC);
  return [...usualStep(Math.min(USUAL_STOP.minC, told), told), ...cautionStep(told)];
}

function hotSteps(own: number | null, other: number | null, stopC: number | null): Step[] {
  if (own !== null) return sheetStep(own);
  const told = Math.max(USUAL.maxC, other ?? USUAL.maxC);
  return [...(stopC === null ? [] : usualStep(Math.max(stopC, told), told)), ...cautionStep(told)];
}

/** Between these figures nothing at all is broken, cautions too. */
export interface TightLimits {
  readonly surfaceFromC: number;
  readonly surfaceToC: number;
  readonly spreadFromC: number;
  /** Share. */
  readonly rhTo: number;
  readonly airFromC: number;
  readonly airToC: number;
  readonly windToMs: number;
  /** Rain breaks it. */
  readonly rain: boolean;
}

/**
 * `checkConditions` for many moments: the limits taken apart once, the tightest of each, for whoever compares a whole
 * season of figures with them.
 * @example tightLimits({ limits: { ...sheet.limits, rhMax: 0.7 }, method: 'brush' }).rhTo // → 0.7005
 */
export function tightLimits(options: {
  limits: ConditionLimits;
  method: PaintMethod;
  sheltered?: boolean;
  topcoat?: boolean;
}): TightLimits {
  const { limits, method, sheltered = false, topcoat = false } = options;
  const least = (steps: readonly Step[]) => Math.max(...steps.map((s) => s.at)) - AS_GOOD_AS_C;
  const most = (steps: readonly Step[], give = AS_GOOD_AS_C) => Math.min(...steps.map((s) => s.at)) + give;
  const { airMinC, airMaxC, surfaceMinC, surfaceMaxC, spreadMinC } = limits;
  const frost = surfaceMinC === null || surfaceMinC > 0 ? usualStep(0) : [];
  return {
    surfaceFromC: least([...coldSteps(surfaceMinC, airMinC), ...frost]),
    surfaceToC: most(hotSteps(surfaceMaxC, airMaxC, USUAL_STOP.surfaceMaxC)),
    spreadFromC: least(spreadMinC === null ? usualStep(USUAL.spreadMinC) : sheetStep(spreadMinC)),
    rhTo: most(humiditySteps(limits, topcoat), AS_GOOD_AS.humidity),
    airFromC: least(coldSteps(airMinC, surfaceMinC)),
    airToC: most(hotSteps(airMaxC, surfaceMaxC, null)),
    windToMs: sheltered ? Infinity : most(cautionStep(WIND_MAX_MS[method]), AS_GOOD_AS.wind),
    rain: !sheltered,
  };
}

/** A limit in force: its figure, and whether it is the usual one where the sheet is silent. */
export interface LimitInForce {
  readonly at: number;
  readonly usual: boolean;
}

/** The limits of air and surface that a sheet's paint is held to. */
export interface LimitsInForce {
  readonly spreadMinC: LimitInForce;
  /** Share. */
  readonly rhMax: LimitInForce;
  readonly airC: readonly [least: LimitInForce, most: LimitInForce];
  readonly surfaceC: readonly [least: LimitInForce, most: LimitInForce];
}

/**
 * The limits that a start is held to, the usual ones in place of what the sheet does not give: for scales that show how
 * far the air is from each.
 * @example limitsInForce({ limits: { ...sheet.limits, spreadMinC: null } }).spreadMinC // → { at: 3, usual: true }
 */
export function limitsInForce({
  limits,
  topcoat = false,
}: {
  limits: ConditionLimits;
  topcoat?: boolean;
}): LimitsInForce {
  // The nearest of its steps is what is wanted: cautions come last.
  const nearest = (steps: readonly Step[]): LimitInForce => {
    const { told, usual } = steps[steps.length - 1] as Step;
    return { at: told, usual };
  };
  const { airMinC, airMaxC, surfaceMinC, surfaceMaxC, spreadMinC } = limits;
  return {
    spreadMinC: nearest(spreadMinC === null ? usualStep(USUAL.spreadMinC) : sheetStep(spreadMinC)),
    rhMax: nearest(humiditySteps(limits, topcoat)),
    airC: [nearest(coldSteps(airMinC, surfaceMinC)), nearest(hotSteps(airMaxC, surfaceMaxC, null))],
    surfaceC: [
      nearest(coldSteps(surfaceMinC, airMinC)),
      nearest(hotSteps(surfaceMaxC, airMaxC, USUAL_STOP.surfaceMaxC)),
    ],
  };
}
