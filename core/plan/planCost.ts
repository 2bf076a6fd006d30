import type { PlannedTask } from './problem';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** What a plan costs, minor units of the yard's currency. */
export interface PlanCost {
  readonly labourMinor: number;
  readonly yardMinor: number;
  readonly heatMinor: number;
  readonly totalMinor: number;
  /** Hours of people at work. */
  readonly hours: number;
  /** Days on the hard from now until she is ready. */
  readonly days: number;
}

/**
 * What a plan costs from now on: people's hours, the yard's days until she is ready, heat. Paint is bought by the film and
 * not told here.
 * @param options.perHourMinor by painter; one who is not in it costs nothing
 * @param options.readyAt epoch ms; null: until the end of the plan
 * @example
 *   planCost({
 *     tasks: [{ start: noon, end: noon + 2 * hour, painters: ['Iris', 'Tom'] }],
 *     perHourMinor: { Iris: 3000 },
 *     now: noon,
 *     readyAt: noon + 36 * hour,
 *     yardPerDayMinor: 1000,
 *     heatMinor: 0,
 *   }).totalMinor // → 8000
 */
export function planCost(options: {
  tasks: readonly Pick<PlannedTask, 'start' | 'end' | 'painters'>[];
  perHourMinor: Readonly<Record<string, number>>;
  now: number;
  readyAt: number;
  yardPerDayMinor: number;
  heatMinor: number;
}): PlanCost {
  const { tasks, perHourMinor, now, readyAt, yardPerDayMinor, heatMinor } = options;
  let hours = 0;
  let labour = 0;
  for (const { start, end, painters } of tasks)
    for (const name of painters) {
      const worked = (end - start) / HOUR_MS;
      hours += worked;
      labour += worked * (perHourMinor[name] ?? 0);
    }
  const days = Math.max(0, Math.ceil((readyAt - now) / DAY_MS));
  const labourMinor = Math.round(labour);
  const yardMinor = Math.round(days * yardPerDayMinor);
  return { labourMinor, yardMinor, heatMinor, totalMinor: labourMinor + yardMinor + heatMinor, hours, days };
}
