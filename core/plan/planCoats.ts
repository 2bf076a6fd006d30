import { compareScores, type CoatPlan, type PlanProblem } from './problem';
import { compareFound, type Found } from './search';
import { planSession } from './session';

export interface PlanOptions {
  /** Stop after so many ms of searching. */
  readonly budgetMs?: number;
  /** Stop after so many tries; the same problem, steps and seed give the same plan on any machine. */
  readonly steps?: number;
  readonly seed?: number;
  /** Gets the first plan, then each one that is better. */
  readonly onBetter?: (plan: CoatPlan) => void;
  /** Once aborted, the best plan so far is the answer. */
  readonly signal?: { readonly aborted: boolean };
}

/** Without a bound of steps or time the search ends after so many tries that bring nothing, for each unit of the plan. */
const TRIES_IN_VAIN = 60;

/**
 * Place every task and coat in time, each in its predecessor's window: nothing outside limits, as little left out as may
 * be, by the date, with the fewest forced abradings, the fewest days on the hard and the most slack in the windows, in
 * this order [CP]. The problem, the plan and its score are told field by field in `docs/formats.md`.
 *
 * It is found by planning zones one after another, each as well as it goes beside the rest, and then taking some out and
 * putting them back, for as long as it is let.
 *
 * @throws RangeError with a sentence that says what to do when the problem says something impossible
 * @example planCoats(smallPlan).score // → [0, 0, 0, 0, 58, 31]
 */
export function planCoats(problem: PlanProblem, options: PlanOptions = {}): CoatPlan {
  const { budgetMs, steps, seed = 1, onBetter, signal } = options;
  const { search, planOf } = planSession(problem, seed);
  const until = budgetMs === undefined ? Infinity : Date.now() + budgetMs;
  const bounded = budgetMs !== undefined || steps !== undefined;
  const patience = bounded ? Infinity : TRIES_IN_VAIN * (1 + search.units.length);
  const stopped = (step: number) =>
    signal?.aborted === true || Date.now() >= until || (steps !== undefined && step >= steps);

  let best = search.first();
  onBetter?.(planOf(best));
  const keep = (found: Found): boolean => {
    if (compareScores(found.score, best.score) >= 0) return false;
    best = found;
    onBetter?.(planOf(best));
    return true;
  };
  let current = best;
  let vain = 0;
  for (let step = 0; !stopped(step) && vain < patience && search.units.length > 0; step += 1) {
    const found = search.tryOnce(current, step);
    if (compareFound(found, current) <= 0) current = found;
    vain = keep(found) ? 0 : vain + 1;
  }
  return planOf(best);
}
