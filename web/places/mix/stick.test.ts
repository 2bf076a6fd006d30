import pdfmake from 'pdfmake';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { expect, it } from 'vitest';
import { stickMarks } from '#core/mix/stick';
import { PT_PER_MM, RULER, STICK, stickPage } from './stick';

/** The page as it is written, with the font the pages use. */
async function written(paper: 'A4' | 'LETTER', marks: Parameters<typeof stickPage>[0]['marks']): Promise<Uint8Array> {
  const pdfMake = pdfmake as unknown as {
    setFonts(fonts: object): void;
    setUrlAccessPolicy(allows: () => boolean): void;
    setLocalAccessPolicy(allows: (path: string) => boolean): void;
    createPdf(page: object): { getBuffer(): Promise<Buffer> };
  };
  const face = new URL(
    '../../../node_modules/@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf',
    import.meta.url,
  ).pathname;
  pdfMake.setUrlAccessPolicy(() => false);
  pdfMake.setLocalAccessPolicy((path) => path === face);
  pdfMake.setFonts({ Face: { normal: face, bold: face } });
  const page = stickPage({ title: 'Mixing stick', note: '1.00 L in Tub.', marks, paper, font: 'Face' });
  return new Uint8Array(await pdfMake.createPdf(page).getBuffer());
}

type Matrix = [number, number, number, number, number, number];
const times = (a: Matrix, b: Matrix): Matrix => [
  a[0] * b[0] + a[2] * b[1],
  a[1] * b[0] + a[3] * b[1],
  a[0] * b[2] + a[2] * b[3],
  a[1] * b[2] + a[3] * b[3],
  a[0] * b[4] + a[2] * b[5] + a[4],
  a[1] * b[4] + a[3] * b[5] + a[5],
];

/** Level lines on the page, mm from its lower and left edge, as another program reads them. */
async function levelLines(data: Uint8Array) {
  const page = await (await getDocument({ data, verbosity: 0 }).promise).getPage(1);
  const { fnArray, argsArray } = await page.getOperatorList();
  let matrix: Matrix = [1, 0, 0, 1, 0, 0];
  const stack: Matrix[] = [];
  const lines: { yMm: number; fromMm: number; toMm: number }[] = [];
  fnArray.forEach((op, i) => {
    const args = argsArray[i] as unknown[];
    if (op === OPS.save) stack.push(matrix);
    else if (op === OPS.restore) matrix = stack.pop() ?? matrix;
    else if (op === OPS.transform) matrix = times(matrix, args as unknown as Matrix);
    else if (op === OPS.constructPath) {
      const [path] = args[1] as [Float32Array | null];
      // A move and a line: 0 x y 1 x y.
      if (path?.length !== 6) return;
      const at = (x: number, y: number) => [
        (matrix[0] * x + matrix[2] * y + matrix[4]) / PT_PER_MM,
        (matrix[1] * x + matrix[3] * y + matrix[5]) / PT_PER_MM,
      ];
      const [x1, y1] = at(path[1]!, path[2]!) as [number, number];
      const [x2, y2] = at(path[4]!, path[5]!) as [number, number];
      if (Math.abs(y1 - y2) < 0.01) lines.push({ yMm: y1, fromMm: Math.min(x1, x2), toMm: Math.max(x1, x2) });
    }
  });
  return { lines, view: page.view, text: (await page.getTextContent()).items.map((t) => ('str' in t ? t.str : '')) };
}

const pot = { bottomMm: 120, topMm: 160, depthMm: 180 };
const marks = stickMarks({
  pot,
  pours: [
    { name: 'Base', litres: 0.75 },
    { name: '+ Hardener', litres: 0.25 },
    { name: '+ T7', litres: 0.05 },
  ],
});

it.each(['A4', 'LETTER'] as const)(
  'marks on %s stand within 0.2 mm of their height, by another reader of PDF',
  async (paper) => {
    const { lines, text } = await levelLines(await written(paper, marks));
    const onStick = lines
      .filter((l) => Math.abs(l.fromMm - STICK.leftMm) < 0.2 && Math.abs(l.toMm - STICK.leftMm - STICK.widthMm) < 0.2)
      .map((l) => l.yMm - STICK.footMm)
      .sort((a, b) => a - b);
    // Its foot, three marks, its top.
    expect(onStick).toHaveLength(5);
    expect(Math.abs(onStick[0]!)).toBeLessThan(0.2);
    marks.forEach((m, i) => expect(Math.abs(onStick[i + 1]! - m.heightMm)).toBeLessThan(0.2));
    expect(text.join(' ')).toContain('+ Hardener');
  },
);

it('the ruler beside it is 100 mm long, a tick at each', async () => {
  const { lines, view } = await levelLines(await written('A4', marks));
  const ticks = lines
    .filter((l) => Math.abs(l.fromMm - RULER.leftMm) < 0.2)
    .map((l) => l.yMm)
    .sort((a, b) => a - b);
  expect(ticks).toHaveLength(RULER.lengthMm + 1);
  expect(ticks[100]! - ticks[0]!).toBeCloseTo(100, 1);
  // A4 [P: ISO 216]: 210 × 297 mm.
  expect(view.map((v) => Math.round(v / PT_PER_MM))).toEqual([0, 0, 210, 297]);
});
