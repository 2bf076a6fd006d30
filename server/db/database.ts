import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';

/** Any PostgreSQL that Drizzle drives, so that a server can take PGlite's place. */
export type Db = PgDatabase<PgQueryResultHKT, Record<string, never>>;

export interface OpenDb {
  readonly db: Db;
  /** Bring the tables up to date. */
  migrate(): Promise<void>;
  close(): Promise<void>;
}

/** Where a database is: in memory (tests), in a folder of its own, or on a PostgreSQL server. */
export type DbPlace =
  | { readonly at: 'memory' }
  | { readonly at: 'folder'; readonly dir: string }
  | { readonly at: 'server'; readonly url: string; readonly onLost?: (why: Error) => void };
