import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { sqlStateOf } from '../errors';
import { keepEmpty, MIGRATIONS, packedEmpty } from './empty';

/** Any PostgreSQL that Drizzle drives, so that a server can take PGlite's place. */
export type Db = PgDatabase<PgQueryResultHKT, Record<string, never>>;

export interface OpenDb {
  readonly db: Db;
  /** Bring the tables up to date. */
  migrate(): Promise<void>;
  close(): Promise<void>;
}

/**
 * Open a database; nothing is changed in it yet.
 * @param dir a folder of its own, or null for one in memory (tests)
 */
export async function openDb(dir: string | null): Promise<OpenDb> {
  const isNew = dir === null || !existsSync(join(dir, 'PG_VERSION'));
  const packed = isNew ? await packedEmpty() : null;
  const client = new PGlite({ ...(dir === null ? {} : { dataDir: dir }), ...(packed ? { loadDataDir: packed } : {}) });
  await client.waitReady;
  const db = drizzle(client);
  return {
    db: db as unknown as Db,
    migrate: () => migrate(db, { migrationsFolder: MIGRATIONS }),
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

/** How many migrations a database has yet to see. Asked at every start: the views that tell of tables are slow. */
export async function pendingMigrations(db: Db): Promise<number> {
  const { entries } = JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
    entries: unknown[];
  };
  try {
    const { rows } = (await db.execute(
      sql`select count(*)::int as n from drizzle.__drizzle_migrations`,
    )) as unknown as { rows: { n: number }[] };
    return entries.length - (rows[0]?.n ?? 0);
  } catch (error) {
    // No such table: a new database.
    if (sqlStateOf(error).startsWith('42') || sqlStateOf(error) === '3F000') return entries.length;
    throw error;
  }
}
