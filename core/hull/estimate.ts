import { positive } from '../guard';
import type { HullForm } from './area';

/** Dimensions that may be worked out from the length until someone measures them. */
export const ESTIMATED_DIMENSIONS = ['lwlM', 'freeboardM'] as const;
/** Those that nothing can be worked out without. */
export const MAIN_DIMENSIONS = ['loaM', 'beamM', 'draftM'] as const;
export type EstimatedDimension = (typeof ESTIMATED_DIMENSIONS | typeof MAIN_DIMENSIONS)[number];

/** Waterline length as a share of the length overall, by form: overhangs are longest on old long keels. [M] */
const WATERLINE_SHARE: Record<HullForm, number> = { full: 0.9, longKeel: 0.8, finKeel: 0.86 };

/** Mean freeboard, m: so much, and so much more for each metre of length. [M] */
const FREEBOARD = { atNoughtM: 0.35, perMetre: 0.07 };

/** ± of each estimate, as a share, 95 % half-width. [M] */
export const ESTIMATE_SHARE: Record<EstimatedDimension, number> = {
  lwlM: 0.1,
  freeboardM: 0.25,
  loaM: 0.4,
  beamM: 0.3,
  draftM: 0.4,
};

/** A boat of which only the name is known stands here as one of a middling size, and says so. [M] */
export const STAND_IN_DIMENSIONS = { loaM: 9, beamM: 3, draftM: 1.4 } as const;

/**
 * What a boat's waterline and freeboard most likely are, m, until they are measured: good for a first shopping list, not
 * for cutting a line.
 * @throws RangeError on a length of zero or less
 * @example estimateDimensions({ loaM: 10, form: 'finKeel' }).lwlM // → 8.6
 */
export function estimateDimensions(options: {
  loaM: number;
  form: HullForm;
}): Record<(typeof ESTIMATED_DIMENSIONS)[number], number> {
  const loaM = positive(options.loaM, 'Length overall');
  const round = (m: number) => Math.round(m * 100) / 100;
  return {
    lwlM: round(loaM * WATERLINE_SHARE[options.form]),
    freeboardM: round(FREEBOARD.atNoughtM + FREEBOARD.perMetre * loaM),
  };
}
