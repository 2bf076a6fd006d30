import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sheet } from '#core/sheet/example.fixture';
import { USUAL_RULES, YARD_RULES_ID, type Stores } from '#contracts/rows/stores';
import {
  boatFields,
  layerFields,
  NOW,
  setUpBoat,
  startBody,
  testApp,
  uuid,
  zoneFields,
  type Agent,
} from './app.fixture';
import { LIBRARY_SHEETS } from './library';

let agent: Agent;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ agent, close } = await testApp());
});
afterAll(() => close());

const named = (layers: object[] = []) => ({
  name: 'Bottom',
  substrates: ['gelcoat'],
  exposure: 'immersed',
  bond: 'chemical',
  note: '',
  targetMicron: 250,
  layers,
  version: 0,
});
const lot = (sheetId: string, more: object = {}) => ({
  sheetId,
  part: 'Base',
  sizeL: 5,
  batchNumber: 'B 1',
  supplier: '',
  boughtOn: '2026-05-01',
  openedOn: null,
  expiresOn: null,
  leftL: 5,
  measuredAt: NOW - 1000,
  weighed: null,
  note: '',
  version: 0,
  ...more,
});
const put = (path: string, body: object) => agent.put(`/api${path}`).send(body);
const stores = async () => (await agent.get('/api/stores').expect(200)).body as Stores;

describe('the shelf', () => {
  it('keeps a tin, its weighing and its versions; what batches took of it is told', async () => {
    const set = await setUpBoat(agent);
    const id = uuid();
    await put(`/lots/${id}`, lot(set.sheet)).expect(200);
    await put(`/lots/${id}`, lot(set.sheet, { leftL: 2.5, weighed: { grossKg: 4.1, tareKg: 0.3 }, version: 1 })).expect(
      200,
    );
    await put(`/lots/${id}`, lot(set.sheet, { note: 'late', version: 1 })).expect(409);
    const body = {
      sheetRevisionId: set.revision,
      on: [{ surfaceId: set.zone, layerId: set.layers[0]?.id }],
      parts: [
        { name: 'Base', volumeL: 0.75, massKg: null },
        { name: 'Hardener', volumeL: 0.25, massKg: null },
      ],
      thinnerL: 0,
      totalL: 1,
      standMin: 0,
      potLifeH: null,
      potTempC: null,
    };
    await put(`/entries/${uuid()}`, {
      boatId: set.boat,
      stream: 'batch',
      streamId: uuid(),
      kind: 'mixed',
      occurredAt: NOW,
      painter: '',
      device: '',
      supersedes: null,
      body,
    }).expect(200);
    const told = await stores();
    expect(told.lots.find((l) => l.id === id)).toMatchObject({
      leftL: 2.5,
      weighed: { grossKg: 4.1, tareKg: 0.3 },
      version: 2,
    });
    // Of the hardener there is no tin that anything could have been taken from.
    expect(told.pours.filter((p) => p.sheetId === set.sheet)).toEqual([
      { sheetId: set.sheet, part: 'Base', litres: 0.75, at: NOW },
    ]);
    // Two coats are planned, none is on.
    expect(told.boats.find((b) => b.boatId === set.boat)?.needs).toHaveLength(2);
    expect(told.today).toBe('2026-05-14');
  });
  it.each([
    [{ leftL: 9 }, 422, /More is left than the tin holds/],
    [{ weighed: { grossKg: 1, tareKg: 2 } }, 422, /weighs less than the empty one/],
    [{ boughtOn: '2026-05-02', openedOn: '2026-05-01' }, 422, /opened before it was bought/],
    [{ part: 'Resin' }, 422, /has no part called "Resin"/],
    [{ sizeL: 0 }, 400, /Size must be more than zero/],
    [{ leftL: -1 }, 400, /at least 0/],
    [{ openedOn: '14.5.2026' }, 400, /must be a date like/],
    [{ sheetId: uuid() }, 404, /no such data sheet/],
  ])('refuses a tin with %o', async (change, status, message) => {
    const set = await setUpBoat(agent);
    const res = await put(`/lots/${uuid()}`, lot(set.sheet, change));
    expect(res.status).toBe(status);
    expect(res.body.error.message).toMatch(message);
  });
  it('has one set of rules, the usual ones until they are changed', async () => {
    expect((await stores()).rules).toEqual(USUAL_RULES);
    const { id: _id, ...rules } = { ...USUAL_RULES, chance: 0.8 };
    await put(`/yard-rules/${YARD_RULES_ID}`, rules).expect(200);
    expect((await stores()).rules).toMatchObject({ chance: 0.8, version: 1 });
    await put(`/yard-rules/${YARD_RULES_ID}`, rules).expect(200);
    await put(`/yard-rules/${YARD_RULES_ID}`, { ...rules, chance: 0.7 }).expect(409);
    expect((await put(`/yard-rules/${uuid()}`, rules)).body.error.message).toMatch(/one set of rules/);
    expect((await put(`/yard-rules/${YARD_RULES_ID}`, { ...rules, chance: 1, version: 1 })).body.error.message).toBe(
      'The chance must be at most 0.999.',
    );
  });
});

