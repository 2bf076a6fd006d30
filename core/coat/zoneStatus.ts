import type { PaintMethod } from '../air/conditions';
import { startAdvice, type StartAdvice } from '../air/lastStart';
import { segmentAt } from '../air/segment';
import { surfaceSeries } from '../air/surfaceSeries';
import {
  unbrokenHours,
  type SourcedHour,
  type SurfaceReading,
  type TempSample,
  type WeatherSource,
} from '../air/weather';
import { milestoneAt } from '../cure/milestone';
import type { TimeTable } from '../cure/arrhenius';
import { sandableAt, windowAfterHandTests, type HandTest, type OvercoatWindow } from '../cure/window';
import type { Layer } from '../film/layer';
import { USUAL_RATE_M2_PER_H } from '../film/spreading';
import {
  isSheltered,
  OPENNESS,
  PATCHES,
  type ExistingCoating,
  type Exposure,
  type OpenWork,
  type PatchKind,
  type Substrate,
  type ZoneKind,
} from '../hull/zones';
import { overcoatFor, type SheetBody, type SheetRevision } from '../sheet/sheet';
import type { LogEntry } from './events';
import { foldLog, zoneReadings, type Coat } from './fold';

/** A zone of the boat, as far as coats care. */
export interface Surface {
  readonly id: string;
  readonly name: string;
  readonly kind: ZoneKind;
  readonly substrate: Substrate;
  readonly exposure: Exposure;
  readonly existing: ExistingCoating;
  readonly areaM2: number;
  /** ± as a share. */
  readonly areaShare: number;
  /** The zone a patch is part of. */
  readonly parentId?: string | null;
  readonly patchKind?: PatchKind | null;
  /** How many of its zone's first coats lie under a patch too; null as its kind has it: none where it is cut out, else all. */
  readonly sharedCoats?: number | null;
  readonly openWork?: readonly OpenWork[];
}

export interface BuildUp {
  readonly surfaceId: string;
  readonly layers: readonly Layer[];
}

/**
 * What the zone says for the next coat. `shut` not before; `bonds` as is; `abrade` first; `closed` treat as an
 * old coating; `ready` nothing of this job beneath; `inHand` a coat is going on; `complete` no coat left;
 * `noTimes` the sheet beneath gives no overcoat time; `noWeather` the weather does not reach back to the coat;
 * `openWork` something is to be mended before paint; `waits` a patch on a zone that gets other coats first.
 */
export type ZoneState =
  | 'noBuildUp'
  | 'ready'
  | 'inHand'
  | 'shut'
  | 'bonds'
  | 'abrade'
  | 'closed'
  | 'complete'
  | 'noTimes'
  | 'noWeather'
  | 'openWork'
  | 'waits';

export interface CoatClocks {
  readonly window: (OvercoatWindow & { handTest: HandTest | null }) | null;
  readonly alwaysAbrade: boolean;
  readonly touchDryAt: number | null;
  readonly sand: ReturnType<typeof sandableAt>;
  readonly immersionAt: number | null;
  /** What the clocks rest on. */
  readonly inputs: ClockInputs;
}

export interface ClockInputs {
  readonly readings: number;
  readonly sources: readonly WeatherSource[];
  /** How far the weather goes, epoch ms. */
  readonly knownUntil: number;
  /** Surface temperature at the start of the coat, °C. */
  readonly startTempC: number;
  readonly lowestC: number;
  readonly highestC: number;
}

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
}

const table = (t: TimeTable | null | undefined) => (t ? { table: t } : {});

/** Hours one painter takes to put a layer on a zone. [M] for the rates */
export function applyHours(areaM2: number, layer: Pick<Layer, 'method'>, painters = 1): number {
  return areaM2 / USUAL_RATE_M2_PER_H[layer.method] / painters;
}

/**
 * The clocks of one finished coat towards the coat that follows it.
 * @throws RangeError when the series starts after the coat did
 */
