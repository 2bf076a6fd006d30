import { asWritten } from '../csv';
import type { TimeTable } from '../model/timeTable';
import { NO_LIMITS, type SheetBody } from '../model/sheet';

/** What a file of sheets says it is, so that another tool's file is known at once. */
export const SHEETS_FORMAT = 'jack-plane/sheets';
export const SHEETS_VERSION = 1;
/** As many as can be looked over and taken in at once. */
export const SHEETS_MAX = 300;
/** Characters of a file of sheets. */
export const SHEETS_FILE_MAX = 5_000_000;

/** A sheet that says nothing yet: what a cell left empty means. */
export const EMPTY_SHEET = {
  name: '',
  maker: '',
  code: '',
  kind: '',
  quick: false,
  parts: [],
  ratioBasis: '',
  solids: null,
  dftMicron: null,
  dftMaxMicron: null,
  thinner: null,
  inductionMin: null,
  potLife: null,
  touchDry: null,
  sandable: null,
  immersion: null,
  fullCure: null,
  overcoat: [],
  limits: NO_LIMITS,
  minCureC: null,
  packs: [],
  colours: [],
  caution: '',
} as const;

/**
 * Sheets as a document of the open format `jack-plane/sheets`, JSON.
 * @example JSON.parse(sheetsDocument([sheet])).format // → 'jack-plane/sheets'
 */
export function sheetsDocument(sheets: readonly SheetBody[]): string {
  return `${JSON.stringify({ format: SHEETS_FORMAT, version: SHEETS_VERSION, sheets }, null, 1)}\n`;
}

export type SheetsRead = { readonly rows: readonly unknown[] } | { readonly problem: string };

/**
 * The sheets of a JSON file, not yet looked over one by one.
 * @example readSheetsDocument(sheetsDocument([sheet])).rows.length // → 1
 */
export function readSheetsDocument(text: string): SheetsRead {
  if (text.length > SHEETS_FILE_MAX)
    return { problem: 'This file is too large for data sheets. Split it, or choose another one.' };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { problem: 'This is no JSON file, or it was cut off. Choose the file that was exported.' };
  }
  const file = value as { format?: unknown; version?: unknown; sheets?: unknown } | null;
  if (file === null || typeof file !== 'object' || file.format !== SHEETS_FORMAT || !Array.isArray(file.sheets))
    return {
      problem: `This is no file of data sheets: it must say "format": "${SHEETS_FORMAT}". See the formats page of the manual.`,
    };
  if (file.version !== SHEETS_VERSION)
    return {
      problem: `This file is of version ${String(file.version).slice(0, 20)}; version ${SHEETS_VERSION} is read here.`,
    };
  return countChecked(file.sheets);
}

function countChecked(rows: readonly unknown[]): SheetsRead {
  if (rows.length === 0) return { problem: 'There is no sheet in this file.' };
  if (rows.length > SHEETS_MAX)
    return {
      problem: `There are ${rows.length} sheets in this file; up to ${SHEETS_MAX} are taken at a time. Split it.`,
    };
  return { rows };
}

const TABLE_PATHS =
  /^(?:potLife|touchDry|sandable|handle|immersion|immersionMax|fullCure|overcoat\.\d+\.(?:minimum|tackLimit|maximum))$/;
const LIST_PATHS = /^(?:antifouling\.waters|packs\.\d+\.partsL|useRatios\.\d+\.ratio)$/;
const PATH = /^[a-zA-Z][a-zA-Z0-9]*(?:\.(?:[a-zA-Z][a-zA-Z0-9]*|\d{1,2}))*$/;
const FORBIDDEN = new Set(['__proto__', 'constructor', 'prototype']);

