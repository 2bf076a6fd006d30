import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  combReading,
  correctOverpour,
  planBatches,
  potLifeAtH,
  ratioLedger,
  ratioLeft,
  ratioOff,
  sections,
} from '../index';

const near = (v: number) => expect.closeTo(v, 9);

describe('pot life of a single figure [common practice: half for every +10 °C]', () => {
  it('halves and is not lengthened in the cold', () => {
    expect(potLifeAtH({ potLifeH: 2, atC: 20, tempC: 30 })).toBeCloseTo(1, 9);
    expect(potLifeAtH({ potLifeH: 2, atC: 20, tempC: 40 })).toBeCloseTo(0.5, 9);
    // 25 °C: 2 / √2, by hand.
    expect(potLifeAtH({ potLifeH: 2, atC: 20, tempC: 25 })).toBeCloseTo(1.41421, 5);
    expect(potLifeAtH({ potLifeH: 2, atC: 20, tempC: 5 })).toBe(2);
    expect(() => potLifeAtH({ potLifeH: 0, atC: 20, tempC: 20 })).toThrow(/Pot life/);
  });
});

describe('poured too much of one part, by hand', () => {
  it('4 : 1, 1.20 L to 0.36 L wants 0.24 L of base: 1.80 L', () => {
    const { addL, totalL, withinTolerance } = correctOverpour({
      ratio: [4, 1],
      pouredL: [1.2, 0.36],
      toleranceShare: 0.05,
    });
    expect(addL).toEqual([near(0.24), 0]);
    expect(totalL).toBeCloseTo(1.8, 9);
    expect(withinTolerance).toBe(false);
  });
  it('2 : 1 : 1, too much of the second part, is mended with both others', () => {
    const { addL, totalL } = correctOverpour({ ratio: [2, 1, 1], pouredL: [1, 0.6, 0.5], toleranceShare: 0.05 });
    expect(addL).toEqual([near(0.2), 0, near(0.1)]);
    expect(totalL).toBeCloseTo(2.4, 9);
  });
  it('1 : 1 within 5 % stays as it is; at 6 % it does not', () => {
    expect(correctOverpour({ ratio: [1, 1], pouredL: [1, 1.05], toleranceShare: 0.05 })).toEqual({
      addL: [0, 0],
      totalL: near(2.05),
      withinTolerance: true,
    });
    expect(correctOverpour({ ratio: [1, 1], pouredL: [1, 1.06], toleranceShare: 0.05 }).addL).toEqual([near(0.06), 0]);
  });
  it('a part that nobody poured yet is wanted whole, also the base', () => {
    expect(correctOverpour({ ratio: [3, 1], pouredL: [0, 0.2], toleranceShare: 0.05 }).addL).toEqual([near(0.6), 0]);
    expect(correctOverpour({ ratio: [3, 1], pouredL: [0.6, 0], toleranceShare: 0.05 }).addL).toEqual([0, near(0.2)]);
    expect(ratioOff({ ratio: [3, 1], pouredL: [0, 0.2] })).toBe(Infinity);
    expect(ratioOff({ ratio: [3, 1], pouredL: [0, 0] })).toBe(0);
  });
  it('restores the ratio exactly, takes nothing away, loses no litre', () => {
    const litres = fc.double({ min: 0, max: 50, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.record({ r: fc.double({ min: 0.05, max: 20, noNaN: true }), l: litres }), {
          minLength: 1,
          maxLength: 4,
        }),
        (parts) => {
          const [ratio, pouredL] = [parts.map((p) => p.r), parts.map((p) => p.l)];
          const { addL, totalL, withinTolerance } = correctOverpour({ ratio, pouredL, toleranceShare: 0.05 });
          const after = pouredL.map((l, i) => l + addL[i]!);
          expect(Math.min(...addL)).toBeGreaterThanOrEqual(0);
          expect(totalL).toBeCloseTo(
            after.reduce((a, b) => a + b, 0),
            9,
          );
          if (withinTolerance) expect(addL.every((l) => l === 0)).toBe(true);
          else {
            after.forEach((l, i) => expect(l * ratio[0]!).toBeCloseTo(after[0]! * ratio[i]!, 6));
            // The least: one part is left as it was poured.
            expect(Math.min(...addL)).toBeLessThan(1e-9);
          }
        },
      ),
    );
  });
  it('refuses a negative pour, a missing part and a ratio of nothing', () => {
    expect(() => correctOverpour({ ratio: [3, 1], pouredL: [-1, 0], toleranceShare: 0.05 })).toThrow(RangeError);
    expect(() => correctOverpour({ ratio: [3, 1], pouredL: [1], toleranceShare: 0.05 })).toThrow(/each part/);
    expect(() => correctOverpour({ ratio: [3, 0], pouredL: [1, 1], toleranceShare: 0.05 })).toThrow(/ratio/);
    expect(() => correctOverpour({ ratio: [], pouredL: [], toleranceShare: 0.05 })).toThrow(/no parts/);
  });
});

