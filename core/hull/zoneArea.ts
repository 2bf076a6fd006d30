import type { AreaQuestion } from './areaMethods';
import { AREA_BY } from './areaMethods';
import type { AreaMethod } from '../model/area';
import { isDimensioned, type ZoneArea } from './area';
import { type PatchKind, type ZoneKind } from '../model/surface';
import { sideShare } from './zones';

/**
 * The methods a kind of zone can have, the quickest first.
 * @example methodsFor('deck') // → ['dimensions', 'girths', 'shapes', 'typed', 'calibrated']
 */
export function methodsFor(kind: ZoneKind, patchKind: PatchKind | null = null): AreaMethod[] {
  if (patchKind !== null)
    return [...(patchKind === 'highWear' ? (['band'] as const) : []), 'shapes', 'typed', 'calibrated'];
  const outside: AreaMethod[] = (['underwater', 'topsides', 'bootTop'] as ZoneKind[]).includes(kind)
    ? ['girths', 'offsets', 'mesh']
    : (['keel', 'deck', 'transom'] as ZoneKind[]).includes(kind)
      ? ['girths']
      : [];
  return [
    ...(isDimensioned(kind) ? (['dimensions'] as const) : []),
    ...(kind === 'underwater' ? (['denny'] as const) : []),
    ...outside,
    'shapes',
    'typed',
    'calibrated',
  ];
}

/**
 * Whether a method has its figures, so that it may be shown beside the others.
 * @example
 *   isMeasured(
 *     { kind: 'underwater', boat, area: { method: 'dimensions', dimensions: {}, typed: null } },
 *     'girths',
 *   ) // → false
 */
export function isMeasured(question: AreaQuestion, method: AreaMethod): boolean {
  return AREA_BY[method].isMeasured(question);
}

/**
 * Area of a zone by the method in use.
 * @throws RangeError where that method lacks its figures
 * @example
 *   zoneArea({
 *     kind: 'underwater',
 *     boat,
 *     area: { method: 'typed', dimensions: {}, typed: { areaM2: 21, share: 0.05 } },
 *   }).areaM2 // → 21
 */
export function zoneArea(question: AreaQuestion): ZoneArea {
  return areaBy(question, question.area.method);
}

/**
 * Area of a zone by any method.
 * @throws RangeError with what to do where that method lacks its figures
 * @example
 *   areaBy(
 *     { kind: 'underwater', boat, area: { method: 'typed', dimensions: {}, typed: null } },
 *     'dimensions',
 *   ).areaM2 // → 32
 */
export function areaBy(question: AreaQuestion, method: AreaMethod): ZoneArea {
  const { area, ofWholeHull } = AREA_BY[method];
  const whole = area(question);
  const share = sideShare(question.side ?? 'both', question.partShare ?? null);
  // Shapes, typed and painted areas are of the zone itself; the others are of the whole hull.
  if (share === 1 || !ofWholeHull) return whole;
  return {
    ...whole,
    areaM2: whole.areaM2 * share,
    working: {
      ...whole.working,
      inputs: [
        ...whole.working.inputs,
        { name: question.side === 'part' ? 'part of it' : 'one side of two', value: share, quantity: 'share' },
      ],
    },
  };
}
