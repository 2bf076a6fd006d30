import { eq } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { notFound, Refusal } from '../errors';
import type { Db } from './open';

type VersionedTable = PgTable & { id: PgColumn; version: PgColumn };
export type VersionedRow = { id: string; version: number };

/**
 * Create or change a row that people edit. The client sends the version it started from, 0 for a new row.
 * A stale one is refused with the newer row; the same write sent twice is one write.
 * @throws Refusal 404 for a change of a row that is not there, 409 for a stale one
 */
export async function putVersioned<Row extends VersionedRow>(
  db: Db,
  table: VersionedTable,
  row: Row,
  what: string,
): Promise<{ row: Row; changed: boolean }> {
  const [found] = (await db.select().from(table).where(eq(table.id, row.id)).for('update')) as Row[];
  if (!found) {
    if (row.version !== 0) throw notFound(what);
    const next = { ...row, version: 1 };
    await db.insert(table).values(next as never);
    return { row: next, changed: true };
  }
  if (found.version === row.version) {
    const next = { ...row, version: row.version + 1 };
    await db.update(table).set(next as never).where(eq(table.id, row.id));
    return { row: next, changed: true };
  }
  if (found.version === row.version + 1 && same({ ...found, version: 0 }, { ...row, version: 0 })) return { row: found, changed: false };
  throw new Refusal(409, 'stale', `This ${what} was changed meanwhile. Look at both and keep the one you want.`, { current: found });
}

/** Equal as data, whatever the order of keys. */
export function same(a: unknown, b: unknown): boolean {
  return canonical(a) === canonical(b);
}

function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, v: unknown) =>
    v !== null && typeof v === 'object' && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).sort(([x], [y]) => (x < y ? -1 : 1))) : v,
  );
}
