import { Impossible } from '../impossible';

/**
 * Quantities and the units they are shown and typed in. SI inside: every unit says how many of the
 * core's unit one of it is (and the offset, for temperatures read off a thermometer).
 *
 * Sources: inch 25.4 mm, foot 0.3048 m, pound 0.45359237 kg [P: international yard and pound
 * agreement, 1959]; US gallon 231 in³, US fluid ounce 1/128 of it [P: NIST Handbook 44, App. C];
 * imperial gallon 4.54609 L, fluid ounce 1/160 of it [P: UK Weights and Measures Act 1985].
 */
export type QuantityName =
  | 'length'
  | 'width'
  | 'area'
  | 'volume'
  | 'film'
  | 'temperature'
  | 'temperatureDifference'
  | 'mass'
  | 'density'
  | 'spreadingRate'
  | 'windSpeed'
  | 'duration'
  | 'percent';

export type UnitSystem = 'metric' | 'us';

export interface Unit {
  readonly id: string;
  /** As printed after a figure. */
  readonly symbol: string;
  /** Other spellings accepted when typed, lower case. */
  readonly aliases: readonly string[];
  /** Core value = typed · factor + offset. */
  readonly factor: number;
  readonly offset?: number;
  readonly digits: number;
}

export interface Quantity {
  readonly name: QuantityName;
  /** The first unit that fits the size of a figure is used; all may be typed. */
  readonly units: readonly Unit[];
  readonly shown: Record<UnitSystem, readonly string[]>;
}

const INCH_M = 0.0254;
const FOOT_M = 0.3048;
const POUND_KG = 0.45359237;
export const US_GALLON_L = 231 * (INCH_M * 10) ** 3;
export const IMPERIAL_GALLON_L = 4.54609;
export const SQUARE_FOOT_M2 = FOOT_M ** 2;
export const MIL_MICRON = 25.4;

const unit = (
  id: string,
  symbol: string,
  factor: number,
  digits: number,
  aliases: string[] = [],
  offset = 0,
): Unit => ({
  id,
  symbol,
  aliases,
  factor,
  offset,
  digits,
});

