import { and, asc, eq, inArray, or } from 'drizzle-orm';
import type { CoatTarget, LogEntry, NewEntry } from '#core/coat/events';
import { LOG_KINDS } from '#core/coat/events';
import { checkAppend } from '#core/coat/fold';
import { blockingWork } from '#core/coat/zoneStatus';
import { notFound, Refusal } from '../errors';
import { getBoat } from './boats';
import type { Db } from './open';
import { buildUps, entries, sheetRevisions, surfaces } from './schema';
import { same } from './versioned';

/** Nobody has painted in the future; a clock may be a little off. */
const AHEAD_MS = 5 * 60_000;

/**
 * Add one entry to the log. The same entry sent twice is one entry.
 * @throws Refusal 404, 409 for another entry under the same id, 422 when it cannot have happened
 */
export async function appendEntry(db: Db, entry: NewEntry, now: number): Promise<LogEntry> {
  return db.transaction(async (tx) => {
    const inTx = tx as unknown as Db;
    // What was logged of the same thing, and what may have come under the same id, in one look.
    const found = await tx.select().from(entries).where(or(eq(entries.id, entry.id), and(eq(entries.boatId, entry.boatId), eq(entries.streamId, entry.streamId)))).orderBy(asc(entries.seq));
    const log = found.map(({ seq: _seq, ...e }) => e as LogEntry);
    const sent = log.find((e) => e.id === entry.id);
    if (sent) {
      const { recordedAt: _recordedAt, ...before } = sent;
      if (same(before, entry)) return sent;
      throw new Refusal(409, 'id_taken', 'Another entry already has this id. Reload and try again.');
    }
    if (!LOG_KINDS[entry.kind].includes(entry.stream)) throw new Refusal(422, 'impossible', `A ${entry.kind} entry does not belong to a ${entry.stream}.`);
    if (entry.occurredAt > now + AHEAD_MS) throw new Refusal(422, 'future', 'This time has not come yet. Check the date and time.', { field: 'occurredAt' });
    await getBoat(inTx, entry.boatId);
    const written = { ...entry, recordedAt: now } as LogEntry;
    checkAppend(log, written);
    // A corrected time must not be refused because the build-up has moved on since.
    const old = log.find((e) => e.id === written.supersedes);
    const targets = (e: LogEntry | undefined) => (e?.kind === 'started' || e?.kind === 'mixed' ? [e.body.on, e.body.sheetRevisionId] : null);
    if ((written.kind === 'started' || written.kind === 'mixed') && !same(targets(old), targets(written))) {
      const zones = await checkTargets(inTx, written.boatId, written.body.on, written.body.sheetRevisionId);
      if (written.kind === 'started' && !old && written.body.overrideReason === null) refuseOpenWork(zones);
    }
    if (written.stream === 'zone') await zonesOf(inTx, written.boatId, [written.streamId]);
    await tx.insert(entries).values(written);
    return written;
  });
}

/** This boat's zones of the given ids, each with its build-up. @throws Refusal 404 when one is not there */
async function zonesOf(db: Db, boatId: string, ids: readonly string[]) {
  const rows = await db
    .select({ surface: surfaces, build: buildUps })
    .from(surfaces)
    .leftJoin(buildUps, and(eq(buildUps.surfaceId, surfaces.id), eq(buildUps.deleted, false)))
    .where(and(inArray(surfaces.id, [...ids]), eq(surfaces.boatId, boatId), eq(surfaces.deleted, false)));
  const byId = new Map(rows.map((r) => [r.surface.id, r]));
  return ids.map((id) => {
    const row = byId.get(id);
    if (!row) throw notFound('zone');
    return row;
  });
}

type Zones = Awaited<ReturnType<typeof zonesOf>>;

/** Paint waits for repairs, unless someone says in writing why not. */
function refuseOpenWork(zones: Zones): void {
  const held = zones.find(({ surface }) => blockingWork(surface).length > 0);
  if (held) throw new Refusal(422, 'open_work', `${held.surface.name} has open work. Mark it done under Hull, or write why the coat goes on all the same.`, { field: 'overrideReason' });
}

/** Every zone of a stint must be this boat's, have the layer in its build-up, and the layer's product must be the one poured. */
async function checkTargets(db: Db, boatId: string, targets: readonly CoatTarget[], revisionId: string): Promise<Zones> {
  const zones = await zonesOf(db, boatId, targets.map((t) => t.surfaceId));
  const layers = zones.map(({ surface, build }, i) => {
    if (!build || build.layers.length === 0) throw new Refusal(422, 'no_build_up', `${surface.name} has no build-up yet. Add its coats under Film first.`);
    const layer = build.layers.find((l) => l.id === targets[i]?.layerId);
    if (!layer) throw new Refusal(422, 'no_layer', `This coat is no longer in the build-up of ${surface.name}. Choose the coat again.`);
    return layer;
  });
  const revisions = await db.select({ id: sheetRevisions.id, sheetId: sheetRevisions.sheetId, body: sheetRevisions.body }).from(sheetRevisions).where(inArray(sheetRevisions.id, [revisionId, ...layers.map((l) => l.sheetRevisionId)]));
  const byId = new Map(revisions.map((r) => [r.id, r]));
  const poured = byId.get(revisionId);
  if (!poured) throw notFound('data sheet');
  layers.forEach((layer, i) => {
    const planned = byId.get(layer.sheetRevisionId);
    if (planned && planned.sheetId !== poured.sheetId) {
      throw new Refusal(422, 'other_product', `${zones[i]?.surface.name} has ${planned.body.name} planned here, not ${poured.body.name}. Change the build-up under Film first.`);
    }
  });
  return zones;
}
