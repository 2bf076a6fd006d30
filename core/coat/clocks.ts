import type { BatchTimerName } from '../model/log';
import type { MixedBatch } from './fold';
import type { SheetRevision } from '../model/sheet';
import type { SurfaceClockKind } from '../prep/surfaceClocks';
import type { WetEdge } from './wetEdge';
import type { ZoneStatus } from './zoneStatus';

/** A moment ahead that someone should know of. */
export type ClockKind =
  | 'opens'
  | 'tackEnds'
  | 'closes'
  | 'touchDry'
  | 'sandable'
  | 'handle'
  | 'cured'
  | 'immersion'
  | 'immersionEnds'
  | 'stir'
  | 'wetEdge'
  | 'stand'
  | 'pot'
  | 'lastStart'
  | SurfaceClockName;

/** Clocks of a surface by the name they ring under. */
export type SurfaceClockName =
  'bareMetalEnds' | 'cleanEnds' | 'dried' | 'holdingEnds' | 'sealerEnds' | 'guideDry' | 'tapeEnds';

const SURFACE_NAMES: Readonly<Record<SurfaceClockKind, SurfaceClockName>> = {
  bareMetal: 'bareMetalEnds',
  clean: 'cleanEnds',
  drying: 'dried',
  holding: 'holdingEnds',
  sealer: 'sealerEnds',
  guideCoat: 'guideDry',
  tape: 'tapeEnds',
};

export interface Clock {
  readonly kind: ClockKind;
  readonly at: number;
  /** Zone or batch the clock belongs to. */
  readonly surfaceId: string | null;
  readonly batchId: string | null;
  /** The coat that it runs from; null for a pot, and for the last start of one to come. */
  readonly coatId: string | null;
  /** Of a batch: what is in the pot, where that is known. */
  readonly product: string | null;
  /** Beyond the weather: on what is typical for the season. */
  readonly approx: boolean;
}

/** A timer of a batch: an instant, so that it survives a reload. */
export interface BatchTimer {
  readonly batchId: string;
  /** Of its product. */
  readonly sheetRevisionId: string;
  readonly timer: BatchTimerName;
  readonly startsAt: number;
  readonly dueAt: number;
  readonly silenced: boolean;
}

/** A winter's holding primer is nobody's next clock yet. */
const SURFACE_SOON_MS = 14 * 24 * 3_600_000;

const SURFACE_KINDS: ReadonlySet<ClockKind> = new Set(Object.values(SURFACE_NAMES));

const HOUR_MS = 3_600_000;
/** A pot that went off half a day ago is nobody's timer any more. */
const FORGET_MS = 12 * HOUR_MS;
/** That it is stirred is said for so long: the stand runs on. */
const STIRRED_MS = 60_000;

/**
 * Stand and pot timers of the batches, those due first in front. A pot that was emptied, or used up by the coats it
 * went on, rings no more.
 * @example
 *   batchTimers(
 *     [{ id: 'pot', mixedAt: noon, standMin: 15, potLifeH: 2, silenced: [], restL: 1 }],
 *     noon,
 *   ).map((t) => t.timer) // → ['stand', 'pot']
 */
export function batchTimers(batches: readonly MixedBatch[], now: number): BatchTimer[] {
  return batches
    .filter((b) => !b.emptied && (b.inUse || b.restL > 0))
    .flatMap((b): BatchTimer[] => {
      const timer = (name: BatchTimerName, ms: number): BatchTimer => ({
        batchId: b.id,
        sheetRevisionId: b.sheetRevisionId,
        timer: name,
        startsAt: b.mixedAt,
        dueAt: Math.round(b.mixedAt + ms),
        silenced: b.silenced.includes(name),
      });
      const stirMs = (b.stirMin ?? 0) * 60_000;
      return [
        ...(stirMs > 0 ? [timer('stir', stirMs)] : []),
        ...(b.standMin > 0 ? [timer('stand', stirMs + b.standMin * 60_000)] : []),
        ...(b.potLifeH === null ? [] : [timer('pot', b.potLifeH * HOUR_MS)]),
      ];
    })
    .filter((t) => now - t.dueAt < (t.timer === 'stir' ? STIRRED_MS : FORGET_MS))
    .sort((a, b) => a.dueAt - b.dueAt);
}

