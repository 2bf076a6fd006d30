import type { HandTest } from '../cure/window';
import type { AirReading } from '../air/airReadings';
import type { SurfaceReading } from '../air/weather';
import { coveredOf, stintsOf, type Stint } from './stints';
import type {
  BatchTimerName,
  CoveredBody,
  LogEntry,
  LogEntryOf,
  MixedBody,
  NoteBody,
  PictureBody,
  ReadingBody,
  StartedBody,
  WetFilmBody,
} from '../model/log';

/** One coat as its entries tell it. */
export interface Coat extends StartedBody {
  /** Share of the unthinned mixed paint: as its batches were poured, or as it was said at the start. */
  readonly thinner: number;
  readonly id: string;
  readonly boatId: string;
  readonly painter: string;
  readonly startedAt: number;
  readonly finishedAt: number | null;
  readonly readings: readonly { at: number; airC: number | null; rh: number | null; surfaceC: number | null }[];
  readonly wetFilms: readonly (WetFilmBody & { at: number })[];
  /** Stretches of work on it, in order. */
  readonly stints: readonly Stint[];
  /** Since when nobody is at it; null while it goes on, and once it is finished. */
  readonly pausedAt: number | null;
  /** How far it has come on each zone that was told of. */
  readonly covered: readonly CoveredBody[];
  readonly pictures: readonly (PictureBody & { id: string; at: number; painter: string })[];
  /** What additives in its batches do to the sheet's times, as multiples. */
  readonly times: TimesFactor;
  /** Litres of each batch that left the pot for it, as they were in it, and what of them is not thinner. */
  readonly batches: readonly { batchId: string; litres: number; unthinnedL: number }[];
  /** On the hull, as it was in the pot; null where nobody said. */
  readonly litresOn: number | null;
  /** Left in the pot when it was finished; null where nobody said. */
  readonly leftL: number | null;
  /** Lost on tray, roller and ground; null where nobody said. */
  readonly lostL: number | null;
  readonly handTests: readonly HandTest[];
  readonly notes: readonly (NoteBody & { at: number; painter: string })[];
  /** Entries of this coat that still stand, in order of what happened. */
  readonly entries: readonly LogEntry[];
  /** Entries that were replaced or withdrawn, kept to be read. */
  readonly superseded: readonly LogEntry[];
}

/** Multiples of the sheet's times: what is to be waited for, and what must not be missed. */
export interface TimesFactor {
  readonly minimum: number;
  readonly limit: number;
}

export interface MixedBatch extends MixedBody {
  readonly id: string;
  readonly mixedAt: number;
  readonly painter: string;
  readonly silenced: readonly BatchTimerName[];
  readonly emptied: boolean;
  /** A coat that is going on takes of it. */
  readonly inUse: boolean;
  /** What is in the pot for another coat, L, as it was mixed: all of it before the first, what was left after each. */
  readonly restL: number;
}

const inOrder = (a: LogEntry, b: LogEntry) =>
  a.occurredAt - b.occurredAt || a.recordedAt - b.recordedAt || (a.id < b.id ? -1 : 1);

/**
 * Entries that stand: neither replaced by a later entry nor withdrawn, nor themselves a withdrawal.
 * @example standing(entries).length // → 2
 */
export function standing(entries: readonly LogEntry[]): LogEntry[] {
  const replaced = new Set<string>();
  for (const e of entries) if (e.supersedes) replaced.add(e.supersedes);
  return entries.filter((e) => !replaced.has(e.id) && e.kind !== 'withdrawn').sort(inOrder);
}

/**
 * What of a log had happened by a moment, as it is known now: with its corrections, without what was withdrawn.
 * @example entriesUntil(entries, noon - 1.5 * hour).map((e) => e.kind) // → ['started']
 */
export function entriesUntil(entries: readonly LogEntry[], at: number): LogEntry[] {
  return standing(entries).filter((e) => e.occurredAt <= at);
}

/** A boat's log, folded: what all of its entries come to. */
export interface FoldedLog {
  /** In order of their start. */
  readonly coats: readonly Coat[];
  /** Newest first. */
  readonly batches: readonly MixedBatch[];
  /** Surface readings by zone, in order of time: from the zone's own coats and those logged at the zone itself. */
  readonly readingsOf: ReadonlyMap<string, readonly SurfaceReading[]>;
}

const folded = new WeakMap<readonly LogEntry[], FoldedLog>();

/**
 * Fold a boat's log, once for as long as the list is kept: it may not be changed in place.
 * @example foldLog(entries).coats.map((c) => c.finishedAt === noon - hour) // → [true]
 */
export function foldLog(entries: readonly LogEntry[]): FoldedLog {
  let log = folded.get(entries);
  if (!log) {
    const mixed = foldBatches(entries);
    const coats = foldCoats(entries, mixed);
    const uses = usesOfBatches(coats);
    const batches = mixed.map((b) => ({ ...b, ...inPot(b, uses.get(b.id) ?? []) }));
    log = { coats, batches, readingsOf: readingsByZone(entries, coats) };
    folded.set(entries, log);
  }
  return log;
}

