import { finite } from '../guard';
import { runSteps } from '../steps';
import { shareBelow } from './triangle';
import { Impossible } from '../impossible';

/**
 * A level of the boat: the plane through (0, 0, heightM). Positive `heelDeg` raises it to port (she lies
 * heeled to port); positive `trimDeg` raises it towards the bow (she is down by the bow).
 * At (x, y) it stands at heightM + x·tan(trim) + y·tan(heel).
 */
export interface Plane {
  readonly heightM: number;
  readonly heelDeg: number;
  readonly trimDeg: number;
}

export interface MeshAreas {
  readonly totalM2: number;
  /** `[i]` between plane i−1 and i; first below all, last above all. */
  readonly bandsM2: readonly number[];
  /** Enclosed below the first plane, or by the whole mesh where there is none, m³. Right where the mesh is closed below it. */
  readonly volumeBelowM3: number;
  /** Share of the area that lies in triangles which a plane cut. */
  readonly cutShare: number;
}

/** Triangles between two reports of progress: few enough that the loop is called often and compiled early. */
export const CHUNK = 4096;

/** Corner coordinates of a mesh must come nine to a triangle. @throws RangeError where there is none, or a piece of one */
export function triangleCount(positions: Float32Array): number {
  if (positions.length === 0)
    throw new Impossible('There is not one triangle in the mesh. Export it again as a surface.');
  if (positions.length % 9 !== 0) throw new Impossible('The mesh ends in the middle of a triangle. Export it again.');
  return positions.length / 9;
}

/**
 * Areas of a mesh below, between and above planes, triangles that cross a plane cut exactly, and the volume
 * below the first. [P: divergence theorem; closed forms in the tests]
 * @param options.positions nine numbers a triangle, metres: x forward, y to port, z up
 * @param options.planes ascending; they may not cross within the mesh
 * @param options.mirror the mesh is one side: the other is counted too, with heel cut as it lies
 * @throws RangeError on an empty or broken mesh, planes that descend or cross
 * @example meshAreas({ positions: corner, planes: [] }).totalM2 // → 2.366
 */
export function meshAreas(options: { positions: Float32Array; planes: readonly Plane[]; mirror?: boolean }): MeshAreas {
  return runSteps(meshAreaSteps(options));
}

/**
 * The same in steps, for a worker: yields the share done.
 * @example
 *   runSteps(meshAreaSteps({ positions: corner, planes: [{ heightM: 0.5, heelDeg: 0, trimDeg: 0 }] }))
 *     .bandsM2.length // → 2
 */
export function* meshAreaSteps(options: {
  positions: Float32Array;
  planes: readonly Plane[];
  mirror?: boolean;
}): Generator<number, MeshAreas> {
  const { positions, planes, mirror = false } = options;
  const count = triangleCount(positions);
  const cuts = planes.map((p, i) => {
    const [heel, trim] = [finite(p.heelDeg, 'Heel'), finite(p.trimDeg, 'Trim')];
    if (Math.abs(heel) > 60 || Math.abs(trim) > 30)
      throw new Impossible('Heel may be up to 60° and trim up to 30° either way. Check the angles.');
    return {
      height: finite(p.heightM, `The height of plane ${i + 1}`),
      heel: Math.tan((heel * Math.PI) / 180),
      trim: Math.tan((trim * Math.PI) / 180),
    };
  });
  checkAscending(cuts, positions, mirror);
  const heeled = cuts.some((c) => c.heel !== 0);
  const bands = new Float64Array(cuts.length + 1);
  const totals = new Float64Array(2);
  const parallel = cuts.every((c) => c.heel === cuts[0]?.heel && c.trim === cuts[0].trim);
  const passes = mirror && heeled ? [1, -1] : [1];
  for (const [pass, side] of passes.entries()) {
    const work: Work = {
      heights: Float64Array.from(cuts, (c) => c.height),
      heels: Float64Array.from(cuts, (c) => c.heel * side),
      trims: Float64Array.from(cuts, (c) => c.trim),
      bands,
      totals,
    };
    for (let from = 0; from < count; from += CHUNK) {
      addTriangles(positions, work, parallel, from, Math.min(count, from + CHUNK));
      yield (pass + Math.min(1, (from + CHUNK) / count)) / passes.length;
    }
  }
  const times = mirror && !heeled ? 2 : 1;
  const bandsM2 = Array.from(bands, (b) => b * times);
  const totalM2 = bandsM2.reduce((a, b) => a + b, 0);
  const [volume = 0, cutArea = 0] = totals;
  if (!Number.isFinite(totalM2)) throw new Impossible('A corner of the mesh is not a number. Export it again.');
  if (totalM2 === 0) throw new Impossible('Every triangle of the mesh is without area. Export it again as a surface.');
  return { totalM2, bandsM2, volumeBelowM3: Math.abs(volume * times), cutShare: (cutArea * times) / totalM2 };
}

