import { DateTime } from 'luxon';
import { comingClocks, namedTimers, type Clock, type NamedTimer } from '#core/coat/clocks';
import { foldLog, type Coat, type MixedBatch } from '#core/coat/fold';
import { zoneStatuses, type ZoneStatus } from '#core/coat/zoneStatus';
import { launchAgainst, type LaunchAgainst } from '#core/coat/launch';
import { weatherAt } from '#core/air/weather';
import { boatStillMasked } from '#core/prep/stillMasked';
import { wetEdges } from '#core/coat/wetEdge';
import { zoneNames } from '#core/hull/zones';
import type { SheetRevision } from '#core/model/sheet';
import { LAUNCH_HOUR, type BoatBundle } from '#contracts/rows/boat';
import type { SheetRow } from '#contracts/rows/sheet';
import { yardZones, type YardBoat } from '#contracts/rows/yard';
import { applyChange, boatOf } from './changes';
import { now } from './now';
import type { Waiting } from './waiting';

/** What waits is shown as done, unless it was put aside, or is not written down anywhere yet. */
export const isShown = (w: Waiting) => w.parked === null && w.kept;

/** A boat with everything worked out from its log, weather and sheets: what is shown is what was typed, sent or not. */
export interface BoatView extends BoatBundle {
  readonly at: number;
  readonly coats: readonly Coat[];
  readonly batches: readonly MixedBatch[];
  readonly statuses: ZoneStatus[];
  readonly timers: NamedTimer[];
  readonly clocks: Clock[];
  /** What speaks against the launch that is set. */
  readonly launch: readonly LaunchAgainst[];
  readonly sheetById: ReadonlyMap<string, SheetRevision>;
  /** What a zone is called, or was before it was removed. */
  readonly zoneName: (surfaceId: string) => string;
}

/** A bundle with what still waits to be sent, and every product's newest sheet at hand. */
export function pendingView(
  asked: BoatBundle,
  waiting: readonly Waiting[],
  sheets: readonly SheetRow[] | undefined,
  at: number,
): BoatView {
  const pending = waiting.filter((w) => boatOf(w.change) === asked.boat.id && isShown(w));
  const bundle = pending.reduce((b, w) => applyChange(b, w.change), asked);
  const known = new Map(bundle.sheets.map((s) => [s.id, s]));
  for (const sheet of sheets ?? []) if (!known.has(sheet.current.id)) known.set(sheet.current.id, sheet.current);
  return viewOf({ ...bundle, sheets: [...known.values()] }, Math.max(now(), at));
}

export function viewOf(bundle: BoatBundle, at: number): BoatView {
  const statuses = zoneStatuses({ ...bundle, now: at });
  const { coats, batches } = foldLog(bundle.entries);
  const sheetById = new Map(bundle.sheets.map((s) => [s.id, s]));
  const timers = namedTimers({ batches, sheets: bundle.sheets, now: at });
  const edges = wetEdges({ coats, sheets: bundle.sheets, airC: weatherAt(bundle.hours, at)?.airC ?? null });
  const inOn = bundle.jobs[bundle.jobs.length - 1]?.inOn;
  const launches = inOn
    ? DateTime.fromISO(inOn, { zone: bundle.boat.timeZone }).set({ hour: LAUNCH_HOUR }).toMillis()
    : null;
  const names = zoneNames(bundle);
  return {
    ...bundle,
    at,
    coats,
    batches,
    statuses,
    timers,
    clocks: comingClocks(statuses, timers, at, edges),
    launch:
      launches === null
        ? []
        : launchAgainst({
            statuses,
            surfaces: bundle.surfaces,
            launchAt: launches,
            now: at,
            masked: boatStillMasked(bundle),
          }),
    sheetById,
    zoneName: (id) => names.get(id) ?? 'removed zone',
  };
}

/** What is known of a boat that was typed here and that the server has not heard of yet; null where there is none. */
export function newBundle(waiting: readonly Waiting[], boatId: string | undefined): BoatBundle | null {
  const found = waiting.find(({ change }) => change.kind === 'boat' && change.row.id === boatId);
  if (found?.change.kind !== 'boat' || found.change.row.version > 0 || !isShown(found)) return null;
  return {
    now: now(),
    frozen: false,
    boat: found.change.row,
    jobs: [],
    hull: null,
    surfaces: [],
    removedZones: [],
    buildUps: [],
    borders: [],
    entries: [],
    sheets: [],
    hours: [],
    workSpans: [],
    typedDays: [],
  };
}

/** Boats that were typed here and are still to be sent, as the yard shows boats. */
export function newBoats(waiting: readonly Waiting[], known: readonly YardBoat[], at: number): YardBoat[] {
  return waiting.flatMap(({ change }): YardBoat[] => {
    if (change.kind !== 'boat' || known.some((b) => b.boat.id === change.row.id)) return [];
    const bundle = newBundle(waiting, change.row.id);
    if (!bundle || change.row.version > 0) return [];
    const view = pendingView(bundle, waiting, undefined, at);
    if (view.boat.deleted) return [];
    const { boat, jobs, statuses, surfaces, clocks, timers } = view;
    const zones = yardZones(statuses, surfaces);
    return [{ boat, job: jobs[jobs.length - 1] ?? null, zones, clocks, timers, launchAgainst: [], air: null }];
  });
}
