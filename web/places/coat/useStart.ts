import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import {
  checkConditions,
  limitsInForce,
  type Conditions,
  type ConditionVerdict,
  type LimitsInForce,
} from '#core/air/conditions';
import type { StartAdvice } from '#core/air/lastStart';
import { temperatureAt } from '#core/air/surfaceSeries';
import { weatherAt, type WeatherHour } from '#core/air/weather';
import { coatAdvice, isTwoPackTopcoat } from '#core/coat/coatAdvice';
import { checkAppend } from '#core/coat/append';
import { entriesUntil, zoneReadings, type MixedBatch } from '#core/coat/fold';
import {
  againstStart,
  gritOf,
  REASON_WANTED,
  startConditions,
  startEntries,
  startProblem,
  usableReadings,
  type Against,
  type StartedCoat,
  type StartReadings,
  type StartWish,
} from '#core/coat/start';
import { zoneSeries } from '#core/coat/zoneSeries';
import { blockingWork } from '#core/coat/zoneState';
import { zoneStatuses, type ZoneStatus } from '#core/coat/zoneStatus';
import { prepOf } from '#core/prep/prepLog';
import { abradedSince } from '#core/prep/surfaceClocks';
import { isSheltered } from '#core/hull/zones';
import type { AbradeFor, Layer } from '#core/model/layer';
import type { LogEntry, LogKind } from '#core/model/log';
import type { SheetBody } from '#core/model/sheet';
import type { MaskItem } from '#core/model/surface';
import { sheetThinnerOfMixed } from '#core/sheet/thinner';
import type { SurfaceRow } from '#contracts/rows/boat';
import { splitBatch } from '#core/mix/splitBatch';
import { useDraft } from '../../data/drafts';
import { now } from '../../data/now';
import { useSettings } from '../../data/settings';
import { logEntry, type BoatView, type EntryDraft } from '../../data/store';
import type { Stint } from '../../data/targets';
import { attempt } from '../../parts/attempt';
import { openStopsOf } from '../film/planned';
import { useGoToBad } from '../../parts/goToBad';
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
  /** What it is a verdict of, and the limits that hold. */
  readonly scales: { readonly conditions: Conditions; readonly limits: LimitsInForce } | null;
  readonly advice: StartAdvice | null;
  /** All three were read, none is a guess. */
  readonly measured: boolean;
  /** Abrading is to be told: it bonded no longer, or it was planned. */
  readonly toAbrade: 'late' | 'planned' | null;
  readonly abradedFor: AbradeFor;
  /** What stands against it, in words. */
  readonly against: readonly string[];
  /** Who writes on this device. */
  readonly painter: string;
  readonly masks: readonly MaskItem[];
  /** Batches that it can go on with, and those that it does. */
  readonly offered: readonly MixedBatch[];
  readonly batches: readonly MixedBatch[];
  readonly problem: string | null;
  /** That it is the reason which is wanted. */
  readonly reasonWanted: boolean;
  /** Log it, unless something keeps it from that. */
  readonly go: () => void;
}

const HOUR_MS = 3_600_000;

/** As the zones were abraded under Prep, where all of them were with the same grit. */
function abradedUnder(view: BoatView, chosen: readonly ZoneStatus[]): Pick<StartWish, 'grit' | 'abradedFor'> {
  const done = chosen.map(({ surfaceId, lastCoat }) =>
    abradedSince({ log: prepOf(view.entries, surfaceId), lastCoat }),
  );
  const [first] = done;
  return first && done.every((d) => d?.grit === first.grit)
    ? { grit: String(first.grit), abradedFor: first.abradeFor }
    : { grit: '' };
}

