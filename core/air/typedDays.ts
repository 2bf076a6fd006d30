import { finite, instant, temperatureC } from '../guard';
import { dewPointC, relativeHumidity } from './dewPoint';
import type { WeatherHour } from './weather';
import { Impossible } from '../impossible';

/** A day of weather as a person types it from any forecast. */
export interface TypedDay {
  /** Local midnight that starts the day and the one that ends it, epoch ms (23 or 25 h apart on a clock change). */
  readonly startsAt: number;
  readonly endsAt: number;
  readonly lowC: number;
  readonly highC: number;
  /** One of the two. RH is taken as the day's mean, so it is turned into the dew point first. */
  readonly rh?: number;
  readonly dewC?: number;
  /** Hours of the local day with rain, 0–24, as [from, to) pairs. */
  readonly rainHours?: readonly (readonly [number, number])[];
  readonly windMs?: number;
}

const HOUR_MS = 3_600_000;
/** The low comes about dawn, the high in mid-afternoon. [CP] */
const LOW_HOUR = 6;
const HIGH_HOUR = 15;

/**
 * Hourly weather from typed days: temperature swings by half cosines from each day's low at 06:00 to its
 * high at 15:00 and on to the next day's low [CP]; the dew point is the day's own and holds through it,
 * so that humidity falls as the day warms; rain in the hours given.
 * @throws RangeError when there are no days, they overlap, a low is above its high or humidity is missing.
 * @example
 *   hourlyFromDays([{ startsAt: noon - 12 * hour, endsAt: noon + 12 * hour, lowC: 10, highC: 20, dewC: 8 }])
 *     .length // → 25
 */
export function hourlyFromDays(days: readonly TypedDay[]): WeatherHour[] {
  if (days.length === 0) throw new Impossible('Type at least one day of weather.');
  const ordered = [...days].sort((a, b) => a.startsAt - b.startsAt);
  const turns: { at: number; airC: number }[] = [];
  let before = -Infinity;
  for (const day of ordered) {
    instant(day.startsAt, 'The day');
    instant(day.endsAt, 'The end of the day');
    if (day.startsAt < before) throw new Impossible('Two days of weather overlap. Each date can be typed once.');
    before = day.endsAt;
    temperatureC(day.lowC, 'Low');
    temperatureC(day.highC, 'High');
    if (day.lowC > day.highC)
      throw new Impossible(`The low (${day.lowC} °C) is above the high (${day.highC} °C). Swap them.`);
    turns.push({ at: instantOf(day, LOW_HOUR), airC: day.lowC }, { at: instantOf(day, HIGH_HOUR), airC: day.highC });
  }
  const firstDay = ordered[0] as TypedDay;
  const lastDay = ordered[ordered.length - 1] as TypedDay;
  // The evening before and the morning after are taken like the day next to them.
  turns.unshift({ at: firstDay.startsAt - (24 - HIGH_HOUR) * HOUR_MS, airC: firstDay.highC });
  turns.push({ at: lastDay.endsAt + LOW_HOUR * HOUR_MS, airC: lastDay.lowC });

  const hours: WeatherHour[] = [];
  for (const day of ordered) {
    const dewC = day.dewC ?? dewFromMean(day);
    const final = day === lastDay;
    for (let at = day.startsAt; final ? at <= day.endsAt : at < day.endsAt; at += HOUR_MS) {
      const airC = betweenTurns(turns, at);
      const localHour = localHourOf(day, at);
      const wet = (day.rainHours ?? []).some(
        ([from, to]) => localHour >= finite(from, 'Rain from') && localHour < finite(to, 'Rain to'),
      );
      hours.push({
        at,
        airC,
        rh: relativeHumidity({ airC, dewC: Math.min(dewC, airC) }),
        ...(day.windMs === undefined ? {} : { windMs: day.windMs }),
        rainMm: wet ? 1 : 0,
      });
    }
  }
  return hours;
}

/** Clocks are changed in the small hours: until then hours count from midnight, from then on back from the next one. */
const CLOCKS_CHANGE_HOUR = 2;

/** The instant of a local hour of a day, later than when clocks are changed. */
const instantOf = (day: TypedDay, hour: number): number => day.endsAt - (24 - hour) * HOUR_MS;

function localHourOf(day: TypedDay, at: number): number {
  const sinceMidnight = (at - day.startsAt) / HOUR_MS;
  return sinceMidnight < CLOCKS_CHANGE_HOUR ? sinceMidnight : 24 - (day.endsAt - at) / HOUR_MS;
}

/** The dew point that gives the day its mean RH at its mean temperature. */
function dewFromMean(day: TypedDay): number {
  if (day.rh === undefined) throw new Impossible('Type the humidity or the dew point of the day.');
  const meanC = (day.lowC + day.highC) / 2;
  return dewPointC({ airC: meanC, rh: day.rh });
}

function betweenTurns(turns: readonly { at: number; airC: number }[], at: number): number {
  let i = 0;
  while (i < turns.length - 2 && (turns[i + 1] as { at: number }).at <= at) i += 1;
  const a = turns[i] as { at: number; airC: number };
  const b = turns[i + 1] as { at: number; airC: number };
  const f = Math.min(1, Math.max(0, (at - a.at) / (b.at - a.at)));
  return a.airC + ((b.airC - a.airC) * (1 - Math.cos(Math.PI * f))) / 2;
}
