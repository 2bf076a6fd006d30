import type { Boat, Job, SurfaceRow } from './boat';
import type { Clock, NamedTimer } from '#core/coat/clocks';
import type { LaunchAgainst } from '#core/coat/launch';
import type { ZoneState } from '#core/coat/zoneState';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import type { PatchKind } from '#core/model/surface';

export interface YardZone {
  surfaceId: string;
  name: string;
  kind: string;
  patchKind: PatchKind | null;
  state: ZoneState;
  colourHex: string | null;
  nextName: string | null;
  nextNumber: number;
  bondsUntil: number | null;
  opensAt: number | null;
  lastStartAt: number | null;
  nowHolds: boolean | null;
  firstStartAt: number | null;
}

/** What the yard tells of a boat's zones, from their states in the order of the zones. */
export function yardZones(
  statuses: readonly ZoneStatus[],
  surfaces: readonly Pick<SurfaceRow, 'name' | 'kind' | 'patchKind'>[],
): YardZone[] {
  return statuses.map((s, i) => ({
    surfaceId: s.surfaceId,
    name: surfaces[i]?.name ?? '',
    kind: surfaces[i]?.kind ?? '',
    patchKind: surfaces[i]?.patchKind ?? null,
    state: s.state,
    colourHex: s.colourHex,
    nextName: s.nextSheet?.name ?? null,
    nextNumber: s.nextNumber,
    bondsUntil: s.clocks?.window?.bondsUntil ?? null,
    opensAt: s.clocks?.window?.opensAt ?? null,
    lastStartAt: s.advice?.lastStartAt ?? null,
    nowHolds: s.advice?.nowHolds ?? null,
    firstStartAt: s.advice?.firstStartAt ?? null,
  }));
}

export interface YardBoat {
  boat: Boat;
  job: Job | null;
  zones: YardZone[];
  clocks: Clock[];
  /** With the product that is in the pot. */
  timers: NamedTimer[];
  launchAgainst: (LaunchAgainst & { name: string })[];
  air: { airC: number; rh: number; simulated: boolean } | null;
  /** Why she cannot be worked out, in a sentence; left out where she can. */
  problem?: string;
}

export interface Yard {
  now: number;
  frozen: boolean;
  demo: boolean;
  /** Anybody on the network may write here. */
  open: boolean;
  /** When the last entry was written, where the server's clock stands before that; null where it does not. */
  clockBehind: number | null;
  /** The server's clock was set by hand, to look at another time. */
  clockSet: boolean;
  /** What a person has to know of how the yard was kept; null where there is nothing. */
  keptNotice: string | null;
  /** Why nothing can be saved just now, in a sentence; null where it can. */
  savingWaits: string | null;
  boats: YardBoat[];
}
