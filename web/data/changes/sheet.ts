import type { SheetBody } from '#core/model/sheet';
import { without, type ChangeKind } from './changeKind';

export interface SheetChange {
  readonly kind: 'sheet';
  readonly id: string;
  readonly revisionId: string;
  readonly body: SheetBody;
  readonly withdrawn: boolean;
  readonly deleted: boolean;
  readonly version: number;
}

/** A product's sheet: what it said stays as a revision, what it says becomes the next one. */
export const sheet: ChangeKind<SheetChange> = {
  kind: 'sheet',
  words: 'data sheet',
  path: ({ id }) => `/sheets/${id}`,
  body: (change) => without(change, 'id', 'kind'),
  boat: () => null,
  touches: ({ id, revisionId }) => [id, revisionId],
  needs: () => [],
  versioned: {
    rows: ({ id, version }) => [{ id, version }],
    moved: (change, move) => ({ ...change, ...move({ id: change.id, version: change.version }) }),
  },
  show: {},
  undo: (change, { sheets }, { id: revisionId }) => {
    const old = sheets.find((s) => s.id === change.id);
    const version = change.version + 1;
    return old
      ? { ...change, revisionId, body: old.current.body, withdrawn: old.withdrawn, deleted: false, version }
      : { ...change, revisionId, deleted: true, version };
  },
};
