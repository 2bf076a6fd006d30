import { positive } from '../guard';
import { boatProfile, type Outline } from './profile';
import type { BoatDimensions } from './area';
import type { Keels } from '../model/surface';
import { Impossible } from '../impossible';

/** Where a hull wears first and gets an extra coat. [CP] */
export const WEAR_PLACES = ['waterline', 'stem', 'keelLeadingEdge', 'keelBottom', 'rudderEdges'] as const;
export type WearPlace = (typeof WEAR_PLACES)[number];

/** ± of a length taken off the drawing, and of one that was measured. [M] */
const DRAWN_SHARE = 0.2;
const MEASURED_SHARE = 0.06;

export interface WearBandInput {
  readonly place: WearPlace;
  /** Across the band, m. */
  readonly widthM: number;
  /** Taped along the edge, m; null takes it from the hull. */
  readonly lengthM: number | null;
}

/**
 * Length along an edge that wears, m, from the boat's own figures: the waterline round both sides, the others
 * off the drawing. Twin keels count twice; edges of keel and rudder have two faces each, which the width goes round.
 * @param options.waterlineGirthM as a mesh was cut there; left out, 2 × (LWL + B/2) [CP]
 * @throws RangeError on impossible dimensions, or where the boat has no such edge
 */
export function wearLengthM(options: {
  place: WearPlace;
  boat: BoatDimensions & { keels: Keels };
  waterlineGirthM?: number | null;
}): number {
  const { place, boat } = options;
  if (place === 'waterline')
    return (
      options.waterlineGirthM ?? 2 * (positive(boat.lwlM, 'Waterline length') + 0.5 * positive(boat.beamM, 'Beam'))
    );
  const profile = boatProfile(boat);
  if (place === 'stem') {
    // From the forefoot to the waterline: the foremost tenth of the underwater profile.
    const fore = profile.waterline[1];
    const run = profile.hull.filter((p) => p.z <= 0 && p.x >= fore - boat.lwlM * 0.1);
    return along(
      run.length > 1
        ? run
        : [
            { x: fore, z: 0 },
            { x: fore - boat.lwlM * 0.1, z: -boat.draftM * 0.3 },
          ],
    );
  }
  const outline = place === 'rudderEdges' ? profile.regions.rudder?.[0] : profile.regions.keel?.[0];
  if (!outline) throw new Impossible('This boat has no keel to wear. Choose another place.');
  const [aft, fore, tipFore, tipAft] = outline as [Outline[number], Outline[number], Outline[number], Outline[number]];
  const sides = place !== 'rudderEdges' && boat.keels === 'twin' ? 2 : 1;
  if (place === 'keelBottom') return sides * along([tipFore, tipAft]);
  if (place === 'keelLeadingEdge') return sides * along([fore, tipFore]);
  return along([fore, tipFore]) + along([aft, tipAft]);
}

/** A band of high wear: length × width. @throws RangeError on figures of zero or less, or an edge the boat lacks */
export function wearBand(options: {
  band: WearBandInput;
  boat: BoatDimensions & { keels: Keels };
  waterlineGirthM?: number | null;
}): { areaM2: number; share: number; lengthM: number } {
  const { band } = options;
  const lengthM =
    band.lengthM === null
      ? wearLengthM({ ...options, place: band.place })
      : positive(band.lengthM, 'Length of the band');
  const measured = band.lengthM !== null || (band.place === 'waterline' && options.waterlineGirthM != null);
  return {
    areaM2: lengthM * positive(band.widthM, 'Width of the band'),
    share: measured ? MEASURED_SHARE : DRAWN_SHARE,
    lengthM,
  };
}

function along(points: readonly { x: number; z: number }[]): number {
  return points
    .slice(1)
    .reduce(
      (sum, p, i) => sum + Math.hypot(p.x - (points[i] as { x: number }).x, p.z - (points[i] as { z: number }).z),
      0,
    );
}
