import { describe, expect, it } from 'vitest';
import {
  amountsFrom,
  areaFromDimensions,
  completeness,
  drySpells,
  estimateDimensions,
  limitsInForce,
  nameOnlySheet,
  parsePlain,
  parseQuantity,
  productPacks,
  timesAt,
  usPacks,
  type BoatDimensions,
  type WeatherHour,
} from './index';
import { sheet } from './sheet/example.fixture';

describe('dimensions that nobody measured', () => {
  it('follow the length [from memory: overhangs by form, freeboard of small yachts]', () => {
    expect(estimateDimensions({ loaM: 10, form: 'finKeel' })).toEqual({ lwlM: 8.6, freeboardM: 1.05 });
    expect(estimateDimensions({ loaM: 10, form: 'longKeel' }).lwlM).toBe(8);
    expect(() => estimateDimensions({ loaM: 0, form: 'full' })).toThrow(/Length overall/);
  });
  it('widen the ± of an area that rests on them, as independent errors add up', () => {
    const boat: BoatDimensions = { loaM: 10, lwlM: 8.6, beamM: 3.2, draftM: 1.6, freeboardM: 1.05, form: 'finKeel' };
    const share = (kind: 'underwater' | 'topsides' | 'deck', estimated: string[]) =>
      areaFromDimensions({ kind, boat: { ...boat, estimated } }).share;
    expect(share('underwater', [])).toBe(0.15);
    // √(0.15² + 0.10²) and √(0.15² + 0.25²), by hand.
    expect(share('underwater', ['lwlM'])).toBeCloseTo(0.180278, 6);
    expect(share('topsides', ['freeboardM'])).toBeCloseTo(0.291548, 6);
    expect(share('underwater', ['freeboardM'])).toBe(0.15);
    expect(share('deck', ['lwlM', 'freeboardM'])).toBe(0.15);
    const { working } = areaFromDimensions({ kind: 'topsides', boat: { ...boat, estimated: ['freeboardM'] } });
    expect(working.mattersMost).toContain('Nobody has measured the freeboard');
  });
});

describe('at the tin', () => {
  const parts = [
    { name: 'Base', ratio: 4, densityKgPerL: 1.4 },
    { name: 'Hardener', ratio: 1, densityKgPerL: 0.95 },
  ];
  const litres = (of: number | 'mix', amount: number) =>
    amountsFrom({ parts, basis: 'volume', measured: { of, by: 'volume', amount } });
  it('either part or the mix tells the others: 1.2 L of base at 4 : 1 wants 0.3 L', () => {
    for (const [of, amount] of [
      [0, 1.2],
      [1, 0.3],
      ['mix', 1.5],
    ] as const) {
      const worked = litres(of, amount);
      expect(worked.parts.map((p) => p.litres)).toEqual([expect.closeTo(1.2, 9), expect.closeTo(0.3, 9)]);
      expect(worked.totalL).toBeCloseTo(1.5, 9);
    }
  });
  it('on the scale the densities come in: 1.2 · 1.4 kg and 0.3 · 0.95 kg', () => {
    const worked = litres(0, 1.2);
    expect(worked.parts.map((p) => p.kg)).toEqual([expect.closeTo(1.68, 9), expect.closeTo(0.285, 9)]);
    expect(worked.totalKg).toBeCloseTo(1.965, 9);
    const weighed = amountsFrom({ parts, basis: 'volume', measured: { of: 0, by: 'mass', amount: 1.68 } });
    expect(weighed.parts[1]?.litres).toBeCloseTo(0.3, 9);
  });
  it('what the ratio does not tell is left open, and an amount of that kind is refused with what to do', () => {
    const bare = parts.map(({ name, ratio }) => ({ name, ratio }));
    const volume = amountsFrom({ parts: bare, basis: 'volume', measured: { of: 'mix', by: 'volume', amount: 1 } });
    expect(volume.totalKg).toBeNull();
    expect(volume.parts.map((p) => p.kg)).toEqual([null, null]);
    expect(() => amountsFrom({ parts: bare, basis: 'volume', measured: { of: 0, by: 'mass', amount: 1 } })).toThrow(
      /type the densities to get weights/,
    );
    const mass = amountsFrom({ parts: bare, basis: 'mass', measured: { of: 0, by: 'mass', amount: 0.4 } });
    expect(mass.parts.map((p) => p.kg)).toEqual([0.4, expect.closeTo(0.1, 9)]);
    expect(mass.totalL).toBeNull();
    expect(() => litres(0, -1)).toThrow(/amount/);
  });
  it('times at a temperature: Arrhenius between columns, by hand [P: Arrhenius]', () => {
    const overcoat = [
      {
        after: 'any' as const,
        minimum: [
          { tempC: 10, hours: 9 },
          { tempC: 20, hours: 5 },
        ],
        tackLimit: null,
        maximum: null,
        alwaysAbrade: false,
      },
    ];
    const times = timesAt({ sheet: { ...sheet, potLife: null, touchDry: null, overcoat, minCureC: 12 }, tempC: 14 });
    const shortest = times.find((t) => t.what === 'shortest');
    // 1/T: 0.00353170, 0.00348250 (14 °C), 0.00341122; share (0.00353170 − 0.00348250)/0.00012048 = 0.40837
    // ln t = ln 9 − 0.40837 · ln(9/5): t = 7.080 h
    expect(shortest?.hours).toBeCloseTo(7.08, 2);
    expect(shortest?.estimated).toBe(false);
    const cold = timesAt({ sheet: { ...sheet, overcoat, minCureC: 12 }, tempC: 8 });
    expect(cold.find((t) => t.what === 'shortest')?.hours).toBe(Infinity);
  });
});

