import { positive } from '../guard';

/** ± of Denny–Mumford on yachts, 95 % half-width. [M] */
export const DENNY_SHARE = 0.1;

/**
 * Wetted surface of a displacement hull, m²: S = 1.7·L·T + V/T. [P: Denny–Mumford, naval-architecture texts]
 * @param options.displacedM3 displaced volume: mass in tonnes over 1.025 in sea water
 * @throws RangeError on figures of zero or less
 * @example dennyMumfordM2({ lwlM: 8, draftM: 0.6, displacedM3: 4.2 }) // → 15.16
 */
export function dennyMumfordM2(options: { lwlM: number; draftM: number; displacedM3: number }): number {
  const draft = positive(options.draftM, 'Draught');
  return (
    1.7 * positive(options.lwlM, 'Waterline length') * draft + positive(options.displacedM3, 'Displaced volume') / draft
  );
}
