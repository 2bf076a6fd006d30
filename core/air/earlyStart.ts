import { temperatureAt } from './surfaceSeries';
import type { TempSample } from './weather';

const HOUR_MS = 3_600_000;
/** In this time a coat levels, or sets before it could. [M] */
const LEVELS_MS = 3 * HOUR_MS;
/** A surface that gets so much warmer meanwhile, °C, makes it set first. [M] */
const WARMS_C = 5;

/** A start in the cool of the morning, and how warm the surface gets after the one that was thought of. */
export interface EarlyStart {
  /** Epoch ms. */
  readonly at: number;
  readonly surfaceC: number;
  /** What the surface comes to while the coat should level, were it begun at the usual time. */
  readonly laterC: number;
}

/**
 * An early start within a spell of allowed ones, so that the coat can level before the surface warms: only where it warms
 * a good deal from the usual start on, and less from the early one. [CP: start early on a warm day]
 * @param options.spell starts that hold the limits, epoch ms
 * @param options.usual start that was thought of, within the spell
 * @returns null where the surface does not warm much, or the spell begins no sooner
 * @example earlyStart({ spell: { from: noon, to: noon + hour }, usual: noon + hour, surface: temps }) // → null
 */
export function earlyStart(options: {
  spell: { readonly from: number; readonly to: number };
  usual: number;
  surface: readonly TempSample[];
}): EarlyStart | null {
  const { spell, usual, surface } = options;
  if (spell.from > usual - HOUR_MS / 2) return null;
  const surfaceC = temperatureAt(surface, spell.from);
  const laterC = warmest(surface, usual);
  // It has to be the sun of the later hours that the early start is spared.
  return laterC - surfaceC < WARMS_C || laterC - warmest(surface, spell.from) < 1
    ? null
    : { at: spell.from, surfaceC, laterC };
}

/** The warmest that a surface gets while a coat levels. */
function warmest(surface: readonly TempSample[], from: number): number {
  let most = temperatureAt(surface, from);
  for (let at = from; at <= from + LEVELS_MS; at += HOUR_MS / 2) most = Math.max(most, temperatureAt(surface, at));
  return most;
}
