import type { MixWish } from '#core/mix/batchToMix';

export type Amount = Pick<Partial<MixWish>, 'by' | 'areaM2' | 'litres' | 'massKg'>;
type Terms = Pick<MixWish, 'use' | 'additives' | 'painters' | 'rateM2PerH' | 'litresPerM2' | 'limitL'>;

/** What was typed of a batch; the rest is as it is worked out. */
export interface Typed extends Partial<Terms> {
  readonly amounts: Readonly<Record<string, Amount>>;
  readonly thinner?: number | null;
  readonly potC?: number | null;
  /** In which pot it is mixed, with which pump for each part. */
  readonly potId?: string;
  readonly syringeId?: string;
  readonly pumps?: Readonly<Record<string, string>>;
  /** What went in so far, by the names of what is poured. */
  readonly poured?: Readonly<Record<string, number>>;
  /** Tins chosen instead of those suggested, by part. */
  readonly tins?: Readonly<Record<string, string>>;
  /** Why it is mixed off its ratio. */
  readonly reason?: string;
}

/** A tin that the shelf does not know. */
export const NO_TIN = 'none';

/** Of another batch nothing is poured yet. */
export const AGAIN: Partial<Typed> = { amounts: {}, poured: {}, tins: {}, reason: '' };
