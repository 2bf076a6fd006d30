import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import { DateTime } from 'luxon';
import type { KeptBackup } from '#contracts/rows/keeping';
import type { Store } from '../db/store';
import { writeArchive } from './archive';
import { shareFile, type FileStore } from './files';
import { firstOf, segmentFiles, syncFolder } from './journal';
import { checkArchive } from './restore';

const DAY_MS = 86_400_000;
/** All of these last days are kept, then one a week; what was put away before a restore or an update, longer. */
const DAILY_KEPT_MS = 7 * DAY_MS;
const WEEKLY_KEPT_MS = 56 * DAY_MS;
const BEFORE_KEPT_MS = 90 * DAY_MS;

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
 * Automatic backups: daily, and before every update and restore. Each is read back before it counts, and the journal
 * goes on in a new segment after it. All of the last seven days are kept, then the newest of each week for eight
 * weeks, those from before a restore or an update for ninety days; the journal as far back as the oldest one.
 */
export class Backups {
  private problem: string | null = null;
  private timer: ReturnType<typeof setInterval> | null = null;

  constructor(
    readonly dataDir: string,
    private readonly store: Store,
    private readonly files: FileStore,
    readonly now: () => number,
  ) {}

  get dir(): string {
    return backupsDir(this.dataDir);
  }

  /** Why the last attempt failed, in a sentence; null when it did not. */
  get trouble(): string | null {
    return this.problem;
  }

  /** Back up now, while nobody writes. @throws Error in a sentence; nothing of it is left then */
  make(why: Why): Promise<KeptBackup> {
    return this.store.alone(() => this.makeAlone(why));
  }

  /** As `make`, for a caller that already keeps others from writing. */
  async makeAlone(why: Why, newHistory = false): Promise<KeptBackup> {
    const { journal, db } = this.store;
    await journal.synced();
    mkdirSync(backupFilesDir(this.dataDir), { recursive: true });
    for (const hash of this.files.list()) {
      const beside = join(backupFilesDir(this.dataDir), hash);
      shareFile(join(this.files.dir, hash), beside);
      utimesSync(beside, new Date(), new Date());
    }
    const at = this.now();
    const name = this.freeName(at, why);
    const path = join(this.dir, name);
    const draft = `${path}.part`;
    try {
      await writeArchive(draft, {
        db,
        files: this.files,
        now: at,
        history: journal.history,
        change: journal.n,
        filesBeside: true,
      });
      await checkArchive(draft, { beside: backupFilesDir(this.dataDir) });
      renameSync(draft, path);
      syncFolder(this.dir);
    } catch (error) {
      rmSync(draft, { force: true });
      throw error;
    }
    await journal.begin(at, newHistory ? { base: name } : undefined);
    this.problem = null;
    return { name, at, change: journal.n, why, bytes: statSync(path).size };
  }

  /** A name that no backup has: of two within a second the later one is told as of the next. */
  freeName(at: number, why: Why): string {
    const name = backupName(at, this.store.journal.n, why);
    return existsSync(join(this.dir, name)) ? this.freeName(at + 1000, why) : name;
  }

  /** From now on a backup a day, the first at once where the last one is older. */
  startDaily(tell: (problem: string) => void): void {
    const look = () => {
      const last = listBackups(this.dataDir).pop();
      if (last && Math.abs(this.now() - last.at) < DAY_MS) return;
      this.make('daily').then(
        () => this.prune(),
        (error: unknown) => {
          this.problem = (error as Error).message;
          tell(this.problem);
        },
      );
    };
    look();
    this.timer = setInterval(look, 3_600_000);
    this.timer.unref();
  }

  stop(): void {
    if (this.timer) clearInterval(this.timer);
  }

  /** Throw away what the rule no longer keeps. */
  prune(): void {
    const kept = keptByRule(listBackups(this.dataDir), this.now());
    for (const backup of listBackups(this.dataDir))
      if (!kept.has(backup.name)) rmSync(join(this.dir, backup.name), { force: true });
    // A file goes when no backup that is still kept can name it.
    const beside = backupFilesDir(this.dataDir);
    for (const hash of existsSync(beside) ? readdirSync(beside) : []) {
      if (!this.files.has(hash) && Date.now() - statSync(join(beside, hash)).mtimeMs > BEFORE_KEPT_MS)
        rmSync(join(beside, hash), { force: true });
    }
    const oldest = listBackups(this.dataDir)[0];
    const segments = segmentFiles(join(this.dataDir, 'journal'));
    // A segment is of no use when the next one begins at or before the change that the oldest backup ends with.
    segments.forEach((file, i) => {
      const next = segments[i + 1];
      if (oldest && next && firstOf(next) <= oldest.change + 1) rmSync(file, { force: true });
    });
  }
}

/** Which automatic backups are kept at `now`, by name. Pure: the rule itself. */
export function keptByRule(list: readonly KeptBackup[], now: number): Set<string> {
  const weekly = new Map<string, string>();
  const kept = new Set<string>();
  for (const backup of [...list].sort((a, b) => a.at - b.at)) {
    const age = now - backup.at;
    const before = backup.why.startsWith('before-') || backup.why === 'restored';
    if (age < DAILY_KEPT_MS || (before && age < BEFORE_KEPT_MS)) kept.add(backup.name);
    if (age < WEEKLY_KEPT_MS)
      weekly.set(DateTime.fromMillis(backup.at, { zone: 'utc' }).toFormat('kkkk-WW'), backup.name);
  }
  const newest = list[list.length - 1];
  return new Set([...kept, ...weekly.values(), ...(newest ? [newest.name] : [])]);
}
