import type Joi from 'joi';
import { describe, expect, it } from 'vitest';
import { sheet } from '#core/sheet/example.fixture';
import { USUAL_CONSUMABLES } from '#core/stores/consumables';
import { buildUpBody, buildUpsBody, jobBody } from './schemas/boat';
import { OPTIONS, sentence } from './schemas/messages';
import { sheetContent, sheetImportBody } from './schemas/sheet';
import { lotBody, yardRulesBody } from './schemas/stores';
import { USUAL_RULES } from './rows/stores';
import { borderBody, namedBuildUpBody } from './schemas/system';

const ID = '01900000-0000-7000-8000-000000000001';
const OTHER = '01900000-0000-7000-8000-000000000002';
const AT = Date.UTC(2026, 4, 14);

/** The sentence a contract refuses a value with; null when it takes it. */
function complaint(schema: Joi.Schema, value: unknown): string | null {
  const { error } = schema.validate(value, { ...OPTIONS, abortEarly: true });
  return error ? sentence(error.details[0]?.message ?? '') : null;
}

const layer = {
  id: ID,
  sheetRevisionId: ID,
  dftMicron: 100,
  method: 'roller',
  thinnerShare: 0,
  loss: 0.1,
  deadVolumeLPerM2: 0,
  colour: '',
  colourHex: '#aabbcc',
};
const build = { boatId: ID, surfaceId: OTHER, layers: [layer], version: 0 };

describe('a coat of a build-up', () => {
  it('may have everything decided of it, or nothing', () => {
    const decided = {
      ...layer,
      prep: 'abrade',
      grit: 120,
      abradeFor: 'level',
      wipe: true,
      mask: false,
      stripe: true,
      absorption: 0.25,
      thinnerFamily: 'epoxy',
      holdMonths: 5,
      primerFor: 'filling',
      tip: true,
    };
    expect(complaint(buildUpBody, { ...build, layers: [decided] })).toBeNull();
    // Not decided, however that is told, is left out.
    const { value } = buildUpBody.validate(
      { ...build, layers: [{ ...layer, prep: null, grit: null, wipe: null }] },
      OPTIONS,
    );
    expect(value.layers[0]).toEqual(layer);
  });
  it.each([
    [{ prep: 'sand' }, /not one of the choices/],
    [{ grit: 8 }, 'Grit must be at least 16.'],
    [{ grit: 120.5 }, 'Grit must be a whole number.'],
    [{ absorption: -0.1 }, 'What soaks in must be at least 0.'],
    [{ absorption: 30 }, 'What soaks in must be at most 3.'],
    [{ holdMonths: 200 }, /at most 60/],
    [{ thinnerFamily: 'petrol' }, /not one of the choices/],
    [{ sparkle: true }, /not known here/],
  ])('is refused with %o', (change, message) => {
    expect(complaint(buildUpBody, { ...build, layers: [{ ...layer, ...change }] })).toMatch(message);
  });
});

describe('a build-up of a zone', () => {
  it('knows where it came from, what it is to come to, what was let stand and what was tried', () => {
    const { value, error } = buildUpBody.validate(build, OPTIONS);
    expect(error).toBeUndefined();
    expect(value).toMatchObject({ namedId: null, targetMicron: null, overrides: [], records: [] });
    const override = {
      rule: 'copperOnMetal',
      key: 'copperOnMetal:a/b:substrate',
      reason: 'a week only',
      at: AT,
      painter: '',
    };
    const record = { id: ID, kind: 'testPatch', at: AT, painter: 'Ada', note: '' };
    expect(
      complaint(buildUpBody, { ...build, namedId: OTHER, targetMicron: 300, overrides: [override], records: [record] }),
    ).toBeNull();
    expect(complaint(buildUpBody, { ...build, overrides: [{ ...override, reason: ' a ' }] })).toMatch(/The reason/);
    expect(complaint(buildUpBody, { ...build, records: [{ ...record, kind: 'hunch' }] })).toMatch(
      /not one of the choices/,
    );
    expect(complaint(buildUpBody, { ...build, records: [{ ...record, at: 17 }] })).not.toBeNull();
    expect(complaint(buildUpBody, { ...build, targetMicron: 0 })).toBe('Target must be more than zero.');
  });
  it('comes alone or with others of the same boat, each once', () => {
    const row = { ...build, id: ID };
    expect(complaint(buildUpsBody, { rows: [row, { ...row, id: OTHER }] })).toBeNull();
    expect(complaint(buildUpsBody, { rows: [row, row] })).not.toBeNull();
    expect(complaint(buildUpsBody, { rows: [] })).toBe('Zones has too few rows.');
    expect(complaint(buildUpsBody, { rows: Array(201).fill(row) })).toMatch(/too many rows/);
  });
});

