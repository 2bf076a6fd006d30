import { fromCore, QUANTITIES, unitOf, US_GALLON_L, type QuantityName, type Unit, type UnitSystem } from './quantities';

/** Which system each quantity is shown in: one for all, with exceptions ("metric, but film in mils"). */
export interface UnitChoice {
  readonly system: UnitSystem;
  readonly except?: Partial<Record<QuantityName, UnitSystem>>;
}

/**
 * The system a quantity is shown in.
 * @example systemFor({ system: 'metric', except: { film: 'us' } }, 'film') // → 'us'
 */
export function systemFor(choice: UnitChoice, quantity: QuantityName): UnitSystem {
  return choice.except?.[quantity] ?? choice.system;
}

/**
 * The unit a figure of this size is shown in: the small one (mL, g, oz) below a tenth or so of the large.
 * @example shownUnit('film', { system: 'us' }).symbol // → 'mil'
 */
export function shownUnit(quantity: QuantityName, choice: UnitChoice, core?: number): Unit {
  const ids = QUANTITIES[quantity].shown[systemFor(choice, quantity)];
  const large = unitOf(quantity, ids[0] as string);
  const smallId = ids[1];
  if (smallId === undefined || core === undefined || core === 0) return large;
  const small = unitOf(quantity, smallId);
  // Below one litre people read millilitres; below a quarter gallon, ounces.
  const limit = quantity === 'volume' && large.id === 'galUS' ? 0.25 : 1;
  return Math.abs(fromCore(quantity, large.id, core)) < limit ? small : large;
}

export interface Figure {
  readonly number: string;
  readonly unit: string;
}

/**
 * A core value as number and unit, apart, so that the unit can be set lighter than the number.
 * @example figure('volume', 2.5, { system: 'metric' }) // → { number: '2.50', unit: 'L' }
 */
export function figure(quantity: QuantityName, core: number, choice: UnitChoice, digits?: number, unit?: Unit): Figure {
  const u = unit ?? shownUnit(quantity, choice, core);
  if (u.id === 'ft' && quantity === 'length') return { number: feetAndInches(core, 1), unit: '' };
  const value = fromCore(quantity, u.id, core);
  // A patch of a third of a square metre is not 0.3 of one.
  const usual = u.id === 'm2' && Math.abs(value) < 2 ? 2 : u.digits;
  return { number: plainNumber(value, digits ?? usual), unit: u.symbol };
}

const INCHES_A_FOOT = 12;

/**
 * A length in feet and inches, as boats are measured in them; inches alone below a foot.
 * @param digits of the inches, none of them a nought at the end
 * @example feetAndInches(9.6, 1) // → '31′ 6″'
 * @example feetAndInches(0.18, 1) // → '7.1″'
 */
export function feetAndInches(metres: number, digits: number): string {
  const step = 10 ** digits;
  const inches = Math.round(Math.abs(fromCore('length', 'in', metres)) * step) / step;
  const feet = Math.floor(inches / INCHES_A_FOOT);
  const rest = Number((inches - feet * INCHES_A_FOOT).toFixed(digits));
  const sign = metres < 0 && inches > 0 ? '−' : '';
  const parts = [...(feet > 0 ? [`${feet}′`] : []), ...(rest > 0 || feet === 0 ? [`${rest}″`] : [])];
  return sign + parts.join(' ');
}

/**
 * The unit for weighing and pouring a batch of `total`: one for all its parts, so that the ratio shows, and
 * fine enough for a scale of one gram or a syringe. Where the smallest part asks for it the steps are finer, to a
 * hundredth of the usual one: rounding takes no more than a hundredth of it.
 * @param amounts of the parts; left out: the usual step
 * @example pouringUnit('volume', { system: 'metric' }, 0.4).symbol // → 'mL'
 * @example pouringUnit('volume', { system: 'metric' }, 0.05, [0.04, 0.01]).digits // → 1
 */
export function pouringUnit(
  quantity: 'volume' | 'mass',
  choice: UnitChoice,
  total: number,
  amounts: readonly number[] = [],
): Unit {
  const system = systemFor(choice, quantity);
  const [id, digits] = {
    metric: { volume: total < 2.5 ? ['mL', 0] : ['L', 3], mass: total < 10 ? ['g', 0] : ['kg', 3] },
    us: { volume: total < US_GALLON_L * 2 ? ['flozUS', 1] : ['galUS', 3], mass: total < 10 ? ['oz', 1] : ['lb', 2] },
  }[system][quantity] as [string, number];
  const smallest = Math.min(...amounts.filter((a) => a > 0).map((a) => fromCore(quantity, id, a)));
  const finer = [0, 1, 2].find((more) => 0.5 * 10 ** -(digits + more) <= ROUNDING_SHARE * smallest) ?? 2;
  return { ...unitOf(quantity, id), digits: digits + finer };
}

/** What rounding may take of a part: a fifth of the twentieth that a ratio may be off by (`docs/sources.md`). [M] */
const ROUNDING_SHARE = 0.01;

/**
 * The amounts of a batch as they are shown, as a ratio to the smallest, where rounding takes more than it may; null where
 * it does not.
 * @example ratioShown('volume', [0.0003, 0.0001], { ...pouringUnit('volume', { system: 'metric' }, 1), digits: 0 }) // → null
 */
export function ratioShown(quantity: 'volume' | 'mass', amounts: readonly number[], unit: Unit): number[] | null {
  const exact = amounts.map((a) => fromCore(quantity, unit.id, a));
  const shown = exact.map((a) => Number(a.toFixed(unit.digits)));
  const least = Math.min(...shown);
  const off = exact.some((a, i) => Math.abs((shown[i] as number) / a - 1) > ROUNDING_SHARE + 1e-9);
  return least > 0 && off ? shown.map((a) => a / least) : null;
}

/**
 * "12.5 L"
 * @example formatQuantity('temperature', 20, { system: 'us' }) // → '68.0 °F'
 */
export function formatQuantity(quantity: QuantityName, core: number, choice: UnitChoice, digits?: number): string {
  const f = figure(quantity, core, choice, digits);
  return f.unit === '' ? f.number : `${f.number} ${f.unit}`;
}

/**
 * A rounded decimal with a true minus, "−0" never shown.
 * @example plainNumber(2.5, 3) // → '2.500'
 */
export function plainNumber(value: number, digits: number): string {
  const text = value.toFixed(digits);
  const tidy = Number(text) === 0 ? (0).toFixed(digits) : text;
  return tidy.replace('-', '−');
}

const PLURALS = new Intl.PluralRules('en');

/**
 * So many of something, in words.
 * @param many where it is not `one` with an s
 * @example counted(1, 'coat') // → '1 coat'
 * @example counted(3, 'batch', 'batches') // → '3 batches'
 */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${PLURALS.select(count) === 'one' ? one : many}`;
}
