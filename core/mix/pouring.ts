import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';
import type { PouredAdditive } from '../model/log';
import { correctOverpour } from './overpour';
import type { Batch } from './splitBatch';

/** One thing that goes into the pot, in its turn. */
export interface PourStep {
  readonly kind: 'part' | 'thinner' | 'additive';
  readonly name: string;
  /** What is to be poured, for what is in the pot already. */
  readonly litres: number;
  /** Null where it is not known: then there is no weighing. */
  readonly densityKgPerL: number | null;
  readonly massKg: number | null;
  /** What is in the pot then, by volume and as a scale that was tared under the empty pot reads. */
  readonly upToL: number;
  readonly upToKg: number | null;
  /** What really went in; null while nobody said. */
  readonly pouredL: number | null;
}

/** Litres that really went in, by name; left out while nobody said. */
export type Poured = Readonly<Record<string, number>>;

/**
 * What goes into a pot, part by part, then thinner and additives. Once the base is in, the others follow what was really
 * poured of it.
 * @param options.poured litres by name
 * @returns in the order they are poured
 * @throws RangeError on an impossible pour
 * @example
 *   pourSteps({
 *     batch: {
 *       parts: [
 *         { name: 'Base', volumeL: 0.75, massKg: 1.14 },
 *         { name: 'Hardener', volumeL: 0.25, massKg: null },
 *       ],
 *       thinnerL: 0,
 *       totalL: 1,
 *     },
 *     thinner: '',
 *     additives: [],
 *     poured: { Base: 0.9 },
 *   }).map((s) => s.litres) // → [0.75, 0.3]
 */
export function pourSteps(options: {
  batch: Batch;
  /** Its name. */
  thinner: string;
  additives: readonly PouredAdditive[];
  poured: Poured;
}): PourStep[] {
  const { batch, thinner, additives, poured } = options;
  Object.values(poured).forEach((l) => notNegative(l, 'What was poured'));
  const [base] = batch.parts;
  const baseL = base ? (poured[base.name] ?? base.volumeL) : 0;
  const times = base && base.volumeL > 0 ? baseL / base.volumeL : 1;
  const wanted = [
    ...batch.parts.map((p, i) => ({
      kind: 'part' as const,
      name: p.name,
      litres: p.volumeL * (i === 0 ? 1 : times),
      densityKgPerL: p.massKg === null || p.volumeL <= 0 ? null : p.massKg / p.volumeL,
    })),
    ...(batch.thinnerL > 0
      ? [{ kind: 'thinner' as const, name: thinner, litres: batch.thinnerL * times, densityKgPerL: null }]
      : []),
    ...additives.map((a) => ({
      kind: 'additive' as const,
      name: a.name,
      litres: a.litres * times,
      densityKgPerL: null,
    })),
  ];
  let upToL = 0;
  let upToKg: number | null = 0;
  return wanted.map((step): PourStep => {
    const { densityKgPerL } = step;
    const pouredL = poured[step.name] ?? null;
    const inPotL = pouredL ?? step.litres;
    upToL += inPotL;
    upToKg = upToKg === null || densityKgPerL === null ? null : upToKg + inPotL * densityKgPerL;
    return { ...step, massKg: densityKgPerL === null ? null : step.litres * densityKgPerL, upToL, upToKg, pouredL };
  });
}

/** What is to be done about a pour that is off, where all parts are in. */
export interface PourMend {
  /** Of each part by name, litres; nothing to add of the others. */
  readonly add: readonly { readonly name: string; readonly litres: number }[];
  readonly totalL: number;
  /** More than goes on within the pot life: rather throw it away than chase it. */
  readonly outrunsPot: boolean;
}

/**
 * How a batch is mended of which some part went in too much or too little; null while parts are missing, and within its
 * tolerance.
 * @param options.wanted ratio by volume, the base first
 * @param options.limitL the most that one batch may hold; null where none is known
 * @throws RangeError on an impossible pour
 * @example
 *   mendPour({
 *     steps: [
 *       { kind: 'part', name: 'Base', pouredL: 0.75 },
 *       { kind: 'part', name: 'Hardener', pouredL: 0.3 },
 *     ],
 *     wanted: [3, 1],
 *     toleranceShare: 0.05,
 *     limitL: 1,
 *   }).outrunsPot // → true
 */
export function mendPour(options: {
  steps: readonly Pick<PourStep, 'kind' | 'name' | 'pouredL'>[];
  wanted: readonly number[];
  toleranceShare: number;
  limitL: number | null;
}): PourMend | null {
  const parts = options.steps.filter((s) => s.kind === 'part');
  if (parts.length !== options.wanted.length || parts.some((p) => p.pouredL === null)) return null;
  const { addL, totalL, withinTolerance } = correctOverpour({
    ratio: options.wanted,
    pouredL: parts.map((p) => p.pouredL as number),
    toleranceShare: options.toleranceShare,
  });
  if (withinTolerance) return null;
  return {
    add: parts.map((p, i) => ({ name: p.name, litres: addL[i] as number })).filter((a) => a.litres > 1e-6),
    totalL,
    outrunsPot: options.limitL !== null && totalL > options.limitL + 1e-9,
  };
}

/** More than this on a scale before the first pour: the pot was not tared, g. */
const TARE_WITHIN_G = 2;

/**
 * What a scale says of the part that is going in, in litres; or what is wrong with its reading. A pot on the scale is
 * tared once, and the scale runs on.
 * @param options.beforeG what it read when this part began
 * @param options.first nothing is in the pot yet
 * @throws RangeError on a reading that a pour cannot give, with what to do
 * @example scalePourL({ beforeG: 412, nowG: 479, densityKgPerL: 1.01, first: false, stepG: 1 }) // → 0.0663
 */
export function scalePourL(options: {
  beforeG: number;
  nowG: number;
  densityKgPerL: number | null;
  first: boolean;
  stepG: number;
}): number {
  const { beforeG, nowG, densityKgPerL, first, stepG } = options;
  if (densityKgPerL === null)
    throw new Impossible('Without its density it cannot be weighed: a volume ratio never goes on the scale as it is.');
  if (first && beforeG > TARE_WITHIN_G)
    throw new Impossible('There is something on the scale already. Tare it under the empty pot, then pour.');
  if (nowG < beforeG - stepG)
    throw new Impossible(
      'The scale reads less than before. Put the pot back as it stood; if something was taken out, type what is in it.',
    );
  return Math.max(0, nowG - beforeG) / 1000 / positive(densityKgPerL, 'The density');
}

/**
 * A volume in fills of a syringe: whole ones, and what is drawn last, mL.
 * @throws RangeError on an impossible syringe
 * @example syringeFills({ litres: 0.145, ml: 60 }) // → { fills: 2, lastMl: 25 }
 */
export function syringeFills({ litres, ml }: { litres: number; ml: number }): { fills: number; lastMl: number } {
  const size = positive(ml, 'What the syringe holds');
  const all = Math.round(notNegative(litres, 'The volume') * 1e6) / 1e3;
  const fills = Math.floor(all / size + 1e-9);
  return { fills, lastMl: Math.max(0, Math.round((all - fills * size) * 10) / 10) };
}