/** Fold a boat's log into its coats, in order of their start. A coat whose start was withdrawn is gone. */
function foldCoats(entries: readonly LogEntry[], mixed: readonly Pouring[]): Coat[] {
  const mixedById = new Map(mixed.map((b) => [b.id, b]));
  const coats: Coat[] = [];
  for (const [id, all] of byStream(entries, 'coat')) {
    const valid = standing(all);
    const started = valid.find((e) => e.kind === 'started');
    if (!started) continue;
    const finished = valid.findLast((e) => e.kind === 'finished');
    const liveIds = new Set(valid.map((e) => e.id));
    const stints = stintsOf(valid);
    const said = started.body.thinner;
    const leftL = finished?.body.leftL ?? null;
    const batches = outOfPots(
      valid.flatMap((e) => (e.kind === 'batchOn' ? [e.body] : [])),
      leftL ?? 0,
    ).map((b) => ({ ...b, unthinnedL: unthinned(b, mixedById.get(b.batchId), said) }));
    coats.push({
      ...started.body,
      thinner: pouredThinner(batches) ?? said,
      id,
      boatId: started.boatId,
      painter: started.painter,
      startedAt: started.occurredAt,
      finishedAt: finished?.occurredAt ?? null,
      litresOn: finished?.body.litresOn ?? null,
      leftL,
      lostL: finished?.body.lostL ?? null,
      readings: valid.flatMap((e) => (e.kind === 'reading' ? [{ at: e.occurredAt, ...e.body }] : [])),
      wetFilms: valid.flatMap((e) => (e.kind === 'wetFilm' ? [{ at: e.occurredAt, ...e.body }] : [])),
      stints,
      pausedAt: finished ? null : (stints[stints.length - 1]?.to ?? null),
      covered: coveredOf(valid),
      pictures: valid.flatMap((e) =>
        e.kind === 'picture' ? [{ id: e.id, at: e.occurredAt, painter: e.painter, ...e.body }] : [],
      ),
      times: timesOf(batches.flatMap((b) => mixedById.get(b.batchId) ?? [])),
      batches,
      handTests: valid.flatMap((e) => (e.kind === 'handTest' ? [{ ...e.body, at: e.occurredAt }] : [])),
      notes: valid.flatMap((e) => (e.kind === 'note' ? [{ at: e.occurredAt, ...e.body, painter: e.painter }] : [])),
      entries: valid,
      superseded: all.filter((e) => !liveIds.has(e.id) && e.kind !== 'withdrawn').sort(inOrder),
    });
  }
  return coats.sort((a, b) => a.startedAt - b.startedAt);
}

/** Additives of the batches together: the slowest tells what is to be waited for, the fastest what may not be missed. */
function timesOf(batches: readonly Pick<MixedBody, 'additives'>[]): TimesFactor {
  const each = batches.map((b) => (b.additives ?? []).reduce((product, a) => product * a.windowFactor, 1));
  return each.length === 0 ? { minimum: 1, limit: 1 } : { minimum: Math.max(...each), limit: Math.min(1, ...each) };
}

/** What left the pots: what was left is in the last of them. */
function outOfPots(
  batches: readonly { batchId: string; litres: number }[],
  leftL: number,
): { batchId: string; litres: number }[] {
  let left = leftL;
  return [...batches]
    .reverse()
    .map((b) => {
      const of = Math.min(left, b.litres);
      left -= of;
      return { ...b, litres: b.litres - of };
    })
    .reverse();
}

/** Less than this cannot be told from an empty pot, L. */
const NOTHING_L = 0.005;

/** What a coat has of a batch. */
interface BatchUse {
  readonly litres: number;
  readonly goingOn: boolean;
}

function usesOfBatches(coats: readonly Coat[]): Map<string, BatchUse[]> {
  const uses = new Map<string, BatchUse[]>();
  for (const { batches, finishedAt } of coats)
    for (const { batchId, litres } of batches) {
      const use = { litres, goingOn: finishedAt === null };
      const list = uses.get(batchId);
      if (list) list.push(use);
      else uses.set(batchId, [use]);
    }
  return uses;
}

/** What of a batch is in its pot, once the coats it went on are known. */
function inPot(batch: Pouring, uses: readonly BatchUse[]): Pick<MixedBatch, 'inUse' | 'restL'> {
  const inUse = uses.some((u) => u.goingOn);
  const rest = batch.totalL - uses.reduce((sum, u) => sum + u.litres, 0);
  return { inUse, restL: batch.emptied || inUse || rest < NOTHING_L ? 0 : rest };
}

/** What of some litres of a batch is not thinner; of one that is not in the log, as was said at the start. */
function unthinned({ litres }: { litres: number }, batch: Pouring | undefined, said: number): number {
  return batch && batch.totalL > 0 ? litres * (1 - batch.thinnerL / batch.totalL) : litres / (1 + said);
}

