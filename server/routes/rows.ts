import { and, eq, inArray } from 'drizzle-orm';
import { Router } from 'express';
import { IANAZone } from 'luxon';
import { v7 as uuid } from 'uuid';
import { dimensionProblems } from '#core/hull/area';
import { checkOffsets } from '#core/hull/offsets';
import { boatBody, buildUpBody, buildUpsBody, hullBody, jobBody, surfaceBody } from '#contracts/schemas/boat';
import type { Boat, BuildUpRow, HullRow, Job, SurfaceDraft } from '#contracts/rows/boat';
import { typedDaysBody } from '#contracts/schemas/weather';
import { borderBody } from '#contracts/schemas/system';
import type { BorderRow } from '#contracts/rows/system';
import type { Context } from '../context';
import { getBoatRows, getBundle, withAreas } from '../db/boats';
import { buildUps, hulls, surfaces } from '../db/schema';
import { checkLayerSheets } from '../db/sheets';
import type { Writing } from '../db/store';
import { putVersioned, same } from '../db/versioned';
import { notFound, Refusal } from '../errors';
import { check, idIn, idOf } from '../validate';
import { putTypedForecast, weatherPlace, type TypedForecast } from '../weather';

/** Boats and what belongs to one: haul-outs, zones, build-ups, the weather that was typed for it. */
export function rowRoutes(context: Context): Router {
  const router = Router();
  boatRoutes(router, context);
  zoneRoutes(router, context);
  buildUpRoutes(router, context);
  return router;
}

/** The boat, her haul-outs, the weather that was typed for her. */
function boatRoutes(router: Router, { store, clock, yard }: Context): void {
  router.get('/boats/:id', async (req, res) => {
    res.json(await getBundle(store, idOf(req), clock));
  });

  router.put('/boats/:id', async (req, res) => {
    const row = { ...check<Omit<Boat, 'id'>>(boatBody, req.body), id: idOf(req) };
    const [problem] = dimensionProblems(row);
    if (problem) throw new Refusal(422, 'impossible', problem.message, { field: problem.field });
    if (!IANAZone.isValidZone(row.timeZone))
      throw new Refusal(422, 'impossible', `"${row.timeZone}" is not a time zone. Choose one from the list.`, {
        field: 'timeZone',
      });
    res.json(
      await store.write(async (tx) => {
        const written = await putVersioned(tx, 'boats', row, 'boat');
        const before = await tx.boats.get(row.id);
        if (before && written.changed) {
          if (!row.deleted) withAreas(before.surfaces, row, before.hull);
          await keepPastPlace(tx, before.boat, row, clock.now());
        }
        return written;
      }),
    );
  });

  router.put('/jobs/:id', async (req, res) => {
    const row = { ...check<Omit<Job, 'id'>>(jobBody, req.body), id: idOf(req) };
    if (row.inOn !== null && row.inOn < row.outOn)
      throw new Refusal(422, 'impossible', 'The launch is before the haul-out. Check the two dates.', {
        field: 'inOn',
      });
    const year = row.planning?.typicalYear;
    if (year && !yard.files.has(year.fileHash))
      throw new Refusal(422, 'no_file', 'The file of the typical year did not arrive. Choose it again.', {
        field: 'planning',
      });
    res.json(
      await store.write(async (tx) => {
        await getBoatRows(tx, row.boatId);
        return putVersioned(tx, 'jobs', row, 'haul-out');
      }),
    );
  });

  router.put('/boats/:id/typed-weather/:issueId', async (req, res) => {
    const boatId = idOf(req);
    const issueId = idIn(req.params.issueId);
    const told = check<Pick<TypedForecast, 'days' | 'hours'>>(typedDaysBody, req.body);
    await store.write(async (tx) => {
      const { boat } = await getBoatRows(tx, boatId);
      await putTypedForecast(tx, boat, issueId, told, clock.now());
    });
    res.json({ ok: true });
  });
}

/** Zones and patches, and the hull that they are measured on. */
function zoneRoutes(router: Router, { store, yard }: Context): void {
  router.put('/surfaces/:id', async (req, res) => {
    const row = { ...check<Omit<SurfaceDraft, 'id'>>(surfaceBody, req.body), id: idOf(req) };
    res.json(
      await store.write(async (tx) => {
        const { boat, hull, surfaces: zones } = await getBoatRows(tx, row.boatId);
        await checkParent(tx, row);
        const { row: put, changed } = await putVersioned(tx, 'surfaces', row, 'zone');
        // Refuses an area that cannot be worked out, this zone's or its parent's, before anything is kept.
        const areas = withAreas(
          shownZones([...zones.filter((z) => z.id !== put.id), ...(put.deleted ? [] : [put])]),
          boat,
          hull,
        );
        return { changed, row: areas.find((s) => s.id === row.id) ?? put };
      }),
    );
  });

  router.put('/hulls/:id', async (req, res) => {
    const row = { ...check<Omit<HullRow, 'id'>>(hullBody, req.body), id: idOf(req) };
    if (row.offsets) checkOffsets(row.offsets);
    if (row.mesh && !yard.files.has(row.mesh.fileHash))
      throw new Refusal(422, 'no_file', 'The mesh file did not arrive. Choose it again.', { field: 'mesh' });
    res.json(
      await store.write(async (tx) => {
        const { boat, surfaces: zones } = await getBoatRows(tx, row.boatId);
        const [other] = await tx.db.select().from(hulls).where(eq(hulls.boatId, row.boatId));
        if (other && other.id !== row.id)
          throw new Refusal(409, 'stale', 'This hull was measured meanwhile. Look at both and keep the one you want.', {
            current: other,
          });
        const written = await putVersioned(tx, 'hulls', row, 'hull');
        withAreas(zones, boat, written.row.deleted ? null : written.row);
        return written;
      }),
    );
  });
}

