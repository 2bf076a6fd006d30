import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Impossible } from '../impossible';
import { many } from '../many.fixture';
import { checkPlan } from './checker.fixture';
import { bestScore } from './exhaustive.fixture';
import { highsPlan } from './highs.fixture';
import { instance } from './instances.fixture';
import { planCoats } from './planCoats';
import { compareScores, type CoatPlan, type PlanProblem } from './problem';

const H = 3_600_000;
const example = (name: string): PlanProblem =>
  JSON.parse(readFileSync(new URL(`./fixtures/${name}.json`, import.meta.url), 'utf8')) as PlanProblem;
const steel = example('steel-primer');
const grp = example('grp-bottom');
const topsides = example('topsides-done-and-lock');

/** The planner's own figures against a checker that shares nothing with it. */
function agrees(problem: PlanProblem, plan: CoatPlan): void {
  const checked = checkPlan(problem, plan);
  expect(plan.score).toEqual(checked.score);
  expect(plan.violations.map((v) => v.limit).sort()).toEqual(checked.limits);
  expect(plan.finish).toBe(checked.finish);
  expect(plan.violations).toHaveLength(plan.score[0] + plan.score[1]);
}

describe('the worked examples of the plan format (docs/formats.md)', () => {
  it('primes bare steel inside its hours, by the rain and the tack limit', () => {
    const plan = planCoats(steel);
    expect(plan.score).toEqual([0, 0, 0, 0, 58, 31]);
    const at = (id: string) => {
      const task = plan.tasks.find((t) => t.id === id)!;
      return [(task.start - steel.now) / H, (task.end - steel.now) / H];
    };
    expect(at('blast')).toEqual([38, 40]);
    expect(at('primer-1')).toEqual([40, 42]);
    expect(at('primer-2')).toEqual([56, 58]);
    agrees(steel, plan);
  });

  it('the two other plans of that example are worth what is written there', () => {
    const put = (blast: number, primer1: number, primer2: number): CoatPlan => ({
      tasks: (
        [
          ['blast', 'work', blast, 2],
          ['primer-1', 'coat', primer1, 2],
          ['primer-2', 'coat', primer2, 2],
        ] as const
      ).map(([id, kind, start, hours]) => ({
        id,
        kind,
        zone: 'skeg',
        painters: ['iris'],
        start: steel.now + start * H,
        end: steel.now + (start + hours) * H,
        why: '',
      })),
      finish: null,
      violations: [],
      score: [0, 0, 0, 0, 0, 0],
    });
    expect(checkPlan(steel, put(32, 34, 56)).score).toEqual([0, 0, 0, 0, 58, 37]);
    expect(checkPlan(steel, put(8, 10, 56)).score).toEqual([2, 0, 0, 0, 58, 22]);
    // The planner counts the same where it is told to stay there.
    const locked = (starts: Record<string, number>): PlanProblem => ({
      ...steel,
      tasks: steel.tasks.map((t) => ({
        ...t,
        lock: { start: steel.now + starts[t.id]! * H, painters: ['iris'] },
        ...(t.kind === 'coat' && t.over ? { over: { ...t.over, abrade: null } } : {}),
      })),
    });
    expect(planCoats(locked({ blast: 32, 'primer-1': 34, 'primer-2': 56 })).score).toEqual([0, 0, 0, 0, 58, 37]);
    const broken = planCoats(locked({ blast: 8, 'primer-1': 10, 'primer-2': 56 }));
    expect(broken.score).toEqual([2, 0, 0, 0, 58, 22]);
    expect(broken.violations.map((v) => `${v.task} ${v.limit}`).sort()).toEqual(['primer-1 limits', 'primer-2 tack']);
  });

  it('betters the plain greedy plan of a bottom with its pads', () => {
    const plan = planCoats(grp);
    expect(compareScores(plan.score, [0, 0, 0, 1, 286, 45])).toBeLessThan(0);
    agrees(grp, plan);
  });

  it('keeps a lock, runs the clock of what is done, and changes nothing of the problem', () => {
    const before = JSON.stringify(topsides);
    const plan = planCoats(topsides);
    expect(plan.score).toEqual([0, 0, 14, 0, 134, 0]);
    expect(plan.tasks.find((t) => t.id === 'deck-sand')!.start).toBe(1938416400000);
    expect(plan.tasks.some((t) => t.id === 'port-undercoat')).toBe(false);
    expect(JSON.stringify(topsides)).toBe(before);
    agrees(topsides, plan);
  });
});

