import { DateTime } from 'luxon';
import { counted } from '#core/units/format';
import type { Segment } from './journal';

/** Changes that no line of the journal tells of: numbers from, to, both included, and when those around them were made. */
export interface Lack {
  readonly from: number;
  readonly to: number;
  /** Epoch ms; null where nothing stands before or after them. */
  readonly after: number | null;
  readonly before: number | null;
}

/** Lines of one history that can be read, by number. */
export type Seen = ReadonlyMap<number, number>;

/** Every number that can be read of a history, with its time. */
export function seenOf(segments: readonly Segment[], history: string): Seen {
  return new Map(segments.filter((s) => s.head?.history === history).flatMap((s) => s.seen.map((l) => [l.n, l.at])));
}

/**
 * Which of the changes from `from` to `to` (both included) are not there.
 * @example lacking(new Map([[1, 100], [4, 200]]), 1, 5) // → [{ from: 2, to: 3, after: 100, before: 200 }, { from: 5, to: 5, after: 200, before: null }]
 */
export function lacking(seen: Seen, from: number, to: number): Lack[] {
  const there = [...seen.keys()].filter((n) => n >= from && n <= to).sort((a, b) => a - b);
  const lacks: Lack[] = [];
  let next = from;
  for (const n of [...there, to + 1]) {
    if (n > next) lacks.push({ from: next, to: n - 1, after: seen.get(next - 1) ?? null, before: seen.get(n) ?? null });
    next = n + 1;
  }
  return lacks;
}

export const momentWords = (at: number): string => DateTime.fromMillis(at).toFormat('d LLLL yyyy HH:mm:ss');

/** "changes 11 to 20, made between 3 May 2026 10:00:00 and 3 May 2026 10:20:00". */
export function lackWords({ from, to, after, before }: Lack): string {
  const numbers = from === to ? `change ${from}` : `changes ${from} to ${to}`;
  const when =
    after !== null && before !== null
      ? `, made between ${momentWords(after)} and ${momentWords(before)}`
      : after !== null
        ? `, made after ${momentWords(after)}`
        : before !== null
          ? `, made before ${momentWords(before)}`
          : '';
  return numbers + when;
}

/** What is wrong in the files of a journal themselves, in sentences. */
export function damageWords(segments: readonly Segment[]): string[] {
  return segments.flatMap((s) =>
    s.damaged.length === 0
      ? []
      : [
          `In ${s.file} ${counted(s.damaged.length, 'line')} cannot be read (${s.damaged.slice(0, 5).join(', ')}${s.damaged.length > 5 ? ' …' : ''}).`,
        ],
  );
}
