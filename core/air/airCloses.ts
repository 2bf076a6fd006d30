import { notNegative } from '../guard';
import type { ConditionLimits } from '../model/sheet';
import type { PaintMethod } from '../model/paintMethod';
import { checkConditions, conditionsIn } from './conditions';
import type { Trouble } from './lastStart';
import { temperatureAt } from './surfaceSeries';
import { unbrokenHours, weatherAt, type TempSample, type WeatherHour } from './weather';

const STEP_MS = 5 * 60_000;

/**
 * When the air closes on a coat that goes on: the first moment from now at which a limit is broken, cautions left out;
 * null where none is within what the weather tells.
 * @param options.surface surface series of the zone
 * @param options.withinH how far is looked, h
 * @example
 *   airCloses({
 *     now: noon,
 *     hours: steady,
 *     surface: temps,
 *     limits: sheet.limits,
 *     method: 'roller',
 *     withinH: 12,
 *   }) // → null
 */
export function airCloses(options: {
  now: number;
  hours: readonly WeatherHour[];
  surface: readonly TempSample[];
  limits: ConditionLimits;
  method: PaintMethod;
  sheltered?: boolean;
  topcoat?: boolean;
  withinH: number;
}): Trouble | null {
  const { now, surface, limits, method, sheltered, topcoat } = options;
  const hours = unbrokenHours(options.hours, now);
  const last = surface[surface.length - 1];
  if (!last) return null;
  const until = Math.min(now + notNegative(options.withinH, 'The hours looked at') * 3_600_000, last.at);
  for (let at = now; at <= until; at += STEP_MS) {
    const w = weatherAt(hours, at);
    if (!w) return null;
    const verdict = checkConditions({
      conditions: conditionsIn(w, temperatureAt(surface, at)),
      limits,
      method,
      ...(sheltered === undefined ? {} : { sheltered }),
      ...(topcoat === undefined ? {} : { topcoat }),
    });
    const held = verdict.breaks.find((b) => !b.caution);
    if (held) return { at, break: held };
  }
  return null;
}
