import type { SheetBody, SheetKind } from '../model/sheet';
import type { Exposure } from '../model/surface';

const UNDER_PAINT: readonly SheetKind[] = ['sealer', 'primer', 'filler', 'tieCoat', 'converter'];
const FINISHED: readonly SheetKind[] = [...UNDER_PAINT, 'undercoat', 'topcoat', 'nonSkid'];

/** Kinds of products that go where. [CP] */
const KINDS: Record<Exposure, readonly SheetKind[]> = {
  immersed: [...UNDER_PAINT, 'barrier', 'antifouling'],
  splash: [...FINISHED, 'barrier', 'antifouling'],
  weather: FINISHED,
  interior: [...FINISHED, 'bilge'],
  bilge: [...UNDER_PAINT, 'barrier', 'bilge'],
  tank: ['sealer', 'primer', 'barrier'],
};

/**
 * Whether a product is one of those that go on a zone of an exposure; what its sheet says of water comes first.
 * @example fitsExposure({ ...sheet, kind: 'antifouling' }, 'weather') // → false
 */
export function fitsExposure(sheet: Pick<SheetBody, 'kind' | 'immersible'>, exposure: Exposure): boolean {
  const wet = exposure === 'immersed' || exposure === 'tank';
  return KINDS[exposure].includes(sheet.kind) && !(wet && sheet.immersible === false);
}
