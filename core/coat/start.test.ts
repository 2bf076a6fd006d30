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
  const kinds = (options: Partial<Parameters<typeof againstStart>[0]>) =>
    againstStart({ zones: [], when: 'now', abraded: false, verdict: null, ...options }).map((a) => a.kind);

  it('is a window that is not open, or passed its bond and not abraded', () => {
    const states = ['ready', 'bonds', 'shut', 'closed', 'waits', 'abrade'] as const;
    const told = againstStart({ zones: states.map((s) => zone(s)), when: 'now', abraded: false, verdict: null });
    expect(told.map((a) => a.kind === 'window' && a.status.state)).toEqual(['shut', 'closed', 'waits', 'abrade']);
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
  it('of a coat written down afterwards is open work and the rules: its window and its air are past', () => {
    expect(
      kinds({ when: 'earlier', zones: [zone('shut', { openWork: [work], stops: [stop] })], verdict: { ok: false } }),
    ).toEqual(['openWork', 'rule']);
  });
});

describe('what keeps a start from being logged', () => {
  const problem = (change: Partial<StartWish>, needsReason = false) =>
    startProblem({ wish: { ...wish, ...change }, now: NOW, needsReason });

  it('is nothing where all is well', () => {
    expect(problem({})).toBeNull();
    expect(problem({ when: 'earlier' })).toBeNull();
    expect(problem({ reason: 'the owner wants it' }, true)).toBeNull();
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
  ] as [Partial<StartWish>, RegExp][])('is told in a sentence %#', (change, sentence) => {
    expect(problem(change)).toMatch(sentence);
  });
  it('is a missing reason, where something stands against it', () => {
    expect(problem({ reason: ' no ' }, true)).toMatch(/Write why/);
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
    batches: [{ id: 'm', totalL: 1.2 }],
  } as const;
  it('are the start, the readings and the batch, all of one moment', () => {
    const entries = startEntries({
      coat,
      wish: { ...wish, readings: { airC: 14, rh: null, surfaceC: null }, grit: '180', reason: ' test patch held ' },
      now: NOW,
      needsReason: true,
    });
    expect(entries.map((e) => [e.kind, e.streamId, e.occurredAt])).toEqual([
      ['started', 'c', NOW],
      ['reading', 'c', NOW],
      ['batchOn', 'c', NOW],
    ]);
    expect(entries[0]?.body).toMatchObject({ overrideReason: 'test patch held', abradedGrit: 180, dftMicron: 70 });
    expect(entries[0]?.body).not.toHaveProperty('batches');
  });
  it('of one that was earlier end with its finish, each at its own time', () => {
    const entries = startEntries({
      coat: { ...coat, batches: [] },
      wish: { ...wish, when: 'earlier', reason: 'not needed' },
      now: NOW,
      needsReason: false,
    });
    expect(entries.map((e) => [e.kind, e.occurredAt])).toEqual([
      ['started', NOW - 24 * HOUR],
      ['finished', NOW - 22 * HOUR],
    ]);
    expect(entries[0]?.body).toMatchObject({ overrideReason: null, abradedGrit: null });
  });
});
