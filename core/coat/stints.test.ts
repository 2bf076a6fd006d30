import { describe, expect, it } from 'vitest';
import {
  againstAir,
  batchTimers,
  airCloses,
  checkAppend,
  coatClocks,
  coatProgress,
  comingClocks,
  foldLog,
  painterHours,
  ribbonUntil,
  wetEdgeAt,
  wetEdgeH,
  wetEdges,
  windowSpans,
  zonePanels,
  type LogEntry,
  type SourcedHour,
} from '../index';
import { sheet } from '../sheet/example.fixture';
import { entry, H, start, T0 } from './log.fixture';

const coatOf = (entries: LogEntry[]) => foldLog(entries).coats[0]!;
const near = (v: number) => expect.closeTo(v, 9);

describe('stints of a coat', () => {
  const log = [
    start(8, { body: { ...start(8).body, painters: ['Ada', 'Bo'] } as never }),
    entry('paused', 9.5, { reason: 'rain' }),
    entry('resumed', 11, { painters: ['Ada'] }),
    entry('finished', 12, { litresOn: null }),
  ];
  it('two for an hour and a half, one for an hour: four painter hours, by hand', () => {
    const coat = coatOf(log);
    expect(coat.stints.map((s) => [(s.from - T0) / H, (s.to! - T0) / H, s.painters.length])).toEqual([
      [8, 9.5, 2],
      [11, 12, 1],
    ]);
    expect(painterHours(coat.stints, T0)).toBeCloseTo(4, 9);
    expect(coat.pausedAt).toBeNull();
  });
  it('rests while it is paused; a withdrawn pause never was', () => {
    expect(coatOf(log.slice(0, 2)).pausedAt).toBe(T0 + 9.5 * H);
    const back = [...log.slice(0, 2), entry('withdrawn', 9.6, { reason: '' }, { supersedes: log[1]!.id })];
    expect(coatOf(back).pausedAt).toBeNull();
  });
  it('other hands without a pause begin a stint; those named before stay where none are named', () => {
    const coat = coatOf([log[0]!, entry('resumed', 9, {})]);
    expect(coat.stints.map((s) => [s.painters, s.to])).toEqual([
      [['Ada', 'Bo'], T0 + 9 * H],
      [['Ada', 'Bo'], null],
    ]);
  });
  it('is not paused twice, nor after its finish, nor before its start', () => {
    const twice = entry('paused', 10, { reason: '' });
    expect(() => checkAppend([...log.slice(0, 2), twice], twice)).toThrow(/paused already/);
    const late = entry('paused', 13, { reason: '' });
    expect(() => checkAppend([...log, late], late)).toThrow(/finished before that/);
    const early = entry('covered', 7, { surfaceId: 'z', share: 0.5 });
    expect(() => checkAppend([...log, early], early)).toThrow(/before the coat was started/);
    const again = entry('paused', 11.5, { reason: '' });
    expect(() => checkAppend([...log.slice(0, 3), again], again)).not.toThrow();
  });
});

describe('how far a coat has come, by hand', () => {
  const zones = [{ surfaceId: 'z', areaM2: 20 }];
  const at = (entries: LogEntry[], hour: number) =>
    coatProgress({ coat: coatOf(entries), zones, rateM2PerH: 10, now: T0 + hour * H });
  it('nobody said: one hour at the usual rate, marked as reckoned', () => {
    expect(at([start(8)], 9)).toMatchObject({ doneM2: 10, leftM2: 10, told: false, realRateM2PerH: null, leftH: 1 });
  });
  it('a quarter in an hour is 5 m²/h: three hours to go; the newest share counts', () => {
    const log = [
      start(8),
      entry('covered', 8.5, { surfaceId: 'z', share: 0.5 }),
      entry('covered', 9, { surfaceId: 'z', share: 0.25 }),
    ];
    expect(at(log, 9)).toMatchObject({ doneM2: 5, told: true, realRateM2PerH: near(5), leftH: near(3) });
  });
  it('a finished coat covered all of it, or what was ticked', () => {
    const done = [start(8), entry('finished', 10, { litresOn: null })];
    expect(at(done, 12).leftM2).toBe(0);
    expect(at([...done, entry('covered', 9, { surfaceId: 'z', share: 0.6 })], 12).leftM2).toBeCloseTo(8, 9);
  });
  it('an hour of air at 9 m²/h is 9 of 18 m²: half of the six panels that are left', () => {
    const progress = { leftM2: 18, leftH: 2, rateM2PerH: 9, painters: 1 };
    const ask = (closesAt: number) => againstAir({ progress, closesAt, now: 0, panels: { of: 8, done: 2 } });
    expect(ask(H)).toEqual({ fits: false, untilM2: 9, untilPanel: 5 });
    expect(ask(2 * H)).toMatchObject({ fits: true, untilPanel: 8 });
    // Twenty minutes are one panel of three square metres.
    expect(ask(H / 3).untilPanel).toBe(3);
    expect(ask(-H)).toMatchObject({ fits: false, untilM2: 0, untilPanel: 2 });
  });
});

