import type { Coat } from '#core/coat/fold';
import type { BoatView } from '../data/store';
import { coatName } from './words';

/** Coats that tell the area of one zone: finished, on it alone, with litres and comb readings. */
export function paintedCoats(view: BoatView, surfaceId: string): { coat: Coat; name: string }[] {
  return view.coats.flatMap((coat) => {
    const alone = coat.on.length === 1 && coat.on[0]?.surfaceId === surfaceId;
    if (!alone || coat.finishedAt === null || !coat.litresOn || coat.wetFilms.length === 0) return [];
    const sheet = view.sheetById.get(coat.sheetRevisionId);
    const number = view.coats.filter(
      (c) =>
        c.sheetRevisionId === coat.sheetRevisionId &&
        c.startedAt <= coat.startedAt &&
        c.on.some((o) => o.surfaceId === surfaceId),
    ).length;
    return [{ coat, name: coatName(sheet?.body.kind, number) }];
  });
}

/** Mean of a coat's comb readings and how many there are. */
export function meanWet(coat: Coat): { wetFilmMicron: number; readings: number } {
  const all = coat.wetFilms.flatMap((w) => w.micron);
  return { wetFilmMicron: all.reduce((a, b) => a + b, 0) / all.length, readings: all.length };
}
