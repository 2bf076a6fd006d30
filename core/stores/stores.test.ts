import fc from 'fast-check';
import { probit } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import {
  addMonths,
  chanceEnough,
  consumablesFor,
  litresForChance,
  litresFromWeight,
  lotStates,
  mergedPours,
  normalChance,
  normalQuantile,
  onShelf,
  otherWays,
  productList,
  productPacks,
  staleFrom,
  sumNeeds,
  USUAL_CONSUMABLES,
  type Lot,
  type Pour,
  type SheetBody,
  shelfSays,
  type LotState,
} from '../index';
import { sheet } from '../sheet/example.fixture';

const kits: SheetBody = {
  ...sheet,
  packs: [
    { name: '4 L kit', sizeL: 4, priceMinor: 12_000 },
    { name: '1 L kit', sizeL: 1, priceMinor: 4000 },
    { name: 'hardener 0.25', sizeL: 0.25, priceMinor: 900, part: 'Hardener' },
  ],
};

describe('kits and parts', () => {
  it('buys the missing part singly where the other is on the shelf', () => {
    // 4 L at 3 : 1 wants 3 L base and 1 L hardener; the base is there, hardener short by 0.5 L: two singles, 18 against a kit at 40.
    const bought = productPacks({ sheet: kits, needL: 4, onHandL: [3, 0.5] })!;
    expect(bought.packs.map((p) => [p.pack.name, p.count])).toEqual([['hardener 0.25', 2]]);
    expect(bought.costMinor).toBe(1800);
    expect(bought.leftL[0]).toBeCloseTo(0, 9);
    expect(bought.leftL[1]).toBeCloseTo(0, 9);
  });
  it('agrees with trying every combination', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 9, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (needL, base, hardener) => {
          let least = Infinity;
          for (let a = 0; a <= 3; a += 1)
            for (let b = 0; b <= 9; b += 1)
              for (let c = 0; c <= 10; c += 1) {
                const covers =
                  3 * a + 0.75 * b + base >= 0.75 * needL - 1e-5 &&
                  a + 0.25 * b + 0.25 * c + hardener >= 0.25 * needL - 1e-5;
                if (covers) least = Math.min(least, a * 12_000 + b * 4000 + c * 900);
              }
          expect(productPacks({ sheet: kits, needL, onHandL: [base, hardener] })?.costMinor).toBe(least);
        },
      ),
      { numRuns: 80 },
    );
  });
  it('parts of what is bought as kits keep their ratio', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 60, noNaN: true }), (needL) => {
        const { boughtL } = productPacks({ sheet: { ...kits, packs: kits.packs.slice(0, 2) }, needL })!;
        expect(boughtL[0]! / boughtL[1]!).toBeCloseTo(3, 9);
      }),
      { numRuns: 60 },
    );
  });
  it('without a price it buys the fewest litres and names no cost; without a pack it buys nothing', () => {
    const unpriced = { ...kits, packs: kits.packs.map((p) => ({ ...p, priceMinor: null })) };
    expect(productPacks({ sheet: unpriced, needL: 1.5 })).toMatchObject({ costMinor: null });
    expect(productPacks({ sheet: { ...kits, packs: [] }, needL: 1 })).toBeNull();
    expect(productPacks({ sheet: { ...kits, packs: [] }, needL: 0 })?.packs).toEqual([]);
  });
  it('counts kits by their whole where a ratio by mass lacks a density', () => {
    const blind = {
      ...kits,
      ratioBasis: 'mass' as const,
      parts: kits.parts.map((p) => ({ ...p, densityKgPerL: null })),
    };
    expect(
      productPacks({ sheet: blind, needL: 4.5, onHandL: [9, 9] })?.packs.map((p) => [p.pack.sizeL, p.count]),
    ).toEqual([
      [4, 1],
      [1, 1],
    ]);
  });
});

