import type { SurfaceRow } from '#contracts/rows/boat';
import { withAreas } from './areas';
import { asBefore, landed, rowKind, upsert, without } from './changeKind';

export const surface = rowKind<'surface', SurfaceRow>({
  kind: 'surface',
  at: 'surfaces',
  words: 'zone',
  body: ({ row }) => without(row, 'id', 'areaM2', 'areaShare', 'grossM2'),
  boat: ({ row }) => row.boatId,
  needs: ({ row }) => [row.boatId, ...(row.parentId ? [row.parentId] : [])],
  show: {
    bundle: (bundle, { row }) =>
      withAreas({
        ...bundle,
        surfaces: upsert(bundle.surfaces, landed(row)).sort((a, b) => a.sort - b.sort),
        removedZones: row.deleted ? [...bundle.removedZones, { id: row.id, name: row.name }] : bundle.removedZones,
      }),
  },
  undo: ({ row }, { bundle }) => ({ kind: 'surface', row: asBefore(bundle?.surfaces, row) }),
});