export function coatClocks(options: {
  coat: Pick<Coat, 'startedAt' | 'finishedAt' | 'handTests'>;
  sheet: SheetBody;
  following: SheetBody | null;
  temps: readonly TempSample[];
  readings: readonly SurfaceReading[];
  hours: readonly SourcedHour[];
}): CoatClocks {
  const { coat, sheet, following, temps, hours } = options;
  const { startedAt } = coat;
  const finishedAt = coat.finishedAt ?? startedAt;
  const times = overcoatFor(sheet, following?.kind ?? null);
  const cure = sheet.minCureC === null ? {} : { minCureC: sheet.minCureC };
  const reached = (t: TimeTable | null) =>
    t ? milestoneAt({ table: t, kind: 'minimum', appliedAt: finishedAt, temps, ...cure }) : null;
  const window = times
    ? windowAfterHandTests({
        startedAt,
        finishedAt,
        temps,
        tests: coat.handTests,
        minimum: times.minimum,
        ...(times.tackLimit ? { tackLimit: times.tackLimit } : {}),
        ...(times.maximum ? { maximum: times.maximum } : {}),
        ...cure,
      })
    : null;
  const last = temps[temps.length - 1] as TempSample;
  const until = window?.bondsUntil ?? window?.opensAt ?? last.at;
  const span = temps.filter((s) => s.at >= startedAt && s.at <= Math.max(until, startedAt + 3_600_000));
  const spanC = span.map((s) => s.tempC);
  const sources = [
    ...new Set(hours.filter((h) => h.at >= startedAt - 3_600_000 && h.at <= until).map((h) => h.source)),
  ];
  return {
    window,
    alwaysAbrade: times?.alwaysAbrade ?? false,
    touchDryAt: reached(sheet.touchDry),
    sand: sandableAt({ finishedAt, temps, tests: coat.handTests, ...table(sheet.sandable), ...cure }),
    immersionAt: reached(sheet.immersion),
    inputs: {
      readings: options.readings.filter((r) => r.at >= startedAt - 6 * 3_600_000).length,
      sources,
      knownUntil: last.at,
      startTempC: spanC[0] ?? (temps[0] as TempSample).tempC,
      lowestC: Math.min(...spanC),
      highestC: Math.max(...spanC),
    },
  };
}

/** Which side of its window a coat is on. */
export function windowState(
  clocks: CoatClocks,
  now: number,
): Extract<ZoneState, 'shut' | 'bonds' | 'abrade' | 'closed' | 'noTimes'> {
  const { window } = clocks;
  if (!window) return 'noTimes';
  if (window.opensAt === null || now < window.opensAt) return 'shut';
  if (window.closesAt !== null && now > window.closesAt) return 'closed';
  if (clocks.alwaysAbrade) return 'abrade';
  if (window.bondsUntil !== null && now > window.bondsUntil) return 'abrade';
  return 'bonds';
}

/** When a coat of a sheet may be started on an area, by the sheet's limits and its touch-dry time. */
export function coatAdvice(options: {
  now: number;
  hours: readonly SourcedHour[];
  temps: readonly TempSample[];
  sheet: SheetBody;
  method: PaintMethod;
  areaM2: number;
  sheltered: boolean;
  painters?: number;
}): StartAdvice {
  const { now, hours, temps, sheet, method, areaM2, sheltered, painters } = options;
  return startAdvice({
    now,
    hours,
    surface: temps,
    limits: sheet.limits,
    method,
    sheltered,
    applyHours: applyHours(areaM2, { method }, painters),
    ...(sheet.touchDry ? { touchDry: sheet.touchDry } : {}),
    ...(sheet.minCureC === null ? {} : { minCureC: sheet.minCureC }),
  });
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
}

const HOUR_MS = 3_600_000;
/** A series begins so long before the coat on whose clocks it is looked at: what was read before has faded by then. */
const SERIES_BEFORE_MS = 24 * HOUR_MS;

/** Hours from an instant on, with the one before it. */
function hoursFrom(hours: readonly SourcedHour[], from: number): readonly SourcedHour[] {
  const first = hours.length === 0 ? 0 : segmentAt(hours, from);
  return first === 0 ? hours : hours.slice(first);
}

const openness = (surface: Surface) => (isSheltered(surface.exposure) ? 0 : OPENNESS[surface.kind]);

