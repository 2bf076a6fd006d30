import { notNegative, positive, shareBelowOne } from '../guard';
import { combineAreas } from './uncertainty';
import { Impossible } from '../impossible';

/** A plain shape that part of a boat may be taken for, by what a tape measures on it, metres. */
export type ShapeFigure =
  | { readonly kind: 'rectangle'; readonly lengthM: number; readonly widthM: number }
  | { readonly kind: 'triangle'; readonly baseM: number; readonly heightM: number }
  | { readonly kind: 'trapezium'; readonly aM: number; readonly bM: number; readonly heightM: number }
  | { readonly kind: 'circle'; readonly diameterM: number }
  | { readonly kind: 'ellipse'; readonly lengthM: number; readonly widthM: number }
  /** Mantle, and as many of its ends as get painted. */
  | { readonly kind: 'cylinder'; readonly diameterM: number; readonly lengthM: number; readonly ends: number }
  /** Mantle between two diameters, `lengthM` along its axis. */
  | { readonly kind: 'cone'; readonly diameterAM: number; readonly diameterBM: number; readonly lengthM: number }
  /** Keel or rudder: both faces. `rootM` and `tipM` are its chords. */
  | { readonly kind: 'foil'; readonly rootM: number; readonly tipM: number; readonly spanM: number }
  /** Inside of a box: floor and walls, and its lid where that is painted too; left out: it is not. */
  | {
      readonly kind: 'box';
      readonly lengthM: number;
      readonly widthM: number;
      readonly heightM: number;
      readonly lids?: number;
    }
  /** Frame or stringer standing proud: both faces and the edge. */
  | { readonly kind: 'frame'; readonly lengthM: number; readonly depthM: number; readonly thicknessM: number };
export type ShapeKind = ShapeFigure['kind'];

export const SHAPE_KINDS = [
  'rectangle',
  'triangle',
  'trapezium',
  'circle',
  'ellipse',
  'cylinder',
  'cone',
  'foil',
  'box',
  'frame',
] as const satisfies readonly ShapeKind[];

/** Wetted area of a foil over its planform, both faces with the bulge of its section. [M] */
export const FOIL_FACTOR = 2.05;

/** Figures that are counted, not measured: none where left out. */
export const COUNTED_FIGURES: readonly string[] = ['ends', 'lids'];

/** What the figures of each shape are called, in the order they are asked. */
export const SHAPE_FIGURES: Record<ShapeKind, readonly (readonly [key: string, name: string])[]> = {
  rectangle: [
    ['lengthM', 'length'],
    ['widthM', 'width'],
  ],
  triangle: [
    ['baseM', 'base'],
    ['heightM', 'height'],
  ],
  trapezium: [
    ['aM', 'one side'],
    ['bM', 'other side'],
    ['heightM', 'height between'],
  ],
  circle: [['diameterM', 'diameter']],
  ellipse: [
    ['lengthM', 'length'],
    ['widthM', 'width'],
  ],
  cylinder: [
    ['diameterM', 'diameter'],
    ['lengthM', 'length'],
    ['ends', 'ends painted'],
  ],
  cone: [
    ['diameterAM', 'one diameter'],
    ['diameterBM', 'other diameter'],
    ['lengthM', 'length'],
  ],
  foil: [
    ['rootM', 'chord at root'],
    ['tipM', 'chord at tip'],
    ['spanM', 'span'],
  ],
  box: [
    ['lengthM', 'length'],
    ['widthM', 'width'],
    ['heightM', 'height'],
    ['lids', 'lid'],
  ],
  frame: [
    ['lengthM', 'length'],
    ['depthM', 'depth'],
    ['thicknessM', 'thickness'],
  ],
};

/**
 * Area of one plain shape, m², both faces where it has two. [P: geometry; FOIL_FACTOR M]
 * @throws RangeError on a figure of zero or less
 * @example shapeArea({ kind: 'rectangle', lengthM: 2, widthM: 1.5 }) // → 3
 */
