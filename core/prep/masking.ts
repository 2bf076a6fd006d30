import type { BoatDimensions } from '../hull/area';
import { boatProfile, type Outline } from '../hull/profile';
import { hullShape, samples, type HullShape } from '../hull/shape';
import type { HullLines } from '../hull/lines';
import type { Layer } from '../model/layer';
import type { TapePull } from '../model/prep';
import type { SheetBody } from '../model/sheet';
import type { Keels, MaskItem, Side, Surface, ZoneKind } from '../model/surface';
import { overcoatFor } from '../sheet/overcoat';
import type { Border } from '../system/borders';
import { isEpoxy } from '../system/stack';
import { tapeLifeDays, tapeNeed, TAPES, tapings, type TapeKind } from './tape';

/** A zone, as far as its edges care. */
export type EdgeZone = Pick<Surface, 'id' | 'name' | 'kind' | 'areaM2' | 'parentId'> & { readonly side?: Side };

export interface EdgeLength {
  readonly lengthM: number;
  /** `shape`: along her drawn shape; `guess`: from the size of the smaller zone. */
  readonly known: 'shape' | 'guess';
}

const LEVELS: ReadonlySet<ZoneKind> = new Set(['underwater', 'bootTop', 'topsides'] as const);

/** Where a hull is cut by the edge between two of its zones, m; null where the drawing does not tell. */
function edgeOn(kinds: ReadonlySet<ZoneKind>, hull: EdgeHull): number | null {
  const { shape, bandM } = hull;
  const has = (...wanted: ZoneKind[]) => wanted.every((k) => kinds.has(k));
  if (has('deck', 'topsides')) return along(shape, (x) => shape.sheer(x));
  if (has('bootTop', 'topsides')) return along(shape, () => bandM ?? 0.1);
  if (has('underwater') && (kinds.has('bootTop') || kinds.has('topsides'))) return along(shape, () => 0);
  if (kinds.has('transom') && [...kinds].some((k) => LEVELS.has(k))) return section(shape);
  const { regions } = boatProfile(hull.boat, { lines: hull.lines, bandM });
  const root = (outlines: readonly Outline[] | undefined) =>
    (outlines ?? []).reduce((sum, [a, b]) => sum + (a && b ? 2 * Math.hypot(a.x - b.x, a.z - b.z) : 0), 0);
  if (has('keel', 'underwater')) return root(regions.keel) * (hull.boat.keels === 'twin' ? 2 : 1) || null;
  if (has('rudder', 'underwater')) return root(regions.rudder) || null;
  return null;
}

/** Both sides of the hull at a height that may change along her, with her flat stern where she has one. */
function along(shape: HullShape, heightM: (x: number) => number): number {
  const points = samples(0, shape.lengthM, 80).map((x) => ({ x, y: shape.half(x, heightM(x)), z: heightM(x) }));
  const on = points.filter((p) => p.y > 0);
  const [aft] = on;
  if (!aft || on.length < 2) return 0;
  const side = on.slice(1).reduce((sum, p, i) => {
    const q = on[i] as (typeof on)[number];
    return sum + Math.hypot(p.x - q.x, p.y - q.y, p.z - q.z);
  }, 0);
  const ends = [on[0], on.at(-1)].reduce((sum, p) => sum + (p ? 2 * p.y : 0), 0);
  return 2 * side + ends;
}

/** Round the stern from rail to rail, below the deck. */
function section(shape: HullShape): number {
  const x = shape.lengthM * 0.005;
  const heights = samples(shape.bottom(x), shape.sheer(x), 24);
  return heights.slice(1).reduce((sum, z, i) => {
    const below = heights[i] as number;
    return sum + 2 * Math.hypot(z - below, shape.half(x, z) - shape.half(x, below));
  }, 0);
}

interface EdgeHull {
  readonly boat: BoatDimensions & { readonly keels: Keels };
  readonly lines: HullLines | null;
  readonly bandM: number | null;
  readonly shape: HullShape;
}

/**
 * Length of the edge between two zones, m, along the hull's own shape; where the drawing does not tell, round a square
 * of the smaller one. One side only where a zone is one side.
 * @throws RangeError on impossible dimensions
 * @example
 *   edgeLengthM({
 *     zones: [{ ...zone, kind: 'topsides' }, { ...zone, kind: 'underwater' }],
 *     boat,
 *     lines: null,
 *     bandM: null,
 *   }).known // → 'shape'
 */
export function edgeLengthM(options: {
  zones: readonly [EdgeZone, EdgeZone];
  boat: BoatDimensions & { readonly keels: Keels };
  lines: HullLines | null;
  bandM: number | null;
}): EdgeLength {
  const { zones, boat, lines } = options;
  const length = edgeOn(new Set(zones.map((z) => z.kind)), { ...options, shape: hullShape(boat, lines) });
  const oneSide = zones.some((z) => z.side === 'port' || z.side === 'starboard');
  if (length) return { lengthM: oneSide ? length / 2 : length, known: 'shape' };
  return { lengthM: 4 * Math.sqrt(Math.max(0.01, Math.min(...zones.map((z) => z.areaM2)))), known: 'guess' };
}

