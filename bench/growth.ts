import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { zoneStatuses } from '#core/coat/zoneStatus';
import { sheet } from '#core/sheet/example.fixture';
import { makeApp } from '../server/app';
import { boatFields, uuid, zoneFields } from '../server/app.fixture';
import { boats, buildUps, entries, jobs, lots, sheetRevisions, sheets, surfaces } from '../server/db/schema';
import type { Db } from '#server/db/database';
import type { Disk } from '../server/keep/journal';
import { beginHistory, openYard } from '../server/keep/yard';
import { Summaries } from '../server/summaries';
import { quantile } from './quantile';
import { benchBoat, statusInput, type BenchBoat } from './yard';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** The server on a folder, in this process; the folder goes with it. */
export async function serving(dir: string, disk?: Disk) {
  const clock = { now: () => Date.now(), frozen: false, set: false };
  const yard = await openYard({ dataDir: dir, now: clock.now, ...(disk ? { disk } : {}) });
  await beginHistory(yard, 'first');
  const about = { demo: false, open: false };
  const server = createServer(
    makeApp(
      {
        yard,
        store: yard.store,
        clock,
        ...about,
        hosts: [],
        summaries: new Summaries(yard.store, clock, about, yard.notices),
      },
      { log: pino({ level: 'silent' }), webDir: null },
    ),
  );
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return {
    yard,
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`,
    async close() {
      server.closeAllConnections();
      server.close();
      await yard.close();
      rmSync(dir, { recursive: true, force: true });
    },
  };
}

const cpuMs = (since?: NodeJS.CpuUsage) => {
  const { user, system } = process.cpuUsage(since);
  return (user + system) / 1000;
};

/** The state of twelve zones as the log grows: to that of ten years. */
export function states(calibrationMs: () => number): void {
  const now = Date.UTC(2026, 4, 14, 10);
  const revisionId = uuid();
  const calibration = calibrationMs();
  let before: { entries: number; ms: number } | null = null;
  for (const coats of [1, 12, 120, 1200]) {
    const input = statusInput(benchBoat({ revisionId, zones: 12, coats, now, everyMs: 3 * DAY_MS }), now, revisionId);
    const took: number[] = [];
    for (let round = 0; round < (coats > 500 ? 5 : 20); round += 1) {
      // Another list and another series each time, so that nothing is remembered.
      const anew = { ...input, entries: [...input.entries], hours: [...input.hours] };
      const start = process.cpuUsage();
      zoneStatuses(anew);
      took.push(cpuMs(start));
    }
    const ms = quantile(took, 0.5);
    const grown = before
      ? `; ${(input.entries.length / before.entries).toFixed(0)} times the log, ${(ms / before.ms).toFixed(1)} times the time`
      : '';
    console.log(
      `state of 12 zones, ${input.entries.length} entries: ${ms.toFixed(1)} ms of processor time (${(ms / calibration).toFixed(2)} of the calibration loop)${grown}${coats === 12 ? ' (wanted: 30 ms)' : ''}`,
    );
    before = { entries: input.entries.length, ms };
  }
}

/** Boats and a shelf, put straight into the database. @returns the ids of the boats */
export async function fill(
  db: Db,
  now: number,
  { boats: count, zones, coats }: { boats: number; zones: number; coats: number },
): Promise<string[]> {
  const [sheetId, revisionId] = [uuid(), uuid()];
  await db.insert(sheets).values({ id: sheetId, withdrawn: false, version: 1 });
  await db.insert(sheetRevisions).values({ id: revisionId, sheetId, revision: 1, body: sheet, createdAt: now });
  await db.insert(lots).values(
    ['Base', 'Hardener'].map((part) => ({
      id: uuid(),
      sheetId,
      part,
      sizeL: 20,
      batchNumber: '',
      supplier: '',
      boughtOn: null,
      openedOn: null,
      expiresOn: null,
      leftL: 20,
      measuredAt: now - 10 * DAY_MS,
      weighed: null,
      note: '',
      version: 1,
      deleted: false,
    })),
  );
  const ids: string[] = [];
  for (let n = 0; n < count; n += 1) {
    const boat = benchBoat({ revisionId, zones, coats, now: now - (n % 7) * HOUR_MS, everyMs: DAY_MS });
    await fillBoat(db, boat, n, now);
    ids.push(boat.boatId);
  }
  return ids;
}

async function fillBoat(db: Db, boat: BenchBoat, n: number, now: number): Promise<void> {
  const day = (days: number) => new Date(now + days * DAY_MS).toISOString().slice(0, 10);
  await db.insert(boats).values({
    ...boatFields,
    hullMaterial: 'grp',
    keels: 'single',
    form: 'longKeel',
    waters: null,
    id: boat.boatId,
    name: `Boat ${n}`,
    place: 'Bench',
    version: 1,
  });
  await db.insert(jobs).values({
    id: uuid(),
    boatId: boat.boatId,
    outOn: day(-20),
    inOn: day(10),
    yardCostPerDayMinor: null,
    currency: 'EUR',
    version: 1,
  });
  await db.insert(surfaces).values(
    boat.zones.map((id, i) => ({
      ...zoneFields(boat.boatId),
      id,
      name: `Zone ${i}`,
      kind: 'underwater' as const,
      substrate: 'gelcoat' as const,
      exposure: 'immersed' as const,
      existing: 'bare' as const,
      area: { method: 'typed' as const, dimensions: {}, typed: { areaM2: 12, share: 0.1 } },
      sort: i,
      version: 1,
    })),
  );
  await db.insert(buildUps).values(
    boat.zones.map((surfaceId) => ({
      id: uuid(),
      boatId: boat.boatId,
      surfaceId,
      layers: boat.layersOf.get(surfaceId) as never,
      version: 1,
    })),
  );
  for (let i = 0; i < boat.entries.length; i += 500) await db.insert(entries).values(boat.entries.slice(i, i + 500));
}

/** A yard of 104 boats: what its summary and its shelf cost cold and kept, beside a request that does nothing. */
export async function bigYard(): Promise<void> {
  const { yard, url, close } = await serving(mkdtempSync(join(tmpdir(), 'jack-plane-bench-')));
  await fill(yard.store.db, Date.now(), { boats: 104, zones: 12, coats: 10 });
  const ask = async (path: string): Promise<number> => {
    const start = performance.now();
    await (await fetch(url + path)).arrayBuffer();
    return performance.now() - start;
  };
  for (let i = 0; i < 50; i += 1) await ask('/health');
  for (const path of ['/yard', '/stores']) {
    const cpu = process.cpuUsage();
    const beside: number[] = [];
    const cold = { running: true };
    const answer = ask(path).finally(() => (cold.running = false));
    while (cold.running) {
      beside.push(await ask('/health'));
      await new Promise((done) => setTimeout(done, 10));
    }
    const coldMs = await answer;
    const spent = cpuMs(cpu);
    const [kept, idle] = [[], []] as [number[], number[]];
    for (let i = 0; i < 40; i += 1) {
      kept.push(await ask(path));
      idle.push(await ask('/health'));
    }
    const ratio = quantile(kept, 0.5) / quantile(idle, 0.5);
    console.log(
      `/api${path} of 104 boats × 12 zones × 10 coats: cold ${(spent / 1000).toFixed(1)} s of processor time (wanted: 3) in ${(coldMs / 1000).toFixed(1)} s, a health request meanwhile p95 ${quantile(beside, 0.95).toFixed(0)} ms (wanted: 100); ` +
        `kept ${quantile(kept, 0.5).toFixed(1)} ms, health ${quantile(idle, 0.5).toFixed(1)} ms: ratio ${ratio.toFixed(1)} (wanted: 10)`,
    );
  }
  await close();
}