describe('a named build-up', () => {
  const named = {
    name: 'Bottom',
    substrates: ['gelcoat', 'laminate'],
    exposure: 'immersed',
    bond: 'chemical',
    note: '',
    targetMicron: null,
    layers: [layer],
    version: 0,
  };
  it('is taken, also before it has a coat', () => {
    expect(complaint(namedBuildUpBody, named)).toBeNull();
    expect(complaint(namedBuildUpBody, { ...named, layers: [] })).toBeNull();
  });
  it.each([
    [{ name: '  ' }, 'Name is empty. Type something.'],
    [{ substrates: [] }, 'Substrates has too few rows.'],
    [{ substrates: ['gelcoat', 'gelcoat'] }, /duplicate/],
    [{ exposure: 'space' }, 'Exposure is not one of the choices.'],
    [{ bond: 'hope' }, /not one of the choices/],
    [{ targetMicron: 30_000 }, 'Target must be at most 20000.'],
    [{ layers: Array(41).fill(layer) }, /too many rows/],
  ])('is refused with %o', (change, message) => {
    expect(complaint(namedBuildUpBody, { ...named, ...change })).toMatch(message);
  });
});

describe('a border', () => {
  const border = {
    boatId: ID,
    upperId: ID,
    lowerId: OTHER,
    rule: 'stripe',
    widthM: 0.02,
    epoxyRunsOn: true,
    handStripM: 0.2,
    note: '',
    version: 0,
  };
  it.each([
    [{}, null],
    [{ widthM: 0 }, null],
    [{ widthM: -0.01 }, 'Width must be at least 0.'],
    [{ handStripM: 6 }, 'Strip by hand must be at most 5.'],
    [{ rule: 'melt' }, 'Rule is not one of the choices.'],
    [{ upperId: 'x' }, /not a valid id/],
    [{ epoxyRunsOn: undefined }, /is missing/],
  ])('with %o: %s', (change, message) => {
    const told = complaint(borderBody, { ...border, ...change });
    if (message === null) expect(told).toBeNull();
    else expect(told).toMatch(message);
  });
});

describe('a haul-out', () => {
  const job = { boatId: ID, outOn: '2026-05-01', inOn: null, yardCostPerDayMinor: null, currency: 'EUR', version: 0 };
  const choices = {
    bond: 'mechanical',
    packs: 'onePack',
    method: 'brush',
    tip: false,
    primerFor: 'filling',
    abradeFor: 'nibs',
  };
  it('may have its schools chosen, all of them or none', () => {
    expect(jobBody.validate(job, OPTIONS).value.choices).toBeNull();
    expect(complaint(jobBody, { ...job, choices })).toBeNull();
    expect(complaint(jobBody, { ...job, choices: { ...choices, packs: 'threePack' } })).toMatch(
      /not one of the choices/,
    );
    expect(complaint(jobBody, { ...job, choices: { bond: 'chemical' } })).toMatch(/is missing/);
  });
});

describe('a tin', () => {
  const lot = {
    sheetId: ID,
    part: 'Base',
    sizeL: 5,
    batchNumber: '',
    supplier: '',
    boughtOn: null,
    openedOn: null,
    expiresOn: null,
    leftL: 5,
    measuredAt: AT,
    weighed: null,
    note: '',
    version: 0,
  };
  it.each([
    [{}, null],
    [{ leftL: 0 }, null],
    [{ weighed: { grossKg: 4.2, tareKg: 0.3 } }, null],
    [{ part: '' }, 'Part is empty. Type something.'],
    [{ leftL: Number.NaN }, 'What is left must be a number.'],
    [{ weighed: { grossKg: 4.2 } }, 'Tare is missing.'],
    [{ weighed: { grossKg: -1, tareKg: 0 } }, 'Gross must be at least 0.'],
    [{ expiresOn: '2026-13-01' }, /must be a date like/],
    [{ batchNumber: 'x'.repeat(81) }, /too long/],
    [{ measuredAt: 5 }, /at least/],
  ])('with %o: %s', (change, message) => {
    const told = complaint(lotBody, { ...lot, ...change });
    if (message === null) expect(told).toBeNull();
    else expect(told).toMatch(message);
  });
});

