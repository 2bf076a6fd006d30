import { partShares } from '../mix/splitBatch';
import type { Pack, SheetBody } from '../model/sheet';
import { chanceEnough, litresForChance, sumNeeds, type Need } from './chance';
import { packCostMinor, packParts, productPacks, type ProductPurchase } from './packs';

/** A coat that is still to go on, as far as buying cares. */
export interface CoatToBuy {
  /** What shares the error of its area: its zone, or all zones of one measuring. */
  readonly zone: string;
  /** Behind or ahead of its zone: its paint is held back unmixed. */
  readonly patch: boolean;
  readonly likelyL: number;
  readonly areaShare: number;
}

export interface ProductToBuy {
  readonly sheet: SheetBody;
  readonly coats: readonly CoatToBuy[];
  /** Litres of each part on the shelf that this job may use, in the order of the sheet's parts. */
  readonly onHandL: readonly number[];
}

export interface Smaller {
  readonly packs: readonly { readonly pack: Pack; readonly count: number }[];
  readonly costMinor: number | null;
  /** Chance that it is enough all the same. */
  readonly chance: number;
}

/** What is wanted of a product, before anything is bought. */
interface ProductWanted {
  readonly sheet: SheetBody;
  readonly need: Need;
  /** Litres that are enough with the chance wanted. */
  readonly wantL: number;
  /** Of each part: wanted, on the shelf, to be held back for patches. */
  readonly parts: readonly {
    readonly name: string;
    readonly wantL: number;
    readonly onHandL: number;
    readonly patchesL: number;
  }[];
}

export interface ProductList extends ProductWanted {
  /** Null where nothing on the sheet covers it. */
  readonly purchase: ProductPurchase | null;
  /** The smallest pack is ten times what is still needed, or more. */
  readonly packForATouch: boolean;
}

/** What else could be bought, beside what was chosen. */
export interface OtherWays {
  /** Chance that what is bought and on the shelf is enough. */
  readonly chance: number;
  readonly smaller: Smaller | null;
  /** The packs that leave least over, where those are others than the cheapest. */
  readonly leastOver: ProductPurchase | null;
}

/** A pack ten times the need is for another job. */
const SMALL_JOB = 10;

/**
 * What coats to come want of their product.
 * @param options.chance 0.9 is enough in 9 cases of 10
 * @throws RangeError on impossible figures
 */
function productWanted({ product, chance }: { product: ProductToBuy; chance: number }): ProductWanted {
  const { sheet, coats, onHandL } = product;
  const need = sumNeeds(coats);
  const wantL = litresForChance(need, chance);
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  const patches = coats.reduce((sum, c) => sum + (c.patch ? c.likelyL : 0), 0);
  return {
    sheet,
    need,
    wantL,
    parts: sheet.parts.map((p, i) => ({
      name: p.name,
      wantL: wantL * (shares?.[i] ?? 0),
      onHandL: onHandL[i] ?? 0,
      patchesL: patches * (shares?.[i] ?? 0),
    })),
  };
}

/**
 * What to buy for a product's coats: stock first, then the packs that cost least and are enough.
 * @throws RangeError on impossible figures
 */
export function productList(options: { product: ProductToBuy; chance: number }): ProductList {
  const wanted = productWanted(options);
  const { sheet, wantL, parts } = wanted;
  const onHandL = parts.map((p) => p.onHandL);
  const purchase = productPacks({ sheet, needL: wantL, onHandL });
  const stillL = purchase ? Math.max(0, wantL - mixable(sheet, onHandL, [])) : wantL;
  const smallest = Math.min(...sheet.packs.map((p) => p.sizeL));
  return {
    ...wanted,
    purchase,
    packForATouch: stillL > 1e-6 && Number.isFinite(smallest) && smallest >= SMALL_JOB * stillL,
  };
}

/**
 * What buying one size smaller risks, and what would leave least over: for a list that is read, not for every frame of
 * a film that is dragged.
 * @example otherWays(products[0]).smaller.chance // → 0
 */
export function otherWays({ sheet, need, wantL, parts, purchase }: ProductList): OtherWays {
  if (!purchase) return { chance: 0, smaller: null, leastOver: null };
  const onHandL = parts.map((p) => p.onHandL);
  const enough = (boughtL: readonly number[]) => chanceEnough(need, mixable(sheet, onHandL, boughtL));
  const leastOver = purchase.packs.length > 0 ? productPacks({ sheet, needL: wantL, onHandL, least: 'litres' }) : null;
  return {
    chance: enough(purchase.boughtL),
    smaller: oneSmaller(sheet, purchase, enough),
    leastOver:
      leastOver && sumOf(leastOver.boughtL) < sumOf(purchase.boughtL) - 1e-6 ? withPrices(sheet, leastOver) : null,
  };
}

/** Litres that can be mixed of what is bought and on the shelf; of what is bought alone, where a shelf's parts cannot be told apart. */
function mixable(sheet: SheetBody, onHandL: readonly number[], boughtL: readonly number[]): number {
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  return shares ? Math.min(...shares.map((s, i) => ((onHandL[i] ?? 0) + (boughtL[i] ?? 0)) / s)) : (boughtL[0] ?? 0);
}

const sumOf = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);

function costOf(packs: ProductPurchase['packs']): number | null {
  return packs.reduce<number | null>((sum, { pack, count }) => {
    const cost = packCostMinor(pack, count);
    return sum === null || cost === null ? null : sum + cost;
  }, 0);
}

/** Packs that were chosen without their prices, with them again. */
function withPrices(sheet: SheetBody, chosen: ProductPurchase): ProductPurchase {
  const packs = chosen.packs.map(({ pack, count }) => ({
    pack: sheet.packs.find((p) => p.name === pack.name && p.sizeL === pack.sizeL && p.part === pack.part) ?? pack,
    count,
  }));
  return { ...chosen, packs, costMinor: costOf(packs) };
}

/** The purchase with one of its packs a size smaller, or left out where there is none: the one that takes least away. */
function oneSmaller(
  sheet: SheetBody,
  purchase: ProductPurchase,
  enough: (boughtL: readonly number[]) => number,
): Smaller | null {
  const kin = (pack: Pack) =>
    sheet.packs.filter((p) => p.part === pack.part && p.sizeL < pack.sizeL - 1e-9).sort((a, b) => b.sizeL - a.sizeL)[0];
  const ways = purchase.packs.map(({ pack }) => {
    const smaller = kin(pack);
    const counts = new Map(purchase.packs.map((p) => [p.pack, p.count]));
    counts.set(pack, (counts.get(pack) as number) - 1);
    if (smaller) counts.set(smaller, (counts.get(smaller) ?? 0) + 1);
    return {
      lost: pack.sizeL - (smaller?.sizeL ?? 0),
      packs: [...counts].filter(([, n]) => n > 0).map(([p, count]) => ({ pack: p, count })),
    };
  });
  const [way] = ways.sort((a, b) => a.lost - b.lost);
  if (!way) return null;
  const bought = way.packs.reduce<number[]>((sum, { pack, count }) => {
    const each = packParts(sheet, pack) ?? [pack.sizeL];
    return each.map((l, i) => (sum[i] ?? 0) + l * count);
  }, []);
  return { packs: way.packs, costMinor: costOf(way.packs), chance: enough(bought) };
}
