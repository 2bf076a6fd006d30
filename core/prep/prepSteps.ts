import type { Dirt, PrepKind, PreparedBody, PrepPlanBody, PrepWay, RustNext } from '../model/prep';
import { standardSteps, workSteps, type Asked, type PrepFacts, type StepNeeds, type WhySource } from './asked';
import { isRain } from './clean';
import { fairing, type Fairing } from './fairing';
import { planFor, type Logged } from './prepLog';
import { cleans, doneSince, keepsOff, surfaceClocks, wets, type SurfaceClock } from './surfaceClocks';
import { usualWay } from './usualWay';

/** `again`: it was done, and has run out. `ifNeeded`: the list does not wait for it. */
export type StepState = 'toDo' | 'done' | 'again' | 'leftOut' | 'ifNeeded';

export interface PrepStep {
  /** The same from list to list: a kind, and what sets several of it apart. */
  readonly key: string;
  readonly kind: PrepKind;
  readonly state: StepState;
  readonly source: WhySource;
  readonly why: string;
  readonly needs: StepNeeds;
  /** Open work that it belongs to. */
  readonly workId?: string;
  /** As it was last done. */
  readonly done: Logged<PreparedBody> | null;
  /** Why it is to be done again. */
  readonly ranOut: RanOut | null;
  /** Why it is left out. */
  readonly reason: string | null;
}

/** What took a step back onto the list, and when. */
export type RanOut =
  | {
      readonly by: 'time' | 'rain' | 'washingDown' | 'dust' | 'overspray' | 'hands' | 'turned' | 'rust';
      readonly at: number;
    }
  /** A later step undid it: dust after wiping, water after drying. */
  | { readonly by: 'step'; readonly kind: PrepKind; readonly at: number };

export interface PrepList {
  readonly way: PrepWay | null;
  readonly steps: readonly PrepStep[];
  readonly clocks: readonly SurfaceClock[];
  /** What of the clocks keeps the next coat off. */
  readonly keptOffBy: readonly SurfaceClock[];
  readonly fairing: Fairing;
  /** Steps that the next coat waits for. */
  readonly open: number;
  readonly ready: boolean;
}

const NOTHING: ReadonlySet<PrepKind> = new Set();
const WASHES: ReadonlySet<PrepKind> = new Set(['wash', 'rinse'] as const);
const LAST_WIPES = ['vacuum', 'wipe', 'tack'] as const;
/** What is done again after each kind of dirt. [CP] */
const DIRT_ASKS: Readonly<Record<Dirt, ReadonlySet<PrepKind>>> = {
  rain: new Set([...WASHES, ...LAST_WIPES]),
  washingDown: new Set([...WASHES, ...LAST_WIPES]),
  dust: new Set(LAST_WIPES),
  overspray: new Set(['abrade', 'wipe', 'tack'] as const),
  hands: new Set(['wipe', 'tack'] as const),
  turned: NOTHING,
};
/** What cleans after it where the list has nothing that does. */
const CLEANS_AFTER: Readonly<Record<Dirt, readonly [PrepKind, string]>> = {
  rain: ['rinse', 'What fell on it, off.'],
  washingDown: ['rinse', 'What ran down on it, off.'],
  dust: ['wipe', 'Dust off, by clean cloths.'],
  overspray: ['wipe', 'Scuffed where it lies, and wiped.'],
  hands: ['wipe', 'Fingers and feet off.'],
  turned: ['inspect', 'The metal has turned.'],
};
const BY_HAND: readonly PrepKind[] = ['needleGun', 'scrape', 'wireBrush'];
/** What a look at the rust puts back onto the list. */
const RUST_ASKS: Readonly<Record<RustNext, ReadonlySet<PrepKind>>> = {
  wait: NOTHING,
  scrape: new Set([...BY_HAND, 'convert'] as const),
  again: new Set(['wireBrush', 'convert'] as const),
  scuff: NOTHING,
  leave: NOTHING,
};

/** Leaves dust on the face. */
const DUSTY: ReadonlySet<PrepKind> = new Set([
  'abrade',
  'blast',
  'block',
  'grind',
  'needleGun',
  'scrape',
  'strip',
  'wireBrush',
] as const);
const DUSTED: ReadonlySet<PrepKind> = new Set(['vacuum', 'wipe', 'tack'] as const);

/**
 * What stands between a zone and its next coat, in order: from its substrate, what is on it, the next coat of its
 * build-up and that coat's sheet, its open work, and what was logged since the last coat. What ran out (a wash that was
 * rained on, metal that waited too long) is asked for again. Pure.
 * @param facts areas in m², times in epoch ms; a list changed by hand comes with the log
 * @returns steps in order, each with why, what it needs (grit, litres, hours, µm), and what was done
 * @example
 *   prepSteps({
 *     now: noon,
 *     surface: { ...zone, existing: 'bare' },
 *     log: prepOf([], 'bottom'),
 *     lastCoat: null,
 *     lastSheet: null,
 *     lastLayer: null,
 *     nextLayer: layer,
 *     nextSheet: sheet,
 *     rain: [],
 *     bonds: false,
 *     closed: false,
 *     masks: false,
 *   }).steps.map((s) => s.kind) // → ['lookOver', 'degrease', 'abrade', 'rinse', 'dry', 'wipe']
 */
