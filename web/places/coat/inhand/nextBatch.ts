import { weatherAt } from '#core/air/weather';
import type { Coat } from '#core/coat/fold';
import type { Progress } from '#core/coat/progress';
import { areaLeftM2, batchToMix } from '#core/mix/batchToMix';
import type { SheetBody } from '#core/model/sheet';
import type { BoatView } from '../../../data/store';
import { attempt } from '../../../parts/attempt';

/** The next batch for a coat, L without thinner, so that it goes on within the pot life; null where nothing is left to mix. */
export function nextBatch(
  view: BoatView,
  coat: Coat,
  { sheet, progress }: { sheet: SheetBody; progress: Progress },
): number | null {
  const { rateM2PerH, painters } = progress;
  const tempC = weatherAt(view.hours, view.at)?.airC ?? null;
  const zones = coat.on.flatMap(({ surfaceId, layerId }) => {
    const surface = view.surfaces.find((s) => s.id === surfaceId);
    const layer = view.buildUps.find((b) => b.surfaceId === surfaceId)?.layers.find((l) => l.id === layerId);
    return surface && layer ? [{ areaM2: surface.areaM2, layer }] : [];
  });
  if (zones.length === 0 || sheet.nameOnly) return null;
  const mixedForL = coat.batches.reduce((sum, b) => sum + b.unthinnedL, 0);
  return attempt(() => {
    const areaM2 = areaLeftM2({ sheet, zones, mixedForL });
    const wish = { by: 'area', areaM2, litres: null, thinner: 0, potC: tempC, painters, rateM2PerH } as const;
    const { plan } = batchToMix({ sheet, zones, method: coat.method, wish });
    return plan && plan.count > 0 ? (plan.count === 1 ? plan.lastL : plan.eachL) : null;
  }).value;
}
