import { QueryClient, useQueries, useQuery } from '@tanstack/react-query';
import { DateTime } from 'luxon';
import { useMemo } from 'react';
import { v7 as uuid } from 'uuid';
import { comingClocks, namedTimers, type BatchTimer, type Clock } from '#core/coat/clocks';
import type { BatchEntry, CoatEntry, NewEntry } from '#core/model/log';
import { foldLog, type Coat, type MixedBatch } from '#core/coat/fold';
import { zoneStatuses, type ZoneStatus } from '#core/coat/zoneStatus';
import { launchAgainst, type LaunchAgainst } from '#core/coat/launch';
import { zoneNames } from '#core/hull/zones';
import type { SheetRevision } from '#core/model/sheet';
import { LAUNCH_HOUR, type BoatBundle } from '#contracts/rows/boat';
import type { Library, SheetRow } from '#contracts/rows/sheet';
import type { Stores } from '#contracts/rows/stores';
import type { NamedBuildUpRow, NamedUse } from '#contracts/rows/system';
import type { Yard } from '#contracts/rows/yard';
import { call, Refused } from './api';
import { useAreaMethods } from './changes/areas';
import { applyChange, applyToNamed, applyToStores, boatOf, inverseOf, type Change } from './changes';
import { now, syncClock, useNow } from './now';
import { outbox, useOutbox, type Outcome, type Waiting } from './outbox';
import { settings } from './settings';
import { toast } from './toasts';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      retry: (count, error) => !(error instanceof Refused) && count < 30,
      retryDelay: (count) => Math.min(500 * 2 ** count, 5000),
      refetchOnWindowFocus: true,
    },
  },
});

// What waits is shown anew once areas can be worked out.
useAreaMethods.subscribe(() => outbox.store.setState((list) => [...list], true));

outbox.onLanded = (change) => {
  const boatId = boatOf(change);
  if (boatId) {
    queryClient.setQueryData<BoatBundle>(['boat', boatId], (bundle) => bundle && applyChange(bundle, change));
    void askAnew(['boat', boatId]);
  } else {
    queryClient.setQueryData<Stores>(['stores'], (stores) => stores && applyToStores(stores, change));
    queryClient.setQueryData<NamedAnswer>(
      ['named'],
      (answer) => answer && { ...answer, named: applyToNamed(answer.named, change) },
    );
    if (change.kind === 'sheet' || change.kind === 'sheetImport') void askAnew(['sheets']);
  }
  void askAnew(['named']);
  void askAnew(['stores']);
  void askAnew(['yard']);
};

/**
 * An answer asked for before a change landed may not hold it, and the outbox no longer does: it must not
 * be shown. A later answer on its way is dropped by marking it stale; a first one has to be dropped by hand.
 */
async function askAnew(queryKey: readonly string[]): Promise<void> {
  await queryClient.cancelQueries({ queryKey, predicate: (query) => query.state.data === undefined });
  await queryClient.invalidateQueries({ queryKey });
}

async function timed<T extends { now: number; frozen: boolean }>(path: string): Promise<T> {
  const answer = await call<T>('GET', path);
  syncClock(answer);
  return answer;
}

export function useYard() {
  return useQuery({ queryKey: ['yard'], queryFn: () => timed<Yard>('/yard'), refetchInterval: 60_000 });
}

export function useSheets() {
  return useQuery({ queryKey: ['sheets'], queryFn: () => call<SheetRow[]>('GET', '/sheets') });
}

export function useSheet(sheetId: string | undefined) {
  return useQuery({
    queryKey: ['sheets', sheetId],
    queryFn: () => call<SheetRow & { revisions: SheetRevision[] }>('GET', `/sheets/${sheetId}`),
    enabled: sheetId !== undefined,
  });
}

export function useLibrary() {
  return useQuery({ queryKey: ['library'], queryFn: () => call<Library>('GET', '/library'), staleTime: Infinity });
}

/** What waits is shown as done, unless it was put aside, or is not written down anywhere yet. */
const isShown = (w: Waiting) => w.parked === null && w.kept;

/** What is written and not yet taken, of what belongs to the yard. */
function useYardWaiting(): Change[] {
  const waiting = useOutbox();
  return useMemo(() => waiting.filter((w) => boatOf(w.change) === null && isShown(w)).map((w) => w.change), [waiting]);
}

/** The shelf, what draws on it, and the yard's rules. */
export function useStores(): { stores: Stores | null; error: Error | null } {
  const { data, error } = useQuery({ queryKey: ['stores'], queryFn: () => call<Stores>('GET', '/stores') });
  const waiting = useYardWaiting();
  const stores = useMemo(() => (data ? waiting.reduce(applyToStores, data) : null), [data, waiting]);
  return { stores, error };
}

interface NamedAnswer {
  named: NamedBuildUpRow[];
  uses: Record<string, NamedUse[]>;
}

/** Named build-ups of the yard, and where they stand. */
export function useNamed(): { named: NamedBuildUpRow[] | null; uses: Record<string, NamedUse[]> } {
  const { data } = useQuery({ queryKey: ['named'], queryFn: () => call<NamedAnswer>('GET', '/named-build-ups') });
  const waiting = useYardWaiting();
  const named = useMemo(() => (data ? waiting.reduce(applyToNamed, data.named) : null), [data, waiting]);
  return { named, uses: data?.uses ?? {} };
}

