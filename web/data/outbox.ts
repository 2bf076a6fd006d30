import { openDB, type IDBPDatabase } from 'idb';
import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import { call, Fault, NoAnswer, Refused } from './api';
import { ofThisYard } from './base';
import { linksOf, rebased, requestOf, withFile, type Change, type Rebase } from './changes';
import { blockerOf, type Failure, type Outcome, type Waiting } from './waiting';

/** What tabs tell each other. */
type TabMessage = { what: 'changed' } | { what: 'settled'; id: string; outcome: Outcome; landed: Change | null };

const STORE = 'waiting';
const RETRY_MS = [500, 1000, 2000, 4000, 8000, 15_000];
/** Without an answer for so long, it is said that there is none yet. */
const LATE_MS = 3000;
/** A change at which the server itself fails so often is put aside: others must not wait for it. */
const FAULTS_MOST = 4;

/**
 * All writes go through here, in order: kept on the device first, then sent, again and again until the
 * server answers. A refused one parks what depends on it, never the queue. Tabs of one device share it.
 */
export class Outbox {
  readonly store = createStore<readonly Waiting[]>(() => []);
  private db: IDBPDatabase | null = null;
  private readonly opened: Promise<void>;
  private readonly outcomes = new Map<string, (outcome: Outcome) => void>();
  private readonly inline = new Set<string>();
  /** Sent because a person said so, whatever is parked before it. */
  private readonly sentByHand = new Set<string>();
  private readonly faults = new Map<string, number>();
  private readonly channel =
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(ofThisYard('jack-plane-outbox'));
  private draining = false;
  private tries = 0;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private silent = false;
  private late = false;
  /** What is being sent now, to be given up when a better line may be there. */
  private sending: AbortController | null = null;
  private serverTrouble: string | null = null;
  /** Called with a change the server has taken, before it leaves the queue. */
  onLanded: (change: Change) => void = () => undefined;

  constructor() {
    this.opened = this.open();
    addEventListener('online', () => this.tryNow());
    if (this.channel) this.channel.onmessage = ({ data }: MessageEvent<TabMessage>) => void this.hear(data);
    void this.opened.then(() => this.drain());
  }

  /** A device that keeps nothing still works until the tab is closed. */
  private async open(): Promise<void> {
    try {
      this.db = await openDB(ofThisYard('jack-plane'), 1, {
        upgrade: (db) => void db.createObjectStore(STORE, { keyPath: 'seq', autoIncrement: true }),
      });
      await this.reload();
    } catch {
      this.db = null;
    }
  }

  private get list(): readonly Waiting[] {
    return this.store.getState();
  }
  readonly snapshot = this.store.getState;
  /** Whether the last attempt got no answer, and whether one is waited for longer than usual. */
  readonly noAnswer = (): boolean => this.silent;
  readonly noAnswerYet = (): boolean => this.late;
  /** What the server said when it could not do what it was asked; null while it can. */
  readonly trouble = (): string | null => this.serverTrouble;

  /**
   * Queue a change. Resolves once the server has taken or refused it, which with no signal can be a long
   * time. With `inline` a refusal is handed back to the form it came from instead of being parked.
   */
  async put(
    id: string,
    change: Change,
    label: string,
    options: { inline?: boolean; file?: Blob } = {},
  ): Promise<Outcome> {
    await this.opened;
    const { file } = options;
    const waiting: Waiting = { id, change, label, parked: null, kept: true, ...(file ? { file } : {}) };
    try {
      if (!this.db) throw new Error('nothing is kept here');
      waiting.seq = (await this.db.add(STORE, waiting)) as number;
    } catch {
      // The device is full, or keeps nothing: it is sent from here at once, and not shown as logged before.
      waiting.kept = false;
    }
    this.set([...this.list, waiting]);
    const outcome = new Promise<Outcome>((done) => this.outcomes.set(id, done));
    if (options.inline) this.inline.add(id);
    void this.drain();
    return outcome;
  }

