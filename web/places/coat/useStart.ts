import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { checkConditions, type ConditionVerdict } from '#core/air/conditions';
import type { StartAdvice } from '#core/air/lastStart';
import { temperatureAt } from '#core/air/surfaceSeries';
import { weatherAt, type WeatherHour } from '#core/air/weather';
import { coatAdvice } from '#core/coat/coatAdvice';
import { checkAppend } from '#core/coat/append';
import { zoneReadings, type MixedBatch } from '#core/coat/fold';
import {
  againstStart,
  gritOf,
  startConditions,
  startEntries,
  startProblem,
  usableReadings,
  type StartedCoat,
  type StartReadings,
  type StartWish,
} from '#core/coat/start';
import { zoneSeries } from '#core/coat/zoneSeries';
import { blockingWork } from '#core/coat/zoneState';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import { isSheltered } from '#core/hull/zones';
import type { Layer } from '#core/model/layer';
import type { LogEntry, LogKind } from '#core/model/log';
import type { SheetBody } from '#core/model/sheet';
import type { MaskItem } from '#core/model/surface';
import { sheetThinnerOfMixed } from '#core/sheet/thinner';
import type { SurfaceRow } from '#contracts/rows/boat';
import { now } from '../../data/now';
import { logEntry, type BoatView, type EntryDraft } from '../../data/store';
import type { Stint } from '../../data/targets';
import { attempt } from '../../parts/attempt';
import { openStopsOf } from '../film/planned';
import { againstWords } from './againstWords';

export interface StartProps {
  view: BoatView;
  stints: readonly Stint[];
  stint: Stint;
  chosen: readonly ZoneStatus[];
  /** The batch it starts with, from the page that mixed it. */
  batchId: string | null;
  /** Other zones by their ids, at least one. */
  onPick: (ids: string[]) => void;
}

export interface Start {
  readonly first: ZoneStatus;
  readonly sheet: SheetBody;
  readonly layer: Layer;
  readonly chosen: readonly ZoneStatus[];
  readonly zoneOf: (surfaceId: string) => SurfaceRow;
  readonly wish: StartWish;
  /** The zone whose surface is read: the one that was told, else the first. */
  readonly readOn: string;
  readonly set: (change: Partial<StartWish>) => void;
  readonly read: (change: Partial<StartReadings>) => void;
  /** The moment it is about, epoch ms; not a number where that cannot be read. */
  readonly at: number;
  readonly forecast: WeatherHour | null;
  readonly surfaceGuessC: number | null;
  readonly verdict: ConditionVerdict | null;
  readonly advice: StartAdvice | null;
  /** All three were read, none is a guess. */
  readonly measured: boolean;
  readonly mustAbrade: boolean;
  /** What stands against it, in words. */
  readonly against: readonly string[];
  readonly masks: readonly MaskItem[];
  readonly batches: readonly MixedBatch[];
  readonly problem: string | null;
  /** Log it, unless something keeps it from that. */
  readonly go: () => void;
}

const HOUR_MS = 3_600_000;

/** A coat about to be started, or written down afterwards: what is wished for, what stands against it, what is logged. */
export function useStart({ view, stint, chosen, batchId }: StartProps): Start {
  const navigate = useNavigate();
  const { boat, surfaces } = view;
  const [wish, setWish] = useState<StartWish>(() => ({
    when: 'now',
    startedAt: now() - 24 * HOUR_MS,
    finishedAt: now() - 22 * HOUR_MS,
    readings: { airC: null, rh: null, surfaceC: null },
    grit: '',
    reason: '',
  }));
  const [problem, setProblem] = useState<string | null>(null);
  const set = (change: Partial<StartWish>) => setWish((before) => ({ ...before, ...change }));
  const first = chosen[0] as ZoneStatus;
  const sheet = first.nextSheet as SheetBody;
  const layer = first.nextLayer as Layer;
  const zoneOf = (id: string) => surfaces.find((s) => s.id === id) as SurfaceRow;
  const zones = chosen.map((z) => zoneOf(z.surfaceId));
  const readOn = (chosen.find((z) => z.surfaceId === wish.readOn) ?? first).surfaceId;
  const air = useAir(view, zones, { sheet, layer, wish, surface: zoneOf(readOn) });
  const against = againstStart({
    zones: chosen.map((status) => ({
      status,
      openWork: blockingWork(zoneOf(status.surfaceId)),
      stops: openStopsOf(view, status),
    })),
    when: wish.when,
    abraded: gritOf(wish.grit) !== null,
    verdict: air.verdict,
  }).map((a) => againstWords(a, { nameOf: (id) => zoneOf(id).name, at: view.at, zone: boat.timeZone }));
  const batches = wish.when === 'now' ? batchesFor(view, stint, batchId) : [];

  const go = () => {
    const needsReason = against.length > 0;
    const coat = coatOn(boat.id, stint, chosen, batches);
    const entries = startEntries({
      coat,
      wish: { ...wish, readOn: chosen.length > 1 ? readOn : null },
      now: now(),
      needsReason,
    }) as EntryDraft[];
    const kept = startProblem({ wish, now: now(), needsReason }) ?? refusalOf(view, entries[0] as EntryDraft);
    setProblem(kept);
    if (kept !== null) return;
    const labels: Partial<Record<LogKind, string>> = {
      started: `Coat started on ${zones.map((z) => z.name).join(', ')}`,
      reading: 'Conditions logged',
      batchOn: 'Batch on',
      finished: 'Coat finished',
    };
    for (const entry of entries)
      void logEntry(entry, labels[entry.kind] ?? '', entry.kind === 'started' ? {} : { quiet: true });
    void navigate(`/boats/${boat.id}/coat/${coat.coatId}`, { replace: true });
  };
  return {
    ...air,
    first,
    sheet,
    layer,
    chosen,
    zoneOf,
    wish,
    readOn,
    set,
    read: (change) => setWish((before) => ({ ...before, readings: { ...before.readings, ...change } })),
    mustAbrade: wish.when === 'now' && chosen.some((z) => z.state === 'abrade'),
    against,
    masks: zones.flatMap((z) => z.maskList),
    batches,
    problem,
    go,
  };
}

