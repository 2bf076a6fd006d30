import { positive } from '../guard';
import { Impossible } from '../impossible';

/** Usual tolerance of a mixing ratio, share. [CP] */
export const RATIO_TOLERANCE = 0.05;

/** Mixes this far off the wanted one are not offered while a nearer one is to be had. */
const MIX_WITHIN = 0.25;
/** Nobody pumps more often than that for one pot. */
const STROKES_MOST = 2000;

export interface Strokes {
  /** Whole strokes of each pump, in the order of the ratio. */
  readonly strokes: readonly number[];
  readonly volumesL: readonly number[];
  /** The ratio that they really give, its first figure as it was asked for. */
  readonly ratio: readonly number[];
  readonly withinTolerance: boolean;
}

interface Found {
  readonly strokes: readonly number[];
  /** How far the worst part is from its right volume for the base poured, share. */
  readonly worst: number;
  /** How far the mix is from the wanted one, mL. */
  readonly offMl: number;
}

/**
 * Whole strokes of one pump a part. Of those whose every part is within the tolerance of its right volume for the base
 * poured, the total nearest to the wanted mix; where none within a quarter of it keeps the tolerance, the least wrong one.
 * @param options.pumps one a part, calibrated, mL a stroke
 * @param options.ratio by volume, the base first
 * @throws RangeError on an impossible pump, ratio or amount, and on one that would take thousands of strokes
 * @example strokes({ pumps: [{ mlPerStroke: 30 }, { mlPerStroke: 10 }], ratio: [3, 1], mixedL: 0.4 }).strokes // → [10, 10]
 */
export function strokes(options: {
  pumps: readonly { readonly mlPerStroke: number }[];
  ratio: readonly number[];
  mixedL: number;
  toleranceShare?: number;
}): Strokes {
  const { ratio, toleranceShare = RATIO_TOLERANCE } = options;
  const pumps = options.pumps.map((p) => positive(p.mlPerStroke, 'What a pump gives a stroke'));
  const wantedMl = positive(options.mixedL, 'The mix') * 1000;
  if (ratio.length === 0 || pumps.length !== ratio.length)
    throw new Impossible('There must be one pump a part. Type what each gives a stroke.');
  const shares = ratio.map((r) => positive(r, 'A figure of the ratio') / (ratio[0] as number));
  const baseMost = (wantedMl * (1 + MIX_WITHIN)) / shares.reduce((a, b) => a + b, 0) / (pumps[0] as number);
  if (baseMost > STROKES_MOST)
    throw new Impossible(`That would take ${Math.round(baseMost)} strokes of the first pump. Mix less, or measure it.`);
  const to = { pumps, shares, wantedMl };
  const inTolerance = bestOf(
    withinTolerance({ ...to, toleranceShare, baseMost }).filter((f) => isNear(f, wantedMl)),
    (f) => [f.offMl, f.worst],
  );
  const chosen = inTolerance ?? leastWrong(to);
  const volumes = chosen.strokes.map((n, i) => n * (pumps[i] as number));
  return {
    strokes: chosen.strokes,
    volumesL: volumes.map((ml) => ml / 1000),
    ratio: volumes.map((ml) => ((ratio[0] as number) * ml) / (volumes[0] as number)),
    withinTolerance: inTolerance !== null,
  };
}

interface Wanted {
  readonly pumps: readonly number[];
  /** Of each part to the base, by volume. */
  readonly shares: readonly number[];
  readonly wantedMl: number;
}

/** All counts whose every part is within the tolerance, for each count of the base. */
function withinTolerance(options: Wanted & { toleranceShare: number; baseMost: number }): Found[] {
  const { pumps, shares, toleranceShare, baseMost } = options;
  return Array.from({ length: Math.max(1, Math.ceil(baseMost)) }, (_, i) => i + 1).flatMap((base) => {
    const choices = pumps.slice(1).map((ml, i) => {
      const right = (base * (pumps[0] as number) * (shares[i + 1] as number)) / ml;
      const from = Math.ceil(right * (1 - toleranceShare) - 1e-9);
      const to = Math.floor(right * (1 + toleranceShare) + 1e-9);
      return range(Math.max(1, from), to);
    });
    return combined([[base], ...choices]).map((counts) => judge(counts, options));
  });
}

/**
 * The least wrong of all counts within a quarter of the wanted mix, else the nearest to it. Only for so few strokes that
 * none keeps the tolerance: then there are not many to try.
 */
function leastWrong(wanted: Wanted): Found {
  const { pumps, wantedMl } = wanted;
  const mostMl = wantedMl * (1 + MIX_WITHIN);
  const all = combined(pumps.map((ml) => range(1, Math.max(1, Math.floor(mostMl / ml))))).map((c) => judge(c, wanted));
  const near = all.filter((f) => isNear(f, wantedMl));
  return (bestOf(near, (f) => [f.worst, f.offMl]) ?? bestOf(all, (f) => [f.offMl, f.worst])) as Found;
}

const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);

const combined = (choices: readonly (readonly number[])[]): number[][] =>
  choices.reduce<number[][]>((lists, list) => lists.flatMap((l) => list.map((n) => [...l, n])), [[]]);

const isNear = (found: Found, wantedMl: number): boolean => found.offMl <= MIX_WITHIN * wantedMl + 1e-9;

/** The one that comes first by two figures, the second where the first is the same; null of none. */
function bestOf(list: readonly Found[], by: (found: Found) => readonly [number, number]): Found | null {
  return list.reduce<Found | null>((best, found) => {
    if (!best) return found;
    const [a, b] = by(found);
    const [p, q] = by(best);
    return a < p - 1e-9 || (Math.abs(a - p) <= 1e-9 && b < q - 1e-12) ? found : best;
  }, null);
}

function judge(counts: readonly number[], { pumps, shares, wantedMl }: Wanted): Found {
  const volumes = counts.map((n, i) => n * (pumps[i] as number));
  const base = volumes[0] as number;
  const worst = Math.max(0, ...volumes.map((ml, i) => Math.abs(ml / (base * (shares[i] as number)) - 1)));
  return { strokes: counts, worst, offMl: Math.abs(volumes.reduce((a, b) => a + b, 0) - wantedMl) };
}
