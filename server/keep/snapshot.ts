import { sql } from 'drizzle-orm';
import { rawRows } from '../db/open';
import { keyIn, type Row } from '../db/ops';
import type { Store } from '../db/store';
import { inLines, rowsByKey, rowsOfTable, storedTables, type TableRows } from './archive';

/** The rows of a yard as they were at one change. */
export interface Snapshot {
  readonly n: number;
  readonly history: string | null;
  readonly rows: AsyncIterable<TableRows>;
}

/**
 * The yard's rows at one moment, while saving goes on. What people edit is little: it is read first, and what of it is
 * written meanwhile is read again in the moment that counts, when nobody writes. The log only grows: of it the snapshot
 * knows how far it had come, and its rows are read when they are wanted.
 * @param inThatMoment called while nobody writes
 * @throws Error on reading its rows, where everything was replaced meanwhile
 */
export async function snapshotOf(store: Store, inThatMoment: () => Promise<void> = async () => {}): Promise<Snapshot> {
  const { db } = store;
  const pause = () => store.breathe();
  const tables = await storedTables(db);
  const held = new Map<string, Map<unknown, Row>>();
  const touched = new Map<string, Set<string>>();
  const stopWatching = store.watch((ops) => {
    for (const [, table, row] of ops) {
      if (table === 'entries') continue;
      if (!touched.has(table)) touched.set(table, new Set());
      touched.get(table)?.add(String(keyIn(table, row)));
    }
  });
  try {
    for (const table of tables) {
      if (table.name === 'entries') continue;
      const rows = new Map<unknown, Row>();
      held.set(table.name, rows);
      for await (const some of rowsOfTable(db, table, { pause }))
        for (const row of some.rows) rows.set(keyIn(table.name, row), row);
    }
    return await store.alone(async () => {
      for (const table of tables) {
        const again = await rowsByKey(db, table, [...(touched.get(table.name) ?? [])]);
        for (const row of again) held.get(table.name)?.set(keyIn(table.name, row), row);
      }
      const [log] = await rawRows<{ last: number }>(db, sql`select coalesce(max(seq), 0)::float8 as last from entries`);
      await inThatMoment();
      const { n, history } = store.journal;
      const upTo = log?.last ?? 0;
      return { n, history, rows: rowsOf(store, tables, held, upTo) };
    });
  } finally {
    stopWatching();
  }
}

async function* rowsOf(
  store: Store,
  tables: Awaited<ReturnType<typeof storedTables>>,
  held: ReadonlyMap<string, ReadonlyMap<unknown, Row>>,
  upTo: number,
): AsyncGenerator<TableRows> {
  const { replaced } = store;
  for (const table of tables) {
    if (table.name !== 'entries') {
      for (const rows of inLines([...(held.get(table.name)?.values() ?? [])])) {
        yield { table: table.name, rows };
        await store.breathe();
      }
      continue;
    }
    for await (const some of rowsOfTable(store.db, table, { upTo, pause: () => store.breathe() })) {
      if (store.replaced !== replaced) throw new Error('Another backup was put in place meanwhile.');
      yield some;
    }
  }
}