export function prepSteps(facts: PrepFacts): PrepList {
  const { surface, log, lastCoat, now } = facts;
  const plan = planFor(log, lastCoat);
  const way = lastCoat ? null : (plan?.way ?? usualWay(surface));
  const rounds = fairing(log, lastCoat?.startedAt);
  const clocks = surfaceClocks(facts);
  const asked =
    facts.nextLayer || !lastCoat
      ? arranged([...workSteps(surface), ...standardSteps(facts, way, { rounds, clocks })], plan)
      : [];
  const done = doneSince(facts);
  const leftOut = new Map(plan?.leftOut.map((l) => [l.key, l.reason]));
  const steps = asked.map((a): PrepStep => {
    const own = lastOf(done, a) ?? (a.kind === 'mask' ? tapedOn(facts) : null);
    const reason = leftOut.get(a.key) ?? null;
    const drying = clocks.find((c) => c.kind === 'drying');
    const ranOut = own ? ranOutBy(a, own, { facts, done, clocks }) : null;
    const dried = a.kind === 'dry' && !own && drying?.until != null && now >= drying.until;
    const state =
      reason !== null
        ? 'leftOut'
        : own || dried
          ? ranOut && ranOut.at <= now
            ? 'again'
            : 'done'
          : a.ifNeeded
            ? 'ifNeeded'
            : 'toDo';
    return { ...a, state, done: own, ranOut, reason };
  });
  const keptOffBy = keepsOff(clocks, now);
  const listed = [...steps, ...cleanedAgain(steps, keptOffBy)];
  const open = listed.filter((s) => s.state === 'toDo' || s.state === 'again').length;
  return { way, steps: listed, clocks, keptOffBy, fairing: rounds, open, ready: open === 0 && keptOffBy.length === 0 };
}

/** Dirt that no step of the list takes off asks for one of its own. */
function cleanedAgain(steps: readonly PrepStep[], keptOffBy: readonly SurfaceClock[]): PrepStep[] {
  const dirt = keptOffBy.find((c) => c.kind === 'clean')?.endedBy;
  if (!dirt) return [];
  const takesOff = (s: PrepStep) => DIRT_ASKS[dirt.by].has(s.kind) && cleans(s.kind);
  if (steps.some((s) => takesOff(s) && (s.state === 'toDo' || s.state === 'again'))) return [];
  const [kind, why] = CLEANS_AFTER[dirt.by];
  const step = { key: `clean:${kind}`, kind, source: 'state', why, needs: {}, state: 'toDo' } as const;
  return [{ ...step, done: null, ranOut: null, reason: null }];
}

/** Edges that were said to be taped are masked. */
const tapedOn = ({ maskedAt = null, log }: PrepFacts): Logged<PreparedBody> | null =>
  maskedAt === null ? null : { step: 'mask', id: '', at: maskedAt, painter: log.masked[0]?.painter ?? '' };

/** The newest log of a step: by its key where it was added by hand, by its kind otherwise. */
function lastOf(done: readonly Logged<PreparedBody>[], a: Asked): Logged<PreparedBody> | null {
  if (a.anew) return null;
  return (
    done.findLast((d) =>
      a.workId !== undefined
        ? d.workId === a.workId && d.step === a.kind
        : d.key !== undefined
          ? d.key === a.key
          : d.step === a.kind && a.source !== 'added' && d.workId === undefined,
    ) ?? null
  );
}

/** Why something that was done counts no more: by dirt, by time, or by what was done after it. */
function ranOutBy(
  a: Asked,
  own: Logged<PreparedBody>,
  by: { facts: PrepFacts; done: readonly Logged<PreparedBody>[]; clocks: readonly SurfaceClock[] },
): RanOut | null {
  const { facts, done, clocks } = by;
  const dirty = clocks.find((c) => c.kind === 'clean')?.endedBy;
  if (dirty && dirty.at > own.at && DIRT_ASKS[dirty.by].has(a.kind)) {
    // Of several washes the last is done again.
    const washedLater = WASHES.has(a.kind) && done.some((d) => WASHES.has(d.step) && d.at > own.at);
    if (!washedLater) return { by: dirty.by, at: dirty.at };
  }
  if (a.kind === 'dry') {
    const wet = facts.rain.find((h) => isRain(h) && h.at > own.at);
    if (wet) return { by: 'rain', at: wet.at };
    const later = done.find((d) => wets(d.step) && d.at > own.at);
    if (later) return { by: 'step', kind: later.step, at: later.at };
  }
  if (DUSTED.has(a.kind)) {
    const later = done.find((d) => DUSTY.has(d.step) && d.at > own.at);
    if (later) return { by: 'step', kind: later.step, at: later.at };
  }
  // A look at the rust found that it has to be done again.
  const look = facts.log.rust.findLast((r) => r.at > own.at && RUST_ASKS[r.next].has(a.kind));
  if (look) return { by: 'rust', at: look.at };
  const metal = clocks.find((c) => c.kind === 'bareMetal');
  if (metal && (a.kind === 'blast' || a.kind === 'grind') && metal.until !== null)
    return { by: metal.endedBy ? 'turned' : 'time', at: metal.until };
  return null;
}

/** The list as a person ordered it, with what was added. */
function arranged(steps: readonly Asked[], plan: PrepPlanBody | null): Asked[] {
  const added = (plan?.added ?? []).map((s): Asked => ({
    key: s.key,
    kind: s.kind,
    source: 'added',
    why: s.text,
    needs: {},
  }));
  const order = new Map(plan?.order.map((key, i) => [key, i]));
  const all = [...steps, ...added];
  const place = (a: Asked, i: number) => order.get(a.key) ?? order.size + i;
  return all
    .map((a, i) => ({ a, at: place(a, i) }))
    .sort((x, y) => x.at - y.at)
    .map(({ a }) => a);
}
