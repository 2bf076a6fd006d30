import { milestoneAt } from '../cure/milestone';
import type { TimeTable } from '../model/timeTable';
import { instant, notNegative } from '../guard';
import { checkConditions, type LimitBreak } from './conditions';
import type { ConditionLimits } from '../model/sheet';
import type { PaintMethod } from '../model/paintMethod';
import { temperatureAt } from './surfaceSeries';
import { unbrokenHours, weatherAt, type TempSample, type WeatherHour } from './weather';

const STEP_MS = 15 * 60_000;
const DAY_MS = 86_400_000;

/** The first thing that goes wrong with a coat: when, and which limit. */
export interface Trouble {
  readonly at: number;
  readonly break: LimitBreak;
}

export interface StartAdvice {
  /** A coat started now holds its limits until its last panel is touch dry. Null when the forecast ends before. */
  readonly nowHolds: boolean | null;
  /** When a coat started now would be touch dry on its last panel; null past the forecast or without a sheet time. */
  readonly touchDryAt: number | null;
  /** What first goes wrong with a coat started now, at or before touch dry. */
  readonly trouble: Trouble | null;
  /** The next moment from which a coat can be started and holds; now, when it holds now. Null within the horizon. */
  readonly firstStartAt: number | null;
  /** The latest start of that same spell. Null when there is no such spell. */
  readonly lastStartAt: number | null;
  /** What closes the spell. Null when the forecast ends first. */
  readonly closedBy: Trouble | null;
}

/** What the limits say of a moment, the first that is broken. */
function limitBreaks(options: {
  hours: readonly WeatherHour[];
  surface: readonly TempSample[];
  limits: ConditionLimits;
  method: PaintMethod;
  sheltered: boolean | undefined;
}): (at: number) => LimitBreak | null {
  const { hours, surface, limits, method, sheltered } = options;
  return (at) => {
    const w = weatherAt(hours, at) as WeatherHour;
    const verdict = checkConditions({
      conditions: {
        airC: w.airC,
        rh: w.rh,
        surfaceC: temperatureAt(surface, at),
        ...(w.windMs === undefined ? {} : { windMs: w.windMs }),
        ...(w.rainMm === undefined ? {} : { rainMm: w.rainMm }),
      },
      limits,
      method,
      ...(sheltered === undefined ? {} : { sheltered }),
    });
    return verdict.breaks[0] ?? null;
  };
}

/** The first trouble at or after a quarter hour, looked for no further than `until`. */
function troublesFrom(options: {
  now: number;
  count: number;
  breakAt: (at: number) => LimitBreak | null;
}): (i: number, until: number) => Trouble | null {
  const { now, count, breakAt } = options;
  // Starts are asked about in order: what lies between the last one and the frontier is known to be without trouble.
  let frontier = 0;
  let ahead: Trouble | null = null;
  return (i, until) => {
    if (ahead && ahead.at >= now + i * STEP_MS) return ahead.at <= until ? ahead : null;
    ahead = null;
    for (frontier = Math.max(frontier, i); frontier < count && now + frontier * STEP_MS <= until; frontier += 1) {
      const at = now + frontier * STEP_MS;
      const found = breakAt(at);
      if (!found) continue;
      ahead = { at, break: found };
      frontier += 1;
      return ahead;
    }
    return null;
  };
}

/**
 * When a coat may be started on the forecast: all limits hold from the start until the last panel, put on
 * `applyHours` later, is touch dry. [P: ISO 8502-4 for the spread; CP for "until touch dry"]
 *
 * Walks the next day and a half in quarter hours. Where the sheet has no touch-dry time the coat is
 * watched only while it is being put on, and `touchDryAt` is null.
 *
 * @param options.surface the surface series of the zone, readings included
 * @throws RangeError on impossible input
 */
export function startAdvice(options: {
  now: number;
  hours: readonly WeatherHour[];
  surface: readonly TempSample[];
  limits: ConditionLimits;
  method: PaintMethod;
  sheltered?: boolean;
  applyHours: number;
  touchDry?: TimeTable;
  minCureC?: number;
  horizonMs?: number;
}): StartAdvice {
  const { surface, limits, method, touchDry, minCureC } = options;
  const now = instant(options.now, 'Now');
  const hours = unbrokenHours(options.hours, now);
  const applyMs = notNegative(options.applyHours, 'The hours to put a coat on') * 3_600_000;
  const horizon = now + (options.horizonMs ?? 1.5 * DAY_MS);
  const lastHour = hours[hours.length - 1];
  const none: StartAdvice = {
    nowHolds: null,
    touchDryAt: null,
    trouble: null,
    firstStartAt: null,
    lastStartAt: null,
    closedBy: null,
  };
  if (!lastHour || surface.length === 0 || now < (hours[0] as WeatherHour).at || now > lastHour.at) return none;

  const known = Math.min(lastHour.at, (surface[surface.length - 1] as TempSample).at);
  const breakAt = limitBreaks({ hours, surface, limits, method, sheltered: options.sheltered });
  const count = Math.floor((known - now) / STEP_MS) + 1;
  const nextTrouble = troublesFrom({ now, count, breakAt });
  const outcome = (i: number): { holds: boolean | null; dryAt: number | null; trouble: Trouble | null } => {
    const start = now + i * STEP_MS;
    const finish = start + applyMs;
    if (finish > known) {
      const trouble = nextTrouble(i, known);
      return { holds: trouble ? false : null, dryAt: null, trouble };
    }
    const dryAt = touchDry
      ? milestoneAt({
          table: touchDry,
          kind: 'minimum',
          appliedAt: finish,
          temps: surface,
          ...(minCureC === undefined ? {} : { minCureC }),
        })
      : finish;
    // The trouble came somewhere in the quarter hour before it was seen: be dry before that.
    const trouble = nextTrouble(i, dryAt === null ? known : dryAt + STEP_MS);
    if (trouble && (dryAt === null || trouble.at - STEP_MS < dryAt)) return { holds: false, dryAt, trouble };
    return { holds: dryAt === null ? null : true, dryAt, trouble: null };
  };

  const first = outcome(0);
  let firstStartAt: number | null = null;
  let lastStartAt: number | null = null;
  let closedBy: Trouble | null = null;
  for (let i = 0; i < count && now + i * STEP_MS <= horizon; i += 1) {
    const found = outcome(i);
    if (found.holds) {
      firstStartAt ??= now + i * STEP_MS;
      lastStartAt = now + i * STEP_MS;
    } else if (firstStartAt !== null) {
      closedBy = found.trouble;
      break;
    }
  }
  return {
    nowHolds: first.holds,
    touchDryAt: touchDry ? first.dryAt : null,
    trouble: first.trouble,
    firstStartAt,
    lastStartAt,
    closedBy,
  };
}
