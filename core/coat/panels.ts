import { notNegative } from '../guard';
import type { Side, ZoneKind } from '../model/surface';
import { PAINT_ORDER, sections, type PaintOrder } from './sections';

/** The panels of a zone, as they are ticked off. */
export interface ZonePanels {
  /** Of each side that it has. */
  readonly perSide: number;
  readonly sides: readonly ('port' | 'starboard' | 'whole')[];
  readonly of: number;
  readonly widthM: number;
  readonly areaM2: number;
  readonly order: PaintOrder;
}

/** Zones that lie on the two sides of a boat. */
const SIDED: ReadonlySet<ZoneKind> = new Set([
  'underwater',
  'bootTop',
  'topsides',
  'keel',
  'rudder',
  'sternGear',
] as const);

/** More of them cannot be told apart on a phone. */
const MOST_PER_SIDE = 16;

/** A face inside is about so much longer than high. [M] */
const INSIDE_LONGER = 1.5;

/**
 * The panels that a zone is painted in, so that each meets a wet edge: its sides apart, its length by the boat's.
 * @param options.wetEdgeH how long an edge stays wet, h
 * @throws RangeError on an impossible rate or wet edge
 * @example
 *   zonePanels({
 *     zone: { kind: 'underwater', areaM2: 20, side: 'both' },
 *     boat,
 *     rateM2PerH: 10,
 *     painters: 1,
 *     wetEdgeH: 0.25,
 *   }).of // → 8
 */
export function zonePanels(options: {
  zone: { readonly kind: ZoneKind; readonly areaM2: number; readonly side: Side };
  boat: { readonly loaM: number; readonly lwlM: number };
  rateM2PerH: number;
  painters: number;
  wetEdgeH: number;
}): ZonePanels {
  const { zone, boat, rateM2PerH, painters, wetEdgeH } = options;
  const sides = sidesOf(zone);
  const areaM2 = Math.max(0.01, notNegative(zone.areaM2, 'Area')) / sides.length;
  const lengthM = faceLengthM(zone.kind, boat, areaM2);
  const face = sections({ lengthM, heightM: areaM2 / lengthM, rateM2PerH, painters, wetEdgeH });
  const perSide = Math.min(MOST_PER_SIDE, face.count);
  return {
    perSide,
    sides,
    of: perSide * sides.length,
    widthM: lengthM / perSide,
    areaM2: areaM2 / perSide,
    order: PAINT_ORDER[zone.kind],
  };
}

function sidesOf({ kind, side }: { kind: ZoneKind; side: Side }): ZonePanels['sides'] {
  if (!SIDED.has(kind) || side === 'part') return ['whole'];
  return side === 'both' ? ['starboard', 'port'] : [side];
}

/** Zones that run along the whole boat, and along which of her lengths. */
const ALONG: Partial<Record<ZoneKind, 'lwlM' | 'loaM'>> = {
  underwater: 'lwlM',
  bootTop: 'lwlM',
  topsides: 'loaM',
  deck: 'loaM',
};

function faceLengthM(kind: ZoneKind, boat: { loaM: number; lwlM: number }, areaM2: number): number {
  const along = ALONG[kind];
  return along ? boat[along] : Math.min(boat.loaM, Math.sqrt(areaM2 * INSIDE_LONGER));
}
