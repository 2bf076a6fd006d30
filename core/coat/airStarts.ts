import type { Coat } from './fold';

/** A day later it is asked how it turned out, and for two weeks. */
const ASK_AFTER_MS = 12 * 3_600_000;
const ASK_UNTIL_MS = 14 * 86_400_000;

/**
 * Coats that were started against the air, and of which nobody has said yet how they turned out: asked from the next day on.
 * @example airStartsToAsk([], noon) // → []
 */
export function airStartsToAsk<C extends Pick<Coat, 'against' | 'startedAt' | 'notes'>>(
  coats: readonly C[],
  now: number,
): C[] {
  return coats.filter(
    ({ against, startedAt, notes }) =>
      (against?.some((kind) => kind === 'air' || kind === 'untilDry') ?? false) &&
      now - startedAt >= ASK_AFTER_MS &&
      now - startedAt <= ASK_UNTIL_MS &&
      !notes.some((n) => n.about === 'airStart'),
  );
}
