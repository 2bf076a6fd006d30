import { coatNeeds, type Coat, type Layer, type Lot, type SheetBody, type SheetRevision, type Surface } from '../index';
import { sheet } from '../sheet/example.fixture';
import { sheets } from '../system/sheets.fixture';

export const revision = (id: string, body: SheetBody): SheetRevision => ({
  id: `${id}-r1`,
  sheetId: id,
  revision: 1,
  body,
  createdAt: 0,
});

export const barrier = revision('barrier', {
  ...sheet,
  packs: [
    { name: '1 L', sizeL: 1, priceMinor: 3000, supplier: 'East' },
    { name: '4 L', sizeL: 4, priceMinor: 10_000, supplier: 'East' },
  ],
});

export const copper = revision('copper', {
  ...sheets.copper,
  packs: [{ name: '2.5 L', sizeL: 2.5, priceMinor: 9000, supplier: 'West' }],
});

export const revisionById = new Map([barrier, copper].map((r) => [r.id, r]));

export const sheetOf = (id: string) => [barrier, copper].find((r) => r.sheetId === id)?.body;

let serial = 0;

export const layer = (r: SheetRevision, more: Partial<Layer> = {}): Layer => ({
  id: `l${(serial += 1)}`,
  sheetRevisionId: r.id,
  dftMicron: 100,
  method: 'roller',
  thinnerShare: 0,
  loss: 0.1,
  deadVolumeLPerM2: 0,
  colour: '',
  colourHex: '#888888',
  ...more,
});

export const zone = (id: string, more: Partial<Surface> = {}): Surface => ({
  id,
  name: id,
  kind: 'underwater',
  substrate: 'gelcoat',
  exposure: 'immersed',
  existing: 'bare',
  areaM2: 9,
  areaShare: 0.1,
  ...more,
});

export const coatOn = (surfaceId: string, layerId: string, more: Partial<Coat> = {}): Coat =>
  ({ id: `c-${layerId}`, on: [{ surfaceId, layerId }], finishedAt: 1, batches: [], ...more }) as unknown as Coat;

export const lot = (part: string, leftL: number, more: Partial<Lot> = {}): Lot => ({
  id: `lot-${(serial += 1)}`,
  sheetId: 'barrier',
  part,
  sizeL: 5,
  batchNumber: '',
  supplier: '',
  boughtOn: null,
  openedOn: null,
  expiresOn: null,
  leftL,
  measuredAt: 0,
  weighed: null,
  note: '',
  ...more,
});

export const needsOf = (zones: readonly Surface[], layers: readonly Layer[], coats: readonly Coat[] = []) =>
  coatNeeds({ surfaces: zones, buildUps: zones.map((z) => ({ surfaceId: z.id, layers })), coats, revisionById });
