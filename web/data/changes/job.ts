import type { Job } from '#contracts/rows/boat';
import { asBefore, landed, rowKind, upsert } from './changeKind';

export const job = rowKind<'job', Job>({
  kind: 'job',
  at: 'jobs',
  words: 'job',
  boat: ({ row }) => row.boatId,
  needs: ({ row }) => [row.boatId],
  show: { bundle: (bundle, { row }) => ({ ...bundle, jobs: upsert(bundle.jobs, landed(row)) }) },
  undo: ({ row }, { bundle }) => ({ kind: 'job', row: asBefore(bundle?.jobs, row) }),
});
