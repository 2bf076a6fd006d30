import { notNegative, positive, shareAboveZero, shareBelowOne } from '../guard';

/**
 * Theoretical spreading rate, m² of surface that one litre of mixed paint covers at a dry film of
 * `dftMicron` (µm): 1000 · solids / DFT. [P: standard coating arithmetic: 1 L spread 1 µm thick covers 1000 m²]
 * @param options.solids volume solids, share above 0 to 1
 * @throws RangeError on impossible input
 * @example spreadingRateM2PerL({ solids: 0.5, dftMicron: 100 }) // → 5
 */
export function spreadingRateM2PerL({ solids, dftMicron }: { solids: number; dftMicron: number }): number {
  return (1000 * shareAboveZero(solids, 'Volume solids')) / positive(dftMicron, 'Dry film');
}

/**
 * Wet film, µm, that dries to `dftMicron`: DFT · (1 + thinner) / solids. [P: standard coating arithmetic]
 * @param options.thinner thinner as a share of the unthinned mixed paint, 0 or more
 * @throws RangeError on impossible input
 * @example wetFilmMicron({ dftMicron: 120, solids: 0.52, thinner: 0 }) // → 231
 */
export function wetFilmMicron({
  dftMicron,
  solids,
  thinner = 0,
}: {
  dftMicron: number;
  solids: number;
  thinner?: number;
}): number {
  return (
    (positive(dftMicron, 'Dry film') * (1 + notNegative(thinner, 'Thinner'))) / shareAboveZero(solids, 'Volume solids')
  );
}

/**
 * Dry film, µm, that a wet film dries to; the inverse of `wetFilmMicron`. [P: standard coating arithmetic]
 * @example dryFilmMicron({ wetMicron: 200, solids: 0.5 }) // → 100
 */
export function dryFilmMicron({
  wetMicron,
  solids,
  thinner = 0,
}: {
  wetMicron: number;
  solids: number;
  thinner?: number;
}): number {
  return (
    (positive(wetMicron, 'Wet film') * shareAboveZero(solids, 'Volume solids')) / (1 + notNegative(thinner, 'Thinner'))
  );
}

/**
 * Litres of unthinned mixed paint for an area: A · (DFT/1000 + dead volume) / solids / (1 − loss).
 * [P: standard coating arithmetic]
 * @param options.loss share of the paint that does not end up on the surface, 0 to below 1
 * @param options.deadVolumeLPerM2 dry litres per m² that fill a blast profile before film counts
 * @throws RangeError on impossible input
 * @example litresNeeded({ areaM2: 10, dftMicron: 100, solids: 0.5, loss: 0.1 }) // → 2.222
 */
export function litresNeeded(options: {
  areaM2: number;
  dftMicron: number;
  solids: number;
  loss?: number;
  deadVolumeLPerM2?: number;
}): number {
  const { areaM2, dftMicron, solids, loss = 0, deadVolumeLPerM2 = 0 } = options;
  notNegative(areaM2, 'Area');
  const dryLPerM2 = positive(dftMicron, 'Dry film') / 1000 + notNegative(deadVolumeLPerM2, 'Dead volume');
  return (areaM2 * dryLPerM2) / shareAboveZero(solids, 'Volume solids') / (1 - shareBelowOne(loss, 'Loss'));
}

/** Usual share of paint lost on the way to the surface. Brush 5 %, roller 10 %, airless 25 %, conventional spray 40 %. [CP] */
export const USUAL_LOSS = { brush: 0.05, roller: 0.1, spray: 0.25, conventional: 0.4 } as const;

/** Usual rate of work, m² an hour for one painter. Middle of the ranges of the trade. [M] */
export const USUAL_RATE_M2_PER_H = { brush: 4, roller: 10, spray: 60, conventional: 25 } as const;

/**
 * Coats that a film takes when one builds only so much: whole ones, the last as thick as the others. [P: standard coating arithmetic]
 * @throws RangeError on films of zero or less
 * @example coatsForFilm({ totalMicron: 300, perCoatMicron: 75 }) // → 4
 */
export function coatsForFilm({ totalMicron, perCoatMicron }: { totalMicron: number; perCoatMicron: number }): number {
  return Math.ceil(positive(totalMicron, 'The film wanted') / positive(perCoatMicron, 'The film of a coat') - 1e-9);
}
