import type { DrawnAt } from '#core/model/log';
import type { SurfaceRow } from '#contracts/rows/boat';
import { zonePanels } from '#core/coat/panels';
import type { BoatView } from '../../data/store';
import { PanelDrawing } from '../coat/inhand/PanelDrawing';

/** A zone drawn whole, a side at a time, with what was found on it; a place is pointed at where `onPlace` is given. */
export function Where({
  view,
  surface,
  marks,
  onPlace,
}: {
  view: BoatView;
  surface: SurfaceRow;
  marks: readonly DrawnAt[];
  onPlace?: (at: DrawnAt) => void;
}) {
  const panels = zonePanels({ zone: surface, boat: view.boat, rateM2PerH: 1000, painters: 1, wetEdgeH: 1000 });
  return (
    <PanelDrawing
      view={view}
      zone={{ surface, panels, done: [], share: 0 }}
      colourHex="#c9c4b8"
      marks={marks}
      {...(onPlace ? { onPlace } : {})}
    />
  );
}
