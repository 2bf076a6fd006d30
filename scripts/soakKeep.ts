import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { v7 as uuid } from 'uuid';
import { boatFields, entryFields } from '../server/app.fixture';
import { OWN_JSON, startServer, usedFolder, type RunningServer } from './server';

/** What a soak comes to, a line of its table. */
export interface Attack {
  readonly what: string;
  readonly done: number;
  readonly wrong: number;
  readonly note: string;
}

/** Something that the server said it had saved, and where it is found. */
type Acknowledged = { readonly kind: 'boat' | 'entry' | 'picture'; readonly path: string };

const JPEG = Buffer.from([0xff, 0xd8, 0xff, 0xe0]);

async function put(url: string, path: string, body: object): Promise<boolean> {
  const res = await fetch(`${url}/api${path}`, { method: 'PUT', headers: OWN_JSON, body: JSON.stringify(body) });
  await res.arrayBuffer();
  return res.status === 200;
}

/** Save a boat, a note on her or a picture of her line, by turns. @returns what was acknowledged; null where it was not */
async function saveOne(url: string, n: number, boats: string[]): Promise<Acknowledged | null> {
  const id = uuid();
  const boat = boats[n % Math.max(1, boats.length)];
  if (n % 3 === 0 || !boat) {
    if (!(await put(url, `/boats/${id}`, { ...boatFields, name: `Soak ${n}` }))) return null;
    boats.push(id);
    return { kind: 'boat', path: `/boats/${id}` };
  }
  const evidence = { what: 'stain', xM: 1, heightM: 0.5, plusMinusM: 0.02, text: `note ${n}` };
  const entry = (body: object) => ({ ...entryFields(boat, boat, 'evidence', Date.now(), body), stream: 'boat' });
  if (n % 3 === 1)
    return (await put(url, `/entries/${id}`, entry(evidence))) ? { kind: 'entry', path: `/boats/${boat}#${id}` } : null;
  const picture = Buffer.concat([JPEG, Buffer.from(id)]);
  const hash = createHash('sha256').update(picture).digest('hex');
  const res = await fetch(`${url}/api/files`, {
    method: 'POST',
    headers: { ...OWN_JSON, 'Content-Type': 'application/octet-stream' },
    body: picture,
  });
  await res.arrayBuffer();
  if (res.status !== 200 || !(await put(url, `/entries/${id}`, entry({ ...evidence, hash })))) return null;
  return { kind: 'picture', path: `/pictures/${hash}` };
}

/** How many of what was acknowledged are not there. */
async function missing(url: string, all: readonly Acknowledged[]): Promise<number> {
  let lost = 0;
  const logs = new Map<string, string>();
  for (const { path } of all) {
    const [at, entry] = path.split('#') as [string, string | undefined];
    if (entry === undefined) {
      const res = await fetch(`${url}/api${at}`);
      await res.arrayBuffer();
      if (res.status !== 200) lost += 1;
      continue;
    }
    if (!logs.has(at)) logs.set(at, await (await fetch(`${url}/api${at}`)).text());
    if (!logs.get(at)?.includes(entry)) lost += 1;
  }
  return lost;
}

async function burst(
  server: RunningServer,
  all: Acknowledged[],
  boats: string[],
  killAt: number | null,
): Promise<void> {
  let answered = 0;
  await Promise.all(
    Array.from({ length: 24 }, async (_, n) => {
      const saved = await saveOne(server.url, n, boats).catch(() => null);
      if (!saved) return;
      all.push(saved);
      answered += 1;
      if (answered === killAt) server.child.kill('SIGKILL');
    }),
  );
}

const told = (all: readonly Acknowledged[], lost: number) => `${all.length} acknowledged, ${lost} missing`;

/** Kills in the middle of writing boats, entries and pictures. */
export async function kills(rounds: number, r: () => number): Promise<Attack> {
  const dir = await usedFolder();
  const all: Acknowledged[] = [];
  const boats: string[] = [];
  for (let round = 0; round < rounds; round += 1) {
    const server = await startServer({ JACKPLANE_DATA: dir, LOG_LEVEL: 'fatal' });
    await burst(server, all, boats, 1 + Math.floor(r() * 20));
    await server.stop('SIGKILL');
  }
  const server = await startServer({ JACKPLANE_DATA: dir, LOG_LEVEL: 'fatal' });
  const lost = await missing(server.url, all);
  await server.stop();
  rmSync(dir, { recursive: true, force: true });
  return { what: 'kills in the middle of writing', done: rounds, wrong: lost, note: told(all, lost) };
}

