import { notNegative, positive } from '../guard';

/** The batches that a coat, or what is left of it, is mixed in. */
export interface BatchPlan {
  readonly count: number;
  /** Litres of each but the last. */
  readonly eachL: number;
  readonly lastL: number;
}

/** Batches are poured to round figures, so many litres apart. */
const STEP_L = 0.05;

/**
 * In how many batches some litres are mixed, all much alike: none above the limit, the last one what is left, so that no
 * pot is mixed for the tin. Null where the limit is nothing: the stand eats the pot life.
 * @param options.limitL the most that one batch may hold, L; null where none is known
 * @throws RangeError on impossible input
 * @example planBatches({ stillL: 5, limitL: 2 }) // → { count: 3, eachL: 1.7, lastL: 1.6 }
 */
export function planBatches(options: { stillL: number; limitL: number | null }): BatchPlan | null {
  const stillL = notNegative(options.stillL, 'What is still to go on');
  if (stillL === 0) return { count: 0, eachL: 0, lastL: 0 };
  if (options.limitL === null) return { count: 1, eachL: stillL, lastL: stillL };
  if (options.limitL === 0) return null;
  const limitL = positive(options.limitL, 'The largest batch');
  const count = Math.max(1, Math.ceil(stillL / limitL - 1e-9));
  if (count === 1) return { count, eachL: stillL, lastL: stillL };
  const even = stillL / count;
  const rounded = Math.ceil(even / STEP_L - 1e-9) * STEP_L;
  const eachL = rounded <= limitL && rounded * (count - 1) < stillL ? rounded : even;
  return { count, eachL, lastL: stillL - eachL * (count - 1) };
}
