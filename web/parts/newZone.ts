import { v7 as uuid } from 'uuid';
import type { HullMaterial, Substrate, ZoneKind } from '#core/model/surface';
import { USUAL_EXPOSURE } from '#core/hull/zones';
import type { Boat, SurfaceDraft, SurfaceRow } from '#contracts/rows/boat';
import { ZONE_WORDS } from './choiceWords';

const USUAL_SUBSTRATE: Record<HullMaterial, Substrate> = {
  grp: 'gelcoat',
  steel: 'steel',
  aluminium: 'aluminium',
  timber: 'timber',
  plywood: 'plywood',
  ferrocement: 'ferrocement',
};

export const nextSort = (surfaces: readonly Pick<SurfaceRow, 'sort'>[]) =>
  Math.max(0, ...surfaces.map((s) => s.sort)) + 1;

/** A zone of a kind as it usually is on such a boat, its area by dimensions. */
export function newZone(
  boat: Pick<Boat, 'id' | 'hullMaterial'>,
  kind: ZoneKind,
  sort: number,
): Omit<SurfaceDraft, 'id'> {
  return {
    boatId: boat.id,
    name: ZONE_WORDS[kind],
    kind,
    substrate: USUAL_SUBSTRATE[boat.hullMaterial],
    exposure: USUAL_EXPOSURE[kind],
    existing: 'bare',
    area: { method: 'dimensions', dimensions: {}, typed: null },
    side: 'both',
    partShare: null,
    notes: '',
    maskList: [],
    openWork: [],
    parentId: null,
    patchKind: null,
    sharedCoats: null,
    shelter: null,
    holds: null,
    sort,
    version: 0,
    deleted: false,
  };
}

/** The same as a row to be written; its area is worked out where it lands. */
export const newSurface = (...zone: Parameters<typeof newZone>): SurfaceRow => ({
  ...newZone(...zone),
  id: uuid(),
  areaM2: 0,
  areaShare: 0,
  grossM2: 0,
});
