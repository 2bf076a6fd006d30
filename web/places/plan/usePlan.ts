import { useCallback, useMemo } from 'react';
import type { PlanAcceptedBody } from '#core/model/jobPlan';
import { NO_JOB_PLAN, type JobPlan } from '#core/model/jobPlan';
import type { CoatPlan } from '#core/plan/problem';
import type { YardRules } from '#contracts/rows/stores';
import {
  acceptedPlans,
  AFLOAT,
  handsAtWork,
  handsOf,
  launchAt as launchOf,
  outAt,
  planDays,
  standing,
  type AcceptedPlan,
} from '../../data/planning';
import { save, signed, useStores, type BoatView } from '../../data/store';
import { useZonePlace } from '../../data/useZonePlace';
import type { PlanAnswer, PlanRequest, PlanWeather } from '../../workers/plan';
import { useSteady } from './planRequest';
import { asAccepted, namesOf, type PlanNames } from './planWords';
import { usePlanWorker, type Planning } from './usePlanWorker';

export interface BoatPlan extends Planning {
  readonly view: BoatView;
  readonly rules: YardRules | null;
  readonly request: PlanRequest | null;
  readonly planning: JobPlan;
  readonly names: PlanNames;
  readonly boatWeather: PlanWeather | undefined;
  readonly launchAt: number | null;
  readonly locked: ReadonlySet<string>;
  readonly accepted: AcceptedPlan | null;
  /** Hold a task at a start; null lets it go. */
  readonly lock: (task: string, start: number | null) => void;
  readonly accept: (odds: number | null) => Promise<void>;
  readonly change: (change: Partial<JobPlan>, label: string) => void;
}

/** The plan of one boat: asked for in the worker, with what was decided by hand. */
export function usePlan(view: BoatView): BoatPlan {
  const { boat, jobs } = view;
  const { stores } = useStores();
  const place = useZonePlace(boat.timeZone);
  const job = jobs[jobs.length - 1];
  const planning = job?.planning ?? NO_JOB_PLAN;
  const launchAt = launchOf(job?.inOn, boat.timeZone);
  const accepted = useMemo(() => acceptedPlans(view)[0] ?? null, [view]);
  const rules = stores?.rules ?? null;
  const request = useMemo((): PlanRequest | null => {
    if (!rules || place.isPending) return null;
    const days = planDays(launchAt, view.at, outAt(view));
    return {
      now: view.at,
      days,
      boats: [standing(view, place.data?.longitudeDeg ?? 0)],
      hands: handsAtWork(handsOf(rules), { now: view.at, days, timeZone: boat.timeZone }),
      rates: rules.rates,
      dryFactors: view.dryFactors ?? {},
      accepted: accepted ? asPlan(accepted.body) : null,
    };
  }, [rules, place.isPending, place.data, view, launchAt, boat.timeZone, accepted]);
  const steady = useSteady(request);
  const planner = usePlanWorker(steady);
  const { answer } = planner;
  const names = useMemo(
    () =>
      namesOf(answer ?? { labels: [], appointments: [] }, {
        sheetById: view.sheetById,
        zoneName: view.zoneName,
        boat: () => boat.name,
        appointment: (id) => appointmentName(planning, id),
      }),
    [answer, view, boat.name, planning],
  );
  const { change, lock, accept } = useDecisions(view, planning, answer, names);
  const locked = useMemo(() => new Set(planning.locks.map((l) => l.task)), [planning]);
  const boatWeather = planner.weather.find((w) => w.boatId === boat.id);
  return {
    ...planner,
    view,
    rules,
    request: steady,
    planning,
    names,
    boatWeather,
    launchAt,
    locked,
    accepted,
    lock,
    accept,
    change,
  };
}

const appointmentName = ({ appointments }: JobPlan, id: string): string =>
  id.startsWith(AFLOAT)
    ? 'the time she is still afloat'
    : (appointments.find((a) => a.id === id)?.name ?? 'the appointment');

/** What is decided by hand: locks, what she is planned by, a plan taken as one's own. */
function useDecisions(view: BoatView, planning: JobPlan, answer: PlanAnswer | null, names: PlanNames) {
  const { boat, jobs } = view;
  const job = jobs[jobs.length - 1];
  const change = useCallback(
    (more: Partial<JobPlan>, label: string) => {
      if (job) void save({ kind: 'job', row: { ...job, planning: { ...planning, ...more } } }, label);
    },
    [job, planning],
  );
  const lock = useCallback(
    (task: string, start: number | null) => {
      const painters = answer?.plan.tasks.find((t) => t.id === task)?.painters ?? [];
      const others = planning.locks.filter((l) => l.task !== task);
      if (start === null) change({ locks: others }, 'Let go');
      else change({ locks: [...others, { task, start, painters }] }, 'Held there');
    },
    [answer, planning, change],
  );
  const accept = useCallback(
    async (odds: number | null) => {
      if (!answer) return;
      const body: PlanAcceptedBody = { tasks: asAccepted(answer, names), finish: answer.plan.finish, odds, note: '' };
      await save(
        {
          kind: 'entry',
          entry: signed({ boatId: boat.id, stream: 'boat', streamId: boat.id, kind: 'planAccepted', body }),
        },
        'Plan accepted',
      );
    },
    [answer, names, boat.id],
  );
  return { change, lock, accept };
}

const asPlan = (body: PlanAcceptedBody): CoatPlan => ({
  tasks: body.tasks.map((t) => ({
    id: t.id,
    kind: t.kind,
    zone: t.zoneId,
    painters: t.painters,
    start: t.start,
    end: t.end,
    why: '',
  })),
  finish: body.finish,
  violations: [],
  score: [0, 0, 0, 0, 0, 0],
});
