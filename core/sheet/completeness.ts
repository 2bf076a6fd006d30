import { partShares } from '../mix/splitBatch';
import type { SheetBody } from '../model/sheet';

export interface Gap {
  readonly field: string;
  /** What cannot be worked out until it is filled, one sentence. */
  readonly cannot: string;
}

/** One thing that can be worked out from a sheet, and what it takes. */
interface Answer {
  readonly field: string;
  readonly cannot: string;
  readonly wanted: (sheet: SheetBody) => boolean;
  readonly there: (sheet: SheetBody) => boolean;
}

const always = () => true;
const twoPack = (s: SheetBody) => s.parts.length > 1;
const antifouling = (s: SheetBody) => s.kind === 'antifouling';
const meetsWater = (s: SheetBody) => ['antifouling', 'barrier', 'tieCoat'].includes(s.kind);

const ANSWERS: readonly Answer[] = [
  {
    field: 'solids',
    cannot: 'Only its name is known: no mixing, no litres and no film until its figures are typed.',
    wanted: (s) => s.nameOnly === true,
    there: () => false,
  },
  {
    field: 'parts',
    cannot: 'No weighing: a density of a part is missing.',
    wanted: always,
    there: (s) => s.parts.every((p) => p.densityKgPerL),
  },
  {
    field: 'parts',
    cannot: 'No litres of each part: the ratio is by mass and a density is missing.',
    wanted: (s) => twoPack(s) && s.ratioBasis === 'mass',
    there: (s) => partShares({ parts: s.parts, basis: s.ratioBasis }) !== null,
  },
  {
    field: 'dftMaxMicron',
    cannot: 'No warning of a film that is too thick.',
    wanted: always,
    there: (s) => s.dftMaxMicron !== null,
  },
  { field: 'potLife', cannot: 'No pot timer and no largest batch.', wanted: twoPack, there: (s) => s.potLife !== null },
  { field: 'overcoat', cannot: 'No window for the next coat.', wanted: always, there: (s) => s.overcoat.length > 0 },
  {
    field: 'overcoat',
    cannot: 'No end of the time in which the next coat bonds as is.',
    wanted: (s) => twoPack(s) && s.overcoat.length > 0,
    there: (s) => s.overcoat.some((o) => o.tackLimit !== null || o.alwaysAbrade),
  },
  {
    field: 'overcoat',
    cannot: 'Times are estimated: the sheet gives one temperature.',
    wanted: (s) => s.overcoat.length > 0,
    there: (s) => s.overcoat.every((o) => o.minimum.length > 1),
  },
  { field: 'touchDry', cannot: 'No last start tonight.', wanted: always, there: (s) => s.touchDry !== null },
  {
    field: 'sandable',
    cannot: 'No time from which it sands clean.',
    wanted: (s) => !antifouling(s),
    there: (s) => s.sandable !== null,
  },
  { field: 'immersion', cannot: 'No day to launch.', wanted: meetsWater, there: (s) => s.immersion !== null },
  {
    field: 'limits',
    cannot: 'Only the usual limits of damp and cold are held.',
    wanted: always,
    there: (s) => s.limits.surfaceMinC !== null && (s.limits.rhMax !== null || s.limits.spreadMinC !== null),
  },
  {
    field: 'minCureC',
    cannot: 'No temperature below which its clock stands still.',
    wanted: twoPack,
    there: (s) => s.minCureC !== null,
  },
  {
    field: 'chemistry',
    cannot: 'What may lie on what is guessed from its kind.',
    wanted: always,
    there: (s) => s.chemistry !== undefined,
  },
  {
    field: 'methods',
    cannot: 'No word on brush, roller or spray.',
    wanted: always,
    there: (s) => (s.methods?.length ?? 0) > 0,
  },
  {
    field: 'thinner',
    cannot: 'No check of thinner.',
    wanted: (s) => s.thinner !== null,
    there: (s) => s.thinner?.family !== undefined,
  },
  {
    field: 'copper',
    cannot: 'No word on copper over metal.',
    wanted: antifouling,
    there: (s) => s.copper !== undefined,
  },
  {
    field: 'antifouling',
    cannot: 'No check of hard over ablative, nor of the waters.',
    wanted: antifouling,
    there: (s) => s.antifouling?.type !== undefined && (s.antifouling.waters?.length ?? 0) > 0,
  },
  {
    field: 'shelfOpenMonths',
    cannot: 'No warning of a stale tin.',
    wanted: always,
    there: (s) => s.shelfClosedMonths !== undefined && s.shelfOpenMonths !== undefined,
  },
  { field: 'packs', cannot: 'Nothing to buy: no pack size.', wanted: always, there: (s) => s.packs.length > 0 },
  {
    field: 'packs',
    cannot: 'No cost: a price is missing.',
    wanted: (s) => s.packs.length > 0,
    there: (s) => s.packs.every((p) => p.priceMinor !== null),
  },
];

/**
 * How much of what a sheet of its kind could answer it does answer, 0–1, and what is missing.
 * @example completeness(sheet).share // → 0.7647
 */
export function completeness(sheet: SheetBody): { readonly share: number; readonly gaps: readonly Gap[] } {
  const wanted = ANSWERS.filter((a) => a.wanted(sheet));
  const gaps = wanted.filter((a) => !a.there(sheet)).map(({ field, cannot }) => ({ field, cannot }));
  return { share: 1 - gaps.length / wanted.length, gaps };
}
