import type { TempSample, WeatherHour } from '../air/weather';
import type { PaintMethod } from '../model/paintMethod';
import type { ConditionLimits } from '../model/sheet';
import type { TimeTable } from '../model/timeTable';

/** A stretch of time, epoch ms, half open: `from` belongs to it, `to` does not. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** People who do a task together from start to end, and the hours it takes them. */
export interface Crew {
  readonly painters: readonly string[];
  readonly hours: number;
}

/** Weather and the surface under it; zones that are alike share one. */
export interface PlanSeries {
  readonly air: readonly WeatherHour[];
  readonly surface: readonly TempSample[];
}

/** This task starts no sooner than `hours` after the end of another task, or of an appointment. */
export interface After {
  readonly id: string;
  readonly hours: number;
}

/** This task must follow another before its surface turns: within `hours` of its start, and before it rains. */
export interface Fresh {
  readonly id: string;
  /** Null: no hours, only the order and the rain. */
  readonly hours: number | null;
  readonly untilRain: boolean;
}

interface TaskBase {
  readonly id: string;
  readonly zone: string;
  readonly crews: readonly Crew[];
  readonly after: readonly After[];
  readonly fresh: readonly Fresh[];
  /** It stays exactly there, whatever it breaks. */
  readonly lock: { readonly start: number; readonly painters: readonly string[] } | null;
  /** It is not in the plan any more; its clocks run. */
  readonly done: { readonly startedAt: number; readonly finishedAt: number } | null;
}

export interface WorkTask extends TaskBase {
  readonly kind: 'work';
  /** No rain while it is done. */
  readonly needsDry: boolean;
}

/** The coat below and what its sheet asks of the coat over it. */
export interface Over {
  readonly coat: string;
  readonly minimum: TimeTable | null;
  readonly tackLimit: TimeTable | null;
  readonly maximum: TimeTable | null;
  readonly alwaysAbrade: boolean;
  /** No abrading helps, and the lower coat is not put on without the upper one. */
  readonly chained: boolean;
  readonly sandable: TimeTable | null;
  /** Null: may not be abraded. */
  readonly abrade: { readonly crews: readonly Crew[]; readonly needsDry: boolean } | null;
}

export interface CoatTask extends TaskBase {
  readonly kind: 'coat';
  readonly product: string;
  readonly method: PaintMethod;
  readonly limits: ConditionLimits;
  /** Null: it counts as dry at its end. */
  readonly touchDry: TimeTable | null;
  readonly minCureC: number | null;
  readonly over: Over | null;
  /** Shortest and longest time to the water. */
  readonly immersion: { readonly minimum: TimeTable | null; readonly maximum: TimeTable | null } | null;
}

export type PlanTask = WorkTask | CoatTask;

/** Something fixed, like the yard moving her. */
export interface PlanAppointment extends Span {
  readonly id: string;
  readonly zones: readonly string[];
  /** Coats that must bear it: hard by then, or put on afterwards. */
  readonly bear: readonly { readonly coat: string; readonly minimum: TimeTable }[];
}

/** What is to be planned; meaning field by field in `docs/formats.md`. */
export interface PlanProblem {
  readonly version: 1;
  readonly gridMin: number;
  /** Epoch ms of the first grid instant. */
  readonly now: number;
  /** Epoch ms of the last grid instant. */
  readonly until: number;
  readonly slackCapH: number;
  readonly changeoverMin: number;
  readonly series: Readonly<Record<string, PlanSeries>>;
  readonly boats: readonly { readonly id: string; readonly launchAt: number | null }[];
  readonly zones: readonly {
    readonly id: string;
    readonly boat: string;
    readonly series: string;
    /** Rain and wind do not reach it. */
    readonly sheltered: boolean;
    /** When it may be worked; null always. */
    readonly open: readonly Span[] | null;
  }[];
  readonly painters: readonly { readonly id: string; readonly available: readonly Span[] }[];
  readonly appointments: readonly PlanAppointment[];
  readonly notTogether: readonly { readonly zones: readonly [string, string]; readonly untilDry: boolean }[];
  readonly tasks: readonly PlanTask[];
}

export const PLAN_RULES = [
  'hours',
  'booked',
  'changeover',
  'open',
  'limits',
  'rain',
  'zone',
  'together',
  'appointment',
  'bear',
  'order',
  'minimum',
  'tack',
  'maximum',
  'abrade',
  'fresh',
  'chain',
  'immersionMax',
] as const;

export type PlanRule = (typeof PLAN_RULES)[number];

/** A task where the plan puts it; an abrading is one of its own, `abrade:` and the coat it comes before. */
export interface PlannedTask {
  readonly id: string;
  readonly kind: 'work' | 'coat' | 'abrade';
  readonly zone: string;
  readonly painters: readonly string[];
  /** Epoch ms. */
  readonly start: number;
  readonly end: number;
  /** What keeps it from starting a step earlier. */
  readonly why: string;
}

export interface PlanViolation {
  /** Id of a task, or `boat:` and the id of a boat that is not ready. */
  readonly task: string;
  readonly limit: PlanRule | 'unplaced' | 'notReady';
  readonly sentence: string;
}

/** Broken, unplaced, late steps, forced abradings, finish steps, shortfall steps: compared from the left. */
export type PlanScore = readonly [number, number, number, number, number, number];

export interface CoatPlan {
  readonly tasks: readonly PlannedTask[];
  /** The latest boat is ready for the water, epoch ms; null when one is not. */
  readonly finish: number | null;
  readonly violations: readonly PlanViolation[];
  readonly score: PlanScore;
}

/**
 * Below zero where the first plan is the better one.
 * @example compareScores([0, 0, 1, 0, 9, 0], [0, 0, 0, 3, 9, 0]) // → 1
 */
export function compareScores(a: PlanScore, b: PlanScore): number {
  for (let i = 0; i < 6; i += 1) if (a[i] !== b[i]) return (a[i] as number) - (b[i] as number);
  return 0;
}

/**
 * Spans in order of time, those that touch or overlap as one.
 * @example mergeSpans([{ from: 5, to: 9 }, { from: 1, to: 5 }]) // → [{ from: 1, to: 9 }]
 */
export function mergeSpans(spans: readonly Span[]): Span[] {
  const merged: { from: number; to: number }[] = [];
  for (const span of [...spans].sort((a, b) => a.from - b.from)) {
    if (span.to <= span.from) continue;
    const last = merged[merged.length - 1];
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else merged.push({ from: span.from, to: span.to });
  }
  return merged;
}
