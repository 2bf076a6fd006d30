import { setImmediate } from 'node:timers/promises';
import { type Op, type Row, applyOps } from './ops';
import type { Journal } from '../keep/journal';
import { BoatCache } from './boatCache';
import { connectionBroke, Refusal } from '../errors';
import type { Db } from './database';
import { lastChangeOp } from './lastChange';
import { type TableName } from './schema';
import { TOUCHED } from './touched';

/** What a change works with: it reads the database as it is, and says which rows it wants written. */
export interface Writing {
  readonly db: Db;
  readonly boats: BoatCache;
  put(table: TableName, row: object): Promise<void>;
  add(table: TableName, row: object): Promise<void>;
}

/**
 * The one place where anything is written. Changes come one after the other: each first decides what it writes
 * (reading only), that goes into the journal, then into the database, whole or not at all; the caller hears of it when
 * the journal is on the disk. So nothing that was acknowledged rests on the database's own files alone.
 */
export class Store {
  readonly boats: BoatCache;
  private turn: Promise<unknown> = Promise.resolve();
  private touched = false;
  private written = 0;
  private replacements = 0;
  /** Changes that wait or are being made. */
  private waiting = 0;
  private readonly watching = new Set<(ops: readonly Op[]) => void>();
  /** Why nothing can be written for a while, in a sentence; null where it can. */
  private closed: string | null = null;

  constructor(
    readonly db: Db,
    readonly journal: Journal,
    /** `away`: why the database cannot be asked, in a sentence; null where it can. */
    private readonly options: { now(): number; demo: boolean; away?: () => string | null },
  ) {
    this.boats = new BoatCache(db);
  }

  /** Another number after each change: what is worked out from everything holds while it is the same. */
  get changes(): number {
    return this.written;
  }

  /** Another number each time everything was replaced. */
  get replaced(): number {
    return this.replacements;
  }

  /** Why the database cannot be asked, in a sentence; null where it can. */
  get away(): string | null {
    return this.options.away?.() ?? null;
  }

  /** Why nothing can be saved just now, in a sentence; null where it can. */
  get savingWaits(): string | null {
    return this.closed ?? this.away ?? this.journal.state.problem;
  }

  /** @throws whatever the change refuses with, or Refusal 503 while nothing can be written; nothing is written then */
  async write<T>(decide: (writing: Writing) => Promise<T>): Promise<T> {
    this.mustBeOpen();
    this.waiting += 1;
    const answer = await this.alone(async () => {
      this.mustBeOpen();
      const ops: Op[] = [];
      const put = async (table: TableName, row: object) => void ops.push(['put', table, row as Row]);
      const add = async (table: TableName, row: object) => void ops.push(['add', table, row as Row]);
      const decided = await decide({ db: this.db, boats: this.boats, put, add });
      if (ops.length > 0) await this.carryOut(ops);
      return decided;
    }).finally(() => (this.waiting -= 1));
    // Also what was found written already waits for the disk: the answer to its first sending may never have come.
    await this.journal.synced();
    return answer;
  }

  private mustBeOpen(): void {
    if (this.closed !== null) throw new Refusal(503, 'busy', this.closed);
    if (this.away !== null) throw new Refusal(503, 'database_away', this.away);
  }

  /** While nobody writes: for what must see everything at one moment. Reading goes on meanwhile. */
  alone<T>(work: () => Promise<T>): Promise<T> {
    const mine = this.turn.then(work);
    this.turn = mine.catch(() => undefined);
    return mine;
  }

  /** Long work puts this between its steps: whoever saves goes first. */
  async breathe(): Promise<void> {
    await setImmediate();
    if (this.waiting > 0) await this.turn;
  }

  /** Hear of every change as it is made, in the same breath. @returns what ends that */
  watch(heed: (ops: readonly Op[]) => void): () => void {
    this.watching.add(heed);
    return () => void this.watching.delete(heed);
  }

  private async carryOut(wanted: readonly Op[]): Promise<void> {
    // The demo remembers that a person changed something, so that it is never made anew over it.
    const ops: readonly Op[] =
      this.options.demo && !this.touched ? [...wanted, ['put', 'facts', { key: TOUCHED, value: true }]] : wanted;
    const onDisk = this.journal.state.syncedN;
    const n = this.journal.append(this.options.now(), ops);
    try {
      await applyOps(this.db, [...ops, lastChangeOp(n, onDisk)]);
    } catch (error) {
      // Sent again, what may have been carried out is found there; until then nothing kept of it holds.
      if (connectionBroke(error)) this.boats.doubt();
      else this.journal.takeBack(n);
      throw error;
    }
    this.touched = true;
    this.written += 1;
    this.boats.heed(ops);
    for (const heed of this.watching) heed(ops);
  }

  /** Put everything in place of what is here; for whoever is alone. What others send meanwhile is told why it has to wait. */
  async replace(why: string, work: () => Promise<void>): Promise<void> {
    this.closed = why;
    try {
      await work();
    } finally {
      this.closed = null;
    }
    this.written += 1;
    this.replacements += 1;
    this.touched = false;
    this.boats.forget();
  }
}
