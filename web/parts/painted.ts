import type { Coat } from '#core/coat/fold';
import { paintOn, type PaintOn } from '#core/coat/paintOn';
import type { BoatView } from '../data/store';
import { attempt } from './attempt';
import { coatName } from './words';

/** A coat that tells the area of its zone: litres that make its film, and the mean of its comb. */
export interface PaintedCoat {
  readonly coat: Coat;
  readonly name: string;
  readonly litres: number;
  readonly wetFilmMicron: number;
  readonly readings: number;
}

/** Coats that tell the area of one zone: finished, on it alone, with litres and comb readings. */
export function paintedCoats(view: BoatView, surfaceId: string): PaintedCoat[] {
  return view.coats.flatMap((coat) => {
    const alone = coat.on.length === 1 && coat.on[0]?.surfaceId === surfaceId;
    if (!alone || coat.finishedAt === null || coat.wetFilms.length === 0) return [];
    const litres = whereItWent(view, coat)?.filmL;
    if (!litres) return [];
    const sheet = view.sheetById.get(coat.sheetRevisionId);
    const number = view.coats.filter(
      (c) =>
        c.sheetRevisionId === coat.sheetRevisionId &&
        c.startedAt <= coat.startedAt &&
        c.on.some((o) => o.surfaceId === surfaceId),
    ).length;
    return [{ coat, name: coatName(sheet?.body.kind, number), litres, ...meanWet(coat) }];
  });
}

/** Where the paint of a coat went, as its first zone's build-up reckons with losses; null where its sheet is gone. */
export function whereItWent(view: BoatView, coat: Coat): PaintOn | null {
  const sheet = view.sheetById.get(coat.sheetRevisionId)?.body;
  const { surfaceId, layerId } = coat.on[0] ?? {};
  const layers = view.buildUps.find((b) => b.surfaceId === surfaceId)?.layers;
  const layer = layers?.find((l) => l.id === layerId) ?? null;
  const wetMicron = coat.wetFilms.length > 0 ? meanWet(coat).wetFilmMicron : null;
  return sheet ? attempt(() => paintOn({ coat, sheet, layer, wetMicron })).value : null;
}

/** Mean of a coat's comb readings and how many there are. */
function meanWet(coat: Coat): { wetFilmMicron: number; readings: number } {
  const all = coat.wetFilms.flatMap((w) => w.micron);
  return { wetFilmMicron: all.reduce((a, b) => a + b, 0) / all.length, readings: all.length };
}
