import { meshBounds, triangleCount } from './mesh';

/**
 * A coarser mesh to look at: corners of one cell of a grid drawn together, what collapses left out. Small
 * meshes are given back as they are.
 * @param options.most about how many triangles to keep
 * @example previewMesh({ positions: corner, most: 100 }).length / 9 // → 4
 */
export function previewMesh(options: { positions: Float32Array; most: number }): Float32Array {
  const { positions, most } = options;
  if (triangleCount(positions) <= most) return positions.slice();
  const [low, high] = meshBounds(positions);
  const size = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]) || 1;
  // A surface fills about the square of the cells along its length.
  let cells = Math.sqrt(most * 1.2);
  for (;;) {
    const out = collapse(positions, low, size / cells);
    if (out.length / 9 <= most || cells < 4) return out;
    cells *= 0.8;
  }
}

function collapse(positions: Float32Array, low: readonly number[], cell: number): Float32Array {
  // Every cell is stood for by the first corner in it, so that the preview lies on the surface itself.
  const first = new Map<number, number>();
  const seen = new Set<string>();
  const out: number[] = [];
  const at = (i: number, k: number) => Math.round(((positions[i + k] as number) - (low[k] as number)) / cell);
  const standIn = (i: number) => {
    // Three numbers below 2¹⁶ fit one number exactly.
    const spot = (at(i, 0) * 65_536 + at(i, 1)) * 65_536 + at(i, 2);
    const found = first.get(spot);
    if (found !== undefined) return found;
    first.set(spot, i);
    return i;
  };
  for (let i = 0; i < positions.length; i += 9) {
    const corners = [standIn(i), standIn(i + 3), standIn(i + 6)] as const;
    const [a, b, c] = corners;
    if (a === b || b === c || c === a) continue;
    const name = [...corners].sort((x, y) => x - y).join(' ');
    if (seen.has(name)) continue;
    seen.add(name);
    for (const corner of corners) for (let k = 0; k < 3; k += 1) out.push(positions[corner + k] as number);
  }
  return Float32Array.from(out);
}
