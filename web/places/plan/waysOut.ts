import { DateTime } from 'luxon';
import { NO_JOB_PLAN, type Hand, type JobPlan, type JobShelter } from '#core/model/jobPlan';
import type { YardRules } from '#contracts/rows/stores';
import type { Layer } from '#core/model/layer';
import { handsAtWork, handsOf, type BoatStanding } from '../../data/planning';
import { save } from '../../data/store';
import { v7 as uuid } from 'uuid';
import type { PlanAnswer, PlanRequest } from '../../workers/plan';
import type { BoatPlan } from './usePlan';

/** A way out: what it would be asked for with, and what taking it writes. */
export interface Way {
  readonly key: string;
  readonly name: string;
  readonly request: PlanRequest;
  readonly take: () => void;
  /** What it costs besides people's hours and days on the hard; in words where that is not money. */
  readonly price: string;
}

const DAY_MS = 86_400_000;
const HEAT_C = 16;

/** What could be tried when a plan does not make its date. */
export function waysOf(plan: BoatPlan, answer: PlanAnswer): Way[] {
  const { request, rules, view } = plan;
  if (!request || !rules || view.jobs.length === 0) return [];
  return [...waysByHands(plan, request, rules), ...waysByShelter(plan, request), ...waysByLess(plan, answer, request)];
}

/** Longer weeks, longer days, one more. */
function waysByHands({ view }: BoatPlan, request: PlanRequest, rules: YardRules): Way[] {
  const hands = handsOf(rules);
  const first = hands[0] as Hand;
  const way = (key: string, name: string, next: readonly Hand[], price: string): Way => ({
    key,
    name,
    price,
    request: {
      ...request,
      hands: handsAtWork(next, { now: request.now, days: request.days, timeZone: view.boat.timeZone }),
    },
    take: () => void save({ kind: 'rules', row: { ...rules, hands: [...next] } }, name),
  });
  const everyDay = hands.map((h) => ({ ...h, weekdays: [1, 2, 3, 4, 5, 6, 7] }));
  const longer = hands.map((h) => ({
    ...h,
    fromMin: Math.max(0, h.fromMin - 60),
    toMin: Math.min(1440, h.toMin + 60),
  }));
  return [
    ...(hands.some((h) => h.weekdays.length < 7)
      ? [way('sundays', 'Work every day of the week', everyDay, 'their days off')]
      : []),
    way('longer', 'Two hours more a day', longer, 'longer days'),
    way('another', 'One painter more', [...hands, { ...first, name: `${first.name} 2` }], 'another painter'),
  ];
}

/** Light, a tent, heat. */
function waysByShelter(plan: BoatPlan, request: PlanRequest): Way[] {
  const way = (key: string, name: string, change: Partial<JobPlan>, price: string): Way => ({
    key,
    name,
    price,
    request: {
      ...request,
      boats: request.boats.map((b) => ({ ...b, plan: { ...(b.plan ?? NO_JOB_PLAN), ...change } })),
    },
    take: () => plan.change(change, name),
  });
  const tent: JobShelter = {
    id: uuid(),
    zoneIds: [],
    from: request.now,
    to: request.now + request.days * DAY_MS,
    cover: 'tent',
    heatedToC: null,
    driedToRh: null,
  };
  return [
    ...(plan.planning.lamps ? [] : [way('lamps', 'Lamps: work past dusk', { lamps: true }, 'lamps')]),
    way('tent', 'A tent over her', { shelters: [tent] }, 'a tent'),
    way(
      'heated',
      `A tent over her, heated to ${HEAT_C} °C`,
      { shelters: [{ ...tent, heatedToC: HEAT_C }] },
      'a tent and its heat',
    ),
  ];
}

/** One coat less, or a later date. */
function waysByLess(plan: BoatPlan, answer: PlanAnswer, request: PlanRequest): Way[] {
  const { view, launchAt } = plan;
  const job = view.jobs[view.jobs.length - 1];
  const ways: Way[] = [];
  const fewer = oneCoatLess(plan, answer);
  if (fewer) {
    const { row } = fewer;
    const without = (u: BoatStanding['buildUps'][number]) =>
      u.surfaceId === row.surfaceId ? { ...u, layers: row.layers } : u;
    ways.push({
      key: 'fewer',
      name: fewer.name,
      price: 'a thinner film',
      request: { ...request, boats: request.boats.map((b) => ({ ...b, buildUps: b.buildUps.map(without) })) },
      take: () => void save({ kind: 'buildUp', row }, fewer.name),
    });
  }
  if (launchAt !== null && job?.inOn) {
    const inOn = DateTime.fromISO(job.inOn).plus({ days: 7 }).toISODate();
    ways.push({
      key: 'launch',
      name: 'Move the launch by a week',
      price: 'a week',
      request: {
        ...request,
        days: request.days + 7,
        boats: request.boats.map((b) => ({ ...b, launchAt: (b.launchAt ?? launchAt) + 7 * DAY_MS })),
      },
      take: () => void save({ kind: 'job', row: { ...job, inOn } }, 'Launch moved by a week'),
    });
  }
  return ways;
}

/** The zone that is ready last, with one coat less of a sheet that it has several of still to come. */
function oneCoatLess({ view, names }: BoatPlan, answer: PlanAnswer) {
  const ends = new Map<string, number>();
  for (const t of answer.plan.tasks) ends.set(t.zone, Math.max(ends.get(t.zone) ?? 0, t.end));
  const left = answer.plan.violations.find((v) => v.limit === 'unplaced');
  const zone =
    (left && answer.labels.find((l) => l.task === left.task)?.zoneId) ?? [...ends].sort((a, b) => b[1] - a[1])[0]?.[0];
  const row = view.buildUps.find((b) => b.surfaceId === zone);
  const done = view.statuses.find((s) => s.surfaceId === zone)?.layersDone ?? 0;
  if (!row || !zone) return null;
  const coming: Layer[] = row.layers.slice(done);
  const at = coming.findLastIndex((l, i) => coming[i - 1]?.sheetRevisionId === l.sheetRevisionId);
  if (at < 0) return null;
  const layers = [...row.layers.slice(0, done + at), ...row.layers.slice(done + at + 1)];
  return { name: `${names.zone(zone)}: one coat less`, row: { ...row, layers } };
}
