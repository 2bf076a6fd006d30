import type { TempSample, WeatherHour } from '../air/weather';
import type { TimeTable } from '../model/timeTable';
import { seeded } from './seeded';
import type { CoatTask, Crew, PlanAppointment, PlanProblem, PlanTask, Span } from './problem';

/** Tests only: made-up problems from a seed. Their figures are invented; only the rules are asked about. */

const H = 3_600_000;
const NOW = Date.UTC(2031, 4, 5);

export interface InstanceOptions {
  readonly days: number;
  readonly zones: number;
  readonly coats: number;
  readonly painters: number;
  /** Locks, links between zones, gaps between samples, coats that are done: more than the exhaustive search looks at. */
  readonly wild?: boolean;
}

export function instance(seed: number, options: InstanceOptions): PlanProblem {
  const r = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(r() * list.length)] as T;
  const { days, wild = false } = options;
  const until = NOW + days * 24 * H;
  const began = NOW - 72 * H;
  const weather = aWeather(r, began, until, wild);
  const painters = Array.from({ length: options.painters }, (_, i) => ({
    id: `painter-${i}`,
    available: workdays(days, 7 + Math.floor(r() * 3), 5 + Math.floor(r() * 4), r),
  }));
  const oneBoat = r() < 0.5;
  const zones = Array.from({ length: options.zones }, (_, i) => ({
    id: `zone-${i}`,
    boat: oneBoat ? 'boat-0' : `boat-${i}`,
    series: 'yard',
    sheltered: r() < 0.2,
    open: r() < 0.25 ? workdays(days, 6, 13, r) : null,
  }));
  const boats = [...new Set(zones.map((z) => z.boat))].map((id) => ({
    id,
    launchAt: r() < 0.6 ? NOW + Math.floor(r() * (days + 1) * 24) * H + (wild && r() < 0.3 ? 0.4 * H : 0) : null,
  }));
  const crews = (hours: number): Crew[] => {
    const solo = painters.map(({ id }, i) => ({ painters: [id], hours: hours * (1 + 0.3 * i) }));
    const both = painters.length > 1 && r() < 0.5 ? [{ painters: painters.map((p) => p.id), hours: hours * 0.55 }] : [];
    return r() < 0.5 && !wild ? solo.slice(0, 1).concat(both) : [...solo, ...both];
  };
  const tasks: PlanTask[] = zones.flatMap((zone, z) => {
    const count = Math.max(1, Math.round(options.coats / options.zones + (r() - 0.6)));
    return zoneTasks(r, { zone: zone.id, z, count, crews, wild });
  });
  return {
    version: 1,
    gridMin: 60,
    now: NOW,
    until,
    slackCapH: 24,
    changeoverMin: pick([0, 0, 60, 120]),
    series: { yard: weather },
    boats,
    zones,
    painters,
    appointments:
      r() < 0.25
        ? [
            anAppointment(
              r,
              days,
              zones.map((zone) => zone.id),
              tasks,
            ),
          ]
        : [],
    notTogether: zones.length > 1 && r() < 0.35 ? [{ zones: [zones[0]!.id, zones[1]!.id], untilDry: r() < 0.5 }] : [],
    tasks: wild ? tasks.map((task, i) => wilder(r, task, i, tasks)) : tasks,
  };
}

function aWeather(r: () => number, from: number, until: number, wild: boolean) {
  const mean = 9 + 14 * r();
  const swing = 2 + 6 * r();
  const damp = 0.45 + 0.35 * r();
  const air: WeatherHour[] = [];
  const surface: TempSample[] = [];
  let wet = 0;
  const step = wild && r() < 0.3 ? 3 : 1;
  for (let at = from; at <= until; at += step * H) {
    const hour = (at / H) % 24;
    const wave = Math.cos(((hour - 15) / 24) * 2 * Math.PI);
    wet = wet > 0 ? wet - step : r() < 0.02 * step ? 2 + Math.floor(9 * r()) : 0;
    const airC = mean + swing * wave + r();
    air.push({
      at,
      airC,
      rh: Math.min(1, Math.max(0.2, damp - 0.22 * wave + 0.1 * r())),
      windMs: 9 * r() * r(),
      rainMm: wet > 0 ? 1 : 0,
    });
    surface.push({ at, tempC: airC - 0.8 + 1.6 * r() });
  }
  return { air, surface };
}

function workdays(days: number, from: number, hours: number, r: () => number): Span[] {
  return Array.from({ length: days }, (_, d) => ({
    from: NOW + (d * 24 + from) * H,
    to: NOW + (d * 24 + from + hours) * H,
  })).filter(() => r() > 0.12);
}

const table = (coldH: number, hotH: number, r: () => number): TimeTable =>
  r() < 0.15
    ? [{ tempC: 20, hours: hotH }]
    : [
        { tempC: 10, hours: coldH },
        { tempC: 25, hours: hotH },
      ];

