import { curveBetween } from './curve';
import type { Plane } from './mesh';
import type { OffsetTable } from './offsets';

/**
 * The shape of a hull for drawing: half-breadths on a grid in the drawing's frame, x from the aftermost point
 * forward, z above the waterline, and the profile's top and bottom at each station. `known` says from what.
 */
export interface HullLines {
  readonly known: 'offsets' | 'mesh';
  readonly stationsM: readonly number[];
  readonly heightsM: readonly number[];
  /** `[station][height]`; null above and below the hull. */
  readonly halfBreadthsM: readonly (readonly (number | null)[])[];
  readonly topM: readonly number[];
  readonly bottomM: readonly number[];
}

const STATIONS = 40;
const HEIGHTS = 24;

/**
 * Lines for drawing from a table of offsets that floats at `waterlineM`. The table is taken as checked.
 * @example linesFromOffsets(box).bottomM[0] // → -0.5
 */
export function linesFromOffsets(table: OffsetTable & { waterlineM: number; fromBow: boolean }): HullLines {
  const first = table.stationsM[0] as number;
  const last = table.stationsM[table.stationsM.length - 1] as number;
  const order = table.stationsM.map((x, i) => ({
    x: table.fromBow ? last - x : x - first,
    row: table.halfBreadthsM[i] as readonly (number | null)[],
  }));
  if (table.fromBow) order.reverse();
  const heightsM = table.waterlinesM.map((z) => z - table.waterlineM);
  // Along a station the hull reaches from the lowest to the highest figure above zero, with the zero next to it.
  const reach = order.map(({ row }) => {
    const inside = row.flatMap((y, k) => (y !== null && y > 0 ? [k] : []));
    if (inside.length === 0) {
      const zeros = row.flatMap((y, k) => (y === 0 ? [k] : []));
      const k = zeros[zeros.length - 1] ?? 0;
      return [k, k] as const;
    }
    const low = inside[0] as number;
    return [low > 0 && row[low - 1] === 0 ? low - 1 : low, inside[inside.length - 1] as number] as const;
  });
  return {
    known: 'offsets',
    stationsM: order.map((o) => o.x),
    heightsM,
    halfBreadthsM: order.map((o) => o.row),
    topM: reach.map(([, k]) => heightsM[k] as number),
    bottomM: reach.map(([k]) => heightsM[k] as number),
  };
}

export interface MeshLines {
  readonly lines: HullLines;
  /** Length of the curve in which the first plane cuts the mesh, both sides, m; 0 where there is no plane. */
  readonly waterlineGirthM: number;
}

/**
 * Lines for drawing from a placed mesh (see `placeMesh`): the outermost breadth on a grid of stations and heights,
 * found where triangles cross them. Trim is taken out about amidships; heel is not drawn.
 * @example
 *   linesFromMesh({
 *     positions: corner,
 *     waterline: { heightM: 0.5, heelDeg: 0, trimDeg: 0 },
 *     lengthM: 1,
 *     depthM: 1,
 *     mirror: false,
 *   }).waterlineGirthM // → 1.707
 */
