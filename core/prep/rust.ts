import { positive } from '../guard';
import { Impossible } from '../impossible';
import type { RustNext } from '../model/prep';

/** From this share on the rust counts as converted: black all over. [M] */
const CONVERTED = 0.95;
/** Below this share another coat would only lie on loose rust. [M] */
const LITTLE = 0.6;
/** Converter is looked at next day. [CP] */
const LOOK_AFTER_H = 12;
/** More coats than this do not go deeper. [CP: one or two coats] */
const MOST_COATS = 2;

export interface RustVerdict {
  readonly next: RustNext;
  readonly why: string;
  /** The tin may be why it did not take. */
  readonly staleTin: boolean;
}

/**
 * What a converter's look next day asks for: black is converted, red is not. [CP; shares M]
 * @param options.convertedShare of the rusted area that has turned black
 * @param options.coats of converter that are on
 * @param options.hoursSince the last of them
 * @param options.staleTin its tin was past its date
 * @throws RangeError on a share outside 0 to 1
 * @example converterVerdict({ convertedShare: 0.7, coats: 1, hoursSince: 20, staleTin: false }).next // → 'again'
 */
export function converterVerdict(options: {
  convertedShare: number;
  coats: number;
  hoursSince: number;
  staleTin: boolean;
}): RustVerdict {
  const { convertedShare, coats, hoursSince, staleTin } = options;
  if (!(convertedShare >= 0 && convertedShare <= 1))
    throw new Impossible('The share that is converted lies between 0 and 100 %.');
  const red = Math.round((1 - convertedShare) * 100);
  const say = (next: RustNext, why: string): RustVerdict => ({ next, why, staleTin: staleTin && next !== 'scuff' });
  if (hoursSince < LOOK_AFTER_H)
    return say('wait', 'It is still at work: look at it next day, in daylight. Black is converted, red is not.');
  if (convertedShare >= CONVERTED) return say('scuff', 'Black all over: scuff it, wipe off the residue, prime.');
  if (convertedShare < LITTLE)
    return say(
      'scrape',
      `${red} % is still red: it lay on loose or thick rust. Needle gun and brush again, then convert.`,
    );
  if (coats >= MOST_COATS)
    return say(
      'scrape',
      `${red} % is still red after ${coats} coats: another would not go deeper. Scrape and brush those places.`,
    );
  return say('again', `${red} % is still red: brush those places and give them a second coat.`);
}

/** Plate thinner than this share of what it was is for a surveyor. [M] */
const THIN_PLATE = 0.8;

/**
 * What is left of a plate, as a share of what it was, with the deepest pit taken off; and whether a surveyor should see
 * it before it is painted. [CP; limit M: local rules and the surveyor's word go before]
 * @throws RangeError on a plate of no thickness, or one thicker than it was
 * @example plateLeft({ thicknessMm: 4.2, originalMm: 5, pitMm: 0.6 }).share.toFixed(2) // → '0.72'
 */
export function plateLeft(options: { thicknessMm: number; originalMm: number; pitMm?: number }): {
  share: number;
  askSurveyor: boolean;
} {
  const original = positive(options.originalMm, 'The plate as built');
  const now = positive(options.thicknessMm, 'The plate now');
  if (now > original * 1.1)
    throw new Impossible('The plate is thicker now than it was built. Check the two figures, and the paint on it.');
  const share = Math.max(0, now - (options.pitMm ?? 0)) / original;
  return { share, askSurveyor: share < THIN_PLATE };
}
