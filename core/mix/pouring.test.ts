import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  batchRatio,
  batchToMix,
  filledL,
  fillHeightsMm,
  forUse,
  mendPour,
  pourSteps,
  ratioProblem,
  scalePourL,
  splitBatch,
  stickMarks,
  syringeFills,
  type SheetBody,
} from '../index';
import { sheet } from '../sheet/example.fixture';

const two: SheetBody = {
  ...sheet,
  ratioBasis: 'volume',
  parts: [
    { name: 'Base', role: 'base', ratio: 3, densityKgPerL: 1.52 },
    { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 1.01 },
  ],
};
const batch = splitBatch({ parts: two.parts, basis: 'volume', mixedL: 1, thinner: { share: 0.05, of: 'mixed' } });
const near = (v: number) => expect.closeTo(v, 9);

describe('pouring step by step, by hand', () => {
  const ask = (poured: Record<string, number>, additives: Parameters<typeof pourSteps>[0]['additives'] = []) =>
    pourSteps({ batch, thinner: 'T7', additives, poured });
  it('the scale runs on: 1140 g of base, then to 1392.5 g; thinner has no density and is not weighed', () => {
    const steps = ask({});
    expect(steps.map((s) => [s.kind, s.name])).toEqual([
      ['part', 'Base'],
      ['part', 'Hardener'],
      ['thinner', 'T7'],
    ]);
    expect(steps.map((s) => s.upToKg)).toEqual([near(1.14), near(1.3925), null]);
    expect(steps.map((s) => s.upToL)).toEqual([near(0.75), near(1), near(1.05)]);
  });
  it('once 0.9 L of base is in, 0.3 L of hardener and 60 mL of thinner belong to it', () => {
    expect(ask({ Base: 0.9 }).map((s) => s.litres)).toEqual([near(0.75), near(0.3), near(0.06)]);
  });
  it('an additive is a step of its own, in its share', () => {
    const steps = ask({ Base: 0.9 }, [{ name: 'Slow', litres: 0.02, potFactor: 1.3, windowFactor: 1.4 }]);
    expect(steps[3]).toMatchObject({ kind: 'additive', name: 'Slow', litres: near(0.024), pouredL: null });
  });
  it('says nothing while a part is missing; then how much of which part mends it', () => {
    const ask2 = (poured: Record<string, number>, limitL: number | null) =>
      mendPour({ steps: ask(poured), wanted: [3, 1], toleranceShare: 0.05, limitL });
    expect(ask2({ Base: 0.75 }, null)).toBeNull();
    expect(ask2({ Base: 0.75, Hardener: 0.26 }, null)).toBeNull();
    expect(ask2({ Base: 0.75, Hardener: 0.3 }, 1.5)).toEqual({
      add: [{ name: 'Base', litres: near(0.15) }],
      totalL: near(1.2),
      outrunsPot: false,
    });
    expect(ask2({ Base: 0.75, Hardener: 0.3 }, 1.1)?.outrunsPot).toBe(true);
    // A part poured twice.
    expect(ask2({ Base: 0.75, Hardener: 0.5 }, null)?.add).toEqual([{ name: 'Base', litres: near(0.75) }]);
  });
  it('refuses a negative pour', () => {
    expect(() => ask({ Base: -0.1 })).toThrow(/less than zero/);
  });
});

describe('what a scale says, by hand', () => {
  const of = { densityKgPerL: 1.01, first: false, stepG: 1 };
  it('from 412 to 479 g at 1.01 kg/L is 66.3 mL', () => {
    expect(scalePourL({ ...of, beforeG: 412, nowG: 479 })).toBeCloseTo(0.06634, 5);
  });
  it('asks for a tare, for the pot to be put back, and for a density', () => {
    expect(() => scalePourL({ ...of, first: true, beforeG: 86, nowG: 90 })).toThrow(/Tare/);
    expect(() => scalePourL({ ...of, beforeG: 412, nowG: 300 })).toThrow(/less than before/);
    expect(() => scalePourL({ ...of, densityKgPerL: null, beforeG: 0, nowG: 10 })).toThrow(/never goes on the scale/);
    // One step less is the scale's own rounding.
    expect(scalePourL({ ...of, beforeG: 412, nowG: 411 })).toBe(0);
  });
});

describe('a syringe', () => {
  it('145 mL by 60: two fills and 25 mL; 120 are two', () => {
    expect(syringeFills({ litres: 0.145, ml: 60 })).toEqual({ fills: 2, lastMl: 25 });
    expect(syringeFills({ litres: 0.12, ml: 60 })).toEqual({ fills: 2, lastMl: 0 });
    expect(() => syringeFills({ litres: 0.1, ml: 0 })).toThrow(/syringe/);
  });
  it('its fills add up to what is wanted, to a tenth of a mL', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 3, noNaN: true }), fc.integer({ min: 1, max: 200 }), (litres, ml) => {
        const { fills, lastMl } = syringeFills({ litres, ml });
        expect(Math.abs(fills * ml + lastMl - litres * 1000)).toBeLessThan(0.051);
      }),
    );
  });
});

