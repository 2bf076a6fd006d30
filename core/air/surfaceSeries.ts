import { instant, notNegative, temperatureC } from '../guard';
import { segmentAt } from './segment';
import type { SurfaceReading, TempSample, WeatherHour } from './weather';
import { Impossible } from '../impossible';

const HOUR_MS = 3_600_000;
/** A reading's difference has faded out after about this long. [CP] */
export const READING_FADE_H = 6;
/** A reading makes a step: so shortly before it the surface is still what it was told to be. */
const BEFORE_MS = 1;
/** Full sun on an open, sun-facing face: °C above the air for each W/m². [M] */
const SUN_GAIN_C_PER_WM2 = 0.012;
/** A clear night sky cools an open, sky-facing face below the air by about this. [M] */
const CLEAR_SKY_COOLING_C = 2.5;

/**
 * The temperature of a surface through time, °C: hourly weather carried to the surface and moved by each
 * logged reading by the difference found, which fades to nothing over some six hours. [CP]
 *
 * Without `openness` the surface is taken to be as warm as the air (shed, shade, under the hull); with it
 * (0 sheltered … 1 a deck in the open) sunshine warms it and a clear night sky cools it, where the weather
 * carries `sunWm2` and `cloud`. [M]
 *
 * A reading counts from its instant on, never before it, and a later reading replaces an earlier one.
 * The result is ascending, with a sample at every hour, at every reading inside the weather's span and just before it.
 *
 * @throws RangeError when the weather is empty or not in order of time, or a figure is impossible.
 */
export function surfaceSeries(options: {
  weather: readonly Pick<WeatherHour, 'at' | 'airC' | 'sunWm2' | 'cloud'>[];
  readings: readonly SurfaceReading[];
  openness?: number;
}): TempSample[] {
  const { weather, readings } = options;
  const carried = carriedBy(weather, notNegative(options.openness ?? 0, 'Openness'));
  if (readings.length === 0) return [...carried];
  const first = carried[0] as TempSample;
  const last = carried[carried.length - 1] as TempSample;
  const ordered = [...readings].sort((a, b) => a.at - b.at);
  for (const reading of ordered) {
    instant(reading.at, 'The time of a reading');
    temperatureC(reading.surfaceC, 'Surface temperature');
  }
  // A reading from just before the series still tells about its first hours.
  const shifts = ordered
    .filter((r) => r.at <= last.at && r.at > first.at - READING_FADE_H * HOUR_MS)
    .map((r) => ({ at: r.at, differenceC: r.surfaceC - temperatureAt(carried, Math.max(r.at, first.at)) }));
  if (shifts.length === 0) return [...carried];

  // Both are in order of time, so one walk through the hours and the readings between them tells all.
  const out: TempSample[] = [];
  let shift: (typeof shifts)[number] | undefined;
  const shifted = (at: number, tempC: number): number => {
    const faded = shift ? Math.max(0, 1 - (at - shift.at) / (READING_FADE_H * HOUR_MS)) : 0;
    return tempC + (shift ? shift.differenceC * faded : 0);
  };
  const add = (at: number, tempC = temperatureAt(carried, at)) => {
    if (at > (out[out.length - 1]?.at ?? -Infinity)) out.push({ at, tempC: shifted(at, tempC) });
  };
  let next = 0;
  /** The readings up to an instant, each with what held until just before it. */
  const take = (until: number) => {
    for (let reading = shifts[next]; reading && reading.at <= until; reading = shifts[(next += 1)]) {
      const inside = reading.at >= first.at;
      if (inside && reading.at - BEFORE_MS >= first.at) add(reading.at - BEFORE_MS);
      shift = reading;
      if (inside && reading.at < until) add(reading.at);
    }
  };
  for (const sample of carried) {
    take(sample.at);
    add(sample.at, sample.tempC);
  }
  return out;
}

type Weather = readonly Pick<WeatherHour, 'at' | 'airC' | 'sunWm2' | 'cloud'>[];

/** What the same weather makes of zones that are as open: worked out once for all of them. */
const kept = new WeakMap<Weather, Map<number, readonly TempSample[]>>();

/** The weather carried to a surface, before any reading. */
function carriedBy(weather: Weather, openness: number): readonly TempSample[] {
  let ofWeather = kept.get(weather);
  if (!ofWeather) kept.set(weather, (ofWeather = new Map()));
  const found = ofWeather.get(openness);
  if (found) return found;
  if (weather.length === 0) throw new Impossible('There is no weather for this time. Type the forecast first.');
  const carried: TempSample[] = [];
  let before = -Infinity;
  for (const hour of weather) {
    instant(hour.at, 'The time of the weather');
    temperatureC(hour.airC, 'Air temperature');
    if (hour.at <= before) throw new Impossible('The weather must be in order of time, one figure an instant.');
    before = hour.at;
    const night =
      hour.sunWm2 === undefined || hour.sunWm2 > 0 || hour.cloud === undefined
        ? 0
        : CLEAR_SKY_COOLING_C * (1 - hour.cloud);
    carried.push({ at: hour.at, tempC: hour.airC + openness * ((hour.sunWm2 ?? 0) * SUN_GAIN_C_PER_WM2 - night) });
  }
  ofWeather.set(openness, carried);
  return carried;
}

/**
 * Temperature, °C, at an instant: linear between samples, the end value beyond either end.
 * @example
 *   temperatureAt(
 *     [
 *       { at: 0, tempC: 10 },
 *       { at: 2 * hour, tempC: 14 },
 *     ],
 *     hour,
 *   ) // → 12
 */
export function temperatureAt(series: readonly TempSample[], at: number): number {
  const first = series[0];
  if (!first) throw new Impossible('The temperature series is empty.');
  if (at <= first.at) return first.tempC;
  const last = series[series.length - 1] as TempSample;
  if (at >= last.at) return last.tempC;
  const i = segmentAt(series, at);
  const a = series[i] as TempSample;
  const b = series[i + 1] as TempSample;
  return a.tempC + ((b.tempC - a.tempC) * (at - a.at)) / (b.at - a.at);
}
