import type { TimeTable } from '../model/timeTable';
import { stepsOf } from './checkProblem';
import { mergeSpans, type CoatTask, type Crew, type PlanProblem, type PlanTask, type Span } from './problem';

const HOUR_MS = 3_600_000;
/** So much a rounding may be off: it decides nothing. */
export const SECOND_MS = 1000;

/** A problem with names turned into numbers and times into steps of the grid; the weather is not in it. */
export interface Model {
  readonly problem: PlanProblem;
  /** Index of the last grid instant. */
  readonly last: number;
  readonly stepMs: number;
  /** Tasks first, in their order, then the abradings that may come before coats. */
  readonly items: readonly Item[];
  readonly zones: readonly Zone[];
  readonly boats: readonly { readonly id: string; readonly launch: number | null; readonly launchAt: number | null }[];
  readonly painters: readonly { readonly id: string; readonly available: readonly Span[] }[];
  readonly appointments: readonly ModelAppointment[];
  readonly changeover: number;
  readonly slackCap: number;
}

export interface Zone {
  readonly id: string;
  readonly boat: number;
  readonly series: string;
  readonly sheltered: boolean;
  readonly open: readonly Span[] | null;
  /** Items that are to be planned, abradings left out. */
  readonly items: readonly number[];
  /** Zones that are not worked together with this one. */
  readonly apart: readonly { readonly zone: number; readonly untilDry: boolean }[];
}

export interface ItemCrew {
  readonly painters: readonly number[];
  readonly names: readonly string[];
  readonly steps: number;
}

/** What one item asks of another that comes before it. */
export interface Link {
  readonly before: number;
  /** Hours after its end; null where nothing but the order is asked. */
  readonly afterHours: number | null;
  /** Hours after its start in which this must start; null: no such limit. */
  readonly freshHours: number | null;
  /** The same in whole steps, for items that start on the grid: 0 and `Infinity` where nothing is asked. */
  readonly afterSteps: number;
  readonly freshSteps: number;
  readonly fresh: boolean;
  readonly untilRain: boolean;
}

export interface Item {
  readonly index: number;
  readonly id: string;
  readonly kind: 'work' | 'coat' | 'abrade';
  readonly zone: number;
  readonly crews: readonly ItemCrew[];
  readonly needsDry: boolean;
  /** Coats only. */
  readonly coat: CoatTask | null;
  readonly task: PlanTask | null;
  /** Of an abrading, the coat it comes before; of a coat, its abrading. −1: none. */
  readonly partner: number;
  readonly lower: number;
  readonly links: readonly Link[];
  /** Lower bounds in steps by appointments. */
  readonly appointments: readonly { readonly appointment: number; readonly from: number }[];
  readonly done: { readonly startedAt: number; readonly finishedAt: number } | null;
  readonly lock: { readonly start: number; readonly crew: number } | null;
  /** Items that name this one. */
  readonly followers: readonly number[];
}

export interface ModelAppointment {
  readonly id: string;
  /** Steps, not whole ones: [from, to). */
  readonly from: number;
  readonly to: number;
  readonly zones: readonly number[];
  readonly bear: readonly { readonly coat: number; readonly minimum: TimeTable }[];
  /** The last grid instant at or before `from`, or the last one. */
  readonly bearBy: number;
}

/** The grid as numbers: what the parts of a problem are turned into steps with. */
interface Grid {
  readonly now: number;
  readonly stepMs: number;
}

/** The first grid step no earlier than an instant, give or take a second. */
export const stepFrom = (at: number, { now, stepMs }: Grid): number => Math.ceil((at - SECOND_MS - now) / stepMs);
/** The last grid step no later than an instant, give or take a second. */
export const stepTo = (at: number, { now, stepMs }: Grid): number => Math.floor((at + SECOND_MS - now) / stepMs);

/** Turn a checked problem into numbers. */
export function modelOf(problem: PlanProblem): Model {
  const { now, until, gridMin } = problem;
  const stepMs = gridMin * 60_000;
  const grid = { now, stepMs };
  const last = Math.round((until - now) / stepMs);
  const zoneAt = new Map(problem.zones.map((zone, i) => [zone.id, i]));
  const boatAt = new Map(problem.boats.map((boat, i) => [boat.id, i]));
  const appointments = problem.appointments.map((a) => ({
    id: a.id,
    from: (a.from - now) / stepMs,
    to: (a.to - now) / stepMs,
    zones: a.zones.map((id) => zoneAt.get(id) as number),
    bear: a.bear.map(({ coat, minimum }) => ({
      coat: problem.tasks.findIndex((t) => t.id === coat),
      minimum,
    })),
    bearBy: Math.min(last, Math.floor((a.from - now) / stepMs)),
  }));
  const items = itemsOf(problem, grid, zoneAt);
  return {
    problem,
    last,
    stepMs,
    items,
    zones: problem.zones.map((zone, z) => ({
      id: zone.id,
      boat: boatAt.get(zone.boat) as number,
      series: zone.series,
      sheltered: zone.sheltered,
      open: zone.open === null ? null : mergeSpans(zone.open),
      items: items.filter((i) => i.zone === z && i.kind !== 'abrade' && !i.done).map((i) => i.index),
      apart: problem.notTogether.flatMap(({ zones: [a, b], untilDry }) =>
        a === zone.id || b === zone.id ? [{ zone: zoneAt.get(a === zone.id ? b : a) as number, untilDry }] : [],
      ),
    })),
    boats: problem.boats.map(({ id, launchAt }) => ({
      id,
      launchAt,
      launch: launchAt === null ? null : Math.floor((launchAt - now) / stepMs),
    })),
    painters: problem.painters.map(({ id, available }) => ({ id, available: mergeSpans(available) })),
    appointments,
    changeover: (problem.changeoverMin * 60_000) / stepMs,
    slackCap: Math.floor((problem.slackCapH * 60) / gridMin),
  };
}

