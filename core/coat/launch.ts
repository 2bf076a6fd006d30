import type { ZoneStatus } from './zoneStatus';
import type { Surface } from '../model/surface';
import type { StillMasked } from '../prep/stillMasked';

/** What speaks against a launch: a zone that may not be immersed yet, or may no longer; coats that are still to come; tape on, or an anode that nobody has looked at. */
export interface LaunchAgainst {
  readonly kind: 'tooEarly' | 'tooLate' | 'unfinished' | 'masked';
  readonly surfaceId: string;
  /** From when, or until when, it may be immersed, epoch ms; null for what is unfinished. */
  readonly at: number | null;
}

/** Coats to come are spoken of when the launch is so near. */
const NEAR_MS = 36 * 3_600_000;

/**
 * Hold a launch against the sheets of the outermost coats of all that meets the water.
 * @param options.launchAt epoch ms
 * @example
 *   launchAgainst({
 *     statuses: [{ surfaceId: 'bottom', state: 'complete', clocks: { immersionAt: noon + hour, immersionUntil: null } }],
 *     surfaces: [zone],
 *     launchAt: noon,
 *     now: noon,
 *   }).map((a) => a.kind) // → ['tooEarly']
 */
export function launchAgainst(options: {
  statuses: readonly Pick<ZoneStatus, 'surfaceId' | 'state' | 'clocks' | 'nextLayer'>[];
  surfaces: readonly Pick<Surface, 'id' | 'exposure'>[];
  launchAt: number;
  now: number;
  /** What is masked, or not looked at since it was painted around. */
  masked?: readonly StillMasked[];
}): LaunchAgainst[] {
  const { statuses, surfaces, launchAt, now, masked = [] } = options;
  const wet = new Set(surfaces.filter((s) => s.exposure === 'immersed' || s.exposure === 'splash').map((s) => s.id));
  const ofCoats = statuses
    .filter((s) => wet.has(s.surfaceId))
    .flatMap(({ surfaceId, state, clocks, nextLayer }): LaunchAgainst[] => {
      if (state !== 'complete')
        return nextLayer && launchAt - now < NEAR_MS ? [{ kind: 'unfinished', surfaceId, at: null }] : [];
      const { immersionAt = null, immersionUntil = null } = clocks ?? {};
      if (immersionAt !== null && launchAt < immersionAt) return [{ kind: 'tooEarly', surfaceId, at: immersionAt }];
      if (immersionUntil !== null && launchAt > immersionUntil)
        return [{ kind: 'tooLate', surfaceId, at: immersionUntil }];
      return [];
    });
  const covered = launchAt - now < NEAR_MS ? [...new Set(masked.map((m) => m.surfaceId))] : [];
  return [...ofCoats, ...covered.map((surfaceId) => ({ kind: 'masked', surfaceId, at: null }) as const)];
}
