import type { ItemClocks } from './clocks';
import type { Item } from './model';
import { bestBefore, overFixed, type Label, type Step } from './labels';
import type { Job, Placement } from './score';
import { runBefore, shortAlone, stagesOf, type CrewStarts, type Run, type Stage, type StageQuestion } from './stages';

const DAY_MS = 86_400_000;

/** What a zone's plan costs beside the rest of the plan; smaller from the left is better. */
export type ZoneCost = readonly [
  broken: number,
  unready: number,
  late: number,
  forced: number,
  finish: number,
  short: number,
];

export interface ZoneQuestion extends StageQuestion {
  /** When the rest of the boat is ready; null: it is not. */
  readonly othersReady: number | null;
  readonly launch: number | null;
  /** How many starts of the coat before are tried for each start. */
  readonly breadth: number;
  /** Nothing starts before it. */
  readonly from: number;
  /** Be ready soon whatever it takes, so that others have room; else as the whole plan is scored. */
  readonly eager: boolean;
  readonly random: () => number;
}

export interface ZonePlan {
  readonly cost: ZoneCost;
  /** Put it into a plan. */
  readonly write: (into: Placement) => void;
}

/**
 * The best plan of one zone beside everything else that is in the plan, its items in a given order: from stage to stage
 * (work and the coat that follows it) the best way to every start of a coat is kept. Exact where each stage looks back no
 * further than to the coat before it, and `breadth` is not reached.
 * @returns null where the items do not all fit
 */
export function planZone(
  job: Job,
  fixed: (item: number, crew: number) => Uint8Array,
  placement: Placement,
  question: ZoneQuestion,
): ZonePlan | null {
  const { last, stepMs } = job.model;
  const stages = stagesOf(job, fixed, placement, question);
  const earliest = earliestReady(job, stages, question.from);
  if (earliest === null) return null;
  const day = Math.ceil(DAY_MS / stepMs);
  const { launch, othersReady } = question;
  let kept: ZonePlan | null = null;
  // Days that cannot help are not looked into; they are, step by step, where nothing fits or a coat has to be abraded.
  for (const days of [0.5, 2, 5, 12, Infinity]) {
    const readyBy = Math.min(last, Math.max(earliest + days * day, question.eager ? 0 : (othersReady ?? 0)));
    const found = labelsOf(job, placement, question, stages, readyBy);
    if (found && (!kept || compareCosts(found.cost, kept.cost) < 0)) kept = found;
    const worthLater =
      kept === null ||
      kept.cost[0] > 0 ||
      (!question.eager && kept.cost[3] > 0 && (launch === null || readyBy < launch));
    if (!worthLater || readyBy >= last) break;
  }
  return kept;
}

function labelsOf(
  job: Job,
  placement: Placement,
  question: ZoneQuestion,
  stages: readonly Stage[],
  readyBy: number,
): ZonePlan | null {
  const limits = latestStarts(job, stages, readyBy);
  if (!limits) return null;
  let labels: Label[] = [];
  for (let s = 0; s < stages.length; s += 1) {
    labels = stageLabels(job, placement, question, { stages, s, before: labels, latest: limits[s] as number });
    if (labels.length === 0) return null;
  }
  let best: Label | null = null;
  let cost: ZoneCost | null = null;
  for (const label of labels) {
    const found = costOf(job, label, question);
    const order = cost ? compareCosts(found, cost) : -1;
    if (order > 0 || (order === 0 && question.random() < 0.5)) continue;
    best = label;
    cost = found;
  }
  return cost ? { cost, write: (into) => writeLabels(stages, best, into) } : null;
}

/** When a zone could be ready if its windows never closed; null where something does not fit at all. */
function earliestReady(job: Job, stages: readonly Stage[], from: number): number | null {
  const { last } = job.model;
  let at = from;
  let ready = 0;
  for (const { terminal, works, startsOf } of stages) {
    const { immersionMin, dry } = job.clocks[terminal.index] as ItemClocks;
    for (const item of [...works, terminal]) {
      let end = Infinity;
      for (const { steps, ok } of startsOf.get(item.index) as readonly CrewStarts[]) {
        let k = at;
        while (k <= last && ok[k] === 0) k += 1;
        if (k <= last) end = Math.min(end, k + steps);
      }
      if (end === Infinity) return null;
      at = end;
    }
    ready = Math.max(ready, immersionMin ? (immersionMin[at] as number) : at);
    if (dry) at = dry[at] as number;
    if (at > last) return last;
  }
  return Math.min(ready, last);
}

export function compareCosts(a: ZoneCost, b: ZoneCost): number {
  for (let i = 0; i < 6; i += 1) if (a[i] !== b[i]) return (a[i] as number) - (b[i] as number);
  return 0;
}

