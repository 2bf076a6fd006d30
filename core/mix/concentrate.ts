import { notNegative, positive } from '../guard';

/**
 * Litres of concentrate for a wash of one part to so many parts of water: 1 : 50 in 80 L is 1.6 L. [P: definition of a
 * ratio by volume]
 * @param options.parts of water to one of concentrate
 * @throws RangeError on figures below zero, or a ratio of zero
 * @example concentrateL({ waterL: 80, parts: 50 }) // → 1.6
 */
export function concentrateL({ waterL, parts }: { waterL: number; parts: number }): number {
  return notNegative(waterL, 'The water') / positive(parts, 'Parts of water');
}