describe('small problems, against every plan there is', () => {
  it('300 of them, or a fifth of that: nothing broken or left out or later than need be, and nearly all the best in every figure', () => {
    let solved = 0;
    let best = 0;
    const worse: string[] = [];
    for (let seed = 0; solved < many(300); seed += 1) {
      const problem = instance(seed, {
        days: 3 + (seed % 2),
        zones: seed % 5 === 0 ? 1 : 2,
        coats: 2 + (seed % 5),
        painters: 1 + (seed % 2),
      });
      if (problem.tasks.filter((t) => t.kind === 'coat').length > 6) continue;
      const wanted = bestScore(problem, 20_000);
      if (!wanted) continue;
      solved += 1;
      const { score } = planCoats(problem, { steps: 500 });
      if ([0, 1, 2].some((i) => score[i] !== wanted[i])) worse.push(`${seed}: ${score} for ${wanted}`);
      if (score.join() === wanted.join()) best += 1;
    }
    expect(worse).toEqual([]);
    expect(best / solved).toBeGreaterThanOrEqual(0.95);
  }, 240_000);

  it('50 that can be placed whole, or a fifth of that: as an integer programme solved by HiGHS has it', async () => {
    const solve = await highsPlan();
    let solved = 0;
    for (let seed = 1000; solved < many(50); seed += 1) {
      const made = instance(seed, { days: 3, zones: 2, coats: 4, painters: 1 + (seed % 2) });
      const problem: PlanProblem = {
        ...made,
        changeoverMin: 0,
        tasks: made.tasks.map((t) =>
          t.kind === 'coat' && t.immersion ? { ...t, immersion: { ...t.immersion, maximum: null } } : t,
        ),
      };
      const { score } = planCoats(problem, { steps: 300 });
      if (score[1] > 0) continue;
      solved += 1;
      expect([seed, solve(problem)]).toEqual([seed, { late: score[2], forced: score[3], finish: score[4] }]);
    }
  }, 120_000);
});

