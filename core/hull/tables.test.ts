import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  girthCells,
  guessGirthColumns,
  hasHeadings,
  offsetCells,
  readCell,
  readGirthTable,
  readOffsetCells,
  seemsDecimalComma,
  unitInHeadings,
} from '../index';

describe('tables of girths and offsets', () => {
  const metres = { unit: 'm', decimalComma: false } as const;
  it.each([
    ['1.25', metres, 1.25],
    ['1,25', { unit: 'm', decimalComma: true }, 1.25],
    ['1.250,5', { unit: 'mm', decimalComma: true }, 1.2505],
    ['1250', { unit: 'mm', decimalComma: false }, 1.25],
    ['1250 mm', metres, 1.25],
    ['4\' 1 1/4"', metres, 1.25095],
    ['3-4-5', metres, 0.9144 + 0.0254 * 4.625],
    ['3-4-5+', metres, 0.9144 + 0.0254 * 4.6875],
    ['', metres, null],
    ['–', metres, null],
    ['n/a', metres, null],
  ] as const)('reads %j', (text, style, value) => {
    const cell = readCell(text, style);
    expect(cell.ok).toBe(true);
    if (!cell.ok) return;
    if (value === null) expect(cell.value).toBeNull();
    else expect(cell.value).toBeCloseTo(value, 6);
  });
  it('names what it cannot read', () => {
    expect(readCell('about 2', metres)).toMatchObject({ ok: false });
    expect(readCell('3-14-5', metres)).toMatchObject({
      ok: false,
      message: expect.stringContaining('inches go to 11'),
    });
  });
  it('knows a decimal comma, a unit and the columns by their headings', () => {
    expect(
      seemsDecimalComma([
        ['0', '1,25'],
        ['2', '1,5'],
      ]),
    ).toBe(true);
    expect(
      seemsDecimalComma([
        ['0', '1.25'],
        ['2', '1,5'],
      ]),
    ).toBe(false);
    expect(unitInHeadings(['Station', 'Half girth [mm]'])).toBe('mm');
    expect(unitInHeadings(['Station', 'Girth'])).toBeNull();
    expect(guessGirthColumns(['Half breadth', 'x', 'Tape girth'])).toEqual({
      position: 1,
      halfGirth: 2,
      halfBreadth: 0,
    });
    expect(guessGirthColumns(['a', 'b'])).toEqual({ position: 0, halfGirth: 1, halfBreadth: -1 });
    expect(hasHeadings([['Station', 'Girth']], metres)).toBe(true);
    expect(hasHeadings([['0', '1']], metres)).toBe(false);
  });
  it('girths: every bad cell named by row and column, the good ones kept and put in order', () => {
    const cells = [
      ['x', 'girth', 'breadth'],
      ['2', '1.1', '0.9'],
      ['0', 'oops', ''],
      ['1', '-3', '0.5'],
      ['', '1', '1'],
      ['', '', ''],
    ];
    const { stations, bad } = readGirthTable({
      cells,
      columns: { position: 0, halfGirth: 1, halfBreadth: 2 },
      style: metres,
      headings: true,
    });
    expect(stations).toEqual([
      { xM: 0, halfGirthM: null, halfBreadthM: null },
      { xM: 1, halfGirthM: null, halfBreadthM: 0.5 },
      { xM: 2, halfGirthM: 1.1, halfBreadthM: 0.9 },
    ]);
    expect(bad.map((b) => [b.row, b.column])).toEqual([
      [3, 2],
      [4, 2],
      [5, 1],
    ]);
    expect(bad[1]?.message).toContain('less than zero');
  });
  it('offsets either way round, out of order, come out the same', () => {
    const down = [
      ['', '1', '0'],
      ['4', '0.9', '0.5'],
      ['0', '0.4', ''],
    ];
    const across = [
      ['', '4', '0'],
      ['1', '0.9', '0.4'],
      ['0', '0.5', ''],
    ];
    const expected = {
      stationsM: [0, 4],
      waterlinesM: [0, 1],
      halfBreadthsM: [
        [null, 0.4],
        [0.5, 0.9],
      ],
    };
    expect(readOffsetCells({ cells: down, stationsAcross: false, style: metres })).toEqual({
      table: expected,
      bad: [],
    });
    expect(readOffsetCells({ cells: across, stationsAcross: true, style: metres })).toEqual({
      table: expected,
      bad: [],
    });
    expect(
      readOffsetCells({
        cells: [
          ['', '0', 'wl'],
          ['0', '1', '-1'],
        ],
        stationsAcross: false,
        style: metres,
      }).bad.map((b) => [b.row, b.column]),
    ).toEqual([[1, 3]]);
  });
  it('what is exported is read back the same', () => {
    const length = fc.integer({ min: 0, max: 99_999 }).map((n) => n / 10_000);
    const orNull = fc.option(length, { nil: null });
    fc.assert(
      fc.property(
        fc.uniqueArray(length, { minLength: 2, maxLength: 8 }),
        fc.array(orNull, { minLength: 8, maxLength: 8 }),
        (xs, values) => {
          const stations = [...xs]
            .sort((a, b) => a - b)
            .map((xM, i) => ({ xM, halfGirthM: values[i] ?? null, halfBreadthM: values[7 - i] ?? null }));
          expect(
            readGirthTable({
              cells: girthCells(stations),
              columns: { position: 0, halfGirth: 1, halfBreadth: 2 },
              style: metres,
              headings: true,
            }),
          ).toEqual({ stations, bad: [] });
          const table = {
            stationsM: stations.map((s) => s.xM),
            waterlinesM: [0, 0.5],
            halfBreadthsM: stations.map((s) => [s.halfGirthM, s.halfBreadthM]),
          };
          expect(readOffsetCells({ cells: offsetCells(table), stationsAcross: false, style: metres })).toEqual({
            table,
            bad: [],
          });
        },
      ),
    );
  });

  it('reads bare fractions and comma decimals in the unit of the table', () => {
    // 7½ in = 190.5 mm; 1505,5 can only be a decimal, and the table is in millimetres.
    expect(readCell('7 1/2', { unit: 'in', decimalComma: false })).toEqual({ ok: true, value: 0.1905 });
    expect(readCell('1505,5', { unit: 'mm', decimalComma: false })).toMatchObject({ ok: true, value: 1.5055 });
    expect(readCell('1/4', { unit: 'ft', decimalComma: false })).toMatchObject({ ok: true, value: 0.0762 });
    expect(readCell('7 1/2 in', { unit: 'mm', decimalComma: false })).toMatchObject({ ok: true, value: 0.1905 });
    expect(readCell('1,505', { unit: 'mm', decimalComma: false })).toMatchObject({ ok: false });
  });
});
