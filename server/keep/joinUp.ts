import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { counted } from '#core/units/format';
import type { Db } from '../db/database';
import { lastChangeOf, lastChangeOp } from '../db/lastChange';
import { openDb, rawRows } from '../db/open';
import { applyOps, byKey } from '../db/ops';
import { facts, TABLES } from '../db/schema';
import { HISTORY } from './archive';
import { backupsDir, listBackups } from './backups';
import { databaseDamaged } from './complaints';
import type { FileStore } from './files';
import { damageWords, lacking, lackWords, seenOf } from './joins';
import { journalDir, readSegment, segmentFiles, type Journal, type JournalRecord, type Segment } from './journal';
import { filesNamed } from './pictures';
import { Gap, rebuild, writeOps } from './rebuild';
import { wentDown, type FolderState } from './state';

/** How a data folder was found, and what was done about it. */
export interface Found {
  /** What was put right, in a sentence; null when there was nothing. */
  readonly putRight: string | null;
  /** Database, backup and journal do not join up: what is lacking, in sentences. A backup has to be made at once. */
  readonly gap: string | null;
}

export const pgDir = (dataDir: string) => join(dataDir, 'pg');

interface Folder {
  readonly dataDir: string;
  readonly journal: Journal;
  /** The segments of the journal as they were found. */
  readonly segments: readonly Segment[];
  readonly before: FolderState | null;
}

/**
 * Before the database of a folder is opened: where a power cut may have left it in pieces, or it is not there, it is put
 * together again from backup and journal. Where these do not join up it is left, to be taken as it was found.
 * @throws Error with a sentence where there is nothing to go on with; nothing was touched then
 */
export async function beforeOpening(folder: Folder): Promise<Found> {
  const { dataDir, journal, before } = folder;
  const there = existsSync(pgDir(dataDir));
  const down = before !== null && wentDown(before);
  if (journal.history === null || (there && !down)) return { putRight: null, gap: null };
  // The history that the folder was in last is not in the journal any more: what it has is older.
  const forgotten = before?.history != null && !journal.knows(before.history);
  const known = before?.history === journal.history ? before.n : 0;
  const atLeast = Math.max(known, there ? await onDiskBefore(dataDir) : 0, newestChange(folder));
  const why = down ? 'The computer went down while the yard was open.' : 'The database was not there.';
  try {
    if (forgotten) throw new Gap(`The last part of the journal in ${journalDir(dataDir)} is not there any more.`);
    const { notes } = await rebuild(dataDir, { until: null, atLeast });
    return {
      putRight: `${why} The database was put together again from the last backup and the journal; nothing that was saved is missing.${notes.length > 0 ? ` ${notes.join(' ')}` : ''}`,
      gap: null,
    };
  } catch (error) {
    const { message } = error as Error;
    if (!there) throw databaseDamaged(dataDir, `it is not there. ${message}`);
    return {
      putRight: null,
      gap: `${why} Backup and journal do not join up, so the database was taken as the computer left it. Look the last days over. ${message}`,
    };
  }
}

/** Number of a change that a database knows to have been on the disk; 0 where it does not say. */
async function onDiskBefore(dataDir: string): Promise<number> {
  try {
    const open = await openDb({ at: 'folder', dir: pgDir(dataDir) });
    try {
      return (await lastChangeOf(open.db))?.onDisk ?? 0;
    } finally {
      await open.close();
    }
  } catch {
    return 0;
  }
}

/** Number of the change that the newest backup ends with. */
function newestChange({ dataDir }: Pick<Folder, 'dataDir'>): number {
  return Math.max(0, ...listBackups(dataDir).map((b) => b.change));
}

/**
 * Compare an open database with the journal, and write into it what it lacks.
 * @param asFound what `beforeOpening` found lacking
 * @throws Error with a sentence where the two are of different yards; nothing was touched then
 */
