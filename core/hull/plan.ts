import type { HullLines } from './lines';
import type { Outline } from './profile';
import { hullShape, samples, type DrawnBoat, type HullShape } from './shape';
import type { ZoneKind } from '../model/surface';

/** The boat from above: in outlines, x runs forward and z to port, metres. */
export interface BoatPlan {
  readonly known: HullShape['known'];
  readonly lengthM: number;
  readonly halfBeamM: number;
  readonly regions: Partial<Record<ZoneKind, readonly Outline[]>>;
  /** Curve in which she floats. */
  readonly waterline: Outline;
}

const HEIGHTS = 16;

/** Broadest half-breadth of a station up to the rail. */
function broadest(shape: HullShape, x: number): number {
  return Math.max(...samples(shape.bottom(x), shape.sheer(x), HEIGHTS).map((z) => shape.half(x, z)));
}

const mirrored = (half: readonly { x: number; y: number }[]): Outline => [
  ...half.map((p) => ({ x: p.x, z: p.y })),
  ...[...half].reverse().map((p) => ({ x: p.x, z: -p.y })),
];

/**
 * A plan of the boat to scale.
 * @throws RangeError on impossible dimensions
 * @example boatPlan(boat).lengthM // → 9
 */
export function boatPlan(boat: DrawnBoat, lines: HullLines | null = null): BoatPlan {
  const shape = hullShape(boat, lines);
  const loa = shape.lengthM;
  const xs = samples(0, loa);
  const rim = xs.map((x) => ({ x, y: broadest(shape, x) }));
  const inside = (from: number, to: number, share: number): Outline =>
    mirrored(samples(loa * from, loa * to, 10).map((x) => ({ x, y: broadest(shape, x) * share })));
  const wet = samples(shape.waterline[0], shape.waterline[1]).map((x) => ({ x, y: shape.half(x, 0) }));
  // Seen from above, the topsides are the rim that stands out beyond the deck.
  return {
    known: shape.known,
    lengthM: loa,
    halfBeamM: Math.max(...rim.map((p) => p.y)),
    waterline: mirrored(wet),
    regions: {
      topsides: [mirrored(rim)],
      deck: [inside(0.005, 0.985, 0.93)],
      nonSkid: [inside(0.72, 0.92, 0.6)],
      coachroof: [inside(0.3, 0.68, 0.6)],
      cockpit: [inside(0.07, 0.27, 0.5)],
      transom: [mirrored(samples(0, loa * 0.012, 2).map((x) => ({ x, y: broadest(shape, 0) * 0.96 })))],
      anchorLocker: [inside(0.86, 0.93, 0.35)],
    },
  };
}
