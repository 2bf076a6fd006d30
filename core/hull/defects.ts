import { Parts } from './facing';
import { runSteps } from '../steps';
import { CHUNK, meshBounds, triangleCount } from './mesh';

export interface MeshDefects {
  /** Edges that belong to one triangle only: the rim of a hole, or of the mesh. */
  readonly openEdges: number;
  /** Triangles without area, and second copies of a triangle. */
  readonly degenerate: number;
  /** Triangles that face the other way than their neighbours, or inwards. */
  readonly inverted: number;
}

/** Corners closer than this share of the model's size are one. */
const WELD = 1e-6;
const NONE = -1;

/**
 * What is wrong with a mesh. Nothing here stops an area from being worked out; it says how far to trust it.
 * @param options.positions nine numbers a triangle
 * @param options.mirror the mesh is one side: a rim along the centreplane (y = 0) is no hole
 * @throws RangeError on an empty or broken mesh
 * @example meshDefects({ positions: corner }).openEdges // → 0
 */
export function meshDefects(options: { positions: Float32Array; mirror?: boolean }): MeshDefects {
  return runSteps(meshDefectSteps(options));
}

/**
 * The same in steps, for a worker: yields the share done.
 * @example runSteps(meshDefectSteps({ positions: corner })).openEdges // → 0
 */
export function* meshDefectSteps(options: {
  positions: Float32Array;
  mirror?: boolean;
}): Generator<number, MeshDefects> {
  const { positions: p, mirror = false } = options;
  const count = triangleCount(p);
  const [low, high] = meshBounds(p);
  const size = Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]) || 1;
  const welder = new Welder(p, low, size * WELD);
  const corner = new Int32Array(count * 3);
  for (let from = 0; from < count; from += CHUNK) {
    welder.weldAll(corner, from * 3, Math.min(count, from + CHUNK) * 3);
    yield 0.45 * (from / count);
  }

  const edges = new Edges(welder.count, count);
  const survey: Survey = {
    p,
    size,
    corner,
    edges,
    seen: new Triangles(welder.count, count),
    parts: new Parts(count),
    skipped: new Uint8Array(count),
  };
  let degenerate = 0;
  for (let from = 0; from < count; from += CHUNK) {
    degenerate += joinTriangles(survey, from, Math.min(count, from + CHUNK));
    yield 0.45 + 0.45 * (from / count);
  }
  const onCentre = (v: number) => Math.abs(p[3 * welder.cornerOf(v) + 1] as number) <= size * WELD * 4;
  const openEdges = edges.open(mirror ? (v, w) => onCentre(v) && onCentre(w) : () => false);
  yield 0.95;
  return { openEdges, degenerate, inverted: survey.parts.inverted(p, survey.skipped, low, high) };
}

interface Survey {
  readonly p: Float32Array;
  readonly size: number;
  /** Vertex of every corner. */
  readonly corner: Int32Array;
  readonly edges: Edges;
  readonly seen: Triangles;
  readonly parts: Parts;
  /** 1 where a triangle is no surface of its own. */
  readonly skipped: Uint8Array;
}

/** Hang some triangles on their neighbours; gives how many are none. */
function joinTriangles({ p, size, corner, edges, seen, parts, skipped }: Survey, from: number, to: number): number {
  let degenerate = 0;
  for (let t = from; t < to; t += 1) {
    const a = corner[3 * t] as number,
      b = corner[3 * t + 1] as number,
      c = corner[3 * t + 2] as number;
    const none = a === b || b === c || c === a || flat(p, 9 * t, size);
    const ab = none ? NONE : edges.find(a, b);
    const bc = none ? NONE : edges.find(b, c);
    const ca = none ? NONE : edges.find(c, a);
    // A second copy finds all its edges there.
    if (none || (ab !== NONE && bc !== NONE && ca !== NONE && seen.holds(corner, t))) {
      skipped[t] = 1;
      degenerate += 1;
      continue;
    }
    seen.add(corner, t);
    hang(parts, t, edges.use(ab, a, b, t), a < b);
    hang(parts, t, edges.use(bc, b, c, t), b < c);
    hang(parts, t, edges.use(ca, c, a, t), c < a);
  }
  return degenerate;
}

