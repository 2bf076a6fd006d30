import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';

export interface RatioPart {
  readonly name: string;
  readonly ratio: number;
  readonly densityKgPerL?: number | null;
}

export interface BatchPart {
  readonly name: string;
  readonly volumeL: number;
  /** Null where the density of the part is not known. */
  readonly massKg: number | null;
}

export interface Batch {
  readonly parts: readonly BatchPart[];
  readonly thinnerL: number;
  readonly totalL: number;
}

/**
 * Split a batch into its parts by a ratio that the sheet gives by volume or by mass. A ratio by volume is
 * not one by mass: mass_i = ratio_i · density_i. [P: definition of density]
 *
 * @param options.parts the base first; any number of parts
 * @param options.mixedL all parts together, without thinner, L
 * @param options.thinner a share of the base's volume or of the mixed volume; it is not a part and adds no solids
 * @returns volumes in L; masses in kg, null where a density is missing
 * @throws RangeError on an impossible ratio, and on a ratio by mass with a density missing
 * @example splitBatch({ parts: [{ name: 'base', ratio: 3 }, { name: 'hardener', ratio: 1 }], basis: 'volume', mixedL: 1 })
 *   .parts.map((p) => p.volumeL) // → [0.75, 0.25]
 */
export function splitBatch(options: {
  parts: readonly RatioPart[];
  basis: 'volume' | 'mass';
  mixedL: number;
  thinner?: { readonly share: number; readonly of: 'base' | 'mixed' };
}): Batch {
  const { parts, basis, thinner } = options;
  const mixedL = notNegative(options.mixedL, 'The batch');
  const shares = partShares({ parts, basis });
  if (shares === null) {
    const missing = parts.filter((p) => !p.densityKgPerL).map((p) => p.name);
    throw new Impossible(`The ratio is by mass: type the density of ${missing.join(' and ')} to get volumes.`);
  }
  const split = parts.map((part, i) => {
    const volumeL = mixedL * (shares[i] as number);
    return { name: part.name, volumeL, massKg: part.densityKgPerL ? volumeL * part.densityKgPerL : null };
  });
  const thinnerL = thinner
    ? notNegative(thinner.share, 'Thinner') * (thinner.of === 'base' ? (split[0] as BatchPart).volumeL : mixedL)
    : 0;
  return { parts: split, thinnerL, totalL: mixedL + thinnerL };
}

/**
 * Each part's share of the mixed volume, adding up to 1; null for a ratio by mass with a density missing.
 * @throws RangeError when there are no parts, or a ratio or density is impossible
 * @example
 *   partShares({
 *     parts: [
 *       { name: 'base', ratio: 3 },
 *       { name: 'hardener', ratio: 1 },
 *     ],
 *     basis: 'volume',
 *   }) // → [0.75, 0.25]
 */
export function partShares({
  parts,
  basis,
}: {
  parts: readonly RatioPart[];
  basis: 'volume' | 'mass';
}): number[] | null {
  if (parts.length === 0) throw new Impossible('The sheet has no parts. Add at least the base.');
  for (const part of parts) {
    positive(part.ratio, `The ratio of ${part.name || 'a part'}`);
    if (part.densityKgPerL !== undefined && part.densityKgPerL !== null)
      positive(part.densityKgPerL, `The density of ${part.name || 'a part'}`);
  }
  if (parts.length === 1) return [1];
  if (basis === 'mass' && parts.some((p) => !p.densityKgPerL)) return null;
  const volumes = parts.map((p) => (basis === 'mass' ? p.ratio / (p.densityKgPerL as number) : p.ratio));
  const total = volumes.reduce((sum, v) => sum + v, 0);
  return volumes.map((v) => v / total);
}
