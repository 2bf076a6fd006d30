import type { NamedBuildUp } from '#core/model/buildUp';
import type { SheetBody, SheetRevision } from '#core/model/sheet';

/** A data sheet: its newest revision, and whether it may still be put on a zone. */
export interface SheetRow {
  id: string;
  withdrawn: boolean;
  version: number;
  current: SheetRevision;
  /** How many zones have it in their build-up. */
  usedOn: number;
}

/** What ships with the product to try it with: made-up sheets, each with the ids it is taken in under, and build-ups of them. */
export interface Library {
  sheets: { id: string; revisionId: string; body: SheetBody }[];
  starters: NamedBuildUp[];
}