/** Two neighbours that run along their edge the same way face opposite ways. */
function hang(parts: Parts, t: number, other: number, up: boolean): void {
  if (other !== NONE) parts.join(t, other >> 1, ((other & 1) === 1) === up);
}

/** A sliver whose height is below the welding distance has no area worth the name. */
export function flat(p: Float32Array, i: number, size: number): boolean {
  const ax = p[i] as number,
    ay = p[i + 1] as number,
    az = p[i + 2] as number;
  const ux = (p[i + 3] as number) - ax,
    uy = (p[i + 4] as number) - ay,
    uz = (p[i + 5] as number) - az;
  const vx = (p[i + 6] as number) - ax,
    vy = (p[i + 7] as number) - ay,
    vz = (p[i + 8] as number) - az;
  const nx = uy * vz - uz * vy,
    ny = uz * vx - ux * vz,
    nz = ux * vy - uy * vx;
  const twice = Math.sqrt(nx * nx + ny * ny + nz * nz);
  return twice <= 1e-7 * size * Math.sqrt(Math.max(ux * ux + uy * uy + uz * uz, vx * vx + vy * vy + vz * vz));
}

/** Gives every corner the number of the first corner that stands at its place. */
class Welder {
  count = 0;
  private readonly next: Int32Array;
  private readonly first: Int32Array;
  private readonly head: Int32Array;
  private readonly mask: number;
  /** Cells are much wider than the welding distance: only a corner near a side looks next door. */
  private readonly cell: number;

  constructor(
    private readonly p: Float32Array,
    private readonly low: readonly number[],
    private readonly eps: number,
  ) {
    const corners = p.length / 3;
    let slots = 1024;
    while (slots < corners / 2) slots *= 2;
    this.mask = slots - 1;
    this.head = new Int32Array(slots).fill(NONE);
    this.next = new Int32Array(corners);
    this.first = new Int32Array(corners);
    this.cell = eps * 256;
  }

  cornerOf(vertex: number): number {
    return this.first[vertex] as number;
  }

  /** Weld some corners. Triangles beside each other in a file mostly share an edge: the last one is tried first. */
  weldAll(out: Int32Array, from: number, to: number): void {
    for (let i = from; i < to; i += 1) {
      const start = i - (i % 3) - 3;
      out[i] =
        start < 0
          ? this.weld(i)
          : this.same(start, i)
            ? (out[start] as number)
            : this.same(start + 1, i)
              ? (out[start + 1] as number)
              : this.same(start + 2, i)
                ? (out[start + 2] as number)
                : this.weld(i);
    }
  }

  private same(a: number, b: number): boolean {
    const { p } = this;
    return p[3 * a] === p[3 * b] && p[3 * a + 1] === p[3 * b + 1] && p[3 * a + 2] === p[3 * b + 2];
  }

  private weld(corner: number): number {
    const { p, cell, eps, low } = this;
    const x = ((p[3 * corner] as number) - (low[0] as number)) / cell;
    const y = ((p[3 * corner + 1] as number) - (low[1] as number)) / cell;
    const z = ((p[3 * corner + 2] as number) - (low[2] as number)) / cell;
    const ix = Math.floor(x),
      iy = Math.floor(y),
      iz = Math.floor(z);
    const home = this.slot(ix, iy, iz);
    let found = this.look(home, corner);
    if (found !== NONE) return found;
    const edge = eps / cell;
    const dx = x - ix < edge ? -1 : x - ix > 1 - edge ? 1 : 0;
    const dy = y - iy < edge ? -1 : y - iy > 1 - edge ? 1 : 0;
    const dz = z - iz < edge ? -1 : z - iz > 1 - edge ? 1 : 0;
    if (dx !== 0 || dy !== 0 || dz !== 0) {
      for (let near = 1; near < 8 && found === NONE; near += 1) {
        const [sx, sy, sz] = [near & 1 ? dx : 0, near & 2 ? dy : 0, near & 4 ? dz : 0];
        if (sx !== 0 || sy !== 0 || sz !== 0) found = this.look(this.slot(ix + sx, iy + sy, iz + sz), corner);
      }
      if (found !== NONE) return found;
    }
    const vertex = this.count;
    this.count += 1;
    this.first[vertex] = corner;
    this.next[vertex] = this.head[home] as number;
    this.head[home] = vertex;
    return vertex;
  }

