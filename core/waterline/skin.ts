import { finite, notNegative } from '../guard';
import type { HullShape } from '../hull/shape';
import { Impossible } from '../impossible';

/** Flatter than this a line runs away along the skin: it is set by height, not with a tape. */
const FLATTEST_DEG = 85;

/**
 * How far a line moves along the skin when it is raised by a height, m: height / cos(flare). [P: trigonometry]
 * @param options.flareDeg of the side from the vertical; inwards below zero
 * @throws RangeError at 85° and more, where it runs away
 * @example raiseAlongSkinM({ raiseM: 0.1, flareDeg: 60 }).toFixed(3) // → '0.200'
 */
export function raiseAlongSkinM({ raiseM, flareDeg }: { raiseM: number; flareDeg: number }): number {
  if (Math.abs(finite(flareDeg, 'The flare')) >= FLATTEST_DEG)
    throw new Impossible(
      `Here the side lies ${Math.round(Math.abs(flareDeg))}° from upright: a line runs away on it. Set it off by its height, with a level.`,
    );
  return finite(raiseM, 'The height') / Math.cos((flareDeg * Math.PI) / 180);
}

/**
 * Height that a tape of a width takes up seen from the side, m: the other way round.
 * @throws RangeError at 85° and more
 * @example heightOfTapeM({ widthM: 0.1, flareDeg: 60 }).toFixed(3) // → '0.050'
 */
export function heightOfTapeM({ widthM, flareDeg }: { widthM: number; flareDeg: number }): number {
  return notNegative(widthM, 'The width') / raiseAlongSkinM({ raiseM: 1, flareDeg });
}

/** Over this height the flare is taken. */
const STEP_M = 0.05;

/**
 * Flare of a hull's side at a place, degrees from the vertical, outwards positive; null where there is no hull.
 * @example
 *   flareDegAt({ shape: { half: (x, z) => 1 + z, sheer: () => 1, bottom: () => -1 }, xM: 1, heightM: 0 })?.toFixed(6) // → '45.000000'
 */
export function flareDegAt(options: {
  shape: Pick<HullShape, 'half' | 'sheer' | 'bottom'>;
  xM: number;
  heightM: number;
}): number | null {
  const { shape, xM, heightM } = options;
  const low = Math.max(shape.bottom(xM), heightM - STEP_M / 2);
  const high = Math.min(shape.sheer(xM), heightM + STEP_M / 2);
  if (!(high - low > STEP_M / 10)) return null;
  const [a, b] = [shape.half(xM, low), shape.half(xM, high)];
  if (a <= 0 && b <= 0) return null;
  return (Math.atan2(b - a, high - low) * 180) / Math.PI;
}

export const BAND_MODES = ['height', 'width'] as const;
export type BandMode = (typeof BAND_MODES)[number];

/** A boot-top at one station. */
export interface BandAt {
  /** As seen from the side, m. */
  readonly heightM: number;
  /** Along the skin: what the tape must cover, m; null where the side is too flat to tape. */
  readonly widthM: number | null;
}

/**
 * A boot-top of even height, or of even width along the skin, at a station: seen from the side a flared bow makes an
 * even tape look narrow.
 * @throws RangeError on a band below zero
 * @example bandAt({ mode: 'height', bandM: 0.1, flareDeg: 60 }).widthM?.toFixed(2) // → '0.20'
 */
export function bandAt(options: { mode: BandMode; bandM: number; flareDeg: number }): BandAt {
  const { mode, flareDeg } = options;
  const bandM = notNegative(options.bandM, 'The band');
  if (Math.abs(flareDeg) >= FLATTEST_DEG)
    return { heightM: mode === 'height' ? bandM : 0, widthM: mode === 'width' ? bandM : null };
  return mode === 'height'
    ? { heightM: bandM, widthM: raiseAlongSkinM({ raiseM: bandM, flareDeg }) }
    : { heightM: heightOfTapeM({ widthM: bandM, flareDeg }), widthM: bandM };
}
