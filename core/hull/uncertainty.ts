import { finite, notNegative } from '../guard';
import type { AreaMethod } from '../model/area';

/** An area with its ± as a share, 95 % half-width. What shares a `group` shares its error: it was measured with the same figure. */
export interface UncertainArea {
  /** Negative where it is taken off. */
  readonly areaM2: number;
  readonly share: number;
  readonly group?: string | null;
}

/**
 * Sum of areas, deductions negative, with its ±: parts measured apart combine in quadrature, parts that share
 * an input add up together (a deduction that shares it takes its error off again). [P: GUM, JCGM 100:2008, 5.1–5.2]
 * @returns `share` of the sum; 0 for a sum of nothing
 * @throws RangeError on figures that are not numbers or a negative ±
 */
export function combineAreas(parts: readonly UncertainArea[]): { areaM2: number; plusMinusM2: number; share: number } {
  const groups = new Map<string, number>();
  let areaM2 = 0;
  parts.forEach((part, i) => {
    const error = finite(part.areaM2, 'Area') * notNegative(part.share, 'The ± of the area');
    areaM2 += part.areaM2;
    const key = part.group ?? `alone ${i}`;
    groups.set(key, (groups.get(key) ?? 0) + error);
  });
  const plusMinusM2 = Math.hypot(...groups.values());
  return { areaM2, plusMinusM2, share: areaM2 === 0 ? 0 : plusMinusM2 / Math.abs(areaM2) };
}

/**
 * How far apart several finds of one area are: the widest step over their mean, as a share. Null for fewer than two.
 * @example spreadOf([20, 25]) // → 0.2222
 */
export function spreadOf(areasM2: readonly number[]): number | null {
  if (areasM2.length < 2) return null;
  const mean = areasM2.reduce((a, b) => a + b, 0) / areasM2.length;
  return (Math.max(...areasM2) - Math.min(...areasM2)) / mean;
}

/** Methods that work on the boat's own dimensions, or on one measured hull: what is wrong there is wrong in every zone. */
const ERROR_GROUPS: Partial<Record<AreaMethod, string>> = {
  dimensions: 'dimensions',
  denny: 'dimensions',
  offsets: 'offsets',
  mesh: 'mesh',
};

/**
 * Zones by methods of one group share its error; null: each is measured on its own.
 * @example errorGroup('denny') // → 'dimensions'
 */
export function errorGroup(method: AreaMethod): string | null {
  return ERROR_GROUPS[method] ?? null;
}