/** A coat about to be started, or written down afterwards: what is wished for, what stands against it, what is logged. */
export function useStart({ view, stint, chosen, batchId }: StartProps): Start {
  const navigate = useNavigate();
  const { boat, surfaces } = view;
  const { units, painter } = useSettings();
  const [wish, set, forget] = useDraft<StartWish>(`start/${boat.id}/${stint.sheetId}`, () => ({
    when: 'now',
    startedAt: now() - 24 * HOUR_MS,
    finishedAt: now() - 22 * HOUR_MS,
    readings: { airC: null, rh: null, surfaceC: null },
    ...abradedUnder(view, chosen),
    reason: '',
  }));
  // A new one with each try, though it may say the same.
  const [refused, setRefused] = useState<{ readonly message: string } | null>(null);
  useGoToBad(refused);
  const problem = refused?.message ?? null;
  const first = chosen[0] as ZoneStatus;
  const sheet = first.nextSheet as SheetBody;
  const layer = first.nextLayer as Layer;
  const zoneOf = (id: string) => surfaces.find((s) => s.id === id) as SurfaceRow;
  const zones = chosen.map((z) => zoneOf(z.surfaceId));
  const readOn = (chosen.find((z) => z.surfaceId === wish.readOn) ?? first).surfaceId;
  const air = useAir(view, zones, { sheet, layer, wish, surface: zoneOf(readOn) });
  const { offered, batches, toAbrade, against } = useAgainst({ view, stint, chosen, batchId }, { wish, zoneOf, air });

  const go = () => {
    const coat = { ...coatOn(boat.id, stint, chosen, batches), ...unlogged(wish, first) };
    const entries = startEntries({
      coat,
      wish: { ...wish, abradedFor: abradedFor(wish, layer), readOn: chosen.length > 1 ? readOn : null },
      now: now(),
      against,
    }) as EntryDraft[];
    const kept = startProblem({ wish, now: now(), against }) ?? refusalOf(view, entries[0] as EntryDraft);
    setRefused(kept === null ? null : { message: kept });
    if (kept !== null) return;
    forget();
    const labels = { ...LABELS, started: `Coat started on ${zones.map((z) => z.name).join(', ')}` };
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
    read: (change) => set({ readings: { ...wish.readings, ...change } }),
    toAbrade,
    abradedFor: abradedFor(wish, layer),
    against: against.map((a) =>
      againstWords(a, {
        nameOf: (id) => zoneOf(id).name,
        at: wish.when === 'now' ? view.at : air.at,
        zone: boat.timeZone,
        past: wish.when === 'earlier',
        units,
      }),
    ),
    painter,
    masks: zones.flatMap((z) => z.maskList),
    offered,
    batches,
    problem,
    reasonWanted: problem === REASON_WANTED,
    go,
  };
}

