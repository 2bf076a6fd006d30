import { feetAndInches, shownUnit, type UnitChoice } from './format';
import {
  fromCore,
  QUANTITIES,
  shownUnits,
  toCore,
  unitOf,
  type QuantityName,
  type Unit,
  type UnitSystem,
} from './quantities';

interface Refused {
  readonly ok: false;
  readonly message: string;
}

export type Parsed = { readonly ok: true; readonly value: number; readonly unitId: string } | Refused;

const EXAMPLES: Record<QuantityName, string> = {
  length: '9.6, 960 cm or 31\'6"',
  width: '18 cm or 7 in',
  area: '24 or 258 ft2',
  volume: '2.5, 750 ml or 8 oz',
  film: '125 or 5 mil',
  temperature: '18 or 64 F',
  temperatureDifference: '3 or 5 F',
  mass: '1.2, 350 g or 12 oz',
  density: '1.45 or 12 lb/gal',
  spreadingRate: '6.5 or 260 ft2/gal',
  windSpeed: '4 or 10 kn',
  duration: '6, 90 min or 2 d',
  percent: '45',
};

const FRACTIONS: Record<string, string> = {
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
};

/**
 * Read a typed figure of a known quantity, with or without a unit, into the core's unit.
 *
 * The quantity decides what a unit means: "oz" is a volume in the pot and a mass on the scale.
 * A bare number is in the unit shown for `system`. Sums of two units are read ("3'6\"", "5 lb 4 oz"),
 * and fractions of an inch ("7 1/4 in"). A figure that can be read in two ways ("1,500") is asked
 * about, never guessed. A decimal comma that can only be one ("1,5") is taken.
 *
 * A bare number that would be absurd in that unit (a film of 3 µm, a boat of 960 m) is asked about too; with its unit
 * it is taken.
 *
 * @param options.bareUnit id of the unit of a bare number, where it is another one than is shown
 * @example parseQuantity({ quantity: 'film', text: '5 mil', system: 'metric' }) // → { ok: true, value: 127, unitId: 'mil' }
 */
export function parseQuantity(options: {
  quantity: QuantityName;
  text: string;
  system: UnitSystem;
  bareUnit?: string;
}): Parsed {
  const { quantity, system } = options;
  const bare = options.bareUnit ? unitOf(quantity, options.bareUnit) : (shownUnits(quantity, system)[0] as Unit);
  const tidy = tidied(options.text, quantity);
  if ('message' in tidy) return tidy;
  const term = /^([+-]?)\s*(?:(\d+)[\s-]+(\d+)\/(\d+)|(\d+)\/(\d+)|(\d+(?:\.\d*)?(?:e[+-]?\d+)?))\s*/;
  let rest = tidy.text;
  let total = 0;
  let sign = 1;
  let terms = 0;
  let lastUnit: Unit | null = null;
  while (rest !== '') {
    const match = term.exec(rest);
    if (!match) return fail(notRead(options.text, quantity));
    const [whole, minus, mixedWhole, mixedTop, mixedBottom, top, bottom, decimal] = match;
    if (terms > 0 && minus) return fail(notRead(options.text, quantity));
    if (minus === '-') sign = -1;
    const value: number =
      mixedWhole !== undefined
        ? Number(mixedWhole) + Number(mixedTop) / Number(mixedBottom)
        : top !== undefined
          ? Number(top) / Number(bottom)
          : Number(decimal);
    if (!Number.isFinite(value)) return fail(notRead(options.text, quantity));
    rest = rest.slice(whole.length);
    const unitText = /^[^\d+-]*?(?:\^2|2|3)?(?:\/[a-zé]+)?(?=\s|$|\d|-)/.exec(rest)?.[0] ?? '';
    const spelled = longestUnit(quantity, rest);
    let unit: Unit;
    if (spelled) {
      unit = spelled.unit;
      rest = rest.slice(spelled.length).trim();
    } else if (rest === '') {
      unit = terms > 0 && lastUnit ? (nextSmaller(lastUnit, quantity) ?? bare) : bare;
      if (terms === 0 && !options.bareUnit && isAbsurd(quantity, unit, sign * value))
        return fail(askUnit(options.text, quantity, unit));
    } else {
      return fail(`"${unitText.trim() || rest}" is not a unit of ${words(quantity)}. Use ${unitList(quantity)}.`);
    }
    if (terms > 0 && (unit.offset || (lastUnit && unit.factor >= lastUnit.factor)))
      return fail(notRead(options.text, quantity));
    total += terms === 0 ? toCore(quantity, unit.id, sign * value) : sign * value * unit.factor;
    lastUnit = unit;
    terms += 1;
  }
  return { ok: true, value: total, unitId: (lastUnit as Unit).id };
}

/**
 * Signs that a figure wears where it is printed or set by a word processor, as a keyboard has them: our own "≈ 165 ft²"
 * pasted back, curly quotes, primes, narrow spaces, a lone degree sign.
 */
function plainSigns(typed: string): string {
  return typed
    .trim()
    .toLowerCase()
    .replace(/^[≈~]\s*/, '')
    .replace(/−/g, '-')
    .replace(/[\u00a0\u2009\u202f]/g, ' ')
    .replace(/[’‘′]/g, "'")
    .replace(/[“”″]/g, '"')
    .replace(/''/g, '"')
    .replace(/\s*[°º]$/, '');
}

