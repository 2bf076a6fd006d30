import { finite, notNegative } from '../guard';
import { Impossible } from '../impossible';

/** A natural cubic smoothing spline through points, made ready so that any smoothness is quick. */
export interface SplineFit {
  /** Of the curve at each point, m. */
  readonly heightsM: readonly number[];
  /** Second derivative at each point, 1/m; none at both ends. */
  readonly bends: readonly number[];
  /** Residual of each point by (1 − leverage): how far it lies from the curve through the others, m. */
  readonly leftOutM: readonly number[];
  /** 1 − leverage of each point. */
  readonly freedom: readonly number[];
  /** ∫ (second derivative)² along the line, 1/m. */
  readonly roughness: number;
}

/** Symmetric band of five as three rows: the diagonal and the two above it. */
interface Band {
  readonly d: Float64Array;
  readonly e: Float64Array;
  readonly f: Float64Array;
}

/** What does not depend on the smoothness: the two bands of the penalised equations and the second differences. */
interface Prepared {
  readonly s: readonly number[];
  readonly z: readonly number[];
  readonly h: Float64Array;
  readonly bend: Band;
  readonly cross: Band;
  readonly second: Float64Array;
}

/**
 * Points made ready for `fitSpline`: ascending, none doubled.
 * @throws RangeError naming the point that is out of order, doubled or no number
 */
export function prepareSpline(sM: readonly number[], heightsM: readonly number[]): Prepared {
  sM.forEach((s, i) => {
    finite(s, `The place of mark ${i + 1}`);
    finite(heightsM[i] as number, `The height of mark ${i + 1}`);
    const before = sM[i - 1];
    if (before !== undefined && s === before)
      throw new Impossible(`Marks ${i} and ${i + 1} are at the same place. Keep one of them.`);
    if (before !== undefined && s < before)
      throw new Impossible(`Mark ${i + 1} comes before mark ${i}. Put them in order.`);
  });
  const n = sM.length;
  const m = Math.max(0, n - 2);
  const h = Float64Array.from({ length: Math.max(0, n - 1) }, (_, i) => (sM[i + 1] as number) - (sM[i] as number));
  const band = (): Band => ({ d: new Float64Array(m), e: new Float64Array(m), f: new Float64Array(m) });
  const bend = band();
  const cross = band();
  const second = new Float64Array(m);
  for (let k = 0; k < m; k += 1) {
    const [a, b] = [h[k] as number, h[k + 1] as number];
    const c = h[k + 2];
    second[k] =
      ((heightsM[k + 2] as number) - (heightsM[k + 1] as number)) / b -
      ((heightsM[k + 1] as number) - (heightsM[k] as number)) / a;
    bend.d[k] = (a + b) / 3;
    const middle = -1 / a - 1 / b;
    cross.d[k] = 1 / (a * a) + middle * middle + 1 / (b * b);
    if (c !== undefined) {
      bend.e[k] = b / 6;
      cross.e[k] = middle / b + (-1 / b - 1 / c) / b;
      if (k + 2 < m) cross.f[k] = 1 / (b * c);
    }
  }
  return { s: sM, z: heightsM, h, bend, cross, second };
}

/**
 * The curve g that makes Σ (height − g)² + λ ∫ g″² least: λ = 0 goes through every point, a great λ is the straight line
 * of least squares. Work grows with the number of points. [P: Reinsch 1967; Hutchinson & de Hoog 1985 for the leverages]
 * @param lambda m³
 */
