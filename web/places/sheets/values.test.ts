import { describe, expect, it } from 'vitest';
import { sheet } from '#core/sheet/example.fixture';
import type { SheetBody } from '#core/model/sheet';
import { sheetContent } from '#contracts/schemas/sheet';
import { sheets } from '#core/system/sheets.fixture';
import { timeRows } from './timeRows';
import { blankSheet, usualParts, complaintOf, fieldOf, fromSheet, toSheet } from './values';

const table = [
  { tempC: 10, hours: 48 },
  { tempC: 20, hours: 0.5 },
];
const full: SheetBody = {
  ...sheet,
  name: 'Everything a sheet may say',
  chemistry: 'epoxy',
  makerRevision: '7b',
  issuedOn: '2026-02-01',
  soldIn: 'aerosol',
  canCoversM2: 1.2,
  methods: [{ method: 'roller', dftMicron: 70, dftMaxMicron: 100, thinnerMax: 0.05 }, { method: 'spray' }],
  thinner: { name: 'T7', maxShare: 0.1, of: 'base', family: 'epoxy' },
  handle: table,
  immersionMax: [{ tempC: 20, hours: 960 }],
  moistureMax: 0.05,
  cleanliness: 'Sa 2½',
  profileMinMicron: 40,
  profileMaxMicron: 90,
  surfaceGrit: 120,
  neverAbrade: false,
  gloss: 'semiGloss',
  hidingCoats: 2,
  uvResistant: false,
  immersible: true,
  holdingMonths: 6,
  antifouling: { type: 'hybrid', waters: ['salt', 'tropical'], years: 2, dryOutDays: 60 },
  copper: true,
  biocide: true,
  isocyanate: false,
  strongSolvent: true,
  potable: false,
  flashPointClass: '3',
  vocGPerL: 420,
  shelfClosedMonths: 24,
  shelfOpenMonths: 6,
};

/** What the contract makes of it: undefined and left out are the same. */
const sent = (body: SheetBody): unknown => JSON.parse(JSON.stringify(sheetContent.validate(body).value));

describe('a sheet through the form', () => {
  it.each([...Object.values(sheets), full].map((b) => [b.name, b] as const))(
    '%s comes out as it went in',
    (_name, body) => {
      expect(sent(toSheet(fromSheet(body)))).toEqual(sent(body));
    },
  );
  it('a pack keeps its price breaks, its part and its litres', () => {
    const packs: SheetBody['packs'] = [
      {
        name: 'odd kit',
        sizeL: 3,
        priceMinor: 8050,
        partsL: [2, 1],
        breaks: [{ from: 6, priceMinor: 7000 }],
        supplier: 'East',
      },
      { name: 'hardener', sizeL: 1, priceMinor: null, part: 'Hardener' },
    ];
    expect(toSheet(fromSheet({ ...sheet, packs })).packs).toEqual(packs);
  });
  it('asks for the basis of the ratio, and only where there are two parts', () => {
    const blank = blankSheet(true);
    expect(sheetContent.validate(toSheet(blank), { abortEarly: false }).error?.details.map((d) => d.path[0])).toContain(
      'ratioBasis',
    );
    const single = {
      ...blank,
      body: { ...blank.body, name: 'Tin', solids: 0.5, dftMicron: 40, parts: usualParts('antifouling') },
    };
    expect(toSheet(single).ratioBasis).toBe('volume');
    expect(sheetContent.validate(toSheet(single)).error).toBeUndefined();
  });
  it('leaves out what was opened and left empty', () => {
    const values = fromSheet(sheet);
    const opened = {
      ...values,
      body: {
        ...values.body,
        chemistry: '' as never,
        gloss: undefined,
        antifouling: { type: undefined, waters: [] },
        methods: [],
      },
    };
    const body = toSheet(opened);
    expect(['chemistry', 'gloss', 'antifouling', 'methods'].filter((k) => k in body)).toEqual([]);
    expect(body.code).toBe(sheet.code);
  });
  it('ratios for a use, additives and packs of thinner come out of the form as they went in, and pass the contract', () => {
    const full = {
      ...sheet,
      parts: [
        { name: 'Base', role: 'base' as const, ratio: 3, densityKgPerL: null },
        { name: 'Hardener', role: 'hardener' as const, ratio: 1, densityKgPerL: null },
      ],
      thinner: {
        name: 'T7',
        maxShare: 0.1,
        of: 'mixed' as const,
        packs: [{ name: '1 L', sizeL: 1, priceMinor: 1250 }],
      },
      useRatios: [{ use: 'linings', ratio: [3.5, 1], source: 'its sheet, “Tanks”' }],
      additives: [{ name: 'Quick', kind: 'accelerator' as const, maxShare: 0.02, potFactor: 0.5, windowFactor: 0.6 }],
      ratioTolerance: 0.03,
      wetEdgeMin: 12,
    };
    const values = fromSheet(full);
    expect(values.body.useRatios[0]?.ratio).toBe('3.5 : 1');
    expect(toSheet(values)).toMatchObject({
      thinner: full.thinner,
      useRatios: full.useRatios,
      additives: full.additives,
      ratioTolerance: 0.03,
      wetEdgeMin: 12,
    });
    expect(sheetContent.validate(toSheet(values)).error).toBeUndefined();
    // What was opened in the form and left empty is not on the sheet.
    const empty = toSheet(fromSheet({ ...full, thinner: null, useRatios: [], additives: [] }));
    expect([empty.thinner, empty.useRatios, empty.additives]).toEqual([null, undefined, undefined]);
    const wrong = toSheet({
      ...values,
      body: { ...values.body, useRatios: [{ use: 'x', ratio: 'four', source: 'abc' }] },
    });
    const { error } = sheetContent.validate(wrong);
    expect(fieldOf(error!.details[0]!.path)).toBe('body.useRatios.0.ratio');
  });
  it('a complaint finds its field and says what to do', () => {
    const { error } = sheetContent.validate(
      {
        ...sheet,
        ratioBasis: '',
        packs: [{ name: '', sizeL: 0, priceMinor: 1 }],
        touchDry: [{ tempC: 20, hours: Number.NaN }],
      },
      { abortEarly: false, errors: { wrap: { label: false } } },
    );
    const told = Object.fromEntries((error?.details ?? []).map((d) => [fieldOf(d.path), complaintOf(d)]));
    expect(told).toMatchObject({
      'body.ratioBasis': 'Say whether the ratio is by volume or by mass.',
      'body.packs.0.sizeL': 'Pack size must be more than zero.',
      'grid.touchDry': 'A time in the grid cannot be read. Type it as 6, 90 min or 2 d.',
    });
    expect(fieldOf(['packs', 2, 'breaks', 0, 'priceMinor'])).toBe('body.packs.2.breaks.0.price');
  });
});

describe('the curves of a sheet', () => {
  it('run in the order of the sheet, longest times fitted the other way, unreadable figures left out', () => {
    const rows = timeRows({
      ...sheet,
      potLife: [{ tempC: 20, hours: Number.NaN }],
      immersionMax: [{ tempC: 20, hours: 900 }],
    });
    expect(rows.map((r) => [r.name, r.kind])).toEqual([
      ['Touch dry', 'minimum'],
      ['Dry to sand', 'minimum'],
      ['Overcoat, shortest', 'minimum'],
      ['Overcoat, longest as is', 'maximum'],
      ['Into the water, shortest', 'minimum'],
      ['Into the water, longest', 'maximum'],
      ['Full cure', 'minimum'],
    ]);
  });
});
