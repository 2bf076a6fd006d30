import type { ItemClocks } from './clocks';
import type { Model } from './model';
import type { CoatPlan } from './problem';
import { placementOf } from './placementOf';
import { endOf, isPlaced, softUntil } from './score';
import type { PlanSession } from './session';
import { fixedStarts } from './starts';

/** What a coat lets the next one do, from its end on; epoch ms, null: not within the days of the plan. */
export interface FilmStep {
  readonly task: string;
  readonly start: number;
  readonly end: number;
  readonly dryAt: number | null;
  /** Towards the coat that follows it in the plan: shut until, bonds as is until, closes for good. */
  readonly opensAt: number | null;
  readonly bondsUntil: number | null;
  readonly closesAt: number | null;
  readonly alwaysAbrade: boolean;
  /** To the water from, and until. */
  readonly waterFrom: number | null;
  readonly waterUntil: number | null;
}

/**
 * The film of each zone of a plan as it grows: every coat with the clocks of its window. In order of time.
 * @example filmInTime(planSession(smallPlan), planCoats(smallPlan)).skeg.length // → 2
 */
export function filmInTime(
  { job, problem }: Pick<PlanSession, 'job' | 'problem'>,
  plan: CoatPlan,
): Record<string, FilmStep[]> {
  const { model } = job;
  const placement = placementOf(model, plan);
  const at = (step: number | undefined) =>
    step === undefined || step > model.last ? null : problem.now + step * model.stepMs;
  const held = (step: number | undefined) =>
    step === undefined || step >= model.last ? null : problem.now + step * model.stepMs;
  const films: Record<string, FilmStep[]> = {};
  for (const item of model.items) {
    if (!item.coat || (!item.done && !isPlaced(placement, item.index))) continue;
    const own = job.clocks[item.index] as ItemClocks;
    const next = model.items.find((i) => i.lower === item.index && i.kind === 'coat');
    const over = next ? (job.clocks[next.index] as ItemClocks).over : null;
    const start = placement.start[item.index] as number;
    const end = item.done ? 0 : endOf(job, placement, item.index);
    const zone = (model.zones[item.zone] as Model['zones'][number]).id;
    (films[zone] ??= []).push({
      task: item.id,
      start: item.done ? item.done.startedAt : problem.now + start * model.stepMs,
      end: item.done ? item.done.finishedAt : problem.now + end * model.stepMs,
      dryAt: at(item.done ? own.done?.dry : softUntil(job, placement, item.index)),
      opensAt: at(over ? (over.done ? over.done.minimum : (over.minimum?.[end] ?? end)) : undefined),
      bondsUntil: held(over ? (over.done ? over.done.tackLimit : over.tackLimit?.[start]) : undefined),
      closesAt: held(over ? (over.done ? over.done.maximum : over.maximum?.[start]) : undefined),
      alwaysAbrade: next?.coat?.over?.alwaysAbrade === true,
      waterFrom: at(item.done ? own.done?.immersionMin : own.immersionMin?.[end]),
      waterUntil: held(item.done ? own.done?.immersionMax : own.immersionMax?.[start]),
    });
  }
  for (const film of Object.values(films)) film.sort((a, b) => a.start - b.start);
  return films;
}

/**
 * Where a task may start by air, people, light and what is done, as spans of whole steps; epoch ms, both ends included.
 * @example openFor(planSession(smallPlan), 'nothing') // → []
 */
export function openFor({ job, problem }: PlanSession, task: string): { from: number; to: number }[] {
  const item = job.model.items.find((i) => i.id === task);
  if (!item) return [];
  const starts = fixedStarts(job);
  const spans: { from: number; to: number }[] = [];
  for (let k = 0; k <= job.model.last; k += 1) {
    if (!item.crews.some((_, crew) => starts(item.index, crew)[k] === 1)) continue;
    const at = problem.now + k * job.model.stepMs;
    const last = spans[spans.length - 1];
    if (last && last.to === at - job.model.stepMs) last.to = at;
    else spans.push({ from: at, to: at });
  }
  return spans;
}
