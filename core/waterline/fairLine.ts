import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';
import { fitSpline, prepareSpline, splineAt, type SplineFit } from './spline';

/** A mark of the line: where along the hull, and how high. */
export interface LineMark {
  /** Along the line, m, ascending. */
  readonly sM: number;
  readonly heightM: number;
}

export interface FairedLine {
  /** Of the faired line at every mark, strays included, m. */
  readonly heightsM: readonly number[];
  /** Indices of the marks that do not fit the line: they did not pull it. */
  readonly strays: readonly number[];
  /** ∫ (second derivative)² along the line, 1/m: none for a straight one. */
  readonly roughness: number;
  /** σ of the marks about the line, m, robust: that of a mark where it was given. */
  readonly sigmaM: number;
  /** Second derivative at every mark that counts, with its place: what draws the curve between the marks. */
  readonly curve: {
    readonly sM: readonly number[];
    readonly heightsM: readonly number[];
    readonly bends: readonly number[];
  };
}

/** Half the middle of absolute normal deviates. [P: definition of the robust σ by the median absolute deviation] */
const MAD_TO_SIGMA = 1.4826;

/** Fewer marks than this cannot tell which of them is wrong. */
const LEAST_TO_JUDGE = 5;

/** Grossly wrong is so many times further off than a stray: what remains is judged by the line itself. [M] */
const GROSS = 1.3;

/** At most this share of the marks is put aside. */
const MOST_STRAYS = 0.3;

/**
 * A fair line through noisy marks: a natural cubic smoothing spline, its smoothness from the noise of a mark (least
 * expected error, [P: Mallows' Cp]) or, left out, by generalised cross-validation [P: Craven & Wahba 1979]. Marks that
 * lie further off than `strayFactor` robust σ are named and do not pull the line.
 * @param options.noiseM σ of one mark, m; 0 goes through every mark
 * @param options.strayFactor left out: 3.5
 * @throws RangeError without a mark, or on marks out of order, doubled, or of no figure
 * @example
 *   fairLine({ marks: [0, 1, 2, 3, 4, 5].map((sM) => ({ sM, heightM: sM === 3 ? 100 : 0.5 * sM })) }).strays // → [3]
 */
export function fairLine(options: { marks: readonly LineMark[]; noiseM?: number; strayFactor?: number }): FairedLine {
  const { marks, noiseM, strayFactor = 3.5 } = options;
  if (marks.length === 0) throw new Impossible('There is no mark yet. Set off the first one.');
  positive(strayFactor, 'What counts as a stray');
  if (noiseM !== undefined) notNegative(noiseM, 'The noise of a mark');
  const sM = marks.map((m) => m.sM);
  const zM = marks.map((m) => m.heightM);
  prepareSpline(sM, zM);
  let kept = marks.map((_, i) => i);
  const judge = noiseM !== 0 && marks.length >= LEAST_TO_JUDGE;
  // First what is grossly wrong, by a measure that it cannot sway, then by the line that is wanted.
  if (judge) {
    setAside(robustly, GROSS * strayFactor);
    setAside(wanted, strayFactor);
    // What was put aside and lies on the line after all is no stray, and counts.
    const { fit, sigmaM } = fitKept(wanted);
    const curve = curveOf(fit);
    kept = marks.flatMap((m, i) =>
      kept.includes(i) || Math.abs(m.heightM - splineAt(curve, m.sM)) <= strayFactor * sigmaM ? [i] : [],
    );
  }
  const { fit, sigmaM } = fitKept(wanted);
  const curve = curveOf(fit);
  const strays = marks.flatMap((_, i) => (kept.includes(i) ? [] : [i]));
  return { heightsM: sM.map((s) => splineAt(curve, s)), strays, roughness: fit.roughness, sigmaM, curve };

  function setAside(pick: Pick, factor: number): void {
    for (;;) {
      const { fit, sigmaM } = fitKept(pick);
      const worst = worstOf(fit, factor * sigmaM);
      const away = worst.length > 0 ? worst : pick === robustly ? alone(fit, pick, factor) : [];
      if (away.length === 0 || marks.length - kept.length + away.length > MOST_STRAYS * marks.length) return;
      const out = new Set(away.map((k) => kept[k] as number));
      kept = kept.filter((i) => !out.has(i));
    }
  }

  /** Of few marks one that is grossly wrong hides in the noise it makes: it shows where the others agree without it. */
  function alone(fit: SplineFit, pick: Pick, factor: number): number[] {
    const off = offOf(fit);
    const worst = off.indexOf(Math.max(...off));
    const before = kept;
    kept = before.filter((_, k) => k !== worst);
    const { sigmaM } = fitKept(pick);
    kept = before;
    return kept.length > LEAST_TO_JUDGE && (off[worst] as number) > Math.max(1e-12, factor * sigmaM) ? [worst] : [];
  }

  function curveOf(fit: SplineFit) {
    return { sM: kept.map((i) => sM[i] as number), heightsM: fit.heightsM, bends: fit.bends };
  }

  function fitKept(pick: Pick) {
    const points = prepareSpline(
      kept.map((i) => sM[i] as number),
      kept.map((i) => zM[i] as number),
    );
    const fit = fitSpline(points, pick(points, noiseM));
    return { fit, sigmaM: Math.max(noiseM ?? 0, robustSigma(fit), judge ? neighbourSigma(points) : 0) };
  }
}

