import { coatOf } from '#core/coat/fold';
import type { Layer } from '#core/model/layer';
import type { SheetRevision } from '#core/model/sheet';
import { onProduct, swapProduct } from '#core/system/system';
import type { BoatView } from '../../data/store';

/** Whether a coat of a zone has been put on. */
export const isOn = (view: BoatView, surfaceId: string, layerId: string) =>
  coatOf(view.coats, surfaceId, layerId) !== undefined;

/** Build-ups of zones that are still there. */
export const standingBuildUps = (view: BoatView) =>
  view.buildUps.filter((b) => view.surfaces.some((s) => s.id === b.surfaceId));

/** Products of coats that are still to go on. */
export function productsToCome(view: BoatView): SheetRevision[] {
  const found = new Map<string, SheetRevision>();
  for (const row of standingBuildUps(view)) {
    for (const layer of row.layers) {
      const revision = view.sheetById.get(layer.sheetRevisionId);
      if (revision && !isOn(view, row.surfaceId, layer.id)) found.set(revision.sheetId, revision);
    }
  }
  return [...found.values()];
}

/** The coats of each zone that would change, with the new product in place of the old one. */
export function swapped(view: BoatView, fromSheetId: string, to: SheetRevision): Map<string, Layer[]> {
  const out = new Map<string, Layer[]>();
  for (const row of standingBuildUps(view)) {
    const next = swapProduct({
      layers: row.layers,
      isOn: (id) => isOn(view, row.surfaceId, id),
      isFrom: (l) => view.sheetById.get(l.sheetRevisionId)?.sheetId === fromSheetId,
      to: (l) => onProduct(l, to),
    });
    if (next.some((l, i) => l !== row.layers[i])) out.set(row.surfaceId, next);
  }
  return out;
}
