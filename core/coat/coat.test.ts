import { describe, expect, it } from 'vitest';
import {
  blockingWork,
  checkAppend,
  comingClocks,
  foldLog,
  hourlyFromDays,
  measuredFilm,
  zoneReadings,
  zoneStatuses,
  type Layer,
  type LogEntry,
  type StatusInput,
  type Surface,
} from '../index';
import { sheet } from '../sheet/example.fixture';

const H = 3_600_000;
const T0 = Date.UTC(2026, 4, 1);
let serial = 0;

function entry(kind: LogEntry['kind'], hour: number, body: object, more: Partial<LogEntry> = {}): LogEntry {
  serial += 1;
  const base = {
    id: `e${serial}`,
    boatId: 'boat',
    stream: 'coat',
    streamId: 'c1',
    kind,
    occurredAt: T0 + hour * H,
    recordedAt: T0 + hour * H,
    painter: 'Ada',
    device: 'd',
    supersedes: null,
    body,
  };
  return { ...base, ...more } as LogEntry;
}

const start = (hour: number, more: Partial<LogEntry> = {}, layerId = 'l1') =>
  entry(
    'started',
    hour,
    {
      on: [{ surfaceId: 'z', layerId }],
      sheetRevisionId: 'r1',
      method: 'roller',
      thinner: 0.05,
      dftMicron: 100,
      colour: 'grey',
      colourHex: '#888888',
      overrideReason: null,
      abradedGrit: null,
    },
    more,
  );

