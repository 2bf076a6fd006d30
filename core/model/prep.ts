import type { AbradeFor } from './layer';
import type { DrawnAt } from './log';
import type { OpenWorkKind } from './surface';

/** What is done to a surface before paint. */
export const PREP_KINDS = [
  'lookOver',
  'strip',
  'needleGun',
  'scrape',
  'wireBrush',
  'weld',
  'grind',
  'blast',
  'saltRinse',
  'passivate',
  'convert',
  'degrease',
  'wash',
  'rinse',
  'dry',
  'fill',
  'guideCoat',
  'block',
  'inspect',
  'spotPrime',
  'abrade',
  'vacuum',
  'wipe',
  'tack',
  'mask',
  'other',
] as const;

export type PrepKind = (typeof PREP_KINDS)[number];

/** Usual ways of getting a surface ready, by substrate and state. [CP] */
export const PREP_WAYS = [
  'blastedSteel',
  'steelByHand',
  'steelEpoxy',
  'grpBarrier',
  'onePackKept',
  'twoPackKept',
  'antifoulingKept',
  'timber',
  'bilge',
  'nonSkid',
  'aluminium',
  'mineral',
] as const;

export type PrepWay = (typeof PREP_WAYS)[number];

/** What the eye and the guide coat find when a faired face is looked at. */
export const FAIRING_FOUND = ['fair', 'lows', 'highs', 'pinholes', 'edges'] as const;

export type FairingFound = (typeof FAIRING_FOUND)[number];

/** A step that was done on a zone. */
export interface PreparedBody {
  readonly step: PrepKind;
  /** Of a step that was added by hand: its key in the list. */
  readonly key?: string | undefined;
  /** The open work that it belongs to. */
  readonly workId?: string | undefined;
  readonly grit?: number | undefined;
  readonly abradeFor?: AbradeFor | undefined;
  readonly waterL?: number | undefined;
  readonly concentrateL?: number | undefined;
  readonly profileMicron?: number | undefined;
  /** How long the surface holds after it, hours, where its sheet says other than is usual. */
  readonly holdsH?: number | undefined;
  /** Of the zone, m²; left out: all of it. */
  readonly areaM2?: number | undefined;
  /** Welded or ground: it burnt the other face too. */
  readonly bothFaces?: boolean | undefined;
  readonly found?: readonly FairingFound[] | undefined;
  readonly text?: string | undefined;
  readonly drawnAt?: DrawnAt | undefined;
}

/** A zone's list as it was changed by hand; the newest counts. */
export interface PrepPlanBody {
  /** Null: the usual one for its substrate and state. */
  readonly way: PrepWay | null;
  readonly added: readonly { readonly key: string; readonly kind: PrepKind; readonly text: string }[];
  readonly leftOut: readonly { readonly key: string; readonly reason: string }[];
  /** Keys in the order wanted; those that are not named keep their place behind. */
  readonly order: readonly string[];
}

/** What makes a clean surface dirty, or bare metal turn. */
export const DIRT = ['rain', 'washingDown', 'dust', 'overspray', 'hands', 'turned'] as const;

export type Dirt = (typeof DIRT)[number];

export interface DirtiedBody {
  readonly by: Dirt;
  readonly text: string;
}

export const RUST_NEXT = ['wait', 'scrape', 'again', 'scuff', 'leave'] as const;

export type RustNext = (typeof RUST_NEXT)[number];

/** Rust looked at: converted or not, how deep, how much plate is left. */
export interface RustLookedBody {
  /** Share of it that is black; null where no converter is on. */
  readonly convertedShare: number | null;
  readonly next: RustNext;
  /** Why it is left, where it is. */
  readonly reason?: string | undefined;
  /** Civil date by which what is left is to be done. */
  readonly dueOn?: string | undefined;
  readonly pitMm?: number | undefined;
  readonly thicknessMm?: number | undefined;
  readonly originalMm?: number | undefined;
  readonly text?: string | undefined;
  readonly drawnAt?: DrawnAt | undefined;
}

export const TAPE_PULLS = ['wet', 'touchDry'] as const;

export type TapePull = (typeof TAPE_PULLS)[number];

/** Something masked: an edge taped, or a thing covered. */
export interface MaskedBody {
  /** `edge:` and the border's id, or `thing:` and the id in the zone's mask list. */
  readonly job: string;
  /** Life of the tape as it is lit here, days. */
  readonly lifeDays: number;
  readonly pull: TapePull;
  readonly text?: string | undefined;
}

/** Open work found while opening up. */
export interface FoundBody {
  readonly workId: string;
  readonly work: OpenWorkKind;
  readonly text: string;
  readonly drawnAt?: DrawnAt | undefined;
}

/** Whether the structure is done, asked before a zone's first coat. */
export interface AskedBody {
  readonly structureDone: boolean;
}

/** One face of a locker, bilge or tank. */
export interface Face {
  readonly name: string;
  /** From the way out, m. */
  readonly fromExitM: number;
  /** Hard to reach: done before what one would lean on. */
  readonly awkward: boolean;
  /** What is leant, knelt or stood on while the others are done. */
  readonly leanOn: boolean;
}

export interface WayOutBody {
  readonly faces: readonly Face[];
  /** Forced air before and during. */
  readonly aired: boolean;
  /** Who stays outside. */
  readonly second: string;
}

/** Stands and blocks moved by the yard. */
export interface StandsMovedBody {
  /** The pads that can be reached now. */
  readonly freed: readonly string[];
  /** The patches where they stand now. */
  readonly now: readonly string[];
  readonly text: string;
  /** Why they were moved before the paint was hard enough to bear. */
  readonly reason?: string | undefined;
}