/** Thinner that was really poured, over all batches, as a share of the paint without it; null where none is on. */
function pouredThinner(batches: Coat['batches']): number | null {
  const paintL = batches.reduce((sum, b) => sum + b.unthinnedL, 0);
  const allL = batches.reduce((sum, b) => sum + b.litres, 0);
  return paintL > 0 ? Math.max(0, allL / paintL - 1) : null;
}

/** A batch as its own entries tell it. */
type Pouring = Omit<MixedBatch, 'inUse' | 'restL'>;

/** Fold a boat's log into its batches, newest first. */
function foldBatches(entries: readonly LogEntry[]): Pouring[] {
  const batches: Pouring[] = [];
  for (const [id, all] of byStream(entries, 'batch')) {
    const valid = standing(all);
    const mixed = valid.find((e) => e.kind === 'mixed');
    if (!mixed) continue;
    batches.push({
      ...mixed.body,
      id,
      mixedAt: mixed.occurredAt,
      painter: mixed.painter,
      silenced: valid.flatMap((e) => (e.kind === 'silenced' ? [e.body.timer] : [])),
      emptied: valid.some((e) => e.kind === 'emptied'),
    });
  }
  return batches.sort((a, b) => b.mixedAt - a.mixedAt);
}

/** Readings that nobody took back or put right since. */
const standingReadings = (entries: readonly LogEntry[]) =>
  standing(entries.filter((e) => e.kind === 'reading' || e.supersedes !== null)).filter((e) => e.kind === 'reading');

function readingsByZone(entries: readonly LogEntry[], coats: readonly Coat[]): Map<string, SurfaceReading[]> {
  const zonesOf = new Map(coats.map((c) => [c.id, c.on.map((t) => t.surfaceId)]));
  const out = new Map<string, SurfaceReading[]>();
  for (const e of standingReadings(entries)) {
    if (e.body.surfaceC === null) continue;
    const reading = { at: e.occurredAt, surfaceC: e.body.surfaceC };
    for (const surfaceId of readOn(e, zonesOf.get(e.streamId) ?? [])) {
      const list = out.get(surfaceId);
      if (list) list.push(reading);
      else out.set(surfaceId, [reading]);
    }
  }
  return out;
}

/** Zones that a reading tells of: where it was taken, or where that was not said all that its coat is on. */
function readOn(e: LogEntryOf<'reading', ReadingBody>, zonesOfCoat: readonly string[]): readonly string[] {
  if (e.stream === 'zone') return [e.streamId];
  return e.body.surfaceId ? [e.body.surfaceId] : zonesOfCoat;
}

/**
 * A coat with the hand tests that were made on some zones, or on no zone in particular.
 * @example testedOn({ handTests: [{ test: 'thumb', at: noon, passed: true, surfaceId: 'deck' }] }, ['bottom']).handTests // → []
 */
export function testedOn<C extends Pick<Coat, 'handTests'>>(coat: C, surfaceIds: readonly (string | null)[]): C {
  const handTests = coat.handTests.filter((t) => !t.surfaceId || surfaceIds.includes(t.surfaceId));
  return handTests.length === coat.handTests.length ? coat : { ...coat, handTests };
}

const NO_READINGS: readonly SurfaceReading[] = [];

/**
 * Surface readings that bear on a zone, in order of time.
 * @example zoneReadings(entries, 'bottom') // → []
 */
export function zoneReadings(entries: readonly LogEntry[], surfaceId: string): readonly SurfaceReading[] {
  return foldLog(entries).readingsOf.get(surfaceId) ?? NO_READINGS;
}

/**
 * Air as it was read where the weather reaches, in order of time: what was read in a tent says nothing of the yard.
 * @param outside whether a zone stood in the open air at an instant
 * @example airReadings(entries, () => true) // → []
 */
export function airReadings(
  entries: readonly LogEntry[],
  outside: (surfaceId: string, at: number) => boolean,
): AirReading[] {
  const zonesOf = new Map(foldLog(entries).coats.map((c) => [c.id, c.on.map((t) => t.surfaceId)]));
  return standingReadings(entries).flatMap((e) => {
    if (e.body.airC === null && e.body.rh === null) return [];
    const zones = readOn(e, zonesOf.get(e.streamId) ?? []);
    if (!zones.some((id) => outside(id, e.occurredAt))) return [];
    return [{ at: e.occurredAt, airC: e.body.airC, rh: e.body.rh }];
  });
}

/**
 * The coat that put one layer of a zone's build-up on; undefined while it is only planned.
 * @example coatOf(coats, 'bottom', 'first').id // → 'on'
 */
export function coatOf<C extends Pick<Coat, 'on'>>(
  coats: readonly C[],
  surfaceId: string,
  layerId: string,
): C | undefined {
  return coats.find((c) => c.on.some((t) => t.surfaceId === surfaceId && t.layerId === layerId));
}

function byStream(entries: readonly LogEntry[], stream: LogEntry['stream']): Map<string, LogEntry[]> {
  const groups = new Map<string, LogEntry[]>();
  for (const entry of entries) {
    if (entry.stream !== stream) continue;
    const group = groups.get(entry.streamId);
    if (group) group.push(entry);
    else groups.set(entry.streamId, [entry]);
  }
  return groups;
}
