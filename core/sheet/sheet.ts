import type { ConditionLimits, PaintMethod } from '../air/conditions';
import { checkedTable, type TimeAt, type TimeTable } from '../cure/arrhenius';
import { partShares } from '../mix/splitBatch';
import { Impossible } from '../impossible';

export const SHEET_KINDS = [
  'sealer',
  'primer',
  'barrier',
  'filler',
  'undercoat',
  'tieCoat',
  'topcoat',
  'nonSkid',
  'bilge',
  'antifouling',
  'converter',
] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

export const PART_ROLES = ['base', 'hardener', 'reducer'] as const;
export type PartRole = (typeof PART_ROLES)[number];

export interface SheetPart {
  readonly name: string;
  readonly role: PartRole;
  readonly ratio: number;
  /** kg/L; null when the sheet does not give it. */
  readonly densityKgPerL: number | null;
}

export interface Pack {
  readonly name: string;
  /** Litres in it: all parts of a kit together, or the one part that is sold singly. */
  readonly sizeL: number;
  /** Minor units of the yard's currency. */
  readonly priceMinor: number | null;
  /** Name of the part that is sold singly; left out for a kit or a tin of a one-part product. */
  readonly part?: string | undefined;
  /** Litres of each part of a kit, in the order of the parts; left out where the kit holds them in ratio. */
  readonly partsL?: readonly number[] | undefined;
  /** Price of each from so many on. */
  readonly breaks?: readonly PriceBreak[] | undefined;
  readonly supplier?: string | undefined;
}

export interface PriceBreak {
  readonly from: number;
  readonly priceMinor: number;
}

export const CHEMISTRIES = ['epoxy', 'polyurethane', 'alkyd', 'acrylic', 'vinyl', 'chlorinatedRubber', 'silicone', 'acid', 'polyester'] as const;
export type Chemistry = (typeof CHEMISTRIES)[number];
export const THINNER_FAMILIES = ['epoxy', 'polyurethane', 'whiteSpirit', 'aromatic', 'alcohol', 'water'] as const;
export type ThinnerFamily = (typeof THINNER_FAMILIES)[number];
export const GLOSSES = ['matt', 'eggshell', 'semiGloss', 'gloss'] as const;
export const ANTIFOULING_TYPES = ['hard', 'ablative', 'hybrid'] as const;
export type AntifoulingType = (typeof ANTIFOULING_TYPES)[number];
export const WATERS = ['salt', 'fresh', 'slimeProne', 'tropical'] as const;
export type Waters = (typeof WATERS)[number];
export const PAINT_METHODS = ['brush', 'roller', 'spray'] as const;

/** What a sheet allows of one way of putting it on. */
export interface MethodRow {
  readonly method: PaintMethod;
  readonly dftMicron?: number | undefined;
  readonly dftMaxMicron?: number | undefined;
  /** Largest share of thinner, in the sheet's own terms. */
  readonly thinnerMax?: number | undefined;
}

