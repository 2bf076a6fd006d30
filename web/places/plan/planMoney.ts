import { planCost, type PlanCost } from '#core/plan/planCost';
import type { CoatPlan } from '#core/plan/problem';
import type { Hand, JobShelter } from '#core/model/jobPlan';
import { heatOf, outAt } from '../../data/planning';
import type { BoatPlan } from './usePlan';

/** What a plan of the boat costs from now on: people, the yard's days, heat of the shelters that it goes by. */
export function moneyOf(
  { view, rules }: Pick<BoatPlan, 'view' | 'rules'>,
  found: {
    readonly plan: CoatPlan;
    readonly now: number;
    readonly readyAt: number;
    readonly shelters: readonly JobShelter[];
    readonly hands?: readonly Hand[] | undefined;
  },
): PlanCost {
  const job = view.jobs[view.jobs.length - 1];
  return planCost({
    tasks: found.plan.tasks,
    perHourMinor: Object.fromEntries((found.hands ?? rules?.hands ?? []).map((h) => [h.name, h.perHourMinor ?? 0])),
    // Days afloat are not days on the hard.
    now: Math.max(found.now, outAt(view) ?? 0),
    readyAt: found.readyAt,
    yardPerDayMinor: job?.yardCostPerDayMinor ?? 0,
    // Nobody heats a shelter when she is ready.
    heatMinor: rules
      ? heatOf(
          view,
          found.shelters.map((s) => ({ ...s, to: Math.min(s.to, found.readyAt) })),
          rules,
        ).costMinor
      : 0,
  });
}
