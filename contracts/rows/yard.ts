import type { Boat, Job } from './boat';
import type { Clock, NamedTimer } from '#core/coat/clocks';
import type { LaunchAgainst } from '#core/coat/launch';
import type { ZoneState } from '#core/coat/zoneState';
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

export interface YardBoat {
  boat: Boat;
  job: Job | null;
  zones: YardZone[];
  clocks: Clock[];
  /** With the product that is in the pot. */
  timers: NamedTimer[];
  launchAgainst: (LaunchAgainst & { name: string })[];
  air: { airC: number; rh: number; simulated: boolean } | null;
}

export interface Yard {
  now: number;
  frozen: boolean;
  demo: boolean;
  /** Anybody on the network may write here. */
  open: boolean;
  /** When the last entry was written, where the server's clock stands before that; null where it does not. */
  clockBehind: number | null;
  boats: YardBoat[];
}
