import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { ShoppingLine } from '#core/stores/list';
import { formatQuantity, type UnitChoice } from '#core/units/format';
import type { BoatView } from '../../data/store';
import { PAGE_FONT } from '../../parts/pdf';
import { casesWords, moneyWords } from '../../parts/words';
import type { Shopping } from './useShopping';

/** Supplier of a line as it is told. */
export const supplierWords = (supplier: string): string => supplier || 'no supplier named';

/** How many of which pack. */
export const lineCount = (line: ShoppingLine): string =>
  line.kind === 'thinner' && !line.pack ? 'as sold' : line.pack ? `${line.count} × ${line.pack}` : String(line.count);

/** The list as rows of a table, units in the headings. */
export function shoppingCells({ lists, job }: Shopping): string[][] {
  return [
    ['supplier', 'kind', 'what', 'pack', 'count', 'litres', `price ${job.currency}`],
    ...lists.flatMap((list) =>
      list.lines.map((l) => [
        list.supplier,
        l.kind,
        l.what,
        l.pack,
        String(l.count),
        l.litres === null ? '' : String(Number(l.litres.toFixed(3))),
        l.minor === null ? '' : (l.minor / 100).toFixed(2),
      ]),
    ),
  ];
}

/** A box to tick with a pen; the writer's own face has none. Each cell its own: the writer marks what it has laid out. */
const tick = (): TableCell => ({
  canvas: [{ type: 'rect', x: 0, y: 2, w: 9, h: 9, lineWidth: 0.8, lineColor: '#000000' }],
});

/** The list as a page to take to the shop. */
export function shoppingPage(view: BoatView, shopping: Shopping, units: UnitChoice, day: string): TDocumentDefinitions {
  const { lists, money, job } = shopping;
  const amount = (minor: number | null) => (minor === null ? 'ask' : moneyWords(minor, job.currency));
  const content: Content[] = [
    { text: `Shopping list, ${view.boat.name}`, fontSize: 20, bold: true },
    {
      text: `${view.boat.place ? `${view.boat.place}, ` : ''}${day}. Enough in ${casesWords(job.chance)}; the shelf is used first.`,
      margin: [0, 2, 0, 10],
    },
    ...lists.flatMap((list): Content[] => [
      { text: supplierWords(list.supplier), fontSize: 13, bold: true, margin: [0, 8, 0, 3] },
      {
        layout: 'lightHorizontalLines',
        table: {
          headerRows: 1,
          widths: [14, '*', 'auto', 'auto', 'auto'],
          body: [
            ['', 'What', 'Pack', { text: 'Litres', alignment: 'right' }, { text: 'Price', alignment: 'right' }],
            ...list.lines.map((l): TableCell[] => [
              tick(),
              l.what,
              lineCount(l),
              { text: l.litres === null ? '' : formatQuantity('volume', l.litres, units), alignment: 'right' },
              { text: amount(l.minor), alignment: 'right' },
            ]),
          ],
        },
      },
    ]),
    {
      text: `In all ${moneyWords(money.packsMinor + money.consumablesMinor, job.currency)}${money.unpriced.length > 0 ? `, without ${money.unpriced.join(', ')}` : ''}.`,
      bold: true,
      margin: [0, 12, 0, 4],
    },
    { text: 'Follow the maker’s current sheet and your local rules.', fontSize: 9 },
  ];
  return {
    info: { title: `Shopping list, ${view.boat.name}` },
    pageSize: 'A4',
    pageMargins: [48, 48, 48, 48],
    defaultStyle: { font: PAGE_FONT, fontSize: 11 },
    content,
  };
}
