import { describe, expect, it } from 'vitest';
import { foldLog } from '../coat/fold';
import { zoneStatuses } from '../coat/zoneStatus';
import { copper, entries, hour, layers, noon, revision, steady, zone } from '../examples.fixture';
import { NO_JOB_PLAN, type JobPlan } from '../model/jobPlan';
import type { LogEntry } from '../model/log';
import { jobProblem, sideSeries, type BoatJob } from './job';
import { planCoats } from './planCoats';
import { planSession } from './session';

const day = 24 * hour;
const surface = { ...zone, existing: 'bare' as const };

function boatOf(log: readonly LogEntry[], plan: JobPlan | null, now: number, zones = [surface]): BoatJob {
  const input = {
    now,
    surfaces: zones,
    buildUps: zones.map((z) => ({ surfaceId: z.id, layers })),
    entries: log,
    sheets: [revision, copper],
    hours: steady,
  };
  return {
    id: 'boat',
    place: { seed: 'quay', latitudeDeg: 50, utcOffsetH: 1 },
    shelter: 'building',
    launchAt: now + 10 * day,
    surfaces: zones,
    buildUps: input.buildUps,
    borders: [],
    entries: log,
    sheets: input.sheets,
    statuses: zoneStatuses(input),
    hours: steady,
    plan,
    daylight: Array.from({ length: 20 }, (_, i) => ({
      from: noon - 7 * hour + (i - 1) * day,
      to: noon + 9 * hour + (i - 1) * day,
    })),
    sunAt: () => ({ azimuthDeg: 180, altitudeDeg: 40 }),
  };
}

const jobOf = (log: readonly LogEntry[], plan: JobPlan | null = null, now = noon, zones = [surface]) =>
  jobProblem({
    now,
    days: 14,
    boats: [boatOf(log, plan, now, zones)],
    hands: [
      {
        id: 'Iris',
        pace: 1,
        available: Array.from({ length: 16 }, (_, i) => ({
          from: noon - 4 * hour + (i - 1) * day,
          to: noon + 6 * hour + (i - 1) * day,
        })),
      },
    ],
    rateOf: () => 8,
    dryFactorOf: () => 1,
  });

