import { and, asc, eq } from 'drizzle-orm';
import { DateTime } from 'luxon';
import { foldLog, type MixedBatch } from '#core/coat/fold';
import { coatLesson, type Lesson } from '#core/coat/lesson';
import { zoneNames } from '#core/hull/zones';
import type { SheetRevision } from '#core/model/sheet';
import { poursOf } from '#core/stores/productLedger';
import { mergedPours, type Pour } from '#core/stores/lots';
import { coatNeeds } from '#core/stores/needs';
import {
  USUAL_RULES,
  YARD_RULES_ID,
  type LedgerBatchRow,
  type LotRow,
  type Stores,
  type StoresBoat,
  type YardRules,
} from '#contracts/rows/stores';
import type { NamedBuildUpRow, NamedUse } from '#contracts/rows/system';
import type { BoatRows } from './boatCache';
import { withAreas } from './boats';
import type { Db } from './database';
import { boats, buildUps, lots, namedBuildUps, surfaces, yardRules } from './schema';

export async function getRules(db: Db): Promise<YardRules> {
  const [row] = await db.select().from(yardRules).where(eq(yardRules.id, YARD_RULES_ID));
  return row ?? USUAL_RULES;
}

/** What one boat takes of the shelf: what her batches took, and what she still wants. */
export interface BoatCall {
  readonly pours: readonly Pour[];
  readonly boat: StoresBoat;
  readonly timeZone: string;
}

export function boatCall({ boat, jobs, surfaces, hull, buildUps, entries, sheets }: BoatRows): BoatCall {
  const revisions = new Map(sheets.map((r) => [r.id, r]));
  const log = foldLog(entries);
  const pours = log.batches.flatMap((batch) => {
    const revision = revisions.get(batch.sheetRevisionId);
    return revision ? batchPours(batch, revision) : [];
  });
  const job = jobs[jobs.length - 1];
  const { needs } = coatNeeds({
    surfaces: withAreas(surfaces, boat, hull),
    buildUps,
    coats: log.coats,
    revisionById: revisions,
  });
  return {
    pours,
    boat: {
      boatId: boat.id,
      name: boat.name,
      launchOn: job?.inOn ?? null,
      needs: [...needs],
    },
    timeZone: boat.timeZone,
  };
}

/** What a batch took of each part, by the tins that it named, and of its thinner. */
function batchPours(batch: MixedBatch, { sheetId, body }: SheetRevision): Pour[] {
  const parts = batch.parts.map((p) => p.name);
  const poured = { id: batch.id, at: batch.mixedAt, partsL: batch.parts.map((p) => p.volumeL) };
  const of = batch.from ? { ...poured, from: batch.from } : poured;
  const thinner = body.thinner?.name;
  return [
    ...poursOf(of, parts, sheetId),
    ...(batch.thinnerL > 0 && thinner
      ? poursOf({ ...of, partsL: [batch.thinnerL] }, [thinner], sheetId).map((p) => ({ ...p, thinner: true }))
      : []),
  ];
}

/** All tins of a product, those off the shelf too. */
export async function lotsOf(db: Db, sheetId: string): Promise<LotRow[]> {
  return db.select().from(lots).where(eq(lots.sheetId, sheetId)).orderBy(asc(lots.id));
}

/** The batches of a product on one boat, each with the coats it is in. */
export function ledgerBatches(
  { boat, surfaces, removedZones, entries, sheets }: BoatRows,
  sheetId: string,
): LedgerBatchRow[] {
  const own = new Set(sheets.filter((r) => r.sheetId === sheetId).map((r) => r.id));
  const names = zoneNames({ surfaces, removedZones });
  const { batches, coats } = foldLog(entries);
  return batches
    .filter((b) => own.has(b.sheetRevisionId))
    .map((b) => ({
      id: b.id,
      at: b.mixedAt,
      partsL: b.parts.map((p) => p.volumeL),
      ...(b.from ? { from: b.from } : {}),
      boatId: boat.id,
      boatName: boat.name,
      use: b.use ?? null,
      coats: coats
        .filter((c) => c.batches.some((on) => on.batchId === b.id))
        .map((c) => ({ coatId: c.id, zones: c.on.map((t) => names.get(t.surfaceId) ?? '') })),
    }));
}

/** What the finished coats of a product teach on one boat; a zone that is gone teaches nothing. */
export function lessonsOf({ boat, surfaces, hull, buildUps, entries, sheets }: BoatRows, sheetId: string): Lesson[] {
  const own = new Map(sheets.filter((r) => r.sheetId === sheetId).map((r) => [r.id, r.body]));
  const areas = withAreas(surfaces, boat, hull);
  return foldLog(entries).coats.flatMap((coat): Lesson[] => {
    const sheet = own.get(coat.sheetRevisionId);
    const zones = coat.on.flatMap(({ surfaceId, layerId }) => {
      const surface = areas.find((s) => s.id === surfaceId);
      const layer = buildUps.find((b) => b.surfaceId === surfaceId)?.layers.find((l) => l.id === layerId);
      const share = coat.covered.find((c) => c.surfaceId === surfaceId)?.share ?? 1;
      return surface && layer ? [{ areaM2: surface.areaM2, share, layer }] : [];
    });
    if (!sheet || zones.length < coat.on.length) return [];
    const lesson = coatLesson({ coat, sheet, zones });
    return lesson ? [lesson] : [];
  });
}

/** The shelf, what batches have taken of it, and what the boats in hand still want, those to be launched first first. */
export async function storesOf(db: Db, calls: readonly BoatCall[], now: number): Promise<Stores> {
  const rows = await db.select().from(lots).where(eq(lots.deleted, false)).orderBy(asc(lots.id));
  const list = [...calls].sort(
    (a, b) =>
      (a.boat.launchOn ?? '9999').localeCompare(b.boat.launchOn ?? '9999') || a.boat.name.localeCompare(b.boat.name),
  );
  const pours = mergedPours(
    calls.flatMap((c) => c.pours),
    rows,
  );
  const today = DateTime.fromMillis(now, { zone: list[0]?.timeZone ?? 'UTC' }).toISODate() as string;
  return { today, lots: rows, pours, boats: list.map((c) => c.boat), rules: await getRules(db) };
}

/** Named build-ups by name, and where each stands on the boats in hand. */
export async function listNamed(db: Db): Promise<{ named: NamedBuildUpRow[]; uses: Record<string, NamedUse[]> }> {
  const named = await db
    .select()
    .from(namedBuildUps)
    .where(eq(namedBuildUps.deleted, false))
    .orderBy(asc(namedBuildUps.name), asc(namedBuildUps.id));
  const rows = await db
    .select({
      namedId: buildUps.namedId,
      boatId: boats.id,
      boatName: boats.name,
      surfaceId: surfaces.id,
      zoneName: surfaces.name,
    })
    .from(buildUps)
    .innerJoin(surfaces, and(eq(surfaces.id, buildUps.surfaceId), eq(surfaces.deleted, false)))
    .innerJoin(boats, and(eq(boats.id, buildUps.boatId), eq(boats.deleted, false)))
    .where(eq(buildUps.deleted, false))
    .orderBy(asc(boats.name), asc(surfaces.sort));
  const uses: Record<string, NamedUse[]> = {};
  for (const { namedId, ...use } of rows) if (namedId) (uses[namedId] ??= []).push(use);
  return { named, uses };
}
