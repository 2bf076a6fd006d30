import { allowedStarts } from '../air/allowedStarts';
import { memberOf } from '../air/forecast';
import { temperatureAt } from '../air/surfaceSeries';
import type { TempSample, WeatherHour } from '../air/weather';
import type { PaintMethod } from '../model/paintMethod';
import type { SheetBody } from '../model/sheet';

const HOUR_MS = 3_600_000;
/** A coat that is not touch dry after so long waits for other weather. */
const AHEAD_MS = 48 * HOUR_MS;

/**
 * In what share of the weathers that the forecast allows a coat begun at an instant holds its limits until it is touch dry.
 * The surface is off by as much as its air.
 * @param options.hours weather, ascending
 * @param options.surface surface of the zone, ascending
 * @param options.at start, epoch ms
 * @param options.issuedAt since when the weather is a forecast, epoch ms
 * @param options.durationH hours to put it on
 * @returns share, or null where the weather says nothing of that time
 * @throws RangeError on impossible figures
 * @example
 *   startOdds({
 *     hours: steady,
 *     surface: temps,
 *     at: noon,
 *     issuedAt: noon,
 *     sheet,
 *     method: 'roller',
 *     durationH: 1,
 *     sheltered: false,
 *     seed: 1,
 *   }) // → 1
 */
export function startOdds(options: {
  hours: readonly WeatherHour[];
  surface: readonly TempSample[];
  at: number;
  issuedAt: number;
  sheet: Pick<SheetBody, 'limits' | 'touchDry' | 'minCureC'>;
  method: PaintMethod;
  durationH: number;
  sheltered: boolean;
  seed: string | number;
  members?: number;
}): number | null {
  const { at, issuedAt, sheet, method, durationH, sheltered, seed, members = 40 } = options;
  const near = ({ at: t }: { at: number }) => t > at - 3 * HOUR_MS && t < at + AHEAD_MS;
  const hours = options.hours.filter(near);
  const last = hours[hours.length - 1];
  if (!last || (hours[0] as WeatherHour).at > at || last.at < at + durationH * HOUR_MS) return null;
  const base = hours.map((h) => temperatureAt(options.surface, h.at));
  let held = 0;
  for (let member = 1; member <= members; member += 1) {
    const air = memberOf(hours, { seed, issuedAt, member });
    const surface = air.map((h, i) => ({
      at: h.at,
      tempC: (base[i] as number) + h.airC - (hours[i] as WeatherHour).airC,
    }));
    const starts = allowedStarts({
      series: { air, surface },
      limits: sheet.limits,
      method,
      durationH,
      touchDry: sheet.touchDry,
      minCureC: sheet.minCureC,
      from: at,
      to: at,
      sheltered,
    });
    if (starts.length > 0) held += 1;
  }
  return held / members;
}
