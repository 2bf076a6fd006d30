import { partShares } from '../mix/splitBatch';
import type { SheetBody } from '../model/sheet';
import { litresForChance, sumNeeds } from './chance';
import { onShelf, type LotState } from './lots';
import type { CoatNeed } from './needs';
import { productList, type ProductList } from './shopping';

/** One boat's coats to come, in the order in which boats have the first call on the shelf. */
export interface BoatNeeds {
  readonly boatId: string;
  readonly needs: readonly CoatNeed[];
}

/** Litres of each part of a product, in the order of the sheet's parts. */
export type Parts = readonly number[];

export interface Reserved {
  readonly sheetId: string;
  readonly boatId: string;
  /** Taken off the shelf for the boat's coats; of that, for patches, held back unmixed. */
  readonly takenL: Parts;
  readonly patchesL: Parts;
}

export interface SharedShelf {
  /** What each boat may count on, by product: what the boats before it leave. */
  readonly callable: ReadonlyMap<string, ReadonlyMap<string, Parts>>;
  readonly reserved: readonly Reserved[];
  /** What nobody has called on, by product. */
  readonly freeL: ReadonlyMap<string, Parts>;
}

/**
 * Share what stands on the shelf among the boats in hand: the first in the list takes what its coats want with the
 * chance chosen, the next what that leaves. Stale tins are not counted on.
 * @param options.sheetOf newest sheet of a product, its parts in order
 * @example
 *   shareShelf({
 *     lots: [{ ...tin, nowL: 2.5, staleFrom: null, stale: false, tappedOn: null }],
 *     boats: [{ boatId: 'boat', needs }],
 *     sheetOf,
 *     chance: 0.9,
 *   }).reserved.map((r) => r.sheetId) // → ['copper']
 */
export function shareShelf({
  lots,
  boats,
  sheetOf,
  chance,
}: {
  lots: readonly LotState[];
  boats: readonly BoatNeeds[];
  sheetOf: (sheetId: string) => SheetBody | undefined;
  chance: number;
}): SharedShelf {
  const free = new Map<string, number[]>();
  for (const sheetId of new Set([
    ...lots.map((l) => l.sheetId),
    ...boats.flatMap((b) => b.needs.map((n) => n.sheetId)),
  ])) {
    const sheet = sheetOf(sheetId);
    if (sheet) free.set(sheetId, onShelf(lots, sheetId, sheet.parts));
  }
  const callable = new Map<string, Map<string, Parts>>();
  const reserved: Reserved[] = [];
  for (const { boatId, needs } of boats) {
    callable.set(boatId, new Map([...free].map(([sheetId, parts]) => [sheetId, [...parts]])));
    for (const [sheetId, coats] of bySheet(needs)) {
      const sheet = sheetOf(sheetId);
      const left = free.get(sheetId);
      const shares = sheet ? partShares({ parts: sheet.parts, basis: sheet.ratioBasis }) : null;
      if (!left || !shares) continue;
      const wantL = litresForChance(sumNeeds(coats), chance);
      const patches = coats.reduce((sum, c) => sum + (c.patch ? c.likelyL : 0), 0);
      const takenL = shares.map((s, i) => Math.min(left[i] as number, s * wantL));
      takenL.forEach((l, i) => (left[i] = (left[i] as number) - l));
      if (takenL.some((l) => l > 0))
        reserved.push({
          sheetId,
          boatId,
          takenL,
          patchesL: shares.map((s, i) => Math.min(takenL[i] as number, s * patches)),
        });
    }
  }
  return { callable, reserved, freeL: free };
}

/** Coats by product, in the order products are first used. */
export function bySheet(needs: readonly CoatNeed[]): Map<string, CoatNeed[]> {
  const groups = new Map<string, CoatNeed[]>();
  for (const need of needs) {
    const group = groups.get(need.sheetId);
    if (group) group.push(need);
    else groups.set(need.sheetId, [need]);
  }
  return groups;
}

export interface JobProduct extends ProductList {
  readonly sheetId: string;
  readonly thinnerL: number;
}

/**
 * What to buy for one job, product by product: the shelf first, then packs.
 * @throws RangeError on impossible figures
 * @example
 *   jobList({ needs, sheetOf, onHandOf: () => [], chance: 0.9 }).map((p) => p.sheetId) // → ['barrier', 'copper']
 */
export function jobList({
  needs,
  sheetOf,
  onHandOf,
  chance,
}: {
  needs: readonly CoatNeed[];
  sheetOf: (sheetId: string) => SheetBody | undefined;
  onHandOf: (sheetId: string) => Parts;
  chance: number;
}): JobProduct[] {
  return [...bySheet(needs)].flatMap(([sheetId, coats]) => {
    const sheet = sheetOf(sheetId);
    if (!sheet) return [];
    const thinnerL = coats.reduce((sum, c) => sum + c.thinnerL, 0);
    return [{ ...productList({ product: { sheet, coats, onHandL: onHandOf(sheetId) }, chance }), sheetId, thinnerL }];
  });
}
