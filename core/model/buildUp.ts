import type { Layer } from './layer';
import type { Exposure, Substrate } from './surface';

export interface BuildUp {
  readonly surfaceId: string;
  readonly layers: readonly Layer[];
}

/** A named build-up that can go on many zones. Its coats carry the ids of its own. */
export interface NamedBuildUp {
  readonly id: string;
  readonly name: string;
  readonly substrates: readonly Substrate[];
  readonly exposure: Exposure;
  readonly bond: BondSchool;
  readonly note: string;
  readonly targetMicron: number | null;
  readonly layers: readonly Layer[];
}

export type BondSchool = (typeof BOND_SCHOOLS)[number];

/** Two ways of making coats bond: overcoat in the tack window without abrading, or cure, abrade and coat. */
export const BOND_SCHOOLS = ['chemical', 'mechanical'] as const;
