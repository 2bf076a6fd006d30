import { Impossible } from './impossible';

/**
 * Guards against impossible input. Every public function of the core calls these first, so that a
 * wrong figure is refused with a sentence a painter understands instead of travelling on as NaN.
 */

/** @throws RangeError unless `value` is a finite number. */
export function finite(value: number, name: string): number {
  if (typeof value !== 'number' || !Number.isFinite(value)) {
    throw new Impossible(`${name} must be a number. Type a figure.`);
  }
  return value;
}

/** @throws RangeError unless `value` is finite and above zero. */
export function positive(value: number, name: string): number {
  if (finite(value, name) <= 0) throw new Impossible(`${name} must be more than zero.`);
  return value;
}

/** @throws RangeError unless `value` is finite and zero or more. */
export function notNegative(value: number, name: string): number {
  if (finite(value, name) < 0) throw new Impossible(`${name} cannot be less than zero.`);
  return value;
}

/** A share above 0 and up to 1. @throws RangeError outside it. */
export function shareAboveZero(value: number, name: string): number {
  if (positive(value, name) > 1) throw new Impossible(`${name} cannot be more than 100 %.`);
  return value;
}

/** A share from 0 up to, not including, 1. @throws RangeError outside it. */
export function shareBelowOne(value: number, name: string): number {
  if (notNegative(value, name) >= 1) throw new Impossible(`${name} must be less than 100 %.`);
  return value;
}

/** An air or surface temperature that water-based weather knows. @throws RangeError outside −90…90 °C. */
export function temperatureC(value: number, name: string): number {
  finite(value, name);
  if (value < -90 || value > 90) throw new Impossible(`${name} of ${value} °C cannot be right. Check the unit.`);
  return value;
}

/** An instant, epoch milliseconds. @throws RangeError when it is not a finite number. */
export function instant(value: number, name: string): number {
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new Impossible(`${name} must be a date and time.`);
  return value;
}
