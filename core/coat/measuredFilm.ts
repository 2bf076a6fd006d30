import type { Coat } from './fold';
import { dryFilmMicron } from '../film/spreading';

/**
 * Mean wet film of a coat, µm, and the dry film it comes to; null where nothing was combed.
 * @example
 *   measuredFilm({ wetFilms: [{ at: noon, micron: [200, 220] }], thinner: 0 }, 0.5) // → { wetMicron: 210, dryMicron: 105, readings: 2 }
 */
export function measuredFilm(
  coat: Pick<Coat, 'wetFilms' | 'thinner'>,
  solids: number,
): { wetMicron: number; dryMicron: number; readings: number } | null {
  const all = coat.wetFilms.flatMap((w) => w.micron);
  if (all.length === 0) return null;
  const wetMicron = all.reduce((sum, m) => sum + m, 0) / all.length;
  return { wetMicron, dryMicron: dryFilmMicron({ wetMicron, solids, thinner: coat.thinner }), readings: all.length };
}