describe('the chance that it is enough', () => {
  it('has the quantiles of the printed table of the normal distribution [P: any table of the standard normal]', () => {
    for (const [p, z] of [
      [0.5, 0],
      [0.8, 0.8416],
      [0.9, 1.2816],
      [0.95, 1.6449],
      [0.975, 1.96],
      [0.99, 2.3263],
      [0.999, 3.0902],
    ] as const)
      expect(normalQuantile(p)).toBeCloseTo(z, 4);
    for (const p of [0.01, 0.2, 0.4, 0.7, 0.93]) expect(normalQuantile(p)).toBeCloseTo(probit(p), 2);
  });
  it('is its own inverse', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 0.999, noNaN: true }), (p) => {
        expect(normalChance(normalQuantile(p))).toBeCloseTo(p, 7);
      }),
    );
  });
  it('adds what coats share straight and what is their own in quadrature, by hand', () => {
    // Two coats of 10 L on one zone known to ±20 %: σ of the area 2 × 10 × 0.1 = 2; own 10 × 0.075 each: √(2² + 2 · 0.75²) = 2.264
    expect(
      sumNeeds([
        { zone: 'a', likelyL: 10, areaShare: 0.2 },
        { zone: 'a', likelyL: 10, areaShare: 0.2 },
      ]),
    ).toEqual({ likelyL: 20, sigmaL: expect.closeTo(Math.sqrt(4 + 2 * 0.5625), 9) as number });
    // On two zones the areas are independent: √(1 + 1 + 2 · 0.5625)
    expect(
      sumNeeds([
        { zone: 'a', likelyL: 10, areaShare: 0.2 },
        { zone: 'b', likelyL: 10, areaShare: 0.2 },
      ]).sigmaL,
    ).toBeCloseTo(Math.sqrt(2 + 2 * 0.5625), 9);
  });
  it('half of the cases are covered by the likely figure, nine of ten by 1.2816 σ more', () => {
    expect(litresForChance({ likelyL: 20, sigmaL: 2 }, 0.5)).toBeCloseTo(20, 6);
    expect(litresForChance({ likelyL: 20, sigmaL: 2 }, 0.9)).toBeCloseTo(22.5631, 3);
    expect(chanceEnough({ likelyL: 20, sigmaL: 2 }, 22.5631)).toBeCloseTo(0.9, 4);
    expect(chanceEnough({ likelyL: 20, sigmaL: 0 }, 19)).toBe(0);
    expect(() => normalQuantile(1)).toThrow(/between 0 and 100/);
  });
});

describe('what to buy of a product', () => {
  const coats = [
    { zone: 'hull', patch: false, likelyL: 3, areaShare: 0.1 },
    { zone: 'pads', patch: true, likelyL: 0.2, areaShare: 0.1 },
  ];
  it('takes the shelf first, holds back the patches’ parts and tells the risk of one size smaller', () => {
    const list = productList({ product: { sheet: kits, coats, onHandL: [0, 0] }, chance: 0.9 });
    expect(list.wantL).toBeGreaterThan(3.2);
    expect(list.purchase?.packs.map((p) => [p.pack.name, p.count])).toEqual([['4 L kit', 1]]);
    const other = otherWays(list);
    expect(other.chance).toBeGreaterThan(0.9);
    expect(list.parts[0]).toMatchObject({ name: 'Base', patchesL: expect.closeTo(0.15, 9) as number });
    expect(other.smaller?.packs.map((p) => p.pack.name)).toEqual(['1 L kit']);
    expect(other.smaller?.chance).toBeLessThan(0.01);
    expect(productList({ product: { sheet: kits, coats, onHandL: [9, 3] }, chance: 0.9 }).purchase?.packs).toEqual([]);
  });
  it('says that a pack is ten times the need', () => {
    const touch = [{ zone: 'a', patch: true, likelyL: 0.05, areaShare: 0.1 }];
    expect(
      productList({
        product: { sheet: { ...kits, packs: kits.packs.slice(0, 2) }, coats: touch, onHandL: [0, 0] },
        chance: 0.9,
      }).packForATouch,
    ).toBe(true);
    expect(productList({ product: { sheet: kits, coats, onHandL: [0, 0] }, chance: 0.9 }).packForATouch).toBe(false);
  });
});

