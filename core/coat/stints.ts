import type { CoveredBody, LogEntry } from '../model/log';

/** A stretch of work on a coat, by the same hands. */
export interface Stint {
  readonly from: number;
  /** Epoch ms; null while it goes on. */
  readonly to: number | null;
  /** Who was at it; at least one, without a name where nobody said. */
  readonly painters: readonly string[];
}

/**
 * The stints of a coat, from its entries that stand, in order of what happened: a pause ends one, going on again or with
 * other hands begins one.
 * @example stintsOf(entries).map((s) => (s.to - s.from) / hour) // → [1]
 */
export function stintsOf(entries: readonly LogEntry[]): Stint[] {
  const stints: { from: number; to: number | null; painters: readonly string[] }[] = [];
  const close = (at: number) => {
    const last = stints[stints.length - 1];
    if (last && last.to === null) last.to = at;
  };
  for (const e of entries) {
    if (e.kind === 'started')
      stints.push({ from: e.occurredAt, to: null, painters: named(e.body.painters, e.painter) });
    else if (e.kind === 'resumed') {
      const before = stints[stints.length - 1]?.painters ?? [e.painter];
      close(e.occurredAt);
      stints.push({ from: e.occurredAt, to: null, painters: e.body.painters?.length ? e.body.painters : before });
    } else if (e.kind === 'paused' || e.kind === 'finished') close(e.occurredAt);
  }
  return stints;
}

const named = (said: readonly string[] | undefined, writer: string): readonly string[] =>
  said && said.length > 0 ? said : [writer];

const HOUR_MS = 3_600_000;

/**
 * Hours of work on a coat: all painters' together.
 * @param now for a stint that goes on
 * @example painterHours([{ from: noon, to: noon + hour, painters: ['Ada', 'Bo'] }], noon) // → 2
 */
export function painterHours(stints: readonly Stint[], now: number): number {
  return stints.reduce((sum, s) => sum + (Math.max(0, (s.to ?? now) - s.from) / HOUR_MS) * s.painters.length, 0);
}

/** How far a coat has come on each of its zones that were told of: the newest of each. */
export function coveredOf(entries: readonly LogEntry[]): CoveredBody[] {
  const newest = new Map<string, CoveredBody>();
  for (const e of entries) if (e.kind === 'covered') newest.set(e.body.surfaceId, e.body);
  return [...newest.values()];
}
