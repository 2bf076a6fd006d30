import type { KeyboardEvent } from 'react';
import type { WearPlace } from '#core/hull/wear';
import type { PatchKind, ZoneKind } from '#core/model/surface';
import type { ZoneState } from '#core/coat/zoneState';
import type { Boat } from '#contracts/rows/boat';
import type { BoatView } from '../data/store';
import { hasPattern } from './patterns';
import { STATE_WORDS } from './words';

export interface DrawnZone {
  surfaceId: string;
  name: string;
  kind: ZoneKind | string;
  patchKind?: PatchKind | null;
  wear?: WearPlace | null;
  state: ZoneState;
  colourHex: string | null;
  /** Of a coat that goes on: the share that has it, and what lies beneath it. */
  going?: { share: number; beneathHex: string | null } | null;
}

/** A boat's zones and patches as they are drawn. */
export function drawnZones({ surfaces, statuses }: Pick<BoatView, 'surfaces' | 'statuses'>): DrawnZone[] {
  return statuses.map((status, i) => {
    const { surfaceId, state, colourHex } = status;
    const zone = surfaces[i];
    return {
      surfaceId,
      name: zone?.name ?? '',
      kind: zone?.kind ?? '',
      patchKind: zone?.patchKind ?? null,
      wear: zone?.area.band?.place ?? null,
      state,
      colourHex,
      going: goingOn(status),
    };
  });
}

/** How far a coat that goes on has come on its zone, where somebody said. */
function goingOn({ state, lastCoat, coats, surfaceId }: BoatView['statuses'][number]): DrawnZone['going'] {
  const told = state === 'inHand' ? lastCoat?.covered.find((c) => c.surfaceId === surfaceId) : undefined;
  return told ? { share: told.share, beneathHex: coats[coats.length - 2]?.colourHex ?? null } : null;
}

export const BARE: Record<Boat['hullMaterial'], string> = {
  grp: '#f4f1e8',
  steel: '#b3aea8',
  aluminium: '#c6cccf',
  timber: '#d3ad7a',
  plywood: '#d9bd8f',
  ferrocement: '#b9b6ae',
};
/** Lines on paint are dark in either theme: the hull is as light in the shed as in the yard. */
export const INK = '#1f2326';

/**
 * A zone on a drawing: the colour it carries, the pattern of its state, and a control where it can be picked.
 * `line` draws it as a skin seen on edge, that many metres thick.
 */
export function ZoneRegion({
  zone,
  d,
  fill,
  uid,
  selected,
  onPick,
  line,
  dashed = false,
}: {
  zone: DrawnZone | undefined;
  d: string;
  fill: string;
  uid: string;
  selected: boolean;
  onPick?: ((surfaceId: string) => void) | undefined;
  line?: number;
  dashed?: boolean;
}) {
  const pick = zone && onPick ? () => onPick(zone.surfaceId) : undefined;
  const keys = (e: KeyboardEvent) => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    pick?.();
  };
  const control = pick
    ? {
        role: 'button',
        tabIndex: 0,
        onClick: pick,
        onKeyDown: keys,
        'aria-label': `${zone?.name}: ${STATE_WORDS[zone?.state ?? 'ready']}`,
        'aria-pressed': selected,
        style: { cursor: 'pointer' },
      }
    : {};
  const pattern = zone && hasPattern(zone.state) ? `url(#${uid}-${zone.surfaceId})` : null;
  if (line !== undefined) {
    return (
      <g {...control} fill="none" strokeLinejoin="round" strokeLinecap="round">
        <path d={d} stroke={INK} strokeWidth={line * (selected ? 1.9 : 1.35)} />
        <path d={d} stroke={fill} strokeWidth={line} />
        {pattern && <path d={d} stroke={pattern} strokeWidth={line} />}
      </g>
    );
  }
  return (
    <g {...control}>
      {zone?.going && (
        <clipPath id={`${uid}-going-${zone.surfaceId}`} clipPathUnits="objectBoundingBox">
          <rect width={zone.going.share} height="1" />
        </clipPath>
      )}
      <path
        d={d}
        fill={zone?.going ? (zone.going.beneathHex ?? '#f4f1e8') : fill}
        stroke={INK}
        strokeWidth={selected ? 0.07 : 0.022}
        strokeLinejoin="round"
        {...(dashed ? { strokeDasharray: '.12 .08', fillOpacity: 0.85 } : {})}
      />
      {zone?.going && <path d={d} fill={fill} clipPath={`url(#${uid}-going-${zone.surfaceId})`} />}
      {pattern && <path d={d} fill={pattern} />}
    </g>
  );
}
