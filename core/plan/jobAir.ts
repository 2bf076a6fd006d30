import { typicalHours, type Epw } from '../air/epw';
import { FORECAST_DAYS, memberOf, simulateForecast } from '../air/forecast';
import { underShelter, type ShelterSpan } from '../air/shelter';
import { surfaceByFace, type HullFace, type SunPosition } from '../air/solAir';
import { surfaceSeries } from '../air/surfaceSeries';
import type { SurfaceReading, WeatherHour } from '../air/weather';
import { OPENNESS, isSheltered } from '../hull/zones';
import type { Shelter, Side, Surface, ZoneKind } from '../model/surface';
import type { PlanSeries } from './problem';

const HOUR_MS = 3_600_000;

/** What the weather does to one zone, or to several that are alike. */
export interface ZoneAir {
  readonly key: string;
  readonly spans: readonly ShelterSpan[];
  /** How far sun and sky reach it where nobody has said which way she points. */
  readonly openness: number;
  /** Null: no side of its own, or nobody has said which way she points. */
  readonly face: HullFace | null;
  readonly readings: readonly SurfaceReading[];
}

/** How a zone's face is tilted, degrees: 0 looks up, 90 sideways, 180 down. [M] */
const TILT_DEG: Partial<Record<ZoneKind, number>> = {
  underwater: 130,
  keel: 95,
  rudder: 90,
  bootTop: 95,
  topsides: 88,
  transom: 80,
  deck: 0,
  nonSkid: 0,
  coachroof: 5,
  cockpit: 20,
};

/** Less tilted than this, degrees, a face looks up on both sides alike. */
export const LEVEL_DEG = 30;

/**
 * Which face a zone shows, where it has a side of its own and her heading is known.
 * @param options.headingDeg where her bow points, degrees clockwise from north
 */
export function faceOf(options: {
  surface: Pick<Surface, 'kind' | 'exposure' | 'shelter'> & { readonly side?: Side };
  boatShelter: Shelter;
  headingDeg: number | null;
  absorptance: number;
}): HullFace | null {
  const { surface, boatShelter, headingDeg, absorptance } = options;
  const tiltDeg = TILT_DEG[surface.kind];
  if (headingDeg === null || tiltDeg === undefined || isSheltered(surface, boatShelter)) return null;
  const { kind, side } = surface;
  const level = tiltDeg < LEVEL_DEG;
  if (!level && side !== 'port' && side !== 'starboard' && kind !== 'transom') return null;
  const turn = kind === 'transom' ? 180 : side === 'port' ? -90 : side === 'starboard' ? 90 : 0;
  return { azimuthDeg: (headingDeg + turn + 360) % 360, tiltDeg, absorptance, openness: level ? OPENNESS[kind] : 1 };
}

/**
 * Weather over all the days of a plan: where the forecast ends, a typical year of the place goes on, that of a file where
 * there is one.
 * @example withTypicalYear(steady, { seed: 'quay', latitudeDeg: 50, utcOffsetH: 0 }, noon).typicalFrom // → null
 */
export function withTypicalYear<H extends WeatherHour>(
  hours: readonly H[],
  place: { readonly seed: string; readonly latitudeDeg: number; readonly utcOffsetH: number },
  until: number,
  year: Epw | null = null,
): { hours: WeatherHour[]; typicalFrom: number | null } {
  const last = hours[hours.length - 1];
  if (!last || last.at >= until) return { hours: [...hours], typicalFrom: null };
  const from = last.at + HOUR_MS;
  const count = Math.ceil((until - from) / HOUR_MS) + 1;
  const issuedAt = from - (FORECAST_DAYS + 1) * 24 * HOUR_MS;
  const tail = year ? typicalHours(year, from, count) : simulateForecast({ ...place, from, hours: count, issuedAt });
  return { hours: [...hours, ...tail], typicalFrom: from };
}

/** The series of all zones on one weather of the boat. */
export function seriesOfZones(
  hours: readonly WeatherHour[],
  zones: readonly ZoneAir[],
  sunAt: (at: number) => SunPosition,
): Record<string, PlanSeries> {
  const series: Record<string, PlanSeries> = {};
  for (const { key, spans, openness, face, readings } of zones) {
    if (series[key]) continue;
    const air = spans.length > 0 ? underShelter(hours, spans) : [...hours];
    const surface = face
      ? surfaceByFace({ weather: air, face, sunAt, readings })
      : surfaceSeries({ weather: air, readings, openness });
    series[key] = { air, surface };
  }
  return series;
}

/**
 * One of the weathers that the forecast allows, as it is on every zone.
 * @example
 *   memberSeries({
 *     hours: steady,
 *     zones: [],
 *     sunAt: () => ({ azimuthDeg: 0, altitudeDeg: 0 }),
 *     seed: 1,
 *     issuedAt: noon,
 *     member: 1,
 *   }) // → {}
 */
export function memberSeries(options: {
  hours: readonly WeatherHour[];
  zones: readonly ZoneAir[];
  sunAt: (at: number) => SunPosition;
  seed: string | number;
  issuedAt: number;
  member: number;
}): Record<string, PlanSeries> {
  const { hours, zones, sunAt, seed, issuedAt, member } = options;
  return seriesOfZones(memberOf(hours, { seed, issuedAt, member }), zones, sunAt);
}
