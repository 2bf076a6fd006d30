import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { inArray } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import { openDb } from '../db/open';
import type { Db } from '../db/database';
import { TABLES, type TableName } from '../db/schema';
import { applyOps, keyOf, type Op, type Row } from '../db/ops';
import { same } from '../db/versioned';
import { HISTORY } from './archive';
import { backupFilesDir, backupsDir, listBackups } from './backups';
import { FileStore } from './files';
import {
  firstOf,
  journalDir,
  readSegment,
  segmentFiles,
  type Journal,
  type JournalRecord,
  type Segment,
} from './journal';
import { checkArchive, fillFrom, type CheckedArchive } from './restore';

/** What the yard was put together from. */
export interface Rebuilt {
  /** Name of the backup; null where the yard began empty. */
  readonly backup: string | null;
  readonly changes: number;
  /** The moment of the last change in it; null where there is none. */
  readonly upTo: number | null;
  /** Where the old database was put; null where there was none. */
  readonly aside: string | null;
  /** What could not be read, in sentences. */
  readonly losses: readonly string[];
}

/**
 * Put the database together anew: the newest backup that can be read, and every change of the journal after it. The old
 * database folder is moved aside, never removed.
 * @param options.until epoch ms: the yard as it was then; null for everything
 * @param options.into fill this database instead of a new one in the folder
 * @throws Error with a sentence when there is nothing to build from
 */
export async function rebuild(dataDir: string, options: { until: number | null; into?: Db }): Promise<Rebuilt> {
  const plan = await planOf(dataDir, options.until ?? Infinity);
  let aside: string | null = null;
  if (!options.into && existsSync(join(dataDir, 'pg'))) {
    // One old database is kept, the newest.
    for (const name of readdirSync(dataDir))
      if (name.startsWith('pg-aside-')) rmSync(join(dataDir, name), { recursive: true, force: true });
    aside = join(dataDir, `pg-aside-${new Date().toISOString().replace(/[:.]/g, '-')}`);
    renameSync(join(dataDir, 'pg'), aside);
  }
  const open = options.into ? null : await openDb({ at: 'folder', dir: join(dataDir, 'pg') });
  const db = options.into ?? (open as NonNullable<typeof open>).db;
  try {
    await open?.migrate();
    if (plan.archive) await fillFrom(db, plan.archive, async () => undefined);
    await writeOps(db, plan.records);
    await applyOps(db, [['put', 'facts', { key: HISTORY, value: plan.history }]]);
    const files = new FileStore(join(dataDir, 'files'));
    if (plan.archive)
      files.adopt(
        plan.fileDir,
        plan.archive.files.filter((f) => existsSync(join(plan.fileDir, f))),
      );
  } finally {
    rmSync(plan.staging, { recursive: true, force: true });
    await open?.close();
  }
  const last = plan.records[plan.records.length - 1];
  return { backup: plan.backup, changes: plan.records.length, upTo: last?.at ?? null, aside, losses: plan.losses };
}

interface Plan {
  readonly history: string;
  readonly backup: string | null;
  readonly archive: CheckedArchive | null;
  readonly records: readonly JournalRecord[];
  readonly losses: readonly string[];
  readonly staging: string;
  readonly fileDir: string;
}

async function planOf(dataDir: string, until: number): Promise<Plan> {
  const segments = segmentFiles(journalDir(dataDir))
    .map(readSegment)
    .filter((s): s is Segment => s !== null);
  const history = segments.findLast((s) => s.head.at <= until)?.head.history ?? segments[0]?.head.history;
  if (!history)
    throw new Error(
      `There is no journal in ${journalDir(dataDir)}: nothing can be put together from it. Restore a backup under Settings instead.`,
    );
  const own = segments.filter((s) => s.head.history === history);
  const first = own[0] as Segment;
  const losses = own.flatMap((s) =>
    s.damaged.map((line) => `Line ${line} of ${s.file} cannot be read: one change of that time is missing.`),
  );
  const staging = join(dataDir, 'incoming', 'rebuild');
  mkdirSync(staging, { recursive: true });
  const wanted = listBackups(dataDir)
    .filter((b) => b.at <= until && (b.name === first.head.base || b.change >= first.head.first - 1))
    .reverse();
  for (const backup of wanted) {
    try {
      const archive = await checkArchive(join(backupsDir(dataDir), backup.name), {
        staging,
        beside: backupFilesDir(dataDir),
      });
      if (archive.head.history !== history && backup.name !== first.head.base) continue;
      const records = own.flatMap((s) => s.records).filter((r) => r.n > backup.change && r.at <= until);
      const beside = archive.files.some((f) => existsSync(join(staging, f))) ? staging : backupFilesDir(dataDir);
      return { history, backup: backup.name, archive, records, losses, staging, fileDir: beside };
    } catch (error) {
      losses.push(`${backup.name} cannot be used: ${(error as Error).message}`);
    }
  }
  if (first.head.base !== null)
    throw new Error(
      `No backup in ${backupsDir(dataDir)} can be read. ${losses.join(' ')} Restore one that you keep elsewhere, under Settings.`,
    );
  return {
    history,
    backup: null,
    archive: null,
    records: own.flatMap((s) => s.records).filter((r) => r.at <= until),
    losses,
    staging,
    fileDir: staging,
  };
}

/**
 * Write into the database what it lacks of the journal since the last backup.
 * @returns how many rows it lacked
 */
export async function replay(db: Db, dataDir: string, journal: Journal): Promise<number> {
  const last = listBackups(dataDir).findLast((b) => b.change <= journal.n);
  const files = segmentFiles(journalDir(dataDir));
  const from = files.findLastIndex((file) => firstOf(file) <= (last?.change ?? 0) + 1);
  const records = files
    .slice(Math.max(0, from))
    .map(readSegment)
    .flatMap((s) => (s && s.head.history === journal.history ? s.records : []));
  return writeOps(db, records);
}

/** Bring rows to where the changes leave them; those that are there already are left alone. @returns how many were written */
async function writeOps(db: Db, records: readonly JournalRecord[]): Promise<number> {
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

const keyIn = (table: TableName, row: Row) => (table === 'facts' ? row.key : row.id);

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
