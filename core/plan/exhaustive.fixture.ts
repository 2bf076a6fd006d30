import { checkConditions } from '../air/conditions';
import { weatherAt } from '../air/weather';
import { temperatureAt } from '../air/surfaceSeries';
import { integratedMilestoneAt } from '../cure/integrator.fixture';
import type { TimeTable } from '../model/timeTable';
import type { CoatTask, Crew, PlanProblem, PlanTask } from './problem';

/**
 * Tests only: the best score of a small problem, by going through every plan of each zone and every pair of them. It
 * knows nothing of how the planner searches. Two zones, a grid of an hour, hourly weather, no locks, no orders between
 * zones, nothing done.
 */
const H = 3_600_000;
const SECOND = 1000;

interface Use {
  readonly painters: number;
  readonly from: number;
  readonly to: number;
  readonly product: string | null;
}

interface ZonePlan {
  readonly uses: readonly Use[];
  /** Zone taken up: [from, to, until dry]. */
  readonly spans: readonly (readonly [number, number, number])[];
  readonly unplaced: number;
  readonly ready: number | null;
  readonly forced: number;
  readonly short: number;
  /** Steps by which the longest times to the water have passed; infinity: never. */
  readonly waterBy: readonly number[];
}

/** Null: more plans than are gone through. */
export function bestScore(problem: PlanProblem, most = 400_000): number[] | null {
  const zones = problem.zones.map((zone) => zonePlans(problem, zone.id, most));
  if (zones.some((z) => z === null)) return null;
  const [a, b] = zones as ZonePlan[][];
  return b ? bestPair(problem, a!, b) : bestOf(problem, a!);
}

export const stepsIn = (problem: PlanProblem) => (problem.until - problem.now) / H;

function scoreOf(problem: PlanProblem, plans: readonly ZonePlan[]): number[] | null {
  const last = stepsIn(problem);
  const boats = problem.boats.map((boat) => {
    const own = plans.filter((_, i) => problem.zones[i]!.boat === boat.id);
    const ready = own.some((p) => p.ready === null) ? null : Math.max(...own.map((p) => p.ready!));
    const at = ready ?? last;
    const launch = boat.launchAt === null ? null : (boat.launchAt - problem.now) / H;
    const by = Math.min(last, Math.max(at, launch ?? 0));
    const broken = ready !== null && own.some((p) => p.waterBy.some((w) => w < by));
    return {
      broken,
      unready: ready === null ? 1 : 0,
      late: launch === null ? 0 : Math.max(0, at - Math.floor(launch)),
      at,
    };
  });
  if (boats.some((b) => b.broken)) return null;
  const sum = (list: readonly number[]) => list.reduce((s, n) => s + n, 0);
  return [
    0,
    sum(plans.map((p) => p.unplaced)) + sum(boats.map((b) => b.unready)),
    sum(boats.map((b) => b.late)),
    sum(plans.map((p) => p.forced)),
    sum(boats.map((b) => b.at)),
    sum(plans.map((p) => p.short)),
  ];
}

const less = (a: readonly number[], b: readonly number[]) => {
  for (let i = 0; i < 6; i += 1) if (a[i] !== b[i]) return a[i]! < b[i]!;
  return false;
};

function bestOf(problem: PlanProblem, plans: readonly ZonePlan[]): number[] {
  let best: number[] = [0, Infinity, 0, 0, 0, 0];
  for (const plan of plans) {
    const score = scoreOf(problem, [plan]);
    if (score && less(score, best)) best = score;
  }
  return best;
}

/** Plans that count alike but for their slack, the best slack first. */
function groupsOf(plans: readonly ZonePlan[]): ZonePlan[][] {
  const groups = new Map<string, ZonePlan[]>();
  for (const plan of plans) {
    const key = `${plan.unplaced}|${plan.ready}|${plan.forced}|${plan.waterBy.join()}`;
    const group = groups.get(key);
    if (group) group.push(plan);
    else groups.set(key, [plan]);
  }
  for (const group of groups.values()) group.sort((x, y) => x.short - y.short);
  return [...groups.values()];
}

