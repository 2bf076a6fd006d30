import { standing } from '../coat/fold';
import type { LogEntry, NoteBody, PictureBody } from '../model/log';
import type {
  DirtiedBody,
  FoundBody,
  MaskedBody,
  PreparedBody,
  PrepPlanBody,
  RustLookedBody,
  WayOutBody,
} from '../model/prep';

/** Something logged, with when, by whom and its entry. */
export type Logged<Body> = Body & { readonly id: string; readonly at: number; readonly painter: string };

/**
 * Entries of one kind, each as its body with when, by whom and its id.
 * @example logged(entries, 'finished').map((f) => f.litresOn) // → [2.4]
 */
export function logged<K extends LogEntry['kind']>(entries: readonly LogEntry[], kind: K): Logged<BodyOf[K]>[] {
  return entries
    .filter((e) => e.kind === kind)
    .map((e) => ({ ...(e.body as BodyOf[K]), id: e.id, at: e.occurredAt, painter: e.painter }));
}

type BodyOf = { readonly [K in LogEntry['kind']]: Extract<LogEntry, { kind: K }>['body'] };

/** What was logged of a zone before and between its coats, in order of what happened. */
export interface PrepLog {
  readonly done: readonly Logged<PreparedBody>[];
  readonly dirtied: readonly Logged<DirtiedBody>[];
  readonly rust: readonly Logged<RustLookedBody>[];
  /** Tapes and covers that are on now. */
  readonly masked: readonly Logged<MaskedBody>[];
  /** By job, when it was last said to be clear. */
  readonly unmaskedAt: ReadonlyMap<string, number>;
  readonly found: readonly Logged<FoundBody>[];
  readonly pictures: readonly Logged<PictureBody>[];
  readonly notes: readonly Logged<NoteBody>[];
  /** The list as it was changed by hand; null while it was not. */
  readonly plan: Logged<PrepPlanBody> | null;
  readonly wayOut: Logged<WayOutBody> | null;
  /** Whether the structure is done, as it was last answered; null: nobody was asked. */
  readonly structureDone: boolean | null;
  /** Entries that stand, and those that were replaced or withdrawn. */
  readonly entries: readonly LogEntry[];
  readonly superseded: readonly LogEntry[];
}

export const NO_PREP: PrepLog = {
  done: [],
  dirtied: [],
  rust: [],
  masked: [],
  unmaskedAt: new Map(),
  found: [],
  pictures: [],
  notes: [],
  plan: null,
  wayOut: null,
  structureDone: null,
  entries: [],
  superseded: [],
};

/**
 * A zone's list as a hand changed it for the coat to come; null where it was not, or before the last coat.
 * @example planFor(prepOf(entries, 'bottom'), null) // → null
 */
export function planFor(
  { plan }: Pick<PrepLog, 'plan'>,
  lastCoat: { readonly startedAt: number } | null,
): Logged<PrepPlanBody> | null {
  return plan && plan.at > (lastCoat?.startedAt ?? -Infinity) ? plan : null;
}

const folded = new WeakMap<readonly LogEntry[], ReadonlyMap<string, PrepLog>>();

/**
 * What was logged at each zone besides its coats, by zone; folded once for as long as the list is kept.
 * @example foldPrep(entries).size // → 0
 */
export function foldPrep(entries: readonly LogEntry[]): ReadonlyMap<string, PrepLog> {
  let log = folded.get(entries);
  if (!log) {
    const byZone = new Map<string, LogEntry[]>();
    for (const e of entries) {
      if (e.stream !== 'zone') continue;
      const own = byZone.get(e.streamId);
      if (own) own.push(e);
      else byZone.set(e.streamId, [e]);
    }
    log = new Map([...byZone].map(([zone, all]) => [zone, foldZone(all)]));
    folded.set(entries, log);
  }
  return log;
}

/**
 * What was logged of one zone.
 * @example prepOf(entries, 'bottom').done // → []
 */
export function prepOf(entries: readonly LogEntry[], surfaceId: string): PrepLog {
  return foldPrep(entries).get(surfaceId) ?? NO_PREP;
}

function foldZone(all: readonly LogEntry[]): PrepLog {
  const entries = standing(all);
  const live = new Set(entries.map((e) => e.id));
  // On and off in their order: at one moment the one that was written later counts.
  const masked = new Map<string, Logged<MaskedBody>>();
  const unmaskedAt = new Map<string, number>();
  for (const e of entries) {
    if (e.kind === 'masked') masked.set(e.body.job, { ...e.body, id: e.id, at: e.occurredAt, painter: e.painter });
    if (e.kind !== 'unmasked') continue;
    masked.delete(e.body.job);
    unmaskedAt.set(e.body.job, e.occurredAt);
  }
  return {
    done: logged(entries, 'prepared'),
    dirtied: logged(entries, 'dirtied'),
    rust: logged(entries, 'rustLooked'),
    masked: [...masked.values()],
    unmaskedAt,
    found: logged(entries, 'foundWork'),
    pictures: logged(entries, 'picture'),
    notes: logged(entries, 'note'),
    plan: logged(entries, 'prepPlanned').at(-1) ?? null,
    wayOut: logged(entries, 'wayOut').at(-1) ?? null,
    structureDone: logged(entries, 'structureAsked').at(-1)?.structureDone ?? null,
    entries,
    superseded: all.filter((e) => !live.has(e.id) && e.kind !== 'withdrawn'),
  };
}
