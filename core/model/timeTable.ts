/** One column of a sheet's time table: at this temperature it takes this long. */
export interface TimeAt {
  readonly tempC: number;
  readonly hours: number;
}

/** A sheet's time table for one milestone, at least one column. */
export type TimeTable = readonly TimeAt[];
