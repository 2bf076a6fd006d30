import { counted } from '../units/format';
import { relativeHumidity } from './dewPoint';
import { weatherGaps, type WeatherHour } from './weather';

/** What a column of a table of weather can tell. */
export const AIR_FIELDS = ['time', 'air', 'rh', 'dew', 'wind', 'rain', 'sun', 'cloud'] as const;
export type AirField = (typeof AIR_FIELDS)[number];

/** Units that each may be in, the first the usual one. */
export const AIR_UNITS = {
  time: ['local'],
  air: ['°C', '°F'],
  rh: ['%', 'share'],
  dew: ['°C', '°F'],
  wind: ['m/s', 'km/h', 'kn', 'mph'],
  rain: ['mm', 'in'],
  sun: ['W/m²'],
  cloud: ['%', 'share'],
} as const satisfies Record<AirField, readonly string[]>;

export type AirUnit = (typeof AIR_UNITS)[AirField][number];

/** Which column tells what, and in which unit. */
export type AirMapping = Readonly<Partial<Record<AirField, { readonly column: number; readonly unit: AirUnit }>>>;

/** A table of weather as it was read: hours in order, what stands against it, what is worth knowing. */
export interface AirTable {
  readonly hours: readonly WeatherHour[];
  /** Sentences; while there is one the table is not taken. */
  readonly problems: readonly string[];
  readonly notes: readonly string[];
}

const HOUR_MS = 3_600_000;
const HEADINGS: Readonly<Record<AirField, RegExp>> = {
  time: /^(time|date|datetime|valid|hour|zeit|datum)/i,
  air: /^(air|temp|t2m|temperature|lufttemp)/i,
  rh: /^(rh|rel|humid|feuchte)/i,
  dew: /^(dew|td\b|taupunkt)/i,
  wind: /^wind(?!.*(dir|gust))|^ws/i,
  rain: /^(rain|precip|niederschlag)/i,
  sun: /^(sun|solar|ghi|global|radiation|shortwave)/i,
  cloud: /^(cloud|sky)/i,
};
const UNIT_MARKS: readonly (readonly [AirUnit, RegExp])[] = [
  ['°F', /°?\s*f\b|fahrenheit/i],
  ['km/h', /km\s*\/?\s*h|kph/i],
  ['kn', /\bkn\b|knots?|\bkt\b/i],
  ['mph', /mph/i],
  ['in', /\bin(ch(es)?)?\b/i],
  ['share', /0\s*[-–]\s*1|share|fraction/i],
];
const FACTOR: Readonly<Record<AirUnit, number>> = {
  local: 1,
  '°C': 1,
  '°F': 1,
  '%': 0.01,
  share: 1,
  'm/s': 1,
  'km/h': 1 / 3.6,
  kn: 0.514444,
  mph: 0.44704,
  mm: 1,
  in: 25.4,
  'W/m²': 1,
};
/** What can be, in the units of a `WeatherHour`. */
const BOUNDS: Readonly<Record<Exclude<AirField, 'time'>, readonly [number, number]>> = {
  air: [-60, 50],
  rh: [0, 1.05],
  dew: [-60, 40],
  wind: [0, 80],
  rain: [0, 300],
  sun: [0, 1500],
  cloud: [0, 1],
};
const NAMES: Readonly<Record<AirField, string>> = {
  time: 'time',
  air: 'air temperature',
  rh: 'humidity',
  dew: 'dew point',
  wind: 'wind',
  rain: 'rain',
  sun: 'sunshine',
  cloud: 'cloud',
};
/** Nights warmer than this, °C, are nights in °F. */
const WARM_NIGHT_C = 29;
const MOST_PROBLEMS = 5;

/**
 * Which column tells what by its heading, and in which unit: "temp_F", "wind (km/h)".
 * @example guessAirMapping(['time', 'temp (°F)', 'rh']).air // → { column: 1, unit: '°F' }
 */
export function guessAirMapping(headings: readonly string[]): AirMapping {
  const mapping: Partial<Record<AirField, { column: number; unit: AirUnit }>> = {};
  headings.forEach((heading, column) => {
    const text = heading.trim().replace(/_/g, ' ');
    const field = AIR_FIELDS.find((f) => mapping[f] === undefined && HEADINGS[f].test(text));
    if (!field) return;
    const units: readonly AirUnit[] = AIR_UNITS[field];
    const unit = UNIT_MARKS.find(([u, mark]) => units.includes(u) && mark.test(text.replace(HEADINGS[field], '')));
    mapping[field] = { column, unit: unit?.[0] ?? (units[0] as AirUnit) };
  });
  return mapping;
}

/**
 * A table of weather, hour by hour. Times are read by the caller, who knows in which zone those without one are; several in
 * an hour become one, their rain added up.
 * @param options.rows cells without the headings
 * @param options.instantOf epoch ms of a time; with the instant before it, for the hour that comes twice when clocks go back;
 *   null where it is none
 * @param options.now epoch ms; what ends before it is of no use
 * @example
 *   readAirTable({
 *     rows: [['a', '20', '55'], ['b', '68', '55']],
 *     mapping: guessAirMapping(['time', 'temp', 'rh']),
 *     instantOf: (text) => (text === 'a' ? noon : noon + hour),
 *     now: noon,
 *   }).problems // → ['Line 3: an air temperature of 68 °C cannot be. If the column is in °F, say so.']
 */
