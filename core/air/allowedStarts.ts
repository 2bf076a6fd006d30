import { notNegative, instant } from '../guard';
import { prepareClock } from '../cure/preparedClock';
import type { PaintMethod } from '../model/paintMethod';
import type { ConditionLimits } from '../model/sheet';
import type { TimeTable } from '../model/timeTable';
import { checkConditions, conditionsIn, type LimitBreak } from './conditions';
import type { Trouble } from './lastStart';
import { temperatureAt } from './surfaceSeries';
import { weatherAt, type TempSample, type WeatherHour } from './weather';

const STEP_MS = 15 * 60_000;

/** Starts that hold their limits until touch dry, from the first to the last of a row. */
export interface AllowedStarts {
  /** Epoch ms, both included. */
  readonly from: number;
  readonly to: number;
  /** What broke a start a quarter hour sooner; null where the question begins there. */
  readonly openedBy: Trouble | null;
  /** What breaks a start a quarter hour later; null where the question or the weather ends there. */
  readonly closedBy: ClosedBy | null;
}

/** The first limit that a start breaks, and how long before touch dry that is. */
export interface ClosedBy extends Trouble {
  /** Minutes from the trouble to touch dry; null: it is never dry within the weather. */
  readonly beforeDryMin: number | null;
}

/**
 * The hours in which a coat may be put on and stay safe until it is touch dry, on a grid of quarter hours: from start to
 * touch dry of the last panel no limit is broken. [P: ISO 8502-4 for the spread; CP for "until touch dry"]
 *
 * @param options.series weather and the surface under it, ascending; gaps of more than three hours allow nothing
 * @param options.durationH hours to put it on
 * @param options.touchDry without it the coat counts as dry when it is on
 * @param options.from epoch ms of the first start asked about, `to` of the last
 * @throws RangeError on impossible figures
 * @example
 *   allowedStarts({
 *     series: { air: steady, surface: temps },
 *     limits: sheet.limits,
 *     method: 'roller',
 *     durationH: 2,
 *     from: noon,
 *     to: noon + hour,
 *   }).length // → 1
 */
export function allowedStarts(options: {
  series: { readonly air: readonly WeatherHour[]; readonly surface: readonly TempSample[] };
  limits: ConditionLimits;
  method: PaintMethod;
  durationH: number;
  touchDry?: TimeTable | null;
  minCureC?: number | null;
  from: number;
  to: number;
  sheltered?: boolean;
}): AllowedStarts[] {
  const { series, touchDry, minCureC } = options;
  const from = instant(options.from, 'The first start');
  const to = instant(options.to, 'The last start');
  const durationMs = notNegative(options.durationH, 'The hours to put a coat on') * 3_600_000;
  const end = Math.min(series.air.at(-1)?.at ?? -Infinity, series.surface.at(-1)?.at ?? -Infinity);
  const begin = Math.max(series.air[0]?.at ?? Infinity, series.surface[0]?.at ?? Infinity);
  const clock = touchDry
    ? prepareClock({
        table: touchDry,
        kind: 'minimum',
        temps: series.surface,
        ...(minCureC == null ? {} : { minCureC }),
      })
    : null;
  const trouble = troubles(options, from, Math.floor((end - from) / STEP_MS));
  const spells: AllowedStarts[] = [];
  let open: { from: number; openedBy: Trouble | null } | null = null;
  let last: Trouble | null = null;
  for (let i = 0; from + i * STEP_MS <= to; i += 1) {
    const at = from + i * STEP_MS;
    const done = at + durationMs;
    const dryAt = at < begin || done > end ? null : clock ? clock.reachedAt(done) : done;
    const found = trouble(i);
    const closed: ClosedBy | null =
      found && (dryAt === null || found.at - STEP_MS < dryAt)
        ? { ...found, beforeDryMin: dryAt === null ? null : Math.max(0, Math.round((dryAt - found.at) / 60_000)) }
        : null;
    if (dryAt !== null && closed === null) {
      open ??= { from: at, openedBy: last };
      continue;
    }
    if (open) spells.push({ ...open, to: at - STEP_MS, closedBy: closed });
    open = null;
    last = closed;
  }
  if (open) spells.push({ ...open, to: from + Math.floor((to - from) / STEP_MS) * STEP_MS, closedBy: null });
  return spells;
}

/** The first broken limit at or after a quarter hour; null: none that is known. */
function troubles(
  options: Parameters<typeof allowedStarts>[0],
  from: number,
  count: number,
): (i: number) => Trouble | null {
  const { series, limits, method, sheltered = false } = options;
  const next: (Trouble | null)[] = [];
  let known: Trouble | null = null;
  for (let i = count; i >= 0; i -= 1) {
    const at = from + i * STEP_MS;
    const weather = weatherAt(series.air, at);
    const found: LimitBreak | undefined = weather
      ? checkConditions({
          conditions: conditionsIn(weather, temperatureAt(series.surface, at)),
          limits,
          method,
          sheltered,
        }).breaks[0]
      : undefined;
    if (found) known = { at, break: found };
    next[i] = known;
  }
  return (i) => next[i] ?? null;
}
