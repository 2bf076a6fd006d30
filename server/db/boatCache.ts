import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { LogEntry } from '#core/model/log';
import type { SheetRevision } from '#core/model/sheet';
import type { Boat, BuildUpRow, HullRow, Job, SurfaceDraft } from '#contracts/rows/boat';
import { USUAL_RULES, type YardRules } from '#contracts/rows/stores';
import type { BorderRow } from '#contracts/rows/system';
import { rawRows, snapshot } from './open';
import type { Db } from './database';
import { connectionBroke } from '../errors';
import { TYPED_KEPT_MS, type PastPlace, type TypedForecast } from '../weather';
import {
  boats,
  borders,
  buildUps,
  entries,
  hulls,
  jobs,
  pastPlaces,
  sheetRevisions,
  surfaces,
  typedForecasts,
  yardRules,
} from './schema';
import type { Op } from './ops';

/** Everything stored about one boat that is not removed; no list is ever changed in place. */
export interface BoatRows {
  readonly boat: Boat;
  readonly jobs: readonly Job[];
  readonly hull: HullRow | null;
  /** Zones and patches in their order. A patch is gone with its zone, and back with it. */
  readonly surfaces: readonly SurfaceDraft[];
  readonly removedZones: readonly { id: string; name: string }[];
  readonly buildUps: readonly BuildUpRow[];
  readonly borders: readonly BorderRow[];
  /** The yard's working day, minutes after midnight. */
  readonly workday: Pick<YardRules, 'workFromMin' | 'workToMin' | 'drying'>;
  /** The log in the order it was written. */
  readonly entries: readonly LogEntry[];
  /** Revisions that build-ups name and coats were logged under. */
  readonly sheets: readonly SheetRevision[];
  /** Forecasts that were typed for her, those that still count, in order. */
  readonly typed: readonly TypedForecast[];
  readonly pastPlaces: readonly PastPlace[];
}

/** Logs kept in memory, entries of all boats together: a big yard's, some hundred megabytes at most. */
const ENTRIES_MOST = 150_000;

/**
 * Boats as they are stored, read once and kept until something of them is written. This process alone writes to the
 * database, so what is kept is never behind.
 */
export class BoatCache {
  private readonly kept = new Map<string, Promise<BoatRows | null>>();
  private readonly sizes = new Map<string, number>();
  /** Boats and their list as they were known last: what is told while the database is away. */
  private known = new Map<string, Promise<BoatRows | null>>();
  private ids: Promise<readonly string[]> | null = null;
  private knownIds: Promise<readonly string[]> | null = null;

  constructor(private readonly db: Db) {}

  /** One boat; null when there is none, or it was removed. */
  get(boatId: string): Promise<BoatRows | null> {
    let rows = this.kept.get(boatId);
    if (!rows) {
      const reading = readBoat(this.db, boatId);
      this.kept.set(boatId, reading);
      reading.then(
        (read) => this.keptNow(boatId, reading, read),
        () => this.kept.get(boatId) === reading && this.kept.delete(boatId),
      );
      const known = this.known.get(boatId);
      rows = reading.catch((error: unknown) => {
        if (known && connectionBroke(error)) return known;
        throw error;
      });
    } else {
      // The one asked for last is the last to be dropped.
      this.kept.delete(boatId);
      this.kept.set(boatId, rows);
    }
    return rows;
  }

  /** All boats that are not removed, by name. */
  list(): Promise<readonly string[]> {
    if (this.ids) return this.ids;
    const reading = readIds(this.db);
    this.ids = reading;
    reading.catch(() => this.ids === reading && (this.ids = null));
    const known = this.knownIds;
    return reading.catch((error: unknown) => {
      if (known && connectionBroke(error)) return known;
      throw error;
    });
  }

  private keptNow(boatId: string, reading: Promise<BoatRows | null>, read: BoatRows | null): void {
    if (this.kept.get(boatId) !== reading) return;
    if (read === null) {
      this.kept.delete(boatId);
      return;
    }
    this.sizes.set(boatId, read.entries.length);
    let all = [...this.sizes.values()].reduce((sum, n) => sum + n, 0);
    for (const oldest of [...this.kept.keys()]) {
      if (all <= ENTRIES_MOST || oldest === boatId) break;
      all -= this.sizes.get(oldest) ?? 0;
      this.drop(oldest);
    }
  }

  /** Rows were written: what is kept of their boats follows. */
  heed(ops: readonly Op[]): void {
    for (const [, table, row] of ops) {
      // The yard's working day is in what is kept of every boat.
      if (table === 'yardRules') this.forget();
      if (table === 'boats') this.ids = null;
      const boatId = (table === 'boats' ? row.id : row.boatId) as string | undefined;
      if (boatId === undefined) continue;
      if (table === 'entries') this.append(boatId, row as unknown as LogEntry);
      else this.drop(boatId);
    }
  }

  private append(boatId: string, entry: LogEntry): void {
    const before = this.kept.get(boatId);
    if (!before) return;
    const revisionId = entry.kind === 'started' || entry.kind === 'mixed' ? entry.body.sheetRevisionId : null;
    this.kept.set(
      boatId,
      before.then((rows) => {
        if (!rows) return null;
        // Read just after it was written: it is in there.
        if (rows.entries.some((e) => e.id === entry.id)) return rows;
        if (revisionId !== null && !rows.sheets.some((s) => s.id === revisionId)) return readBoat(this.db, boatId);
        return { ...rows, entries: [...rows.entries, entry] };
      }),
    );
    this.sizes.set(boatId, (this.sizes.get(boatId) ?? 0) + 1);
  }