  /** Send a parked change again, changed or as it is, and with it what waits behind it. */
  async retry(id: string, change?: Change): Promise<void> {
    this.faults.delete(id);
    this.sentByHand.add(id);
    await this.update(id, (w) => ({ ...w, change: change ?? w.change, parked: null }));
    await this.release(id);
    void this.drain();
  }

  /** Send all that was parked again, in its order. */
  async retryAll(): Promise<void> {
    for (const { id, parked } of this.list.filter((w) => w.parked !== null)) {
      this.faults.delete(id);
      if (parked?.behind === undefined) this.sentByHand.add(id);
      await this.update(id, (w) => ({ ...w, parked: null }));
    }
    this.tryNow();
  }

  /** The line may be another one now: what hangs on the old one is given up and sent at once. */
  private tryNow(): void {
    this.tries = 0;
    this.sending?.abort();
    clearTimeout(this.timer ?? undefined);
    this.timer = null;
    void this.drain();
  }

  /** "Keep mine": the change is put on top of what stands on the server now, and so is what was written after it. */
  async keepMine(id: string, rebases: readonly Rebase[]): Promise<void> {
    const from = this.list.findIndex((w) => w.id === id);
    if (from < 0) return;
    for (const later of this.list.slice(from))
      await this.update(later.id, (w) => ({ ...w, change: rebased(w.change, rebases) }));
    await this.retry(id);
  }

  /** Nobody waits at a form for it any more: what is refused of it is put aside and told. */
  letGo(id: string): void {
    this.inline.delete(id);
  }

  /** Give up a change. What waited behind it may stand on its own: it is sent, and told if it does not. */
  async drop(id: string): Promise<void> {
    await this.remove(id);
    await this.release(id);
    void this.drain();
  }

  private async release(id: string): Promise<void> {
    for (const other of this.list.filter((w) => w.parked?.behind === id))
      await this.update(other.id, (w) => ({ ...w, parked: null }));
  }

  private async remove(id: string): Promise<void> {
    const found = this.list.find((w) => w.id === id);
    if (!found) return;
    if (this.db && found.seq !== undefined) await this.db.delete(STORE, found.seq);
    this.set(this.list.filter((w) => w.id !== id));
    this.tell({ what: 'changed' });
  }

  private async update(id: string, change: (w: Waiting) => Waiting): Promise<void> {
    const found = this.list.find((w) => w.id === id);
    if (!found) return;
    const next = change(found);
    // What another tab has sent meanwhile is not put back. A full device keeps it as it was: this tab knows better.
    if (next.seq !== undefined && (await this.stillWaits(next))) await this.db?.put(STORE, next).catch(() => undefined);
    // Written down before it is shown: a list that is read from the device in between would undo it.
    this.set(this.list.map((w) => (w.id === id ? next : w)));
  }

  /** Where a page has no locks, another tab may have sent it meanwhile. */
  private async stillWaits({ seq }: Waiting): Promise<boolean> {
    return !this.db || seq === undefined || (await this.db.getKey(STORE, seq)) !== undefined;
  }

  /** The list as it is kept, with what is only in this tab at its end. */
  private async reload(): Promise<void> {
    if (!this.db) return;
    const stored = (await this.db.getAll(STORE)) as Waiting[];
    this.set([...stored.map((w) => ({ ...w, kept: true })), ...this.list.filter((w) => w.seq === undefined)]);
    await this.settleFromList();
  }

  /** What this tab waits for may have been decided by another one. */
  private async settleFromList(): Promise<void> {
    for (const id of [...this.outcomes.keys()]) {
      const found = this.list.find((w) => w.id === id);
      if (!found) this.settle(id, { ok: true });
      else if (found.parked) {
        if (this.inline.has(id)) await this.remove(id);
        this.settle(id, { ok: false, failure: found.parked });
      }
    }
  }

  private async hear(message: TabMessage): Promise<void> {
    if (message.what === 'settled') {
      if (message.landed) this.onLanded(message.landed);
      // A refusal is settled from the list, where a form of this tab may take it back.
      if (message.outcome.ok) this.settle(message.id, message.outcome);
    }
    await this.reload();
    void this.drain();
  }

