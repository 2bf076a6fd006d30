import { litresPerM2, type Taking } from '../film/layer';
import { USUAL_RATE_M2_PER_H } from '../film/spreading';
import { notNegative } from '../guard';
import type { PaintMethod } from '../model/paintMethod';
import type { SheetBody } from '../model/sheet';
import type { Coat } from './fold';
import { measuredFilm } from './measuredFilm';
import { painterHours } from './stints';

/** What one finished coat teaches of its product and the way it was put on. */
export interface Lesson {
  readonly coatId: string;
  readonly method: PaintMethod;
  /** That has the coat, m². */
  readonly areaM2: number;
  /** That left the pots, without thinner, L. */
  readonly litres: number;
  /** That the film alone takes on that area, at the film that was combed, else as it was planned, L. */
  readonly filmL: number;
  /** As it was planned, with its loss, L. */
  readonly plannedL: number;
  readonly painterHours: number;
  /** The film was combed: what is lost can be told from what is laid heavier. */
  readonly combed: boolean;
}

/**
 * What a finished coat teaches; null where it cannot: nobody logged what was mixed for it.
 * @param options.zones that it went onto, each with the layer as it was planned
 * @throws RangeError on impossible input
 * @example coatLesson({ coat: coats[0], sheet, zones: [{ areaM2: 10, share: 1, layer }] }) // → null
 */
export function coatLesson(options: {
  coat: Pick<Coat, 'id' | 'method' | 'batches' | 'stints' | 'finishedAt' | 'wetFilms' | 'thinner'>;
  sheet: SheetBody;
  zones: readonly { readonly areaM2: number; readonly share: number; readonly layer: Taking }[];
}): Lesson | null {
  const { coat, sheet, zones } = options;
  const litres = coat.batches.reduce((sum, b) => sum + b.unthinnedL, 0);
  const areaM2 = zones.reduce((sum, z) => sum + notNegative(z.areaM2, 'Area') * z.share, 0);
  if (coat.finishedAt === null || litres <= 0 || areaM2 <= 0 || sheet.nameOnly) return null;
  const film = measuredFilm(coat, sheet.solids);
  const over = (layerOf: (layer: Taking) => Taking) =>
    zones.reduce((sum, z) => sum + z.areaM2 * z.share * litresPerM2({ layer: layerOf(z.layer), sheet }), 0);
  return {
    coatId: coat.id,
    method: coat.method,
    areaM2,
    litres,
    filmL: over((layer) => ({ ...layer, loss: 0, dftMicron: film?.dryMicron ?? layer.dftMicron })),
    plannedL: over((layer) => layer),
    painterHours: painterHours(coat.stints, coat.finishedAt),
    combed: film !== null,
  };
}

/** What the coats of a product teach, by one way of putting it on. */
export interface Learned {
  readonly method: PaintMethod;
  readonly coats: number;
  /** Litres a m² without thinner, as it was and as it was planned. */
  readonly litresPerM2: number;
  readonly plannedLPerM2: number;
  /** Share lost on the way, from what left the pots and what the film took. */
  readonly loss: number;
  /** m² an hour of one painter; null where no hours were told. */
  readonly rateM2PerH: number | null;
}

/** A loss beyond that is an area that is wrong, or paint that was written down twice. [M] */
const MOST_LOST = 0.6;
/** So many times the usual rate, or a coat of a few minutes, is one that was written down afterwards. [M] */
const FASTEST = 4;
const SHORTEST_H = 0.1;

/** Whether the litres of a coat can be believed. */
const believed = (l: Lesson) => 1 - l.filmL / l.litres <= MOST_LOST;

const timedWell = (l: Lesson) =>
  l.painterHours > SHORTEST_H && l.areaM2 / l.painterHours <= FASTEST * USUAL_RATE_M2_PER_H[l.method];

