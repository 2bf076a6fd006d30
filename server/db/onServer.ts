import { setTimeout } from 'node:timers/promises';
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
/** A server that says nothing for so long does not answer. */
const CONNECT_MS = 5000;
const ANSWER_MS = 60_000;
/** It is looked for again so soon, and at last so seldom. */
const AGAIN_MS = { first: 250, last: 10_000 } as const;

const AWAY =
  'The database server does not answer. It is tried again until it does; what you enter waits, and is sent then.';

/**
 * A database on a PostgreSQL server. One program at a time has it: what is kept in memory of it is never behind. The
 * lock is held by a connection of its own. Where that breaks nothing is asked or written until the lock is held again and
 * what was acknowledged is known to be there.
 */
export async function openOnServer({ url }: Extract<DbPlace, { at: 'server' }>): Promise<OpenDb> {
  const state = { away: null as string | null, closing: false, again: () => Promise.resolve() };
  const open = () => !state.closing;
  let owner: pg.Client;
  const regain = async (): Promise<void> => {
    if (!open() || state.away !== null) return;
    state.away = AWAY;
    for (let wait: number = AGAIN_MS.first; open(); wait = Math.min(wait * 2, AGAIN_MS.last)) {
      await setTimeout(wait, undefined, { ref: false });
      try {
        const next = await own(url, lost);
        owner = next;
        await state.again();
        state.away = null;
        return;
      } catch (error) {
        await owner.end().catch(() => undefined);
        state.away = connectionBroke(error) ? AWAY : (error as Error).message;
      }
    }
  };
  const lost = () => void regain();
  try {
    owner = await own(url, lost);
  } catch (error) {
    if (!connectionBroke(error) && error instanceof OwnedByOther) throw error;
    throw new Error(
      `The database at DATABASE_URL cannot be reached: ${(error as Error).message}. Start its server, or mend the address.`,
      { cause: error },
    );
  }
  const pool = new pg.Pool({
    connectionString: url,
    max: CONNECTIONS,
    connectionTimeoutMillis: CONNECT_MS,
    query_timeout: ANSWER_MS,
  });
  // A connection that breaks is replaced by the next one; who was using it hears of it by its own answer.
  pool.on('error', () => undefined);
  pool.on('connect', (client) => client.on('error', () => undefined));
  const db = Object.assign(drizzle(pool), { transaction: transactionsOn(pool) });
  return {
    db,
    migrate: () => migrate(db, { migrationsFolder: MIGRATIONS }),
    away: () => state.away,
    onBack: (again) => (state.again = again),
    async close() {
      state.closing = true;
      await pool.end();
      await owner.end().catch(() => undefined);
    },
  };
}

class OwnedByOther extends Error {}

/** A connection that holds the lock. @throws OwnedByOther where another program does */
async function own(url: string, lost: () => void): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url, keepAlive: true, connectionTimeoutMillis: CONNECT_MS });
  let held = false;
  client.on('error', () => held && lost());
  await client.connect();
  const { rows } = await client.query<{ mine: boolean }>('select pg_try_advisory_lock($1) as mine', [OWNER]);
  if (rows[0]?.mine !== true) {
    await client.end();
    throw new OwnedByOther('Another Jack Plane has the database at DATABASE_URL open. Stop that one first.');
  }
  held = true;
  return client;
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
