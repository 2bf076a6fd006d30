import { positive } from '../guard';
import { meshBounds } from './mesh';
import { Impossible } from '../impossible';

export const AXES = ['+x', '-x', '+y', '-y', '+z', '-z'] as const;
export type Axis = (typeof AXES)[number];

/** Metres to one unit of a file, by the unit's name. */
export const MESH_UNITS = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048 } as const;
export type MeshUnit = keyof typeof MESH_UNITS;

/** How a file's own coordinates become the boat's. */
export interface Placement {
  readonly unit: MeshUnit;
  /** The file's axis that points to the bow. */
  readonly forward: Axis;
  /** The file's axis that points up. */
  readonly up: Axis;
  /** The file holds one side only. */
  readonly mirror: boolean;
}

/** Size of a mesh along the boat, m: of the whole boat where one side is mirrored. */
export interface MeshSize {
  readonly lengthM: number;
  readonly beamM: number;
  readonly depthM: number;
}

const HALF_SHARE = 0.02;

const indexOf = (axis: Axis) => 'xyz'.indexOf(axis[1] as string);
const signOf = (axis: Axis) => (axis[0] === '-' ? -1 : 1);

/** @throws RangeError where both axes are the same line */
function frame(placement: Placement): { f: number; fs: number; u: number; us: number; p: number; ps: number } {
  const [f, u] = [indexOf(placement.forward), indexOf(placement.up)];
  if (f === u) throw new Impossible('Forward and up cannot be the same axis. Choose another one for up.');
  const p = 3 - f - u;
  const [fs, us] = [signOf(placement.forward), signOf(placement.up)];
  // Port = up × forward, so that the frame stays right-handed.
  const cyclic = (u + 1) % 3 === f ? 1 : -1;
  return { f, fs, u, us, p, ps: fs * us * cyclic };
}

/**
 * Put a mesh into the boat's own frame, in place: metres, x forward with zero amidships, y to port with zero
 * on the centreline, z up with zero at the lowest point.
 * @returns its size along the boat
 * @throws RangeError on axes that agree, corners that are not numbers, or a mesh without extent
 * @example placeMesh(new Float32Array(corner), { unit: 'm', forward: '+x', up: '+z', mirror: false }).lengthM // → 1
 */
export function placeMesh(positions: Float32Array, placement: Placement): MeshSize {
  const { f, fs, u, us, p, ps } = frame(placement);
  const scale = MESH_UNITS[placement.unit];
  const [low, high] = meshBounds(positions);
  const middle = (k: number) => ((low[k] as number) + (high[k] as number)) / 2;
  const extent = (k: number) => ((high[k] as number) - (low[k] as number)) * scale;
  if (!(extent(f) > 0 && extent(u) > 0))
    throw new Impossible('The mesh is flat: it has no length or no height. Check the axes, or export the hull again.');
  const x0 = middle(f);
  // One side is built up from the centreline, whichever side that is.
  const y0 = placement.mirror
    ? ((Math.abs(low[p] as number) < Math.abs(high[p] as number) ? low[p] : high[p]) as number)
    : middle(p);
  const z0 = (us > 0 ? low[u] : high[u]) as number;
  for (let i = 0; i < positions.length; i += 3) {
    const a = positions[i + f] as number,
      b = positions[i + p] as number,
      c = positions[i + u] as number;
    positions[i] = (a - x0) * fs * scale;
    positions[i + 1] = (b - y0) * ps * scale;
    positions[i + 2] = (c - z0) * us * scale;
  }
  return { lengthM: extent(f), beamM: extent(p) * (placement.mirror ? 2 : 1), depthM: extent(u) };
}

/**
 * The likeliest unit, axes and sidedness of a mesh file, from the boat's own length, beam and depth. A guess to
 * be checked on screen: the size it gives stands beside the boat's figures.
 * @throws RangeError on an empty or broken mesh
 * @example guessPlacement({ positions: corner, loaM: 9, beamM: 3, depthM: 2 }).unit // → 'm'
 */
