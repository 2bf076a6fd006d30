import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import pino from 'pino';
import { v7 as uuid } from 'uuid';
import { overcoatWindow } from '#core';
import { sheet } from '#core/sheet/example.fixture';
import { makeApp } from '../server/app';
import { boatFields, layerFields, startBody, zoneFields } from '../server/app.fixture';
import { openDb } from '../server/db/open';
import { entries } from '../server/db/schema';
import { FileStore } from '../server/files';
import { startServer } from '../scripts/server';
import { dragging, packs } from './film';
import { frames } from './frames';
import { meshes } from './mesh';
import { quantile } from './quantile';
import { OWN_JSON } from '../scripts/server';

/**
 * The measures, as ratios within one run: a fixed loop of arithmetic stands beside the computing, PGlite
 * itself beside the server. Absolute times depend on the machine and are printed for a feeling only.
 */
const now = () => performance.now();

/** Ten million additions of square roots: what one unit of computing costs here. */
function calibrationMs(): number {
  let best = Infinity;
  for (let round = 0; round < 5; round += 1) {
    const start = now();
    let sum = 0;
    for (let i = 0; i < 10_000_000; i += 1) sum += Math.sqrt(i);
    if (sum < 0) throw new Error('impossible');
    best = Math.min(best, now() - start);
  }
  return best;
}

function windows(): void {
  const H = 3_600_000;
  const temps = Array.from({ length: 21 * 24 }, (_, i) => ({ at: i * H, tempC: 14 + 7 * Math.sin(((i - 9) / 24) * 2 * Math.PI) + 3 * Math.sin(i / 31) }));
  const times = sheet.overcoat[0]!;
  const one = (n: number) => overcoatWindow({ startedAt: (n % 200) * H, finishedAt: ((n % 200) + 2) * H, temps, minimum: times.minimum, tackLimit: times.tackLimit!, maximum: [{ tempC: 10, hours: 300 }, { tempC: 20, hours: 150 }], minCureC: 5 });
  for (let n = 0; n < 300; n += 1) one(n);
  const count = 3000;
  const start = now();
  for (let n = 0; n < count; n += 1) one(n);
  const perWindowMs = (now() - start) / count;
  const calibration = calibrationMs();
  console.log(`windows on 21 days of hourly temperatures: ${Math.round(1000 / perWindowMs)} a second; one costs ${(perWindowMs / calibration).toFixed(4)} of the calibration loop (${calibration.toFixed(1)} ms)`);
}

async function saving(): Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const { db, close } = await openDb(dir);
  const clock = { now: () => Date.now(), frozen: false };
  const server = createServer(makeApp({ db, files: new FileStore(null), clock, demo: false }, { log: pino({ level: 'silent' }), webDir: null }));
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`;
  const put = async (path: string, body: object) => {
    const res = await fetch(url + path, { method: 'PUT', headers: OWN_JSON, body: JSON.stringify(body) });
    if (!res.ok) throw new Error(await res.text());
    await res.arrayBuffer();
  };
  const ids = { boat: uuid(), zone: uuid(), sheet: uuid(), revision: uuid() };
  await put(`/boats/${ids.boat}`, boatFields);
  await put(`/surfaces/${ids.zone}`, zoneFields(ids.boat));
  await put(`/sheets/${ids.sheet}`, { revisionId: ids.revision, body: sheet, version: 0 });
  const layers = [layerFields(ids.revision)];
  await put(`/build-ups/${uuid()}`, { boatId: ids.boat, surfaceId: ids.zone, layers, version: 0 });

  const overHttp: number[] = [];
  const straight: number[] = [];
  for (let n = 0; n < 160; n += 1) {
    const body = startBody({ ...ids, layers }, uuid(), Date.now() - 1000);
    let start = now();
    await put(`/entries/${uuid()}`, body);
    overHttp.push(now() - start);
    const row = { ...startBody({ ...ids, layers }, uuid(), Date.now() - 1000), id: uuid(), recordedAt: Date.now() };
    start = now();
    await db.insert(entries).values(row as never);
    straight.push(now() - start);
    // Each is on its own: the log a save is checked against stays as long as a real boat's.
    if (n % 40 === 39) await db.execute(sql`delete from entries`);
  }
  for (const [name, q] of [['p50', 0.5], ['p95', 0.95]] as const) {
    console.log(`save a coat event, ${name}: ${quantile(overHttp, q).toFixed(1)} ms over HTTP, ${quantile(straight, q).toFixed(1)} ms straight into PGlite: ratio ${(quantile(overHttp, q) / quantile(straight, q)).toFixed(1)}`);
  }
  server.closeAllConnections();
  server.close();
  await close();
  rmSync(dir, { recursive: true, force: true });
}

async function starting(): Promise<void> {
  const plain = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const ours = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  for (const age of ['new', 'old'] as const) {
    let start = now();
    const client = new PGlite(join(plain, 'pg'));
    await client.waitReady;
    const pgliteMs = now() - start;
    await client.close();
    start = now();
    const server = await startServer({ JACKPLANE_DATA: ours });
    const serverMs = now() - start;
    await server.stop();
    console.log(`start on a ${age} folder: server ${serverMs.toFixed(0)} ms, PGlite alone ${pgliteMs.toFixed(0)} ms: ratio ${(serverMs / pgliteMs).toFixed(1)}`);
  }
  for (const dir of [plain, ours]) rmSync(dir, { recursive: true, force: true });
}

windows();
dragging(calibrationMs);
await packs();
meshes();
await saving();
await starting();
await frames();
