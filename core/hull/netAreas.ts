import type { ZoneArea } from './area';
import { combineAreas, errorGroup } from './uncertainty';
import type { AreaQuestion } from './areaMethods';
import { zoneArea } from './zoneArea';
import { Impossible } from '../impossible';
import type { HullModel } from '../model/area';
import { PATCHES } from '../model/surface';

/** A zone or patch as far as areas care. */
export interface AreaOwner extends Omit<AreaQuestion, 'boat' | 'hull'> {
  readonly id: string;
  readonly name: string;
  readonly parentId?: string | null;
}

export interface NetArea {
  /** What gets painted as this zone: patches carved out of it taken off. */
  readonly areaM2: number;
  readonly share: number;
  /** Before patches were taken off. */
  readonly grossM2: number;
}

/**
 * Areas of all zones and patches of a boat. A carved patch is taken out of its zone, unless the zone's area is
 * what its own paint covered; an overlay is not.
 * @throws RangeError where a method lacks its figures, or patches are larger than their zone
 * @example
 *   netAreas({
 *     boat,
 *     hull: NO_MODEL,
 *     surfaces: [
 *       {
 *         id: 'a',
 *         kind: 'topsides',
 *         area: { method: 'typed', dimensions: {}, typed: { areaM2: 10, share: 0.1 } },
 *       },
 *       {
 *         id: 'b',
 *         kind: 'topsides',
 *         parentId: 'a',
 *         patchKind: 'standPad',
 *         area: { method: 'typed', dimensions: {}, typed: { areaM2: 1, share: 0.1 } },
 *       },
 *     ],
 *   }).get('a').areaM2 // → 9
 */
export function netAreas<Owner extends AreaOwner>(options: {
  boat: AreaQuestion['boat'];
  hull: HullModel;
  surfaces: readonly Owner[];
}): Map<string, NetArea> {
  const { boat, hull, surfaces } = options;
  const gross = new Map(surfaces.map((s) => [s.id, zoneArea({ ...s, boat, hull })]));
  return new Map(
    surfaces.map((s) => {
      const own = gross.get(s.id) as ZoneArea;
      const carved =
        s.area.method === 'calibrated'
          ? []
          : surfaces
              .filter((p) => p.parentId === s.id && p.patchKind && PATCHES[p.patchKind] === 'carved')
              .map((p) => gross.get(p.id) as ZoneArea);
      if (carved.length === 0) return [s.id, { areaM2: own.areaM2, share: own.share, grossM2: own.areaM2 }];
      const net = combineAreas([own, ...carved.map((c) => ({ areaM2: -c.areaM2, share: c.share }))]);
      if (net.areaM2 <= 0)
        throw new Impossible(`The patches cut out of ${s.name} are larger than it is. Check their areas.`);
      return [s.id, { areaM2: net.areaM2, share: Math.min(0.95, net.share), grossM2: own.areaM2 }];
    }),
  );
}

/**
 * Area of a boat's whole painted skin with its ±: zones without their patches' bookkeeping, shared errors together.
 * @example
 *   totalArea([{ ...zone, grossM2: 10, area: { method: 'dimensions', dimensions: {}, typed: null } }])
 *     .areaM2 // → 10
 */
export function totalArea(
  surfaces: readonly (AreaOwner & { grossM2: number; areaShare: number })[],
): ReturnType<typeof combineAreas> {
  return combineAreas(
    surfaces
      .filter((s) => !s.parentId)
      .map((s) => ({ areaM2: s.grossM2, share: s.areaShare, group: errorGroup(s.area.method) })),
  );
}
