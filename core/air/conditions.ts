import type { PaintMethod } from '../model/paintMethod';
import type { ConditionLimits } from '../model/sheet';
import { dewPointC } from './dewPoint';

/** What is usual where a sheet says nothing. Spread 3 °C [P: ISO 8502-4; CP], RH 85 % [CP]. */
export const USUAL_LIMITS = { spreadMinC: 3, rhMax: 0.85 } as const;

/** Rolling outdoors in more wind than this, m/s, is no good. [CP] */
const WIND_MAX_MS = { roller: 8, brush: 8, spray: 5 } as const;

export interface Conditions {
  readonly airC: number;
  /** Share. */
  readonly rh: number;
  readonly surfaceC: number;
  readonly windMs?: number;
  readonly rainMm?: number;
}

export type LimitKind = 'spread' | 'humidity' | 'airCold' | 'airHot' | 'surfaceCold' | 'surfaceHot' | 'wind' | 'rain';

/** A figure this close to its limit keeps it: no instrument at a hull reads finer, and in words both would be the same. */
const AS_GOOD_AS: Partial<Record<LimitKind, number>> = { humidity: 0.0005, wind: 0.05, rain: 0 };
/** Of a temperature, °C. */
const AS_GOOD_AS_C = 0.005;

/** One limit that is broken: what was found and what is needed, in the core's unit of that quantity. */
export interface LimitBreak {
  readonly limit: LimitKind;
  readonly found: number;
  readonly needs: number;
}

export interface ConditionVerdict {
  readonly ok: boolean;
  readonly dewPointC: number;
  readonly spreadC: number;
  readonly breaks: readonly LimitBreak[];
}

/**
 * Hold the conditions of a moment against the sheet's limits, the usual ones where the sheet is silent.
 * Breaks come worst for adhesion first: rain, spread, humidity, surface, air, wind.
 * @param options.sheltered in a shed, a locker or a bilge: rain and wind do not reach it
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
}): ConditionVerdict {
  const { conditions: c, limits, method, sheltered = false } = options;
  const dew = dewPointC({ airC: c.airC, rh: c.rh });
  const spreadC = c.surfaceC - dew;
  const breaks: LimitBreak[] = [];
  const above = (limit: LimitKind, found: number | undefined, max: number | null) => {
    if (found !== undefined && max !== null && found > max + (AS_GOOD_AS[limit] ?? AS_GOOD_AS_C))
      breaks.push({ limit, found, needs: max });
  };
  const below = (limit: LimitKind, found: number, min: number | null) => {
    if (min !== null && found < min - (AS_GOOD_AS[limit] ?? AS_GOOD_AS_C)) breaks.push({ limit, found, needs: min });
  };
  if (!sheltered) above('rain', c.rainMm, 0);
  below('spread', spreadC, limits.spreadMinC ?? USUAL_LIMITS.spreadMinC);
  above('humidity', c.rh, limits.rhMax ?? USUAL_LIMITS.rhMax);
  below('surfaceCold', c.surfaceC, limits.surfaceMinC);
  above('surfaceHot', c.surfaceC, limits.surfaceMaxC);
  below('airCold', c.airC, limits.airMinC);
  above('airHot', c.airC, limits.airMaxC);
  if (!sheltered) above('wind', c.windMs, WIND_MAX_MS[method]);
  return { ok: breaks.length === 0, dewPointC: dew, spreadC, breaks };
}
