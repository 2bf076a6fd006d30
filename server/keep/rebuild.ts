import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { inArray } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import { DateTime } from 'luxon';
import type { KeptBackup } from '#contracts/rows/keeping';
import { counted } from '#core/units/format';
import { lastChangeOp } from '../db/lastChange';
import { openDb } from '../db/open';
import type { Db } from '../db/database';
import { TABLES, type TableName } from '../db/schema';
import { applyOps, keyIn, keyOf, type Op, type Row } from '../db/ops';
import { same } from '../db/versioned';
import { archiveHeadOf, HISTORY } from './archive';
import { backupFilesDir, backupsDir, listBackups } from './backups';
import { FileStore } from './files';
import { lacking, lackWords, momentWords, seenOf, type Lack, type Seen } from './joins';
import { journalDir, readSegment, segmentFiles, type JournalRecord, type Segment, type SegmentHead } from './journal';
import { checkArchive, fillFrom, type CheckedArchive } from './restore';

/** What the yard was put together from. */
export interface Rebuilt {
  /** Name of the backup; null where the yard began empty. */
  readonly backup: string | null;
  readonly changes: number;
  /** The last change in it and its moment; null where there is none. */
  readonly upTo: { readonly n: number; readonly at: number } | null;
  /** Where the old database was put; null where there was none. */
  readonly aside: string | null;
  /** What is to be known of how it was done, in sentences. */
  readonly notes: readonly string[];
}

/** The changes do not run without a gap from a backup, or from the beginning: what is lacking, and what can be had. */
export class Gap extends Error {}

/**
 * Put the database together anew: the newest backup that can be read, and every change of the journal after it. The old
 * database folder is moved aside, never removed.
 * @param options.until epoch ms: the yard as it was then; null for everything
 * @param options.atLeast number of a change that is known to have been saved: it must be in it
 * @param options.into fill this database instead of a new one in the folder
 * @throws Gap with a sentence where changes are lacking, Error when there is nothing to build from; nothing was touched then
 */
export async function rebuild(
  dataDir: string,
  options: { until: number | null; atLeast?: number; into?: Db },
): Promise<Rebuilt> {
  const staging = join(dataDir, 'incoming', 'rebuild');
  mkdirSync(staging, { recursive: true });
  try {
    const plan = await planOf(dataDir, staging, options);
    const aside = options.into ? null : putAside(dataDir);
    await carryOut(dataDir, plan, options.into ?? null);
    const last = plan.records[plan.records.length - 1];
    const upTo = last ? { n: last.n, at: last.at } : null;
    return { backup: plan.backup, changes: plan.records.length, upTo, aside, notes: plan.notes };
  } finally {
    rmSync(staging, { recursive: true, force: true });
  }
}

/** The old database is kept, the newest one only. @returns where */
function putAside(dataDir: string): string | null {
  if (!existsSync(join(dataDir, 'pg'))) return null;
  for (const name of readdirSync(dataDir))
    if (name.startsWith('pg-aside-')) rmSync(join(dataDir, name), { recursive: true, force: true });
  const aside = join(dataDir, `pg-aside-${new Date().toISOString().replace(/[:.]/g, '-')}`);
  renameSync(join(dataDir, 'pg'), aside);
  return aside;
}

async function carryOut(dataDir: string, plan: Plan, into: Db | null): Promise<void> {
  const open = into ? null : await openDb({ at: 'folder', dir: join(dataDir, 'pg') });
  const db = into ?? (open as NonNullable<typeof open>).db;
  try {
    await open?.migrate();
    if (plan.archive) await fillFrom(db, plan.archive, async () => undefined);
    await writeOps(db, plan.records);
    await applyOps(db, [['put', 'facts', { key: HISTORY, value: plan.history }], lastChangeOp(plan.n, plan.n)]);
    const files = new FileStore(join(dataDir, 'files'));
    if (plan.archive)
      files.adopt(
        plan.fileDir,
        plan.archive.files.filter((f) => existsSync(join(plan.fileDir, f))),
      );
  } finally {
    await open?.close();
  }
}

interface Plan {
  readonly history: string;
  /** Number of the last change that is to be in it. */
  readonly n: number;
  readonly backup: string | null;
  readonly archive: CheckedArchive | null;
  readonly records: readonly JournalRecord[];
  readonly notes: readonly string[];
  readonly fileDir: string;
}