describe('the air closes', () => {
  const hours = (rh: (h: number) => number): SourcedHour[] =>
    Array.from({ length: 20 }, (_, i) => ({ at: T0 + i * H, airC: 20, rh: rh(i), source: 'typed' }));
  const ask = (list: SourcedHour[], withinH = 14) =>
    airCloses({
      now: T0 + 8 * H,
      hours: list,
      surface: list.map((h) => ({ at: h.at, tempC: h.airC })),
      limits: { airMinC: 5, airMaxC: 30, surfaceMinC: 5, surfaceMaxC: 30, rhMax: 0.85, spreadMinC: 3 },
      method: 'roller',
      withinH,
    });
  it('at the minute at which humidity crosses 85 % on its way from 60 % at noon to 100 % at four', () => {
    // (0.85 − 0.6) / 0.4 of four hours: 14:30. The dew point closes in at about 83 % before that: spread 3 °C.
    const closing = ask(hours((h) => (h <= 12 ? 0.6 : Math.min(1, 0.6 + 0.1 * (h - 12)))));
    expect((closing!.at - T0) / H).toBeGreaterThan(14);
    expect((closing!.at - T0) / H).toBeLessThanOrEqual(14.6);
  });
  it('not at all in steady air, and not further than is looked', () => {
    expect(ask(hours(() => 0.6))).toBeNull();
    expect(
      ask(
        hours((h) => (h < 15 ? 0.6 : 0.95)),
        4,
      ),
    ).toBeNull();
  });
});

describe('panels of a zone, by hand', () => {
  const boat = { loaM: 10, lwlM: 8 };
  const of = (kind: 'underwater' | 'bilge' | 'topsides', side: 'both' | 'port' | 'part', areaM2: number) =>
    zonePanels({ zone: { kind, side, areaM2 }, boat, rateM2PerH: 10, painters: 1, wetEdgeH: 0.25 });
  it('20 m² of bottom: 10 m² a side over 8 m, 2.5 m² in a wet edge: four panels a side', () => {
    expect(of('underwater', 'both', 20)).toMatchObject({
      perSide: 4,
      of: 8,
      widthM: 2,
      areaM2: 2.5,
      order: 'bottomUp',
    });
    expect(of('topsides', 'port', 10)).toMatchObject({ sides: ['port'], of: 4, order: 'topDown' });
    expect(of('underwater', 'part', 5).sides).toEqual(['whole']);
  });
  it('a bilge is one face, out by a clear way', () => {
    expect(of('bilge', 'both', 5)).toMatchObject({ sides: ['whole'], of: 2, order: 'farthestFirst' });
  });
});

describe('the wet edge', () => {
  it('20 min where the sheet is silent, as the sheet says, half of it at 30 °C, no longer in the cold', () => {
    expect(wetEdgeH({}, null)).toBeCloseTo(1 / 3, 9);
    expect(wetEdgeH({ wetEdgeMin: 12 }, 30)).toBeCloseTo(0.1, 9);
    expect(wetEdgeH({ wetEdgeMin: 12 }, 5)).toBeCloseTo(0.2, 9);
  });
  it('runs from the last panel that was ticked, rests with the coat, and is a clock of it', () => {
    const log = [start(8), entry('covered', 8.5, { surfaceId: 'z', share: 0.1 })];
    expect(wetEdgeAt({ coat: coatOf(log), hours: 0.25 })).toBe(T0 + 8.75 * H);
    expect(wetEdgeAt({ coat: coatOf([...log, entry('paused', 8.6, { reason: '' })]), hours: 0.25 })).toBeNull();
    const edges = wetEdges({
      coats: [coatOf(log)],
      sheets: [{ id: 'r1', body: { ...sheet, wetEdgeMin: 15 } }],
      airC: 20,
    });
    expect(comingClocks([], [], T0 + 8.6 * H, edges).map((c) => [c.kind, c.surfaceId, c.at])).toEqual([
      ['wetEdge', 'z', T0 + 8.75 * H],
    ]);
    expect(comingClocks([], [], T0 + 9 * H, edges)).toEqual([]);
  });
});

