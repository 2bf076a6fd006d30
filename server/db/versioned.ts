import { isDeepStrictEqual } from 'node:util';
import { notFound, Refusal } from '../errors';
import type { TableName } from './schema';
import { byKey, rowsOf, type Row } from './ops';
import { type Writing } from './store';

export type VersionedRow = { id: string; version: number; boatId?: string };

/**
 * Create or change a row that people edit. The client sends the version it started from, 0 for a new row.
 * A stale one is refused with the newer row; the same write sent twice is one write.
 * @throws Refusal 404 for a change of a row that is not there, 409 for a stale one, 422 for one of another boat
 */
export async function putVersioned<R extends VersionedRow>(
  tx: Writing,
  table: TableName,
  row: R,
  what: string,
): Promise<{ row: R; changed: boolean }> {
  const [found] = (await rowsOf(tx.db, table, byKey(table, row.id))) as unknown as R[];
  if (!found && row.version !== 0) throw notFound(what);
  if (found && found.boatId !== row.boatId)
    throw new Refusal(422, 'impossible', `This ${what} belongs to another boat.`);
  if (!found || found.version === row.version) {
    const next = { ...row, version: row.version + 1 };
    await tx.put(table, next);
    return { row: next, changed: true };
  }
  if (found.version === row.version + 1 && same({ ...found, version: 0 }, { ...row, version: 0 }))
    return { row: found, changed: false };
  throw new Refusal(409, 'stale', `This ${what} was changed meanwhile. Look at both and keep the one you want.`, {
    current: found as unknown as Row,
  });
}

/** Equal as data: as both would be sent. */
export function same(a: unknown, b: unknown): boolean {
  return isDeepStrictEqual(asSent(a), asSent(b));
}

const asSent = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
