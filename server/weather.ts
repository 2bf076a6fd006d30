import { and, desc, eq, lte } from 'drizzle-orm';
import { DateTime } from 'luxon';
import { FORECAST_DAYS } from '#core/air/forecast';
import { segmentAt } from '#core/air/segment';
import { hourlyFromDays } from '#core/air/typedDays';
import { mergeIssues, type SourcedHour, type WeatherHour } from '#core/air/weather';
import type { Boat, TypedDayRow } from '#contracts/rows/boat';
import { typedForecasts } from './db/schema';
import type { Writing } from './db/store';
import { same } from './db/versioned';
import { Refusal } from './errors';
import { ISSUE_EVERY_MS, issuedHours, issueTime } from './simulators/weather';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** How far ahead the simulator looks. */
const AHEAD_MS = FORECAST_DAYS * DAY_MS;
/** Clocks older than this have long run out. */
const BACK_MS = 120 * DAY_MS;
/** A forecast typed longer ago says nothing of the time asked about: none reaches so far ahead. */
const TYPED_AHEAD_MS = 45 * DAY_MS;
/** Older than the newest by so much, a forecast says nothing that any clock still asks for. */
export const TYPED_KEPT_MS = BACK_MS + TYPED_AHEAD_MS;

/** Forecasts typed within one moment stand a thousandth of a second apart. */
const SAME_MOMENT_MS = 1000;

/** Where a boat stands, as far as her weather goes. */
export interface WeatherPlace {
  readonly name: string;
  readonly latitudeDeg: number;
  /** IANA name. */
  readonly timeZone: string;
}
/** Where a boat stood until an instant, epoch ms. */
export interface PastPlace extends WeatherPlace {
  readonly untilAt: number;
}
export interface TypedForecast {
  readonly id: string;
  readonly issuedAt: number;
  readonly days: readonly TypedDayRow[];
  /** Of a file that was brought in; null: days were typed. */
  readonly hours: readonly WeatherHour[] | null;
}

export const weatherPlace = (boat: Pick<Boat, 'place' | 'latitudeDeg' | 'timeZone'>): WeatherPlace => ({
  name: boat.place || boat.timeZone,
  latitudeDeg: boat.latitudeDeg,
  timeZone: boat.timeZone,
});

/**
 * The hourly weather of a boat from `from` (epoch ms) on: for every past hour what was in force then, for those ahead
 * what is in force now, typed over simulated. The stand-in is worked out, not stored: what it said at any moment can
 * be said again. A forecast from after `now` is not known.
 */
export function sourcedHours(options: {
  place: WeatherPlace;
  pastPlaces?: readonly PastPlace[];
  typed: readonly TypedForecast[];
  now: number;
  from: number;
}): SourcedHour[] {
  const { now, typed, place, pastPlaces = [] } = options;
  const from = Math.max(options.from, now - BACK_MS) - ISSUE_EVERY_MS;
  const hours = pastPlaces.length === 0 ? hoursHere(place, from, now) : simulatedHours(place, pastPlaces, from, now);
  if (typed.length === 0) return hours.filter((h) => h.at >= from);
  const simulated = { source: 'simulated' as const, issuedAt: -Infinity, hours };
  const issues = typed.map((t) => ({
    source: 'typed' as const,
    issuedAt: t.issuedAt,
    hours: t.hours ?? (t.days.length === 0 ? [] : hoursOfTypedDays(t.days, place.timeZone)),
  }));
  return mergeIssues([simulated, ...issues], now + SAME_MOMENT_MS).filter((h) => h.at >= from);
}

/** Places whose weather is kept. */
const PLACES_MOST = 20;
const kept = new Map<string, { readonly issuedAt: number; readonly hours: readonly SourcedHour[] }>();

/** The stand-in's weather of a place from an instant on: worked out once for all the boats that stand there. */
function hoursHere(place: WeatherPlace, from: number, now: number): readonly SourcedHour[] {
  const key = `${place.name}/${place.latitudeDeg}/${place.timeZone}`;
  const issuedAt = issueTime(now);
  let found = kept.get(key);
  if (found?.issuedAt !== issuedAt) {
    found = { issuedAt, hours: simulatedHours(place, [], issuedAt - BACK_MS - ISSUE_EVERY_MS, now) };
    kept.delete(key);
    kept.set(key, found);
    if (kept.size > PLACES_MOST) kept.delete(kept.keys().next().value as string);
  }
  const { hours } = found;
  return hours.slice(segmentAt(hours, from));
}