function costOf({ model }: Job, label: Label | null, { othersReady, launch, eager }: ZoneQuestion): ZoneCost {
  const own = label?.ready ?? 0;
  if (eager) return [label?.broken ?? 0, own > model.last ? 1 : 0, own, label?.pace ?? 0, 0, 0];
  const unready = othersReady === null || own > model.last;
  const ready = unready ? model.last : Math.max(own, othersReady);
  const late = launch === null ? 0 : Math.max(0, ready - launch);
  return [label?.broken ?? 0, unready ? 1 : 0, late, label?.forced ?? 0, ready, label?.short ?? 0];
}

function writeLabels(stages: readonly Stage[], label: Label | null, into: Placement): void {
  for (let at = label; at; at = at.before) {
    const { terminal } = stages[at.stage] as Stage;
    into.start[terminal.index] = at.at;
    into.crew[terminal.index] = at.crew;
    if (terminal.partner >= 0) into.start[terminal.partner] = -1;
    at.run.items.forEach((item, i) => {
      into.start[item.index] = at.run.start[i] as number;
      into.crew[item.index] = at.run.crew[i] as number;
    });
  }
}

/**
 * The latest start of each stage that can still be ready in time, by the minimums alone; null where there is none.
 * It keeps the search out of days that cannot help.
 */
function latestStarts(job: Job, stages: readonly Stage[], readyBy: number): number[] | null {
  const { last } = job.model;
  const latest: number[] = [];
  for (let s = stages.length - 1; s >= 0; s -= 1) {
    const { terminal, startsOf } = stages[s] as Stage;
    const { immersionMin } = job.clocks[terminal.index] as ItemClocks;
    const after = stages[s + 1];
    const bound = after ? (latest[0] as number) : last;
    const over =
      after && after.terminal.lower === terminal.index ? (job.clocks[after.terminal.index] as ItemClocks).over : null;
    let found = -1;
    (startsOf.get(terminal.index) as readonly CrewStarts[]).forEach(({ steps, ok }) => {
      for (let k = Math.min(last - steps, bound, readyBy); k > found; k -= 1) {
        if (ok[k] === 0) continue;
        const end = k + steps;
        const ready = immersionMin ? (immersionMin[end] as number) : end;
        // Where it is never ready within the plan, that is no reason to look no further: all else may still be placed.
        if (ready > readyBy && !(readyBy >= last && ready > last)) continue;
        const next = over?.minimum ? (over.minimum[end] as number) : end;
        if (after && next > bound) continue;
        found = k;
      }
    });
    if (found < 0) return null;
    latest.unshift(found);
  }
  return latest;
}

/** The best way to every start of a stage's terminal. */
function stageLabels(
  job: Job,
  placement: Placement,
  question: ZoneQuestion,
  { stages, s, before, latest }: { stages: readonly Stage[]; s: number; before: readonly Label[]; latest: number },
): Label[] {
  const stage = stages[s] as Stage;
  const { terminal } = stage;
  const { alwaysAbrade = false } = terminal.coat?.over ?? {};
  const ways = alwaysAbrade ? (stage.abrade ? [true] : []) : stage.abrade ? [false, true] : [false];
  const first = s === 0 ? question.from : Math.max(question.from, Math.min(...before.map((l) => l.end)));
  const alone = (item: Item, start: number) => shortAlone(job, placement, question.free, item, start);
  const step: Step = {
    job,
    stages,
    stage,
    s,
    before,
    over: overFixed(job, placement, stages, s),
    breadth: question.breadth,
    eager: question.eager,
  };
  const runs: [Map<number, Run | null>, Map<number, Run | null>] = [new Map(), new Map()];
  const out: Label[] = [];
  const crews = stage.startsOf.get(terminal.index) as readonly CrewStarts[];
  for (let at = first; at <= latest; at += 1) {
    for (let crew = 0; crew < crews.length; crew += 1) {
      const starts = crews[crew] as CrewStarts;
      if (starts.ok[at] === 0) continue;
      const own = stage.windowed.has(terminal.index) ? alone(terminal, at) : 0;
      let best: Label | null = null;
      for (const abraded of ways) {
        const known = runs[abraded ? 1 : 0];
        let run = known.get(at);
        if (run === undefined) known.set(at, (run = runBefore(job, stage, { at, abraded, alone })));
        if (!run || (run.start.length > 0 && (run.start[0] as number) < question.from)) continue;
        best = bestBefore(step, { at, crew, starts, run, abraded, own }, best);
      }
      if (best) out.push(best);
    }
    if (s === stages.length - 1 && out.length > 0 && noneBetterLater(out, question)) break;
  }
  return out;
}

/** At the last stage a later start is no better once one is ready as early as the rest of the boat allows. */
function noneBetterLater(labels: readonly Label[], { othersReady, eager }: ZoneQuestion): boolean {
  const bound = eager ? 0 : (othersReady ?? 0);
  const { at } = labels[labels.length - 1] as Label;
  return labels.some((l) => (l.forced === 0 || eager) && l.broken === 0 && at > Math.max(l.ready, bound));
}
