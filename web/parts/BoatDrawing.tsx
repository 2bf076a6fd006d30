import { useId, type Ref } from 'react';
import type { HullLines } from '#core/hull/lines';
import { boatProfile, type BoatProfile, type Outline } from '#core/hull/profile';
import type { ZoneKind } from '#core/model/surface';
import type { Boat } from '#contracts/rows/boat';
import { StatePattern } from './patterns';
import { BARE, INK, ZoneRegion, type DrawnZone } from './ZoneRegion';

/** Painted from the back of the drawing to the front. */
const ORDER: ZoneKind[] = [
  'deck',
  'cockpit',
  'coachroof',
  'nonSkid',
  'keel',
  'rudder',
  'topsides',
  'underwater',
  'bootTop',
  'transom',
  'sternGear',
  'bilge',
  'tank',
  'engineBay',
  'lockers',
  'anchorLocker',
];
const INSIDE = new Set<string>(['bilge', 'tank', 'engineBay', 'lockers', 'anchorLocker']);

export interface StationMark {
  /** From the aftermost point, m. */
  x: number;
  label: string;
  state: 'done' | 'gap' | 'stray';
  current: boolean;
}

/**
 * The boat in profile, bow to the right, to scale: from her lines where they are known, else from her own
 * dimensions. Each zone wears the colour of the coat it carries and the pattern of its state, and can be
 * picked. `scale` is px a metre, where several boats stand side by side; else it fills its box.
 */
export function BoatDrawing({
  boat,
  zones,
  lines = null,
  bandM = null,
  stations = [],
  selected,
  onPick,
  scale,
  stands = true,
  label,
  svgRef,
}: {
  boat: Boat;
  zones: readonly DrawnZone[];
  lines?: HullLines | null;
  bandM?: number | null;
  stations?: readonly StationMark[];
  selected?: string | null;
  onPick?: ((surfaceId: string) => void) | undefined;
  scale?: number;
  stands?: boolean;
  label?: string;
  svgRef?: Ref<SVGSVGElement>;
}) {
  const uid = useId();
  const frame = frameOf({ boat, lines, bandM, numbered: stations.length > 0 });
  const { profile, width, height, topY, at, standsAt } = frame;
  const patches = zones.filter((z) => z.patchKind);
  return (
    <svg
      ref={svgRef}
      viewBox={`0 0 ${width} ${height}`}
      {...(scale ? { width: width * scale, height: height * scale } : { width: '100%' })}
      role={onPick ? 'group' : 'img'}
      aria-label={label ?? `${boat.name} in profile`}
      className="block max-h-full max-w-full"
      preserveAspectRatio="xMidYMax meet"
    >
      <defs>
        {zones.map((z) => (
          <StatePattern
            key={z.surfaceId}
            id={`${uid}-${z.surfaceId}`}
            state={z.state}
            scale={scale ? 1 / scale : width / 620}
          />
        ))}
      </defs>
      {stands && <Stands frame={frame} />}
      {regionsOf({ boat, zones, selected }).map(({ kind, zone, fill, dashed }) => (
        <ZoneRegion
          key={kind}
          zone={zone}
          d={(profile.regions[kind] ?? []).map(frame.path).join('')}
          fill={fill}
          uid={uid}
          selected={zone !== undefined && zone.surfaceId === selected}
          onPick={onPick}
          dashed={dashed}
        />
      ))}
      {patches.map((patch, i) => (
        <ZoneRegion
          key={patch.surfaceId}
          zone={patch}
          {...patchPath(patch, i, profile, standsAt, at)}
          fill={patch.colourHex ?? BARE[boat.hullMaterial]}
          uid={uid}
          selected={patch.surfaceId === selected}
          onPick={onPick}
        />
      ))}
      <path d={`M0 ${topY}H${width}`} stroke="currentColor" strokeWidth="0.02" strokeDasharray=".2 .12" opacity=".6" />
      {stations.map((s) => (
        <Station key={s.label} station={s} frame={frame} />
      ))}
    </svg>
  );
}

/** Room round the boat, m. */
const PAD = 0.25;

type Frame = ReturnType<typeof frameOf>;

/** The boat's outline and how metres of it become places on the drawing, whose y runs down. */
function frameOf(asked: { boat: Boat; lines: HullLines | null; bandM: number | null; numbered: boolean }) {
  const { boat, lines, bandM, numbered } = asked;
  const profile = boatProfile(boat, { lines, bandM });
  const ground = profile.bottomM - 0.25;
  const head = numbered ? 0.35 : 0;
  const width = profile.lengthM + PAD * 2;
  const topY = profile.topM + PAD + head;
  const height = topY - ground + PAD * 0.4;
  const at = (p: { x: number; z: number }) => `${(p.x + PAD).toFixed(3)} ${(topY - p.z).toFixed(3)}`;
  // A band above the rail or below the keel is empty.
  const path = (outline: Outline) => (outline.length > 1 ? `M${outline.map(at).join('L')}Z` : '');
  const groundY = topY - ground;
  const standsAt = [profile.waterline[0] + boat.lwlM * 0.24, profile.waterline[0] + boat.lwlM * 0.82];
  const underOf = (x: number) =>
    profile.hull
      .filter((p) => Math.abs(p.x - x) < profile.lengthM * 0.06)
      .reduce((least, p) => Math.min(least, p.z), 0);
  const stand = (x: number) => {
    const y = topY - underOf(x) * 0.55;
    return `M${x + PAD} ${y}V${groundY}M${x + PAD - 0.22} ${groundY}L${x + PAD} ${y + (groundY - y) * 0.45}L${x + PAD + 0.22} ${groundY}`;
  };
  return { profile, width, height, topY, groundY, head, at, path, standsAt, stand };
}

