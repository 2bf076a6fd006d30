import type { ItemClocks } from './clocks';
import type { Item } from './model';
import { changesOver, isPlaced, type Job, type Placement } from './score';
import { shortOf, windowEnd, type CrewStarts, type Run, type Stage } from './stages';

/** The best that is known of a stage that ends with its terminal at a start, by a crew: it points at the one before. */
export interface Label {
  readonly stage: number;
  readonly at: number;
  readonly crew: number;
  readonly end: number;
  readonly dry: number;
  /** Rules of locked tasks that it breaks. */
  readonly broken: number;
  readonly forced: number;
  readonly short: number;
  /** Sum of the starts of its coats. */
  readonly pace: number;
  /** The first step at which all of it so far bears the water; `last + 1`: not within the plan. */
  readonly ready: number;
  readonly before: Label | null;
  readonly run: Run;
}

/** What a stage's coat asks of a lower coat that is not being placed with it, in steps. */
export interface OverFixed {
  readonly tack: number;
  readonly max: number;
  readonly sand: number;
  readonly end: number;
  readonly window: number;
}

/** One stage of a zone, with what is known of the stage before it. */
export interface Step {
  readonly job: Job;
  readonly stages: readonly Stage[];
  readonly stage: Stage;
  readonly s: number;
  readonly before: readonly Label[];
  readonly over: OverFixed | null;
  /** How many starts of the coat before are tried for each start. */
  readonly breadth: number;
  readonly eager: boolean;
}

/** A start of a stage's terminal, with the work before it. */
export interface Candidate {
  readonly at: number;
  readonly crew: number;
  readonly starts: CrewStarts;
  readonly run: Run;
  readonly abraded: boolean;
  /** What its windows towards what is in the plan already are short of. */
  readonly own: number;
}

/** What a stage's coat has below it, where that is in the plan already or done. */
export function overFixed(job: Job, placement: Placement, stages: readonly Stage[], s: number): OverFixed | null {
  const { terminal } = stages[s] as Stage;
  const { over } = job.clocks[terminal.index] as ItemClocks;
  if (!over || stages.slice(0, s).some((st) => st.terminal.index === terminal.lower)) return null;
  const { last } = job.model;
  if (over.done)
    return { tack: over.done.tackLimit, max: over.done.maximum, sand: over.done.sandable, end: 0, window: -1 };
  if (!isPlaced(placement, terminal.lower)) return null;
  const start = placement.start[terminal.lower] as number;
  const end = start + stepsAt(job, placement, terminal.lower);
  return {
    tack: over.tackLimit ? (over.tackLimit[start] as number) : last,
    max: over.maximum ? (over.maximum[start] as number) : last,
    sand: over.sandable ? (over.sandable[end] as number) : end,
    end,
    window: start,
  };
}

const stepsAt = ({ model }: Job, { crew }: Placement, item: number): number =>
  ((model.items[item] as Item).crews[crew[item] as number] as { steps: number }).steps;

/** The best way to a candidate, over all starts of the stage before; `known` where none is better. */
export function bestBefore(step: Step, candidate: Candidate, known: Label | null): Label | null {
  if (step.s === 0) return joined(step, candidate, null, known) ?? known;
  const { before, breadth } = step;
  let best = known;
  let fitting = 0;
  const closes = closingTable(step, candidate);
  for (let i = before.length - 1; i >= 0 && fitting < breadth; i -= 1) {
    const label = before[i] as Label;
    if (label.end > candidate.at) continue;
    // Labels come in order of their starts: past the tack limit of one, all before it are past theirs.
    if (closes !== null && (closes[label.at] as number) < candidate.at) break;
    // Costs only add up: what is no better before cannot be better after.
    if (best !== null && noBetter(step, candidate, label, best)) {
      fitting += 1;
      continue;
    }
    const found = joined(step, candidate, label, best);
    if (found === null) continue;
    fitting += 1;
    best = found;
  }
  return best;
}

/** The table of the limit that a candidate must keep towards the stage before; null where there is none. */
function closingTable({ job, stages, stage, s, over }: Step, { abraded, at }: Candidate): Int32Array | null {
  const { terminal } = stage;
  const own = (job.clocks[terminal.index] as ItemClocks).over;
  if (!own || over || abraded || (stages[s - 1] as Stage).terminal.index !== terminal.lower) return null;
  return at < job.model.last ? own.tackLimit : null;
}

function noBetter({ eager }: Step, { run, own, abraded, at }: Candidate, label: Label, best: Label): boolean {
  if (eager) return label.broken + run.broken >= best.broken && label.pace + at >= best.pace;
  const broken = label.broken + run.broken - best.broken;
  if (broken !== 0) return broken > 0;
  const forced = label.forced - best.forced;
  if (forced !== 0 || abraded) return forced > 0;
  return label.short + run.shortfall + own > best.short;
}

