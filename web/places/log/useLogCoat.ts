import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { entriesUntil } from '#core/coat/fold';
import { againstStart, REASON_WANTED, startProblem, type Against } from '#core/coat/start';
import { mayGoOn, zoneStatuses } from '#core/coat/zoneStatus';
import { blockingWork } from '#core/coat/zoneState';
import type { SheetRow } from '#contracts/rows/sheet';
import type { YardBoat } from '#contracts/rows/yard';
import { deviceZone } from '../../data/device';
import { useZonePlace } from '../../data/useZonePlace';
import { useDraft } from '../../data/drafts';
import { now } from '../../data/now';
import { saveAll, useBoat, type BoatView } from '../../data/store';
import { useGoToBad } from '../../parts/goToBad';
import { changesOf, plannedLayer, type Told } from './logChanges';

const HOUR_MS = 3_600_000;

/** As it is typed: what was not picked yet follows from what was. */
type Typed = Omit<Told, 'surfaceId' | 'sheetId'> & {
  readonly surfaceId?: string | null;
  readonly sheetId?: string | null;
};

/** What was not picked: the zone that may go on first, and the product that comes next on it. */
function toldOf({ surfaceId, sheetId, ...typed }: Typed, view: BoatView | null): Told {
  const coming = (view?.statuses ?? []).filter((s) => s.nextLayer !== null);
  const first = coming.find(mayGoOn) ?? coming[0];
  const zone = surfaceId === undefined ? (first?.surfaceId ?? view?.surfaces[0]?.id ?? null) : surfaceId;
  const status = view?.statuses.find((s) => s.surfaceId === zone);
  // Where nothing is planned, most likely another coat of the last one.
  const revisionId = status?.nextLayer?.sheetRevisionId ?? status?.lastCoat?.sheetRevisionId ?? '';
  const planned = view?.sheetById.get(revisionId)?.sheetId ?? null;
  return { ...typed, surfaceId: zone, sheetId: sheetId === undefined ? planned : sheetId };
}

const fresh = (boats: readonly YardBoat[]) => (): Typed => ({
  boatId: boats.length > 0 ? (boats[0] as YardBoat).boat.id : null,
  boatName: '',
  zoneKind: 'underwater',
  productName: '',
  productKind: 'antifouling',
  when: 'done',
  startedAt: now() - HOUR_MS,
  finishedAt: now(),
  reason: '',
});

/** What stands against a coat that is done, as the zone stood then; the air is judged where it is read. */
function againstTold(view: BoatView | null, told: Told): Against[] {
  const surface = view?.surfaces.find((s) => s.id === told.surfaceId);
  if (!view || !surface || told.when === 'now' || !Number.isFinite(told.startedAt)) return [];
  const at = told.startedAt;
  const [status] = zoneStatuses({ ...view, surfaces: [surface], entries: entriesUntil(view.entries, at), now: at });
  if (!status) return [];
  const planned = plannedLayer(view, told);
  return againstStart({
    zones: [{ status, ...(planned ? { layerId: planned.id } : {}), openWork: blockingWork(surface), stops: [] }],
    at,
    planned: planned?.prep === 'abrade',
    // Of one that is told afterwards nobody says how: it counts as done unless the plan asked for it.
    abraded: false,
    batches: [],
    verdict: null,
    advice: null,
  });
}

/** A coat as it is told on one page, what is still to be asked, and how it is written down. */
export function useLogCoat(boats: readonly YardBoat[], sheets: readonly SheetRow[]) {
  const navigate = useNavigate();
  const [drafted, set, forget] = useDraft<Typed>('log', fresh(boats));
  // A boat that is gone since leaves what was typed of the rest.
  const gone = drafted.boatId !== null && !boats.some((b) => b.boat.id === drafted.boatId);
  const boatId = gone ? null : drafted.boatId;
  const { view } = useBoat(boatId ?? undefined);
  const place = useZonePlace(deviceZone());
  const [problem, setProblem] = useState<LogProblem | null>(null);
  useGoToBad(problem);
  const [sending, setSending] = useState(false);
  const own = boatId === null ? null : view;
  const told = useMemo(() => toldOf({ ...drafted, boatId }, own), [drafted, boatId, own]);
  const against = useMemo(() => againstTold(own, told), [own, told]);
  const revision = sheets.find((s) => s.id === told.sheetId)?.current ?? null;

  const go = async () => {
    const wrong = problemOf(told, own, against);
    setProblem(wrong);
    if (wrong !== null) return;
    setSending(true);
    const timeZone = own?.boat.timeZone ?? deviceZone();
    const written = changesOf({ told, view: own, timeZone, place: place.data ?? null, revision, against });
    // What was named for it stays when the coat is taken back.
    const outcome = await saveAll(written.first, 'Begun', { inline: true, quiet: true });
    const logged = outcome.ok ? await saveAll(written.coat, 'Coat logged', { inline: true }) : outcome;
    setSending(false);
    if (!logged.ok) return setProblem({ message: logged.failure.message });
    forget();
    const base = `/boats/${written.boatId}/coat`;
    return void navigate(told.when === 'now' ? `${base}/start?on=${written.surfaceId}` : `${base}/${written.coatId}`, {
      replace: true,
    });
  };
  return { told, set, view: own, waiting: told.boatId !== null && !own, against, revision, problem, sending, go };
}

/** What keeps a coat from being logged, and at which field. */
export interface LogProblem {
  readonly message: string;
  readonly field?: 'boatName' | 'productName' | 'reason';
}

function problemOf(told: Told, view: BoatView | null, against: readonly Against[]): LogProblem | null {
  if (told.boatId === null && told.boatName.trim() === '')
    return { field: 'boatName', message: 'Type what the boat is called.' };
  if (told.boatId !== null && !view) return { message: 'The boat has not arrived yet. Wait a moment and try again.' };
  if (told.sheetId === null && told.productName.trim() === '')
    return { field: 'productName', message: 'Type what the product is called.' };
  if (told.when === 'now') return null;
  const { startedAt, finishedAt, reason } = told;
  const message = startProblem({
    wish: {
      when: 'earlier',
      startedAt,
      finishedAt,
      readings: { airC: null, rh: null, surfaceC: null },
      grit: '',
      reason,
    },
    now: now(),
    against,
  });
  if (message === null) return null;
  return message === REASON_WANTED ? { field: 'reason', message } : { message };
}
