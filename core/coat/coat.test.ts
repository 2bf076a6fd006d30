import { describe, expect, it } from 'vitest';
import {
  blockingWork,
  comingClocks,
  hourlyFromDays,
  isSheltered,
  launchAgainst,
  zoneStatuses,
  type Layer,
  type StatusInput,
  type Surface,
} from '../index';
import { sheet } from '../sheet/example.fixture';
import { entry, H, start, T0 } from './log.fixture';

describe('where a zone stands', () => {
  const day = (n: number, lowC: number, highC: number) => ({
    startsAt: T0 + n * 24 * H,
    endsAt: T0 + (n + 1) * 24 * H,
    lowC,
    highC,
    dewC: lowC - 6,
  });
  const weather = (lowC: number, highC: number) =>
    hourlyFromDays([0, 1, 2, 3, 4].map((n) => day(n, lowC, highC))).map((h) => ({ ...h, source: 'typed' as const }));
  const zone: Surface = {
    id: 'z',
    name: 'Underwater hull',
    kind: 'bilge',
    substrate: 'gelcoat',
    exposure: 'bilge',
    existing: 'bare',
    areaM2: 20,
    areaShare: 0.15,
  };
  const layer = (id: string): Layer => ({
    id,
    sheetRevisionId: 'r1',
    dftMicron: 100,
    method: 'roller',
    thinnerShare: 0,
    loss: 0.1,
    deadVolumeLPerM2: 0,
    colour: 'grey',
    colourHex: '#888888',
  });
  const input = (hour: number, more: Partial<StatusInput> = {}): StatusInput => ({
    now: T0 + hour * H,
    surfaces: [zone],
    buildUps: [{ surfaceId: 'z', layers: [layer('l1'), layer('l2')] }],
    entries: [start(10), entry('finished', 12, { litresOn: null })],
    sheets: [{ id: 'r1', sheetId: 's', revision: 1, createdAt: 0, body: sheet }],
    hours: weather(20, 20),
    ...more,
  });
  const state = (i: StatusInput) => zoneStatuses(i)[0]!.state;

  it('goes through shut, bonds and abrade as its clocks run', () => {
    // Steady 20 °C: opens 5 h after the finish at 12:00, bonds until 24 h after the start at 10:00.
    expect(state(input(16.9))).toBe('shut');
    expect(state(input(17.1))).toBe('bonds');
    expect(state(input(33.9))).toBe('bonds');
    expect(state(input(34.1))).toBe('abrade');
    const closing = { ...sheet, overcoat: [{ ...sheet.overcoat[0]!, maximum: [{ tempC: 20, hours: 48 }] }] };
    expect(state(input(59, { sheets: [{ id: 'r1', sheetId: 's', revision: 1, createdAt: 0, body: closing }] }))).toBe(
      'closed',
    );
  });
  it('is ready, in hand, complete or waiting for a build-up', () => {
    expect(state(input(10, { entries: [] }))).toBe('ready');
    expect(state(input(11, { entries: [start(10)] }))).toBe('inHand');
    expect(state(input(11, { entries: [], buildUps: [] }))).toBe('noBuildUp');
    expect(state(input(20, { buildUps: [{ surfaceId: 'z', layers: [layer('l1')] }] }))).toBe('complete');
  });
  it('says when the weather does not reach the coat, or the sheet has no times', () => {
    expect(state(input(80, { hours: weather(20, 20).slice(20) }))).toBe('noWeather');
    expect(
      state(
        input(20, {
          sheets: [{ id: 'r1', sheetId: 's', revision: 1, createdAt: 0, body: { ...sheet, overcoat: [] } }],
        }),
      ),
    ).toBe('noTimes');
  });
  it('always abrade means abrade, once it is open', () => {
    const always = { ...sheet, overcoat: [{ ...sheet.overcoat[0]!, alwaysAbrade: true }] };
    const sheets = [{ id: 'r1', sheetId: 's', revision: 1, createdAt: 0, body: always }];
    expect(state(input(16, { sheets }))).toBe('shut');
    expect(state(input(18, { sheets }))).toBe('abrade');
  });
  it('counts coats of one product and names the next layer', () => {
    const [status] = zoneStatuses(input(18));
    expect(status).toMatchObject({ layersDone: 1, layersPlanned: 2, nextNumber: 2, nextLayer: { id: 'l2' } });
    expect(status?.clocks?.inputs).toMatchObject({ readings: 0, sources: ['typed'], startTempC: 20 });
  });
  it('a logged reading warms the surface and the window answers', () => {
    const cold = input(13, { hours: weather(10, 10) });
    const warm = { ...cold, entries: [...cold.entries, entry('reading', 12, { airC: null, rh: null, surfaceC: 22 })] };
    const opens = (i: StatusInput) => zoneStatuses(i)[0]!.clocks?.window?.opensAt as number;
    expect(opens(warm)).toBeLessThan(opens(cold) - 1 * H);
  });
  it('lists what comes, in order, and no end of a bonding window that never was', () => {
    const statuses = zoneStatuses(input(13));
    const kinds = comingClocks(statuses, [], T0 + 13 * H).map((c) => c.kind);
    expect(kinds.slice(0, 2)).toEqual(['touchDry', 'opens']);
    expect(kinds).toContain('tackEnds');
    const cold = zoneStatuses(input(13, { hours: weather(2, 3) }));
    expect(cold[0]?.clocks?.window?.bonds).toBe(false);
    expect(comingClocks(cold, [], T0 + 13 * H).map((c) => c.kind)).not.toContain('tackEnds');
  });
});

