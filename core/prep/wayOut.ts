import { Impossible } from '../impossible';
import type { Face } from '../model/prep';
import type { ZoneKind } from '../model/surface';

/**
 * The order in which the faces of a locker, bilge or tank are done: farthest first and out by the way in; at the same
 * distance the awkward reach before the place one would lean on; what is leant or knelt on after all that is done from
 * it; the last one by the exit. [CP]
 * @throws RangeError without a face, or on distances below zero
 * @example
 *   wayOut([
 *     { name: 'Sole', fromExitM: 1, awkward: false, leanOn: true },
 *     { name: 'Deckhead', fromExitM: 1, awkward: true, leanOn: false },
 *     { name: 'Far end', fromExitM: 2, awkward: false, leanOn: false },
 *   ]).map((f) => f.name) // → ['Far end', 'Deckhead', 'Sole']
 */
export function wayOut(faces: readonly Face[]): Face[] {
  if (faces.length === 0) throw new Impossible('Name at least one face to paint.');
  for (const f of faces)
    if (!(f.fromExitM >= 0)) throw new Impossible(`${f.name || 'A face'}: how far it is from the way out, or 0.`);
  return [...faces].sort(
    (a, b) => b.fromExitM - a.fromExitM || Number(b.awkward) - Number(a.awkward) || Number(a.leanOn) - Number(b.leanOn),
  );
}

const face = (name: string, fromExitM: number, how: 'awkward' | 'plain' | 'leanOn' = 'plain'): Face => ({
  name,
  fromExitM,
  awkward: how === 'awkward',
  leanOn: how === 'leanOn',
});

/** Faces that such a space usually has, to start from. [M] */
export const USUAL_FACES: Partial<Record<ZoneKind, readonly Face[]>> = {
  bilge: [
    face('Under the engine', 2.5, 'awkward'),
    face('Far bays between the frames', 2, 'awkward'),
    face('Sides up to the sole', 1),
    face('Keel trough', 1, 'leanOn'),
    face('Bay under the hatch', 0, 'leanOn'),
  ],
  lockers: [
    face('Deckhead', 1, 'awkward'),
    face('Far end', 1.2),
    face('Hull side', 0.8),
    face('Bottom', 0.8, 'leanOn'),
    face('Frame of the hatch', 0),
  ],
  anchorLocker: [
    face('Behind the stem', 1, 'awkward'),
    face('Deckhead', 0.6, 'awkward'),
    face('Sides', 0.6),
    face('Bottom', 0.6, 'leanOn'),
  ],
  engineBay: [
    face('Behind the engine', 1.8, 'awkward'),
    face('Deckhead', 1, 'awkward'),
    face('Sides', 1),
    face('Beds and sole', 0.8, 'leanOn'),
    face('Bulkhead by the door', 0),
  ],
  tank: [
    face('Far end and baffles', 1.5, 'awkward'),
    face('Top', 1, 'awkward'),
    face('Sides', 0.8),
    face('Bottom', 0.8, 'leanOn'),
    face('Round the manhole', 0),
  ],
};
