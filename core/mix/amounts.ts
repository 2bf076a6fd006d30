import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';
import { partShares, type RatioPart } from './splitBatch';

/** What was measured: so much of one part, by its place in the list, or of the whole mix. Litres or kilograms. */
export interface Measured {
  readonly of: number | 'mix';
  readonly by: 'volume' | 'mass';
  readonly amount: number;
}

export interface Amounts {
  readonly parts: readonly { readonly name: string; readonly litres: number | null; readonly kg: number | null }[];
  readonly totalL: number | null;
  readonly totalKg: number | null;
}

/**
 * From an amount of either part or of the mix, the others: in litres where the ratio tells volumes, in kilograms where
 * it tells masses or densities are known. What cannot be told is null, never guessed.
 * @throws RangeError on an impossible ratio, and where the amount is of a kind that the ratio does not tell
 * @example
 *   amountsFrom({
 *     parts: [
 *       { name: 'Base', ratio: 4 },
 *       { name: 'Hardener', ratio: 1 },
 *     ],
 *     basis: 'volume',
 *     measured: { of: 0, by: 'volume', amount: 1.2 },
 *   }).totalL // → 1.5
 */
export function amountsFrom(options: {
  parts: readonly RatioPart[];
  basis: 'volume' | 'mass';
  measured: Measured;
}): Amounts {
  const { parts, basis, measured } = options;
  const amount = notNegative(measured.amount, 'The amount');
  const volumes = partShares({ parts, basis });
  const masses = massShares(parts, basis);
  const known = measured.by === 'volume' ? volumes : masses;
  if (!known)
    throw new Impossible(
      `${measured.by === 'volume' ? 'The ratio is by mass' : 'The ratio is by volume'}: type the densities to get ${measured.by === 'volume' ? 'litres' : 'weights'}.`,
    );
  const share = measured.of === 'mix' ? 1 : positive(known[measured.of] ?? 0, 'The part');
  const whole = amount / share;
  const densityKgPerL = mixDensity(parts, volumes);
  const totalL = measured.by === 'volume' ? whole : densityKgPerL === null ? null : whole / densityKgPerL;
  const totalKg = measured.by === 'mass' ? whole : densityKgPerL === null ? null : whole * densityKgPerL;
  return {
    parts: parts.map((part, i) => ({
      name: part.name,
      litres: totalL === null || !volumes ? null : totalL * (volumes[i] as number),
      kg: totalKg === null || !masses ? null : totalKg * (masses[i] as number),
    })),
    totalL,
    totalKg,
  };
}

/** Each part's share of the mixed mass; null for a ratio by volume with a density missing. */
function massShares(parts: readonly RatioPart[], basis: 'volume' | 'mass'): number[] | null {
  if (parts.length === 1) return [1];
  if (basis === 'volume' && parts.some((p) => !p.densityKgPerL)) return null;
  const masses = parts.map((p) => (basis === 'mass' ? p.ratio : p.ratio * (p.densityKgPerL as number)));
  const total = masses.reduce((sum, m) => sum + m, 0);
  return masses.map((m) => m / total);
}

/** Kilograms in a litre of the mix; null while a density is missing. */
function mixDensity(parts: readonly RatioPart[], volumes: readonly number[] | null): number | null {
  if (!volumes || parts.some((p) => !p.densityKgPerL)) return null;
  return parts.reduce((sum, p, i) => sum + (p.densityKgPerL as number) * (volumes[i] as number), 0);
}
