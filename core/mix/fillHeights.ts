import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';

/** Inside of a round pot, mm: diameters at its bottom and rim, and its depth. */
export interface RoundPot {
  readonly bottomMm: number;
  readonly topMm: number;
  readonly depthMm: number;
}

const MM3_PER_L = 1e6;

/**
 * What is in a round pot that is filled to a height, L. [P: volume of a frustum of a cone]
 * @throws RangeError on an impossible pot or height
 * @example filledL({ pot: { bottomMm: 100, topMm: 100, depthMm: 200 }, heightMm: 95.49 }) // → 0.75
 */
export function filledL({ pot, heightMm }: { pot: RoundPot; heightMm: number }): number {
  const bottomMm = positive(pot.bottomMm, 'The diameter at the bottom');
  const topMm = positive(pot.topMm, 'The diameter at the rim');
  const depthMm = positive(pot.depthMm, 'The depth');
  const h = notNegative(heightMm, 'The height');
  const levelMm = bottomMm + ((topMm - bottomMm) * h) / depthMm;
  return (((Math.PI * h) / 12) * (bottomMm ** 2 + bottomMm * levelMm + levelMm ** 2)) / MM3_PER_L;
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
  const most = filledL({ pot, heightMm: depthMm });
  let inPotL = 0;
  return volumesL.map((litres) => {
    inPotL += notNegative(litres, 'A pour');
    if (inPotL > most + 1e-9)
      throw new Impossible(`It does not fit: the pot holds ${most.toFixed(2)} L to its rim. Take a larger one.`);
    const [low, perMm] = [bottomMm / 2, (topMm - bottomMm) / 2 / depthMm];
    const mm3 = inPotL * MM3_PER_L;
    // Nearly straight walls: the cone's own formula would divide by next to nothing.
    if (Math.abs(topMm - bottomMm) < 1e-6 * bottomMm) return mm3 / (Math.PI * low ** 2);
    return (Math.cbrt(low ** 3 + (3 * perMm * mm3) / Math.PI) - low) / perMm;
  });
}
