import { withSeason } from '../air/season';
import { surfaceSeries } from '../air/surfaceSeries';
import type { SourcedHour, SurfaceReading, TempSample } from '../air/weather';
import { OPENNESS, isSheltered } from '../hull/zones';
import type { Shelter, Surface } from '../model/surface';

/** The boat, as far as her zones' temperatures go. */
export interface SeriesBoat {
  readonly shelter?: Shelter;
  readonly latitudeDeg?: number;
}

/** How far sun and sky reach a zone, 0–1. */
export const openness = (surface: Surface, boat?: Shelter) => (isSheltered(surface, boat) ? 0 : OPENNESS[surface.kind]);

/**
 * The surface series of a zone; empty when there is no weather at all.
 * @param boat what stands over her; with her latitude the series goes on beyond the weather, as is typical of the season
 * @example zoneSeries(zone, steady, []).length // → 97
 */
export function zoneSeries(
  surface: Surface,
  hours: readonly SourcedHour[],
  readings: readonly SurfaceReading[],
  boat?: SeriesBoat,
): TempSample[] {
  if (hours.length === 0) return [];
  const temps = surfaceSeries({ weather: hours, readings, openness: openness(surface, boat?.shelter) });
  return boat?.latitudeDeg === undefined ? temps : withSeason(temps, boat.latitudeDeg);
}
