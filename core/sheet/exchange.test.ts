import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import {
  RUNS_AS_FORMULA,
  completeness,
  readSheetCells,
  readSheetsDocument,
  sheetProblems,
  sheetsDocument,
  sheetsToCells,
  SHEETS_MAX,
  wrongWay,
  type SheetBody,
} from '../index';
import { sheet } from './example.fixture';

const full: SheetBody = {
  ...sheet,
  name: '=2+2; "quoted", and\na new line',
  chemistry: 'epoxy',
  methods: [
    { method: 'roller', dftMicron: 70, dftMaxMicron: 100, thinnerMax: 0.05 },
    { method: 'spray', dftMaxMicron: 200 },
  ],
  limits: { ...sheet.limits, airMinC: -5 },
  antifouling: { type: 'hard', waters: ['salt', 'tropical'], years: 2 },
  copper: false,
  packs: [
    ...sheet.packs,
    { name: 'hardener', sizeL: 1, priceMinor: null, part: 'Hardener', breaks: [{ from: 6, priceMinor: 900 }] },
    { name: 'odd kit', sizeL: 3, priceMinor: 8000, partsL: [2, 1] },
  ],
};

describe('sheets as files', () => {
  it('come back from JSON as they were', () => {
    const read = readSheetsDocument(sheetsDocument([full, sheet]));
    expect('rows' in read && read.rows).toEqual([full, sheet]);
  });
  it('come back from CSV with every figure, also after a spreadsheet was kept from running a cell', () => {
    const csv = Papa.unparse(sheetsToCells([full, sheet]), { escapeFormulae: RUNS_AS_FORMULA });
    expect(csv).toContain(`'=2+2`);
    const read = readSheetCells(Papa.parse<string[]>(csv).data);
    if (!('rows' in read)) throw new Error(read.problem);
    // Figures are texts until the contract reads them: compared as such.
    const texts = (value: unknown): unknown =>
      Array.isArray(value)
        ? value.map(texts)
        : value !== null && typeof value === 'object'
          ? Object.fromEntries(Object.entries(value).map(([k, v]) => [k, texts(v)]))
          : value === null || value === ''
            ? value
            : String(value);
    expect(texts(read.rows)).toEqual(texts([full, sheet]));
  });
  it.each([
    ['{"sheets":[]}', /no file of data sheets/],
    ['{"format":"another tool","paints":[1]}', /no file of data sheets/],
    ['[1,2', /no JSON file/],
    ['null', /no file of data sheets/],
    ['{"format":"jack-plane/sheets","version":2,"sheets":[{}]}', /version 2; version 1 is read/],
    ['{"format":"jack-plane/sheets","version":1,"sheets":[]}', /no sheet in this file/],
    [sheetsDocument(Array.from({ length: SHEETS_MAX + 1 }, () => sheet)), /301 sheets in this file/],
    [`"${'x'.repeat(5_000_001)}"`, /too large/],
    ['['.repeat(200_000), /no JSON file/],
  ])('refuses %.40s in a sentence', (text, message) => {
    expect(readSheetsDocument(text)).toEqual({ problem: expect.stringMatching(message) as string });
  });
  it('refuses a table of something else, and columns that are no figure of a sheet', () => {
    expect(
      readSheetCells([
        ['zone', 'litres'],
        ['hull', '3'],
      ]),
    ).toMatchObject({ problem: expect.stringContaining('no table of data sheets') as string });
    expect(
      readSheetCells([
        ['name', 'kind', '__proto__.x'],
        ['a', 'b', 'c'],
      ]),
    ).toMatchObject({ problem: expect.stringContaining('no column') as string });
    expect(readSheetCells([['name', 'kind']])).toMatchObject({
      problem: expect.stringContaining('no sheet') as string,
    });
    expect(({} as Record<string, unknown>).x).toBeUndefined();
  });
});

describe('how complete a sheet is', () => {
  it('names what cannot be worked out, field by field', () => {
    const bare: SheetBody = { ...sheet, touchDry: null, packs: [], overcoat: [], dftMaxMicron: null };
    const { share, gaps } = completeness(bare);
    expect(gaps.map((g) => g.field)).toEqual(expect.arrayContaining(['touchDry', 'packs', 'overcoat', 'dftMaxMicron']));
    expect(share).toBeLessThan(completeness(sheet).share);
    expect(gaps.find((g) => g.field === 'touchDry')?.cannot).toBe('No last start tonight.');
  });
  it('is whole when everything its kind can tell is there', () => {
    const whole: SheetBody = {
      ...full,
      thinner: { ...sheet.thinner!, family: 'epoxy' },
      shelfClosedMonths: 24,
      shelfOpenMonths: 6,
      packs: sheet.packs,
      sandable: sheet.touchDry,
    };
    expect(completeness(whole)).toEqual({ share: 1, gaps: [] });
  });
});

describe('figures that cannot be', () => {
  it('points at every pair of cells that runs the wrong way', () => {
    const table = [
      { tempC: 30, hours: 5 },
      { tempC: 10, hours: 3 },
      { tempC: 20, hours: 4 },
    ];
    expect(wrongWay(table).map((w) => [w.colder.tempC, w.warmer.tempC])).toEqual([
      [10, 20],
      [20, 30],
    ]);
    expect(sheetProblems({ ...sheet, potLife: table }).filter((p) => p.field === 'potLife')).toHaveLength(2);
  });
  it.each([
    [{ immersionMax: [{ tempC: 20, hours: 10 }] }, /shortest time to the water/],
    [{ methods: [{ method: 'roller', dftMicron: 300 }] }, /above the largest one/],
    [{ methods: [{ method: 'roller' }, { method: 'roller' }] }, /stands twice/],
    [{ profileMinMicron: 80, profileMaxMicron: 40 }, /smallest profile/],
    [{ packs: [{ name: 'x', sizeL: 1, priceMinor: 1, part: 'Resin' }] }, /no part of this sheet/],
    [{ packs: [{ name: 'x', sizeL: 1, priceMinor: 1, partsL: [1] }] }, /litres for each of the 2 parts/],
  ] as const)('stops %o', (change, message) => {
    const stops = sheetProblems({ ...sheet, ...(change as Partial<SheetBody>) }).filter((p) => p.severity === 'stop');
    expect(stops.map((p) => p.message).join(' ')).toMatch(message);
  });
});
