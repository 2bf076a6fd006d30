import { DateTime } from 'luxon';
import type { BoatJob } from '#core/plan/job';
import type { Span } from '#core/plan/problem';
import type { Hand } from '#core/model/jobPlan';
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

export function standing(view: BoatView, longitudeDeg: number): BoatStanding {
  const { boat, jobs } = view;
  const job = jobs[jobs.length - 1];
  return {
    id: boat.id,
    place: {
      seed: boat.place || boat.timeZone,
      latitudeDeg: boat.latitudeDeg,
      utcOffsetH: DateTime.fromMillis(view.at, { zone: boat.timeZone }).offset / 60,
    },
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
    plan: job?.planning ?? null,
  };
}

/** Days that a plan looks ahead: a week past the launch, and three weeks at least. */
export function planDays(launch: number | null, now: number): number {
  const toLaunch = launch === null ? 0 : Math.ceil((launch - now) / 86_400_000) + 7;
  return Math.max(21, Math.min(120, toLaunch));
}