/** The rest of a maker's sheet. Whatever is left out is not on the sheet; nothing is assumed in its place. */
export interface SheetDetails {
  readonly chemistry?: Chemistry | undefined;
  /** The maker's own revision and its civil date. */
  readonly makerRevision?: string | undefined;
  readonly issuedOn?: string | undefined;
  readonly soldIn?: 'tin' | 'aerosol' | undefined;
  /** m² that one aerosol can covers once. */
  readonly canCoversM2?: number | undefined;
  /** Ways of putting it on that the sheet allows; empty or left out where it does not say. */
  readonly methods?: readonly MethodRow[] | undefined;
  readonly handle?: TimeTable | undefined;
  /** Longest time from the last coat to the water. */
  readonly immersionMax?: TimeTable | undefined;
  /** Highest moisture of wood or laminate, share. */
  readonly moistureMax?: number | undefined;
  /** Cleanliness grade, in the sheet's words. */
  readonly cleanliness?: string | undefined;
  readonly profileMinMicron?: number | undefined;
  readonly profileMaxMicron?: number | undefined;
  /** Grit to abrade with before it. */
  readonly surfaceGrit?: number | undefined;
  readonly neverAbrade?: boolean | undefined;
  readonly gloss?: (typeof GLOSSES)[number] | undefined;
  /** Coats that the tin says hide. */
  readonly hidingCoats?: number | undefined;
  readonly uvResistant?: boolean | undefined;
  readonly immersible?: boolean | undefined;
  readonly holdingMonths?: number | undefined;
  readonly antifouling?: { readonly type?: AntifoulingType | undefined; readonly waters?: readonly Waters[] | undefined; readonly years?: number | undefined; readonly dryOutDays?: number | undefined } | undefined;
  readonly copper?: boolean | undefined;
  readonly biocide?: boolean | undefined;
  readonly isocyanate?: boolean | undefined;
  readonly strongSolvent?: boolean | undefined;
  /** Certified for drinking water. */
  readonly potable?: boolean | undefined;
  readonly flashPointClass?: string | undefined;
  readonly vocGPerL?: number | undefined;
  readonly shelfClosedMonths?: number | undefined;
  readonly shelfOpenMonths?: number | undefined;
}

/** Overcoat times for one kind of following coat; `any` where the sheet does not tell them apart. */
export interface OvercoatTimes {
  readonly after: SheetKind | 'any';
  readonly minimum: TimeTable;
  /** Longest without abrading. */
  readonly tackLimit: TimeTable | null;
  /** Longest even when abraded: past it the coat counts as an old one. */
  readonly maximum: TimeTable | null;
  /** The sheet asks for abrading whenever the next coat goes on. */
  readonly alwaysAbrade: boolean;
}

/** What a data sheet says. One revision of it, never edited. Times in hours, films in µm, shares 0–1. */
export interface SheetBody extends SheetDetails {
  readonly name: string;
  readonly maker: string;
  readonly code: string;
  readonly kind: SheetKind;
  /** Typed from the tin in a minute: fewer figures, so more of the answers are estimates. */
  readonly quick: boolean;
  readonly parts: readonly SheetPart[];
  readonly ratioBasis: 'volume' | 'mass';
  readonly solids: number;
  readonly dftMicron: number;
  readonly dftMaxMicron: number | null;
  readonly thinner: { readonly name: string; readonly maxShare: number; readonly of: 'base' | 'mixed'; readonly family?: ThinnerFamily | undefined } | null;
  /** Stand after mixing, minutes. */
  readonly inductionMin: number | null;
  readonly potLife: TimeTable | null;
  readonly touchDry: TimeTable | null;
  readonly sandable: TimeTable | null;
  readonly immersion: TimeTable | null;
  readonly fullCure: TimeTable | null;
  readonly overcoat: readonly OvercoatTimes[];
  readonly limits: ConditionLimits;
  /** Lowest temperature at which it cures, °C. */
  readonly minCureC: number | null;
  readonly packs: readonly Pack[];
  readonly colours: readonly { readonly name: string; readonly hex: string }[];
  readonly caution: string;
}

export interface SheetRevision {
  readonly id: string;
  readonly sheetId: string;
  readonly revision: number;
  readonly body: SheetBody;
  readonly createdAt: number;
}

/** The overcoat times that hold when `following` comes next: its own entry, else `any`, else null. */
export function overcoatFor(sheet: SheetBody, following: SheetKind | null): OvercoatTimes | null {
  return sheet.overcoat.find((o) => o.after === following) ?? sheet.overcoat.find((o) => o.after === 'any') ?? null;
}

