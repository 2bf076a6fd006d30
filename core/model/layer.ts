import type { PaintMethod } from './paintMethod';
import type { ThinnerFamily } from './sheet';

/** One coat of a build-up as it was planned. */
export interface Layer {
  readonly id: string;
  readonly sheetRevisionId: string;
  readonly dftMicron: number;
  readonly method: PaintMethod;
  /** Share, in the sheet's own terms (of base or of mixed). */
  readonly thinnerShare: number;
  /** Share lost on the way. */
  readonly loss: number;
  /** Dry litres per m². */
  readonly deadVolumeLPerM2: number;
  readonly colour: string;
  /** CSS colour the coat is drawn in. */
  readonly colourHex: string;
  /** How the surface beneath is made ready: the coat goes on while that bonds as is, or over abrading. Left out: not decided. */
  readonly prep?: 'tackWindow' | 'abrade' | undefined;
  readonly grit?: number | undefined;
  /** What the abrading is for: three different tasks. */
  readonly abradeFor?: AbradeFor | undefined;
  /** Wiped, or rinsed, before it. */
  readonly wipe?: boolean | undefined;
  readonly mask?: boolean | undefined;
  /** Edges, welds and ribs get a coat by brush first. */
  readonly stripe?: boolean | undefined;
  /** What a bare surface soaks up besides, share of the plain coat. */
  readonly absorption?: number | undefined;
  /** Family of the thinner in the pot, where it is not the sheet's own. */
  readonly thinnerFamily?: ThinnerFamily | undefined;
  /** Months it is to hold before the next coat. */
  readonly holdMonths?: number | undefined;
  /** A primer to hold on by, or only to fill with: what fills is levelled before the next coat. */
  readonly primerFor?: PrimerFor | undefined;
  /** Rolled and tipped off with a brush, or rolled only with more thinner. */
  readonly tip?: boolean | undefined;
}

export const PRIMER_FOR = ['adhesion', 'filling'] as const;

export type PrimerFor = (typeof PRIMER_FOR)[number];

export const ABRADE_FOR = ['bond', 'level', 'nibs'] as const;

export type AbradeFor = (typeof ABRADE_FOR)[number];
