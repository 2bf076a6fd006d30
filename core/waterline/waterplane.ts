import { finite, notNegative, positive, shareAboveZero } from '../guard';
import { integrate } from '../hull/integrate';
import { samples, type HullShape } from '../hull/shape';
import { Impossible } from '../impossible';

export const WATERS_KINDS = ['sea', 'fresh'] as const;
export type WaterKind = (typeof WATERS_KINDS)[number];

/** kg per cm of sinkage and m² of waterplane. [P: naval-architecture texts] */
const KG_PER_CM_M2: Record<WaterKind, number> = { sea: 10.25, fresh: 10.0 };
/** kg/m³. [P: naval-architecture texts] */
const DENSITY: Record<WaterKind, number> = { sea: 1025, fresh: 1000 };

/** The plane in which a boat floats. */
export interface Waterplane {
  readonly areaM2: number;
  /** Centre of it, forward of the aftermost point, m. */
  readonly centreXM: number;
  /** About its own centre, athwart: what withstands trim, m⁴. */
  readonly longSecondMomentM4: number;
  /** About the centreline: what withstands heel, m⁴. */
  readonly crossSecondMomentM4: number;
}

/**
 * Waterplane by a coefficient, m²: length × beam × 0.65–0.75 for yachts, 0.8–0.95 for box-like boats.
 * [P: naval-architecture texts; coefficients M]
 * @throws RangeError on a length or beam of zero, or a coefficient over 1
 * @example waterplaneM2({ lwlM: 10, bwlM: 3, coefficient: 0.7 }) // → 21
 */
export function waterplaneM2(options: { lwlM: number; bwlM: number; coefficient: number }): number {
  const { lwlM, bwlM, coefficient } = options;
  return (
    positive(lwlM, 'Waterline length') *
    positive(bwlM, 'Beam at the waterline') *
    shareAboveZero(coefficient, 'The coefficient')
  );
}

/** Usual coefficient of a hull form, inside the ranges of the texts. [M] */
export const WATERPLANE_COEFFICIENT = { full: 0.85, longKeel: 0.7, finKeel: 0.68 } as const;

/**
 * A waterplane by its coefficient, with second moments that fall off with the square of it, exact for a rectangle. [M]
 * @example waterplaneByCoefficient({ lwlM: 10, bwlM: 2, coefficient: 1, aftM: 0 }).longSecondMomentM4.toFixed(2) // → '166.67'
 */
export function waterplaneByCoefficient(options: {
  lwlM: number;
  bwlM: number;
  coefficient: number;
  /** Where the waterline begins, forward of the aftermost point, m. */
  aftM: number;
}): Waterplane {
  const { lwlM, bwlM, coefficient, aftM } = options;
  return {
    areaM2: waterplaneM2(options),
    centreXM: aftM + lwlM / 2,
    longSecondMomentM4: (coefficient ** 2 * lwlM ** 3 * bwlM) / 12,
    crossSecondMomentM4: (coefficient ** 2 * lwlM * bwlM ** 3) / 12,
  };
}

/** Even intervals along the waterline: enough that a curve is integrated to a thousandth. */
const INTERVALS = 80;

/**
 * The waterplane of a hull of known shape at a height, by Simpson's rule over its half-breadths. [P: naval-architecture texts]
 * @param options.heightM above the drawn waterline, m
 * @throws RangeError where the hull has no breadth at that height
 * @example
 *   waterplaneOf({ shape: { lengthM: 4, half: () => 1 }, heightM: 0 }).areaM2 // → 8
 */
export function waterplaneOf(options: { shape: Pick<HullShape, 'lengthM' | 'half'>; heightM: number }): Waterplane {
  const { shape, heightM } = options;
  const x = samples(0, positive(shape.lengthM, 'The length'), INTERVALS);
  const half = x.map((v) => shape.half(v, finite(heightM, 'The height')));
  const over = (of: (y: number, x: number) => number) =>
    integrate({ x, y: half.map((y, i) => of(y, x[i] as number)) }).integral;
  const areaM2 = 2 * over((y) => y);
  if (!(areaM2 > 0)) throw new Impossible('At this height there is no hull. Choose a height between keel and rail.');
  const centreXM = (2 * over((y, v) => y * v)) / areaM2;
  return {
    areaM2,
    centreXM,
    longSecondMomentM4: 2 * over((y, v) => y * (v - centreXM) ** 2),
    crossSecondMomentM4: (2 / 3) * over((y) => y ** 3),
  };
}

/**
 * How much deeper a boat floats with more weight in her, m. [P: naval-architecture texts]
 * @throws RangeError on a waterplane of zero
 * @example sinkageM({ addedKg: 410, waterplaneM2: 20, water: 'sea' }).toFixed(3) // → '0.020'
 */
