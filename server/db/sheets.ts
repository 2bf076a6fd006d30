import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { sheetProblems } from '#core/sheet/problems';
import type { SheetBody, SheetRevision } from '#core/model/sheet';
import type { SheetRow } from '#contracts/rows/sheet';
import type { Layer } from '#core/model/layer';
import { notFound, Refusal } from '../errors';
import type { Db } from './database';
import { boats, buildUps, entries, lots, namedBuildUps, sheetRevisions, sheets, surfaces } from './schema';
import type { Store, Writing } from './store';
import { same } from './versioned';

/** All sheets, each with its newest revision, by name. */
export async function listSheets(db: Db): Promise<SheetRow[]> {
  const rows = await db.select().from(sheets).where(eq(sheets.deleted, false));
  const revisions = await db.select().from(sheetRevisions).orderBy(asc(sheetRevisions.revision));
  const built = await db.select({ layers: buildUps.layers }).from(buildUps).where(eq(buildUps.deleted, false));
  const sheetOf = new Map(revisions.map((r) => [r.id, r.sheetId]));
  const uses = new Map<string, number>();
  for (const { layers } of built) {
    for (const sheetId of new Set(layers.map((l) => sheetOf.get(l.sheetRevisionId))))
      if (sheetId) uses.set(sheetId, (uses.get(sheetId) ?? 0) + 1);
  }
  return rows
    .flatMap((row) => {
      const current = revisions.findLast((r) => r.sheetId === row.id);
      return current
        ? [{ id: row.id, withdrawn: row.withdrawn, version: row.version, current, usedOn: uses.get(row.id) ?? 0 }]
        : [];
    })
    .sort((a, b) => a.current.body.name.localeCompare(b.current.body.name));
}

/** One sheet with all its revisions, newest first. @throws Refusal 404 */
export async function getSheet(db: Db, sheetId: string): Promise<SheetRow & { revisions: SheetRevision[] }> {
  const row = (await listSheets(db)).find((s) => s.id === sheetId);
  if (!row) throw notFound('data sheet');
  const revisions = await db
    .select()
    .from(sheetRevisions)
    .where(eq(sheetRevisions.sheetId, sheetId))
    .orderBy(desc(sheetRevisions.revision));
  return { ...row, revisions };
}

export interface SheetChange {
  revisionId: string;
  body: SheetBody;
  withdrawn: boolean;
  deleted: boolean;
  version: number;
}

/**
 * Save a sheet: a changed body becomes its next revision, coats logged under an older one keep that.
 * @throws Refusal 404, 409 when it was changed meanwhile, 422 when its figures contradict each other or it is removed while in use
 */
export async function putSheet(store: Store, sheetId: string, change: SheetChange, now: number): Promise<SheetRow> {
  refuseContradiction(change.body);
  return store.write(async (tx) => {
    const { db } = tx;
    const [row] = await db.select().from(sheets).where(eq(sheets.id, sheetId));
    const [latest] = await db
      .select()
      .from(sheetRevisions)
      .where(eq(sheetRevisions.sheetId, sheetId))
      .orderBy(desc(sheetRevisions.revision))
      .limit(1);
    const answer = (version: number, current: SheetRevision): SheetRow => ({
      id: sheetId,
      withdrawn: change.withdrawn,
      version,
      current,
      usedOn: 0,
    });
    if (!row || !latest) {
      if (change.version !== 0) throw notFound('data sheet');
      return answer(1, await addSheet(tx, { id: sheetId, ...change }, now));
    }
    const unchanged = same(latest.body, change.body);
    if (row.version !== change.version) {
      const repeated =
        row.version === change.version + 1 &&
        unchanged &&
        row.withdrawn === change.withdrawn &&
        row.deleted === change.deleted;
      if (repeated) return answer(row.version, latest);
      throw new Refusal(
        409,
        'stale',
        'This data sheet was changed meanwhile. Look at both and keep the one you want.',
        { current: { ...row, current: latest } },
      );
    }
    if (change.deleted && !row.deleted) await refuseInUse(db, sheetId, change.body.name);
    await tx.put('sheets', {
      id: sheetId,
      withdrawn: change.withdrawn,
      deleted: change.deleted,
      version: row.version + 1,
    });
    if (unchanged) return answer(row.version + 1, latest);
    return answer(
      row.version + 1,
      await addRevision(tx, {
        id: change.revisionId,
        sheetId,
        revision: latest.revision + 1,
        body: change.body,
        createdAt: now,
      }),
    );
  });
}

/** @throws Refusal 409 where another sheet has this revision */
async function addRevision(tx: Writing, revision: SheetRevision): Promise<SheetRevision> {
  const [taken] = await tx.db
    .select({ id: sheetRevisions.id })
    .from(sheetRevisions)
    .where(eq(sheetRevisions.id, revision.id));
  if (taken) throw new Refusal(409, 'id_taken', 'Another revision already has this id. Reload and try again.');
  await tx.add('sheetRevisions', revision);
  return revision;
}

function refuseContradiction(body: SheetBody, name = ''): void {
  const problem = sheetProblems(body).find((p) => p.severity === 'stop');
  if (problem) throw new Refusal(422, 'contradiction', `${name}${problem.message}`, { field: problem.field });
}