/** A boat with everything worked out from its log, weather and sheets: what is shown is what was typed, sent or not. */
export interface BoatView extends BoatBundle {
  readonly at: number;
  readonly coats: readonly Coat[];
  readonly batches: readonly MixedBatch[];
  readonly statuses: ZoneStatus[];
  readonly timers: BatchTimer[];
  readonly clocks: Clock[];
  /** What speaks against the launch that is set. */
  readonly launch: readonly LaunchAgainst[];
  readonly sheetById: ReadonlyMap<string, SheetRevision>;
  /** What a zone is called, or was before it was removed. */
  readonly zoneName: (surfaceId: string) => string;
}

const boatQuery = (boatId: string | undefined) => ({
  queryKey: ['boat', boatId],
  queryFn: () => timed<BoatBundle>(`/boats/${boatId}`),
});

export function useBoat(boatId: string | undefined): { view: BoatView | null; error: Error | null } {
  const query = useQuery({ ...boatQuery(boatId), enabled: boatId !== undefined, refetchInterval: 120_000 });
  const sheets = useSheets();
  const waiting = useOutbox();
  // Clocks move by the minute; nothing on screen needs it finer, the timers keep their own.
  const minute = useNow(60_000);
  const view = useMemo(
    () => (query.data ? pendingView(query.data, waiting, sheets.data, minute) : null),
    [query.data, sheets.data, waiting, minute],
  );
  return { view, error: query.error };
}

/** Several boats at once, those that have arrived. */
export function useBoats(boatIds: readonly string[]): BoatView[] {
  const bundles = useQueries({
    queries: boatIds.map((id) => boatQuery(id)),
    combine: (results) => results.map((r) => r.data),
  });
  const sheets = useSheets();
  const waiting = useOutbox();
  return useMemo(
    () => bundles.flatMap((b) => (b ? [pendingView(b, waiting, sheets.data, b.now)] : [])),
    [bundles, waiting, sheets.data],
  );
}

/** A bundle with what still waits to be sent, and every product's newest sheet at hand. */
function pendingView(
  asked: BoatBundle,
  waiting: ReturnType<typeof useOutbox>,
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
    clocks: comingClocks(statuses, timers, at),
    launch:
      launches === null ? [] : launchAgainst({ statuses, surfaces: bundle.surfaces, launchAt: launches, now: at }),
    sheetById,
    zoneName: (id) => names.get(id) ?? 'removed zone',
  };
}

const undoStack: { label: string; change: Change }[] = [];

/**
 * Write a change: shown at once, sent when it can be, undone by one tap. With `inline` a refusal comes
 * back to the caller's form.
 */
export async function save(
  change: Change,
  label: string,
  options: { inline?: boolean; quiet?: boolean } = {},
): Promise<Outcome> {
  const boatId = boatOf(change);
  const pending = outbox.snapshot().filter((w) => boatOf(w.change) === boatId && isShown(w));
  const cached = boatId ? queryClient.getQueryData<BoatBundle>(['boat', boatId]) : undefined;
  const settle = <T>(value: T | undefined, apply: (value: T, change: Change) => T): T | null =>
    value === undefined ? null : pending.reduce<T>((v, w) => apply(v, w.change), value);
  const before = {
    bundle: settle(cached, applyChange),
    sheets: queryClient.getQueryData<SheetRow[]>(['sheets']) ?? [],
    named: settle(queryClient.getQueryData<NamedAnswer>(['named'])?.named, applyToNamed) ?? [],
    stores: settle(queryClient.getQueryData<Stores>(['stores']), applyToStores),
  };
  const inverse = inverseOf(change, before, {
    id: uuid(),
    at: now(),
    painter: settings().painter,
    device: settings().device,
  });
  const sent = outbox.put(uuid(), change, label, options);
  const announce = () => {
    if (options.quiet) return;
    if (inverse) undoStack.push({ label, change: inverse });
    toast(label, inverse ? { label: 'Undo', run: () => undo(inverse) } : undefined);
  };
  if (!options.inline) announce();
  const outcome = await sent;
  if (options.inline && outcome.ok) announce();
  return outcome;
}

/** Take back the given change, or the last one. */
export function undo(change?: Change): void {
  const at = change ? undoStack.findLastIndex((u) => u.change === change) : undoStack.length - 1;
  const [found] = at < 0 ? [] : undoStack.splice(at, 1);
  if (!found) {
    toast('Nothing to undo.');
    return;
  }
  const sent = outbox.put(uuid(), found.change, `Undo: ${found.label}`, { inline: true });
  // With no answer for a while, what will happen is said; what happened, when it has.
  const waiting = setTimeout(
    () => toast(`Kept on this device: "${found.label}" is taken back as soon as the server answers.`),
    2000,
  );
  void sent.then((outcome) => {
    clearTimeout(waiting);
    if (outcome.ok) toast(`Taken back: ${found.label}`);
    else if (outcome.failure.code === 'stale')
      toast(`Not taken back: "${found.label}" was changed again since. Change it by hand.`);
    else toast(`Not taken back: "${found.label}". ${outcome.failure.message}`);
  });
}

export type EntryDraft = Pick<CoatEntry | BatchEntry, 'boatId' | 'stream' | 'streamId' | 'kind' | 'body'> & {
  occurredAt?: number;
  supersedes?: string | null;
};

/** Add an entry to the log, signed by this device's painter. */
export function logEntry(
  draft: EntryDraft,
  label: string,
  options: { quiet?: boolean; inline?: boolean } = {},
): Promise<Outcome> {
  const { painter, device } = settings();
  const entry = {
    supersedes: null,
    ...draft,
    id: uuid(),
    occurredAt: Math.round(draft.occurredAt ?? now()),
    painter,
    device,
  };
  return save({ kind: 'entry', entry: entry as NewEntry }, label, options);
}
