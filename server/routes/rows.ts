import { and, eq, inArray } from 'drizzle-orm';
import { Router } from 'express';
import { IANAZone } from 'luxon';
import { dimensionProblems } from '#core/hull/area';
import { checkOffsets } from '#core/hull/offsets';
import { boatBody, buildUpBody, buildUpsBody, hullBody, jobBody, surfaceBody, typedDaysBody, type Boat, type BuildUpRow, type HullRow, type Job, type SurfaceDraft, type TypedDayRow } from '#contracts/boat';
import { borderBody, type BorderRow } from '#contracts/system';
import type { Context } from '../context';
import { getBoat, getBundle, getHull, getSurfaces, withAreas } from '../db/boats';
import type { Db } from '../db/open';
import { boats, borders, buildUps, hulls, jobs, surfaces } from '../db/schema';
import { checkLayerSheets } from '../db/sheets';
import { putVersioned } from '../db/versioned';
import { notFound, Refusal } from '../errors';
import { check, idIn, idOf } from '../validate';
import { putTypedWeather } from '../weather';

/** Boats and what belongs to one: haul-outs, zones, build-ups, the weather that was typed for it. */
export function rowRoutes({ db, clock, files }: Context): Router {
  const router = Router();

  router.get('/boats/:id', async (req, res) => {
    res.json(await getBundle(db, idOf(req), clock));
  });

  router.put('/boats/:id', async (req, res) => {
    const row = { ...check<Omit<Boat, 'id'>>(boatBody, req.body), id: idOf(req) };
    const [problem] = dimensionProblems(row);
    if (problem) throw new Refusal(422, 'impossible', problem.message, { field: problem.field });
    if (!IANAZone.isValidZone(row.timeZone)) throw new Refusal(422, 'impossible', `"${row.timeZone}" is not a time zone. Choose one from the list.`, { field: 'timeZone' });
    res.json(
      await inOne(db, async (tx) => {
        const written = await putVersioned(tx, boats, row, 'boat');
        await areasOf(tx, written.row);
        return written;
      }),
    );
  });

  router.put('/jobs/:id', async (req, res) => {
    const row = { ...check<Omit<Job, 'id'>>(jobBody, req.body), id: idOf(req) };
    if (row.inOn !== null && row.inOn < row.outOn) throw new Refusal(422, 'impossible', 'The launch is before the haul-out. Check the two dates.', { field: 'inOn' });
    await getBoat(db, row.boatId);
    res.json(await inOne(db, (tx) => putVersioned(tx, jobs, row, 'haul-out')));
  });

  router.put('/surfaces/:id', async (req, res) => {
    const row = { ...check<Omit<SurfaceDraft, 'id'>>(surfaceBody, req.body), id: idOf(req) };
    const boat = await getBoat(db, row.boatId);
    const written = await inOne(db, async (tx) => {
      await sameBoat(tx, surfaces, row, 'zone');
      await checkParent(tx, row);
      const put = await putVersioned(tx, surfaces, row, 'zone');
      // Refuses an area that cannot be worked out, this zone's or its parent's, before anything is kept.
      return { ...put, areas: await areasOf(tx, boat) };
    });
    res.json({ changed: written.changed, row: written.areas.find((s) => s.id === row.id) ?? written.row });
  });

  router.put('/hulls/:id', async (req, res) => {
    const row = { ...check<Omit<HullRow, 'id'>>(hullBody, req.body), id: idOf(req) };
    const boat = await getBoat(db, row.boatId);
    if (row.offsets) checkOffsets(row.offsets);
    if (row.mesh && !files.has(row.mesh.fileHash)) throw new Refusal(422, 'no_file', 'The mesh file did not arrive. Choose it again.', { field: 'mesh' });
    res.json(
      await inOne(db, async (tx) => {
        await sameBoat(tx, hulls, row, 'hull');
        const [other] = await tx.select().from(hulls).where(eq(hulls.boatId, row.boatId));
        if (other && other.id !== row.id) throw new Refusal(409, 'stale', 'This hull was measured meanwhile. Look at both and keep the one you want.', { current: other });
        const written = await putVersioned(tx, hulls, row, 'hull');
        await areasOf(tx, boat);
        return written;
      }),
    );
  });

  router.put('/build-ups/:id', async (req, res) => {
    const row = { ...check<Omit<BuildUpRow, 'id'>>(buildUpBody, req.body), id: idOf(req) };
    await getBoat(db, row.boatId);
    res.json(await inOne(db, (tx) => putBuildUp(tx, row)));
  });

  router.put('/boats/:id/build-ups', async (req, res) => {
    const boatId = idOf(req);
    const { rows } = check<{ rows: BuildUpRow[] }>(buildUpsBody, req.body);
    await getBoat(db, boatId);
    if (rows.some((row) => row.boatId !== boatId)) throw new Refusal(422, 'impossible', 'A build-up of another boat is among them. Change one boat at a time.');
    res.json(
      await inOne(db, async (tx) => {
        const written = [];
        for (const row of rows) written.push((await putBuildUp(tx, row)).row);
        return { rows: written };
      }),
    );
  });

  router.put('/borders/:id', async (req, res) => {
    const row = { ...check<Omit<BorderRow, 'id'>>(borderBody, req.body), id: idOf(req) };
    await getBoat(db, row.boatId);
    if (row.upperId === row.lowerId) throw new Refusal(422, 'impossible', 'A border lies between two zones. Choose another one.', { field: 'lowerId' });
    res.json(
      await inOne(db, async (tx) => {
        await sameBoat(tx, borders, row, 'border');
        const found = row.deleted ? [] : await tx.select({ id: surfaces.id }).from(surfaces).where(and(eq(surfaces.boatId, row.boatId), eq(surfaces.deleted, false), inArray(surfaces.id, [row.upperId, row.lowerId])));
        if (!row.deleted && found.length < 2) throw notFound('zone');
        return putVersioned(tx, borders, row, 'border');
      }),
    );
  });

  router.put('/boats/:id/typed-weather/:issueId', async (req, res) => {
    const boatId = idOf(req);
    const issueId = idIn(req.params.issueId);
    const { days } = check<{ days: TypedDayRow[] }>(typedDaysBody, req.body);
    const boat = await getBoat(db, boatId);
    await putTypedWeather(db, boat, issueId, days, clock.now());
    res.json({ ok: true });
  });

  return router;
}

