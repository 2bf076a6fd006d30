import { dewPointC, relativeHumidity } from './dewPoint';
import { weatherAt, type WeatherHour } from './weather';

/** Air as it was read at the hull. */
export interface AirReading {
  /** Epoch ms. */
  readonly at: number;
  readonly airC: number | null;
  /** Share. */
  readonly rh: number | null;
}

/** So long before and after a reading the weather is still told by it, less and less. [M] */
const FADE_MS = 3 * 3_600_000;

interface Off {
  readonly at: number;
  readonly by: number;
}

/**
 * Past weather as it was read at the hull: each reading holds at its own time, between two of them what the weather was off
 * by goes over from one to the other, and beside the last it fades within three hours. Air and dew point are put right,
 * humidity follows from them. What lies ahead stays the forecast.
 * @param until epoch ms; hours after it stay
 * @example withAirReadings(steady, [{ at: noon, airC: 22, rh: null }], noon).find((h) => h.at === noon).airC // → 22
 */
export function withAirReadings<H extends WeatherHour>(
  hours: readonly H[],
  readings: readonly AirReading[],
  until: number,
): H[] {
  const air: Off[] = [];
  const dew: Off[] = [];
  for (const { at, airC, rh } of [...readings].sort((a, b) => a.at - b.at)) {
    const told = weatherAt(hours, at);
    if (!told || (airC === null && rh === null)) continue;
    const readC = airC ?? told.airC;
    air.push({ at, by: readC - told.airC });
    if (rh !== null) dew.push({ at, by: dewPointC({ airC: readC, rh }) - dewPointC(told) });
  }
  if (air.length === 0) return [...hours];
  return hours.map((hour) => {
    const airBy = hour.at > until ? 0 : offAt(air, hour.at);
    const dewBy = hour.at > until ? 0 : offAt(dew, hour.at);
    if (airBy === 0 && dewBy === 0) return hour;
    const airC = hour.airC + airBy;
    return { ...hour, airC, rh: relativeHumidity({ airC, dewC: Math.min(airC, dewPointC(hour) + dewBy) }) };
  });
}

/** Index of the first at or after an instant; as many as there are where none is. */
function firstFrom(offs: readonly Off[], at: number): number {
  let low = 0;
  let high = offs.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((offs[middle] as Off).at < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** What the weather was off by at an instant, from the readings before and after it. */
function offAt(offs: readonly Off[], at: number): number {
  const after = firstFrom(offs, at);
  const next = offs[after];
  const before = offs[after - 1];
  if (before && next && next.at - before.at <= FADE_MS)
    return before.by + ((next.by - before.by) * (at - before.at)) / (next.at - before.at || 1);
  const share = (o: Off | undefined) => (o ? o.by * Math.max(0, 1 - Math.abs(at - o.at) / FADE_MS) : 0);
  return share(before) + share(next);
}
