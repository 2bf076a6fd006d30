import type { CanvasLine, Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { StickMark } from '#core/mix/stick';

/** Points of a page to the millimetre: 72 to the inch of 25.4 mm. */
export const PT_PER_MM = 72 / 25.4;

/** The sheet that is common where the device is. */
const SHEETS_MM = { A4: [210, 297], LETTER: [215.9, 279.4] } as const;

/** Left edge of the stick and where it stands on the sheet, mm from its lower edge. */
export const STICK = { leftMm: 30, widthMm: 26, footMm: 30 } as const;
/** Left edge of the ruler. */
export const RULER = { leftMm: 130, lengthMm: 100 } as const;

const pt = (mm: number) => mm * PT_PER_MM;

/**
 * A mixing stick at true scale, to cut out and stand in the pot, beside a ruler to check the printer by.
 * @param options.note what it is for, in a line
 */
export function stickPage(options: {
  title: string;
  note: string;
  marks: readonly StickMark[];
  paper: keyof typeof SHEETS_MM;
  font: string;
}): TDocumentDefinitions {
  const { title, note, marks, paper, font } = options;
  const [, heightMm] = SHEETS_MM[paper];
  const yOf = (mm: number) => pt(heightMm - STICK.footMm - mm);
  const line = (x1: number, y1: number, x2: number, y2: number, lineWidth = 0.6): CanvasLine => ({
    type: 'line',
    x1: pt(x1),
    y1,
    x2: pt(x2),
    y2,
    lineWidth,
    lineColor: '#000000',
  });
  const top = Math.max(60, ...marks.map((m) => m.heightMm + 18));
  const right = STICK.leftMm + STICK.widthMm;
  const outline = [
    line(STICK.leftMm, yOf(0), right, yOf(0), 1),
    line(STICK.leftMm, yOf(0), STICK.leftMm, yOf(top)),
    line(right, yOf(0), right, yOf(top)),
    line(STICK.leftMm, yOf(top), right, yOf(top)),
  ];
  const ticks = Array.from({ length: RULER.lengthMm + 1 }, (_, mm) =>
    line(RULER.leftMm, yOf(mm), RULER.leftMm + (mm % 10 === 0 ? 9 : mm % 5 === 0 ? 6 : 3.5), yOf(mm), 0.3),
  );
  const text = (words: string, xMm: number, y: number, fontSize: number, width = 80): Content => ({
    absolutePosition: { x: pt(xMm), y },
    columns: [{ width: pt(width), text: words, fontSize }],
  });
  return {
    info: { title },
    pageSize: paper,
    pageMargins: [0, 0, 0, 0],
    defaultStyle: { font, fontSize: 11 },
    content: [
      text(title, STICK.leftMm, pt(10), 15, 160),
      text(
        `${note} Print at 100 %, “actual size”; the ruler must measure ${RULER.lengthMm} mm.`,
        STICK.leftMm,
        pt(18),
        10,
        160,
      ),
      {
        absolutePosition: { x: 0, y: 0 },
        canvas: [
          ...outline,
          ...marks.map((m) => line(STICK.leftMm, yOf(m.heightMm), right, yOf(m.heightMm), 1)),
          ...ticks,
        ],
      },
      ...marks.map((m) => text(`${m.name}  ${m.heightMm.toFixed(1)} mm`, right + 2, yOf(m.heightMm) - 7, 11)),
      text('stands on the bottom of the pot', right + 2, yOf(0) - 7, 9),
      text('0', RULER.leftMm + 10, yOf(0) - 6, 9),
      text(`${RULER.lengthMm} mm`, RULER.leftMm + 10, yOf(RULER.lengthMm) - 6, 9),
    ],
  };
}
