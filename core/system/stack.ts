import type { PaintMethod } from '../model/paintMethod';
import { MIL_MICRON } from '../units/quantities';
import { filmLostMicron } from '../film/layer';
import type { Layer } from '../model/layer';
import type { ExistingCoating, Exposure, Substrate, TankHolds } from '../model/surface';
import type { Chemistry, SheetBody, SheetKind, ThinnerFamily, Waters } from '../model/sheet';

/** A coat to be checked: its sheet, and whatever is decided of it; the sheet's own film where none is given. */
export interface StackLayer extends Partial<Layer> {
  readonly sheet: SheetBody;
}

/** What was looked at and written down about a zone before anything goes over it. */
export const RECORD_KINDS = ['testPatch', 'adhesionTest', 'flakeBack', 'moisture'] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

/** One such look, as it was written down. */
export interface ZoneRecord {
  readonly id: string;
  readonly kind: RecordKind;
  readonly at: number;
  readonly painter: string;
  readonly note: string;
}

/** What the rules look at: the coats from the substrate out, and what is known of the zone beneath and around. */
export interface Stack {
  readonly substrate: Substrate;
  readonly exposure: Exposure;
  readonly existing: ExistingCoating;
  readonly layers: readonly StackLayer[];
  /** How all coats go on where a coat does not say. */
  readonly method: PaintMethod | null;
  readonly waters: Waters | null;
  /** What a tank holds; null: nobody has said. */
  readonly holds: TankHolds | null;
  readonly records: readonly RecordKind[];
  /** Structure still open on the zone. */
  readonly openWork: boolean;
  /** Total dry film wanted, µm; null for the usual one. */
  readonly targetMicron: number | null;
}

export type Severity = 'stop' | 'caution' | 'note';

/** What would mend a finding; `applyMend` does it. `at` is a place among the layers. */
export type Mend =
  | { readonly kind: 'insert'; readonly at: number; readonly want: Wanted; readonly words: string }
  | { readonly kind: 'replace'; readonly at: number; readonly want: Wanted; readonly words: string }
  | { readonly kind: 'set'; readonly at: number; readonly change: Partial<Layer>; readonly words: string }
  | { readonly kind: 'remove'; readonly at: number; readonly words: string }
  | { readonly kind: 'repeat'; readonly at: number; readonly times: number; readonly words: string }
  | { readonly kind: 'split'; readonly at: number; readonly words: string }
  | { readonly kind: 'record'; readonly record: RecordKind; readonly words: string };

/** The product a mend asks for. */
export interface Wanted {
  readonly sheetKind: SheetKind;
  readonly copper?: false;
  readonly potable?: true;
  readonly chemistry?: Chemistry;
  readonly hard?: false;
  readonly waters?: Waters;
}

/** One finding between two neighbours, or about one coat where `lower` is null. */
export interface Finding {
  readonly rule: string;
  readonly severity: Severity;
  /** Place of the coat among the layers; null where it is about the whole. */
  readonly upper: number | null;
  readonly lower: number | 'substrate' | 'existing' | null;
  /** One sentence. */
  readonly reason: string;
  /** The first of the ways out; null where none is one click away. */
  readonly mend: Mend | null;
  /** All ways out. */
  readonly mends: readonly Mend[];
}

export type Rule = (stack: Stack) => Finding[];

export function finding(
  rule: string,
  severity: Severity,
  upper: Finding['upper'],
  lower: Finding['lower'],
  reason: string,
  ...mends: (Mend | null)[]
): Finding {
  const ways = mends.filter((m) => m !== null);
  return { rule, severity, upper, lower, reason, mend: ways[0] ?? null, mends: ways };
}

/** Usual chemistry of a kind where the sheet does not tell it. [CP] */
const USUAL_CHEMISTRY: Partial<Record<SheetKind, readonly [one: Chemistry | null, two: Chemistry]>> = {
  sealer: ['alkyd', 'epoxy'],
  primer: ['alkyd', 'epoxy'],
  barrier: ['epoxy', 'epoxy'],
  filler: ['polyester', 'epoxy'],
  undercoat: ['alkyd', 'polyurethane'],
  tieCoat: ['vinyl', 'epoxy'],
  topcoat: ['alkyd', 'polyurethane'],
  nonSkid: ['alkyd', 'polyurethane'],
  bilge: ['alkyd', 'epoxy'],
  converter: ['acid', 'acid'],
};

export function chemistryOf(sheet: SheetBody): Chemistry | null {
  const usual = USUAL_CHEMISTRY[sheet.kind];
  return sheet.chemistry ?? usual?.[sheet.parts.length > 1 ? 1 : 0] ?? null;
}

