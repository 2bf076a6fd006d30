import { positive, shareBelowOne } from '../guard';
import { areaFromDimensions, isDimensioned, type AreaInputs, type BoatDimensions, type ZoneArea } from './area';
import { calibratedArea, calibratedShare } from './calibrated';
import { dennyMumfordM2, DENNY_SHARE } from './denny';
import { areaFromGirths } from './girths';
import type { HullLines } from './lines';
import type { MeshDefects } from './defects';
import type { Plane } from './mesh';
import { areaFromOffsets, type OffsetTable } from './offsets';
import type { MeshSize, Placement } from './placement';
import { sumShapes, type ShapePart } from './shapes';
import { combineAreas } from './uncertainty';
import { wearBand, type WearBandInput } from './wear';
import { PATCHES, sideShare, type Keels, type PatchKind, type Side, type ZoneKind } from './zones';
import { Impossible } from '../impossible';

/** The ways to an area. */
export const AREA_METHODS = [
  'dimensions',
  'denny',
  'girths',
  'offsets',
  'mesh',
  'shapes',
  'typed',
  'calibrated',
  'band',
] as const;
export type AreaMethod = (typeof AREA_METHODS)[number];

/** ± of areas by tape, offsets and mesh, shares at 95 %. Tape with slope correction: handbook figure [CP]; the others [M]. */
export const GIRTH_SHARE = { sloped: 0.04, plain: 0.06, few: 0.1 } as const;
const OFFSETS_SHARE = 0.03;
const MESH_SHARE = 0.03;
/** A girth survey of fewer stations is coarse. */
const FEW_STATIONS = 5;

export interface GirthStation {
  readonly xM: number;
  /** Null: not taped yet. */
  readonly halfGirthM: number | null;
  readonly halfBreadthM: number | null;
}
export interface GirthRecord {
  readonly even: boolean;
  readonly stations: readonly GirthStation[];
}
export interface NamedShape extends ShapePart {
  readonly id: string;
  readonly name: string;
}
/** Heights above the waterline between which a table of offsets is taken, m; null is open. */
export interface HeightRange {
  readonly fromM: number | null;
  readonly toM: number | null;
}
export const MESH_PARTS = ['below', 'band', 'above', 'aboveWaterline', 'whole'] as const;
export type MeshPart = (typeof MESH_PARTS)[number];

/** How a zone's area was found. What was typed for each method is kept, so that switching loses nothing. */
export interface AreaRecord {
  readonly method: AreaMethod;
  readonly dimensions: AreaInputs;
  readonly typed: { readonly areaM2: number; readonly share: number } | null;
  readonly denny?: { readonly displacedM3: number; readonly draftM: number | null } | null;
  readonly girths?: GirthRecord | null;
  readonly offsets?: HeightRange | null;
  readonly mesh?: { readonly part: MeshPart } | null;
  readonly shapes?: readonly NamedShape[] | null;
  readonly calibrated?: {
    readonly coatId: string | null;
    readonly litres: number;
    readonly wetFilmMicron: number;
    readonly thinner: number;
    readonly readings: number;
  } | null;
  readonly band?: WearBandInput | null;
}

export interface OffsetRecord extends OffsetTable {
  /** Height at which the boat floats, on the table's own scale, m. */
  readonly waterlineM: number;
  /** Stations count from the bow. */
  readonly fromBow: boolean;
  /** Count the bottom inside the lowest waterline as flat. */
  readonly includeBottom: boolean;
}

export interface MeshRecord {
  /** SHA-256 of the file as it came, hex. */
  readonly fileHash: string;
  readonly fileName: string;
  readonly bytes: number;
  readonly triangles: number;
  readonly placement: Placement;
  /** Height above the lowest point of the mesh, with heel and trim. */
  readonly waterline: Plane;
  /** Height of the band above the waterline, m. */
  readonly bandM: number;
  readonly size: MeshSize;
  readonly areas: {
    readonly belowM2: number;
    readonly bandM2: number;
    readonly aboveM2: number;
    readonly volumeBelowM3: number;
    readonly cutShare: number;
  };
  readonly defects: MeshDefects | null;
  readonly waterlineGirthM: number;
  readonly lines: HullLines;
}

/** What is known of a boat's hull as a whole, beyond her dimensions. */
export interface HullModel {
  readonly offsets: OffsetRecord | null;
  readonly mesh: MeshRecord | null;
}
export const NO_MODEL: HullModel = { offsets: null, mesh: null };

