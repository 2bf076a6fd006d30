import { DateTime } from 'luxon';

/**
 * The instants (epoch ms, earlier first) that a wall-clock time such as `2026-10-25T01:30` can mean in a zone: two in
 * the hour that comes twice when clocks go back; one otherwise, where a time that is skipped is moved on as far as the
 * clocks are; none where it cannot be read.
 */
export function instantsOf(local: string, zone: string): number[] {
  const read = DateTime.fromISO(local, { zone });
  if (!read.isValid) return [];
  const wall = DateTime.fromISO(local, { zone: 'utc' }).toMillis();
  const offsets = new Set([-1, 0, 1].map((days) => DateTime.fromMillis(wall + days * 86_400_000, { zone }).offset));
  const found = [...offsets]
    .map((offset) => wall - offset * 60_000)
    .filter(
      (at) =>
        DateTime.fromMillis(at, { zone }).toMillis() - wall === -DateTime.fromMillis(at, { zone }).offset * 60_000,
    );
  return found.length > 0 ? found.sort((a, b) => a - b) : [read.toMillis()];
}
