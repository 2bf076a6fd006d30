import { eq } from 'drizzle-orm';
import type { RequestHandler } from 'express';
import type { Context } from '../context';
import type { Db } from '../db/open';
import { facts } from '../db/schema';

export const SEEDED = 'demoSeededAt';
const TOUCHED = 'demoTouched';

/** Remember that a person has changed something, so that the demo is never made anew over it. */
export function markTouched({ db, demo }: Context): RequestHandler {
  let marked = false;
  return (req, res, next) => {
    if (demo && !marked && req.method !== 'GET' && req.method !== 'HEAD') {
      res.once('finish', () => {
        if (res.statusCode >= 400 || marked) return;
        marked = true;
        db.insert(facts).values({ key: TOUCHED, value: true }).onConflictDoNothing().catch(() => {
          marked = false;
        });
      });
    }
    next();
  };
}

export async function isTouched(db: Db): Promise<boolean> {
  const rows = await db.select().from(facts).where(eq(facts.key, TOUCHED));
  return rows.length > 0;
}
