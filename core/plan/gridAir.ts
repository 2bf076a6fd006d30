import { tightLimits } from '../air/conditions';
import { dewPointC } from '../air/dewPoint';
import { temperatureAt } from '../air/surfaceSeries';
import { timeLaw, type MilestoneKind } from '../cure/arrhenius';
import { prepareClock } from '../cure/preparedClock';
import type { TimeTable } from '../model/timeTable';
import { SECOND_MS, stepFrom, stepTo, type Item, type Model } from './model';
import type { CoatTask, PlanSeries } from './problem';

/** What rounding may take off a sum of thousands of pieces. */
const ROUNDING = 1e-12;

/** Weather at every grid instant of a plan. */
export interface GridSeries {
  readonly airC: Float64Array;
  readonly rh: Float64Array;
  readonly windMs: Float64Array;
  readonly surfaceC: Float64Array;
  readonly dewC: Float64Array;
  /** 1 where it rains. */
  readonly rain: Uint8Array;
}

/** Progress of a clock from the first grid instant to each, and what a second more or less adds there. */
export interface GridClock {
  readonly progress: Float64Array;
  readonly second: Float64Array;
}

/** The tables of clocks and limits of a model on its weather: worked out when first asked for, and kept. */
export interface GridAir {
  readonly series: (name: string) => GridSeries;
  /** The first grid instant at which a minimum counted from each instant is reached; `last + 1`: never. */
  readonly reach: (series: string, table: TimeTable, minCureC: number | null) => Int32Array;
  /** The last grid instant at which a limit counted from each instant holds; `last`: it holds to the end and beyond. */
  readonly hold: (series: string, table: TimeTable) => Int32Array;
  /** The first grid instant from each on at which a limit of the coat is broken; `last + 1`: none. */
  readonly nextBreak: (item: Item) => Int32Array;
  readonly nextRain: (series: string) => Int32Array;
  /** Of a coat that is done: the step at which a minimum from its finish is reached (may be before now). */
  readonly doneReach: (item: Item, table: TimeTable, minCureC: number | null) => number;
  readonly doneHold: (item: Item, table: TimeTable) => number;
  /** Share of a clock that a coat that is done has behind it at the first step. */
  readonly doneProgress: (item: Item, kind: MilestoneKind, table: TimeTable, minCureC: number | null) => number;
  /** Whether the longest time to the water, of a coat begun at a step or done, still holds at a step between two. */
  readonly holdsAt: (item: Item, start: number, by: number) => boolean;
  /** Whether it rained at a grid instant from then until just before now. */
  readonly wetSince: (series: string, at: number) => boolean;
}

export const tableKey = (series: string, kind: MilestoneKind, table: TimeTable, minCureC: number | null) =>
  `${series}|${kind}|${minCureC ?? ''}|${table.map((c) => `${c.tempC}:${c.hours}`).join()}`;

/** Kept by name, made when first asked for. */
export function keeper<T>(): (key: string, make: () => T) => T {
  const kept = new Map<string, T>();
  return (key, make) => {
    let found = kept.get(key);
    if (found === undefined) kept.set(key, (found = make()));
    return found;
  };
}

/** The weather of the problem itself, laid on the grid. */
export function gridAir(model: Model): GridAir {
  const { problem, last, stepMs } = model;
  const grid = { now: problem.now, stepMs };
  const seriesOf = (name: string) => problem.series[name] as PlanSeries;
  const nameOf = (item: Item) => (model.zones[item.zone] as Model['zones'][number]).series;
  const laid = keeper<GridSeries>();
  const series = (name: string) => laid(name, () => gridSeries(seriesOf(name), problem.now, stepMs, last + 1));
  const prepared = keeper<ReturnType<typeof prepareClock>>();
  const clock = (name: string, kind: MilestoneKind, table: TimeTable, minCureC: number | null) =>
    prepared(tableKey(name, kind, table, minCureC), () =>
      prepareClock({ table, kind, temps: seriesOf(name).surface, ...(minCureC === null ? {} : { minCureC }) }),
    );
  return {
    ...tablesOf(model, {
      series,
      clock: (name, kind, table, minCureC) => ({
        progress: clock(name, kind, table, minCureC).along(problem.now, stepMs, last + 1),
        second: secondsAt(series(name).surfaceC, table, kind, minCureC),
      }),
    }),
    doneReach(item, table, minCureC) {
      const at = clock(nameOf(item), 'minimum', table, minCureC).reachedAt(item.done?.finishedAt as number);
      return at === null ? last + 1 : stepFrom(at, grid);
    },
    doneHold(item, table) {
      const at = clock(nameOf(item), 'maximum', table, null).reachedAt(item.done?.startedAt as number);
      return at === null ? last : Math.min(last, stepTo(at, grid));
    },
    doneProgress: (item, kind, table, minCureC) =>
      clock(nameOf(item), kind, table, minCureC).progress(
        kind === 'minimum' ? (item.done?.finishedAt as number) : (item.done?.startedAt as number),
        problem.now,
      ),
    holdsAt(item, start, by) {
      const table = (item.coat as CoatTask).immersion?.maximum as TimeTable;
      const from = item.done ? item.done.startedAt : problem.now + start * stepMs;
      return clock(nameOf(item), 'maximum', table, null).progress(from, problem.now + by * stepMs - SECOND_MS) <= 1;
    },
    wetSince(name, at) {
      const { air } = seriesOf(name);
      for (let step = Math.ceil((at - problem.now) / stepMs); step < 0; step += 1) {
        const instant = problem.now + step * stepMs;
        const hour = air.findLast((h) => h.at <= instant);
        if ((hour?.rainMm ?? 0) > 0) return true;
      }
      return false;
    },
  };
}

