import { instant } from '../guard';
import type { WeatherHour } from '../air/weather';
import type { Dirt } from '../model/prep';

/** Something that made a surface dirty: rain of the weather, or what was logged. */
export interface DirtyAt {
  readonly at: number;
  readonly by: Dirt;
}

/** Less rain in an hour than this does not run down a hull, mm. [M] */
const RAIN_MM = 0.1;

export const isRain = ({ rainMm = 0 }: Pick<WeatherHour, 'rainMm'>): boolean => rainMm >= RAIN_MM;

/**
 * What first makes a cleaned surface dirty again: rain, or something logged; null where nothing does as far as is known.
 * @param options.weather hours in order; under a roof, none
 * @param options.events what was logged at the surface, in any order
 * @example
 *   dirtiedBy({ cleanedAt: noon, weather: [], events: [{ at: noon + hour, by: 'dust' }] })?.by // → 'dust'
 */
export function dirtiedBy(options: {
  cleanedAt: number;
  weather: readonly Pick<WeatherHour, 'at' | 'rainMm'>[];
  events?: readonly DirtyAt[];
}): DirtyAt | null {
  const { weather, events = [] } = options;
  const cleanedAt = instant(options.cleanedAt, 'When it was cleaned');
  const HOUR_MS = 3_600_000;
  // An hour tells of the rain in it: one that has begun counts from the cleaning on.
  const wet = weather.find((h) => isRain(h) && h.at + HOUR_MS > cleanedAt);
  const rain: DirtyAt[] = wet ? [{ at: Math.max(wet.at, cleanedAt), by: 'rain' }] : [];
  return [...rain, ...events.filter((e) => e.at > cleanedAt)].sort((a, b) => a.at - b.at)[0] ?? null;
}

/**
 * Until when a surface stays clean, epoch ms: the next rain of the forecast, a neighbour's washing down, dust or
 * overspray that was logged; null where nothing ends it as far as is known. [CP]
 * @example
 *   cleanUntil({ cleanedAt: noon, weather: [{ at: noon + 3 * hour, rainMm: 2 }] }) - noon // → 10800000
 */
export function cleanUntil(options: Parameters<typeof dirtiedBy>[0]): number | null {
  return dirtiedBy(options)?.at ?? null;
}