const LIMITS = { airMinC: 5, airMaxC: 60, surfaceMinC: 5, surfaceMaxC: 50, rhMax: 0.9, spreadMinC: 2 };

function zoneTasks(
  r: () => number,
  {
    zone,
    z,
    count,
    crews,
    wild,
  }: { zone: string; z: number; count: number; crews: (hours: number) => Crew[]; wild: boolean },
): PlanTask[] {
  const tasks: PlanTask[] = [];
  const base = { zone, after: [], fresh: [], lock: null, done: null };
  const wash = r() < 0.5 ? `z${z}-wash` : null;
  if (wash) tasks.push({ ...base, id: wash, kind: 'work', crews: crews(1 + r()), needsDry: r() < 0.5 });
  const products = ['primer', 'barrier', 'finish'];
  for (let c = 0; c < count; c += 1) {
    const lower = c > 0 ? `z${z}-coat-${c - 1}` : null;
    const minimum = table(5 + 12 * r(), 2 + 4 * r(), r);
    const chained = lower !== null && r() < 0.15;
    const abrade = r() < 0.7 ? { crews: crews(1 + r()), needsDry: r() < 0.3 } : null;
    tasks.push({
      ...base,
      id: `z${z}-coat-${c}`,
      kind: 'coat',
      crews: crews(0.6 + 2.6 * r()),
      fresh:
        c === 0 && wash ? [{ id: wash, hours: r() < 0.2 ? null : 3 + Math.floor(20 * r()), untilRain: r() < 0.5 }] : [],
      product: products[Math.min(2, Math.floor(r() * 2) + (c > 1 ? 1 : 0))] as string,
      method: 'roller',
      limits: LIMITS,
      touchDry: r() < 0.9 ? table(2 + 4 * r(), 1 + r(), r) : null,
      minCureC: r() < 0.4 ? 6 : null,
      over:
        lower === null
          ? null
          : {
              coat: lower,
              minimum: r() < 0.95 ? minimum : null,
              tackLimit: r() < 0.7 ? table(20 + 40 * r(), 8 + 20 * r(), r) : null,
              maximum: r() < 0.3 ? table(70 + 60 * r(), 40 + 30 * r(), r) : null,
              alwaysAbrade: !chained && abrade !== null && r() < 0.15,
              chained,
              sandable: r() < 0.6 ? table(10 + 14 * r(), 5 + 6 * r(), r) : null,
              abrade: chained ? null : abrade,
            },
      immersion:
        c === count - 1 && r() < 0.6
          ? { minimum: table(20, 6 + 8 * r(), r), maximum: r() < 0.2 ? table(90 + 100 * r(), 60 + 60 * r(), r) : null }
          : null,
    } satisfies CoatTask);
  }
  if (r() < 0.25)
    tasks.push({
      ...base,
      id: `z${z}-unmask`,
      kind: 'work',
      crews: crews(0.5 + r()),
      needsDry: false,
      after: [{ id: `z${z}-coat-${count - 1}`, hours: wild ? 4 * r() : Math.floor(4 * r()) }],
    });
  return tasks;
}

function anAppointment(
  r: () => number,
  days: number,
  zones: readonly string[],
  tasks: readonly PlanTask[],
): PlanAppointment {
  const from = NOW + Math.floor((0.3 + 0.5 * r()) * days * 24) * H;
  const coat = tasks.filter((t) => t.kind === 'coat')[Math.floor(r() * 3)];
  return {
    id: 'move',
    from,
    to: from + (1 + Math.floor(3 * r())) * H,
    zones: zones.slice(0, 1 + Math.floor(r() * zones.length)),
    bear: coat && r() < 0.6 ? [{ coat: coat.id, minimum: table(12, 5, r) }] : [],
  };
}

/** What the exhaustive search does not look at: locks, done coats, orders between zones, nobody who could do it. */
function wilder(r: () => number, task: PlanTask, i: number, tasks: readonly PlanTask[]): PlanTask {
  const earlier = i > 0 ? tasks[Math.floor(r() * i)] : undefined;
  const first = task.kind === 'coat' && task.over === null && task.fresh.length === 0;
  if (first && r() < 0.35) {
    const finishedAt = NOW - Math.floor(30 * 60 * r()) * 60_000;
    return { ...task, done: { startedAt: finishedAt - 2 * H, finishedAt } };
  }
  if (r() < 0.12) {
    const crew = task.crews[Math.floor(r() * task.crews.length)] as Crew;
    return { ...task, lock: { start: NOW + Math.floor(r() * 60) * H, painters: crew.painters } };
  }
  if (r() < 0.04) return { ...task, crews: [] };
  if (earlier && r() < 0.1) return { ...task, after: [...task.after, { id: earlier.id, hours: 3 * r() }] };
  return task;
}
