import type { ConditionVerdict, Conditions } from '../air/conditions';
import type { StartAdvice, Trouble } from '../air/lastStart';
import type { SourcedHour } from '../air/weather';
import type { AbradeFor } from '../model/layer';
import type { MixedBody, NewEntry } from '../model/log';
import type { PaintMethod } from '../model/paintMethod';
import type { OpenWork } from '../model/surface';
import type { Finding } from '../system/stack';
import type { MixedBatch } from './fold';
import type { ZoneStatus } from './zoneStatus';

/** Readings at the hull; null: not taken. Not a number: cannot be read. Humidity is a share. */
export interface StartReadings {
  readonly airC: number | null;
  readonly rh: number | null;
  readonly surfaceC: number | null;
}

/** What someone wants to start, or says was started. Instants are epoch ms; not a number: cannot be read. */
export interface StartWish {
  readonly when: 'now' | 'earlier';
  readonly startedAt: number;
  /** Of a coat that was earlier. */
  readonly finishedAt: number;
  readonly readings: StartReadings;
  /** The zone whose surface was read; null where the coat is on one only. */
  readonly readOn?: string | null;
  /** Grit the coat beneath was abraded with, as it was typed. */
  readonly grit: string;
  /** What it was abraded for; left out: as it was planned. */
  readonly abradedFor?: AbradeFor | null;
  /** Batches it goes on with, by their ids; left out: those that are offered. */
  readonly batchIds?: readonly string[];
  /** Of a coat that was earlier: litres mixed for it that nobody logged, without thinner. */
  readonly mixedL?: number | null;
  /** Of a coat that was earlier: litres on the hull. */
  readonly litresOn?: number | null;
  /** Why it is started all the same. */
  readonly reason: string;
  /** Who is at it, by commas; left out: whoever writes. */
  readonly painters?: string;
}

const COARSEST_GRIT = 16;

/** A grit as it was typed: a whole number from 16 up; null where it is none. @example gritOf(' 180 ') // → 180 */
export function gritOf(typed: string): number | null {
  const grit = Number(typed);
  return typed.trim() !== '' && Number.isInteger(grit) && grit >= COARSEST_GRIT ? grit : null;
}

/** A reading as far as it can be used. */
const usable = (value: number | null) => (value === null || Number.isNaN(value) ? null : value);

/**
 * Readings without those that cannot be read.
 * @example usableReadings({ airC: 20, rh: Number.NaN, surfaceC: null }) // → { airC: 20, rh: null, surfaceC: null }
 */
export function usableReadings({ airC, rh, surfaceC }: StartReadings): StartReadings {
  return { airC: usable(airC), rh: usable(rh), surfaceC: usable(surfaceC) };
}

/**
 * The conditions of a start: what was read, the forecast and the surface worked out from it where nothing was.
 * @param options.forecast null where the weather does not reach so far
 * @returns null where not all of them are known
 * @example
 *   startConditions({ readings: { airC: 18, rh: 0.7, surfaceC: null }, forecast: null, surfaceC: 16 }) // → null
 */
export function startConditions(options: {
  readings: StartReadings;
  forecast: Omit<SourcedHour, 'at' | 'source'> | null;
  surfaceC: number | null;
}): Conditions | null {
  const { forecast } = options;
  const read = usableReadings(options.readings);
  const airC = read.airC ?? forecast?.airC ?? null;
  const rh = read.rh ?? forecast?.rh ?? null;
  const surfaceC = read.surfaceC ?? (forecast ? options.surfaceC : null);
  if (airC === null || rh === null || surfaceC === null) return null;
  return {
    airC,
    rh,
    surfaceC,
    ...(forecast?.windMs === undefined ? {} : { windMs: forecast.windMs }),
    ...(forecast?.rainMm === undefined ? {} : { rainMm: forecast.rainMm }),
  };
}

/** One thing that stands against a start; its words are the interface's. */
export type Against =
  | { readonly kind: 'window'; readonly status: ZoneStatus }
  | { readonly kind: 'order'; readonly surfaceId: string }
  | { readonly kind: 'openWork'; readonly surfaceId: string; readonly work: OpenWork }
  | { readonly kind: 'stand'; readonly until: number }
  | { readonly kind: 'abrading' }
  | { readonly kind: 'air' }
  | { readonly kind: 'untilDry'; readonly trouble: Trouble | null }
  | { readonly kind: 'rule'; readonly surfaceId: string; readonly finding: Finding };

/** A zone that the coat goes onto, as it stands at the moment of the start. */
export interface StartZone {
  readonly status: ZoneStatus;
  /** The layer of its build-up that the coat puts on. */
  readonly layerId?: string;
  readonly openWork: readonly OpenWork[];
  /** Stops of the rules about its next coat that nobody has let stand. */
  readonly stops: readonly Finding[];
}

