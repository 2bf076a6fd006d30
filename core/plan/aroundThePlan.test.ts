import { describe, expect, it } from 'vitest';
import { airStartsToAsk } from '../coat/airStarts';
import { startOdds } from '../coat/startOdds';
import { earlyStart } from '../air/earlyStart';
import { hour, noon, steady, temps } from '../examples.fixture';
import { sheet } from '../sheet/example.fixture';
import { firstBreak } from './firstBreak';
import { plannedReal } from './plannedReal';
import type { CoatPlan, PlannedTask } from './problem';

const task = (id: string, start: number, kind: 'coat' | 'work' = 'coat'): PlannedTask => ({
  id,
  kind,
  zone: id.split(':')[1] ?? 'z',
  painters: ['Iris'],
  start,
  end: start + hour,
  why: '',
});
const plan = (tasks: PlannedTask[], violations: CoatPlan['violations'] = []): CoatPlan => ({
  tasks,
  finish: null,
  violations,
  score: [0, violations.length, 0, 0, 0, 0],
});
const order = ['coat:a:1', 'coat:a:2', 'coat:b:1', 'coat:b:2'].map((id) => ({ task: id, zoneId: id.split(':')[1]! }));

describe('the coat that breaks first', () => {
  it('is the one whose turn comes first of those left out, whatever the order they are told in', () => {
    const left = (id: string) => ({ task: id, limit: 'unplaced' as const, sentence: `${id} finds no hours.` });
    const found = firstBreak({
      plan: plan([task('coat:a:1', noon + 9 * hour), task('coat:b:1', noon)], [left('coat:a:2'), left('coat:b:2')]),
      order,
      late: true,
    });
    expect(found).toEqual({ task: 'coat:b:2', kind: 'unplaced', sentence: 'coat:b:2 finds no hours.' });
  });
  it('is what breaks a rule where all is placed, and the last coat where only the date is missed', () => {
    const tasks = [task('coat:a:1', noon), task('coat:a:2', noon + 5 * hour), task('coat:b:1', noon + hour)];
    const broken = { task: 'coat:b:1', limit: 'limits' as const, sentence: 'It rains.' };
    expect(firstBreak({ plan: plan(tasks, [broken]), order, late: true })?.kind).toBe('broken');
    expect(firstBreak({ plan: plan(tasks), order, late: true })).toMatchObject({ task: 'coat:a:2', kind: 'late' });
    expect(firstBreak({ plan: plan(tasks), order, late: false })).toBeNull();
    // One that is on sooner but cures longer keeps her out of the water.
    const waterFrom = (id: string) => (id === 'coat:b:1' ? noon + 99 * hour : null);
    expect(firstBreak({ plan: plan(tasks), order, late: true, waterFrom })?.task).toBe('coat:b:1');
  });
});

describe('planned and real', () => {
  it('stand beside each other by zone and layer; a coat that is not on has no real one', () => {
    const accepted = (id: string, start: number) => ({
      id,
      zoneId: 'a',
      kind: 'coat' as const,
      name: id,
      painters: [],
      start,
      end: start + hour,
    });
    const rows = plannedReal({
      tasks: [accepted('coat:a:2', noon + 9 * hour), accepted('coat:a:1', noon)],
      coats: [{ on: [{ surfaceId: 'a', layerId: '1' }], startedAt: noon + 2 * hour, finishedAt: noon + 3 * hour }],
    });
    expect(rows.map((r) => [r.task.id, r.laterMs])).toEqual([
      ['coat:a:1', 2 * hour],
      ['coat:a:2', null],
    ]);
  });
});

describe('the odds of a start', () => {
  const asked = {
    hours: steady,
    surface: temps,
    at: noon + 24 * hour,
    issuedAt: noon,
    sheet,
    method: 'roller' as const,
    durationH: 1,
    sheltered: false,
    seed: 'quay',
  };
  it('are whole where limits are far, none where it rains for sure, and between the two near a limit', () => {
    const damp = (rh: number) => steady.map((h) => ({ ...h, rh }));
    expect(startOdds({ ...asked, at: noon })).toBe(1);
    expect(startOdds(asked)).toBeGreaterThan(0.9);
    expect(startOdds({ ...asked, hours: damp(0.99) })).toBe(0);
    const shares = [0.6, 0.74, 0.8, 0.86].map((rh) => startOdds({ ...asked, hours: damp(rh) }) as number);
    // Damper air never holds more often, and near the limit it is neither sure nor hopeless.
    expect([...shares].sort((a, b) => b - a)).toEqual(shares);
    expect(shares.some((s) => s > 0 && s < 1)).toBe(true);
  });
  it('are known at once for a start now, and not at all beyond the weather', () => {
    expect(startOdds({ ...asked, at: noon, hours: steady.map((h) => ({ ...h, rh: 0.8 })) })).toBeGreaterThan(0.8);
    expect(startOdds({ ...asked, at: noon + 96 * hour })).toBeNull();
  });
});

describe('a start in the cool of the morning', () => {
  // 12 °C until seven, then up three degrees an hour to 27 °C: a dark face in the sun, made up.
  const surface = Array.from({ length: 15 }, (_, i) => ({
    at: noon + i * hour,
    tempC: Math.min(27, 12 + Math.max(0, i - 1) * 3),
  }));
  it('is offered where the surface warms while the coat should level', () => {
    const early = earlyStart({ spell: { from: noon, to: noon + 6 * hour }, usual: noon + 3 * hour, surface });
    expect(early).toEqual({ at: noon, surfaceC: 12, laterC: 27 });
  });
  it('is not where the day stays as it is, or the spell begins no sooner', () => {
    expect(
      earlyStart({ spell: { from: noon, to: noon + 6 * hour }, usual: noon + 3 * hour, surface: temps }),
    ).toBeNull();
    expect(
      earlyStart({ spell: { from: noon + 3 * hour, to: noon + 6 * hour }, usual: noon + 3 * hour, surface }),
    ).toBeNull();
  });
});

describe('a coat begun against the air', () => {
  const coat = { against: ['air' as const], startedAt: noon, notes: [] };
  it('is asked about from the next day on, for two weeks, until somebody has said', () => {
    const asked = (at: number, more: object = {}) => airStartsToAsk([{ ...coat, ...more }], at).length;
    expect([asked(noon + hour), asked(noon + 20 * hour), asked(noon + 15 * 24 * hour)]).toEqual([0, 1, 0]);
    expect(asked(noon + 20 * hour, { notes: [{ at: noon, painter: null, text: 'Fine.', about: 'airStart' }] })).toBe(0);
    expect(asked(noon + 20 * hour, { notes: [{ at: noon, painter: null, text: 'Fine.' }] })).toBe(1);
    expect(asked(noon + 20 * hour, { against: ['window'] })).toBe(0);
  });
});