function simulatedHours(place: WeatherPlace, past: readonly PastPlace[], from: number, now: number): SourcedHour[] {
  const hours: SourcedHour[] = [];
  const current = issueTime(now);
  const spans: PastPlace[] = [...[...past].sort((a, b) => a.untilAt - b.untilAt), { ...place, untilAt: Infinity }];
  for (let issuedAt = issueTime(from); issuedAt <= current; issuedAt += ISSUE_EVERY_MS) {
    const to = issuedAt === current ? current + AHEAD_MS : issuedAt + ISSUE_EVERY_MS - HOUR_MS;
    let since = -Infinity;
    for (const stood of spans) {
      if (since <= to && stood.untilAt > issuedAt) {
        const utcOffsetH = DateTime.fromMillis(issuedAt, { zone: stood.timeZone }).offset / 60;
        const issued = issuedHours({ name: stood.name, latitudeDeg: stood.latitudeDeg, utcOffsetH }, issuedAt, to);
        for (const hour of issued)
          if (hour.at >= since && hour.at < stood.untilAt) hours.push({ ...hour, source: 'simulated' });
      }
      since = stood.untilAt;
    }
  }
  return hours;
}

/** The weather of a boat, and what was typed last. */
export function boatWeather(
  { boat, typed, pastPlaces: stood }: { boat: Boat; typed: readonly TypedForecast[]; pastPlaces: readonly PastPlace[] },
  now: number,
  from: number,
): { hours: SourcedHour[]; typedDays: TypedDayRow[]; typedHours: WeatherHour[] | null } {
  const told = typed.filter(
    (t) => t.issuedAt >= Math.max(from, now - BACK_MS) - TYPED_AHEAD_MS && t.issuedAt <= now + SAME_MOMENT_MS,
  );
  const last = told[told.length - 1];
  return {
    hours: sourcedHours({
      place: weatherPlace(boat),
      pastPlaces: stood.filter((p) => p.untilAt >= from - DAY_MS),
      typed: told,
      now,
      from,
    }),
    typedDays: [...(last?.days ?? [])],
    typedHours: last?.hours ? [...last.hours] : null,
  };
}

/** Typed days of a boat's own calendar as hours. @throws Impossible when they cannot be */
export function hoursOfTypedDays(days: readonly TypedDayRow[], timeZone: string) {
  return hourlyFromDays(
    days.map((day) => {
      const start = DateTime.fromISO(day.date, { zone: timeZone }).startOf('day');
      return {
        startsAt: start.toMillis(),
        endsAt: start.plus({ days: 1 }).toMillis(),
        lowC: day.lowC,
        highC: day.highC,
        ...(day.rh === null ? {} : { rh: day.rh }),
        ...(day.dewC === null ? {} : { dewC: day.dewC }),
        ...(day.windMs === null ? {} : { windMs: day.windMs }),
        rainHours: day.rainFrom !== null && day.rainTo !== null ? [[day.rainFrom, day.rainTo] as const] : [],
      };
    }),
  );
}

/**
 * Keep a typed forecast, as it was typed, or the hours of a file. The same one sent twice is one.
 * @throws Refusal 409 for another forecast under a used id, 422 for days too far ahead
 */
export async function putTypedForecast(
  tx: Writing,
  boat: Boat,
  id: string,
  { days, hours }: Pick<TypedForecast, 'days' | 'hours'>,
  now: number,
): Promise<void> {
  const [sent] = await tx.db.select().from(typedForecasts).where(eq(typedForecasts.id, id));
  if (sent) {
    if (sent.boatId === boat.id && same(sent.days, days) && same(sent.hours, hours)) return;
    throw new Refusal(409, 'id_taken', 'Another forecast already has this id. Reload and try again.');
  }
  if (days.length > 0) hoursOfTypedDays(days, boat.timeZone);
  const beyond = days.find(
    (d) => DateTime.fromISO(d.date, { zone: boat.timeZone }).toMillis() > now + TYPED_AHEAD_MS - DAY_MS,
  );
  if (beyond)
    throw new Refusal(
      422,
      'impossible',
      `No forecast reaches as far as ${beyond.date}. Type the days of the next six weeks.`,
      { field: 'days' },
    );
  if (hours) checkHours(hours, now);
  const [latest] = await tx.db
    .select({ issuedAt: typedForecasts.issuedAt })
    .from(typedForecasts)
    .where(and(eq(typedForecasts.boatId, boat.id), lte(typedForecasts.issuedAt, now + SAME_MOMENT_MS)))
    .orderBy(desc(typedForecasts.issuedAt))
    .limit(1);
  // Two forecasts typed within one stopped moment still have an order.
  await tx.put('typedForecasts', {
    id,
    boatId: boat.id,
    issuedAt: Math.max(now, (latest?.issuedAt ?? 0) + 1),
    days: [...days],
    hours: hours && [...hours],
  });
}

function checkHours(hours: readonly WeatherHour[], now: number): void {
  const field = { field: 'hours' };
  if (hours.some((h, i) => h.at <= (hours[i - 1]?.at ?? -Infinity)))
    throw new Refusal(422, 'impossible', 'The hours of the forecast are not in order. Read the file again.', field);
  if ((hours.at(-1)?.at ?? 0) > now + TYPED_AHEAD_MS)
    throw new Refusal(422, 'impossible', 'No forecast reaches so far. Bring in the hours of six weeks.', field);
}
