import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';

/** Litres below this are rounding, not paint: a hundredth of a millilitre. */
export const DROP_L = 1e-5;

/** Something that can be bought: litres of each part in it, and its price. */
export interface Offer {
  readonly partsL: readonly number[];
  /** Minor units, each. */
  readonly priceMinor: number;
  /** Price of each from so many on. */
  readonly breaks?: readonly { readonly from: number; readonly priceMinor: number }[] | undefined;
}

/** An offer checked, with what looking for the least cost asks of it. */
export interface CheckedOffer {
  /** Its place among the offers. */
  readonly at: number;
  readonly partsL: readonly number[];
  readonly totalL: number;
  readonly cost: (count: number) => number;
  /** Counts at which buying more than is needed may get cheaper. */
  readonly froms: readonly number[];
  readonly leastEach: number;
}

/** @throws RangeError on impossible sizes or prices */
export function checkOffer(offer: Offer, at: number, parts: number): CheckedOffer {
  if (offer.partsL.length !== parts) throw new Impossible('A pack must say how much of each part it holds.');
  const totalL = offer.partsL.reduce((sum, l) => sum + notNegative(l, 'What a pack holds'), 0);
  positive(totalL, 'The size of a pack');
  const breaks = [...(offer.breaks ?? [])].sort((a, b) => b.from - a.from);
  for (const price of [offer.priceMinor, ...breaks.map((b) => b.priceMinor)])
    if (!Number.isInteger(notNegative(price, 'The price of a pack')))
      throw new Impossible('The price of a pack must be in whole cents.');
  if (breaks.some((b) => !Number.isInteger(b.from) || b.from < 2))
    throw new Impossible('A price break starts at two packs or more.');
  return {
    at,
    partsL: offer.partsL,
    totalL,
    cost: (count) => count * (breaks.find((b) => count >= b.from)?.priceMinor ?? offer.priceMinor),
    froms: breaks.map((b) => b.from),
    leastEach: Math.min(offer.priceMinor, ...breaks.map((b) => b.priceMinor)),
  };
}

/** Steps, or tins, of so many litres that cover a need. */
export function stepsFor(needL: number, stepL: number): number {
  return Math.max(0, Math.ceil((needL - DROP_L) / stepL));
}
