import { mkdtempSync, rmSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { v7 as uuid } from 'uuid';
import { sheet } from '#core/sheet/example.fixture';
import { boatFields, layerFields, zoneFields } from '../server/app.fixture';
import { seeded } from '#core/plan/seeded';
import { hostile, type HostileRequest, type Known } from '../server/attack.fixture';
import { OWN_JSON, startServer, type RunningServer } from './server';
import { foreignReads, gaps, kills, wrongClocks, type Attack } from './soakKeep';
import { badLines } from './soakLine';

/**
 * The long attacks, against the built server on this machine: kills in the middle of writing, gaps and power cuts, wrong
 * clocks, foreign readers, a line that swallows what is sent, hostile requests, many clients at once. Bounded in count and
 * time; prints a table at its end. `KILLS`, `GAPS`, `CLOCKS`, `ENTRIES`, `REQUESTS`, `SECONDS`, `CLIENTS` and
 * `JACKPLANE_SEED` change it.
 */
const many = (name: string, usual: number) => Number(process.env[name] ?? usual);
const KILLS = many('KILLS', 50);
const REQUESTS = many('REQUESTS', 100_000);
const SECONDS = many('SECONDS', 60);
const CLIENTS = many('CLIENTS', 50);
const SEED = many('JACKPLANE_SEED', Math.floor(Math.random() * 2 ** 31));

const GAPS = many('GAPS', 20);
const CLOCKS = many('CLOCKS', 10);
const ENTRIES = many('ENTRIES', 60);

const table: Attack[] = [];
const dir = mkdtempSync(join(tmpdir(), 'jack-plane-soak-'));
const start = () => startServer({ JACKPLANE_DATA: dir, LOG_LEVEL: 'fatal' });

async function put(url: string, path: string, body: object): Promise<number> {
  const res = await fetch(`${url}/api${path}`, { method: 'PUT', headers: OWN_JSON, body: JSON.stringify(body) });
  await res.arrayBuffer();
  return res.status;
}

async function aBoat(url: string): Promise<Known> {
  const ids = { boat: uuid(), zone: uuid(), sheet: uuid(), revision: uuid(), buildUp: uuid() };
  const layers = [layerFields(ids.revision), layerFields(ids.revision)];
  const statuses = [
    await put(url, `/boats/${ids.boat}`, boatFields),
    await put(url, `/surfaces/${ids.zone}`, zoneFields(ids.boat)),
    await put(url, `/sheets/${ids.sheet}`, { revisionId: ids.revision, body: sheet, version: 0 }),
    await put(url, `/build-ups/${ids.buildUp}`, { boatId: ids.boat, surfaceId: ids.zone, layers, version: 0 }),
  ];
  if (statuses.some((s) => s !== 200)) throw new Error(`could not begin: ${statuses.join()}`);
  return { ...ids, layers };
}

function send(url: URL, one: HostileRequest): Promise<number> {
  return new Promise((done) => {
    const body = one.body === null ? null : Buffer.from(one.body);
    let req;
    try {
      req = httpRequest(
        {
          host: url.hostname,
          port: url.port,
          method: one.method,
          path: encodeURI(`/api${one.path}`).replace(/%25/g, '%'),
          headers: { ...one.headers, ...(body ? { 'Content-Length': body.length } : {}) },
        },
        (res) => {
          res.resume();
          res.on('end', () => done(res.statusCode ?? 0));
          res.on('error', () => done(0));
        },
      );
    } catch {
      // An address that no client can write is not sent.
      done(-1);
      return;
    }
    req.on('error', () => done(0));
    req.end(body ?? undefined);
  });
}

async function attack(server: RunningServer): Promise<void> {
  const r = seeded(SEED);
  const [known, others] = [await aBoat(server.url), await aBoat(server.url)];
  const url = new URL(server.url);
  const faults: string[] = [];
  for (let sent = 0; sent < REQUESTS; sent += 16) {
    await Promise.all(
      Array.from({ length: 16 }, async () => {
        const one = hostile(r, known, others);
        const status = await send(url, one);
        if (status >= 500 || status === 0)
          faults.push(`${status} ${one.method} ${one.path.slice(0, 80)} ${String(one.body).slice(0, 160)}`);
      }),
    );
    if (sent % 16_000 === 0) console.log(`  ${sent} hostile requests, ${faults.length} wrong`);
  }
  faults.slice(0, 10).forEach((fault) => console.log(`  ${fault}`));
  table.push({
    what: `hostile requests (seed ${SEED})`,
    done: REQUESTS,
    wrong: faults.length,
    note: '5xx or no answer',
  });
}

async function crowd(server: RunningServer): Promise<void> {
  const until = Date.now() + SECONDS * 1000;
  const took: number[] = [];
  let wrong = 0;
  await Promise.all(
    Array.from({ length: CLIENTS }, async (_, n) => {
      while (Date.now() < until) {
        const began = performance.now();
        const status =
          n % 5 === 0
            ? await put(server.url, `/boats/${uuid()}`, boatFields)
            : (
                await fetch(`${server.url}/api/${n % 2 ? 'health' : 'sheets'}`).then(
                  async (res) => (await res.arrayBuffer(), res),
                )
              ).status;
        took.push(performance.now() - began);
        if (status !== 200) wrong += 1;
      }
    }),
  );
  took.sort((a, b) => a - b);
  const at = (q: number) => (took[Math.floor(took.length * q)] ?? 0).toFixed(0);
  table.push({
    what: `${SECONDS} s of ${CLIENTS} clients`,
    done: took.length,
    wrong,
    note: `p50 ${at(0.5)} ms, p95 ${at(0.95)} ms, p99 ${at(0.99)} ms`,
  });
}

try {
  table.push(await kills(KILLS, seeded(SEED)));
  table.push(await gaps(GAPS, seeded(SEED)));
  table.push(await wrongClocks(CLOCKS));
  const server = await start();
  try {
    table.push(await foreignReads(server, 60));
    table.push(await badLines(server, ENTRIES, seeded(SEED)));
    await attack(server);
    await crowd(server);
    table.push({
      what: 'the server afterwards',
      done: 1,
      wrong: 0,
      note: `${((await (await fetch(`${server.url}/api/health`)).json()) as { ok: boolean }).ok ? 'still answers' : 'gone'}`,
    });
  } finally {
    await server.stop();
  }
} finally {
  rmSync(dir, { recursive: true, force: true });
}
console.table(table);
process.exit(table.some((row) => row.wrong > 0) ? 1 : 0);
