import { execFileSync } from 'node:child_process';
import { fdatasync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { v7 as uuid } from 'uuid';
import { overcoatWindow } from '#core';
import { sheet } from '#core/sheet/example.fixture';
import { boatFields, entryFields, layerFields, startBody, zoneFields } from '../server/app.fixture';
import { entries } from '../server/db/schema';
import type { Disk } from '../server/keep/journal';
import { integratedMilestoneAt } from '../core/cure/integrator.fixture';
import { OWN_JSON, startServer } from '../scripts/server';
import { dragging, packs } from './film';
import { readersAndWriters, savingBesideBackup } from './busy';
import { frames } from './frames';
import { bigYard, serving, states } from './growth';
import { meshes } from './mesh';
import { planning } from './plan';
import { planDrags } from './planDrags';
import { mixing } from './mixing';
import { waterline } from './waterline';
import { quantile } from './quantile';

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
  const temps = Array.from({ length: 21 * 24 }, (_, i) => ({
    at: i * H,
    tempC: 14 + 7 * Math.sin(((i - 9) / 24) * 2 * Math.PI) + 3 * Math.sin(i / 31),
  }));
  const times = sheet.overcoat[0]!;
  // Limits that lie days away, so that the series has to be gone through.
  const tables = {
    minimum: times.minimum,
    tackLimit: times.tackLimit!,
    maximum: [
      { tempC: 10, hours: 600 },
      { tempC: 20, hours: 300 },
    ],
  };
  const prepared = (n: number) =>
    overcoatWindow({ startedAt: (n % 100) * H, finishedAt: ((n % 100) + 2) * H, temps, ...tables, minCureC: 5 });
  const walked = (n: number) => {
    integratedMilestoneAt({
      table: tables.minimum,
      kind: 'minimum',
      appliedAt: ((n % 100) + 2) * H,
      temps,
      minCureC: 5,
    });
    integratedMilestoneAt({ table: tables.tackLimit, kind: 'maximum', appliedAt: (n % 100) * H, temps });
    integratedMilestoneAt({ table: tables.maximum, kind: 'maximum', appliedAt: (n % 100) * H, temps });
  };
  const each = (one: (n: number) => unknown, count: number) => {
    for (let n = 0; n < count / 10; n += 1) one(n);
    const start = now();
    for (let n = 0; n < count; n += 1) one(n);
    return (now() - start) / count;
  };
  const [quickMs, slowMs] = [each(prepared, 50_000), each(walked, 1500)];
  const calibration = calibrationMs();
  console.log(
    `windows on 21 days of hourly temperatures: ${Math.round(1000 / quickMs)} a second, one costs ${(quickMs / calibration).toFixed(5)} of the calibration loop (${calibration.toFixed(1)} ms); ${(slowMs / quickMs).toFixed(0)} times as fast as walking the series each time (wanted: 20)`,
  );
}

