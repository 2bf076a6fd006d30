import { QueryClient, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { v7 as uuid } from 'uuid';
import type { LogEntry, NewEntry } from '#core/model/log';
import type { SheetRevision } from '#core/model/sheet';
import type { BoatBundle } from '#contracts/rows/boat';
import type { Library, SheetRow } from '#contracts/rows/sheet';
import type { Stores } from '#contracts/rows/stores';
import type { NamedBuildUpRow, NamedUse } from '#contracts/rows/system';
import type { Yard } from '#contracts/rows/yard';
import { call, Refused } from './api';
import { useAreaMethods } from './changes/areas';
import { applyChange, applyToNamed, applyToStores, boatOf, inverseOf, type Before, type Change } from './changes';
import { loggedAgain } from './changes/entry';
import { now, syncClock, useNow, whenClockJumps } from './now';
import { outbox, useOutbox } from './outbox';
import type { Outcome } from './waiting';
import { settings } from './settings';
import { toast } from './toasts';
import { isShown, newBoats, newBundle, pendingView, type BoatView } from './view';

export { viewOf, type BoatView } from './view';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      // What was seen once is there without a signal, for a working day.
      gcTime: 12 * 3_600_000,
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
    // What was learned of a product moves the clocks of every boat.
    if (change.kind === 'rules') void askAnew(['boat']);
  }
  void askAnew(['named']);
  void askAnew(['stores']);
  void askAnew(['ledger']);
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

whenClockJumps(() => void queryClient.invalidateQueries({ queryKey: ['yard'] }));

async function timed<T extends { now: number; frozen: boolean }>(path: string): Promise<T> {
  const answer = await call<T>('GET', path);
  syncClock(answer);
  return answer;
}

export function useYard() {
  const query = useQuery({ queryKey: ['yard'], queryFn: () => timed<Yard>('/yard'), refetchInterval: 60_000 });
  const waiting = useOutbox();
  const data = useMemo(() => {
    const added = query.data ? newBoats(waiting, query.data.boats, query.data.now) : [];
    return query.data && added.length > 0 ? { ...query.data, boats: [...query.data.boats, ...added] } : query.data;
  }, [query.data, waiting]);
  return { data, error: query.error, isPending: query.isPending };
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
  const view = useMemo(() => {
    const bundle = query.data ?? newBundle(waiting, boatId);
    return bundle && pendingView(bundle, waiting, sheets.data, minute);
  }, [query.data, sheets.data, waiting, minute, boatId]);
  return { view, error: query.error };
}

