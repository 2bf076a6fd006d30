import type { BuildUpRow } from '#contracts/rows/boat';
import { buildUpBefore } from './buildUp';
import { landed, sheetsOf, upsert, type ChangeKind } from './changeKind';

export interface BuildUpsChange {
  readonly kind: 'buildUps';
  readonly boatId: string;
  readonly rows: BuildUpRow[];
}

/** Build-ups of many zones of a boat at once. */
export const buildUps: ChangeKind<BuildUpsChange> = {
  kind: 'buildUps',
  words: 'build-ups of several zones',
  path: ({ boatId }) => `/boats/${boatId}/build-ups`,
  body: ({ rows }) => ({ rows }),
  boat: ({ boatId }) => boatId,
  touches: ({ rows }) => rows.map((r) => r.id),
  needs: ({ boatId, rows }) => [boatId, ...rows.flatMap((r) => [r.surfaceId, ...sheetsOf(r.layers)])],
  versioned: { rows: ({ rows }) => rows, moved: (change, move) => ({ ...change, rows: change.rows.map(move) }) },
  show: {
    bundle: (bundle, { rows }) => ({
      ...bundle,
      buildUps: rows.reduce((shown, row) => upsert(shown, landed(row)), bundle.buildUps),
    }),
  },
  undo: (change, { bundle }) => ({ ...change, rows: change.rows.map((row) => buildUpBefore(bundle, row)) }),
};
