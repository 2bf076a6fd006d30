import type Joi from 'joi';
import { describe, expect, it } from 'vitest';
import { sheet } from '#core/sheet/example.fixture';
import { boatBody, buildUpBody, hullBody, jobBody, surfaceBody } from './schemas/boat';
import { entryBody } from './schemas/log';
import { OPTIONS, sentence } from './schemas/messages';
import { sheetBody } from './schemas/sheet';
import { typedDaysBody } from './schemas/weather';

const ID = '01900000-0000-7000-8000-000000000001';
const OTHER = '01900000-0000-7000-8000-000000000002';
const AT = Date.UTC(2026, 4, 14);

/** The sentence a contract refuses a value with; null when it takes it. */
function complaint(schema: Joi.Schema, value: unknown): string | null {
  const { error } = schema.validate(value, { ...OPTIONS, abortEarly: true });
  return error ? sentence(error.details[0]?.message ?? '') : null;
}

const boat = {
  name: 'Punt',
  hullMaterial: 'grp',
  keels: 'single',
  form: 'finKeel',
  loaM: 8,
  lwlM: 7,
  beamM: 2.6,
  draftM: 1.1,
  freeboardM: 0.9,
  place: '',
  latitudeDeg: 50,
  timeZone: 'UTC',
  version: 0,
};
const zone = {
  boatId: ID,
  name: 'Bottom',
  kind: 'underwater',
  substrate: 'gelcoat',
  exposure: 'immersed',
  existing: 'bare',
  area: { method: 'dimensions', dimensions: {}, typed: null },
  sort: 1,
  version: 0,
};
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

describe('a boat', () => {
  it('is taken, trimmed', () => {
    const { value, error } = boatBody.validate({ ...boat, name: '  Punt  ' }, OPTIONS);
    expect(error).toBeUndefined();
    expect(value).toMatchObject({ name: 'Punt', deleted: false });
  });
  it.each([
    [{ name: '' }, 'Name is empty. Type something.'],
    [{ name: 'x'.repeat(121) }, 'Name is too long: at most 120 characters.'],
    [{ loaM: Number.NaN }, 'Length overall must be a number.'],
    [{ loaM: null }, 'Length overall must be a number.'],
    [{ loaM: 0 }, 'Length overall must be more than zero.'],
    [{ beamM: Infinity }, 'Beam must be a number.'],
    [{ latitudeDeg: 89 }, 'Latitude must be at most 75.'],
    [{ form: 'raft' }, 'Form is not one of the choices.'],
    [{ version: -1 }, 'Version must be at least 0.'],
    [{ version: 1.5 }, 'Version must be a whole number.'],
    [{ engine: 'big' }, 'Engine is not known here.'],
  ])('refuses %o', (change, message) => {
    expect(complaint(boatBody, { ...boat, ...change })).toBe(message);
  });
});

describe('a haul-out', () => {
  const job = { boatId: ID, outOn: '2026-05-01', inOn: null, yardCostPerDayMinor: null, currency: 'EUR', version: 0 };
  it('may have no launch date yet', () => {
    expect(complaint(jobBody, job)).toBeNull();
    expect(complaint(jobBody, { ...job, inOn: '2028-02-29' })).toBeNull();
    expect(complaint(jobBody, { ...job, inOn: '2026-02-29' })).toMatch(/must be a date like/);
  });
  it.each([
    [{ outOn: '2026-13-01' }, 'Out on must be a date like 2026-05-31.'],
    [{ outOn: null }, /Out on/],
    [{ currency: 'euro' }, /Currency/],
    [{ yardCostPerDayMinor: -5 }, /at least 0/],
    [{ boatId: '12' }, /is not a valid id/],
  ])('refuses %o', (change, message) => {
    expect(complaint(jobBody, { ...job, ...change })).toMatch(message);
  });
});

describe('a zone', () => {
  it('may leave optional inputs empty: empty is left out', () => {
    const { value, error } = surfaceBody.validate(
      { ...zone, area: { ...zone.area, dimensions: { draftM: null, bandM: 0.2 } } },
      OPTIONS,
    );
    expect(error).toBeUndefined();
    expect(value.area.dimensions).toEqual({ bandM: 0.2 });
  });
  it.each([
    [{ kind: 'sails' }, 'Kind is not one of the choices.'],
    [{ area: { ...zone.area, method: 'guess' } }, /is not one of the choices/],
    [{ area: { ...zone.area, typed: { areaM2: 0, share: 0.1 } } }, 'Area must be more than zero.'],
    [{ area: { ...zone.area, typed: { areaM2: 5, share: 1 } } }, '± must be at most 0.9.'],
    [{ area: { ...zone.area, dimensions: { draftM: -1 } } }, 'Draught must be more than zero.'],
  ])('refuses %o', (change, message) => {
    expect(complaint(surfaceBody, { ...zone, ...change })).toMatch(message);
  });
});