export function sinkageM(options: { addedKg: number; waterplaneM2: number; water: WaterKind }): number {
  const { addedKg, waterplaneM2, water } = options;
  return finite(addedKg, 'The weight') / (KG_PER_CM_M2[water] * positive(waterplaneM2, 'The waterplane')) / 100;
}

/**
 * Trim, or heel, that a weight off the centre makes, degrees: atan(kg · lever / (ρ · I)). The centre of gravity is
 * taken in the waterplane, as is usual for trim; for heel it is the least, a high centre makes it more.
 * [P: naval-architecture texts, the metacentric radius I/V]
 * @param options.leverM from the centre of the waterplane, m; signed
 * @throws RangeError on a second moment of zero
 * @example trimChangeDeg({ addedKg: 100, leverM: 2, secondMomentM4: 20, water: 'fresh' }).toFixed(3) // → '0.573'
 */
export function trimChangeDeg(options: {
  addedKg: number;
  leverM: number;
  secondMomentM4: number;
  water: WaterKind;
}): number {
  const { addedKg, leverM, secondMomentM4, water } = options;
  const moment = finite(addedKg, 'The weight') * finite(leverM, 'The lever');
  return (Math.atan(moment / (DENSITY[water] * positive(secondMomentM4, 'The second moment'))) * 180) / Math.PI;
}

/** Something that will be in the boat when she floats: stores, water, an engine; below zero, what comes out of her. */
export interface WeightToCome {
  readonly name: string;
  readonly kg: number;
  /** Forward of the aftermost point, m. */
  readonly xM: number;
  /** To port of the centreline, m. */
  readonly yM: number;
}

export interface Loaded {
  readonly addedKg: number;
  readonly sinkM: number;
  /** Bow down is positive. */
  readonly bowDownDeg: number;
  /** Port side down is positive. */
  readonly portDownDeg: number;
  /** How much higher the water stands on her at a place, m. */
  readonly waterRiseM: (at: { xM: number; yM: number }) => number;
}

/**
 * What weights to come do to the line she floats on: deeper, trimmed and heeled. Sides are taken as upright.
 * @param options.displacementKg what she weighs without them; null where nobody knows
 * @throws RangeError where they come to more than she weighs herself
 * @example
 *   loaded({
 *     waterplane: { areaM2: 20, centreXM: 4, longSecondMomentM4: 100, crossSecondMomentM4: 10 },
 *     weights: [{ name: 'Stores', kg: 205, xM: 4, yM: 0 }],
 *     water: 'sea',
 *     displacementKg: 4000,
 *   }).sinkM.toFixed(3) // → '0.010'
 */
export function loaded(options: {
  waterplane: Waterplane;
  weights: readonly WeightToCome[];
  water: WaterKind;
  displacementKg: number | null;
}): Loaded {
  const { waterplane, weights, water, displacementKg } = options;
  const addedKg = weights.reduce((sum, w) => sum + finite(w.kg, w.name || 'A weight'), 0);
  if (displacementKg !== null && Math.abs(addedKg) > positive(displacementKg, 'What she weighs'))
    throw new Impossible(
      `These weights come to ${Math.round(addedKg)} kg, more than the ${Math.round(displacementKg)} kg she weighs herself. Check them.`,
    );
  const about = (of: (w: WeightToCome) => number, secondMomentM4: number) =>
    trimChangeDeg({ addedKg: 1, leverM: weights.reduce((sum, w) => sum + w.kg * of(w), 0), secondMomentM4, water });
  const sinkM = sinkageM({ addedKg, waterplaneM2: waterplane.areaM2, water });
  const bowDownDeg = about((w) => w.xM - waterplane.centreXM, waterplane.longSecondMomentM4);
  const portDownDeg = about((w) => w.yM, waterplane.crossSecondMomentM4);
  const tan = (deg: number) => Math.tan((deg * Math.PI) / 180);
  return {
    addedKg,
    sinkM,
    bowDownDeg,
    portDownDeg,
    waterRiseM: ({ xM, yM }) => sinkM + (xM - waterplane.centreXM) * tan(bowDownDeg) + yM * tan(portDownDeg),
  };
}

/** Share of the box of waterline length, beam and draught that a hull form fills. [M] */
const BLOCK: Record<keyof typeof WATERPLANE_COEFFICIENT, number> = { full: 0.5, longKeel: 0.38, finKeel: 0.25 };

/**
 * What a boat weighs by her form, kg: to see that a weight to come cannot be right, and for nothing else. [M]
 * @example roughDisplacementKg({ lwlM: 8, beamM: 3, draftM: 1, form: 'full' }) // → 12300
 */
export function roughDisplacementKg(boat: {
  lwlM: number;
  beamM: number;
  draftM: number;
  form: keyof typeof BLOCK;
}): number {
  const { lwlM, beamM, draftM, form } = boat;
  return notNegative(lwlM * beamM * draftM, 'Her size') * BLOCK[form] * DENSITY.sea;
}
