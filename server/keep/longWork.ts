import { randomUUID } from 'node:crypto';
import type { LongWorkKind, LongWorkState, Restored } from '#contracts/rows/keeping';
import { Refusal } from '../errors';

/** Tells how far a work is: what it is at, and the share of that that is done. */
export type Tell = (step: LongWorkState['step'], share: number | null) => void;

/** Work that takes longer than anybody waits for an answer: one at a time, and whoever asks is told how far it is. */
export class LongWork {
  private turn: Promise<unknown> = Promise.resolve();
  private now_: LongWorkState | null = null;
  private ended: LongWorkState | null = null;
  private readonly asked = new Set<LongWorkKind>();

  constructor(private readonly now: () => number) {}

  /** What runs, or ran last; null before the first. */
  get state(): LongWorkState | null {
    return this.now_ ?? this.ended;
  }

  /**
   * Run it when nothing else does.
   * @throws Refusal 409 when a person's work of this kind runs or waits already
   */
  run<T>(kind: LongWorkKind, work: (tell: Tell) => Promise<T>): Promise<T> {
    if (kind !== 'automatic' && this.asked.has(kind))
      throw new Refusal(
        409,
        'busy',
        kind === 'restore'
          ? 'A backup is being put in place already. Wait until that is done: Settings shows how far it is.'
          : 'A backup is being made already. Wait until that is done.',
      );
    this.asked.add(kind);
    const mine = this.turn.then(() => this.one(kind, work)).finally(() => this.asked.delete(kind));
    this.turn = mine.catch(() => undefined);
    return mine;
  }

  private async one<T>(kind: LongWorkKind, work: (tell: Tell) => Promise<T>): Promise<T> {
    const begun: LongWorkState = {
      id: randomUUID(),
      kind,
      step: 'begun',
      share: null,
      startedAt: this.now(),
      endedAt: null,
      restored: null,
      problem: null,
    };
    this.now_ = begun;
    const end = (how: Pick<LongWorkState, 'restored' | 'problem'>) => {
      this.ended = { ...begun, ...how, step: 'ended', endedAt: this.now() };
      this.now_ = null;
    };
    try {
      const done = await work((step, share) => (this.now_ = { ...begun, step, share }));
      end({ restored: kind === 'restore' ? (done as unknown as Restored) : null, problem: null });
      return done;
    } catch (error) {
      end({ restored: null, problem: (error as Error).message });
      throw error;
    }
  }

  /** When nothing runs any more. */
  async quiet(): Promise<void> {
    await this.turn;
  }
}
