import { createHash, randomUUID } from 'node:crypto';
import {
  closeSync,
  existsSync,
  fdatasync,
  fsyncSync,
  ftruncateSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import type { Op } from '../db/ops';
import { Refusal } from '../errors';

/**
 * The journal: every accepted change, one line each, on the disk before the change is acknowledged. The database
 * itself never asks the system to write anything down for good, so after a power cut the journal is what holds.
 *
 * It is cut into segments; a new one begins with each automatic backup. Changes are numbered throughout. A history is
 * a run of changes from one beginning: an empty yard, or the backup in `base` that was put in place of everything.
 * A line is its checksum, a space, JSON. See docs/formats.md.
 */
export interface SegmentHead {
  readonly journal: 1;
  readonly history: string;
  /** The automatic backup that this history begins with; null: from an empty yard. */
  readonly base: string | null;
  /** Number of the first change in it. */
  readonly first: number;
  readonly at: number;
}
export interface JournalRecord {
  readonly n: number;
  readonly at: number;
  readonly ops: readonly Op[];
}
type Line = SegmentHead | JournalRecord | { readonly n: number; readonly at: number; readonly takenBack: number };

export interface Segment {
  readonly file: string;
  /** Null: its first line cannot be read, so nobody knows what the others follow. */
  readonly head: SegmentHead | null;
  /** Changes that stand, in order. */
  readonly records: readonly JournalRecord[];
  /** Every number that can be read in it, those taken back too, and when it was written. */
  readonly seen: readonly { readonly n: number; readonly at: number }[];
  /** Number of the last change in it, as far as anybody can tell. */
  readonly lastN: number;
  /** Whole lines that cannot be read, by their place in the file. */
  readonly damaged: readonly number[];
  /** How far its lines are whole: what follows is a write that was cut off. */
  readonly wholeBytes: number;
}

/** What the journal does to its files; tests put failures in its place. */
export interface Disk {
  write(fd: number, data: Buffer): number;
  sync(fd: number, done: (error: Error | null) => void): void;
}
const DISK: Disk = { write: (fd, data) => writeSync(fd, data), sync: fdatasync };

export const journalDir = (dataDir: string) => join(dataDir, 'journal');

const sum = (json: string) => createHash('sha256').update(json).digest('hex').slice(0, 16);

const fileOf = (dir: string, first: number) => join(dir, `${String(first).padStart(12, '0')}.jsonl`);

/** Files of the segments of a folder, oldest first. */
export function segmentFiles(dir: string): string[] {
  if (!existsSync(dir)) return [];
  return readdirSync(dir)
    .filter((name) => /^\d{12}\.jsonl$/.test(name))
    .sort()
    .map((name) => join(dir, name));
}

/** Number of the first change in a segment, from its name. */
export const firstOf = (file: string): number => Number(/(\d{12})\.jsonl$/.exec(file)?.[1]);

/** One segment. A last line without its end was never acknowledged and is left out. */
export function readSegment(file: string): Segment {
  const content = readFileSync(file);
  const records = new Map<number, JournalRecord>();
  const seen: { n: number; at: number }[] = [];
  const damaged: number[] = [];
  let head: SegmentHead | null = null;
  let lastN = firstOf(file) - 1;
  let wholeBytes = 0;
  let damagedAtEnd = 0;
  for (let place = 1, end = content.indexOf(10); end >= 0; place += 1, end = content.indexOf(10, wholeBytes)) {
    const line = readLine(content.toString('utf8', wholeBytes, end));
    wholeBytes = end + 1;
    if (line === null) {
      damaged.push(place);
      // A head has no number.
      if (place > 1) damagedAtEnd += 1;
      continue;
    }
    damagedAtEnd = 0;
    if ('journal' in line) head = line;
    else {
      lastN = Math.max(lastN, line.n);
      seen.push({ n: line.n, at: line.at });
      if ('takenBack' in line) records.delete(line.takenBack);
      else records.set(line.n, line);
    }
  }
  return { file, head, records: [...records.values()], seen, lastN: lastN + damagedAtEnd, damaged, wholeBytes };
}

function readLine(text: string): Line | null {
  const json = text.slice(17);
  if (text[16] !== ' ' || sum(json) !== text.slice(0, 16)) return null;
  return JSON.parse(json) as Line;
}

export class Journal {
  private fd: number | null = null;
  private bytes = 0;
  private lastN = 0;
  private syncedN = 0;
  private running: Promise<void> | null = null;
  private following: Promise<void> | null = null;
  private broken: Refusal | null = null;
  private wroteAt: number | null = null;
  private head: SegmentHead | null = null;

  /** @param dir null: nothing is kept (a database in memory, for tests) */
  constructor(
    private readonly dir: string | null,
    private readonly disk: Disk = DISK,
  ) {
    if (dir === null) return;
    mkdirSync(dir, { recursive: true });
    const segments = this.goOnWithLast(dir);
    this.found = segments;
    this.lastN = this.syncedN = segments[segments.length - 1]?.lastN ?? 0;
  }

  private found: readonly Segment[] = [];
  private histories = new Set<string>();

  /** The segments as they were found on opening, oldest first; told once, for they may be large. */
  takeFound(): readonly Segment[] {
    const { found } = this;
    this.found = [];
    return found;
  }

  private goOnWithLast(dir: string): Segment[] {
    const segments = segmentFiles(dir).map(readSegment);
    for (let last = segments.pop(); last; last = segments.pop()) {
      // Power went while it was begun: nothing stands in it.
      if (last.head === null && last.wholeBytes === 0) rmSync(last.file);
      else {
        segments.push(last);
        break;
      }
    }
    const last = segments[segments.length - 1];
    this.histories = new Set(segments.flatMap((s) => s.head?.history ?? []));
    this.wroteAt = segments.flatMap((s) => s.seen[s.seen.length - 1]?.at ?? s.head?.at ?? []).pop() ?? null;
    this.head = segments.findLast((s) => s.head !== null)?.head ?? null;
    if (!last) return segments;
    const fd = openSync(last.file, 'r+');
    ftruncateSync(fd, last.wholeBytes);
    closeSync(fd);
    this.fd = openSync(last.file, 'a');
    this.bytes = last.wholeBytes;
    return segments;
  }

  /** Numbers go on after this one, where more is known to have been written than stands here. */
  goOnAfter(n: number): void {
    this.lastN = this.syncedN = Math.max(this.lastN, n);
  }

  /** Called with each history that begins. */
  onHistory: (head: SegmentHead) => void = () => undefined;

  /** Whether it is in this history, or was before. */
  knows(history: string): boolean {
    return this.histories.has(history);
  }

  /** The history it is in; null before the first segment. */
  get history(): string | null {
    return this.head?.history ?? null;
  }
  /** When the last change was written, by the clock of then; null before the first. */
  get lastAt(): number | null {
    return this.wroteAt;
  }
  get n(): number {
    return this.lastN;
  }
  get state(): { n: number; syncedN: number; problem: string | null } {
    return { n: this.lastN, syncedN: this.syncedN, problem: this.broken?.message ?? null };
  }

  /** Begin a segment: of the history it is in, or of a new one that begins with a backup (null: an empty yard). */
  async begin(at: number, newHistory?: { base: string | null }): Promise<SegmentHead> {
    await this.synced();
    while (this.running) await this.running;
    const head: SegmentHead = {
      journal: 1,
      history: newHistory || !this.head ? randomUUID() : this.head.history,
      base: newHistory ? newHistory.base : (this.head?.base ?? null),
      first: this.lastN + 1,
      at,
    };
    if (this.dir !== null) {
      // Written at the end always: after a line that did not fit the file is cut back.
      rmSync(fileOf(this.dir, head.first), { force: true });
      const fd = openSync(fileOf(this.dir, head.first), 'a');
      const line = lineOf(head);
      this.wholly(fd, 0, line);
      fsyncSync(fd);
      syncFolder(this.dir);
      if (this.fd !== null) closeSync(this.fd);
      this.fd = fd;
      this.bytes = line.length;
    }
    this.head = head;
    this.histories.add(head.history);
    if (newHistory) this.onHistory(head);
    return head;
  }

  /** The segment begun last is of no use: what it was to follow did not happen. */
  abandon(head: SegmentHead): void {
    if (this.dir === null) return;
    if (this.fd !== null) closeSync(this.fd);
    this.fd = null;
    rmSync(fileOf(this.dir, head.first), { force: true });
    this.goOnWithLast(this.dir);
  }

  /**
   * Write a change down; it is on the disk when `synced` is done.
   * @returns its number
   * @throws Refusal 507 when there is no room, 503 when the journal cannot be written; nothing of it is left then
   */
  append(at: number, ops: readonly Op[]): number {
    const n = this.lastN + 1;
    this.line({ n, at, ops });
    this.lastN = n;
    this.wroteAt = at;
    return n;
  }

  /** The change could not be made after all. */
  takeBack(n: number): void {
    try {
      this.line({ n: this.lastN + 1, at: Date.now(), takenBack: n });
      this.lastN += 1;
    } catch (error) {
      this.broken = cannotWrite(error as Error, this.dir);
    }
  }

  private line(line: Line): void {
    if (this.broken) throw this.broken;
    if (this.fd === null) return;
    const data = lineOf(line);
    try {
      this.wholly(this.fd, this.bytes, data);
    } catch (error) {
      throw cannotWrite(error as Error, this.dir);
    }
    this.bytes += data.length;
  }

  private wholly(fd: number, at: number, data: Buffer): void {
    try {
      for (let done = 0; done < data.length;) done += this.disk.write(fd, data.subarray(done));
    } catch (error) {
      try {
        ftruncateSync(fd, at);
      } catch {
        // Half a line may be left at the end: it is known by its checksum.
        this.broken = cannotWrite(error as Error, this.dir);
      }
      throw error;
    }
  }

  /** Everything appended so far is on the disk. Those who come while it is being written share the next sync. */
  synced(): Promise<void> {
    if (this.broken) return Promise.reject(this.broken);
    if (this.fd === null || this.syncedN === this.lastN) return Promise.resolve();
    if (!this.running) return (this.running = this.sync());
    this.following ??= this.running.catch(() => undefined).then(() => (this.running = this.sync()));
    return this.following;
  }

  private sync(): Promise<void> {
    this.following = null;
    const upTo = this.lastN;
    return new Promise<void>((done, fail) => {
      this.disk.sync(this.fd as number, (error) => {
        this.running = null;
        if (error) {
          // After a failed sync nobody can know what is on the disk.
          this.broken = cannotWrite(error, this.dir);
          fail(this.broken);
        } else {
          this.syncedN = Math.max(this.syncedN, upTo);
          done();
        }
      });
    });
  }

  /** Begin from nothing: what was written down before is of no use to anyone. */
  async forget(): Promise<void> {
    await this.synced();
    while (this.running) await this.running;
    if (this.fd !== null) closeSync(this.fd);
    this.fd = null;
    this.head = null;
    this.found = [];
    this.lastN = this.syncedN = this.bytes = 0;
    if (this.dir !== null) for (const file of segmentFiles(this.dir)) rmSync(file);
  }

  close(): void {
    if (this.fd === null) return;
    fsyncSync(this.fd);
    closeSync(this.fd);
    this.fd = null;
  }
}

function lineOf(line: Line): Buffer {
  const json = JSON.stringify(line);
  return Buffer.from(`${sum(json)} ${json}\n`);
}

function cannotWrite(error: NodeJS.ErrnoException, dir: string | null): Refusal {
  if (error instanceof Refusal) return error;
  if (error.code === 'ENOSPC' || error.code === 'EDQUOT') {
    return new Refusal(
      507,
      'disk_full',
      `The disk with ${dir} is full: this was not saved. Make room on it, then send it again. What was saved before can still be read.`,
    );
  }
  return new Refusal(
    503,
    'journal',
    `${dir} cannot be written (${error.code ?? error.message}): nothing more is saved until that is put right and the program is started again. What was saved before can still be read.`,
  );
}

/** A new file is only there after a power cut when its folder was written down too. */
export function syncFolder(dir: string): void {
  if (process.platform === 'win32') return;
  const fd = openSync(dir, 'r');
  try {
    fsyncSync(fd);
  } finally {
    closeSync(fd);
  }
}
