import { filesNamed } from './pictures';
import { existsSync, mkdirSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import type { Db, OpenDb } from '../db/database';
import { openDb, pendingMigrations, rawRows } from '../db/open';
import { facts, TABLES } from '../db/schema';
import { applyOps, byKey } from '../db/ops';
import { Store } from '../db/store';
import { HISTORY, writeArchive } from './archive';
import { backupFilesDir, backupName, Backups, backupsDir } from './backups';
import { databaseDamaged, folderTrouble } from './complaints';
import { FileStore } from './files';
import { Journal, journalDir, type Disk } from './journal';
import { lockFolder } from './lock';
import { rebuild, replay } from './rebuild';
import { readState, wentDown, writeState } from './state';
import { counted } from '#core/units/format';

/** An open data folder: the database with its journal, files and backups. */
export interface Yard {
  readonly store: Store;
  readonly files: FileStore;
  /** Null for a yard in memory. */
  readonly backups: Backups | null;
  /** A folder for what is on its way in or out. */
  readonly spool: string;
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
  /** The database may be another program's from now on: stop. */
  readonly onLost?: (why: Error) => void;
  readonly now: () => number;
  readonly demo?: boolean;
  /** The database was just put together: it is taken as it is. */
  readonly trusted?: boolean;
  /** What the journal does to its files, where a test or a measure puts its own in. */
  readonly disk?: Disk;
}

export const pgDir = (dataDir: string) => join(dataDir, 'pg');

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
    const { files, journal } = folderTrouble(dataDir, () => {
      // What was on its way when the program stopped is of no use.
      rmSync(spool, { recursive: true, force: true });
      mkdirSync(spool, { recursive: true });
      return { files: new FileStore(join(dataDir, 'files')), journal: new Journal(journalDir(dataDir), options.disk) };
    });
    const before = readState(dataDir);
    let putRight: string | null = null;
    const trusted = options.trusted ?? false;
    const onServer = options.databaseUrl != null;
    // A database server sees to its own files.
    if (!onServer && !trusted && before && wentDown(before) && journal.history !== null) {
      const { losses } = await rebuild(dataDir, { until: null });
      putRight = `The computer went down while the yard was open. The database was put together again from the last backup and the journal; ${losses.length === 0 ? 'nothing that was saved is missing.' : losses.join(' ')}`;
    } else if (!onServer && journal.history !== null && !existsSync(pgDir(dataDir)))
      throw databaseDamaged(dataDir, 'it is not there');
    const cleanly =
      before?.clean === true && before.history === journal.history && before.n === journal.n && putRight === null;
    writeState(dataDir, { clean: false, history: journal.history, n: journal.n });

    const open = await openHere(dataDir, options);
    const store = new Store(open.db, journal, { now, demo: options.demo ?? false });
    const backups = new Backups(dataDir, store, files, now);
    await upToDate(open, { dataDir, files, journal, now });
    try {
      // A folder's database is known by how it was closed, a server's may have been changed for another one.
      if (journal.history !== null && (!cleanly || onServer) && !trusted && putRight === null)
        putRight = await catchUp(open.db, { dataDir, journal, files, onServer });
      // A folder without a history may only take a server's database that has none either.
      else if (onServer && journal.history === null && (await historyOf(open.db)) !== null) throw notOurs();
    } catch (error) {
      await open.close();
      throw error;
    }
    return {
      store,
      files,
      backups,
      spool,
      putRight,
      async forget() {
        await journal.forget();
        rmSync(backupsDir(dataDir), { recursive: true, force: true });
      },
      async close() {
        backups.stop();
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
  const store = new Store(open.db, new Journal(null), { now: options.now, demo: options.demo ?? false });
  return {
    store,
    files: new FileStore(null),
    backups: null,
    spool,
    putRight: null,
    forget: () => Promise.resolve(),
    async close() {
      await open.close();
      rmSync(spool, { recursive: true, force: true });
    },
  };
}

async function openHere(dataDir: string, { databaseUrl, onLost }: YardOptions): Promise<OpenDb> {
  if (databaseUrl) return openDb({ at: 'server', url: databaseUrl, ...(onLost ? { onLost } : {}) });
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
      db: open.db,
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

/** A database without tables, or with nothing in them. */
async function isNew(db: Db): Promise<boolean> {
  const [there] = await rawRows(db, sql`select to_regclass('public.boats') is not null as yes`);
  if (there?.yes !== true) return true;
  for (const table of [TABLES.boats, TABLES.sheets, TABLES.lots, TABLES.yardRules]) {
    const [row] = await rawRows(db, sql`select 1 from ${table} limit 1`);
    if (row) return false;
  }
  return true;
}

/** What the database lacks of the journal is written into it. @returns a sentence when something was */
async function catchUp(
  db: Db,
  { dataDir, journal, files, onServer }: { dataDir: string; journal: Journal; files: FileStore; onServer: boolean },
): Promise<string | null> {
  const history = await historyOf(db);
  if (history !== journal.history) {
    const empty = history === null && (await isNew(db));
    // What lies in the folder is the folder's; on a server it may be anybody's.
    if (onServer && !empty && (history === null || !journal.knows(history))) throw notOurs();
    await rebuild(dataDir, { until: null, into: db });
    files.keepOnly(await filesNamed(db));
    return empty
      ? 'The database was empty. It was filled from the last backup and the journal.'
      : 'The program was stopped while a backup was put in place. That was finished now.';
  }
  const written = await replay(db, dataDir, journal);
  return written === 0
    ? null
    : `${counted(written, 'entry', 'entries')} of the journal had not reached the database and were written into it.`;
}

const notOurs = () =>
  new Error(
    'The database holds a yard that this data folder knows nothing of. Set JACKPLANE_DATA to the folder that belongs to it, or DATABASE_URL to another database.',
  );

/** The history that a database is of; null where it is of none. */
async function historyOf(db: Db): Promise<string | null> {
  const [fact] = await db.select().from(facts).where(byKey('facts', HISTORY));
  return (fact?.value as string | undefined) ?? null;
}

/**
 * Begin a history, where the folder has none: with a backup of what is there, or with nothing.
 * Called after the demo was made, so that it is in the first backup.
 */
export async function beginHistory(yard: Yard, why: 'first' | 'demo'): Promise<void> {
  const { store, backups } = yard;
  if (!backups || store.journal.history !== null) return;
  await store.alone(async () => {
    if (await isNew(store.db)) await store.journal.begin(backups.now(), { base: null });
    else await backups.makeAlone(why, true);
    await tellHistory(store);
  });
}

/** Begin a history with what is in the database now. */
export async function beginHistoryAnew({ store, backups }: Yard): Promise<void> {
  await store.alone(async () => {
    await backups?.makeAlone('recovered', true);
    await tellHistory(store);
  });
}

const tellHistory = ({ db, journal }: Store) =>
  applyOps(db, [['put', 'facts', { key: HISTORY, value: journal.history }]]);
