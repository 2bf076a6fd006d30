import type { SheetBody } from '#core/model/sheet';
import type { ChangeKind } from './changeKind';

export interface NewSheet {
  id: string;
  revisionId: string;
  body: SheetBody;
}

export interface SheetImportChange {
  readonly kind: 'sheetImport';
  readonly id: string;
  /** False to take it back. */
  readonly taken: boolean;
  readonly sheets: NewSheet[];
}

export const sheetImport: ChangeKind<SheetImportChange> = {
  kind: 'sheetImport',
  words: 'data sheets',
  path: ({ id }) => `/sheet-imports/${id}`,
  body: ({ taken, sheets }) => ({ taken, sheets }),
  boat: () => null,
  touches: ({ sheets }) => sheets.flatMap((s) => [s.id, s.revisionId]),
  needs: () => [],
  show: {},
  undo: (change, _before, { id }) => ({ ...change, id, taken: !change.taken }),
};