describe('a zone’s condition and its ways to an area', () => {
  const shape = {
    id: ID,
    name: 'side',
    figure: { kind: 'circle', diameterM: 1 },
    count: 1,
    deduct: false,
    share: 0.05,
    group: null,
  };
  it('what an older client leaves out is filled in', () => {
    const { value, error } = surfaceBody.validate(zone, OPTIONS);
    expect(error).toBeUndefined();
    expect(value).toMatchObject({
      side: 'both',
      partShare: null,
      notes: '',
      maskList: [],
      openWork: [],
      parentId: null,
      patchKind: null,
      sharedCoats: null,
    });
    expect(value.area).toMatchObject({ girths: null, shapes: null, denny: null, band: null });
  });
  it('takes every shape with its own figures and no other’s', () => {
    const figures = [
      { kind: 'rectangle', lengthM: 1, widthM: 1 },
      { kind: 'cylinder', diameterM: 1, lengthM: 2, ends: 2 },
      { kind: 'frame', lengthM: 1, depthM: 0.1, thicknessM: 0 },
    ];
    for (const figure of figures) {
      expect(
        complaint(surfaceBody, { ...zone, area: { ...zone.area, method: 'shapes', shapes: [{ ...shape, figure }] } }),
      ).toBeNull();
      expect(
        complaint(surfaceBody, {
          ...zone,
          area: { ...zone.area, shapes: [{ ...shape, figure: { ...figure, wingM: 2 } }] },
        }),
      ).not.toBeNull();
    }
  });
  it.each([
    [{ side: 'windward' }, /Side is not one of the choices/],
    [{ side: 'part', partShare: 0 }, 'Part of the whole must be more than 0.'],
    [{ maskList: [{ id: ID, thing: 'anode', count: 0, note: '' }] }, 'Count must be at least 1.'],
    [{ openWork: [{ id: ID, kind: 'party', note: '', done: false }] }, /is not one of the choices/],
    [{ patchKind: 'quilt' }, /is not one of the choices/],
    [{ sharedCoats: 1.5 }, 'Coats shared must be a whole number.'],
    [{ area: { ...zone.area, shapes: [{ ...shape, count: 0 }] } }, 'Count must be at least 1.'],
    [
      { area: { ...zone.area, girths: { even: true, stations: [{ xM: 0, halfGirthM: 1, halfBreadthM: null }] } } },
      'Stations has too few rows.',
    ],
    [{ area: { ...zone.area, denny: { displacedM3: -1, draftM: null } } }, 'Displaced volume must be more than zero.'],
  ])('refuses %o', (change, message) => {
    expect(complaint(surfaceBody, { ...zone, ...change })).toMatch(message);
  });
});

describe('a hull', () => {
  const offsets = {
    stationsM: [0, 1],
    waterlinesM: [0, 1],
    halfBreadthsM: [
      [0, null],
      [1, 1],
    ],
    waterlineM: 0.5,
    fromBow: false,
    includeBottom: true,
  };
  const hull = { boatId: ID, offsets, mesh: null, version: 0 };
  it('may hold offsets, a mesh, or neither', () => {
    expect(complaint(hullBody, hull)).toBeNull();
    expect(complaint(hullBody, { ...hull, offsets: null })).toBeNull();
  });
  it.each([
    [{ offsets: { ...offsets, stationsM: [0] } }, 'Stations has too few rows.'],
    [
      {
        offsets: {
          ...offsets,
          halfBreadthsM: [
            [0, -1],
            [1, 1],
          ],
        },
      },
      /at least 0/,
    ],
    [{ offsets: { ...offsets, waterlineM: null } }, 'Height she floats at must be a number.'],
    [{ mesh: { fileHash: 'not a hash' } }, /./],
  ])('refuses %o', (change, message) => {
    expect(complaint(hullBody, { ...hull, ...change })).toMatch(message);
  });
});

describe('a build-up', () => {
  const build = { boatId: ID, surfaceId: OTHER, layers: [layer], version: 0 };
  it('takes none to forty coats', () => {
    expect(complaint(buildUpBody, { ...build, layers: [] })).toBeNull();
    expect(complaint(buildUpBody, { ...build, layers: Array(40).fill(layer) })).toBeNull();
    expect(complaint(buildUpBody, { ...build, layers: Array(41).fill(layer) })).toBe(
      'Layers has too many rows: at most 40.',
    );
  });
  it.each([
    [{ dftMicron: 0 }, 'Dry film must be more than zero.'],
    [{ loss: 1 }, 'Loss must be at most 0.9.'],
    [{ thinnerShare: 0.6 }, 'Thinner must be at most 0.5.'],
    [{ colourHex: 'red' }, /fails to match/],
    [{ colourHex: '#fff"onload=' }, /fails to match/],
  ])('refuses a coat with %o', (change, message) => {
    expect(complaint(buildUpBody, { ...build, layers: [{ ...layer, ...change }] })).toMatch(message);
  });
});

