import { DrizzleQueryError } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { connectionBroke } from '../errors';
import { MIGRATIONS } from './empty';
import type { Db, DbPlace, OpenDb } from './database';

/** Names our lock among those of a database: any number that others hardly use. */
const OWNER = 0x4a50_4c4e;
const CONNECTIONS = 4;

/**
 * A database on a PostgreSQL server. One program at a time has it: what is kept in memory of it is never behind. The
 * lock is held by a connection of its own; where that breaks the database may be another's, which `onLost` is told.
 */
export async function openOnServer({ url, onLost }: Extract<DbPlace, { at: 'server' }>): Promise<OpenDb> {
  const owner = new pg.Client({ connectionString: url, keepAlive: true });
  try {
    await owner.connect();
  } catch (error) {
    throw new Error(
      `The database at DATABASE_URL cannot be reached: ${(error as Error).message}. Start its server, or mend the address.`,
      { cause: error },
    );
  }
  const { rows } = await owner.query<{ mine: boolean }>('select pg_try_advisory_lock($1) as mine', [OWNER]);
  if (rows[0]?.mine !== true) {
    await owner.end();
    throw new Error('Another Jack Plane has the database at DATABASE_URL open. Stop that one first.');
  }
  let closing = false;
  owner.on('error', (error) => {
    if (!closing) onLost?.(error);
  });
  const pool = new pg.Pool({ connectionString: url, max: CONNECTIONS });
  // A connection that breaks is replaced by the next one; who was using it hears of it by its own answer.
  pool.on('error', () => undefined);
  pool.on('connect', (client) => client.on('error', () => undefined));
  const db = Object.assign(drizzle(pool), { transaction: transactionsOn(pool) });
  return {
    db,
    migrate: () => migrate(db, { migrationsFolder: MIGRATIONS }),
    async close() {
      closing = true;
      await pool.end();
      await owner.end();
    },
  };
}

/** As Drizzle's own, which keeps a connection for good that broke before the transaction began. */
function transactionsOn(pool: pg.Pool): Db['transaction'] {
  return async (work, config) => {
    const client = await pool.connect().catch((error: unknown) => {
      throw new DrizzleQueryError('connect', [], error as Error);
    });
    let broken = false;
    try {
      return await drizzle(client).transaction((tx) => work(tx as unknown as Parameters<typeof work>[0]), config);
    } catch (error) {
      broken = connectionBroke(error);
      throw error;
    } finally {
      client.release(broken);
    }
  };
}
