import { NO_LIMITS } from '../model/sheet';
import { checkConditions, conditionsIn } from './conditions';
import { weatherAt, type WeatherHour } from './weather';

/** A stretch of time, epoch ms. */
export interface Spell {
  readonly from: number;
  readonly until: number;
}

const STEP_MS = 1_800_000;

/**
 * Spells in which the usual limits let paint go on outdoors, by half hours: the surface taken as the air, no sheet's own
 * limits. What the weather does not tell is not dry.
 * @param options.from epoch ms; `until` likewise
 * @example
 *   drySpells({
 *     hours: [
 *       { at: 0, airC: 20, rh: 0.5 },
 *       { at: 3_600_000, airC: 20, rh: 0.5 },
 *     ],
 *     from: 0,
 *     until: 3_600_000,
 *   }) // → [{ from: 0, until: 3600000 }]
 */
export function drySpells(options: { hours: readonly WeatherHour[]; from: number; until: number }): Spell[] {
  const { hours, from, until } = options;
  const spells: { from: number; until: number }[] = [];
  for (let at = from; at < until; at += STEP_MS) {
    if (!isDry(hours, at)) continue;
    const last = spells[spells.length - 1];
    const end = Math.min(until, at + STEP_MS);
    if (last?.until === at) last.until = end;
    else spells.push({ from: at, until: end });
  }
  return spells;
}

function isDry(hours: readonly WeatherHour[], at: number): boolean {
  const w = weatherAt(hours, at);
  if (w === null) return false;
  return (
    checkConditions({ conditions: conditionsIn(w, w.airC), limits: NO_LIMITS, method: 'roller' }).breaks.length === 0
  );
}
