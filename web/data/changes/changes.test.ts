import { beforeAll, describe, expect, it } from 'vitest';
import type { BuildUpRow, HullRow, SurfaceRow } from '#contracts/rows/boat';
import { sheet } from '#core/sheet/example.fixture';
import { USUAL_RULES, type LotRow, type Stores } from '#contracts/rows/stores';
import type { BorderRow, NamedBuildUpRow } from '#contracts/rows/system';
import { applyChange, applyToNamed, applyToStores, inverseOf, linksOf, requestOf, type Change } from '.';
import { fetchAreaMethods } from './areas';
import { bundle, boat, zone, entry, build, knew, ids } from './changes.fixture';

beforeAll(fetchAreaMethods);

describe('a change before it is sent', () => {
  it('shows at once: a zone with its area, a boat whose zones follow its dimensions', () => {
    const wider = applyChange(bundle, { kind: 'boat', row: { ...boat, beamM: 3 } });
    expect(wider.boat.version).toBe(4);
    expect(wider.surfaces[0]?.areaM2).toBeCloseTo(7 * 4.1 * 0.75, 9);
    const second = applyChange(bundle, { kind: 'surface', row: { ...zone, id: 'y', sort: 0, version: 0 } });
    expect(second.surfaces.map((s) => [s.id, s.version])).toEqual([
      ['y', 1],
      ['z', 1],
    ]);
    expect(applyChange(bundle, { kind: 'surface', row: { ...zone, deleted: true } }).surfaces).toEqual([]);
  });
  it('an entry is shown once, also when it was taken meanwhile', () => {
    const change: Change = { kind: 'entry', entry: entry('e', 'note', 'c', { text: 'x' }) };
    const once = applyChange(bundle, change);
    expect(once.entries).toHaveLength(1);
    expect(applyChange(once, change)).toBe(once);
  });
  it('knows what it stands on', () => {
    const start: Change = {
      kind: 'entry',
      entry: entry('e1', 'started', 'c', { on: [{ surfaceId: 'z', layerId: 'l' }] }),
    };
    const finish: Change = { kind: 'entry', entry: entry('e2', 'finished', 'c', { litresOn: null }) };
    expect(linksOf(start).touches).toContain('c');
    expect(linksOf(start).needs).toContain('z');
    expect(linksOf(finish).needs).toContain('c');
    expect(linksOf({ kind: 'buildUp', row: build }).needs).toEqual(['b', 'z']);
  });
  it('is sent without what the server works out or reads from the path', () => {
    const { path, body } = requestOf({ kind: 'surface', row: zone });
    expect(path).toBe('/surfaces/z');
    expect(Object.keys(body)).not.toEqual(expect.arrayContaining(['id']));
    expect(Object.keys(body)).not.toEqual(expect.arrayContaining(['areaM2']));
  });
});

describe('a hull and its patches before they are sent', () => {
  const offsets = {
    stationsM: [0, 4, 8],
    waterlinesM: [0, 1],
    halfBreadthsM: [
      [1, 1],
      [1, 1],
      [1, 1],
    ],
    waterlineM: 1,
    fromBow: false,
    includeBottom: false,
  };
  const hull: HullRow = { id: 'h', boatId: 'b', offsets, mesh: null, version: 0, deleted: false };
  const byOffsets: SurfaceRow = {
    ...zone,
    area: { ...zone.area, method: 'offsets', offsets: { fromM: null, toM: 0 } },
  };
  const patch: SurfaceRow = {
    ...zone,
    id: 'p',
    parentId: 'z',
    patchKind: 'standPad',
    area: { method: 'typed', dimensions: {}, typed: { areaM2: 2, share: 0.1 } },
    version: 0,
  };
  it('a zone follows the table of offsets as it is typed', () => {
    const measured = applyChange(applyChange(bundle, { kind: 'hull', row: hull }), { kind: 'surface', row: byOffsets });
    expect(measured.surfaces[0]?.areaM2).toBeCloseTo(16, 9);
    const wider = applyChange(measured, {
      kind: 'hull',
      row: { ...hull, version: 1, offsets: { ...offsets, stationsM: [0, 5, 10] } },
    });
    expect(wider.surfaces[0]?.areaM2).toBeCloseTo(20, 9);
    expect(requestOf({ kind: 'hull', row: hull }).path).toBe('/hulls/h');
    expect(linksOf({ kind: 'hull', row: hull })).toEqual({ touches: ['h'], needs: ['b'] });
  });
  it('undo of the first measure leaves the hull empty, of a later one as it was', () => {
    expect(inverseOf({ kind: 'hull', row: hull }, knew(bundle), ids)).toMatchObject({
      row: { offsets: null, mesh: null, deleted: false, version: 1 },
    });
    const measured = applyChange(bundle, { kind: 'hull', row: hull });
    expect(inverseOf({ kind: 'hull', row: { ...hull, version: 1, offsets: null } }, knew(measured), ids)).toMatchObject(
      { row: { offsets, version: 2 } },
    );
  });
  it('a patch is taken out of its zone at once, is gone with it, and needs it to be sent', () => {
    const whole = applyChange(bundle, { kind: 'boat', row: boat }).surfaces[0]?.areaM2 as number;
    const patched = applyChange(bundle, { kind: 'surface', row: patch });
    expect(patched.surfaces.find((s) => s.id === 'z')).toMatchObject({
      areaM2: expect.closeTo(whole - 2, 9),
      grossM2: expect.closeTo(whole, 9),
    });
    expect(applyChange(patched, { kind: 'surface', row: { ...zone, deleted: true } }).surfaces).toEqual([]);
    expect(linksOf({ kind: 'surface', row: patch }).needs).toEqual(['b', 'z']);
  });
});

