import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { concentrateL, fillHeightsMm, strokes } from '../index';

describe('concentrate for a wash, by hand', () => {
  it('1 : 50 in 80 L is 1.6 L, 1 : 100 is 0.8 L', () => {
    expect(concentrateL({ waterL: 80, parts: 50 })).toBe(1.6);
    expect(concentrateL({ waterL: 80, parts: 100 })).toBe(0.8);
    expect(() => concentrateL({ waterL: 80, parts: 0 })).toThrow(/Parts of water/);
  });
});

describe('how high a pot is filled [P: volume of a frustum of a cone]', () => {
  const pot = { bottomMm: 120, topMm: 160, depthMm: 180 };
  /** Discs of a hundredth of a millimetre, added up: no formula of a cone. */
  const byDiscs = (heightMm: number) => {
    let mm3 = 0;
    const step = 0.01;
    for (let h = step / 2; h < heightMm; h += step) {
      const d = pot.bottomMm + ((pot.topMm - pot.bottomMm) * h) / pot.depthMm;
      mm3 += (Math.PI / 4) * d * d * step;
    }
    return mm3 / 1e6;
  };
  it('a tapered pot against discs added up', () => {
    const heights = fillHeightsMm({ pot, volumesL: [0.6, 0.3, 0.15] });
    expect(byDiscs(heights[0]!)).toBeCloseTo(0.6, 3);
    expect(byDiscs(heights[1]!)).toBeCloseTo(0.9, 3);
    expect(byDiscs(heights[2]!)).toBeCloseTo(1.05, 3);
  });
  it('a straight pot by hand, a pot that narrows, and one that is too small', () => {
    // 0.5 L over π · 5² cm²: 6.366 cm.
    const straight = { bottomMm: 100, topMm: 100, depthMm: 200 };
    expect(fillHeightsMm({ pot: straight, volumesL: [0.5] })[0]).toBeCloseTo(63.662, 3);
    const narrowing = fillHeightsMm({ pot: { bottomMm: 160, topMm: 120, depthMm: 180 }, volumesL: [0.6] })[0]!;
    expect(narrowing).toBeLessThan(fillHeightsMm({ pot, volumesL: [0.6] })[0]!);
    expect(() => fillHeightsMm({ pot: straight, volumesL: [1, 0.6] })).toThrow(/does not fit: the pot holds 1\.57 L/);
  });
});

describe('whole strokes of pumps', () => {
  it('by hand: 3 : 1 with 30 and 10 mL a stroke is as many of each', () => {
    const found = strokes({ pumps: [{ mlPerStroke: 30 }, { mlPerStroke: 10 }], ratio: [3, 1], mixedL: 0.4 });
    expect(found).toMatchObject({ strokes: [10, 10], volumesL: [0.3, 0.1], ratio: [3, 1], withinTolerance: true });
  });
  it('pumps that can never keep the tolerance say so, with the ratio that they give', () => {
    const found = strokes({ pumps: [{ mlPerStroke: 30 }, { mlPerStroke: 30 }], ratio: [5, 1], mixedL: 0.1 });
    expect(found.withinTolerance).toBe(false);
    expect(found.ratio[0]).toBe(5);
    expect(() => strokes({ pumps: [{ mlPerStroke: 0.1 }], ratio: [1], mixedL: 5 })).toThrow(
      /strokes of the first pump/,
    );
    expect(() => strokes({ pumps: [{ mlPerStroke: 8 }], ratio: [1, 1], mixedL: 1 })).toThrow(/one pump a part/);
  });
  it('nothing better is found by trying every count [exhaustive search]', () => {
    const pump = fc.integer({ min: 5, max: 40 });
    fc.assert(
      fc.property(
        fc.tuple(pump, pump),
        fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 4 })),
        fc.integer({ min: 60, max: 600 }),
        ([a, b], [p, q], wanted) => {
          const found = strokes({
            pumps: [{ mlPerStroke: a }, { mlPerStroke: b }],
            ratio: [p, q],
            mixedL: wanted / 1000,
          });
          let best = Infinity;
          let wrong = Infinity;
          for (let i = 1; i * a <= wanted * 1.25; i += 1)
            for (let k = 1; i * a + k * b <= wanted * 1.25 + 1e-9; k += 1) {
              const error = Math.abs((k * b) / ((i * a * q) / p) - 1);
              const off = Math.abs(i * a + k * b - wanted);
              if (off > wanted * 0.25 + 1e-9) continue;
              wrong = Math.min(wrong, error);
              if (error <= 0.05 + 1e-12) best = Math.min(best, off);
            }
          const [i, k] = found.strokes as [number, number];
          const error = Math.abs((k * b) / ((i * a * q) / p) - 1);
          const off = Math.abs(i * a + k * b - wanted);
          expect(found.withinTolerance).toBe(best < Infinity);
          if (best < Infinity) expect(off).toBeCloseTo(best, 6);
          else if (wrong < Infinity) expect(error).toBeLessThanOrEqual(wrong + 1e-9);
        },
      ),
      { numRuns: 400, seed: 17 },
    );
  });
});