describe('what should be left in the tins [handbook §9]', () => {
  it('3 : 1 with 1.50 L and 0.38 L left: 0.50 expected, 0.12 unexplained', () => {
    const { expectedL, unexplainedL } = ratioLeft({ ratio: [3, 1], leftL: [1.5, 0.38] });
    expect(expectedL).toEqual([near(1.5), near(0.5)]);
    expect(unexplainedL).toEqual([near(0), near(0.12)]);
  });
  it('of a kit that is not in ratio, by hand: 3.8 and 1.3 L, 2.0 of the base left took 0.6 of the hardener', () => {
    const { expectedL, unexplainedL } = ratioLeft({ ratio: [3, 1], kitL: [3.8, 1.3], leftL: [2, 0.72] });
    expect(expectedL).toEqual([near(2), near(0.7)]);
    expect(unexplainedL[1]).toBeCloseTo(-0.02, 9);
  });
});

describe('the ratio ledger, worked by hand', () => {
  const kit = { at: 0, partsL: [4, 1] };
  const batch = (id: string, at: number, partsL: number[]) => ({ id, at, partsL });
  const ledger = (over: Partial<Parameters<typeof ratioLedger>[0]>) =>
    ratioLedger({ ratio: [4, 1], kits: [kit], batches: [], weighings: [], toleranceShare: 0.05, ...over }).checks;

  it('a clean one: 4 of 4 : 1 less two batches, weighed to a few mL', () => {
    const checks = ledger({
      batches: [batch('b', 20, [0.8, 0.2]), batch('a', 10, [1.2, 0.3])],
      weighings: [
        { at: 30, leftL: [2.01, 0.505] },
        { at: 15, leftL: [2.79, 0.695] },
      ],
    });
    expect(checks.map((c) => c.at)).toEqual([15, 30]);
    expect(checks.map((c) => c.expectedL)).toEqual([
      [near(2.8), near(0.7)],
      [near(2), near(0.5)],
    ]);
    expect(checks.every((c) => c.withinTolerance && c.suspects.length === 0)).toBe(true);
  });
  it('a spill between two weighings: 0.12 L of hardener gone, both batches since are suspect', () => {
    const checks = ledger({
      batches: [batch('a', 10, [1.2, 0.3]), batch('b', 20, [0.8, 0.2]), batch('c', 22, [0.4, 0.1])],
      weighings: [
        { at: 15, leftL: [2.8, 0.7] },
        { at: 30, leftL: [1.6, 0.28] },
      ],
    });
    expect(checks[1]).toMatchObject({ withinTolerance: false, suspects: ['b', 'c'] });
    expect(checks[1]?.unexplainedL).toEqual([near(0), near(0.12)]);
  });
  it('a drift that starts half way: the first check holds, the last two do not, and suspects grow', () => {
    const checks = ledger({
      batches: [1, 2, 3, 4].map((n) => batch(`b${n}`, n * 10, [0.8, 0.2])),
      weighings: [
        { at: 25, leftL: [2.4, 0.6] },
        { at: 35, leftL: [1.6, 0.37] },
        { at: 45, leftL: [0.8, 0.14] },
      ],
    });
    expect(checks.map((c) => c.suspects)).toEqual([[], ['b3'], ['b3', 'b4']]);
    expect(checks[2]?.unexplainedL[1]).toBeCloseTo(0.06, 9);
  });
  it('10 mL is never blamed, and what came onto the shelf between counts', () => {
    const checks = ledger({
      kits: [kit, { at: 12, partsL: [4, 1] }],
      batches: [batch('a', 10, [0.4, 0.1])],
      weighings: [{ at: 20, leftL: [7.6, 1.89] }],
    });
    // 10 mL of 0.1 L is 10 %, and stays within what an eye can tell.
    expect(checks[0]).toMatchObject({ withinTolerance: true });
    expect(
      ledger({ batches: [batch('a', 10, [0.4, 0.1])], weighings: [{ at: 20, leftL: [3.6, 0.889] }] })[0],
    ).toMatchObject({ withinTolerance: false });
  });
  it('too little gone of a part is as unexplained as too much', () => {
    const checks = ledger({ batches: [batch('a', 10, [1.2, 0.3])], weighings: [{ at: 20, leftL: [2.8, 0.76] }] });
    expect(checks[0]).toMatchObject({ withinTolerance: false, suspects: ['a'] });
  });
  it('refuses what names too few parts or cannot be a time', () => {
    expect(() => ledger({ weighings: [{ at: 1, leftL: [1] }] })).toThrow(/all 2 parts/);
    expect(() => ledger({ weighings: [{ at: Number.NaN, leftL: [1, 1] }] })).toThrow(/date and time/);
    expect(() => ledger({ batches: [batch('a', 1, [-1, 1])] })).toThrow(/less than zero/);
  });
});

