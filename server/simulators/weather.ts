import { seasonMeanC } from '#core/air/season';
import { relativeHumidity } from '#core/air/dewPoint';
import type { WeatherHour } from '#core/air/weather';

/**
 * A stand-in for a weather service: made-up hourly weather for a place, the same every time it is asked.
 * Not for painting by. It hangs together physically: seasons by latitude, fronts a few days apart that
 * bring cloud, wind, rain and moister air, a daily swing that cloud damps, a dew point that the air mass
 * brings, and humidity worked out from the two. What it says of the past holds; what it says of days ahead
 * is off by more the further ahead it looks, and is revised with every issue.
 */
const HOUR_MS = 3_600_000;
const DAY_MS = 86_400_000;
/** A new forecast comes every six hours. */
export const ISSUE_EVERY_MS = 6 * HOUR_MS;

/** What the dew point lacks to the air is less by this near the sea of the west winds. */
const MARITIME_SHARE = 0.42;
/** In rain the dew point is so little below the air, °C. */
const RAIN_LACK_C = 2.4;

/** The stand-in's forecasts kept in memory: an issue of a place is worked out once. */
const KEPT_MOST = 4000;
const kept = new Map<string, WeatherHour[]>();

/** The hours of one issue of a place, kept for whoever asks next. */
export function issuedHours(place: SimulatedPlace, issuedAt: number, to: number): readonly WeatherHour[] {
  const key = `${place.name}/${place.latitudeDeg}/${place.utcOffsetH}/${issuedAt}/${to}`;
  let hours = kept.get(key);
  if (!hours) {
    hours = simulateWeather({ place, issuedAt, from: issuedAt, to });
    kept.set(key, hours);
    if (kept.size > KEPT_MOST) kept.delete(kept.keys().next().value as string);
  }
  return hours;
}

export interface SimulatedPlace {
  readonly name: string;
  readonly latitudeDeg: number;
  /** Hours that local clocks are ahead of UTC: sets when the sun stands highest. */
  readonly utcOffsetH: number;
}

/** The start of the issue that is current at `now`, epoch ms. */
export function issueTime(now: number): number {
  return Math.floor(now / ISSUE_EVERY_MS) * ISSUE_EVERY_MS;
}

/** Hours from `from` to `to` (epoch ms, whole hours) as the issue of `issuedAt` tells them. */
export function simulateWeather(options: {
  place: SimulatedPlace;
  issuedAt: number;
  from: number;
  to: number;
}): WeatherHour[] {
  const { place, issuedAt } = options;
  const hours: WeatherHour[] = [];
  for (let at = Math.ceil(options.from / HOUR_MS) * HOUR_MS; at <= options.to; at += HOUR_MS) {
    const ahead = Math.max(0, at - issuedAt) / DAY_MS;
    const error = (channel: string) =>
      noise(`${place.name}/${issuedAt}/${channel}`, at / (9 * HOUR_MS)) * Math.min(1, ahead / 5);
    hours.push(oneHour(place, at, { airC: 2.4 * error('air'), front: 0.5 * error('front') }));
  }
  return hours;
}

function oneHour(place: SimulatedPlace, at: number, error: { airC: number; front: number }): WeatherHour {
  const latitude = (place.latitudeDeg * Math.PI) / 180;
  const dayOfYear = ((at / DAY_MS) % 365.25) + 0;
  // Height of the sun from declination and hour angle; the sun stands highest half an hour past noon.
  const declination = ((-23.44 * Math.PI) / 180) * Math.cos((2 * Math.PI * (dayOfYear + 10)) / 365.25);
  const localHour = (at / HOUR_MS + place.utcOffsetH) % 24;
  const hourAngle = ((localHour - 12.5) / 24) * 2 * Math.PI;
  const sunHeight =
    Math.sin(latitude) * Math.sin(declination) + Math.cos(latitude) * Math.cos(declination) * Math.cos(hourAngle);

  const seed = place.name || 'nowhere';
  const front = clamp(0.36 + 0.72 * noise(`${seed}/front`, at / (1.7 * DAY_MS)) + error.front, 0, 1);
  const cloud = clamp(0.15 + 0.85 * smooth(front) + 0.18 * noise(`${seed}/cloud`, at / (5 * HOUR_MS)), 0, 1);
  const sunWm2 = Math.max(0, sunHeight) * 950 * (1 - 0.72 * cloud);

  const meanC = seasonMeanC({ latitudeDeg: place.latitudeDeg, at });
  const massC = 3.2 * noise(`${seed}/mass`, at / (3.1 * DAY_MS));
  // Coolest about dawn, warmest in mid-afternoon; cloud damps both.
  const swingC = (1.6 + 4.6 * (1 - cloud)) * Math.cos(((localHour - 15) / 24) * 2 * Math.PI);
  const airC = meanC + massC + swingC + error.airC;

  const wet = front - 0.84 + 0.12 * noise(`${seed}/rain`, at / (2.3 * HOUR_MS));
  // The sea keeps spring and summer of the west winds moister than the shores further south.
  const maritime = clamp((Math.abs(place.latitudeDeg) - 30) / 20, 0, 1);
  const lackC =
    (3.8 + 4.6 * (1 - front) + 1.8 * noise(`${seed}/dew`, at / (1.1 * DAY_MS))) * (1 - MARITIME_SHARE * maritime);
  const airMassDewC = meanC + massC + error.airC - lackC;
  // Rain falls through air that it has wetted; it dampens and dries within an hour or so.
  const raining = clamp(1 + wet / 0.05, 0, 1);
  const dewC = Math.min(airMassDewC + raining * Math.max(0, airC - RAIN_LACK_C - airMassDewC), airC - 0.1);
  const windMs = clamp(
    2.4 + 5 * front ** 2 + 1.8 * noise(`${seed}/wind`, at / (4 * HOUR_MS)) + (sunHeight > 0 ? 1.2 * sunHeight : 0),
    0.2,
    25,
  );
  return {
    at,
    airC: round(airC, 2),
    rh: round(relativeHumidity({ airC, dewC }), 4),
    windMs: round(windMs, 1),
    rainMm: wet > 0 ? round(0.2 + wet * 14, 1) : 0,
    sunWm2: Math.round(sunWm2),
    cloud: round(cloud, 2),
  };
}

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
const smooth = (t: number) => t * t * (3 - 2 * t);
const round = (value: number, digits: number) => Number(value.toFixed(digits));

/** Smooth noise in −1…1: seeded values at whole x, eased between. */
function noise(seed: string, x: number): number {
  const whole = Math.floor(x);
  const value = (n: number) => hash(`${seed}/${n}`) * 2 - 1;
  const from = value(whole);
  return from + (value(whole + 1) - from) * smooth(x - whole);
}

/** FNV-1a with a final stir, as a share 0–1. */
function hash(text: string): number {
  let h = 2_166_136_261;
  for (let i = 0; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), 16_777_619);
  h = Math.imul(h ^ (h >>> 15), 2_246_822_519);
  h = Math.imul(h ^ (h >>> 13), 3_266_489_917);
  return ((h ^ (h >>> 16)) >>> 0) / 4_294_967_296;
}