/** A sheet as one row of CSV: headings are the paths of its JSON, a table is "10=9; 20=5" for hours at °C. */
export function flattenSheet(body: SheetBody): Record<string, string> {
  const row: Record<string, string> = {};
  const walk = (value: unknown, path: string): void => {
    if (value === null || value === undefined || value === '') return;
    if (TABLE_PATHS.test(path)) row[path] = (value as TimeTable).map((c) => `${c.tempC}=${c.hours}`).join('; ');
    else if (LIST_PATHS.test(path)) row[path] = (value as unknown[]).join('; ');
    else if (typeof value === 'object')
      for (const [key, inner] of Object.entries(value)) walk(inner, path ? `${path}.${key}` : key);
    else row[path] = String(value);
  };
  walk(body, '');
  return row;
}

/**
 * Rows of CSV for sheets, headings first, in the order a sheet is read.
 * @example sheetsToCells([sheet]).length // → 2
 */
export function sheetsToCells(sheets: readonly SheetBody[]): string[][] {
  const rows = sheets.map(flattenSheet);
  const headings: string[] = [];
  for (const row of rows) {
    let after = -1;
    for (const key of Object.keys(row)) {
      const at = headings.indexOf(key);
      if (at >= 0) after = Math.max(after, at);
      else headings.splice((after += 1), 0, key);
    }
  }
  return [headings, ...rows.map((row) => headings.map((h) => row[h] ?? ''))];
}

function tableOf(text: string): unknown {
  return text.split(';').map((piece) => {
    const [tempC, hours] = piece.split('=');
    return { tempC: Number(tempC?.trim() || Number.NaN), hours: Number(hours?.trim() || Number.NaN) };
  });
}

/**
 * The sheets of CSV cells, headings first, not yet looked over one by one. Texts stay texts: the contract reads the figures.
 * @example readSheetCells(sheetsToCells([sheet])).rows.length // → 1
 */
export function readSheetCells(cells: readonly (readonly string[])[]): SheetsRead {
  const [head, ...rest] = cells;
  const headings = (head ?? []).map((h) => asWritten(h));
  if (!headings.includes('name') || !headings.includes('kind'))
    return {
      problem:
        'This CSV has no columns "name" and "kind": it is no table of data sheets. Export one to see the columns.',
    };
  const bad = headings.find((h) => h !== '' && (!PATH.test(h) || h.split('.').some((k) => FORBIDDEN.has(k))));
  if (bad !== undefined)
    return { problem: `"${bad.slice(0, 40)}" is no column of a data sheet. Take it out or name it as in an export.` };
  const read = countChecked(rest.filter((row) => row.some((c) => c.trim() !== '')));
  if ('problem' in read) return read;
  return { rows: (read.rows as readonly (readonly string[])[]).map((row) => unflatten(headings, row)) };
}

function unflatten(headings: readonly string[], cells: readonly string[]): unknown {
  const body = structuredClone(EMPTY_SHEET) as unknown as Record<string, unknown>;
  headings.forEach((path, i) => {
    const text = asWritten(cells[i] ?? '');
    if (path === '' || text === '') return;
    const keys = path.split('.');
    let at = body;
    keys.forEach((key, k) => {
      const last = k === keys.length - 1;
      if (last)
        at[key] = TABLE_PATHS.test(path)
          ? tableOf(text)
          : LIST_PATHS.test(path)
            ? text.split(';').map((t) => t.trim())
            : text;
      else {
        if (at[key] === null || typeof at[key] !== 'object') at[key] = /^\d+$/.test(keys[k + 1] as string) ? [] : {};
        at = at[key] as Record<string, unknown>;
      }
    });
  });
  // What a row of a list leaves out is not on the sheet.
  const whole = <T extends object>(list: unknown, empty: T) =>
    Array.isArray(list) ? list.filter((x) => x !== undefined).map((x) => ({ ...empty, ...(x as T) })) : list;
  body.parts = whole(body.parts, { densityKgPerL: null });
  body.packs = whole(body.packs, { name: '', priceMinor: null });
  body.overcoat = whole(body.overcoat, { tackLimit: null, maximum: null, alwaysAbrade: false });
  return body;
}
