import type { Caution } from '../model/log';
import type { PaintMethod } from '../model/paintMethod';
import type { SheetBody } from '../model/sheet';
import type { PrepKind } from '../model/prep';
import type { ExistingCoating, ZoneKind } from '../model/surface';
import { isOldAntifouling } from '../hull/zones';

/** The step that a caution belongs to. */
export type CareStep = 'mix' | 'start' | 'finish';

/** Spaces that hold vapour, and out of which nobody climbs alone. */
const CONFINED: ReadonlySet<ZoneKind> = new Set(['bilge', 'lockers', 'anchorLocker', 'engineBay', 'tank'] as const);
/** Faces that are reached from a ladder or a staging. */
const HIGH: ReadonlySet<ZoneKind> = new Set(['topsides', 'transom', 'coachroof'] as const);

type Hazards = Pick<SheetBody, 'parts' | 'chemistry' | 'isocyanate' | 'strongSolvent' | 'biocide' | 'thinner' | 'kind'>;

/**
 * The cautions that belong to a step, by what is in the tin and where it goes. [CP]
 * @example
 *   cautionsFor({ step: 'start', sheet: { ...sheet, chemistry: 'epoxy' }, zones: ['bilge'], method: 'brush' }) // → ['epoxy', 'confined']
 */
export function cautionsFor(options: {
  step: CareStep;
  sheet: Hazards;
  zones: readonly ZoneKind[];
  method: PaintMethod;
}): Caution[] {
  const { step, sheet, zones, method } = options;
  const twoPack = sheet.parts.length > 1;
  const isocyanate = sheet.isocyanate ?? (twoPack && sheet.chemistry === 'polyurethane');
  const epoxy = sheet.chemistry === 'epoxy';
  const spray = method === 'spray' || method === 'conventional';
  const solvent = sheet.strongSolvent === true || spray || (sheet.thinner !== null && sheet.thinner.family !== 'water');
  const oil = sheet.chemistry === 'alkyd';
  const all: Record<CareStep, readonly (readonly [Caution, boolean])[]> = {
    mix: [
      ['isocyanate', isocyanate],
      ['epoxy', epoxy],
      ['solvent', solvent],
    ],
    start: [
      ['isocyanate', isocyanate && spray],
      ['epoxy', epoxy],
      ['confined', zones.some((z) => CONFINED.has(z))],
      ['biocide', sheet.biocide === true || sheet.kind === 'antifouling'],
      ['staging', zones.some((z) => HIGH.has(z))],
    ],
    finish: [
      ['hotPot', twoPack],
      ['rags', oil],
    ],
  };
  return all[step].flatMap(([caution, holds]) => (holds ? [caution] : []));
}

const GRINDS: ReadonlySet<PrepKind> = new Set([
  'abrade',
  'block',
  'grind',
  'needleGun',
  'scrape',
  'strip',
  'wireBrush',
  'blast',
] as const);

/**
 * The cautions of getting a zone ready, by what is on it and what is to be done. [CP]
 * @example prepCautions({ surface: { kind: 'bilge', existing: 'bare' }, steps: ['degrease', 'abrade'] }) // → ['confined']
 */
export function prepCautions({
  surface,
  steps,
}: {
  surface: { readonly kind: ZoneKind; readonly existing: ExistingCoating };
  steps: readonly PrepKind[];
}): Caution[] {
  const { kind, existing } = surface;
  const grinds = steps.some((s) => GRINDS.has(s));
  const holds: readonly (readonly [Caution, boolean])[] = [
    ['confined', CONFINED.has(kind)],
    ['biocide', grinds && isOldAntifouling(existing)],
    ['oldPaint', grinds && (existing === 'unknown' || existing === 'onePack')],
    ['blasting', steps.includes('blast')],
    ['hotWork', steps.includes('weld')],
    ['acid', steps.includes('convert') || steps.includes('passivate')],
    ['staging', HIGH.has(kind)],
  ];
  return holds.flatMap(([caution, is]) => (is ? [caution] : []));
}
