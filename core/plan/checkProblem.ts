import { finite, instant, notNegative, positive, temperatureC } from '../guard';
import { Impossible } from '../impossible';
import { checkedTable } from '../cure/arrhenius';
import { PAINT_METHODS } from '../model/paintMethod';
import type { TimeTable } from '../model/timeTable';
import type { CoatTask, Crew, PlanProblem, PlanTask, Span } from './problem';

/**
 * Refuse a problem that says something impossible, in a sentence that says what to do.
 * @throws RangeError on an unknown name, an id twice, a cycle, times off the grid, a series that is too short, a table or
 * hours that cannot be
 */
export function checkProblem(problem: PlanProblem): void {
  checkGrid(problem);
  for (const [name, series] of Object.entries(problem.series)) checkSeries(name, series);
  const names = {
    boats: unique(problem.boats, 'boat'),
    zones: unique(problem.zones, 'zone'),
    painters: unique(problem.painters, 'painter'),
    tasks: unique([...problem.tasks, ...problem.appointments], 'task or appointment'),
  };
  for (const { id, launchAt } of problem.boats) if (launchAt !== null) instant(launchAt, `The launch date of ${id}`);
  for (const zone of problem.zones) {
    if (!names.boats.has(zone.boat)) throw unknown('boat', zone.boat, `zone ${zone.id}`);
    if (!Object.hasOwn(problem.series, zone.series)) throw unknown('series', zone.series, `zone ${zone.id}`);
    zone.open?.forEach((span) => checkSpan(span, `The hours of zone ${zone.id}`));
  }
  for (const { id, available } of problem.painters)
    available.forEach((span) => checkSpan(span, `The hours of painter ${id}`));
  for (const { zones } of problem.notTogether)
    for (const zone of zones) if (!names.zones.has(zone)) throw unknown('zone', zone, 'what is not worked together');
  const taskOf = new Map(problem.tasks.map((task) => [task.id, task]));
  for (const task of problem.tasks) checkTask(task, { problem, names, taskOf });
  checkAppointments(problem, names.zones, taskOf);
  checkCycles(problem.tasks);
  checkLengths(problem);
}

interface Names {
  readonly zones: ReadonlySet<string>;
  readonly painters: ReadonlySet<string>;
  readonly tasks: ReadonlySet<string>;
}

function checkGrid({ gridMin, now, until, slackCapH, changeoverMin }: PlanProblem): void {
  positive(gridMin, 'The distance of the grid');
  instant(now, 'The start of the plan');
  instant(until, 'The end of the plan');
  notNegative(slackCapH, 'The slack that counts');
  notNegative(changeoverMin, 'The time to change over');
  const steps = (until - now) / (gridMin * 60_000);
  if (steps <= 0) throw new Impossible('The plan ends before it starts. Set its end after now.');
  if (!Number.isInteger(steps))
    throw new Impossible('The end of the plan is off the grid. Set it whole steps after now.');
}

function checkSeries(name: string, { air, surface }: PlanProblem['series'][string]): void {
  for (const list of [air, surface] as const) {
    let before = -Infinity;
    for (const { at } of list) {
      instant(at, `A time of the weather ${name}`);
      if (at <= before) throw new Impossible(`The weather ${name} is out of order. Give its hours from early to late.`);
      before = at;
    }
  }
  for (const hour of air) {
    temperatureC(hour.airC, `An air temperature of ${name}`);
    if (finite(hour.rh, `A humidity of ${name}`) <= 0 || hour.rh > 1)
      throw new Impossible(`A humidity of ${name} is not a share above 0 and up to 1. Check the unit.`);
    if (hour.windMs !== undefined) finite(hour.windMs, `A wind of ${name}`);
    if (hour.rainMm !== undefined) finite(hour.rainMm, `A rain of ${name}`);
  }
  for (const sample of surface) temperatureC(sample.tempC, `A surface temperature of ${name}`);
}

/** A series has to reach from the first thing whose clock runs on it to the end of the plan. */
function checkLengths(problem: PlanProblem): void {
  const needed = new Map<string, number>();
  const zoneOf = new Map(problem.zones.map((zone) => [zone.id, zone]));
  for (const zone of problem.zones) needed.set(zone.series, problem.now);
  for (const task of problem.tasks) {
    const name = zoneOf.get(task.zone)?.series as string;
    if (task.done) needed.set(name, Math.min(needed.get(name) as number, task.done.startedAt));
  }
  for (const [name, from] of needed) {
    for (const list of Object.values(problem.series[name] as PlanProblem['series'][string]) as { at: number }[][]) {
      const [first, last] = [list[0], list[list.length - 1]];
      if (!first || first.at > from)
        throw new Impossible(`The weather ${name} begins too late. Load it from the first coat that still counts.`);
      if ((last as { at: number }).at < problem.until)
        throw new Impossible(`The weather ${name} ends before the plan does. Load more of it, or plan fewer days.`);
    }
  }
}

function checkTask(
  task: PlanTask,
  { problem, names, taskOf }: { problem: PlanProblem; names: Names; taskOf: ReadonlyMap<string, PlanTask> },
): void {
  if (!names.zones.has(task.zone)) throw unknown('zone', task.zone, `task ${task.id}`);
  checkCrews(task.crews, task.id, names.painters);
  for (const { id, hours } of task.after) {
    if (!names.tasks.has(id)) throw unknown('task', id, `task ${task.id}`);
    notNegative(hours, `The wait of ${task.id}`);
  }
  for (const { id, hours } of task.fresh) {
    if (!taskOf.has(id)) throw unknown('task', id, `task ${task.id}`);
    if (hours !== null) notNegative(hours, `The hours in which ${task.id} must follow`);
  }
  if (task.done) checkDone(task.id, task.done, problem.now);
  else if (task.lock) checkLock(task, problem);
  if (task.kind === 'coat') checkCoat(task, taskOf, names.painters);
}

