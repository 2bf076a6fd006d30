import { layerQuantities, type Layer, type LayerQuantities } from '../film/layer';
import type { SheetBody } from '../sheet/sheet';
import { keptFilms } from './stack';

export interface Range {
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}

export interface SheetLayer extends Layer {
  readonly sheet: SheetBody;
}

export interface BuildUpQuantities {
  /** From the substrate out. */
  readonly layers: readonly (LayerQuantities & { readonly keptMicron: number })[];
  readonly total: {
    readonly litres: Range;
    readonly thinnerL: number;
    /** Dry film put on, and what is left of it after abrading. */
    readonly dftMicron: number;
    readonly keptMicron: number;
  };
  /** By product, in the order they are first used; parts in the order of the sheet. */
  readonly products: readonly { readonly sheetRevisionId: string; readonly name: string; readonly litres: Range; readonly parts: readonly { readonly name: string; readonly litres: number }[]; readonly thinnerL: number }[];
}

/**
 * What a build-up takes on an area: per coat, per product and in all, low, likely and high. The area's error is
 * shared by all its coats, so ranges add up straight.
 * @param options.areaM2 m²
 * @param options.areaShare ± of it as a share, 95 % half-width
 * @param options.layers from the substrate out, each with its sheet
 * @returns litres of unthinned mixed paint; µm
 * @throws RangeError on impossible input
 */
export function buildUpQuantities({ areaM2, areaShare, layers }: { areaM2: number; areaShare: number; layers: readonly SheetLayer[] }): BuildUpQuantities {
  const kept = keptFilms(layers);
  const each = layers.map((layer, i) => ({ ...layerQuantities({ areaM2, areaShare, layer, sheet: layer.sheet }), keptMicron: kept[i] as number }));
  const products = new Map<string, { sheetRevisionId: string; name: string; litres: Range; parts: { name: string; litres: number }[]; thinnerL: number }>();
  layers.forEach((layer, i) => {
    const q = each[i] as LayerQuantities;
    const before = products.get(layer.sheetRevisionId);
    products.set(layer.sheetRevisionId, {
      sheetRevisionId: layer.sheetRevisionId,
      name: layer.sheet.name,
      litres: before ? addRanges([before.litres, q.litres]) : q.litres,
      parts: q.parts.map((p, k) => ({ name: p.name, litres: p.litres + (before?.parts[k]?.litres ?? 0) })),
      thinnerL: q.thinnerL + (before?.thinnerL ?? 0),
    });
  });
  return {
    layers: each,
    total: {
      litres: addRanges(each.map((q) => q.litres)),
      thinnerL: each.reduce((sum, q) => sum + q.thinnerL, 0),
      dftMicron: layers.reduce((sum, l) => sum + l.dftMicron, 0),
      keptMicron: kept.reduce((sum, k) => sum + k, 0),
    },
    products: [...products.values()],
  };
}

function addRanges(ranges: readonly Range[]): Range {
  return ranges.reduce((sum, r) => ({ low: sum.low + r.low, likely: sum.likely + r.likely, high: sum.high + r.high }), { low: 0, likely: 0, high: 0 });
}