function itemsOf(problem: PlanProblem, grid: Grid, zoneAt: ReadonlyMap<string, number>): Item[] {
  const { tasks, gridMin } = problem;
  const taskAt = new Map(tasks.map((task, i) => [task.id, i]));
  const painterAt = new Map(problem.painters.map((painter, i) => [painter.id, i]));
  const followers = tasks.map((): number[] => []);
  const abraded: number[] = [];
  const crewsOf = (crews: readonly Crew[]): ItemCrew[] =>
    crews.map(({ painters, hours }) => ({
      painters: painters.map((id) => painterAt.get(id) as number),
      names: painters,
      steps: stepsOf(hours, gridMin),
    }));
  const items: Item[] = tasks.map((task, index) => {
    const links = linksOf(task, taskAt, gridMin);
    for (const { before } of links) (followers[before] as number[]).push(index);
    const coat = task.kind === 'coat' ? task : null;
    const mayAbrade = coat?.over?.abrade && !coat.over.chained && !coat.done;
    const partner = mayAbrade ? tasks.length + abraded.push(index) - 1 : -1;
    const crews = crewsOf(task.crews);
    return {
      index,
      id: task.id,
      kind: task.kind,
      zone: zoneAt.get(task.zone) as number,
      crews,
      needsDry: task.kind === 'work' && task.needsDry,
      coat,
      task,
      partner,
      lower: coat?.over ? (taskAt.get(coat.over.coat) as number) : -1,
      links,
      appointments: appointmentBounds(task, problem, grid),
      done: task.done,
      lock: task.lock && !task.done ? lockOf(task, crews, grid) : null,
      followers: followers[index] as number[],
    };
  });
  const abradings = abraded.map((of, i): Item => {
    const coat = items[of] as Item;
    const { abrade } = coat.coat?.over as NonNullable<CoatTask['over']>;
    return {
      index: tasks.length + i,
      id: `abrade:${coat.id}`,
      kind: 'abrade',
      zone: coat.zone,
      crews: crewsOf(abrade?.crews ?? []),
      needsDry: abrade?.needsDry === true,
      coat: null,
      task: null,
      partner: of,
      lower: coat.lower,
      links: [],
      appointments: [],
      done: null,
      lock: null,
      followers: [],
    };
  });
  return [...items, ...abradings];
}

function lockOf(task: PlanTask, crews: readonly ItemCrew[], { now, stepMs }: Grid): Item['lock'] {
  const { start, painters } = task.lock as NonNullable<PlanTask['lock']>;
  const crew = crews.findIndex((c) => c.names.length === painters.length && c.names.every((n) => painters.includes(n)));
  return { start: Math.round((start - now) / stepMs), crew };
}

/** All that a task asks of each other task, in one. */
function linksOf(task: PlanTask, taskAt: ReadonlyMap<string, number>, gridMin: number): Link[] {
  const asked = new Map<number, Pick<Link, 'afterHours' | 'freshHours' | 'fresh' | 'untilRain'>>();
  const ask = (id: string, more: Partial<Link>) => {
    const before = taskAt.get(id);
    if (before === undefined) return;
    asked.set(before, {
      ...(asked.get(before) ?? { afterHours: null, freshHours: null, fresh: false, untilRain: false }),
      ...more,
    });
  };
  const askedOf = (id: string) => asked.get(taskAt.get(id) ?? -1);
  for (const { id, hours } of task.after) ask(id, { afterHours: Math.max(askedOf(id)?.afterHours ?? 0, hours) });
  for (const { id, hours, untilRain } of task.fresh) {
    const known = askedOf(id);
    const least = Math.min(hours ?? Infinity, known?.freshHours ?? Infinity);
    ask(id, {
      fresh: true,
      freshHours: Number.isFinite(least) ? least : null,
      untilRain: untilRain || known?.untilRain === true,
    });
  }
  if (task.kind === 'coat' && task.over) ask(task.over.coat, {});
  const hair = SECOND_MS / (gridMin * 60_000);
  return [...asked].map(([before, link]) => ({
    ...link,
    before,
    afterSteps: link.afterHours === null ? 0 : Math.ceil((link.afterHours * 60) / gridMin - hair),
    freshSteps: link.freshHours === null ? Infinity : Math.floor((link.freshHours * 60) / gridMin + hair),
  }));
}

function appointmentBounds(task: PlanTask, problem: PlanProblem, grid: Grid): Item['appointments'] {
  return task.after.flatMap(({ id, hours }) => {
    const appointment = problem.appointments.findIndex((a) => a.id === id);
    if (appointment < 0) return [];
    const { to } = problem.appointments[appointment] as { to: number };
    return [{ appointment, from: stepFrom(to + hours * HOUR_MS, grid) }];
  });
}