/**
 * A candidate after a label of the stage before: the better of it and the best so far; null where they do not fit.
 */
function joined(step: Step, candidate: Candidate, before: Label | null, best: Label | null): Label | null {
  const { job, stages, stage, s } = step;
  const { at, crew, starts, run, abraded } = candidate;
  const { terminal } = stage;
  const { model, clocks } = job;
  const { last, slackCap } = model;
  if (before) {
    const zoneFrom = run.start.length > 0 ? (run.start[0] as number) : at;
    if (before.dry > zoneFrom) return null;
    const previous = (stages[before.stage] as Stage).terminal;
    if (
      at - before.end < model.changeover &&
      changesOver(previous, terminal) &&
      sharePainters(previous, before.crew, terminal, crew)
    )
      return null;
  }
  let short = (before?.short ?? 0) + run.shortfall + candidate.own;
  const own = clocks[terminal.index] as ItemClocks;
  const over = own.over;
  if (over) {
    const lower = step.over ? null : labelOf(stages, before, terminal.lower);
    if (!step.over && !lower) return null;
    const end = lower ? lower.end : (step.over as OverFixed).end;
    const tack = lower ? (over.tackLimit ? (over.tackLimit[lower.at] as number) : last) : (step.over as OverFixed).tack;
    const max = lower ? (over.maximum ? (over.maximum[lower.at] as number) : last) : (step.over as OverFixed).max;
    const minimum = lower && over.minimum ? (over.minimum[end] as number) : end;
    if (at < minimum || (max < last && at > max)) return null;
    if (abraded) {
      const sand = lower ? (over.sandable ? (over.sandable[end] as number) : end) : (step.over as OverFixed).sand;
      if (run.abradeStart < sand || run.abradeStart < end) return null;
    } else if (tack < last && at > tack) return null;
    // Windows towards a coat that is in the plan or done are counted here, as the abrading decides which it is.
    const hold = windowEnd(job, terminal, lower ? lower.at : (step.over as OverFixed).window, abraded);
    short += shortOf(last, slackCap, hold, at);
  }
  for (const { item, link } of stage.back) {
    const spot = spotOf(stages, before, link.before);
    if (!spot) return null;
    const start = item === terminal ? at : (run.start[run.items.indexOf(item)] as number);
    if (start < spot.end + link.afterSteps) return null;
    if (!link.fresh) continue;
    const { nextRain } = clocks[item.index] as ItemClocks;
    if (start > spot.at + link.freshSteps) return null;
    if (link.untilRain && nextRain && (nextRain[spot.at] as number) <= start) return null;
    short += shortOf(last, slackCap, spot.at + link.freshSteps, start);
  }
  const broken = (before?.broken ?? 0) + run.broken + (starts.broken?.[at] ?? 0);
  const forced = (before?.forced ?? 0) + (abraded && !terminal.coat?.over?.alwaysAbrade ? 1 : 0);
  const end = at + starts.steps;
  const ownReady = own.immersionMin ? (own.immersionMin[end] as number) : end;
  const ready = Math.max(before?.ready ?? 0, ownReady);
  const pace = (before?.pace ?? 0) + at;
  if (best) {
    const order = step.eager
      ? broken - best.broken || pace - best.pace
      : broken - best.broken || forced - best.forced || short - best.short || ready - best.ready;
    if (order >= 0) return best;
  }
  const dry = own.dry ? (own.dry[end] as number) : end;
  return { stage: s, at, crew, end, dry, broken, forced, short, pace, ready, before, run };
}

const sharePainters = (a: Item, crewA: number, b: Item, crewB: number): boolean => {
  const theirs = (b.crews[crewB] as Item['crews'][number]).painters;
  return (a.crews[crewA] as Item['crews'][number]).painters.some((p) => theirs.includes(p));
};

function labelOf(stages: readonly Stage[], label: Label | null, item: number): Label | null {
  for (let at = label; at; at = at.before) if ((stages[at.stage] as Stage).terminal.index === item) return at;
  return null;
}

/** Where an item of an earlier stage lies. */
function spotOf(stages: readonly Stage[], label: Label | null, item: number): { at: number; end: number } | null {
  for (let at = label; at; at = at.before) {
    if ((stages[at.stage] as Stage).terminal.index === item) return at;
    const i = at.run.items.findIndex((w) => w.index === item);
    const work = at.run.items[i];
    if (!work) continue;
    const start = at.run.start[i] as number;
    return { at: start, end: start + (work.crews[at.run.crew[i] as number] as { steps: number }).steps };
  }
  return null;
}