export async function joinUp(
  db: Db,
  folder: Folder & { readonly files: FileStore; readonly onServer: boolean; readonly asFound: string | null },
): Promise<Found> {
  const { dataDir, journal, segments, asFound } = folder;
  const history = await historyOf(db);
  if (segments.length === 0) return withoutJournal(db, folder, history);
  const headless = segments[segments.length - 1]?.head === null;
  // The folder was in it last, and the journal has lost where it began.
  const forgotten = history !== null && !journal.knows(history) && folder.before?.history === history;
  if (!headless && !forgotten && history !== journal.history) return ofAnotherHistory(db, folder, history);
  if (history === null) throw mixed(dataDir);

  const last = await lastChangeOf(db);
  const seen = seenOf(segments, history);
  const gaps = [...(asFound === null ? [] : [asFound]), ...damageWords(segments.filter((s) => inHistory(s, history)))];
  let putRight: string | null = null;
  // A version before this one did not tell; what is there already is written again then, and changes nothing.
  const from = last?.n ?? lastBackupOf(folder, history);
  const records = recordsAfter(segments, history, from);
  const ahead = lacking(seen, from + 1, journal.n);
  if (forgotten)
    gaps.push(`The last part of the journal in ${journalDir(dataDir)} is not there any more. The database has it.`);
  else if (ahead.length === 0) {
    const written = await writeOps(db, records);
    if (written > 0)
      putRight = `${counted(written, 'entry', 'entries')} of the journal had not reached the database and were written into it.`;
  } else if (last !== null) {
    try {
      await rebuild(dataDir, { until: null, into: db });
      putRight =
        'The database was older than the journal. It was put together again from the last backup and the journal.';
    } catch (error) {
      const { lost } = await oneByOne(db, records);
      gaps.push(
        `The database is older than the journal. ${(error as Error).message}${lost > 0 ? ` ${counted(lost, 'later change rests', 'later changes rest')} on what is lacking and could not be written.` : ''}`,
      );
    }
  }
  if (last && last.n > journal.n) {
    gaps.push(
      `The journal ends before the database does: it lacks ${lackWords({ from: journal.n + 1, to: last.n, after: seen.get(journal.n) ?? null, before: null })}. The database has them.`,
    );
    journal.goOnAfter(last.n);
  } else if (gaps.length === 0) {
    const since = lacking(seen, lastBackupOf(folder, history) + 1, from);
    if (since.length > 0)
      gaps.push(
        `Neither a backup nor the journal has ${since.map(lackWords).join('; ')}. The database has them, and alone so far.`,
      );
  }
  journal.goOnAfter(newestChange(folder));
  await applyOps(db, [lastChangeOp(journal.n, journal.n)]);
  return { putRight, gap: gaps.length === 0 ? null : gaps.join(' ') };
}

const inHistory = (segment: Segment, history: string) => segment.head === null || segment.head.history === history;

/** Changes that stand in a history after a number, in order. */
export function recordsAfter(segments: readonly Segment[], history: string, n: number): JournalRecord[] {
  return segments.filter((s) => s.head?.history === history).flatMap((s) => s.records.filter((r) => r.n > n));
}

/** What a database lacks of the journal as it stands on the disk now. */
export async function catchUp(db: Db, dataDir: string, history: string): Promise<void> {
  const last = await lastChangeOf(db);
  await writeOps(db, recordsAfter(segmentFiles(journalDir(dataDir)).map(readSegment), history, last?.n ?? 0));
}

/** The change that the last backup of a history ends with; 0 where there is none and it began with an empty yard. */
function lastBackupOf({ dataDir, segments }: Folder, history: string): number {
  const own = segments.filter((s) => s.head?.history === history);
  const first = own[0]?.head;
  const backups = listBackups(dataDir).filter(
    (b) => first && (b.name === first.base || b.change >= first.first) && b.change <= (own[own.length - 1]?.lastN ?? 0),
  );
  return Math.max(0, ...backups.map((b) => b.change));
}

