import type { Coat } from '#core/coat/fold';
import { wetEdgeH } from '#core/coat/wetEdge';
import { USUAL_RATE_M2_PER_H } from '#core/film/spreading';
import type { SheetBody } from '#core/model/sheet';
import type { BoatView } from '../../data/store';
import { PanelDrawing } from './inhand/PanelDrawing';
import { zonesOf } from './inhand/zonesOf';

/** A finished coat on its zones: what of them has it, and where remarks were made. */
export function Drawn({ view, coat, sheet }: { view: BoatView; coat: Coat; sheet: SheetBody }) {
  const marks = [...coat.notes, ...coat.pictures].flatMap((n) => n.drawnAt ?? []);
  if (marks.length === 0) return null;
  const zones = zonesOf({
    surfaces: coat.on.flatMap((t) => view.surfaces.filter((s) => s.id === t.surfaceId)),
    covered: coat.on.map(
      ({ surfaceId }) => coat.covered.find((c) => c.surfaceId === surfaceId) ?? { surfaceId, share: 1 },
    ),
    boat: view.boat,
    rateM2PerH: USUAL_RATE_M2_PER_H[coat.method],
    painters: 1,
    wetEdgeH: wetEdgeH(sheet, null),
  }).filter((z) => marks.some((m) => m.surfaceId === z.surface.id));
  return (
    <section aria-labelledby="drawn" className="mb-3">
      <h2 id="drawn" className="ruled pb-1">
        Where remarks were made
      </h2>
      {zones.map((zone) => (
        <PanelDrawing key={zone.surface.id} view={view} zone={zone} colourHex={coat.colourHex} marks={marks} />
      ))}
    </section>
  );
}