function bestPair(problem: PlanProblem, as: readonly ZonePlan[], bs: readonly ZonePlan[]): number[] {
  const pairs = groupsOf(as).flatMap((ga) =>
    groupsOf(bs).flatMap((gb) => {
      const score = scoreOf(problem, [ga[0]!, gb[0]!]);
      return score ? [{ ga, gb, score }] : [];
    }),
  );
  pairs.sort((x, y) => (less(x.score, y.score) ? -1 : less(y.score, x.score) ? 1 : 0));
  let best: number[] | null = null;
  for (const { ga, gb, score } of pairs) {
    if (best && !less(score, best)) break;
    let short: number = best && score.slice(0, 5).every((n, i) => n === best![i]) ? best[5]! : Infinity;
    for (const a of ga) {
      if (a.short + gb[0]!.short >= short) break;
      for (const b of gb) {
        if (a.short + b.short >= short) break;
        if (!together(problem, a, b)) continue;
        short = a.short + b.short;
        best = [...score.slice(0, 5), short];
        break;
      }
    }
  }
  return best!;
}

function together(problem: PlanProblem, a: ZonePlan, b: ZonePlan): boolean {
  const change = problem.changeoverMin / 60;
  for (const x of a.uses)
    for (const y of b.uses) {
      if ((x.painters & y.painters) === 0) continue;
      const gap = x.product && y.product && x.product !== y.product ? change : 0;
      if (x.from < y.to + gap && y.from < x.to + gap) return false;
    }
  for (const { untilDry } of problem.notTogether)
    for (const x of a.spans)
      for (const y of b.spans) {
        const [xe, ye] = untilDry ? [x[2], y[2]] : [x[1], y[1]];
        if (x[0] < ye && y[0] < xe) return false;
      }
  return true;
}

interface Put {
  readonly start: number;
  readonly end: number;
  readonly dry: number;
  readonly abraded: boolean;
}

