import { notNegative } from '../guard';
import { coverBySearch } from './coverSearch';
import { coverByTables } from './coverTables';
import { checkOffer, DROP_L, type Offer } from './offer';

export interface Purchase {
  /** How many of each offer, in their order. */
  readonly counts: readonly number[];
  readonly costMinor: number;
  /** Litres of each part over. */
  readonly leftL: readonly number[];
  /** False where there were too many ways to try them all: it covers the need, a cheaper way may be left. */
  readonly provenLeast: boolean;
}

/**
 * The least cost that covers a need of every part, ties to the least left over in all: by tables of every volume where
 * the sizes allow them, else by a search that says so where it had to stop.
 * @param options.needL litres of each part still to be had, all at least 0
 * @returns null where an offer for some needed part is missing
 * @throws RangeError on impossible sizes or prices
 * @example coverAtLeastCost({ needL: [3], offers: [{ partsL: [0.75], priceMinor: 3000 }, { partsL: [2.5], priceMinor: 8000 }] })
 * // → { counts: [1, 1], costMinor: 11000, leftL: [0.25], provenLeast: true }
 */
export function coverAtLeastCost(options: { needL: readonly number[]; offers: readonly Offer[] }): Purchase | null {
  const need = options.needL.map((l, p) => Math.max(0, notNegative(l, `The need of part ${p + 1}`)));
  const offers = options.offers.map((offer, at) => checkOffer(offer, at, need.length));
  if (need.every((l) => l <= DROP_L))
    return { counts: offers.map(() => 0), costMinor: 0, leftL: need.map(() => 0), provenLeast: true };
  if (need.some((l, p) => l > DROP_L && !offers.some((o) => (o.partsL[p] as number) > 0))) return null;
  const tabled = coverByTables(need, offers);
  const { counts, provenLeast } = tabled ? { counts: tabled, provenLeast: true } : coverBySearch(need, offers);
  const bought = (p: number) => offers.reduce((sum, o, i) => sum + (counts[i] as number) * (o.partsL[p] as number), 0);
  return {
    counts,
    costMinor: offers.reduce((sum, o, i) => sum + o.cost(counts[i] as number), 0),
    leftL: need.map((l, p) => Math.max(0, bought(p) - l)),
    provenLeast,
  };
}