describe('the log', () => {
  it('folds a coat from its entries, in whatever order they arrive', () => {
    const log = [
      entry('finished', 12, { litresOn: 4.2 }),
      entry('wetFilm', 11, { micron: [200, 220] }),
      start(10),
      entry('reading', 10, { airC: 18, rh: 0.6, surfaceC: 17 }),
    ];
    const {
      coats: [coat],
    } = foldLog(log);
    expect(coat).toMatchObject({
      id: 'c1',
      startedAt: T0 + 10 * H,
      finishedAt: T0 + 12 * H,
      litresOn: 4.2,
      painter: 'Ada',
    });
    expect(coat?.readings).toHaveLength(1);
    expect(coat?.superseded).toEqual([]);
    expect(measuredFilm(coat!, 0.5)).toEqual({ wetMicron: 210, dryMicron: 100, readings: 2 });
  });
  it('a correction takes the place of the wrong entry, which stays readable', () => {
    const wrong = entry('finished', 12, { litresOn: null });
    const log = [
      start(10),
      wrong,
      entry('finished', 13, { litresOn: 5 }, { supersedes: wrong.id, recordedAt: T0 + 20 * H }),
    ];
    const {
      coats: [coat],
    } = foldLog(log);
    expect(coat?.finishedAt).toBe(T0 + 13 * H);
    expect(coat?.superseded.map((e) => e.id)).toEqual([wrong.id]);
  });
  it('a withdrawn start takes the coat out, a withdrawn finish opens it again', () => {
    const begun = start(10);
    const done = entry('finished', 12, { litresOn: null });
    const undo = (what: LogEntry) => entry('withdrawn', 13, { reason: 'wrong zone' }, { supersedes: what.id });
    expect(foldLog([begun, done, undo(done)]).coats[0]?.finishedAt).toBeNull();
    expect(foldLog([begun, undo(begun)]).coats).toEqual([]);
  });
  it('folds a batch, its timers silenced', () => {
    const mixed = entry(
      'mixed',
      9,
      { sheetRevisionId: 'r1', on: [], parts: [], thinnerL: 0, totalL: 2, standMin: 15, potLifeH: 2, potTempC: 20 },
      { stream: 'batch', streamId: 'b1' },
    );
    const {
      batches: [batch],
    } = foldLog([mixed, entry('silenced', 9.3, { timer: 'stand' }, { stream: 'batch', streamId: 'b1' })]);
    expect(batch).toMatchObject({ id: 'b1', totalL: 2, silenced: ['stand'], emptied: false });
  });
  it('finds the readings of a zone in its coats and in its own stream', () => {
    const log = [
      start(10),
      entry('reading', 10, { airC: null, rh: null, surfaceC: 17 }),
      entry('reading', 8, { airC: null, rh: null, surfaceC: 12 }, { stream: 'zone', streamId: 'z' }),
      entry('reading', 8, { airC: null, rh: null, surfaceC: 30 }, { stream: 'zone', streamId: 'other' }),
    ];
    expect(zoneReadings(log, 'z').map((r) => r.surfaceC)).toEqual([12, 17]);
  });

  const refused = (log: LogEntry[], next: LogEntry) => {
    try {
      checkAppend(log, next);
      return 'accepted';
    } catch (error) {
      expect(error).toBeInstanceOf(RangeError);
      return (error as Error).message;
    }
  };
  it('refuses what cannot have happened', () => {
    const begun = start(10);
    const done = entry('finished', 12, { litresOn: null });
    expect(refused([], entry('finished', 12, { litresOn: null }))).toBe('Start the coat first.');
    expect(refused([begun], entry('finished', 9, { litresOn: null }))).toContain('finish before it started');
    expect(refused([begun], start(11))).toContain('already started');
    expect(refused([begun, done], entry('finished', 13, { litresOn: null }))).toContain('already finished');
    expect(refused([begun], entry('handTest', 13, { test: 'thumb', passed: true }))).toContain(
      'Finish the coat before',
    );
    const test = entry('handTest', 14, { test: 'thumb', passed: true });
    expect(refused([begun, done, test], entry('withdrawn', 15, { reason: '' }, { supersedes: done.id }))).toContain(
      'Withdraw the test first',
    );
    expect(refused([begun, done], entry('handTest', 11, { test: 'thumb', passed: true }))).toContain(
      'after the coat is finished',
    );
    expect(refused([begun], entry('wetFilm', 9, { micron: [200] }))).toContain('before the coat was started');
    expect(refused([begun, done], entry('withdrawn', 13, { reason: '' }, { supersedes: begun.id }))).toContain(
      'Take back the later entries',
    );
    expect(refused([begun], entry('finished', 13, { litresOn: null }, { supersedes: 'nope' }))).toContain(
      'not in this log',
    );
    expect(refused([begun], entry('finished', 13, { litresOn: null }, { supersedes: begun.id }))).toContain(
      'one of its kind',
    );
    expect(refused([], entry('silenced', 9, { timer: 'pot' }, { stream: 'batch', streamId: 'b' }))).toContain(
      'mixing of this batch',
    );
    expect(refused([begun], done)).toBe('accepted');
    expect(refused([begun, done], start(9, { supersedes: begun.id }))).toBe('accepted');
    expect(refused([begun, done], start(13, { supersedes: begun.id }))).toContain('finish before it started');
  });
  it('refuses to correct one entry twice', () => {
    const begun = start(10);
    const second = start(9, { supersedes: begun.id });
    expect(refused([begun, second], start(8, { supersedes: begun.id }))).toContain('already corrected');
    expect(refused([begun, second], start(8, { supersedes: second.id }))).toBe('accepted');
  });
});

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
  const statusOf = (surface: Surface, layers = [layer]) => {
    const input: StatusInput = {
      now: T0 + 60 * H,
      surfaces: [zone, surface],
      buildUps: [
        { surfaceId: 'z', layers },
        { surfaceId: 'p', layers: [{ ...layer, id: 'lp' }] },
      ],
      entries: log,
      sheets: [{ id: 'r1', sheetId: 's1', revision: 1, createdAt: 0, body: sheet }],
      hours,
    };
    return zoneStatuses(input)[1]!;
  };
  it('a patch that was cut out starts on the bare substrate, whatever its zone has got', () => {
    expect(statusOf(patch({}))).toMatchObject({ state: 'ready', lastCoat: null, layersDone: 0, layersPlanned: 1 });
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
  it('open work holds up the zone until it is done, and only where a coat is to come', () => {
    const work = { id: 'w', kind: 'repair' as const, note: '', done: false };
    expect(statusOf(patch({ openWork: [work] })).state).toBe('openWork');
    expect(statusOf(patch({ openWork: [{ ...work, done: true }] })).state).toBe('ready');
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
});
