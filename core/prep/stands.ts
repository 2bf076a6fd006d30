import type { ZoneStatus } from '../coat/zoneStatus';

/** A place where a stand is to go. */
export interface StandPlace {
  readonly surfaceId: string;
  /** From when the coats there bear it, epoch ms; null: at once, or nobody knows. */
  readonly bearsAt: number | null;
  /** Whether the sheet of the outermost coat says so. */
  readonly known: boolean;
}

/**
 * Whether zones bear a stand at a moment: the last coat has reached its handle time. Where its sheet gives none the hand
 * has to tell. Stands are moved by the yard only. [CP]
 * @example
 *   standPlaces([{ surfaceId: 'bottom', lastCoat: null, clocks: null }]) // → [{ surfaceId: 'bottom', bearsAt: null, known: true }]
 */
export function standPlaces(statuses: readonly Pick<ZoneStatus, 'surfaceId' | 'lastCoat' | 'clocks'>[]): StandPlace[] {
  return statuses.map(({ surfaceId, lastCoat, clocks }) => {
    if (!lastCoat) return { surfaceId, bearsAt: null, known: true };
    const bearsAt = clocks?.handleAt ?? null;
    return { surfaceId, bearsAt, known: bearsAt !== null };
  });
}
