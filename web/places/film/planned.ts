import { coatOf, measuredFilm } from '#core/coat/fold';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import type { Layer } from '#core/film/layer';
import type { SheetBody } from '#core/sheet/sheet';
import { lotStates } from '#core/stores/lots';
import { shareShelf } from '#core/stores/share';
import { checkBuildUp } from '#core/system/checkBuildUp';
import { withSheets } from '#core/system/ledger';
import { overrideKey } from '#core/system/mend';
import type { BuildUpQuantities } from '#core/system/quantities';
import { keptFilms, type Finding } from '#core/system/stack';
import type { Stores } from '#contracts/stores';
import type { BoatView } from '../../data/store';
import type { SectionCoat } from './section/Stack';

/** What of a boat's view and of the yard's stores the Film place shows, worked out from them alone. */

/** Newest sheet of a product. */
export type SheetOf = (sheetId: string) => SheetBody | undefined;

/** What stands on the shelf now and who has called on it. */
export function shelfOf(stores: Stores, sheetOf: SheetOf) {
  const lots = lotStates({ lots: stores.lots, pours: stores.pours, today: stores.today, shelfOf: (id) => sheetOf(id) ?? {} });
  return { lots, shared: shareShelf({ lots, boats: stores.boats, sheetOf, chance: stores.rules.chance }) };
}

/** A zone's coats as the section draws them. */
export function sectionCoats(view: BoatView, surfaceId: string, layers: readonly Layer[], quantities: BuildUpQuantities | null): SectionCoat[] {
  const { sheetById, coats } = view;
  const whole = withSheets(layers, sheetById);
  const kept = keptFilms(whole);
  return layers.map((layer, i) => {
    const sheet = sheetById.get(layer.sheetRevisionId)?.body;
    const coat = coatOf(coats, surfaceId, layer.id);
    const at = whole.findIndex((l) => l.id === layer.id);
    return { layer, name: sheet?.name ?? 'unknown sheet', on: coat !== undefined, measuredMicron: coat && sheet ? (measuredFilm(coat, sheet.solids)?.dryMicron ?? null) : null, keptMicron: kept[at] ?? layer.dftMicron, takes: quantities?.layers[i] ?? null };
  });
}

/** Stops about a zone's next coat that nobody has let stand. */
export function openStops(view: BoatView, status: ZoneStatus): Finding[] {
  const surface = view.surfaces.find((s) => s.id === status.surfaceId);
  const row = view.buildUps.find((b) => b.surfaceId === status.surfaceId);
  if (!surface || !row || !status.nextLayer) return [];
  const at = row.layers.findIndex((l) => l.id === status.nextLayer?.id);
  const findings = checkBuildUp({ substrate: surface.substrate, exposure: surface.exposure, existing: surface.existing, layers: withSheets(row.layers, view.sheetById), waters: view.boat.waters, records: row.records.map((r) => r.kind), openWork: false, targetMicron: row.targetMicron });
  return findings.filter((f) => f.severity === 'stop' && f.upper === at && !row.overrides.some((o) => o.key === overrideKey(f, row.layers)));
}
