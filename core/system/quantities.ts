import {
  layerOnArea,
  layerPerM2,
  rangeOn,
  type AreaOf,
  type LayerPerM2,
  type LayerQuantities,
  type Range,
} from '../film/layer';
import type { Layer } from '../model/layer';
import type { SheetBody } from '../model/sheet';
import { keptFilms } from './stack';

export interface SheetLayer extends Layer {
  readonly sheet: SheetBody;
}

interface ProductOf<Litres> {
  readonly sheetRevisionId: string;
  readonly name: string;
  readonly litres: Litres;
  readonly parts: readonly { readonly name: string; readonly litres: number }[];
  readonly thinnerL: number;
}

/** Dry film put on, and what is left of it after abrading, µm. */
interface Films {
  readonly dftMicron: number;
  readonly keptMicron: number;
}

export interface BuildUpQuantities {
  /** From the substrate out. */
  readonly layers: readonly (LayerQuantities & Pick<Films, 'keptMicron'>)[];
  readonly total: Films & { readonly litres: Range; readonly thinnerL: number };
  /** By product, in the order they are first used; parts in the order of the sheet. */
  readonly products: readonly ProductOf<Range>[];
}

/** What a build-up takes of every m²: worked out once for all the zones that have it. */
export interface BuildUpPerM2 {
  readonly layers: readonly LayerPerM2[];
  readonly keptMicron: readonly number[];
  readonly total: Films & { readonly litres: number; readonly thinnerL: number };
  readonly products: readonly ProductOf<number>[];
}

/** @param layers from the substrate out, each with its sheet. @throws RangeError on impossible input */
export function buildUpPerM2(layers: readonly SheetLayer[]): BuildUpPerM2 {
  const each = layers.map((layer) => layerPerM2({ layer, sheet: layer.sheet }));
  const keptMicron = keptFilms(layers);
  const products = new Map<string, ProductOf<number>>();
  layers.forEach(({ sheetRevisionId, sheet }, i) => {
    const q = each[i] as LayerPerM2;
    const before = products.get(sheetRevisionId);
    products.set(sheetRevisionId, {
      sheetRevisionId,
      name: sheet.name,
      litres: q.litres + (before?.litres ?? 0),
      parts: q.parts.map((p, k) => ({ name: p.name, litres: p.litres + (before?.parts[k]?.litres ?? 0) })),
      thinnerL: q.thinnerL + (before?.thinnerL ?? 0),
    });
  });
  return {
    layers: each,
    keptMicron,
    total: {
      litres: sumOf(each.map((q) => q.litres)),
      thinnerL: sumOf(each.map((q) => q.thinnerL)),
      dftMicron: sumOf(layers.map((l) => l.dftMicron)),
      keptMicron: sumOf(keptMicron),
    },
    products: [...products.values()],
  };
}

/**
 * What a build-up takes on an area. The area's error is shared by all its coats, so ranges add up straight.
 * @throws RangeError on an area below 0
 * @example buildUpOnArea(buildUpPerM2(stack), { areaM2: 10, areaShare: 0.1 }).layers.length // → 2
 */
export function buildUpOnArea({ layers, keptMicron, total, products }: BuildUpPerM2, area: AreaOf): BuildUpQuantities {
  return {
    layers: layers.map((q, i) => ({ ...layerOnArea(q, area), keptMicron: keptMicron[i] as number })),
    total: { ...total, litres: rangeOn(total.litres, area), thinnerL: total.thinnerL * area.areaM2 },
    products: products.map((p) => ({
      ...p,
      litres: rangeOn(p.litres, area),
      parts: p.parts.map(({ name, litres }) => ({ name, litres: litres * area.areaM2 })),
      thinnerL: p.thinnerL * area.areaM2,
    })),
  };
}

/**
 * What a build-up takes on an area: per coat, per product and in all, low, likely and high.
 * @param options.areaM2 m²
 * @param options.areaShare ± of it as a share, 95 % half-width
 * @param options.layers from the substrate out, each with its sheet
 * @returns litres of unthinned mixed paint; µm
 * @throws RangeError on impossible input
 * @example buildUpQuantities({ areaM2: 10, areaShare: 0.1, layers: stack }).total.litres.likely // → 4.444
 */
export function buildUpQuantities({ layers, ...area }: AreaOf & { layers: readonly SheetLayer[] }): BuildUpQuantities {
  return buildUpOnArea(buildUpPerM2(layers), area);
}

const sumOf = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);
