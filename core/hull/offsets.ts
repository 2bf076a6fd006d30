import { notNegative } from '../guard';
import { checkStations } from './girths';
import { integrate } from './integrate';
import { shareBelow } from './triangle';
import { Impossible } from '../impossible';

/** A hull as half-breadths at stations and waterlines; null where the hull is not, or was not measured. */
export interface OffsetTable {
  /** Ascending, m. */
  readonly stationsM: readonly number[];
  /** Heights, ascending, m. */
  readonly waterlinesM: readonly number[];
  /** `[station][waterline]`, m. */
  readonly halfBreadthsM: readonly (readonly (number | null)[])[];
}

/** Corner of a grid cell: station, height, half-breadth. */
type Corner = readonly [x: number, z: number, y: number];

/**
 * A table of offsets, checked.
 * @throws RangeError naming the station or waterline out of order, or the row that does not fit
 * @example
 *   checkOffsets({ ...box, stationsM: [0, 4, 2] }) // → throws Station 3 comes before station 2. Put them in order.
 */
export function checkOffsets(table: OffsetTable): void {
  checkStations(table.stationsM);
  checkStations(table.waterlinesM, 'Waterline');
  if (table.halfBreadthsM.length !== table.stationsM.length)
    throw new Impossible(
      `There are ${table.stationsM.length} stations but ${table.halfBreadthsM.length} rows of half-breadths. Make them match.`,
    );
  table.halfBreadthsM.forEach((row, i) => {
    if (row.length !== table.waterlinesM.length)
      throw new Impossible(
        `Station ${i + 1} has ${row.length} half-breadths for ${table.waterlinesM.length} waterlines. Make them match.`,
      );
    row.forEach((y, k) => {
      if (y !== null) notNegative(y, `The half-breadth at station ${i + 1}, waterline ${k + 1}`);
    });
  });
}

/**
 * Area of both sides, m², from a table of offsets: the two triangles of every grid cell, cut exactly at the
 * heights asked for. A triangle that lies wholly in the centreplane is no hull and is left out, as is one
 * with a corner that was not measured. [P: naval-architecture texts; CP]
 * @param options.fromM lowest height, m; left out, from the lowest waterline
 * @param options.toM highest height, m; left out, to the highest
 * @returns `areaM2`, and `openBottomM2`, the plan area inside the lowest waterline, which the table leaves open
 * @throws RangeError on stations or waterlines out of order, rows that do not fit, negative figures
 */
export function areaFromOffsets(options: OffsetTable & { fromM?: number; toM?: number }): {
  areaM2: number;
  openBottomM2: number;
} {
  const { fromM = -Infinity, toM = Infinity } = options;
  checkOffsets(options);
  if (!(fromM < toM)) throw new Impossible('The lower height must lie below the upper one. Check the two heights.');
  let area = 0;
  for (const [a, b, c] of offsetTriangles(options)) {
    const below = (level: number) =>
      level === Infinity ? 1 : level === -Infinity ? 0 : shareBelow(a[1] - level, b[1] - level, c[1] - level);
    area += triangleArea(a, b, c) * (below(toM) - below(fromM));
  }
  return { areaM2: 2 * area, openBottomM2: fromM <= (options.waterlinesM[0] as number) ? bottomPlan(options) : 0 };
}

/** Every triangle of the grid that is hull, one side. */
export function* offsetTriangles(table: OffsetTable): Generator<readonly [Corner, Corner, Corner]> {
  const corner = (i: number, k: number): Corner | null => {
    const y = table.halfBreadthsM[i]?.[k];
    return typeof y === 'number' ? [table.stationsM[i] as number, table.waterlinesM[k] as number, y] : null;
  };
  for (let i = 0; i + 1 < table.stationsM.length; i += 1) {
    for (let k = 0; k + 1 < table.waterlinesM.length; k += 1) {
      const [a, b, c, d] = [corner(i, k), corner(i + 1, k), corner(i + 1, k + 1), corner(i, k + 1)];
      // The shorter diagonal follows the surface better; where one corner is missing, the other three stand.
      const straight = a && c ? distance(a, c) : Infinity;
      const other = b && d ? distance(b, d) : Infinity;
      const pairs =
        straight <= other
          ? [
              [a, b, c],
              [a, c, d],
            ]
          : [
              [a, b, d],
              [b, c, d],
            ];
      for (const [p, q, r] of pairs) if (p && q && r && (p[2] > 0 || q[2] > 0 || r[2] > 0)) yield [p, q, r];
    }
  }
}

/** Plan area inside the lowest waterline, both sides, m². */
function bottomPlan(table: OffsetTable): number {
  const known = table.stationsM.flatMap((x, i) =>
    typeof table.halfBreadthsM[i]?.[0] === 'number' ? [{ x, y: table.halfBreadthsM[i][0] }] : [],
  );
  return known.length < 2 ? 0 : 2 * integrate({ x: known.map((p) => p.x), y: known.map((p) => p.y) }).integral;
}

const distance = (a: Corner, b: Corner) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

function triangleArea(a: Corner, b: Corner, c: Corner): number {
  const [ux, uz, uy] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [vx, vz, vy] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
}
