import type { LotState } from './lots';
import { productPacks, type ProductPurchase } from './packs';
import type { JobProduct } from './share';

/** One thinner that a job still wants, whichever paints it goes into. */
export interface ThinnerToBuy {
  readonly name: string;
  /** Wanted beyond what is on the shelf, L. */
  readonly needL: number;
  /** Null where no sheet says in what it is sold. */
  readonly purchase: ProductPurchase | null;
  readonly supplier: string;
}

/**
 * Litres of a thinner on the shelf that are in date, in whichever paint's name its tins stand.
 * @example thinnerOnShelf([], 'T7') // → 0
 */
export function thinnerOnShelf(tins: readonly Pick<LotState, 'part' | 'stale' | 'nowL'>[], name: string): number {
  return tins.reduce((sum, t) => sum + (t.part === name && !t.stale ? t.nowL : 0), 0);
}

/**
 * The thinners that a job wants: of one name it is the same for every paint. The shelf first, then the packs that a
 * sheet names.
 * @param options.onHandL litres of a thinner on the shelf, by its name
 * @throws RangeError on impossible figures
 * @example thinnersToBuy({ products, onHandL: () => 0 }) // → []
 */
export function thinnersToBuy(options: {
  products: readonly Pick<JobProduct, 'sheet' | 'thinnerL'>[];
  onHandL: (name: string) => number;
}): ThinnerToBuy[] {
  const wanted = new Map<string, Pick<JobProduct, 'sheet' | 'thinnerL'>[]>();
  for (const product of options.products) {
    const { thinner, name } = product.sheet;
    if (product.thinnerL <= 0 || !thinner) continue;
    const key = thinner.name || `thinner for ${name}`;
    wanted.set(key, [...(wanted.get(key) ?? []), product]);
  }
  return [...wanted].flatMap(([name, products]) => {
    const needL = Math.max(0, products.reduce((sum, p) => sum + p.thinnerL, 0) - options.onHandL(name));
    if (needL < 1e-6) return [];
    const packs = products.flatMap((p) => p.sheet.thinner?.packs ?? []);
    const known = products.find((p) => p.sheet.thinner?.packs?.length)?.sheet.thinner?.packs ?? [];
    const sheet = {
      parts: [{ name, role: 'base' as const, ratio: 1, densityKgPerL: null }],
      ratioBasis: 'volume' as const,
      packs: known,
    };
    return [
      {
        name,
        needL,
        purchase: known.length > 0 ? productPacks({ sheet, needL }) : null,
        supplier:
          packs.find((p) => p.supplier)?.supplier ??
          products.flatMap((p) => p.sheet.packs).find((p) => p.supplier)?.supplier ??
          '',
      },
    ];
  });
}
