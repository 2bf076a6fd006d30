import { DateTime } from 'luxon';
import { withAirReadings } from '#core/air/airReadings';
import type { WorkSpan } from '#core/air/lastStart';
import { airReadings } from '#core/coat/fold';
import { netAreas } from '#core/hull/netAreas';
import { isSheltered } from '#core/hull/zones';
import { NO_MODEL } from '#core/model/area';
import type { LogEntry } from '#core/model/log';
import type { Boat, BoatBundle, HullRow, Job, SurfaceDraft, SurfaceRow } from '#contracts/rows/boat';
import { notFound } from '../errors';
import { boatWeather } from '../weather';
import type { BoatRows } from './boatCache';
import type { Store, Writing } from './store';

/** One boat that is not removed, with all that belongs to her. @throws Refusal 404 */
export async function getBoatRows({ boats }: Pick<Writing, 'boats'>, boatId: string): Promise<BoatRows> {
  const rows = await boats.get(boatId);
  if (!rows) throw notFound('boat');
  return rows;
}

/** Stored zones with the areas that their methods, the boat and her hull give. @throws Impossible where one cannot be worked out */
export function withAreas(rows: readonly SurfaceDraft[], boat: Boat, hull: HullRow | null): SurfaceRow[] {
  const areas = netAreas({ boat, hull: hull ?? NO_MODEL, surfaces: rows });
  return rows.map((row) => {
    const { areaM2, share, grossM2 } = areas.get(row.id) as { areaM2: number; share: number; grossM2: number };
    return { ...row, areaM2, areaShare: share, grossM2 };
  });
}

/** Everything about one boat. @throws Refusal 404 */
export async function getBundle(
  store: Store,
  boatId: string,
  clock: { now(): number; frozen: boolean },
): Promise<BoatBundle> {
  return bundleOf(await getBoatRows(store, boatId), clock);
}

/** What is stored about a boat, with her areas and weather. */
export function bundleOf(rows: BoatRows, clock: { now(): number; frozen: boolean }): BoatBundle {
  const { boat, jobs, hull, surfaces, removedZones, buildUps, borders, entries, sheets } = rows;
  const now = clock.now();
  const weather = boatWeather(rows, now, weatherFrom(boat, jobs, entries, now));
  const hours = withAirReadings(weather.hours, airReadings(entries, outsideOf(rows)), now);
  return {
    now,
    frozen: clock.frozen,
    boat,
    jobs: [...jobs],
    hull,
    surfaces: withAreas(surfaces, boat, hull),
    removedZones: [...removedZones],
    buildUps: [...buildUps],
    borders: [...borders],
    entries: entries as LogEntry[],
    sheets: [...sheets],
    hours,
    workSpans: workSpans(rows.workday, boat.timeZone, now),
    dryFactors: Object.fromEntries(rows.workday.drying.map((d) => [d.sheetId, d.factor])),
    typedDays: weather.typedDays,
    typedHours: weather.typedHours,
  };
}

/** Whether a zone stands in the open air: neither it nor she is under a roof, and nothing was put up over it for a while. */
function outsideOf({ boat, jobs, surfaces }: BoatRows): (surfaceId: string, at: number) => boolean {
  const zones = new Map(surfaces.map((s) => [s.id, s]));
  const shelters = jobs.flatMap((j) => j.planning?.shelters ?? []).filter((s) => s.cover !== 'open');
  return (id, at) => {
    const zone = zones.get(id);
    if (!zone || isSheltered(zone, boat.shelter)) return false;
    return !shelters.some((s) => s.from <= at && at < s.to && (s.zoneIds.length === 0 || s.zoneIds.includes(id)));
  };
}

/** Working days that were worked out: many boats share them, and they are the same for a quarter of an hour. */
const SPANS_MOST = 64;
const QUARTER_MS = 15 * 60_000;
const spans = new Map<string, WorkSpan[]>();

function workSpans(workday: BoatRows['workday'], zone: string, now: number): WorkSpan[] {
  const key = `${zone} ${Math.floor(now / QUARTER_MS)} ${workday.workFromMin} ${workday.workToMin}`;
  let found = spans.get(key);
  if (!found) {
    if (spans.size >= SPANS_MOST) spans.clear();
    spans.set(key, (found = spansFrom(workday, zone, now)));
  }
  return found;
}

/** Working days from the one before a moment to a week ahead, in local time whatever the clocks do; none where all day is one. */
function spansFrom({ workFromMin, workToMin }: BoatRows['workday'], zone: string, now: number): WorkSpan[] {
  if (workFromMin === 0 && workToMin === 24 * 60) return [];
  return Array.from({ length: 9 }, (_, i) => {
    const day = DateTime.fromMillis(now, { zone })
      .startOf('day')
      .plus({ days: i - 1 });
    const at = (min: number) => day.set({ hour: 0, minute: min }).toMillis();
    return { from: at(workFromMin), to: at(workToMin) };
  });
}

/** The clocks of this haul-out want weather from a day before it, or before the first entry if that was earlier. */
function weatherFrom(boat: Boat, jobs: readonly Job[], log: readonly LogEntry[], now: number): number {
  const job = jobs[jobs.length - 1];
  const out = job ? DateTime.fromISO(job.outOn, { zone: boat.timeZone }).toMillis() : now;
  const first = log.reduce((least, e) => Math.min(least, e.occurredAt), now);
  const HOUR_MS = 3_600_000;
  return Math.floor((Math.min(out, first) - 24 * HOUR_MS) / HOUR_MS) * HOUR_MS;
}
