import { openness } from './zoneSeries';
import { zoneState } from './zoneState';
import { coatAdvice } from './coatAdvice';
import type { CoatClocks } from './coatClocks';
import { coatClocks, driesBy } from './coatClocks';
import { zoneSeries, type SeriesBoat } from './zoneSeries';
import type { ZoneState } from './zoneState';
import type { BuildUp } from '../model/buildUp';
import type { Surface } from '../model/surface';
import type { StartAdvice, WorkSpan } from '../air/lastStart';
import { segmentAt } from '../air/segment';
import { unbrokenHours, type SourcedHour, type SurfaceReading, type TempSample } from '../air/weather';
import type { Layer } from '../model/layer';
import { isSheltered } from '../hull/zones';
import { PATCHES, type ExistingCoating } from '../model/surface';
import type { SheetBody, SheetRevision } from '../model/sheet';
import type { LogEntry } from '../model/log';
import { prepOf } from '../prep/prepLog';
import { keepsOff, surfaceClocks, type SurfaceClock } from '../prep/surfaceClocks';
import { foldLog, testedOn, zoneReadings, type Coat } from './fold';

export interface ZoneStatus {
  readonly surfaceId: string;
  readonly state: ZoneState;
  readonly coats: readonly Coat[];
  readonly lastCoat: Coat | null;
  readonly clocks: CoatClocks | null;
  readonly layersDone: number;
  readonly layersPlanned: number;
  readonly nextLayer: Layer | null;
  readonly nextSheet: SheetBody | null;
  /** "barrier 3": how many coats of this same sheet it makes. */
  readonly nextNumber: number;
  /** Colour it carries now; null while nothing of this job is on it. */
  readonly colourHex: string | null;
  /** What lay on the substrate before this job: the first coat goes on that. */
  readonly existing: ExistingCoating;
  readonly advice: StartAdvice | null;
  /** Clocks of its surface: bare metal, clean, drying, tapes … */
  readonly surfaceClocks: readonly SurfaceClock[];
}

export interface StatusInput {
  readonly now: number;
  readonly surfaces: readonly Surface[];
  readonly buildUps: readonly BuildUp[];
  readonly entries: readonly LogEntry[];
  readonly sheets: readonly SheetRevision[];
  /** Merged hourly weather, ascending. */
  readonly hours: readonly SourcedHour[];
  readonly painters?: number;
  /** Hours in which starts are offered; left out or empty: all. */
  readonly workSpans?: readonly WorkSpan[];
  /** Times of a product's table, as a multiple that was learned, by sheet; left out: as the table has them. */
  readonly dryFactors?: Readonly<Record<string, number>>;
  /** The boat, as far as her zones' temperatures go. */
  readonly boat?: SeriesBoat;
}

/**
 * Whether the window of a zone lets its next coat on, abraded or not.
 * @example windowOpen({ state: 'shut' }) // → false
 */
export function windowOpen({ state }: Pick<ZoneStatus, 'state'>): boolean {
  return state === 'bonds' || state === 'ready' || state === 'abrade' || state === 'closed';
}

/**
 * Whether a coat may go on now: its window lets it, and the air is not known to turn before it is touch dry.
 * @example mayGoOn({ state: 'ready', advice: { nowHolds: false } }) // → false
 */
export function mayGoOn(status: {
  readonly state: ZoneState;
  readonly advice: Pick<StartAdvice, 'nowHolds'> | null;
}): boolean {
  return windowOpen(status) && status.advice?.nowHolds !== false;
}

const HOUR_MS = 3_600_000;

/** A series begins so long before the coat on whose clocks it is looked at: what was read before has faded by then. */
const SERIES_BEFORE_MS = 24 * HOUR_MS;

/** Hours from an instant on, with the one before it: the same list for all zones that ask for the same. */
function hoursFrom(hours: readonly SourcedHour[]): (from: number) => readonly SourcedHour[] {
  const known = new Map<number, readonly SourcedHour[]>();
  return (from) => {
    const first = hours.length === 0 ? 0 : segmentAt(hours, from);
    if (first === 0) return hours;
    let found = known.get(first);
    if (!found) known.set(first, (found = hours.slice(first)));
    return found;
  };
}

/**
 * Where every zone of a boat stands now, and what its next coat may do. Pure: the same in browser and server. Weather
 * that a gap parts from now is not used: a clock that would have to run through it is not told.
 * @example
 *   zoneStatuses({
 *     now: noon,
 *     surfaces: [zone],
 *     buildUps: [{ surfaceId: 'bottom', layers }],
 *     entries,
 *     sheets: [revision, copper],
 *     hours: steady,
 *   }).map((s) => s.state) // → ['shut']
 */