describe('a tin on the scale', () => {
  it('gross less tare over density: 3.22 kg less 0.18 kg at 1.52 kg/L is 2.00 L [P: definition of density]', () => {
    expect(litresFromWeight({ grossKg: 3.22, tareKg: 0.18, densityKgPerL: 1.52 })).toBeCloseTo(2, 9);
    expect(litresFromWeight({ grossKg: 0.18, tareKg: 0.18, densityKgPerL: 1.52 })).toBe(0);
  });
  it.each([
    [{ grossKg: 0.1, tareKg: 0.2, densityKgPerL: 1 }, /weighs less than it does empty/],
    [{ grossKg: 1, tareKg: 0.2, densityKgPerL: 0 }, /density must be more than zero/],
    [{ grossKg: Number.NaN, tareKg: 0.2, densityKgPerL: 1 }, /weight of the tin must be a number/],
  ])('refuses %o', (options, message) => {
    expect(() => litresFromWeight(options)).toThrow(message);
  });
});

const lot: Lot = {
  id: 'l',
  sheetId: 's',
  part: 'Base',
  sizeL: 3,
  batchNumber: '',
  supplier: '',
  boughtOn: '2026-01-10',
  openedOn: null,
  expiresOn: null,
  leftL: 3,
  measuredAt: 1000,
  weighed: null,
  note: '',
};

describe('lots', () => {
  it('go stale on the printed date or by the sheet’s shelf life, whichever comes first', () => {
    expect(staleFrom(lot, {})).toBeNull();
    expect(staleFrom(lot, { shelfClosedMonths: 24 })).toBe('2028-01-10');
    expect(
      staleFrom(
        { ...lot, openedOn: '2026-02-28', expiresOn: '2027-05-01' },
        { shelfClosedMonths: 24, shelfOpenMonths: 12 },
      ),
    ).toBe('2027-02-28');
    expect(addMonths('2025-10-31', 4)).toBe('2026-02-28');
    expect(addMonths('2027-12-31', 2)).toBe('2028-02-29');
  });
  it('give what batches have taken since they were measured, open tins first', () => {
    const open = { ...lot, id: 'open', openedOn: '2026-03-01', leftL: 1 };
    const options = { lots: [lot, open], today: '2026-05-14', shelfOf: () => ({}) };
    const pour = (litres: number, at: number) => ({ sheetId: 's', part: 'Base', litres, at });
    const left = (pours: ReturnType<typeof pour>[]) =>
      Object.fromEntries(lotStates({ ...options, pours }).map((l) => [l.id, l.nowL]));
    expect(left([])).toEqual({ l: 3, open: 1 });
    expect(left([pour(0.4, 2000)])).toEqual({ l: 3, open: expect.closeTo(0.6, 9) as number });
    expect(left([pour(1.5, 2000)])).toEqual({ l: 2.5, open: 0 });
    expect(left([pour(1.5, 500)])).toEqual({ l: 3, open: 1 });
    expect(left([pour(9, 2000)])).toEqual({ l: 0, open: 0 });
  });
  it('count on the shelf only while they are not stale', () => {
    const states = lotStates({
      lots: [lot, { ...lot, id: 'old', expiresOn: '2026-05-14' }],
      pours: [],
      today: '2026-05-14',
      shelfOf: () => ({}),
    });
    expect(onShelf(states, 's', [{ name: 'Base' }, { name: 'Hardener' }])).toEqual([3, 0]);
    expect(states.find((s) => s.id === 'old')?.stale).toBe(true);
  });
});

describe('consumables', () => {
  const coat = { method: 'roller' as const, tipped: false, areaM2: 10, abradedM2: 0, batches: 2 };
  it('count by the yard’s rules and round up to packs, by hand', () => {
    const found = consumablesFor({
      rules: USUAL_CONSUMABLES,
      work: { zones: 2, coats: [coat, { ...coat, abradedM2: 10 }], borderM: 18, prepM2: 0, washL: 0, days: 3 },
    });
    const of = (id: string) => found.find((c) => c.rule.id === id);
    expect(of('roller')).toMatchObject({ count: 2, packs: 2, costMinor: 480 });
    expect(of('tray')).toMatchObject({ count: 4, packs: 1, costMinor: 390 });
    expect(of('disc')).toMatchObject({ count: 5, packs: 1 });
    expect(of('tape')).toMatchObject({ count: 1 });
    expect(of('filter')).toBeUndefined();
  });
  it('come to nothing without a coat', () => {
    expect(
      consumablesFor({
        rules: USUAL_CONSUMABLES,
        work: { zones: 3, coats: [], borderM: 20, prepM2: 9, washL: 0, days: 4 },
      }),
    ).toEqual([]);
    expect(() =>
      consumablesFor({
        rules: [{ ...USUAL_CONSUMABLES[0]!, inPack: 0 }],
        work: { zones: 1, coats: [coat], borderM: 0, prepM2: 0, washL: 0, days: 1 },
      }),
    ).toThrow(/holds at least one/);
  });
});

