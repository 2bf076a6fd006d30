import { eq } from 'drizzle-orm';
import type { Db } from './database';
import { facts } from './schema';

/** Facts about a demo: when it was made, and that a person changed something in it since. */
export const SEEDED = 'demoSeededAt';
export const TOUCHED = 'demoTouched';

export async function isTouched(db: Db): Promise<boolean> {
  const rows = await db.select().from(facts).where(eq(facts.key, TOUCHED));
  return rows.length > 0;
}
