import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layer, barrier, copper, needsOf, zone, coatOn, lot, revisionById, sheetOf } from './needs.fixture';
import {
  batchesFor,
  coatNeeds,
  cheaperProducts,
  consumablesFor,
  jobList,
  jobMoney,
  litreMinor,
  lotStates,
  shareShelf,
  shoppingLists,
  thinnersToBuy,
  structureIsOpen,
  sumNeeds,
  USUAL_CONSUMABLES,
  workOf,
  type CoatNeed,
  type JobProduct,
  type Lot,
  type SheetBody,
  type Surface,
} from '../index';
import { sheet } from '../sheet/example.fixture';

describe('what coats still to go on take', () => {
  it('counts what is not on, by hand: 9 m² · 0.1 / 0.5 / 0.9 = 2 L a coat', () => {
    const layers = [layer(barrier), layer(barrier), layer(copper)];
    const { needs } = needsOf([zone('hull')], layers, [coatOn('hull', layers[0]!.id)]);
    expect(needs.map((n) => [n.number, n.sheetId, Number(n.likelyL.toFixed(6))])).toEqual([
      [2, 'barrier', 2],
      [3, 'copper', 2],
    ]);
  });
  it('a coat in hand needs what its batches have not brought, shared among its zones', () => {
    const [one] = [layer(barrier)];
    const inHand = coatOn('hull', one.id, {
      finishedAt: null,
      on: [
        { surfaceId: 'hull', layerId: one.id },
        { surfaceId: 'keel', layerId: one.id },
      ],
      batches: [{ batchId: 'b', litres: 3, unthinnedL: 3 }],
    });
    const { needs } = needsOf([zone('hull'), zone('keel')], [one], [inHand]);
    expect(needs.map((n) => n.likelyL)).toEqual([expect.closeTo(0.5, 9), expect.closeTo(0.5, 9)]);
    // A zone three times as large gets three times as much: of 8 L two are brought, 1.5 and 0.5 [by hand].
    const onTwo = { ...inHand, batches: [{ batchId: 'b', litres: 2.2, unthinnedL: 2 }] };
    const unlike = needsOf([zone('hull', { areaM2: 27 }), zone('keel')], [one], [onTwo]);
    expect(unlike.needs.map((n) => n.likelyL)).toEqual([expect.closeTo(4.5, 9), expect.closeTo(1.5, 9)]);
    // Never less than nothing, however much was mixed.
    expect(
      needsOf(
        [zone('hull')],
        [one],
        [coatOn('hull', one.id, { finishedAt: null, batches: [{ batchId: 'b', litres: 30, unthinnedL: 30 }] })],
      ).needs[0]?.likelyL,
    ).toBe(0);
  });
  it('names a coat that cannot be worked out and leaves it out', () => {
    const { needs, without } = needsOf(
      [zone('hull')],
      [layer(barrier), { ...layer(barrier), sheetRevisionId: 'gone' }, layer(barrier, { loss: 1 })],
    );
    expect(needs).toHaveLength(1);
    expect(without).toEqual(['hull, coat 2', 'hull, coat 3']);
  });
  it('mixes as many batches as the pot life at 20 °C asks for', () => {
    // Usable (2 h − 15 min) · 0.9 = 1.575 h at 10 m²/h by roller [M] is 15.75 m² a pot.
    expect(batchesFor({ litres: 4, areaM2: 15, method: 'roller', sheet })).toBe(1);
    expect(batchesFor({ litres: 4, areaM2: 16, method: 'roller', sheet })).toBe(2);
    expect(batchesFor({ litres: 4, areaM2: 16, method: 'roller', sheet: { ...sheet, potLife: null } })).toBe(1);
    expect(batchesFor({ litres: 0, areaM2: 16, method: 'roller', sheet })).toBe(0);
  });
  it('tells structure from stands that are to be moved', () => {
    const work = (kind: 'repair' | 'underStand', done = false) => ({ openWork: [{ id: '1', kind, note: '', done }] });
    expect([
      structureIsOpen(work('repair')),
      structureIsOpen(work('repair', true)),
      structureIsOpen(work('underStand')),
      structureIsOpen({}),
    ]).toEqual([true, false, false, false]);
  });
});