export function fitSpline(points: Prepared, lambda: number): SplineFit {
  notNegative(lambda, 'The smoothness');
  const { z, h, bend, cross, second } = points;
  const n = z.length;
  const m = second.length;
  // B = R + λ QᵀQ = L D Lᵀ, unit lower L with two bands.
  const D = new Float64Array(m);
  const L1 = new Float64Array(m);
  const L2 = new Float64Array(m);
  for (let k = 0; k < m; k += 1) {
    const d1 = k > 0 ? (L1[k - 1] as number) : 0;
    const d2 = k > 1 ? (L2[k - 2] as number) : 0;
    D[k] = at(bend.d, k) + lambda * at(cross.d, k) - d1 * d1 * at(D, k - 1) - d2 * d2 * at(D, k - 2);
    L1[k] = (at(bend.e, k) + lambda * at(cross.e, k) - at(L2, k - 1) * at(L1, k - 1) * at(D, k - 1)) / at(D, k);
    L2[k] = (lambda * at(cross.f, k)) / at(D, k);
  }
  const bends = new Float64Array(n);
  const g = bends.subarray(1, n - 1);
  for (let k = 0; k < m; k += 1) g[k] = at(second, k) - at(L1, k - 1) * at(g, k - 1) - at(L2, k - 2) * at(g, k - 2);
  for (let k = 0; k < m; k += 1) g[k] = at(g, k) / at(D, k);
  for (let k = m - 1; k >= 0; k -= 1) g[k] = at(g, k) - at(L1, k) * at(g, k + 1) - at(L2, k) * at(g, k + 2);
  const inverse = centralInverse(D, L1, L2);
  const heightsM = new Array<number>(n);
  const leftOutM = new Array<number>(n);
  const freedom = new Array<number>(n);
  let roughness = 0;
  for (let i = 0; i < n; i += 1) {
    // Row i of Q touches the bends at i−1, i and i+1.
    const q0 = i > 1 ? 1 / at(h, i - 1) : 0;
    const q1 = i > 0 && i < n - 1 ? -1 / at(h, i - 1) - 1 / at(h, i) : 0;
    const q2 = i < n - 2 ? 1 / at(h, i) : 0;
    const pull = q0 * at(g, i - 2) + q1 * at(g, i - 1) + q2 * at(g, i);
    const lever =
      q0 * q0 * at(inverse.d, i - 2) +
      q1 * q1 * at(inverse.d, i - 1) +
      q2 * q2 * at(inverse.d, i) +
      2 * (q0 * q1 * at(inverse.e, i - 2) + q1 * q2 * at(inverse.e, i - 1) + q0 * q2 * at(inverse.f, i - 2));
    heightsM[i] = (z[i] as number) - lambda * pull;
    freedom[i] = lambda * lever;
    leftOutM[i] = lever > 0 ? pull / lever : 0;
    if (i > 0) {
      const [a, b] = [at(bends, i - 1), at(bends, i)];
      roughness += (at(h, i - 1) * (a * a + a * b + b * b)) / 3;
    }
  }
  return { heightsM, bends: [...bends], leftOutM, freedom, roughness };
}

/** The diagonal of B⁻¹ and the two beside it, out of its factors. */
function centralInverse(D: Float64Array, L1: Float64Array, L2: Float64Array): Band {
  const m = D.length;
  const [d, e, f] = [new Float64Array(m), new Float64Array(m), new Float64Array(m)];
  for (let k = m - 1; k >= 0; k -= 1) {
    f[k] = k + 2 < m ? -at(L1, k) * at(e, k + 1) - at(L2, k) * at(d, k + 2) : 0;
    e[k] = k + 1 < m ? -at(L1, k) * at(d, k + 1) - at(L2, k) * at(e, k + 1) : 0;
    d[k] = 1 / at(D, k) - at(L1, k) * at(e, k) - at(L2, k) * at(f, k);
  }
  return { d, e, f };
}

const at = (row: Float64Array, i: number): number => row[i] ?? 0;

/**
 * Height of a fitted curve at a place; beyond its ends it goes on straight.
 * @example splineAt({ sM: [0, 2], heightsM: [1, 2], bends: [0, 0] }, 3) // → 2.5
 */
export function splineAt(
  curve: { readonly sM: readonly number[] } & Pick<SplineFit, 'heightsM' | 'bends'>,
  s: number,
): number {
  const { sM, heightsM, bends } = curve;
  const last = sM.length - 1;
  if (last < 1) return heightsM[0] as number;
  let i = 0;
  let high = last;
  while (high - i > 1) {
    const mid = (i + high) >> 1;
    if ((sM[mid] as number) <= s) i = mid;
    else high = mid;
  }
  const [s0, s1] = [sM[i] as number, sM[i + 1] as number];
  const [y0, y1] = [heightsM[i] as number, heightsM[i + 1] as number];
  const [b0, b1] = [bends[i] as number, bends[i + 1] as number];
  const h = s1 - s0;
  if (s < s0) return y0 + (s - s0) * ((y1 - y0) / h - (h * (2 * b0 + b1)) / 6);
  if (s > s1) return y1 + (s - s1) * ((y1 - y0) / h + (h * (b0 + 2 * b1)) / 6);
  const t = (s - s0) / h;
  const u = 1 - t;
  return u * y0 + t * y1 + ((h * h) / 6) * ((u * u * u - u) * b0 + (t * t * t - t) * b1);
}
