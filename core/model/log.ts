import type { AbradeFor } from './layer';
import type { PaintMethod } from './paintMethod';

/**
 * What happens at the hull, as it is logged. The log only grows: a mistake is corrected by an entry that
 * supersedes the wrong one, or withdraws it; the wrong one stays readable.
 */
export interface LogEntryOf<Kind extends string, Body> {
  readonly id: string;
  readonly boatId: string;
  /** What the entry tells about: one coat, one batch, or readings at one zone. */
  readonly stream: 'coat' | 'batch' | 'zone';
  readonly streamId: string;
  readonly kind: Kind;
  /** When it happened and when it was written down, epoch ms. */
  readonly occurredAt: number;
  readonly recordedAt: number;
  readonly painter: string;
  readonly device: string;
  /** Id of the entry this one replaces. */
  readonly supersedes: string | null;
  readonly body: Body;
}

/** One coat may go over several zones in one stint of work. */
export interface CoatTarget {
  readonly surfaceId: string;
  readonly layerId: string;
}

export interface StartedBody {
  readonly on: readonly CoatTarget[];
  readonly sheetRevisionId: string;
  readonly method: PaintMethod;
  /** Share of mixed paint. */
  readonly thinner: number;
  readonly dftMicron: number;
  readonly colour: string;
  readonly colourHex: string;
  /** Why it was started although something stood against it. */
  readonly overrideReason: string | null;
  /** Grit the coat beneath was abraded with, where it was. */
  readonly abradedGrit: number | null;
  /** What it was abraded for. */
  readonly abradedFor?: AbradeFor | null | undefined;
  /** What stood against it when it was started all the same. */
  readonly against?: readonly AgainstKind[] | undefined;
}

/** What can stand against a start. */
export const AGAINST_KINDS = ['window', 'order', 'openWork', 'stand', 'abrading', 'air', 'untilDry', 'rule'] as const;

export type AgainstKind = (typeof AGAINST_KINDS)[number];

export interface FinishedBody {
  /** On the hull, L, as it was in the pot; null where nobody said. */
  readonly litresOn: number | null;
  /** Left in the pot, L; left out or null: nothing, or not said. */
  readonly leftL?: number | null | undefined;
  /** Lost on tray, roller and ground, L; left out or null: not said. */
  readonly lostL?: number | null | undefined;
}

export interface ReadingBody {
  readonly airC: number | null;
  /** Share. */
  readonly rh: number | null;
  readonly surfaceC: number | null;
  /** The zone whose surface was read, where a coat covers several; left out or null: all that it is on. */
  readonly surfaceId?: string | null | undefined;
}

export interface HandTestBody {
  readonly test: 'thumb' | 'sanding';
  readonly passed: boolean;
  /** The zone it was made on, where a coat covers several; left out or null: all that it is on. */
  readonly surfaceId?: string | null | undefined;
}

export interface PouredPart {
  readonly name: string;
  readonly volumeL: number;
  readonly massKg: number | null;
}

export interface MixedBody {
  readonly sheetRevisionId: string;
  readonly on: readonly CoatTarget[];
  readonly parts: readonly PouredPart[];
  readonly thinnerL: number;
  readonly totalL: number;
  /** Stand after mixing, minutes; 0 for none. */
  readonly standMin: number;
  /** Pot life at the temperature of the pot, hours; null where the sheet has none. */
  readonly potLifeH: number | null;
  readonly potTempC: number | null;
}

export type CoatEntry =
  | LogEntryOf<'started', StartedBody>
  | LogEntryOf<'reading', ReadingBody>
  | LogEntryOf<'wetFilm', { readonly micron: readonly number[] }>
  | LogEntryOf<'batchOn', { readonly batchId: string; readonly litres: number }>
  | LogEntryOf<'finished', FinishedBody>
  | LogEntryOf<'handTest', HandTestBody>
  | LogEntryOf<'note', { readonly text: string }>
  | LogEntryOf<'withdrawn', { readonly reason: string }>;

export type BatchEntry =
  | LogEntryOf<'mixed', MixedBody>
  | LogEntryOf<'silenced', { readonly timer: 'stand' | 'pot' }>
  | LogEntryOf<'emptied', { readonly litresLeft: number }>;

export type LogEntry = CoatEntry | BatchEntry;

export type LogKind = LogEntry['kind'];

export const LOG_KINDS: Record<LogKind, LogEntry['stream'][]> = {
  started: ['coat'],
  reading: ['coat', 'zone'],
  wetFilm: ['coat'],
  batchOn: ['coat'],
  finished: ['coat'],
  handTest: ['coat'],
  note: ['coat', 'batch'],
  withdrawn: ['coat', 'batch', 'zone'],
  mixed: ['batch'],
  silenced: ['batch'],
  emptied: ['batch'],
};

type WithoutRecordedAt<E> = E extends LogEntry ? Omit<E, 'recordedAt'> : never;

/** An entry as it is sent: when it was written down is the server's to say. */
export type NewEntry = WithoutRecordedAt<LogEntry>;