/**
 * What finished coats of one product teach, way by way: large coats count for more. Those that cannot be believed are left
 * out.
 * @example
 *   learnedFrom([
 *     {
 *       coatId: 'a',
 *       method: 'roller',
 *       areaM2: 10,
 *       litres: 2,
 *       filmL: 1.6,
 *       plannedL: 1.8,
 *       painterHours: 1.25,
 *       combed: true,
 *     },
 *   ]) // → [{ method: 'roller', coats: 1, litresPerM2: 0.2, plannedLPerM2: 0.18, loss: 0.2, rateM2PerH: 8 }]
 */
export function learnedFrom(lessons: readonly Lesson[]): Learned[] {
  const byMethod = new Map<PaintMethod, Lesson[]>();
  for (const lesson of lessons.filter(believed))
    byMethod.set(lesson.method, [...(byMethod.get(lesson.method) ?? []), lesson]);
  return [...byMethod].map(([method, list]) => {
    const sum = (of: (l: Lesson) => number) => list.reduce((total, l) => total + of(l), 0);
    const timed = list.filter(timedWell);
    const hours = timed.reduce((total, l) => total + l.painterHours, 0);
    const litres = sum((l) => l.litres);
    return {
      method,
      coats: list.length,
      litresPerM2: litres / sum((l) => l.areaM2),
      plannedLPerM2: sum((l) => l.plannedL) / sum((l) => l.areaM2),
      loss: Math.max(0, 1 - sum((l) => l.filmL) / litres),
      rateM2PerH: hours > 0 ? timed.reduce((total, l) => total + l.areaM2, 0) / hours : null,
    };
  });
}

/** How a product really dries against its table, as a multiple of the table's time, from the tests of the hand. */
export interface DryLesson {
  readonly low: number;
  readonly high: number;
}

/**
 * What hand tests say of the time a table gives: it takes longer than every test that failed, and no longer than the
 * first that passed after those; null where no test says anything.
 * @param options.predictedAt by the table alone, epoch ms
 * @example
 *   dryLesson({
 *     finishedAt: noon,
 *     predictedAt: noon + 4 * hour,
 *     tests: [
 *       { at: noon + 4 * hour, passed: false },
 *       { at: noon + 6 * hour, passed: true },
 *     ],
 *   }) // → { low: 1, high: 1.5 }
 */
export function dryLesson(options: {
  finishedAt: number;
  predictedAt: number;
  tests: readonly { readonly at: number; readonly passed: boolean }[];
}): DryLesson | null {
  const { finishedAt, predictedAt, tests } = options;
  const tableMs = predictedAt - finishedAt;
  if (tableMs <= 0 || tests.length === 0) return null;
  const times = (at: number) => (at - finishedAt) / tableMs;
  const low = Math.max(0, ...tests.filter((t) => !t.passed).map((t) => times(t.at)));
  const high = Math.min(Infinity, ...tests.filter((t) => t.passed && times(t.at) > low).map((t) => times(t.at)));
  return low === 0 && high === Infinity ? null : { low, high };
}

/** What lessons of several coats come to together. */
export interface DryLearned extends DryLesson {
  readonly coats: number;
  /** To count on; 1 where the table may be right. */
  readonly factor: number;
}

/**
 * What the hand found of a product on several coats: the narrowest that all of them allow; where they contradict each
 * other, between the two that do. A test that passed late says nothing against the table, and one alone that passed early
 * does not shorten it. Null where nothing was found.
 * @example
 *   dryLearned([
 *     { low: 1, high: 1.5 },
 *     { low: 0, high: 1.3 },
 *   ]).factor // → 1.15
 */
export function dryLearned(lessons: readonly DryLesson[]): DryLearned | null {
  if (lessons.length === 0) return null;
  const low = Math.max(...lessons.map((l) => l.low));
  const high = Math.min(...lessons.map((l) => l.high));
  const contradict = low > high;
  const slower = high === Infinity ? low : (low + high) / 2;
  // One test passed early may be a warm corner; two are the product.
  const faster = lessons.length > 1 ? high : 1;
  const factor = contradict || low >= 1 ? slower : high < 1 ? faster : 1;
  return { low: Math.min(low, high), high: Math.max(low, high), coats: lessons.length, factor };
}
