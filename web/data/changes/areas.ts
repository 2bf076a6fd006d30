import { create } from 'zustand';
import { NO_MODEL } from '#core/model/area';
import type { BoatBundle } from '#contracts/rows/boat';

/** The methods areas are worked out by, once they are here: most pages show what the server worked out. */
export const useAreaMethods = create<{ netAreas: typeof import('#core/hull/netAreas').netAreas | null }>(() => ({
  netAreas: null,
}));

export async function fetchAreaMethods(): Promise<void> {
  const { netAreas } = await import('#core/hull/netAreas');
  useAreaMethods.setState({ netAreas });
}

/** Areas anew, after something they rest on has changed; as they stood until the methods are here. A patch is gone with its zone. */
export function withAreas(bundle: BoatBundle): BoatBundle {
  const shown = bundle.surfaces.filter((s) => !s.parentId || bundle.surfaces.some((p) => p.id === s.parentId));
  const { netAreas } = useAreaMethods.getState();
  if (!netAreas) {
    // Without a signal they come with a later change, or the server's answer does.
    fetchAreaMethods().catch(() => undefined);
    return { ...bundle, surfaces: shown };
  }
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
