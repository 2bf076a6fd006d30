import type { ExistingCoating, Exposure, Shelter, Side, Substrate, Surface, ZoneKind } from '../model/surface';

/** The exposure a zone usually has. */
export const USUAL_EXPOSURE: Record<ZoneKind, Exposure> = {
  underwater: 'immersed',
  keel: 'immersed',
  rudder: 'immersed',
  sternGear: 'immersed',
  bootTop: 'splash',
  topsides: 'weather',
  transom: 'weather',
  deck: 'weather',
  nonSkid: 'weather',
  coachroof: 'weather',
  cockpit: 'weather',
  bilge: 'bilge',
  lockers: 'interior',
  anchorLocker: 'interior',
  engineBay: 'interior',
  tank: 'tank',
};

/**
 * How far sun and sky reach a zone, 0–1: a deck lies open, a bottom on the stands is in its own shade. [M]
 * Interior zones follow the air.
 */
export const OPENNESS: Record<ZoneKind, number> = {
  underwater: 0.15,
  keel: 0.15,
  rudder: 0.25,
  sternGear: 0.15,
  bootTop: 0.4,
  topsides: 0.5,
  transom: 0.5,
  deck: 1,
  nonSkid: 1,
  coachroof: 1,
  cockpit: 0.7,
  bilge: 0,
  lockers: 0,
  anchorLocker: 0,
  engineBay: 0,
  tank: 0,
};

/**
 * Inside the boat, under a cover, in a tent or a building neither rain nor wind reaches the paint, nor sun and night sky.
 * @param boat what stands over the whole boat
 * @example isSheltered({ kind: 'deck', exposure: 'weather', shelter: null }, 'tent') // → true
 */
export function isSheltered(surface: Pick<Surface, 'kind' | 'exposure' | 'shelter'>, boat: Shelter = 'open'): boolean {
  const { kind, exposure, shelter } = surface;
  const inside = exposure === 'interior' || exposure === 'bilge' || exposure === 'tank' || OPENNESS[kind] === 0;
  return inside || (shelter ?? boat) !== 'open';
}

/**
 * What zones are called, those that were removed too: the log still names them.
 * @example zoneNames({ surfaces: [zone], removedZones: [{ id: 'old', name: 'Skeg' }] }).get('old') // → 'Skeg (removed)'
 */
export function zoneNames(of: {
  readonly surfaces: readonly Pick<Surface, 'id' | 'name'>[];
  readonly removedZones: readonly Pick<Surface, 'id' | 'name'>[];
}): Map<string, string> {
  return new Map([
    ...of.removedZones.map((z) => [z.id, `${z.name} (removed)`] as const),
    ...of.surfaces.map((s) => [s.id, s.name] as const),
  ]);
}

/** Share of a whole-hull area that a zone takes. */
export function sideShare(side: Side, partShare: number | null): number {
  return side === 'both' ? 1 : side === 'part' ? (partShare ?? 1) : 0.5;
}

/** Metal that corrodes once it is bare. @example isMetal('steel') // → true */
export const isMetal = (substrate: Substrate): boolean => substrate === 'steel' || substrate === 'aluminium';
/**
 * Whether antifouling lies on a zone already.
 * @example isOldAntifouling('antifoulingHard') // → true
 */
export const isOldAntifouling = (existing: ExistingCoating): boolean =>
  existing === 'antifoulingHard' || existing === 'antifoulingAblative' || existing === 'antifouling';
