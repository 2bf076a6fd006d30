import { and, asc, eq, inArray } from 'drizzle-orm';
import { DateTime } from 'luxon';
import type { LogEntry } from '#core/coat/events';
import { netAreas, NO_MODEL } from '#core/hull/zoneArea';
import type { SheetRevision } from '#core/sheet/sheet';
import type { Boat, BoatBundle, BuildUpRow, HullRow, Job, SurfaceDraft, SurfaceRow } from '#contracts/boat';
import { notFound } from '../errors';
import { boatWeather } from '../weather';
import type { Db } from './open';
import { boats, borders, buildUps, entries, hulls, jobs, sheetRevisions, surfaces } from './schema';

/** One boat that is not removed. @throws Refusal 404 */
export async function getBoat(db: Db, boatId: string): Promise<Boat> {
  const [boat] = await db.select().from(boats).where(and(eq(boats.id, boatId), eq(boats.deleted, false)));
  if (!boat) throw notFound('boat');
  return boat;
}

/** A boat's log in the order it was written. */
export async function boatEntries(db: Db, boatId: string): Promise<LogEntry[]> {
  const rows = await db.select().from(entries).where(eq(entries.boatId, boatId)).orderBy(asc(entries.seq));
  return rows.map(({ seq: _seq, ...entry }) => entry as LogEntry);
}

/** What is known of a boat's hull as a whole; null while nothing is. */
export async function getHull(db: Db, boatId: string): Promise<HullRow | null> {
  const [row] = await db.select().from(hulls).where(and(eq(hulls.boatId, boatId), eq(hulls.deleted, false)));
  return row ?? null;
}

/** A boat's zones and patches that are not removed, in their order. A patch is gone with its zone, and back with it. */
export async function getSurfaces(db: Db, boatId: string): Promise<SurfaceDraft[]> {
  const rows = await db.select().from(surfaces).where(and(eq(surfaces.boatId, boatId), eq(surfaces.deleted, false))).orderBy(asc(surfaces.sort), asc(surfaces.id));
  return rows.filter((row) => row.parentId === null || rows.some((parent) => parent.id === row.parentId));
}

/** Stored zones with the areas that their methods, the boat and her hull give. @throws RangeError where one cannot be worked out */
export function withAreas(rows: readonly SurfaceDraft[], boat: Boat, hull: HullRow | null): SurfaceRow[] {
  const areas = netAreas({ boat, hull: hull ?? NO_MODEL, surfaces: rows });
  return rows.map((row) => {
    const { areaM2, share, grossM2 } = areas.get(row.id) as { areaM2: number; share: number; grossM2: number };
    return { ...row, areaM2, areaShare: share, grossM2 };
  });
}

/** The revisions of sheets that build-ups name and coats were logged under. */
export async function revisionsUsed(db: Db, built: readonly Pick<BuildUpRow, 'layers'>[], log: readonly LogEntry[]): Promise<SheetRevision[]> {
  const used = new Set([...built.flatMap((b) => b.layers.map((l) => l.sheetRevisionId)), ...log.flatMap((e) => (e.kind === 'started' || e.kind === 'mixed' ? [e.body.sheetRevisionId] : []))]);
  return used.size === 0 ? [] : db.select().from(sheetRevisions).where(inArray(sheetRevisions.id, [...used]));
}

/** Everything about one boat. @throws Refusal 404 */
export async function getBundle(db: Db, boatId: string, clock: { now(): number; frozen: boolean }): Promise<BoatBundle> {
  const boat = await getBoat(db, boatId);
  const now = clock.now();
  const [jobRows, hull, surfaceRows, buildUpRows, borderRows, log] = await Promise.all([
    db.select().from(jobs).where(and(eq(jobs.boatId, boatId), eq(jobs.deleted, false))).orderBy(asc(jobs.outOn)),
    getHull(db, boatId),
    getSurfaces(db, boatId),
    db.select().from(buildUps).where(and(eq(buildUps.boatId, boatId), eq(buildUps.deleted, false))),
    db.select().from(borders).where(and(eq(borders.boatId, boatId), eq(borders.deleted, false))).orderBy(asc(borders.id)),
    boatEntries(db, boatId),
  ]);
  const sheets = await revisionsUsed(db, buildUpRows, log);
  const { hours, typedDays } = await boatWeather(db, boat, now, weatherFrom(boat, jobRows, log, now));
  return { now, frozen: clock.frozen, boat, jobs: jobRows, hull, surfaces: withAreas(surfaceRows, boat, hull), buildUps: buildUpRows, borders: borderRows.filter((b) => [b.upperId, b.lowerId].every((id) => surfaceRows.some((s) => s.id === id))), entries: log, sheets, hours, typedDays };
}

/** The clocks of this haul-out want weather from a day before it, or before the first entry if that was earlier. */
function weatherFrom(boat: Boat, jobRows: readonly Job[], log: readonly LogEntry[], now: number): number {
  const job = jobRows[jobRows.length - 1];
  const out = job ? DateTime.fromISO(job.outOn, { zone: boat.timeZone }).toMillis() : now;
  const first = log.reduce((least, e) => Math.min(least, e.occurredAt), now);
  const HOUR_MS = 3_600_000;
  return Math.floor((Math.min(out, first) - 24 * HOUR_MS) / HOUR_MS) * HOUR_MS;
}
