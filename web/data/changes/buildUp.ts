import type { BoatBundle, BuildUpRow } from '#contracts/rows/boat';
import { landed, rowKind, sheetsOf, upsert } from './changeKind';

export const buildUp = rowKind<'buildUp', BuildUpRow>({
  kind: 'buildUp',
  at: 'build-ups',
  words: 'build-up of a zone',
  boat: ({ row }) => row.boatId,
  needs: ({ row }) => [row.boatId, row.surfaceId, ...sheetsOf(row.layers)],
  show: { bundle: (bundle, { row }) => ({ ...bundle, buildUps: upsert(bundle.buildUps, landed(row)) }) },
  undo: ({ row }, { bundle }) => ({ kind: 'buildUp', row: buildUpBefore(bundle, row) }),
});

/** A zone has one build-up for good: taking back its first coats leaves it empty, not gone. */
export function buildUpBefore(bundle: BoatBundle | null, row: BuildUpRow): BuildUpRow {
  const old = bundle?.buildUps.find((b) => b.id === row.id);
  return {
    ...(old ?? { ...row, layers: [], namedId: null, targetMicron: null, overrides: [], records: [] }),
    version: row.version + 1,
  };
}
