import type { FilmStep } from './filmInTime';
import { filmInTime } from './filmInTime';
import { quickSource } from './memberAir';
import { placementOf } from './placementOf';
import type { CoatPlan, PlanProblem, PlanSeries } from './problem';
import { seeded } from './seeded';
import { planOf } from './session';
import { unfold, unfoldingOf } from './unfold';

/** A day of a rehearsal: the plan as it stands that morning, in the weather that came. */
export interface RehearsedDay {
  /** Epoch ms of that morning's look at it. */
  readonly at: number;
  readonly plan: CoatPlan;
  readonly films: Record<string, FilmStep[]>;
  /** Ids of what of the day before would not have held. */
  readonly broke: readonly string[];
}

/**
 * Live through one weather with a plan, day by day, as the odds do: what was begun stays, what no longer holds is planned
 * again. Nothing is logged.
 * @param options.series the weather, under the names of the problem's series
 * @throws RangeError as `planCoats`
 * @example
 *   rehearse(smallPlan, { plan: planCoats(smallPlan), series: smallPlan.series, seed: 1 }).map((d) => d.broke.length) // → [0, 0, 0]
 */
export function rehearse(
  problem: PlanProblem,
  { plan, series, seed }: { plan: CoatPlan; series: Readonly<Record<string, PlanSeries>>; seed: number },
): RehearsedDay[] {
  const unfolding = unfoldingOf(problem);
  const { model } = unfolding;
  const weather = quickSource(model, (name) => series[name] as PlanSeries);
  const days: RehearsedDay[] = [];
  for (const { from, job, placement, broke } of unfold(unfolding, weather, placementOf(model, plan), seeded(seed))) {
    const found = planOf(job, placement);
    days.push({
      at: problem.now + from * model.stepMs,
      plan: found,
      films: filmInTime({ job, problem }, found),
      broke: [...new Set(broke.flatMap((b) => (b.item >= 0 ? [(model.items[b.item] as { id: string }).id] : [])))],
    });
  }
  return days;
}