/** A state that a yard was in: so many changes of a history. */
interface Point {
  readonly history: string;
  readonly n: number;
  readonly at: number;
}

/** A run of changes from one beginning, as its files tell it. */
interface History {
  readonly id: string;
  readonly base: string | null;
  readonly segments: readonly Segment[];
  readonly seen: Seen;
  readonly beganAt: number;
  readonly backups: readonly KeptBackup[];
}

async function historiesOf(
  dataDir: string,
  segments: readonly Segment[],
): Promise<{ histories: History[]; notes: string[] }> {
  const heads = segments.flatMap((s) => s.head ?? []);
  const bases = new Map(heads.map((h) => [h.base, h.history]));
  const backups: { history: string | null; backup: KeptBackup }[] = [];
  const notes: string[] = [];
  for (const backup of listBackups(dataDir)) {
    const head = await archiveHeadOf(join(backupsDir(dataDir), backup.name));
    if (head === null) notes.push(`The backup ${backup.name} cannot be used: not even its first line can be read.`);
    else backups.push({ history: bases.get(backup.name) ?? head.history ?? null, backup });
  }
  const histories = [...new Set(heads.map((h) => h.history))].map((id) => {
    const [first] = heads.filter((h) => h.history === id) as [SegmentHead];
    return {
      id,
      base: first.base,
      segments: segments.filter((s) => s.head?.history === id),
      seen: seenOf(segments, id),
      beganAt: first.at,
      backups: backups.filter((b) => b.history === id).map((b) => b.backup),
    };
  });
  return { histories, notes };
}

async function planOf(
  dataDir: string,
  staging: string,
  { until, atLeast = 0 }: { until: number | null; atLeast?: number },
): Promise<Plan> {
  const segments = segmentFiles(journalDir(dataDir)).map(readSegment);
  const { histories, notes: unreadable } = await historiesOf(dataDir, segments);
  if (histories.length === 0)
    throw new Error(
      `There is no journal in ${journalDir(dataDir)} that can be read: nothing can be put together from it. Restore a backup under Settings instead.`,
    );
  const target = until === null ? newest(segments, atLeast) : asOf(histories, until);
  const own = histories.find((h) => h.id === target.history) as History;
  const notes = [...unreadable, ...later(own, target, until)];
  for (const start of startsOf(own, target.n)) {
    let archive: CheckedArchive | null = null;
    if (start.backup !== null) {
      try {
        archive = await checkArchive(join(backupsDir(dataDir), start.backup), {
          staging,
          beside: backupFilesDir(dataDir),
        });
      } catch (error) {
        notes.push(`The backup ${start.backup} cannot be used: ${(error as Error).message}`);
        continue;
      }
    }
    const lacks = lacking(own.seen, start.n + 1, target.n);
    if (lacks.length > 0) throw new Gap([gapWords(own, start, lacks, target.n), ...notes].join(' '));
    return {
      history: own.id,
      n: target.n,
      backup: start.backup,
      archive,
      records: own.segments.flatMap((s) => s.records).filter((r) => r.n > start.n && r.n <= target.n),
      notes,
      fileDir: archive?.files.some((f) => existsSync(join(staging, f))) ? staging : backupFilesDir(dataDir),
    };
  }
  const first = Math.min(...own.seen.keys());
  throw new Gap(
    `No backup in ${backupsDir(dataDir)} can be used, and without one ${lackWords({ from: 1, to: Number.isFinite(first) ? first - 1 : target.n, after: null, before: own.seen.get(first) ?? null })}, are lacking. ${[...notes, ''].join(' ')}Restore a backup that you keep elsewhere, under Settings.`,
  );
}

/** Everything that was ever saved. */
function newest(segments: readonly Segment[], atLeast: number): Point {
  const last = segments[segments.length - 1] as Segment;
  if (last.head === null)
    throw new Gap(
      `The first line of ${last.file} cannot be read: what its changes follow, nobody can say. The yard as it was before them can be put together with "npm run recover -- --until" and a time before ${momentWords(last.seen[0]?.at ?? Date.now())}.`,
    );
  return { history: last.head.history, n: Math.max(last.lastN, atLeast), at: last.seen.at(-1)?.at ?? last.head.at };
}