  private slot(ix: number, iy: number, iz: number): number {
    let h = Math.imul(ix, 0x9e3779b1) ^ Math.imul(iy, 0x85ebca6b) ^ Math.imul(iz, 0xc2b2ae35);
    h ^= h >>> 15;
    h = Math.imul(h, 0x2c1b3c6d);
    return (h ^ (h >>> 13)) & this.mask;
  }

  private look(slot: number, corner: number): number {
    const { p, eps } = this;
    const x = p[3 * corner] as number,
      y = p[3 * corner + 1] as number,
      z = p[3 * corner + 2] as number;
    for (let v = this.head[slot] as number; v !== NONE; v = this.next[v] as number) {
      const q = 3 * (this.first[v] as number);
      if (
        Math.abs((p[q] as number) - x) <= eps &&
        Math.abs((p[q + 1] as number) - y) <= eps &&
        Math.abs((p[q + 2] as number) - z) <= eps
      )
        return v;
    }
    return NONE;
  }
}

/**
 * Undirected edges, listed at their lower vertex: neighbours in the mesh stay neighbours in memory. Four numbers
 * an edge, side by side: other vertex, next in the list, who made it (triangle · 2 + 1 where it ran up the edge
 * from the lower vertex), uses.
 */
class Edges {
  private readonly head: Int32Array;
  private readonly list: Int32Array;
  private end = 0;

  constructor(vertices: number, triangles: number) {
    this.head = new Int32Array(vertices).fill(NONE);
    this.list = new Int32Array(triangles * 12);
  }

  /** Place of the edge between two vertices; −1 where there is none yet. */
  find(v: number, w: number): number {
    const { list } = this;
    const high = v < w ? w : v;
    let e = this.head[v < w ? v : w] as number;
    while (e !== NONE && list[e] !== high) e = list[e + 1] as number;
    return e;
  }

  /** Note that a triangle runs from v to w along the edge found; gives who made the edge, or −1 where it is new. */
  use(e: number, v: number, w: number, triangle: number): number {
    const { list } = this;
    if (e !== NONE) {
      list[e + 3] = (list[e + 3] as number) + 1;
      return list[e + 2] as number;
    }
    const low = v < w ? v : w;
    const fresh = this.end;
    this.end += 4;
    list[fresh] = v < w ? w : v;
    list[fresh + 1] = this.head[low] as number;
    list[fresh + 2] = triangle * 2 + (v < w ? 1 : 0);
    list[fresh + 3] = 1;
    this.head[low] = fresh;
    return NONE;
  }

  open(excused: (v: number, w: number) => boolean): number {
    const { list } = this;
    let open = 0;
    for (let v = 0; v < this.head.length; v += 1) {
      for (let e = this.head[v] as number; e !== NONE; e = list[e + 1] as number)
        if (list[e + 3] === 1 && !excused(v, list[e] as number)) open += 1;
    }
    return open;
  }
}

/** Triangles listed at their lowest vertex, to know a second copy. */
export class Triangles {
  private readonly head: Int32Array;
  private readonly next: Int32Array;

  constructor(vertices: number, triangles: number) {
    this.head = new Int32Array(vertices).fill(NONE);
    this.next = new Int32Array(triangles);
  }

  add(corner: Int32Array, t: number): void {
    const lowest = this.lowest(corner, t);
    this.next[t] = this.head[lowest] as number;
    this.head[lowest] = t;
  }

  /** Whether a triangle of the same corners was added. */
  holds(corner: Int32Array, t: number): boolean {
    const a = corner[3 * t] as number,
      b = corner[3 * t + 1] as number,
      c = corner[3 * t + 2] as number;
    for (let o = this.head[this.lowest(corner, t)] as number; o !== NONE; o = this.next[o] as number) {
      const x = corner[3 * o] as number,
        y = corner[3 * o + 1] as number,
        z = corner[3 * o + 2] as number;
      if ((x === a || x === b || x === c) && (y === a || y === b || y === c) && (z === a || z === b || z === c))
        return true;
    }
    return false;
  }

  private lowest(corner: Int32Array, t: number): number {
    const a = corner[3 * t] as number,
      b = corner[3 * t + 1] as number,
      c = corner[3 * t + 2] as number;
    return a < b ? (a < c ? a : c) : b < c ? b : c;
  }
}