/** Clocks, limits and single starts of a zone's tasks, in hours from now. */
export function zoneOracle(problem: PlanProblem, zoneId: string) {
  const last = stepsIn(problem);
  const { now } = problem;
  const zone = problem.zones.find((z) => z.id === zoneId)!;
  const { air, surface } = problem.series[zone.series]!;
  const tasks = problem.tasks.filter((t) => t.zone === zoneId);
  const bit = (id: string) => 1 << problem.painters.findIndex((p) => p.id === id);
  const maskOf = (crew: Crew) => crew.painters.reduce((m, id) => m | bit(id), 0);
  const kept = new Map<string, number>();
  const memo = (key: string, make: () => number) => {
    const known = kept.get(key);
    if (known !== undefined) return known;
    const made = make();
    kept.set(key, made);
    return made;
  };
  const tableKey = (table: TimeTable) => table.map((c) => `${c.tempC}/${c.hours}`).join();
  /** First step at which a minimum from a step is reached; beyond the end: infinity. */
  const reach = (table: TimeTable | null, from: number, cure: number | null) =>
    table === null
      ? from
      : memo(`min ${tableKey(table)} ${from} ${cure}`, () => {
          const at = integratedMilestoneAt({
            table,
            kind: 'minimum',
            appliedAt: now + from * H,
            temps: surface,
            ...(cure === null ? {} : { minCureC: cure }),
          });
          return at === null || at > problem.until + SECOND ? Infinity : Math.ceil((at - SECOND - now) / H);
        });
  const hold = (table: TimeTable | null, from: number) =>
    table === null
      ? Infinity
      : memo(`max ${tableKey(table)} ${from}`, () => {
          const at = integratedMilestoneAt({ table, kind: 'maximum', appliedAt: now + from * H, temps: surface });
          return at === null || at >= problem.until - SECOND ? Infinity : Math.floor((at + SECOND - now) / H);
        });
  const rain = (k: number) => !zone.sheltered && (air.find((h) => h.at === now + k * H)?.rainMm ?? 0) > 0;
  const rains = (from: number, to: number) => {
    for (let k = from; k < to; k += 1) if (rain(k)) return true;
    return false;
  };
  const fine = (coat: CoatTask, k: number) =>
    memo(`fine ${coat.method} ${JSON.stringify(coat.limits)} ${k}`, () => {
      const w = weatherAt(air, now + k * H)!;
      const verdict = checkConditions({
        conditions: {
          airC: w.airC,
          rh: w.rh,
          surfaceC: temperatureAt(surface, now + k * H),
          windMs: w.windMs ?? 0,
          rainMm: rain(k) ? 1 : 0,
        },
        limits: coat.limits,
        method: coat.method,
        sheltered: zone.sheltered,
      });
      return verdict.breaks.length === 0 ? 1 : 0;
    });
  const inSpans = (spans: readonly { from: number; to: number }[], from: number, to: number) =>
    spans.some((s) => s.from <= now + from * H && now + to * H <= s.to);
  const stepsOf = (crew: Crew) => Math.ceil(crew.hours - 1e-9);

  /** Every start of a task by itself. */
  const alone = (task: PlanTask | null, coat: CoatTask | null, needsDry: boolean, crews: readonly Crew[]) => {
    const out: { crew: Crew; put: Put }[] = [];
    for (const crew of crews)
      for (let start = 0; start + stepsOf(crew) <= last; start += 1) {
        const end = start + stepsOf(crew);
        if (!crew.painters.every((id) => inSpans(problem.painters.find((p) => p.id === id)!.available, start, end)))
          continue;
        if (zone.open && !inSpans(zone.open, start, end)) continue;
        const dry = coat ? reach(coat.touchDry, end, coat.minCureC) : end;
        if (dry === Infinity) continue;
        if (needsDry && rains(start, end)) continue;
        if (coat) {
          let ok = true;
          for (let k = start; ok && k <= dry; k += 1) ok = fine(coat, k) === 1;
          if (!ok) continue;
        }
        const bad = problem.appointments.some((a) => {
          const [from, to] = [(a.from - now) / H, (a.to - now) / H];
          if (a.zones.includes(zoneId) && start < to && from < dry) return true;
          const bear = a.bear.find((b) => b.coat === task?.id);
          return (
            bear !== undefined &&
            start < to &&
            (end > from || reach(bear.minimum, end, coat!.minCureC) > Math.min(from, last))
          );
        });
        if (!bad) out.push({ crew, put: { start, end, dry, abraded: false } });
      }
    return out;
  };
  const choices = tasks.map((t) => alone(t, t.kind === 'coat' ? t : null, t.kind === 'work' && t.needsDry, t.crews));
  const abradings = tasks.map((t) => {
    const over = t.kind === 'coat' ? t.over : null;
    return over?.abrade && !over.chained ? alone(null, null, over.abrade.needsDry, over.abrade.crews) : [];
  });

  return { tasks, last, reach, hold, rains, maskOf, choices, abradings };
}

