import type { LotRow } from '#contracts/rows/stores';
import { asBefore, landed, rowKind, upsert } from './changeKind';

export const lot = rowKind<'lot', LotRow>({
  kind: 'lot',
  at: 'lots',
  words: 'tin',
  boat: () => null,
  needs: ({ row }) => [row.sheetId],
  show: { stores: (stores, { row }) => ({ ...stores, lots: upsert(stores.lots, landed(row)) }) },
  undo: ({ row }, { stores }) => ({ kind: 'lot', row: asBefore(stores?.lots, row) }),
});
