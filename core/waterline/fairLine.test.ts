import { Matrix, solve, EVD } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { fairLine, splineAt } from '../index';
import { denseSpline, noisyLine, straightLine } from './spline.fixture';
import { fitSpline, prepareSpline } from './spline';
import { many } from '../many.fixture';

const marksOf = (sM: readonly number[], heightsM: readonly number[]) =>
  sM.map((s, i) => ({ sM: s, heightM: heightsM[i] as number }));

/** Places that are not even, and heights that wander. */
const s = [0, 0.7, 1.1, 2.4, 3, 3.2, 4.9, 5.5, 6, 7.3];
const z = [1.02, 1.1, 0.98, 1.21, 1.3, 1.24, 1.41, 1.36, 1.44, 1.39];

describe('smoothing spline against the penalised normal equations, solved densely [ml-matrix]', () => {
  it.each([1e-6, 1e-3, 0.05, 1, 40, 1e4])('λ = %d', (lambda) => {
    const dense = denseSpline(s, z, lambda);
    const fit = fitSpline(prepareSpline(s, z), lambda);
    fit.heightsM.forEach((g, i) => expect(g).toBeCloseTo(dense.heights[i] as number, 8));
    fit.freedom.forEach((free, i) => expect(free).toBeCloseTo(1 - dense.hat.get(i, i), 8));
    expect(fit.roughness).toBeCloseTo(dense.roughness, 8);
    // What a mark misses the line of the others by: that line, fitted without it.
    const others = s.map((_, i) => i).filter((i) => i !== 4);
    const without = fitSpline(
      prepareSpline(
        others.map((i) => s[i] as number),
        others.map((i) => z[i] as number),
      ),
      lambda,
    );
    const there = splineAt({ sM: others.map((i) => s[i] as number), ...without }, s[4] as number);
    expect(fit.leftOutM[4]).toBeCloseTo((z[4] as number) - there, 6);
  });

  it('no smoothing goes through every mark, much of it is the straight line of least squares', () => {
    const fine = fitSpline(prepareSpline(s, z), 0);
    expect(fine.heightsM).toEqual(z);
    const line = straightLine(s, z);
    fitSpline(prepareSpline(s, z), 1e10).heightsM.forEach((g, i) => expect(g).toBeCloseTo(line[i] as number, 6));
  });

  it('next to no noise still goes through every mark of nearly every line', () => {
    let through = 0;
    for (let seed = 1; seed <= 100; seed += 1) {
      const { marks } = noisyLine(seed, { count: 24 });
      const { heightsM } = fairLine({ marks, noiseM: 1e-9 });
      if (heightsM.every((h, i) => Math.abs(h - marks[i]!.heightM) < 1e-6)) through += 1;
    }
    expect(through).toBeGreaterThanOrEqual(95);
  });

  it('the noise of a mark does the same from none to much', () => {
    expect(fairLine({ marks: marksOf(s, z), noiseM: 0 }).heightsM).toEqual(z);
    const line = straightLine(s, z);
    const flat = fairLine({ marks: marksOf(s, z), noiseM: 1e3 });
    flat.heightsM.forEach((g, i) => expect(g).toBeCloseTo(line[i] as number, 6));
    expect(flat.roughness).toBeLessThan(1e-9);
  });

  it('a second derivative is what the natural spline of the same heights has', () => {
    // Natural spline: the tridiagonal equations of the bends, solved densely.
    const fit = fitSpline(prepareSpline(s, z), 0.05);
    const n = s.length - 2;
    const A = Matrix.zeros(n, n);
    const right = Matrix.zeros(n, 1);
    for (let k = 0; k < n; k += 1) {
      const [a, b] = [s[k + 1]! - s[k]!, s[k + 2]! - s[k + 1]!];
      if (k > 0) A.set(k, k - 1, a / 6);
      A.set(k, k, (a + b) / 3);
      if (k + 1 < n) A.set(k, k + 1, b / 6);
      const g = fit.heightsM;
      right.set(k, 0, (g[k + 2]! - g[k + 1]!) / b - (g[k + 1]! - g[k]!) / a);
    }
    solve(A, right)
      .to1DArray()
      .forEach((bend, k) => expect(fit.bends[k + 1]).toBeCloseTo(bend, 8));
  });
});