describe('patches and open work', () => {
  const layer: Layer = {
    id: 'l1',
    sheetRevisionId: 'r1',
    dftMicron: 100,
    method: 'roller',
    thinnerShare: 0,
    loss: 0.1,
    deadVolumeLPerM2: 0,
    colour: 'grey',
    colourHex: '#888888',
  };
  const zone: Surface = {
    id: 'z',
    name: 'Bottom',
    kind: 'underwater',
    substrate: 'gelcoat',
    exposure: 'immersed',
    existing: 'bare',
    areaM2: 20,
    areaShare: 0.1,
  };
  const patch = (more: Partial<Surface>): Surface => ({
    ...zone,
    id: 'p',
    name: 'Patch',
    areaM2: 1,
    parentId: 'z',
    patchKind: 'standPad',
    ...more,
  });
  const hours = hourlyFromDays(
    Array.from({ length: 6 }, (_, d) => ({
      startsAt: T0 + d * 24 * H,
      endsAt: T0 + (d + 1) * 24 * H,
      lowC: 18,
      highC: 22,
      rh: 0.6,
    })),
  ).map((h) => ({ ...h, source: 'typed' as const }));
  const log = [
    start(10),
    entry('finished', 12, { litresOn: 4 }),
    start(40, { streamId: 'c2' }, 'l2'),
    entry('finished', 42, { litresOn: 4 }, { streamId: 'c2' }),
  ];
  const statusOf = (surface: Surface, layers = [layer], own: Layer[] = [{ ...layer, id: 'lp' }]) => {
    const input: StatusInput = {
      now: T0 + 60 * H,
      surfaces: [zone, surface],
      buildUps: [
        { surfaceId: 'z', layers },
        { surfaceId: 'p', layers: own },
      ],
      entries: log,
      sheets: [{ id: 'r1', sheetId: 's1', revision: 1, createdAt: 0, body: sheet }],
      hours,
    };
    return zoneStatuses(input)[1]!;
  };
  it('a patch that was cut out starts on the bare substrate, whatever its zone has got', () => {
    const moved = { id: 's', kind: 'underStand' as const, note: '', done: true };
    expect(statusOf(patch({ openWork: [moved] }))).toMatchObject({
      state: 'ready',
      lastCoat: null,
      layersDone: 0,
      layersPlanned: 1,
    });
  });
  it('one that lies on its zone has all its coats beneath, or as many as are said', () => {
    expect(statusOf(patch({ patchKind: 'highWear' })).lastCoat?.id).toBe('c2');
    expect(statusOf(patch({ patchKind: 'highWear' })).layersDone).toBe(0);
    expect(statusOf(patch({ patchKind: 'highWear', sharedCoats: 1 })).lastCoat?.id).toBe('c1');
    expect(statusOf(patch({ patchKind: 'strippedBack', sharedCoats: 1 })).coats.map((c) => c.id)).toEqual(['c1']);
  });
  it('a band of wear waits until its zone has come to the same product, or has all its coats', () => {
    const other: Layer = { ...layer, id: 'l9', sheetRevisionId: 'r2' };
    const band = patch({ patchKind: 'highWear' });
    expect(statusOf(band, [layer, { ...layer, id: 'l2' }, other]).state).toBe('waits');
    expect(statusOf(band, [layer, { ...layer, id: 'l2' }, { ...layer, id: 'l3' }]).state).not.toBe('waits');
    expect(statusOf(band, [layer, { ...layer, id: 'l2' }]).state).not.toBe('waits');
    expect(statusOf(patch({ patchKind: 'highWear', sharedCoats: 3 })).state).toBe('waits');
    expect(statusOf(patch({ patchKind: 'highWear', sharedCoats: 2 })).state).not.toBe('waits');
  });
  it('a bonding strip without paint is left bare on purpose', () => {
    expect(statusOf(patch({ patchKind: 'bondingStrip' }), [layer], []).state).toBe('leftBare');
    expect(statusOf(patch({ patchKind: 'weldSeam' }), [layer], []).state).toBe('noBuildUp');
  });
  it('open work holds up the zone until it is done, and only where a coat is to come', () => {
    const work = { id: 'w', kind: 'repair' as const, note: '', done: false };
    expect(statusOf(patch({ openWork: [work] })).state).toBe('openWork');
    expect(statusOf(patch({ patchKind: 'weldSeam', openWork: [{ ...work, done: true }] })).state).toBe('ready');
    // Under a stand nothing can be painted until it was moved, though nobody wrote that down as work.
    expect(statusOf(patch({})).state).toBe('openWork');
    expect(statusOf(patch({ openWork: [{ ...work, done: true }] })).state).toBe('openWork');
    expect(blockingWork({ openWork: [work, { ...work, done: true }] })).toEqual([work]);
    const all = [
      ...log,
      entry(
        'started',
        50,
        {
          on: [{ surfaceId: 'p', layerId: 'lp' }],
          sheetRevisionId: 'r1',
          method: 'roller',
          thinner: 0,
          dftMicron: 100,
          colour: '',
          colourHex: '#888888',
          overrideReason: 'x',
          abradedGrit: null,
        },
        { streamId: 'c3' },
      ),
      entry('finished', 51, { litresOn: null }, { streamId: 'c3' }),
    ];
    const input: StatusInput = {
      now: T0 + 60 * H,
      surfaces: [patch({ openWork: [work] })],
      buildUps: [{ surfaceId: 'p', layers: [{ ...layer, id: 'lp' }] }],
      entries: all,
      sheets: [{ id: 'r1', sheetId: 's1', revision: 1, createdAt: 0, body: sheet }],
      hours,
    };
    expect(zoneStatuses(input)[0]?.state).toBe('complete');
  });
  it('under a roof rain and wind do not count, the dew does; a locker is inside', () => {
    const deck: Surface = { ...zone, id: 'd', kind: 'deck', exposure: 'weather' };
    expect(isSheltered(deck)).toBe(false);
    expect(isSheltered(deck, 'tent')).toBe(true);
    expect(isSheltered({ ...deck, shelter: 'open' }, 'tent')).toBe(false);
    expect(isSheltered({ ...deck, shelter: 'building' })).toBe(true);
    expect(isSheltered({ ...deck, kind: 'anchorLocker', exposure: 'splash' })).toBe(true);
    const raining = hours.map((h) => ({ ...h, rainMm: 1, windMs: 15 }));
    const advice = (shelter: Surface['shelter'], rh = 0.6) =>
      zoneStatuses({
        now: T0 + 34 * H,
        surfaces: [{ ...deck, ...(shelter ? { shelter } : {}) }],
        buildUps: [{ surfaceId: 'd', layers: [layer] }],
        entries: [],
        sheets: [{ id: 'r1', sheetId: 's1', revision: 1, createdAt: 0, body: sheet }],
        hours: raining.map((h) => ({ ...h, rh })),
      })[0]!.advice;
    expect(advice('open')).toMatchObject({ nowHolds: false, trouble: { break: { limit: 'rain' } } });
    expect(advice('building')).toMatchObject({ nowHolds: true });
    expect(advice('building', 0.95)).toMatchObject({ nowHolds: false });
  });
  it('a two-pack without a tack limit bonds until it is cured, and is abraded from then', () => {
    const body = { ...sheet, overcoat: [{ ...sheet.overcoat[0]!, tackLimit: null, maximum: null }] };
    const layers = [layer, { ...layer, id: 'l2' }, { ...layer, id: 'l3' }];
    const stateAt = (hour: number, more: object) =>
      zoneStatuses({
        now: T0 + hour * H,
        surfaces: [zone],
        buildUps: [{ surfaceId: 'z', layers }],
        entries: log,
        sheets: [{ id: 'r1', sheetId: 's1', revision: 1, createdAt: 0, body: { ...body, ...more } }],
        hours: [...hours, ...hours.map((h) => ({ ...h, at: h.at + 144 * H })).slice(1)],
      })[0]!.state;
    const cures = { fullCure: [{ tempC: 20, hours: 60 }] };
    // Finished at 42 h, mean 20 °C: cured about 102 h in.
    expect(stateAt(90, cures)).toBe('bonds');
    expect(stateAt(110, cures)).toBe('abrade');
    // Without a time on the sheet, the usual week.
    expect(stateAt(42 + 160, { fullCure: null })).toBe('bonds');
    expect(stateAt(42 + 170, { fullCure: null })).toBe('abrade');
    // A one-part paint goes on as it is.
    expect(stateAt(42 + 170, { fullCure: null, parts: sheet.parts.slice(0, 1) })).toBe('bonds');
  });
  it('beyond the forecast a window is told on what is typical of the season, and known to be', () => {
    const at = (boat?: StatusInput['boat']) =>
      zoneStatuses({
        now: T0 + 60 * H,
        surfaces: [zone],
        buildUps: [{ surfaceId: 'z', layers: [layer, { ...layer, id: 'l2' }, { ...layer, id: 'l3' }] }],
        entries: log,
        sheets: [{ id: 'r1', sheetId: 's1', revision: 1, createdAt: 0, body: sheet }],
        hours: hours.slice(0, 62),
        ...(boat ? { boat } : {}),
      })[0]!;
    const known = T0 + 61 * H;
    expect(at().clocks?.window?.bondsUntil).toBeNull();
    const typical = at({ latitudeDeg: 40 }).clocks!;
    expect(typical.inputs.knownUntil).toBe(known);
    expect(typical.window?.bondsUntil as number).toBeGreaterThan(known);
    // Colder places take longer.
    expect(at({ latitudeDeg: 55 }).clocks!.window?.bondsUntil as number).toBeGreaterThan(
      typical.window?.bondsUntil as number,
    );
  });
});

