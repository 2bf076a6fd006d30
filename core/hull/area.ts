import { notNegative, positive } from '../guard';
import type { Working } from '../why';
import type { ZoneKind } from '../model/surface';
import { Impossible } from '../impossible';
import { ESTIMATE_SHARE, type EstimatedDimension } from './estimate';

/** Shape of the underwater body, as printed in coverage guides. Twin bilge keels count as `longKeel`. [M] */
export type HullForm = 'full' | 'longKeel' | 'finKeel';

/** k of LWL × (B + T) × k. [CP, printed in many paint guides; constants M] */
export const UNDERWATER_FACTOR: Record<HullForm, number> = { full: 1, longKeel: 0.75, finKeel: 0.5 };

/** ± of an area from principal dimensions, as a share, 95 % half-width. [CP] */
export const DIMENSIONS_SHARE = 0.15;

/**
 * Underwater area, m², from principal dimensions: LWL × (B + T) × k. The draught overall makes it include
 * keel and rudder. ±15 %. [CP, printed in many paint guides; constants M]
 * @throws RangeError on impossible dimensions
 */
export function underwaterAreaM2(options: { lwlM: number; beamM: number; draftM: number; form: HullForm }): number {
  const k = UNDERWATER_FACTOR[options.form] as number | undefined;
  if (k === undefined) throw new Impossible('Choose the hull form: full, long keel or fin keel.');
  return (
    positive(options.lwlM, 'Waterline length') *
    (positive(options.beamM, 'Beam') + positive(options.draftM, 'Draught')) *
    k
  );
}

/** Topsides, both sides, m²: (LOA + B) × 2 × mean freeboard. ±15 %. [CP] @throws RangeError on impossible dimensions */
export function topsidesAreaM2(options: { loaM: number; beamM: number; freeboardM: number }): number {
  return (
    (positive(options.loaM, 'Length overall') + positive(options.beamM, 'Beam')) *
    2 *
    positive(options.freeboardM, 'Freeboard')
  );
}

/** Deck, m²: LOA × B × 0.75, less openings. ±15 %. [CP] @throws RangeError on impossible dimensions */
export function deckAreaM2(options: { loaM: number; beamM: number; openingsM2?: number }): number {
  const area =
    positive(options.loaM, 'Length overall') * positive(options.beamM, 'Beam') * 0.75 -
    notNegative(options.openingsM2 ?? 0, 'Openings');
  if (area <= 0) throw new Impossible('The openings are larger than the deck. Check them.');
  return area;
}

/** Boot-top, both sides, m²: 2 × (LWL + 0.5 B) × band height. ±15 %. [CP] @throws RangeError on impossible dimensions */
export function bootTopAreaM2(options: { lwlM: number; beamM: number; bandM: number }): number {
  return (
    2 *
    (positive(options.lwlM, 'Waterline length') + 0.5 * positive(options.beamM, 'Beam')) *
    positive(options.bandM, 'Band height')
  );
}

export interface BoatDimensions {
  readonly loaM: number;
  readonly lwlM: number;
  readonly beamM: number;
  readonly draftM: number;
  readonly freeboardM: number;
  readonly form: HullForm;
  /** Those of them that nobody measured: worked out from the length. */
  readonly estimated?: readonly string[];
}

/** What a zone may add to the boat's own dimensions. */
export interface AreaInputs {
  /** Draught of the canoe body, where keel and rudder are zones of their own. */
  readonly draftM?: number;
  readonly openingsM2?: number;
  readonly bandM?: number;
  /** Planks lap over one another: more skin than the plain hull. */
  readonly lapped?: boolean;
}

/** Skin that lapped planking has more than a plain one, share: the middle of 8 to 12 %. [M] */
export const LAPPED_SHARE = 0.1;
/** Kinds of zones that planking makes. */
const PLANKED: readonly DimensionedKind[] = ['underwater', 'topsides'];

export type DimensionedKind = 'underwater' | 'topsides' | 'deck' | 'bootTop';
export const DIMENSIONED_KINDS: readonly DimensionedKind[] = ['underwater', 'topsides', 'deck', 'bootTop'];

export interface ZoneArea {
  readonly areaM2: number;
  /** ± as a share, 95 % half-width. */
  readonly share: number;
  readonly working: Working;
}

const ESTIMATED_WORDS: Record<EstimatedDimension, string> = {
  lwlM: 'waterline length',
  freeboardM: 'freeboard',
  loaM: 'length',
  beamM: 'beam',
  draftM: 'draught',
};

/** Usual height of a boot-top band, m. [M] */
export const BOOT_TOP_BAND_M = 0.15;

/** One kind's area, how it comes about, and which dimensions it rests on that may be estimates. */
type Dimensioned = Pick<Working, 'what' | 'formula' | 'inputs'> & {
  readonly areaM2: number;
  readonly restsOn: readonly EstimatedDimension[];
};

const length = (name: string, value: number) => ({ name, value, quantity: 'length' as const });

