import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';

/**
 * Litres left in a tin, by weighing it: gross less tare over density. [P: definition of density]
 * @param options.grossKg tin and contents, kg
 * @param options.tareKg the empty tin with its lid, kg
 * @param options.densityKgPerL of the part in it
 * @returns litres
 * @throws RangeError where a figure cannot be, or the tin weighs less than its tare
 * @example litresFromWeight({ grossKg: 3.22, tareKg: 0.18, densityKgPerL: 1.52 }) // → 2
 */
export function litresFromWeight({
  grossKg,
  tareKg,
  densityKgPerL,
}: {
  grossKg: number;
  tareKg: number;
  densityKgPerL: number;
}): number {
  const netKg = notNegative(grossKg, 'The weight of the tin') - notNegative(tareKg, 'The empty tin');
  if (netKg < -1e-9) throw new Impossible('The tin weighs less than it does empty. Check both weights.');
  return Math.max(0, netKg) / positive(densityKgPerL, 'The density');
}