describe('the error of areas found from the same dimensions', () => {
  it('is shared: two zones are as unsure together as one of both', () => {
    const one = { name: 'One', areaM2: 10, areaShare: 0.15, area: { method: 'dimensions' as const } };
    const zones = [zone('a', one), zone('b', { ...one, name: 'Two' })];
    const builds = zones.map((z) => ({ surfaceId: z.id, layers: [layer(barrier)] }));
    const sigma = (surfaces: Surface[]) =>
      sumNeeds(coatNeeds({ surfaces, buildUps: builds, coats: [], revisionById }).needs, 0).sigmaL;
    // 10 m² at 100 µm, 50 % solids, 10 % lost: 2.222 L each; ± 15 % of 4.444 L as two σ is 0.333 L.
    expect(sigma(zones)).toBeCloseTo((4.4444 * 0.15) / 2, 4);
    const taped = zones.map((z) => ({ ...z, area: { method: 'girths' as const } }));
    expect(sigma(taped)).toBeCloseTo(((2.2222 * 0.15) / 2) * Math.SQRT2, 4);
  });
});

describe('the shelf shared among boats', () => {
  const need = (likelyL: number, more: Partial<CoatNeed> = {}): CoatNeed => ({
    zone: 'z',
    surfaceId: 'z',
    zoneName: 'z',
    layerId: 'l',
    number: 1,
    sheetId: 'barrier',
    sheetRevisionId: barrier.id,
    patch: false,
    likelyL,
    areaShare: 0,
    thinnerL: 0,
    method: 'roller',
    tipped: false,
    areaM2: 9,
    abraded: false,
    batches: 1,
    ...more,
  });
  const states = (lots: Lot[], pours: Parameters<typeof lotStates>[0]['pours'] = []) =>
    lotStates({ lots, pours, today: '2026-05-14', shelfOf: () => ({ shelfOpenMonths: 12 }) });

  it('gives the first boat what it wants and the next what that leaves, 3 : 1', () => {
    const shared = shareShelf({
      lots: states([lot('Base', 4.5), lot('Hardener', 1.5)]),
      boats: [
        { boatId: 'a', needs: [need(4)] },
        { boatId: 'b', needs: [need(4, { patch: true })] },
      ],
      sheetOf,
      chance: 0.5,
    });
    expect(shared.callable.get('a')?.get('barrier')).toEqual([4.5, 1.5]);
    expect(shared.callable.get('b')?.get('barrier')).toEqual([1.5, 0.5]);
    expect(shared.reserved).toEqual([
      { sheetId: 'barrier', boatId: 'a', takenL: [3, 1], patchesL: [0, 0] },
      { sheetId: 'barrier', boatId: 'b', takenL: [1.5, 0.5], patchesL: [1.5, 0.5] },
    ]);
    expect(shared.freeL.get('barrier')).toEqual([0, 0]);
  });
  it('never gives away more than stands there, nor anything stale', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 20, noNaN: true }), { minLength: 1, maxLength: 5 }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        fc.double({ min: 0, max: 10, noNaN: true }),
        (wants, baseL, hardenerL) => {
          const lots = states([
            lot('Base', baseL),
            lot('Hardener', hardenerL),
            lot('Base', 9, { expiresOn: '2026-01-01' }),
          ]);
          const shared = shareShelf({
            lots,
            boats: wants.map((w, i) => ({ boatId: String(i), needs: [need(w)] })),
            sheetOf,
            chance: 0.9,
          });
          const taken = [0, 1].map((p) => shared.reserved.reduce((sum, r) => sum + (r.takenL[p] as number), 0));
          expect((taken[0] as number) + (shared.freeL.get('barrier')?.[0] as number)).toBeCloseTo(baseL, 6);
          expect((taken[1] as number) + (shared.freeL.get('barrier')?.[1] as number)).toBeCloseTo(hardenerL, 6);
        },
      ),
    );
  });
  it('a batch opens a tin that nobody had said was open, and its open shelf life runs from there', () => {
    const [tin] = states(
      [lot('Base', 5, { measuredAt: 0 })],
      [{ sheetId: 'barrier', part: 'Base', litres: 2, at: Date.UTC(2025, 3, 1) }],
    );
    expect(tin).toMatchObject({ nowL: 3, tappedOn: '2025-04-01', staleFrom: '2026-04-01', stale: true });
  });
});

