import { eq } from 'drizzle-orm';
import { DateTime } from 'luxon';
import { type CoatTarget, type LogEntry, type MixedBody, type NewEntry, LOG_KINDS } from '#core/model/log';
import { checkAppend } from '#core/coat/append';

import { blockingWork } from '#core/coat/zoneState';
import { ratioProblem } from '#core/sheet/useRatio';
import type { SheetBody, SheetRevision } from '#core/model/sheet';
import type { BuildUpRow, SurfaceDraft } from '#contracts/rows/boat';
import { notFound, Refusal } from '../errors';
import type { BoatRows } from './boatCache';
import { getBoatRows } from './boats';
import { sheetRevisions } from './schema';
import type { Store, Writing } from './store';
import { same } from './versioned';

/** Times in the future are refused; a clock may be a little off. */
const AHEAD_MS = 5 * 60_000;

/**
 * Add one entry to the log. The same entry sent twice is one entry.
 * @throws Refusal 404, 409 for another entry under the same id, 422 when it cannot have happened
 */
export function appendEntry(store: Store, entry: NewEntry, now: number): Promise<LogEntry> {
  return store.write((tx) => decide(store, tx, entry, now));
}

async function decide(store: Store, tx: Writing, entry: NewEntry, now: number): Promise<LogEntry> {
  const boat = await getBoatRows(tx, entry.boatId);
  const sent = boat.entries.find((e) => e.id === entry.id);
  if (sent) {
    const { recordedAt: _recordedAt, ...before } = sent;
    if (same(before, entry)) return sent;
    throw new Refusal(409, 'id_taken', 'Another entry already has this id. Reload and try again.');
  }
  if (!LOG_KINDS[entry.kind].includes(entry.stream))
    throw new Refusal(422, 'impossible', `A ${entry.kind} entry does not belong to a ${entry.stream}.`);
  if (entry.occurredAt > now + AHEAD_MS) throw tooEarly(store, entry.occurredAt, now, boat.boat.timeZone);
  const written = { ...entry, recordedAt: now } as LogEntry;
  checkAppend(boat.entries, written);
  // A corrected time must not be refused because the build-up has moved on since.
  const old = boat.entries.find((e) => e.id === written.supersedes);
  const targets = (e: LogEntry | undefined) =>
    e?.kind === 'started' || e?.kind === 'mixed' ? [e.body.on, e.body.sheetRevisionId] : null;
  let sheet = boat.sheets.find((s) => written.kind === 'mixed' && s.id === written.body.sheetRevisionId)?.body;
  if ((written.kind === 'started' || written.kind === 'mixed') && !same(targets(old), targets(written))) {
    const checked = await checkTargets(tx, boat, written.body.on, written.body.sheetRevisionId);
    sheet = checked.sheet;
    if (written.kind === 'started' && !old && written.body.overrideReason === null) refuseOpenWork(checked.zones);
  }
  // Of a batch that was so before, a corrected time is not the moment to ask.
  const pouredAnew = written.kind === 'mixed' && !(old?.kind === 'mixed' && same(old.body.parts, written.body.parts));
  if (pouredAnew && sheet) refuseOffRatio(sheet, written.body);
  if (written.stream === 'zone') zonesOf(boat, [written.streamId]);
  if (written.stream === 'boat' && written.streamId !== written.boatId) throw notFound('boat');
  if (written.kind === 'standsMoved') zonesOf(boat, [...written.body.freed, ...written.body.now]);
  await tx.add('entries', written);
  return written;
}

/** An entry from a time to come: its clock is wrong, or, where the last change came later than now, the server's. */
function tooEarly({ journal }: Store, at: number, now: number, zone: string): Refusal {
  const words = (instant: number) => DateTime.fromMillis(instant, { zone }).toFormat('d LLLL yyyy HH:mm');
  const { lastAt } = journal;
  if (lastAt !== null && lastAt > now + AHEAD_MS)
    return new Refusal(
      503,
      'clock_behind',
      `The clock of the server stands at ${words(now)}, before its last entry of ${words(lastAt)}. Set it right: what waits is sent then.`,
    );
  return new Refusal(
    422,
    'future',
    `This time has not come yet: it says ${words(at)}, and it is ${words(now)} by the server’s clock. Check the date and time.`,
    { field: 'occurredAt' },
  );
}

interface Zone {
  readonly surface: SurfaceDraft;
  readonly build: BuildUpRow | undefined;
}

/** This boat's zones of the given ids, each with its build-up. @throws Refusal 404 when one is not there */
function zonesOf(boat: BoatRows, ids: readonly string[]): Zone[] {
  return ids.map((id) => {
    const surface = boat.surfaces.find((s) => s.id === id);
    if (!surface) throw notFound('zone');
    return { surface, build: boat.buildUps.find((b) => b.surfaceId === id) };
  });
}

/** Paint waits for repairs, unless someone says in writing why not. */
function refuseOpenWork(zones: readonly Zone[]): void {
  const held = zones.find(({ surface }) => blockingWork(surface).length > 0);
  if (held)
    throw new Refusal(
      422,
      'open_work',
      `${held.surface.name} has open work. Mark it done under Hull, or write why the coat goes on all the same.`,
      { field: 'overrideReason' },
    );
}

/** Every zone of a stint must be this boat's, have the layer in its build-up, and the layer's product must be the one poured. */
async function checkTargets(
  tx: Writing,
  boat: BoatRows,
  targets: readonly CoatTarget[],
  revisionId: string,
): Promise<{ zones: Zone[]; sheet: SheetBody }> {
  const zones = zonesOf(
    boat,
    targets.map((t) => t.surfaceId),
  );
  const layers = zones.map(({ surface, build }, i) => {
    if (!build || build.layers.length === 0)
      throw new Refusal(422, 'no_build_up', `${surface.name} has no build-up yet. Add its coats under Film first.`);
    const layer = build.layers.find((l) => l.id === targets[i]?.layerId);
    if (!layer)
      throw new Refusal(
        422,
        'no_layer',
        `This coat is no longer in the build-up of ${surface.name}. Choose the coat again.`,
      );
    return layer;
  });
  const poured =
    boat.sheets.find((s) => s.id === revisionId) ??
    (await tx.db.select().from(sheetRevisions).where(eq(sheetRevisions.id, revisionId)))[0];
  if (!poured) throw notFound('data sheet');
  layers.forEach((layer, i) => {
    const planned: SheetRevision | undefined = boat.sheets.find((s) => s.id === layer.sheetRevisionId);
    if (planned && planned.sheetId !== poured.sheetId) {
      throw new Refusal(
        422,
        'other_product',
        `${zones[i]?.surface.name} has ${planned.body.name} planned here, not ${poured.body.name}. Change the build-up under Film first.`,
      );
    }
  });
  return { zones, sheet: poured.body };
}

/** A ratio outside its tolerance is mixed with a reason in writing, or for a use that the sheet names. */
function refuseOffRatio(sheet: SheetBody, batch: MixedBody): void {
  const problem = ratioProblem({ sheet, batch });
  if (problem) throw new Refusal(422, 'off_ratio', problem, { field: 'ratioReason' });
}