/** When the stand of the batches is over, the latest; null where none has to stand, epoch ms. */
const standOver = (batches: readonly Standing[]): number | null =>
  batches.some((b) => b.standMin > 0)
    ? Math.max(...batches.map((b) => b.mixedAt + ((b.stirMin ?? 0) + b.standMin) * 60_000))
    : null;

type Standing = Pick<MixedBatch, 'mixedAt' | 'standMin' | 'stirMin'>;

/**
 * All that stands against a start, judged by its own moment, now or earlier: windows that are not open, coats out of
 * their order, work that is open, a stand that is not over, planned abrading of which nothing is said, air outside the
 * limits then or until touch dry, stops of the rules.
 * @param options.at moment of the start, epoch ms
 * @param options.planned abrading is planned before the coat
 * @param options.advice whether the limits hold until touch dry
 * @example
 *   againstStart({
 *     zones: [],
 *     at: noon,
 *     planned: false,
 *     abraded: false,
 *     batches: [{ mixedAt: noon - 5 * 60_000, standMin: 15 }],
 *     verdict: { ok: false },
 *     advice: null,
 *   }).map((a) => a.kind) // → ['stand', 'air']
 */
export function againstStart(options: {
  zones: readonly StartZone[];
  at: number;
  planned: boolean;
  abraded: boolean;
  batches: readonly Standing[];
  verdict: Pick<ConditionVerdict, 'ok'> | null;
  advice: Pick<StartAdvice, 'nowHolds' | 'trouble'> | null;
}): Against[] {
  const { zones, at, planned, abraded, batches, verdict, advice } = options;
  const shut = ({ state }: ZoneStatus) =>
    state === 'shut' ||
    state === 'closed' ||
    state === 'unready' ||
    state === 'waits' ||
    state === 'inHand' ||
    (state === 'abrade' && !abraded);
  const standing = standOver(batches);
  const toAbrade = zones.some(({ status }) => status.state === 'abrade');
  return [
    ...zones.filter((z) => shut(z.status)).map(({ status }) => ({ kind: 'window', status }) as const),
    ...zones
      .filter((z) => z.layerId !== undefined && z.status.nextLayer !== null && z.status.nextLayer.id !== z.layerId)
      .map(({ status }) => ({ kind: 'order', surfaceId: status.surfaceId }) as const),
    ...zones.flatMap(({ status, openWork }) =>
      openWork.map((work) => ({ kind: 'openWork', surfaceId: status.surfaceId, work }) as const),
    ),
    ...(standing !== null && at < standing ? [{ kind: 'stand', until: standing } as const] : []),
    ...(planned && !abraded && !toAbrade ? [{ kind: 'abrading' } as const] : []),
    ...(verdict && !verdict.ok ? [{ kind: 'air' } as const] : []),
    ...(verdict?.ok !== false && advice?.nowHolds === false
      ? [{ kind: 'untilDry', trouble: advice.trouble } as const]
      : []),
    ...zones.flatMap(({ status, stops }) =>
      stops.map((finding) => ({ kind: 'rule', surfaceId: status.surfaceId, finding }) as const),
    ),
  ];
}

const SHORTEST_REASON = 3;
/** What is said where only the reason is missing. */
export const REASON_WANTED = 'Something stands against it. Write why you start all the same.';

/**
 * What keeps a start from being logged, in a sentence that says what to do; null where nothing does.
 * @param options.now epoch ms
 * @param options.against what stands against it
 * @example
 *   startProblem({
 *     wish: {
 *       when: 'now',
 *       startedAt: noon,
 *       finishedAt: noon,
 *       readings: { airC: null, rh: null, surfaceC: null },
 *       grit: '',
 *       reason: '',
 *     },
 *     now: noon,
 *     against: [{ kind: 'air' }],
 *   }) // → 'Something stands against it. Write why you start all the same.'
 */
