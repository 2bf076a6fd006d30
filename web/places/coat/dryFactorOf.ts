import type { Coat } from '#core/coat/fold';
import type { BoatView } from '../../data/store';

/** Times of a coat's table, as a multiple that was learned and taken. */
export const dryFactorOf = (view: BoatView, coat: Pick<Coat, 'sheetRevisionId'>): number =>
  view.dryFactors?.[view.sheetById.get(coat.sheetRevisionId)?.sheetId ?? ''] ?? 1;
