import { positive } from '../guard';
import type { ZoneKind } from '../model/surface';

/** Panels that a face is split into, so that the edge of each is wet when the next one meets it. */
export interface Sections {
  readonly count: number;
  readonly widthM: number;
  readonly areaM2: number;
  /** Time that one takes, h. */
  readonly hours: number;
}

/** How long an edge stays wet where the sheet does not say, h at 20 °C. [M] */
export const USUAL_WET_EDGE_H = 1 / 3;

/**
 * Panels of a face that the painters keep wet: as wide as they paint within the wet edge, at the height of the face,
 * all of one width.
 * @param options.lengthM of the face along which the panels follow each other
 * @param options.rateM2PerH of one painter
 * @throws RangeError on impossible input
 * @example
 *   sections({ lengthM: 9, heightM: 1.2, rateM2PerH: 10, painters: 1, wetEdgeH: 0.25 }).count // → 5
 */
export function sections(options: {
  lengthM: number;
  heightM: number;
  rateM2PerH: number;
  painters: number;
  wetEdgeH: number;
}): Sections {
  const lengthM = positive(options.lengthM, 'The length of the face');
  const heightM = positive(options.heightM, 'The height of the face');
  const m2PerH = positive(options.rateM2PerH, 'The rate') * positive(options.painters, 'Painters');
  const widestM = (m2PerH * positive(options.wetEdgeH, 'The wet edge')) / heightM;
  const count = Math.max(1, Math.ceil(lengthM / widestM - 1e-9));
  const widthM = lengthM / count;
  const areaM2 = widthM * heightM;
  return { count, widthM, areaM2, hours: areaM2 / m2PerH };
}

/** Which way a face is painted. */
export type PaintOrder = 'bottomUp' | 'topDown' | 'farthestFirst' | 'awkwardFirst';

/**
 * Which way the parts of a zone are painted: from the bottom up under water, since it drips; top down on topsides;
 * the farthest first and out by a clear way inside; the awkward reach before the place to lean on elsewhere. [CP]
 */
export const PAINT_ORDER: Record<ZoneKind, PaintOrder> = {
  underwater: 'bottomUp',
  keel: 'bottomUp',
  rudder: 'bottomUp',
  sternGear: 'bottomUp',
  bootTop: 'topDown',
  topsides: 'topDown',
  transom: 'topDown',
  deck: 'farthestFirst',
  nonSkid: 'farthestFirst',
  coachroof: 'awkwardFirst',
  cockpit: 'awkwardFirst',
  bilge: 'farthestFirst',
  lockers: 'farthestFirst',
  anchorLocker: 'farthestFirst',
  engineBay: 'farthestFirst',
  tank: 'farthestFirst',
};
