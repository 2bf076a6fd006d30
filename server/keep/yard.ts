import { mkdirSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Db, OpenDb } from '../db/database';
import { lastChangeOf } from '../db/lastChange';
import { openDb, pendingMigrations } from '../db/open';
import { Store } from '../db/store';
import { tableRows, writeArchive } from './archive';
import { backupFilesDir, backupName, Backups, backupsDir } from './backups';
import { databaseDamaged, folderTrouble } from './complaints';
import { FileStore } from './files';
import { beforeOpening, catchUp, historyOf, isNew, joinUp, pgDir, tellHistory, type Found } from './joinUp';
import { Journal, journalDir, type Disk } from './journal';
import { lockFolder } from './lock';
import { LongWork } from './longWork';
import { Notices } from './notices';
import { readState, writeState } from './state';

/** An open data folder: the database with its journal, files and backups. */
export interface Yard {
  readonly store: Store;
  readonly files: FileStore;
  /** Null for a yard in memory. */
  readonly backups: Backups | null;
  /** A folder for what is on its way in or out. */
  readonly spool: string;
  readonly work: LongWork;
  readonly notices: Notices;
  /** Forget what was here before: journal and backups. For a demo that is made anew. */
  forget(): Promise<void>;
  /** What was put right on opening, in a sentence; null when there was nothing. */
  readonly putRight: string | null;
  close(): Promise<void>;
}

interface YardOptions {
  /** Null: without journal, backups and files, for tests. */
  readonly dataDir: string | null;
  /** Address of a PostgreSQL database; left out, it lies in the data folder. */
  readonly databaseUrl?: string | null;
  readonly now: () => number;
  readonly demo?: boolean;
  /** The database was just put together: it is taken as it is. */
  readonly trusted?: boolean;
  /** What the journal does to its files, where a test or a measure puts its own in. */
  readonly disk?: Disk;
}

/**
 * Open a data folder, alone, whatever happened to it before: a database that a power cut may have left in pieces is
 * put together again from the last backup and the journal, a restore that was interrupted is carried out.
 * @throws FolderInUse, or Error with a sentence that names the folder and the next step
 */
export async function openYard(options: YardOptions): Promise<Yard> {
  const { dataDir, now } = options;
  if (dataDir === null) return inMemory(options);
  const unlock = folderTrouble(dataDir, () => {
    mkdirSync(dataDir, { recursive: true });
    return lockFolder(dataDir);
  });
  try {
    const spool = join(dataDir, 'incoming');
    const { files, journal, notices } = folderTrouble(dataDir, () => {
      // What was on its way when the program stopped is of no use.
      rmSync(spool, { recursive: true, force: true });
      mkdirSync(spool, { recursive: true });
      return {
        files: new FileStore(join(dataDir, 'files')),
        journal: new Journal(journalDir(dataDir), options.disk),
        notices: new Notices(dataDir),
      };
    });
    const before = readState(dataDir);
    const segments = journal.takeFound();
    const trusted = options.trusted ?? false;
    const onServer = options.databaseUrl != null;
    const folder = { dataDir, journal, segments, before };
    // A database server sees to its own files.
    const first: Found = onServer || trusted ? NOTHING : await beforeOpening(folder);
    writeState(dataDir, { clean: false, history: journal.history ?? before?.history ?? null, n: journal.n });
    journal.onHistory = ({ history, first: next }) => writeState(dataDir, { clean: false, history, n: next - 1 });

    const open = await openHere(dataDir, options);
    const store = new Store(open.db, journal, { now, demo: options.demo ?? false, away: open.away });
    const work = new LongWork(now);
    const backups = new Backups(dataDir, store, files, work, now);
    let found: Found;
    try {
      await upToDate(open, { dataDir, files, journal, now });
      found =
        trusted || first.putRight !== null
          ? first
          : await joinUp(open.db, { ...folder, files, onServer, asFound: first.gap });
      if (found.gap !== null) notices.add(now(), await coverGap(found.gap, backups, store));
    } catch (error) {
      await open.close();
      throw error;
    }
    const { putRight } = found;
    open.onBack(() => store.alone(() => takenUpAgain(open.db, dataDir, store)));
    return {
      store,
      files,
      backups,
      spool,
      work,
      notices,
      putRight,
      async forget() {
        await journal.forget();
        notices.clear();
        rmSync(backupsDir(dataDir), { recursive: true, force: true });
      },
      async close() {
        backups.stop();
        await work.quiet();
        await store.alone(async () => {
          await journal.synced().catch(() => undefined);
          const { n, history } = journal;
          const { problem } = journal.state;
          journal.close();
          await open.close();
          writeState(dataDir, { clean: problem === null, history, n });
        });
        unlock();
      },
    };
  } catch (error) {
    unlock();
    throw error;
  }
}

