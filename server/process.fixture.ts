import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { boatFields } from './app.fixture';
import { OWN_JSON, usedFolder as usedBefore } from '../scripts/server';

/** Tests only: the real server as its own process, built before the tests. */
const running: ChildProcess[] = [];
const folders: string[] = [];

export async function tidyUp(): Promise<void> {
  for (const child of running.splice(0)) {
    if (child.exitCode !== null || child.signalCode !== null) continue;
    const gone = new Promise((done) => child.once('close', done));
    child.kill('SIGKILL');
    await gone;
  }
  for (const dir of folders.splice(0)) rmSync(dir, { recursive: true, force: true });
}

/** An empty folder. */
export function folder(): string {
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-test-'));
  folders.push(dir);
  return dir;
}

/** A folder in which the program ran once. */
export async function usedFolder(): Promise<string> {
  const dir = await usedBefore();
  folders.push(dir);
  rmSync(join(dir, 'backups'), { recursive: true, force: true });
  return dir;
}

/** Start it on a folder: `ready` with its address, or `exit` with what it said when it refuses. */
export function start(dir: string, env: Record<string, string> = {}, by: readonly string[] = []) {
  const [command, ...args] = [...by, process.execPath, 'dist-server/main.js'];
  const child = spawn(command, args, {
    env: { ...process.env, PORT: '0', JACKPLANE_DATA: dir, LOG_LEVEL: 'info', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.push(child);
  let out = '';
  let err = '';
  const ready = new Promise<string>((done, fail) => {
    child.stdout.on('data', (chunk: Buffer) => {
      out += chunk.toString();
      const found = /ready at (http:\/\/\S+)/.exec(out);
      if (found) done(found[1] as string);
    });
    child.once('exit', () => fail(new Error(err)));
  });
  ready.catch(() => undefined);
  child.stderr.on('data', (chunk: Buffer) => (err += chunk.toString()));
  const exit = new Promise<{ code: number | null; err: string }>((done) =>
    child.once('exit', (code) => done({ code, err })),
  );
  /** When the first automatic backup is there. */
  const backedUp = async () => {
    const dirOf = join(dir, 'backups');
    for (let i = 0; i < 200; i += 1) {
      if (existsSync(dirOf) && readdirSync(dirOf).some((name) => name.endsWith('.jsonl.gz'))) return;
      await new Promise((done) => setTimeout(done, 50));
    }
    throw new Error(`no backup in ${dirOf}`);
  };
  return { child, ready, exit, out: () => out, backedUp };
}

export async function putBoat(address: string, id: string): Promise<number> {
  const res = await fetch(`${address}/api/boats/${id}`, {
    method: 'PUT',
    headers: OWN_JSON,
    body: JSON.stringify({ ...boatFields, name: `Boat ${id.slice(-4)}` }),
  });
  await res.arrayBuffer();
  return res.status;
}