/** The last state at a moment, by the order of the changes and not by what a clock may have said in between. */
function asOf(histories: readonly History[], until: number): Point {
  const points = histories.flatMap((h): Point[] => [
    ...(h.base === null ? [{ history: h.id, n: 0, at: h.beganAt }] : []),
    ...h.backups.map((b) => ({ history: h.id, n: b.change, at: b.at })),
    ...[...h.seen].map(([n, at]) => ({ history: h.id, n, at })),
  ]);
  const found = points
    .filter((p) => p.at <= until)
    .reduce<Point | null>((best, p) => (best === null || p.n >= best.n ? p : best), null);
  if (found) return found;
  const starts = histories.flatMap((h) => [
    ...(h.base === null && h.seen.has(1) ? [h.beganAt] : []),
    ...h.backups.map((b) => b.at),
  ]);
  throw new Error(
    starts.length === 0
      ? 'No backup can be read, and the journal does not go back to the beginning. Restore a backup that you keep elsewhere, under Settings.'
      : `The yard cannot be put together as it was then: what is kept goes back to ${momentWords(Math.min(...starts))}. Give --until that time, or a later one.`,
  );
}

/** Changes in it that bear a later time than was asked for. */
function later(own: History, target: Point, until: number | null): string[] {
  const many = [...own.seen].filter(([n, at]) => n <= target.n && until !== null && at > until).length;
  return many === 0
    ? []
    : [
        `${counted(many, 'change in it bears', 'changes in it bear')} a later time: the clock was changed meanwhile, and changes are taken in their order.`,
      ];
}

/** What a state can be put together from, the nearest first. */
function startsOf(own: History, n: number): { backup: string | null; n: number; at: number }[] {
  return [
    ...(own.base === null ? [{ backup: null, n: 0, at: own.beganAt }] : []),
    ...own.backups.map((b) => ({ backup: b.name, n: b.change, at: b.at })),
  ]
    .filter((start) => start.n <= n)
    .reverse();
}

function gapWords(own: History, start: { n: number; at: number }, lacks: readonly Lack[], n: number): string {
  const lastBefore = (lacks[0] as Lack).from - 1;
  const upTo = lastBefore > start.n ? (own.seen.get(lastBefore) as number) : start.at;
  const next = own.backups.find((b) => b.change > n);
  return (
    `Neither a backup nor the journal has ${lacks.map(lackWords).join('; ')}. ` +
    `The yard can be put together as it was up to change ${lastBefore}: npm run recover -- --until ${isoWords(upTo)}` +
    (next ? `, or as it was from ${isoWords(next.at)} on.` : '.')
  );
}

/** As `--until` takes it, so that the change of that very moment is in it. */
const isoWords = (at: number): string => DateTime.fromMillis(at).toISO({ includeOffset: false }) ?? '';

/** Bring rows to where the changes leave them; those that are there already are left alone. @returns how many were written */
export async function writeOps(db: Db, records: readonly JournalRecord[]): Promise<number> {
  const final = new Map<TableName, Map<unknown, Op>>();
  for (const { ops } of records) {
    for (const op of ops) {
      const [, table, row] = op;
      let ofTable = final.get(table);
      if (!ofTable) final.set(table, (ofTable = new Map()));
      ofTable.set(keyIn(table, row), op);
    }
  }
  let written = 0;
  for (const table of Object.keys(TABLES) as TableName[]) {
    const ops = [...(final.get(table)?.values() ?? [])];
    for (let i = 0; i < ops.length; i += 500) {
      const lacking = await lackingOf(db, table, ops.slice(i, i + 500));
      if (lacking.length > 0) await applyOps(db, lacking);
      written += lacking.length;
    }
  }
  return written;
}

async function lackingOf(db: Db, table: TableName, ops: readonly Op[]): Promise<Op[]> {
  const keys = ops.map(([, , row]) => keyIn(table, row) as string);
  const found = new Map(
    (
      (await db
        .select()
        .from(TABLES[table] as PgTable)
        .where(inArray(keyOf(table), keys))) as Row[]
    ).map((r) => [keyIn(table, r), r]),
  );
  return ops.flatMap((op): Op[] => {
    const there = found.get(keyIn(table, op[2]));
    if (!there) return [op];
    // Entries and revisions never change; other rows are there as they were written last, or not at all.
    if (op[0] === 'add') return [];
    return Object.entries(op[2]).every(([key, value]) => same(there[key] ?? null, value ?? null))
      ? []
      : [['put', table, op[2]]];
  });
}
