import { notNegative } from '../guard';
import { Impossible } from '../impossible';
import { dewPointC, relativeHumidity } from './dewPoint';
import type { Shelter } from '../model/surface';
import type { WeatherHour } from './weather';

/** A span of time in which something stands over a zone. */
export interface ShelterSpan {
  /** Epoch ms, half open. */
  readonly from: number;
  readonly to: number;
  readonly cover: Shelter;
  /** The heater holds at least this, °C; null: none. */
  readonly heatedToC: number | null;
  /** The dryer holds at most this relative humidity, share; null: none. */
  readonly driedToRh: number | null;
}

/** How much of the sun and of the wind gets in, and whether the rain does. [M] */
const LETS_IN: Record<Shelter, { readonly sun: number; readonly wind: number; readonly rain: boolean }> = {
  open: { sun: 1, wind: 1, rain: true },
  cover: { sun: 0.15, wind: 0.6, rain: false },
  tent: { sun: 0.35, wind: 0.1, rain: false },
  building: { sun: 0, wind: 0, rain: false },
};

/** What a small tent loses for each degree, W/°C, and what heat costs, minor units a kWh, until the yard says. [M] */
export const USUAL_HEAT = { wattsPerC: 150, priceMinorPerKWh: 30 } as const;

/** Under thin sheeting the sun warms the air by so much for each W/m² outside. [M] */
const TENT_SUN_C_PER_WM2 = 0.006;
/** A heater does not warm beyond what a yard can pay or paint can bear, °C. */
const HEAT_MOST_C = 40;

/**
 * Whether rain and wind are kept out.
 * @example keepsRainOut('tent') // → true
 */
export const keepsRainOut = (cover: Shelter): boolean => !LETS_IN[cover].rain;

/**
 * Weather as it is where something stands over a zone for some of the time. Heating leaves the dew point where it is, so
 * that the air gets drier; drying takes water out of it, at the same temperature. A heater in an open yard heats nothing.
 * @throws RangeError where spans overlap or a figure is impossible
 * @example
 *   underShelter(steady, [
 *     { from: noon, to: noon + hour, cover: 'tent', heatedToC: 25, driedToRh: null },
 *   ]).find((h) => h.at === noon).rh // → 0.44
 */
export function underShelter<H extends WeatherHour>(hours: readonly H[], spans: readonly ShelterSpan[]): H[] {
  const ordered = [...spans].sort((a, b) => a.from - b.from);
  ordered.forEach((span, i) => {
    checkSpan(span);
    const next = ordered[i + 1];
    if (next && next.from < span.to)
      throw new Impossible('Two shelters of a zone overlap in time. Let one end where the other begins.');
  });
  return hours.map((hour) => {
    const span = ordered.find((s) => s.from <= hour.at && hour.at < s.to);
    return span ? sheltered(hour, span) : hour;
  });
}

function sheltered<H extends WeatherHour>(hour: H, { cover, heatedToC, driedToRh }: ShelterSpan): H {
  const lets = LETS_IN[cover];
  const closed = cover === 'tent' || cover === 'building';
  const dewC = dewPointC(hour);
  const sunnyC = hour.airC + (cover === 'tent' ? (hour.sunWm2 ?? 0) * TENT_SUN_C_PER_WM2 : 0);
  const airC = closed && heatedToC !== null ? Math.max(sunnyC, heatedToC) : sunnyC;
  const rh = airC === hour.airC ? hour.rh : relativeHumidity({ airC, dewC });
  return {
    ...hour,
    airC,
    rh: closed && driedToRh !== null ? Math.min(rh, driedToRh) : rh,
    ...(hour.windMs === undefined ? {} : { windMs: hour.windMs * lets.wind }),
    ...(hour.rainMm === undefined || lets.rain ? {} : { rainMm: 0 }),
    ...(hour.sunWm2 === undefined ? {} : { sunWm2: hour.sunWm2 * lets.sun }),
    // What is over the zone is as warm as the air: no cold sky is seen.
    ...(hour.cloud === undefined || cover === 'open' ? {} : { cloud: 1 }),
  };
}

function checkSpan({ from, to, heatedToC, driedToRh }: ShelterSpan): void {
  if (!(to > from)) throw new Impossible('A shelter ends before it begins. Check the two times.');
  if (heatedToC !== null && (!Number.isFinite(heatedToC) || heatedToC > HEAT_MOST_C || heatedToC < -20))
    throw new Impossible(`A heater holds up to ${HEAT_MOST_C} °C here. Type what it is set to.`);
  if (driedToRh !== null && !(driedToRh > 0.1 && driedToRh <= 1))
    throw new Impossible('A dryer holds between 10 and 100 %. Type what it is set to.');
}

/**
 * Degree-hours that a heater brings up, °C·h, and about what they cost: each degree is lost again through the cover.
 * @param options.wattsPerC heat that gets lost for each degree inside above outside, W/°C
 * @param options.priceMinorPerKWh minor units of the yard's currency
 * @example
 *   heating({
 *     hours: steady.slice(0, 10),
 *     spans: [{ from: 0, to: Infinity, cover: 'tent', heatedToC: 25, driedToRh: null }],
 *     wattsPerC: 100,
 *     priceMinorPerKWh: 30,
 *   }) // → { degreeHours: 50, kWh: 5, costMinor: 150 }
 */
export function heating(options: {
  hours: readonly WeatherHour[];
  spans: readonly ShelterSpan[];
  wattsPerC: number;
  priceMinorPerKWh: number;
}): { degreeHours: number; kWh: number; costMinor: number } {
  const { hours, spans } = options;
  const wattsPerC = notNegative(options.wattsPerC, 'The heat lost for each degree');
  const price = notNegative(options.priceMinorPerKWh, 'The price of heat');
  let degreeHours = 0;
  for (const hour of hours) {
    const span = spans.find((s) => s.from <= hour.at && hour.at < s.to);
    if (!span || span.heatedToC === null || (span.cover !== 'tent' && span.cover !== 'building')) continue;
    const unheated = sheltered(hour, { ...span, heatedToC: null });
    degreeHours += Math.max(0, span.heatedToC - unheated.airC);
  }
  const kWh = (degreeHours * wattsPerC) / 1000;
  return { degreeHours, kWh, costMinor: Math.round(kWh * price) };
}
