import { finite, instant } from '../guard';
import { Impossible } from '../impossible';
import { dewPointC, relativeHumidity } from './dewPoint';
import { seasonMeanC } from './season';
import type { WeatherHour } from './weather';

/*
 * A stand-in for a weather service: made-up hourly weather for a place, the same every time it is asked.
 * Not for painting by. It hangs together physically: seasons by latitude, fronts a few days apart that
 * bring cloud, wind, rain and moister air, a daily swing that cloud damps, a dew point that the air mass
 * brings, and humidity worked out from the two. What it says of the past holds; what it says of days ahead
 * is off by more the further ahead it looks, and is revised with every issue.
 */
const HOUR_MS = 3_600_000;
const DAY_MS = 86_400_000;

/** A forecast looks so far ahead; what comes after it is typical of the season, and no more. */
export const FORECAST_DAYS = 16;

/** An error of the forecast has grown to its full size so many days ahead. [CP] */
const FULL_ERROR_DAYS = 5;
/** What it is then: of the air, of its dew point, °C, and of when rain comes, h. [M] */
const FULL_ERROR = { airC: 2.4, dewC: 2, rainH: 14 } as const;

/** What the dew point lacks to the air is less by this near the sea of the west winds. */
const MARITIME_SHARE = 0.42;
/** In rain the dew point is so little below the air, °C. */
const RAIN_LACK_C = 2.4;

export interface ForecastQuestion {
  /** Name of the place, or a number: another one, another weather. */
  readonly seed: string | number;
  readonly latitudeDeg: number;
  /** Hours that local clocks are ahead of UTC: sets when the sun stands highest. */
  readonly utcOffsetH: number;
  /** Epoch ms; the first whole hour from then on is the first of the answer. */
  readonly from: number;
  readonly hours: number;
  /** Epoch ms: what lies before it has happened, what comes after it is foretold. */
  readonly issuedAt: number;
  /** 0: the forecast. From 1 on: weathers that it allows, see `memberOf`. */
  readonly member?: number;
}

/**
 * Made-up hourly weather as a forecast of `issuedAt` tells it: exact up to then, off by more the further ahead, and from
 * 16 days on a typical year of the place.
 * @throws RangeError on impossible figures
 * @example simulateForecast({ seed: 'quay', latitudeDeg: 50, utcOffsetH: 0, from: noon, hours: 48, issuedAt: noon }).length // → 48
 */
export function simulateForecast(question: ForecastQuestion): WeatherHour[] {
  const { latitudeDeg, utcOffsetH, issuedAt, member = 0 } = question;
  if (Math.abs(finite(latitudeDeg, 'Latitude')) > 90) throw new Impossible('A latitude lies between −90° and 90°.');
  finite(utcOffsetH, 'The time zone');
  instant(issuedAt, 'The time of the forecast');
  const name = String(question.seed) || 'nowhere';
  const first = Math.ceil(instant(question.from, 'The first hour') / HOUR_MS) * HOUR_MS;
  const hours = Array.from({ length: finite(question.hours, 'The number of hours') }, (_, i) => {
    const at = first + i * HOUR_MS;
    const ahead = Math.max(0, at - issuedAt) / DAY_MS;
    if (ahead > FORECAST_DAYS)
      return oneHour({ name: `${name}/typical`, latitudeDeg, utcOffsetH }, at, { airC: 0, front: 0 });
    const error = (channel: string) =>
      noise(`${name}/${issuedAt}/${channel}`, at / (9 * HOUR_MS)) * Math.min(1, ahead / FULL_ERROR_DAYS);
    return oneHour({ name, latitudeDeg, utcOffsetH }, at, {
      airC: FULL_ERROR.airC * error('air'),
      front: 0.5 * error('front'),
    });
  });
  return member === 0 ? hours : memberOf(hours, { seed: name, issuedAt, member });
}

