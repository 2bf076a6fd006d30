import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';
import { RATIO_TOLERANCE } from './strokes';

export interface Overpour {
  /** Of each part, L, in the order of the ratio. */
  readonly addL: readonly number[];
  /** In the pot once that is added. */
  readonly totalL: number;
  /** As it was poured, before anything is added. */
  readonly withinTolerance: boolean;
}

/** Rounding of doubles must not put a mix outside its tolerance. */
const SLACK = 1e-9;

/**
 * How far the worst part is from its right volume for the base poured, as a share of it.
 * @returns Infinity where parts were poured but no base
 * @throws RangeError on an impossible ratio or pour
 * @example ratioOff({ ratio: [3, 1], pouredL: [0.75, 0.275] }) // → 0.1
 */
export function ratioOff({ ratio, pouredL }: { ratio: readonly number[]; pouredL: readonly number[] }): number {
  checkPours(ratio, pouredL);
  const [baseL, base] = [pouredL[0] as number, ratio[0] as number];
  const rightL = ratio.map((r) => (baseL * r) / base);
  if (baseL === 0) return pouredL.some((l) => l > 0) ? Infinity : 0;
  return Math.max(0, ...pouredL.map((l, i) => Math.abs(l / (rightL[i] as number) - 1)));
}

function checkPours(ratio: readonly number[], pouredL: readonly number[]): void {
  if (ratio.length === 0) throw new Impossible('The ratio has no parts. Type it as on the tin, base first.');
  if (ratio.length !== pouredL.length) throw new Impossible('Type what was poured of each part, 0 where nothing was.');
  ratio.forEach((r) => positive(r, 'A figure of the ratio'));
  pouredL.forEach((l) => notNegative(l, 'What was poured'));
}

/**
 * The least to add of each part to what was poured so that the ratio holds exactly; within the tolerance nothing is
 * added. Nothing can be taken out of a pot.
 * @param options.ratio by volume, the base first
 * @param options.pouredL of each part, L
 * @param options.toleranceShare how far a part may be from its right volume for the base poured
 * @throws RangeError on an impossible ratio or pour
 * @example
 *   correctOverpour({ ratio: [3, 1], pouredL: [0.75, 0.3], toleranceShare: 0.05 }).addL // → [0.15, 0]
 */
export function correctOverpour(options: {
  ratio: readonly number[];
  pouredL: readonly number[];
  toleranceShare?: number;
}): Overpour {
  const { ratio, pouredL, toleranceShare = RATIO_TOLERANCE } = options;
  const withinTolerance = ratioOff({ ratio, pouredL }) <= notNegative(toleranceShare, 'The tolerance') + SLACK;
  const unitL = Math.max(...pouredL.map((l, i) => l / (ratio[i] as number)));
  const addL = pouredL.map((l, i) => (withinTolerance ? 0 : Math.max(0, unitL * (ratio[i] as number) - l)));
  const totalL = pouredL.reduce((sum, l, i) => sum + l + (addL[i] as number), 0);
  return { addL, totalL, withinTolerance };
}
