import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { inject } from 'vitest';

/** A new, empty database on the PostgreSQL server of this run; null where the run is on PGlite. */
export async function newDatabase(): Promise<string | null> {
  const url = inject('postgresUrl') ?? null;
  if (url === null) return null;
  const name = `yard_${randomUUID().replaceAll('-', '')}`;
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  return Object.assign(new URL(url), { pathname: `/${name}` }).href;
}