/** The coats of one zone; a zone has one build-up for good. */
async function putBuildUp(db: Db, row: BuildUpRow): Promise<{ row: BuildUpRow; changed: boolean }> {
  const [surface] = await db.select().from(surfaces).where(eq(surfaces.id, row.surfaceId));
  if (!surface || surface.boatId !== row.boatId) throw notFound('zone');
  const [other] = await db.select().from(buildUps).where(eq(buildUps.surfaceId, row.surfaceId));
  if (other && other.id !== row.id) throw new Refusal(409, 'stale', 'This zone has a build-up already. Look at both and keep the one you want.', { current: other });
  await checkLayerSheets(db, row.layers, other?.layers);
  return putVersioned(db, buildUps, row, 'build-up');
}

/** A row cannot move to another boat. */
async function sameBoat(db: Db, table: typeof surfaces | typeof hulls | typeof borders, row: { id: string; boatId: string }, what: string): Promise<void> {
  const [found] = await db.select({ boatId: table.boatId }).from(table).where(eq(table.id, row.id));
  if (found && found.boatId !== row.boatId) throw new Refusal(422, 'impossible', `This ${what} belongs to another boat.`);
}

/** A patch lies on a zone of the same boat, one deep. */
async function checkParent(db: Db, row: SurfaceDraft): Promise<void> {
  if ((row.parentId === null) !== (row.patchKind === null)) throw new Refusal(422, 'impossible', 'A patch needs both its zone and its kind. Choose them.', { field: 'patchKind' });
  if (row.parentId === null || row.deleted) return;
  const [parent] = await db.select().from(surfaces).where(and(eq(surfaces.id, row.parentId), eq(surfaces.boatId, row.boatId), eq(surfaces.deleted, false)));
  if (!parent) throw notFound('zone');
  if (parent.parentId !== null || parent.id === row.id) throw new Refusal(422, 'impossible', 'A patch cannot lie on another patch. Choose the zone beneath.', { field: 'parentId' });
}

/** All areas of a boat as they are now. @throws RangeError, told as 422, where one cannot be worked out any more */
async function areasOf(db: Db, boat: Boat) {
  return boat.deleted ? [] : withAreas(await getSurfaces(db, boat.id), boat, await getHull(db, boat.id));
}

function inOne<T>(db: Db, work: (tx: Db) => Promise<T>): Promise<T> {
  return db.transaction((tx) => work(tx as unknown as Db));
}
