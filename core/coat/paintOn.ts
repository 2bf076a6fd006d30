import type { Coat } from './fold';
import { STRIPE_SHARE, type Taking } from '../film/layer';
import type { FinishedBody } from '../model/log';
import type { SheetBody } from '../model/sheet';

/** Where the paint of a coat went, litres as it was in the pot. Null: cannot be told. */
export interface PaintOn {
  /** Mixed for it, and what went on of batches mixed before. */
  readonly mixedL: number;
  readonly leftL: number;
  /** On tray, roller and ground: as it was said, or else as the build-up reckons. */
  readonly lostL: number | null;
  /** On the hull: as it was said, or else what left the pot less what was lost. */
  readonly onL: number | null;
  /** Of that, what makes the film over the area: a profile and a stripe coat have the rest. */
  readonly filmL: number | null;
}

/**
 * Where the paint of a finished coat went. What was said counts; a loss is taken off once, where nobody said how much
 * is on the hull.
 * @param options.layer as it was planned; null where the plan is gone: no loss, profile or stripe coat then
 * @param options.wetMicron mean of the comb; null where it was not combed
 * @throws RangeError on impossible input
 * @example paintOn({ coat: coats[0], sheet, layer, wetMicron: 200 }).onL // → 2.4
 */
export function paintOn(options: {
  coat: Pick<Coat, 'batches' | 'litresOn' | 'leftL' | 'lostL' | 'thinner'>;
  sheet: Pick<SheetBody, 'solids'>;
  layer: Taking | null;
  wetMicron: number | null;
}): PaintOn {
  const { coat, sheet, layer, wetMicron } = options;
  const pouredL = coat.batches.reduce((sum, b) => sum + b.litres, 0);
  const leftL = coat.leftL ?? 0;
  const known = pouredL > 0;
  const lostL =
    coat.lostL ??
    (!known ? null : coat.litresOn === null ? pouredL * (layer?.loss ?? 0) : Math.max(0, pouredL - coat.litresOn));
  const onL = coat.litresOn ?? (known ? Math.max(0, pouredL - (lostL ?? 0)) : null);
  return {
    mixedL: pouredL + (known ? leftL : 0),
    leftL,
    lostL,
    onL,
    filmL: onL === null || wetMicron === null ? null : ofFilm(onL, { coat, sheet, layer, wetMicron }),
  };
}

/** What of the paint on the hull makes its film: shares of what a m² takes. */
function ofFilm(
  onL: number,
  {
    coat: { thinner },
    sheet: { solids },
    layer,
    wetMicron,
  }: { coat: Pick<Coat, 'thinner'>; sheet: Pick<SheetBody, 'solids'>; layer: Taking | null; wetMicron: number },
): number {
  const film = wetMicron / 1000;
  const inProfile = ((layer?.deadVolumeLPerM2 ?? 0) / solids) * (1 + thinner);
  const besides = 1 + (layer?.absorption ?? 0) + (layer?.stripe ? STRIPE_SHARE : 0);
  return (onL * film) / (film + inProfile) / besides;
}

/** Figures typed by eye may be off by so much. */
const BY_EYE = 1.02;

/**
 * What is wrong with what is said of a coat's paint when it is finished; null where nothing is. `challenge` may stand
 * when it is said again: the log may lack a batch.
 * @param options.mixedL of all batches logged on it; 0 where none was
 * @example
 *   finishProblem({ said: { litresOn: 3, leftL: null, lostL: null }, mixedL: 2.4 }).challenge // → true
 */
export function finishProblem(options: {
  said: FinishedBody;
  mixedL: number;
}): { readonly text: string; readonly challenge: boolean } | null {
  const { said, mixedL } = options;
  const figures = [said.litresOn, said.leftL ?? null, said.lostL ?? null];
  if (figures.some((f) => f !== null && (Number.isNaN(f) || f < 0)))
    return { text: 'The litres cannot be read. Type them again or leave them empty.', challenge: false };
  if (mixedL <= 0) return null;
  if ((said.leftL ?? 0) > mixedL * BY_EYE)
    return { text: 'More is left than was mixed for it. Type what is left in the pot again.', challenge: false };
  const sum = figures.reduce<number>((total, f) => total + (f ?? 0), 0);
  if (sum > mixedL * BY_EYE)
    return {
      text: 'That is more than was mixed for it. Check the figures, or log the batch that is missing under Mix.',
      challenge: true,
    };
  return null;
}
