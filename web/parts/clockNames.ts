import type { Clock } from '#core/coat/clocks';
import type { BoatView } from '../data/store';
import { CLOCK_WORDS } from './words';

/** What a clock belongs to: its zone and the product of its coat, or what is in the pot. */
export function clockName(view: BoatView, { surfaceId, coatId, product }: Clock): string {
  if (!surfaceId) return product || 'batch';
  const coat = coatId ? view.coats.find((c) => c.id === coatId) : undefined;
  const name = coat ? view.sheetById.get(coat.sheetRevisionId)?.body.name : undefined;
  return [view.zoneName(surfaceId), name].filter(Boolean).join(', ');
}

export const clockTitle = (view: BoatView, clock: Clock): string =>
  `${clockName(view, clock)}: ${CLOCK_WORDS[clock.kind]}`;
