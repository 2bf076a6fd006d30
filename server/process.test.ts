import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import { boatFields, uuid } from './app.fixture';
import { FolderInUse, lockFolder, processStart } from './lock';
import { OWN_JSON } from '../scripts/server';

const running: ChildProcess[] = [];
const folders: string[] = [];
afterEach(() => {
  for (const child of running.splice(0)) child.kill('SIGKILL');
  for (const dir of folders.splice(0)) rmSync(dir, { recursive: true, force: true });
});

function folder(): string {
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-test-'));
  folders.push(dir);
  return dir;
}

/** Start the real server on a folder; resolves with its address, or with its exit when it refuses. */
function start(dir: string, env: Record<string, string> = {}) {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], { env: { ...process.env, PORT: '0', JACKPLANE_DATA: dir, LOG_LEVEL: 'info', ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
  running.push(child);
  let out = '';
  let err = '';
  const ready = new Promise<string>((done, fail) => {
    child.stdout.on('data', (chunk: Buffer) => {
      out += chunk.toString();
      const found = /ready at (http:\/\/[\d.:]+)/.exec(out);
      if (found) done(found[1] as string);
    });
    child.once('exit', () => fail(new Error(err)));
  });
  ready.catch(() => undefined);
  child.stderr.on('data', (chunk: Buffer) => (err += chunk.toString()));
  const exit = new Promise<{ code: number | null; err: string }>((done) => child.once('exit', (code) => done({ code, err })));
  return { child, ready, exit };
}

describe('one process at a time owns a folder', () => {
  it('a second start exits with a clear sentence; the first goes on', async () => {
    const dir = folder();
    const first = start(dir);
    const address = await first.ready;
    const second = start(dir);
    const { code, err } = await second.exit;
    expect(code).toBe(1);
    expect(err).toContain(`The data folder ${dir} is in use by process ${first.child.pid}`);
    expect((await fetch(`${address}/api/health`)).status).toBe(200);
  });

  it('acknowledged writes survive kill -9, and the stale lock does not block', async () => {
    const dir = folder();
    const first = start(dir);
    const address = await first.ready;
    const sent = Array.from({ length: 40 }, () => uuid());
    const acknowledged: string[] = [];
    for (const [i, id] of sent.entries()) {
      const res = await fetch(`${address}/api/boats/${id}`, { method: 'PUT', headers: OWN_JSON, body: JSON.stringify({ ...boatFields, name: `Boat ${i}` }) });
      if (res.ok) acknowledged.push(id);
    }
    first.child.kill('SIGKILL');
    await first.exit;
    expect(acknowledged).toHaveLength(40);
    const again = await start(dir).ready;
    for (const id of acknowledged) expect((await fetch(`${again}/api/boats/${id}`)).status).toBe(200);
  });

  it('stops cleanly on SIGTERM and SIGINT and gives the folder back', async () => {
    const dir = folder();
    for (const signal of ['SIGTERM', 'SIGINT'] as const) {
      const server = start(dir);
      await server.ready;
      server.child.kill(signal);
      expect((await server.exit).code).toBe(0);
    }
    lockFolder(dir)();
  });

  it('says which setting is wrong', async () => {
    expect((await start(folder(), { JACKPLANE_NOW: 'teatime' }).exit).err).toContain('JACKPLANE_NOW must be a date');
    expect((await start(folder(), { PORT: 'eighty' }).exit).err).toContain('PORT must be a number');
  });

  it('knows a lock by process and start time, not by age', () => {
    const dir = folder();
    const release = lockFolder(dir);
    expect(() => lockFolder(dir)).toThrow(FolderInUse);
    release();
    // The same process id, but of a process that started at another time: that one is dead.
    writeFileSync(join(dir, 'lock.json'), JSON.stringify({ pid: process.pid, startedAt: '1' }));
    lockFolder(dir)();
    writeFileSync(join(dir, 'lock.json'), 'not json');
    lockFolder(dir)();
    writeFileSync(join(dir, 'lock.json'), JSON.stringify({ pid: process.pid, startedAt: processStart(process.pid) }));
    expect(() => lockFolder(dir)).toThrow(/is in use/);
  });
});

describe('the demo', () => {
  it('is made anew while untouched and left alone afterwards', async () => {
    const dir = folder();
    const demo = (now: string) => start(dir, { JACKPLANE_DEMO: '1', JACKPLANE_NOW: now, JACKPLANE_FREEZE: '1' });
    const stop = async (s: ReturnType<typeof start>) => {
      s.child.kill('SIGTERM');
      await s.exit;
    };
    type YardAnswer = { demo: boolean; boats: { boat: { id: string; name: string; version: number }; job: { outOn: string }; zones: { state: string; bondsUntil: number | null }[] }[] };
    const yard = async (address: string) => (await (await fetch(`${address}/api/yard`)).json()) as YardAnswer;

    const first = demo('2026-05-14T09:40:00Z');
    const before = await yard(await first.ready);
    expect(before.demo).toBe(true);
    expect(before.boats.map((b) => b.boat.name)).toEqual(['Grey Wether', 'Pewit’s Errand', 'Sallow Lass']);
    const sloop = before.boats[1]!;
    const closing = sloop.zones.filter((z) => z.state === 'bonds').map((z) => ((z.bondsUntil as number) - Date.parse('2026-05-14T09:40:00Z')) / 3_600_000);
    expect(closing).toHaveLength(2);
    expect(Math.min(...closing)).toBeLessThan(2.5);
    expect(Math.max(...closing)).toBeGreaterThan(5);
    await stop(first);

    const later = demo('2026-06-20T09:40:00Z');
    const address = await later.ready;
    expect((await yard(address)).boats[1]?.job.outOn).toBe('2026-06-07');
    const boat = (await (await fetch(`${address}/api/boats/${sloop.boat.id}`)).json()) as { boat: object };
    await fetch(`${address}/api/boats/${sloop.boat.id}`, { method: 'PUT', headers: OWN_JSON, body: JSON.stringify({ ...boat.boat, id: undefined, name: 'Renamed by hand' }) });
    await stop(later);

    const touched = demo('2026-08-01T09:40:00Z');
    const kept = await yard(await touched.ready);
    expect(kept.boats.map((b) => b.boat.name)).toContain('Renamed by hand');
    expect(kept.boats.find((b) => b.boat.name === 'Renamed by hand')?.job.outOn).toBe('2026-06-07');
    await stop(touched);
  });
});
