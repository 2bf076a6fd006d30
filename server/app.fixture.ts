import pino from 'pino';
import request from 'supertest';
import { v7 as uuid } from 'uuid';
import { sheet as exampleSheet } from '#core/sheet/example.fixture';
import { OWN_HEADER } from '#contracts/rows/door';
import { makeApp } from './app';
import type { Db } from './db/database';
import type { Row } from './db/ops';
import { tableRows } from './keep/archive';
import type { Clock } from './clock';
import type { Context } from './context';
import { beginHistory, openYard, type Yard } from './keep/yard';
import { newDatabase } from './postgres.fixture';
import { Summaries } from './summaries';

/** Tests only: an app on a database in memory, its clock stopped, with the few rows most tests start from. */
export const NOW = Date.UTC(2026, 4, 14, 10, 0);
export const HOUR = 3_600_000;

/**
 * @param dataDir left out: in memory, without journal and automatic backups; where the run is on a PostgreSQL server, on
 * a new database of that
 */
export async function testApp(dataDir: string | null = null) {
  const clock = { at: NOW, now: () => clock.at, frozen: true, set: true };
  const databaseUrl = dataDir === null ? await newDatabase() : null;
  const yard = await openYard({ dataDir, databaseUrl, now: clock.now });
  await beginHistory(yard, 'first');
  return { ...serve(yard, clock), clock, close: () => yard.close() };
}

/** The app on an open yard. Its agent sends what our own page sends. */
export function serve(yard: Yard, told: Omit<Clock, 'set'>, demo = false) {
  const clock = { set: true, ...told };
  const about = { demo, open: false };
  const { store, files } = yard;
  const context: Context = {
    yard,
    store,
    clock,
    ...about,
    hosts: [],
    summaries: new Summaries(store, clock, about, yard.notices),
  };
  const app = makeApp(context, { log: pino({ level: 'silent' }), webDir: null });
  const agent = request.agent(app).set(OWN_HEADER, '1');
  return { yard, store, db: store.db, files, context, app, agent };
}

/** Everything in a database, by table. */
export async function readTables(db: Db): Promise<Record<string, Row[]>> {
  const out: Record<string, Row[]> = {};
  for await (const { table, rows } of tableRows(db)) out[table] = [...(out[table] ?? []), ...rows];
  return out;
}

export { uuid };

export const boatFields = {
  name: 'Test Punt',
  hullMaterial: 'grp',
  keels: 'single',
  form: 'longKeel',
  loaM: 8,
  lwlM: 7,
  beamM: 2.6,
  draftM: 1.1,
  freeboardM: 0.9,
  place: 'Nowhere',
  latitudeDeg: 45,
  timeZone: 'Europe/Lisbon',
  version: 0,
};

export const zoneFields = (boatId: string) => ({
  boatId,
  name: 'Underwater hull',
  kind: 'underwater',
  substrate: 'gelcoat',
  exposure: 'immersed',
  existing: 'bare',
  area: { method: 'dimensions', dimensions: {}, typed: null },
  sort: 1,
  version: 0,
});

export const layerFields = (sheetRevisionId: string) => ({
  id: uuid(),
  sheetRevisionId,
  dftMicron: 100,
  method: 'roller',
  thinnerShare: 0,
  loss: 0.1,
  deadVolumeLPerM2: 0,
  colour: 'grey',
  colourHex: '#888888',
});

export type Agent = ReturnType<typeof request.agent>;

/** A boat with one zone and two coats of one sheet planned on it. */
export async function setUpBoat(agent: Agent) {
  const ids = { boat: uuid(), zone: uuid(), sheet: uuid(), revision: uuid(), buildUp: uuid() };
  await agent.put(`/api/boats/${ids.boat}`).send(boatFields).expect(200);
  await agent.put(`/api/surfaces/${ids.zone}`).send(zoneFields(ids.boat)).expect(200);
  await agent
    .put(`/api/sheets/${ids.sheet}`)
    .send({ revisionId: ids.revision, body: exampleSheet, version: 0 })
    .expect(200);
  const layers = [layerFields(ids.revision), layerFields(ids.revision)];
  await agent
    .put(`/api/build-ups/${ids.buildUp}`)
    .send({ boatId: ids.boat, surfaceId: ids.zone, layers, version: 0 })
    .expect(200);
  return { ...ids, layers };
}

export function startBody(
  set: { boat: string; zone: string; revision: string; layers: { id: string }[] },
  coatId: string,
  at: number,
) {
  return {
    boatId: set.boat,
    stream: 'coat',
    streamId: coatId,
    kind: 'started',
    occurredAt: at,
    painter: 'Ada',
    device: 'test',
    supersedes: null,
    body: {
      on: [{ surfaceId: set.zone, layerId: set.layers[0]?.id }],
      sheetRevisionId: set.revision,
      method: 'roller',
      thinner: 0,
      dftMicron: 100,
      colour: 'grey',
      colourHex: '#888888',
      overrideReason: null,
      abradedGrit: null,
    },
  };
}

export const entryFields = (
  boatId: string,
  coatId: string,
  kind: string,
  at: number,
  body: object,
  supersedes: string | null = null,
) => ({
  boatId,
  stream: 'coat',
  streamId: coatId,
  kind,
  occurredAt: at,
  painter: 'Ada',
  device: 'test',
  supersedes,
  body,
});

/** An answer as the bytes that it is. */
export const bytes = (request: ReturnType<Agent['get']>) =>
  request.buffer(true).parse((res, done: (error: Error | null, body: Buffer) => void) => {
    const chunks: Buffer[] = [];
    res.on('data', (c: Buffer) => chunks.push(c));
    res.on('end', () => done(null, Buffer.concat(chunks)));
  });