const BY_DIMENSIONS: Record<DimensionedKind, (boat: BoatDimensions, inputs: AreaInputs) => Dimensioned> = {
  underwater: (boat, inputs) => {
    const draftM = inputs.draftM ?? boat.draftM;
    return {
      areaM2: underwaterAreaM2({ ...boat, draftM }),
      restsOn: ['loaM', 'lwlM', 'beamM', 'draftM'],
      what:
        inputs.draftM === undefined ? 'Underwater area, keel and rudder included' : 'Underwater area of the canoe body',
      formula: 'waterline length × (beam + draught) × k',
      inputs: [
        length('waterline length', boat.lwlM),
        length('beam', boat.beamM),
        length('draught', draftM),
        { name: 'k for this hull form', value: UNDERWATER_FACTOR[boat.form], quantity: 'plain' },
      ],
    };
  },
  topsides: (boat) => ({
    areaM2: topsidesAreaM2(boat),
    restsOn: ['loaM', 'freeboardM'],
    what: 'Topsides, both sides',
    formula: '(length overall + beam) × 2 × mean freeboard',
    inputs: [
      length('length overall', boat.loaM),
      length('beam', boat.beamM),
      length('mean freeboard', boat.freeboardM),
    ],
  }),
  deck: (boat, { openingsM2 }) => ({
    areaM2: deckAreaM2({ ...boat, ...(openingsM2 === undefined ? {} : { openingsM2 }) }),
    restsOn: ['loaM', 'beamM'],
    what: 'Deck',
    formula: 'length overall × beam × 0.75 − openings',
    inputs: [
      length('length overall', boat.loaM),
      length('beam', boat.beamM),
      { name: 'openings', value: openingsM2 ?? 0, quantity: 'area' },
    ],
  }),
  bootTop: (boat, { bandM = BOOT_TOP_BAND_M }) => ({
    areaM2: bootTopAreaM2({ ...boat, bandM }),
    restsOn: ['loaM', 'lwlM'],
    what: 'Boot-top, both sides',
    formula: '2 × (waterline length + half the beam) × band height',
    inputs: [length('waterline length', boat.lwlM), length('beam', boat.beamM), length('band height', bandM)],
  }),
};

/** Area of a zone from the boat's principal dimensions, with its ± and its working. @throws RangeError on impossible dimensions */
export function areaFromDimensions(options: {
  kind: DimensionedKind;
  boat: BoatDimensions;
  inputs?: AreaInputs;
}): ZoneArea {
  const { areaM2, restsOn, ...working } = BY_DIMENSIONS[options.kind](options.boat, options.inputs ?? {});
  const guessed = restsOn.filter((d) => options.boat.estimated?.includes(d));
  const laps = options.inputs?.lapped && PLANKED.includes(options.kind) ? LAPPED_SHARE : 0;
  return {
    areaM2: areaM2 * (1 + laps),
    share: Math.hypot(DIMENSIONS_SHARE, ...guessed.map((d) => ESTIMATE_SHARE[d])),
    working: {
      ...working,
      ...(laps > 0
        ? {
            formula: `(${working.formula}) × (1 + laps)`,
            inputs: [...working.inputs, { name: 'laps of the planking', value: laps, quantity: 'share' as const }],
          }
        : {}),
      source: { label: 'CP' },
      mattersMost:
        guessed.length > 0
          ? `Nobody has measured the ${guessed.map((d) => ESTIMATED_WORDS[d]).join(', ')}: type it, and the area is better at once.`
          : 'Rough by nature: ± 15 %. A tape along the hull, or the litres of the first coat, tell it better.',
    },
  };
}

/** Whether a zone of this kind has an area from principal dimensions. */
export function isDimensioned(kind: ZoneKind): kind is DimensionedKind {
  return (DIMENSIONED_KINDS as readonly ZoneKind[]).includes(kind);
}

/**
 * What cannot be right about a boat's dimensions, one sentence each, by field.
 * Bounds are wide: a 2 m tender to a 60 m ship. [M]
 * @example dimensionProblems({ ...boat, lwlM: 10 }).map((p) => p.field) // → ['lwlM']
 */
export function dimensionProblems(boat: BoatDimensions): { field: keyof BoatDimensions; message: string }[] {
  const problems: { field: keyof BoatDimensions; message: string }[] = [];
  const bounds: [keyof BoatDimensions, string, number, number][] = [
    ['loaM', 'Length overall', 1.5, 60],
    ['lwlM', 'Waterline length', 1.2, 60],
    ['beamM', 'Beam', 0.3, 20],
    ['draftM', 'Draught', 0.05, 8],
    ['freeboardM', 'Freeboard', 0.05, 8],
  ];
  for (const [field, name, least, most] of bounds) {
    const value = boat[field] as number;
    if (!Number.isFinite(value) || value < least || value > most) {
      problems.push({
        field,
        message: `${name} should be between ${least} and ${most} m. Check the figure and its unit.`,
      });
    }
  }
  if (problems.length > 0) return problems;
  if (boat.lwlM > boat.loaM)
    problems.push({
      field: 'lwlM',
      message: 'The waterline is longer than the boat. Swap length overall and waterline length, or correct one.',
    });
  if (boat.beamM > boat.loaM)
    problems.push({ field: 'beamM', message: 'The beam is more than the length. Check both.' });
  if (boat.draftM > boat.loaM / 2)
    problems.push({ field: 'draftM', message: 'The draught is more than half the length. Check both.' });
  return problems;
}
