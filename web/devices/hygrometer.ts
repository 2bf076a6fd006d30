import { temperatureAt } from '#core/air/surfaceSeries';
import { weatherAt } from '#core/air/weather';
import { zoneReadings } from '#core/coat/fold';
import { zoneSeries } from '#core/coat/zoneSeries';
import type { ReadingBody } from '#core/model/log';
import type { BoatView } from '../data/store';

const round = (value: number, digits: number) => Number(value.toFixed(digits));

/** Off by a little, as a hand-held one is: the same within a minute. */
const wobble = (at: number, nth: number) => Math.sin(Math.floor(at / 60_000) * 12.9898 + nth * 78.233);

/**
 * What a hygrometer and a surface thermometer held to a zone would read now. Simulated: it goes by the weather that is
 * known, and whoever shows it says so. Null where no weather is known.
 */
export function readSimulated(view: BoatView, surfaceId: string, at: number): Omit<ReadingBody, 'surfaceId'> | null {
  const air = weatherAt(view.hours, at);
  const surface = view.surfaces.find((s) => s.id === surfaceId);
  if (!air || !surface) return null;
  const temps = zoneSeries(surface, view.hours, zoneReadings(view.entries, surfaceId), view.boat);
  const surfaceC = temps.length > 0 ? temperatureAt(temps, at) : air.airC;
  return {
    airC: round(air.airC + 0.3 * wobble(at, 1), 1),
    rh: Math.min(1, round(air.rh + 0.01 * wobble(at, 2), 2)),
    surfaceC: round(surfaceC + 0.3 * wobble(at, 3), 1),
  };
}
