import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { lockFolder } from '../lock';

/** Any PostgreSQL that Drizzle drives, so that a server can take PGlite's place. */
export type Db = PgDatabase<PgQueryResultHKT, Record<string, never>>;

export interface OpenDb {
  readonly db: Db;
  close(): Promise<void>;
}

const MIGRATIONS = fileURLToPath(new URL('./migrations', import.meta.url));

/**
 * Open the database folder, alone, and bring it up to date.
 * @param dataDir a folder, or null for a database in memory (tests)
 * @throws FolderInUse when another process owns the folder
 */
export async function openDb(dataDir: string | null): Promise<OpenDb> {
  const unlock = dataDir === null ? () => undefined : lockFolder(dataDir);
  try {
    if (dataDir !== null) mkdirSync(dataDir, { recursive: true });
    const client = dataDir === null ? new PGlite() : new PGlite(join(dataDir, 'pg'));
    await client.waitReady;
    const db = drizzle(client);
    await migrate(db, { migrationsFolder: MIGRATIONS });
    return {
      db: db as unknown as Db,
      async close() {
        await client.close();
        unlock();
      },
    };
  } catch (error) {
    unlock();
    throw error;
  }
}