const segments = (dir: string) =>
  readdirSync(join(dir, 'journal'))
    .sort()
    .map((name) => join(dir, 'journal', name));

/** What happens to a folder between two starts, beside the power cut. */
const HARMS: readonly ((dir: string, r: () => number) => void)[] = [
  () => undefined,
  (dir) => rmSync(join(dir, 'pg'), { recursive: true, force: true }),
  (dir) => rmSync(join(dir, 'backups'), { recursive: true, force: true }),
  (dir, r) => {
    const file = segments(dir).at(-1) as string;
    truncateSync(file, Math.floor(readFileSync(file).length * r()));
  },
  (dir, r) => {
    const file = segments(dir).at(-1) as string;
    const content = readFileSync(file);
    content[Math.floor(content.length * r())] = 0x7e;
    writeFileSync(file, content);
  },
];

/** Gaps and power cuts: what is harmed is told, what is not is there, and nothing goes without a word. */
export async function gaps(rounds: number, r: () => number): Promise<Attack> {
  const dir = await usedFolder();
  const all: Acknowledged[] = [];
  const boats: string[] = [];
  let silent = 0;
  for (let round = 0; round < rounds; round += 1) {
    const server = await startServer({ JACKPLANE_DATA: dir, LOG_LEVEL: 'fatal' });
    const { notices } = (await (await fetch(`${server.url}/api/keeping`)).json()) as { notices: unknown[] };
    const lost = await missing(server.url, all);
    if (lost > 0 && notices.length === 0) silent += 1;
    await burst(server, all, boats, null);
    await server.stop('SIGKILL');
    const state = JSON.parse(readFileSync(join(dir, 'state.json'), 'utf8')) as object;
    // Every second time the system goes down with it.
    if (round % 2) writeFileSync(join(dir, 'state.json'), JSON.stringify({ ...state, boot: 'the run before' }));
    HARMS[round % HARMS.length]?.(dir, r);
  }
  const server = await startServer({ JACKPLANE_DATA: dir, LOG_LEVEL: 'fatal' }).catch(
    (error: unknown) => error as Error,
  );
  const note =
    server instanceof Error
      ? `refused at last: ${server.message.slice(0, 80)}`
      : told(all, await missing(server.url, all));
  if (!(server instanceof Error)) await server.stop();
  rmSync(dir, { recursive: true, force: true });
  return { what: 'gaps and power cuts', done: rounds, wrong: silent, note: `${note}; ${silent} without a word` };
}

/** A server whose clock is a year ahead, a month back, right again: nothing is lost, and no safety net erased. */
export async function wrongClocks(rounds: number): Promise<Attack> {
  const dir = await usedFolder();
  const all: Acknowledged[] = [];
  const boats: string[] = [];
  const DAY = 86_400_000;
  let pruned = 0;
  let kept = 0;
  for (let round = 0; round < rounds; round += 1) {
    const at = new Date(Date.now() + [0, 400, -30, 1, -1][round % 5]! * DAY).toISOString();
    const server = await startServer({ JACKPLANE_DATA: dir, JACKPLANE_NOW: at, LOG_LEVEL: 'fatal' });
    await burst(server, all, boats, null);
    await server.stop();
    const now = readdirSync(join(dir, 'backups')).filter((name) => name.endsWith('.jsonl.gz')).length;
    if (now < Math.min(kept, 7)) pruned += 1;
    kept = now;
  }
  const server = await startServer({ JACKPLANE_DATA: dir, LOG_LEVEL: 'fatal' });
  const lost = await missing(server.url, all);
  await server.stop();
  rmSync(dir, { recursive: true, force: true });
  return { what: 'wrong clocks', done: rounds, wrong: lost + pruned, note: `${told(all, lost)}; ${kept} backups kept` };
}

/** Pages from elsewhere that ask for the backup, while others save. */
export async function foreignReads(server: RunningServer, count: number): Promise<Attack> {
  let letIn = 0;
  let saved = 0;
  await Promise.all([
    ...Array.from({ length: count }, async () => {
      const res = await fetch(`${server.url}/api/backup`, { headers: { 'Sec-Fetch-Site': 'cross-site' } });
      await res.arrayBuffer();
      if (res.status !== 403) letIn += 1;
    }),
    ...Array.from({ length: 20 }, async () => {
      if (await put(server.url, `/boats/${uuid()}`, boatFields)) saved += 1;
    }),
  ]);
  return {
    what: 'foreign reads',
    done: count,
    wrong: letIn + 20 - saved,
    note: `${letIn} let in, ${saved} of 20 saved meanwhile`,
  };
}