describe('the rules of a yard', () => {
  const { id: _id, ...rules } = USUAL_RULES;
  const [rule] = USUAL_CONSUMABLES;
  it.each([
    [{}, null],
    [{ consumables: [] }, null],
    [{ chance: 0.4 }, 'The chance must be at least 0.5.'],
    [{ chance: 1 }, 'The chance must be at most 0.999.'],
    [{ consumables: [{ ...rule, amount: -1 }] }, 'Amount must be at least 0.'],
    [{ consumables: [{ ...rule, inPack: 0 }] }, 'How many in a pack must be at least 1.'],
    [{ consumables: [{ ...rule, per: 'moon' }] }, /not one of the choices/],
    [{ consumables: [{ ...rule, name: ' ' }] }, 'Name is empty. Type something.'],
    [{ consumables: [rule, rule] }, /duplicate/],
  ])('with %o: %s', (change, message) => {
    const told = complaint(yardRulesBody, { ...rules, ...change });
    if (message === null) expect(told).toBeNull();
    else expect(told).toMatch(message);
  });
});

describe('what a sheet may say besides', () => {
  const says = (change: object) => sheetContent.validate({ ...sheet, ...change }, OPTIONS);
  it('reads figures that come as texts, as from CSV', () => {
    const { value, error } = says({
      solids: '0.52',
      hidingCoats: '2',
      copper: 'false',
      packs: [{ name: 'tin', sizeL: '2.5', priceMinor: '9900', breaks: [{ from: '6', priceMinor: '9000' }] }],
    });
    expect(error).toBeUndefined();
    expect(value).toMatchObject({
      solids: 0.52,
      hidingCoats: 2,
      copper: false,
      packs: [{ sizeL: 2.5, priceMinor: 9900, breaks: [{ from: 6, priceMinor: 9000 }] }],
    });
  });
  it.each([
    [{ chemistry: 'water' }, 'Chemistry is not one of the choices.'],
    [{ issuedOn: '14 May' }, /must be a date like/],
    [{ methods: Array(7).fill({ method: 'brush' }) }, /too many rows/],
    [{ moistureMax: 12 }, 'Moisture must be at most 1.'],
    [{ shelfOpenMonths: 2.5 }, 'Shelf life open must be a whole number.'],
    [{ vocGPerL: 9000 }, 'VOC must be at most 1500.'],
    [{ antifouling: { type: 'sticky' } }, /not one of the choices/],
    [{ handle: [] }, 'Handle is empty. Type at least one temperature and time.'],
    [
      {
        handle: [
          { tempC: 20, hours: 4 },
          { tempC: 20, hours: 5 },
        ],
      },
      'Handle has one temperature twice. Keep one of them.',
    ],
    [
      { packs: [{ name: 'x', sizeL: 1, priceMinor: 1, breaks: [{ from: 1, priceMinor: 1 }] }] },
      'Price from so many must be at least 2.',
    ],
    [{ packs: [{ name: 'x', sizeL: 1, priceMinor: 1, partsL: [-1, 2] }] }, /at least 0/],
  ])('refuses %o', (change, message) => {
    expect(complaint(sheetContent, { ...sheet, ...change })).toMatch(message);
  });
  it('many at once: at least one, each once, none twice', () => {
    const one = { id: ID, revisionId: OTHER, body: sheet };
    expect(complaint(sheetImportBody, { taken: true, sheets: [one] })).toBeNull();
    expect(complaint(sheetImportBody, { taken: true, sheets: [one, one] })).not.toBeNull();
    expect(complaint(sheetImportBody, { sheets: [one] })).toMatch(/is missing/);
  });
});
