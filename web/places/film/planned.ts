import { coatOf } from '#core/coat/fold';
import { measuredFilm } from '#core/coat/measuredFilm';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import type { Layer } from '#core/model/layer';
import type { SheetBody, SheetRevision } from '#core/model/sheet';
import { shareShelf } from '#core/stores/share';
import { openStops } from '#core/system/openStops';
import { withSheets } from '#core/system/ledger';
import type { BuildUpQuantities } from '#core/system/quantities';
import { keptFilms, type Finding } from '#core/system/stack';
import type { SheetRow } from '#contracts/rows/sheet';
import type { Stores } from '#contracts/rows/stores';
import type { BoatView } from '../../data/store';
import { tinsNow } from '../../data/tins';
import type { SectionCoat } from './section/coat';

/** What of a boat's view and of the yard's stores the Film place shows, worked out from them alone. */

/** Newest sheet of a product. */
export type SheetOf = (sheetId: string) => SheetBody | undefined;

/** What stands on the shelf now and who has called on it. */
export function shelfOf(stores: Stores, sheetOf: SheetOf) {
  const lots = tinsNow(stores, sheetOf);
  return { lots, shared: shareShelf({ lots, boats: stores.boats, sheetOf, chance: stores.rules.chance }) };
}

/** Coats as the section draws them while none of them is on. */
export function plannedCoats(
  layers: readonly Layer[],
  revisionById: ReadonlyMap<string, SheetRevision>,
  quantities: BuildUpQuantities | null,
): SectionCoat[] {
  const whole = withSheets(layers, revisionById);
  const kept = keptFilms(whole);
  return layers.map((layer, i) => ({
    layer,
    name: revisionById.get(layer.sheetRevisionId)?.body.name ?? 'unknown sheet',
    on: false,
    measuredMicron: null,
    keptMicron: kept[whole.findIndex((l) => l.id === layer.id)] ?? layer.dftMicron,
    takes: quantities?.layers[i] ?? null,
  }));
}

/** A zone's coats as the section draws them. */
export function sectionCoats(
  view: BoatView,
  surfaceId: string,
  layers: readonly Layer[],
  quantities: BuildUpQuantities | null,
): SectionCoat[] {
  const { sheetById, coats } = view;
  return plannedCoats(layers, sheetById, quantities).map((planned) => {
    const coat = coatOf(coats, surfaceId, planned.layer.id);
    const sheet = sheetById.get(planned.layer.sheetRevisionId)?.body;
    return coat
      ? { ...planned, on: true, measuredMicron: sheet ? (measuredFilm(coat, sheet.solids)?.dryMicron ?? null) : null }
      : planned;
  });
}

/** Stops about a zone's next coat that nobody has let stand. */
export function openStopsOf(view: BoatView, { surfaceId, nextLayer }: ZoneStatus): Finding[] {
  const surface = view.surfaces.find((s) => s.id === surfaceId);
  const buildUp = view.buildUps.find((b) => b.surfaceId === surfaceId);
  return surface && buildUp && nextLayer
    ? openStops({ surface, buildUp, layerId: nextLayer.id, revisionById: view.sheetById, waters: view.boat.waters })
    : [];
}

/** Newest sheets that may go on a coat. */
export function usableSheets(sheets: readonly SheetRow[] | undefined): SheetRevision[] {
  return (sheets ?? []).filter((s) => !s.withdrawn).map((s) => s.current);
}
