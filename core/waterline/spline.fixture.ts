import { inverse, Matrix } from 'ml-matrix';

/** The penalised normal equations (I + λ Q R⁻¹ Qᵀ) g = z, solved densely. [P: Green & Silverman 1994, §2.3] */
export function denseSpline(s: readonly number[], z: readonly number[], lambda: number) {
  const n = s.length;
  const Q = Matrix.zeros(n, n - 2);
  const R = Matrix.zeros(n - 2, n - 2);
  const h = (i: number) => (s[i + 1] as number) - (s[i] as number);
  for (let k = 0; k < n - 2; k += 1) {
    Q.set(k, k, 1 / h(k));
    Q.set(k + 1, k, -1 / h(k) - 1 / h(k + 1));
    Q.set(k + 2, k, 1 / h(k + 1));
    R.set(k, k, (h(k) + h(k + 1)) / 3);
    if (k + 1 < n - 2) {
      R.set(k, k + 1, h(k + 1) / 6);
      R.set(k + 1, k, h(k + 1) / 6);
    }
  }
  const K = Q.mmul(inverse(R)).mmul(Q.transpose());
  const hat = inverse(Matrix.add(Matrix.eye(n), Matrix.mul(K, lambda)));
  const g = hat.mmul(Matrix.columnVector([...z]));
  const roughness = g.transpose().mmul(K).mmul(g).get(0, 0);
  return { heights: g.to1DArray(), hat, roughness };
}

/** The straight line of least squares at the same places, by its textbook sums. */
export function straightLine(s: readonly number[], z: readonly number[]): number[] {
  const n = s.length;
  const ms = s.reduce((a, b) => a + b, 0) / n;
  const mz = z.reduce((a, b) => a + b, 0) / n;
  const slope =
    s.reduce((sum, v, i) => sum + (v - ms) * ((z[i] as number) - mz), 0) / s.reduce((sum, v) => sum + (v - ms) ** 2, 0);
  return s.map((v) => mz + slope * (v - ms));
}

/** A small generator of its own, so that a seed tells the line. */
function seeded(seed: number) {
  let state = seed * 2654435761;
  const next = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const normal = () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  return { next, normal };
}

/** A line as a boat's sheds it: level, a little sheered, with marks of 4 mm noise along 9 m, some set off quite wrong. */
export function noisyLine(seed: number, options: { count: number; strays?: number; strayM?: number; noiseM?: number }) {
  const { count, strays = 0, strayM = 0, noiseM = 0.004 } = options;
  const { next, normal } = seeded(seed);
  const [rise, bow, wave] = [normal() * 0.01, normal() * 0.05, normal() * 0.01];
  const sM = Array.from({ length: count }, (_, i) => (i * 9) / (count - 1));
  const trueM = sM.map((x) => 1 + rise * x + bow * (x / 9 - 0.4) ** 2 + wave * Math.sin(x * 0.9));
  const out = new Set<number>();
  // Apart from each other: two side by side that agree are not told from the line.
  while (out.size < strays) {
    const i = Math.floor(next() * count);
    if (![...out].some((k) => Math.abs(k - i) < 4)) out.add(i);
  }
  const marks = sM.map((x, i) => ({
    sM: x,
    heightM: (trueM[i] as number) + noiseM * normal() + (out.has(i) ? (next() < 0.5 ? -1 : 1) * strayM : 0),
  }));
  return { marks, trueM, strays: [...out].sort((a, b) => a - b) };
}