type Points = ReturnType<typeof prepareSpline>;
type Pick = (points: Points, noiseM: number | undefined) => number;

/** The smoothness wanted: none for marks without noise, by the noise of a mark, or by cross-validation. */
const wanted: Pick = (points, noiseM) => {
  if (points.z.length < 3 || noiseM === 0) return 0;
  if (noiseM !== undefined)
    return leastOver(points, (fit) => sumOfSquares(fit, points) + 2 * noiseM ** 2 * leverage(fit));
  if (isExact(points)) return 0;
  return leastOver(points, (fit) => {
    const free = fit.freedom.reduce((sum, v) => sum + v, 0);
    return (points.z.length * sumOfSquares(fit, points)) / free ** 2;
  });
};

/** The smoothness by the middle of what each mark misses the line of the others by. */
const robustly: Pick = (points) =>
  isExact(points) ? 0 : leastOver(points, (fit) => median(fit.leftOutM.map(Math.abs)));

/** Where the marks lie on one cubic to within rounding there is no noise to smooth away. */
function isExact({ s, z }: Points): boolean {
  if (s.length < 6) return false;
  const span = Math.max(...z) - Math.min(...z);
  const misses = s.slice(4).map((_, i) => {
    const own = [0, 1, 2, 3, 4].map((k) => i + k);
    // Divided difference of fourth order, in terms of the height of the middle mark.
    const weights = own.map(
      (k) => 1 / own.reduce((product, j) => (j === k ? product : product * ((s[k] as number) - (s[j] as number))), 1),
    );
    return Math.abs(
      own.reduce((sum, k, j) => sum + (weights[j] as number) * (z[k] as number), 0) / (weights[2] as number),
    );
  });
  return median(misses) <= 1e-9 * span;
}

const sumOfSquares = (fit: SplineFit, { z }: Points) =>
  fit.heightsM.reduce((sum, g, i) => sum + ((z[i] as number) - g) ** 2, 0);

const leverage = (fit: SplineFit) => fit.freedom.reduce((sum, v) => sum + 1 - v, 0);

/** What each mark misses the curve by, allowing for the freedom that the curve took from it. */
const offOf = (fit: SplineFit): number[] =>
  // Residual by √(1 − leverage), from the figure of the mark left out: residual = leftOut · freedom.
  fit.leftOutM.map((d, i) => Math.abs(d) * Math.sqrt(Math.max(0, fit.freedom[i] as number)));

const robustSigma = (fit: SplineFit): number => MAD_TO_SIGMA * median(offOf(fit));

/**
 * σ of the marks by what each misses the straight line of its two neighbours by: no smoothness has to be chosen for it.
 * [P: Gasser, Sroka & Jennen-Steinmetz 1986, with the median in place of the mean]
 */
function neighbourSigma({ s, z }: Points): number {
  const misses = s.slice(2).map((s2, i) => {
    const [s0, s1] = [s[i] as number, s[i + 1] as number];
    const share = (s1 - s0) / (s2 - s0);
    const off = (1 - share) * (z[i] as number) + share * (z[i + 2] as number) - (z[i + 1] as number);
    return Math.abs(off) / Math.sqrt((1 - share) ** 2 + share ** 2 + 1);
  });
  return MAD_TO_SIGMA * median(misses);
}

/** Marks too far off, of neighbours only the furthest: the others may only be pulled along by it. */
function worstOf(fit: SplineFit, limit: number): number[] {
  const off = offOf(fit);
  const REACH = 3;
  return off.flatMap((v, i) => {
    if (!(v > limit) || v < 1e-12) return [];
    const near = off.slice(Math.max(0, i - REACH), i + REACH + 1);
    return near.every((w) => w <= v) ? [i] : [];
  });
}

/** Roughest that is tried, in decades of λ by the cube of the spacing: no more than rounding off the marks. */
const ROUGHEST = -9;

/** The λ that makes a score least: looked for by decades and then between them, the smoother one where two are alike. */
function leastOver(points: Points, score: (fit: SplineFit) => number): number {
  const { s } = points;
  const step = ((s[s.length - 1] as number) - (s[0] as number)) / (s.length - 1);
  const lambdaOf = (decade: number) => step ** 3 * 10 ** decade;
  const tried = new Map<number, number>();
  const of = (decade: number) => {
    let value = tried.get(decade);
    if (value === undefined) tried.set(decade, (value = score(fitSpline(points, lambdaOf(decade)))));
    return value;
  };
  // What makes so many marks a straight line grows with the fourth power of their number.
  let best = Math.ceil(4 * Math.log10(s.length)) + 4;
  for (let decade = best; decade >= ROUGHEST; decade -= 0.5) if (of(decade) < of(best) * (1 - 1e-9)) best = decade;
  for (let reach = 0.25; reach > 0.02; reach /= 2)
    for (const decade of [best + reach, best - reach]) if (of(decade) < of(best)) best = decade;
  return lambdaOf(best);
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const mid = sorted.length >> 1;
  return sorted.length % 2 === 1 ? (sorted[mid] as number) : ((sorted[mid - 1] ?? 0) + (sorted[mid] ?? 0)) / 2;
}
