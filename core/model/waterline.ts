import type { BandMode } from '../waterline/skin';
import type { WaterKind, WeightToCome } from '../waterline/waterplane';

/** A point of the boat whose height on her is known, measured above the ground. */
export interface NamedPoint {
  readonly name: string;
  readonly xM: number;
  readonly yM: number;
  readonly onBoatM: number;
  readonly aboveGroundM: number;
}

export interface StoodBody {
  readonly points: readonly NamedPoint[];
}

export const MARKED_BY = ['level', 'string', 'laser', 'tape', 'copied'] as const;

export type MarkedBy = (typeof MARKED_BY)[number];

/** What a mark's figure is measured from. */
export const MARK_FROM = ['ground', 'rail', 'line'] as const;

export type MarkFrom = (typeof MARK_FROM)[number];

export const MARK_SIDES = ['port', 'starboard'] as const;

export type MarkSide = (typeof MARK_SIDES)[number];

/** One mark of a line, as it was read. */
export interface MarkedBody {
  readonly lineId: string;
  /** Forward of the aftermost point, m. */
  readonly xM: number;
  readonly side: MarkSide;
  readonly by: MarkedBy;
  readonly from: MarkFrom;
  /** Above the ground, below the rail, or above the drawn waterline, m. */
  readonly valueM: number;
  /** Number of its station, from 1. */
  readonly no?: number | undefined;
}

/** A line that she may get, or had. The newest of each id counts. */
export interface LineSetBody {
  readonly lineId: string;
  readonly name: string;
  /** A level line at this height above the drawn waterline, m; null: through its marks. */
  readonly levelM: number | null;
  /** σ of one mark, m; null: found from the marks. */
  readonly noiseM: number | null;
  /** Raised by, m. */
  readonly raiseM: number;
  /** The boot-top over it, m; none: 0. */
  readonly bandM: number;
  readonly bandMode: BandMode;
  /** The one that is painted to. */
  readonly chosen: boolean;
  readonly removed?: boolean | undefined;
}

export const EVIDENCE = ['photo', 'stain', 'fitting', 'oldPaint', 'afloat', 'keel', 'referenceTape'] as const;

export type Evidence = (typeof EVIDENCE)[number];

/** Where the line was, or where a tape keeps it. */
export interface EvidenceBody {
  readonly what: Evidence;
  readonly xM: number;
  /** Above the drawn waterline, m. */
  readonly heightM: number;
  readonly plusMinusM: number;
  readonly text: string;
  /** Of a picture in the files folder. */
  readonly hash?: string | undefined;
}

export interface WeightsBody {
  readonly items: readonly WeightToCome[];
  readonly water: WaterKind;
  /** What she weighs without them, kg; null where nobody knows. */
  readonly displacementKg: number | null;
  /** Waterplane by a coefficient; null: from her shape. */
  readonly coefficient: number | null;
}

/** A station of the list that was set off on a side. */
export interface SetOffBody {
  readonly lineId: string;
  readonly no: number;
  readonly side: MarkSide;
}