/** What the places of a boat ask for besides her: fetched while there is a signal. */
export function useFetchedAhead(): void {
  useSheets();
  useStores();
  useNamed();
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

/** What was done and what takes it back, last part first; and what was taken back, to be done again. */
interface Done {
  readonly label: string;
  readonly back: readonly Change[];
  /** What was written: an entry is done again as it was, whatever has arrived of its boat. */
  readonly forth: readonly Change[];
  /** Takes away the message that said so: it goes with its reason. */
  unsay?: () => void;
}
const undoStack: Done[] = [];
const redoStack: Done[] = [];

/** A form waits so long for an answer; then what is typed is kept on the device, and the form may go. */
const FORM_WAITS_MS = 1500;

interface SaveOptions {
  /** A refusal comes back to the caller, where an answer comes in time. */
  readonly inline?: boolean;
  readonly quiet?: boolean;
  /** A picture that goes with it. */
  readonly file?: Blob;
}

/**
 * Write a change: shown at once, sent when it can be, undone by one tap. With `inline` a refusal comes
 * back to the caller's form, where an answer comes in time.
 */
export function save(change: Change, label: string, options: SaveOptions = {}): Promise<Outcome> {
  return saveAll([change], label, options);
}

/** Several changes that are one to whoever makes them: one message, one undo. It ends at the first that is refused. */
export async function saveAll(changes: readonly Change[], label: string, options: SaveOptions = {}): Promise<Outcome> {
  const back: Change[] = [];
  const announce = () => {
    if (!options.quiet) announceDone({ label, back, forth: changes });
  };
  if (options.inline) {
    for (const change of changes) {
      const { inverse, sent, id } = write(change, label, { ...options, inline: true });
      const outcome = await Promise.race([sent, noAnswerIn(FORM_WAITS_MS)]);
      if (outcome === null) outbox.letGo(id);
      else if (!outcome.ok) return { ...outcome, refused: change };
      if (inverse) back.unshift(inverse);
    }
    announce();
    return { ok: true };
  }
  const sent = changes.map((change) => {
    const { inverse, sent } = write(change, label, options);
    if (inverse) back.unshift(inverse);
    return sent;
  });
  announce();
  const outcomes = await Promise.all(sent);
  return outcomes.find((o) => !o.ok) ?? { ok: true };
}

const noAnswerIn = (ms: number): Promise<null> =>
  new Promise((done) => setTimeout(done, outbox.noAnswer() ? 0 : ms, null));

function announceDone(done: Done): void {
  const undoable = done.back.length > 0;
  if (undoable) undoStack.push(done);
  redoStack.length = 0;
  done.unsay = toast(done.label, undoable ? { label: 'Undo', run: () => undo(done) } : undefined);
}

/** Put one change on its way, with what would take it back. */
function write(change: Change, label: string, { inline, file }: SaveOptions) {
  const id = uuid();
  const inverse = inverseOf(change, standing(change), {
    id: uuid(),
    at: now(),
    painter: settings().painter,
    device: settings().device,
  });
  return {
    id,
    inverse,
    sent: outbox.put(id, change, label, { ...(inline ? { inline } : {}), ...(file ? { file } : {}) }),
  };
}

/** What stands before a change, with what waits to be sent before it. */
function standing(change: Change): Before {
  const boatId = boatOf(change);
  const pending = outbox.snapshot().filter((w) => boatOf(w.change) === boatId && isShown(w));
  const cached = boatId ? queryClient.getQueryData<BoatBundle>(['boat', boatId]) : undefined;
  const settle = <T>(value: T | undefined, apply: (value: T, change: Change) => T): T | null =>
    value === undefined ? null : pending.reduce<T>((v, w) => apply(v, w.change), value);
  return {
    bundle: settle(cached, applyChange),
    sheets: queryClient.getQueryData<SheetRow[]>(['sheets']) ?? [],
    named: settle(queryClient.getQueryData<NamedAnswer>(['named'])?.named, applyToNamed) ?? [],
    stores: settle(queryClient.getQueryData<Stores>(['stores']), applyToStores),
  };
}

/** Take back the given change, or the last one. */
export function undo(done?: Done): void {
  takeBack(undoStack, redoStack, done, ['Undo', 'Taken back', 'is taken back', 'Not taken back', 'Nothing to undo.']);
}

/** Do again what was taken back last. */
export function redo(): void {
  takeBack(redoStack, undoStack, undefined, [
    'Redo',
    'Done again',
    'is done again',
    'Not done again',
    'Nothing to do again.',
  ]);
}

/** What logs an entry again that is withdrawn; it may not have arrived with its boat yet. */
function againOf(change: Change, forth: readonly Change[]): Change | null {
  if (change.kind !== 'entry' || change.entry.kind !== 'withdrawn') return null;
  const { supersedes } = change.entry;
  const was = forth.flatMap((c) => (c.kind === 'entry' && c.entry.id === supersedes ? [c.entry] : []))[0];
  return loggedAgain(was, uuid());
}

/** Send what reverses the last thing of one stack, or a given one; what reverses that comes onto the other. */
function takeBack(
  from: Done[],
  to: Done[],
  done: Done | undefined,
  [verb, past, coming, not, nothing]: readonly [string, string, string, string, string],
): void {
  const at = done ? from.indexOf(done) : from.length - 1;
  const [found] = at < 0 ? [] : from.splice(at, 1);
  if (!found) {
    toast(nothing);
    return;
  }
  found.unsay?.();
  const back: Change[] = [];
  const sent = found.back.map((change) => {
    const { inverse, sent } = write(change, `${verb}: ${found.label}`, { inline: true });
    const again = againOf(change, found.forth) ?? inverse;
    if (again) back.unshift(again);
    return sent;
  });
  // With no answer for a while, what will happen is said; what happened, when it has.
  const waiting = setTimeout(
    () => toast(`Kept on this device: "${found.label}" ${coming} as soon as the server answers.`),
    2000,
  );
  void Promise.all(sent).then((outcomes) => {
    clearTimeout(waiting);
    const refused = outcomes.find((o) => !o.ok);
    if (!refused) {
      if (back.length > 0) to.push({ label: found.label, back, forth: found.back });
      toast(`${past}: ${found.label}`);
    } else if (refused.failure.code === 'stale')
      toast(`${not}: "${found.label}" was changed again since. Change it by hand.`);
    else toast(`${not}: "${found.label}". ${refused.failure.message}`);
  });
}

export type EntryDraft = Pick<LogEntry, 'boatId' | 'stream' | 'streamId' | 'kind' | 'body'> & {
  occurredAt?: number;
  supersedes?: string | null;
  /** Who did it; left out: this device's painter. */
  painter?: string;
};

/** An entry signed by this device's painter. */
export function signed(draft: EntryDraft): NewEntry {
  const { painter, device } = settings();
  return {
    supersedes: null,
    painter,
    ...draft,
    id: uuid(),
    occurredAt: Math.round(draft.occurredAt ?? now()),
    device,
  } as NewEntry;
}

/** Add an entry to the log. */
export function logEntry(
  draft: EntryDraft,
  label: string,
  options: { quiet?: boolean; inline?: boolean } = {},
): Promise<Outcome> {
  return save({ kind: 'entry', entry: signed(draft) }, label, options);
}