/** Each change for itself; those that rest on what is lacking are left out. */
async function oneByOne(db: Db, records: readonly JournalRecord[]): Promise<{ lost: number }> {
  let lost = 0;
  for (const record of records)
    await writeOps(db, [record]).catch(() => {
      lost += 1;
    });
  return { lost };
}

/** There is no journal: a new folder, or one that lost it. */
async function withoutJournal(
  db: Db,
  folder: Folder & { readonly onServer: boolean },
  history: string | null,
): Promise<Found> {
  const { dataDir, journal, onServer } = folder;
  // A folder without a history may only take a server's database that has none either.
  if (onServer && history !== null) throw notOurs();
  const kept = newestChange(folder);
  if (history === null) {
    if (kept === 0 || !(await isNew(db))) return { putRight: null, gap: null };
    journal.goOnAfter(kept);
    return {
      putRight: null,
      gap: `Database and journal are not in ${dataDir}, and the yard began empty. Its backups are there: put the last one in place under Settings.`,
    };
  }
  journal.goOnAfter(Math.max(kept, (await lastChangeOf(db))?.n ?? 0));
  return {
    putRight: null,
    gap: `There is no journal in ${journalDir(dataDir)} any more. The database was taken as it is, and a new journal begun.`,
  };
}

/** The journal is in another history than the database. */
async function ofAnotherHistory(
  db: Db,
  { dataDir, journal, segments, files, onServer }: Folder & { readonly files: FileStore; readonly onServer: boolean },
  history: string | null,
): Promise<Found> {
  const known = history !== null && journal.knows(history);
  const empty = history === null && (await isNew(db));
  // The history was begun, and power went before the database could be told.
  const begun = history === null && segments.every((s) => s.seen.length === 0);
  if (!known && !empty && !begun) throw onServer ? notOurs() : mixed(dataDir);
  try {
    await rebuild(dataDir, { until: null, into: db });
  } catch (error) {
    if (!known) throw error;
    // The database is as it was before that backup, and whole.
    return {
      putRight: null,
      gap: `The program was stopped while a backup was put in place, and that cannot be finished: ${(error as Error).message} The yard is as it was before.`,
    };
  }
  files.keepOnly(await filesNamed(db));
  return {
    putRight: empty
      ? 'The database was empty. It was filled from the last backup and the journal.'
      : 'The program was stopped while a backup was put in place. That was finished now.',
    gap: null,
  };
}

const notOurs = () =>
  new Error(
    'The database holds a yard that this data folder knows nothing of. Set JACKPLANE_DATA to the folder that belongs to it, or DATABASE_URL to another database.',
  );

const mixed = (dataDir: string) =>
  new Error(
    `Two folders were mixed: the database in ${pgDir(dataDir)} is not of the yard that ${journalDir(dataDir)} tells of. Nothing was touched. Put the folders "pg" and "journal" of one yard back together; or move "pg" away and start again, and the yard of the journal is put together from ${backupsDir(dataDir)}.`,
  );

/** A database without tables, or with nothing in them. */
export async function isNew(db: Db): Promise<boolean> {
  const [there] = await rawRows(db, sql`select to_regclass('public.boats') is not null as yes`);
  if (there?.yes !== true) return true;
  for (const table of [TABLES.boats, TABLES.sheets, TABLES.lots, TABLES.yardRules]) {
    const [row] = await rawRows(db, sql`select 1 from ${table} limit 1`);
    if (row) return false;
  }
  return true;
}

/** The history that a database is of; null where it is of none. */
export async function historyOf(db: Db): Promise<string | null> {
  const [fact] = await db.select().from(facts).where(byKey('facts', HISTORY));
  return (fact?.value as string | undefined) ?? null;
}

/** Tell the database which history it is of, and where that stands. */
export const tellHistory = (db: Db, { history, n }: Journal): Promise<void> =>
  applyOps(db, [['put', 'facts', { key: HISTORY, value: history }], lastChangeOp(n, n)]);