type Cut = { height: number; heel: number; trim: number };

/** Planes and sums as flat lists of numbers: nothing in the hot loop may change its shape. */
interface Work {
  readonly heights: Float64Array;
  readonly heels: Float64Array;
  readonly trims: Float64Array;
  readonly bands: Float64Array;
  /** Volume below the first plane, and area in triangles that were cut. */
  readonly totals: Float64Array;
}

/**
 * Area by band and signed volume below the first plane of some triangles: the hot loop of the mesh. Nearly every
 * triangle lies between two planes.
 */
function addTriangles(
  p: Float32Array,
  { heights, heels, trims, bands, totals }: Work,
  parallel: boolean,
  from: number,
  to: number,
): void {
  const n = heights.length;
  const heel = n > 0 ? (heels[0] as number) : 0;
  const trim = n > 0 ? (trims[0] as number) : 0;
  // Seen from a point on the first plane and the centreplane, neither the missing lid nor the missing half adds any.
  const apex = n > 0 ? (heights[0] as number) : 0;
  // Neighbours in the file mostly lie in one band: `floor` and `ceiling` are its heights while that holds.
  let band = -1,
    floor = Infinity,
    ceiling = -Infinity;
  let sum = 0;
  let volume = 0;
  for (let i = from * 9, end = to * 9; i < end; i += 9) {
    const ax = p[i] as number,
      ay = p[i + 1] as number,
      az = p[i + 2] as number;
    const bx = p[i + 3] as number,
      by = p[i + 4] as number,
      bz = p[i + 5] as number;
    const cx = p[i + 6] as number,
      cy = p[i + 7] as number,
      cz = p[i + 8] as number;
    const ux = bx - ax,
      uy = by - ay,
      uz = bz - az;
    const vx = cx - ax,
      vy = cy - ay,
      vz = cz - az;
    const nx = uy * vz - uz * vy,
      ny = uz * vx - ux * vz,
      nz = ux * vy - uy * vx;
    const twice = Math.sqrt(nx * nx + ny * ny + nz * nz);
    const a = az - ax * trim - ay * heel;
    const b = bz - bx * trim - by * heel;
    const c = cz - cx * trim - cy * heel;
    if (!(a >= floor && b >= floor && c >= floor && a < ceiling && b < ceiling && c < ceiling)) {
      if (band >= 0) bands[band] = (bands[band] as number) + sum / 2;
      sum = 0;
      let low = a,
        high = a;
      if (b < low) low = b;
      if (b > high) high = b;
      if (c < low) low = c;
      if (c > high) high = c;
      band = 0;
      while (band < n && (heights[band] as number) <= low) band += 1;
      if (!parallel || (band < n && high >= (heights[band] as number))) {
        cutTriangle(p, i, heights, heels, trims, bands, totals, twice / 2, ax * nx + ay * ny + (az - apex) * nz);
        band = -1;
        floor = Infinity;
        continue;
      }
      floor = band === 0 ? -Infinity : (heights[band - 1] as number);
      ceiling = band === n ? Infinity : (heights[band] as number);
    }
    sum += twice;
    // The normal is twice the area long: corner · normal is six times the tetrahedron to the apex.
    if (band === 0) volume += ax * nx + ay * ny + (az - apex) * nz;
  }
  if (band >= 0) bands[band] = (bands[band] as number) + sum / 2;
  totals[0] = (totals[0] as number) + volume / 6;
}

