import { MIL_MICRON } from '#core/units/quantities';

/** Where things stand in the section: the rows of coats beside it and the layers in it, px. One home, so that leaders meet both. */
export interface Pitch {
  /** A coat's row, and the strip beneath it that tells how it goes onto what lies there. */
  readonly row: number;
  readonly strip: number;
}
/** Under a thumb, and under a mouse. */
export const ROOMY: Pitch = { row: 46, strip: 30 };
export const DENSE: Pitch = { row: 38, strip: 24 };
export const TOP = 30;
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
