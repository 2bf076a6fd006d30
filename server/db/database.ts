import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';

/** Any PostgreSQL that Drizzle drives, so that a server can take PGlite's place. */
export type Db = PgDatabase<PgQueryResultHKT, Record<string, never>>;

export interface OpenDb {
  readonly db: Db;
  /** Bring the tables up to date. */
  migrate(): Promise<void>;
  /** Why it cannot be asked just now, in a sentence; null where it can. A database of one's own never is away. */
  away(): string | null;
  /** What is to be done before it is asked again, once it is back; while that throws it stays away. */
  onBack(again: () => Promise<void>): void;
  close(): Promise<void>;
}

/** Where a database is: in memory (tests), in a folder of its own, or on a PostgreSQL server. */
export type DbPlace =
  | { readonly at: 'memory' }
  | { readonly at: 'folder'; readonly dir: string }
  | { readonly at: 'server'; readonly url: string };
