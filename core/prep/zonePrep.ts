import type { SourcedHour } from '../air/weather';
import type { ZoneStatus } from '../coat/zoneStatus';
import { isSheltered } from '../hull/zones';
import type { BuildUp } from '../model/buildUp';
import type { LogEntry } from '../model/log';
import type { SheetRevision } from '../model/sheet';
import type { OpenWork, Shelter, Surface } from '../model/surface';
import type { Border } from '../system/borders';
import { prepOf } from './prepLog';
import { prepSteps, type PrepList } from './prepSteps';

/** A boat, as far as getting one of her zones ready cares. */
export interface PrepBoat {
  readonly entries: readonly LogEntry[];
  readonly buildUps: readonly Pick<BuildUp, 'surfaceId' | 'layers'>[];
  readonly sheets: readonly Pick<SheetRevision, 'id' | 'body'>[];
  readonly hours: readonly SourcedHour[];
  readonly shelter?: Shelter;
  /** Borders of the boat: their edges are taped. */
  readonly borders: readonly Pick<Border, 'id' | 'upperId' | 'lowerId'>[];
  readonly now: number;
}

/**
 * The list of one zone of a boat, as it stands now.
 * @example
 *   zonePrep(
 *     { entries: [], buildUps: [], sheets: [], hours: [], borders: [], now: noon },
 *     { ...zone, kind: 'bilge' },
 *     { lastCoat: null, nextLayer: null, nextSheet: null, clocks: null, state: 'ready' },
 *   ).way // → 'bilge'
 */
export function zonePrep(
  boat: PrepBoat,
  surface: Surface & { readonly openWork?: readonly OpenWork[] },
  status: Pick<ZoneStatus, 'lastCoat' | 'nextLayer' | 'nextSheet' | 'clocks' | 'state'>,
): PrepList {
  const { lastCoat, nextLayer, nextSheet, clocks } = status;
  const layers = boat.buildUps.find((b) => b.surfaceId === surface.id)?.layers ?? [];
  const window = clocks?.window;
  const closed = window?.closesAt != null && boat.now > window.closesAt;
  const bonded = window?.byHandUntil ?? window?.bondsUntil ?? null;
  const cured = clocks?.alwaysAbrade === true || (clocks?.abradeFrom != null && boat.now > clocks.abradeFrom);
  return prepSteps({
    now: boat.now,
    surface,
    log: prepOf(boat.entries, surface.id),
    lastCoat,
    lastSheet: boat.sheets.find((s) => s.id === lastCoat?.sheetRevisionId)?.body ?? null,
    lastLayer: layers.find((l) => lastCoat?.on.some((t) => t.layerId === l.id)) ?? null,
    nextLayer,
    nextSheet,
    rain: isSheltered(surface, boat.shelter) ? [] : boat.hours,
    bonds: lastCoat !== null && !closed && !cured && !(bonded !== null && boat.now > bonded) && window?.bonds !== false,
    closed,
    ...masking(boat, surface.id),
  });
}

/** Whether a zone has edges that are taped, and since when all of them are. */
function masking({ borders, entries }: PrepBoat, surfaceId: string): { masks: boolean; maskedAt: number | null } {
  const own = borders.filter((b) => b.upperId === surfaceId || b.lowerId === surfaceId);
  const on = own.map(
    (b) =>
      [b.upperId, b.lowerId].flatMap((zone) => prepOf(entries, zone).masked).find((m) => m.job === `edge:${b.id}`)
        ?.at ?? null,
  );
  const taped = on.filter((at) => at !== null);
  return { masks: own.length > 0, maskedAt: own.length > 0 && taped.length === own.length ? Math.max(...taped) : null };
}
