import { type Op, type Row, applyOps } from './ops';
import type { Journal } from '../keep/journal';
import { BoatCache } from './boatCache';
import { connectionBroke } from '../errors';
import type { Db } from './database';
import { type TableName } from './schema';
import { TOUCHED } from './touched';

/** What a change works with: it reads the database as it is, and says which rows it wants written. */
export interface Writing {
  readonly db: Db;
  readonly boats: BoatCache;
  put(table: TableName, row: object): Promise<void>;
  add(table: TableName, row: object): Promise<void>;
}

/** A change that comes in between makes a reading worthless; so often it is taken again before it waits its turn. */
const STEADY_TRIES = 5;

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
  /** What is being written now. */
  private writing: Promise<unknown> | null = null;

  constructor(
    readonly db: Db,
    readonly journal: Journal,
    private readonly options: { now(): number; demo: boolean },
  ) {
    this.boats = new BoatCache(db);
  }

  /** Another number after each change: what is worked out from everything holds while it is the same. */
  get changes(): number {
    return this.written;
  }

  /** @throws whatever the change refuses with; nothing is written then */
  async write<T>(decide: (writing: Writing) => Promise<T>): Promise<T> {
    const answer = await this.alone(async () => {
      const ops: Op[] = [];
      const put = async (table: TableName, row: object) => void ops.push(['put', table, row as Row]);
      const add = async (table: TableName, row: object) => void ops.push(['add', table, row as Row]);
      const decided = await decide({ db: this.db, boats: this.boats, put, add });
      if (ops.length > 0) await this.carryOut(ops);
      return decided;
    });
    // Also what was found written already waits for the disk: the answer to its first sending may never have come.
    await this.journal.synced();
    return answer;
  }

  /** While nobody writes: for what must see everything at one moment. Reading goes on meanwhile. */
  alone<T>(work: () => Promise<T>): Promise<T> {
    const mine = this.turn.then(work);
    this.turn = mine.catch(() => undefined);
    return mine;
  }

  /** What is read of several places at one moment: read again where a change came in between. */
  async steady<T>(read: () => Promise<T>): Promise<T> {
    for (let tries = 0; tries < STEADY_TRIES; tries += 1) {
      await this.writing?.catch(() => undefined);
      const at = this.written;
      const answer = await read();
      if (this.writing === null && at === this.written) return answer;
    }
    return this.alone(read);
  }

  private async carryOut(wanted: readonly Op[]): Promise<void> {
    // The demo remembers that a person changed something, so that it is never made anew over it.
    const ops: readonly Op[] =
      this.options.demo && !this.touched ? [...wanted, ['put', 'facts', { key: TOUCHED, value: true }]] : wanted;
    const n = this.journal.append(this.options.now(), ops);
    try {
      await this.land(applyOps(this.db, ops), () => {
        this.touched = true;
        this.boats.heed(ops);
      });
    } catch (error) {
      // Sent again, what may have been carried out is found there; until then nothing kept of it holds.
      if (connectionBroke(error)) this.boats.forget();
      else this.journal.takeBack(n);
      throw error;
    }
  }

  /** Between what the database has and what is kept of it nobody may read: `heed` follows in the same breath. */
  private async land(writing: Promise<void>, heed: () => void): Promise<void> {
    this.writing = writing;
    try {
      await writing;
      this.written += 1;
      heed();
    } finally {
      this.writing = null;
    }
  }

  /** Put everything in place of what is here; for whoever is alone. */
  replace(work: () => Promise<void>): Promise<void> {
    return this.land(work(), () => {
      this.touched = false;
      this.boats.forget();
    });
  }
}