export function shapeArea(shape: ShapeFigure): number {
  const p = (value: number, name: string) => positive(value, name.charAt(0).toUpperCase() + name.slice(1));
  switch (shape.kind) {
    case 'rectangle':
      return p(shape.lengthM, 'length') * p(shape.widthM, 'width');
    case 'triangle':
      return (p(shape.baseM, 'base') * p(shape.heightM, 'height')) / 2;
    case 'trapezium':
      return ((p(shape.aM, 'one side') + p(shape.bM, 'other side')) / 2) * p(shape.heightM, 'height between');
    case 'circle':
      return (Math.PI / 4) * p(shape.diameterM, 'diameter') ** 2;
    case 'ellipse':
      return (Math.PI / 4) * p(shape.lengthM, 'length') * p(shape.widthM, 'width');
    case 'cylinder': {
      const ends = notNegative(shape.ends, 'Ends painted');
      if (ends > 2 || !Number.isInteger(ends))
        throw new Impossible('A cylinder has two ends: paint 0, 1 or 2 of them.');
      return (
        Math.PI * p(shape.diameterM, 'diameter') * p(shape.lengthM, 'length') +
        ends * (Math.PI / 4) * shape.diameterM ** 2
      );
    }
    case 'cone': {
      const [a, b] = [
        notNegative(shape.diameterAM, 'One diameter') / 2,
        notNegative(shape.diameterBM, 'Other diameter') / 2,
      ];
      if (a + b === 0) throw new Impossible('One of the diameters must be more than zero.');
      return Math.PI * (a + b) * Math.hypot(a - b, p(shape.lengthM, 'length'));
    }
    case 'foil':
      return (
        FOIL_FACTOR *
        ((p(shape.rootM, 'chord at root') + notNegative(shape.tipM, 'Chord at tip')) / 2) *
        p(shape.spanM, 'span')
      );
    case 'box': {
      const lids = notNegative(shape.lids ?? 0, 'The lid');
      if (lids !== 0 && lids !== 1) throw new Impossible('A box has one lid: paint it or not.');
      return (
        (1 + lids) * p(shape.lengthM, 'length') * p(shape.widthM, 'width') +
        2 * (shape.lengthM + shape.widthM) * p(shape.heightM, 'height')
      );
    }
    case 'frame':
      return p(shape.lengthM, 'length') * (2 * p(shape.depthM, 'depth') + notNegative(shape.thicknessM, 'Thickness'));
  }
}

/** A shape as it is listed: how many alike, added or taken off, how well measured, and with whose figures. */
export interface ShapePart {
  readonly figure: ShapeFigure;
  readonly count: number;
  readonly deduct: boolean;
  /** ± as a share, 95 % half-width. */
  readonly share: number;
  /** Parts of one group share their measuring: their errors go together. */
  readonly group?: string | null;
}

/**
 * Sum of shapes, deductions taken off, with its ±. Several alike were measured once, so their errors go
 * together; parts of one group too; the others combine in quadrature.
 * @throws RangeError where there is none, or the deductions are larger than the whole
 * @example sumShapes([{ figure: { kind: 'rectangle', lengthM: 2, widthM: 1 }, count: 2, deduct: false, share: 0.05 }]).areaM2 // → 4
 */
export function sumShapes(parts: readonly ShapePart[]): { areaM2: number; plusMinusM2: number; share: number } {
  if (parts.length === 0) throw new Impossible('There is no shape yet. Add one.');
  const signed = parts.map((part) => {
    const count = positive(part.count, 'The count');
    if (!Number.isInteger(count)) throw new Impossible('The count must be a whole number.');
    return {
      areaM2: shapeArea(part.figure) * count * (part.deduct ? -1 : 1),
      share: shareBelowOne(part.share, 'The ± of a shape'),
      group: part.group ?? null,
    };
  });
  const sum = combineAreas(signed);
  if (sum.areaM2 <= 0) {
    throw new Impossible('The deductions are as large as the whole or larger. Check what is taken off.');
  }
  return sum;
}
