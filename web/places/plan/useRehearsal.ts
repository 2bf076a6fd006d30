import { useState } from 'react';
import { weatherAt, type WeatherHour } from '#core/air/weather';
import type { PlannedTask } from '#core/plan/problem';
import type { PlanAnswer, PlanWeather, Rehearsal } from '../../workers/plan';
import type { BoatPlan } from './usePlan';

const HOUR_MS = 3_600_000;

/** A rehearsal as it stands: which weather, which day. */
export interface Rehearsing {
  readonly member: number;
  readonly day: number;
  readonly days: Rehearsal['days'];
  /** Hours into the rehearsal, and the instant that they stand for. */
  readonly hour: number;
  readonly hours: number;
  readonly at: number;
  readonly air: WeatherHour | null;
  readonly going: readonly PlannedTask[];
  readonly go: (hour: number) => void;
  readonly another: () => void;
  readonly end: () => void;
}

/** A weather lived through: the plan and the air of one of its days stand in place of the real ones, and nothing is logged. */
export function useRehearsal(plan: BoatPlan, answer: PlanAnswer) {
  const [run, setRun] = useState<{ of: PlanAnswer; found: Rehearsal; hour: number } | null>(null);
  const begin = async (member: number) => {
    plan.stop();
    const found = await plan.rehearse(member);
    if (found) setRun({ of: answer, found, hour: 0 });
  };
  const current = run?.of === answer ? run : null;
  const days = current?.found.days ?? [];
  const first = days[0]?.at ?? answer.now;
  const at = first + (current?.hour ?? 0) * HOUR_MS;
  const index = Math.max(
    0,
    days.findLastIndex((d) => d.at <= at),
  );
  const day = days[index];
  const hours = current?.found.hours[plan.view.boat.id];
  const weather: PlanWeather | undefined =
    hours && plan.boatWeather ? { ...plan.boatWeather, hours } : plan.boatWeather;
  const shown: PlanAnswer =
    day === undefined
      ? answer
      : {
          ...answer,
          plan: day.plan,
          films: day.films,
          now: at,
          ready: { ...answer.ready, [plan.view.boat.id]: day.plan.finish },
        };
  const total = Math.max(0, Math.round(((days[days.length - 1]?.at ?? first) - first) / HOUR_MS) + 23);
  const rehearsing: Rehearsing | null =
    current === null
      ? null
      : {
          member: current.found.member,
          day: index,
          days,
          hour: current.hour,
          hours: total,
          at,
          air: hours ? weatherAt(hours, at) : null,
          going: day?.plan.tasks.filter((t) => t.start <= at && at < t.end) ?? [],
          go: (next) => setRun({ ...current, hour: Math.max(0, Math.min(total, next)) }),
          another: () => void begin(current.found.member + 1),
          end: () => setRun(null),
        };
  return { shown, weather, rehearsing, begin: (member: number) => void begin(member) };
}
