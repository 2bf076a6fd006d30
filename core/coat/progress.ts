import { notNegative } from '../guard';
import type { Coat } from './fold';
import { painterHours } from './stints';

/** How far a coat has come, and how fast. */
export interface Progress {
  readonly wholeM2: number;
  readonly doneM2: number;
  readonly leftM2: number;
  /** Somebody said how far; else it is reckoned from the hours and the usual rate. */
  readonly told: boolean;
  /** m² an hour of one painter, as it really was; null while nobody has said how far, or too little is done to tell. */
  readonly realRateM2PerH: number | null;
  /** The rate to go by: the real one, else the usual one. */
  readonly rateM2PerH: number;
  readonly painters: number;
  /** Hours to the end at that rate. */
  readonly leftH: number;
}

/** A rate that rests on less is chance, h. [M] */
const ENOUGH_H = 0.1;

/**
 * How far a coat has come by now, by the panels or the share that were told of, else by the hours at the usual rate.
 * @param options.zones that it goes onto, whole
 * @param options.rateM2PerH usual, of one painter
 * @throws RangeError on an impossible area
 * @example
 *   coatProgress({
 *     coat: {
 *       ...coats[0],
 *       finishedAt: null,
 *       stints: [{ from: noon - hour, to: null, painters: ['Ada'] }],
 *       covered: [{ surfaceId: 'bottom', share: 0.4 }],
 *     },
 *     zones: [{ surfaceId: 'bottom', areaM2: 10 }],
 *     rateM2PerH: 10,
 *     now: noon,
 *   }).leftH // → 1.5
 */
export function coatProgress(options: {
  coat: Pick<Coat, 'stints' | 'covered' | 'finishedAt'>;
  zones: readonly { readonly surfaceId: string; readonly areaM2: number }[];
  rateM2PerH: number;
  now: number;
}): Progress {
  const { coat, zones, rateM2PerH: usual, now } = options;
  const wholeM2 = zones.reduce((sum, z) => sum + notNegative(z.areaM2, 'Area'), 0);
  const hours = painterHours(coat.stints, now);
  const told = coat.covered.length > 0;
  const share = (id: string) => coat.covered.find((c) => c.surfaceId === id)?.share;
  const doneM2 =
    coat.finishedAt !== null
      ? zones.reduce((sum, z) => sum + z.areaM2 * (share(z.surfaceId) ?? 1), 0)
      : told
        ? zones.reduce((sum, z) => sum + z.areaM2 * (share(z.surfaceId) ?? 0), 0)
        : Math.min(wholeM2, hours * usual);
  const realRateM2PerH = (told || coat.finishedAt !== null) && hours > ENOUGH_H && doneM2 > 0 ? doneM2 / hours : null;
  const rateM2PerH = realRateM2PerH ?? usual;
  const painters = coat.stints[coat.stints.length - 1]?.painters.length ?? 1;
  const leftM2 = Math.max(0, wholeM2 - doneM2);
  return { wholeM2, doneM2, leftM2, told, realRateM2PerH, rateM2PerH, painters, leftH: leftM2 / rateM2PerH / painters };
}

/** What is left of a coat against the end of the air. */
export interface AgainstAir {
  /** The rest is on before the air closes. */
  readonly fits: boolean;
  /** m² that go on before it does. */
  readonly untilM2: number;
  /** Panels that are done by then, of the whole coat; null where it has none. */
  readonly untilPanel: number | null;
}

/**
 * How far a coat comes before the air closes, at its rate: whole panels, so that it stops at an edge.
 * @param options.closesAt epoch ms
 * @param options.panels how many, and how many of them are done; null where it has none
 * @example
 *   againstAir({
 *     progress: { leftM2: 18, leftH: 2, rateM2PerH: 9, painters: 1 },
 *     closesAt: noon + hour,
 *     now: noon,
 *     panels: { of: 8, done: 2 },
 *   }) // → { fits: false, untilM2: 9, untilPanel: 5 }
 */
export function againstAir(options: {
  progress: Pick<Progress, 'leftM2' | 'leftH' | 'rateM2PerH' | 'painters'>;
  closesAt: number;
  now: number;
  panels: { readonly of: number; readonly done: number } | null;
}): AgainstAir {
  const { progress, closesAt, now, panels } = options;
  const hours = Math.max(0, (closesAt - now) / 3_600_000);
  const untilM2 = Math.min(progress.leftM2, hours * progress.rateM2PerH * progress.painters);
  const share = progress.leftM2 > 0 ? untilM2 / progress.leftM2 : 1;
  return {
    fits: progress.leftH <= hours + 1e-9,
    untilM2,
    untilPanel: panels ? panels.done + Math.floor((panels.of - panels.done) * share + 1e-9) : null,
  };
}