export function guessPlacement(options: {
  positions: Float32Array;
  loaM: number;
  beamM: number;
  depthM: number;
}): Placement {
  const { positions } = options;
  const [low, high] = meshBounds(positions);
  const extent = [0, 1, 2].map((k) => (high[k] as number) - (low[k] as number));
  const long = extent.indexOf(Math.max(...extent));
  const loa = positive(options.loaM, 'Length overall');
  const off = (a: number, b: number) => Math.abs(Math.log(a / b));
  const unit = (Object.keys(MESH_UNITS) as MeshUnit[]).reduce((best, u) =>
    off((extent[long] as number) * MESH_UNITS[u], loa) < off((extent[long] as number) * MESH_UNITS[best], loa)
      ? u
      : best,
  );
  const scale = loa / (extent[long] as number);
  // The two short axes: which pair fits beam and depth best, as a whole hull or as one side. Equal fits: z is up.
  const [s, t] = [0, 1, 2].filter((k) => k !== long) as [number, number];
  const tries = [t, s].flatMap((up) => {
    const across = up === t ? s : t;
    const oneSided = isOneSided(low[across] as number, high[across] as number);
    const beam = (extent[across] as number) * scale * (oneSided ? 2 : 1);
    return [
      {
        up,
        across,
        mirror: oneSided,
        misfit:
          off(Math.max(beam, 1e-6), options.beamM) +
          off(Math.max((extent[up] as number) * scale, 1e-6), options.depthM),
      },
    ];
  });
  const fit = tries.reduce((best, next) => (next.misfit < best.misfit - 0.05 ? next : best));
  const axis = (k: number, sign: number) => `${sign < 0 ? '-' : '+'}${'xyz'[k]}` as Axis;
  // A hull is broad at the rail and fine at the bow.
  const upSign =
    breadthAt(positions, fit, low, high, fit.up, 0.75, 1) >= breadthAt(positions, fit, low, high, fit.up, 0, 0.25)
      ? 1
      : -1;
  const forwardSign =
    breadthAt(positions, fit, low, high, long, 0.9, 1) <= breadthAt(positions, fit, low, high, long, 0, 0.1) ? 1 : -1;
  return { unit, forward: axis(long, forwardSign), up: axis(fit.up, upSign), mirror: fit.mirror };
}

function isOneSided(low: number, high: number): boolean {
  const width = high - low;
  return Math.min(Math.abs(low), Math.abs(high)) <= HALF_SHARE * width;
}

/** Mean distance from the centreline of the corners in a slice along one axis. */
function breadthAt(
  positions: Float32Array,
  fit: { across: number; mirror: boolean },
  low: readonly number[],
  high: readonly number[],
  along: number,
  from: number,
  to: number,
): number {
  const [a, b] = [low[along] as number, high[along] as number];
  const [start, end] = [a + (b - a) * from, a + (b - a) * to];
  const centre = fit.mirror ? 0 : ((low[fit.across] as number) + (high[fit.across] as number)) / 2;
  let sum = 0;
  let count = 0;
  for (let i = 0; i < positions.length; i += 3) {
    const v = positions[i + along] as number;
    if (v < start || v > end) continue;
    sum += Math.abs((positions[i + fit.across] as number) - centre);
    count += 1;
  }
  return count === 0 ? 0 : sum / count;
}

/** A figure of a placed mesh that is far from the boat's own. */
export interface SizeMisfit {
  readonly figure: 'length' | 'beam' | 'depth';
  readonly foundM: number;
  readonly ownM: number;
}

/** A mesh may differ from the boat's own figures by this share: rails, rudders and rounding. [M] */
const MISFIT_SHARE = 0.15;

/**
 * What does not fit between a placed mesh and the boat's own figures.
 * @example
 *   sizeMisfits({ lengthM: 9, beamM: 3, depthM: 4 }, { loaM: 9, beamM: 3, depthM: 2 }).map((m) => m.figure) // → ['depth']
 */
export function sizeMisfits(size: MeshSize, boat: { loaM: number; beamM: number; depthM: number }): SizeMisfit[] {
  const figures: SizeMisfit[] = [
    { figure: 'length', foundM: size.lengthM, ownM: boat.loaM },
    { figure: 'beam', foundM: size.beamM, ownM: boat.beamM },
    { figure: 'depth', foundM: size.depthM, ownM: boat.depthM },
  ];
  return figures.filter(({ foundM, ownM }) => Math.abs(foundM - ownM) > MISFIT_SHARE * ownM);
}