/** The air and the surface at the start, read or expected, and what they say. */
function useAir(
  view: BoatView,
  zones: readonly SurfaceRow[],
  { sheet, layer, wish, surface }: { sheet: SheetBody; layer: Layer; wish: StartWish; surface: SurfaceRow },
): Pick<Start, 'at' | 'forecast' | 'surfaceGuessC' | 'verdict' | 'scales' | 'advice' | 'measured'> {
  const { hours, entries } = view;
  const at = wish.when === 'now' ? view.at : wish.startedAt;
  const known = Number.isFinite(at);
  const { airC, rh, surfaceC } = usableReadings(wish.readings);
  const temps = useMemo(() => {
    const readings = zoneReadings(entries, surface.id);
    return zoneSeries(
      surface,
      hours,
      surfaceC === null || !known ? readings : [...readings, { at, surfaceC }],
      view.boat,
    );
  }, [entries, surface, hours, at, known, surfaceC, view.boat]);
  const forecast = known ? weatherAt(hours, at) : null;
  const surfaceGuessC = temps.length > 0 && known ? temperatureAt(temps, at) : null;
  const conditions = startConditions({ readings: wish.readings, forecast, surfaceC: surfaceGuessC });
  const { limits } = sheet;
  const { method } = layer;
  const sheltered = zones.every((z) => isSheltered(z, view.boat.shelter));
  const areaM2 = zones.reduce((sum, z) => sum + z.areaM2, 0);
  // Walking the forecast is worth doing once, not at every key pressed in a field beside it.
  const wanted = known && temps.length > 0;
  const advice = useMemo(
    () =>
      wanted
        ? coatAdvice({ now: at, hours, temps, sheet, method, areaM2, sheltered, workSpans: view.workSpans })
        : null,
    [wanted, at, hours, temps, sheet, method, areaM2, sheltered, view.workSpans],
  );
  return {
    at,
    forecast,
    surfaceGuessC,
    verdict: conditions
      ? attempt(() => checkConditions({ conditions, limits, method, sheltered, topcoat: isTwoPackTopcoat(sheet) }))
          .value
      : null,
    scales: conditions ? { conditions, limits: limitsInForce({ limits, topcoat: isTwoPackTopcoat(sheet) }) } : null,
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

const LABELS: Partial<Record<LogKind, string>> = {
  reading: 'Conditions logged',
  mixed: 'Batch mixed',
  batchOn: 'Batch on',
  finished: 'Coat finished',
};

/** What stands against it by its own moment, the batches that it goes on with, and whether abrading is to be told. */
function useAgainst(
  { view, stint, chosen, batchId }: Omit<StartProps, 'stints' | 'onPick'>,
  { wish, zoneOf, air }: { wish: StartWish; zoneOf: Start['zoneOf']; air: ReturnType<typeof useAir> },
): Pick<Start, 'offered' | 'batches' | 'toAbrade'> & { against: Against[] } {
  const offered = batchesFor(view, stint, { batchId, wish });
  const batches = wish.batchIds ? offered.filter((b) => wish.batchIds?.includes(b.id)) : offered;
  const then = useThen(view, chosen, wish);
  const planned = chosen.some((z) => z.nextLayer?.prep === 'abrade');
  const against = againstStart({
    zones: chosen.map((status, i) => ({
      status: then[i] ?? status,
      ...(status.nextLayer ? { layerId: status.nextLayer.id } : {}),
      openWork: blockingWork(zoneOf(status.surfaceId)),
      stops: openStopsOf(view, status),
    })),
    at: air.at,
    planned,
    abraded: gritOf(wish.grit) !== null,
    batches,
    verdict: air.verdict,
    advice: air.advice,
  });
  const toAbrade = then.some((z) => z.state === 'abrade') ? 'late' : planned ? 'planned' : null;
  return { offered, batches, toAbrade, against };
}

/** The zones as they stood at the moment of a coat that was earlier; of one that starts now, as they stand. */
function useThen(view: BoatView, chosen: readonly ZoneStatus[], wish: StartWish): readonly ZoneStatus[] {
  const { startedAt, when } = wish;
  return useMemo(() => {
    if (when === 'now' || !Number.isFinite(startedAt)) return chosen;
    const surfaces = chosen.flatMap((z) => view.surfaces.filter((s) => s.id === z.surfaceId));
    return zoneStatuses({ ...view, surfaces, entries: entriesUntil(view.entries, startedAt), now: startedAt });
  }, [view, chosen, when, startedAt]);
}

/** Batches of the product of which something was in the pot at the start: the one asked for, or all. */
function batchesFor(
  view: BoatView,
  stint: Stint,
  { batchId, wish }: { batchId: string | null; wish: StartWish },
): MixedBatch[] {
  const until = wish.when === 'now' ? Infinity : wish.finishedAt;
  const potOver = (b: MixedBatch) =>
    b.potLifeH !== null &&
    b.mixedAt + b.potLifeH * HOUR_MS < (wish.when === 'now' ? view.at : wish.startedAt) - POT_GRACE_MS;
  return view.batches.filter(
    (b) =>
      b.restL > 0 &&
      view.sheetById.get(b.sheetRevisionId)?.sheetId === stint.sheetId &&
      b.mixedAt <= until &&
      (batchId === null ? !potOver(b) : b.id === batchId),
  );
}

/** A pot over for longer is not poured from any more. */
const POT_GRACE_MS = HOUR_MS;

/** What it was abraded for: as it was told, or planned. */
const abradedFor = (wish: StartWish, layer: Layer): AbradeFor => wish.abradedFor ?? layer.abradeFor ?? 'bond';

/** The batch of a coat that was earlier, which nobody logged; nothing where none is told. */
function unlogged(wish: StartWish, first: ZoneStatus): Pick<StartedCoat, 'unlogged'> {
  const sheet = first.nextSheet as SheetBody;
  const layer = first.nextLayer as Layer;
  if (wish.when === 'now' || !wish.mixedL || !(wish.mixedL > 0)) return {};
  const share = sheetThinnerOfMixed(sheet, layer.thinnerShare);
  const split = attempt(() =>
    splitBatch({
      parts: sheet.parts,
      basis: sheet.ratioBasis,
      mixedL: wish.mixedL as number,
      thinner: { share, of: 'mixed' },
    }),
  ).value;
  if (!split) return {};
  const mixed = {
    sheetRevisionId: layer.sheetRevisionId,
    on: [{ surfaceId: first.surfaceId, layerId: layer.id }],
    ...split,
    standMin: 0,
    potLifeH: null,
    potTempC: null,
  };
  return { unlogged: { batchId: uuid(), mixed } };
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
