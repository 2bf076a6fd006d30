import { DateTime } from 'luxon';
import type { BoatJob } from '#core/plan/job';
import type { Span } from '#core/plan/problem';
import { standing as standingEntries } from '#core/coat/fold';
import { heating, USUAL_HEAT } from '#core/air/shelter';
import {
  NO_JOB_PLAN,
  type Hand,
  type JobAppointment,
  type JobPlan,
  type JobShelter,
  type PlanAcceptedBody,
} from '#core/model/jobPlan';
import { withTypicalYear } from '#core/plan/jobAir';
import type { YardRules } from '#contracts/rows/stores';
import { LAUNCH_HOUR } from '#contracts/rows/boat';
import type { BoatView } from './store';

/** A boat as she is planned, as plain data: daylight and sun are worked out where the planning is. */
export type BoatStanding = Omit<BoatJob, 'daylight' | 'sunAt'> & {
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
};

/** Who is there where nobody was named: one painter, in the yard's working day, Monday to Saturday. */
export const somebody = (rules: YardRules): Hand => ({
  name: 'Painter',
  fromMin: rules.workFromMin,
  toMin: rules.workToMin,
  weekdays: [1, 2, 3, 4, 5, 6],
  off: [],
  perHourMinor: null,
  pace: 1,
});

export const handsOf = (rules: YardRules): readonly Hand[] =>
  rules.hands.length > 0 ? rules.hands : [somebody(rules)];

/** The hours of a painter over some days, in the boat's own time, whatever the clocks do. */
export function handSpans(hand: Hand, options: { now: number; days: number; timeZone: string }): Span[] {
  const first = DateTime.fromMillis(options.now, { zone: options.timeZone }).startOf('day');
  return Array.from({ length: options.days + 2 }, (_, i) => first.plus({ days: i })).flatMap((day) => {
    const date = day.toISODate() as string;
    if (!hand.weekdays.includes(day.weekday) || hand.off.some((o) => o.from <= date && date <= o.to)) return [];
    const at = (min: number) =>
      day
        .set({ hour: Math.floor(min / 60) % 24, minute: min % 60 })
        .plus({ days: min >= 1440 ? 1 : 0 })
        .toMillis();
    return [{ from: at(hand.fromMin), to: at(hand.toMin) }];
  });
}

/** Painters as a plan is asked for with them. */
export const handsAtWork = (hands: readonly Hand[], options: { now: number; days: number; timeZone: string }) =>
  hands.map((hand) => ({ id: hand.name, pace: hand.pace, available: handSpans(hand, options) }));

/** Launch in the morning of its day, local time. */
export function launchAt(inOn: string | null | undefined, timeZone: string): number | null {
  if (!inOn) return null;
  return DateTime.fromISO(inOn, { zone: timeZone }).set({ hour: LAUNCH_HOUR }).toMillis();
}

const placeOf = ({ boat, at }: BoatView) => ({
  seed: boat.place || boat.timeZone,
  latitudeDeg: boat.latitudeDeg,
  utcOffsetH: DateTime.fromMillis(at, { zone: boat.timeZone }).offset / 60,
});

export function standing(view: BoatView, longitudeDeg: number): BoatStanding {
  const { boat, jobs } = view;
  const job = jobs[jobs.length - 1];
  return {
    id: boat.id,
    place: placeOf(view),
    latitudeDeg: boat.latitudeDeg,
    longitudeDeg,
    shelter: boat.shelter,
    launchAt: launchAt(job?.inOn, boat.timeZone),
    surfaces: view.surfaces,
    buildUps: view.buildUps,
    borders: view.borders,
    entries: view.entries,
    sheets: [...view.sheetById.values()],
    statuses: view.statuses,
    hours: view.hours,
    plan: job ? withAfloat(view, job) : null,
  };
}

/** Id of the time in which she still floats. */
export const AFLOAT = 'afloat:';

/** When she is out of the water, where that is still to come, epoch ms. */
export function outAt(view: BoatView): number | null {
  const job = view.jobs[view.jobs.length - 1];
  const at = launchAt(job?.outOn, view.boat.timeZone);
  return at !== null && at > view.at ? at : null;
}

/** What she is planned by, and nothing before she is out of the water. */
function withAfloat(view: BoatView, job: BoatView['jobs'][number]): JobPlan {
  const planning = job.planning ?? NO_JOB_PLAN;
  const to = outAt(view);
  if (to === null) return planning;
  const afloat: JobAppointment = {
    id: `${AFLOAT}${view.boat.id}`,
    kind: 'other',
    name: 'She is still afloat',
    // Since long ago: the plan is not another one each minute.
    from: to - 365 * 86_400_000,
    to,
    zoneIds: [],
  };
  return { ...planning, appointments: [...planning.appointments, afloat] };
}

/** Days that a plan looks ahead: a week past the launch, and three weeks from when she is out at least. */
export function planDays(launch: number | null, now: number, out: number | null = null): number {
  const days = (at: number) => Math.ceil((at - now) / 86_400_000);
  return Math.max(
    21,
    Math.min(180, Math.max(launch === null ? 0 : days(launch) + 7, out === null ? 0 : days(out) + 21)),
  );
}

/** Heat of some shelters from now on, roughly: degree-hours, kWh and money, on the weather ahead. */
export function heatOf(view: BoatView, shelters: readonly JobShelter[], rules: Pick<YardRules, 'heat'>) {
  const spans = shelters
    .map((s) => ({ ...s, from: Math.max(s.from, view.at) }))
    .filter((s) => s.heatedToC !== null && s.to > s.from);
  const until = Math.max(view.at, ...spans.map((s) => s.to));
  const { hours } = withTypicalYear(view.hours, placeOf(view), until);
  const parts = spans.map((span) => heating({ hours, spans: [span], ...(rules.heat ?? USUAL_HEAT) }));
  return {
    degreeHours: parts.reduce((sum, p) => sum + p.degreeHours, 0),
    kWh: parts.reduce((sum, p) => sum + p.kWh, 0),
    costMinor: parts.reduce((sum, p) => sum + p.costMinor, 0),
  };
}

/** Days of the yard's shed by boat, in order of time, each with the boats that have it at the same time. */
export function shedSpans(views: readonly Pick<BoatView, 'boat' | 'jobs'>[]) {
  const spans = views.flatMap(({ boat, jobs }) =>
    (jobs[jobs.length - 1]?.planning?.shelters ?? [])
      .filter((s) => s.cover === 'building')
      .map(({ id, from, to }) => ({ id, boat: boat.name, from, to })),
  );
  return spans
    .map((s) => ({
      ...s,
      with: spans.filter((o) => o.boat !== s.boat && o.from < s.to && s.from < o.to).map((o) => o.boat),
    }))
    .sort((a, b) => a.from - b.from);
}

/** A plan that somebody took as theirs, and when. */
export interface AcceptedPlan {
  readonly at: number;
  readonly body: PlanAcceptedBody;
}

/** Plans that were accepted and stand, the newest first. */
export function acceptedPlans(view: Pick<BoatView, 'entries'>): AcceptedPlan[] {
  return standingEntries(view.entries)
    .flatMap((e) => (e.kind === 'planAccepted' ? [{ at: e.occurredAt, body: e.body }] : []))
    .reverse();
}
