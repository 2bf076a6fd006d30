import { describe, expect, it } from 'vitest';
import { sheet } from '#core/sheet/example.fixture';
import type { SheetRevision } from '#core/model/sheet';
import { sheets } from '#core/system/sheets.fixture';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import { overrideKey } from '#core/system/mend';
import { USUAL_RULES, type LotRow, type Stores } from '#contracts/rows/stores';
import type { BoatView } from '../../data/store';
import { openStopsOf, sectionCoats, shelfOf } from './planned';

const revision = (id: string, body: SheetRevision['body']): SheetRevision => ({
  id,
  sheetId: `s-${id}`,
  revision: 1,
  body,
  createdAt: 0,
});
const topcoat = revision('topcoat', sheets.twoPackTopcoat);
const layer = (id: string, more: object = {}) => ({
  id,
  sheetRevisionId: 'topcoat',
  dftMicron: 40,
  method: 'roller' as const,
  thinnerShare: 0,
  loss: 0.1,
  deadVolumeLPerM2: 0,
  colour: 'cream',
  colourHex: '#efe3c2',
  ...more,
});
const layers = [layer('a', { prep: 'abrade', grit: 320 }), layer('b', { prep: 'abrade', abradeFor: 'bond' })];
const build = {
  id: 'u',
  boatId: 'boat',
  surfaceId: 'z',
  layers,
  namedId: null,
  targetMicron: null,
  overrides: [],
  records: [],
  version: 1,
  deleted: false,
};

/** As much of a boat's view as these look at. */
const viewWith = (more: object = {}) =>
  ({
    boat: { waters: null },
    surfaces: [
      {
        id: 'z',
        name: 'Front',
        kind: 'coachroof',
        substrate: 'gelcoat',
        exposure: 'weather',
        existing: 'unknown',
        areaM2: 3,
        areaShare: 0.1,
        openWork: [],
      },
    ],
    buildUps: [build],
    coats: [],
    sheetById: new Map([[topcoat.id, topcoat]]),
    ...more,
  }) as unknown as BoatView;
const next = (id: string) =>
  ({ surfaceId: 'z', nextLayer: layers.find((l) => l.id === id) ?? null }) as unknown as ZoneStatus;

describe('stops that stand against a zone’s next coat', () => {
  it('are those about that coat only', () => {
    expect(openStopsOf(viewWith(), next('a')).map((f) => f.rule)).toEqual(['strongOverOnePack']);
    expect(openStopsOf(viewWith(), next('b'))).toEqual([]);
    expect(openStopsOf(viewWith(), next('gone'))).toEqual([]);
  });
  it('are gone once someone let them stand, or put the test patch on record', () => {
    const [stop] = openStopsOf(viewWith(), next('a'));
    const override = {
      rule: stop!.rule,
      key: overrideKey(stop!, layers),
      reason: 'only this year',
      at: 0,
      painter: '',
    };
    expect(openStopsOf(viewWith({ buildUps: [{ ...build, overrides: [override] }] }), next('a'))).toEqual([]);
    expect(
      openStopsOf(
        viewWith({
          buildUps: [{ ...build, records: [{ id: 'r', kind: 'testPatch', at: 0, painter: '', note: 'held' }] }],
        }),
        next('a'),
      ),
    ).toEqual([]);
    // The reason was for that product: another one in its place needs its own.
    const other = layers.map((l) => ({ ...l, sheetRevisionId: 'topcoat2' }));
    const changed = viewWith({
      buildUps: [{ ...build, layers: other, overrides: [override] }],
      sheetById: new Map([['topcoat2', { ...topcoat, id: 'topcoat2' }]]),
    });
    expect(openStopsOf(changed, next('a'))).toHaveLength(1);
  });
});

describe('coats as the section draws them', () => {
  it('are on or planned, with the film the comb comes to and what abrading leaves', () => {
    const coats = [
      { id: 'c', on: [{ surfaceId: 'z', layerId: 'a' }], thinner: 0, wetFilms: [{ at: 0, micron: [80, 90] }] },
    ];
    const drawn = sectionCoats(viewWith({ coats }), 'z', layers, null);
    // 85 µm wet at 50 % solids dries to 42.5 [P: standard coating arithmetic]; scuffing for bond takes 7.5 [M].
    expect(drawn.map((d) => [d.on, d.measuredMicron, d.keptMicron, d.takes])).toEqual([
      [true, 42.5, 32.5, null],
      [false, null, 40, null],
    ]);
  });
  it('keep their place where a sheet is missing', () => {
    expect(
      sectionCoats(viewWith({ sheetById: new Map() }), 'z', layers, null).map((d) => [d.name, d.keptMicron]),
    ).toEqual([
      ['unknown sheet', 40],
      ['unknown sheet', 40],
    ]);
  });
});

describe('the shelf as it stands', () => {
  it('counts what batches took, and gives each boat what those before it leave', () => {
    const tin = (id: string, part: string, leftL: number): LotRow => ({
      id,
      sheetId: 's',
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
      version: 1,
      deleted: false,
    });
    const stores: Stores = {
      today: '2026-05-14',
      lots: [tin('1', 'Base', 3), tin('2', 'Hardener', 1)],
      pours: [
        { sheetId: 's', part: 'Base', litres: 0.75, at: 5 },
        { sheetId: 's', part: 'Hardener', litres: 0.25, at: 5 },
      ],
      boats: [{ boatId: 'x', name: '', launchOn: null, needs: [] }],
      rules: USUAL_RULES,
    };
    const { lots, shared } = shelfOf(stores, () => sheet);
    expect(lots.map((l) => l.nowL)).toEqual([2.25, 0.75]);
    expect(shared.callable.get('x')?.get('s')).toEqual([2.25, 0.75]);
  });
});
