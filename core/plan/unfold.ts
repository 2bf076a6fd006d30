import { gridAir, type AirSource, type GridAir } from './gridAir';
import { knownAir, quickSource } from './memberAir';
import { modelOf, type Item, type Model } from './model';
import type { PlanProblem, PlanSeries } from './problem';
import { copyPlacement, isPlaced, jobOf, readyOf, scoreOf, type Broken, type Job, type Placement } from './score';
import { compareFound, rebuild, type Found } from './search';
import { fixedStarts } from './starts';
import { unitsOf, type Unit } from './units';

const DAY_MS = 86_400_000;

/** Weather is taken as known so far ahead of each day: a forecast for the day after tomorrow is rarely wrong. [CP] */
export const KNOWN_DAYS = 2;

/** A day of one weather, and the plan as it stands then. */
export interface UnfoldedDay {
  /** Step at which the day begins. */
  readonly from: number;
  readonly job: Job;
  readonly placement: Placement;
  readonly score: Found['score'];
  /** What of the plan of the day before would not have held; empty where it was kept. */
  readonly broke: readonly Broken[];
}

/** What stays the same over all weathers of a problem. */
export interface Unfolding {
  readonly model: Model;
  readonly units: readonly Unit[];
  readonly base: GridAir;
  readonly forecast: AirSource;
}

export function unfoldingOf(problem: PlanProblem): Unfolding {
  const model = modelOf(problem);
  return {
    model,
    units: unitsOf(model),
    base: gridAir(model),
    forecast: quickSource(model, (name) => problem.series[name] as PlanSeries),
  };
}

/**
 * Live through one weather with a plan: each day what has been begun stays, the weather of the next two days is known, the
 * rest is taken from the first forecast; where the plan no longer holds, or is late, what has not been begun is planned
 * again. Nobody looks further ahead than a painter could.
 */
export function* unfold(
  { model, units, base, forecast }: Unfolding,
  weather: AirSource,
  start: Placement,
  random: () => number,
): Generator<UnfoldedDay, UnfoldedDay> {
  const day = Math.max(1, Math.round(DAY_MS / model.stepMs));
  let placement = start;
  let last: UnfoldedDay | null = null;
  for (let from = 0; from < model.last || last === null; from += day) {
    const until = from + day * KNOWN_DAYS;
    const job = jobOf(model, knownAir(model, { base, weather, forecast, until }));
    const broke: Broken[] = [];
    const score = scoreOf(job, placement, (broken) => {
      if (broken.rule !== 'notReady' && broken.rule !== 'unplaced') broke.push(broken);
    });
    let found: Found = { placement, score, strain: 0 };
    // What was left out before is tried again every third day: it costs more than the rest.
    const again =
      score[2] > 0 || (score[1] > 0 && (last === null || score[1] > last.score[1] || (from / day) % 3 === 0));
    if (score[0] > 0 || again) found = replanned({ job, units, from, random }, found);
    placement = found.placement;
    last = { from, job, placement, score: found.score, broke };
    yield last;
    const rest = model.items.some(
      (i) =>
        !i.done &&
        (!isPlaced(placement, i.index) ? i.kind !== 'abrade' : (placement.start[i.index] as number) >= from + day),
    );
    // The weather of the last clocks is known too once nothing more is to be done.
    if (!rest && until >= model.last) break;
  }
  return last;
}

/** Plan again what has not been begun: first only what is broken and what comes after it, then all. */
function replanned(
  { job, units, from, random }: { job: Job; units: readonly Unit[]; from: number; random: () => number },
  kept: Found,
): Found {
  const { model } = job;
  const context = { job, fixed: fixedStarts(job), random, from };
  const begun = (item: number) => isPlaced(kept.placement, item) && (kept.placement.start[item] as number) < from;
  const open = units.flatMap((unit) => {
    const order = unit.order.filter((item) => !begun(item));
    return order.length > 0 ? [{ ...unit, order }] : [];
  });
  if (open.length === 0) return kept;
  const base = copyPlacement(kept.placement);
  const troubled = new Set<number>();
  scoreOf(job, base, ({ item, rule }) => {
    if (item >= 0 && rule !== 'chain') troubled.add((model.items[item] as Item).zone);
  });
  const some = open.filter((unit) => troubled.has(unit.zone));
  let best: Found | null = null;
  for (const taken of [some, open]) {
    if (taken.length === 0) continue;
    const found = rebuild(context, base, taken);
    if (best === null || compareFound(found, best) < 0) best = found;
    if (best.score[0] === 0 && best.score[1] === 0 && best.score[2] <= kept.score[2]) break;
  }
  return best !== null && compareFound(best, kept) < 0 ? best : kept;
}

/** When each boat was ready in the end, in steps; null: not within the days of the plan. */
export const endReady = ({ job, placement }: UnfoldedDay): (number | null)[] => readyOf(job, placement);