describe('a data sheet', () => {
  const put = { revisionId: ID, body: sheet, version: 0 };
  it('is taken whole', () => {
    expect(complaint(sheetBody, put)).toBeNull();
  });
  it.each([
    [{ solids: 1.5 }, 'Volume solids must be at most 1.'],
    [{ parts: [] }, /Parts has too few rows/],
    [{ parts: [{ ...sheet.parts[0], densityKgPerL: 0 }] }, 'Density must be more than zero.'],
    [{ ratioBasis: '' }, /is not one of the choices/],
    [{ touchDry: [] }, 'Touch dry is empty. Type at least one temperature and time.'],
    [{ touchDry: [{ tempC: 20, hours: -1 }] }, 'Time must be more than zero.'],
    [
      { overcoat: [{ ...sheet.overcoat[0], minimum: [] }] },
      'Shortest overcoat time is empty. Type at least one temperature and time.',
    ],
    [{ limits: { ...sheet.limits, rhMax: 1.4 } }, /at most 1/],
    [{ packs: [{ name: 'x', sizeL: 0, priceMinor: null }] }, 'Pack size must be more than zero.'],
    [{ packs: [{ name: 'x', sizeL: 1, priceMinor: 1.5 }] }, /whole number/],
  ])('refuses %o', (change, message) => {
    expect(complaint(sheetBody, { ...put, body: { ...sheet, ...change } })).toMatch(message);
  });
});

describe('a typed day', () => {
  const day = {
    date: '2026-05-15',
    lowC: 8,
    highC: 18,
    rh: 0.7,
    dewC: null,
    rainFrom: null,
    rainTo: null,
    windMs: null,
  };
  it('is taken, three weeks of it at most', () => {
    expect(complaint(typedDaysBody, { days: [day] })).toBeNull();
    expect(complaint(typedDaysBody, { days: Array(22).fill(day) })).toBe('Days has too many rows: at most 21.');
  });
  it.each([
    [{ rh: 0 }, 'Humidity must be more than 0.'],
    [{ rh: 70 }, 'Humidity must be at most 1.'],
    [{ lowC: -90 }, 'Low must be at least -60.'],
    [{ rainTo: 25 }, /at most 24/],
    [{ windMs: -1 }, 'Wind must be at least 0.'],
  ])('refuses %o', (change, message) => {
    expect(complaint(typedDaysBody, { days: [{ ...day, ...change }] })).toMatch(message);
  });
});

describe('an entry of the log', () => {
  const base = {
    boatId: ID,
    stream: 'coat',
    streamId: OTHER,
    occurredAt: AT,
    painter: '',
    device: '',
    supersedes: null,
  };
  const bodies: Record<string, object> = {
    started: {
      on: [{ surfaceId: ID, layerId: OTHER }],
      sheetRevisionId: ID,
      method: 'roller',
      thinner: 0,
      dftMicron: 70,
      colour: '',
      colourHex: '#aabbcc',
      overrideReason: null,
      abradedGrit: null,
    },
    reading: { airC: 18, rh: 0.6, surfaceC: null },
    wetFilm: { micron: [150] },
    batchOn: { batchId: ID, litres: 2 },
    finished: { litresOn: null },
    handTest: { test: 'thumb', passed: true },
    note: { text: 'windy' },
    withdrawn: { reason: '' },
    mixed: {
      sheetRevisionId: ID,
      on: [{ surfaceId: ID, layerId: OTHER }],
      parts: [{ name: 'Base', volumeL: 1, massKg: null }],
      thinnerL: 0,
      totalL: 1,
      standMin: 0,
      potLifeH: null,
      potTempC: null,
    },
    silenced: { timer: 'pot' },
    emptied: { litresLeft: 0 },
  };
  it.each(Object.keys(bodies))('takes a %s entry with its own body and no other’s', (kind) => {
    expect(complaint(entryBody, { ...base, kind, body: bodies[kind] })).toBeNull();
    const strange = kind === 'note' ? bodies.finished : bodies.note;
    expect(complaint(entryBody, { ...base, kind, body: strange })).not.toBeNull();
    expect(complaint(entryBody, { ...base, kind, body: { ...bodies[kind], extra: 1 } })).toBe(
      'Body.extra is not known here.',
    );
  });
  it.each([
    [{ kind: 'reading', body: { airC: 18, rh: 1.4, surfaceC: null } }, 'Humidity must be at most 1.'],
    [{ kind: 'reading', body: { airC: 18, rh: 0, surfaceC: null } }, 'Humidity must be more than 0.'],
    [{ kind: 'wetFilm', body: { micron: [] } }, /too few/],
    [{ kind: 'wetFilm', body: { micron: [-1] } }, /more than zero/],
    [{ kind: 'note', body: { text: '' } }, /is empty/],
    [{ kind: 'started', body: { ...bodies.started, on: [] } }, /too few/],
    [{ kind: 'started', body: { ...bodies.started, overrideReason: 'no' } }, /at least 3/],
    [{ kind: 'mixed', body: { ...bodies.mixed, totalL: 0 } }, /more than zero/],
    [{ kind: 'guess', body: {} }, /not one of the choices/],
    [{ kind: 'note', body: { text: 'x' }, occurredAt: 5 }, /The time/],
    [{ kind: 'note', body: { text: 'x' }, streamId: "'; drop table entries; --" }, /is not a valid id/],
  ])('refuses %o', (change, message) => {
    expect(complaint(entryBody, { ...base, ...change })).toMatch(message);
  });
});
