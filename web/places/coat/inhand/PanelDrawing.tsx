import { useId, useMemo, type KeyboardEvent, type MouseEvent } from 'react';
import { boatProfile, type Outline } from '#core/hull/profile';
import type { DrawnAt } from '#core/model/log';
import type { BoatView } from '../../../data/store';
import { bandOf, linesOf } from '../../../parts/hullLines';
import { INK } from '../../../parts/ZoneRegion';
import { useWidth } from '../../../parts/useWidth';
import type { ZoneInHand } from './zonesOf';

const HEIGHT = 52;

/**
 * A zone from its sides, split into the panels that are kept wet: each a box to tick. Its height is drawn larger than it
 * is, so that a thumb finds it. `onPlace` makes the whole a place to point at instead.
 */
export function PanelDrawing({
  view,
  zone,
  colourHex,
  marks = [],
  onToggle,
  onPlace,
}: {
  view: BoatView;
  zone: ZoneInHand;
  colourHex: string;
  marks?: readonly DrawnAt[];
  onToggle?: (panel: number) => void;
  onPlace?: (at: DrawnAt) => void;
}) {
  const [box, width] = useWidth<HTMLDivElement>(340);
  // The coat in hand is drawn anew every second; her profile is not worked out for that.
  const { boat, hull, surfaces } = view;
  const { surface } = zone;
  const outlines = useMemo(() => regionOf({ boat, hull, surfaces }, surface), [boat, hull, surfaces, surface]);
  return (
    <div ref={box} className="flex min-w-0 flex-col gap-1">
      {zone.panels.sides.map((side, i) => (
        <Side
          key={side}
          {...{ zone, side, width, outlines, colourHex, marks, onToggle, onPlace }}
          from={i * zone.panels.perSide}
        />
      ))}
    </div>
  );
}

/** The zone's outline in profile, m; a plain box for what cannot be seen from the side. */
function regionOf(
  view: Pick<BoatView, 'boat' | 'hull' | 'surfaces'>,
  surface: ZoneInHand['surface'],
): readonly Outline[] {
  const profile = boatProfile(view.boat, { lines: linesOf(view.hull), bandM: bandOf(view.surfaces) });
  const region = surface.parentId ? undefined : profile.regions[surface.kind];
  const drawn = (region ?? []).filter((o) => o.length > 2);
  return drawn.length > 0
    ? drawn
    : [
        [
          { x: 0, z: 0 },
          { x: 1, z: 0 },
          { x: 1, z: 1 },
          { x: 0, z: 1 },
        ],
      ];
}

interface SideProps {
  zone: ZoneInHand;
  side: 'port' | 'starboard' | 'whole';
  /** Number of its first panel. */
  from: number;
  width: number;
  outlines: readonly Outline[];
  colourHex: string;
  marks: readonly DrawnAt[];
  onToggle?: ((panel: number) => void) | undefined;
  onPlace?: ((at: DrawnAt) => void) | undefined;
}

const SIDE_WORDS = { port: 'port', starboard: 'starboard', whole: '' } as const;

function Side({ zone, side, from, width, outlines, colourHex, marks, onToggle, onPlace }: SideProps) {
  const uid = useId();
  const { panels, done, surface } = zone;
  const points = outlines.flat();
  const [x0, x1] = [Math.min(...points.map((p) => p.x)), Math.max(...points.map((p) => p.x))];
  const [z0, z1] = [Math.min(...points.map((p) => p.z)), Math.max(...points.map((p) => p.z))];
  // To port the bow is on the left.
  const along = (x: number) => ((side === 'port' ? x1 - x : x - x0) / (x1 - x0)) * width;
  const up = (z: number) => HEIGHT - ((z - z0) / (z1 - z0)) * HEIGHT;
  const d = outlines
    .map((o) => `M${o.map((p) => `${along(p.x).toFixed(1)} ${up(p.z).toFixed(1)}`).join('L')}Z`)
    .join('');
  const wide = width / panels.perSide;
  const place = (e: MouseEvent<SVGSVGElement>) => {
    const rect = e.currentTarget.getBoundingClientRect();
    const share = (v: number) => Math.min(1, Math.max(0, v));
    onPlace?.({
      surfaceId: surface.id,
      x: share((from / panels.perSide + (e.clientX - rect.left) / rect.width) / panels.sides.length),
      y: share(1 - (e.clientY - rect.top) / rect.height),
    });
  };
  return (
    <svg
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="block h-13 w-full"
      role="group"
      aria-label={[surface.name, SIDE_WORDS[side]].filter(Boolean).join(', ')}
      onClick={onPlace ? place : undefined}
      style={onPlace ? { cursor: 'crosshair' } : undefined}
    >
      <defs>
        <clipPath id={`${uid}-zone`}>
          <path d={d} />
        </clipPath>
        <pattern id={`${uid}-bare`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill="#f4f1e8" />
          <path d="M0 0V7" stroke={INK} strokeWidth="1" opacity=".35" />
        </pattern>
      </defs>
      {Array.from({ length: panels.perSide }, (_, i) => (
        <Panel
          key={i}
          number={from + i}
          of={panels.of}
          x={i * wide}
          wide={wide}
          on={done.includes(from + i)}
          uid={uid}
          colourHex={colourHex}
          onToggle={onToggle}
        />
      ))}
      <path d={d} fill="none" stroke="currentColor" strokeWidth="2" />
      {marks
        .filter((m) => m.surfaceId === surface.id)
        .map((m) => ({ x: m.x * panels.sides.length - from / panels.perSide, y: m.y }))
        .filter((m) => m.x >= 0 && m.x <= 1)
        .map((m, i) => (
          <circle
            key={i}
            cx={m.x * width}
            cy={(1 - m.y) * HEIGHT}
            r="6"
            fill="none"
            stroke="#9a231b"
            strokeWidth="3"
            pointerEvents="none"
          />
        ))}
    </svg>
  );
}

/** One panel: a box to tick, where it is a control. */
function Panel({
  number,
  of,
  x,
  wide,
  on,
  uid,
  colourHex,
  onToggle,
}: {
  number: number;
  of: number;
  x: number;
  wide: number;
  on: boolean;
  uid: string;
  colourHex: string;
  onToggle: SideProps['onToggle'];
}) {
  const keys = (e: KeyboardEvent) => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    onToggle?.(number);
  };
  const control = onToggle
    ? {
        role: 'checkbox',
        tabIndex: 0,
        'aria-checked': on,
        'aria-label': `Panel ${number + 1} of ${of}`,
        onClick: () => onToggle(number),
        onKeyDown: keys,
        style: { cursor: 'pointer' },
      }
    : {};
  const clip = `url(#${uid}-zone)`;
  return (
    <g {...control}>
      {/* The whole column answers a thumb, not only where the hull is. */}
      <rect x={x} y="0" width={wide} height={HEIGHT} fill="transparent" />
      <rect x={x} y="0" width={wide} height={HEIGHT} fill={on ? colourHex : `url(#${uid}-bare)`} clipPath={clip} />
      {x > 0 && <path d={`M${x} 0V${HEIGHT}`} stroke={INK} strokeDasharray="3 3" clipPath={clip} />}
      <text
        x={x + wide / 2}
        y={HEIGHT / 2 + 6}
        textAnchor="middle"
        fontSize="17"
        fontWeight="600"
        className="narrow"
        fill={INK}
        stroke="#f4f1e8"
        strokeWidth="3"
        paintOrder="stroke"
      >
        {on ? '✓' : number + 1}
      </text>
    </g>
  );
}