describe('any problem', () => {
  it('2000 of them, or a fifth of that, with locks, coats done and orders across zones: a checker of its own finds what the plan says of itself', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1_000_000 }), fc.integer({ min: 1, max: 3 }), (seed, painters) => {
        const problem = instance(seed, { days: 4, zones: 1 + (seed % 3), coats: 5, painters, wild: true });
        const before = JSON.stringify(problem);
        const plan = planCoats(problem, { steps: 6, seed });
        agrees(problem, plan);
        const locked = problem.tasks.some((t) => t.lock && !t.done);
        if (!locked) expect(plan.score[0]).toBe(0);
        expect(plan.violations.every((v) => v.sentence.length > 10)).toBe(true);
        expect(plan.tasks.every((t) => t.why.length > 5)).toBe(true);
        expect(JSON.stringify(problem)).toBe(before);
      }),
      { numRuns: many(2000), seed: 20310505 },
    );
  }, 240_000);

  it('is the same again with the same steps and seed, and never worse with more', () => {
    const scores = [0, 10, 60, 200].map((steps) => planCoats(grp, { steps, seed: 3 }).score);
    expect(planCoats(grp, { steps: 60, seed: 3 })).toEqual(planCoats(grp, { steps: 60, seed: 3 }));
    scores.slice(1).forEach((score, i) => expect(compareScores(score, scores[i]!)).toBeLessThanOrEqual(0));
  });

  it('tells the first plan, then only better ones, and the best so far when it is stopped', () => {
    const told: CoatPlan[] = [];
    const answer = planCoats(grp, { steps: 200, seed: 2, onBetter: (plan) => told.push(plan) });
    expect(told.length).toBeGreaterThan(1);
    told.slice(1).forEach((plan, i) => expect(compareScores(plan.score, told[i]!.score)).toBeLessThan(0));
    expect(told.at(-1)).toEqual(answer);
    const signal = { aborted: false };
    const stopped = planCoats(grp, { signal, onBetter: () => (signal.aborted = true) });
    expect(stopped.score).toEqual(told[0]!.score);
    expect(planCoats(grp, { budgetMs: 0 }).score).toEqual(told[0]!.score);
  });

  it('40 zones with one painter: a plan with what fits, and the rest left out with a reason', () => {
    const one = steel.tasks.map((t) => t.id);
    const zones = Array.from({ length: 40 }, (_, i) => `zone-${i}`);
    const problem: PlanProblem = {
      ...steel,
      zones: zones.map((id) => ({ ...steel.zones[0]!, id })),
      tasks: zones.flatMap((zone) =>
        steel.tasks.map((task) => {
          const named = JSON.stringify({ ...task, zone }).replaceAll(
            new RegExp(`"(${one.join('|')})"`, 'g'),
            `"${zone}-$1"`,
          );
          return JSON.parse(named) as (typeof steel.tasks)[number];
        }),
      ),
    };
    const plan = planCoats(problem, { steps: 20 });
    agrees(problem, plan);
    expect(plan.score[0]).toBe(0);
    expect(plan.tasks.length).toBeGreaterThan(2);
    expect(plan.violations.filter((v) => v.limit === 'unplaced').length).toBeGreaterThan(60);
  });
});

describe('what cannot be done is left out and told', () => {
  const without = (change: Partial<PlanProblem>): CoatPlan => planCoats({ ...steel, ...change }, { steps: 10 });
  it('no painter, no hours, no tasks, a date in the past, nights without end', () => {
    const nobody = without({ tasks: steel.tasks.map((t) => ({ ...t, crews: [] })) });
    expect(nobody.score.slice(0, 2)).toEqual([0, 4]);
    expect(nobody.violations[0]!.sentence).toContain('nobody can do it');
    expect(without({ painters: [{ id: 'iris', available: [] }] }).violations[0]!.sentence).toContain('hours enough');
    expect(without({ tasks: [] })).toMatchObject({ tasks: [], violations: [], score: [0, 0, 0, 0, 0, 0] });
    const past = without({ boats: [{ id: 'sandpiper', launchAt: steel.now - 10 * H }] });
    expect(past.score[2]).toBe(68);
    const dark = without({ zones: [{ ...steel.zones[0]!, open: [] }] });
    expect(dark.violations[0]!.sentence).toContain('never open long enough');
  });

  it('a tent that is not heated: the limits are named', () => {
    const cold = steel.tasks.map((t) => (t.kind === 'coat' ? { ...t, limits: { ...t.limits, surfaceMinC: 30 } } : t));
    const plan = without({ tasks: cold });
    expect(plan.violations.find((v) => v.task === 'primer-1')!.sentence).toMatch(/outside its limits.*Shelter or heat/);
    // The blast is not done without its primer.
    expect(plan.tasks).toEqual([]);
  });

  it('windows that cannot be met: what is below a closed one is still put on', () => {
    const never = steel.tasks.map((t) =>
      t.kind === 'coat' && t.over
        ? { ...t, over: { ...t.over, tackLimit: [{ tempC: 10, hours: 0.5 }], abrade: null } }
        : t,
    );
    const plan = without({ tasks: never });
    expect(plan.tasks.map((t) => t.id)).toEqual(['blast', 'primer-1']);
    expect(plan.violations.find((v) => v.task === 'primer-2')!.sentence).toContain('window over primer-1');
  });
});

