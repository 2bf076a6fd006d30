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
      this.keep(boatId, reading);
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

  /** Read those of these boats that are not kept, some at a time. */
  async fetch(boatIds: readonly string[], pause: () => Promise<void>): Promise<void> {
    const lacking = boatIds.filter((id) => !this.kept.has(id));
    if (lacking.length < 2) return;
    for (let i = 0; i < lacking.length; i += TOGETHER) {
      await pause();
      const some = lacking.slice(i, i + TOGETHER).filter((id) => !this.kept.has(id));
      const reading = readBoats(this.db, some);
      for (const id of some)
        this.keep(
          id,
          reading.then((read) => read.get(id) ?? null),
        );
      // Whoever asks for one of them hears of it.
      await reading.catch(() => undefined);
    }
  }

  private keep(boatId: string, reading: Promise<BoatRows | null>): void {
    this.kept.set(boatId, reading);
    reading.then(
      (read) => this.keptNow(boatId, reading, read),
      () => this.kept.get(boatId) === reading && this.kept.delete(boatId),
    );
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
  (await db.select({ id: boats.id }).from(boats).where(eq(boats.deleted, false)).orderBy(boats.name, boats.id)).map(
    (b) => b.id,
  );

const LOG_PAGE = 10_000;
/** So many boats are read together: each question costs about the same for one as for all of them. */
const TOGETHER = 8;

/**
 * Logs of boats in the order they were written. They are the long lists of a yard: the database writes them out as text at
 * once, field by field they take many times as long.
 */
async function readLogs(db: Db, boatIds: readonly string[]): Promise<Map<string, LogEntry[]>> {
  const logs = new Map<string, LogEntry[]>(boatIds.map((id) => [id, []]));
  const told = sql`'["' || id || '","' || stream || '","' || stream_id || '",' || to_json(kind) || ',' || occurred_at || ',' || recorded_at || ',' || to_json(painter) || ',' || to_json(device) || ',' || coalesce('"' || supersedes || '"', 'null') || ',' || body::text || ']'`;
  for (let after = 0; ;) {
    const page = sql`select * from ${entries} where ${inArray(entries.boatId, [...boatIds])} and ${entries.seq} > ${after} order by ${entries.seq} limit ${LOG_PAGE}`;
    const parts = await rawRows<{ boat: string; log: string; last: number }>(
      db,
      sql`select boat_id as boat, '[' || string_agg(${told}, ',' order by seq) || ']' as log, max(seq)::float8 as last from (${page}) e group by boat_id`,
    );
    let read = 0;
    for (const { boat, log, last } of parts) {
      const rows = JSON.parse(log) as EntryRow[];
      for (const row of rows) logs.get(boat)?.push(entryOf(boat, row));
      read += rows.length;
      after = Math.max(after, last);
    }
    if (read < LOG_PAGE) return logs;
  }
}

type EntryRow = readonly [
  id: string,
  stream: string,
  streamId: string,
  kind: string,
  occurredAt: number,
  recordedAt: number,
  painter: string,
  device: string,
  supersedes: string | null,
  body: unknown,
];

function entryOf(boatId: string, row: EntryRow): LogEntry {
  const [id, stream, streamId, kind, occurredAt, recordedAt, painter, device, supersedes, body] = row;
  return { id, boatId, stream, streamId, kind, occurredAt, recordedAt, painter, device, supersedes, body } as LogEntry;
}

const readBoat = async (all: Db, boatId: string): Promise<BoatRows | null> =>
  (await readBoats(all, [boatId])).get(boatId) ?? null;

/** Boats that are not removed, by their ids, each as of one moment. */
const readBoats = (all: Db, boatIds: readonly string[]): Promise<Map<string, BoatRows>> =>
  snapshot(all, (db) => readBoatsIn(db, boatIds));

function grouped<Row extends { boatId: string }>(rows: readonly Row[]): (boatId: string) => Row[] {
  const groups = new Map<string, Row[]>();
  for (const row of rows) {
    const group = groups.get(row.boatId);
    if (group) group.push(row);
    else groups.set(row.boatId, [row]);
  }
  return (boatId) => groups.get(boatId) ?? [];
}

async function readBoatsIn(db: Db, wanted: readonly string[]): Promise<Map<string, BoatRows>> {
  const found = await db
    .select()
    .from(boats)
    .where(and(inArray(boats.id, [...wanted]), eq(boats.deleted, false)));
  if (found.length === 0) return new Map();
  const ids = found.map((b) => b.id);
  const of = <T extends typeof jobs | typeof hulls | typeof buildUps | typeof borders>(table: T) =>
    and(inArray(table.boatId, ids), eq(table.deleted, false));
  const jobsOf = grouped(await db.select().from(jobs).where(of(jobs)).orderBy(asc(jobs.outOn)));
  const hullsOf = grouped(await db.select().from(hulls).where(of(hulls)));
  const zonesOf = grouped(
    await db.select().from(surfaces).where(inArray(surfaces.boatId, ids)).orderBy(asc(surfaces.sort), asc(surfaces.id)),
  );
  const builtOf = grouped(await db.select().from(buildUps).where(of(buildUps)).orderBy(asc(buildUps.id)));
  const bordersOf = grouped(await db.select().from(borders).where(of(borders)).orderBy(asc(borders.id)));
  const [rules] = await db
    .select({ workFromMin: yardRules.workFromMin, workToMin: yardRules.workToMin, drying: yardRules.drying })
    .from(yardRules);
  const logs = await readLogs(db, ids);
  const typedOf = grouped(
    await db
      .select()
      .from(typedForecasts)
      .where(
        and(
          inArray(typedForecasts.boatId, ids),
          sql`${typedForecasts.issuedAt} >= (select max(t.issued_at) from typed_forecasts t where t.boat_id = ${typedForecasts.boatId}) - ${TYPED_KEPT_MS}`,
        ),
      )
      .orderBy(asc(typedForecasts.issuedAt)),
  );
  const placesOf = grouped(await db.select().from(pastPlaces).where(inArray(pastPlaces.boatId, ids)));
  const usedBy = new Map(
    ids.map((id) => [
      id,
      new Set([
        ...builtOf(id).flatMap((b) => b.layers.map((l) => l.sheetRevisionId)),
        ...(logs.get(id) ?? []).flatMap((e) =>
          e.kind === 'started' || e.kind === 'mixed' ? [e.body.sheetRevisionId] : [],
        ),
      ]),
    ]),
  );
  const used = [...new Set([...usedBy.values()].flatMap((set) => [...set]))];
  const revisions =
    used.length === 0 ? [] : await db.select().from(sheetRevisions).where(inArray(sheetRevisions.id, used));
  return new Map(
    found.map((boat): [string, BoatRows] => {
      const zones = zonesOf(boat.id).filter((z) => !z.deleted);
      const there = new Set(zones.map((z) => z.id));
      return [
        boat.id,
        {
          boat,
          jobs: jobsOf(boat.id),
          hull: hullsOf(boat.id)[0] ?? null,
          removedZones: zonesOf(boat.id)
            .filter((z) => z.deleted)
            .map(({ id, name }) => ({ id, name })),
          surfaces: zones.filter((z) => z.parentId === null || there.has(z.parentId)),
          buildUps: builtOf(boat.id),
          workday: rules ?? USUAL_RULES,
          borders: bordersOf(boat.id).filter((b) => there.has(b.upperId) && there.has(b.lowerId)),
          entries: logs.get(boat.id) ?? [],
          sheets: revisions.filter((r) => usedBy.get(boat.id)?.has(r.id)),
          typed: typedOf(boat.id),
          pastPlaces: placesOf(boat.id),
        },
      ];
    }),
  );
}