export const isTwoPack = (sheet: SheetBody): boolean => sheet.parts.length > 1;

/** Solvent that lifts an old one-pack coating: told by the sheet, else usual with two-pack, vinyl and chlorinated rubber. [CP] */
export function hasStrongSolvent(sheet: SheetBody): boolean {
  if (sheet.strongSolvent !== undefined) return sheet.strongSolvent;
  const chemistry = chemistryOf(sheet);
  return isTwoPack(sheet) || chemistry === 'vinyl' || chemistry === 'chlorinatedRubber';
}

export const isEpoxy = (sheet: SheetBody): boolean => chemistryOf(sheet) === 'epoxy';
export const isAntifouling = (sheet: SheetBody): boolean => sheet.kind === 'antifouling';

export function methodOf(stack: Stack, layer: StackLayer): PaintMethod | null {
  return layer.method ?? stack.method;
}

/** A film in both systems, for a sentence that must hold in either. */
export function filmWords(micron: number): string {
  return `${Math.round(micron)} µm (${(micron / MIL_MICRON).toFixed(1)} mil)`;
}

export const filmOf = (layer: StackLayer): number => layer.dftMicron ?? layer.sheet.dftMicron;

/**
 * Dry film that is left of each coat, µm, after the abrading before the next one has taken its share.
 * @example keptFilms(stack) // → [100, 100]
 */
export function keptFilms(layers: readonly StackLayer[]): number[] {
  return layers.map((layer, i) => {
    const next = layers[i + 1];
    const film = filmOf(layer);
    return next?.prep === 'abrade' ? film - filmLostMicron(next.abradeFor ?? 'bond', film) : film;
  });
}

/**
 * The largest film the sheet lets one coat have by this method.
 * @example largestFilm(sheet, 'roller') // → 200
 */
export function largestFilm(sheet: SheetBody, method: PaintMethod | null): number | null {
  const row = sheet.methods?.find((m) => m.method === method);
  return row?.dftMaxMicron ?? sheet.dftMaxMicron;
}

/**
 * The most thinner a sheet allows for a way of putting it on, in its own terms; null where it gives none.
 * @example largestThinner(sheet, 'roller') // → 0.1
 */
export function largestThinner(sheet: SheetBody, method: PaintMethod | null): number | null {
  const row = sheet.methods?.find((m) => m.method === method);
  return row?.thinnerMax ?? sheet.thinner?.maxShare ?? null;
}

/** Family of the thinner that belongs in it: told by the sheet, else usual for its chemistry. [CP] */
export function thinnerFamilyOf(sheet: SheetBody): ThinnerFamily | null {
  if (sheet.thinner?.family) return sheet.thinner.family;
  const usual: Partial<Record<Chemistry, ThinnerFamily>> = {
    epoxy: 'epoxy',
    polyurethane: 'polyurethane',
    alkyd: 'whiteSpirit',
    vinyl: 'aromatic',
    chlorinatedRubber: 'aromatic',
  };
  const chemistry = chemistryOf(sheet);
  return (chemistry && usual[chemistry]) ?? null;
}

export const isLightMetal = (substrate: Substrate): boolean => substrate === 'aluminium';
/** What keeps water and copper off: barriers of any chemistry and other epoxies, but no fairing and no tie coat. */
export const isBarrier = (sheet: SheetBody): boolean =>
  sheet.kind === 'barrier' || (isEpoxy(sheet) && sheet.kind !== 'filler' && sheet.kind !== 'tieCoat');

/** Two coats have one colour where their names say so; where one has no name, where they are drawn alike. */
export function sameColour(a: StackLayer, b: StackLayer): boolean {
  const [one, other] = [a, b].map((l) => l.colour?.trim().toLowerCase());
  return one && other ? one === other : a.colourHex === b.colourHex;
}

export const isBareTimber = (substrate: Substrate): boolean => substrate === 'timber' || substrate === 'plywood';

/** What lies right beneath a coat. */
export function beneath(stack: Stack, i: number): number | 'substrate' | 'existing' {
  return i > 0 ? i - 1 : stack.existing === 'bare' ? 'substrate' : 'existing';
}

/** Every coat over another, lower first. */
export function pairs(stack: Stack): { lower: StackLayer; upper: StackLayer; i: number }[] {
  return stack.layers.slice(1).map((upper, k) => ({ lower: stack.layers[k] as StackLayer, upper, i: k + 1 }));
}
