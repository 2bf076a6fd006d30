/** Tests only: closed solids with known areas and volumes, as corner positions, outward facing. */
type Point = readonly [number, number, number];

export function mesh(triangles: readonly (readonly [Point, Point, Point])[]): Float32Array {
  return Float32Array.from(triangles.flatMap((t) => t.flatMap((p) => [...p])));
}

/** A patch from a grid of points, its outside to the right of going i then k. */
function grid(at: (u: number, v: number) => Point, nu: number, nv: number): (readonly [Point, Point, Point])[] {
  const out: (readonly [Point, Point, Point])[] = [];
  for (let i = 0; i < nu; i += 1) {
    for (let k = 0; k < nv; k += 1) {
      const [a, b, c, d] = [
        at(i / nu, k / nv),
        at((i + 1) / nu, k / nv),
        at((i + 1) / nu, (k + 1) / nv),
        at(i / nu, (k + 1) / nv),
      ];
      out.push([a, b, c], [a, c, d]);
    }
  }
  return out.filter(([a, b, c]) => Math.hypot(...cross(minus(b, a), minus(c, a))) > 1e-12);
}

const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** Ellipsoid about the origin; equal half-axes make a sphere. */
export function ellipsoid(a: number, b: number, c: number, n = 48): Float32Array {
  const at = (u: number, v: number): Point => {
    // Seam and poles meet exactly.
    const [phi, theta] = [2 * Math.PI * (u % 1), Math.PI * v];
    const ring = v === 0 || v === 1 ? 0 : Math.sin(theta);
    return [a * ring * Math.cos(phi), b * ring * Math.sin(phi), -c * Math.cos(theta)];
  };
  return mesh(grid(at, 2 * n, n));
}

/** Box from the origin to (l, w, h). */
export function box(l: number, w: number, h: number): Float32Array {
  const p = (i: number): Point => [i & 1 ? l : 0, i & 2 ? w : 0, i & 4 ? h : 0];
  const faces = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ];
  return mesh(
    faces.flatMap(
      ([a, b, c, d]) =>
        [
          [p(a as number), p(b as number), p(c as number)],
          [p(a as number), p(c as number), p(d as number)],
        ] as [Point, Point, Point][],
    ),
  );
}

/** Cylinder lying along x, radius r, about the origin, without its ends. */
export function tube(r: number, length: number, n = 96): Float32Array {
  return mesh(
    grid(
      (u, v) => [length * (v - 0.5), r * Math.sin(2 * Math.PI * (u % 1)), r * Math.cos(2 * Math.PI * (u % 1))],
      n,
      8,
    ),
  );
}

export const WIGLEY = { L: 10, B: 1, T: 0.625 };

/** y of the Wigley hull, B/L = 0.1, T/L = 0.0625; z from −T to 0. */
export function wigleyY(x: number, z: number): number {
  const { L, B, T } = WIGLEY;
  return (B / 2) * (1 - ((2 * x) / L) ** 2) * (1 - (z / T) ** 2);
}

/** One side (to port) or both sides of the Wigley hull below its waterline at z = 0; open at the top. */
export function wigley(sides: 'port' | 'both', nx = 60, nz = 30): Float32Array {
  const { L, T } = WIGLEY;
  // Where bow and keel meet, a triangle would lie in the centreplane: no skin.
  const port = grid((u, v) => [L * (u - 0.5), wigleyY(L * (u - 0.5), -T * v), -T * v], nx, nz).filter((t) =>
    t.some((p) => p[1] > 0),
  );
  if (sides === 'port') return mesh(port);
  const flip = (p: Point): Point => [p[0], -p[1], p[2]];
  return mesh([...port, ...port.map(([a, b, c]) => [flip(a), flip(c), flip(b)] as const)]);
}

/** Binary STL of positions, its header as given. */
export function binaryStl(positions: Float32Array, header = 'made for a test'): Uint8Array<ArrayBuffer> {
  const count = positions.length / 9;
  const bytes = new Uint8Array(84 + count * 50);
  bytes.set(new TextEncoder().encode(header).subarray(0, 80));
  const view = new DataView(bytes.buffer);
  view.setUint32(80, count, true);
  positions.forEach((value, i) => view.setFloat32(84 + Math.floor(i / 9) * 50 + 12 + (i % 9) * 4, value, true));
  return bytes;
}
