import { openDB, type IDBPDatabase } from 'idb';
import { useSyncExternalStore } from 'react';
import { call, NoAnswer, Refused } from './api';
import { linksOf, requestOf, type Change } from './changes';

/** Why a waiting change was not taken. */
export interface Failure {
  status: number;
  code: string;
  message: string;
  field: string | null;
  current: unknown;
}

export interface Waiting {
  seq?: number;
  id: string;
  change: Change;
  label: string;
  /** Refused, or waiting behind one that was: stays here with its text until a person decides. */
  parked: Failure | null;
}

export type Outcome = { ok: true } | { ok: false; failure: Failure };

const STORE = 'waiting';
const RETRY_MS = [500, 1000, 2000, 4000, 8000, 15_000];

/**
 * All writes go through here, in order: kept on the device first, then sent, again and again until the
 * server answers. A refused one parks what depends on it, never the queue.
 */
export class Outbox {
  private list: Waiting[] = [];
  private readonly listeners = new Set<() => void>();
  private db: IDBPDatabase | null = null;
  private readonly opened: Promise<void>;
  private readonly outcomes = new Map<string, (outcome: Outcome) => void>();
  private readonly channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('jack-plane-outbox');
  private draining = false;
  private tries = 0;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private silent = false;
  /** Called with a change the server has taken, before it leaves the queue. */
  onLanded: (change: Change) => void = () => undefined;

  constructor() {
    this.opened = this.open();
    addEventListener('online', () => void this.drain());
    if (this.channel) this.channel.onmessage = () => void this.reload().then(() => this.drain());
    void this.opened.then(() => this.drain());
  }

  /** A device that keeps nothing still works until the tab is closed. */
  private async open(): Promise<void> {
    try {
      this.db = await openDB('jack-plane', 1, { upgrade: (db) => void db.createObjectStore(STORE, { keyPath: 'seq', autoIncrement: true }) });
      await this.reload();
    } catch {
      this.db = null;
    }
  }

  readonly subscribe = (tell: () => void): (() => void) => {
    this.listeners.add(tell);
    return () => this.listeners.delete(tell);
  };
  readonly snapshot = (): readonly Waiting[] => this.list;
  /** Whether the last attempt got no answer. */
  readonly noAnswer = (): boolean => this.silent;

  /**
   * Queue a change. Resolves once the server has taken or refused it, which with no signal can be a long
   * time. With `inline` a refusal is handed back to the form it came from instead of being parked.
   */
  async put(id: string, change: Change, label: string, options: { inline?: boolean } = {}): Promise<Outcome> {
    await this.opened;
    const waiting: Waiting = { id, change, label, parked: null };
    if (this.db) waiting.seq = (await this.db.add(STORE, waiting)) as number;
    this.set([...this.list, waiting]);
    const outcome = new Promise<Outcome>((done) => this.outcomes.set(id, done));
    if (options.inline) this.inline.add(id);
    void this.drain();
    return outcome;
  }
  private readonly inline = new Set<string>();

  /** Send a parked change again, changed or as it is. */
  async retry(id: string, change?: Change): Promise<void> {
    await this.update(id, (w) => ({ ...w, change: change ?? w.change, parked: null }));
    // What waited behind it gets its turn too.
    for (const other of this.list.filter((w) => w.parked?.code === 'behind')) await this.update(other.id, (w) => ({ ...w, parked: null }));
    void this.drain();
  }

  async drop(id: string): Promise<void> {
    const found = this.list.find((w) => w.id === id);
    if (!found) return;
    if (this.db && found.seq !== undefined) await this.db.delete(STORE, found.seq);
    this.set(this.list.filter((w) => w.id !== id));
    this.channel?.postMessage('changed');
  }

  private async update(id: string, change: (w: Waiting) => Waiting): Promise<void> {
    const found = this.list.find((w) => w.id === id);
    if (!found) return;
    const next = change(found);
    if (this.db) await this.db.put(STORE, next);
    this.set(this.list.map((w) => (w.id === id ? next : w)));
  }

  private async reload(): Promise<void> {
    if (this.db) this.set((await this.db.getAll(STORE)) as Waiting[]);
  }

  private set(list: Waiting[]): void {
    this.list = list;
    this.listeners.forEach((tell) => tell());
  }

  async drain(): Promise<void> {
    if (this.draining) return;
    this.draining = true;
    try {
      // One tab sends at a time, so that the order holds across tabs.
      const work = () => this.sendAll();
      if (navigator.locks) await navigator.locks.request('jack-plane-outbox', work);
      else await work();
    } finally {
      this.draining = false;
    }
    if (this.list.some((w) => !w.parked) && this.timer === null) {
      const wait = this.silent ? (RETRY_MS[Math.min(this.tries, RETRY_MS.length - 1)] as number) : 0;
      this.timer = setTimeout(() => {
        this.timer = null;
        void this.drain();
      }, wait);
    }
  }

  private async sendAll(): Promise<void> {
    await this.reload();
    for (;;) {
      const next = this.list.find((w) => !w.parked);
      if (!next) return;
      const { path, body } = requestOf(next.change);
      try {
        await call('PUT', path, body);
      } catch (error) {
        if (error instanceof NoAnswer || !(error instanceof Refused)) {
          this.silent = true;
          this.tries += 1;
          this.set([...this.list]);
          return;
        }
        this.silent = false;
        await this.refuse(next, error);
        continue;
      }
      this.silent = false;
      this.tries = 0;
      this.onLanded(next.change);
      await this.drop(next.id);
      this.settle(next.id, { ok: true });
    }
  }

  private async refuse(waiting: Waiting, error: Refused): Promise<void> {
    const failure: Failure = { status: error.status, code: error.code, message: error.message, field: error.field, current: error.current };
    if (this.inline.has(waiting.id)) {
      await this.drop(waiting.id);
    } else {
      await this.update(waiting.id, (w) => ({ ...w, parked: failure }));
      await this.parkBehind(waiting);
    }
    this.settle(waiting.id, { ok: false, failure });
  }

  /** Whatever stands on a refused change waits for it; the rest goes on. */
  private async parkBehind(refused: Waiting): Promise<void> {
    const blocked = new Set(linksOf(refused.change).touches);
    const from = this.list.findIndex((w) => w.id === refused.id);
    for (const later of this.list.slice(from + 1)) {
      const { touches, needs } = linksOf(later.change);
      if (![...touches, ...needs].some((id) => blocked.has(id))) continue;
      touches.forEach((id) => blocked.add(id));
      await this.update(later.id, (w) => ({ ...w, parked: { status: 0, code: 'behind', message: `Waits for "${refused.label}".`, field: null, current: null } }));
    }
  }

  private settle(id: string, outcome: Outcome): void {
    this.outcomes.get(id)?.(outcome);
    this.outcomes.delete(id);
    this.inline.delete(id);
  }
}

export const outbox = new Outbox();

export function useOutbox(): readonly Waiting[] {
  return useSyncExternalStore(outbox.subscribe, outbox.snapshot);
}
