import { checkProblem } from './checkProblem';
import { workEarly } from './early';
import { gridAir, type GridAir } from './gridAir';
import { modelOf, type Item, type Model } from './model';
import { placementOf } from './placementOf';
import type { CoatPlan, PlanProblem, PlannedTask, PlanTask, PlanViolation } from './problem';
import { endOf, isPlaced, jobOf, readyOf, scoreOf, type Job, type Placement } from './score';
import { compareFound, lockedOnly, rebuild, searchOf, type Found, type Search } from './search';
import { seeded } from './seeded';
import { fixedStarts } from './starts';
import { reasonOf, reasonSentence, violationOf, type PlanReason } from './words';

/** Locks by task: null takes one off. */
export type Locks = Readonly<Record<string, PlanTask['lock']>>;

/** A problem with its clocks worked out: planned, changed by hand and asked why, as often as wanted. */
export interface PlanSession {
  readonly problem: PlanProblem;
  readonly job: Job;
  readonly search: Search;
  /** A found plan with names, times, reasons and what it breaks. */
  readonly planOf: (found: Pick<Found, 'placement'>) => CoatPlan;
  /** The same with other locks; the tables of its clocks are shared. */
  readonly locked: (locks: Locks) => PlanSession;
  /** A plan made elsewhere, or before something was locked: what does not hold any more is planned again around it. */
  readonly adopt: (plan: CoatPlan) => Found;
  /** When each boat is ready for the water, epoch ms; null: not within the days of the plan. */
  readonly readyAt: (found: Pick<Found, 'placement'>) => Record<string, number | null>;
  readonly why: (found: Pick<Found, 'placement'>, task: string) => PlanReason | null;
}

/**
 * A problem laid on its weather, its clocks worked out once.
 * @throws RangeError with a sentence that says what to do when the problem says something impossible
 * @example planSession(smallPlan).search.units.length // → 1
 */
export function planSession(problem: PlanProblem, seed = 1): PlanSession {
  checkProblem(problem);
  return sessionOf(problem, seed, null);
}

function sessionOf(problem: PlanProblem, seed: number, shared: GridAir | null): PlanSession {
  const model = modelOf(problem);
  const air = shared ?? gridAir(model);
  const job = jobOf(model, air);
  const random = seeded(seed);
  const fixed = fixedStarts(job);
  return {
    problem,
    job,
    search: searchOf(job, random),
    planOf: ({ placement }) => planOf(job, workEarly(job, fixed, placement)),
    locked(locks) {
      const tasks = problem.tasks.map((task) => {
        const lock = locks[task.id];
        return lock === undefined ? task : { ...task, lock };
      });
      return sessionOf({ ...problem, tasks }, seed, air);
    },
    adopt: (plan) => adopted(job, random, plan),
    readyAt({ placement }) {
      const ready = readyOf(job, placement);
      return Object.fromEntries(
        model.boats.map(({ id }, b) => {
          const step = ready[b] ?? null;
          return [id, step === null ? null : problem.now + step * model.stepMs];
        }),
      );
    },
    why({ placement }, task) {
      const item = model.items.find((i) => i.id === task);
      return item && isPlaced(placement, item.index) ? reasonOf(job, placement, item.index) : null;
    },
  };
}

function adopted(job: Job, random: () => number, plan: CoatPlan): Found {
  const { model } = job;
  const placement = placementOf(model, plan);
  const locks = lockedOnly(model);
  for (const item of model.items) {
    if (!item.lock) continue;
    placement.start[item.index] = locks.start[item.index] as number;
    placement.crew[item.index] = locks.crew[item.index] as number;
  }
  const search = searchOf(job, random);
  const context = { job, fixed: fixedStarts(job), random, from: 0 };
  let found: Found = { placement, score: scoreOf(job, placement), strain: 0 };
  // What is broken is put back beside the rest; what that pushes out of the way is put back next.
  for (let round = 0; round < 3; round += 1) {
    const zones = new Set<number>();
    scoreOf(job, found.placement, ({ item, other, rule }) => {
      if (item < 0) return;
      zones.add((model.items[item] as Item).zone);
      const pair = rule === 'booked' || rule === 'changeover' || rule === 'zone' || rule === 'together';
      if (pair) zones.add((model.items[other] as Item).zone);
    });
    const taken = search.units.filter((unit) => zones.has(unit.zone));
    if (taken.length === 0) return found;
    const next = rebuild(context, found.placement, taken);
    if (round > 0 && compareFound(next, found) >= 0) return found;
    found = next;
    if (found.score[0] === 0 && found.score[1] === 0) return found;
  }
  return found;
}

/** A placement as a plan with names, times, reasons and what it breaks. */
export function planOf(job: Job, placement: Placement): CoatPlan {
  const { model } = job;
  const { now } = model.problem;
  const violations: PlanViolation[] = [];
  const score = scoreOf(job, placement, (broken) => violations.push(violationOf(job, placement, broken)));
  const ready = readyOf(job, placement);
  const at = (step: number) => now + step * model.stepMs;
  const tasks = model.items
    .filter((item) => !item.done && isPlaced(placement, item.index))
    .map((item): PlannedTask => ({
      id: item.id,
      kind: item.kind,
      zone: (model.zones[item.zone] as Model['zones'][number]).id,
      painters: (item.crews[placement.crew[item.index] as number] as Item['crews'][number]).names,
      start: at(placement.start[item.index] as number),
      end: at(endOf(job, placement, item.index)),
      why: reasonSentence(reasonOf(job, placement, item.index)),
    }))
    .sort((a, b) => a.start - b.start);
  const known = ready.filter((r) => r !== null);
  const finish = known.length === ready.length && known.length > 0 ? at(Math.max(...known)) : null;
  return { tasks, finish, violations, score };
}