  private tell(message: TabMessage): void {
    this.channel?.postMessage(message);
  }

  private set(list: readonly Waiting[]): void {
    this.store.setState(list, true);
  }

  async drain(): Promise<void> {
    if (this.draining) return;
    this.draining = true;
    try {
      // One tab sends at a time, so that the order holds across tabs.
      const work = () => this.sendAll();
      // A page that came without a certificate has no locks: then two may send the same, which lands once.
      const locks = navigator.locks as LockManager | undefined;
      if (locks) await locks.request(ofThisYard('jack-plane-outbox'), work);
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
      const blocker = this.sentByHand.has(next.id) ? undefined : blockerOf(this.list, next);
      if (blocker) {
        await this.parkOne(next, blocker);
        continue;
      }
      let landed: Change;
      try {
        landed = await this.send(next);
      } catch (error) {
        const failure = this.failureOf(next, error);
        if (!failure) {
          this.silent = true;
          this.tries += 1;
          this.set([...this.list]);
          return;
        }
        this.answered();
        if (await this.stillWaits(next)) await this.refuse(next, failure);
        else await this.reload();
        continue;
      }
      this.answered();
      if (!(await this.stillWaits(next))) {
        await this.reload();
        continue;
      }
      this.faults.delete(next.id);
      this.onLanded(landed);
      await this.remove(next.id);
      this.settle(next.id, { ok: true });
      this.tell({ what: 'settled', id: next.id, outcome: { ok: true }, landed });
    }
  }

  /** Send one change, its file first. @returns it as the server has it */
  private async send({ change, file }: Waiting): Promise<Change> {
    const sending = new AbortController();
    this.sending = sending;
    const timer = setTimeout(() => {
      this.late = true;
      this.set([...this.list]);
    }, LATE_MS);
    try {
      const { signal } = sending;
      const sent = file
        ? withFile(change, (await call<{ hash: string }>('POST', '/files', file, { signal })).hash)
        : change;
      await call('PUT', requestOf(sent).path, requestOf(sent).body, { signal });
      return sent;
    } finally {
      clearTimeout(timer);
      this.sending = null;
      this.late = false;
    }
  }

  private answered(): void {
    this.silent = false;
    this.serverTrouble = null;
    this.tries = 0;
  }

  /** Why a change is put aside; null while it is worth trying again. */
  private failureOf(waiting: Waiting, error: unknown): Failure | null {
    if (error instanceof Refused)
      return {
        status: error.status,
        code: error.code,
        message: error.message,
        field: error.field,
        current: error.current,
      };
    if (error instanceof NoAnswer) this.serverTrouble = error.said;
    if (!(error instanceof Fault)) return null;
    const faults = (this.faults.get(waiting.id) ?? 0) + 1;
    this.faults.set(waiting.id, faults);
    this.serverTrouble = error.message;
    return faults < FAULTS_MOST
      ? null
      : { status: error.status, code: error.code, message: error.message, field: null, current: null };
  }

  private async refuse(waiting: Waiting, failure: Failure): Promise<void> {
    if (this.inline.has(waiting.id)) {
      await this.remove(waiting.id);
    } else {
      await this.update(waiting.id, (w) => ({ ...w, parked: failure }));
      await this.parkBehind(waiting);
      this.tell({ what: 'changed' });
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
      await this.parkOne(later, refused);
    }
  }

  private async parkOne(waiting: Waiting, behind: Waiting): Promise<void> {
    const failure: Failure = {
      status: 0,
      code: 'behind',
      message: `Waits for "${behind.label}".`,
      field: null,
      current: null,
      behind: behind.parked?.behind ?? behind.id,
    };
    await this.update(waiting.id, (w) => ({ ...w, parked: failure }));
    this.settle(waiting.id, { ok: false, failure });
  }

  private settle(id: string, outcome: Outcome): void {
    this.outcomes.get(id)?.(outcome);
    this.outcomes.delete(id);
    this.inline.delete(id);
  }
}

export const outbox = new Outbox();

export function useOutbox(): readonly Waiting[] {
  return useStore(outbox.store);
}