/** What a zone needs told for its area to be worked out. */
export interface AreaQuestion {
  readonly kind: ZoneKind;
  readonly patchKind?: PatchKind | null;
  readonly side?: Side;
  readonly partShare?: number | null;
  readonly boat: BoatDimensions & { keels?: Keels };
  readonly hull?: HullModel;
  readonly area: AreaRecord;
}

/** The methods a kind of zone can have, the quickest first. */
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

/** Whether a method has its figures, so that it may be shown beside the others. */
export function isMeasured(question: AreaQuestion, method: AreaMethod): boolean {
  const { area, hull = NO_MODEL } = question;
  switch (method) {
    case 'dimensions':
      return isDimensioned(question.kind);
    case 'offsets':
      return hull.offsets !== null;
    case 'mesh':
      return hull.mesh !== null;
    case 'girths':
      return (area.girths?.stations ?? []).filter((s) => s.halfGirthM !== null).length >= 2;
    case 'shapes':
      return (area.shapes ?? []).length > 0;
    default:
      return area[method] != null;
  }
}

/** Area of a zone by the method in use. @throws RangeError where that method lacks its figures */
export function zoneArea(question: AreaQuestion): ZoneArea {
  return areaBy(question, question.area.method);
}

/** Area of a zone by any method. @throws RangeError with what to do where that method lacks its figures */
export function areaBy(question: AreaQuestion, method: AreaMethod): ZoneArea {
  const whole = wholeAreaBy(question, method);
  const share = sideShare(question.side ?? 'both', question.partShare ?? null);
  // Shapes, typed and painted areas are of the zone itself; the others are of the whole hull.
  if (share === 1 || !WHOLE_HULL.has(method)) return whole;
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

const WHOLE_HULL: ReadonlySet<AreaMethod> = new Set(['dimensions', 'denny', 'girths', 'offsets', 'mesh']);

/** Zones by one of these share its error. Null: measured on its own. */
export function errorGroup(method: AreaMethod): string | null {
  return method === 'dimensions' || method === 'denny'
    ? 'dimensions'
    : method === 'offsets' || method === 'mesh'
      ? method
      : null;
}

function wholeAreaBy(question: AreaQuestion, method: AreaMethod): ZoneArea {
  const { kind, boat, area, hull = NO_MODEL } = question;
  switch (method) {
    case 'dimensions':
      if (!isDimensioned(kind))
        throw new Impossible(
          'There is no rule of thumb for the area of this kind of zone. Measure it: tape, shapes, or type it.',
        );
      return areaFromDimensions({ kind, boat, inputs: area.dimensions });
    case 'denny':
      return byDenny(boat, area);
    case 'girths':
      return byGirths(area.girths ?? null);
    case 'offsets':
      return byOffsets(hull.offsets, area.offsets ?? usualRange(kind));
    case 'mesh':
      return byMesh(hull.mesh, area.mesh?.part ?? usualPart(kind));
    case 'shapes':
      return byShapes(area.shapes ?? []);
    case 'typed':
      return byHand(area);
    case 'calibrated':
      return byPaint(area);
    case 'band':
      return byBand(question);
  }
}

const length = (name: string, value: number) => ({ name, value, quantity: 'length' as const });
const plain = (name: string, value: number) => ({ name, value, quantity: 'plain' as const });
const square = (name: string, value: number) => ({ name, value, quantity: 'area' as const });

function byDenny(boat: BoatDimensions, area: AreaRecord): ZoneArea {
  if (!area.denny) throw new Impossible('Type the volume the boat displaces: her mass in tonnes is close to it.');
  const draftM = area.denny.draftM ?? boat.draftM;
  return {
    areaM2: dennyMumfordM2({ lwlM: boat.lwlM, draftM, displacedM3: area.denny.displacedM3 }),
    share: DENNY_SHARE,
    working: {
      what: 'Wetted surface by Denny–Mumford',
      formula: '1.7 × waterline length × draught + displaced volume / draught',
      inputs: [
        length('waterline length', boat.lwlM),
        length('draught', draftM),
        plain('displaced volume, m³', area.denny.displacedM3),
      ],
      source: { label: 'P', name: 'Denny–Mumford, naval-architecture texts' },
      mattersMost: 'Made for displacement hulls: use the draught of the body without a fin keel.',
    },
  };
}

function byGirths(record: GirthRecord | null): ZoneArea {
  const taped = (record?.stations ?? []).filter((s) => s.halfGirthM !== null);
  if (record === null || taped.length < 2)
    throw new Impossible('Tape the half-girth at two stations or more; five or seven make it good.');
  const sloped = taped.every((s) => s.halfBreadthM !== null);
  const found = areaFromGirths({
    stationsM: taped.map((s) => s.xM),
    halfGirthsM: taped.map((s) => s.halfGirthM as number),
    ...(sloped ? { halfBreadthsM: taped.map((s) => s.halfBreadthM as number) } : {}),
  });
  const gaps = record.stations.length - taped.length;
  const short =
    record.stations[0]?.halfGirthM === null || record.stations[record.stations.length - 1]?.halfGirthM === null;
  return {
    areaM2: found.areaM2,
    share: taped.length < FEW_STATIONS ? GIRTH_SHARE.few : sloped ? GIRTH_SHARE.sloped : GIRTH_SHARE.plain,
    working: {
      what: `Both sides, from ${taped.length} girths${gaps > 0 ? `, ${gaps} still to tape` : ''}`,
      formula: `2 × sum of half-girths along the length, by ${RULE_WORDS[found.rule]}${sloped ? ', each stretched by the slope of the side' : ''}`,
      inputs: [
        length(
          'from the first to the last station',
          (taped[taped.length - 1] as GirthStation).xM - (taped[0] as GirthStation).xM,
        ),
        length('largest half-girth', Math.max(...taped.map((s) => s.halfGirthM as number))),
        plain('slope factor', found.slopeFactor),
      ],
      source: { label: 'CP' },
      mattersMost: short
        ? 'An end station is not taped: what lies beyond the last girth is not counted.'
        : sloped
          ? 'More stations where the hull turns quickest.'
          : 'Slope was not corrected for: take the half-breadth at every station too.',
    },
  };
}

const RULE_WORDS = {
  simpson: 'Simpson’s rule',
  trapezoid: 'trapezoids',
  mixed: 'Simpson’s rule and one trapezoid',
} as const;

/** Heights that a kind of zone usually lies between. */
export function usualRange(kind: ZoneKind, bandM: number | null = null): HeightRange {
  if (kind === 'underwater') return { fromM: null, toM: 0 };
  if (kind === 'bootTop') return { fromM: 0, toM: bandM ?? 0.15 };
  return { fromM: bandM ?? 0, toM: null };
}

export function usualPart(kind: ZoneKind): MeshPart {
  return kind === 'underwater' ? 'below' : kind === 'bootTop' ? 'band' : 'aboveWaterline';
}

function byOffsets(table: OffsetRecord | null, range: HeightRange): ZoneArea {
  if (!table) throw new Impossible('This boat has no table of offsets yet. Type or import one.');
  const found = areaFromOffsets({
    ...table,
    ...(range.fromM === null ? {} : { fromM: range.fromM + table.waterlineM }),
    ...(range.toM === null ? {} : { toM: range.toM + table.waterlineM }),
  });
  const bottom = table.includeBottom && range.fromM === null ? found.openBottomM2 : 0;
  if (found.areaM2 + bottom <= 0)
    throw new Impossible(
      'The table of offsets holds no hull between these heights. Check the heights and the waterline.',
    );
  return {
    areaM2: found.areaM2 + bottom,
    share: OFFSETS_SHARE,
    working: {
      what: 'Both sides, from the table of offsets',
      formula: 'two triangles for every cell between stations and waterlines, cut at the heights',
      inputs: [
        plain('stations', table.stationsM.length),
        plain('waterlines', table.waterlinesM.length),
        ...(range.fromM === null ? [] : [length('from above the waterline', range.fromM)]),
        ...(range.toM === null ? [] : [length('up to above the waterline', range.toM)]),
        ...(bottom > 0 ? [square('of it flat bottom inside the lowest waterline', bottom)] : []),
      ],
      source: { label: 'CP' },
      mattersMost: 'Keel and rudder are in it only as far as they are in the table.',
    },
  };
}

function byMesh(mesh: MeshRecord | null, part: MeshPart): ZoneArea {
  if (!mesh) throw new Impossible('This boat has no mesh yet. Bring in an STL or OBJ file of her hull.');
  const { belowM2, bandM2, aboveM2, cutShare } = mesh.areas;
  const areaM2 = {
    below: belowM2,
    band: bandM2,
    above: aboveM2,
    aboveWaterline: bandM2 + aboveM2,
    whole: belowM2 + bandM2 + aboveM2,
  }[part];
  if (!(areaM2 > 0))
    throw new Impossible('The mesh holds nothing in this part. Check the waterline, or choose another part.');
  return {
    areaM2,
    share: MESH_SHARE,
    working: {
      what: `From the mesh, ${{ below: 'below the waterline', band: 'in the band above the waterline', above: 'above the band', aboveWaterline: 'above the waterline', whole: 'all of it' }[part]}`,
      formula: 'sum of the triangles, those that cross a plane cut exactly',
      inputs: [
        plain('triangles', mesh.triangles),
        length('waterline above the lowest point', mesh.waterline.heightM),
        length('height of the band', mesh.bandM),
        { name: 'in triangles that were cut', value: cutShare, quantity: 'share' },
      ],
      source: { label: 'P', name: 'geometry of the file' },
      mattersMost:
        'What the file leaves out is not painted here, what it holds besides (a deck, the inside) is: look at it in the drawing.',
    },
  };
}

function byShapes(shapes: readonly NamedShape[]): ZoneArea {
  const sum = sumShapes(shapes);
  return {
    areaM2: sum.areaM2,
    share: sum.share,
    working: {
      what: 'Sum of shapes',
      formula: 'each shape by its geometry, times how many, deductions taken off',
      inputs: shapes.map((s) =>
        square(
          `${s.name}${s.count > 1 ? ` × ${s.count}` : ''}${s.deduct ? ', taken off' : ''}`,
          sumShapes([{ ...s, deduct: false }]).areaM2,
        ),
      ),
      source: { label: 'P', name: 'plane geometry' },
      mattersMost: 'The shape with the largest area and the widest ±.',
    },
  };
}

function byHand(area: AreaRecord): ZoneArea {
  if (area.typed === null) throw new Impossible('Type the area of the zone and how well it is known.');
  const { areaM2, share } = area.typed;
  positive(areaM2, 'Area');
  return {
    areaM2,
    share: shareBelowOne(share, 'The ± of the area'),
    working: {
      what: 'Area as typed in',
      formula: 'typed in',
      inputs: [square('area', areaM2)],
      source: { label: 'user' },
    },
  };
}

function byPaint(area: AreaRecord): ZoneArea {
  const c = area.calibrated;
  if (!c)
    throw new Impossible(
      'Finish a coat with its litres and comb readings, or type both: the paint then tells the area.',
    );
  return {
    areaM2: calibratedArea(c),
    share: calibratedShare(c.readings),
    working: {
      what: 'Area the paint covered',
      formula: '1000 × litres on, thinner included / wet film',
      inputs: [
        { name: 'litres on', value: c.litres, quantity: 'volume' },
        { name: 'thinner', value: c.thinner, quantity: 'share' },
        { name: 'mean wet film', value: c.wetFilmMicron, quantity: 'film' },
        plain('comb readings', c.readings),
      ],
      source: { label: 'P', name: 'standard coating arithmetic' },
      mattersMost: 'The comb: ten readings over the whole zone make it good.',
    },
  };
}

function byBand(question: AreaQuestion): ZoneArea {
  const { area, boat, hull = NO_MODEL } = question;
  if (!area.band) throw new Impossible('Choose where the hull wears and how wide the band is.');
  const girth = hull.mesh?.waterlineGirthM ?? null;
  const found = wearBand({
    band: area.band,
    boat: { ...boat, keels: boat.keels ?? 'none' },
    waterlineGirthM: girth === 0 ? null : girth,
  });
  return {
    areaM2: found.areaM2,
    share: found.share,
    working: {
      what: 'Band of high wear',
      formula: 'length along the edge × width of the band',
      inputs: [
        length(area.band.lengthM === null ? 'length, from the hull' : 'length, taped', found.lengthM),
        length('width', area.band.widthM),
      ],
      source: { label: 'CP' },
      mattersMost: 'The width: measure it round the edge, from side to side.',
    },
  };
}

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

/** Area of a boat's whole painted skin with its ±: zones without their patches' bookkeeping, shared errors together. */
export function totalArea(
  surfaces: readonly (AreaOwner & { grossM2: number; areaShare: number })[],
): ReturnType<typeof combineAreas> {
  return combineAreas(
    surfaces
      .filter((s) => !s.parentId)
      .map((s) => ({ areaM2: s.grossM2, share: s.areaShare, group: errorGroup(s.area.method) })),
  );
}

/** Whether what the paint covered contradicts the estimate: by more than both uncertainties allow. */
export function paintContradicts(options: {
  estimate: { areaM2: number; share: number };
  painted: { areaM2: number; share: number };
}): boolean {
  const { estimate, painted } = options;
  return (
    Math.abs(estimate.areaM2 - painted.areaM2) >
    Math.hypot(estimate.areaM2 * estimate.share, painted.areaM2 * painted.share)
  );
}
