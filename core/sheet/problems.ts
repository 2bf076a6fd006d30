import { checkedTable } from '../cure/arrhenius';
import type { TimeAt, TimeTable } from '../model/timeTable';
import type { SheetBody } from '../model/sheet';

export interface SheetProblem {
  readonly field: string;
  readonly message: string;
  /** `stop` keeps the sheet from being saved; `warn` asks to look again. */
  readonly severity: 'stop' | 'warn';
}

/** The tables of single milestones, in the order in which a maker's sheet gives them. */
export const TABLE_NAMES = {
  potLife: 'Pot life',
  touchDry: 'Touch dry',
  sandable: 'Dry to sand',
  handle: 'Handle',
  immersion: 'Into the water, shortest',
  immersionMax: 'Into the water, longest',
  fullCure: 'Full cure',
} as const;
export type TableName = keyof typeof TABLE_NAMES;

/**
 * Neighbouring columns of a table, cold to hot, where the warmer one takes longer: most likely a typing slip.
 * @example
 *   wrongWay([
 *     { tempC: 10, hours: 4 },
 *     { tempC: 20, hours: 5 },
 *   ]).length // → 1
 */
export function wrongWay(table: TimeTable): { colder: TimeAt; warmer: TimeAt }[] {
  const sorted = [...table].sort((a, b) => a.tempC - b.tempC);
  return sorted.slice(1).flatMap((warmer, i) => {
    const colder = sorted[i] as TimeAt;
    return warmer.hours > colder.hours ? [{ colder, warmer }] : [];
  });
}

/** A ratio for a use that does not fit the parts, in a sentence; null where all do. */
function wrongUseRatio({ useRatios = [], parts }: SheetBody): string | null {
  const wrong = useRatios.find((u) => u.ratio.length !== parts.length || u.ratio.some((r) => !(r > 0)));
  return wrong
    ? `The ratio for “${wrong.use}” must give a figure for each of the ${parts.length} parts, base first.`
    : null;
}

/**
 * Look a sheet over for figures that cannot be, or that look like a typing slip.
 * @example
 *   sheetProblems({
 *     ...sheet,
 *     touchDry: [
 *       { tempC: 10, hours: 4 },
 *       { tempC: 20, hours: 5 },
 *     ],
 *   }).length // → 1
 */
export function sheetProblems(sheet: SheetBody): SheetProblem[] {
  const problems: SheetProblem[] = [];
  const stop = (field: string, message: string) => problems.push({ field, message, severity: 'stop' });
  const warn = (field: string, message: string) => problems.push({ field, message, severity: 'warn' });

  if (sheet.dftMaxMicron !== null && sheet.dftMaxMicron < sheet.dftMicron)
    stop('dftMaxMicron', 'The largest dry film is below the recommended one. Swap them or correct one.');
  const use = wrongUseRatio(sheet);
  if (use) stop('useRatios', use);
  if (sheet.ratioBasis === 'mass' && sheet.parts.length > 1 && sheet.parts.some((p) => p.densityKgPerL === null)) {
    warn(
      'parts',
      'The ratio is by mass and a density is missing: no volumes can be worked out until every part has one.',
    );
  }
  const table = (field: string, name: string, columns: TimeTable | null) => {
    if (columns === null) return;
    try {
      const sorted = checkedTable(columns);
      for (const { colder, warmer } of wrongWay(sorted))
        warn(
          field,
          `${name}: ${warmer.hours} h at ${warmer.tempC} °C is longer than ${colder.hours} h at ${colder.tempC} °C. Warmer should be quicker; check both figures.`,
        );
    } catch (error) {
      stop(field, `${name}: ${(error as Error).message}`);
    }
  };
  const neverAbove = (
    field: string,
    what: string,
    shortest: TimeTable | null,
    longest: TimeTable | null,
    name = 'longest',
  ) => {
    for (const column of longest ?? []) {
      const least = shortest?.find((m) => m.tempC === column.tempC);
      if (least && least.hours > column.hours)
        stop(
          field,
          `At ${column.tempC} °C the shortest ${what} (${least.hours} h) is above the ${name} (${column.hours} h). Check both.`,
        );
    }
  };
  for (const [field, name] of Object.entries(TABLE_NAMES)) table(field, name, sheet[field as TableName] ?? null);
  neverAbove('immersionMax', 'time to the water', sheet.immersion, sheet.immersionMax ?? null);
  sheet.overcoat.forEach((times, i) => {
    const field = `overcoat.${i}`;
    table(field, 'Overcoat, shortest', times.minimum);
    table(field, 'Overcoat, longest as is', times.tackLimit);
    table(field, 'Overcoat, longest', times.maximum);
    neverAbove(field, 'overcoat time', times.minimum, times.tackLimit, 'longest without abrading');
    neverAbove(field, 'overcoat time', times.minimum, times.maximum);
  });
  sheet.methods?.forEach((row, i) => {
    const most = row.dftMaxMicron ?? sheet.dftMaxMicron;
    if (row.dftMicron !== undefined && most !== null && row.dftMicron > most)
      stop(`methods.${i}`, 'A way of putting it on has a dry film above the largest one. Swap them or correct one.');
  });
  if (new Set(sheet.methods?.map((m) => m.method)).size !== (sheet.methods?.length ?? 0))
    stop('methods', 'One way of putting it on stands twice. Keep one row.');
  if (
    sheet.profileMinMicron !== undefined &&
    sheet.profileMaxMicron !== undefined &&
    sheet.profileMinMicron > sheet.profileMaxMicron
  )
    stop('profileMinMicron', 'The smallest profile is above the largest one. Swap them or correct one.');
  sheet.packs.forEach((pack, i) => {
    if (pack.part !== undefined && !sheet.parts.some((p) => p.name === pack.part))
      stop(
        `packs.${i}`,
        `${pack.name || 'A pack'} holds "${pack.part}", which is no part of this sheet. Choose one of its parts.`,
      );
    if (pack.partsL !== undefined && pack.partsL.length !== sheet.parts.length)
      stop(`packs.${i}`, `${pack.name || 'A pack'} needs litres for each of the ${sheet.parts.length} parts.`);
  });
  if (new Set(sheet.overcoat.map((o) => o.after)).size !== sheet.overcoat.length)
    stop('overcoat', 'Two rows of overcoat times are for the same following coat. Keep one.');
  return problems;
}