describe('named build-ups', () => {
  it('are kept, used by zones, and told with where they stand', async () => {
    const set = await setUpBoat(agent);
    const id = uuid();
    await put(`/named-build-ups/${id}`, named([layerFields(set.revision)])).expect(200);
    await put(`/build-ups/${set.buildUp}`, {
      boatId: set.boat,
      surfaceId: set.zone,
      layers: set.layers,
      namedId: id,
      targetMicron: 250,
      version: 1,
    }).expect(200);
    const { body } = await agent.get('/api/named-build-ups').expect(200);
    expect(body.named.find((n: { id: string }) => n.id === id)).toMatchObject({ name: 'Bottom', version: 1 });
    expect(body.uses[id]).toEqual([
      { boatId: set.boat, boatName: boatFields.name, surfaceId: set.zone, zoneName: 'Underwater hull' },
    ]);
    // Removed, the zone keeps its coats.
    await put(`/named-build-ups/${id}`, { ...named([layerFields(set.revision)]), deleted: true, version: 1 }).expect(
      200,
    );
    const { body: bundle } = await agent.get(`/api/boats/${set.boat}`).expect(200);
    expect(bundle.buildUps[0].layers).toHaveLength(2);
  });
  it('refuse unknown sheets, no substrate, too many coats', async () => {
    expect((await put(`/named-build-ups/${uuid()}`, named([layerFields(uuid())]))).status).toBe(404);
    expect((await put(`/named-build-ups/${uuid()}`, { ...named(), substrates: [] })).body.error.message).toMatch(
      /Substrates has too few rows/,
    );
    expect((await put(`/named-build-ups/${uuid()}`, { ...named(), substrates: ['glass'] })).status).toBe(400);
  });
});

describe('several zones at once', () => {
  it('all change or none', async () => {
    const set = await setUpBoat(agent);
    const second = uuid();
    await put(`/surfaces/${second}`, { ...zoneFields(set.boat), name: 'Keel', sort: 2 }).expect(200);
    const [one, two] = [set.buildUp, uuid()];
    const row = (id: string, surfaceId: string, version: number, layers = set.layers.slice(0, 1)) => ({
      id,
      boatId: set.boat,
      surfaceId,
      layers,
      version,
    });
    const layersOf = async () =>
      (await agent.get(`/api/boats/${set.boat}`)).body.buildUps.map((b: { layers: object[] }) => b.layers.length);
    // The second is stale: the first is not written either.
    expect(
      (await put(`/boats/${set.boat}/build-ups`, { rows: [row(one, set.zone, 1), row(two, second, 3)] })).status,
    ).toBe(404);
    expect(await layersOf()).toEqual([2]);
    await put(`/boats/${set.boat}/build-ups`, { rows: [row(one, set.zone, 1), row(two, second, 0)] }).expect(200);
    expect(await layersOf()).toEqual([1, 1]);
    const other = await setUpBoat(agent);
    expect(
      (await put(`/boats/${set.boat}/build-ups`, { rows: [{ ...row(one, set.zone, 2), boatId: other.boat }] })).body
        .error.message,
    ).toMatch(/another boat/);
    expect((await put(`/boats/${set.boat}/build-ups`, { rows: [] })).status).toBe(400);
  });
  it('keep what was let stand and put on record', async () => {
    const set = await setUpBoat(agent);
    const overrides = [
      {
        rule: 'copperOnMetal',
        key: 'copperOnMetal:a/b:substrate',
        reason: 'Only for a week.',
        at: NOW,
        painter: 'Ada',
      },
    ];
    const records = [{ id: uuid(), kind: 'testPatch', at: NOW, painter: 'Ada', note: 'held' }];
    const fields = { boatId: set.boat, surfaceId: set.zone, layers: set.layers, version: 1 };
    await put(`/build-ups/${set.buildUp}`, { ...fields, overrides, records }).expect(200);
    expect((await agent.get(`/api/boats/${set.boat}`)).body.buildUps[0]).toMatchObject({ overrides, records });
    expect(
      (
        await put(`/build-ups/${set.buildUp}`, {
          ...fields,
          version: 2,
          overrides: [{ ...overrides[0], reason: 'no' }],
        })
      ).body.error.message,
    ).toMatch(/The reason/);
  });
});