/** Build-ups, one or many, and the borders between zones. */
function buildUpRoutes(router: Router, { store }: Context): void {
  router.put('/build-ups/:id', async (req, res) => {
    const row = { ...check<Omit<BuildUpRow, 'id'>>(buildUpBody, req.body), id: idOf(req) };
    res.json(
      await store.write(async (tx) => {
        await getBoatRows(tx, row.boatId);
        return putBuildUp(tx, row);
      }),
    );
  });

  router.put('/boats/:id/build-ups', async (req, res) => {
    const boatId = idOf(req);
    const { rows } = check<{ rows: BuildUpRow[] }>(buildUpsBody, req.body);
    if (rows.some((row) => row.boatId !== boatId))
      throw new Refusal(422, 'impossible', 'A build-up of another boat is among them. Change one boat at a time.');
    if (new Set(rows.map((row) => row.surfaceId)).size < rows.length)
      throw new Refusal(422, 'impossible', 'One zone is among them twice. Send each zone once.');
    res.json(await store.write((tx) => putBuildUps(tx, boatId, rows)));
  });

  router.put('/borders/:id', async (req, res) => {
    const row = { ...check<Omit<BorderRow, 'id'>>(borderBody, req.body), id: idOf(req) };
    if (row.upperId === row.lowerId)
      throw new Refusal(422, 'impossible', 'A border lies between two zones. Choose another one.', {
        field: 'lowerId',
      });
    res.json(
      await store.write(async (tx) => {
        await getBoatRows(tx, row.boatId);
        const found = await tx.db
          .select({ id: surfaces.id, deleted: surfaces.deleted })
          .from(surfaces)
          .where(and(eq(surfaces.boatId, row.boatId), inArray(surfaces.id, [row.upperId, row.lowerId])));
        // A border that goes away may lie between zones that went before it.
        if (found.filter((z) => row.deleted || !z.deleted).length < 2) throw notFound('zone');
        return putVersioned(tx, 'borders', row, 'border');
      }),
    );
  });
}

/** What a boat that moves or is placed anew leaves behind: the weather of the time before stays what it was. */
async function keepPastPlace(tx: Writing, before: Boat, after: Boat, now: number): Promise<void> {
  const stood = weatherPlace(before);
  if (!same(stood, weatherPlace(after)))
    await tx.put('pastPlaces', { id: uuid(), boatId: before.id, untilAt: now, ...stood });
}

/** Zones as they are shown: in their order, patches gone with their zone. */
function shownZones(zones: readonly SurfaceDraft[]): SurfaceDraft[] {
  const there = new Set(zones.map((z) => z.id));
  return zones.filter((z) => z.parentId === null || there.has(z.parentId)).sort((a, b) => a.sort - b.sort);
}

/** Build-ups of several zones of one boat, all or none; those that were changed meanwhile are told together. */
async function putBuildUps(tx: Writing, boatId: string, rows: readonly BuildUpRow[]): Promise<{ rows: BuildUpRow[] }> {
  await getBoatRows(tx, boatId);
  const written: BuildUpRow[] = [];
  const stale: unknown[] = [];
  for (const row of rows) {
    try {
      written.push((await putBuildUp(tx, row)).row);
    } catch (error) {
      if (!(error instanceof Refusal) || error.code !== 'stale') throw error;
      stale.push(error.detail.current);
    }
  }
  if (stale.length > 0)
    throw new Refusal(
      409,
      'stale',
      `${stale.length === 1 ? 'One of these zones was' : `${stale.length} of these zones were`} changed meanwhile. Look at both and keep the ones you want.`,
      { current: { rows: stale } },
    );
  return { rows: written };
}

/** The coats of one zone; a zone has one build-up for good. */
async function putBuildUp(tx: Writing, row: BuildUpRow): Promise<{ row: BuildUpRow; changed: boolean }> {
  const [surface] = await tx.db.select().from(surfaces).where(eq(surfaces.id, row.surfaceId));
  if (!surface || surface.boatId !== row.boatId) throw notFound('zone');
  const [own] = await tx.db.select().from(buildUps).where(eq(buildUps.id, row.id));
  if (own && own.surfaceId !== row.surfaceId)
    throw new Refusal(422, 'impossible', 'This build-up belongs to another zone.');
  const [other] = await tx.db.select().from(buildUps).where(eq(buildUps.surfaceId, row.surfaceId));
  if (other && other.id !== row.id)
    throw new Refusal(409, 'stale', 'This zone has a build-up already. Look at both and keep the one you want.', {
      current: other,
    });
  await checkLayerSheets(tx.db, row.layers, other?.layers);
  return putVersioned(tx, 'buildUps', row, 'build-up');
}

/** A patch lies on a zone of the same boat, one deep. */
async function checkParent(tx: Writing, row: SurfaceDraft): Promise<void> {
  if ((row.parentId === null) !== (row.patchKind === null))
    throw new Refusal(422, 'impossible', 'A patch needs both its zone and its kind. Choose them.', {
      field: 'patchKind',
    });
  if (row.parentId === null) return;
  const [parent] = await tx.db
    .select()
    .from(surfaces)
    .where(and(eq(surfaces.id, row.parentId), eq(surfaces.boatId, row.boatId)));
  if (!parent || (parent.deleted && !row.deleted)) throw notFound('zone');
  if (!row.deleted && (parent.parentId !== null || parent.id === row.id))
    throw new Refusal(422, 'impossible', 'A patch cannot lie on another patch. Choose the zone beneath.', {
      field: 'parentId',
    });
}
