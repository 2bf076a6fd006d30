import { CHUNK } from './mesh';
import { Impossible } from '../impossible';

/** Largest mesh file taken, bytes: two million triangles of binary STL. */
export const MESH_MAX_BYTES = 100 * 1024 * 1024;

const HEADER = 84;
const FACET = 50;
const CUT_OFF = 'It was cut off on its way here: copy or export it again.';

/**
 * Corner positions of an STL file, binary or ASCII, in the file's own unit: nine numbers a triangle. A file is
 * binary when its length fits the count of facets in it, whatever its first word is: some binary files
 * begin with "solid". [P: the STL format as published in 1988; binary is little-endian]
 * @throws RangeError with a sentence for a file that is something else, cut off, empty, or holds what is not a number
 * @example
 *   [
 *     ...parseStl(
 *       new TextEncoder().encode(
 *         'solid s\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid',
 *       ),
 *     ),
 *   ] // → [0, 0, 0, 1, 0, 0, 0, 1, 0]
 */
export function parseStl(bytes: Uint8Array): Float32Array {
  if (bytes.length === 0) throw new Impossible('The file is empty. Choose another one.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const facets = bytes.length >= HEADER ? view.getUint32(80, true) : -1;
  if (facets >= 0 && bytes.length === HEADER + facets * FACET) return binary(bytes, facets);
  if (looksLikeText(bytes)) return ascii(new TextDecoder().decode(bytes));
  if (facets < 0)
    throw new Impossible('This is not an STL file: it is too short to be one. Choose the mesh of the hull.');
  const room = Math.floor((bytes.length - HEADER) / FACET);
  // A few stray bytes after the last facet do no harm.
  if (facets > 0 && room >= facets && bytes.length - HEADER - facets * FACET < 1024) return binary(bytes, facets);
  if (room > 0 && facets > room && facets < 50_000_000)
    throw new Impossible(`The file speaks of ${facets} triangles and holds ${room}. ${CUT_OFF}`);
  throw new Impossible('This is not an STL file. Export the hull as STL or OBJ and choose that.');
}

function binary(bytes: Uint8Array, facets: number): Float32Array {
  if (facets === 0) throw new Impossible('There is not one triangle in the file. Export the hull again as a surface.');
  const positions = new Float32Array(facets * 9);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let from = 0; from < facets; from += CHUNK) {
    const to = Math.min(facets, from + CHUNK);
    if (copyFacets(view, positions, from, to) !== 0)
      throw notNumber(positions.subarray(0, to * 9).findIndex((v) => !Number.isFinite(v)));
  }
  return positions;
}

/** The hot loop of reading, written out: gives 0 where every figure is finite, NaN where one is not. */
function copyFacets(view: DataView, out: Float32Array, from: number, to: number): number {
  let odd = 0;
  // Past the header and the facet's normal.
  for (let i = from, t = from * 9, b = HEADER + 12 + from * FACET; i < to; i += 1, t += 9, b += FACET) {
    const ax = view.getFloat32(b, true),
      ay = view.getFloat32(b + 4, true),
      az = view.getFloat32(b + 8, true);
    const bx = view.getFloat32(b + 12, true),
      by = view.getFloat32(b + 16, true),
      bz = view.getFloat32(b + 20, true);
    const cx = view.getFloat32(b + 24, true),
      cy = view.getFloat32(b + 28, true),
      cz = view.getFloat32(b + 32, true);
    out[t] = ax;
    out[t + 1] = ay;
    out[t + 2] = az;
    out[t + 3] = bx;
    out[t + 4] = by;
    out[t + 5] = bz;
    out[t + 6] = cx;
    out[t + 7] = cy;
    out[t + 8] = cz;
    odd += (ax + ay + az + (bx + by + bz) + (cx + cy + cz)) * 0;
  }
  return odd;
}

function notNumber(index: number): RangeError {
  return new RangeError(
    `A corner of triangle ${Math.floor(index / 9) + 1} is not a number. Mend the mesh where it was made and export it again.`,
  );
}

/** Text has no zero bytes, and this kind of text speaks of solids and facets near its start. */
function looksLikeText(bytes: Uint8Array): boolean {
  const head = bytes.subarray(0, 1024);
  if (head.includes(0)) return false;
  return /^\s*solid\b/i.test(new TextDecoder().decode(head));
}

const NUMBER = '[+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:[eE][+-]?\\d+)?|[+-]?nan|[+-]?inf(?:inity)?';

function ascii(text: string): Float32Array {
  const vertex = new RegExp(
    `\\bvertex\\s+(${NUMBER})\\s+(${NUMBER})\\s+(${NUMBER})(?=\\s)|\\bendfacet\\b|\\bendsolid\\b`,
    'gi',
  );
  const found: number[] = [];
  let corners = 0;
  let facets = 0;
  let ended = false;
  for (let m = vertex.exec(text); m; m = vertex.exec(text)) {
    if (m[1] !== undefined) {
      found.push(Number(m[1]), Number(m[2]), Number(m[3]));
      corners += 1;
    } else if (m[0].toLowerCase() === 'endfacet') {
      facets += 1;
      if (corners !== facets * 3)
        throw new Impossible(`Triangle ${facets} does not have three corners that can be read. Export the file again.`);
    } else {
      ended = true;
    }
  }
  if (!ended || corners !== facets * 3)
    throw new Impossible(
      facets === 0 && corners === 0 && !ended
        ? 'This is not an STL file, though it begins like one. Export the hull as STL or OBJ and choose that.'
        : `The file stops after ${facets} triangles without its end. ${CUT_OFF}`,
    );
  if (facets === 0) throw new Impossible('There is not one triangle in the file. Export the hull again as a surface.');
  const odd = found.findIndex((v) => !Number.isFinite(v));
  if (odd >= 0) throw notNumber(odd);
  return Float32Array.from(found);
}
