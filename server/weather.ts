import { and, asc, desc, eq } from 'drizzle-orm';
import { DateTime } from 'luxon';
import { v7 as uuid } from 'uuid';
import { hourlyFromDays } from '#core/air/typedDays';
import { mergeIssues, type SourcedHour } from '#core/air/weather';
import type { Boat, TypedDayRow } from '#contracts/boat';
import type { Db } from './db/open';
import { weatherIssues } from './db/schema';
import { ISSUE_EVERY_MS, issueTime, simulateWeather, type SimulatedPlace } from './simulators/weather';

const DAY_MS = 86_400_000;
/** How far ahead the simulator looks. */
const AHEAD_MS = 10 * DAY_MS;
/** Clocks older than this have long run out. */
const BACK_MS = 120 * DAY_MS;

function placeOf(boat: Boat, now: number): SimulatedPlace {
  return { name: boat.place || boat.timeZone, latitudeDeg: boat.latitudeDeg, utcOffsetH: DateTime.fromMillis(now, { zone: boat.timeZone }).offset / 60 };
}

/**
 * The hourly weather of a boat from `neededFrom` (epoch ms) on: what was issued so far, with the issue
 * that is current now, and with the days before the first issue filled in.
 */
export async function boatWeather(db: Db, boat: Boat, now: number, neededFrom: number): Promise<{ hours: SourcedHour[]; typedDays: TypedDayRow[] }> {
  const from = Math.max(neededFrom, now - BACK_MS);
  const issues = await db.select().from(weatherIssues).where(eq(weatherIssues.boatId, boat.id)).orderBy(asc(weatherIssues.issuedAt));
  const simulated = issues.filter((i) => i.source === 'simulated');
  const place = placeOf(boat, now);
  const add = async (issuedAt: number, start: number, end: number) => {
    const hours = simulateWeather({ place, issuedAt, from: start, to: end });
    const row = { id: uuid(), boatId: boat.id, source: 'simulated' as const, issuedAt, hours, typedDays: null };
    // Two requests at once may both find it missing; the first one's stands.
    await db.insert(weatherIssues).values(row).onConflictDoNothing();
    issues.push(row);
  };
  const current = issueTime(now);
  const known = simulated[0]?.hours[0]?.at ?? Infinity;
  // What the simulator says of the past holds, whichever issue says it.
  if (from < known) await add(Math.min(from, current) - ISSUE_EVERY_MS, from - ISSUE_EVERY_MS, Math.min(known, current));
  const newest = simulated[simulated.length - 1];
  if (!newest || newest.issuedAt < current) await add(current, Math.max(from - ISSUE_EVERY_MS, newest?.issuedAt ?? -Infinity), current + AHEAD_MS);
  const typed = issues.filter((i) => i.source === 'typed').sort((a, b) => b.issuedAt - a.issuedAt)[0];
  return { hours: mergeIssues(issues).filter((h) => h.at >= from - ISSUE_EVERY_MS), typedDays: typed?.typedDays ?? [] };
}

/** Typed days of a boat's own calendar as hours. @throws RangeError when they cannot be */
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

/** Keep a typed forecast as an issue of its own. The same id sent twice is one issue. */
export async function putTypedWeather(db: Db, boat: Boat, issueId: string, days: readonly TypedDayRow[], now: number): Promise<void> {
  const hours = days.length === 0 ? [] : hoursOfTypedDays(days, boat.timeZone);
  const [latest] = await db.select({ issuedAt: weatherIssues.issuedAt }).from(weatherIssues).where(and(eq(weatherIssues.boatId, boat.id), eq(weatherIssues.source, 'typed'))).orderBy(desc(weatherIssues.issuedAt)).limit(1);
  // Two forecasts typed within one stopped moment still have an order.
  const issuedAt = Math.max(now, (latest?.issuedAt ?? 0) + 1);
  await db.insert(weatherIssues).values({ id: issueId, boatId: boat.id, source: 'typed', issuedAt, hours, typedDays: [...days] }).onConflictDoNothing();
}
