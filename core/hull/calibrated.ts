import { notNegative, positive } from '../guard';

/** How well litres put on are known, and one reading of a comb between its teeth, 95 % half-widths. [M] */
const LITRES_SHARE = 0.04;
const COMB_SHARE = 0.12;

/**
 * The area a coat really covered, m²: 1000 · litres on, thinner included / wet film. [P: standard coating arithmetic]
 * @param options.litres mixed paint put on, before thinner, L
 * @param options.wetFilmMicron mean wet film, µm
 * @param options.thinner share of the unthinned mixed paint, 0 where litres were measured thinned
 * @throws RangeError on figures of zero or less
 * @example calibratedArea({ litres: 4, wetFilmMicron: 200, thinner: 0.05 }) // → 21
 */
export function calibratedArea(options: { litres: number; wetFilmMicron: number; thinner?: number }): number {
  return (
    (1000 * positive(options.litres, 'Litres on') * (1 + notNegative(options.thinner ?? 0, 'Thinner'))) /
    positive(options.wetFilmMicron, 'Wet film')
  );
}

/**
 * ± of an area found so: litres and the mean of `readings` combs in quadrature; few readings tell little. [M]
 * @example calibratedShare(5) // → 0.09274
 */
export function calibratedShare(readings: number): number {
  return Math.hypot(LITRES_SHARE, COMB_SHARE / Math.sqrt(Math.max(1, readings)) + 0.03);
}

/**
 * Whether what the paint covered contradicts the estimate: by more than both uncertainties allow.
 * @example paintContradicts({ estimate: { areaM2: 20, share: 0.15 }, painted: { areaM2: 30, share: 0.1 } }) // → true
 */
export function paintContradicts(options: {
  estimate: { areaM2: number; share: number };
  painted: { areaM2: number; share: number };
}): boolean {
  const { estimate, painted } = options;
  return (
    Math.abs(estimate.areaM2 - painted.areaM2) >
    Math.hypot(estimate.areaM2 * estimate.share, painted.areaM2 * painted.share)
  );
}
