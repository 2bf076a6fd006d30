/**
 * How a cell starts that a spreadsheet would run as a formula, also one that goes on over several lines; the CSV
 * writer puts an apostrophe before it.
 */
export const RUNS_AS_FORMULA = /^[=+\-@\t\r]/;

/** A cell as it was before it was made harmless. */
export const asWritten = (cell: string): string => cell.replace(/^'(?=[=+\-@\t\r])/, '').trim();