/** How weather is laid on the grid, and clocks along it. */
export interface AirSource {
  readonly series: (name: string) => GridSeries;
  readonly clock: (name: string, kind: MilestoneKind, table: TimeTable, minCureC: number | null) => GridClock;
}

/** The tables that are looked up by grid instants, from weather and clocks on the grid. */
export function tablesOf(
  model: Model,
  { series, clock }: AirSource,
): Pick<GridAir, 'series' | 'reach' | 'hold' | 'nextBreak' | 'nextRain'> {
  const { last } = model;
  const arrays = keeper<Int32Array>();
  return {
    series,
    reach: (name, table, minCureC) =>
      arrays(tableKey(name, 'minimum', table, minCureC), () => reached(clock(name, 'minimum', table, minCureC), last)),
    hold: (name, table) =>
      arrays(tableKey(name, 'maximum', table, null), () => holding(clock(name, 'maximum', table, null), last)),
    nextBreak(item) {
      const { series: name, sheltered } = model.zones[item.zone] as Model['zones'][number];
      const { limits, method } = item.coat as CoatTask;
      return arrays(`${name}|${sheltered}|${method}|${Object.values(limits).join()}`, () => {
        const at = tightLimits({ limits, method, sheltered });
        const { airC, rh, surfaceC, dewC, windMs, rain } = series(name);
        const out = new Int32Array(last + 2).fill(last + 1);
        for (let k = last; k >= 0; k -= 1) {
          const s = surfaceC[k] as number;
          const a = airC[k] as number;
          const fine =
            s >= at.surfaceFromC &&
            s <= at.surfaceToC &&
            s - (dewC[k] as number) >= at.spreadFromC &&
            (rh[k] as number) <= at.rhTo &&
            a >= at.airFromC &&
            a <= at.airToC &&
            !((windMs[k] as number) > at.windToMs) &&
            !(at.rain && rain[k] === 1);
          out[k] = fine ? (out[k + 1] as number) : k;
        }
        return out;
      });
    },
    nextRain: (name) => arrays(`rain|${name}`, () => nextOf(last, (k) => series(name).rain[k] === 1)),
  };
}

/** Limits and air of a series at grid instants. Linear between samples; rain is that of the sample before. */
export function gridSeries({ air, surface }: PlanSeries, now: number, stepMs: number, count: number): GridSeries {
  const floats = () => new Float64Array(count);
  const out = { airC: floats(), rh: floats(), windMs: floats(), surfaceC: floats(), dewC: floats() };
  const rain = new Uint8Array(count);
  let i = 0;
  for (let k = 0; k < count; k += 1) {
    const at = now + k * stepMs;
    while (i < air.length - 1 && (air[i + 1] as { at: number }).at <= at) i += 1;
    const a = air[i] as PlanSeries['air'][number];
    const b = air[i + 1] ?? a;
    const share = b.at > a.at ? (at - a.at) / (b.at - a.at) : 0;
    const mix = (x: number | undefined, y: number | undefined) =>
      x === undefined || y === undefined ? (x ?? y ?? NaN) : x + (y - x) * share;
    out.airC[k] = mix(a.airC, b.airC);
    out.rh[k] = mix(a.rh, b.rh);
    out.windMs[k] = mix(a.windMs, b.windMs);
    out.surfaceC[k] = temperatureAt(surface, at);
    out.dewC[k] = dewPointC({ airC: out.airC[k] as number, rh: out.rh[k] as number });
    rain[k] = (a.rainMm ?? 0) > 0 ? 1 : 0;
  }
  return { ...out, rain };
}

/** Share of a clock that a second is, at each grid instant. */
export function secondsAt(
  surfaceC: Float64Array,
  table: TimeTable,
  kind: MilestoneKind,
  minCureC: number | null,
): Float64Array {
  const hoursAt = timeLaw({ table, kind, ...(minCureC === null ? {} : { minCureC }) });
  return surfaceC.map((c) => 1 / (3600 * hoursAt(c)));
}

/** A later start is never reached sooner: one walk answers for all. */
function reached({ progress, second }: GridClock, last: number): Int32Array {
  const out = new Int32Array(last + 2).fill(last + 1);
  let j = 0;
  for (let k = 0; k <= last; k += 1) {
    const goal = (progress[k] as number) + 1 - ROUNDING;
    if (j < k) j = k;
    while (j <= last && (progress[j] as number) + (second[j] as number) < goal) j += 1;
    out[k] = j;
  }
  return out;
}

function holding({ progress, second }: GridClock, last: number): Int32Array {
  const out = new Int32Array(last + 2).fill(last);
  let j = 0;
  for (let k = 0; k <= last; k += 1) {
    const goal = (progress[k] as number) + 1 + ROUNDING;
    if (j < k) j = k;
    while (j < last && (progress[j + 1] as number) - (second[j + 1] as number) <= goal) j += 1;
    out[k] = j;
  }
  return out;
}

function nextOf(last: number, is: (k: number) => boolean): Int32Array {
  const out = new Int32Array(last + 2).fill(last + 1);
  for (let k = last; k >= 0; k -= 1) out[k] = is(k) ? k : (out[k + 1] as number);
  return out;
}
