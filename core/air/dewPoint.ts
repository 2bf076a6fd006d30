import { shareAboveZero, temperatureC } from '../guard';

// Magnus coefficients over water [P: WMO No. 8, Guide to Instruments and Methods of Observation].
const A = 17.62;
const B_C = 243.12;

/** Saturation vapour pressure over water, hPa, at `airC` (°C). [P: WMO No. 8] @throws RangeError on impossible input. */
export function saturationHPa({ airC }: { airC: number }): number {
  temperatureC(airC, 'Air temperature');
  return 6.112 * Math.exp((A * airC) / (B_C + airC));
}

/**
 * Dew point, °C, of air at `airC` (°C) and relative humidity `rh` (share, above 0 to 1), by inversion of
 * the saturation formula. [P: WMO No. 8]
 * @throws RangeError on impossible input: RH 0 or above 1, NaN.
 * @example dewPointC({ airC: 20, rh: 0.8 }) // → 16.4
 */
export function dewPointC({ airC, rh }: { airC: number; rh: number }): number {
  temperatureC(airC, 'Air temperature');
  shareAboveZero(rh, 'Relative humidity');
  const gamma = Math.log(rh) + (A * airC) / (B_C + airC);
  return (B_C * gamma) / (A - gamma);
}

/**
 * Relative humidity (share, at most 1) of air at `airC` whose dew point is `dewC`, both °C. [P: WMO No. 8]
 * @example relativeHumidity({ airC: 20, dewC: 20 }) // → 1
 */
export function relativeHumidity({ airC, dewC }: { airC: number; dewC: number }): number {
  return Math.min(1, saturationHPa({ airC: dewC }) / saturationHPa({ airC }));
}

/**
 * Spread: how far the surface is above the dew point, °C (a difference). Negative when dew is forming.
 * [P: ISO 8502-4]
 * @throws RangeError on impossible input.
 */
export function dewSpreadC({ surfaceC, airC, rh }: { surfaceC: number; airC: number; rh: number }): number {
  temperatureC(surfaceC, 'Surface temperature');
  return surfaceC - dewPointC({ airC, rh });
}
