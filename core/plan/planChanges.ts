import type { AcceptedTask } from '../model/jobPlan';

/** What is other in a plan than in the one before it. */
export interface PlanChange {
  readonly kind: 'moved' | 'added' | 'gone';
  readonly task: string;
  readonly name: string;
  readonly from: number | null;
  readonly to: number | null;
}

/** A task that starts within half an hour of where it was has not moved. */
const SAME_MS = 30 * 60_000;

/**
 * What has changed from one plan to the next, coats first, then in order of time. What had begun by `since` is left out:
 * it is done or being done.
 * @example
 *   planChanges({ before: [], after: [{ id: 'c', zoneId: 'z', kind: 'coat', name: 'Barrier 1', painters: [], start: 5, end: 9 }], since: 0 })
 *     .map((c) => c.kind) // → ['added']
 */
export function planChanges({
  before,
  after,
  since,
}: {
  before: readonly AcceptedTask[];
  after: readonly AcceptedTask[];
  since: number;
}): PlanChange[] {
  const was = new Map(before.map((task) => [task.id, task]));
  const is = new Map(after.map((task) => [task.id, task]));
  const changes = after.flatMap((task): (PlanChange & { coat: boolean })[] => {
    const old = was.get(task.id);
    const coat = task.kind === 'coat';
    if (!old) return [{ kind: 'added', task: task.id, name: task.name, from: null, to: task.start, coat }];
    if (Math.abs(old.start - task.start) <= SAME_MS) return [];
    return [{ kind: 'moved', task: task.id, name: task.name, from: old.start, to: task.start, coat }];
  });
  const gone = before.flatMap((task): (PlanChange & { coat: boolean })[] =>
    is.has(task.id) || task.start < since
      ? []
      : [{ kind: 'gone', task: task.id, name: task.name, from: task.start, to: null, coat: task.kind === 'coat' }],
  );
  return [...changes, ...gone]
    .sort((a, b) => Number(b.coat) - Number(a.coat) || (a.to ?? a.from ?? 0) - (b.to ?? b.from ?? 0))
    .map(({ kind, task, name, from, to }) => ({ kind, task, name, from, to }));
}
