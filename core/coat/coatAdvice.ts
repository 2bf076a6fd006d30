import type { StartAdvice, WorkSpan } from '../air/lastStart';
import { startAdvice } from '../air/lastStart';
import type { SourcedHour, TempSample } from '../air/weather';
import { USUAL_RATE_M2_PER_H } from '../film/spreading';
import type { Layer } from '../model/layer';
import type { PaintMethod } from '../model/paintMethod';
import type { SheetBody } from '../model/sheet';

/**
 * Hours one painter takes to put a layer on a zone. [M] for the rates
 * @example applyHours(12, layer) // → 1.2
 */
export function applyHours(areaM2: number, layer: Pick<Layer, 'method'>, painters = 1): number {
  return areaM2 / USUAL_RATE_M2_PER_H[layer.method] / painters;
}

/**
 * Two-pack topcoats usually want dryer air. [CP]
 * @example isTwoPackTopcoat(sheet) // → false
 */
export function isTwoPackTopcoat(sheet: Pick<SheetBody, 'kind' | 'parts'>): boolean {
  return sheet.kind === 'topcoat' && sheet.parts.length > 1;
}

/**
 * When a coat of a sheet may be started on an area, by the sheet's limits and its touch-dry time.
 * @example
 *   coatAdvice({ now: noon, hours: steady, temps, sheet, method: 'roller', areaM2: 10, sheltered: false })
 *     .nowHolds // → true
 */
export function coatAdvice(options: {
  now: number;
  hours: readonly SourcedHour[];
  temps: readonly TempSample[];
  sheet: SheetBody;
  method: PaintMethod;
  areaM2: number;
  sheltered: boolean;
  painters?: number;
  workSpans?: readonly WorkSpan[];
}): StartAdvice {
  const { now, hours, temps, sheet, method, areaM2, sheltered, painters, workSpans } = options;
  return startAdvice({
    now,
    hours,
    surface: temps,
    limits: sheet.limits,
    method,
    sheltered,
    topcoat: isTwoPackTopcoat(sheet),
    ...(workSpans ? { workSpans } : {}),
    applyHours: applyHours(areaM2, { method }, painters),
    ...(sheet.touchDry ? { touchDry: sheet.touchDry } : {}),
    ...(sheet.minCureC === null ? {} : { minCureC: sheet.minCureC }),
  });
}
