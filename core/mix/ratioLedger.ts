import { instant, notNegative, positive } from '../guard';
import { Impossible } from '../impossible';

/**
 * What should be left of each part in its tins for what is left of the first, and what of it nothing explains.
 * @param options.ratio by volume, the base first
 * @param options.leftL of each part, L
 * @param options.kitL what the kit held of each part; left out: it held them in ratio
 * @returns unexplained: above 0, more is gone than the ratio took; below, less
 * @throws RangeError on impossible input
 * @example
 *   ratioLeft({ ratio: [3, 1], leftL: [1.5, 0.38] }) // → { expectedL: [1.5, 0.5], unexplainedL: [0, 0.12] }
 */
export function ratioLeft(options: { ratio: readonly number[]; leftL: readonly number[]; kitL?: readonly number[] }): {
  readonly expectedL: readonly number[];
  readonly unexplainedL: readonly number[];
} {
  const { ratio, leftL, kitL } = options;
  const base = checkedParts(ratio, [leftL, ...(kitL ? [kitL] : [])]);
  const baseL = leftL[0] as number;
  const expectedL = ratio.map((r, i) =>
    kitL ? (kitL[i] as number) - (((kitL[0] as number) - baseL) * r) / base : (baseL * r) / base,
  );
  return { expectedL, unexplainedL: expectedL.map((l, i) => l - (leftL[i] as number)) };
}

/** A list of litres must name every part of the ratio. @returns the figure of the base */
function checkedParts(ratio: readonly number[], lists: readonly (readonly number[])[]): number {
  const [base] = ratio;
  if (base === undefined) throw new Impossible('The ratio has no parts. Type it as on the tin, base first.');
  ratio.forEach((r) => positive(r, 'A figure of the ratio'));
  for (const list of lists) {
    if (list.length !== ratio.length)
      throw new Impossible(`Each amount must name all ${ratio.length} parts, in their order.`);
    list.forEach((l) => notNegative(l, 'An amount of a part'));
  }
  return base;
}

/** What came onto the shelf, or was found there, of each part, L. */
export interface LedgerKit {
  readonly at: number;
  readonly partsL: readonly number[];
}

export interface LedgerBatch extends LedgerKit {
  readonly id: string;
}

/** What the tins say is left of each part, L. */
export interface LedgerWeighing {
  readonly at: number;
  readonly leftL: readonly number[];
}

export interface LedgerCheck extends LedgerWeighing {
  /** By the kits less the batches so far. */
  readonly expectedL: readonly number[];
  /** Expected less left: above 0, more is gone than the batches took. */
  readonly unexplainedL: readonly number[];
  readonly withinTolerance: boolean;
  /** Where it does not hold: the batches since the last check that did, in order. */
  readonly suspects: readonly string[];
}

/** Less than this of a part cannot be told by looking into a tin or onto a scale, L. [M] */
export const LEDGER_LEAST_L = 0.01;

/** Rounding of doubles must not put a check outside its tolerance. */
const SLACK_L = 1e-9;

/**
 * The ratio ledger of a product: what the batches say was used of each part against what the tins say is left. A check
 * holds when, of every part, what became unexplained since the last check that held is at most the larger of 10 mL and
 * the tolerance of what the batches since then took of it. It cannot tell pouring from spilling.
 * @param options.ratio by volume, the base first; tells how many parts there are
 * @throws RangeError on impossible input
 * @example
 *   ratioLedger({
 *     ratio: [3, 1],
 *     kits: [{ at: 0, partsL: [3, 1] }],
 *     batches: [{ id: 'a', at: 1, partsL: [1.5, 0.5] }],
 *     weighings: [{ at: 2, leftL: [1.5, 0.38] }],
 *     toleranceShare: 0.05,
 *   }).checks.map((c) => c.suspects) // → [['a']]
 */