/** A timer with what is in the pot. */
export type NamedTimer = BatchTimer & { readonly product: string };

/**
 * The timers of the batches, each with its product; no name where its sheet is not here.
 * @example namedTimers({ batches: [], sheets: [revision], now: noon }) // → []
 */
export function namedTimers(options: {
  batches: readonly MixedBatch[];
  sheets: readonly Pick<SheetRevision, 'id' | 'body'>[];
  now: number;
}): NamedTimer[] {
  const products = new Map(options.sheets.map((s) => [s.id, s.body.name]));
  return batchTimers(options.batches, options.now).map((t) => ({
    ...t,
    product: products.get(t.sheetRevisionId) ?? '',
  }));
}

/**
 * Everything that opens, closes or rings after `now`, in order.
 * @example
 *   comingClocks(
 *     [],
 *     [{ batchId: 'pot', timer: 'pot', startsAt: noon, dueAt: noon + 2 * hour, silenced: false }],
 *     noon,
 *   ).map((c) => c.kind) // → ['pot']
 */
export function comingClocks(
  statuses: readonly ZoneStatus[],
  timers: readonly (BatchTimer & Partial<Pick<NamedTimer, 'product'>>)[],
  now: number,
  edges: readonly WetEdge[] = [],
): Clock[] {
  const clocks: Clock[] = [];
  for (const status of statuses) {
    const add = (kind: ClockKind, at: number | null | undefined) => {
      if (at !== null && at !== undefined && at > now)
        clocks.push({
          kind,
          at,
          surfaceId: status.surfaceId,
          batchId: null,
          coatId: kind === 'lastStart' || SURFACE_KINDS.has(kind) ? null : (status.lastCoat?.id ?? null),
          product: null,
          approx: status.clocks !== null && at > status.clocks.inputs.knownUntil,
        });
    };
    const { clocks: c } = status;
    if (c) {
      add('touchDry', c.touchDryAt);
      add('handle', c.handleAt);
      if (status.nextLayer) {
        add('opens', c.window?.opensAt);
        // Once past, or never in reach, there is no bonding window left to announce the end of.
        if (!c.alwaysAbrade && c.window?.bonds !== false) add('tackEnds', c.window?.bondsUntil);
        add('closes', c.window?.closesAt);
      } else {
        add('immersion', c.immersionAt);
        add('immersionEnds', c.immersionUntil);
        add('cured', c.curedAt);
      }
      if (c.sand.by !== 'notOnSheet') add('sandable', c.sand.at);
    }
    for (const own of status.surfaceClocks)
      if (own.until !== null && own.until - now < SURFACE_SOON_MS) add(SURFACE_NAMES[own.kind], own.until);
    if (status.state === 'ready' || status.state === 'bonds' || status.state === 'abrade' || status.state === 'shut') {
      const last = status.advice?.lastStartAt;
      const bondsUntil = status.state === 'bonds' ? (c?.window?.bondsUntil ?? Infinity) : Infinity;
      // Where the bonding window ends first, that is the moment to know of.
      if (last != null && last < bondsUntil) add('lastStart', last);
    }
  }
  for (const timer of timers) {
    if (!timer.silenced && timer.dueAt > now)
      clocks.push({
        kind: timer.timer,
        at: timer.dueAt,
        surfaceId: null,
        batchId: timer.batchId,
        coatId: null,
        product: timer.product ?? null,
        approx: false,
      });
  }
  for (const { coatId, surfaceId, at } of edges)
    if (at > now) clocks.push({ kind: 'wetEdge', at, surfaceId, batchId: null, coatId, product: null, approx: false });
  return clocks.sort((a, b) => a.at - b.at);
}
