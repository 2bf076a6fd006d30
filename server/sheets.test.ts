import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { layerFields, NOW, setUpBoat, startBody, testApp, uuid, zoneFields } from './app.fixture';
import { refused } from './refused.fixture';
import { sheet } from '#core/sheet/example.fixture';

let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

describe('sheets and build-ups', () => {
  it('a changed sheet is a new revision; the old one stays with what was built on it', async () => {
    const set = await setUpBoat(t.agent);
    const second = uuid();
    await t.agent
      .put(`/api/sheets/${set.sheet}`)
      .send({ revisionId: second, body: { ...sheet, solids: 0.6 }, version: 1 })
      .expect(200);
    const { body } = await t.agent.get(`/api/sheets/${set.sheet}`).expect(200);
    expect(
      body.revisions.map((r: { revision: number; body: { solids: number } }) => [r.revision, r.body.solids]),
    ).toEqual([
      [2, 0.6],
      [1, 0.5],
    ]);
    const bundle = (await t.agent.get(`/api/boats/${set.boat}`)).body;
    expect(bundle.sheets).toEqual([expect.objectContaining({ id: set.revision, revision: 1 })]);
  });
  it('refuses impossible sheets', async () => {
    const put = (change: object) =>
      t.agent.put(`/api/sheets/${uuid()}`).send({ revisionId: uuid(), body: { ...sheet, ...change }, version: 0 });
    await refused(put({ solids: 0 }), 400, /Volume solids must be more than zero/);
    await refused(put({ solids: 1.5 }), 400, /Volume solids must be at most 1/);
    await refused(put({ potLife: [] }), 400, /Pot life is empty/);
    await refused(put({ parts: [{ ...sheet.parts[0], ratio: 0 }] }), 400, /Ratio must be more than zero/);
    await refused(put({ parts: [{ ...sheet.parts[0], name: '' }] }), 400, /Name of the part is empty/);
    await refused(
      put({
        potLife: [
          { tempC: 20, hours: 2 },
          { tempC: 20, hours: 3 },
        ],
      }),
      400,
      /one temperature twice/,
    );
    await refused(
      put({ overcoat: [{ ...sheet.overcoat[0], tackLimit: [{ tempC: 20, hours: 1 }] }] }),
      422,
      /shortest overcoat time .* is above/,
    );
  });
  it('two people edit one sheet: the second is shown both', async () => {
    const set = await setUpBoat(t.agent);
    await t.agent
      .put(`/api/sheets/${set.sheet}`)
      .send({ revisionId: uuid(), body: { ...sheet, solids: 0.6 }, version: 1 })
      .expect(200);
    const error = await refused(
      t.agent.put(`/api/sheets/${set.sheet}`).send({ revisionId: uuid(), body: { ...sheet, solids: 0.7 }, version: 1 }),
      409,
      /changed meanwhile/,
    );
    expect(error).toHaveProperty('current.current.body.solids', 0.6);
  });
  it('a withdrawn sheet keeps its zones and coats but goes on no other', async () => {
    const set = await setUpBoat(t.agent);
    await t.agent
      .put(`/api/sheets/${set.sheet}`)
      .send({ revisionId: uuid(), body: sheet, withdrawn: true, version: 1 })
      .expect(200);
    await t.agent
      .put(`/api/build-ups/${set.buildUp}`)
      .send({ boatId: set.boat, surfaceId: set.zone, layers: set.layers.slice(0, 1), version: 1 })
      .expect(200);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(set, uuid(), NOW))
      .expect(200);
    const other = uuid();
    await t.agent
      .put(`/api/surfaces/${other}`)
      .send({ ...zoneFields(set.boat), name: 'Other' })
      .expect(200);
    await refused(
      t.agent
        .put(`/api/build-ups/${uuid()}`)
        .send({ boatId: set.boat, surfaceId: other, layers: [layerFields(set.revision)], version: 0 }),
      422,
      /was withdrawn/,
    );
  });
  it('a zone has one build-up', async () => {
    const set = await setUpBoat(t.agent);
    await refused(
      t.agent.put(`/api/build-ups/${uuid()}`).send({ boatId: set.boat, surfaceId: set.zone, layers: [], version: 0 }),
      409,
      /build-up already/,
    );
    await refused(
      t.agent
        .put(`/api/build-ups/${set.buildUp}`)
        .send({ boatId: set.boat, surfaceId: set.zone, layers: [{ ...set.layers[0], dftMicron: 0 }], version: 1 }),
      400,
      /Dry film must be more than zero/,
    );
  });
});
