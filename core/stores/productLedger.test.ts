import { describe, expect, it } from 'vitest';
import {
  ledgerBounds,
  lotStates,
  mergedPours,
  productFacts,
  productLedger,
  thinnersToBuy,
  tinsFor,
  type Lot,
} from '../index';
import { sheet } from '../sheet/example.fixture';

const DAY = 86_400_000;
const near = (v: number) => expect.closeTo(v, 9);
const tin = (id: string, part: string, looks: [at: number, leftL: number][], more: Partial<Lot> = {}): Lot => {
  const [last, ...before] = [...looks].reverse();
  return {
    id,
    sheetId: 's',
    part,
    sizeL: 4,
    batchNumber: '',
    supplier: '',
    boughtOn: null,
    openedOn: null,
    expiresOn: null,
    leftL: last![1],
    measuredAt: last![0] * DAY,
    weighed: null,
    past: before.reverse().map(([at, leftL]) => ({ at: at * DAY, leftL })),
    note: '',
    ...more,
  };
};
const batch = (
  id: string,
  day: number,
  base: number,
  hardener: number,
  from?: { part: string; lotId: string; litres: number }[],
) => ({
  id,
  at: day * DAY,
  partsL: [base, hardener],
  ...(from ? { from } : {}),
});

describe('the ledger of a product, out of its tins, by hand', () => {
  const parts = ['Base', 'Hardener'];
  const lots = [
    tin('b', 'Base', [
      [0, 3],
      [4, 2.25],
    ]),
    tin('h', 'Hardener', [
      [0, 1],
      [4, 0.63],
    ]),
  ];
  const batches = [batch('a', 1, 0.75, 0.25)];
  it('a tin comes in as it was first looked at; both weighed on one day are one look', () => {
    expect(productFacts({ parts, lots, batches })).toEqual({
      kits: [
        { at: 0, partsL: [3, 0] },
        { at: 0, partsL: [0, 1] },
      ],
      batches: [{ id: 'a', at: DAY, partsL: [0.75, 0.25] }],
      weighings: [{ at: 4 * DAY, leftL: [2.25, 0.63] }],
    });
  });
  it('0.12 L of hardener unexplained makes the batch suspect, about the bounds it was held to', () => {
    const ledger = productLedger({ parts, ratio: [3, 1], lots, batches, toleranceShare: 0.05 });
    expect(ledger.checks[0]).toMatchObject({ unexplainedL: [near(0), near(0.12)], suspects: ['a'] });
    const [bounds] = ledgerBounds({ ...ledger, toleranceShare: 0.05 });
    // 5 % of 0.75 and of 0.25 L.
    expect(bounds?.highL).toEqual([near(0.0375), near(0.0125)]);
  });
  it('only the hardener weighed: the base is as the log has it', () => {
    const one = [
      tin('b', 'Base', [[0, 3]]),
      tin('h', 'Hardener', [
        [0, 1],
        [4, 0.75],
      ]),
    ];
    expect(productFacts({ parts, lots: one, batches }).weighings).toEqual([{ at: 4 * DAY, leftL: [near(2.25), 0.75] }]);
  });
  it('a second kit that comes in later is no weighing, and batches before the first tin do not count', () => {
    const later = [...lots, tin('b2', 'Base', [[2, 3]]), tin('h2', 'Hardener', [[2, 1]])];
    const ledger = productLedger({
      parts,
      ratio: [3, 1],
      lots: later,
      batches: [batch('before', -1, 9, 3), ...batches],
      toleranceShare: 0.05,
    });
    expect(ledger.batches.map((b) => b.id)).toEqual(['a']);
    expect(ledger.checks[0]).toMatchObject({ expectedL: [near(5.25), near(1.75)], leftL: [near(5.25), near(1.63)] });
  });
});

describe('tins that a batch names', () => {
  const open = tin('open', 'Base', [[0, 1]], { openedOn: '1970-01-01' });
  const full = tin('full', 'Base', [[0, 4]]);
  const now = (pours: Parameters<typeof lotStates>[0]['pours']) =>
    lotStates({ lots: [open, full], pours, today: '1970-01-05', shelfOf: () => ({}) }).map((s) => s.nowL);
  const pour = { sheetId: 's', part: 'Base', litres: 0.5, at: DAY };
  it('give what was poured from them; where none is named the open one goes first', () => {
    expect(now([pour])).toEqual([0.5, 4]);
    expect(now([{ ...pour, lotId: 'full' }])).toEqual([1, 3.5]);
    // More than is in it: the rest comes off the others.
    expect(now([{ ...pour, litres: 1.5, lotId: 'open' }])).toEqual([0, 3.5]);
  });
  it('told together, tins stay apart', () => {
    const merged = mergedPours([{ ...pour, lotId: 'full' }, pour, { ...pour, lotId: 'full' }], [open, full]);
    expect(merged.map((p) => [p.lotId, p.litres])).toEqual([
      ['full', 1],
      [undefined, 0.5],
    ]);
  });
  it('suggested: opened first, oldest first, past its date only when nothing else is left', () => {
    const states = lotStates({
      lots: [full, open, tin('old', 'Base', [[0, 2]], { expiresOn: '1969-01-01' })],
      pours: [],
      today: '1970-01-05',
      shelfOf: () => ({}),
    });
    const ask = (wantL: number) =>
      tinsFor({ states, of: { sheetId: 's', part: 'Base' }, wantL }).map((f) => [f.lotId, f.litres]);
    expect(ask(0.6)).toEqual([['open', 0.6]]);
    expect(ask(2)).toEqual([
      ['open', 1],
      ['full', 1],
    ]);
    expect(ask(6)).toEqual([
      ['open', 1],
      ['full', 4],
      ['old', 1],
    ]);
  });
  it('thinner of one name is the same whichever paint it went into', () => {
    const thinner = tin('t', 'T7', [[0, 1]], { sheetId: 'other' });
    const states = (thin: boolean) =>
      lotStates({
        lots: [thinner],
        pours: [{ sheetId: 's', part: 'T7', litres: 0.2, at: DAY, ...(thin ? { thinner: true } : {}) }],
        today: '1970-01-05',
        shelfOf: () => ({}),
      })[0]!.nowL;
    expect(states(true)).toBeCloseTo(0.8, 9);
    expect(states(false)).toBe(1);
  });
});

describe('thinner to buy', () => {
  const with7 = (name: string, packs?: { name: string; sizeL: number; priceMinor: number | null }[]) => ({
    ...sheet,
    name,
    thinner: { name: 'T7', maxShare: 0.1, of: 'mixed' as const, ...(packs ? { packs } : {}) },
  });
  const products = [
    { sheet: with7('one'), thinnerL: 0.4 },
    { sheet: with7('two', [{ name: '1 L', sizeL: 1, priceMinor: 900 }]), thinnerL: 0.9 },
  ];
  it('of one name is bought once, in packs, the shelf first', () => {
    const ask = (onHand: number) => thinnersToBuy({ products, onHandL: () => onHand });
    expect(ask(0)).toMatchObject([{ name: 'T7', needL: near(1.3), purchase: { costMinor: 1800 } }]);
    expect(ask(0.5)[0]).toMatchObject({ needL: near(0.8), purchase: { costMinor: 900 } });
    expect(ask(2)).toEqual([]);
  });
  it('without packs it is asked for by the litre', () => {
    expect(thinnersToBuy({ products: products.slice(0, 1), onHandL: () => 0 })[0]).toMatchObject({ purchase: null });
  });
});
