import { describe, expect, it } from 'vitest';
import {
  againstStart,
  gritOf,
  startConditions,
  startEntries,
  startProblem,
  type Finding,
  type StartWish,
  type StartZone,
  type ZoneStatus,
} from '../index';

const NOW = Date.UTC(2026, 4, 14, 10);
const HOUR = 3_600_000;
const wish: StartWish = {
  when: 'now',
  startedAt: NOW - 24 * HOUR,
  finishedAt: NOW - 22 * HOUR,
  readings: { airC: null, rh: null, surfaceC: null },
  grit: '',
  reason: '',
};
const zone = (state: ZoneStatus['state'], more: Partial<StartZone> = {}): StartZone => ({
  status: { surfaceId: state, state } as ZoneStatus,
  openWork: [],
  stops: [],
  ...more,
});
const work = { id: 'w', kind: 'drilling', note: '', done: false } as const;
const stop = { rule: 'copperOnMetal', severity: 'stop' } as Finding;

describe('what stands against a start', () => {
  const none = { zones: [], at: NOW, planned: false, abraded: false, batches: [], verdict: null, advice: null };
  const kinds = (options: Partial<Parameters<typeof againstStart>[0]>) =>
    againstStart({ ...none, ...options }).map((a) => a.kind);

  it('is a window that is not open, a coat going on, or a bond that passed and nothing abraded', () => {
    const states = ['ready', 'bonds', 'shut', 'closed', 'waits', 'inHand', 'abrade'] as const;
    const told = againstStart({ ...none, zones: states.map((s) => zone(s)) });
    expect(told.map((a) => a.kind === 'window' && a.status.state)).toEqual([
      'shut',
      'closed',
      'waits',
      'inHand',
      'abrade',
    ]);
    expect(kinds({ zones: [zone('abrade')], abraded: true })).toEqual([]);
  });
  it('is open work, air outside the limits, and stops that nobody let stand', () => {
    expect(kinds({ zones: [zone('bonds', { openWork: [work], stops: [stop] })], verdict: { ok: false } })).toEqual([
      'openWork',
      'air',
      'rule',
    ]);
    expect(kinds({ zones: [zone('bonds')], verdict: { ok: true } })).toEqual([]);
  });
  it('is a coat before the one beneath it', () => {
    const status = { surfaceId: 'z', state: 'ready', nextLayer: { id: 'first' } } as ZoneStatus;
    expect(kinds({ zones: [{ status, layerId: 'third', openWork: [], stops: [] }] })).toEqual(['order']);
    expect(kinds({ zones: [{ status, layerId: 'first', openWork: [], stops: [] }] })).toEqual([]);
  });
  it('is a batch that has not stood, of several the one mixed last', () => {
    const batches = [
      { mixedAt: NOW - HOUR, standMin: 20 },
      { mixedAt: NOW - HOUR / 6, standMin: 20 },
    ];
    expect(againstStart({ ...none, batches })).toEqual([{ kind: 'stand', until: NOW + HOUR / 6 }]);
    expect(kinds({ batches: batches.slice(0, 1) })).toEqual([]);
    expect(kinds({ batches: [{ mixedAt: NOW, standMin: 0 }] })).toEqual([]);
  });
  it('is planned abrading of which nothing is told, inside the window too', () => {
    expect(kinds({ zones: [zone('bonds')], planned: true })).toEqual(['abrading']);
    expect(kinds({ zones: [zone('bonds')], planned: true, abraded: true })).toEqual([]);
    // Where it bonds no longer, that is said once.
    expect(kinds({ zones: [zone('abrade')], planned: true })).toEqual(['window']);
  });
  it('is air that does not hold until touch dry; once it is against it now, that is enough', () => {
    const advice = { nowHolds: false, trouble: null };
    expect(kinds({ verdict: { ok: true }, advice })).toEqual(['untilDry']);
    expect(kinds({ verdict: { ok: false }, advice })).toEqual(['air']);
    expect(kinds({ verdict: { ok: true }, advice: { nowHolds: null, trouble: null } })).toEqual([]);
  });
});