/** The air and the surface at the start, read or expected, and what they say. */
function useAir(
  view: BoatView,
  zones: readonly SurfaceRow[],
  { sheet, layer, wish, surface }: { sheet: SheetBody; layer: Layer; wish: StartWish; surface: SurfaceRow },
): Pick<Start, 'at' | 'forecast' | 'surfaceGuessC' | 'verdict' | 'advice' | 'measured'> {
  const { hours, entries } = view;
  const at = wish.when === 'now' ? view.at : wish.startedAt;
  const known = Number.isFinite(at);
  const { airC, rh, surfaceC } = usableReadings(wish.readings);
  const temps = useMemo(() => {
    const readings = zoneReadings(entries, surface.id);
    return zoneSeries(surface, hours, surfaceC === null || !known ? readings : [...readings, { at, surfaceC }]);
  }, [entries, surface, hours, at, known, surfaceC]);
  const forecast = known ? weatherAt(hours, at) : null;
  const surfaceGuessC = temps.length > 0 && known ? temperatureAt(temps, at) : null;
  const conditions = startConditions({ readings: wish.readings, forecast, surfaceC: surfaceGuessC });
  const { limits } = sheet;
  const { method } = layer;
  const sheltered = zones.every((z) => isSheltered(z.exposure));
  const areaM2 = zones.reduce((sum, z) => sum + z.areaM2, 0);
  // Walking the forecast is worth doing once, not at every key pressed in a field beside it.
  const wanted = wish.when === 'now' && temps.length > 0;
  const advice = useMemo(
    () => (wanted ? coatAdvice({ now: at, hours, temps, sheet, method, areaM2, sheltered }) : null),
    [wanted, at, hours, temps, sheet, method, areaM2, sheltered],
  );
  return {
    at,
    forecast,
    surfaceGuessC,
    verdict: conditions ? attempt(() => checkConditions({ conditions, limits, method, sheltered })).value : null,
    advice,
    measured: airC !== null && rh !== null && surfaceC !== null,
  };
}

/** The coat that is started, as its first zone's layer was planned. */
function coatOn(
  boatId: string,
  stint: Stint,
  chosen: readonly ZoneStatus[],
  batches: readonly MixedBatch[],
): StartedCoat {
  const { nextLayer, nextSheet } = chosen[0] as ZoneStatus;
  const layer = nextLayer as Layer;
  return {
    boatId,
    coatId: uuid(),
    on: chosen.map((z) => ({ surfaceId: z.surfaceId, layerId: z.nextLayer?.id ?? layer.id })),
    sheetRevisionId: stint.sheetRevisionId,
    method: layer.method,
    thinner: sheetThinnerOfMixed(nextSheet as SheetBody, layer.thinnerShare),
    dftMicron: layer.dftMicron,
    colour: layer.colour,
    colourHex: layer.colourHex,
    batches,
  };
}

/** Batches of the product that stand mixed and on no coat: the one asked for, or all. */
function batchesFor(view: BoatView, stint: Stint, batchId: string | null): MixedBatch[] {
  return view.batches.filter(
    (b) =>
      !b.emptied &&
      view.sheetById.get(b.sheetRevisionId)?.sheetId === stint.sheetId &&
      !view.coats.some((c) => c.batches.some((x) => x.batchId === b.id)) &&
      (batchId === null || b.id === batchId),
  );
}

/** Why the log would not take a start; null where it would. */
function refusalOf(view: BoatView, started: EntryDraft): string | null {
  const unsigned = { supersedes: null, painter: '', device: '', recordedAt: now(), ...started, id: uuid() };
  try {
    checkAppend(view.entries, unsigned as LogEntry);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}
