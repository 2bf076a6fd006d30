import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyMend,
  applyNamed,
  buildUpQuantities,
  checkBuildUp,
  coverAtLeastCost,
  departure,
  EXISTING_COATINGS,
  EXPOSURES,
  inSchool,
  keptFilms,
  layerQuantities,
  ledger,
  overrideKey,
  otherWays,
  productList,
  putIn,
  repeatCoat,
  schoolFigures,
  SUBSTRATES,
  swapProduct,
  type Layer,
  type SheetLayer,
  type SheetRevision,
  type Surface,
} from '../index';
import { sheets } from './sheets.fixture';

/** What holds of any build-up, whatever coats it is made of. */

const revisions: SheetRevision[] = Object.entries(sheets).map(([key, body]) => ({
  id: key,
  sheetId: `sheet-${key}`,
  revision: 1,
  body: {
    ...body,
    packs: [
      { name: 'kit', sizeL: 2.5, priceMinor: 9000 },
      { name: 'small', sizeL: 0.75, priceMinor: 3200 },
    ],
  },
  createdAt: 0,
}));
const revisionById = new Map(revisions.map((r) => [r.id, r]));
const sheetOf = (id: string) => revisions.find((r) => r.sheetId === id)?.body;

let serial = 0;
const newId = () => `n${(serial += 1)}`;

const aLayer: fc.Arbitrary<SheetLayer> = fc
  .record({
    key: fc.constantFrom(...(Object.keys(sheets) as (keyof typeof sheets)[])),
    dftMicron: fc.integer({ min: 5, max: 400 }),
    method: fc.constantFrom('brush' as const, 'roller' as const, 'spray' as const),
    thinnerShare: fc.constantFrom(0, 0.05, 0.3),
    prep: fc.constantFrom(undefined, 'tackWindow' as const, 'abrade' as const),
    grit: fc.constantFrom(undefined, 80, 120, 320),
    abradeFor: fc.constantFrom(undefined, 'bond' as const, 'level' as const, 'nibs' as const),
    stripe: fc.constantFrom(undefined, true),
    absorption: fc.constantFrom(undefined, 0.25),
    holdMonths: fc.constantFrom(undefined, 8),
  })
  .map(({ key, ...l }) => ({
    id: newId(),
    sheetRevisionId: key,
    loss: 0.1,
    deadVolumeLPerM2: 0,
    colour: 'grey',
    colourHex: '#888888',
    sheet: sheets[key],
    ...l,
  }));
const aStack = fc.array(aLayer, { maxLength: 9 });
const aPlace = fc.record({
  substrate: fc.constantFrom(...SUBSTRATES),
  exposure: fc.constantFrom(...EXPOSURES),
  existing: fc.constantFrom(...EXISTING_COATINGS),
  openWork: fc.boolean(),
  targetMicron: fc.constantFrom(null, 250),
  waters: fc.constantFrom(null, 'salt' as const, 'fresh' as const),
});

const bare = (layers: readonly SheetLayer[]): Layer[] => layers.map(({ sheet: _sheet, ...l }) => l);
const whole = (layers: readonly Layer[]): SheetLayer[] =>
  layers.map((l) => ({ ...l, sheet: (revisionById.get(l.sheetRevisionId) as SheetRevision).body }));

