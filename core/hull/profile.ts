import type { HullLines } from './lines';
import { hullShape, samples, type DrawnBoat, type HullShape } from './shape';
import type { ZoneKind } from '../model/surface';

/** A point of the profile, metres: x from the aftermost point forward, z above the waterline. */
export interface ProfilePoint {
  readonly x: number;
  readonly z: number;
}
export type Outline = readonly ProfilePoint[];

export interface BoatProfile {
  readonly lengthM: number;
  /** Highest and lowest z drawn. */
  readonly topM: number;
  readonly bottomM: number;
  /** Hull without appendages. */
  readonly hull: Outline;
  /** One outline a zone kind, back to front. */
  readonly regions: Partial<Record<ZoneKind, readonly Outline[]>>;
  /** Ends of the waterline. */
  readonly waterline: readonly [number, number];
  /** What the curves were drawn from. */
  readonly known: HullShape['known'];
}

/**
 * A profile of the boat to scale: from her lines where they are known, else length, waterline, draught and freeboard
 * are true and the curves between them are drawn by eye for the hull form.
 * @param boat `keels`: twin bilge keels stand shorter and further apart than one keel
 * @param options.bandM height of the boot-top, m
 * @throws RangeError on impossible dimensions
 * @example boatProfile(boat).lengthM // → 9
 */
export function boatProfile(
  boat: DrawnBoat,
  options: { lines?: HullLines | null; bandM?: number | null } = {},
): BoatProfile {
  const shape = hullShape(boat, options.lines ?? null);
  const { sheer, bottom: rocker, lengthM: loa } = shape;
  const [aft, fore] = shape.waterline;
  const lwl = fore - aft;
  const { draftM: draft, freeboardM: freeboard } = boat;
  const band = options.bandM ?? Math.min(0.15, freeboard / 4);

  const top = samples(0, loa).map((x) => ({ x, z: sheer(x) }));
  const hull: Outline =
    shape.known === 'dimensions'
      ? [
          ...top,
          ...curve({ x: loa, z: sheer(loa) }, { x: fore, z: 0 }, 0.5 * (loa - fore), -1),
          ...samples(fore, aft).map((x) => ({ x, z: rocker(x) })),
          ...curve({ x: aft, z: 0 }, { x: 0, z: sheer(0) * 0.9 }, 0.3 * aft, 1),
        ]
      : [...top, ...samples(loa, 0).map((x) => ({ x, z: rocker(x) }))];
  const canoe = -Math.min(...samples(aft, fore).map(rocker));
  const keel = keelOutline(boat, { aft, lwl, draft, canoe: rocker }, shape.keelsBelow || shape.known === 'dimensions');
  const deckBand = Math.max(0.05, freeboard * 0.09);
  const house = { from: loa * 0.3, to: loa * 0.68, up: Math.min(0.5, freeboard * 0.42) };
  const regions: BoatProfile['regions'] = {
    underwater: [between(hull, -Infinity, 0)],
    keel: keel.keels,
    rudder: [keel.rudder],
    sternGear: [box(aft + lwl * 0.09, -draft * 0.3, lwl * 0.05, draft * 0.06)],
    bootTop: [between(hull, 0, band)],
    topsides: [between(hull, band, Infinity)],
    transom: [
      [
        { x: 0, z: sheer(0) * 0.9 },
        { x: loa * 0.012, z: sheer(0) * 0.9 },
        { x: aft + loa * 0.012, z: band },
        { x: aft * 0.9, z: band },
      ],
    ],
    deck: [[...top, ...top.map((p) => ({ x: p.x, z: p.z + deckBand })).reverse()]],
    nonSkid: [strip(sheer, loa * 0.72, loa * 0.94, deckBand * 0.2, deckBand * 0.9)],
    coachroof: [
      [
        { x: house.from, z: sheer(house.from) + deckBand },
        { x: house.to, z: sheer(house.to) + deckBand },
        { x: house.to - loa * 0.06, z: sheer(house.to) + house.up },
        { x: house.from, z: sheer(house.from) + house.up * 1.1 },
      ],
    ],
    cockpit: [strip(sheer, loa * 0.08, loa * 0.28, deckBand, deckBand * 2)],
    bilge: [
      samples(0.25, 0.75, 12)
        .map((t) => lift(t, 0))
        .concat(samples(0.75, 0.25, 12).map((t) => lift(t, canoe * 0.22))),
    ],
    lockers: [box(loa * 0.55, freeboard * 0.2, loa * 0.1, freeboard * 0.35)],
    anchorLocker: [box(loa * 0.84, freeboard * 0.45, loa * 0.07, freeboard * 0.32)],
    engineBay: [box(loa * 0.24, -canoe * 0.2, loa * 0.12, freeboard * 0.5)],
    tank: [box(loa * 0.42, -canoe * 0.3, loa * 0.1, freeboard * 0.35)],
  };
  function lift(t: number, by: number): ProfilePoint {
    const x = aft + lwl * t;
    return { x, z: rocker(x) * 0.86 + by };
  }
  const lowest = Math.min(
    ...hull.map((p) => p.z),
    ...keel.keels.flat().map((p) => p.z),
    ...keel.rudder.map((p) => p.z),
  );
  return {
    lengthM: loa,
    topM: Math.max(...top.map((p) => p.z)) + Math.max(house.up * 0.2, deckBand),
    bottomM: lowest,
    hull,
    regions,
    waterline: [aft, fore],
    known: shape.known,
  };
}

