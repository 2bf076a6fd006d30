import { Impossible } from '../impossible';
import { ratioOff } from '../mix/overpour';
import { partShares } from '../mix/splitBatch';
import { RATIO_TOLERANCE } from '../mix/strokes';
import type { MixedBody } from '../model/log';
import type { SheetBody } from '../model/sheet';

/**
 * A sheet as it is mixed for a named use: with the ratio that it gives for that, else its own.
 * @param use left out or null: no use in particular
 * @throws RangeError when the sheet gives no such use
 * @example forUse(sheet, null).parts[0].ratio // → 3
 */
export function forUse<S extends Pick<SheetBody, 'name' | 'parts' | 'useRatios'>>(sheet: S, use?: string | null): S {
  if (!use) return sheet;
  const found = sheet.useRatios?.find((u) => u.use === use);
  if (!found || found.ratio.length !== sheet.parts.length)
    throw new Impossible(`${sheet.name} gives no ratio for “${use}”. Choose one of its own.`);
  return { ...sheet, parts: sheet.parts.map((p, i) => ({ ...p, ratio: found.ratio[i] as number })) };
}

/** How a batch was really mixed, against the ratio it was to have. */
export interface BatchRatio {
  /** By volume, the base as in the ratio; empty where the sheet cannot tell its parts apart by volume. */
  readonly poured: readonly number[];
  readonly wanted: readonly number[];
  /** How far the worst part is from its right volume for the base, share. */
  readonly off: number;
  readonly toleranceShare: number;
  readonly withinTolerance: boolean;
}

/**
 * The ratio that a batch really has. One that is kept to the last drop differs in the rounding of doubles only.
 * @throws RangeError when the sheet has no such use
 * @example
 *   batchRatio({ sheet, batch: { parts: [{ volumeL: 3 }, { volumeL: 1.2 }] } }).withinTolerance // → false
 */
export function batchRatio({
  sheet,
  batch,
}: {
  sheet: Pick<SheetBody, 'name' | 'parts' | 'ratioBasis' | 'useRatios' | 'ratioTolerance'>;
  batch: { readonly parts: readonly Pick<MixedBody['parts'][number], 'volumeL'>[] } & Pick<MixedBody, 'use'>;
}): BatchRatio {
  const toleranceShare = sheet.ratioTolerance ?? RATIO_TOLERANCE;
  const { parts } = forUse(sheet, batch.use);
  const shares = parts.length === batch.parts.length ? partShares({ parts, basis: sheet.ratioBasis }) : null;
  if (!shares) return { poured: [], wanted: [], off: 0, toleranceShare, withinTolerance: true };
  const first = parts[0]?.ratio ?? 1;
  const wanted = shares.map((s) => (s / (shares[0] as number)) * first);
  const pouredL = batch.parts.map((p) => p.volumeL);
  const off = ratioOff({ ratio: wanted, pouredL });
  return {
    poured: pouredL.map((l) => ((pouredL[0] as number) > 0 ? (l / (pouredL[0] as number)) * first : 0)),
    wanted,
    off,
    toleranceShare,
    withinTolerance: off <= toleranceShare + 1e-9,
  };
}

/**
 * What is wrong with a batch as it was poured: outside the tolerance of its ratio it wants a reason in writing. Null
 * where nothing is.
 * @example
 *   ratioProblem({ sheet, batch: { parts: [{ volumeL: 3 }, { volumeL: 1 }] } }) // → null
 */
export function ratioProblem(options: {
  sheet: Parameters<typeof batchRatio>[0]['sheet'];
  batch: Parameters<typeof batchRatio>[0]['batch'] & Pick<MixedBody, 'ratioReason'>;
}): string | null {
  if (options.batch.ratioReason) return null;
  const { withinTolerance, off, toleranceShare } = batchRatio(options);
  if (withinTolerance) return null;
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  return `The mix is ${Number.isFinite(off) ? percent(off) : 'far'} off its ratio; ${percent(toleranceShare)} is its tolerance. Mend it, throw it away, or write why it is used all the same.`;
}
