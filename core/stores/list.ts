import type { SheetBody } from '../model/sheet';
import { litresForChance } from './chance';
import type { ConsumableNeed } from './consumables';
import { packCostMinor, productPacks } from './packs';
import { litreMinor } from './money';
import type { JobProduct } from './share';
import type { ThinnerToBuy } from './thinners';

/** One line of a shopping list. */
export interface ShoppingLine {
  readonly kind: 'paint' | 'thinner' | 'consumable';
  readonly what: string;
  /** Pack as it is asked for; empty where none is named. */
  readonly pack: string;
  readonly count: number;
  /** Litres in all, or null where it is no liquid. */
  readonly litres: number | null;
  /** Minor units; null where the price is not known. */
  readonly minor: number | null;
}

export interface SupplierList {
  /** Empty where none is named. */
  readonly supplier: string;
  readonly lines: readonly ShoppingLine[];
  readonly minor: number;
}

/**
 * Everything to buy, by supplier; those without a name last.
 * @example shoppingLists({ products, consumables: [] }).map((l) => l.supplier) // → ['West', '']
 */
export function shoppingLists({
  products,
  thinners = [],
  consumables,
}: {
  products: readonly JobProduct[];
  thinners?: readonly ThinnerToBuy[];
  consumables: readonly ConsumableNeed[];
}): SupplierList[] {
  const groups = new Map<string, ShoppingLine[]>();
  const put = (supplier: string, line: ShoppingLine) => groups.set(supplier, [...(groups.get(supplier) ?? []), line]);
  for (const product of products) {
    const { sheet, purchase } = product;
    for (const { pack, count } of purchase?.packs ?? []) {
      put(pack.supplier ?? '', {
        kind: 'paint',
        what: sheet.name,
        pack: pack.name || `${pack.sizeL} L`,
        count,
        litres: count * pack.sizeL,
        minor: packCostMinor(pack, count),
      });
    }
  }
  for (const { name, needL, purchase, supplier } of thinners) {
    if (!purchase) put(supplier, { kind: 'thinner', what: name, pack: '', count: 1, litres: needL, minor: null });
    for (const { pack, count } of purchase?.packs ?? [])
      put(supplier, {
        kind: 'thinner',
        what: name,
        pack: pack.name || `${pack.sizeL} L`,
        count,
        litres: count * pack.sizeL,
        minor: packCostMinor(pack, count),
      });
  }
  for (const { rule, packs, costMinor } of consumables)
    put(rule.supplier, {
      kind: 'consumable',
      what: rule.name,
      pack: rule.inPack > 1 ? `pack of ${rule.inPack}` : '',
      count: packs,
      litres: null,
      minor: costMinor,
    });
  return [...groups]
    .map(([supplier, lines]) => ({ supplier, lines, minor: lines.reduce((sum, l) => sum + (l.minor ?? 0), 0) }))
    .sort((a, b) => Number(a.supplier === '') - Number(b.supplier === '') || a.supplier.localeCompare(b.supplier));
}

export interface Alternative {
  readonly sheetId: string;
  readonly name: string;
  readonly costMinor: number;
  readonly litres: number;
}

/**
 * Other products of the same kind, chemistry and number of parts that would put the same dry film on for less: to look
 * at, not to swap blindly. An antifouling stands in only for one of its own type that suits the same waters.
 * @returns cheapest first
 * @example
 *   cheaperProducts({
 *     product: { ...products[0], sheet: { ...sheet, chemistry: 'epoxy' } },
 *     sheets: [
 *       {
 *         id: 'other',
 *         body: {
 *           ...sheet,
 *           chemistry: 'epoxy',
 *           name: 'Other',
 *           packs: [{ name: '4 L', sizeL: 4, priceMinor: 8000 }],
 *         },
 *       },
 *     ],
 *     chance: 0.9,
 *   }).map((a) => a.costMinor) // → [8000]
 */
export function cheaperProducts({
  product,
  sheets,
  chance,
}: {
  product: JobProduct;
  sheets: readonly { readonly id: string; readonly body: SheetBody }[];
  chance: number;
}): Alternative[] {
  const { sheet, purchase, need } = product;
  const own = purchase?.costMinor ?? null;
  if (own === null || own === 0 || litreMinor(product) === null) return [];
  const alike = (other: SheetBody) =>
    other.name !== sheet.name &&
    other.kind === sheet.kind &&
    other.chemistry !== undefined &&
    other.chemistry === sheet.chemistry &&
    other.parts.length === sheet.parts.length &&
    other.copper === sheet.copper &&
    other.antifouling?.type === sheet.antifouling?.type &&
    (sheet.antifouling?.waters ?? []).every((w) => other.antifouling?.waters?.includes(w)) &&
    (other.potable ?? false) === (sheet.potable ?? false);
  return sheets
    .filter((s) => s.id !== product.sheetId && alike(s.body))
    .flatMap((s) => {
      const ratio = sheet.solids / s.body.solids;
      const litres = litresForChance({ likelyL: need.likelyL * ratio, sigmaL: need.sigmaL * ratio }, chance);
      const bought = productPacks({ sheet: s.body, needL: litres });
      return bought?.costMinor != null && bought.costMinor < own
        ? [{ sheetId: s.id, name: s.body.name, costMinor: bought.costMinor, litres }]
        : [];
    })
    .sort((a, b) => a.costMinor - b.costMinor);
}