describe('pours told together', () => {
  it('leave in every tin what they leave one by one, and open the same tins on the same days', () => {
    const at = fc.integer({ min: 0, max: 20 * 24 }).map((h) => Date.UTC(2026, 4, 1) + h * 3_600_000);
    const part = fc.constantFrom('Base', 'Hardener');
    const tin = fc.record({ part, measuredAt: at, leftL: fc.integer({ min: 0, max: 40 }), opened: fc.boolean() });
    const pour = fc.record({ part, at, litres: fc.integer({ min: 1, max: 8 }) });
    fc.assert(
      fc.property(fc.array(tin, { minLength: 1, maxLength: 6 }), fc.array(pour, { maxLength: 30 }), (tins, poured) => {
        const lots = tins.map((t, i): Lot => ({
          id: `${i}`,
          sheetId: 's',
          part: t.part,
          sizeL: 50,
          batchNumber: '',
          supplier: '',
          boughtOn: null,
          openedOn: t.opened ? '2026-04-30' : null,
          expiresOn: null,
          leftL: t.leftL,
          measuredAt: t.measuredAt,
          weighed: null,
          note: '',
        }));
        const pours = poured.map((p): Pour => ({ sheetId: 's', ...p }));
        const left = (list: readonly Pour[]) =>
          lotStates({ lots, pours: list, today: '2026-06-01', shelfOf: () => ({}) }).map((l) => [
            l.id,
            l.nowL,
            l.tappedOn,
          ]);
        const merged = mergedPours(pours, lots);
        expect(left(merged)).toEqual(left(pours));
        expect(merged.length).toBeLessThanOrEqual(pours.length);
      }),
      { numRuns: 300 },
    );
  });
});

describe('the shelf before a pot is poured', () => {
  const tin = (id: string, part: string, nowL: number, stale = false): LotState =>
    ({ id, sheetId: 's', part, nowL, stale, staleFrom: stale ? '2026-01-01' : null }) as LotState;
  const parts = [
    { name: 'Base', wantL: 1.5 },
    { name: 'Hardener', wantL: 0.5 },
  ];
  const ask = (states: LotState[]) => shelfSays({ states, sheetId: 's', parts });
  it('says what is short and what is past its date; dregs and other products say nothing', () => {
    const found = ask([tin('a', 'Base', 2), tin('b', 'Hardener', 0.3), tin('c', 'Hardener', 0.4, true)]);
    expect(found.short).toEqual([{ name: 'Hardener', wantL: 0.5, haveL: 0.3, heldL: 0 }]);
    // 0.2 L are held back for patches: of 0.6 on the shelf 0.4 may be poured.
    const held = parts.map((p) => ({ ...p, heldL: p.name === 'Hardener' ? 0.2 : 0 }));
    expect(
      shelfSays({ states: [tin('a', 'Base', 2), tin('b', 'Hardener', 0.6)], sheetId: 's', parts: held }).short,
    ).toEqual([{ name: 'Hardener', wantL: 0.5, haveL: expect.closeTo(0.4, 9), heldL: 0.2 }]);
    expect(found.stale.map((l) => l.id)).toEqual(['c']);
    expect(ask([tin('a', 'Base', 2), tin('b', 'Hardener', 0.5), tin('c', 'Base', 0.01, true)])).toEqual({
      stale: [],
      short: [],
    });
    expect(shelfSays({ states: [tin('a', 'Base', 2)], sheetId: 'other', parts })).toEqual({ stale: [], short: [] });
  });
});
