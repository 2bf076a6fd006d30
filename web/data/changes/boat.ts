import type { Boat } from '#contracts/rows/boat';
import { withAreas } from './areas';
import { landed, rowKind } from './changeKind';

export const boat = rowKind<'boat', Boat>({
  kind: 'boat',
  at: 'boats',
  words: 'boat',
  boat: ({ row }) => row.id,
  needs: () => [],
  show: { bundle: (bundle, { row }) => withAreas({ ...bundle, boat: landed(row) }) },
  undo: ({ row }, { bundle }) => ({
    kind: 'boat',
    row: bundle ? { ...bundle.boat, version: row.version + 1 } : { ...row, version: row.version + 1, deleted: true },
  }),
});