describe('borders', () => {
  it('lie between two zones of one boat, and go with them', async () => {
    const set = await setUpBoat(agent);
    const upper = uuid();
    await put(`/surfaces/${upper}`, {
      ...zoneFields(set.boat),
      name: 'Boot-top',
      kind: 'bootTop',
      exposure: 'splash',
      area: { method: 'typed', dimensions: {}, typed: { areaM2: 2, share: 0.1 } },
    }).expect(200);
    const border = {
      boatId: set.boat,
      upperId: upper,
      lowerId: set.zone,
      rule: 'overlap',
      widthM: 0.02,
      epoxyRunsOn: true,
      handStripM: 0,
      note: '',
      version: 0,
    };
    const id = uuid();
    await put(`/borders/${id}`, border).expect(200);
    const borders = async () => (await agent.get(`/api/boats/${set.boat}`)).body.borders as { id: string }[];
    expect((await borders()).map((b) => b.id)).toEqual([id]);
    expect((await put(`/borders/${uuid()}`, { ...border, lowerId: upper })).body.error.message).toMatch(
      /between two zones/,
    );
    expect((await put(`/borders/${uuid()}`, { ...border, lowerId: uuid() })).status).toBe(404);
    expect((await put(`/borders/${uuid()}`, { ...border, widthM: -1 })).status).toBe(400);
    await put(`/surfaces/${upper}`, {
      ...zoneFields(set.boat),
      name: 'Boot-top',
      kind: 'bootTop',
      exposure: 'splash',
      area: { method: 'typed', dimensions: {}, typed: { areaM2: 2, share: 0.1 } },
      deleted: true,
      version: 1,
    }).expect(200);
    expect(await borders()).toEqual([]);
  });
});

describe('many sheets at once', () => {
  const fresh = (name: string, more: object = {}) => ({
    id: uuid(),
    revisionId: uuid(),
    body: { ...sheet, name, ...more },
  });
  const list = async () =>
    (await agent.get('/api/sheets')).body as { id: string; version: number; current: { body: { name: string } } }[];

  it('are taken in, all or none, and taken back again', async () => {
    const sheets = [fresh('One'), fresh('Two')];
    expect(
      (await put(`/sheet-imports/${uuid()}`, { taken: true, sheets: [...sheets, fresh('Three', { dftMaxMicron: 1 })] }))
        .body.error.message,
    ).toMatch(/^Three: The largest dry film is below/);
    expect((await list()).some((s) => s.current.body.name === 'One')).toBe(false);
    expect((await put(`/sheet-imports/${uuid()}`, { taken: true, sheets })).body).toEqual({ written: 2 });
    // Sent again, nothing more is written.
    expect((await put(`/sheet-imports/${uuid()}`, { taken: true, sheets })).body).toEqual({ written: 0 });
    expect((await put(`/sheet-imports/${uuid()}`, { taken: false, sheets })).body).toEqual({ written: 2 });
    expect((await list()).some((s) => s.current.body.name === 'One')).toBe(false);
    expect((await put(`/sheet-imports/${uuid()}`, { taken: true, sheets })).body).toEqual({ written: 2 });
  });
  it('refuses ten thousand, ones that say nothing, and a deep heap of brackets', async () => {
    expect((await put(`/sheet-imports/${uuid()}`, { taken: true, sheets: [] })).status).toBe(400);
    expect(
      (
        await put(`/sheet-imports/${uuid()}`, {
          taken: true,
          sheets: Array.from({ length: 301 }, () => ({ id: uuid() })),
        })
      ).status,
    ).toBe(400);
    expect(
      (await put(`/sheet-imports/${uuid()}`, { taken: true, sheets: Array.from({ length: 10_000 }, () => fresh('x')) }))
        .status,
    ).toBe(413);
    const bomb = `{"taken":true,"sheets":${'['.repeat(100_000)}${']'.repeat(100_000)}}`;
    const res = await agent.put(`/api/sheet-imports/${uuid()}`).set('Content-Type', 'application/json').send(bomb);
    expect(res.status).toBe(400);
    expect(res.body.error.message).toMatch(/\.$/);
  });
  it('the shipped library goes through the same door, and fits in one request', async () => {
    expect(JSON.stringify(LIBRARY_SHEETS).length).toBeLessThan(1_000_000);
    expect((await put(`/sheet-imports/${uuid()}`, { taken: true, sheets: LIBRARY_SHEETS })).body).toEqual({
      written: LIBRARY_SHEETS.length,
    });
    const { body } = await agent.get('/api/library').expect(200);
    expect(body.sheets).toHaveLength(LIBRARY_SHEETS.length);
    expect(body.starters.length).toBeGreaterThanOrEqual(20);
    for (const starter of body.starters.slice(0, 3)) {
      const { id, ...fields } = starter;
      await put(`/named-build-ups/${id}`, { ...fields, version: 0 }).expect(200);
    }
  });
});

