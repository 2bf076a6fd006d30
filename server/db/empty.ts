import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, openAsBlob, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/**
 * An empty database, up to date, packed once by the build: setting one up from nothing takes many times as long as
 * unpacking it. Only one of the very same PGlite and migrations is used.
 */
const ROOT = ['../..', '..', '.']
  .map((path) => fileURLToPath(new URL(path, import.meta.url)))
  .find((path) => existsSync(join(path, 'package.json'))) as string;
export const MIGRATIONS = join(ROOT, 'server', 'db', 'migrations');
const CACHE = join(ROOT, '.cache');

function emptyPath(): string {
  const pglite = readFileSync(
    join(dirname(fileURLToPath(import.meta.resolve('@electric-sql/pglite'))), '..', 'package.json'),
    'utf8',
  );
  const { version } = JSON.parse(pglite) as { version: string };
  const migrations = createHash('sha256')
    .update(readFileSync(join(MIGRATIONS, 'meta', '_journal.json')))
    .digest('hex')
    .slice(0, 12);
  return join(CACHE, `empty-${version}-${migrations}.tar`);
}

/** The packed database; null where the build made none. */
export async function packedEmpty(): Promise<Blob | null> {
  const path = emptyPath();
  return existsSync(path) ? openAsBlob(path) : null;
}

/** Keep a packed database for the next time. */
export async function keepEmpty(packed: Blob): Promise<void> {
  mkdirSync(CACHE, { recursive: true });
  const draft = `${emptyPath()}.part`;
  writeFileSync(draft, Buffer.from(await packed.arrayBuffer()));
  renameSync(draft, emptyPath());
}