export function ratioLedger(options: {
  ratio: readonly number[];
  kits: readonly LedgerKit[];
  batches: readonly LedgerBatch[];
  weighings: readonly LedgerWeighing[];
  toleranceShare: number;
}): { readonly checks: readonly LedgerCheck[] } {
  const { ratio } = options;
  const tolerance = notNegative(options.toleranceShare, 'The tolerance');
  const kits = byTime(options.kits);
  const batches = byTime(options.batches);
  const weighings = byTime(options.weighings);
  checkedParts(ratio, [
    ...kits.map((k) => k.partsL),
    ...batches.map((b) => b.partsL),
    ...weighings.map((w) => w.leftL),
  ]);
  const none: readonly number[] = ratio.map(() => 0);
  let expectedL = none;
  let held = { batches: 0, takenL: none, unexplainedL: none };
  let takenL = none;
  let [kit, batch] = [0, 0];
  const checks = weighings.map(({ at, leftL }): LedgerCheck => {
    for (; kit < kits.length && (kits[kit] as LedgerKit).at <= at; kit += 1)
      expectedL = plus(expectedL, (kits[kit] as LedgerKit).partsL);
    for (; batch < batches.length && (batches[batch] as LedgerBatch).at <= at; batch += 1) {
      const { partsL } = batches[batch] as LedgerBatch;
      expectedL = plus(expectedL, partsL, -1);
      takenL = plus(takenL, partsL);
    }
    const unexplainedL = plus(expectedL, leftL, -1);
    const since = { drift: plus(unexplainedL, held.unexplainedL, -1), takenL: plus(takenL, held.takenL, -1) };
    const withinTolerance = since.drift.every(
      (l, i) => Math.abs(l) <= allowedL(since.takenL[i] as number, tolerance) + SLACK_L,
    );
    const suspects = withinTolerance ? [] : batches.slice(held.batches, batch).map((b) => b.id);
    if (withinTolerance) held = { batches: batch, takenL, unexplainedL };
    return { at, leftL, expectedL, unexplainedL, withinTolerance, suspects };
  });
  return { checks };
}

/** What may be unexplained of a part of which so much was taken. */
const allowedL = (takenL: number, toleranceShare: number) => Math.max(LEDGER_LEAST_L, toleranceShare * takenL);

/** Between what the unexplained of each part must lie at a check, L. */
export interface LedgerBounds {
  readonly lowL: readonly number[];
  readonly highL: readonly number[];
}

/**
 * The bounds that each check was held to: about what was unexplained at the last one that held, as wide as the batches
 * since then allow.
 * @example
 *   ledgerBounds({
 *     checks: [
 *       { at: 2, expectedL: [1.5], leftL: [1.5], unexplainedL: [0], withinTolerance: true, suspects: [] },
 *     ],
 *     batches: [{ id: 'a', at: 1, partsL: [1] }],
 *     toleranceShare: 0.05,
 *   }) // → [{ lowL: [-0.05], highL: [0.05] }]
 */
export function ledgerBounds(options: {
  checks: readonly LedgerCheck[];
  batches: readonly LedgerBatch[];
  toleranceShare: number;
}): LedgerBounds[] {
  let held = { at: -Infinity, unexplainedL: options.checks[0]?.unexplainedL.map(() => 0) ?? [] };
  return options.checks.map((check) => {
    const since = options.batches.filter((b) => b.at > held.at && b.at <= check.at);
    const widths = held.unexplainedL.map((_, i) =>
      allowedL(
        since.reduce((sum, b) => sum + (b.partsL[i] as number), 0),
        options.toleranceShare,
      ),
    );
    const bounds = { lowL: plus(held.unexplainedL, widths, -1), highL: plus(held.unexplainedL, widths) };
    if (check.withinTolerance) held = { at: check.at, unexplainedL: [...check.unexplainedL] };
    return bounds;
  });
}

const byTime = <T extends { readonly at: number }>(list: readonly T[]): T[] => {
  list.forEach((e) => instant(e.at, 'The time of an entry'));
  return [...list].sort((a, b) => a.at - b.at);
};

const plus = (a: readonly number[], b: readonly number[], times = 1): number[] =>
  a.map((v, i) => v + times * (b[i] as number));
