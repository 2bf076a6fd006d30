import { MIL_MICRON } from '#core/units/quantities';

/** Where things stand in the section: the rows of coats beside it and the layers in it, px. One home, so that leaders meet both. */
export interface Pitch {
  /** A coat's row, and the strip beneath it that tells how it goes onto what lies there. */
  readonly row: number;
  readonly strip: number;
}
/** Under a thumb, and under a mouse, with one line of text each or two. */
const ROOMY = { row: [46, 56], strip: [44, 46] } as const;
const DENSE = { row: [38, 50], strip: [24, 42] } as const;

/** Room that a letter takes in a row and in a strip, px, where a rem is 16. */
const LETTER = { row: 7.6, strip: 6.6 };

/**
 * Heights that hold the texts whole: two lines where one of them does not fit into one.
 * @param options.rowRoom px that the texts of rows have; `stripRoom` those of the strips
 * @param options.rem px of the text's own size
 */
export function pitchFor(options: {
  narrow: boolean;
  rowRoom: number;
  stripRoom: number;
  rem: number;
  rows: readonly string[];
  strips: readonly string[];
}): Pitch {
  const { narrow, rowRoom, stripRoom, rem, rows, strips } = options;
  const size = rem / 16;
  const long = (texts: readonly string[], letter: number, room: number) =>
    texts.some((t) => t.length * letter * size > room) ? 1 : 0;
  const of = narrow ? ROOMY : DENSE;
  return {
    row: of.row[long(rows, LETTER.row, rowRoom)] * size,
    strip: of.strip[long(strips, LETTER.strip, stripRoom)] * size,
  };
}

export const TOP = 44;
/** Left of the coats: the ruler. */
export const LEFT = 40;
export const GROUND = 40;
const LEAST_HEIGHT = 240;
/** A build-up thinner than this is drawn to this scale, so that one sealer coat does not fill the page. */
const LEAST_MICRON = 120;

export interface Layout {
  readonly height: number;
  /** y of the substrate's face. */
  readonly groundY: number;
  /** px a µm. */
  readonly scale: number;
}

/** @param options.micron what must fit: the film planned or measured, and the target */
export function layoutOf({ coats, micron, pitch }: { coats: number; micron: number; pitch: Pitch }): Layout {
  const listed = coats * (pitch.row + pitch.strip);
  const groundY = TOP + Math.max(listed, LEAST_HEIGHT);
  return { height: groundY + GROUND, groundY, scale: (groundY - TOP) / Math.max(micron, LEAST_MICRON) };
}

/** Middle of the k-th row from the top. */
export const rowY = (k: number, { row, strip }: Pitch): number => TOP + k * (row + strip) + row / 2;

/** Where a coat is drawn, px. */
export interface Band {
  readonly y: number;
  readonly h: number;
}

/** Films stacked from the substrate out. */
export function bandsOf(films: readonly number[], { groundY, scale }: Pick<Layout, 'groundY' | 'scale'>): Band[] {
  let below = 0;
  return films.map((film) => {
    below += film;
    return { y: groundY - below * scale, h: film * scale };
  });
}

/** A film as a hand drags it: whole tens of a mil in US units; else 5 µm, or 1 µm where the coat is thin. */
export function snapped(micron: number, from: number, us: boolean): number {
  const step = us ? MIL_MICRON / 10 : from < 40 ? 1 : 5;
  return Math.max(step, Number((Math.round(micron / step) * step).toFixed(2)));
}