describe('a job as a plan problem', () => {
  it('from a bare zone: its list of getting ready, then its coats, the last of them with its time to the water', () => {
    const { problem, labels } = jobOf([]);
    const prep = problem.tasks.filter((t) => t.id.startsWith('prep:'));
    const coats = problem.tasks.filter((t) => t.kind === 'coat');
    expect(prep.length).toBeGreaterThan(0);
    expect(coats.map((c) => c.id)).toEqual(['coat:bottom:first', 'coat:bottom:second']);
    // 10 m² at 8 m² an hour.
    expect(coats[0]!.crews).toEqual([{ painters: ['Iris'], hours: 1.25 }]);
    expect(coats[0]!.over).toBeNull();
    expect(coats[1]!.over?.coat).toBe('coat:bottom:first');
    expect(coats[1]!.immersion).not.toBeNull();
    expect(labels.find((l) => l.task === 'coat:bottom:first')).toMatchObject({ zoneId: 'bottom', number: 1 });
    expect(planCoats(problem, { steps: 20 }).score.slice(0, 3)).toEqual([0, 0, 0]);
  });

  it('of a zone with a coat on: that one is done, and its clock runs', () => {
    const { problem } = jobOf(entries, null, noon + 6 * hour);
    const [on] = foldLog(entries).coats;
    const done = problem.tasks.find((t) => t.done);
    expect(done).toMatchObject({ id: 'done:bottom', done: { startedAt: on!.startedAt, finishedAt: on!.finishedAt } });
    const left = problem.tasks.filter((t) => t.kind === 'coat' && !t.done);
    expect(left.map((t) => t.id)).toEqual(['coat:bottom:second']);
    // What is on already may still be abraded when its window has gone.
    expect(left[0]!.kind === 'coat' && left[0]!.over?.chained).toBe(false);
  });

  it('a last barrier that is still to come is chained to its antifouling', () => {
    const { problem } = jobOf([]);
    const second = problem.tasks.find((t) => t.id === 'coat:bottom:second');
    expect(second?.kind === 'coat' && second.over?.chained).toBe(true);
  });

  it('appointments take all her zones up, and a lock of somebody who is gone holds nothing', () => {
    const at = noon + 2 * day;
    const plan: JobPlan = {
      ...NO_JOB_PLAN,
      appointments: [{ id: 'move', kind: 'move', name: 'She is moved', from: at, to: at + 2 * hour, zoneIds: [] }],
      locks: [
        { task: 'coat:bottom:first', start: noon + 4 * day, painters: ['Iris'] },
        { task: 'coat:bottom:second', start: noon + 5 * day, painters: ['Nobody'] },
      ],
    };
    const { problem } = jobOf([], plan);
    expect(problem.appointments).toMatchObject([{ id: 'move', from: at, to: at + 2 * hour, zones: ['bottom'] }]);
    // Slings press on the bottom: what is on it by then can be sanded, which stands for being handled.
    expect(problem.appointments[0]?.bear.map((b) => b.coat)).toEqual(['coat:bottom:first', 'coat:bottom:second']);
    expect(problem.tasks.find((t) => t.id === 'coat:bottom:first')?.lock).toEqual({
      start: noon + 4 * day,
      painters: ['Iris'],
    });
    expect(problem.tasks.find((t) => t.id === 'coat:bottom:second')?.lock).toBeNull();
    const result = planCoats(problem, { steps: 20 });
    expect(result.tasks.find((t) => t.id === 'coat:bottom:first')?.start).toBe(noon + 4 * day);
    for (const t of result.tasks) expect(t.end <= at || t.start >= at + 2 * hour).toBe(true);
  });

  it('a patch that lies on its zone waits until the last coat of the zone may be overcoated', () => {
    const patch = { ...surface, id: 'edge', parentId: 'bottom', patchKind: 'highWear' as const, areaM2: 1 };
    const { problem } = jobOf([], null, noon, [surface, patch]);
    const first = problem.tasks.find((t) => t.zone === 'edge' && t.after.some((a) => a.id === 'coat:bottom:second'));
    expect(first?.id).toBe('prep:edge:0');
    const result = planCoats(problem, { steps: 30 });
    const at = (id: string) => result.tasks.find((t) => t.id === id);
    expect(at('prep:edge:0')!.start).toBeGreaterThanOrEqual(at('coat:bottom:second')!.end);
    const carved = jobOf([], null, noon, [surface, { ...patch, patchKind: 'strippedBack' }]);
    expect(carved.problem.tasks.some((t) => t.after.some((a) => a.id === 'coat:bottom:second'))).toBe(false);
  });

  it('of her two sides the one to the east is the warmer in the morning, where her heading is known', () => {
    // Bow to the north: port looks west, starboard east. The sun rises in the east. [P: any almanac]
    const open = { ...surface, kind: 'topsides' as const, exposure: 'outside' as never, shelter: 'open' as never };
    const morning = noon - 4 * hour;
    const boat = {
      ...boatOf([], { ...NO_JOB_PLAN, headingDeg: 0 }, noon, [open]),
      shelter: 'open' as const,
      sunAt: () => ({ azimuthDeg: 90, altitudeDeg: 25 }),
    };
    const hours = steady.map((h) => ({ ...h, sunWm2: 300, cloud: 0.1, windMs: 2 }));
    const warm = (side: 'port' | 'starboard') =>
      sideSeries({ boat, surfaceId: 'bottom', side, hours })?.surface.find((s) => s.at === morning)?.tempC ?? NaN;
    expect(warm('starboard')).toBeGreaterThan(warm('port') + 3);
    expect(sideSeries({ boat: { ...boat, plan: null }, surfaceId: 'bottom', side: 'port', hours })).toBeNull();
  });

  it('where the sun does not rise and there are no lamps nothing is placed, and each says why', () => {
    const dark = jobProblem({
      now: noon,
      days: 14,
      boats: [{ ...boatOf([], null, noon), daylight: [] }],
      hands: [{ id: 'Iris', pace: 1, available: [{ from: noon, to: noon + 14 * day }] }],
      rateOf: () => 8,
      dryFactorOf: () => 1,
    });
    const plan = planCoats(dark.problem, { steps: 10 });
    expect(plan.tasks).toEqual([]);
    const left = plan.violations.filter((v) => v.limit === 'unplaced');
    expect(left).toHaveLength(dark.problem.tasks.length);
    expect(left[0]!.sentence).toMatch(/light|open/);
    // With lamps the same days are worked.
    const lit = { ...dark.problem, zones: dark.problem.zones.map((z) => ({ ...z, open: null })) };
    expect(planCoats(lit, { steps: 10 }).score[1]).toBe(0);
  });

  it('past the forecast a typical year goes on, and is told from where', () => {
    const { air, problem } = jobOf([]);
    expect(air[0]!.typicalFrom).toBe(steady.at(-1)!.at + hour);
    expect(problem.series[Object.keys(problem.series)[0]!]!.air.at(-1)!.at).toBeGreaterThanOrEqual(problem.until);
  });
});

describe('a plan changed by hand', () => {
  const { problem } = jobOf([]);
  const session = planSession(problem);
  const plan = session.planOf(session.search.first());
  const first = plan.tasks.find((t) => t.id === 'coat:bottom:first')!;

  it('the rest follows what is held, and the plan that was is not changed', () => {
    const start = first.start + day;
    const locked = session.locked({ [first.id]: { start, painters: first.painters } });
    const moved = locked.planOf(locked.adopt(plan));
    expect(moved.tasks.find((t) => t.id === first.id)!.start).toBe(start);
    const second = moved.tasks.find((t) => t.id === 'coat:bottom:second')!;
    expect(second.start).toBeGreaterThan(start);
    expect(moved.score[0]).toBe(0);
    expect(session.planOf(session.adopt(plan)).tasks.map((t) => t.start)).toEqual(plan.tasks.map((t) => t.start));
  });

  it('a lock at night is kept, and what it breaks is said', () => {
    const start = first.start + Math.round((14 * hour) / (15 * 60_000)) * 15 * 60_000;
    const locked = session.locked({ [first.id]: { start, painters: first.painters } });
    const broken = locked.planOf(locked.adopt(plan));
    expect(broken.tasks.find((t) => t.id === first.id)!.start).toBe(start);
    expect(broken.violations.some((v) => v.task === first.id && v.limit === 'hours')).toBe(true);
  });

  it('says why a task is where it is', () => {
    const second = plan.tasks.find((t) => t.id === 'coat:bottom:second')!;
    expect(second.why).toMatch(/\.$/);
    expect(session.why(session.adopt(plan), second.id)).not.toBeNull();
    expect(session.why(session.adopt(plan), 'nothing')).toBeNull();
  });
});
