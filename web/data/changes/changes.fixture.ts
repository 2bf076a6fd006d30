import type { NewEntry } from '#core/model/log';
import type { Boat, BoatBundle, BuildUpRow, SurfaceRow } from '#contracts/rows/boat';
import { type Before } from './';

export const boat: Boat = {
  id: 'b',
  name: 'Punt',
  hullMaterial: 'grp',
  keels: 'single',
  form: 'longKeel',
  loaM: 8,
  lwlM: 7,
  beamM: 2.6,
  draftM: 1.1,
  freeboardM: 0.9,
  place: '',
  latitudeDeg: 50,
  timeZone: 'UTC',
  waters: null,
  shelter: 'open',
  estimated: [],
  version: 3,
  deleted: false,
};

export const zone: SurfaceRow = {
  id: 'z',
  boatId: 'b',
  name: 'Bottom',
  kind: 'underwater',
  substrate: 'gelcoat',
  exposure: 'immersed',
  existing: 'bare',
  area: { method: 'dimensions', dimensions: {}, typed: null },
  sort: 1,
  version: 1,
  deleted: false,
  areaM2: 0,
  areaShare: 0,
  grossM2: 0,
  side: 'both',
  partShare: null,
  notes: '',
  maskList: [],
  openWork: [],
  parentId: null,
  patchKind: null,
  shelter: null,
  holds: null,
};

export const build: BuildUpRow = {
  id: 'u',
  boatId: 'b',
  surfaceId: 'z',
  layers: [],
  namedId: null,
  targetMicron: null,
  overrides: [],
  records: [],
  version: 1,
  deleted: false,
};

export const bundle: BoatBundle = {
  now: 0,
  frozen: true,
  boat,
  jobs: [],
  hull: null,
  removedZones: [],
  surfaces: [zone],
  buildUps: [build],
  borders: [],
  entries: [],
  sheets: [],
  hours: [],
  workSpans: [],
  typedDays: [],
};

/** What this device knew before a change. */
export const knew = (known: BoatBundle | null, more: Partial<Before> = {}): Before => ({
  bundle: known,
  sheets: [],
  named: [],
  stores: null,
  ...more,
});

export const ids = { id: 'new', at: 1000, painter: 'Ada', device: 'd' };

export const entry = (id: string, kind: string, streamId: string, body: object): NewEntry =>
  ({
    id,
    boatId: 'b',
    stream: 'coat',
    streamId,
    kind,
    occurredAt: 5,
    painter: '',
    device: '',
    supersedes: null,
    body,
  }) as unknown as NewEntry;