function zonePlans(problem: PlanProblem, zoneId: string, most: number): ZonePlan[] | null {
  const { tasks, last, reach, hold, rains, maskOf, choices, abradings } = zoneOracle(problem, zoneId);
  const plans: ZonePlan[] = [];
  const puts = new Map<string, Put>();
  const uses: Use[] = [];
  const spans: [number, number, number][] = [];
  const cap = problem.slackCapH;
  const windowShort = (ends: number, start: number) => (ends === Infinity ? 0 : Math.max(0, cap - (ends - start)));

  const meets = (put: Put) => spans.some((s) => put.start < s[2] && s[0] < put.dry);
  const changes = (painters: number, product: string | null, put: Put) =>
    uses.some(
      (u) =>
        (u.painters & painters) !== 0 &&
        product !== null &&
        u.product !== null &&
        u.product !== product &&
        put.start < u.to + problem.changeoverMin / 60 &&
        u.from < put.end + problem.changeoverMin / 60,
    );

  const go = (i: number, forced: number, short: number): void => {
    if (plans.length > most) return;
    const task = tasks[i];
    if (!task) {
      finish(forced, short);
      return;
    }
    const coat = task.kind === 'coat' ? task : null;
    const before = [
      ...task.after.map((a) => a.id),
      ...task.fresh.map((f) => f.id),
      ...(coat?.over ? [coat.over.coat] : []),
    ];
    if (before.every((id) => puts.has(id)))
      for (const { crew, put } of choices[i]!) {
        if (meets(put) || changes(maskOf(crew), coat?.product ?? null, put)) continue;
        if (task.after.some((a) => put.start < puts.get(a.id)!.end + a.hours - 1 / 3600)) continue;
        let own = short;
        const stale = task.fresh.some((f) => {
          const other = puts.get(f.id)!;
          if (put.start < other.end) return true;
          if (f.untilRain && rains(other.start, put.start + 1)) return true;
          if (f.hours === null) return false;
          const ends = Math.floor(other.start + f.hours + 1 / 3600);
          own += windowShort(ends >= last ? Infinity : ends, put.start);
          return put.start > ends;
        });
        if (stale) continue;
        const over = coat?.over;
        if (!over) {
          place(i, crew, put, coat, () => go(i + 1, forced, own));
          continue;
        }
        const lower = puts.get(over.coat)!;
        const below = tasks.find((t) => t.id === over.coat) as CoatTask;
        if (put.start < lower.end || put.start < reach(over.minimum, lower.end, below.minCureC)) continue;
        const max = hold(over.maximum, lower.start);
        if (put.start > max) continue;
        const tack = hold(over.tackLimit, lower.start);
        if (!over.alwaysAbrade && put.start <= tack) {
          const extra = windowShort(over.tackLimit ? tack : max, put.start);
          place(i, crew, put, coat, () => go(i + 1, forced, own + extra));
          // An abrading that is not needed only costs.
          continue;
        }
        const sandable = reach(over.sandable ?? over.minimum, lower.end, below.minCureC);
        for (const a of abradings[i]!) {
          if (a.put.start < sandable || a.put.start < lower.end || a.put.end > put.start || meets(a.put)) continue;
          place(-1, a.crew, a.put, null, () =>
            place(i, crew, put, coat, () =>
              go(i + 1, forced + (over.alwaysAbrade ? 0 : 1), own + windowShort(max, put.start)),
            ),
          );
        }
      }
    // Left out; what is before it may not need it.
    const chained = tasks.some(
      (t) =>
        puts.has(t.id) &&
        (task.fresh.some((f) => f.id === t.id) || (coat?.over?.chained === true && coat.over.coat === t.id)),
    );
    if (!chained) go(i + 1, forced, short);
  };

  const place = (i: number, crew: Crew, put: Put, coat: CoatTask | null, then: () => void) => {
    const id = i >= 0 ? tasks[i]!.id : null;
    if (id) puts.set(id, put);
    uses.push({ painters: maskOf(crew), from: put.start, to: put.end, product: coat?.product ?? null });
    spans.push([put.start, put.end, put.dry]);
    then();
    spans.pop();
    uses.pop();
    if (id) puts.delete(id);
  };

  const finish = (forced: number, short: number) => {
    let ready: number | null = Math.max(0, ...spans.map((s) => s[1]));
    const waterBy: number[] = [];
    for (const task of tasks) {
      const put = puts.get(task.id);
      if (!put) ready = null;
      else if (task.kind === 'coat' && task.immersion) {
        const at = reach(task.immersion.minimum, put.end, task.minCureC);
        ready = ready === null || at === Infinity ? null : Math.max(ready, at);
        if (task.immersion.maximum) waterBy.push(hold(task.immersion.maximum, put.start));
      }
    }
    plans.push({
      uses: [...uses],
      spans: spans.map((s) => [...s] as const),
      unplaced: tasks.length - puts.size,
      ready,
      forced,
      short,
      waterBy,
    });
  };

  go(0, 0, 0);
  return plans.length > most ? null : plans;
}
