import { netAreas } from '#core/hull/netAreas';
import { NO_MODEL } from '#core/model/area';
import type { BoatBundle } from '#contracts/rows/boat';

/** Areas anew, after something they rest on has changed. A patch is gone with its zone. */
export function withAreas(bundle: BoatBundle): BoatBundle {
  const shown = bundle.surfaces.filter((s) => !s.parentId || bundle.surfaces.some((p) => p.id === s.parentId));
  try {
    const areas = netAreas({ boat: bundle.boat, hull: bundle.hull ?? NO_MODEL, surfaces: shown });
    return {
      ...bundle,
      surfaces: shown.map((row) => {
        const area = areas.get(row.id);
        return area ? { ...row, areaM2: area.areaM2, areaShare: area.share, grossM2: area.grossM2 } : row;
      }),
    };
  } catch {
    // The server will refuse it with a reason; until then areas stand as they were.
    return { ...bundle, surfaces: shown };
  }
}
