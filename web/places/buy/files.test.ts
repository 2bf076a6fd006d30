import { describe, expect, it } from 'vitest';
import type { SupplierList } from '#core/stores/list';
import type { BoatView } from '../../data/store';
import { casesWords, packWords } from '../../parts/words';
import { lineCount, shoppingCells, shoppingPage, supplierWords } from './files';
import type { Shopping } from './useShopping';

const lists: SupplierList[] = [
  {
    supplier: 'East',
    minor: 28_800,
    lines: [
      { kind: 'paint', what: '=Barrier', pack: '5 L kit', count: 1, litres: 5, minor: 25_000 },
      { kind: 'paint', what: '=Barrier', pack: 'hardener', count: 2, litres: 0.5, minor: 3800 },
      { kind: 'thinner', what: 'Thinner 7', pack: '', count: 1, litres: 0.41666, minor: null },
    ],
  },
  {
    supplier: '',
    minor: 1200,
    lines: [{ kind: 'consumable', what: 'Brushes', pack: '', count: 7, litres: null, minor: 1200 }],
  },
];
const shopping = {
  lists,
  job: { chance: 0.9, currency: 'EUR' },
  money: { packsMinor: 28_800, consumablesMinor: 1200, unpriced: ['Thinner 7'] },
} as unknown as Shopping;
const view = { boat: { name: 'Punt', place: 'Nowhere' } } as unknown as BoatView;

describe('the shopping list on paper', () => {
  it('has a row a line, figures bare, what is not known left empty', () => {
    expect(shoppingCells(shopping)).toEqual([
      ['supplier', 'kind', 'what', 'pack', 'count', 'litres', 'price EUR'],
      ['East', 'paint', '=Barrier', '5 L kit', '1', '5', '250.00'],
      ['East', 'paint', '=Barrier', 'hardener', '2', '0.5', '38.00'],
      ['East', 'thinner', 'Thinner 7', '', '1', '0.417', ''],
      ['', 'consumable', 'Brushes', '', '7', '', '12.00'],
    ]);
  });
  it('counts packs by name, pieces by number, thinner as it is sold', () => {
    expect(lists.flatMap((l) => l.lines.map(lineCount))).toEqual(['1 × 5 L kit', '2 × hardener', 'as sold', '7']);
    expect(lists.map((l) => supplierWords(l.supplier))).toEqual(['East', 'no supplier named']);
  });
  it('as a page tells every line, the sum, and what has no price; each box to tick is its own', () => {
    const page = shoppingPage(view, shopping, { system: 'us' }, '14 May 2026');
    const told = JSON.stringify(page.content);
    for (const words of [
      'Shopping list, Punt',
      'Nowhere, 14 May 2026',
      '9 cases of 10',
      'Thinner 7',
      'Brushes',
      '1.32 US gal',
      '300.00',
      'without Thinner 7',
      'Follow the maker’s current sheet',
    ])
      expect(told).toContain(words);
    const boxes = (page.content as { table?: { body: unknown[][] } }[]).flatMap(
      (part) => part.table?.body.slice(1).map((row) => row[0]) ?? [],
    );
    expect(boxes).toHaveLength(4);
    expect(new Set(boxes).size).toBe(4);
  });
});

describe('words of buying', () => {
  it.each([
    [0.9, '9 cases of 10'],
    [0.5, '5 cases of 10'],
    [0.95, '95 cases of 100'],
    [0.99, '99 cases of 100'],
    [0.999, '99.9 cases of 100'],
  ])('%d is %s', (chance, words) => {
    expect(casesWords(chance)).toBe(words);
  });
  it('packs are asked for over the counter, by size where they have no name', () => {
    expect(
      packWords([
        { pack: { name: '2.5 L kit', sizeL: 2.5 }, count: 2 },
        { pack: { name: '', sizeL: 0.75 }, count: 1 },
      ]),
    ).toBe('2 × 2.5 L kit + 1 × 0.75 L');
    expect(packWords([])).toBe('');
  });
});