describe('a job’s list and its money', () => {
  const layers = [layer(barrier), layer(barrier), layer(copper, { thinnerShare: 0.05 })];
  const { needs } = needsOf([zone('hull', { areaShare: 0 }), zone('keel', { areaM2: 4.5, areaShare: 0 })], layers);
  const products = jobList({ needs, sheetOf, onHandOf: () => [], chance: 0.5 });

  it('by hand: barrier 2·(2 + 1) = 6 L is 4 + 2 × 1 = 160.00; antifouling 3 L is 2 × 2.5 = 180.00', () => {
    expect(products.map((p) => [p.sheetId, Number(p.wantL.toFixed(6)), p.purchase?.costMinor])).toEqual([
      ['barrier', 6, 16_000],
      ['copper', 3, 18_000],
    ]);
    expect(products[1]?.thinnerL).toBeCloseTo(0.15, 9);
    expect(litreMinor(products[0] as JobProduct)).toBeCloseTo(16_000 / 6, 9);
  });
  it('groups by supplier, those without one last, thinner with its paint', () => {
    const consumables = consumablesFor({ rules: USUAL_CONSUMABLES, work: workOf({ needs, borderM: 0, days: 1 }) });
    const thinners = thinnersToBuy({ products, onHandL: () => 0 });
    const lists = shoppingLists({ products, thinners, consumables });
    expect(lists.map((l) => l.supplier)).toEqual(['East', 'West', '']);
    expect(lists[1]?.lines.map((l) => [l.kind, l.count, l.litres])).toEqual([
      ['paint', 2, 5],
      ['thinner', 1, expect.closeTo(0.15, 9)],
    ]);
    expect(lists.reduce((sum, l) => sum + l.minor, 0)).toBe(
      16_000 + 18_000 + consumables.reduce((sum, c) => sum + (c.costMinor ?? 0), 0),
    );
  });
  it('what coats take and what the packs cost agree, but for what stays in the tins', () => {
    const money = jobMoney({ needs, products, consumables: [], yardDays: 10, yardCostPerDayMinor: 2500 });
    expect(money).toMatchObject({ packsMinor: 34_000, yardMinor: 25_000, totalMinor: 59_000, unpriced: [] });
    // Barrier is bought to the litre, so its coats come to its packs; 2 of 5 L of antifouling stay over.
    const of = (id: string) =>
      money.coats
        .filter((c) => needs.find((n) => n.layerId === c.layerId && n.surfaceId === c.surfaceId)?.sheetId === id)
        .reduce((sum, c) => sum + (c.minor as number), 0);
    expect(of('barrier')).toBeCloseTo(16_000, -1);
    expect(of('copper')).toBe(Math.round((18_000 * 3) / 5));
    expect(money.zones.map((z) => z.name)).toEqual(['hull', 'keel']);
  });
  it('says what has no price instead of counting it as nothing', () => {
    const unpriced = jobList({
      needs,
      sheetOf: (id) => ({ ...(sheetOf(id) as SheetBody), packs: [{ name: 'x', sizeL: 5, priceMinor: null }] }),
      onHandOf: () => [],
      chance: 0.5,
    });
    expect(
      jobMoney({ needs, products: unpriced, consumables: [], yardDays: 3, yardCostPerDayMinor: null }).unpriced,
    ).toEqual([barrier.body.name, copper.body.name, 'days in the yard']);
  });
  it('points at a cheaper product of the same kind only, and counts its own solids', () => {
    const cheap = {
      ...sheet,
      name: 'Plain barrier',
      chemistry: 'epoxy' as const,
      solids: 0.25,
      packs: [{ name: '5 L', sizeL: 5, priceMinor: 5000 }],
    };
    const product = { ...(products[0] as JobProduct), sheet: { ...barrier.body, chemistry: 'epoxy' as const } };
    const found = cheaperProducts({
      product,
      sheets: [
        { id: 'cheap', body: cheap },
        { id: 'other', body: { ...cheap, kind: 'primer' } },
      ],
      chance: 0.5,
    });
    // Half the solids, twice the litres: 12 L in three tins at 50.00.
    expect(found).toEqual([
      { sheetId: 'cheap', name: 'Plain barrier', costMinor: 15_000, litres: expect.closeTo(12, 6) },
    ]);
    expect(
      cheaperProducts({
        product,
        sheets: [{ id: 'dear', body: { ...cheap, packs: [{ name: '5 L', sizeL: 5, priceMinor: 9000 }] } }],
        chance: 0.5,
      }),
    ).toEqual([]);
  });
});
