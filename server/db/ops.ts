import { eq, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Db } from './database';
import { facts, TABLES, type TableName } from './schema';

export type Row = Record<string, unknown>;

/** One row written: `add` must be new, `put` is new or takes the place of the one with its key. */
export type Op = readonly [kind: 'add' | 'put', table: TableName, row: Row];

/** The column that tells rows of a table apart. */
export function keyOf(table: TableName): PgColumn {
  return table === 'facts' ? facts.key : (TABLES[table] as unknown as { id: PgColumn }).id;
}

/** What tells a row of a table from the others. */
export const keyIn = (table: string, row: Row): unknown => (table === 'facts' ? row.key : row.id);

/** Write rows, all or none. One row is one statement, which is whole by itself. */
export async function applyOps(db: Db, ops: readonly Op[]): Promise<void> {
  if (ops.length === 1) return applyOp(db, ops[0] as Op);
  await db.transaction(async (tx) => {
    for (const op of ops) await applyOp(tx, op);
  });
}

async function applyOp(db: Db, [kind, name, row]: Op): Promise<void> {
  const table: PgTable = TABLES[name];
  const insert = db.insert(table).values(row as never);
  if (kind === 'add') await insert;
  else await insert.onConflictDoUpdate({ target: keyOf(name), set: row });
}

/** Rows of a table by a condition, as they are stored. */
export async function rowsOf(db: Db, table: TableName, where: SQL): Promise<Row[]> {
  return await db.select().from(TABLES[table]).where(where);
}

export const byKey = (table: TableName, key: unknown) => eq(keyOf(table), key);