  private drop(boatId: string): void {
    this.kept.delete(boatId);
    this.sizes.delete(boatId);
  }

  /** Everything may be different. */
  forget(): void {
    this.kept.clear();
    this.sizes.clear();
    this.ids = null;
    this.known.clear();
    this.knownIds = null;
  }

  /** The line to the database broke in the middle of a change: what is known may be behind, and is told only while nobody can be asked. */
  doubt(): void {
    const [kept, ids] = [new Map(this.kept), this.ids];
    this.forget();
    this.known = kept;
    this.knownIds = ids;
  }
}

const readIds = async (db: Db): Promise<readonly string[]> =>
  (
    await db.select({ id: boats.id }).from(boats).where(eq(boats.deleted, false)).orderBy(boats.name, boats.id)
  ).map((b) => b.id);

const LOG_PAGE = 10_000;

/** A boat's log in the order it was written. It is the long list of a yard: the database writes it out as JSON at once, field by field it takes many times as long. */
async function readLog(db: Db, boatId: string): Promise<LogEntry[]> {
  const log: LogEntry[] = [];
  for (let after = 0; ;) {
    const page = sql`select * from ${entries} where ${entries.boatId} = ${boatId} and ${entries.seq} > ${after} order by ${entries.seq} limit ${LOG_PAGE}`;
    const fields = sql`json_build_object('id', id, 'boatId', boat_id, 'stream', stream, 'streamId', stream_id, 'kind', kind, 'occurredAt', occurred_at, 'recordedAt', recorded_at, 'painter', painter, 'device', device, 'supersedes', supersedes, 'body', body)`;
    const [told] = await rawRows<{ log: string; last: number }>(
      db,
      sql`select coalesce(json_agg(${fields} order by seq), '[]')::text as log, coalesce(max(seq), 0)::float8 as last from (${page}) e`,
    );
    const read = JSON.parse(told?.log ?? '[]') as LogEntry[];
    for (const entry of read) log.push(entry);
    if (read.length < LOG_PAGE) return log;
    after = told?.last ?? after;
  }
}

const readBoat = (all: Db, boatId: string) => snapshot(all, (db) => readBoatIn(db, boatId));

async function readBoatIn(db: Db, boatId: string): Promise<BoatRows | null> {
  const [boat] = await db
    .select()
    .from(boats)
    .where(and(eq(boats.id, boatId), eq(boats.deleted, false)));
  if (!boat) return null;
  const of = <T extends typeof jobs | typeof hulls | typeof surfaces | typeof buildUps | typeof borders>(table: T) =>
    and(eq(table.boatId, boatId), eq(table.deleted, false));
  const jobRows = await db.select().from(jobs).where(of(jobs)).orderBy(asc(jobs.outOn));
  const [hull] = await db.select().from(hulls).where(of(hulls));
  const zones = await db.select().from(surfaces).where(of(surfaces)).orderBy(asc(surfaces.sort), asc(surfaces.id));
  const removedZones = await db
    .select({ id: surfaces.id, name: surfaces.name })
    .from(surfaces)
    .where(and(eq(surfaces.boatId, boatId), eq(surfaces.deleted, true)));
  const built = await db.select().from(buildUps).where(of(buildUps)).orderBy(asc(buildUps.id));
  const borderRows = await db.select().from(borders).where(of(borders)).orderBy(asc(borders.id));
  const [rules] = await db
    .select({ workFromMin: yardRules.workFromMin, workToMin: yardRules.workToMin, drying: yardRules.drying })
    .from(yardRules);
  const log = await readLog(db, boatId);
  const there = new Set(zones.map((z) => z.id));
  const used = [
    ...new Set([
      ...built.flatMap((b) => b.layers.map((l) => l.sheetRevisionId)),
      ...log.flatMap((e) => (e.kind === 'started' || e.kind === 'mixed' ? [e.body.sheetRevisionId] : [])),
    ]),
  ];
  return {
    boat,
    jobs: jobRows,
    hull: hull ?? null,
    removedZones,
    surfaces: zones.filter((z) => z.parentId === null || there.has(z.parentId)),
    buildUps: built,
    workday: rules ?? USUAL_RULES,
    borders: borderRows.filter((b) => there.has(b.upperId) && there.has(b.lowerId)),
    entries: log,
    sheets: used.length === 0 ? [] : await db.select().from(sheetRevisions).where(inArray(sheetRevisions.id, used)),
    typed: await db
      .select()
      .from(typedForecasts)
      .where(
        and(
          eq(typedForecasts.boatId, boatId),
          sql`${typedForecasts.issuedAt} >= (select coalesce(max(issued_at), 0) from typed_forecasts where boat_id = ${boatId}) - ${TYPED_KEPT_MS}`,
        ),
      )
      .orderBy(asc(typedForecasts.issuedAt)),
    pastPlaces: await db.select().from(pastPlaces).where(eq(pastPlaces.boatId, boatId)),
  };
}