/** The same for one triangle that a plane may cross, plane by plane. */
function cutTriangle(
  p: Float32Array,
  i: number,
  heights: Float64Array,
  heels: Float64Array,
  trims: Float64Array,
  bands: Float64Array,
  totals: Float64Array,
  area: number,
  wedge: number,
): void {
  const n = heights.length;
  let done = 0;
  let wasCut = false;
  for (let k = 0; k < n && done < 1; k += 1) {
    const height = heights[k] as number,
      rise = heels[k] as number,
      trim = trims[k] as number;
    const below = shareBelow(
      (p[i + 2] as number) - height - (p[i] as number) * trim - (p[i + 1] as number) * rise,
      (p[i + 5] as number) - height - (p[i + 3] as number) * trim - (p[i + 4] as number) * rise,
      (p[i + 8] as number) - height - (p[i + 6] as number) * trim - (p[i + 7] as number) * rise,
    );
    if (below > 0 && below < 1) wasCut = true;
    if (k === 0) totals[0] = (totals[0] as number) + (wedge * below) / 6;
    if (below > done) {
      bands[k] = (bands[k] as number) + area * (below - done);
      done = below;
    }
  }
  bands[n] = (bands[n] as number) + area * (1 - done);
  if (wasCut) totals[1] = (totals[1] as number) + area;
}

/** @throws RangeError where a plane lies below the one before it anywhere over the mesh */
function checkAscending(cuts: readonly Cut[], positions: Float32Array, mirror: boolean): void {
  // Level with each other they need no look at the mesh.
  const parallel = cuts.every((c) => c.heel === cuts[0]?.heel && c.trim === cuts[0].trim);
  const [low, high] = parallel
    ? [
        [0, 0],
        [0, 0],
      ]
    : meshBounds(positions);
  const [y0, y1] = [low[1], high[1]];
  const across = mirror ? [-Math.max(-y0, y1), Math.max(-y0, y1)] : [y0, y1];
  cuts.slice(1).forEach((b, i) => {
    const a = cuts[i] as Cut;
    for (const x of [low[0], high[0]]) {
      for (const y of across) {
        if (b.height - a.height + x * (b.trim - a.trim) + y * (b.heel - a.heel) < 0)
          throw new Impossible(
            `Plane ${i + 2} lies below plane ${i + 1} or crosses it within the hull. Put the heights in order, from the lowest up.`,
          );
      }
    }
  });
}

export type Vec3 = readonly [number, number, number];

/** Lowest and highest x, y and z. @throws RangeError where a corner is not a number */
export function meshBounds(positions: Float32Array): readonly [Vec3, Vec3] {
  const box = Float64Array.of(Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity);
  for (let from = 0; from < positions.length; from += 9 * CHUNK) {
    if (growBox(box, positions, from, Math.min(positions.length, from + 9 * CHUNK)) !== 0)
      throw new Impossible('A corner of the mesh is not a number. Export it again.');
  }
  const [x0, y0, z0, x1, y1, z1] = box as unknown as [number, number, number, number, number, number];
  return [
    [x0, y0, z0],
    [x1, y1, z1],
  ];
}

/** Gives 0 where every figure is finite, NaN where one is not. */
function growBox(box: Float64Array, p: Float32Array, from: number, to: number): number {
  let x0 = box[0] as number,
    y0 = box[1] as number,
    z0 = box[2] as number,
    x1 = box[3] as number,
    y1 = box[4] as number,
    z1 = box[5] as number;
  let odd = 0;
  for (let i = from; i < to; i += 3) {
    const x = p[i] as number,
      y = p[i + 1] as number,
      z = p[i + 2] as number;
    odd += (x + y + z) * 0;
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
    if (z < z0) z0 = z;
    if (z > z1) z1 = z;
  }
  box.set([x0, y0, z0, x1, y1, z1]);
  return odd;
}