/** What is drawn of each kind of zone: hers, or what a boat shows besides. */
function regionsOf(asked: { boat: Boat; zones: readonly DrawnZone[]; selected: string | null | undefined }) {
  const { boat, zones, selected } = asked;
  return ORDER.flatMap((kind) => {
    const here = zones.filter((z) => z.kind === kind && !z.patchKind);
    // An open boat has neither house nor hung rudder to show unless they are zones of hers.
    const structural =
      ['topsides', 'underwater', 'bootTop', 'keel', 'deck'].includes(kind) ||
      (boat.keels !== 'none' && ['rudder', 'coachroof'].includes(kind));
    if (here.length === 0 && !structural) return [];
    const zone = here.find((z) => z.surfaceId === selected) ?? here[0];
    const dashed = INSIDE.has(kind);
    const bare = dashed ? 'transparent' : kind === 'bootTop' && !zone ? 'none' : BARE[boat.hullMaterial];
    return [{ kind, zone, fill: zone?.colourHex ?? bare, dashed }];
  });
}

/** The ground she stands on, and what holds her up. */
function Stands({ frame: { groundY, width, standsAt, stand } }: { frame: Frame }) {
  return (
    <g stroke="currentColor" strokeWidth="0.05" fill="none" opacity=".75">
      <path d={`M0 ${groundY}H${width}`} strokeWidth="0.03" />
      {standsAt.map((x) => (
        <path key={x} d={stand(x)} />
      ))}
    </g>
  );
}

/** A station where she is taped. */
function Station({ station, frame: { head, topY, profile } }: { station: StationMark; frame: Frame }) {
  return (
    <g stroke={INK} strokeWidth={station.current ? 0.06 : 0.025}>
      <path
        d={`M${station.x + PAD} ${head * 0.9}V${topY - profile.bottomM * 0.98}`}
        strokeDasharray={station.state === 'gap' ? '.08 .1' : undefined}
        stroke={station.state === 'stray' ? '#9a231b' : 'currentColor'}
        opacity={station.current ? 1 : 0.55}
      />
      <text
        x={station.x + PAD}
        y={head * 0.75}
        fontSize={station.current ? 0.34 : 0.24}
        textAnchor="middle"
        fill="currentColor"
        stroke="none"
        className="narrow"
      >
        {station.label}
      </text>
    </g>
  );
}

/** Where a patch is drawn: pads by the stands, bands along their edge, the others side by side on the hull. */
function patchPath(
  patch: DrawnZone,
  index: number,
  profile: BoatProfile,
  standsAt: readonly number[],
  at: (p: { x: number; z: number }) => string,
): { d: string; line?: number } {
  const box = (x: number, z: number, size: number) =>
    `M${[
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ]
      .map(([a, b]) => at({ x: x + (a as number) * size, z: z + (b as number) * size }))
      .join('L')}Z`;
  const depth = Math.min(...profile.hull.map((p) => p.z));
  if (patch.patchKind === 'standPad')
    return { d: standsAt.map((x) => box(x, depth * 0.5, profile.lengthM * 0.016)).join('') };
  const edge = patch.wear ? edgeOf(patch.wear, profile) : null;
  if (patch.patchKind === 'highWear' && edge)
    return { d: edge.map((line) => `M${line.map(at).join('L')}`).join(''), line: profile.lengthM * 0.012 };
  const [aft, fore] = profile.waterline;
  return {
    d: box(
      aft + (fore - aft) * (0.3 + 0.09 * (index % 6)),
      patch.kind === 'topsides' ? profile.topM * 0.45 : depth * 0.3,
      profile.lengthM * 0.014,
    ),
  };
}

function edgeOf(wear: NonNullable<DrawnZone['wear']>, profile: BoatProfile): Outline[] | null {
  const [aft, fore] = profile.waterline;
  const foils = (wear === 'rudderEdges' ? profile.regions.rudder : profile.regions.keel) ?? [];
  switch (wear) {
    case 'waterline':
      return [
        [
          { x: aft, z: 0 },
          { x: fore, z: 0 },
        ],
      ];
    case 'stem':
      return [profile.hull.filter((p) => p.z <= 0 && p.x >= fore - (fore - aft) * 0.1)];
    case 'keelBottom':
      return foils.map((o) => [o[2], o[3]] as Outline);
    case 'keelLeadingEdge':
      return foils.map((o) => [o[1], o[2]] as Outline);
    case 'rudderEdges':
      return foils.flatMap(
        (o) =>
          [
            [o[1], o[2]],
            [o[0], o[3]],
          ] as Outline[],
      );
  }
}
