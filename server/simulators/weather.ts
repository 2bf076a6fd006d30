import { simulateForecast } from '#core/air/forecast';
import type { WeatherHour } from '#core/air/weather';

const HOUR_MS = 3_600_000;
/** A new forecast comes every six hours. */
export const ISSUE_EVERY_MS = 6 * HOUR_MS;

/** The stand-in's forecasts kept in memory: an issue of a place is worked out once. */
const KEPT_MOST = 4000;
const kept = new Map<string, WeatherHour[]>();

export interface SimulatedPlace {
  readonly name: string;
  readonly latitudeDeg: number;
  /** Hours that local clocks are ahead of UTC. */
  readonly utcOffsetH: number;
}

/** The hours of one issue of a place up to `to`, kept for whoever asks next. */
export function issuedHours(place: SimulatedPlace, issuedAt: number, to: number): readonly WeatherHour[] {
  const key = `${place.name}/${place.latitudeDeg}/${place.utcOffsetH}/${issuedAt}/${to}`;
  let hours = kept.get(key);
  if (!hours) {
    const { name: seed, latitudeDeg, utcOffsetH } = place;
    const count = Math.floor((to - issuedAt) / HOUR_MS) + 1;
    hours = simulateForecast({ seed, latitudeDeg, utcOffsetH, issuedAt, from: issuedAt, hours: count });
    kept.set(key, hours);
    if (kept.size > KEPT_MOST) kept.delete(kept.keys().next().value as string);
  }
  return hours;
}

/** The start of the issue that is current at `now`, epoch ms. */
export function issueTime(now: number): number {
  return Math.floor(now / ISSUE_EVERY_MS) * ISSUE_EVERY_MS;
}
