import type { AreaInputs } from '../hull/area';
import type { MeshDefects } from '../hull/defects';
import type { HullLines } from '../hull/lines';
import type { Plane } from '../hull/mesh';
import type { OffsetTable } from '../hull/offsets';
import type { MeshSize, Placement } from '../hull/placement';
import type { ShapePart } from '../hull/shapes';
import type { WearBandInput } from '../hull/wear';

/** The ways to an area. */
export const AREA_METHODS = [
  'dimensions',
  'denny',
  'girths',
  'offsets',
  'mesh',
  'shapes',
  'typed',
  'calibrated',
  'band',
] as const;

export type AreaMethod = (typeof AREA_METHODS)[number];

export interface GirthStation {
  readonly xM: number;
  /** Null: not taped yet. */
  readonly halfGirthM: number | null;
  readonly halfBreadthM: number | null;
}

export interface GirthRecord {
  readonly even: boolean;
  readonly stations: readonly GirthStation[];
}

export interface NamedShape extends ShapePart {
  readonly id: string;
  readonly name: string;
}

/** Heights above the waterline between which a table of offsets is taken, m; null is open. */
export interface HeightRange {
  readonly fromM: number | null;
  readonly toM: number | null;
}

export const MESH_PARTS = ['below', 'band', 'above', 'aboveWaterline', 'whole'] as const;

export type MeshPart = (typeof MESH_PARTS)[number];

/** How a zone's area was found. What was typed for each method is kept, so that switching loses nothing. */
export interface AreaRecord {
  readonly method: AreaMethod;
  readonly dimensions: AreaInputs;
  readonly typed: { readonly areaM2: number; readonly share: number } | null;
  readonly denny?: { readonly displacedM3: number; readonly draftM: number | null } | null;
  readonly girths?: GirthRecord | null;
  readonly offsets?: HeightRange | null;
  readonly mesh?: { readonly part: MeshPart } | null;
  readonly shapes?: readonly NamedShape[] | null;
  readonly calibrated?: {
    readonly coatId: string | null;
    readonly litres: number;
    readonly wetFilmMicron: number;
    readonly thinner: number;
    readonly readings: number;
  } | null;
  readonly band?: WearBandInput | null;
}

export interface OffsetRecord extends OffsetTable {
  /** Height at which the boat floats, on the table's own scale, m. */
  readonly waterlineM: number;
  /** Stations count from the bow. */
  readonly fromBow: boolean;
  /** Count the bottom inside the lowest waterline as flat. */
  readonly includeBottom: boolean;
}

export interface MeshRecord {
  /** SHA-256 of the file as it came, hex. */
  readonly fileHash: string;
  readonly fileName: string;
  readonly bytes: number;
  readonly triangles: number;
  readonly placement: Placement;
  /** Height above the lowest point of the mesh, with heel and trim. */
  readonly waterline: Plane;
  /** Height of the band above the waterline, m. */
  readonly bandM: number;
  readonly size: MeshSize;
  readonly areas: {
    readonly belowM2: number;
    readonly bandM2: number;
    readonly aboveM2: number;
    readonly volumeBelowM3: number;
    readonly cutShare: number;
  };
  readonly defects: MeshDefects | null;
  readonly waterlineGirthM: number;
  readonly lines: HullLines;
}

/** What is known of a boat's hull as a whole, beyond her dimensions. */
export interface HullModel {
  readonly offsets: OffsetRecord | null;
  readonly mesh: MeshRecord | null;
}

export const NO_MODEL: HullModel = { offsets: null, mesh: null };
