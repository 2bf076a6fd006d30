import type Joi from 'joi';
import type { TableName } from '#core/sheet/problems';
import { NO_LIMITS, type Pack, type SheetBody } from '#core/model/sheet';
import { fromGrid, GRID_ROWS, toGrid, type Grid } from './grid';

/** A pack as it is typed: prices in money, litres of each part as one text. */
export interface PackValues {
  name: string;
  sizeL: number | null;
  price: number | null;
  /** Name of the part sold singly; empty for a whole kit. */
  part: string;
  partsL: string;
  supplier: string;
  breaks: { from: number | null; price: number | null }[];
}

/** A ratio for a use as it is typed: "3.5:1". */
export interface UseRatioValues {
  use: string;
  ratio: string;
  source: string;
}

/** A sheet as the form holds it. */
export interface SheetValues {
  body: Omit<SheetBody, TableName | 'overcoat' | 'packs' | 'useRatios' | 'thinner'> & {
    packs: PackValues[];
    useRatios: UseRatioValues[];
    thinner: (Omit<NonNullable<SheetBody['thinner']>, 'packs'> & { packs?: PackValues[] }) | null;
  };
  grid: Grid;
}

const KIND_COLOURS: Partial<Record<SheetBody['kind'], { name: string; hex: string }>> = {
  antifouling: { name: 'blue', hex: '#27415f' },
  topcoat: { name: 'white', hex: '#f1efe9' },
  bilge: { name: 'white', hex: '#f1efe9' },
  sealer: { name: 'clear', hex: '#d9b779' },
};
/** A colour to begin with, by kind. */
export const usualColour = (kind: SheetBody['kind']) => KIND_COLOURS[kind] ?? { name: 'grey', hex: '#8f979b' };

export const EMPTY_PACK: PackValues = {
  name: '',
  sizeL: null,
  price: null,
  part: '',
  partsL: '',
  supplier: '',
  breaks: [],
};

const ONE_PART: readonly SheetBody['kind'][] = ['antifouling', 'undercoat', 'tieCoat', 'sealer', 'converter'];

/** Parts to begin with, by kind; the ratio of two is on the tin. */
export function usualParts(kind: SheetBody['kind']): SheetBody['parts'] {
  if (ONE_PART.includes(kind)) return [{ name: 'Paint', role: 'base', ratio: 1, densityKgPerL: null }];
  return [
    { name: 'Base', role: 'base', ratio: null as never, densityKgPerL: null },
    { name: 'Hardener', role: 'hardener', ratio: null as never, densityKgPerL: null },
  ];
}

export function blankSheet(quick: boolean): SheetValues {
  return {
    body: {
      name: '',
      maker: '',
      code: '',
      kind: 'barrier',
      quick,
      parts: usualParts('barrier'),
      // Asked, never assumed.
      ratioBasis: '' as never,
      solids: null as never,
      dftMicron: null as never,
      dftMaxMicron: null,
      thinner: null,
      inductionMin: null,
      limits: NO_LIMITS,
      minCureC: null,
      packs: [],
      useRatios: [],
      colours: [usualColour('barrier')],
      caution: '',
    },
    grid: {
      temps: quick ? [20] : [10, 20, 30],
      rows: {},
      overcoat: [{ after: 'any', alwaysAbrade: false, minimum: [], tackLimit: [], maximum: [] }],
    },
  };
}

const minor = (money: number | null | undefined) =>
  money === null || money === undefined ? null : Math.round(money * 100);
const money = (minorUnits: number | null) => (minorUnits === null ? null : minorUnits / 100);

export function fromSheet(sheet: SheetBody): SheetValues {
  const tables = new Set<string>([...GRID_ROWS.map(([key]) => key), 'overcoat']);
  // Stand-ins of a sheet that was only a name are asked anew, and with its figures it is one like any other.
  const asked = sheet.nameOnly ? { ...sheet, solids: null, dftMicron: null, parts: usualParts(sheet.kind) } : sheet;
  const body = Object.fromEntries(Object.entries(asked).filter(([key]) => !tables.has(key) && key !== 'nameOnly'));
  const useRatios = (sheet.useRatios ?? []).map((u) => ({ ...u, ratio: u.ratio.join(' : ') }));
  const thinner = sheet.thinner && { ...sheet.thinner, packs: sheet.thinner.packs?.map(packValues) ?? [] };
  return {
    body: { ...(body as unknown as SheetBody), packs: sheet.packs.map(packValues), useRatios, thinner },
    grid: toGrid(sheet),
  };
}