function keelOutline(
  boat: DrawnBoat,
  hull: { aft: number; lwl: number; draft: number; canoe: (x: number) => number },
  hung: boolean,
): { keels: Outline[]; rudder: Outline } {
  const { aft, lwl, draft, canoe } = hull;
  const at = (t: number) => aft + lwl * t;
  const hang = (from: number, to: number, rakeFrom: number, rakeTo: number, depth: number): Outline => [
    { x: at(from), z: canoe(at(from)) * 0.9 },
    { x: at(to), z: canoe(at(to)) * 0.9 },
    { x: at(rakeTo), z: -depth },
    { x: at(rakeFrom), z: -depth },
  ];
  const rudderDepth = boat.form === 'finKeel' ? 0.8 : boat.keels === 'twin' ? 0.85 : 0.92;
  const rudder = hang(0.03, 0.1, 0.03, 0.085, draft * rudderDepth);
  if (boat.keels === 'none' || !hung) return { keels: [], rudder };
  if (boat.form === 'full') return { keels: [hang(0.1, 0.5, 0.1, 0.3, draft)], rudder };
  if (boat.keels === 'twin') return { keels: [hang(0.4, 0.66, 0.44, 0.6, draft)], rudder };
  if (boat.form === 'longKeel') return { keels: [hang(0.14, 0.72, 0.13, 0.6, draft)], rudder };
  return { keels: [hang(0.42, 0.66, 0.42, 0.58, draft)], rudder };
}

/** A slightly bellied line between two points, its ends left out at the start. */
function curve(from: ProfilePoint, to: ProfilePoint, belly: number, side: 1 | -1): ProfilePoint[] {
  return samples(0, 1, 8)
    .slice(1)
    .map((t) => {
      return {
        x: from.x + (to.x - from.x) * t - side * belly * Math.sin(Math.PI * t) * 0.5,
        z: from.z + (to.z - from.z) * t,
      };
    });
}

function box(x: number, z: number, width: number, height: number): Outline {
  return [
    { x, z },
    { x: x + width, z },
    { x: x + width, z: z + height },
    { x, z: z + height },
  ];
}

function strip(line: (x: number) => number, from: number, to: number, low: number, high: number): Outline {
  const xs = samples(from, to, 8);
  return [...xs.map((x) => ({ x, z: line(x) + low })), ...[...xs].reverse().map((x) => ({ x, z: line(x) + high }))];
}

/** The part of an outline between two heights, cut exactly (Sutherland–Hodgman on two level lines). */
export function between(outline: Outline, lowM: number, highM: number): Outline {
  return clip(clip(outline, lowM, 1), highM, -1);
}

function clip(outline: Outline, level: number, keep: 1 | -1): Outline {
  if (!Number.isFinite(level)) return outline;
  const inside = (p: ProfilePoint) => (p.z - level) * keep >= 0;
  const result: ProfilePoint[] = [];
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length] as ProfilePoint;
    if (inside(p)) result.push(p);
    if (inside(p) !== inside(q)) result.push({ x: p.x + ((q.x - p.x) * (level - p.z)) / (q.z - p.z), z: level });
  });
  return result;
}

/** Area of an outline, m² (shoelace). */
export function outlineAreaM2(outline: Outline): number {
  let twice = 0;
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length] as ProfilePoint;
    twice += p.x * q.z - q.x * p.z;
  });
  return Math.abs(twice) / 2;
}