/** Thinner as a share of mixed paint, from a share told the sheet's way (of base or of mixed). */
export function sheetThinnerOfMixed(sheet: Pick<SheetBody, 'parts' | 'ratioBasis' | 'thinner'>, share: number): number {
  if (share === 0 || sheet.thinner === null || sheet.thinner.of === 'mixed') return share;
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  if (shares === null) throw new Impossible('A share of the base cannot be turned into litres without the densities of the parts.');
  return share * (shares[0] as number);
}

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

/** Neighbouring columns of a table, cold to hot, where the warmer one takes longer: most likely a typing slip. */
export function wrongWay(table: TimeTable): { colder: TimeAt; warmer: TimeAt }[] {
  const sorted = [...table].sort((a, b) => a.tempC - b.tempC);
  return sorted.slice(1).flatMap((warmer, i) => {
    const colder = sorted[i] as TimeAt;
    return warmer.hours > colder.hours ? [{ colder, warmer }] : [];
  });
}

/** Look a sheet over for figures that cannot be, or that look like a typing slip. */
export function sheetProblems(sheet: SheetBody): SheetProblem[] {
  const problems: SheetProblem[] = [];
  const stop = (field: string, message: string) => problems.push({ field, message, severity: 'stop' });
  const warn = (field: string, message: string) => problems.push({ field, message, severity: 'warn' });

  if (sheet.dftMaxMicron !== null && sheet.dftMaxMicron < sheet.dftMicron) stop('dftMaxMicron', 'The largest dry film is below the recommended one. Swap them or correct one.');
  if (sheet.ratioBasis === 'mass' && sheet.parts.length > 1 && sheet.parts.some((p) => p.densityKgPerL === null)) {
    warn('parts', 'The ratio is by mass and a density is missing: no volumes can be worked out until every part has one.');
  }
  const table = (field: string, name: string, columns: TimeTable | null) => {
    if (columns === null) return;
    try {
      const sorted = checkedTable(columns);
      for (const { colder, warmer } of wrongWay(sorted)) warn(field, `${name}: ${warmer.hours} h at ${warmer.tempC} °C is longer than ${colder.hours} h at ${colder.tempC} °C. Warmer should be quicker; check both figures.`);
    } catch (error) {
      stop(field, `${name}: ${(error as Error).message}`);
    }
  };
  const neverAbove = (field: string, what: string, shortest: TimeTable | null, longest: TimeTable | null, name = 'longest') => {
    for (const column of longest ?? []) {
      const least = shortest?.find((m) => m.tempC === column.tempC);
      if (least && least.hours > column.hours) stop(field, `At ${column.tempC} °C the shortest ${what} (${least.hours} h) is above the ${name} (${column.hours} h). Check both.`);
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
    if (row.dftMicron !== undefined && most !== null && row.dftMicron > most) stop(`methods.${i}`, 'A way of putting it on has a dry film above the largest one. Swap them or correct one.');
  });
  if (new Set(sheet.methods?.map((m) => m.method)).size !== (sheet.methods?.length ?? 0)) stop('methods', 'One way of putting it on stands twice. Keep one row.');
  if (sheet.profileMinMicron !== undefined && sheet.profileMaxMicron !== undefined && sheet.profileMinMicron > sheet.profileMaxMicron) stop('profileMinMicron', 'The smallest profile is above the largest one. Swap them or correct one.');
  sheet.packs.forEach((pack, i) => {
    if (pack.part !== undefined && !sheet.parts.some((p) => p.name === pack.part)) stop(`packs.${i}`, `${pack.name || 'A pack'} holds "${pack.part}", which is no part of this sheet. Choose one of its parts.`);
    if (pack.partsL !== undefined && pack.partsL.length !== sheet.parts.length) stop(`packs.${i}`, `${pack.name || 'A pack'} needs litres for each of the ${sheet.parts.length} parts.`);
  });
  if (new Set(sheet.overcoat.map((o) => o.after)).size !== sheet.overcoat.length) stop('overcoat', 'Two rows of overcoat times are for the same following coat. Keep one.');
  return problems;
}
