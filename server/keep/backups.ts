import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import { DateTime } from 'luxon';
import type { KeptBackup } from '#contracts/rows/keeping';
import type { Store } from '../db/store';
import { filesOfArchive, tableRows, writeArchive, type WhatToWrite } from './archive';
import { shareFile, type FileStore } from './files';
import { firstOf, segmentFiles, syncFolder } from './journal';
import type { LongWork } from './longWork';
import { filesNamed } from './pictures';
import { checkArchive } from './restore';
import { snapshotOf } from './snapshot';

const DAY_MS = 86_400_000;
/** So many of the last daily backups are kept, then one a week, so many weeks; of the others the last so many. */
const DAILY_KEPT = 7;
const WEEKLY_KEPT = 8;
const OTHERS_KEPT = 12;
/** A file that no row names any more is cleared after so long. */
export const UNNAMED_KEPT_MS = 30 * DAY_MS;

export type Why = KeptBackup['why'];
const NAME = /^(\d{8}T\d{6}Z)-(\d{12})-([a-z-]+)\.jsonl\.gz$/;

export const backupsDir = (dataDir: string) => join(dataDir, 'backups');
export const backupFilesDir = (dataDir: string) => join(backupsDir(dataDir), 'files');

/** The automatic backups of a data folder, oldest first. Files belong to all of them and lie beside. */
export function listBackups(dataDir: string): KeptBackup[] {
  if (!existsSync(backupsDir(dataDir))) return [];
  return readdirSync(backupsDir(dataDir))
    .flatMap((name) => {
      const [, stamp, change, why] = NAME.exec(name) ?? [];
      if (!stamp || !change || !why) return [];
      const at = Date.parse(stamp.replace(/(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z/, '$1-$2-$3T$4:$5:$6Z'));
      return [
        { name, at, change: Number(change), why: why as Why, bytes: statSync(join(backupsDir(dataDir), name)).size },
      ];
    })
    .sort((a, b) => a.change - b.change || a.at - b.at);
}

export function backupName(at: number, change: number, why: Why): string {
  return `${DateTime.fromMillis(at, { zone: 'utc' }).toFormat("yyyyMMdd'T'HHmmss'Z'")}-${String(change).padStart(12, '0')}-${why}.jsonl.gz`;
}

/**
 * Automatic backups: daily where something changed, and before every update and restore. Each is read back before it
 * counts, and the journal goes on in a new segment after it. What is kept goes by their order and number, never by what a
 * clock says now; the journal as far back as the oldest one.
 */
export class Backups {
  private problem: string | null = null;
  private timer: ReturnType<typeof setInterval> | null = null;

  constructor(
    readonly dataDir: string,
    private readonly store: Store,
    private readonly files: FileStore,
    private readonly work: LongWork,
    readonly now: () => number,
  ) {}

  get dir(): string {
    return backupsDir(this.dataDir);
  }

  /** Why the last attempt failed, in a sentence; null when it did not. */
  get trouble(): string | null {
    return this.problem;
  }

  /** Back up while others go on saving. @throws Error in a sentence; nothing of it is left then */
  make(why: Why): Promise<KeptBackup> {
    return this.work.run('automatic', async () => {
      const { journal } = this.store;
      const at = this.now();
      // Its files are beside it before its rows are read: what they name is there.
      await this.shareFiles();
      const rows = await snapshotOf(this.store, async () => {
        await journal.synced();
        await journal.begin(at);
      });
      const name = this.freeName(at, why, rows.n);
      await this.shareFiles();
      await this.write(name, { ...rows, now: at, change: rows.n });
      this.problem = null;
      return this.kept(name, at, rows.n, why);
    });
  }

  /** As `make`, for a caller that already keeps others from writing. */
  async makeAlone(why: Why, newHistory = false): Promise<KeptBackup> {
    const { journal, db } = this.store;
    await journal.synced();
    await this.shareFiles();
    const at = this.now();
    const name = this.freeName(at, why);
    const change = journal.n;
    await this.write(name, { rows: tableRows(db), history: journal.history, now: at, change });
    await journal.begin(at, newHistory ? { base: name } : undefined);
    this.problem = null;
    return this.kept(name, at, change, why);
  }

  private kept(name: string, at: number, change: number, why: Why): KeptBackup {
    return { name, at, change, why, bytes: statSync(join(this.dir, name)).size };
  }

  /** Every file that is here lies beside the backups too. */
  private async shareFiles(): Promise<void> {
    const beside = backupFilesDir(this.dataDir);
    mkdirSync(beside, { recursive: true });
    for (const [i, hash] of this.files.list().entries()) {
      shareFile(join(this.files.dir, hash), join(beside, hash));
      if (i % 50 === 49) await this.store.breathe();
    }
  }

  private async write(name: string, what: Omit<WhatToWrite, 'files' | 'filesBeside'>): Promise<void> {
    const draft = join(this.dir, `${name}.part`);
    try {
      await writeArchive(draft, { ...what, files: this.files, filesBeside: true });
      await checkArchive(draft, { beside: backupFilesDir(this.dataDir), pause: () => this.store.breathe() });
      renameSync(draft, join(this.dir, name));
      syncFolder(this.dir);
    } catch (error) {
      rmSync(draft, { force: true });
      const { code } = error as NodeJS.ErrnoException;
      if (code === 'ENOSPC' || code === 'EDQUOT')
        throw new Error(
          `The disk with ${this.dir} is full: no backup was made. Make room on it; it is tried again within the hour. What was saved is in the journal.`,
          { cause: error },
        );
      throw error;
    }
  }

  /** A name that no backup has: of two within a second the later one is told as of the next. */
  freeName(at: number, why: Why, change = this.store.journal.n): string {
    const name = backupName(at, change, why);
    return existsSync(join(this.dir, name)) ? this.freeName(at + 1000, why, change) : name;
  }

  /** From now on a backup a day where something changed, the first at once where the last one is older. */
  startDaily(tell: (problem: string) => void): void {
    const look = () => {
      this.daily().catch((error: unknown) => {
        this.problem = (error as Error).message;
        tell(this.problem);
      });
    };
    look();
    this.timer = setInterval(look, 3_600_000);
    this.timer.unref();
  }

  /** The backup of today, where it is lacking and something changed; then what is no longer kept is thrown away. */
  async daily(): Promise<void> {
    const last = listBackups(this.dataDir).pop();
    const { journal } = this.store;
    if (last && (Math.abs(this.now() - last.at) < DAY_MS || last.change === journal.n)) return;
    // Looked at before the backup: by then the clock may have been put right.
    const jumped = this.clockJumped();
    await this.make('daily');
    if (!jumped) await this.prune();
  }

  /** The clock stands more than a day from the last change: it may be wrong, and nothing is thrown away by it. */
  private clockJumped(): boolean {
    const { lastAt } = this.store.journal;
    return lastAt !== null && Math.abs(this.now() - lastAt) > DAY_MS;
  }

  stop(): void {
    if (this.timer) clearInterval(this.timer);
  }

  /** Throw away what the rule no longer keeps. */
  async prune(): Promise<void> {
    const list = listBackups(this.dataDir);
    const kept = keptByRule(list);
    for (const backup of list) if (!kept.has(backup.name)) rmSync(join(this.dir, backup.name), { force: true });
    await this.clearFiles();
    const oldest = listBackups(this.dataDir)[0];
    const segments = segmentFiles(join(this.dataDir, 'journal'));
    // A segment is of no use when the next one begins at or before the change that the oldest backup ends with.
    segments.forEach((file, i) => {
      const next = segments[i + 1];
      if (oldest && next && firstOf(next) <= oldest.change + 1) rmSync(file, { force: true });
    });
  }

  /**
   * A file that no row names any more goes after thirty days, and from beside the backups when none of them names it. Its
   * age is when a row named it last, or when it came.
   */
  private async clearFiles(): Promise<void> {
    const named = await filesNamed(this.store.db);
    const seen = new Date();
    for (const [i, hash] of this.files.list().entries()) {
      const path = join(this.files.dir, hash);
      if (named.has(hash)) utimesSync(path, seen, seen);
      else if (Date.now() - statSync(path).mtimeMs > UNNAMED_KEPT_MS) rmSync(path, { force: true });
      if (i % 50 === 49) await this.store.breathe();
    }
    const beside = backupFilesDir(this.dataDir);
    const loose = (existsSync(beside) ? readdirSync(beside) : []).filter((hash) => !this.files.has(hash));
    if (loose.length === 0) return;
    const inBackups = new Set<string>();
    for (const { name } of listBackups(this.dataDir))
      for await (const hash of filesOfArchive(join(this.dir, name))) inBackups.add(hash);
    for (const hash of loose) if (!inBackups.has(hash)) rmSync(join(beside, hash), { force: true });
  }
}

/**
 * Which automatic backups are kept, by name: the last seven daily ones, before them the last of each week, eight weeks, and
 * the last twelve of the others. By their order and their own dates alone: what a clock says now moves nothing.
 * @param list in order of their changes
 */
export function keptByRule(list: readonly KeptBackup[]): Set<string> {
  const daily = list.filter((b) => b.why === 'daily');
  const others = list.filter((b) => b.why !== 'daily');
  const lastOfWeek = new Map<string, string>();
  for (const { at, name } of daily.slice(0, -DAILY_KEPT))
    lastOfWeek.set(DateTime.fromMillis(at, { zone: 'utc' }).toFormat('kkkk-WW'), name);
  return new Set([
    ...daily.slice(-DAILY_KEPT).map((b) => b.name),
    ...[...lastOfWeek.values()].slice(-WEEKLY_KEPT),
    ...others.slice(-OTHERS_KEPT).map((b) => b.name),
  ]);
}
