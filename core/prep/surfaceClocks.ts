import type { WeatherHour } from '../air/weather';
import type { Coat } from '../coat/fold';
import type { PrepKind, PreparedBody } from '../model/prep';
import type { AbradeFor, Layer } from '../model/layer';
import type { SheetBody } from '../model/sheet';
import type { Surface } from '../model/surface';
import { bareMetalUntil } from './bareMetal';
import { dirtiedBy, type DirtyAt } from './clean';
import { baresMetal } from './metal';
import type { Logged, PrepLog } from './prepLog';
import { usualWay, WAY_DRY_H } from './usualWay';

export const SURFACE_CLOCKS = ['bareMetal', 'clean', 'drying', 'holding', 'sealer', 'guideCoat', 'tape'] as const;
export type SurfaceClockKind = (typeof SURFACE_CLOCKS)[number];

/** A clock of a surface that has no coat running. */
export interface SurfaceClock {
  readonly kind: SurfaceClockKind;
  readonly since: number;
  /** When it ends, epoch ms; null: not as far as is known. */
  readonly until: number | null;
  /** What started it. */
  readonly from: PrepKind | 'coat' | 'tape';
  /** What ends it, where something other than time does. */
  readonly endedBy: DirtyAt | null;
  /** Of a tape, its job. */
  readonly job?: string;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const MONTH_MS = (365.25 / 12) * DAY_MS;

/** What a passivating wash buys where its label does not say, hours. [CP: a few days] */
export const PASSIVE_H = 72;
/** Penetrating epoxy wants its primer the next day. [CP] */
export const SEALER_H = 24;
/** A guide coat is dry enough to block after this, hours. [M] */
const GUIDE_H = 0.5;
/** Wet faces dry in this, hours, where their list does not say. [M] */
export const WET_H = 4;

const CLEANS: ReadonlySet<PrepKind> = new Set([
  'degrease',
  'saltRinse',
  'wash',
  'rinse',
  'vacuum',
  'wipe',
  'tack',
] as const);
const WETS: ReadonlySet<PrepKind> = new Set(['degrease', 'saltRinse', 'passivate', 'wash', 'rinse'] as const);

/** Whether a step leaves the face wet. @example wets('rinse') // → true */
export const wets = (kind: PrepKind): boolean => WETS.has(kind);
/** Whether a step leaves the face clean. @example cleans('blast') // → false */
export const cleans = (kind: PrepKind): boolean => CLEANS.has(kind);

/** What the clocks of a surface rest on. */
export interface SurfaceFacts {
  readonly surface: Pick<Surface, 'kind' | 'substrate' | 'existing'>;
  readonly log: PrepLog;
  readonly lastCoat: Pick<Coat, 'finishedAt' | 'startedAt' | 'on'> | null;
  readonly lastSheet: SheetBody | null;
  /** The layer that the last coat put on; null where it is no longer in the build-up. */
  readonly lastLayer: Pick<Layer, 'holdMonths'> | null;
  readonly nextSheet: SheetBody | null;
  /** Hours of weather, in order; none under a roof, where rain does not reach. */
  readonly rain: readonly Pick<WeatherHour, 'at' | 'rainMm'>[];
}

/**
 * The clocks of a surface, each with what started and what ends it: bare metal, clean, drying, holding primer, penetrating
 * epoxy that waits for its primer, guide coat, tape. What was done before the last coat runs no more. [CP]
 * @example
 *   surfaceClocks({
 *     surface: zone,
 *     log: prepOf(entries, 'bottom'),
 *     lastCoat: null,
 *     lastSheet: null,
 *     lastLayer: null,
 *     nextSheet: sheet,
 *     rain: [],
 *   }) // → []
 */
export function surfaceClocks(facts: SurfaceFacts): SurfaceClock[] {
  return [...metalClock(facts), ...cleanClock(facts), ...dryClock(facts), ...coatClocksOf(facts), ...tapeClocks(facts)];
}

/** What was done since the last coat. */
export function doneSince({ log, lastCoat }: Pick<SurfaceFacts, 'log' | 'lastCoat'>): Logged<PreparedBody>[] {
  const from = lastCoat?.startedAt ?? -Infinity;
  return log.done.filter((d) => d.at > from);
}

/**
 * What a face was last abraded with since its last coat, as it was logged; null where it was not.
 * @example abradedSince({ log: prepOf(entries, 'bottom'), lastCoat: null }) // → null
 */
export function abradedSince(
  of: Pick<SurfaceFacts, 'log' | 'lastCoat'>,
): { readonly grit: number; readonly abradeFor: AbradeFor | null } | null {
  const done = doneSince(of).findLast((d) => d.step === 'abrade' && d.workId === undefined);
  return done?.grit === undefined ? null : { grit: done.grit, abradeFor: done.abradeFor ?? null };
}

/** A clock that time alone ends. */
const plain = (kind: SurfaceClockKind, from: SurfaceClock['from'], since: number, ms: number): SurfaceClock => ({
  kind,
  since,
  until: since + ms,
  from,
  endedBy: null,
});

function metalClock(facts: SurfaceFacts): SurfaceClock[] {
  const done = doneSince(facts);
  const { substrate, existing } = facts.surface;
  const bare = facts.lastCoat === null && existing === 'bare';
  const bared = done.findLast((d) => baresMetal(d.step, substrate, bare));
  if (!bared) return [];
  // A patch is primed by itself; a blasted face by its coat.
  if (bared.step !== 'blast' && done.some((d) => d.step === 'spotPrime' && d.at > bared.at)) return [];
  const turned = facts.log.dirtied.find((e) => e.by === 'turned' && e.at > bared.at) ?? null;
  const passive = done.findLast((d) => d.step === 'passivate' && d.at > bared.at);
  const from = passive ?? bared;
  const hours = from.holdsH ?? (passive ? PASSIVE_H : undefined);
  const until = bareMetalUntil({ blastedAt: from.at, ...(hours === undefined ? {} : { hours }) });
  const endedBy = turned && turned.at < until ? { at: turned.at, by: turned.by } : null;
  return [{ kind: 'bareMetal', since: from.at, until: endedBy?.at ?? until, from: from.step, endedBy }];
}

function cleanClock(facts: SurfaceFacts): SurfaceClock[] {
  const cleaned = doneSince(facts).findLast((d) => cleans(d.step));
  const { lastCoat } = facts;
  // A coat that is on is clean until something falls on it.
  const since = cleaned?.at ?? null;
  if (since === null) return dirtyCoat(facts, lastCoat?.finishedAt ?? null);
  // Blasted or stripped since, it is another face.
  if (doneSince(facts).some((d) => (d.step === 'blast' || d.step === 'strip') && d.at > since)) return [];
  const endedBy = dirtiedBy({ cleanedAt: since, weather: facts.rain, events: dirtOf(facts) });
  return [{ kind: 'clean', since, until: endedBy?.at ?? null, from: cleaned?.step ?? 'wipe', endedBy }];
}

/** On a coat that nobody has cleaned since, only what was logged as fallen on it counts. */
function dirtyCoat(facts: SurfaceFacts, finishedAt: number | null): SurfaceClock[] {
  if (finishedAt === null || facts.nextSheet === null) return [];
  const endedBy = dirtiedBy({ cleanedAt: finishedAt, weather: [], events: dirtOf(facts) });
  return endedBy ? [{ kind: 'clean', since: finishedAt, until: endedBy.at, from: 'coat', endedBy }] : [];
}

const dirtOf = ({ log }: SurfaceFacts): DirtyAt[] =>
  log.dirtied.filter((e) => e.by !== 'turned').map(({ at, by }) => ({ at, by }));

function dryClock(facts: SurfaceFacts): SurfaceClock[] {
  const done = doneSince(facts);
  const wet = done.findLast((d) => wets(d.step));
  if (!wet) return [];
  // Said to be dry, by hand or by a meter: the clock has nothing to add.
  if (done.some((d) => d.step === 'dry' && d.at >= wet.at)) return [];
  // Worked on dry since: it was.
  if (done.some((d) => d.at > wet.at && !wets(d.step) && d.step !== 'mask' && d.step !== 'lookOver')) return [];
  const hours = wet.holdsH !== undefined && wet.step !== 'passivate' ? wet.holdsH : dryHours(facts);
  return [plain('drying', wet.step, wet.at, hours * HOUR_MS)];
}

/** Hours a washed face takes to dry: as its usual way has it before the first coat. */
function dryHours({ lastCoat, log, surface }: SurfaceFacts): number {
  return lastCoat ? WET_H : WAY_DRY_H[log.plan?.way ?? usualWay(surface)];
}

function coatClocksOf(facts: SurfaceFacts): SurfaceClock[] {
  const { lastCoat, lastSheet, lastLayer, nextSheet } = facts;
  const out: SurfaceClock[] = [];
  const finishedAt = lastCoat?.finishedAt ?? null;
  const coat = (kind: 'holding' | 'sealer', ms: number) => {
    if (finishedAt !== null) out.push(plain(kind, 'coat', finishedAt, ms));
  };
  const months = lastLayer?.holdMonths ?? lastSheet?.holdingMonths;
  if (lastSheet && nextSheet && months) coat('holding', months * MONTH_MS);
  const soaks =
    lastSheet?.kind === 'sealer' && lastSheet.parts.length > 1 && (lastSheet.chemistry ?? 'epoxy') === 'epoxy';
  if (soaks && nextSheet && nextSheet.kind !== 'sealer') coat('sealer', SEALER_H * HOUR_MS);
  const done = doneSince(facts);
  const guide = done.findLast((d) => d.step === 'guideCoat');
  if (guide && !done.some((d) => d.step === 'block' && d.at >= guide.at))
    out.push(plain('guideCoat', 'guideCoat', guide.at, GUIDE_H * HOUR_MS));
  return out;
}

/** Tapes that are on, and when each is to be off. */
function tapeClocks({ log }: SurfaceFacts): SurfaceClock[] {
  return log.masked
    .filter((m) => m.job.startsWith('edge:'))
    .map((m) => ({ ...plain('tape', 'tape', m.at, m.lifeDays * DAY_MS), job: m.job }));
}

/**
 * What of the clocks keeps the next coat off at a moment: metal that has waited too long, dirt, damp, a guide coat that
 * was not blocked off.
 * @example
 *   keepsOff([{ kind: 'bareMetal', since: 0, until: noon, from: 'blast', endedBy: null }], noon + 1).map((c) => c.kind) // → ['bareMetal']
 */
export function keepsOff(clocks: readonly SurfaceClock[], at: number): SurfaceClock[] {
  return clocks.filter(({ kind, until }) => {
    switch (kind) {
      case 'bareMetal':
      case 'clean':
        return until !== null && at >= until;
      case 'drying':
        return until !== null && at < until;
      case 'guideCoat':
        return true;
      // Past these the coat is abraded, or the tape cut loose: the window of the coat tells the rest.
      case 'holding':
      case 'sealer':
      case 'tape':
        return false;
    }
  });
}
