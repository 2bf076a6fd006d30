import { finite, notNegative, positive } from '../guard';
import { Impossible } from '../impossible';
import { surfaceSeries } from './surfaceSeries';
import type { SurfaceReading, TempSample, WeatherHour } from './weather';

/**
 * Sol-air temperature, °C: the air that would warm a surface as much as air, sun and night sky do together.
 * t + (α·I − ε·ΔR)/h [P: ASHRAE Fundamentals, sol-air temperature].
 * @param options.incidentWm2 sun on the face, beam and diffuse, W/m²
 * @param options.absorptance share of it taken up, 0–1
 * @param options.filmWm2K heat given to the air, W/(m²·K)
 * @param options.skyLossWm2 ε·ΔR, what the face sends to the sky more than it gets back, W/m²
 * @throws RangeError on impossible figures
 * @example solAirC({ airC: 25, incidentWm2: 600, absorptance: 0.9, filmWm2K: 17, skyLossWm2: 63 }) // → 53.1
 */
export function solAirC(options: {
  airC: number;
  incidentWm2: number;
  absorptance: number;
  filmWm2K: number;
  skyLossWm2: number;
}): number {
  const { airC, incidentWm2, absorptance, filmWm2K, skyLossWm2 } = options;
  if (notNegative(absorptance, 'Absorptance') > 1) throw new Impossible('Absorptance is a share: 0 to 1.');
  return (
    finite(airC, 'Air temperature') +
    (absorptance * notNegative(incidentWm2, 'Sunshine') - finite(skyLossWm2, 'The loss to the sky')) /
      positive(filmWm2K, 'The heat given to the air')
  );
}

/** Where the sun stands: degrees clockwise from north, and above the horizon (below it: negative). */
export interface SunPosition {
  readonly azimuthDeg: number;
  readonly altitudeDeg: number;
}

/** A face of a hull in the yard. */
export interface HullFace {
  /** Which way it looks, degrees clockwise from north. */
  readonly azimuthDeg: number;
  /** 0 level and looking up, 90 upright, 180 looking down. */
  readonly tiltDeg: number;
  /** Share of the sun that its colour takes up: white about 0.25, mid 0.6, dark 0.9. */
  readonly absorptance: number;
  /** 0 no sky and no sun reach it (inside, under a roof) … 1 in the open. */
  readonly openness: number;
}

const RAD = Math.PI / 180;
/** What the sun brings above the air at its mean distance, W/m². [P: ASHRAE Fundamentals] */
const SOLAR_CONSTANT_WM2 = 1367;
/** Concrete, gravel and short grass throw back about a fifth. [P: ASHRAE Fundamentals] */
const GROUND_REFLECTS = 0.2;
/** A level face under a clear sky loses so much, an upright one nothing. [P: ASHRAE Fundamentals] */
const CLEAR_SKY_LOSS_WM2 = 63;
/** Heat given to the air: still, and for every m/s of wind. [P: McAdams, Heat Transmission] */
const FILM_STILL_WM2K = 5.7;
const FILM_WIND = 3.8;
/** Outdoors the air is never quite still along a hull, m/s; and no skin gets hotter than this, °C. [M] */
const LEAST_WIND_MS = 0.8;
const SKIN_MOST_C = 85;
/** What radiates to the surroundings beside it. [P: ASHRAE Fundamentals] */
const FILM_RADIANT_WM2K = 5;

/**
 * Sunshine on a face, W/m², from that on level ground: split into beam and diffuse by the clearness of the sky [P: Erbs,
 * Klein and Duffie 1982], the beam turned onto the face, the diffuse from its share of the sky, and the ground's
 * reflection.
 * @example
 *   faceSunWm2({
 *     sunWm2: 500,
 *     sun: { azimuthDeg: 180, altitudeDeg: 30 },
 *     face: { azimuthDeg: 0, tiltDeg: 0, absorptance: 0.5, openness: 1 },
 *   }) // → 500
 */
export function faceSunWm2({ sunWm2, sun, face }: { sunWm2: number; sun: SunPosition; face: HullFace }): number {
  notNegative(sunWm2, 'Sunshine');
  const height = Math.sin(sun.altitudeDeg * RAD);
  const tilt = face.tiltDeg * RAD;
  const sky = (1 + Math.cos(tilt)) / 2;
  const ground = sunWm2 * GROUND_REFLECTS * (1 - sky);
  if (height <= 0.02) return sunWm2 * sky + ground;
  const clearness = Math.min(1, sunWm2 / (SOLAR_CONSTANT_WM2 * height));
  // Low sun on an upright face would be many times what lies on the ground: no more than gets through the air.
  const beam = Math.min((sunWm2 * (1 - diffuseShare(clearness))) / height, clearBeamWm2(sun.altitudeDeg));
  const diffuse = sunWm2 - beam * height;
  const facing =
    height * Math.cos(tilt) +
    Math.cos(sun.altitudeDeg * RAD) * Math.sin(tilt) * Math.cos((sun.azimuthDeg - face.azimuthDeg) * RAD);
  return Math.max(0, facing) * beam + diffuse * sky + ground;
}

