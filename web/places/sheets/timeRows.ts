import { TABLE_NAMES, type TableName } from '#core/sheet/problems';
import type { SheetBody } from '#core/model/sheet';
import { SHEET_KIND_WORDS } from '../../parts/words';
import type { TimeRow } from './TimeCurve';

const LONGEST: readonly TableName[] = ['potLife', 'immersionMax'];

/** The tables of a sheet as curves, in the order of the sheet; figures that cannot be read are left out. */
export function timeRows(sheet: Pick<SheetBody, TableName | 'overcoat'>): TimeRow[] {
  const usable = (table: TimeRow['table'] | null | undefined) =>
    (table ?? []).filter((c) => Number.isFinite(c.hours) && c.hours > 0 && Number.isFinite(c.tempC));
  const row = (name: string, table: TimeRow['table'] | null | undefined, kind: TimeRow['kind']): TimeRow[] =>
    usable(table).length > 0 ? [{ name, table: usable(table), kind }] : [];
  const names = Object.entries(TABLE_NAMES) as [TableName, string][];
  const single = (from: number, to?: number) =>
    names
      .slice(from, to)
      .flatMap(([key, name]) => row(name, sheet[key], LONGEST.includes(key) ? 'maximum' : 'minimum'));
  const overcoats = sheet.overcoat.flatMap((o) => {
    const by = o.after === 'any' ? '' : ` by ${SHEET_KIND_WORDS[o.after].toLowerCase()}`;
    return [
      ...row(`Overcoat${by}, shortest`, o.minimum, 'minimum'),
      ...row(`Overcoat${by}, longest as is`, o.tackLimit, 'maximum'),
      ...row(`Overcoat${by}, longest`, o.maximum, 'maximum'),
    ];
  });
  return [...single(0, 3), ...overcoats, ...single(3)];
}