/** The surface series of a zone; empty when there is no weather at all. */
export function zoneSeries(
  surface: Surface,
  hours: readonly SourcedHour[],
  readings: readonly SurfaceReading[],
): TempSample[] {
  if (hours.length === 0) return [];
  return surfaceSeries({ weather: hours, readings, openness: openness(surface) });
}

/**
 * Where every zone of a boat stands now, and what its next coat may do. Pure: the same in browser and server. Weather
 * that a gap parts from now is not used: a clock that would have to run through it is not told.
 */
export function zoneStatuses(input: StatusInput): ZoneStatus[] {
  const hours = unbrokenHours(input.hours, input.now);
  const seriesOf = new Map<string, TempSample[]>();
  const { coats } = foldLog(input.entries);
  const sheets = new Map(input.sheets.map((s) => [s.id, s.body]));
  return input.surfaces.map((surface) => {
    const own = coatsUnder(surface, coats);
    const from = Math.min(input.now, own[own.length - 1]?.startedAt ?? input.now) - SERIES_BEFORE_MS;
    const readings = zoneReadings(input.entries, surface.id).filter((r) => r.at >= from);
    // Zones alike in the open, as far on and without readings have the same series, and so the same clocks.
    const key = readings.length === 0 ? `${openness(surface)} ${Math.floor(from / HOUR_MS)}` : surface.id;
    let temps = seriesOf.get(key);
    if (!temps) seriesOf.set(key, (temps = zoneSeries(surface, hoursFrom(hours, from), readings)));
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

/**
 * A patch that lies on its zone gets its own coats when the zone has come to the same product, or has all of its
 * coats; one that shares a number of coats, when those are on. [CP: the extra coat of a wear band goes on first]
 */
function waitsForZone(surface: Surface, next: Layer, coats: readonly Coat[], input: StatusInput): boolean {
  const { parentId, patchKind, sharedCoats = null } = surface;
  if (!parentId || !patchKind || PATCHES[patchKind] !== 'overlay') return false;
  const onZone = coats.filter((c) => c.on.some((t) => t.surfaceId === parentId));
  if (sharedCoats !== null) return onZone.length < sharedCoats;
  const layers = input.buildUps.find((b) => b.surfaceId === parentId)?.layers ?? [];
  const done = new Set(onZone.flatMap((c) => c.on.filter((t) => t.surfaceId === parentId).map((t) => t.layerId)));
  const coming = layers.find((l) => !done.has(l.id));
  const product = (layer: Layer) =>
    input.sheets.find((s) => s.id === layer.sheetRevisionId)?.sheetId ?? layer.sheetRevisionId;
  return coming !== undefined && product(coming) !== product(next);
}

/** Work on a zone that has to be done before it is painted. */
export function blockingWork(surface: Pick<Surface, 'openWork'>): OpenWork[] {
  return (surface.openWork ?? []).filter((w) => !w.done);
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
  const clocks =
    lastCoat && lastCoat.finishedAt !== null && lastSheet && covered
      ? coatClocks({ coat: lastCoat, sheet: lastSheet, following: nextSheet, temps, readings, hours })
      : null;

  const state: ZoneState =
    lastCoat && lastCoat.finishedAt === null
      ? 'inHand'
      : layers.length === 0 && !lastCoat
        ? 'noBuildUp'
        : !nextLayer
          ? 'complete'
          : blockingWork(surface).length > 0
            ? 'openWork'
            : waitsForZone(surface, nextLayer, coats, input)
              ? 'waits'
              : !lastCoat
                ? 'ready'
                : clocks
                  ? windowState(clocks, now)
                  : 'noWeather';

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
    advice:
      nextLayer && nextSheet && temps.length > 0 && state !== 'inHand' && state !== 'waits' && !cannotStart
        ? coatAdvice({
            now: from,
            hours,
            temps,
            sheet: nextSheet,
            method: nextLayer.method,
            areaM2: surface.areaM2,
            sheltered: isSheltered(surface.exposure),
            ...(input.painters === undefined ? {} : { painters: input.painters }),
          })
        : null,
  };
}
