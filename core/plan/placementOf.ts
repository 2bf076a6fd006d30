import type { Model } from './model';
import type { CoatPlan } from './problem';
import { emptyPlacement, type Placement } from './score';

/** A plan with names and times as steps of its model; tasks that the model does not know are passed over. */
export function placementOf(model: Model, plan: CoatPlan): Placement {
  const placement = emptyPlacement(model);
  const at = new Map(model.items.map((item) => [item.id, item]));
  for (const { id, start, painters } of plan.tasks) {
    const item = at.get(id);
    const crew =
      item?.crews.findIndex((c) => c.names.length === painters.length && c.names.every((n) => painters.includes(n))) ??
      -1;
    const step = Math.round((start - model.problem.now) / model.stepMs);
    const steps = item?.crews[crew]?.steps ?? 0;
    if (!item || item.done || crew < 0 || step < 0 || step + steps > model.last) continue;
    placement.start[item.index] = step;
    placement.crew[item.index] = crew;
  }
  return placement;
}
