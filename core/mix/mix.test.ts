import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  batchTimers,
  areaLeftM2,
  batchLimitL,
  batchToMix,
  figure,
  partShares,
  pouringUnit,
  ratioShown,
  potLifeH,
  splitBatch,
  USUAL_RATE_M2_PER_H,
  type Layer,
  type MixedBatch,
  type SheetBody,
} from '../index';
import { sheet } from '../sheet/example.fixture';

const parts = [
  { name: 'base', ratio: 3, densityKgPerL: 1.52 },
  { name: 'hardener', ratio: 1, densityKgPerL: 1.01 },
];

describe('splitting a batch', () => {
  it('3:1 by volume at 1.52 and 1.01 kg/L is 100 g : 22.1 g, not 100 : 33.3 [P: definition of density, by hand: 1.01 / (3 · 1.52)]', () => {
    const batch = splitBatch({ parts, basis: 'volume', mixedL: 1 });
    const [base, hardener] = batch.parts;
    expect(base!.volumeL).toBe(0.75);
    expect(((hardener!.massKg as number) / (base!.massKg as number)) * 100).toBeCloseTo(22.15, 2);
  });
  it('a ratio by mass gives volumes through the densities', () => {
    // 100 : 25 by mass at 1.25 and 1.0 → 80 : 25 by volume, by hand.
    const batch = splitBatch({
      parts: [
        { name: 'A', ratio: 100, densityKgPerL: 1.25 },
        { name: 'B', ratio: 25, densityKgPerL: 1 },
      ],
      basis: 'mass',
      mixedL: 1.05,
    });
    expect(batch.parts.map((p) => p.volumeL)).toEqual([expect.closeTo(0.8, 9), expect.closeTo(0.25, 9)]);
    expect(batch.parts.map((p) => p.massKg)).toEqual([expect.closeTo(1, 9), expect.closeTo(0.25, 9)]);
  });
  it('gives no mass without a density, and refuses a mass basis without one', () => {
    const bare = [
      { name: 'A', ratio: 2, densityKgPerL: 1.4 },
      { name: 'B', ratio: 1 },
    ];
    expect(splitBatch({ parts: bare, basis: 'volume', mixedL: 3 }).parts[1]).toEqual({
      name: 'B',
      volumeL: 1,
      massKg: null,
    });
    expect(() => splitBatch({ parts: bare, basis: 'mass', mixedL: 3 })).toThrow(/type the density of B/);
    expect(partShares({ parts: bare, basis: 'mass' })).toBeNull();
  });
  it('takes thinner of the base or of the mix, on top of the mixed litres', () => {
    expect(splitBatch({ parts, basis: 'volume', mixedL: 4, thinner: { share: 0.1, of: 'mixed' } })).toMatchObject({
      thinnerL: 0.4,
      totalL: 4.4,
    });
    expect(splitBatch({ parts, basis: 'volume', mixedL: 4, thinner: { share: 0.1, of: 'base' } }).thinnerL).toBeCloseTo(
      0.3,
      12,
    );
  });
  it('any number of parts add up, by volume and by mass', () => {
    const part = fc.record({
      name: fc.string(),
      ratio: fc.double({ min: 0.01, max: 100, noNaN: true }),
      densityKgPerL: fc.double({ min: 0.5, max: 3, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 5 }),
        fc.constantFrom('volume' as const, 'mass' as const),
        fc.double({ min: 0.001, max: 200, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (list, basis, mixedL, share) => {
          const batch = splitBatch({ parts: list, basis, mixedL, thinner: { share, of: 'mixed' } });
          expect(batch.parts.reduce((sum, p) => sum + p.volumeL, 0)).toBeCloseTo(mixedL, 6);
          expect(batch.totalL).toBeCloseTo(mixedL * (1 + share), 6);
          const measure =
            basis === 'volume' ? batch.parts.map((p) => p.volumeL) : batch.parts.map((p) => p.massKg as number);
          list.forEach((p, i) => expect(measure[i]! / measure[0]!).toBeCloseTo(p.ratio / list[0]!.ratio, 6));
        },
      ),
    );
  });
  it.each([
    [{ parts: [], basis: 'volume' as const, mixedL: 1 }, /no parts/],
    [{ parts: [{ name: 'A', ratio: 0 }], basis: 'volume' as const, mixedL: 1 }, /ratio of A must be more than zero/],
    [{ parts, basis: 'volume' as const, mixedL: -1 }, /less than zero/],
    [{ parts, basis: 'volume' as const, mixedL: Number.NaN }, /must be a number/],
    [{ parts: [{ name: 'A', ratio: 1, densityKgPerL: 0 }], basis: 'volume' as const, mixedL: 1 }, /density of A/],
    [{ parts, basis: 'volume' as const, mixedL: 1, thinner: { share: -0.1, of: 'mixed' as const } }, /Thinner/],
  ])('refuses %#', (input, message) => {
    expect(() => splitBatch(input)).toThrow(RangeError);
    expect(() => splitBatch(input)).toThrow(message);
  });
});

describe('the pot', () => {
  it('goes off twice as fast 10 °C hotter than its single figure, and lasts no longer in the cold [CP]', () => {
    const table = [{ tempC: 20, hours: 2 }];
    expect(potLifeH({ table, tempC: 30 })).toEqual({ hours: expect.closeTo(1, 9), estimated: true });
    expect(potLifeH({ table, tempC: 5 }).hours).toBe(2);
  });
  it('limits the batch to what goes on in the usable life', () => {
    // Two hours less a quarter of an hour's stand, less a tenth: 1.575 h at 10 m²/h and 0.2 L/m² is 3.15 L, by hand.
    const of = { rateM2PerH: 10, painters: 1, inductionH: 0.25, litresPerM2: 0.2 };
    expect(batchLimitL({ ...of, potLifeH: 2 })).toBeCloseTo(3.15, 9);
    expect(batchLimitL({ ...of, painters: 2, potLifeH: 2 })).toBeCloseTo(6.3, 9);
    expect(batchLimitL({ ...of, potLifeH: 0.2 })).toBe(0);
  });
  it('keeps timers as instants, rings neither silenced nor emptied pots', () => {
    const batch: MixedBatch = {
      id: 'b',
      mixedAt: 1000,
      painter: '',
      silenced: [],
      emptied: false,
      inUse: false,
      restL: 1,
      sheetRevisionId: 'r',
      on: [],
      parts: [],
      thinnerL: 0,
      totalL: 1,
      standMin: 15,
      potLifeH: 2,
      potTempC: 20,
    };
    expect(batchTimers([batch], 2000).map((t) => [t.timer, t.dueAt, t.silenced])).toEqual([
      ['stand', 901_000, false],
      ['pot', 7_201_000, false],
    ]);
    expect(batchTimers([{ ...batch, silenced: ['stand'] }], 2000)[0]?.silenced).toBe(true);
    expect(batchTimers([{ ...batch, emptied: true }], 2000)).toEqual([]);
    // Used up by a coat that is finished; with one still going on, or a rest in it, it rings.
    expect(batchTimers([{ ...batch, restL: 0 }], 2000)).toEqual([]);
    expect(batchTimers([{ ...batch, restL: 0, inUse: true }], 2000)).not.toEqual([]);
    expect(batchTimers([batch], 1000 + 30 * 3_600_000)).toEqual([]);
  });
});

describe('the batch to mix', () => {
  const layer = { dftMicron: 50, loss: 0.1, deadVolumeLPerM2: 0 };
  const zones = [
    { areaM2: 6, layer },
    { areaM2: 4, layer },
  ];
  const wish = { by: 'area', areaM2: 10, litres: null, thinner: 0, potC: 20 } as const;
  const of = (more: object = {}, body: SheetBody = sheet) =>
    batchToMix({ sheet: body, zones, method: 'roller', wish: { ...wish, ...more } });

  it('is what the zones take, by hand', () => {
    // 10 m² · 0.050 mm / 0.50 / (1 − 0.10) = 1.1111 L [P: standard coating arithmetic]; 3 : 1 is 0.8333 and 0.2778 L.
    const whole = of();
    expect(whole.wholeM2).toBe(10);
    expect(whole.mixedL).toBeCloseTo(1.1111, 4);
    expect(whole.batch?.parts.map((p) => p.volumeL.toFixed(4))).toEqual(['0.8333', '0.2778']);
    expect(whole.doesM2).toBeCloseTo(10, 9);
    // Half of it is left to do.
    expect(of({ areaM2: 5 }).mixedL).toBeCloseTo(0.5556, 4);
    const byLitres = of({ by: 'litres', litres: 2 });
    expect([byLitres.mixedL, byLitres.doesM2]).toEqual([2, expect.closeTo(18, 9)]);
  });
  it('takes the stripe coat and what soaks in along, as the film does', () => {
    // 1.1111 L and a quarter more that soaks in; the stripe coat takes its share besides.
    const withMore = (more: Partial<Layer>) =>
      batchToMix({
        sheet,
        zones: zones.map((z) => ({ ...z, layer: { ...z.layer, ...more } })),
        method: 'roller',
        wish,
      }).wholeL;
    expect(withMore({ absorption: 0.25 })).toBeCloseTo(1.1111 * 1.25, 3);
    expect(withMore({ stripe: true })).toBeGreaterThan(1.112);
  });
  it('leaves to do what was not mixed for yet, by hand, and never less than nothing', () => {
    // 1.1111 L do 10 m²: 0.4 L do 3.6 m² of them.
    expect(areaLeftM2({ sheet, zones, mixedForL: 0 })).toBe(10);
    expect(areaLeftM2({ sheet, zones, mixedForL: 0.4 })).toBe(6.4);
    expect(areaLeftM2({ sheet, zones, mixedForL: 2 })).toBe(0);
  });
  it('is nothing where the wish cannot be read, and says why where it cannot be split', () => {
    for (const more of [{ areaM2: null }, { areaM2: Number.NaN }, { areaM2: -3 }, { by: 'litres', litres: Number.NaN }])
      expect(of(more)).toMatchObject({ mixedL: 0, doesM2: 0, batch: { totalL: 0 } });
    const byMass = {
      ...sheet,
      ratioBasis: 'mass' as const,
      parts: sheet.parts.map((p) => ({ ...p, densityKgPerL: null })),
    };
    expect(of({}, byMass)).toMatchObject({
      batch: null,
      problem: 'The ratio is by mass: type the density of Base and Hardener to get volumes.',
      withoutDensity: ['Base', 'Hardener'],
    });
  });
  it('is held against the pot life and the sheet’s thinner', () => {
    // Two hours at 20 °C, less a quarter to stand and a tenth kept back: 1.575 h of rolling.
    const { pot, limitL, litresPerM2 } = of();
    expect(pot).toEqual({ hours: expect.closeTo(2, 9), estimated: false });
    expect(limitL).toBeCloseTo(1.575 * USUAL_RATE_M2_PER_H.roller * litresPerM2, 9);
    expect(of({ potC: null })).toMatchObject({ pot: null, limitL: null });
    expect(of({}, { ...sheet, potLife: null }).pot).toBeNull();
    expect([0.1, 0.11, Number.NaN].map((thinner) => of({ thinner }).overThinned)).toEqual([false, true, false]);
    expect(of({ thinner: 0.05 }).batch?.thinnerL).toBeCloseTo(0.05 * 1.1111, 4);
    expect(of({ thinner: 0.01 }, { ...sheet, thinner: null }).overThinned).toBe(true);
  });
});

describe('a batch by weight, and small ones', () => {
  const dense: SheetBody = {
    ...sheet,
    ratioBasis: 'volume',
    parts: [
      { name: 'Base', role: 'base', ratio: 3, densityKgPerL: 1.52 },
      { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 1.01 },
    ],
  };
  const zones = [{ areaM2: 10, layer: { dftMicron: 50, loss: 0, deadVolumeLPerM2: 0 } }];
  const wish = { by: 'mass', areaM2: null, litres: null, massKg: 0.5571, thinner: 0, potC: null } as const;
  it('557 g of 3 : 1 at 1.52 and 1.01 kg/L are 0.4 L [by hand: (3 · 1.52 + 1.01) / 4 = 1.3925 kg/L]', () => {
    const { batch, mixedL } = batchToMix({ sheet: dense, zones, method: 'roller', wish });
    expect(mixedL).toBeCloseTo(0.5571 / 1.3925, 9);
    expect(batch?.parts.reduce((sum, p) => sum + (p.massKg as number), 0)).toBeCloseTo(0.5571, 9);
  });
  it('without a density there is no batch by weight', () => {
    const unknown = { ...dense, parts: dense.parts.map((p) => ({ ...p, densityKgPerL: null })) };
    expect(batchToMix({ sheet: unknown, zones, method: 'roller', wish }).mixedL).toBe(0);
  });
  it('rounded figures keep the ratio within a hundredth, from a syringe to a bucket', () => {
    for (const system of ['metric', 'us'] as const)
      for (const ratio of [1, 3, 4, 5, 10, 20])
        for (let litres = 0.05; litres < 30; litres *= 1.37) {
          const amounts = [(litres * ratio) / (ratio + 1), litres / (ratio + 1)];
          const unit = pouringUnit('volume', { system }, litres, amounts);
          const [base, hardener] = amounts.map((a) => Number(figure('volume', a, { system }, undefined, unit).number));
          const off = Math.abs(base! / hardener! / ratio - 1);
          // Each of the two may be off by a hundredth; below that, what they come to is said.
          if (ratioShown('volume', amounts, unit) === null) expect(off, `${litres} L ${ratio}:1`).toBeLessThan(0.021);
        }
  });
  it('too little to measure says what its figures come to', () => {
    // 1 mL at 10 : 1 in steps of 0.1 mL is 0.9 and 0.1.
    const unit = { ...pouringUnit('volume', { system: 'metric' }, 0.001), digits: 1 };
    const shown = ratioShown('volume', [0.01 / 11, 0.001 / 11], unit);
    expect(shown).toEqual([expect.closeTo(9, 9), 1]);
  });
});
