import { segmentAt } from './segment';

/** One hour of weather at a place. */
export interface WeatherHour {
  /** Epoch ms. */
  readonly at: number;
  readonly airC: number;
  /** Share, above 0 to 1. */
  readonly rh: number;
  readonly windMs?: number;
  /** mm in the hour that starts here. */
  readonly rainMm?: number;
  /** Sunshine falling on level ground, W/m². */
  readonly sunWm2?: number;
  /** Share of sky covered, 0–1. */
  readonly cloud?: number;
}

/** One logged reading at the hull. */
export interface SurfaceReading {
  readonly at: number;
  readonly surfaceC: number;
}

/** One sample of a series of surface temperature. */
export interface TempSample {
  /** Epoch ms, ascending. */
  readonly at: number;
  readonly tempC: number;
}

export type WeatherSource = 'simulated' | 'typed';

/** A forecast as it was issued: hours of one source, stamped with when they became known. */
export interface WeatherIssue {
  readonly source: WeatherSource;
  readonly issuedAt: number;
  readonly hours: readonly WeatherHour[];
}

export interface SourcedHour extends WeatherHour {
  readonly source: WeatherSource;
}

const HOUR_MS = 3_600_000;

/**
 * One hourly series out of many issues: what a person typed wins over the simulator; an issue replaces
 * all that its source had said of the time after it. Ascending in time, one sample an instant.
 * @param now epoch ms; an issue from later than that is not known yet (a clock that was set back)
 * @example
 *   mergeIssues([
 *     { source: 'simulated', issuedAt: 0, hours: [{ at: noon, airC: 15, rh: 0.7 }] },
 *     { source: 'typed', issuedAt: 0, hours: [{ at: noon, airC: 18, rh: 0.6 }] },
 *   ])[0].airC // → 18
 */
export function mergeIssues(issues: readonly WeatherIssue[], now = Infinity): SourcedHour[] {
  const byHour = new Map<number, SourcedHour>();
  for (const source of ['simulated', 'typed'] as const) {
    const own = issues
      .filter((issue) => issue.source === source && issue.issuedAt <= now)
      .sort((a, b) => a.issuedAt - b.issuedAt);
    own.forEach((issue, i) => {
      const replacedFrom = own[i + 1]?.issuedAt ?? Infinity;
      for (const hour of issue.hours) if (hour.at < replacedFrom) byHour.set(hour.at, { ...hour, source });
    });
  }
  const hours = [...byHour.values()].sort((a, b) => a.at - b.at);
  // Where clocks stand half an hour off, typed hours lie between the simulated ones, and tell of the same time.
  const typedNear = (hour: SourcedHour | undefined, at: number) =>
    hour?.source === 'typed' && Math.abs(hour.at - at) < HOUR_MS;
  return hours.filter(
    ({ at, source }, i) => source === 'typed' || !(typedNear(hours[i - 1], at) || typedNear(hours[i + 1], at)),
  );
}

/** Hours further apart than this are not joined by a line: nobody knows what the air did between. [CP] */
export const GAP_MS = 3 * HOUR_MS;

/**
 * Where an ascending series says nothing for more than three hours, as pairs of the hours around each gap, epoch ms.
 * @example weatherGaps([{ at: 0 }, { at: hour }, { at: 9 * hour }]) // → [{ from: 3600000, to: 32400000 }]
 */
export function weatherGaps(hours: readonly { readonly at: number }[]): { from: number; to: number }[] {
  const gaps: { from: number; to: number }[] = [];
  for (let i = 1; i < hours.length; i += 1) {
    const [from, to] = [(hours[i - 1] as { at: number }).at, (hours[i] as { at: number }).at];
    if (to - from > GAP_MS) gaps.push({ from, to });
  }
  return gaps;
}

/** The part of an ascending series around an instant that has no gap; empty where the instant lies in one or outside. */
export function unbrokenHours<H extends { readonly at: number }>(hours: readonly H[], at: number): readonly H[] {
  const gaps = weatherGaps(hours);
  if (gaps.length === 0) return hours;
  if (gaps.some((gap) => gap.from < at && at < gap.to)) return [];
  const from = gaps.findLast((gap) => gap.to <= at)?.to ?? -Infinity;
  const to = gaps.find((gap) => gap.from >= at)?.from ?? Infinity;
  return hours.filter((hour) => hour.at >= from && hour.at <= to);
}

/**
 * The weather at an instant, linear between the hours around it; null outside the series and in a gap of it.
 * @example weatherAt(steady, noon + hour / 2).airC // → 20
 */
export function weatherAt(hours: readonly WeatherHour[], at: number): WeatherHour | null {
  const first = hours[0];
  const last = hours[hours.length - 1];
  if (!first || !last || at < first.at || at > last.at) return null;
  const i = segmentAt(hours, at);
  const a = hours[i] as WeatherHour;
  const b = hours[i + 1];
  if (!b || a.at === at) return a;
  if (b.at - a.at > GAP_MS) return at === b.at ? b : null;
  const f = (at - a.at) / (b.at - a.at);
  const mix = (x: number | undefined, y: number | undefined) =>
    x === undefined || y === undefined ? (x ?? y) : x + (y - x) * f;
  return {
    at,
    airC: mix(a.airC, b.airC) as number,
    rh: mix(a.rh, b.rh) as number,
    windMs: mix(a.windMs, b.windMs),
    // Rain is a sum over the hour, not a level: it belongs to the hour that it fell in.
    rainMm: f < 1 ? a.rainMm : b.rainMm,
    sunWm2: mix(a.sunWm2, b.sunWm2),
    cloud: mix(a.cloud, b.cloud),
  };
}
