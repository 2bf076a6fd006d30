import { notNegative } from '../guard';

/** Dry litres per m² that fill a blast profile of so many µm before any film counts. [M, long-used coating-guide table] */
const TABLE: readonly (readonly [profileMicron: number, litresPerM2: number])[] = [
  [0, 0],
  [30, 0.02],
  [60, 0.04],
  [75, 0.05],
  [105, 0.07],
];

/**
 * Dead volume of a blasted profile: about two thirds of its height, by the table; linear between its rows, and two thirds
 * beyond the last. [M]
 * @param options.profileMicron height of the profile, µm, 0 for a smooth surface
 * @returns dry litres per m²
 * @throws RangeError on a negative height
 * @example deadVolumeOfProfile({ profileMicron: 75 }) // → 0.05
 */
export function deadVolumeOfProfile({ profileMicron }: { profileMicron: number }): number {
  notNegative(profileMicron, 'The profile');
  const above = TABLE.findIndex(([p]) => p >= profileMicron);
  if (above < 0) return (profileMicron / 1000) * (2 / 3);
  const [p1, l1] = TABLE[above] as (typeof TABLE)[number];
  const [p0, l0] = TABLE[Math.max(0, above - 1)] as (typeof TABLE)[number];
  return p1 === p0 ? l1 : l0 + ((l1 - l0) * (profileMicron - p0)) / (p1 - p0);
}
