import { foldLog } from '../coat/fold';
import type { LogEntry } from '../model/log';
import type { MaskItem, Surface } from '../model/surface';
import { foldPrep } from './prepLog';

/** A thing or an edge that must be clear before she floats. */
export interface StillMasked {
  readonly job: string;
  readonly surfaceId: string;
  /** `on`: masked, and never said to be off; `unchecked`: painted around since it was last looked at. */
  readonly why: 'on' | 'unchecked';
}

/**
 * What must still be unmasked, or looked at, before she floats: all that is masked, and every thing that is never painted
 * on a zone that got a coat since it was last said to be clear. Anodes that are painted over protect nothing. [CP]
 * @example boatStillMasked({ surfaces: [zone], entries }) // → []
 */
export function boatStillMasked(boat: {
  readonly surfaces: readonly (Pick<Surface, 'id'> & { readonly maskList?: readonly MaskItem[] })[];
  readonly entries: readonly LogEntry[];
}): StillMasked[] {
  const { surfaces, entries } = boat;
  const { coats } = foldLog(entries);
  return surfaces.flatMap(({ id, maskList = [] }) => {
    const log = foldPrep(entries).get(id);
    const coatedAt = coats.findLast((c) => c.on.some((t) => t.surfaceId === id))?.startedAt ?? -Infinity;
    const on = log?.masked.map((m) => m.job) ?? [];
    const unchecked = maskList
      .map((item) => `thing:${item.id}`)
      .filter((job) => !on.includes(job) && (log?.unmaskedAt.get(job) ?? -Infinity) < coatedAt);
    return [
      ...on.map((job) => ({ job, surfaceId: id, why: 'on' }) as const),
      ...unchecked.map((job) => ({ job, surfaceId: id, why: 'unchecked' }) as const),
    ];
  });
}