export const QUANTITIES: Record<QuantityName, Quantity> = {
  length: {
    name: 'length',
    units: [
      unit('m', 'm', 1, 2, ['metre', 'metres', 'meter', 'meters']),
      unit('cm', 'cm', 0.01, 1),
      unit('mm', 'mm', 0.001, 0),
      unit('ft', 'ft', FOOT_M, 2, ["'", '′', 'feet', 'foot']),
      unit('in', 'in', INCH_M, 2, ['"', '″', 'inch', 'inches']),
    ],
    shown: { metric: ['m'], us: ['ft'] },
  },
  // What a hand spans: pots, strips, tapes.
  width: {
    name: 'width',
    units: [
      unit('cm', 'cm', 0.01, 1),
      unit('mm', 'mm', 0.001, 0),
      unit('m', 'm', 1, 2, ['metre', 'metres', 'meter', 'meters']),
      unit('in', 'in', INCH_M, 1, ['"', '″', 'inch', 'inches']),
      unit('ft', 'ft', FOOT_M, 2, ["'", '′', 'feet', 'foot']),
    ],
    shown: { metric: ['cm'], us: ['in'] },
  },
  area: {
    name: 'area',
    units: [
      unit('m2', 'm²', 1, 1, ['m^2', 'sqm', 'sq m']),
      unit('ft2', 'ft²', SQUARE_FOOT_M2, 0, ['ft^2', 'sqft', 'sq ft', 'sf']),
      unit('cm2', 'cm²', 1e-4, 0, ['cm^2', 'sq cm']),
    ],
    shown: { metric: ['m2'], us: ['ft2'] },
  },
  volume: {
    name: 'volume',
    units: [
      unit('L', 'L', 1, 2, ['l', 'litre', 'litres', 'liter', 'liters']),
      unit('mL', 'mL', 0.001, 0, ['ml', 'cc', 'cm3']),
      unit('m3', 'm³', 1000, 2, ['m^3', 'cbm']),
      unit('ft3', 'ft³', (FOOT_M * 10) ** 3, 1, ['ft^3', 'cuft', 'cu ft']),
      unit('galUS', 'US gal', US_GALLON_L, 2, ['gal', 'gallon', 'gallons', 'usgal', 'us gallon', 'us gallons']),
      unit('qtUS', 'US qt', US_GALLON_L / 4, 2, ['qt', 'quart', 'quarts', 'us quart', 'us quarts']),
      unit('ptUS', 'US pt', US_GALLON_L / 8, 2, ['pt', 'pint', 'pints', 'us pint', 'us pints']),
      unit('flozUS', 'fl oz', US_GALLON_L / 128, 1, ['oz', 'floz', 'us fl oz', 'us oz', 'ounce', 'ounces']),
      unit('galImp', 'imp gal', IMPERIAL_GALLON_L, 2, [
        'impgal',
        'uk gal',
        'imperial gallon',
        'imperial gallons',
        'uk gallon',
        'uk gallons',
      ]),
      unit('flozImp', 'imp fl oz', IMPERIAL_GALLON_L / 160, 1, ['imp oz', 'uk oz', 'uk fl oz']),
    ],
    shown: { metric: ['L', 'mL'], us: ['galUS', 'flozUS'] },
  },
  film: {
    name: 'film',
    units: [
      unit('um', 'µm', 1, 0, ['um', 'μm', 'micron', 'microns', 'mic', 'my']),
      unit('mil', 'mil', MIL_MICRON, 1, ['mils', 'thou']),
      unit('mm', 'mm', 1000, 2),
      unit('in', 'in', MIL_MICRON * 1000, 4, ['inch', 'inches', '"', '″']),
    ],
    shown: { metric: ['um'], us: ['mil'] },
  },
  temperature: {
    name: 'temperature',
    units: [
      unit('C', '°C', 1, 1, ['c', 'degc', 'deg c']),
      unit('F', '°F', 5 / 9, 1, ['f', 'degf', 'deg f'], -160 / 9),
      unit('K', 'K', 1, 1, [], -273.15),
    ],
    shown: { metric: ['C'], us: ['F'] },
  },
  // A difference has no offset: 3 °C of spread is 5.4 °F.
  temperatureDifference: {
    name: 'temperatureDifference',
    units: [unit('C', '°C', 1, 1, ['c', 'k', 'degc']), unit('F', '°F', 5 / 9, 1, ['f', 'degf'])],
    shown: { metric: ['C'], us: ['F'] },
  },
  mass: {
    name: 'mass',
    units: [
      unit('kg', 'kg', 1, 2, ['kilo', 'kilos']),
      unit('g', 'g', 0.001, 0, ['gram', 'grams', 'gr']),
      unit('t', 't', 1000, 2, ['tonne', 'tonnes']),
      unit('lb', 'lb', POUND_KG, 2, ['lbs', 'pound', 'pounds', '#']),
      unit('oz', 'oz', POUND_KG / 16, 1, ['ounce', 'ounces']),
    ],
    shown: { metric: ['kg', 'g'], us: ['lb', 'oz'] },
  },
  density: {
    name: 'density',
    units: [
      unit('kgL', 'kg/L', 1, 2, ['kg/l', 'g/ml', 'g/cm3', 'sg']),
      unit('lbgal', 'lb/gal', POUND_KG / US_GALLON_L, 2, ['lb/usgal', 'lbs/gal', 'ppg']),
      unit('kgm3', 'kg/m³', 0.001, 0, ['kg/m3', 'kg/m^3', 'g/l']),
    ],
    shown: { metric: ['kgL'], us: ['lbgal'] },
  },
  spreadingRate: {
    name: 'spreadingRate',
    units: [
      unit('m2L', 'm²/L', 1, 1, ['m2/l', 'm^2/l']),
      unit('ft2gal', 'ft²/gal', SQUARE_FOOT_M2 / US_GALLON_L, 0, ['ft2/gal', 'sqft/gal', 'sq ft/gal']),
    ],
    shown: { metric: ['m2L'], us: ['ft2gal'] },
  },
  windSpeed: {
    name: 'windSpeed',
    units: [
      unit('ms', 'm/s', 1, 0, []),
      unit('mph', 'mph', 0.44704, 0, []),
      unit('kn', 'kn', 1852 / 3600, 0, ['kt', 'kts', 'knots']),
      unit('kmh', 'km/h', 1 / 3.6, 0, ['kmh', 'kph']),
    ],
    shown: { metric: ['ms'], us: ['mph'] },
  },
  duration: {
    name: 'duration',
    units: [
      unit('h', 'h', 1, 1, ['hr', 'hrs', 'hour', 'hours']),
      unit('min', 'min', 1 / 60, 0, ['minute', 'minutes', 'm']),
      unit('d', 'd', 24, 1, ['day', 'days']),
      unit('wk', 'wk', 168, 1, ['week', 'weeks']),
      unit('mo', 'mo', 730, 1, ['month', 'months']),
    ],
    shown: { metric: ['h'], us: ['h'] },
  },
  percent: {
    name: 'percent',
    units: [unit('pct', '%', 0.01, 1, ['percent', 'pc'])],
    shown: { metric: ['pct'], us: ['pct'] },
  },
};

/**
 * One unit of a quantity by its id.
 * @throws RangeError when the quantity has no such unit.
 * @example unitOf('film', 'mil').symbol // → 'mil'
 */
export function unitOf(quantity: QuantityName, id: string): Unit {
  const found = QUANTITIES[quantity].units.find((u) => u.id === id);
  if (!found) throw new Impossible(`There is no unit ${id} for ${quantity}.`);
  return found;
}

/** Core value (SI of the quantity) of a figure in `unitId`. */
export function toCore(quantity: QuantityName, unitId: string, value: number): number {
  const u = unitOf(quantity, unitId);
  return value * u.factor + (u.offset ?? 0);
}

/**
 * A core value told in `unitId`.
 * @example fromCore('temperature', 'F', 20) // → 68
 */
export function fromCore(quantity: QuantityName, unitId: string, core: number): number {
  const u = unitOf(quantity, unitId);
  return (core - (u.offset ?? 0)) / u.factor;
}

/**
 * The units a quantity is shown in, the large one first.
 * @example shownUnits('temperature', 'metric').map((u) => u.symbol) // → ['°C']
 */
export function shownUnits(quantity: QuantityName, system: UnitSystem): readonly Unit[] {
  return QUANTITIES[quantity].shown[system].map((id) => unitOf(quantity, id));
}
