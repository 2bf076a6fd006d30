import type { ConsumableNeed } from './consumables';
import type { CoatNeed } from './needs';
import { packParts } from './packs';
import type { JobProduct } from './share';
import type { ThinnerToBuy } from './thinners';

export interface CoatMoney {
  readonly surfaceId: string;
  readonly zoneName: string;
  readonly layerId: string;
  readonly number: number;
  readonly litres: number;
  /** Minor units; null where no price is known. */
  readonly minor: number | null;
}

export interface JobMoney {
  /** Paint of each coat, at what a litre of its product costs as bought. */
  readonly coats: readonly CoatMoney[];
  readonly zones: readonly { readonly surfaceId: string; readonly name: string; readonly minor: number | null }[];
  /** Packs bought, what of that stands over in the tins, what comes off the shelf. Minor units. */
  readonly packsMinor: number;
  readonly consumablesMinor: number;
  readonly yardMinor: number;
  readonly totalMinor: number;
  /** Names of what has no price: the total is without them. */
  readonly unpriced: readonly string[];
}

/** Minor units that a litre of mixed paint costs: as bought, or by the cheapest kit where nothing is. Null without prices. */
export function litreMinor(product: JobProduct): number | null {
  const { purchase, sheet } = product;
  const bought = purchase?.boughtL.reduce((sum, l) => sum + l, 0) ?? 0;
  if (purchase && bought > 0 && purchase.costMinor !== null) return purchase.costMinor / bought;
  const kits = sheet.packs.flatMap((p) =>
    p.part === undefined && p.priceMinor !== null
      ? [p.priceMinor / (packParts(sheet, p)?.reduce((a, b) => a + b, 0) ?? p.sizeL)]
      : [],
  );
  return kits.length > 0 ? Math.min(...kits) : null;
}

/**
 * What the packs to buy cost, minor units; those without a price are not counted.
 * @example packsMinor(products) // → 21000
 */
export function packsMinor(products: readonly Pick<JobProduct, 'purchase'>[]): number {
  return products.reduce((sum, p) => sum + (p.purchase?.costMinor ?? 0), 0);
}

/**
 * What a job still costs: packs to buy, consumables, days in the yard; and what of the paint each coat and zone takes.
 * @param options.yardDays days on the hard that are paid, 0 or more
 * @returns minor units of the yard's currency, whole
 * @example
 *   jobMoney({ needs, products, consumables: [], yardDays: 3, yardCostPerDayMinor: 2500 }).packsMinor // → 21000
 */
export function jobMoney(options: {
  needs: readonly CoatNeed[];
  products: readonly JobProduct[];
  thinners?: readonly ThinnerToBuy[];
  consumables: readonly ConsumableNeed[];
  yardDays: number;
  yardCostPerDayMinor: number | null;
}): JobMoney {
  const { needs, products, thinners = [], consumables, yardDays, yardCostPerDayMinor } = options;
  const rates = new Map(products.map((p) => [p.sheetId, litreMinor(p)]));
  const coats = needs.map((n): CoatMoney => {
    const rate = rates.get(n.sheetId) ?? null;
    return {
      surfaceId: n.surfaceId,
      zoneName: n.zoneName,
      layerId: n.layerId,
      number: n.number,
      litres: n.likelyL,
      minor: rate === null ? null : Math.round(n.likelyL * rate),
    };
  });
  const zones = [...new Map(coats.map((c) => [c.surfaceId, c.zoneName]))].map(([surfaceId, name]) => {
    const own = coats.filter((c) => c.surfaceId === surfaceId);
    return {
      surfaceId,
      name,
      minor: own.some((c) => c.minor === null) ? null : own.reduce((sum, c) => sum + (c.minor as number), 0),
    };
  });
  const unpriced = [
    ...products.filter((p) => p.purchase === null || p.purchase.costMinor === null).map((p) => p.sheet.name),
    ...thinners.filter((t) => !t.purchase || t.purchase.costMinor === null).map((t) => t.name),
    ...consumables.filter((c) => c.costMinor === null).map((c) => c.rule.name),
    ...(yardDays > 0 && yardCostPerDayMinor === null ? ['days in the yard'] : []),
  ];
  const packs = packsMinor([...products, ...thinners]);
  const consumablesMinor = consumables.reduce((sum, c) => sum + (c.costMinor ?? 0), 0);
  const yardMinor = Math.round(Math.max(0, yardDays) * (yardCostPerDayMinor ?? 0));
  return {
    coats,
    zones,
    packsMinor: packs,
    consumablesMinor,
    yardMinor,
    totalMinor: packs + consumablesMinor + yardMinor,
    unpriced,
  };
}
