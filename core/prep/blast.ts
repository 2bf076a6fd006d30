import { notNegative, positive } from '../guard';
import { BARE_METAL_H } from './bareMetal';

/** Blasted by one pot a day's hour, m². [M] The real rate is the blaster's to say. */
export const BLAST_M2_PER_H = 8;

export interface BlastDay {
  /** What can be blasted and primed, m². */
  readonly areaM2: number;
  readonly blastH: number;
  readonly primeH: number;
  /** What holds it down: the hours that bare metal waits, or those that the day and the forecast leave. */
  readonly heldBy: 'bareMetal' | 'day';
  /** Of a zone: whole days at this rate. */
  readonly days: number;
}

/**
 * How much steel to blast today: no more than can be primed while it holds, and before the air closes. What is blasted
 * first waits longest, what is primed last too: blasting then clearing up, and clearing up then priming, must each fit
 * into the hours that bare metal holds. The rest stays covered. [CP: blast only what can be primed]
 * @param options.areaM2 still to be blasted
 * @param options.blastM2PerH of the whole gang
 * @param options.primeM2PerH of one painter
 * @param options.betweenH clearing up and mixing between the last blast and the first primer
 * @param options.dayH from the start of blasting to the last minute in which primer may go on, by the forecast's limits
 * @param options.bareMetalH left out: 4
 * @throws RangeError on rates of zero
 * @example
 *   blastDay({ areaM2: 60, blastM2PerH: 8, primeM2PerH: 10, painters: 2, betweenH: 1, dayH: 9 }).areaM2 // → 24
 */
export function blastDay(options: {
  areaM2: number;
  blastM2PerH: number;
  primeM2PerH: number;
  painters: number;
  betweenH: number;
  dayH: number;
  bareMetalH?: number;
}): BlastDay {
  const { bareMetalH = BARE_METAL_H } = options;
  const wanted = positive(options.areaM2, 'The area to blast');
  const blast = positive(options.blastM2PerH, 'The rate of blasting');
  const prime = positive(options.primeM2PerH, 'The rate of priming') * positive(options.painters, 'Painters');
  const between = notNegative(options.betweenH, 'The time between');
  const holds = Math.max(0, positive(bareMetalH, 'Hours that bare metal holds') - between);
  const day = Math.max(0, notNegative(options.dayH, 'The hours of the day') - between);
  const byMetal = holds * Math.min(blast, prime);
  const byDay = day / (1 / blast + 1 / prime);
  const most = Math.min(byMetal, byDay);
  const areaM2 = Math.min(wanted, most);
  return {
    areaM2,
    blastH: areaM2 / blast,
    primeH: areaM2 / prime,
    heldBy: byDay < byMetal ? 'day' : 'bareMetal',
    days: most > 0 ? Math.ceil(wanted / most - 1e-9) : Infinity,
  };
}