async function addSheet(
  tx: Writing,
  sheet: { id: string; revisionId: string; body: SheetBody; withdrawn?: boolean; deleted?: boolean },
  now: number,
): Promise<SheetRevision> {
  await tx.add('sheets', {
    id: sheet.id,
    withdrawn: sheet.withdrawn ?? false,
    deleted: sheet.deleted ?? false,
    version: 1,
  });
  return addRevision(tx, { id: sheet.revisionId, sheetId: sheet.id, revision: 1, body: sheet.body, createdAt: now });
}

/** Where a sheet is used, in words; empty where it is not. */
async function usesOf(db: Db, sheetId: string): Promise<string[]> {
  const revisions = await db
    .select({ id: sheetRevisions.id })
    .from(sheetRevisions)
    .where(eq(sheetRevisions.sheetId, sheetId));
  const own = new Set(revisions.map((r) => r.id));
  const has = (layers: readonly Layer[]) => layers.some((l) => own.has(l.sheetRevisionId));
  const built = await db
    .select({ boat: boats.name, zone: surfaces.name, layers: buildUps.layers })
    .from(buildUps)
    .innerJoin(surfaces, eq(surfaces.id, buildUps.surfaceId))
    .innerJoin(boats, eq(boats.id, buildUps.boatId))
    .where(and(eq(buildUps.deleted, false), eq(surfaces.deleted, false), eq(boats.deleted, false)));
  const named = await db
    .select({ name: namedBuildUps.name, layers: namedBuildUps.layers })
    .from(namedBuildUps)
    .where(eq(namedBuildUps.deleted, false));
  const logged = await db
    .select({ boat: boats.name, body: entries.body })
    .from(entries)
    .innerJoin(boats, eq(boats.id, entries.boatId))
    .where(inArray(entries.kind, ['started', 'mixed']));
  const shelf = await db
    .select({ id: lots.id })
    .from(lots)
    .where(and(eq(lots.sheetId, sheetId), eq(lots.deleted, false)));
  return [
    ...built.filter((b) => has(b.layers)).map((b) => `${b.zone} of ${b.boat}`),
    ...new Set(
      logged
        .filter((e) => 'sheetRevisionId' in e.body && own.has(e.body.sheetRevisionId))
        .map((e) => `the record of ${e.boat}`),
    ),
    ...named.filter((n) => has(n.layers)).map((n) => `the build-up "${n.name}"`),
    ...(shelf.length > 0 ? [shelf.length === 1 ? 'a tin on the shelf' : `${shelf.length} tins on the shelf`] : []),
  ];
}

const NAMED_MOST = 4;

async function refuseInUse(db: Db, sheetId: string, name: string): Promise<void> {
  const uses = await usesOf(db, sheetId);
  if (uses.length === 0) return;
  const more = uses.length - NAMED_MOST;
  throw new Refusal(
    422,
    'in_use',
    `${name} is in use: ${uses.slice(0, NAMED_MOST).join(', ')}${more > 0 ? ` and ${more} more` : ''}. Withdraw it instead: it stays where it is and goes nowhere new.`,
  );
}

/**
 * Take many sheets in, all or none; those that are here already stay as they are. Or take them back, where nothing uses them.
 * @returns how many were written
 */
export async function importSheets(
  store: Store,
  { taken, sheets: list }: { taken: boolean; sheets: readonly { id: string; revisionId: string; body: SheetBody }[] },
  now: number,
): Promise<number> {
  for (const sheet of list) refuseContradiction(sheet.body, `${sheet.body.name}: `);
  if (new Set(list.map((s) => s.revisionId)).size < list.length)
    throw new Refusal(409, 'id_taken', 'Two of these sheets have one revision id. Choose the file again.');
  return store.write(async (tx) => {
    const found = await tx.db
      .select()
      .from(sheets)
      .where(
        inArray(
          sheets.id,
          list.map((s) => s.id),
        ),
      );
    let written = 0;
    for (const sheet of list) {
      const row = found.find((f) => f.id === sheet.id);
      if (taken && !row) await addSheet(tx, sheet, now);
      else if (row && row.deleted === taken) {
        if (!taken) await refuseInUse(tx.db, sheet.id, sheet.body.name);
        await tx.put('sheets', { ...row, deleted: !taken, version: row.version + 1 });
      } else continue;
      written += 1;
    }
    return written;
  });
}

/**
 * Layers may only name sheets that are here; a withdrawn one only where it stood before.
 * @throws Refusal 404, 422
 */
export async function checkLayerSheets(db: Db, layers: readonly Layer[], before: readonly Layer[] = []): Promise<void> {
  const kept = new Set(before.map((l) => l.sheetRevisionId));
  const wanted = [...new Set(layers.map((l) => l.sheetRevisionId))].filter((id) => !kept.has(id));
  if (wanted.length === 0) return;
  const rows = await db
    .select()
    .from(sheetRevisions)
    .innerJoin(sheets, eq(sheets.id, sheetRevisions.sheetId))
    .where(inArray(sheetRevisions.id, wanted));
  if (rows.length < wanted.length || rows.some((r) => r.sheets.deleted)) throw notFound('data sheet');
  const withdrawn = rows.find((r) => r.sheets.withdrawn);
  if (withdrawn)
    throw new Refusal(
      422,
      'withdrawn',
      `${withdrawn.sheet_revisions.body.name} was withdrawn. Choose another sheet, or bring it back under Sheets.`,
    );
}