/**
 * One of the weathers that a forecast allows, whatever it comes from: the air and its dew point off by what a forecast is
 * off that far ahead, in waves of half a day and of two days; rain sooner or later by hours, showers more or fewer. What is
 * past stays. The same seed and member give the same weather; over many members they are the forecast again. [M]
 * @param options.member from 1 on
 * @example memberOf(steady, { seed: 1, issuedAt: noon, member: 3 })[0] // → { at: 1780228800000, airC: 20, rh: 0.6, source: 'typed' }
 */
export function memberOf<H extends WeatherHour>(
  hours: readonly H[],
  { seed, issuedAt, member }: { seed: string | number; issuedAt: number; member: number },
): H[] {
  const own = hashText(`${seed}/member ${member}`);
  const wave = (channel: number, at: number) =>
    0.6 * quickNoise(own + channel, at / (12 * HOUR_MS)) + 0.75 * quickNoise(own + channel + 1, at / (50 * HOUR_MS));
  return hours.map((hour, i) => {
    if (hour.at <= issuedAt) return hour;
    const size = Math.min(1, (hour.at - issuedAt) / DAY_MS / FULL_ERROR_DAYS);
    const airC = round(hour.airC + FULL_ERROR.airC * size * wave(10, hour.at), 2);
    const later = Math.round(FULL_ERROR.rainH * size * quickNoise(own + 30, hour.at / (60 * HOUR_MS)));
    const moved = hours[i + later] ?? hour;
    // Of its showers some stay away; as many others come.
    const chance = quickNoise(own + 40, hour.at / (5 * HOUR_MS));
    const wet = (moved.rainMm ?? 0) > 0;
    const rains = wet ? chance > -0.9 + 0.4 * (1 - size) - 0.4 : chance > 1 - 0.12 * size;
    const rainMm = rains ? (wet ? moved.rainMm : 0.6) : 0;
    const dewC = Math.min(
      airC - 0.05,
      Math.max(
        dewPointC(hour) +
          (FULL_ERROR.airC * 0.6 * wave(10, hour.at) + FULL_ERROR.dewC * 0.7 * wave(20, hour.at)) * size,
        rains ? airC - RAIN_LACK_C : -Infinity,
      ),
    );
    return {
      ...hour,
      airC,
      rh: round(relativeHumidity({ airC, dewC }), 4),
      ...(hour.rainMm === undefined ? {} : { rainMm }),
      ...(hour.windMs === undefined || moved.windMs === undefined ? {} : { windMs: moved.windMs }),
      ...(hour.cloud === undefined ? {} : { cloud: rains ? Math.max(0.85, hour.cloud) : hour.cloud }),
      ...(hour.sunWm2 === undefined ? {} : { sunWm2: rains && !wet ? Math.round(hour.sunWm2 * 0.4) : hour.sunWm2 }),
    };
  });
}

interface SimulatedPlace {
  readonly name: string;
  readonly latitudeDeg: number;
  readonly utcOffsetH: number;
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

  const seed = place.name;
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
  const value = (n: number) => stir(hashText(`${seed}/${n}`)) * 2 - 1;
  const from = value(whole);
  return from + (value(whole + 1) - from) * smooth(x - whole);
}

/** As `noise`, by number: many weathers are made of it. */
function quickNoise(seed: number, x: number): number {
  const whole = Math.floor(x);
  const value = (n: number) => stir(Math.imul(seed + n, 0x9e3779b1) ^ seed) * 2 - 1;
  const from = value(whole);
  return from + (value(whole + 1) - from) * smooth(x - whole);
}

/** FNV-1a. */
function hashText(text: string): number {
  let h = 2_166_136_261;
  for (let i = 0; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), 16_777_619);
  return h;
}

/** A last stir, as a share 0–1. */
function stir(hash: number): number {
  let h = Math.imul(hash ^ (hash >>> 15), 2_246_822_519);
  h = Math.imul(h ^ (h >>> 13), 3_266_489_917);
  return ((h ^ (h >>> 16)) >>> 0) / 4_294_967_296;
}
