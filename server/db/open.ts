import type { Db, DbPlace, OpenDb } from './database';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { sql, type SQL } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { sqlStateOf } from '../errors';
import { keepEmpty, MIGRATIONS, packedEmpty } from './empty';
import { openOnServer } from './onServer';

/** Open a database; nothing is changed in it yet. @throws Error with a sentence where another program has it */
export function openDb(place: DbPlace): Promise<OpenDb> {
  return place.at === 'server' ? openOnServer(place) : openHere(place.at === 'folder' ? place.dir : null);
}

async function openHere(dir: string | null): Promise<OpenDb> {
  const isNew = dir === null || !existsSync(join(dir, 'PG_VERSION'));
  const packed = isNew ? await packedEmpty() : null;
  const client = new PGlite({ ...(dir === null ? {} : { dataDir: dir }), ...(packed ? { loadDataDir: packed } : {}) });
  await client.waitReady;
  const db = drizzle(client);
  return {
    db: db as unknown as Db,
    migrate: () => migrate(db, { migrationsFolder: MIGRATIONS }),
    away: () => null,
    onBack: () => undefined,
    close: () => client.close(),
  };
}

/** Pack an empty database that is up to date, unless it is there. */
export async function packEmpty(): Promise<void> {
  if (await packedEmpty()) return;
  const client = new PGlite();
  await client.waitReady;
  await migrate(drizzle(client), { migrationsFolder: MIGRATIONS });
  await keepEmpty(await client.dumpDataDir('none'));
  await client.close();
}

/** Rows as the database tells them, for what Drizzle's own queries do not say. */
export async function rawRows<Row = Record<string, unknown>>(db: Db, query: SQL): Promise<Row[]> {
  const answer: unknown = await db.execute(query);
  return (answer as { rows: Row[] }).rows;
}

/** What is read within it is of one moment, whatever is written meanwhile. */
export function snapshot<T>(db: Db, read: (tx: Db) => Promise<T>): Promise<T> {
  return db.transaction((tx) => read(tx), { isolationLevel: 'repeatable read', accessMode: 'read only' });
}

/** How many migrations a database has yet to see. Asked at every start: the views that tell of tables are slow. */
export async function pendingMigrations(db: Db): Promise<number> {
  const { entries } = JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
    entries: unknown[];
  };
  try {
    const [seen] = await rawRows<{ n: number }>(db, sql`select count(*)::int as n from drizzle.__drizzle_migrations`);
    return entries.length - (seen?.n ?? 0);
  } catch (error) {
    // No such table: a new database.
    if (sqlStateOf(error).startsWith('42') || sqlStateOf(error) === '3F000') return entries.length;
    throw error;
  }
}
