import type { NamedBuildUpRow } from '#contracts/rows/system';
import { asBefore, landed, rowKind, sheetsOf, upsert } from './changeKind';

export const named = rowKind<'named', NamedBuildUpRow>({
  kind: 'named',
  at: 'named-build-ups',
  words: 'named build-up',
  boat: () => null,
  needs: ({ row }) => sheetsOf(row.layers),
  show: { named: (rows, { row }) => upsert(rows, landed(row)) },
  undo: ({ row }, { named: rows }) => ({ kind: 'named', row: asBefore(rows, row) }),
});