export function startProblem(options: {
  wish: StartWish;
  now: number;
  against: readonly Pick<Against, 'kind'>[];
}): string | null {
  const { wish, now, against } = options;
  const { airC, rh, surfaceC } = wish.readings;
  if ([airC, rh, surfaceC].some((v) => Number.isNaN(v)))
    return 'A reading cannot be read. Type it again, or leave it empty.';
  if (rh !== null && (rh <= 0 || rh > 1)) return 'Humidity is between 1 and 100 %. Type it again.';
  if (wish.when === 'earlier') {
    const { startedAt, finishedAt } = wish;
    if (!Number.isFinite(startedAt)) return 'Type when the coat was started.';
    if (startedAt > now) return 'The start has not come yet. Check the date and time.';
    if (!Number.isFinite(finishedAt)) return 'Type when the coat was finished.';
    if (finishedAt < startedAt) return 'The coat would finish before it started. Check the two times.';
    if (finishedAt > now) return 'The finish has not come yet. Check the date and time.';
    if ([wish.mixedL, wish.litresOn].some((l) => l != null && !(l >= 0)))
      return 'The litres cannot be read. Type them again or leave them empty.';
  }
  if (wish.grit.trim() !== '' && gritOf(wish.grit) === null) return 'Type the grit as a number, for example 180.';
  if (against.length > 0 && wish.reason.trim().length < SHORTEST_REASON) return REASON_WANTED;
  return null;
}

/** What is known of the coat itself. */
export interface StartedCoat {
  readonly boatId: string;
  readonly coatId: string;
  readonly on: readonly { readonly surfaceId: string; readonly layerId: string }[];
  readonly sheetRevisionId: string;
  readonly method: PaintMethod;
  /** Share of mixed paint. */
  readonly thinner: number;
  readonly dftMicron: number;
  readonly colour: string;
  readonly colourHex: string;
  /** Batches that go on with it, with what is in the pot. */
  readonly batches: readonly Pick<MixedBatch, 'id' | 'restL'>[];
  /** Of a coat that was earlier: a batch that nobody logged. */
  readonly unlogged?: { readonly batchId: string; readonly mixed: MixedBody } | null;
}

/**
 * Names that were typed with commas between them, each once.
 * @example paintersOf('Ada, Bo, Ada') // → ['Ada', 'Bo']
 */
export const paintersOf = (text = ''): string[] => [
  ...new Set(
    text
      .split(/[,;]/)
      .map((name) => name.trim().slice(0, 80))
      .filter(Boolean),
  ),
];

/** An entry without what signs it. */
export type UnsignedEntry = Pick<NewEntry, 'boatId' | 'stream' | 'streamId' | 'kind' | 'occurredAt' | 'body'>;

/**
 * The entries that a start comes to: the start, readings, batches on, those that nobody logged mixed before, and the
 * finish of a coat that was earlier.
 * @example
 *   startEntries({
 *     coat: { ...entries[0].body, boatId: 'boat', coatId: 'new', batches: [] },
 *     wish: {
 *       when: 'now',
 *       startedAt: noon,
 *       finishedAt: noon,
 *       readings: { airC: 20, rh: 0.6, surfaceC: 19 },
 *       grit: '',
 *       reason: '',
 *     },
 *     now: noon,
 *     against: [],
 *   }).map((e) => e.kind) // → ['started', 'reading']
 */
export function startEntries(options: {
  coat: StartedCoat;
  wish: StartWish;
  now: number;
  against: readonly Pick<Against, 'kind'>[];
}): UnsignedEntry[] {
  const { coat, wish, now, against } = options;
  const { boatId, coatId, batches, unlogged, ...rest } = coat;
  const occurredAt = wish.when === 'now' ? now : wish.startedAt;
  const base = { boatId, stream: 'coat', streamId: coatId, occurredAt } as const;
  const { airC, rh, surfaceC } = wish.readings;
  return [
    {
      ...base,
      kind: 'started',
      body: {
        ...rest,
        overrideReason: against.length > 0 ? wish.reason.trim() : null,
        abradedGrit: gritOf(wish.grit),
        ...(gritOf(wish.grit) !== null && wish.abradedFor ? { abradedFor: wish.abradedFor } : {}),
        ...(against.length > 0 ? { against: [...new Set(against.map((a) => a.kind))] } : {}),
        ...(paintersOf(wish.painters).length > 0 ? { painters: paintersOf(wish.painters) } : {}),
      },
    },
    ...(airC !== null || rh !== null || surfaceC !== null
      ? [
          {
            ...base,
            kind: 'reading',
            body: { airC, rh, surfaceC, ...(surfaceC !== null && wish.readOn ? { surfaceId: wish.readOn } : {}) },
          } as const,
        ]
      : []),
    ...(unlogged
      ? [{ ...base, stream: 'batch', streamId: unlogged.batchId, kind: 'mixed', body: unlogged.mixed } as const]
      : []),
    ...[...batches, ...(unlogged ? [{ id: unlogged.batchId, restL: unlogged.mixed.totalL }] : [])].map(
      (b) => ({ ...base, kind: 'batchOn', body: { batchId: b.id, litres: b.restL } }) as const,
    ),
    ...(wish.when === 'earlier'
      ? [{ ...base, occurredAt: wish.finishedAt, kind: 'finished', body: { litresOn: wish.litresOn ?? null } } as const]
      : []),
  ];
}