async function inMemory(options: YardOptions): Promise<Yard> {
  const { databaseUrl } = options;
  const open = await openDb(databaseUrl ? { at: 'server', url: databaseUrl } : { at: 'memory' });
  await open.migrate();
  const spool = mkdtempSync(join(tmpdir(), 'jack-plane-spool-'));
  const store = new Store(open.db, new Journal(null), {
    now: options.now,
    demo: options.demo ?? false,
    away: open.away,
  });
  return {
    store,
    files: new FileStore(null),
    backups: null,
    spool,
    work: new LongWork(options.now),
    notices: new Notices(null),
    putRight: null,
    forget: () => Promise.resolve(),
    async close() {
      await open.close();
      rmSync(spool, { recursive: true, force: true });
    },
  };
}

async function openHere(dataDir: string, { databaseUrl }: YardOptions): Promise<OpenDb> {
  if (databaseUrl) return openDb({ at: 'server', url: databaseUrl });
  try {
    return await openDb({ at: 'folder', dir: pgDir(dataDir) });
  } catch (error) {
    throw databaseDamaged(dataDir, (error as Error).message);
  }
}

/** Bring the database up to date, after a backup of what it holds. */
async function upToDate(
  open: OpenDb,
  { dataDir, files, journal, now }: { dataDir: string; files: FileStore; journal: Journal; now: () => number },
): Promise<void> {
  const pending = await pendingMigrations(open.db);
  if (pending === 0) return;
  if (!(await isNew(open.db))) {
    const at = now();
    mkdirSync(backupFilesDir(dataDir), { recursive: true });
    const path = join(backupsDir(dataDir), backupName(at, journal.n, 'before-update'));
    await writeArchive(`${path}.part`, {
      rows: tableRows(open.db),
      files,
      now: at,
      history: journal.history,
      change: journal.n,
      filesBeside: false,
    });
    renameSync(`${path}.part`, path);
  }
  await open.migrate();
}

const NOTHING: Found = { putRight: null, gap: null };

/**
 * What is lacking between backup and journal is covered by a backup of everything, made at once, that a history of its own
 * begins with. @returns what a person is told of it
 */
async function coverGap(gap: string, backups: Backups, store: Store): Promise<string> {
  const { journal, db } = store;
  try {
    const { name } = await backups.makeAlone('gap', true);
    await tellHistory(db, journal);
    return `${gap} Everything that is here now was backed up at once: ${name}.`;
  } catch (error) {
    // Saving goes on all the same; the next backup covers it.
    await journal.begin(backups.now(), journal.history === null ? { base: null } : undefined);
    await tellHistory(db, journal);
    return `${gap} The backup that was to cover this failed: ${(error as Error).message} It is tried again within the hour.`;
  }
}

/** A database server that was away is there again: what it lacks is written into it, and nothing kept of it is believed. */
async function takenUpAgain(db: Db, dataDir: string, { boats, journal }: Store): Promise<void> {
  const { history } = journal;
  if (history === null) return;
  if ((await historyOf(db)) !== history || ((await lastChangeOf(db))?.n ?? 0) > journal.n)
    throw new Error(
      'Another program wrote into the database meanwhile. Stop this one and start it again, with the data folder that belongs to it.',
    );
  await catchUp(db, dataDir, history);
  boats.forget();
}

/**
 * Begin a history, where the folder has none: with a backup of what is there, or with nothing.
 * Called after the demo was made, so that it is in the first backup.
 */
export async function beginHistory(yard: Yard, why: 'first' | 'demo'): Promise<void> {
  const { store, backups } = yard;
  if (!backups || store.journal.history !== null) return;
  await store.alone(async () => {
    // A history from nothing begins with change 1.
    if (store.journal.n === 0 && (await isNew(store.db))) await store.journal.begin(backups.now(), { base: null });
    else await backups.makeAlone(why, true);
    await tellHistory(store.db, store.journal);
  });
}

/** Begin a history with what is in the database now. */
export async function beginHistoryAnew({ store, backups }: Yard): Promise<void> {
  await store.alone(async () => {
    await backups?.makeAlone('recovered', true);
    await tellHistory(store.db, store.journal);
  });
}
