import type { TimeTable } from '#core/model/timeTable';
import { TABLE_NAMES, type TableName } from '#core/sheet/problems';
import type { OvercoatTimes, SheetBody } from '#core/model/sheet';
import { parseQuantity } from '#core/units/parse';

/** The time tables of a sheet as they are typed: one row of texts a milestone, one column a temperature. */
export interface Grid {
  temps: number[];
  rows: Partial<Record<TableName, string[]>>;
  overcoat: {
    after: OvercoatTimes['after'];
    alwaysAbrade: boolean;
    minimum: string[];
    tackLimit: string[];
    maximum: string[];
  }[];
}

/** Rows of the grid in the order in which a maker's sheet gives them; overcoat times stand after the third. */
export const GRID_ROWS = Object.entries(TABLE_NAMES) as [TableName, string][];
export const BEFORE_OVERCOAT = 3;

type Tables = Pick<SheetBody, TableName | 'overcoat'>;

/** A row of texts as a table; null when all are empty. A text that cannot be read becomes NaN, which the contract refuses. */
export function tableOf(temps: readonly number[], texts: readonly string[] | undefined): TimeTable | null {
  const columns = temps.flatMap((tempC, i) => {
    const text = String(texts?.[i] ?? '').trim();
    if (text === '') return [];
    const parsed = parseQuantity({ quantity: 'duration', text, system: 'metric' });
    return [{ tempC, hours: parsed.ok ? parsed.value : Number.NaN }];
  });
  return columns.length === 0 ? null : columns;
}

export function fromGrid(grid: Grid): Tables {
  const table = (texts: readonly string[] | undefined) => tableOf(grid.temps, texts);
  return {
    potLife: table(grid.rows.potLife),
    touchDry: table(grid.rows.touchDry),
    sandable: table(grid.rows.sandable),
    handle: table(grid.rows.handle) ?? undefined,
    immersion: table(grid.rows.immersion),
    immersionMax: table(grid.rows.immersionMax) ?? undefined,
    fullCure: table(grid.rows.fullCure),
    overcoat: grid.overcoat.flatMap((o) => {
      const minimum = table(o.minimum);
      const tackLimit = table(o.tackLimit);
      const maximum = table(o.maximum);
      if (!minimum && !tackLimit && !maximum) return [];
      return [{ after: o.after, minimum: minimum ?? [], tackLimit, maximum, alwaysAbrade: o.alwaysAbrade }];
    }),
  };
}

export function toGrid(sheet: SheetBody): Grid {
  const tables = [
    ...GRID_ROWS.map(([key]) => sheet[key]),
    ...sheet.overcoat.flatMap((o) => [o.minimum, o.tackLimit, o.maximum]),
  ];
  const temps = [...new Set(tables.flatMap((t) => t?.map((c) => c.tempC) ?? []))].sort((a, b) => a - b);
  const texts = (table: TimeTable | null | undefined) =>
    temps.map((t) => hoursText(table?.find((c) => c.tempC === t)?.hours));
  return {
    temps: temps.length > 0 ? temps : [20],
    rows: Object.fromEntries(GRID_ROWS.map(([key]) => [key, texts(sheet[key])])),
    overcoat: (sheet.overcoat.length > 0
      ? sheet.overcoat
      : [{ after: 'any' as const, alwaysAbrade: false, minimum: [], tackLimit: null, maximum: null }]
    ).map((o) => ({
      after: o.after,
      alwaysAbrade: o.alwaysAbrade,
      minimum: texts(o.minimum),
      tackLimit: texts(o.tackLimit),
      maximum: texts(o.maximum),
    })),
  };
}

function hoursText(hours: number | undefined): string {
  if (hours === undefined) return '';
  const minutes = Math.round(hours * 60 * 1000) / 1000;
  if (hours < 1 && Number.isInteger(minutes)) return `${minutes} min`;
  return hours % 24 === 0 && hours >= 48 ? `${hours / 24} d` : String(hours);
}
