import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { coverAtLeastCost, packCostMinor, packsToBuy } from '../index';
import { highsCover } from './solver.fixture';
import { many } from '../many.fixture';

/** A small generator, so that each run sees the same instances. */
function seeded(seed: number): () => number {
  let s = seed;
  return () => (s = (s * 16_807) % 2_147_483_647) / 2_147_483_647;
}

describe('packs to buy', () => {
  let reference: Awaited<ReturnType<typeof highsCover>>;
  beforeAll(async () => {
    reference = await highsCover();
  });

  it('costs what HiGHS says and leaves as little, on 500 random instances or a fifth of that', () => {
    const random = seeded(20_260_514);
    const sizes = [0.25, 0.375, 0.5, 0.75, 0.946, 1, 2, 2.5, 3, 3.785, 4, 5, 10, 15, 20];
    for (let n = 0; n < many(500); n += 1) {
      const count = 1 + Math.floor(random() * 6);
      const packs = Array.from({ length: count }, () => {
        const sizeL = sizes[Math.floor(random() * sizes.length)]!;
        return { sizeL, priceMinor: Math.round(sizeL * (2000 + random() * 3000) + random() * 800) };
      });
      const needL = Number((random() * (n % 5 === 0 ? 200 : 30)).toFixed(3));
      const own = packsToBuy({ needL, packs, onHandL: 0 });
      const other = reference({ needL, packs });
      expect(own.costMinor, JSON.stringify({ needL, packs })).toBe(other.costMinor);
      expect(own.leftL).toBeCloseTo(other.boughtL - needL, 4);
    }
  }, 180_000);

  it.each([
    // Worked by hand: 3 L from 0.75 at 30 and 2.5 at 80: 2.5 + 0.75 = 110 beats 4 × 0.75 = 120 and 2 × 2.5 = 160.
    [
      3,
      0,
      [
        { sizeL: 0.75, count: 1 },
        { sizeL: 2.5, count: 1 },
      ],
      11_000,
      0.25,
    ],
    // 5.2 L less 1 L on the shelf is 4.2 L: 2 × 2.5 = 160 against 2.5 + 3 × 0.75 = 170.
    [5.2, 1, [{ sizeL: 2.5, count: 2 }], 16_000, 0.8],
    // Enough on the shelf: nothing.
    [2, 2.5, [], 0, 0.5],
    [0, 0, [], 0, 0],
    // A whole number of packs but for rounding.
    [0.1 + 0.2 + 0.45, 0, [{ sizeL: 0.75, count: 1 }], 3000, 0],
  ])('by hand: %s L with %s L on the shelf', (needL, onHandL, packs, costMinor, leftL) => {
    const bought = packsToBuy({
      needL,
      onHandL,
      packs: [
        { sizeL: 0.75, priceMinor: 3000 },
        { sizeL: 2.5, priceMinor: 8000 },
      ],
    });
    expect(bought.packs).toEqual(packs);
    expect(bought.costMinor).toBe(costMinor);
    expect(bought.leftL).toBeCloseTo(leftL, 9);
  });

  // A US gallon is 3.785411784 L and four quarts, by definition [P: NIST Handbook 44, Appendix C].
  it.each([
    ['ten gallons are ten cans of a gallon', 10 * 3.785411784, [{ sizeL: 3.785411784, count: 10 }]],
    [
      'eleven quarts are two gallons and three quarts',
      11 * 0.946352946,
      [
        { sizeL: 3.785411784, count: 2 },
        { sizeL: 0.946352946, count: 3 },
      ],
    ],
    [
      'beside litres too: two gallons and a half litre',
      2 * 3.785411784 + 0.5,
      [
        { sizeL: 3.785411784, count: 2 },
        { sizeL: 0.5, count: 1 },
      ],
    ],
  ])('a need of a whole number of tins takes no tin more: %s', (_what, needL, packs) => {
    const offers = [
      { sizeL: 3.785411784, priceMinor: 9000 },
      { sizeL: 0.946352946, priceMinor: 2900 },
      { sizeL: 0.5, priceMinor: 1600 },
    ];
    expect(packsToBuy({ needL, packs: offers }).packs).toEqual(packs);
  });

  it('a need of a whole number of tins of an odd size takes no tin more', () => {
    for (const sizeL of [0.22650000121652422, 1 / 3, 0.0295735295625]) {
      for (const count of [1, 7, 186, 600])
        expect(packsToBuy({ needL: count * sizeL, packs: [{ sizeL, priceMinor: 1 }] })).toMatchObject({
          packs: [{ sizeL, count }],
          costMinor: count,
        });
    }
  });

  it('of equal cost it leaves the least over', () => {
    // 1.5 L: two of 1 L at 20 or one of 2.5 L at 40 cost the same.
    expect(
      packsToBuy({
        needL: 1.5,
        packs: [
          { sizeL: 2.5, priceMinor: 4000 },
          { sizeL: 1, priceMinor: 2000 },
        ],
      }),
    ).toEqual({ packs: [{ sizeL: 1, count: 2 }], costMinor: 4000, leftL: 0.5, provenLeast: true });
  });

  it('buys more than it needs where a price break makes that cheaper', () => {
    // Three at 10 each are 30; four at 7 each are 28.
    const packs = [{ sizeL: 1, priceMinor: 1000, breaks: [{ from: 4, priceMinor: 700 }] }];
    expect(packsToBuy({ needL: 3, packs })).toEqual({
      packs: [{ sizeL: 1, count: 4 }],
      costMinor: 2800,
      leftL: 1,
      provenLeast: true,
    });
    expect(packsToBuy({ needL: 2, packs })).toMatchObject({ costMinor: 2000 });
    expect(packCostMinor(packs[0]!, 4)).toBe(2800);
  });

  it('stock never makes it dearer, and more area never needs less', () => {
    const packs = fc.array(
      fc.record({ sizeL: fc.constantFrom(0.375, 0.75, 1, 2.5, 5), priceMinor: fc.integer({ min: 500, max: 20_000 }) }),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(
        packs,
        fc.double({ min: 0, max: 40, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (offers, needL, more) => {
          const plain = packsToBuy({ needL, packs: offers });
          expect(packsToBuy({ needL, packs: offers, onHandL: more }).costMinor).toBeLessThanOrEqual(plain.costMinor);
          expect(packsToBuy({ needL: needL + more, packs: offers }).costMinor).toBeGreaterThanOrEqual(plain.costMinor);
          expect(plain.leftL).toBeGreaterThanOrEqual(0);
        },
      ),
      { numRuns: 60 },
    );
  });

  it.each([
    [() => packsToBuy({ needL: 1, packs: [] }), /No pack is for sale/],
    [() => packsToBuy({ needL: -1, packs: [] }), /The need cannot be less than zero/],
    [() => packsToBuy({ needL: 1, packs: [{ sizeL: 0, priceMinor: 1 }] }), /size of a pack/],
    [() => packsToBuy({ needL: 1, packs: [{ sizeL: 1, priceMinor: 1.5 }] }), /whole cents/],
    [() => packsToBuy({ needL: 1, packs: [{ sizeL: 1, priceMinor: -1 }] }), /price of a pack/],
    [
      () => packsToBuy({ needL: 1, packs: [{ sizeL: 1, priceMinor: 5, breaks: [{ from: 1, priceMinor: 1 }] }] }),
      /two packs or more/,
    ],
    [() => coverAtLeastCost({ needL: [1, 1], offers: [{ partsL: [1], priceMinor: 1 }] }), /how much of each part/],
  ])('refuses impossible input %#', (run, message) => {
    expect(run).toThrow(RangeError);
    expect(run).toThrow(message);
  });

  it('with prices that break, at 120 L too, costs what trying every count costs, and is known to', () => {
    const packs = [0.75, 2.5, 20].map((sizeL, k) => ({
      sizeL,
      priceMinor: Math.round(sizeL * (3300 - 120 * k)),
      breaks: [
        { from: 3, priceMinor: Math.round(sizeL * (3100 - 120 * k)) },
        { from: 10, priceMinor: Math.round(sizeL * (2500 + 60 * k)) },
      ],
    }));
    const price = (k: number, count: number) => {
      const { priceMinor, breaks } = packs[k]!;
      const at = breaks.findLast((b) => count >= b.from)?.priceMinor ?? priceMinor;
      return at * count;
    };
    for (const needL of [3.1, 17.3, 61, 119.3]) {
      let least = Infinity;
      for (let big = 0; big <= 10; big += 1)
        for (let middle = 0; middle <= 58; middle += 1) {
          const left = needL - 20 * big - 2.5 * middle;
          for (const small of [Math.max(0, Math.ceil((left - 1e-9) / 0.75)), 3, 10])
            if (small * 0.75 >= left - 1e-9)
              least = Math.min(least, price(0, small) + price(1, middle) + price(2, big));
        }
      const bought = packsToBuy({ needL, packs });
      expect(bought.provenLeast).toBe(true);
      expect(bought.costMinor, `${needL} L`).toBe(least);
    }
  });

  it('says so where there were too many ways to try them all; what it buys then covers the need all the same', () => {
    // Litres cost the same in each size, and sizes to the millilitre share too fine a grid for tables.
    const packs = [0.731, 0.893, 1.117, 1.301, 1.709, 2.111, 2.903, 3.307].map((sizeL, i) => ({
      sizeL,
      priceMinor: Math.round(sizeL * 3000 + ((i * 37) % 11)),
      breaks: [{ from: 300, priceMinor: Math.round(sizeL * 2990) }],
    }));
    const bought = packsToBuy({ needL: 97.3, packs });
    expect(bought.provenLeast).toBe(false);
    expect(bought.packs.reduce((sum, p) => sum + p.count * p.sizeL, 0)).toBeGreaterThanOrEqual(97.3);
    const ofOneSize = packs.map((p) => packCostMinor(p, Math.ceil(97.3 / p.sizeL))!);
    expect(bought.costMinor).toBeLessThanOrEqual(Math.min(...ofOneSize));
  });

  it('of two parts, kits and singles, costs what trying every handful costs, and leaves as little', () => {
    const random = seeded(7);
    const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)] as T;
    for (let n = 0; n < 150; n += 1) {
      const kits = Array.from({ length: 1 + Math.floor(random() * 2) }, () => {
        const size = pick([0.5, 1, 2, 4]);
        return { partsL: [size * 0.75, size * 0.25], priceMinor: Math.round(size * 3000 + random() * 900) };
      });
      // Every third has a kit of another proportion, searched, not looked up; every fifth a price that breaks.
      const odd = n % 3 === 0 ? [{ partsL: [1, 0.5], priceMinor: 4200 }] : [];
      const breaks = n % 5 === 0 ? [{ from: 2, priceMinor: 700 }] : undefined;
      const offers: Parameters<typeof coverAtLeastCost>[0]['offers'] = [
        ...kits,
        ...odd,
        { partsL: [0, 0.25], priceMinor: 900, breaks },
        { partsL: [0.75, 0], priceMinor: 1500 + Math.round(random() * 900) },
      ];
      const needL = [Number((random() * 4).toFixed(2)), Number((random() * 1.5).toFixed(2))];
      const own = coverAtLeastCost({ needL, offers })!;
      const most = offers.map((o) => Math.max(2, ...o.partsL.map((l, p) => (l > 0 ? Math.ceil(needL[p]! / l) : 0))));
      let best = { cost: Infinity, left: Infinity };
      const tryAll = (i: number, counts: number[]): void => {
        if (i < offers.length) {
          for (let c = 0; c <= most[i]!; c += 1) tryAll(i + 1, [...counts, c]);
          return;
        }
        const left = needL.map(
          (l, p) => counts.reduce((sum, c, k) => sum + c * (offers[k]!.partsL[p] as number), 0) - l,
        );
        if (left.some((l) => l < -1e-9)) return;
        const cost = counts.reduce(
          (sum, c, k) => sum + c * (breaks && offers[k]!.breaks && c >= 2 ? 700 : offers[k]!.priceMinor),
          0,
        );
        const over = left.reduce((a, b) => a + b, 0);
        if (cost < best.cost || (cost === best.cost && over < best.left - 1e-9)) best = { cost, left: over };
      };
      tryAll(0, []);
      expect(own.costMinor, JSON.stringify({ needL, offers })).toBe(best.cost);
      expect(own.leftL.reduce((a, b) => a + b, 0)).toBeCloseTo(best.left, 6);
    }
  }, 60_000);
});
