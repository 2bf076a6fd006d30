import type { TempSample } from './weather';

const DAY_MS = 86_400_000;
/** Beyond the forecast a clock runs on the typical temperature for so long. */
const AHEAD_DAYS = 60;

/**
 * Typical mean temperature of a day, °C, by latitude and season near a temperate coast: 28 °C less a third of a degree
 * for each of latitude over the year, with a swing that grows towards the poles, coldest late in January. [M]
 * @param options.latitudeDeg north positive
 * @param options.at epoch ms
 * @example seasonMeanC({ latitudeDeg: 50, at: noon }) // → 17
 */
export function seasonMeanC({ latitudeDeg, at }: { latitudeDeg: number; at: number }): number {
  const dayOfYear = (at / DAY_MS) % 365.25;
  const south = latitudeDeg < 0 ? -1 : 1;
  const season = -Math.cos((2 * Math.PI * (dayOfYear - 24)) / 365.25) * south;
  return 28 - 0.33 * Math.abs(latitudeDeg) + season * (1 + 0.16 * Math.abs(latitudeDeg));
}

/**
 * A surface series that goes on beyond its end at the typical temperature of the season, a sample a day for two months.
 * @example withSeason(temps, 50).length - temps.length // → 60
 */
export function withSeason(temps: readonly TempSample[], latitudeDeg: number): TempSample[] {
  const last = temps[temps.length - 1];
  if (!last) return [];
  return [
    ...temps,
    ...Array.from({ length: AHEAD_DAYS }, (_, i) => {
      const at = last.at + (i + 1) * DAY_MS;
      return { at, tempC: seasonMeanC({ latitudeDeg, at }) };
    }),
  ];
}