async function saving(): Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const syncs: number[] = [];
  const disk: Disk = {
    write: (fd, data) => writeSync(fd, data),
    sync: (fd, done) => {
      const start = now();
      fdatasync(fd, (error) => {
        syncs.push(now() - start);
        done(error);
      });
    },
  };
  const { yard, url, close } = await serving(dir, disk);
  const { db } = yard.store;
  // A client that costs little itself: it shares the processor with what is measured.
  const agent = new Agent({ keepAlive: true });
  const put = (path: string, body: object) =>
    new Promise<void>((done, fail) => {
      const text = JSON.stringify(body);
      const req = request(
        url + path,
        { agent, method: 'PUT', headers: { ...OWN_JSON, 'Content-Length': Buffer.byteLength(text) } },
        (res) => {
          res.resume();
          res.on('end', () => (res.statusCode === 200 ? done() : fail(new Error(`${path}: ${res.statusCode}`))));
        },
      );
      req.on('error', fail);
      req.end(text);
    });
  const ids = { boat: uuid(), zone: uuid(), sheet: uuid(), revision: uuid() };
  await put(`/boats/${ids.boat}`, boatFields);
  await put(`/surfaces/${ids.zone}`, zoneFields(ids.boat));
  await put(`/sheets/${ids.sheet}`, { revisionId: ids.revision, body: sheet, version: 0 });
  const layers = [layerFields(ids.revision)];
  await put(`/build-ups/${uuid()}`, { boatId: ids.boat, surfaceId: ids.zone, layers, version: 0 });

  const overHttp: number[] = [];
  const straight: number[] = [];
  const coat = uuid();
  await put(`/entries/${uuid()}`, startBody({ ...ids, layers }, coat, Date.now() - 1000));
  // One layer is one coat: what a painter logs most are readings of it.
  const reading = () => entryFields(ids.boat, coat, 'reading', Date.now() - 500, { airC: 18, rh: 0.6, surfaceC: 17 });
  for (let n = 0; n < 400; n += 1) {
    const body = reading();
    syncs.length = 0;
    let start = now();
    await put(`/entries/${uuid()}`, body);
    overHttp.push(now() - start - syncs.reduce((sum, ms) => sum + ms, 0));
    const row = { ...reading(), id: uuid(), recordedAt: Date.now() };
    start = now();
    await db.insert(entries).values(row as never);
    straight.push(now() - start);
  }
  const alone: number[] = [];
  const fd = openSync(join(dir, 'sync-alone'), 'a');
  for (let n = 0; n < 50; n += 1) {
    writeSync(fd, 'x'.repeat(700));
    const start = now();
    await new Promise((done) => fdatasync(fd, done));
    alone.push(now() - start);
  }
  // The first hundred warm both up.
  const [http, plain] = [overHttp.slice(100), straight.slice(100)];
  for (const [name, q] of [
    ['p50', 0.5],
    ['p95', 0.95],
  ] as const) {
    console.log(
      `save a coat event, ${name}: ${quantile(http, q).toFixed(2)} ms over HTTP besides the journal's sync, ${quantile(plain, q).toFixed(2)} ms straight into PGlite: ratio ${(quantile(http, q) / quantile(plain, q)).toFixed(1)} (wanted: 3); a sync alone ${quantile(alone, q).toFixed(2)} ms`,
    );
  }
  agent.destroy();
  await close();
}

async function starting(): Promise<void> {
  const plain = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const ours = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const took: Record<'ours' | 'within' | 'process', number[]> = { ours: [], within: [], process: [] };
  const script = `const { PGlite } = await import('@electric-sql/pglite'); const c = new PGlite(${JSON.stringify(join(plain, 'pg'))}); await c.waitReady; await c.close();`;
  for (let round = 0; round < 6; round += 1) {
    let start = now();
    const client = new PGlite(join(plain, 'pg'));
    await client.waitReady;
    took.within.push(now() - start);
    await client.close();
    start = now();
    execFileSync(process.execPath, ['--input-type=module', '-e', script]);
    took.process.push(now() - start);
    start = now();
    const server = await startServer({ JACKPLANE_DATA: ours });
    took.ours.push(now() - start);
    await server.stop();
  }
  // The first round makes the folders.
  const middle = (list: number[]) => quantile(list.slice(1), 0.5);
  console.log(
    `start on an old folder: server ${middle(took.ours).toFixed(0)} ms, PGlite alone ${middle(took.within).toFixed(0)} ms within a running process (ratio ${(middle(took.ours) / middle(took.within)).toFixed(1)}, wanted: 2.5), ${middle(took.process).toFixed(0)} ms as a process of its own (ratio ${(middle(took.ours) / middle(took.process)).toFixed(1)})`,
  );
  console.log(
    `start on a new folder: server ${(took.ours[0] as number).toFixed(0)} ms, PGlite alone ${(took.within[0] as number).toFixed(0)} ms`,
  );
  for (const dir of [plain, ours]) rmSync(dir, { recursive: true, force: true });
}

/** Each measure by its name: `node dist-server/bench/run.js busy yard` takes those alone. */
const MEASURES: Readonly<Record<string, () => unknown>> = {
  windows,
  states: () => states(calibrationMs),
  mixing: () => mixing(calibrationMs),
  waterline,
  plan: () => planning(calibrationMs()),
  film: () => dragging(calibrationMs),
  packs,
  meshes,
  saving,
  backup: savingBesideBackup,
  busy: readersAndWriters,
  yard: bigYard,
  starting,
  planDrags,
  frames,
};
const wanted = process.argv.slice(2);
for (const [name, measure] of Object.entries(MEASURES))
  if (wanted.length === 0 || wanted.includes(name)) await measure();