/** The text in one spelling; or what is to be asked about it. */
function tidied(typed: string, quantity: QuantityName): { text: string } | Refused {
  let text = plainSigns(typed);
  for (const [mark, spelled] of Object.entries(FRACTIONS)) text = text.replaceAll(mark, spelled);
  if (text === '') return fail(`Type a figure, for example ${EXAMPLES[quantity]}.`);
  const ambiguous = /(^|[^\d.,])(\d{1,3})([,'])(\d{3})(?![\d,.])/.exec(text);
  if (ambiguous && ambiguous[2] !== '0') {
    const [, , whole, mark, rest] = ambiguous as unknown as [string, string, string, string, string];
    const other = mark === ',' ? `${whole}.${rest}` : `${whole} ft ${rest} in`;
    return fail(
      `"${whole}${mark}${rest}" could be ${whole}${rest} or ${other}. Type it without the ${mark === ',' ? 'comma' : 'mark'}.`,
    );
  }
  if (/,\d*,|\d\.\d*\.|,\d*\.|\.\d*,/.test(text))
    return fail(`"${typed.trim()}" has too many points or commas. Type it as ${EXAMPLES[quantity]}.`);
  text = text.replace(/(\d),(\d)/g, '$1.$2').replace(/(^|[^\d])[,.](\d)/g, '$10.$2');
  // "8 oz." and "3'-6"" are how they are written on drawings and labels.
  return { text: text.replace(/([a-z])\.(?=\s|$)/g, '$1').replace(/('|ft|feet)\s*-\s*(?=\d)/g, '$1 ') };
}

const askUnit = (text: string, quantity: QuantityName, unit: Unit): string =>
  `"${text.trim()}" would be ${text.trim()} ${unit.symbol}. If that is meant, type the unit with it; other units are ${unitList(
    quantity,
    unit,
  )}.`;

function fail(message: string): Refused {
  return { ok: false, message };
}

function notRead(text: string, quantity: QuantityName): string {
  return `"${text.trim()}" could not be read. Type it as ${EXAMPLES[quantity]}.`;
}

/** The longest spelling that the text starts with and that ends where a word ends. */
function longestUnit(quantity: QuantityName, text: string): { unit: Unit; length: number } | null {
  let best: { unit: Unit; length: number } | null = null;
  for (const unit of QUANTITIES[quantity].units) {
    for (const name of [unit.symbol.toLowerCase(), unit.id.toLowerCase(), ...unit.aliases]) {
      if (!text.startsWith(name)) continue;
      const after = text.charAt(name.length);
      if (/[a-z]/.test(after) && /[a-z]$/.test(name)) continue;
      if (after === '/' || after === '^') continue;
      if (!best || name.length > best.length) best = { unit, length: name.length };
    }
  }
  return best;
}

/** After "3'" a bare figure is inches; after "5 lb" ounces. */
function nextSmaller(unit: Unit, quantity: QuantityName): Unit | undefined {
  const pairs: Record<string, string> = { ft: 'in', lb: 'oz', h: 'min', m: 'cm' };
  return QUANTITIES[quantity].units.find((u) => u.id === pairs[unit.id]);
}

function words(quantity: QuantityName): string {
  const names: Partial<Record<QuantityName, string>> = {
    temperatureDifference: 'a temperature difference',
    spreadingRate: 'coverage',
    windSpeed: 'wind speed',
    film: 'film thickness',
    duration: 'time',
  };
  return names[quantity] ?? quantity;
}

/** All units that are read for a quantity, but the one left out. */
function unitList(quantity: QuantityName, without?: Unit): string {
  return QUANTITIES[quantity].units
    .filter((u) => u !== without)
    .map((u) => u.symbol)
    .join(', ');
}

/** Bare numbers outside of this, in the unit that is shown, are a slip or meant in another unit. */
const SENSIBLE: Partial<Record<QuantityName, Record<string, readonly [low: number, high: number]>>> = {
  film: { um: [5, 5000], mil: [0.2, 200] },
  // Below zero is to starboard, or under the waterline.
  length: { m: [-100, 100], ft: [-330, 330] },
  temperature: { C: [-40, 60], F: [-40, 140] },
  density: { kgL: [0.4, 5], lbgal: [3, 42] },
  mass: { kg: [0, 1000], lb: [0, 2200] },
};

/**
 * Whether a bare number in a unit is a slip, most likely, or meant in another unit.
 * @example isAbsurd('film', unitOf('film', 'um'), 3) // → true
 */
export function isAbsurd(quantity: QuantityName, unit: Unit, value: number): boolean {
  const bounds = SENSIBLE[quantity]?.[unit.id];
  return bounds !== undefined && value !== 0 && (value < bounds[0] || value > bounds[1]);
}

/**
 * A bare number as it was typed, with a point or a comma; not a number where it cannot be read, or could be two.
 * @returns null where nothing was typed
 * @example parsePlain('12,50') // → 12.5
 * @example parsePlain('1,500') // → NaN
 */
export function parsePlain(typed: string): number | null {
  const text = plainSigns(typed);
  if (text === '') return null;
  return /^-?\d{1,3},\d{3}$/.test(text) && !/^-?0,/.test(text) ? Number.NaN : Number(text.replace(',', '.'));
}

/**
 * The text that goes into an input field, in the shown unit, to five figures; the value behind it stays whole.
 * @example editText('length', 3.2, { system: 'metric' }) // → '3.2'
 */
export function editText(quantity: QuantityName, core: number | null | undefined, choice: UnitChoice): string {
  if (core === null || core === undefined || !Number.isFinite(core)) return '';
  const u = shownUnit(quantity, choice);
  if (quantity === 'length' && u.id === 'ft') return feetAndInches(core, 2);
  const value = Number(fromCore(quantity, u.id, core).toPrecision(5));
  return isAbsurd(quantity, u, value) ? `${value} ${u.symbol}` : String(value);
}
