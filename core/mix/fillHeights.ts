import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';

/** Inside of a round pot, mm: diameters at its bottom and rim, and its depth. */
export interface RoundPot {
  readonly bottomMm: number;
  readonly topMm: number;
  readonly depthMm: number;
}

const MM3_PER_L = 1e6;

/** What a round pot holds up to its rim, L. [P: volume of a frustum of a cone] */
function holdsL({ bottomMm, topMm, depthMm }: RoundPot): number {
  return (((Math.PI * depthMm) / 12) * (bottomMm ** 2 + bottomMm * topMm + topMm ** 2)) / MM3_PER_L;
}

/**
 * How high each part fills a straight or tapered round pot, poured one after the other, mm from its bottom. [P: volume of
 * a frustum of a cone]
 * @param options.volumesL of each pour, L
 * @returns cumulative heights
 * @throws RangeError when it does not fit, or the pot is impossible
 * @example
 *   fillHeightsMm({ pot: { bottomMm: 100, topMm: 100, depthMm: 200 }, volumesL: [0.5, 0.25] })[1] // → 95.49
 */
export function fillHeightsMm({ pot, volumesL }: { pot: RoundPot; volumesL: readonly number[] }): number[] {
  const bottomMm = positive(pot.bottomMm, 'The diameter at the bottom');
  const topMm = positive(pot.topMm, 'The diameter at the rim');
  const depthMm = positive(pot.depthMm, 'The depth');
  const most = holdsL(pot);
  let filledL = 0;
  return volumesL.map((litres) => {
    filledL += notNegative(litres, 'A pour');
    if (filledL > most + 1e-9)
      throw new Impossible(`It does not fit: the pot holds ${most.toFixed(2)} L to its rim. Take a larger one.`);
    const [low, perMm] = [bottomMm / 2, (topMm - bottomMm) / 2 / depthMm];
    const mm3 = filledL * MM3_PER_L;
    // Nearly straight walls: the cone's own formula would divide by next to nothing.
    if (Math.abs(topMm - bottomMm) < 1e-6 * bottomMm) return mm3 / (Math.PI * low ** 2);
    return (Math.cbrt(low ** 3 + (3 * perMm * mm3) / Math.PI) - low) / perMm;
  });
}
