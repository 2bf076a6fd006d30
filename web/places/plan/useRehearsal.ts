import { useState } from 'react';
import type { PlanAnswer, PlanWeather, Rehearsal } from '../../workers/plan';
import type { BoatPlan } from './usePlan';

/** A rehearsal as it stands: which weather, which day. */
export interface Rehearsing {
  readonly member: number;
  readonly day: number;
  readonly days: Rehearsal['days'];
  readonly go: (day: number) => void;
  readonly another: () => void;
  readonly end: () => void;
}

/** A weather lived through: the plan and the air of one of its days stand in place of the real ones, and nothing is logged. */
export function useRehearsal(plan: BoatPlan, answer: PlanAnswer) {
  const [run, setRun] = useState<{ of: PlanAnswer; found: Rehearsal; day: number } | null>(null);
  const begin = async (member: number) => {
    plan.stop();
    const found = await plan.rehearse(member);
    if (found) setRun({ of: answer, found, day: 0 });
  };
  const current = run?.of === answer ? run : null;
  const day = current?.found.days[current.day];
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
          now: day.at,
          ready: { ...answer.ready, [plan.view.boat.id]: day.plan.finish },
        };
  const rehearsing: Rehearsing | null =
    current === null
      ? null
      : {
          member: current.found.member,
          day: current.day,
          days: current.found.days,
          go: (next) => setRun({ ...current, day: Math.max(0, Math.min(current.found.days.length - 1, next)) }),
          another: () => void begin(current.found.member + 1),
          end: () => setRun(null),
        };
  return { shown, weather, rehearsing, begin: () => void begin(1) };
}