describe('packs where nobody knows a price', () => {
  const kit = (name: string, sizeL: number, priceMinor: number | null = null) => ({ name, sizeL, priceMinor });
  it('a US counter has pints, quarts and gallons [P: NIST Handbook 44], and no price of another size', () => {
    const packs = usPacks([kit('0.75 L kit', 0.75, 4900), kit('1 L kit', 1), kit('5 L kit', 5, 25_800)]);
    expect(packs.map((p) => [p.name, p.priceMinor])).toEqual([
      ['1 qt kit', null],
      ['1 gal kit', null],
    ]);
    // A gallon is 231 cubic inches of 25.4 mm: 3.785411784 L.
    expect(packs[1]?.sizeL).toBeCloseTo((231 * 25.4 ** 3) / 1e6, 5);
    const split = usPacks([{ ...kit('5 L kit', 5), partsL: [3.75, 1.25] }]);
    expect(split[0]?.partsL?.[0]).toBeCloseTo(3.785412 * 0.75, 5);
  });
  it('a larger tin is bought before many small ones, unless least litres are asked for', () => {
    const product = {
      parts: [{ ...sheet.parts[0]!, ratio: 1 }],
      ratioBasis: 'volume' as const,
      packs: [kit('q', 1), kit('g', 4)],
    };
    const counts = (least?: 'cost' | 'litres') =>
      productPacks({ sheet: product, needL: 6.5, ...(least ? { least } : {}) })?.packs.map((p) => p.count);
    // A tin of four costs 4^0.8 = 3.03 of one: with three of one 6.03, two of four 6.06, seven of one 7.
    expect(counts()).toEqual([3, 1]);
    // 7 L either way: the first that is tried.
    expect(counts('litres')?.reduce((a, b) => a + b, 0)).toBeGreaterThanOrEqual(4);
    // Three of four and two of one 11.1, four of four 12.1, fourteen of one 14.
    expect(productPacks({ sheet: product, needL: 14 })?.packs.map((p) => [p.pack.name, p.count])).toEqual([
      ['q', 2],
      ['g', 3],
    ]);
    expect(productPacks({ sheet: product, needL: 14 })?.costMinor).toBeNull();
  });
});

describe('a product of which only the name is known', () => {
  const blue = nameOnlySheet({ name: 'Old blue tin', kind: 'antifouling', colour: { name: 'blue', hex: '#27415f' } });
  it('says so before anything else, and gives no time', () => {
    expect(completeness(blue).gaps[0]?.cannot).toMatch(/Only its name is known/);
    expect(timesAt({ sheet: blue, tempC: 20 })).toEqual([]);
  });
});

describe('the hours ahead', () => {
  const hours = (rh: readonly number[]): WeatherHour[] => rh.map((h, i) => ({ at: i * 3_600_000, airC: 20, rh: h }));
  it('are dry where spread and humidity keep the usual limits [P: ISO 8502-4; common practice 85 %]', () => {
    // Spread at 20 °C: 3 °C at about 83 % (dew point 17.0 °C).
    const spells = drySpells({ hours: hours([0.6, 0.6, 0.95, 0.95, 0.6]), from: 0, until: 4 * 3_600_000 });
    expect(spells).toHaveLength(2);
    expect(spells[0]).toMatchObject({ from: 0 });
    expect(spells[0]!.until).toBeGreaterThanOrEqual(3_600_000);
    expect(spells[0]!.until).toBeLessThan(2 * 3_600_000 + 1);
    expect(drySpells({ hours: [], from: 0, until: 3_600_000 })).toEqual([]);
  });
  it('the limits in force are the sheet’s, or the usual ones and said so', () => {
    const none = { airMinC: null, airMaxC: null, surfaceMinC: null, surfaceMaxC: null, rhMax: null, spreadMinC: null };
    expect(limitsInForce({ limits: none })).toEqual({
      spreadMinC: { at: 3, usual: true },
      rhMax: { at: 0.85, usual: true },
      airC: [
        { at: 10, usual: true },
        { at: 30, usual: true },
      ],
      surfaceC: [
        { at: 10, usual: true },
        { at: 30, usual: true },
      ],
    });
    expect(limitsInForce({ limits: { ...none, surfaceMinC: 5, rhMax: 0.8 } })).toMatchObject({
      rhMax: { at: 0.8, usual: false },
      surfaceC: [{ at: 5, usual: false }, { usual: true }],
    });
    expect(limitsInForce({ limits: none, topcoat: true }).rhMax).toEqual({ at: 0.8, usual: true });
  });
});

describe('figures as they come from print and word processors', () => {
  const read = (quantity: Parameters<typeof parseQuantity>[0]['quantity'], text: string) => {
    const parsed = parseQuantity({ quantity, text, system: 'metric' });
    return parsed.ok ? parsed.value : parsed.message;
  };
  it('our own come back in', () => {
    expect(read('area', '≈ 165 ft²')).toBeCloseTo(165 * 0.09290304, 6);
    expect(read('temperature', '14°')).toBe(14);
    expect(read('temperature', '14 °C')).toBe(14);
    expect(read('length', '31’ 6”')).toBeCloseTo(9.6012, 6);
    expect(read('length', '31′ 6″')).toBeCloseTo(9.6012, 6);
    expect(read('volume', '13.61\u00a0L')).toBeCloseTo(13.61, 9);
  });
  it('a decimal comma is one where it can be nothing else, and asked about where it can', () => {
    expect(read('volume', '1,5')).toBe(1.5);
    expect(read('volume', '1,500')).toMatch(/could be 1500 or 1\.500/);
    expect(parsePlain('12,50')).toBe(12.5);
    expect(parsePlain('1,500')).toBeNaN();
    expect(parsePlain('0,500')).toBe(0.5);
    expect(parsePlain(' ')).toBeNull();
  });
});
