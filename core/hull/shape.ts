import { positive } from '../guard';
import type { BoatDimensions } from './area';
import { curveBetween } from './curve';
import { breadthOf, type HullLines } from './lines';
import type { Keels } from '../model/surface';

/**
 * The body of a hull for drawing, without keels: x from the aftermost point forward, z above the waterline, all
 * in metres. From lines where they are known, else drawn by eye for the hull form through the boat's own figures.
 */
export interface HullShape {
  readonly known: 'dimensions' | HullLines['known'];
  readonly lengthM: number;
  /** Ends of the waterline. */
  readonly waterline: readonly [number, number];
  /** Height of the rail. */
  readonly sheer: (x: number) => number;
  /** Height of the lowest point of the body. */
  readonly bottom: (x: number) => number;
  /** Half-breadth; 0 where there is no hull. */
  readonly half: (x: number, z: number) => number;
  /** Whether keels hang below what is drawn here. */
  readonly keelsBelow: boolean;
}

export type DrawnBoat = BoatDimensions & { readonly keels: Keels };

const SAMPLES = 40;

/**
 * The body of a hull, from her lines where they are known.
 * @throws RangeError on impossible dimensions
 * @example hullShape(boat).known // → 'dimensions'
 */
export function hullShape(boat: DrawnBoat, lines: HullLines | null = null): HullShape {
  return lines ? fromLines(boat, lines) : fromDimensions(boat);
}

function fromDimensions(boat: DrawnBoat): HullShape {
  const loa = positive(boat.loaM, 'Length overall');
  const lwl = Math.min(positive(boat.lwlM, 'Waterline length'), loa);
  const draft = positive(boat.draftM, 'Draught');
  const freeboard = positive(boat.freeboardM, 'Freeboard');
  const beam = positive(boat.beamM, 'Beam');
  const aft = (loa - lwl) * 0.4;
  const fore = aft + lwl;
  const keelsBelow = boat.keels !== 'none' && boat.form !== 'full';
  const canoe = draft * (!keelsBelow ? 1 : boat.form === 'finKeel' ? 0.34 : boat.keels === 'twin' ? 0.48 : 0.6);

  // Sheer: highest at the bow, lowest at two fifths from aft, mean close to the freeboard given.
  const sheer = (x: number) =>
    freeboard * (0.9 + 0.32 * (x / loa - 0.4) ** 2 + (x > 0.4 * loa ? 0.36 * (x / loa - 0.4) ** 2 : 0));
  const rocker = (x: number) => {
    const t = (x - aft) / lwl;
    const fullness = boat.form === 'full' ? 0.42 : 0.62;
    return -canoe * Math.sin(Math.PI * Math.min(1, Math.max(0, t))) ** fullness * (1 - 0.12 * Math.cos(Math.PI * t));
  };
  const lowest = Math.min(...samples(aft, fore).map(rocker));
  const deepen = canoe / -lowest;
  const bottom = (x: number) => {
    if (x >= aft && x <= fore) return rocker(x) * deepen;
    // Overhangs rise to the rail.
    const [share, end] =
      x < aft ? [aft === 0 ? 1 : (aft - x) / aft, sheer(0) * 0.9] : [(x - fore) / (loa - fore || 1), sheer(loa)];
    return end * share;
  };
  const full = boat.form === 'full';
  const rail = (x: number) => {
    const t = x / loa;
    const stern = full ? 0.86 : 0.6;
    return (
      (beam / 2) * (t < 0.5 ? stern + (1 - stern) * Math.sin(Math.PI * t) : Math.max(0, 1 - ((t - 0.5) / 0.5) ** 2.3))
    );
  };
  const half = (x: number, z: number) => {
    const [low, high] = [bottom(x), sheer(x)];
    if (z < low - 1e-9 || z > high + 1e-9 || high <= low) return 0;
    return rail(x) * Math.max(0, (z - low) / (high - low)) ** (full ? 0.28 : 0.42);
  };
  return { known: 'dimensions', lengthM: loa, waterline: [aft, fore], sheer, bottom, half, keelsBelow };
}

function fromLines(boat: DrawnBoat, lines: HullLines): HullShape {
  const lengthM = lines.stationsM[lines.stationsM.length - 1] as number;
  const along = (list: readonly number[], x: number) => {
    const at = curveBetween(lines.stationsM, x);
    if (at === null)
      return x < (lines.stationsM[0] as number) ? (list[0] as number) : (list[list.length - 1] as number);
    return (list[at.from] as number) + ((list[at.from + 1] as number) - (list[at.from] as number)) * at.share;
  };
  // A table of offsets stops at its highest waterline; where the boat's own rail is near, the rail is drawn.
  const own = fromDimensions(boat);
  const meanTop = lines.topM.reduce((a, b) => a + b, 0) / lines.topM.length;
  const ownRail = lines.known === 'offsets' && Math.abs(meanTop - boat.freeboardM) < 0.3 * boat.freeboardM;
  const sheer = (x: number) => (ownRail ? own.sheer((x / lengthM) * boat.loaM) : along(lines.topM, x));
  const bottom = (x: number) => along(lines.bottomM, x);
  const wet = samples(0, lengthM, 200).filter((x) => bottom(x) < 0);
  const waterline: [number, number] = wet.length > 1 ? [wet[0] as number, wet[wet.length - 1] as number] : [0, lengthM];
  const depth = -Math.min(...lines.bottomM);
  return {
    known: lines.known,
    lengthM,
    waterline,
    sheer,
    bottom,
    half: (x, z) =>
      z < bottom(x) - 1e-6 || z > sheer(x) + 1e-6 ? 0 : (breadthOf(lines, x, Math.min(z, along(lines.topM, x))) ?? 0),
    // A body much shallower than the boat's draught was drawn without her keels.
    keelsBelow: boat.keels !== 'none' && depth < 0.85 * boat.draftM,
  };
}

/** Evenly from a to b, ends included. @example samples(0, 1, 2) // → [0, 0.5, 1] */
export function samples(a: number, b: number, n = SAMPLES): number[] {
  return Array.from({ length: n + 1 }, (_, i) => a + ((b - a) * i) / n);
}
