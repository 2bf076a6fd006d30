import { notNegative } from '../guard';
import { partShares } from '../mix/splitBatch';
import type { Pack, SheetBody } from '../model/sheet';
import { coverAtLeastCost } from './cover';
import type { Offer } from './offer';
import { Impossible } from '../impossible';

export interface PackOffer {
  readonly sizeL: number;
  readonly priceMinor: number;
  readonly breaks?: Offer['breaks'];
}

/**
 * Packs to buy: the least cost that covers a need, ties to the least left over.
 * @param options.needL litres wanted
 * @param options.packs sizes in L with the price of each in minor units, price breaks if any
 * @param options.onHandL litres on the shelf, used first
 * @returns the sizes bought with how many of each; cost; litres over, the shelf's counted
 * @throws RangeError on impossible figures, and where something is needed and nothing is for sale
 * @example packsToBuy({ needL: 3, packs: [{ sizeL: 0.75, priceMinor: 3000 }, { sizeL: 2.5, priceMinor: 8000 }], onHandL: 0 })
 * // → { packs: [{ sizeL: 0.75, count: 1 }, { sizeL: 2.5, count: 1 }], costMinor: 11000, leftL: 0.25, provenLeast: true }
 */
export function packsToBuy({
  needL,
  packs,
  onHandL = 0,
}: {
  needL: number;
  packs: readonly PackOffer[];
  onHandL?: number;
}): { packs: { sizeL: number; count: number }[]; costMinor: number; leftL: number; provenLeast: boolean } {
  const short = notNegative(needL, 'The need') - notNegative(onHandL, 'What is on the shelf');
  const bought = coverAtLeastCost({
    needL: [Math.max(0, short)],
    offers: packs.map((p) => ({ partsL: [p.sizeL], priceMinor: p.priceMinor, breaks: p.breaks })),
  });
  if (!bought) throw new Impossible('No pack is for sale. Put a pack size and its price on the sheet.');
  return {
    packs: packs.flatMap((p, i) => (bought.counts[i] ? [{ sizeL: p.sizeL, count: bought.counts[i] }] : [])),
    costMinor: bought.costMinor,
    leftL: (bought.leftL[0] as number) + Math.max(0, -short),
    provenLeast: bought.provenLeast,
  };
}

export interface ProductPurchase {
  readonly packs: readonly { readonly pack: Pack; readonly count: number }[];
  /** Null where some price is not known: then the usual drop of the price a litre decides. */
  readonly costMinor: number | null;
  /** False where a cheaper way may be left: there were too many to try. */
  readonly provenLeast: boolean;
  /** Litres of each part bought, and over at the end, the shelf's counted. */
  readonly boughtL: readonly number[];
  readonly leftL: readonly number[];
}

/** Litres of each part of one pack, in the order of the sheet's parts; null where a ratio by mass lacks a density. */
export function packParts(sheet: Pick<SheetBody, 'parts' | 'ratioBasis'>, pack: Pack): readonly number[] | null {
  if (pack.part !== undefined) return sheet.parts.map((p) => (p.name === pack.part ? pack.sizeL : 0));
  if (pack.partsL) return pack.partsL;
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  return shares?.map((s) => s * pack.sizeL) ?? null;
}

/** What a tin costs at so many of it. */
export function packCostMinor(pack: Pick<Pack, 'priceMinor' | 'breaks'>, count: number): number | null {
  if (pack.priceMinor === null) return null;
  const each = [...(pack.breaks ?? [])].sort((a, b) => b.from - a.from).find((b) => count >= b.from)?.priceMinor;
  return count * (each ?? pack.priceMinor);
}

/** Where no prices are known, twice the tin costs so many times as much: larger ones are cheaper a litre. [M] */
const PRICE_EXPONENT = 0.8;

/**
 * Packs of one product to buy: kits whose parts come in fixed ratio and parts sold singly, stock first.
 * @param options.needL litres of mixed paint, without thinner
 * @param options.onHandL litres of each part on the shelf, in the order of the sheet's parts
 * @param options.least what is to be least: the cost, or the litres whatever they cost
 * @returns null where nothing that covers it is for sale
 * @throws RangeError on impossible figures
 */
export function productPacks({
  sheet,
  needL,
  onHandL,
  least = 'cost',
}: {
  sheet: Pick<SheetBody, 'parts' | 'ratioBasis' | 'packs'>;
  needL: number;
  onHandL?: readonly number[];
  least?: 'cost' | 'litres';
}): ProductPurchase | null {
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  // Without densities the parts of a ratio by mass cannot be told apart: kits are counted by their whole.
  const whole = shares === null;
  const needs = whole ? [notNegative(needL, 'The need')] : shares.map((s) => s * notNegative(needL, 'The need'));
  const held = whole ? [0] : sheet.parts.map((_p, i) => onHandL?.[i] ?? 0);
  const usable = sheet.packs.filter((p) => !whole || p.part === undefined);
  const priced = least === 'cost' && usable.every((p) => p.priceMinor !== null);
  const exponent = least === 'cost' ? PRICE_EXPONENT : 1;
  const offers = usable.map((pack) => ({
    partsL: whole ? [pack.sizeL] : (packParts(sheet, pack) as readonly number[]),
    priceMinor: priced ? (pack.priceMinor as number) : Math.round(pack.sizeL ** exponent * 1000),
    breaks: priced ? pack.breaks : undefined,
  }));
  const short = needs.map((l, i) => Math.max(0, l - (held[i] as number)));
  // Where only whole kits are sold they cover every part once they cover the one that is shortest.
  const kitsOnly = !whole && usable.every((p) => p.part === undefined && p.partsL === undefined);
  const bought = kitsOnly
    ? coverAtLeastCost({
        needL: [Math.max(...short.map((l, i) => l / (shares[i] as number)))],
        offers: offers.map((o, i) => ({ ...o, partsL: [(usable[i] as Pack).sizeL] })),
      })
    : coverAtLeastCost({ needL: short, offers });
  if (!bought) return null;
  const boughtL = needs.map((_l, p) =>
    offers.reduce((sum, o, i) => sum + (bought.counts[i] as number) * (o.partsL[p] as number), 0),
  );
  return {
    packs: usable.flatMap((pack, i) => (bought.counts[i] ? [{ pack, count: bought.counts[i] }] : [])),
    costMinor: priced ? bought.costMinor : null,
    provenLeast: bought.provenLeast,
    boughtL,
    leftL: needs.map((l, i) => (held[i] as number) + (boughtL[i] as number) - l),
  };
}
