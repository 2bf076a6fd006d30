import { checkConditions } from '../air/conditions';
import { integratedMilestoneAt } from '../cure/integrator.fixture';
import type { TimeTable } from '../model/timeTable';
import type { CoatPlan, CoatTask, PlanProblem, PlannedTask, PlanTask } from './problem';

/**
 * Tests only: what a plan is worth by the rules of the page, worked out from instants in ms, step by step, and sharing
 * nothing with the planner: neither its grid nor its clocks. `docs/formats.md` has the rules.
 */
const H = 3_600_000;
const SECOND = 1000;

interface Spot {
  readonly task: PlanTask | null;
  readonly id: string;
  readonly zone: string;
  readonly start: number;
  readonly end: number;
  readonly soft: number;
  readonly painters: readonly string[];
  readonly product: string | null;
  readonly done: boolean;
}

export interface Checked {
  readonly score: number[];
  /** `limit` of every violation, in order of the alphabet. */
  readonly limits: string[];
  readonly finish: number | null;
}

export function checkPlan(problem: PlanProblem, plan: CoatPlan): Checked {
  const { now, until } = problem;
  const grid = problem.gridMin * 60_000;
  const limits: string[] = [];
  const broke = (limit: string) => limits.push(limit);
  const zoneOf = (id: string) => problem.zones.find((z) => z.id === id)!;
  const seriesOf = (zone: string) => problem.series[zoneOf(zone).series]!;
  const taskOf = (id: string) => problem.tasks.find((t) => t.id === id);
  const merged = (spans: readonly { from: number; to: number }[]) => {
    const sorted = spans.map((s) => ({ ...s })).sort((a, b) => a.from - b.from);
    const out: { from: number; to: number }[] = [];
    for (const span of sorted) {
      const last = out.at(-1);
      if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
      else out.push(span);
    }
    return out;
  };
  const within = (spans: readonly { from: number; to: number }[], start: number, end: number) =>
    merged(spans).some((s) => s.from <= start && end <= s.to);

  const clock = (zone: string, table: TimeTable, kind: 'minimum' | 'maximum', at: number, cure: number | null) =>
    integratedMilestoneAt({
      table,
      kind,
      appliedAt: at,
      temps: seriesOf(zone).surface,
      ...(cure === null ? {} : { minCureC: cure }),
    });
  /** The first grid instant, at or after `end`, at which a minimum is reached; none by `until`: infinity. */
  const reached = (coat: CoatTask, table: TimeTable | null, end: number): number => {
    const at = table === null ? end : clock(coat.zone, table, 'minimum', end, coat.minCureC);
    if (at === null) return Infinity;
    const k = Math.ceil((Math.max(at, end) - SECOND - now) / grid);
    const g = now + k * grid;
    return g > until ? Infinity : g;
  };
  const limitEnds = (coat: CoatTask, table: TimeTable | null, start: number): number =>
    table === null ? Infinity : (clock(coat.zone, table, 'maximum', start, null) ?? Infinity);
  const outlives = (ends: number) => ends >= until - SECOND;
  const holds = (ends: number, at: number) => outlives(ends) || ends >= at - SECOND;

  const rains = (zone: string, from: number, to: number, closed: boolean): boolean => {
    if (zoneOf(zone).sheltered) return false;
    const { air } = seriesOf(zone);
    for (let k = Math.ceil((from - now) / grid - 1e-9); now + k * grid <= to; k += 1) {
      const g = now + k * grid;
      if (!closed && g >= to) break;
      const sample = air.filter((a) => a.at <= g).at(-1);
      if ((sample?.rainMm ?? 0) > 0) return true;
    }
    return false;
  };
  const at = <T extends { at: number }>(list: readonly T[], g: number, value: (x: T) => number | undefined) => {
    const i = list.findIndex((x, n) => x.at <= g && (list[n + 1]?.at ?? Infinity) > g);
    const [a, b] = [list[i]!, list[i + 1]];
    const [x, y] = [value(a), b && value(b)];
    if (x === undefined || y === undefined || !b) return x ?? y;
    return x + ((y - x) * (g - a.at)) / (b.at - a.at);
  };

  const planned = (p: PlannedTask): Spot => {
    const task = taskOf(p.id) ?? null;
    const coat = task?.kind === 'coat' ? task : null;
    return {
      task,
      id: p.id,
      zone: p.zone,
      start: p.start,
      end: p.end,
      soft: coat ? reached(coat, coat.touchDry, p.end) : p.end,
      painters: p.painters,
      product: coat?.product ?? null,
      done: false,
    };
  };
  const spots = plan.tasks.map(planned);
  const done: Spot[] = problem.tasks
    .filter((t) => t.done)
    .map((task) => ({
      task,
      id: task.id,
      zone: task.zone,
      start: task.done!.startedAt,
      end: task.done!.finishedAt,
      soft: task.kind === 'coat' ? reached(task, task.touchDry, task.done!.finishedAt) : task.done!.finishedAt,
      painters: [],
      product: null,
      done: true,
    }));
  const spotOf = (id: string) => spots.find((s) => s.id === id) ?? done.find((s) => s.id === id);

  // What the page says of the form of a plan.
  for (const p of plan.tasks) {
    if ((p.start - now) % grid !== 0 || p.start < now || p.end > until) throw new Error(`${p.id} is off the grid`);
    const task = taskOf(p.id);
    const over = (taskOf(p.id.slice(7)) as CoatTask | undefined)?.over;
    const crews = task ? task.crews : over!.abrade!.crews;
    const crew = crews.find((c) => [...c.painters].sort().join() === [...p.painters].sort().join());
    if (!crew) throw new Error(`${p.id} is done by nobody's crew`);
    if (p.end - p.start !== Math.ceil((crew.hours * H) / grid - 1e-9) * grid) throw new Error(`${p.id} takes too long`);
    if (!task && over!.chained) throw new Error(`${p.id} may not be`);
  }
  for (const task of problem.tasks)
    if (task.lock && !task.done && spotOf(task.id)?.start !== task.lock.start) throw new Error(`${task.id} was locked`);

  for (const spot of spots) {
    const zone = zoneOf(spot.zone);
    for (const id of spot.painters)
      if (!within(problem.painters.find((p) => p.id === id)!.available, spot.start, spot.end)) broke('hours');
    if (zone.open && !within(zone.open, spot.start, spot.end)) broke('open');
    const { task } = spot;
    if (task?.kind === 'coat') {
      let fine = spot.soft !== Infinity;
      for (let g = spot.start; fine && g <= spot.soft; g += grid) {
        const { air, surface } = seriesOf(spot.zone);
        const windMs = at(air, g, (h) => h.windMs);
        const verdict = checkConditions({
          conditions: {
            airC: at(air, g, (h) => h.airC)!,
            rh: at(air, g, (h) => h.rh)!,
            surfaceC: at(surface, g, (s) => s.tempC)!,
            ...(windMs === undefined ? {} : { windMs }),
            rainMm: rains(spot.zone, g, g, true) ? 1 : 0,
          },
          limits: task.limits,
          method: task.method,
          sheltered: zone.sheltered,
        });
        fine = verdict.breaks.length === 0;
      }
      if (!fine) broke('limits');
    }
    const over = task ? null : (taskOf(spot.id.slice(7)) as CoatTask).over!;
    const needsDry = task ? task.kind === 'work' && task.needsDry : over!.abrade!.needsDry;
    if (needsDry && rains(spot.zone, spot.start, spot.end, false)) broke('rain');
    if (!task && !spotOf(spot.id.slice(7))) broke('order');
  }

  const meet = (a: { start: number; end: number }, b: { start: number; end: number }) =>
    a.start < b.end && b.start < a.end;
  spots.forEach((a, i) => {
    for (const b of [...spots.slice(i + 1), ...done]) {
      const both = (x: Spot) => ({ start: x.start, end: x.soft });
      if (a.zone === b.zone) {
        if (meet(both(a), both(b))) broke('zone');
      } else {
        const rules = problem.notTogether.filter((n) => n.zones.includes(a.zone) && n.zones.includes(b.zone));
        if (rules.some((n) => (n.untilDry ? meet(both(a), both(b)) : meet(a, b)))) broke('together');
      }
      if (!a.painters.some((p) => b.painters.includes(p))) continue;
      if (meet(a, b)) broke('booked');
      else if (a.product && b.product && a.product !== b.product) {
        const gap = Math.max(a.start - b.end, b.start - a.end);
        if (gap < problem.changeoverMin * 60_000) broke('changeover');
      }
    }
  });

  let short = 0;
  const cap = Math.floor((problem.slackCapH * H) / grid);
  const window = (ends: number, start: number) => {
    if (outlives(ends) || !holds(ends, start)) return;
    const lastHolding = Math.floor((ends + SECOND - now) / grid);
    short += Math.max(0, cap - (lastHolding - (start - now) / grid));
  };
  for (const spot of spots) {
    const { task } = spot;
    if (!task) continue;
    for (const { id, hours } of task.after) {
      const appointment = problem.appointments.find((a) => a.id === id);
      if (appointment && spot.start < appointment.to + hours * H - SECOND) broke('order');
    }
    const over = task.kind === 'coat' ? task.over : null;
    const ids = new Set([...task.after, ...task.fresh].map((x) => x.id).filter((id) => taskOf(id)));
    if (over) ids.add(over.coat);
    for (const id of ids) {
      const other = spotOf(id);
      const waits = task.after.filter((a) => a.id === id);
      if (!other || spot.start < other.end) {
        broke('order');
        continue;
      }
      if (waits.some((w) => spot.start < other.end + w.hours * H - SECOND)) broke('order');
      const fresh = task.fresh.filter((f) => f.id === id);
      if (
        fresh.some(
          (f) =>
            (f.hours !== null && spot.start > other.start + f.hours * H + SECOND) ||
            (f.untilRain && rains(task.zone, other.start, spot.start, true)),
        )
      )
        broke('fresh');
      for (const f of fresh) if (f.hours !== null) window(other.start + f.hours * H, spot.start);
      if (over?.coat !== id) continue;
      const lower = taskOf(id) as CoatTask;
      const abrading = spots.find((s) => s.id === `abrade:${task.id}`);
      if (spot.start < reached(lower, over.minimum, other.end)) broke('minimum');
      const tack = limitEnds(lower, over.tackLimit, other.start);
      const max = limitEnds(lower, over.maximum, other.start);
      if (!abrading && !over.alwaysAbrade && !holds(tack, spot.start)) broke('tack');
      if (!holds(max, spot.start)) broke('maximum');
      const sandable = reached(lower, over.sandable ?? over.minimum, other.end);
      if (abrading) {
        if (abrading.start < sandable || abrading.start < other.end || abrading.end > spot.start) broke('abrade');
      } else if (over.alwaysAbrade) broke('abrade');
      window(abrading || over.alwaysAbrade ? max : over.tackLimit ? tack : max, spot.start);
    }
    for (const next of problem.tasks) {
      const follows =
        next.fresh.some((f) => f.id === task.id) ||
        (next.kind === 'coat' && next.over?.coat === task.id && next.over.chained);
      if (follows && !spotOf(next.id)) broke('chain');
    }
  }

  for (const a of problem.appointments) {
    for (const spot of [...spots, ...done]) {
      const start = spot.done ? Math.max(now, spot.start) : spot.start;
      if (!a.zones.includes(spot.zone) || (spot.done && spot.soft <= now)) continue;
      if (start < a.to && a.from < spot.soft) broke('appointment');
    }
    for (const { coat, minimum } of a.bear) {
      const spot = spotOf(coat);
      if (!spot || spot.start >= a.to) continue;
      const by = Math.min(until, now + Math.floor((a.from - now) / grid) * grid);
      const hard = clock(spot.zone, minimum, 'minimum', spot.end, (taskOf(coat) as CoatTask).minCureC);
      if (spot.end > a.from || hard === null || hard > by + SECOND) broke('bear');
    }
  }

  const broken = limits.length;
  let unplaced = 0;
  for (const task of problem.tasks)
    if (!task.done && !spotOf(task.id)) {
      unplaced += 1;
      broke('unplaced');
    }
  let late = 0;
  let finishSteps = 0;
  let latest: number | null = -Infinity;
  const ripe: number[] = [];
  for (const boat of problem.boats) {
    const own = problem.tasks.filter((t) => zoneOf(t.zone).boat === boat.id);
    let ready = now;
    for (const task of own) {
      const spot = spotOf(task.id);
      if (!spot) {
        ready = Infinity;
        continue;
      }
      ready = Math.max(ready, spot.end);
      if (task.kind === 'coat' && task.immersion)
        ready = Math.max(ready, reached(task, task.immersion.minimum, spot.end));
    }
    for (const spot of spots) if (zoneOf(spot.zone).boat === boat.id) ready = Math.max(ready, spot.end);
    if (ready > until) {
      unplaced += 1;
      broke('notReady');
    } else {
      ripe.push(ready);
      const by = Math.min(until, Math.max(ready, boat.launchAt ?? -Infinity));
      for (const task of own) {
        if (task.kind !== 'coat' || !task.immersion?.maximum) continue;
        if (!holds(limitEnds(task, task.immersion.maximum, spotOf(task.id)!.start), by)) broke('immersionMax');
      }
    }
    const counted = ready > until ? until : ready;
    if (boat.launchAt !== null) late += Math.max(0, (counted - now) / grid - Math.floor((boat.launchAt - now) / grid));
    finishSteps += (counted - now) / grid;
  }
  latest = ripe.length === problem.boats.length && ripe.length > 0 ? Math.max(...ripe) : null;
  const forced = spots.filter((s) => !s.task && !(taskOf(s.id.slice(7)) as CoatTask).over!.alwaysAbrade).length;
  const brokenAll = broken + limits.filter((l) => l === 'immersionMax').length;
  return { score: [brokenAll, unplaced, late, forced, finishSteps, short], limits: limits.sort(), finish: latest };
}
