import { finite, notNegative, positive } from '../guard';
import { Impossible } from '../impossible';

/**
 * Rolls of tape for a length. [P: arithmetic]
 * @param options.overlapShare what laps, ends and curves take besides, share; left out: none
 * @throws RangeError on a tape, or an edge, of no length
 * @example tapeNeed({ lengthM: 96, rollM: 50, overlapShare: 0.1 }).rolls // → 3
 */
export function tapeNeed(options: { lengthM: number; rollM: number; overlapShare?: number }): {
  rolls: number;
  lengthM: number;
} {
  const { lengthM, rollM, overlapShare = 0 } = options;
  const whole = positive(lengthM, 'The length to tape') * (1 + notNegative(overlapShare, 'What laps take'));
  return { rolls: Math.ceil(whole / positive(rollM, 'The length of a roll') - 1e-9), lengthM: whole };
}

/** A kind of tape, with the days it may stay on. */
export interface TapeKind {
  readonly id: 'fineLine' | 'wide' | 'paper';
  readonly rollM: number;
  readonly shadeDays: number;
  readonly sunDays: number;
}

/** Made-up tapes with lives that are usual for their kind: what the roll says goes before. [M] */
export const TAPES: Readonly<Record<TapeKind['id'], TapeKind>> = {
  fineLine: { id: 'fineLine', rollM: 33, shadeDays: 7, sunDays: 3 },
  wide: { id: 'wide', rollM: 50, shadeDays: 14, sunDays: 5 },
  paper: { id: 'paper', rollM: 50, shadeDays: 7, sunDays: 2 },
};

/**
 * How many days a taping lives: the shorter life of the two tapes of an edge.
 * @example tapeLifeDays({ sun: true }) // → 3
 */
export function tapeLifeDays({ sun }: { sun: boolean }): number {
  return Math.min(...[TAPES.fineLine, TAPES.wide].map((t) => (sun ? t.sunDays : t.shadeDays)));
}

/**
 * How often an edge is taped for coats on these days: consecutive days are one taping, a gap is off and again, and so is
 * a run that outlives the tape. [CP]
 * @param options.days days of the coats, whole numbers in order; the same day twice is one
 * @throws RangeError on days out of order
 * @example tapings({ days: [1, 2, 3, 10], lifeDays: 7 }) // → 2
 */
export function tapings(options: { days: readonly number[]; lifeDays: number }): number {
  const { days } = options;
  const lifeDays = positive(options.lifeDays, 'The life of the tape');
  let count = 0;
  let from = -Infinity;
  let last = -Infinity;
  for (const day of days) {
    if (finite(day, 'A day') < last) throw new Impossible('The days of the coats are not in order. Sort them.');
    if (day !== last && (day - last > 1 || day - from >= lifeDays)) {
      count += 1;
      from = day;
    }
    last = day;
  }
  return count;
}
