import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { airCloses } from '#core/air/airCloses';
import { batchTimers, type BatchTimer } from '#core/coat/clocks';
import { isTwoPackTopcoat } from '#core/coat/coatAdvice';
import { zoneReadings, type Coat } from '#core/coat/fold';
import { measuredFilm } from '#core/coat/measuredFilm';
import { againstAir, coatProgress, type AgainstAir, type Progress } from '#core/coat/progress';
import { wetEdgeAt, wetEdgeH } from '#core/coat/wetEdge';
import { weatherAt } from '#core/air/weather';
import { zoneSeries } from '#core/coat/zoneSeries';
import { wetFilmMicron } from '#core/film/spreading';
import { isSheltered } from '#core/hull/zones';
import type { LimitBreak } from '#core/air/conditions';
import type { SheetBody } from '#core/model/sheet';
import type { SurfaceRow } from '#contracts/rows/boat';
import { zonesOf, type ZoneInHand } from './zonesOf';
import { placeOfZone } from '../../../data/device';
import { useNow } from '../../../data/now';
import { rateOf } from '../../../data/rates';
import { useStores, type BoatView } from '../../../data/store';
import { attempt } from '../../../parts/attempt';

/** What closes the air on a coat first: a limit of its sheet, or dusk. */
export interface Closing {
  readonly at: number;
  readonly by: LimitBreak | 'dusk';
}

export interface InHandFacts {
  readonly now: number;
  readonly targetMicron: number;
  readonly film: ReturnType<typeof measuredFilm>;
  /** Mean wet film by the litres over what is done; null while nobody said how far. */
  readonly byPaintMicron: number | null;
  readonly zones: readonly ZoneInHand[];
  readonly progress: Progress;
  readonly pot: BatchTimer | null;
  readonly stand: BatchTimer | null;
  /** When the edge of what was painted last is no longer wet; null while it is paused. */
  readonly wetEdgeAt: number | null;
  readonly wetEdgeUsual: boolean;
  readonly closing: Closing | null;
  readonly against: AgainstAir | null;
}

const HOUR_MS = 3_600_000;
const LOOKED_AHEAD_H = 14;

/** Everything that one wants to know while a coat goes on. */
export function useInHand(view: BoatView, coat: Coat, sheet: SheetBody): InHandFacts {
  const now = useNow(1000);
  const minute = Math.floor(now / 60_000) * 60_000;
  const edgeH = wetEdgeH(sheet, weatherAt(view.hours, minute)?.airC ?? null);
  const { stores } = useStores();
  const rateM2PerH = rateOf(stores?.rules, view.sheetById.get(coat.sheetRevisionId)?.sheetId, coat.method);
  const painters = coat.stints[coat.stints.length - 1]?.painters.length ?? 1;
  const surfaces = useMemo(
    () => coat.on.flatMap((t) => view.surfaces.filter((s) => s.id === t.surfaceId)),
    [coat.on, view.surfaces],
  );
  const zones = useMemo(
    () => zonesOf({ surfaces, covered: coat.covered, boat: view.boat, rateM2PerH, painters, wetEdgeH: edgeH }),
    [surfaces, coat.covered, view.boat, rateM2PerH, painters, edgeH],
  );
  const progress = coatProgress({
    coat,
    zones: surfaces.map((s) => ({ surfaceId: s.id, areaM2: s.areaM2 })),
    rateM2PerH,
    now,
  });
  const closing = useClosing(view, coat, { sheet, surfaces, minute });
  const timers = useMemo(() => {
    const own = new Set(coat.batches.map((b) => b.batchId));
    return batchTimers(
      view.batches.filter((b) => own.has(b.id)),
      minute,
    );
  }, [coat.batches, view.batches, minute]);
  const of = zones.reduce((sum, z) => sum + z.panels.of, 0);
  const done = zones.reduce((sum, z) => sum + z.done.length, 0);
  return {
    now,
    targetMicron: wetFilmMicron({ dftMicron: coat.dftMicron, solids: sheet.solids, thinner: coat.thinner }),
    film: measuredFilm(coat, sheet.solids),
    // Before half of it is on, most of the paint is still in the pot.
    byPaintMicron: progress.told && progress.doneM2 * 2 >= progress.wholeM2 ? byPaint(coat, progress.doneM2) : null,
    zones,
    progress,
    pot: timers.findLast((t) => t.timer === 'pot') ?? null,
    stand: timers.find((t) => t.timer === 'stand' && t.dueAt > now) ?? null,
    wetEdgeAt: wetEdgeAt({ coat, hours: edgeH }),
    wetEdgeUsual: sheet.wetEdgeMin === undefined,
    closing,
    against: closing ? againstAir({ progress, closesAt: closing.at, now, panels: { of, done } }) : null,
  };
}

/** 1 L over 1 m² is 1000 µm wet; what is still on the tray makes it a little too much. */
function byPaint({ batches }: Coat, doneM2: number): number | null {
  const litres = batches.reduce((sum, b) => sum + b.litres, 0);
  return litres > 0 ? (litres * 1000) / doneM2 : null;
}

/** What closes the air first: a limit on the forecast, or dusk where it is painted by daylight. */
function useClosing(
  view: BoatView,
  coat: Coat,
  { sheet, surfaces, minute }: { sheet: SheetBody; surfaces: readonly SurfaceRow[]; minute: number },
): Closing | null {
  const { boat, hours, entries } = view;
  const sheltered = surfaces.every((s) => isSheltered(s, boat.shelter));
  const { data: duskAt } = useQuery({
    queryKey: ['dusk', boat.timeZone, boat.latitudeDeg, Math.floor(minute / HOUR_MS)],
    queryFn: () => duskAfter(boat.latitudeDeg, boat.timeZone, minute),
    staleTime: Infinity,
  });
  const [first] = surfaces;
  const limit = useMemo(() => {
    if (!first) return null;
    const surface = zoneSeries(first, hours, zoneReadings(entries, first.id), boat);
    return attempt(() =>
      airCloses({
        now: minute,
        hours,
        surface,
        limits: sheet.limits,
        method: coat.method,
        sheltered,
        topcoat: isTwoPackTopcoat(sheet),
        withinH: LOOKED_AHEAD_H,
      }),
    ).value;
  }, [first, hours, entries, boat, minute, sheet, coat.method, sheltered]);
  const dusk: Closing | null = duskAt && !sheltered ? { at: duskAt, by: 'dusk' } : null;
  if (!limit) return dusk;
  return dusk && dusk.at < limit.at ? dusk : { at: limit.at, by: limit.break };
}

/** The next end of civil twilight, by the town that the time zone is named after; null where it stays light. */
async function duskAfter(latitudeDeg: number, timeZone: string, now: number): Promise<number | null> {
  const [{ getTimes }, place] = await Promise.all([import('suncalc'), placeOfZone(timeZone)]);
  for (const day of [-1, 0, 1]) {
    const { dusk } = getTimes(new Date(now + day * 24 * HOUR_MS), latitudeDeg, place?.longitudeDeg ?? 0);
    if (dusk && dusk.getTime() > now) return dusk.getTime();
  }
  return null;
}