describe('what keeps a start from being logged', () => {
  const problem = (change: Partial<StartWish>, against: { kind: 'air' }[] = []) =>
    startProblem({ wish: { ...wish, ...change }, now: NOW, against });

  it('is nothing where all is well', () => {
    expect(problem({})).toBeNull();
    expect(problem({ when: 'earlier' })).toBeNull();
    expect(problem({ reason: 'the owner wants it' }, [{ kind: 'air' }])).toBeNull();
    // Times of a coat that was earlier do not matter to one that starts now.
    expect(problem({ startedAt: Number.NaN, finishedAt: NOW + HOUR })).toBeNull();
  });
  it.each([
    [{ readings: { airC: Number.NaN, rh: null, surfaceC: null } }, /reading cannot be read/],
    [{ readings: { airC: 12, rh: 1.4, surfaceC: null } }, /between 1 and 100 %/],
    [{ readings: { airC: 12, rh: 0, surfaceC: null } }, /between 1 and 100 %/],
    [{ when: 'earlier', startedAt: Number.NaN }, /when the coat was started/],
    [{ when: 'earlier', startedAt: NOW + HOUR }, /start has not come yet/],
    [{ when: 'earlier', finishedAt: Number.NaN }, /when the coat was finished/],
    [{ when: 'earlier', finishedAt: NOW - 25 * HOUR }, /finish before it started/],
    [{ when: 'earlier', finishedAt: NOW + HOUR }, /finish has not come yet/],
    [{ grit: 'fine' }, /grit as a number/],
    [{ when: 'earlier', mixedL: Number.NaN }, /litres cannot be read/],
    [{ when: 'earlier', litresOn: -1 }, /litres cannot be read/],
  ] as [Partial<StartWish>, RegExp][])('is told in a sentence %#', (change, sentence) => {
    expect(problem(change)).toMatch(sentence);
  });
  it('is a missing reason, where something stands against it', () => {
    expect(problem({ reason: ' no ' }, [{ kind: 'air' }])).toMatch(/Write why/);
  });
  it('a grit is a whole number from 16 up', () => {
    expect(['180', ' 16 ', '15', '80.5', '', ' ', 'P180'].map(gritOf)).toEqual([180, 16, null, null, null, null, null]);
  });
});

describe('the conditions of a start', () => {
  const forecast = { airC: 14, rh: 0.7, windMs: 3, rainMm: 0 };
  it('are what was read, the forecast where nothing was', () => {
    expect(startConditions({ readings: wish.readings, forecast, surfaceC: 12 })).toEqual({ ...forecast, surfaceC: 12 });
    expect(
      startConditions({ readings: { airC: 17, rh: Number.NaN, surfaceC: 15 }, forecast, surfaceC: 12 }),
    ).toMatchObject({ airC: 17, rh: 0.7, surfaceC: 15 });
  });
  it('need all three read where the weather does not reach', () => {
    const read = { airC: 17, rh: 0.6, surfaceC: 15 };
    expect(startConditions({ readings: read, forecast: null, surfaceC: null })).toEqual(read);
    expect(startConditions({ readings: { ...read, rh: null }, forecast: null, surfaceC: null })).toBeNull();
  });
});

describe('the entries of a start', () => {
  const coat = {
    boatId: 'b',
    coatId: 'c',
    on: [{ surfaceId: 'z', layerId: 'l' }],
    sheetRevisionId: 'r',
    method: 'roller',
    thinner: 0.05,
    dftMicron: 70,
    colour: 'grey',
    colourHex: '#888888',
    batches: [{ id: 'm', restL: 1.2 }],
  } as const;
  it('are the start, the readings and the batch, all of one moment', () => {
    const entries = startEntries({
      coat,
      wish: {
        ...wish,
        readings: { airC: 14, rh: null, surfaceC: null },
        grit: '180',
        abradedFor: 'level',
        reason: ' test patch held ',
      },
      now: NOW,
      against: [{ kind: 'rule' }, { kind: 'window' }, { kind: 'rule' }],
    });
    expect(entries.map((e) => [e.kind, e.streamId, e.occurredAt])).toEqual([
      ['started', 'c', NOW],
      ['reading', 'c', NOW],
      ['batchOn', 'c', NOW],
    ]);
    expect(entries[0]?.body).toMatchObject({
      overrideReason: 'test patch held',
      against: ['rule', 'window'],
      abradedGrit: 180,
      abradedFor: 'level',
      dftMicron: 70,
    });
    expect(entries[2]?.body).toEqual({ batchId: 'm', litres: 1.2 });
    expect(entries[0]?.body).not.toHaveProperty('batches');
  });
  it('of one that was earlier end with its finish, each at its own time', () => {
    const entries = startEntries({
      coat: { ...coat, batches: [] },
      wish: { ...wish, when: 'earlier', reason: 'not needed' },
      now: NOW,
      against: [],
    });
    expect(entries.map((e) => [e.kind, e.occurredAt])).toEqual([
      ['started', NOW - 24 * HOUR],
      ['finished', NOW - 22 * HOUR],
    ]);
    expect(entries[0]?.body).toMatchObject({ overrideReason: null, abradedGrit: null });
  });
  it('with a batch that nobody logged has it mixed and on, and says what is on the hull', () => {
    const mixed = {
      sheetRevisionId: 'r',
      on: coat.on,
      parts: [{ name: 'Base', volumeL: 2, massKg: null }],
      thinnerL: 0.1,
      totalL: 2.1,
      standMin: 0,
      potLifeH: null,
      potTempC: null,
    };
    const entries = startEntries({
      coat: { ...coat, batches: [], unlogged: { batchId: 'u', mixed } },
      wish: { ...wish, when: 'earlier', litresOn: 1.9 },
      now: NOW,
      against: [],
    });
    expect(entries.map((e) => [e.stream, e.kind])).toEqual([
      ['coat', 'started'],
      ['batch', 'mixed'],
      ['coat', 'batchOn'],
      ['coat', 'finished'],
    ]);
    expect(entries[2]?.body).toEqual({ batchId: 'u', litres: 2.1 });
    expect(entries[3]?.body).toEqual({ litresOn: 1.9 });
  });
});
