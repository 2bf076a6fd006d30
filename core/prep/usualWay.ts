import type { PrepWay } from '../model/prep';
import type { Surface } from '../model/surface';
import { isOldAntifouling } from '../hull/zones';

/** How long a washed face takes to dry, hours, by the way it is got ready. [M] A meter or the hand goes before. */
export const WAY_DRY_H: Readonly<Record<PrepWay, number>> = {
  blastedSteel: 4,
  steelByHand: 4,
  steelEpoxy: 12,
  grpBarrier: 24,
  onePackKept: 4,
  twoPackKept: 4,
  antifoulingKept: 4,
  timber: 24,
  bilge: 24,
  nonSkid: 12,
  aluminium: 4,
  mineral: 72,
};

/**
 * The usual way for a zone's substrate and what lies on it.
 * @example usualWay({ kind: 'bilge', substrate: 'steel', existing: 'bare' }) // → 'bilge'
 */
export function usualWay(surface: Pick<Surface, 'kind' | 'substrate' | 'existing'>): PrepWay {
  const { kind, substrate, existing } = surface;
  if (kind === 'bilge') return 'bilge';
  if (isOldAntifouling(existing)) return 'antifoulingKept';
  if (kind === 'nonSkid') return 'nonSkid';
  if (existing === 'onePack' || existing === 'unknown') return 'onePackKept';
  if (existing === 'twoPack') return 'twoPackKept';
  if (substrate === 'steel') return 'blastedSteel';
  if (substrate === 'aluminium') return 'aluminium';
  if (substrate === 'gelcoat' || substrate === 'laminate') return 'grpBarrier';
  return substrate === 'ferrocement' ? 'mineral' : substrate === 'sealedTimber' ? 'twoPackKept' : 'timber';
}
