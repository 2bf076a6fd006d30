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
  const profile = boatProfile(boat, { lines, bandM });
  const ground = profile.bottomM - 0.25;
  const pad = 0.25;
  const head = stations.length > 0 ? 0.35 : 0;
  const width = profile.lengthM + pad * 2;
  const topY = profile.topM + pad + head;
  const height = topY - ground + pad * 0.4;
  const at = (p: { x: number; z: number }) => `${(p.x + pad).toFixed(3)} ${(topY - p.z).toFixed(3)}`;
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
    return `M${x + pad} ${y}V${groundY}M${x + pad - 0.22} ${groundY}L${x + pad} ${y + (groundY - y) * 0.45}L${x + pad + 0.22} ${groundY}`;
  };
  const patches = zones.filter((z) => z.patchKind);
  const own = (kind: ZoneKind) => zones.filter((z) => z.kind === kind && !z.patchKind);
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
      {stands && (
        <g stroke="currentColor" strokeWidth="0.05" fill="none" opacity=".75">
          <path d={`M0 ${groundY}H${width}`} strokeWidth="0.03" />
          {standsAt.map((x) => (
            <path key={x} d={stand(x)} />
          ))}
        </g>
      )}
      {ORDER.flatMap((kind) => {
        const here = own(kind);
        const outlines = profile.regions[kind] ?? [];
        // An open boat has neither house nor hung rudder to show unless they are zones of hers.
        const structural =
          ['topsides', 'underwater', 'bootTop', 'keel', 'deck'].includes(kind) ||
          (boat.keels !== 'none' && ['rudder', 'coachroof'].includes(kind));
        if (here.length === 0 && !structural) return [];
        const zone = here.find((z) => z.surfaceId === selected) ?? here[0];
        const inside = INSIDE.has(kind);
        const fill =
          zone?.colourHex ?? (inside ? 'transparent' : kind === 'bootTop' && !zone ? 'none' : BARE[boat.hullMaterial]);
        return [
          <ZoneRegion
            key={kind}
            zone={zone}
            d={outlines.map(path).join('')}
            fill={fill}
            uid={uid}
            selected={zone !== undefined && zone.surfaceId === selected}
            onPick={onPick}
            dashed={inside}
          />,
        ];
      })}
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
        <g key={s.label} stroke={INK} strokeWidth={s.current ? 0.06 : 0.025}>
          <path
            d={`M${s.x + pad} ${head * 0.9}V${topY - profile.bottomM * 0.98}`}
            strokeDasharray={s.state === 'gap' ? '.08 .1' : undefined}
            stroke={s.state === 'stray' ? '#9a231b' : 'currentColor'}
            opacity={s.current ? 1 : 0.55}
          />
          <text
            x={s.x + pad}
            y={head * 0.75}
            fontSize={s.current ? 0.34 : 0.24}
            textAnchor="middle"
            fill="currentColor"
            stroke="none"
            className="narrow"
          >
            {s.label}
          </text>
        </g>
      ))}
    </svg>
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