/**
 * The most that the sun itself brings through a clear sky, W/m² across its rays, by how much air it comes through.
 * [P: Kasten and Young 1989 for the air mass; Meinel and Meinel 1976 for what is left]
 * @example Math.round(clearBeamWm2(90)) // → 947
 */
export function clearBeamWm2(altitudeDeg: number): number {
  if (altitudeDeg <= 0) return 0;
  const airMass = 1 / (Math.sin(altitudeDeg * RAD) + 0.50572 * (altitudeDeg + 6.07995) ** -1.6364);
  return 1353 * 0.7 ** (airMass ** 0.678);
}

/** Share of the sunshine that comes from all of the sky. [P: Erbs, Klein and Duffie 1982] */
function diffuseShare(k: number): number {
  if (k <= 0.22) return 1 - 0.09 * k;
  if (k > 0.8) return 0.165;
  return 0.9511 - 0.1604 * k + 4.388 * k ** 2 - 16.638 * k ** 3 + 12.336 * k ** 4;
}

/**
 * Temperature of one face of a boat through time, °C: air, sun and night sky by its colour, the way it looks and its
 * tilt, the wind; moved by readings on it, whose difference fades over some six hours [CP]. The skin is taken to follow
 * at once: a thick or wet one lags behind.
 *
 * @param options.weather ascending; without `sunWm2` and `cloud` a face is as warm as the air
 * @param options.sunAt where the sun stands at an instant, epoch ms
 * @returns a sample at every hour, and where a reading makes a step
 * @throws RangeError when the weather is empty or out of order, or a figure is impossible
 * @example
 *   surfaceByFace({
 *     weather: [{ at: noon, airC: 20, rh: 0.5, sunWm2: 600, cloud: 0, windMs: 3 }],
 *     face: { azimuthDeg: 180, tiltDeg: 90, absorptance: 0.9, openness: 1 },
 *     sunAt: () => ({ azimuthDeg: 180, altitudeDeg: 40 }),
 *     readings: [],
 *   })[0].tempC // → 47
 */
export function surfaceByFace(options: {
  weather: readonly WeatherHour[];
  face: HullFace;
  sunAt: (at: number) => SunPosition;
  readings: readonly SurfaceReading[];
}): TempSample[] {
  const { weather, face, sunAt, readings } = options;
  if (notNegative(face.openness, 'Openness') > 1) throw new Impossible('Openness is a share: 0 to 1.');
  const carried = weather.map((hour) => ({ ...hour, airC: faceC(hour, face, sunAt) }));
  return surfaceSeries({ weather: carried.map(({ at, airC }) => ({ at, airC })), readings });
}

function faceC(hour: WeatherHour, face: HullFace, sunAt: (at: number) => SunPosition): number {
  const { airC, sunWm2, cloud, windMs = 2 } = hour;
  if (face.openness === 0) return airC;
  const sky = (1 + Math.cos(face.tiltDeg * RAD)) / 2;
  const loss = cloud === undefined ? 0 : CLEAR_SKY_LOSS_WM2 * (1 - cloud) * Math.max(0, 2 * sky - 1 + 0.25 * (1 - sky));
  const incident = sunWm2 === undefined || sunWm2 <= 0 ? 0 : faceSunWm2({ sunWm2, sun: sunAt(hour.at), face });
  const skinC = solAirC({
    airC,
    incidentWm2: incident * face.openness,
    absorptance: face.absorptance,
    filmWm2K: FILM_STILL_WM2K + FILM_RADIANT_WM2K + FILM_WIND * Math.max(LEAST_WIND_MS, windMs),
    skyLossWm2: loss * face.openness,
  });
  return Math.min(skinC, Math.max(airC, SKIN_MOST_C));
}

/**
 * Share of the sun that a colour takes up, from its shade: luminance turned into absorptance, white about 0.25, black
 * 0.95. [M]
 * @example colourAbsorptance('#ffffff') // → 0.25
 */
export function colourAbsorptance(hex: string): number {
  const value = (i: number) => (parseInt(hex.slice(i, i + 2), 16) / 255) ** 2.2;
  const luminance = 0.2126 * value(1) + 0.7152 * value(3) + 0.0722 * value(5);
  return Number.isFinite(luminance) ? 0.95 - 0.7 * luminance : 0.6;
}