describe('rules on any stack', () => {
  it('never throw, point at coats that are there, and say a sentence', () => {
    fc.assert(
      fc.property(aStack, aPlace, (layers, place) => {
        for (const f of checkBuildUp({ ...place, layers })) {
          if (f.upper !== null) expect(layers[f.upper]).toBeDefined();
          if (typeof f.lower === 'number') expect(f.lower).toBeLessThan(f.upper as number);
          expect(f.reason).toMatch(/^[A-Z"].*\.$/s);
          expect(f.mend).toBe(f.mends[0] ?? null);
        }
      }),
      { numRuns: 300 },
    );
  });
  it('list stops first, then from the substrate out', () => {
    const order = { stop: 0, caution: 1, note: 2 };
    fc.assert(
      fc.property(aStack, aPlace, (layers, place) => {
        const told = checkBuildUp({ ...place, layers }).map((f) => order[f.severity] * 100 + (f.upper ?? 99));
        expect(told).toEqual([...told].sort((a, b) => a - b));
      }),
    );
  });
  it('every way out that is offered can be gone, and leaves a build-up that can be counted', () => {
    fc.assert(
      fc.property(aStack, aPlace, (layers, place) => {
        for (const f of checkBuildUp({ ...place, layers })) {
          for (const mend of f.mends) {
            const mended = applyMend({ layers: bare(layers), mend, sheets: revisions, newId });
            if ('problem' in mended) {
              expect(mended.problem).toMatch(/Add its sheet first\.$/);
              continue;
            }
            const ids = mended.layers.map((l) => l.id);
            expect(new Set(ids).size).toBe(ids.length);
            expect(() => buildUpQuantities({ areaM2: 10, areaShare: 0.1, layers: whole(mended.layers) })).not.toThrow();
          }
        }
      }),
      { numRuns: 200 },
    );
  });
  it('a stop that was let stand is named by its coats alone: it holds whatever else is put in beside them', () => {
    fc.assert(
      fc.property(aStack, aPlace, aLayer, (layers, place, more) => {
        const keys = (stack: readonly SheetLayer[]) =>
          checkBuildUp({ ...place, layers: stack })
            .filter((f) => f.severity === 'stop' && f.upper !== null && f.lower === null)
            .map((f) => overrideKey(f, stack));
        const after = new Set(keys([...layers, { ...more, id: newId() }]));
        // A coat on top changes nothing about what a coat is by itself.
        for (const key of keys(layers)) expect(after.has(key)).toBe(true);
      }),
    );
  });
});

describe('films', () => {
  it('what is left is never more than what was put on, nor less than nothing', () => {
    fc.assert(
      fc.property(aStack, (layers) => {
        keptFilms(layers).forEach((kept, i) => {
          expect(kept).toBeLessThanOrEqual((layers[i] as SheetLayer).dftMicron);
          expect(kept).toBeGreaterThanOrEqual(0);
        });
      }),
    );
  });
  it('a school told twice is the school told once; abrading never leaves more film', () => {
    fc.assert(
      fc.property(aStack, (layers) => {
        for (const bond of ['chemical', 'mechanical'] as const) {
          const once = inSchool(layers, bond);
          expect(inSchool(once, bond)).toEqual(once);
        }
        const kept = (bond: 'chemical' | 'mechanical') =>
          keptFilms(
            inSchool(
              layers.map((l) => ({ ...l, prep: undefined, abradeFor: undefined })),
              bond,
            ),
          ).reduce((a, b) => a + b, 0);
        expect(kept('mechanical')).toBeLessThanOrEqual(kept('chemical') + 1e-9);
      }),
    );
  });
  it('a larger zone takes as many days or more', () => {
    fc.assert(
      fc.property(
        fc.array(aLayer, { minLength: 1, maxLength: 5 }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        (layers, areaM2) => {
          const days = (area: number) => schoolFigures({ layers, areaM2: area, areaShare: 0, tempC: 20 }).days;
          const [small, large] = [days(areaM2), days(areaM2 * 1.5)];
          if (small !== null && large !== null) expect(large).toBeGreaterThanOrEqual(small - 1e-9);
        },
      ),
    );
  });
});

describe('coats put in and repeated', () => {
  it('leave every other coat as it was, in its order', () => {
    fc.assert(
      fc.property(aStack, fc.array(aLayer, { minLength: 1, maxLength: 3 }), fc.nat(9), (stack, more, place) => {
        const layers = bare(stack);
        const added = bare(more).map((l) => ({ ...l, id: newId() }));
        const at = Math.min(place, layers.length);
        const next = putIn({ layers, at, added, bond: 'mechanical', revisionById });
        expect(next.map((l) => l.id)).toEqual([...layers.slice(0, at), ...added, ...layers.slice(at)].map((l) => l.id));
        expect(next.filter((l) => !added.some((a) => a.id === l.id))).toEqual(layers);
        // Over another coat a new one goes on abraded.
        next.forEach((l, i) => i > 0 && added.some((a) => a.id === l.id) && expect(l.prep).toBe('abrade'));
        // A coat whose sheet is not here goes in as it is.
        expect(
          putIn({ layers, at, added, bond: 'mechanical', revisionById: new Map() }).slice(at, at + added.length),
        ).toEqual(added);
      }),
    );
  });
  it('one more of a coat lies right on it, without what only a first coat gets', () => {
    const [one] = bare([{ ...(fc.sample(aLayer, 1)[0] as SheetLayer), stripe: true, absorption: 0.25 }]) as [Layer];
    const next = repeatCoat([one], one.id, () => 'again');
    expect(next).toEqual([one, { ...one, id: 'again', stripe: undefined, absorption: undefined }]);
    expect(repeatCoat([one], 'gone', () => 'again')).toEqual([one]);
  });
});

describe('named build-ups on any zone', () => {
  it('taken, it is followed; a coat that is on stays itself', () => {
    fc.assert(
      fc.property(aStack, fc.nat(9), (stack, onCount) => {
        const named = bare(stack);
        const current = named.slice(0, onCount).map((l) => ({ ...l, id: newId() }));
        const on = new Set(current.map((l) => l.id));
        const taken = applyNamed({ named, current, isOn: (id) => on.has(id), sheetOf: (id) => id, newId });
        expect(taken).not.toBeNull();
        expect(departure({ named, layers: taken as Layer[], sheetOf: (id) => id })).toEqual({
          follows: true,
          differences: [],
        });
        expect((taken as Layer[]).slice(0, current.length)).toEqual(current);
      }),
    );
  });
  it('a product swapped there and back leaves the products as they were', () => {
    fc.assert(
      fc.property(aStack, (stack) => {
        const layers = bare(stack);
        const swap = (from: string, to: string, list: Layer[]) =>
          swapProduct({
            layers: list,
            isOn: () => false,
            isFrom: (l) => l.sheetRevisionId === from,
            to: (l) => ({ ...l, sheetRevisionId: to }),
          });
        const free = 'a product nobody has';
        expect(swap(free, 'barrier', swap('barrier', free, layers))).toEqual(layers);
      }),
    );
  });
});

describe('litres and packs', () => {
  const zone = (areaM2: number): Surface => ({
    id: 'z',
    name: 'z',
    kind: 'underwater',
    substrate: 'laminate',
    exposure: 'immersed',
    existing: 'bare',
    areaM2,
    areaShare: 0.1,
  });
  const cost = (layers: readonly SheetLayer[], areaM2: number, shelfL: number, chance = 0.9) => {
    const told = ledger({
      zones: [{ surface: zone(areaM2), layers: bare(layers), targetMicron: null, records: [] }],
      coats: [],
      revisionById,
      waters: null,
      sheetOf,
      onHandOf: (id) => (sheetOf(id)?.parts ?? []).map(() => shelfL),
      chance,
    });
    return {
      money: told.products.reduce((sum, p) => sum + (p.purchase?.costMinor ?? 0), 0),
      litres: told.products.reduce((sum, p) => sum + p.wantL, 0),
    };
  };
  it('more area never needs less and never costs less; stock never makes it dearer; surer is never cheaper', () => {
    fc.assert(
      fc.property(
        fc.array(aLayer, { minLength: 1, maxLength: 6 }),
        fc.double({ min: 0.5, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 5, noNaN: true }),
        (layers, areaM2, shelfL) => {
          const plain = cost(layers, areaM2, 0);
          const larger = cost(layers, areaM2 * 1.2, 0);
          expect(larger.litres).toBeGreaterThanOrEqual(plain.litres);
          expect(larger.money).toBeGreaterThanOrEqual(plain.money);
          expect(cost(layers, areaM2, shelfL).money).toBeLessThanOrEqual(plain.money);
          expect(cost(layers, areaM2, 0, 0.99).money).toBeGreaterThanOrEqual(plain.money);
        },
      ),
      { numRuns: 80 },
    );
  });
  it('zones handed the same coats are told what each would be told alone', () => {
    fc.assert(
      fc.property(aStack, fc.array(aPlace, { minLength: 2, maxLength: 4 }), (stack, places) => {
        const layers = bare(stack);
        const ask = (
          zones: readonly {
            surface: Surface;
            layers: readonly Layer[];
            targetMicron: number | null;
            records: readonly [];
          }[],
        ) => ledger({ zones, coats: [], revisionById, waters: 'salt', sheetOf, onHandOf: () => [], chance: 0.9 }).zones;
        const zones = places.map(({ substrate, exposure, existing, targetMicron }, i) => ({
          surface: { ...zone(3 + i), substrate, exposure, existing },
          layers,
          targetMicron,
          records: [] as const,
        }));
        expect(ask(zones)).toEqual(zones.map((z) => ask([z])[0]));
      }),
      { numRuns: 60 },
    );
  });
  it('the litres of a coat are in proportion to the area, and its parts are all of them', () => {
    fc.assert(
      fc.property(aLayer, fc.double({ min: 0.1, max: 200, noNaN: true }), ({ sheet, ...layer }, areaM2) => {
        const laid = layerQuantities({ layer, sheet, areaM2, areaShare: 0.1 });
        // By hand: film over solids, a tenth lost, what soaks in and a tenth for the stripes besides.
        const besides = 1 + (layer.absorption ?? 0) + (layer.stripe ? 0.1 : 0);
        const litres = ((areaM2 * layer.dftMicron) / 1000 / sheet.solids / 0.9) * besides;
        expect(laid.litres.likely).toBeCloseTo(litres, 9);
        expect(laid.litres.low).toBeCloseTo(0.9 * litres, 9);
        expect(laid.litres.high).toBeCloseTo(1.1 * litres, 9);
        if (laid.parts.length > 0)
          expect(laid.parts.reduce((sum, p) => sum + p.litres, 0)).toBeCloseTo(laid.litres.likely, 9);
      }),
    );
  });
  it('what is bought and what stands there covers every part, which keep their ratio', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 80, noNaN: true }),
        fc.tuple(fc.double({ min: 0, max: 10, noNaN: true }), fc.double({ min: 0, max: 10, noNaN: true })),
        (likelyL, onHandL) => {
          const body = {
            ...sheets.barrier,
            packs: [
              { name: 'kit', sizeL: 4, priceMinor: 12_000 },
              { name: 'h', sizeL: 0.5, priceMinor: 3000, part: 'Hardener' },
            ],
          };
          const list = productList({
            product: { sheet: body, coats: [{ zone: 'z', patch: false, likelyL, areaShare: 0.1 }], onHandL },
            chance: 0.9,
          });
          expect((list.parts[0]?.wantL ?? 0) / (list.parts[1]?.wantL ?? 1)).toBeCloseTo(3, 9);
          list.parts.forEach((p, i) =>
            expect((list.purchase?.boughtL[i] ?? 0) + p.onHandL).toBeGreaterThanOrEqual(p.wantL - 1e-4),
          );
          // ± 10 % of the area and ± 15 % of the coat as two σ, and the printed quantile of 90 %, 1.28155 σ.
          const sigma = (likelyL * Math.hypot(0.1, 0.15)) / 2;
          expect(list.wantL).toBeCloseTo(likelyL + 1.28155 * sigma, 4);
          const other = otherWays(list);
          expect(other.chance).toBeGreaterThanOrEqual(0.9 - 1e-6);
          if (other.smaller) expect(other.smaller.chance).toBeLessThanOrEqual(other.chance);
        },
      ),
      { numRuns: 120 },
    );
  });
  it('the same need costs the same in whatever order its packs are offered', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 30, noNaN: true }),
        fc.array(
          fc.record({
            size: fc.constantFrom(0.25, 0.375, 0.946, 1, 2.5, 3.785, 5),
            priceMinor: fc.integer({ min: 500, max: 20_000 }),
          }),
          { minLength: 1, maxLength: 5 },
        ),
        (need, packs) => {
          const offers = packs.map((p) => ({ partsL: [p.size], priceMinor: p.priceMinor }));
          const [there, back] = [
            coverAtLeastCost({ needL: [need], offers }),
            coverAtLeastCost({ needL: [need], offers: [...offers].reverse() }),
          ];
          expect(there?.costMinor).toBe(back?.costMinor);
          expect(there?.leftL[0]).toBeCloseTo(back?.leftL[0] as number, 6);
        },
      ),
      { numRuns: 150 },
    );
  });
});
