import { areaFromDimensions, isDimensioned } from './area';
import type { AreaMethod, HullModel } from '../model/area';
import type { Keels, PatchKind, Side } from '../model/surface';
import { positive, shareBelowOne } from '../guard';
import type { BoatDimensions, ZoneArea } from './area';
import { calibratedArea, calibratedShare } from './calibrated';
import { DENNY_SHARE, dennyMumfordM2 } from './denny';
import { areaFromGirths } from './girths';
import { areaFromOffsets } from './offsets';
import { sumShapes } from './shapes';
import { wearBand } from './wear';
import { Impossible } from '../impossible';
import type {
  AreaRecord,
  GirthRecord,
  GirthStation,
  HeightRange,
  MeshPart,
  MeshRecord,
  NamedShape,
  OffsetRecord,
} from '../model/area';
import { NO_MODEL } from '../model/area';
import type { ZoneKind } from '../model/surface';

/** ± of areas by tape, offsets and mesh, shares at 95 %. Tape with slope correction: handbook figure [CP]; the others [M]. */
export const GIRTH_SHARE = { sloped: 0.04, plain: 0.06, few: 0.1 } as const;

const OFFSETS_SHARE = 0.03;

const MESH_SHARE = 0.03;

/** A girth survey of fewer stations is coarse. */
const FEW_STATIONS = 5;

const length = (name: string, value: number) => ({ name, value, quantity: 'length' as const });

const plain = (name: string, value: number) => ({ name, value, quantity: 'plain' as const });

const square = (name: string, value: number) => ({ name, value, quantity: 'area' as const });

function byDimensions({ kind, boat, area }: AreaQuestion): ZoneArea {
  if (!isDimensioned(kind))
    throw new Impossible(
      'There is no rule of thumb for the area of this kind of zone. Measure it: tape, shapes, or type it.',
    );
  return areaFromDimensions({ kind, boat, inputs: area.dimensions });
}

function byDenny({ boat, area }: AreaQuestion): ZoneArea {
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
    share:
      Math.hypot(
        taped.length < FEW_STATIONS ? GIRTH_SHARE.few : sloped ? GIRTH_SHARE.sloped : GIRTH_SHARE.plain,
        found.rule === 'trapezoid' ? coarseShare(taped) : 0,
      ) +
      untapedM2(record.stations) / found.areaM2,
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

/** How far trapezoids may be off: a third of what half as many stations would change. [P: Richardson] */
function coarseShare(taped: readonly GirthStation[]): number {
  const half = taped.filter((_, i) => i % 2 === 0 || i === taped.length - 1);
  const trapezoids = (stations: readonly GirthStation[]) =>
    stations.slice(1).reduce((sum, s, i) => {
      const before = stations[i] as GirthStation;
      return sum + ((s.xM - before.xM) * ((s.halfGirthM ?? 0) + (before.halfGirthM ?? 0))) / 2;
    }, 0);
  const whole = trapezoids(taped);
  return Math.abs(whole - trapezoids(half)) / 3 / whole;
}

/** What may lie beyond the first and the last girth where the end stations are not taped, both sides, m². */
function untapedM2(stations: readonly GirthStation[]): number {
  const isTaped = (s: GirthStation) => s.halfGirthM !== null;
  const first = stations.findIndex(isTaped);
  const last = stations.findLastIndex(isTaped);
  const between = (a: number, b: number) =>
    Math.abs((stations[a] as GirthStation).xM - (stations[b] as GirthStation).xM);
  const beyond = (end: number, taped: number) =>
    between(end, taped) * ((stations[taped] as GirthStation).halfGirthM ?? 0);
  return beyond(0, first) + beyond(stations.length - 1, last);
}

const RULE_WORDS = {
  simpson: 'Simpson’s rule',
  trapezoid: 'trapezoids',
  mixed: 'Simpson’s rule and one trapezoid',
} as const;

/**
 * Heights that a kind of zone usually lies between.
 * @example usualRange('underwater') // → { fromM: null, toM: 0 }
 */
export function usualRange(kind: ZoneKind, bandM: number | null = null): HeightRange {
  if (kind === 'underwater') return { fromM: null, toM: 0 };
  if (kind === 'bootTop') return { fromM: 0, toM: bandM ?? 0.15 };
  return { fromM: bandM ?? 0, toM: null };
}

/**
 * The part of a mesh that a kind of zone usually is.
 * @example usualPart('topsides') // → 'aboveWaterline'
 */
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

/** One way to an area. */
interface AreaBy {
  /** Its figures are there. */
  readonly isMeasured: (question: AreaQuestion) => boolean;
  /** @throws RangeError with what to do where its figures are not */
  readonly area: (question: AreaQuestion) => ZoneArea;
  /** It tells of both sides of the hull; a zone of one side takes its share. */
  readonly ofWholeHull: boolean;
}

/** Every way to an area. */
export const AREA_BY: Readonly<Record<AreaMethod, AreaBy>> = {
  dimensions: {
    isMeasured: ({ kind }) => isDimensioned(kind),
    area: byDimensions,
    ofWholeHull: true,
  },
  denny: { isMeasured: ({ area }) => area.denny != null, area: byDenny, ofWholeHull: true },
  girths: {
    isMeasured: ({ area }) => (area.girths?.stations ?? []).filter((s) => s.halfGirthM !== null).length >= 2,
    area: ({ area }) => byGirths(area.girths ?? null),
    ofWholeHull: true,
  },
  offsets: {
    isMeasured: ({ hull }) => (hull?.offsets ?? null) !== null,
    area: ({ kind, area, hull = NO_MODEL }) => byOffsets(hull.offsets, area.offsets ?? usualRange(kind)),
    ofWholeHull: true,
  },
  mesh: {
    isMeasured: ({ hull }) => (hull?.mesh ?? null) !== null,
    area: ({ kind, area, hull = NO_MODEL }) => byMesh(hull.mesh, area.mesh?.part ?? usualPart(kind)),
    ofWholeHull: true,
  },
  shapes: {
    isMeasured: ({ area }) => (area.shapes ?? []).length > 0,
    area: ({ area }) => byShapes(area.shapes ?? []),
    ofWholeHull: false,
  },
  typed: {
    isMeasured: ({ area }) => area.typed !== null,
    area: ({ area }) => byHand(area),
    ofWholeHull: false,
  },
  calibrated: {
    isMeasured: ({ area }) => area.calibrated != null,
    area: ({ area }) => byPaint(area),
    ofWholeHull: false,
  },
  band: { isMeasured: ({ area }) => area.band != null, area: byBand, ofWholeHull: false },
};