describe('a problem that says something impossible is refused with a sentence', () => {
  const cases: [string, Partial<PlanProblem>, RegExp][] = [
    ['an unknown zone', { tasks: [{ ...steel.tasks[0]!, zone: 'moon' }] }, /no zone moon/],
    ['an unknown boat', { zones: [{ ...steel.zones[0]!, boat: 'moon' }] }, /no boat moon/],
    ['an unknown series', { zones: [{ ...steel.zones[0]!, series: 'moon' }] }, /no series moon/],
    ['an unknown painter', { painters: [] }, /no painter iris/],
    ['an unknown task', { tasks: [{ ...steel.tasks[0]!, after: [{ id: 'moon', hours: 1 }] }] }, /no task moon/],
    ['an unknown coat', { tasks: [steel.tasks[2]!] }, /no coat primer-1/],
    ['an id twice', { tasks: [steel.tasks[0]!, steel.tasks[0]!] }, /two of task or appointment blast/],
    [
      'a cycle',
      { tasks: [{ ...steel.tasks[0]!, after: [{ id: 'primer-1', hours: 0 }] }, ...steel.tasks.slice(1)] },
      /wait for each other/,
    ],
    ['an end off the grid', { until: steel.until + 60_000 }, /off the grid/],
    ['an end before now', { until: steel.now }, /ends before it starts/],
    [
      'a lock off the grid',
      { tasks: [{ ...steel.tasks[0]!, lock: { start: steel.now + 1, painters: ['iris'] } }] },
      /locked off the grid/,
    ],
    [
      'a lock outside',
      { tasks: [{ ...steel.tasks[0]!, lock: { start: steel.until, painters: ['iris'] } }] },
      /outside the plan/,
    ],
    [
      'a lock of nobody',
      { tasks: [{ ...steel.tasks[0]!, lock: { start: steel.now, painters: [] } }] },
      /none of its crews/,
    ],
    [
      'done in the future',
      { tasks: [{ ...steel.tasks[0]!, done: { startedAt: steel.now, finishedAt: steel.now + H } }] },
      /later than now/,
    ],
    [
      'finished before started',
      { tasks: [{ ...steel.tasks[0]!, done: { startedAt: steel.now, finishedAt: steel.now - H } }] },
      /before it was started/,
    ],
    ['hours of none', { tasks: [{ ...steel.tasks[0]!, crews: [{ painters: ['iris'], hours: 0 }] }] }, /more than zero/],
    [
      'a table of none',
      {
        tasks: [
          steel.tasks[0]!,
          { ...(steel.tasks[1] as { touchDry: unknown } & (typeof steel.tasks)[1]), touchDry: [] } as never,
        ],
      },
      /time table is empty/,
    ],
    ['a series too short', { until: steel.until + 24 * H }, /ends before the plan/],
    ['a series too late', { now: steel.now - 24 * H }, /begins too late/],
    [
      'a series out of order',
      { series: { yard: { ...steel.series.yard!, surface: [...steel.series.yard!.surface].reverse() } } },
      /out of order/,
    ],
    [
      'a figure that is none',
      { series: { yard: { ...steel.series.yard!, air: steel.series.yard!.air.map((h) => ({ ...h, airC: NaN })) } } },
      /must be a number/,
    ],
    [
      'humidity in percent',
      { series: { yard: { ...steel.series.yard!, air: steel.series.yard!.air.map((h) => ({ ...h, rh: 80 })) } } },
      /share above 0/,
    ],
  ];
  it.each(cases)('%s', (_, change, sentence) => {
    expect(() => planCoats({ ...steel, ...change })).toThrow(Impossible);
    expect(() => planCoats({ ...steel, ...change })).toThrow(sentence);
  });
});
