import { timeLaw, type MilestoneKind } from '../cure/arrhenius';
import type { TimeTable } from '../model/timeTable';
import {
  gridSeries,
  keeper,
  secondsAt,
  tablesOf,
  tableKey,
  type AirSource,
  type GridAir,
  type GridClock,
  type GridSeries,
} from './gridAir';
import type { Item, Model } from './model';
import type { CoatTask, PlanSeries } from './problem';

const HOUR_MS = 3_600_000;

/**
 * One weather on the grid, for many weathers: clocks are summed up from hour to hour at the temperature of the middle, and
 * are straight in between. Off by a minute or so, which is nothing beside what the weathers differ by.
 */
export function quickSource(model: Model, seriesOf: (name: string) => PlanSeries): AirSource {
  const { last, stepMs, problem } = model;
  const laid = keeper<GridSeries>();
  const clocks = keeper<GridClock>();
  const series = (name: string) => laid(name, () => gridSeries(seriesOf(name), problem.now, stepMs, last + 1));
  const stride = Math.max(1, Math.round(HOUR_MS / stepMs));
  return {
    series,
    clock: (name, kind, table, minCureC) =>
      clocks(tableKey(name, kind, table, minCureC), () => {
        const { surfaceC } = series(name);
        const hoursAt = timeLaw({ table, kind, ...(minCureC === null ? {} : { minCureC }) });
        const progress = new Float64Array(last + 1);
        for (let k = 0; k < last; k += stride) {
          const to = Math.min(last, k + stride);
          const middle = ((surfaceC[k] as number) + (surfaceC[to] as number)) / 2;
          const gain = stepMs / HOUR_MS / hoursAt(middle);
          for (let j = k + 1; j <= to; j += 1) progress[j] = (progress[j - 1] as number) + gain;
        }
        return { progress, second: secondsAt(surfaceC, table, kind, minCureC) };
      }),
  };
}

/** What is known of a weather some way into it: itself up to a step, and the forecast of the first day from there on. */
export function knownAir(
  model: Model,
  { base, weather, forecast, until }: { base: GridAir; weather: AirSource; forecast: AirSource; until: number },
): GridAir {
  const { last } = model;
  const cut = Math.min(last, until);
  const laid = keeper<GridSeries>();
  const join = (a: Float64Array, b: Float64Array): Float64Array => {
    const out = b.slice();
    out.set(a.subarray(0, cut + 1));
    return out;
  };
  const series = (name: string): GridSeries =>
    laid(name, () => {
      const [w, f] = [weather.series(name), forecast.series(name)];
      const rain = f.rain.slice();
      rain.set(w.rain.subarray(0, cut + 1));
      return {
        airC: join(w.airC, f.airC),
        rh: join(w.rh, f.rh),
        windMs: join(w.windMs, f.windMs),
        surfaceC: join(w.surfaceC, f.surfaceC),
        dewC: join(w.dewC, f.dewC),
        rain,
      };
    });
  const clock = (name: string, kind: MilestoneKind, table: TimeTable, minCureC: number | null): GridClock => {
    const [w, f] = [weather.clock(name, kind, table, minCureC), forecast.clock(name, kind, table, minCureC)];
    const progress = join(w.progress, f.progress);
    const off = (w.progress[cut] as number) - (f.progress[cut] as number);
    for (let k = cut + 1; k <= last; k += 1) progress[k] = (progress[k] as number) + off;
    return { progress, second: join(w.second, f.second) };
  };
  const nameOf = (item: Item) => (model.zones[item.zone] as Model['zones'][number]).series;
  /** A clock that stood at a share of its way at the first step. */
  const onward = (item: Item, kind: MilestoneKind, table: TimeTable, minCureC: number | null): Float64Array =>
    clock(nameOf(item), kind, table, minCureC).progress;
  return {
    ...tablesOf(model, { series, clock }),
    doneReach(item, table, minCureC) {
      const before = base.doneProgress(item, 'minimum', table, minCureC);
      if (before >= 1) return base.doneReach(item, table, minCureC);
      const progress = onward(item, 'minimum', table, minCureC);
      let k = 0;
      while (k <= last && before + (progress[k] as number) < 1) k += 1;
      return k;
    },
    doneHold(item, table) {
      const before = base.doneProgress(item, 'maximum', table, null);
      if (before > 1) return base.doneHold(item, table);
      const progress = onward(item, 'maximum', table, null);
      let k = 0;
      while (k < last && before + (progress[k + 1] as number) <= 1) k += 1;
      return k;
    },
    doneProgress: base.doneProgress,
    holdsAt(item, start, by) {
      const table = (item.coat as CoatTask).immersion?.maximum as TimeTable;
      const progress = onward(item, 'maximum', table, null);
      const at = progress[Math.max(0, Math.min(last, Math.floor(by)))] as number;
      const from = item.done ? -base.doneProgress(item, 'maximum', table, null) : (progress[start] as number);
      return at - from <= 1;
    },
    wetSince: base.wetSince,
  };
}
