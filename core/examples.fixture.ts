import type { SourcedHour, TempSample } from './air/weather';
import { foldLog } from './coat/fold';
import type { LogEntry } from './model/log';
import type { SheetRevision } from './model/sheet';
import steelPrimer from './plan/fixtures/steel-primer.json';
import type { PlanProblem } from './plan/problem';
import type { OffsetRecord } from './model/area';
import { sheet } from './sheet/example.fixture';
import { coatNeeds } from './stores/needs';
import { copper, layer as layerOf, lot, revision as revisionOf, zone as zoneOf } from './stores/needs.fixture';
import { jobList } from './stores/share';
import { sheets } from './system/sheets.fixture';

/**
 * What examples in the comments of the core stand on, by these names: a made-up boat, a zone of 10 m², a sheet, two
 * coats, one of them on, and air of 20 °C. `examples.test.ts` runs every example with them and all of the core.
 */
export const hour = 3_600_000;
/** Noon of 1 June 2026, UTC. */
export const noon = Date.UTC(2026, 5, 1, 12);

export { sheet, sheets };
export const revision = revisionOf('barrier', sheet);
export { copper };
export const revisionById = new Map([revision, copper].map((r) => [r.id, r]));
export const sheetOf = (sheetId: string) => [revision, copper].find((r) => r.sheetId === sheetId)?.body;
/** Of a revision, the sheet. */
export const sheetIdOf = (revisionId: string) => revisionById.get(revisionId)?.sheetId ?? '';

const coat = (id: string, r: SheetRevision) => layerOf(r, { id, colour: 'grey', colourHex: '#8a9094' });
/** A coat of barrier, and one of antifouling over it. */
export const layer = coat('first', revision);
export const layers = [layer, coat('second', copper)];
export const stack = layers.map((l) => ({ ...l, sheet: (l.id === 'first' ? revision : copper).body }));

export const boat = {
  loaM: 9,
  lwlM: 8,
  beamM: 3,
  draftM: 1,
  freeboardM: 1,
  form: 'full',
  keels: 'none',
} as const;
export const zone = zoneOf('bottom', { name: 'Bottom', areaM2: 10 });

/** Every hour from a day before noon to three days after it, 20 °C and 60 %. */
export const steady: SourcedHour[] = Array.from({ length: 97 }, (_, i) => ({
  at: noon + (i - 24) * hour,
  airC: 20,
  rh: 0.6,
  source: 'typed',
}));
export const temps: TempSample[] = steady.map(({ at, airC }) => ({ at, tempC: airC }));

const entry = (kind: LogEntry['kind'], at: number, body: object): LogEntry =>
  ({
    id: `${kind}-${at}`,
    boatId: 'boat',
    stream: 'coat',
    streamId: 'on',
    kind,
    occurredAt: at,
    recordedAt: at,
    painter: '',
    device: '',
    supersedes: null,
    body,
  }) as LogEntry;
/** The first coat, put on from ten to eleven. */
export const entries: LogEntry[] = [
  entry('started', noon - 2 * hour, {
    on: [{ surfaceId: 'bottom', layerId: 'first' }],
    sheetRevisionId: revision.id,
    method: 'roller',
    thinner: 0,
    dftMicron: 100,
    colour: 'grey',
    colourHex: '#8a9094',
    overrideReason: null,
    abradedGrit: null,
  }),
  entry('finished', noon - hour, { litresOn: 2.4 }),
];
export const { coats } = foldLog(entries);

/** What both coats take on the zone, and what of it is to be bought with an empty shelf. */
export const { needs } = coatNeeds({
  surfaces: [zone],
  buildUps: [{ surfaceId: 'bottom', layers }],
  coats: [],
  revisionById,
});
export const products = jobList({ needs, sheetOf, onHandOf: () => [], chance: 0.9 });

/** A tin of antifouling, 2.5 L, full when it was looked at. */
export const tin = lot('Paint', 2.5, { id: 'tin', sheetId: 'copper', sizeL: 2.5 });

/** A box 4 m long, 2 m wide, 1 m deep that floats at half its depth. */
export const box: OffsetRecord = {
  stationsM: [0, 2, 4],
  waterlinesM: [0, 0.5, 1],
  halfBreadthsM: [
    [1, 1, 1],
    [1, 1, 1],
    [1, 1, 1],
  ],
  waterlineM: 0.5,
  fromBow: false,
  includeBottom: true,
};
/** Three faces of a corner and the slope that closes it: edges of 1 m along x, y and z. */
export const corner = new Float32Array([
  ...[0, 0, 0, 0, 1, 0, 1, 0, 0],
  ...[0, 0, 0, 1, 0, 0, 0, 0, 1],
  ...[0, 0, 0, 0, 0, 1, 0, 1, 0],
  ...[1, 0, 0, 0, 1, 0, 0, 0, 1],
]);

/** A bare skeg to be blasted and primed twice, from `plan/fixtures/steel-primer.json`. */
export const smallPlan = steelPrimer as unknown as PlanProblem;

export const epwPlace = { name: 'Nowhere', country: 'XX', latitudeDeg: 50, longitudeDeg: 0, utcOffsetH: 0 };
