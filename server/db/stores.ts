import { and, asc, eq } from 'drizzle-orm';
import { DateTime } from 'luxon';
import { foldBatches, foldCoats } from '#core/coat/fold';
import type { Pour } from '#core/stores/lots';
import { coatNeeds } from '#core/stores/needs';
import { USUAL_RULES, YARD_RULES_ID, type Stores, type StoresBoat, type YardRules } from '#contracts/stores';
import type { NamedBuildUpRow, NamedUse } from '#contracts/system';
import { boatEntries, getHull, getSurfaces, revisionsUsed, withAreas } from './boats';
import type { Db } from './open';
import { boats, buildUps, jobs, lots, namedBuildUps, surfaces, yardRules } from './schema';

export async function getRules(db: Db): Promise<YardRules> {
  const [row] = await db.select().from(yardRules).where(eq(yardRules.id, YARD_RULES_ID));
  return row ?? USUAL_RULES;
}

/** The shelf, what batches have taken of it, and what the boats in hand still want, those to be launched first first. */
export async function getStores(db: Db, now: number): Promise<Stores> {
  const rows = await db.select().from(lots).where(eq(lots.deleted, false)).orderBy(asc(lots.id));
  const pours: Pour[] = [];
  const list: (StoresBoat & { zone: string })[] = [];
  for (const boat of await db.select().from(boats).where(eq(boats.deleted, false))) {
    const log = await boatEntries(db, boat.id);
    const built = await db.select().from(buildUps).where(and(eq(buildUps.boatId, boat.id), eq(buildUps.deleted, false)));
    const [job] = (await db.select().from(jobs).where(and(eq(jobs.boatId, boat.id), eq(jobs.deleted, false))).orderBy(asc(jobs.outOn))).slice(-1);
    const revisions = new Map((await revisionsUsed(db, built, log)).map((r) => [r.id, r]));
    for (const batch of foldBatches(log)) {
      const sheetId = revisions.get(batch.sheetRevisionId)?.sheetId;
      if (sheetId) for (const part of batch.parts) pours.push({ sheetId, part: part.name, litres: part.volumeL, at: batch.mixedAt });
    }
    const zones = withAreas(await getSurfaces(db, boat.id), boat, await getHull(db, boat.id));
    const { needs } = coatNeeds({ surfaces: zones, buildUps: built, coats: foldCoats(log), revisionById: revisions });
    list.push({ boatId: boat.id, name: boat.name, launchOn: job?.inOn ?? null, currency: job?.currency ?? 'EUR', needs: [...needs], zone: boat.timeZone });
  }
  list.sort((a, b) => (a.launchOn ?? '9999').localeCompare(b.launchOn ?? '9999') || a.name.localeCompare(b.name));
  const today = DateTime.fromMillis(now, { zone: list[0]?.zone ?? 'UTC' }).toISODate() as string;
  return { today, lots: rows, pours, boats: list.map(({ zone: _zone, ...boat }) => boat), rules: await getRules(db) };
}

/** Named build-ups by name, and where each stands on the boats in hand. */
export async function listNamed(db: Db): Promise<{ named: NamedBuildUpRow[]; uses: Record<string, NamedUse[]> }> {
  const named = await db.select().from(namedBuildUps).where(eq(namedBuildUps.deleted, false)).orderBy(asc(namedBuildUps.name), asc(namedBuildUps.id));
  const rows = await db
    .select({ namedId: buildUps.namedId, boatId: boats.id, boatName: boats.name, surfaceId: surfaces.id, zoneName: surfaces.name })
    .from(buildUps)
    .innerJoin(surfaces, and(eq(surfaces.id, buildUps.surfaceId), eq(surfaces.deleted, false)))
    .innerJoin(boats, and(eq(boats.id, buildUps.boatId), eq(boats.deleted, false)))
    .where(eq(buildUps.deleted, false))
    .orderBy(asc(boats.name), asc(surfaces.sort));
  const uses: Record<string, NamedUse[]> = {};
  for (const { namedId, ...use } of rows) if (namedId) (uses[namedId] ??= []).push(use);
  return { named, uses };
}