describe('cross-validation', () => {
  it('finds the λ of least score that a fine search of the dense solution finds', () => {
    const { marks } = noisyLine(7, { count: 40 });
    const [sM, zM] = [marks.map((m) => m.sM), marks.map((m) => m.heightM)];
    const score = (lambda: number) => {
      const { heights, hat } = denseSpline(sM, zM, lambda);
      const misses = heights.reduce((sum, g, i) => sum + (g - (zM[i] as number)) ** 2, 0);
      return (40 * misses) / (40 - hat.trace()) ** 2;
    };
    const least = Math.min(...Array.from({ length: 90 }, (_, i) => score(10 ** (-5 + i * 0.1))));
    const faired = fairLine({ marks, strayFactor: 100 });
    // The roughness of the faired line tells its λ: the score there is the least.
    let [low, high] = [-5, 4];
    for (let i = 0; i < 50; i += 1) {
      const mid = (low + high) / 2;
      if (denseSpline(sM, zM, 10 ** mid).roughness > faired.roughness) low = mid;
      else high = mid;
    }
    const found = 10 ** low;
    expect(score(found)).toBeLessThan(least * 1.01);
    // The equations themselves are sound: no eigenvalue of the hat matrix leaves 0…1.
    const eigen = new EVD(denseSpline(sM, zM, found).hat).realEigenvalues;
    expect(Math.min(...eigen)).toBeGreaterThan(-1e-9);
    expect(Math.max(...eigen)).toBeLessThan(1 + 1e-9);
  });

  it('returns a cubic through exact marks exactly', () => {
    const at = Array.from({ length: 14 }, (_, i) => i * 0.75 + (i % 3) * 0.1);
    const heights = at.map((x) => 0.9 + 0.03 * x - 0.012 * x ** 2 + 0.0011 * x ** 3);
    fairLine({ marks: marksOf(at, heights) }).heightsM.forEach((g, i) => expect(g).toBeCloseTo(heights[i]!, 12));
  });

  it('is nearer to the true line than the raw marks in at least 95 of 100, over 1000 lines or a fifth of that', () => {
    let better = 0;
    for (let seed = 1; seed <= many(1000); seed += 1) {
      const { marks, trueM } = noisyLine(seed, { count: 24 });
      const { heightsM } = fairLine({ marks });
      const off = (heights: readonly number[]) => heights.reduce((sum, g, i) => sum + (g - trueM[i]!) ** 2, 0);
      if (off(heightsM) < off(marks.map((m) => m.heightM))) better += 1;
    }
    expect(better).toBeGreaterThanOrEqual(many(950));
  });
});

describe('strays', () => {
  it('planted ones are found in 1000 lines or a fifth of that, and hardly another is named', () => {
    let planted = 0;
    let found = 0;
    let others = 0;
    for (let seed = 1; seed <= many(1000); seed += 1) {
      const { marks, strays } = noisyLine(seed, { count: 30, strays: 2, strayM: 0.06 });
      const named = fairLine({ marks }).strays;
      planted += strays.length;
      found += strays.filter((i) => named.includes(i)).length;
      others += named.filter((i) => !strays.includes(i)).length;
    }
    expect(found / planted).toBeGreaterThan(0.99);
    expect(others / many(1000)).toBeLessThan(0.1);
  });

  it('a metre typed for a centimetre is named, and the line is as without it', () => {
    const { marks } = noisyLine(3, { count: 20 });
    const wrong = marks.map((m, i) => (i === 8 ? { ...m, heightM: m.heightM * 100 } : m));
    const faired = fairLine({ marks: wrong });
    expect(faired.strays).toEqual([8]);
    const clean = fairLine({ marks: marks.filter((_, i) => i !== 8) });
    clean.heightsM.forEach((g, i) => expect(faired.heightsM[i < 8 ? i : i + 1]).toBeCloseTo(g, 9));
  });

  it('at both ends too, and with the noise of a mark given', () => {
    for (const at of [0, 19]) {
      const { marks } = noisyLine(11, { count: 20 });
      const wrong = marks.map((m, i) => (i === at ? { ...m, heightM: m.heightM + 0.2 } : m));
      expect(fairLine({ marks: wrong, noiseM: 0.004 }).strays).toEqual([at]);
    }
  });
});

describe('what cannot be', () => {
  it('says which mark', () => {
    const mark = (sM: number, heightM = 1) => ({ sM, heightM });
    expect(() => fairLine({ marks: [] })).toThrow(/first one/);
    expect(() => fairLine({ marks: [mark(0), mark(2), mark(1)] })).toThrow(/Mark 3 comes before mark 2/);
    expect(() => fairLine({ marks: [mark(0), mark(0)] })).toThrow(/Marks 1 and 2/);
    expect(() => fairLine({ marks: [mark(0), mark(1, NaN)] })).toThrow(/height of mark 2/);
  });

  it('one, two and three marks are a line', () => {
    expect(fairLine({ marks: [{ sM: 0, heightM: 1 }] }).heightsM).toEqual([1]);
    expect(fairLine({ marks: marksOf([0, 1], [1, 2]) }).heightsM).toEqual([1, 2]);
    const { heightsM } = fairLine({ marks: marksOf([0, 1, 2], [1, 2, 1.5]) });
    expect(heightsM.every((h) => h >= 1 && h <= 2)).toBe(true);
  });
});