function checkDone(id: string, done: { startedAt: number; finishedAt: number }, now: number): void {
  instant(done.startedAt, `The start of ${id}`);
  instant(done.finishedAt, `The finish of ${id}`);
  if (done.finishedAt < done.startedAt)
    throw new Impossible(`${id} was finished before it was started. Check the two times.`);
  if (done.finishedAt > now)
    throw new Impossible(`${id} is done later than now. Leave it to be planned, or mend its time.`);
}

function checkLock(task: PlanTask, { now, until, gridMin }: PlanProblem): void {
  const lock = task.lock as NonNullable<PlanTask['lock']>;
  instant(lock.start, `The start of ${task.id}`);
  const step = (lock.start - now) / (gridMin * 60_000);
  if (!Number.isInteger(step)) throw new Impossible(`${task.id} is locked off the grid. Move it to a whole step.`);
  const crew = task.crews.find((c) => samePeople(c.painters, lock.painters));
  if (!crew) throw new Impossible(`${task.id} is locked to people who are none of its crews. Choose one of them.`);
  if (step < 0 || lock.start + stepsOf(crew.hours, gridMin) * gridMin * 60_000 > until)
    throw new Impossible(`${task.id} is locked outside the plan. Move it between now and the end of the plan.`);
}

/** Whether two crews are the same people, in any order. */
function samePeople(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every((name) => b.includes(name));
}

/** Steps of the grid that hours take; a hair below a whole number rounds to it. */
export function stepsOf(hours: number, gridMin: number): number {
  return Math.max(1, Math.ceil((hours * 60) / gridMin - 1e-9));
}

function checkCoat(coat: CoatTask, taskOf: ReadonlyMap<string, PlanTask>, painters: ReadonlySet<string>): void {
  if (!PAINT_METHODS.includes(coat.method)) throw new Impossible(`${coat.id} has no known method. Choose one.`);
  for (const limit of Object.values(coat.limits) as (number | null)[])
    if (limit !== null) finite(limit, `A limit of ${coat.id}`);
  if (coat.minCureC !== null) finite(coat.minCureC, `The lowest cure temperature of ${coat.id}`);
  const { over, immersion } = coat;
  const tables: (TimeTable | null)[] = [coat.touchDry, immersion?.minimum ?? null, immersion?.maximum ?? null];
  if (over) {
    const lower = taskOf.get(over.coat);
    if (lower?.kind !== 'coat') throw unknown('coat', over.coat, `coat ${coat.id}`);
    tables.push(over.minimum, over.tackLimit, over.maximum, over.sandable);
    if (over.abrade) checkCrews(over.abrade.crews, `the abrading before ${coat.id}`, painters);
  }
  for (const table of tables) if (table !== null) checkedTable(table);
}

function checkCrews(crews: readonly Crew[], what: string, painters: ReadonlySet<string>): void {
  for (const crew of crews) {
    positive(crew.hours, `The hours of ${what}`);
    if (crew.painters.length === 0) throw new Impossible(`A crew of ${what} has nobody in it. Name a painter.`);
    for (const id of crew.painters) if (!painters.has(id)) throw unknown('painter', id, what);
    if (new Set(crew.painters).size < crew.painters.length)
      throw new Impossible(`A crew of ${what} names a painter twice. Name each once.`);
  }
}

function checkAppointments(
  problem: PlanProblem,
  zones: ReadonlySet<string>,
  taskOf: ReadonlyMap<string, PlanTask>,
): void {
  for (const appointment of problem.appointments) {
    checkSpan(appointment, `The appointment ${appointment.id}`);
    for (const zone of appointment.zones)
      if (!zones.has(zone)) throw unknown('zone', zone, `appointment ${appointment.id}`);
    for (const { coat, minimum } of appointment.bear) {
      if (taskOf.get(coat)?.kind !== 'coat') throw unknown('coat', coat, `appointment ${appointment.id}`);
      checkedTable(minimum);
    }
  }
}

/** @throws Impossible when tasks wait for each other in a circle. */
function checkCycles(tasks: readonly PlanTask[]): void {
  const before = new Map(
    tasks.map((task) => [
      task.id,
      [
        ...task.after.map((a) => a.id),
        ...task.fresh.map((f) => f.id),
        ...(task.kind === 'coat' && task.over ? [task.over.coat] : []),
      ],
    ]),
  );
  const seen = new Map<string, 'open' | 'closed'>();
  const visit = (id: string): void => {
    seen.set(id, 'open');
    for (const earlier of before.get(id) ?? []) {
      if (seen.get(earlier) === 'open')
        throw new Impossible(`${id} and ${earlier} wait for each other. Take one of the two orders out.`);
      if (!seen.has(earlier)) visit(earlier);
    }
    seen.set(id, 'closed');
  };
  for (const { id } of tasks) if (!seen.has(id)) visit(id);
}

function checkSpan({ from, to }: Span, what: string): void {
  instant(from, what);
  instant(to, what);
  if (to < from) throw new Impossible(`${what} end before they start. Check the two times.`);
}

function unique(list: readonly { readonly id: string }[], what: string): Set<string> {
  const ids = new Set<string>();
  for (const { id } of list) {
    if (ids.has(id)) throw new Impossible(`There are two of ${what} ${id}. Give each an id of its own.`);
    ids.add(id);
  }
  return ids;
}

const unknown = (what: string, id: string, where: string) =>
  new Impossible(`There is no ${what} ${id}, which ${where} names. Add it, or name another.`);