describe('a launch', () => {
  const status = (clocks: object | null, state = 'complete') =>
    ({ surfaceId: 'z', state, clocks, nextLayer: state === 'complete' ? null : {} }) as never;
  const wet = [{ id: 'z', exposure: 'immersed' as const }];
  const ask = (launchAt: number, clocks: object | null, state?: string, surfaces: object[] = wet) =>
    launchAgainst({ statuses: [status(clocks, state)], surfaces: surfaces as never, launchAt, now: T0 });
  it('speaks before the shortest and after the longest time to the water, of what gets wet', () => {
    const clocks = { immersionAt: T0 + 20 * H, immersionUntil: T0 + 90 * H };
    expect(ask(T0 + 19 * H, clocks)).toEqual([{ kind: 'tooEarly', surfaceId: 'z', at: T0 + 20 * H }]);
    expect(ask(T0 + 21 * H, clocks)).toEqual([]);
    expect(ask(T0 + 91 * H, clocks)).toEqual([{ kind: 'tooLate', surfaceId: 'z', at: T0 + 90 * H }]);
    expect(ask(T0 + 19 * H, clocks, 'complete', [{ id: 'z', exposure: 'weather' }])).toEqual([]);
    expect(ask(T0 + 19 * H, null)).toEqual([]);
  });
  it('speaks of coats to come when it is near', () => {
    expect(ask(T0 + 30 * H, null, 'bonds').map((a) => a.kind)).toEqual(['unfinished']);
    expect(ask(T0 + 80 * H, null, 'bonds')).toEqual([]);
  });
});