describe('removing a sheet', () => {
  it('is refused with where it is used, and done where it is not', async () => {
    const set = await setUpBoat(agent);
    const remove = () => put(`/sheets/${set.sheet}`, { revisionId: uuid(), body: sheet, deleted: true, version: 1 });
    await put(`/lots/${uuid()}`, lot(set.sheet)).expect(200);
    await put(`/entries/${uuid()}`, startBody(set, uuid(), NOW - 1000)).expect(200);
    const refused = await remove();
    expect(refused.status).toBe(422);
    expect(refused.body.error.message).toBe(
      `Example barrier is in use: Underwater hull of Test Punt, the record of Test Punt, a tin on the shelf. Withdraw it instead: it stays where it is and goes nowhere new.`,
    );
    const free = uuid();
    await put(`/sheets/${free}`, { revisionId: uuid(), body: { ...sheet, name: 'Unused' }, version: 0 }).expect(200);
    await put(`/sheets/${free}`, {
      revisionId: uuid(),
      body: { ...sheet, name: 'Unused' },
      deleted: true,
      version: 1,
    }).expect(200);
    await agent.get(`/api/sheets/${free}`).expect(404);
    // A removed sheet goes on no zone; brought back, it does.
    const revisionId = uuid();
    await put(`/sheets/${free}`, { revisionId, body: { ...sheet, name: 'Unused', solids: 0.6 }, version: 2 }).expect(
      200,
    );
    await put(`/build-ups/${set.buildUp}`, {
      boatId: set.boat,
      surfaceId: set.zone,
      layers: [...set.layers, layerFields(revisionId)],
      version: 1,
    }).expect(200);
  });
});

describe('what a sheet may say', () => {
  it.each([
    [{ packs: [{ name: 'x', sizeL: 1, priceMinor: 1, part: 'Resin' }] }, /no part of this sheet/],
    [{ methods: [{ method: 'mop' }] }, /not one of the choices/],
    [{ antifouling: { waters: ['salt', 'salt'] } }, /duplicate/],
    [{ solids: 1.5 }, /Volume solids must be at most 1/],
    [{ parts: [{ ...sheet.parts[0], ratio: 0 }, sheet.parts[1]] }, /Ratio must be more than zero/],
    [{ parts: [{ ...sheet.parts[0], name: '' }] }, /Name of the part is empty/],
    [{ hidingCoats: 0 }, /at least 1/],
    [{ hoverboard: true }, /not known here/],
  ])('refuses %o', async (change, message) => {
    const res = await put(`/sheets/${uuid()}`, { revisionId: uuid(), body: { ...sheet, ...change }, version: 0 });
    expect([400, 422]).toContain(res.status);
    expect(res.body.error.message).toMatch(message);
  });
  it('keeps what is left out left out', async () => {
    const id = uuid();
    await put(`/sheets/${id}`, {
      revisionId: uuid(),
      body: { ...sheet, chemistry: null, gloss: '', copper: false, holdingMonths: '6' },
      version: 0,
    }).expect(200);
    const { body } = (await agent.get(`/api/sheets/${id}`).expect(200)).body.current;
    expect(body).toMatchObject({ copper: false, holdingMonths: 6 });
    expect('chemistry' in body || 'gloss' in body).toBe(false);
  });
});
