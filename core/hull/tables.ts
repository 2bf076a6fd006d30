import { parseQuantity } from '../units/parse';
import { toCore } from '../units/quantities';
import type { OffsetTable } from './offsets';
import type { GirthStation } from '../model/area';

/** Units a bare figure of a table may be in. */
export const TABLE_UNITS = ['m', 'cm', 'mm', 'ft', 'in'] as const;
export type TableUnit = (typeof TABLE_UNITS)[number];

/** A cell that could not be read; row and column count from 1, as a spreadsheet does. */
export interface BadCell {
  readonly row: number;
  readonly column: number;
  readonly text: string;
  readonly message: string;
}

/** How figures of a table are written. */
export interface TableStyle {
  readonly unit: TableUnit;
  readonly decimalComma: boolean;
}

type Cell = { ok: true; value: number | null } | { ok: false; message: string };

/**
 * One cell of a table, in metres. Empty, a dash or "n/a" is null. A bare figure is in the table's unit; a figure
 * with its own unit is taken by that; "3-4-5" is feet, inches and eighths, as tables of offsets are lofted
 * ("3-4-5+" a sixteenth more). [CP]
 */
export function readCell(text: string, style: TableStyle): Cell {
  const tidy = text.trim();
  if (/^(|-|–|—|n\/?a|null)$/i.test(tidy)) return { ok: true, value: null };
  const lofted = /^(\d+)-(\d+)-(\d+)([+-]?)$/.exec(tidy);
  if (lofted) {
    const [feet, inches, eighths] = lofted.slice(1, 4).map(Number) as [number, number, number];
    if (inches > 11 || eighths > 7)
      return { ok: false, message: `"${tidy}" is not feet-inches-eighths: inches go to 11, eighths to 7.` };
    const sixteenth = lofted[4] === '+' ? 0.5 : lofted[4] === '-' ? -0.5 : 0;
    return {
      ok: true,
      value: toCore('length', 'ft', feet) + toCore('length', 'in', inches + (eighths + sixteenth) / 8),
    };
  }
  const pointed = style.decimalComma ? tidy.replace(/\./g, '').replace(',', '.') : tidy;
  const parsed = parseQuantity({ quantity: 'length', text: pointed, system: 'metric', bareUnit: style.unit });
  return parsed.ok ? { ok: true, value: parsed.value } : parsed;
}

/**
 * Whether figures seem to be written with a decimal comma: some can be nothing else, and none has a point.
 * @example seemsDecimalComma([['1,5', '2,25']]) // → true
 */
export function seemsDecimalComma(cells: readonly (readonly string[])[]): boolean {
  const all = cells.flat().map((c) => c.trim());
  const comma = all.some((c) => /^-?\d*,(\d{1,2}|\d{4,})$/.test(c) || /^-?0,\d+$/.test(c));
  return comma && !all.some((c) => /^-?\d*\.\d+$/.test(c));
}

/**
 * The unit named in the headings, "(mm)" or "[ft]", if one is.
 * @example unitInHeadings(['station', 'half-girth (cm)']) // → 'cm'
 */
export function unitInHeadings(headings: readonly string[]): TableUnit | null {
  for (const heading of headings) {
    const named = /[([]\s*(mm|cm|m|ft|in)\s*[)\]]/i.exec(heading)?.[1]?.toLowerCase();
    if (named) return named as TableUnit;
  }
  return null;
}

export interface GirthColumns {
  readonly position: number;
  readonly halfGirth: number;
  /** −1: none. */
  readonly halfBreadth: number;
}

/**
 * Columns by their headings; where those say nothing, in the usual order.
 * @example
 *   guessGirthColumns(['position', 'half-girth', 'half-breadth']) // → { position: 0, halfGirth: 1, halfBreadth: 2 }
 */
export function guessGirthColumns(headings: readonly string[]): GirthColumns {
  const find = (pattern: RegExp, not: readonly number[]) =>
    headings.findIndex((h, i) => pattern.test(h) && !not.includes(i));
  const halfBreadth = find(/breadth|width|beam/i, []);
  const halfGirth = find(/girth|tape/i, [halfBreadth]);
  const position = find(/^x\b|pos|dist|from|station|length/i, [halfBreadth, halfGirth]);
  const free = headings.map((_, i) => i).filter((i) => i !== halfBreadth && i !== halfGirth && i !== position);
  const take = (found: number) => (found >= 0 ? found : (free.shift() ?? -1));
  const p = take(position);
  const g = take(halfGirth);
  return { position: p, halfGirth: g, halfBreadth: halfBreadth >= 0 ? halfBreadth : (free.shift() ?? -1) };
}

/**
 * Whether the first row is headings: it holds something that is no figure.
 * @example
 *   hasHeadings(
 *     [
 *       ['position', 'girth'],
 *       ['0', '1.2'],
 *     ],
 *     { unit: 'm', decimalComma: false },
 *   ) // → true
 */
export function hasHeadings(cells: readonly (readonly string[])[], style: TableStyle): boolean {
  return (cells[0] ?? []).some((c) => !readCell(c, style).ok);
}

/**
 * Girths out of the cells of a table. Rows without a position are named; the rest is kept, in the order of the stations.
 * @example
 *   readGirthTable({
 *     cells: [
 *       ['0', '1.2'],
 *       ['1', '1.4'],
 *     ],
 *     columns: { position: 0, halfGirth: 1, halfBreadth: -1 },
 *     style: { unit: 'm', decimalComma: false },
 *     headings: false,
 *   }).stations.length // → 2
 */
