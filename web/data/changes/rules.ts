import type { YardRules } from '#contracts/rows/stores';
import { landed, rowKind } from './changeKind';

export const rules = rowKind<'rules', YardRules>({
  kind: 'rules',
  at: 'yard-rules',
  words: 'rules of the yard',
  boat: () => null,
  needs: () => [],
  show: { stores: (stores, { row }) => ({ ...stores, rules: landed(row) }) },
  undo: ({ row }, { stores }) =>
    stores ? { kind: 'rules', row: { ...stores.rules, version: row.version + 1 } } : null,
});
