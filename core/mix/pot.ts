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

/** Margin kept back from the pot life for the last tray. [CP] */
const MARGIN = 0.1;

/**
 * The most that one batch may hold: what goes on the hull in the usable pot life, which is the pot life
 * less the stand and less a tenth. [CP]
 * @returns litres of mixed paint with thinner out; 0 when the stand eats the pot life
 * @throws RangeError on impossible input
 */
export function largestBatchL(options: {
  potLifeH: number;
  inductionMin: number;
  rateM2PerH: number;
  painters: number;
  litresPerM2: number;
}): number {
  const usableH =
    Math.max(0, positive(options.potLifeH, 'Pot life') - notNegative(options.inductionMin, 'Stand') / 60) *
    (1 - MARGIN);
  return (
    positive(options.rateM2PerH, 'Rate') *
    positive(options.painters, 'Painters') *
    usableH *
    positive(options.litresPerM2, 'Litres per m²')
  );
}

/** One mark on a straight pot: how full it stands once this part is in, and the height of that level. */
export interface PotMark {
  readonly name: string;
  readonly upToL: number;
  readonly heightM: number;
}

/**
 * Fill heights, m, of a straight round pot for parts poured one after the other: h = V / (π d²/4).
 * @example
 *   potMarks({
 *     pours: [
 *       { name: 'Base', litres: 3 },
 *       { name: 'Hardener', litres: 1 },
 *     ],
 *     diameterM: 0.2,
 *   }).map((m) => m.upToL) // → [3, 4]
 */
export function potMarks({
  pours,
  diameterM,
}: {
  pours: readonly { name: string; litres: number }[];
  diameterM: number;
}): PotMark[] {
  const baseM2 = (Math.PI * positive(diameterM, 'The diameter of the pot') ** 2) / 4;
  let upToL = 0;
  return pours.map((pour) => {
    upToL += notNegative(finite(pour.litres, pour.name), pour.name);
    return { name: pour.name, upToL, heightM: upToL / 1000 / baseM2 };
  });
}