describe('changes of a yard, and of many zones', () => {
  const layers = [
    {
      id: 'l',
      sheetRevisionId: 'r1',
      dftMicron: 70,
      method: 'roller',
      thinnerShare: 0,
      loss: 0.1,
      deadVolumeLPerM2: 0,
      colour: '',
      colourHex: '#888888',
    },
  ] as BuildUpRow['layers'];
  const lot: LotRow = {
    id: 't',
    sheetId: 's',
    part: 'Base',
    sizeL: 5,
    batchNumber: '',
    supplier: '',
    boughtOn: null,
    openedOn: null,
    expiresOn: null,
    leftL: 5,
    measuredAt: 0,
    weighed: null,
    note: '',
    version: 1,
    deleted: false,
  };
  const stores: Stores = {
    today: '2026-05-14',
    lots: [lot],
    pours: [],
    boats: [],
    rules: { ...USUAL_RULES, version: 2 },
  };
  const named: NamedBuildUpRow = {
    id: 'n',
    name: 'Bottom',
    substrates: ['gelcoat'],
    exposure: 'immersed',
    bond: 'chemical',
    note: '',
    targetMicron: null,
    layers,
    version: 1,
    deleted: false,
  };
  const border: BorderRow = {
    id: 'o',
    boatId: 'b',
    upperId: 'z',
    lowerId: 'y',
    rule: 'butt',
    widthM: 0,
    epoxyRunsOn: true,
    handStripM: 0,
    note: '',
    version: 1,
    deleted: false,
  };
  const second: BuildUpRow = { ...build, id: 'v', surfaceId: 'y' };

  it('show at once', () => {
    const many = applyChange(bundle, {
      kind: 'buildUps',
      boatId: 'b',
      rows: [
        { ...build, layers },
        { ...second, layers, version: 0 },
      ],
    });
    expect(many.buildUps.map((b) => [b.id, b.layers.length, b.version])).toEqual([
      ['u', 1, 2],
      ['v', 1, 1],
    ]);
    expect(applyChange(bundle, { kind: 'border', row: border }).borders).toMatchObject([{ id: 'o', version: 2 }]);
    expect(
      applyChange({ ...bundle, borders: [border] }, { kind: 'border', row: { ...border, deleted: true } }).borders,
    ).toEqual([]);
    expect(applyToStores(stores, { kind: 'lot', row: { ...lot, leftL: 2 } }).lots).toMatchObject([
      { leftL: 2, version: 2 },
    ]);
    expect(applyToStores(stores, { kind: 'lot', row: { ...lot, deleted: true } }).lots).toEqual([]);
    expect(applyToStores(stores, { kind: 'rules', row: { ...stores.rules, chance: 0.5 } }).rules).toMatchObject({
      chance: 0.5,
      version: 3,
    });
    expect(applyToNamed([named], { kind: 'named', row: { ...named, name: 'Top' } })).toMatchObject([
      { name: 'Top', version: 2 },
    ]);
    expect(applyToNamed([named], { kind: 'lot', row: lot })).toEqual([named]);
  });
  it('go where they belong, with what they need before them', () => {
    expect(requestOf({ kind: 'buildUps', boatId: 'b', rows: [second] })).toEqual({
      path: '/boats/b/build-ups',
      body: { rows: [second] },
    });
    expect(requestOf({ kind: 'lot', row: lot }).path).toBe('/lots/t');
    expect(requestOf({ kind: 'rules', row: stores.rules }).path).toBe(`/yard-rules/${USUAL_RULES.id}`);
    expect(requestOf({ kind: 'named', row: named }).body).not.toHaveProperty('id');
    expect(requestOf({ kind: 'sheetImport', id: 'i', taken: true, sheets: [] })).toEqual({
      path: '/sheet-imports/i',
      body: { taken: true, sheets: [] },
    });
    // A build-up waits behind the sheet that it names, a tin behind its product.
    expect(linksOf({ kind: 'buildUps', boatId: 'b', rows: [{ ...second, layers }] })).toEqual({
      touches: ['v'],
      needs: ['b', 'y', 'r1'],
    });
    expect(linksOf({ kind: 'named', row: named }).needs).toEqual(['r1']);
    expect(linksOf({ kind: 'lot', row: lot }).needs).toEqual(['s']);
    expect(linksOf({ kind: 'border', row: border }).needs).toEqual(['b', 'z', 'y']);
    expect(
      linksOf({ kind: 'sheetImport', id: 'i', taken: true, sheets: [{ id: 's', revisionId: 'r', body: sheet }] })
        .touches,
    ).toEqual(['s', 'r']);
  });
  it('are taken back as they were: many zones in one, a new tin off the shelf, rules as before', () => {
    const rows = [
      { ...build, layers },
      { ...second, layers, version: 0 },
    ];
    expect(inverseOf({ kind: 'buildUps', boatId: 'b', rows }, knew(bundle), ids)).toMatchObject({
      rows: [
        { id: 'u', layers: [], version: 2 },
        { id: 'v', layers: [], deleted: false, version: 1 },
      ],
    });
    expect(
      inverseOf({ kind: 'border', row: { ...border, rule: 'overlap' } }, knew({ ...bundle, borders: [border] }), ids),
    ).toMatchObject({ row: { rule: 'butt', version: 2 } });
    expect(
      inverseOf({ kind: 'lot', row: { ...lot, id: 'new', version: 0 } }, knew(null, { stores }), ids),
    ).toMatchObject({ row: { id: 'new', deleted: true, version: 1 } });
    expect(inverseOf({ kind: 'lot', row: { ...lot, leftL: 1 } }, knew(null, { stores }), ids)).toMatchObject({
      row: { leftL: 5, version: 2 },
    });
    expect(
      inverseOf({ kind: 'rules', row: { ...stores.rules, chance: 0.5 } }, knew(null, { stores }), ids),
    ).toMatchObject({ row: { chance: 0.9, version: 3 } });
    expect(inverseOf({ kind: 'rules', row: stores.rules }, knew(null), ids)).toBeNull();
    expect(
      inverseOf({ kind: 'named', row: { ...named, name: 'Top' } }, knew(null, { named: [named] }), ids),
    ).toMatchObject({ row: { name: 'Bottom', version: 2 } });
    expect(inverseOf({ kind: 'sheetImport', id: 'i', taken: true, sheets: [] }, knew(null), ids)).toMatchObject({
      id: 'new',
      taken: false,
    });
  });
  it('a sheet goes back to what it said by a revision of its own, a new one is removed', () => {
    const row = {
      id: 's',
      withdrawn: false,
      version: 3,
      usedOn: 0,
      current: { id: 'r', sheetId: 's', revision: 2, body: sheet, createdAt: 0 },
    };
    const change: Change = {
      kind: 'sheet',
      id: 's',
      revisionId: 'r3',
      body: { ...sheet, solids: 0.6 },
      withdrawn: true,
      deleted: false,
      version: 3,
    };
    expect(inverseOf(change, knew(null, { sheets: [row] }), ids)).toMatchObject({
      revisionId: 'new',
      body: { solids: sheet.solids },
      withdrawn: false,
      deleted: false,
      version: 4,
    });
    expect(inverseOf({ ...change, version: 0 }, knew(null), ids)).toMatchObject({ deleted: true, version: 1 });
  });
});
