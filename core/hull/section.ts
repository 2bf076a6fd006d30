import type { HullLines } from './lines';
import type { Outline } from './profile';
import { hullShape, samples, type DrawnBoat, type HullShape } from './shape';
import type { ZoneKind } from '../model/surface';

/** A cut across the boat seen from aft: in outlines, x runs to starboard and z up from the waterline, metres. */
export interface BoatSection {
  readonly known: HullShape['known'];
  /** The whole outline, closed over the deck. */
  readonly outline: Outline;
  /** Lines of the skin by zone, each side its own. */
  readonly skin: Partial<Record<ZoneKind, readonly Outline[]>>;
  readonly keels: readonly Outline[];
  readonly halfBeamM: number;
  readonly topM: number;
  readonly bottomM: number;
}

/**
 * A section of the boat to scale at `x` from the aftermost point.
 * @param options.bandM height of the boot-top, m
 * @throws RangeError on impossible dimensions
 * @example boatSection(boat, { x: 4.5 }).topM // → 0.9068
 */
export function boatSection(
  boat: DrawnBoat,
  options: { x: number; lines?: HullLines | null; bandM?: number | null },
): BoatSection {
  const shape = hullShape(boat, options.lines ?? null);
  const x = Math.min(shape.lengthM, Math.max(0, options.x));
  const [low, high] = [shape.bottom(x), shape.sheer(x)];
  const band = options.bandM ?? Math.min(0.15, boat.freeboardM / 4);
  // Close together near the bottom, where a section turns quickest.
  const heights = samples(0, 1, 48).map((t) => low + (high - low) * t * t);
  const between = (from: number, to: number) => {
    const [a, b] = [Math.max(from, low), Math.min(to, high)];
    if (b - a < 1e-6) return [];
    return [a, ...heights.filter((z) => z > a + 1e-9 && z < b - 1e-9), b].map((z) => ({ x: shape.half(x, z), z }));
  };
  const bothSides = (half: Outline): Outline[] =>
    half.length < 2 ? [] : [half, half.map((p) => ({ x: -p.x, z: p.z }))];
  const below = between(-Infinity, 0);
  const foot = below[0] && below[0].x > 1e-6 ? [{ x: 0, z: below[0].z }, ...below] : below;
  const cut = [...foot, ...between(0, Infinity)];
  // At its very ends a hull is no more than a line.
  const whole =
    cut.length > 0
      ? cut
      : [
          { x: 0, z: low },
          { x: 0, z: high },
        ];
  const rim = whole[whole.length - 1] ?? { x: 0, z: high };
  return {
    known: shape.known,
    outline: [...whole.map((p) => ({ x: -p.x, z: p.z })).reverse(), ...whole],
    skin: {
      underwater: bothSides(foot),
      bootTop: bothSides(between(0, band)),
      topsides: bothSides(between(band, Infinity)),
      deck: [[{ x: -rim.x, z: rim.z }, { x: 0, z: rim.z + rim.x * 0.06 }, rim]],
    },
    keels: shape.keelsBelow ? keelSections(boat, shape, x) : [],
    halfBeamM: Math.max(0.1, ...whole.map((p) => p.x)),
    topM: high,
    bottomM: Math.min(low, shape.keelsBelow ? -boat.draftM : 0),
  };
}

/** Keels as they are cut where they hang: one on the centreline or two, splayed a little. */
function keelSections(boat: DrawnBoat, shape: HullShape, x: number): Outline[] {
  const share = (x - shape.waterline[0]) / (shape.waterline[1] - shape.waterline[0]);
  const [from, to] = boat.keels === 'twin' ? [0.4, 0.66] : boat.form === 'longKeel' ? [0.14, 0.72] : [0.42, 0.66];
  if (share < from || share > to) return [];
  const thick = boat.draftM * 0.05;
  const blade = (y: number, splay: number): Outline => {
    const root = -Math.abs(shape.bottom(x)) * (y === 0 ? 0.98 : 0.8);
    return [
      { x: y - thick, z: root },
      { x: y + thick, z: root },
      { x: y + thick * 0.7 + splay, z: -boat.draftM },
      { x: y - thick * 0.7 + splay, z: -boat.draftM },
    ];
  };
  if (boat.keels !== 'twin') return [blade(0, 0)];
  const off = boat.beamM * 0.2;
  return [blade(off, boat.beamM * 0.04), blade(-off, -boat.beamM * 0.04)];
}