export function readAirTable(options: {
  rows: readonly (readonly string[])[];
  mapping: AirMapping;
  instantOf: (text: string, before: number | null) => number | null;
  now: number;
}): AirTable {
  const { rows, mapping, instantOf, now } = options;
  const missing = missingIn(mapping);
  if (missing) return { hours: [], problems: [missing], notes: [] };
  const problems: string[] = [];
  const samples: { at: number; line: number; hour: WeatherHour }[] = [];
  let before: number | null = null;
  rows.forEach((cells, i) => {
    const line = i + 2;
    const text = (cells[mapping.time?.column ?? -1] ?? '').trim();
    const at = instantOf(text, before);
    if (at === null) problems.push(`Line ${line}: “${text.slice(0, 30)}” is no time. Write it as 2026-05-14 09:00.`);
    else {
      before = at;
      const hour = hourOf(cells, mapping, at);
      if (typeof hour === 'string') problems.push(`Line ${line}: ${hour}`);
      else samples.push({ at, line, hour });
    }
  });
  samples.sort((a, b) => a.at - b.at);
  samples.forEach(({ at, line }, i) => {
    const twin = samples[i - 1];
    if (twin && twin.at === at)
      problems.push(`Line ${line} tells of the same time as line ${twin.line}. Take one of them out.`);
  });
  const hours = hourly(samples.map((s) => s.hour));
  const last = hours[hours.length - 1];
  if (problems.length === 0 && !last) problems.push('There is no hour in this table.');
  if (problems.length === 0 && last && last.at < now)
    problems.push('It ends before now: nothing of it lies ahead. Bring in a newer one.');
  const more = problems.length - MOST_PROBLEMS;
  return {
    hours,
    problems: more > 0 ? [...problems.slice(0, MOST_PROBLEMS), `And ${more} lines more.`] : problems,
    notes: problems.length > 0 ? [] : notesOn(hours, mapping),
  };
}

function missingIn(mapping: AirMapping): string | null {
  if (!mapping.time) return 'Say which column holds the time.';
  if (!mapping.air) return 'Say which column holds the air temperature.';
  if (!mapping.rh && !mapping.dew) return 'Say which column holds the humidity or the dew point.';
  return null;
}

/** One row as an hour, or what stands against it. */
function hourOf(cells: readonly string[], mapping: AirMapping, at: number): WeatherHour | string {
  const told: Partial<Record<AirField, number>> = {};
  for (const field of AIR_FIELDS) {
    const map = mapping[field];
    if (field === 'time' || !map) continue;
    const text = (cells[map.column] ?? '').trim();
    const figure = Number(text.includes('.') ? text : text.replace(',', '.'));
    if (text === '' || !Number.isFinite(figure)) {
      if (field !== 'air' && field !== 'rh' && field !== 'dew') continue;
      return `the ${NAMES[field]} “${text.slice(0, 20)}” is no number. Put one there, or take the line out.`;
    }
    const value = map.unit === '°F' ? ((figure - 32) * 5) / 9 : figure * FACTOR[map.unit];
    const [low, high] = BOUNDS[field];
    if (value < low || value > high) return cannotBe(field, figure, map.unit);
    told[field] = value;
  }
  const airC = told.air as number;
  if (told.dew !== undefined && told.dew > airC + 0.5)
    return 'the dew point is above the air temperature. Check which column is which.';
  const rh = told.rh ?? relativeHumidity({ airC, dewC: Math.min(airC, told.dew as number) });
  return {
    at,
    airC: round(airC),
    rh: Math.min(1, Math.max(0.01, round(rh))),
    ...(told.wind === undefined ? {} : { windMs: round(told.wind) }),
    ...(told.rain === undefined ? {} : { rainMm: round(told.rain) }),
    ...(told.sun === undefined ? {} : { sunWm2: round(told.sun) }),
    ...(told.cloud === undefined ? {} : { cloud: round(told.cloud) }),
  };
}

function cannotBe(field: AirField, figure: number, unit: AirUnit): string {
  const article = /^[aeiou]/.test(NAMES[field]) ? 'an' : 'a';
  const said = `${article} ${NAMES[field]} of ${figure} ${unit === 'share' ? '' : unit}`.trim();
  const other = unit === '°C' ? ' If the column is in °F, say so.' : unit === 'share' ? ' If it is in %, say so.' : '';
  return `${said} cannot be.${other || ' Check the column and its unit.'}`;
}

const round = (value: number) => Math.round(value * 1e4) / 1e4;

/** Several samples in an hour as one: the first, with the rain of all. */
function hourly(samples: readonly WeatherHour[]): WeatherHour[] {
  const out: WeatherHour[] = [];
  for (const sample of samples) {
    const last = out[out.length - 1];
    if (!last || Math.floor(last.at / HOUR_MS) !== Math.floor(sample.at / HOUR_MS)) out.push(sample);
    else if (sample.rainMm !== undefined)
      out[out.length - 1] = { ...last, rainMm: round((last.rainMm ?? 0) + sample.rainMm) };
  }
  return out;
}

function notesOn(hours: readonly WeatherHour[], mapping: AirMapping): string[] {
  const coldest = Math.min(...hours.map((h) => h.airC));
  const holes = weatherGaps(hours).length;
  return [
    ...(mapping.air?.unit === '°C' && hours.length >= 20 && coldest > WARM_NIGHT_C
      ? [`It is never colder than ${Math.round(coldest)} °C in it. If the column is in °F, say so.`]
      : []),
    ...(holes > 0
      ? [`It says nothing for more than three hours in ${counted(holes, 'place')}: the stand-in tells of those.`]
      : []),
    ...(mapping.rain ? [] : ['No column tells of rain: none is counted on.']),
  ];
}
