import { notNegative } from '../guard';

/** Where a painted line stands against the water that is to come. */
export interface DryAt {
  readonly xM: number;
  /** Height of the line over the water, m: below zero the topcoat is in it. */
  readonly overWaterM: number;
}

export interface HowHigh {
  /** The station with the least of it. */
  readonly least: DryAt | null;
  /** By how much to raise the whole line so that every station has the margin, m; none: 0. */
  readonly raiseM: number;
  /** Where the water really lies below the line, least and most, m: the wear strip follows it, not the painted edge. */
  readonly wear: { readonly fromM: number; readonly toM: number } | null;
}

/** Better antifouling a little too high than topcoat in the water. [CP]; how much a little is [M] */
export const DRY_MARGIN_M = 0.05;

/**
 * How high to put a line so that the topcoat above it stays dry with the weights to come aboard.
 * @param options.lineM height of the line over the drawn waterline at each station, m
 * @param options.waterM height of the water there, m
 * @throws RangeError on a margin below zero
 * @example
 *   howHigh({ stations: [{ xM: 0, lineM: 0.02, waterM: 0.01 }], marginM: 0.05 }).raiseM.toFixed(2) // → '0.04'
 */
export function howHigh(options: {
  stations: readonly { readonly xM: number; readonly lineM: number; readonly waterM: number }[];
  marginM?: number;
}): HowHigh {
  const marginM = notNegative(options.marginM ?? DRY_MARGIN_M, 'The margin');
  const over = options.stations.map((s): DryAt => ({ xM: s.xM, overWaterM: s.lineM - s.waterM }));
  const [first] = over;
  if (!first) return { least: null, raiseM: 0, wear: null };
  const least = over.reduce((a, b) => (b.overWaterM < a.overWaterM ? b : a), first);
  const most = Math.max(...over.map((o) => o.overWaterM));
  return {
    least,
    raiseM: Math.max(0, marginM - least.overWaterM),
    wear: { fromM: least.overWaterM, toM: most },
  };
}
