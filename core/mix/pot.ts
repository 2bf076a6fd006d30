import { hoursAtTemperature, isEstimated } from '../cure/arrhenius';
import type { TimeTable } from '../model/timeTable';
import { finite, notNegative, positive } from '../guard';

/**
 * Pot life, hours, at a temperature. In the pot it must not be over-told: hotter than the hottest column
 * it shortens further, colder than the coldest it is not lengthened; a single figure halves for every
 * +10 °C. [CP]
 * @example potLifeH({ table: sheet.potLife, tempC: 30 }) // → { hours: 1, estimated: false }
 */
export function potLifeH({ table, tempC }: { table: TimeTable; tempC: number }): { hours: number; estimated: boolean } {
  return { hours: hoursAtTemperature({ table, tempC, kind: 'maximum' }), estimated: isEstimated(table) };
}

/**
 * Pot life, hours, of a single figure from a label at another temperature: it halves for every +10 °C and is not
 * lengthened below its own. [CP]
 * @throws RangeError on an impossible figure
 * @example potLifeAtH({ potLifeH: 2, atC: 20, tempC: 30 }) // → 1
 */
export function potLifeAtH(options: { potLifeH: number; atC: number; tempC: number }): number {
  const hours = positive(options.potLifeH, 'Pot life');
  const atC = finite(options.atC, 'The temperature of the pot life');
  return potLifeH({ table: [{ tempC: atC, hours }], tempC: options.tempC }).hours;
}

/** Margin kept back from the pot life for the last tray. [CP] */
const MARGIN = 0.1;

/**
 * The most that one batch may hold: what goes on the hull in the usable pot life, which is the pot life
 * less the stand and less a tenth. [CP]
 * @returns litres of mixed paint with thinner out; 0 when the stand eats the pot life
 * @throws RangeError on impossible input
 * @example
 *   batchLimitL({ rateM2PerH: 10, painters: 2, potLifeH: 1.25, inductionH: 0.25, litresPerM2: 0.2 }) // → 3.6
 */
export function batchLimitL(options: {
  rateM2PerH: number;
  painters: number;
  potLifeH: number;
  inductionH: number;
  litresPerM2: number;
}): number {
  const usableH =
    Math.max(0, positive(options.potLifeH, 'Pot life') - notNegative(options.inductionH, 'The stand')) * (1 - MARGIN);
  return (
    positive(options.rateM2PerH, 'The rate') *
    positive(options.painters, 'Painters') *
    usableH *
    positive(options.litresPerM2, 'Litres per m²')
  );
}
