import type { CoatPlan, PlannedTask } from './problem';

/** The first coat that a plan breaks on. */
export interface FirstBreak {
  readonly task: string;
  /** Left out of the plan, put where a rule is against it, or ready after the date. */
  readonly kind: 'unplaced' | 'broken' | 'late';
  /** What stands against it; empty where it is only late. */
  readonly sentence: string;
}

/**
 * The coat that breaks first, in order of time: of those left out the one whose turn comes first, then what breaks a rule,
 * then, where all is placed and the date is missed, the coat that is ready for the water last.
 * @param options.order tasks of the plan as they follow each other in their zones
 * @param options.late the date is missed
 * @param options.waterFrom when a coat may go into the water, epoch ms; left out or null: from its end
 * @example
 *   firstBreak({
 *     plan: { tasks: [], finish: null, violations: [{ task: 'b', limit: 'unplaced', sentence: 'No hours.' }], score: [0, 1, 0, 0, 0, 0] },
 *     order: [{ task: 'a', zoneId: 'z' }, { task: 'b', zoneId: 'z' }],
 *     late: false,
 *   }).task // → 'b'
 */
export function firstBreak(options: {
  plan: CoatPlan;
  order: readonly { readonly task: string; readonly zoneId: string }[];
  late: boolean;
  waterFrom?: (task: string) => number | null | undefined;
}): FirstBreak | null {
  const { plan, order, late, waterFrom } = options;
  const placed = new Map(plan.tasks.map((t) => [t.id, t]));
  const turn = new Map<string, number>();
  const reached = new Map<string, number>();
  for (const { task, zoneId } of order) {
    // When its turn comes: after what is placed before it in its zone.
    turn.set(task, reached.get(zoneId) ?? -Infinity);
    reached.set(zoneId, Math.max(reached.get(zoneId) ?? -Infinity, placed.get(task)?.end ?? -Infinity));
  }
  const place = new Map(order.map(({ task }, i) => [task, i]));
  const whenOf = (task: string) => placed.get(task)?.start ?? turn.get(task) ?? Infinity;
  const known = plan.violations.filter((v) => place.has(v.task) || placed.has(v.task));
  const byTurn = (kind: 'unplaced' | 'broken') =>
    known
      .filter((v) => (v.limit === 'unplaced') === (kind === 'unplaced'))
      .sort((a, b) => whenOf(a.task) - whenOf(b.task) || (place.get(a.task) ?? 0) - (place.get(b.task) ?? 0))[0];
  for (const kind of ['unplaced', 'broken'] as const) {
    const found = byTurn(kind);
    if (found) return { task: found.task, kind, sentence: found.sentence };
  }
  if (!late) return null;
  const readyAt = (t: PlannedTask) => Math.max(t.end, waterFrom?.(t.id) ?? t.end);
  const last = plan.tasks.filter((t) => t.kind === 'coat').sort((a, b) => readyAt(b) - readyAt(a))[0];
  return last ? { task: last.id, kind: 'late', sentence: '' } : null;
}
