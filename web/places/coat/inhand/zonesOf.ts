import type { Coat } from '#core/coat/fold';
import { zonePanels, type ZonePanels } from '#core/coat/panels';
import type { Boat, SurfaceRow } from '#contracts/rows/boat';

/** One zone of a coat that goes on, with its panels and those that are done. */
export interface ZoneInHand {
  readonly surface: SurfaceRow;
  readonly panels: ZonePanels;
  readonly done: readonly number[];
  readonly share: number;
}

/** The zones of a coat, with their panels. Panels keep the number they were ticked with, however many are at it now. */
export function zonesOf({
  surfaces,
  covered,
  boat,
  ...pace
}: {
  surfaces: readonly SurfaceRow[];
  covered: Coat['covered'];
  boat: Boat;
  rateM2PerH: number;
  painters: number;
  wetEdgeH: number;
}): ZoneInHand[] {
  return surfaces.map((surface) => {
    const told = covered.find((c) => c.surfaceId === surface.id);
    const fresh = zonePanels({ zone: surface, boat, ...pace });
    const panels = told?.of ? withCount(fresh, told.of, surface.areaM2) : fresh;
    const done = told?.panels ?? panelsOfShare(told?.share ?? 0, panels.of);
    return { surface, panels, done, share: told?.share ?? 0 };
  });
}

function withCount(panels: ZonePanels, of: number, areaM2: number): ZonePanels {
  const perSide = Math.max(1, Math.round(of / panels.sides.length));
  return { ...panels, of, perSide, areaM2: areaM2 / of, widthM: (panels.widthM * panels.perSide) / perSide };
}

const panelsOfShare = (share: number, of: number) => Array.from({ length: Math.round(share * of) }, (_, i) => i);
