import { surfaceSeries } from '../air/surfaceSeries';
import type { SourcedHour, SurfaceReading, TempSample } from '../air/weather';
import { OPENNESS, isSheltered } from '../hull/zones';
import type { Shelter, Surface } from '../model/surface';

/** How far sun and sky reach a zone, 0–1. */
export const openness = (surface: Surface, boat?: Shelter) => (isSheltered(surface, boat) ? 0 : OPENNESS[surface.kind]);

/**
 * The surface series of a zone; empty when there is no weather at all.
 * @param boat what stands over the whole boat
 * @example zoneSeries(zone, steady, []).length // → 97
 */
export function zoneSeries(
  surface: Surface,
  hours: readonly SourcedHour[],
  readings: readonly SurfaceReading[],
  boat?: Shelter,
): TempSample[] {
  if (hours.length === 0) return [];
  return surfaceSeries({ weather: hours, readings, openness: openness(surface, boat) });
}
