import type { HullShape } from '../hull/shape';
import { positive } from '../guard';
import type { DrawnLine } from './waterlineLog';
import { bandAt, flareDegAt } from './skin';
import { lineAboveGround, type Standing } from './standing';

/** One station of a line, all that is set off there. Lengths in m. */
export interface LineStation {
  readonly no: number;
  readonly xM: number;
  /** Above the drawn waterline; null where the line leaves the hull, or has no height. */
  readonly heightM: number | null;
  readonly belowRailM: number | null;
  /** Above the ground, to port and to starboard; null while nobody measured how she stands. */
  readonly groundPortM: number | null;
  readonly groundStarboardM: number | null;
  readonly flareDeg: number | null;
  /** Of the boot-top over it, seen from the side and along the skin. */
  readonly bandHeightM: number | null;
  readonly bandWidthM: number | null;
}

/**
 * Stations so far apart from the stern on, the last at her end.
 * @throws RangeError on a distance of zero
 * @example stationsAlong(1.2, 0.5) // → [0, 0.5, 1, 1.2]
 */
export function stationsAlong(lengthM: number, stepM: number): number[] {
  const count = Math.floor(lengthM / positive(stepM, 'From station to station') + 1e-9);
  const even = Array.from({ length: count + 1 }, (_, i) => i * stepM);
  return lengthM - count * stepM > 1e-3 ? [...even, lengthM] : even;
}

/**
 * A line as a table: at every station its height above the drawn waterline, below the rail and above the ground on both
 * sides, the flare there, and the boot-top over it. Where the line leaves the hull a station says so by having none.
 * @param options.xM stations, m forward of the aftermost point
 * @example
 *   lineTable({
 *     line: { heightM: () => 0.1, line: { bandM: 0, bandMode: 'height' } },
 *     shape: { half: () => 1, sheer: () => 1, bottom: () => -1 },
 *     standing: null,
 *     xM: [1],
 *   })[0].belowRailM // → 0.9
 */
export function lineTable(options: {
  line: Pick<DrawnLine, 'heightM'> & { readonly line: Pick<DrawnLine['line'], 'bandM' | 'bandMode'> };
  shape: Pick<HullShape, 'half' | 'sheer' | 'bottom'>;
  standing: Standing | null;
  xM: readonly number[];
}): LineStation[] {
  const { line, shape, standing } = options;
  const { bandM, bandMode } = line.line;
  return options.xM.map((xM, i): LineStation => {
    const heightM = line.heightM(xM);
    const off = heightM === null || heightM > shape.sheer(xM) || heightM < shape.bottom(xM);
    if (off) return { ...NONE, no: i + 1, xM };
    const half = shape.half(xM, heightM);
    const ground = (yM: number) =>
      standing ? (lineAboveGround({ standing, lineM: heightM, stations: [{ xM, yM }] })[0] as number) : null;
    const flareDeg = flareDegAt({ shape, xM, heightM });
    const band = bandM > 0 && flareDeg !== null ? bandAt({ mode: bandMode, bandM, flareDeg }) : null;
    return {
      no: i + 1,
      xM,
      heightM,
      belowRailM: shape.sheer(xM) - heightM,
      groundPortM: ground(half),
      groundStarboardM: ground(-half),
      flareDeg,
      bandHeightM: band?.heightM ?? null,
      bandWidthM: band?.widthM ?? null,
    };
  });
}

const NONE: Omit<LineStation, 'no' | 'xM'> = {
  heightM: null,
  belowRailM: null,
  groundPortM: null,
  groundStarboardM: null,
  flareDeg: null,
  bandHeightM: null,
  bandWidthM: null,
};

/** Columns of the table as it goes out, in metres and degrees. */
const COLUMNS = [
  'station',
  'forward_m',
  'height_m',
  'below_rail_m',
  'above_ground_port_m',
  'above_ground_starboard_m',
  'flare_deg',
  'boot_top_height_m',
  'boot_top_width_m',
] as const;

/**
 * The table as cells, metres to the millimetre, its head first.
 * @example lineCells([])[0].length // → 9
 */
export function lineCells(rows: readonly LineStation[]): string[][] {
  const m = (v: number | null) => (v === null ? '' : v.toFixed(3));
  return [
    [...COLUMNS],
    ...rows.map((r) => [
      String(r.no),
      m(r.xM),
      m(r.heightM),
      m(r.belowRailM),
      m(r.groundPortM),
      m(r.groundStarboardM),
      r.flareDeg === null ? '' : r.flareDeg.toFixed(1),
      m(r.bandHeightM),
      m(r.bandWidthM),
    ]),
  ];
}