export function zoneStatuses(input: StatusInput): ZoneStatus[] {
  const hours = unbrokenHours(input.hours, input.now);
  const seriesOf = new Map<string, TempSample[]>();
  const hoursSince = hoursFrom(hours);
  const { coats } = foldLog(input.entries);
  const sheets = new Map(input.sheets.map((s) => [s.id, s.body]));
  const shelter = input.boat?.shelter;
  return input.surfaces.map((surface) => {
    const own = coatsUnder(surface, coats);
    const from = Math.min(input.now, own[own.length - 1]?.startedAt ?? input.now) - SERIES_BEFORE_MS;
    const readings = zoneReadings(input.entries, surface.id).filter((r) => r.at >= from);
    // Zones alike in the open, as far on and without readings have the same series, and so the same clocks.
    const key = readings.length === 0 ? `${openness(surface, shelter)} ${Math.floor(from / HOUR_MS)}` : surface.id;
    let temps = seriesOf.get(key);
    if (!temps) seriesOf.set(key, (temps = zoneSeries(surface, hoursSince(from), readings, input.boat)));
    return oneZone(surface, { coats: own, readings, temps, hours, sheets }, input);
  });
}

/** A zone's own coats; a patch has, besides its own, those of its zone that lie under it too. */
function coatsUnder(surface: Surface, coats: readonly Coat[]): Coat[] {
  const on = (coat: Coat, id: string) => coat.on.some((t) => t.surfaceId === id);
  const { parentId, patchKind } = surface;
  const usual = patchKind && PATCHES[patchKind] === 'carved' ? 0 : coats.length;
  const shared = new Set(parentId ? coats.filter((c) => on(c, parentId)).slice(0, surface.sharedCoats ?? usual) : []);
  return coats.filter((c) => on(c, surface.id) || shared.has(c));
}

/** What is known of one zone, from the whole log and the weather. */
interface ZoneFacts {
  readonly coats: readonly Coat[];
  readonly readings: readonly SurfaceReading[];
  readonly temps: readonly TempSample[];
  readonly hours: readonly SourcedHour[];
  readonly sheets: ReadonlyMap<string, SheetBody>;
}

function oneZone(surface: Surface, facts: ZoneFacts, input: StatusInput): ZoneStatus {
  const { now } = input;
  const { coats, readings, temps, hours, sheets } = facts;
  const layers = input.buildUps.find((b) => b.surfaceId === surface.id)?.layers ?? [];
  const done = new Set(coats.flatMap((c) => c.on.filter((t) => t.surfaceId === surface.id).map((t) => t.layerId)));
  const nextLayer = layers.find((l) => !done.has(l.id)) ?? null;
  const nextSheet = nextLayer ? (sheets.get(nextLayer.sheetRevisionId) ?? null) : null;
  const lastCoat = coats[coats.length - 1] ?? null;
  const lastSheet = lastCoat ? sheets.get(lastCoat.sheetRevisionId) : undefined;
  const covered = lastCoat !== null && temps.length > 0 && lastCoat.startedAt >= (temps[0] as TempSample).at;
  const lastSheetId = input.sheets.find((s) => s.id === lastCoat?.sheetRevisionId)?.sheetId ?? '';
  const factor = input.dryFactors?.[lastSheetId] ?? 1;
  const clocks =
    lastCoat && lastCoat.finishedAt !== null && lastSheet && covered
      ? coatClocks({
          coat: driesBy(testedOn(lastCoat, [surface.id, surface.parentId ?? null]), factor),
          sheet: lastSheet,
          following: nextSheet,
          temps,
          readings,
          hours,
        })
      : null;

  const ownClocks = surfaceClocks({
    surface,
    log: prepOf(input.entries, surface.id),
    lastCoat,
    lastSheet: lastSheet ?? null,
    lastLayer: layers.find((l) => lastCoat?.on.some((t) => t.layerId === l.id)) ?? null,
    nextSheet,
    rain: isSheltered(surface, input.boat?.shelter) ? [] : hours,
  });
  const { buildUps } = input;
  const state = zoneState({
    now,
    surface,
    layers,
    coats,
    lastCoat,
    nextLayer,
    clocks,
    buildUps,
    sheets: input.sheets,
    unready: keepsOff(ownClocks, now).length > 0,
  });

  const from = Math.max(now, state === 'shut' ? (clocks?.window?.opensAt ?? now) : now);
  const cannotStart = state === 'shut' && clocks?.window?.opensAt == null;
  return {
    surfaceId: surface.id,
    state,
    coats,
    lastCoat,
    // Nobody is to act on the clocks beneath a patch whose turn has not come.
    clocks: state === 'waits' ? null : clocks,
    layersDone: layers.filter((l) => done.has(l.id)).length,
    layersPlanned: layers.length,
    nextLayer,
    nextSheet,
    nextNumber: nextLayer ? coats.filter((c) => c.sheetRevisionId === nextLayer.sheetRevisionId).length + 1 : 0,
    colourHex: lastCoat?.colourHex ?? null,
    existing: surface.existing,
    surfaceClocks: ownClocks,
    advice:
      nextLayer && nextSheet && temps.length > 0 && state !== 'inHand' && state !== 'waits' && !cannotStart
        ? coatAdvice({
            now: from,
            hours,
            temps,
            sheet: nextSheet,
            method: nextLayer.method,
            areaM2: surface.areaM2,
            sheltered: isSheltered(surface, input.boat?.shelter),
            ...(input.workSpans ? { workSpans: input.workSpans } : {}),
            ...(input.painters === undefined ? {} : { painters: input.painters }),
          })
        : null,
  };
}
