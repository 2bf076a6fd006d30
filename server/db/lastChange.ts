import type { Db } from './database';
import { byKey, type Op } from './ops';
import { facts } from './schema';

/** Which change a database was left by: written with each change, in the same transaction. */
export const LAST_CHANGE = 'lastChange';

export interface LastChange {
  /** Its number in the journal. */
  readonly n: number;
  /** Number of the last change that was known to be on the disk when this one was made. */
  readonly onDisk: number;
}

export const lastChangeOp = (n: number, onDisk: number): Op => [
  'put',
  'facts',
  { key: LAST_CHANGE, value: { n, onDisk } satisfies LastChange },
];

/** The change that a database was left by; null for one of a version that did not tell. */
export async function lastChangeOf(db: Db): Promise<LastChange | null> {
  const [fact] = await db.select().from(facts).where(byKey('facts', LAST_CHANGE));
  return (fact?.value as LastChange | undefined) ?? null;
}
