import { Impossible } from '../impossible';

type Point = readonly [number, number, number];

/**
 * Corner positions of the faces of a Wavefront OBJ file, in the file's own unit: nine numbers a triangle.
 * Faces of more than three corners are cut into triangles from their first corner, or ear by ear where the
 * face is not convex. Negative indices count back from the newest vertex; lines may end either way and be
 * continued with a backslash. Everything but vertices and faces is passed over. [P: Wavefront OBJ appendix B1]
 * @throws RangeError with the line at fault
 * @example [...parseObj('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3')] // → [0, 0, 0, 1, 0, 0, 0, 1, 0]
 */
export function parseObj(text: string): Float32Array {
  const vertices: Point[] = [];
  const out: number[] = [];
  const lines = text.replace(/\\\r?\n/g, ' ').split('\n');
  let seen = 0;
  lines.forEach((raw, n) => {
    const line = raw.trim();
    if (line === '' || line.startsWith('#')) return;
    const words = line.split(/\s+/);
    if (words[0] === 'v') {
      seen += 1;
      const [x, y, z] = [Number(words[1]), Number(words[2]), Number(words[3])];
      if (words.length < 4 || ![x, y, z].every(Number.isFinite))
        throw new Impossible(
          `Line ${n + 1}: the vertex does not have three numbers. Mend the mesh where it was made and export it again.`,
        );
      vertices.push([x, y, z]);
    } else if (words[0] === 'f') {
      seen += 1;
      if (words.length < 4) throw new Impossible(`Line ${n + 1}: a face needs three corners. Export the file again.`);
      const face = words.slice(1).map((word) => {
        const index = Number(word.split('/')[0]);
        const vertex = Number.isInteger(index) ? vertices[index < 0 ? vertices.length + index : index - 1] : undefined;
        if (!vertex || index === 0)
          throw new Impossible(
            `Line ${n + 1}: there is no vertex ${word.split('/')[0]}. The file was cut off or mixed up: export it again.`,
          );
        return vertex;
      });
      for (const [a, b, c] of triangles(face)) out.push(...a, ...b, ...c);
    }
  });
  if (seen === 0)
    throw new Impossible(
      'This is not an OBJ file: there is neither vertex nor face in it. Export the hull as STL or OBJ and choose that.',
    );
  if (out.length === 0) throw new Impossible('There is not one face in the file. Export the hull again as a surface.');
  return Float32Array.from(out);
}

type Triangle = readonly [Point, Point, Point];

function triangles(face: readonly Point[]): Triangle[] {
  if (face.length === 3) return [face as unknown as Triangle];
  const normal = newell(face);
  const turns = (a: Point, b: Point, c: Point) => dot(cross(minus(b, a), minus(c, b)), normal);
  const convex = face.every(
    (p, i) => turns(p, face[(i + 1) % face.length] as Point, face[(i + 2) % face.length] as Point) >= 0,
  );
  if (convex) return face.slice(2).map((c, i) => [face[0], face[i + 1], c] as Triangle);
  // Cut off ears: a corner that turns the right way and has no other corner inside.
  const rest = [...face];
  const out: Triangle[] = [];
  while (rest.length > 3) {
    const ear = rest.findIndex((b, i) => {
      const a = rest[(i + rest.length - 1) % rest.length] as Point;
      const c = rest[(i + 1) % rest.length] as Point;
      if (turns(a, b, c) <= 0) return false;
      return rest.every(
        (p) => p === a || p === b || p === c || !(turns(a, b, p) >= 0 && turns(b, c, p) >= 0 && turns(c, a, p) >= 0),
      );
    });
    // A face that crosses itself has no ear left: take the next corner, so that it ends.
    const i = Math.max(0, ear);
    out.push([
      rest[(i + rest.length - 1) % rest.length] as Point,
      rest[i] as Point,
      rest[(i + 1) % rest.length] as Point,
    ]);
    rest.splice(i, 1);
  }
  return [...out, rest as unknown as Triangle];
}

const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot = (a: Point, b: Point) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** Normal of a face that need not be quite flat. [P: Newell's method] */
function newell(face: readonly Point[]): Point {
  return face.reduce<Point>(
    (n, a, i) => {
      const b = face[(i + 1) % face.length] as Point;
      return [
        n[0] + (a[1] - b[1]) * (a[2] + b[2]),
        n[1] + (a[2] - b[2]) * (a[0] + b[0]),
        n[2] + (a[0] - b[0]) * (a[1] + b[1]),
      ];
    },
    [0, 0, 0],
  );
}