export function linesFromMesh(options: {
  positions: Float32Array;
  waterline: Plane;
  lengthM: number;
  depthM: number;
  mirror: boolean;
}): MeshLines {
  const { positions: p, waterline, lengthM, depthM } = options;
  const trim = Math.tan((waterline.trimDeg * Math.PI) / 180);
  const heel = Math.tan((waterline.heelDeg * Math.PI) / 180);
  // The ends themselves are often a single line: they are looked at a hair inside.
  const hair = lengthM * 5e-4;
  const stationsM = Array.from({ length: STATIONS + 1 }, (_, i) =>
    Math.min(lengthM - hair, Math.max(hair, (lengthM * i) / STATIONS)),
  );
  const heightsM = Array.from({ length: HEIGHTS + 1 }, (_, k) => (depthM * k) / HEIGHTS - waterline.heightM);
  const breadth = stationsM.map(() => heightsM.map(() => -1));
  const topM = stationsM.map(() => -Infinity);
  const bottomM = stationsM.map(() => Infinity);
  let girth = 0;
  const corners = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ] as [number, number, number][];
  for (let i = 0; i < p.length; i += 9) {
    for (let k = 0; k < 3; k += 1) {
      const c = corners[k] as [number, number, number];
      c[0] = (p[i + 3 * k] as number) + lengthM / 2;
      c[1] = p[i + 3 * k + 1] as number;
      c[2] = (p[i + 3 * k + 2] as number) - waterline.heightM - trim * (p[i + 3 * k] as number);
    }
    const [a, b, c] = corners as [[number, number, number], [number, number, number], [number, number, number]];
    const floats = (q: readonly number[]) => (q[2] as number) - heel * (q[1] as number);
    if (Math.min(floats(a), floats(b), floats(c)) < 0 && Math.max(floats(a), floats(b), floats(c)) >= 0)
      girth += cutLength(a, b, c, floats);
    const x0 = Math.min(a[0], b[0], c[0]);
    const x1 = Math.max(a[0], b[0], c[0]);
    const step = lengthM / STATIONS;
    for (
      let s = Math.max(0, Math.ceil((x0 - hair) / step));
      s <= Math.min(STATIONS, Math.floor((x1 + hair) / step));
      s += 1
    ) {
      const x = stationsM[s] as number;
      if (x < x0 || x > x1) continue;
      const [from, to] = crossing(a, b, c, x);
      if (from === null || to === null) continue;
      const [z0, z1] = from[1] <= to[1] ? [from, to] : [to, from];
      topM[s] = Math.max(topM[s] as number, z1[1]);
      bottomM[s] = Math.min(bottomM[s] as number, z0[1]);
      const row = breadth[s] as number[];
      for (let k = 0; k <= HEIGHTS; k += 1) {
        const z = heightsM[k] as number;
        if (z < z0[1] - 1e-9 || z > z1[1] + 1e-9) continue;
        const t = z1[1] - z0[1] < 1e-9 ? 1 : (z - z0[1]) / (z1[1] - z0[1]);
        const y = Math.abs(z0[0] + (z1[0] - z0[0]) * t);
        if (y > (row[k] as number)) row[k] = y;
      }
    }
  }
  // A station that no triangle crossed takes the shape of the next that one did.
  const known = stationsM.flatMap((_, s) => (Number.isFinite(topM[s]) ? [s] : []));
  const near = (s: number) =>
    known.reduce((best, k) => (Math.abs(k - s) < Math.abs(best - s) ? k : best), known[0] ?? 0);
  const round = (v: number) => Math.round(v * 1e4) / 1e4;
  const lines: HullLines = {
    known: 'mesh',
    stationsM: stationsM.map((x, s) => round(s === 0 ? 0 : s === STATIONS ? lengthM : x)),
    heightsM: heightsM.map(round),
    halfBreadthsM: stationsM.map((_, s) => (breadth[near(s)] as number[]).map((y) => (y < 0 ? null : round(y)))),
    topM: stationsM.map((_, s) => round(topM[near(s)] as number)),
    bottomM: stationsM.map((_, s) => round(bottomM[near(s)] as number)),
  };
  return { lines, waterlineGirthM: girth * (options.mirror ? 2 : 1) };
}

type P3 = readonly [number, number, number];

/** Where a triangle crosses the section at x: two points (y, z). */
function crossing(
  a: P3,
  b: P3,
  c: P3,
  x: number,
): [readonly [number, number] | null, readonly [number, number] | null] {
  const found: [number, number][] = [];
  for (const [p, q] of [
    [a, b],
    [b, c],
    [c, a],
  ] as const) {
    if ((p[0] - x) * (q[0] - x) > 0 || p[0] === q[0]) continue;
    const t = (x - p[0]) / (q[0] - p[0]);
    found.push([p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]);
  }
  if (found.length === 0) return [null, null];
  // A corner on the section is found twice: take the two that are furthest apart.
  let best: [readonly [number, number], readonly [number, number]] = [
    found[0] as [number, number],
    found[0] as [number, number],
  ];
  for (const p of found)
    for (const q of found)
      if (Math.hypot(p[0] - q[0], p[1] - q[1]) > Math.hypot(best[0][0] - best[1][0], best[0][1] - best[1][1]))
        best = [p, q];
  return best;
}

function cutLength(a: P3, b: P3, c: P3, level: (q: P3) => number): number {
  const ends: P3[] = [];
  for (const [p, q] of [
    [a, b],
    [b, c],
    [c, a],
  ] as const) {
    const [f, g] = [level(p), level(q)];
    if (f < 0 === g < 0) continue;
    const t = f / (f - g);
    ends.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]);
  }
  const [p, q] = ends;
  return p && q ? Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) : 0;
}

/** Half-breadth of drawn lines at a place, m; null where there is no hull. */
export function breadthOf(lines: HullLines, x: number, z: number): number | null {
  const s = curveBetween(lines.stationsM, x);
  if (s === null) return null;
  const k = curveBetween(lines.heightsM, z);
  if (k === null) return null;
  const at = (i: number, j: number) => lines.halfBreadthsM[i]?.[j] ?? null;
  const across = (i: number) => mix(at(i, k.from), at(i, k.from + 1), k.share);
  return mix(across(s.from), across(s.from + 1), s.share);
}

/** Between two figures; where one is missing, the other. */
function mix(a: number | null, b: number | null, share: number): number | null {
  if (a === null) return b;
  if (b === null) return a;
  return a + (b - a) * share;
}
