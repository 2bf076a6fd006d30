import { Impossible } from '../impossible';
import { fillHeightsMm, type RoundPot } from './fillHeights';

/** A mark on a mixing stick, from its lower end. */
export interface StickMark {
  readonly name: string;
  readonly heightMm: number;
}

/** A stick is cut out of one sheet of paper: no mark of it stands higher, mm. */
export const STICK_MOST_MM = 230;

/**
 * The marks of a stick that stands in a pot while it is poured, one after the other.
 * @throws RangeError when it does not fit the pot, or stands fuller than a sheet of paper is long
 * @example
 *   stickMarks({
 *     pot: { bottomMm: 100, topMm: 100, depthMm: 200 },
 *     pours: [
 *       { name: 'base', litres: 0.5 },
 *       { name: '+ hardener', litres: 0.25 },
 *     ],
 *   })[1] // → { name: '+ hardener', heightMm: 95.49 }
 */
export function stickMarks(options: {
  pot: RoundPot;
  pours: readonly { readonly name: string; readonly litres: number }[];
}): StickMark[] {
  const { pot, pours } = options;
  const heights = fillHeightsMm({ pot, volumesL: pours.map((p) => p.litres) });
  const highest = heights[heights.length - 1] ?? 0;
  if (highest > STICK_MOST_MM)
    throw new Impossible(
      `The pot stands ${Math.round(highest)} mm full; a stick on one sheet reaches ${STICK_MOST_MM} mm. Mix less, or take a wider pot.`,
    );
  return pours.map((p, i) => ({ name: p.name, heightMm: heights[i] as number }));
}
