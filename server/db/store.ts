import { eq, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Journal } from '../keep/journal';
import { BoatCache } from './boatCache';
import type { Db } from './open';
import { facts, TABLES, type TableName } from './schema';
import { TOUCHED } from './touched';

export type Row = Record<string, unknown>;
/** One row written: `add` must be new, `put` is new or takes the place of the one with its key. */
export type Op = readonly [kind: 'add' | 'put', table: TableName, row: Row];

/** What a change works with: it reads the database as it is, and says which rows it wants written. */
export interface Writing {
  readonly db: Db;
  readonly boats: BoatCache;
  put(table: TableName, row: object): Promise<void>;
  add(table: TableName, row: object): Promise<void>;
}

/** The column that tells rows of a table apart. */
export function keyOf(table: TableName): PgColumn {
  return table === 'facts' ? facts.key : (TABLES[table] as unknown as { id: PgColumn }).id;
}

/**
 * The one place where anything is written. Changes come one after the other: each first decides what it writes
 * (reading only), that goes into the journal, then into the database, whole or not at all; the caller hears of it when
 * the journal is on the disk. So nothing that was acknowledged rests on the database's own files alone.
 */
export class Store {
  readonly boats: BoatCache;
  private turn: Promise<unknown> = Promise.resolve();
  private touched = false;
  private written = 0;

  constructor(
    readonly db: Db,
    readonly journal: Journal,
    private readonly options: { now(): number; demo: boolean },
  ) {
    this.boats = new BoatCache(db);
  }

  /** Another number after each change: what is worked out from everything holds while it is the same. */
  get changes(): number {
    return this.written;
  }

  /** @throws whatever the change refuses with; nothing is written then */
  async write<T>(decide: (writing: Writing) => Promise<T>): Promise<T> {
    const answer = await this.alone(async () => {
      const ops: Op[] = [];
      const put = async (table: TableName, row: object) => void ops.push(['put', table, row as Row]);
      const add = async (table: TableName, row: object) => void ops.push(['add', table, row as Row]);
      const decided = await decide({ db: this.db, boats: this.boats, put, add });
      if (ops.length > 0) await this.carryOut(ops);
      return decided;
    });
    // Also what was found written already waits for the disk: the answer to its first sending may never have come.
    await this.journal.synced();
    return answer;
  }

  /** While nobody writes: for what must see everything at one moment. Reading goes on meanwhile. */
  alone<T>(work: () => Promise<T>): Promise<T> {
    const mine = this.turn.then(work);
    this.turn = mine.catch(() => undefined);
    return mine;
  }

  private async carryOut(wanted: readonly Op[]): Promise<void> {
    // The demo remembers that a person changed something, so that it is never made anew over it.
    const ops: readonly Op[] =
      this.options.demo && !this.touched ? [...wanted, ['put', 'facts', { key: TOUCHED, value: true }]] : wanted;
    const n = this.journal.append(this.options.now(), ops);
    try {
      await applyOps(this.db, ops);
    } catch (error) {
      this.journal.takeBack(n);
      throw error;
    }
    this.touched = true;
    this.written += 1;
    this.boats.heed(ops);
  }

  /** Everything was put in place of what was here. */
  replaced(): void {
    this.touched = false;
    this.written += 1;
    this.boats.forget();
  }
}

/** Write rows, all or none. One row is one statement, which is whole by itself. */
export async function applyOps(db: Db, ops: readonly Op[]): Promise<void> {
  if (ops.length === 1) return applyOp(db, ops[0] as Op);
  await db.transaction(async (tx) => {
    for (const op of ops) await applyOp(tx as unknown as Db, op);
  });
}

async function applyOp(db: Db, [kind, name, row]: Op): Promise<void> {
  const table: PgTable = TABLES[name];
  const insert = db.insert(table).values(row as never);
  if (kind === 'add') await insert;
  else await insert.onConflictDoUpdate({ target: keyOf(name), set: row as never });
}

/** Rows of a table by a condition, as they are stored. */
export async function rowsOf(db: Db, table: TableName, where: SQL): Promise<Row[]> {
  return (await db
    .select()
    .from(TABLES[table] as PgTable)
    .where(where)) as Row[];
}

export const byKey = (table: TableName, key: unknown) => eq(keyOf(table), key);
