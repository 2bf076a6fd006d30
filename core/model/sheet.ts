import type { PaintMethod } from './paintMethod';
import type { TimeTable } from './timeTable';

/** Limits of air and surface within which a sheet lets its paint go on. Null: the sheet gives none. */
export interface ConditionLimits {
  readonly airMinC: number | null;
  readonly airMaxC: number | null;
  readonly surfaceMinC: number | null;
  readonly surfaceMaxC: number | null;
  /** Share. */
  readonly rhMax: number | null;
  /** A difference, °C. */
  readonly spreadMinC: number | null;
}

/** Of a sheet that gives none: what is usual holds. */
export const NO_LIMITS: ConditionLimits = {
  airMinC: null,
  airMaxC: null,
  surfaceMinC: null,
  surfaceMaxC: null,
  rhMax: null,
  spreadMinC: null,
};

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

export const CHEMISTRIES = [
  'epoxy',
  'polyurethane',
  'alkyd',
  'acrylic',
  'vinyl',
  'chlorinatedRubber',
  'silicone',
  'acid',
  'polyester',
] as const;

export type Chemistry = (typeof CHEMISTRIES)[number];

export const THINNER_FAMILIES = ['epoxy', 'polyurethane', 'whiteSpirit', 'aromatic', 'alcohol', 'water'] as const;

export type ThinnerFamily = (typeof THINNER_FAMILIES)[number];

export const GLOSSES = ['matt', 'eggshell', 'semiGloss', 'gloss'] as const;

export const ANTIFOULING_TYPES = ['hard', 'ablative', 'hybrid'] as const;

export type AntifoulingType = (typeof ANTIFOULING_TYPES)[number];

export const WATERS = ['salt', 'fresh', 'slimeProne', 'tropical'] as const;

export type Waters = (typeof WATERS)[number];

/** What a sheet allows of one way of putting it on. */
export interface MethodRow {
  readonly method: PaintMethod;
  readonly dftMicron?: number | undefined;
  readonly dftMaxMicron?: number | undefined;
  /** Largest share of thinner, in the sheet's own terms. */
  readonly thinnerMax?: number | undefined;
}

/** A ratio of the sheet for one use, beside its own: a deliberate other mix, not a tolerance. */
export interface UseRatio {
  readonly use: string;
  /** One figure a part, in their order, on the sheet's basis. */
  readonly ratio: readonly number[];
  /** Where the maker says so. */
  readonly source: string;
}

export const ADDITIVE_KINDS = ['accelerator', 'retarder', 'flow'] as const;

export type AdditiveKind = (typeof ADDITIVE_KINDS)[number];

/** What may be stirred into a product besides its parts and thinner. */
export interface Additive {
  readonly name: string;
  readonly kind: AdditiveKind;
  /** Largest share of the mixed paint. */
  readonly maxShare: number;
  /** Pot life with it, as a multiple; below 1 shorter. */
  readonly potFactor: number;
  /** Drying and overcoating times with it, as a multiple. */
  readonly windowFactor: number;
}

/** The rest of a maker's sheet. Whatever is left out is not on the sheet; nothing is assumed in its place. */
export interface SheetDetails {
  /** Only its name and kind were told: ratio, solids and film are stand-ins, and nothing may be mixed or bought by them. */
  readonly nameOnly?: boolean | undefined;
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
  readonly antifouling?:
    | {
        readonly type?: AntifoulingType | undefined;
        readonly waters?: readonly Waters[] | undefined;
        readonly years?: number | undefined;
        readonly dryOutDays?: number | undefined;
      }
    | undefined;
  readonly copper?: boolean | undefined;
  readonly biocide?: boolean | undefined;
  readonly isocyanate?: boolean | undefined;
  readonly strongSolvent?: boolean | undefined;
  /** Certified for drinking water. */
  readonly potable?: boolean | undefined;
  readonly flashPointClass?: string | undefined;
  readonly vocGPerL?: number | undefined;
  /** How far a part may be from its right volume, share; left out: 5 %. */
  readonly ratioTolerance?: number | undefined;
  readonly useRatios?: readonly UseRatio[] | undefined;
  readonly additives?: readonly Additive[] | undefined;
  /** How long an edge stays wet, minutes at 20 °C. */
  readonly wetEdgeMin?: number | undefined;
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
  readonly thinner: {
    readonly name: string;
    readonly maxShare: number;
    readonly of: 'base' | 'mixed';
    readonly family?: ThinnerFamily | undefined;
    /** As it is sold; left out or empty: nobody said. */
    readonly packs?: readonly Pack[] | undefined;
  } | null;
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
