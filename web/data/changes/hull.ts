import type { HullRow } from '#contracts/rows/boat';
import { withAreas } from './areas';
import { landed, rowKind } from './changeKind';

export const hull = rowKind<'hull', HullRow>({
  kind: 'hull',
  at: 'hulls',
  words: 'measured hull',
  boat: ({ row }) => row.boatId,
  needs: ({ row }) => [row.boatId],
  show: { bundle: (bundle, { row }) => withAreas({ ...bundle, hull: row.deleted ? null : landed(row) }) },
  // A boat has one hull for good: taking back its first measure leaves it empty, not gone.
  undo: ({ row }, { bundle }) => ({
    kind: 'hull',
    row: { ...(bundle?.hull ?? { ...row, offsets: null, mesh: null }), version: row.version + 1 },
  }),
});