/** An edge that is taped. */
export interface MaskEdge extends EdgeLength {
  readonly job: string;
  readonly upperId: string;
  readonly lowerId: string;
  readonly name: string;
  readonly pull: TapePull;
  readonly lifeDays: number;
  /** How often it is taped for the coats to come. */
  readonly tapings: number;
  /** Fine line on the line, then the wide one onto its outer half. */
  readonly tapes: readonly { readonly kind: TapeKind['id']; readonly lengthM: number; readonly rolls: number }[];
}

/** Something on a zone that is never painted. */
export interface MaskThing extends MaskItem {
  readonly job: string;
  readonly surfaceId: string;
}

/** What laps, ends and curves take. [M] */
const LAP_SHARE = 0.1;

export interface MaskingFacts {
  readonly surfaces: readonly (EdgeZone & { readonly maskList?: readonly MaskItem[] })[];
  readonly borders: readonly Border[];
  readonly boat: BoatDimensions & { readonly keels: Keels };
  readonly lines: HullLines | null;
  readonly bandM: number | null;
  /** Coats to come on a zone, each with its sheet. */
  readonly toCome: (surfaceId: string) => readonly (Pick<Layer, 'prep'> & { readonly sheet: SheetBody })[];
  /** Whether the sun reaches the tape. */
  readonly sun: boolean;
}

/**
 * What is taped and covered: each border's edge with its length, tapes, rolls and how often it is taped, in the order
 * in which zones are coated; and all that is never painted. Coats of the epoxy that runs on across a border stop at no
 * tape. The tape comes off a gloss coat wet, off others when they are touch dry. [CP]
 * @example
 *   maskJobs({
 *     surfaces: [zone],
 *     borders: [],
 *     boat,
 *     lines: null,
 *     bandM: null,
 *     toCome: () => [],
 *     sun: false,
 *   }).edges // → []
 */
export function maskJobs(facts: MaskingFacts): { edges: MaskEdge[]; things: MaskThing[] } {
  const zoneOf = new Map(facts.surfaces.map((s) => [s.id, s]));
  const lifeDays = tapeLifeDays({ sun: facts.sun });
  const edges = facts.borders.flatMap((border): MaskEdge[] => {
    const [upper, lower] = [zoneOf.get(border.upperId), zoneOf.get(border.lowerId)];
    if (!upper || !lower) return [];
    const whole = edgeLengthM({ ...facts, zones: [upper, lower] });
    const length = {
      ...whole,
      lengthM: whole.lengthM * Math.min(...[upper, lower].map((z) => shareOf(z, facts.surfaces))),
    };
    const stops = [upper, lower].map((zone) =>
      facts.toCome(zone.id).filter((c) => !(border.epoxyRunsOn && isEpoxy(c.sheet))),
    );
    const gloss = stops.flat().some((c) => c.sheet.kind === 'topcoat');
    const pull = gloss ? 'wet' : 'touchDry';
    const times = stops.reduce((sum, coats) => sum + tapings({ days: daysOf(coats), lifeDays }), 0);
    const tapes =
      times === 0
        ? []
        : ([TAPES.fineLine, TAPES.wide] as const).map(({ id, rollM }) => ({
            kind: id,
            ...tapeNeed({ lengthM: length.lengthM * times, rollM, overlapShare: LAP_SHARE }),
          }));
    return [
      {
        ...length,
        job: `edge:${border.id}`,
        upperId: upper.id,
        lowerId: lower.id,
        name: `${upper.name} / ${lower.name}`,
        pull,
        lifeDays,
        tapings: times,
        tapes,
      },
    ];
  });
  const things = facts.surfaces.flatMap((s) =>
    (s.maskList ?? []).map((item): MaskThing => ({ ...item, job: `thing:${item.id}`, surfaceId: s.id })),
  );
  return { edges: edges.sort((a, b) => Number(b.tapings > 0) - Number(a.tapings > 0)), things };
}

/** Of an edge, what falls to one of several zones of a kind: a fore and an after half share it by their areas. */
function shareOf(zone: EdgeZone, zones: readonly EdgeZone[]): number {
  const alike = zones.filter(
    (z) => z.kind === zone.kind && !z.parentId && (z.side ?? 'both') === (zone.side ?? 'both'),
  );
  const all = alike.reduce((sum, z) => sum + z.areaM2, 0);
  return alike.length > 1 && alike.includes(zone) && all > 0 ? zone.areaM2 / all : 1;
}

/** Days of coats that follow each other as soon as their sheets let them, a coat a day at the most. */
function daysOf(coats: readonly { readonly sheet: SheetBody }[]): number[] {
  let day = 0;
  return coats.map(({ sheet }, i) => {
    const before = coats[i - 1];
    if (before) {
      const minimum = overcoatFor(before.sheet, sheet.kind)?.minimum;
      const hours = minimum ? Math.min(...minimum.map((t) => t.hours)) : 24;
      day += Math.max(1, Math.ceil(hours / 24));
    }
    return day;
  });
}
