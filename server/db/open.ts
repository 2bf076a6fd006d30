import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { sqlStateOf } from '../errors';

/** Any PostgreSQL that Drizzle drives, so that a server can take PGlite's place. */
export type Db = PgDatabase<PgQueryResultHKT, Record<string, never>>;

export interface OpenDb {
  readonly db: Db;
  /** Bring the tables up to date. */
  migrate(): Promise<void>;
  close(): Promise<void>;
}

/** Beside this file, or where it was before the server was built into one file. */
const MIGRATIONS = ['./migrations', '../server/db/migrations'].map((path) => fileURLToPath(new URL(path, import.meta.url))).find((path) => existsSync(path)) as string;

/**
 * Open a database; nothing is changed in it yet.
 * @param dir a folder of its own, or null for one in memory (tests)
 */
export async function openDb(dir: string | null): Promise<OpenDb> {
  const client = dir === null ? new PGlite() : new PGlite(dir);
  await client.waitReady;
  const db = drizzle(client);
  return {
    db: db as unknown as Db,
    migrate: () => migrate(db, { migrationsFolder: MIGRATIONS }),
    close: () => client.close(),
  };
}

/** How many migrations a database has yet to see. Asked at every start: the views that tell of tables are slow. */
export async function pendingMigrations(db: Db): Promise<number> {
  const { entries } = JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as { entries: unknown[] };
  try {
    const { rows } = (await db.execute(sql`select count(*)::int as n from drizzle.__drizzle_migrations`)) as unknown as { rows: { n: number }[] };
    return entries.length - (rows[0]?.n ?? 0);
  } catch (error) {
    // No such table: a new database.
    if (sqlStateOf(error).startsWith('42') || sqlStateOf(error) === '3F000') return entries.length;
    throw error;
  }
}
