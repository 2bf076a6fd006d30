import type { BorderRow } from '#contracts/rows/system';
import { asBefore, landed, rowKind, upsert } from './changeKind';

export const border = rowKind<'border', BorderRow>({
  kind: 'border',
  at: 'borders',
  words: 'border of two zones',
  boat: ({ row }) => row.boatId,
  needs: ({ row }) => [row.boatId, row.upperId, row.lowerId],
  show: { bundle: (bundle, { row }) => ({ ...bundle, borders: upsert(bundle.borders, landed(row)) }) },
  undo: ({ row }, { bundle }) => ({ kind: 'border', row: asBefore(bundle?.borders, row) }),
});
