import { Impossible } from '../impossible';
import type { WeatherHour } from './weather';

/** Where and for what an EPW file was made. */
export interface EpwPlace {
  readonly name: string;
  readonly country: string;
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
  /** Hours that its clock is ahead of UTC; no summer time. */
  readonly utcOffsetH: number;
}

/** A typical year, hour by hour. `at` counts ms from the start of its first of January, in the file's own time. */
export interface Epw {
  readonly place: EpwPlace;
  readonly hours: readonly WeatherHour[];
}

const HOUR_MS = 3_600_000;
/** An hourly year is a megabyte and a half; a file much larger is none. */
export const EPW_MOST_BYTES = 12_000_000;
const HEADERS = 8;
const MONTH_STARTS = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334];
/** Fields of a row, from 0. [P: EnergyPlus, Auxiliary Programs: EPW format] */
const FIELD = {
  month: 1,
  day: 2,
  hour: 3,
  airC: 6,
  dewC: 7,
  rh: 8,
  sunWm2: 13,
  windMs: 21,
  sky: 22,
  rainMm: 33,
} as const;
const WEATHER_FLAG = { observed: 26, codes: 27 } as const;

/**
 * Read an EPW file: eight lines of header, then 8760 (or 8784) hours of a typical year. [P: EnergyPlus, Auxiliary Programs:
 * EPW format] Air, humidity, wind, sunshine on level ground, cloud and rain are taken; where rain is not measured the
 * present-weather codes tell. Missing figures (99.9, 9999 and so on) are taken from the hour before.
 *
 * @throws Impossible, with the line, where the file is cut off, too large, or a figure cannot be
 * @example parseEpw('LOCATION,Nowhere') // → throws The file ends after 1 lines: an EPW file has eight of header and 8760 hours. Download it again.
 */
export function parseEpw(text: string): Epw {
  if (text.length > EPW_MOST_BYTES)
    throw new Impossible(
      `The file has ${Math.round(text.length / 1e6)} MB; an EPW file of a year has about two. Choose the .epw itself.`,
    );
  const lines = text.split(/\r\n|\n|\r/).filter((line) => line.trim() !== '');
  const location = (lines[0] ?? '').split(',');
  if (location[0]?.trim().toUpperCase() !== 'LOCATION')
    throw new Impossible(
      'This is not an EPW file: its first line does not begin with LOCATION. Choose the .epw itself.',
    );
  const rows = lines.slice(HEADERS);
  if (rows.length < 8760)
    throw new Impossible(
      `The file ends after ${lines.length} lines: an EPW file has eight of header and 8760 hours. Download it again.`,
    );
  const at = (i: number, what: string) => inLine(location[i], 1, what);
  const hours: WeatherHour[] = [];
  const days = rows.length >= 8784 ? 366 : 365;
  rows
    .slice(0, days * 24)
    .forEach((row, i) => hours.push(readRow(row.split(','), i + HEADERS + 1, hours[i - 1], days === 366)));
  hours.forEach((hour, i) => {
    if (hour.at !== i * HOUR_MS)
      throw new Impossible(
        `Line ${i + HEADERS + 1}: this hour is out of order, or one is missing. Download the file again.`,
      );
  });
  return {
    place: {
      name: (location[1] ?? '').trim(),
      country: (location[3] ?? '').trim(),
      latitudeDeg: between(at(6, 'The latitude'), -90, 90, 1, 'The latitude'),
      longitudeDeg: between(at(7, 'The longitude'), -180, 180, 1, 'The longitude'),
      utcOffsetH: between(at(8, 'The time zone'), -12, 14, 1, 'The time zone'),
    },
    hours,
  };
}

function readRow(cells: readonly string[], line: number, before: WeatherHour | undefined, leap: boolean): WeatherHour {
  if (cells.length < FIELD.rainMm)
    throw new Impossible(`Line ${line} has ${cells.length} fields; an EPW row has 35. The file may be cut off.`);
  const month = between(inLine(cells[FIELD.month], line, 'The month'), 1, 12, line, 'The month');
  const day = between(inLine(cells[FIELD.day], line, 'The day'), 1, 31, line, 'The day');
  const hour = between(inLine(cells[FIELD.hour], line, 'The hour'), 1, 24, line, 'The hour');
  const figure = (i: number, missing: number, what: string, low: number, high: number, kept: number | undefined) => {
    const value = inLine(cells[i], line, what);
    if (value === missing) return kept;
    return between(value, low, high, line, what);
  };
  const airC = figure(FIELD.airC, 99.9, 'The air temperature', -70, 70, before?.airC);
  const rh = figure(FIELD.rh, 999, 'The humidity', 0, 110, before ? before.rh * 100 : undefined);
  if (airC === undefined || rh === undefined)
    throw new Impossible(`Line ${line}: air temperature and humidity are missing. Take another file of this place.`);
  const sky = figure(FIELD.sky, 99, 'The cloud cover', 0, 10, (before?.cloud ?? 0.5) * 10) as number;
  const rain = Number(cells[FIELD.rainMm] ?? 999);
  return {
    // Hour 1 is the one that ends at 01:00.
    at:
      ((MONTH_STARTS[month - 1] as number) + (leap && month > 2 ? 1 : 0) + day - 1) * 24 * HOUR_MS +
      (hour - 1) * HOUR_MS,
    airC,
    rh: Math.min(1, Math.max(0.01, rh / 100)),
    windMs: figure(FIELD.windMs, 999, 'The wind', 0, 60, before?.windMs ?? 2),
    sunWm2: figure(FIELD.sunWm2, 9999, 'The sunshine', 0, 1500, 0),
    cloud: sky / 10,
    rainMm: Number.isFinite(rain) && rain < 999 ? Math.max(0, rain) : rainByCodes(cells),
  };
}

/** Second and third figure of the codes: rain and drizzle; 9 is none. Only where somebody looked. */
function rainByCodes(cells: readonly string[]): number {
  const codes = (cells[WEATHER_FLAG.codes] ?? '').trim().padStart(9, '9');
  if (Number(cells[WEATHER_FLAG.observed]) !== 0) return 0;
  return [1, 2].some((i) => codes[i] !== '9') ? 1 : 0;
}

function inLine(cell: string | undefined, line: number, what: string): number {
  const value = Number((cell ?? '').trim() || NaN);
  if (!Number.isFinite(value))
    throw new Impossible(`Line ${line}: ${what.toLowerCase()} is not a number. The file may be cut off.`);
  return value;
}

function between(value: number, low: number, high: number, line: number, what: string): number {
  if (value < low || value > high)
    throw new Impossible(
      `Line ${line}: ${what.toLowerCase()} of ${value} cannot be. It lies between ${low} and ${high}.`,
    );
  return value;
}

/**
 * A typical year laid on the calendar: for each hour from `from` on, the hour of the same day and time in the file.
 * @example typicalHours({ place: epwPlace, hours: steady.slice(0, 24).map((h, i) => ({ ...h, at: i * hour })) }, noon, 3).length // → 3
 */
export function typicalHours({ place, hours }: Epw, from: number, count: number): WeatherHour[] {
  const first = Math.ceil(from / HOUR_MS) * HOUR_MS;
  return Array.from({ length: count }, (_, i) => {
    const at = first + i * HOUR_MS;
    const local = new Date(at + place.utcOffsetH * HOUR_MS);
    const since = local.getTime() - Date.UTC(local.getUTCFullYear(), 0, 1);
    const hour = hours[Math.floor(since / HOUR_MS) % hours.length] as WeatherHour;
    return { ...hour, at };
  });
}