describe('batches of a coat, by hand', () => {
  it('5 L with 2 L at most: three, 1.7, 1.7 and 1.6', () => {
    expect(planBatches({ stillL: 5, limitL: 2 })).toEqual({ count: 3, eachL: near(1.7), lastL: near(1.6) });
    expect(planBatches({ stillL: 1.9, limitL: 2 })).toEqual({ count: 1, eachL: 1.9, lastL: 1.9 });
    expect(planBatches({ stillL: 4, limitL: 2 })).toEqual({ count: 2, eachL: near(2), lastL: near(2) });
  });
  it('none where nothing is left, no plan where the stand eats the pot life', () => {
    expect(planBatches({ stillL: 0, limitL: 2 })?.count).toBe(0);
    expect(planBatches({ stillL: 3, limitL: null })?.count).toBe(1);
    expect(planBatches({ stillL: 3, limitL: 0 })).toBeNull();
  });
  it('never mixes above the limit, loses no litre, and no batch is a dreg', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 60, noNaN: true }),
        fc.double({ min: 0.1, max: 8, noNaN: true }),
        (stillL, limitL) => {
          const plan = planBatches({ stillL, limitL })!;
          expect(plan.eachL * (plan.count - 1) + plan.lastL).toBeCloseTo(stillL, 9);
          expect(Math.max(plan.eachL, plan.lastL)).toBeLessThanOrEqual(limitL + 1e-6);
          expect(plan.lastL).toBeGreaterThan(0);
        },
      ),
    );
  });
});

describe('panels that stay wet, by hand', () => {
  it('10 m²/h for a quarter of an hour on a face 1.25 m high is 2 m: nine metres are five panels of 1.8 m', () => {
    const s = sections({ lengthM: 9, heightM: 1.25, rateM2PerH: 10, painters: 1, wetEdgeH: 0.25 });
    expect(s).toEqual({ count: 5, widthM: near(1.8), areaM2: near(2.25), hours: near(0.225) });
    expect(sections({ lengthM: 9, heightM: 1.25, rateM2PerH: 10, painters: 2, wetEdgeH: 0.25 }).count).toBe(3);
    expect(() => sections({ lengthM: 9, heightM: 0, rateM2PerH: 10, painters: 1, wetEdgeH: 0.25 })).toThrow(/height/);
  });
});

describe('the comb [ISO 2808: between the last wetted tooth and the first dry one]', () => {
  it('gives both ends', () => {
    expect(combReading({ lastWetMicron: 200, firstDryMicron: 225 })).toEqual({ lowMicron: 200, highMicron: 225 });
    expect(() => combReading({ lastWetMicron: 225, firstDryMicron: 200 })).toThrow(/dry tooth/);
    expect(() => combReading({ lastWetMicron: 200, firstDryMicron: 200 })).toThrow(RangeError);
  });
});
