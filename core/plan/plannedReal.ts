import type { Coat } from '../coat/fold';
import type { AcceptedTask } from '../model/jobPlan';
import { coatId } from './jobZone';

/** A coat of an accepted plan beside the one that was put on. */
export interface PlannedReal {
  readonly task: AcceptedTask;
  /** Null: it is not on yet, or not under this name. */
  readonly startedAt: number | null;
  readonly finishedAt: number | null;
  /** How much later than planned it was begun, ms; negative: sooner. */
  readonly laterMs: number | null;
}

/**
 * The coats of an accepted plan beside what was really done, in the order in which they were planned.
 * @example plannedReal({ tasks: [], coats }) // → []
 */
export function plannedReal(options: {
  tasks: readonly AcceptedTask[];
  coats: readonly Pick<Coat, 'on' | 'startedAt' | 'finishedAt'>[];
}): PlannedReal[] {
  const { tasks, coats } = options;
  const real = new Map(coats.flatMap((c) => c.on.map((t) => [coatId(t.surfaceId, t.layerId), c] as const)));
  return tasks
    .filter((t) => t.kind === 'coat')
    .sort((a, b) => a.start - b.start)
    .map((task) => {
      const coat = real.get(task.id);
      return {
        task,
        startedAt: coat?.startedAt ?? null,
        finishedAt: coat?.finishedAt ?? null,
        laterMs: coat ? coat.startedAt - task.start : null,
      };
    });
}
