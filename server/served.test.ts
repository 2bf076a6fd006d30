import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { entryFields, HOUR, layerFields, NOW, setUpBoat, startBody, testApp, uuid, zoneFields } from './app.fixture';
import { makeApp } from './app';

let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

describe('the interface as it is served', () => {
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-web-'));
  mkdirSync(join(dir, 'assets'));
  writeFileSync(join(dir, 'index.html'), '<!doctype html><title>It</title>');
  writeFileSync(join(dir, 'assets', 'a-1234.js'), 'export {}');
  afterAll(() => rmSync(dir, { recursive: true, force: true }));
  const web = () => request(makeApp(t.context, { log: pino({ level: 'silent' }), webDir: dir }));

  it('answers every deep link with the page, never kept by the browser', async () => {
    for (const path of ['/', '/boats/x/today', '/sheets/new/quick', '/nowhere/at/all']) {
      const res = await web().get(path).expect(200);
      expect(res.text).toContain('<title>It</title>');
      expect(res.headers['cache-control']).toBe('no-cache');
    }
  });
  it('keeps named assets for good, and misses the ones that are not there', async () => {
    const res = await web().get('/assets/a-1234.js').expect(200);
    expect(res.headers['cache-control']).toContain('immutable');
    await web().get('/assets/b-0000.js').expect(404);
    const outside = await web().get('/assets/..%2f..%2fpackage.json');
    expect(outside.status).toBeGreaterThanOrEqual(400);
    expect(outside.status).toBeLessThan(500);
    expect(outside.text).not.toContain('jack-plane');
  });
  it('never answers the API with the page', async () => {
    const res = await web().get('/api/nowhere').expect(404);
    expect(res.body.error.code).toBe('unknown_path');
    expect(res.headers['cache-control']).toBe('no-store');
  });
});

describe('stints over several zones', () => {
  async function twoZones() {
    const set = await setUpBoat(t.agent);
    const second = { zone: uuid(), layer: layerFields(set.revision) };
    await t.agent
      .put(`/api/surfaces/${second.zone}`)
      .send({ ...zoneFields(set.boat), name: 'Second', sort: 2 })
      .expect(200);
    await t.agent
      .put(`/api/build-ups/${uuid()}`)
      .send({ boatId: set.boat, surfaceId: second.zone, layers: [second.layer], version: 0 })
      .expect(200);
    return { ...set, second };
  }
  it('one coat and one batch on two zones counts on both', async () => {
    const set = await twoZones();
    const coat = uuid();
    const start = startBody(set, coat, NOW - 3 * HOUR);
    start.body.on.push({ surfaceId: set.second.zone, layerId: set.second.layer.id });
    await t.agent.put(`/api/entries/${uuid()}`).send(start).expect(200);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(entryFields(set.boat, coat, 'finished', NOW - HOUR, { litresOn: 5 }))
      .expect(200);
    const { body } = await t.agent.get('/api/yard').expect(200);
    const zones = body.boats.find((b: { boat: { id: string } }) => b.boat.id === set.boat).zones;
    expect(zones.map((z: { state: string; opensAt: number | null }) => [z.state, z.opensAt !== null])).toEqual([
      ['shut', true],
      ['complete', true],
    ]);
  });
  it('refuses one zone twice, a zone of another boat and another product than planned', async () => {
    const set = await twoZones();
    const other = await setUpBoat(t.agent);
    const send = (on: object[], revision = set.revision) => {
      const start = startBody({ ...set, revision }, uuid(), NOW);
      return t.agent.put(`/api/entries/${uuid()}`).send({ ...start, body: { ...start.body, on } });
    };
    const mine = { surfaceId: set.zone, layerId: set.layers[0]?.id };
    expect((await send([mine, mine])).body.error.message).toMatch(/contains a duplicate value/);
    expect((await send([mine, { surfaceId: other.zone, layerId: other.layers[0]?.id }])).body.error.message).toMatch(
      /no such zone/,
    );
    expect((await send([mine], other.revision)).body.error.message).toMatch(
      /has Example barrier planned here, not Example barrier/,
    );
    expect((await send([mine], uuid())).body.error.message).toMatch(/no such data sheet/);
    expect((await t.agent.get(`/api/boats/${set.boat}`)).body.entries).toEqual([]);
  });
  it('a corrected start is taken although its coat has left the build-up since', async () => {
    const set = await twoZones();
    const coat = uuid();
    const first = uuid();
    await t.agent
      .put(`/api/entries/${first}`)
      .send(startBody(set, coat, NOW - 3 * HOUR))
      .expect(200);
    await t.agent
      .put(`/api/build-ups/${set.buildUp}`)
      .send({ boatId: set.boat, surfaceId: set.zone, layers: set.layers.slice(1), version: 1 })
      .expect(200);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send({ ...startBody(set, coat, NOW - 2 * HOUR), supersedes: first })
      .expect(200);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send({ ...startBody(set, coat, NOW - HOUR), supersedes: first })
      .expect(422);
  });
  it('batches are logged once, silenced and emptied after', async () => {
    const set = await twoZones();
    const batch = uuid();
    const of = (kind: string, body: object) => ({ ...entryFields(set.boat, batch, kind, NOW, body), stream: 'batch' });
    const mixed = of('mixed', {
      sheetRevisionId: set.revision,
      on: [{ surfaceId: set.zone, layerId: set.layers[0]?.id }],
      parts: [{ name: 'Base', volumeL: 0.75, massKg: 1.14 }],
      thinnerL: 0,
      totalL: 1,
      standMin: 15,
      potLifeH: 2,
      potTempC: 20,
    });
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(of('silenced', { timer: 'stand' }))
      .expect(422);
    await t.agent.put(`/api/entries/${uuid()}`).send(mixed).expect(200);
    await t.agent.put(`/api/entries/${uuid()}`).send(mixed).expect(422);
    const timers = async () =>
      (await t.agent.get('/api/yard')).body.boats.find((b: { boat: { id: string } }) => b.boat.id === set.boat)
        .timers as { timer: string; dueAt: number; silenced: boolean }[];
    expect((await timers()).map((x) => [x.timer, x.dueAt - NOW, x.silenced])).toEqual([
      ['stand', 15 * 60_000, false],
      ['pot', 2 * HOUR, false],
    ]);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(of('silenced', { timer: 'stand' }))
      .expect(200);
    expect((await timers())[0]?.silenced).toBe(true);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(of('emptied', { litresLeft: 0 }))
      .expect(200);
    expect(await timers()).toEqual([]);
  });
  it('an entry belongs to the stream of its kind', async () => {
    const set = await twoZones();
    const wrong = { ...entryFields(set.boat, uuid(), 'finished', NOW, { litresOn: null }), stream: 'batch' };
    expect((await t.agent.put(`/api/entries/${uuid()}`).send(wrong).expect(422)).body.error.message).toBe(
      'A finished entry does not belong to a batch.',
    );
  });
});
