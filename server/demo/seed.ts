import { eq } from 'drizzle-orm';
import type { Clock } from '../clock';
import { facts, namedBuildUps, sheetRevisions, sheets, TABLES } from '../db/schema';
import { isTouched, SEEDED } from '../db/touched';
import type { Yard } from '../keep/yard';
import { LIBRARY_SHEETS, LIBRARY_STARTERS } from '../library';

import { DAY_MS, DemoYard, HOUR_MS } from './demoYard';
import { launch } from './launch';
import { gig, workboat } from './otherBoats';
import { lookedAgain } from './lookedAgain';
import { shelf } from './shelf';
import { sloop } from './sloop';

/** An untouched demo older than this is made anew, so that Today is always alive. */
const STALE_MS = HOUR_MS / 2;

/**
 * The demo: a made-up yard with four made-up boats, dated relative to the clock. Left alone once a
 * person has changed anything.
 */
export async function seedDemo(yard: Yard, clock: Clock): Promise<void> {
  const { db } = yard.store;
  const [seeded] = await db.select().from(facts).where(eq(facts.key, SEEDED));
  const now = clock.now();
  if (seeded && (Math.abs(now - (seeded.value as number)) < STALE_MS || (await isTouched(db)))) return;
  // Nobody has anything to lose in it: it begins anew, journal and backups too.
  await yard.forget();
  await yard.store.replace('The demo is being made.', () =>
    db.transaction(async (tx) => {
      for (const table of Object.values(TABLES).reverse()) await tx.delete(table);
      await writeDemo(new DemoYard(tx, yard.files, now));
      await tx.insert(facts).values({ key: SEEDED, value: now });
    }),
  );
}

async function writeDemo(yard: DemoYard): Promise<void> {
  await yard.db.insert(sheets).values(LIBRARY_SHEETS.map((s) => ({ id: s.id, withdrawn: false, version: 1 })));
  await yard.db.insert(sheetRevisions).values(
    LIBRARY_SHEETS.map((s) => ({
      id: s.revisionId,
      sheetId: s.id,
      revision: 1,
      body: s.body,
      createdAt: yard.now - 40 * DAY_MS,
    })),
  );
  await yard.db.insert(namedBuildUps).values(
    LIBRARY_STARTERS.map((n) => ({
      ...n,
      substrates: [...n.substrates],
      layers: [...n.layers],
      version: 1,
      deleted: false,
    })),
  );
  await shelf(yard);
  await sloop(yard);
  await workboat(yard);
  await gig(yard);
  await launch(yard);
  await lookedAgain(yard);
}