describe('a stick and its pot', () => {
  const pot = { bottomMm: 150, topMm: 175, depthMm: 130 };
  it('a pot filled to its marks holds what was poured [P: volume of a frustum of a cone]', () => {
    const heights = fillHeightsMm({ pot, volumesL: [0.75, 0.25] });
    expect(filledL({ pot, heightMm: heights[1]! })).toBeCloseTo(1, 9);
    // π · 130 / 12 · (150² + 150 · 175 + 175²) mm³, by hand.
    expect(filledL({ pot, heightMm: 130 })).toBeCloseTo(2.70144, 5);
  });
  it('refuses what stands higher than a sheet of paper is long', () => {
    expect(() =>
      stickMarks({ pot: { bottomMm: 100, topMm: 100, depthMm: 400 }, pours: [{ name: 'Base', litres: 2 }] }),
    ).toThrow(/255 mm full/);
  });
});

describe('ratios for a use', () => {
  const lined: SheetBody = { ...two, useRatios: [{ use: 'linings', ratio: [3.5, 1], source: 'its sheet' }] };
  const poured = (base: number, hardener: number, more = {}) => ({
    parts: [{ volumeL: base }, { volumeL: hardener }],
    ...more,
  });
  it('a batch for it is mixed and judged by it', () => {
    expect(forUse(lined, 'linings').parts.map((p) => p.ratio)).toEqual([3.5, 1]);
    const made = batchToMix({
      sheet: lined,
      zones: [{ areaM2: 10, layer: { dftMicron: 50, loss: 0, deadVolumeLPerM2: 0 } }],
      method: 'roller',
      wish: { by: 'litres', areaM2: 10, litres: 0.9, thinner: 0, potC: 20, use: 'linings' },
    });
    expect(made.batch?.parts.map((p) => p.volumeL)).toEqual([near(0.7), near(0.2)]);
    expect(ratioProblem({ sheet: lined, batch: poured(0.7, 0.2, { use: 'linings' }) })).toBeNull();
    expect(ratioProblem({ sheet: lined, batch: poured(0.7, 0.2) })).toMatch(/14 % off/);
    expect(() => forUse(lined, 'decks')).toThrow(/no ratio for/);
  });
  it('anything else outside its tolerance wants a reason', () => {
    expect(ratioProblem({ sheet: two, batch: poured(0.75, 0.262) })).toBeNull();
    expect(ratioProblem({ sheet: two, batch: poured(0.75, 0.27) })).toMatch(/8 % off its ratio; 5 %/);
    expect(ratioProblem({ sheet: two, batch: poured(0.75, 0.27, { ratioReason: 'cold day' }) })).toBeNull();
    expect(ratioProblem({ sheet: { ...two, ratioTolerance: 0.1 }, batch: poured(0.75, 0.27) })).toBeNull();
    expect(batchRatio({ sheet: two, batch: poured(0.75, 0.3) }).poured).toEqual([near(3), near(1.2)]);
  });
  it('a ratio by mass is judged by volume through its densities', () => {
    // 100 : 22.15 by mass is 3 : 1 by volume at 1.52 and 1.01 kg/L.
    const byMass: SheetBody = {
      ...two,
      ratioBasis: 'mass',
      parts: [
        { name: 'Base', role: 'base', ratio: 100, densityKgPerL: 1.52 },
        { name: 'Hardener', role: 'hardener', ratio: 22.149, densityKgPerL: 1.01 },
      ],
    };
    expect(batchRatio({ sheet: byMass, batch: poured(0.75, 0.25) }).off).toBeLessThan(1e-4);
  });
});

describe('what a batch rests on', () => {
  const zones = [{ areaM2: 10, layer: { dftMicron: 50, loss: 0, deadVolumeLPerM2: 0 } }];
  const ask = (wish: Partial<Parameters<typeof batchToMix>[0]['wish']>) =>
    batchToMix({
      sheet: { ...two, inductionMin: 15, potLife: [{ tempC: 20, hours: 2 }], additives: ADDITIVES },
      zones,
      method: 'roller',
      wish: { by: 'area', areaM2: 10, litres: null, thinner: 0, potC: 20, ...wish },
    });
  const ADDITIVES = [
    { name: 'Quick', kind: 'accelerator' as const, maxShare: 0.02, potFactor: 0.5, windowFactor: 0.6 },
  ];
  it('two painters at 6 m²/h: 12 · 1.575 h · 0.1 L/m² by the rule, and what somebody decided instead', () => {
    expect(ask({ painters: 2, rateM2PerH: 6 }).ruleL).toBeCloseTo(1.89, 9);
    expect(ask({ painters: 2, rateM2PerH: 6, limitL: 0.4 })).toMatchObject({ limitL: 0.4, ruleL: near(1.89) });
    expect(ask({ limitL: 0.4 }).plan).toMatchObject({ count: 3 });
  });
  it('an accelerator halves the pot life: less stands in the pot', () => {
    const { pot, ruleL, additives } = ask({ additives: { Quick: 0.02 } });
    expect(pot?.hours).toBeCloseTo(1, 9);
    // (1 − 0.25) · 0.9 h · 10 m²/h · 0.1 L/m².
    expect(ruleL).toBeCloseTo(0.675, 9);
    expect(additives).toEqual([{ name: 'Quick', litres: near(0.02), potFactor: 0.5, windowFactor: 0.6 }]);
  });
  it('what it really takes sizes the batch; what is left in the tins is a size too', () => {
    expect(ask({ litresPerM2: 0.13 }).mixedL).toBeCloseTo(1.3, 9);
    expect(ask({ by: 'cans', cansL: 0.62 }).mixedL).toBe(0.62);
  });
});
