import { mkdtempSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { boatFields, uuid } from '../server/app.fixture';
import { OWN_JSON } from '../scripts/server';
import { fill, serving } from './growth';
import { quantile } from './quantile';

/** A client that costs little itself: it shares the processor with what is measured. */
function client(url: string) {
  const agent = new Agent({ keepAlive: true });
  const ask = (method: 'GET' | 'PUT', path: string, body?: object) =>
    new Promise<number>((done, fail) => {
      const text = body ? JSON.stringify(body) : '';
      const began = performance.now();
      const req = request(
        url + path,
        { agent, method, headers: body ? { ...OWN_JSON, 'Content-Length': Buffer.byteLength(text) } : {} },
        (res) => {
          res.resume();
          res.on('end', () =>
            res.statusCode === 200 ? done(performance.now() - began) : fail(new Error(`${path}: ${res.statusCode}`)),
          );
        },
      );
      req.on('error', fail);
      req.end(text);
    });
  return { ask, close: () => agent.destroy() };
}

const save = ({ ask }: ReturnType<typeof client>) => ask('PUT', `/boats/${uuid()}`, boatFields);

/** What a save costs while a backup is made, beside one that has the server to itself. */
export async function savingBesideBackup(): Promise<void> {
  const { yard, url, close } = await serving(mkdtempSync(join(tmpdir(), 'jack-plane-bench-')));
  await fill(yard.store.db, Date.now(), { boats: 61, zones: 10, coats: 8 });
  const one = client(url);
  for (let i = 0; i < 100; i += 1) await save(one);
  const alone: number[] = [];
  for (let i = 0; i < 200; i += 1) alone.push(await save(one));
  const beside: number[] = [];
  const backup = { runs: true };
  const began = performance.now();
  const making = yard.backups?.make('daily').finally(() => (backup.runs = false));
  while (backup.runs) {
    beside.push(await save(one));
    await new Promise((done) => setTimeout(done, 5));
  }
  await making;
  const tookMs = performance.now() - began;
  for (const [name, q] of [
    ['p50', 0.5],
    ['p95', 0.95],
  ] as const)
    console.log(
      `a save while a backup of 61 boats × 10 zones × 8 coats is made (${beside.length} saves in ${(tookMs / 1000).toFixed(1)} s), ${name}: ${quantile(beside, q).toFixed(1)} ms, otherwise ${quantile(alone, q).toFixed(1)} ms: ratio ${(quantile(beside, q) / quantile(alone, q)).toFixed(1)} (wanted: 3)`,
    );
  one.close();
  await close();
}

/** Thirty who read and five who write, on a yard of 61 boats: what a write waits beside a request that does nothing. */
export async function readersAndWriters(): Promise<void> {
  const { yard, url, close } = await serving(mkdtempSync(join(tmpdir(), 'jack-plane-bench-')));
  const boatIds = await fill(yard.store.db, Date.now(), { boats: 61, zones: 10, coats: 8 });
  const one = client(url);
  await one.ask('GET', '/yard');
  const until = Date.now() + 15_000;
  const [writes, health, reads] = [[], [], []] as [number[], number[], number[]];
  const again = async (into: number[], work: () => Promise<number>, restMs = 0) => {
    while (Date.now() < until) {
      into.push(await work());
      if (restMs > 0) await new Promise((done) => setTimeout(done, restMs));
    }
  };
  const cpu = process.cpuUsage();
  await Promise.all([
    ...Array.from({ length: 30 }, (_, n) =>
      again(reads, () => one.ask('GET', n % 3 === 0 ? '/yard' : `/boats/${boatIds[(n * 7) % boatIds.length]}`), 50),
    ),
    ...Array.from({ length: 5 }, () => again(writes, () => save(one), 50)),
    again(health, () => one.ask('GET', '/health'), 50),
  ]);
  const { user, system } = process.cpuUsage(cpu);
  for (const [name, q] of [
    ['p50', 0.5],
    ['p95', 0.95],
  ] as const)
    console.log(
      `30 readers and 5 writers on 61 boats × 10 zones × 8 coats (${reads.length} reads, ${writes.length} writes, ${((user + system) / 15_000_000).toFixed(2)} of a core), ${name}: a write ${quantile(writes, q).toFixed(0)} ms, a read ${quantile(reads, q).toFixed(0)} ms, a health request ${quantile(health, q).toFixed(0)} ms: ratio of a write ${(quantile(writes, q) / quantile(health, q)).toFixed(1)}${name === 'p95' ? ' (wanted: 20)' : ''}`,
    );
  one.close();
  await close();
}