describe('fifty pots at once', () => {
  const batches = Array.from({ length: 50 }, (_, i) => ({
    ...({} as ReturnType<typeof foldLog>['batches'][number]),
    id: `b${i}`,
    sheetRevisionId: 'r1',
    mixedAt: T0 - i * 60_000,
    stirMin: 2,
    standMin: 15,
    potLifeH: 2,
    silenced: [],
    emptied: false,
    inUse: true,
    restL: 0,
  }));
  it('each has its stand and its pot, those due first in front; one that was stirred long ago says so no more', () => {
    const timers = batchTimers(batches, T0);
    expect(timers.filter((t) => t.timer === 'pot')).toHaveLength(50);
    expect(timers.filter((t) => t.timer === 'stand')).toHaveLength(50);
    // Stirred within the last minute, or still to be: those of now, one and two minutes ago.
    expect(
      timers
        .filter((t) => t.timer === 'stir')
        .map((t) => t.batchId)
        .sort(),
    ).toEqual(['b0', 'b1', 'b2']);
    expect(timers.map((t) => t.dueAt)).toEqual(timers.map((t) => t.dueAt).sort((a, b) => a - b));
    // A stand of fifteen minutes begins when it is stirred.
    expect(timers.find((t) => t.batchId === 'b0' && t.timer === 'stand')?.dueAt).toBe(T0 + 17 * 60_000);
    expect(comingClocks([], timers, T0)).toHaveLength(50 + 17 + 2);
  });
});

describe('additives in the pot move the clocks, by hand', () => {
  const hours: SourcedHour[] = Array.from({ length: 200 }, (_, i) => ({
    at: T0 + i * H,
    airC: 20,
    rh: 0.6,
    source: 'typed',
  }));
  const temps = hours.map((h) => ({ at: h.at, tempC: 20 }));
  const clocksWith = (windowFactor: number | null) => {
    const body = {
      sheetRevisionId: 'r1',
      on: [{ surfaceId: 'z', layerId: 'l1' }],
      parts: [{ name: 'Base', volumeL: 1, massKg: null }],
      thinnerL: 0,
      totalL: 1,
      standMin: 0,
      potLifeH: null,
      potTempC: 20,
      ...(windowFactor === null ? {} : { additives: [{ name: 'A', litres: 0.02, potFactor: 1, windowFactor }] }),
    };
    const log = [
      entry('mixed', 9, body, { stream: 'batch', streamId: 'b1' }),
      start(10),
      entry('batchOn', 10, { batchId: 'b1', litres: 1 }),
      entry('finished', 11, { litresOn: null }),
    ];
    const coat = coatOf(log);
    const timed = {
      ...sheet,
      touchDry: [{ tempC: 20, hours: 2 }],
      overcoat: [
        {
          after: 'any' as const,
          minimum: [{ tempC: 20, hours: 4 }],
          tackLimit: [{ tempC: 20, hours: 20 }],
          maximum: null,
          alwaysAbrade: false,
        },
      ],
    };
    const c = coatClocks({ coat, sheet: timed, following: null, temps, readings: [], hours });
    return [c.touchDryAt, c.window!.opensAt, c.window!.bondsUntil].map((t) => (t! - T0) / H);
  };
  it('a retarder of × 1.5 makes it wait half as long again, and never lengthens what must not be missed', () => {
    expect(clocksWith(null)).toEqual([near(13), near(15), near(30)]);
    expect(clocksWith(1.5)).toEqual([near(14), near(17), near(30)]);
  });
  it('an accelerator of × 0.5 halves both', () => {
    expect(clocksWith(0.5)).toEqual([near(12), near(13), near(20)]);
  });
});

describe('the window as spans', () => {
  const of = (window: object | null, more = {}) =>
    windowSpans({
      coat: { startedAt: 0, finishedAt: 2 },
      clocks: { window: window as never, alwaysAbrade: false, abradeFrom: null, ...more },
      until: 20,
    }).map((s) => [s.state, s.from, s.until]);
  it('follow each other from the start of the coat', () => {
    expect(of({ opensAt: 5, bondsUntil: 12, bonds: true, closesAt: 18 })).toEqual([
      ['inHand', 0, 2],
      ['shut', 2, 5],
      ['bonds', 5, 12],
      ['abrade', 12, 18],
      ['closed', 18, 20],
    ]);
  });
  it('has no bonding where the sheet always asks for abrading, or it is too cold for one', () => {
    const window = { opensAt: 5, bondsUntil: 12, bonds: true, closesAt: null };
    expect(of(window, { alwaysAbrade: true }).map((s) => s[0])).toEqual(['inHand', 'shut', 'abrade']);
    expect(of({ ...window, bonds: false }).map((s) => s[0])).toEqual(['inHand', 'shut', 'abrade']);
    expect(of(null)).toEqual([['inHand', 0, 2]]);
  });
  it('is drawn past now and past its last moment', () => {
    expect(ribbonUntil({ startedAt: 0, now: 10, moments: [4, null] })).toBeCloseTo(11.5, 9);
  });
});
