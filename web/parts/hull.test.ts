import { describe, expect, it } from 'vitest';
import type { Coat } from '#core/coat/fold';
import type { HullRow, SurfaceRow } from '#contracts/rows/boat';
import type { BoatView } from '../data/store';
import { bandOf, linesOf } from './hullLines';
import { paintedCoats } from './painted';
import { drawnZones } from './ZoneRegion';

const coat = (change: object): Coat =>
  ({
    id: 'c',
    sheetRevisionId: 'r',
    startedAt: 10,
    finishedAt: 20,
    litresOn: 3,
    leftL: null,
    lostL: null,
    batches: [],
    thinner: 0,
    on: [{ surfaceId: 'z', layerId: 'l' }],
    wetFilms: [{ micron: [150, 170] }, { micron: [160] }],
    ...change,
  }) as unknown as Coat;
const viewOf = (coats: Coat[]) =>
  ({
    coats,
    buildUps: [],
    sheetById: new Map([['r', { body: { kind: 'barrier', solids: 0.5 } }]]),
  }) as unknown as BoatView;

describe('coats that tell an area', () => {
  it('are finished, on one zone alone, with litres and comb', () => {
    expect(paintedCoats(viewOf([coat({})]), 'z').map((p) => p.name)).toEqual(['barrier 1']);
    expect(paintedCoats(viewOf([coat({}), coat({ id: 'd', startedAt: 30 })]), 'z').map((p) => p.name)).toEqual([
      'barrier 1',
      'barrier 2',
    ]);
    for (const change of [
      { finishedAt: null },
      { litresOn: null },
      { litresOn: 0 },
      { wetFilms: [] },
      {
        on: [
          { surfaceId: 'z', layerId: 'l' },
          { surfaceId: 'y', layerId: 'm' },
        ],
      },
    ])
      expect(paintedCoats(viewOf([coat(change)]), 'z')).toEqual([]);
    expect(paintedCoats(viewOf([coat({})]), 'other')).toEqual([]);
  });
  it('every reading counts the same, whichever comb it came with', () => {
    expect(paintedCoats(viewOf([coat({})]), 'z')[0]).toMatchObject({ wetFilmMicron: 160, readings: 3, litres: 3 });
  });
});

describe('what a hull is drawn from', () => {
  const offsets = {
    stationsM: [0, 8],
    waterlinesM: [0, 1],
    halfBreadthsM: [
      [1, 1],
      [1, 1],
    ],
    waterlineM: 0.5,
    fromBow: false,
    includeBottom: true,
  };
  const hull = (change: object): HullRow => ({
    id: 'h',
    boatId: 'b',
    offsets: null,
    mesh: null,
    version: 1,
    deleted: false,
    ...change,
  });
  const zone = (change: object): SurfaceRow =>
    ({
      id: 'z',
      name: 'Zone',
      kind: 'bootTop',
      parentId: null,
      patchKind: null,
      area: { method: 'dimensions', dimensions: {}, typed: null },
      ...change,
    }) as SurfaceRow;
  it('a mesh before offsets, offsets before nothing', () => {
    expect(linesOf(null)).toBeNull();
    expect(linesOf(hull({}))).toBeNull();
    expect(linesOf(hull({ offsets }))?.known).toBe('offsets');
    expect(linesOf(hull({ offsets, mesh: { lines: { known: 'mesh' } } }))?.known).toBe('mesh');
  });
  it('the boot-top as high as its zone says, none where there is no such zone', () => {
    expect(bandOf([zone({})])).toBe(0.15);
    expect(bandOf([zone({ area: { method: 'dimensions', dimensions: { bandM: 0.2 }, typed: null } })])).toBe(0.2);
    expect(bandOf([zone({ parentId: 'x' })])).toBeNull();
    expect(bandOf([])).toBeNull();
  });
  it('zones and patches with the colour and state they carry', () => {
    const surfaces = [
      zone({}),
      zone({
        id: 'p',
        name: 'Toes',
        kind: 'keel',
        parentId: 'k',
        patchKind: 'highWear',
        area: {
          method: 'band',
          dimensions: {},
          typed: null,
          band: { place: 'keelBottom', widthM: 0.3, lengthM: null },
        },
      }),
    ];
    const statuses = surfaces.map((s) => ({ surfaceId: s.id, state: 'ready', colourHex: '#aabbcc' }));
    expect(drawnZones({ surfaces, statuses } as unknown as BoatView)).toEqual([
      {
        surfaceId: 'z',
        name: 'Zone',
        kind: 'bootTop',
        patchKind: null,
        wear: null,
        state: 'ready',
        colourHex: '#aabbcc',
        going: null,
      },
      {
        surfaceId: 'p',
        name: 'Toes',
        kind: 'keel',
        patchKind: 'highWear',
        wear: 'keelBottom',
        state: 'ready',
        colourHex: '#aabbcc',
        going: null,
      },
    ]);
  });
});