export function readGirthTable(options: {
  cells: readonly (readonly string[])[];
  columns: GirthColumns;
  style: TableStyle;
  headings: boolean;
}): { stations: GirthStation[]; bad: BadCell[] } {
  const { cells, columns, style, headings } = options;
  const bad: BadCell[] = [];
  const stations: GirthStation[] = [];
  cells.forEach((row, r) => {
    if ((headings && r === 0) || row.every((c) => c.trim() === '')) return;
    const read = (column: number): number | null => {
      if (column < 0) return null;
      const text = row[column] ?? '';
      const cell = readCell(text, style);
      const problem = !cell.ok
        ? cell.message
        : cell.value !== null && cell.value < 0 && column !== columns.position
          ? 'A length cannot be less than zero.'
          : null;
      if (problem !== null) bad.push({ row: r + 1, column: column + 1, text, message: problem });
      return cell.ok && problem === null ? cell.value : null;
    };
    const known = bad.length;
    const xM = read(columns.position);
    if (xM === null && bad.length === known)
      bad.push({
        row: r + 1,
        column: columns.position + 1,
        text: row[columns.position] ?? '',
        message: 'The station has no position.',
      });
    const [halfGirthM, halfBreadthM] = [read(columns.halfGirth), read(columns.halfBreadth)];
    if (xM !== null) stations.push({ xM, halfGirthM, halfBreadthM });
  });
  return { stations: stations.sort((a, b) => a.xM - b.xM), bad };
}

/**
 * A table of offsets out of cells: heights of the waterlines along the first row, positions of the stations down the
 * first column, or the other way round. Rows and columns are put in ascending order.
 * @example
 *   readOffsetCells({
 *     cells: [
 *       ['', '0', '2'],
 *       ['0', '1', '1'],
 *       ['1', '1.2', '1.2'],
 *     ],
 *     stationsAcross: true,
 *     style: { unit: 'm', decimalComma: false },
 *   }).table.stationsM // → [0, 2]
 */
export function readOffsetCells(options: {
  cells: readonly (readonly string[])[];
  stationsAcross: boolean;
  style: TableStyle;
}): { table: OffsetTable; bad: BadCell[] } {
  const { stationsAcross, style } = options;
  const cells = options.cells.filter((row) => row.some((c) => c.trim() !== ''));
  const bad: BadCell[] = [];
  const read = (r: number, c: number, what: string | null): number | null => {
    const text = cells[r]?.[c] ?? '';
    const cell = readCell(text, style);
    const problem = !cell.ok
      ? cell.message
      : what !== null && cell.value === null
        ? `The ${what} has no position.`
        : what === null && cell.value !== null && cell.value < 0
          ? 'A half-breadth cannot be less than zero.'
          : null;
    if (problem !== null) bad.push({ row: r + 1, column: c + 1, text, message: problem });
    return cell.ok && problem === null ? cell.value : null;
  };
  const width = Math.max(0, ...cells.map((row) => row.length));
  const [across, down] = stationsAcross ? (['station', 'waterline'] as const) : (['waterline', 'station'] as const);
  const columns = range(1, width).map((c) => ({ at: read(0, c, across), index: c }));
  const rows = range(1, cells.length).map((r) => ({ at: read(r, 0, down), index: r }));
  const known = <T extends { at: number | null }>(list: T[]) =>
    (list.filter((l) => l.at !== null) as (T & { at: number })[]).sort((a, b) => a.at - b.at);
  const [cs, rs] = [known(columns), known(rows)];
  const values = new Map<string, number | null>();
  for (const r of rs) for (const c of cs) values.set(`${r.index} ${c.index}`, read(r.index, c.index, null));
  const value = (r: number, c: number) => values.get(`${r} ${c}`) ?? null;
  const table = stationsAcross
    ? {
        stationsM: cs.map((c) => c.at),
        waterlinesM: rs.map((r) => r.at),
        halfBreadthsM: cs.map((c) => rs.map((r) => value(r.index, c.index))),
      }
    : {
        stationsM: rs.map((r) => r.at),
        waterlinesM: cs.map((c) => c.at),
        halfBreadthsM: rs.map((r) => cs.map((c) => value(r.index, c.index))),
      };
  return { table, bad };
}

/**
 * Girths as cells of a table, metres to the tenth of a millimetre.
 * @example
 *   girthCells([{ xM: 0, halfGirthM: 1.2, halfBreadthM: null }]) // → [['position (m)', 'half-girth (m)', 'half-breadth (m)'], ['0', '1.2', '']]
 */
export function girthCells(stations: readonly GirthStation[]): string[][] {
  return [
    ['position (m)', 'half-girth (m)', 'half-breadth (m)'],
    ...stations.map((s) => [figure(s.xM), figure(s.halfGirthM), figure(s.halfBreadthM)]),
  ];
}

/**
 * A table of offsets as cells, metres, waterlines along the first row.
 * @example offsetCells(box)[0] // → ['station (m)', '0', '0.5', '1']
 */
export function offsetCells(table: OffsetTable): string[][] {
  return [
    ['station (m)', ...table.waterlinesM.map(figure)],
    ...table.stationsM.map((x, i) => [figure(x), ...(table.halfBreadthsM[i] ?? []).map(figure)]),
  ];
}

const figure = (value: number | null) => (value === null ? '' : String(Number(value.toFixed(4))));
const range = (from: number, to: number) => Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);