const packValues = (p: Pack): PackValues => ({
  name: p.name,
  sizeL: p.sizeL,
  price: money(p.priceMinor),
  part: p.part ?? '',
  partsL: p.partsL?.join('; ') ?? '',
  supplier: p.supplier ?? '',
  breaks: p.breaks?.map((b) => ({ from: b.from, price: money(b.priceMinor) })) ?? [],
});

function packOf({ name, sizeL, price, part, partsL, supplier, breaks }: PackValues): Pack {
  const litres = partsL
    .split(/[;/]/)
    .map((t) => t.trim())
    .filter((t) => t !== '')
    .map((t) => Number(t.replace(',', '.')));
  return {
    name,
    sizeL: sizeL as number,
    priceMinor: minor(price),
    ...(part ? { part } : {}),
    ...(litres.length > 0 && !part ? { partsL: litres } : {}),
    ...(supplier.trim() ? { supplier: supplier.trim() } : {}),
    ...(breaks.length > 0
      ? { breaks: breaks.map((b) => ({ from: b.from as number, priceMinor: minor(b.price) as number })) }
      : {}),
  };
}

/** The body that is sent; what is not on the sheet is left out of it. */
export function toSheet(values: SheetValues): SheetBody {
  const { packs, useRatios, thinner, ...body } = values.body;
  const parts = body.parts.map((p, i) => ({
    ...p,
    role: i === 0 ? ('base' as const) : p.role === 'base' ? ('hardener' as const) : p.role,
  }));
  return stripped({
    ...body,
    ...fromGrid(values.grid),
    // One part has no ratio to be by anything.
    ratioBasis: parts.length === 1 ? 'volume' : body.ratioBasis,
    parts,
    packs: packs.map(packOf),
    thinner: thinner && thinnerOf(thinner),
    useRatios: useRatios.map((u) => ({ ...u, ratio: u.ratio.split(/[:/;]/).map((t) => Number(t.replace(',', '.'))) })),
  });
}

function thinnerOf({ packs = [], ...thinner }: NonNullable<SheetValues['body']['thinner']>): SheetBody['thinner'] {
  return packs.length > 0 ? { ...thinner, packs: packs.map(packOf) } : thinner;
}

/** Without what was opened in the form and left empty. */
function stripped(body: SheetBody): SheetBody {
  const out = { ...body } as Record<string, unknown>;
  for (const [key, value] of Object.entries(out))
    if (value === undefined || value === '')
      if (!['name', 'maker', 'code', 'caution', 'ratioBasis'].includes(key)) delete out[key];
  const { antifouling, methods } = body;
  if (
    antifouling &&
    Object.values(antifouling as Record<string, unknown>).every(
      (v) => v === undefined || v === null || v === '' || (Array.isArray(v) && v.length === 0),
    )
  )
    delete out.antifouling;
  if (methods?.length === 0) delete out.methods;
  if (body.useRatios?.length === 0) delete out.useRatios;
  if (body.additives?.length === 0) delete out.additives;
  return out as unknown as SheetBody;
}

/** Where in the form a complaint of the contract belongs. */
export function fieldOf(path: readonly (string | number)[]): string {
  const [first, second, third] = path;
  if (first === 'overcoat' || GRID_ROWS.some(([key]) => key === first)) return `grid.${String(first)}`;
  if (first === 'packs' && third === 'priceMinor') return `body.packs.${second}.price`;
  if (first === 'useRatios' && third === 'ratio') return `body.useRatios.${second}.ratio`;
  if (first === 'packs' && third === 'breaks')
    return ['body', 'packs', second, 'breaks', path[3], path[4] === 'priceMinor' ? 'price' : path[4]].join('.');
  return ['body', ...path].join('.');
}

/** A complaint of the contract in words that say what to do. */
export function complaintOf(detail: Joi.ValidationErrorItem): string {
  const label = String(detail.context?.label ?? detail.path.join(' '));
  if (detail.path[0] === 'ratioBasis') return 'Say whether the ratio is by volume or by mass.';
  if (detail.type === 'string.empty') return `${label} is empty. Type something.`;
  if (detail.type === 'number.base' || detail.type === 'any.required')
    return detail.path.includes('hours')
      ? 'A time in the grid cannot be read. Type it as 6, 90 min or 2 d.'
      : `${label} is missing or cannot be read. Type a figure.`;
  if (detail.type === 'number.positive') return `${label} must be more than zero.`;
  if (detail.type === 'number.max') return `${label} is too large. Check the unit.`;
  if (detail.type === 'array.min') return `${label} is empty. Type at least one time.`;
  return `${detail.message}.`;
}
