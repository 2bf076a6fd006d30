import { useMemo } from 'react';
import type { PlanRequest } from '../../workers/plan';

/** A request that only moved on by a minute is the same one: plans are made anew when something was decided or done. */
export function useSteady(request: PlanRequest | null): PlanRequest | null {
  const key = request && requestKey(request);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the key stands for all that matters of it
  return useMemo(() => request, [key]);
}

/** A plan is made anew each quarter of an hour at most, for the clock alone. */
const QUARTER_MS = 15 * 60_000;

function requestKey({ now, days, boats, hands, rates, dryFactors, accepted }: PlanRequest): string {
  return JSON.stringify([
    Math.ceil(now / QUARTER_MS),
    days,
    boats.map((b) => [
      b.id,
      b.launchAt,
      b.plan,
      b.entries.length,
      b.entries[b.entries.length - 1]?.id,
      b.buildUps,
      b.surfaces,
      b.borders.length,
      b.shelter,
      b.hours[0]?.at,
      b.hours.length,
      b.hours.reduce((sum, h) => sum * 1.0001 + h.airC + 30 * h.rh + (h.rainMm ?? 0) + (h.windMs ?? 0), 0),
    ]),
    hands.map((h) => [h.id, h.pace, h.available.map((a) => a.from + a.to)]),
    rates,
    dryFactors,
    accepted?.tasks.length,
  ]);
}
