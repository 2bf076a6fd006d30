import type { TimeAt, TimeTable } from '../model/timeTable';
import { finite, positive } from '../guard';
import { Impossible } from '../impossible';

/** A minimum must have passed; a maximum must not have. They err to opposite sides. */
export type MilestoneKind = 'minimum' | 'maximum';

const KELVIN = 273.15;

/**
 * @throws RangeError when the table is empty, holds an impossible figure or one temperature twice.
 * @returns the columns from cold to hot.
 */
export function checkedTable(table: TimeTable): TimeAt[] {
  if (!Array.isArray(table) || table.length === 0)
    throw new Impossible('The time table is empty. Type at least one temperature and time.');
  const columns = [...(table as TimeAt[])].sort((a, b) => a.tempC - b.tempC);
  columns.forEach((column, i) => {
    finite(column.tempC, 'The temperature of a column');
    if (column.tempC <= -KELVIN)
      throw new Impossible('The temperature of a column is below absolute zero. Check the unit.');
    positive(column.hours, 'The time of a column');
    if (i > 0 && column.tempC === (columns[i - 1] as TimeAt).tempC) {
      throw new Impossible(`The time table has ${column.tempC} °C twice. Keep one of them.`);
    }
  });
  return columns;
}

/** True when the answer rests on one figure and the rule of thumb, not on the sheet's own slope. */
export function isEstimated(table: TimeTable): boolean {
  return table.length === 1;
}

/**
 * Hours that a milestone takes at a constant temperature.
 *
 * Between neighbouring columns ln t is linear in 1/T, T in kelvin [P: Arrhenius]. A table with one column
 * doubles its rate for every 10 °C [CP]. It errs to the safe side: hotter than the hottest column a
 * minimum is not shortened further while a maximum is; colder than the coldest a minimum lengthens by the
 * same law while a maximum does not. Below `minCureC` a minimum stands still; a maximum never does.
 *
 * @param options.table columns of °C and hours, in any order
 * @param options.minCureC lowest cure temperature of the sheet, °C
 * @returns hours; `Infinity` for a minimum below `minCureC`
 * @throws RangeError on an empty or impossible table or temperature
 * @example hoursAtTemperature({ table: [{ tempC: 20, hours: 4 }], tempC: 10, kind: 'minimum' }) // → 8
 */
export function hoursAtTemperature(options: {
  table: TimeTable;
  tempC: number;
  kind: MilestoneKind;
  minCureC?: number;
}): number {
  const tempC = finite(options.tempC, 'Temperature');
  if (tempC <= -KELVIN) throw new Impossible('The temperature is below absolute zero. Check the unit.');
  return timeLaw(options)(tempC);
}

/**
 * The law of `hoursAtTemperature` with the table checked once, for use inside an integration.
 * @returns a function from °C to hours
 */
export function timeLaw(options: {
  table: TimeTable;
  kind: MilestoneKind;
  minCureC?: number;
}): (tempC: number) => number {
  const { kind } = options;
  const columns = checkedTable(options.table);
  const minCureC = options.minCureC ?? -Infinity;
  if (Number.isNaN(minCureC)) throw new Impossible('The lowest cure temperature must be a number.');
  const coldest = columns[0] as TimeAt;
  const hottest = columns[columns.length - 1] as TimeAt;
  const stopsAtC = kind === 'minimum' ? minCureC : -Infinity;

  const segments = columns.slice(1).map((hot, i) => {
    const cold = columns[i] as TimeAt;
    const x0 = 1 / (cold.tempC + KELVIN);
    const slope = (Math.log(hot.hours) - Math.log(cold.hours)) / (1 / (hot.tempC + KELVIN) - x0);
    return { upToC: hot.tempC, x0, y0: Math.log(cold.hours), slope };
  });

  const along = (tempC: number): number => {
    if (segments.length === 0) return coldest.hours * 2 ** ((coldest.tempC - tempC) / 10);
    let i = 0;
    while (i < segments.length - 1 && tempC > (segments[i] as (typeof segments)[number]).upToC) i += 1;
    const segment = segments[i] as (typeof segments)[number];
    return Math.exp(segment.y0 + segment.slope * (1 / (tempC + KELVIN) - segment.x0));
  };

  return (tempC) => {
    if (tempC < stopsAtC) return Infinity;
    if (kind === 'minimum') {
      if (tempC >= hottest.tempC) return hottest.hours;
      // A table that runs the wrong way must still not get faster in the cold.
      return tempC < coldest.tempC ? Math.max(coldest.hours, along(tempC)) : along(tempC);
    }
    if (tempC <= coldest.tempC) return coldest.hours;
    return tempC > hottest.tempC ? Math.min(hottest.hours, along(tempC)) : along(tempC);
  };
}
