import { Impossible } from '../impossible';
import { runSteps } from '../steps';
import { checkProblem } from './checkProblem';
import { quickSource } from './memberAir';
import type { Item, Model } from './model';
import { placementOf } from './placementOf';
import { planCoats } from './planCoats';
import type { CoatPlan, PlanProblem, PlanSeries } from './problem';
import type { Broken } from './score';
import { seeded } from './seeded';
import { endReady, unfold, unfoldingOf, type UnfoldedDay } from './unfold';

export interface OddsOptions {
  /** How many weathers are lived through. */
  readonly members: number;
  /** The weather of a member, from 1 on, under the names of the problem's series. */
  readonly seriesOf: (member: number) => Readonly<Record<string, PlanSeries>>;
  readonly seed: number;
  /** The plan that is begun with; left out: one is made. */
  readonly plan?: CoatPlan;
  /** Once aborted, what has been lived through so far is the answer. */
  readonly signal?: { readonly aborted: boolean };
  readonly onProgress?: (share: number) => void;
}

/** Finish of one in ten, of half, and of nine in ten, epoch ms; null: not within the days of the plan. */
export interface Finish {
  readonly early: number | null;
  readonly likely: number | null;
  readonly late: number | null;
}

export interface LaunchOdds {
  /** Share of the weathers in which every boat that has a date is ready by it. */
  readonly share: number;
  readonly finish: Finish;
  /** Tasks that first threw the plan off in a weather that missed, most often first; shares of all weathers. */
  readonly breaks: readonly { readonly task: string; readonly share: number }[];
  readonly boats: readonly { readonly id: string; readonly share: number; readonly finish: Finish }[];
  /** Weathers lived through, and those of them that missed a date, by their numbers. */
  readonly members: number;
  readonly missed: readonly number[];
}

/**
 * The odds of a plan: it is lived through in many weathers that the forecast allows. In each, day by day, only what could
 * be known then is known: the weather of the next two days, and the first forecast for the rest. What has been begun stays
 * and its clocks run on the weather as it comes; what no longer holds is planned again. So the share is that of somebody
 * who replans every morning, not of hindsight.
 *
 * @throws RangeError as `planCoats`
 * @example
 *   launchOdds(smallPlan, { members: 3, seriesOf: () => smallPlan.series, seed: 1 }).share // → 1
 */
export function launchOdds(problem: PlanProblem, options: OddsOptions): LaunchOdds {
  return runSteps(oddsSteps(problem, options));
}

/**
 * As `launchOdds`, a weather at a time.
 * @example runSteps(oddsSteps(smallPlan, { members: 2, seriesOf: () => smallPlan.series, seed: 1 })).members // → 2
 */
export function* oddsSteps(problem: PlanProblem, options: OddsOptions): Generator<number, LaunchOdds> {
  checkProblem(problem);
  const { members, seriesOf, seed, signal, onProgress } = options;
  if (!(Number.isInteger(members) && members > 0)) throw new Impossible('Ask for at least one weather.');
  const unfolding = unfoldingOf(problem);
  const { model } = unfolding;
  const plan = options.plan ?? planCoats(problem, { steps: 40, seed });
  const begin = placementOf(model, plan);
  const ends: { ready: (number | null)[]; culprit: number | null }[] = [];
  for (let member = 1; member <= members && signal?.aborted !== true; member += 1) {
    const series = seriesOf(member);
    const weather = quickSource(model, (name) => series[name] as PlanSeries);
    ends.push(lived(unfold(unfolding, weather, begin, seeded(seed + member))));
    onProgress?.(member / members);
    yield member / members;
  }
  return summary(model, ends);
}

/** Live through a weather to its end: when the boats were ready, and what first threw the plan off for good. */
function lived(days: Generator<UnfoldedDay, UnfoldedDay>): { ready: (number | null)[]; culprit: number | null } {
  let culprit: number | null = null;
  let worst = Infinity;
  for (;;) {
    const step = days.next();
    if (step.done) return { ready: endReady(step.value), culprit };
    const { score, broke } = step.value;
    const miss = score[0] * 1e6 + score[1] * 1e3 + score[2];
    if (worst !== Infinity && miss > worst) culprit ??= firstOf(step.value, broke);
    worst = Math.min(worst, miss);
  }
}

/** Of what broke, the earliest coat or task. */
function firstOf({ placement }: UnfoldedDay, broke: readonly Broken[]): number | null {
  const items = broke.filter((b) => b.item >= 0).map((b) => b.item);
  if (items.length === 0) return null;
  const at = (item: number) => {
    const start = placement.start[item] as number;
    return start < 0 ? Infinity : start;
  };
  return items.reduce((first, item) => (at(item) < at(first) ? item : first));
}

function summary(model: Model, ends: readonly { ready: (number | null)[]; culprit: number | null }[]): LaunchOdds {
  const made = (boat: number, ready: readonly (number | null)[]) => {
    const { launch } = model.boats[boat] as Model['boats'][number];
    const at = ready[boat] ?? null;
    return at !== null && (launch === null || at <= launch);
  };
  const share = (count: number) => (ends.length === 0 ? 0 : count / ends.length);
  const all = (ready: readonly (number | null)[]) => ready.every((_, boat) => made(boat, ready));
  const counts = new Map<number, number>();
  for (const { ready, culprit } of ends)
    if (!all(ready) && culprit !== null) counts.set(culprit, (counts.get(culprit) ?? 0) + 1);
  return {
    share: share(ends.filter((e) => all(e.ready)).length),
    finish: finishOf(
      model,
      ends.map(({ ready }) => (ready.some((r) => r === null) ? null : Math.max(0, ...(ready as number[])))),
    ),
    breaks: [...counts]
      .map(([item, count]) => ({ task: (model.items[item] as Item).id, share: share(count) }))
      .sort((a, b) => b.share - a.share),
    boats: model.boats.map(({ id }, boat) => ({
      id,
      share: share(ends.filter((e) => made(boat, e.ready)).length),
      finish: finishOf(
        model,
        ends.map((e) => e.ready[boat] ?? null),
      ),
    })),
    members: ends.length,
    missed: ends.flatMap((e, i) => (all(e.ready) ? [] : [i + 1])),
  };
}

function finishOf(model: Model, steps: readonly (number | null)[]): Finish {
  const sorted = steps.map((s) => s ?? Infinity).sort((a, b) => a - b);
  const at = (q: number) => {
    const step = sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))];
    return step === undefined || step === Infinity ? null : model.problem.now + step * model.stepMs;
  };
  return { early: at(0.1), likely: at(0.5), late: at(0.9) };
}
