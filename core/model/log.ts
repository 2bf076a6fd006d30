import type { PlanAcceptedBody } from './jobPlan';
import type { AbradeFor } from './layer';
import type { PaintMethod } from './paintMethod';
import type {
  AskedBody,
  DirtiedBody,
  FoundBody,
  MaskedBody,
  PreparedBody,
  PrepPlanBody,
  RustLookedBody,
  StandsMovedBody,
  WayOutBody,
} from './prep';
import type { EvidenceBody, LineSetBody, MarkedBody, SetOffBody, StoodBody, WeightsBody } from './waterline';

export const STREAMS = ['coat', 'batch', 'zone', 'boat'] as const;

export type Stream = (typeof STREAMS)[number];

/**
 * What happens at the hull, as it is logged. The log only grows: a mistake is corrected by an entry that
 * supersedes the wrong one, or withdraws it; the wrong one stays readable.
 */
export interface LogEntryOf<Kind extends string, Body> {
  readonly id: string;
  readonly boatId: string;
  /** What the entry tells about: one coat, one batch, one zone, or the boat as a whole. */
  readonly stream: Stream;
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
  /** Who is at it; left out: whoever wrote it down. */
  readonly painters?: readonly string[] | undefined;
}

/** A stint begins: after a pause, or with other hands. */
export interface ResumedBody {
  /** Who is at it from now on; left out: whoever was. */
  readonly painters?: readonly string[] | undefined;
}

/** How far a coat has come on one of its zones. The newest counts. */
export interface CoveredBody {
  readonly surfaceId: string;
  /** Share of the zone that has the coat. */
  readonly share: number;
  /** Panels that are done, by their number from 0, and of how many; left out where the share was told. */
  readonly panels?: readonly number[] | undefined;
  readonly of?: number | undefined;
}

/** A place on the drawing of a zone: shares of its length from its left end and of its height from its lower edge. */
export interface DrawnAt {
  readonly surfaceId: string;
  readonly x: number;
  readonly y: number;
}

/** What is found in a wet coat, in a word. */
export const QUICK_REMARKS = [
  'run',
  'sag',
  'holiday',
  'nib',
  'insect',
  'dryEdge',
  'bubbles',
  'fisheyes',
  'orangePeel',
] as const;

export type QuickRemark = (typeof QUICK_REMARKS)[number];

export interface NoteBody {
  readonly text: string;
  readonly quick?: QuickRemark | undefined;
  /** What it answers: how a coat turned out that was started against the air. */
  readonly about?: 'airStart' | undefined;
  readonly drawnAt?: DrawnAt | undefined;
}

/** A picture in the files folder, by the name of its content. */
export interface PictureBody {
  readonly hash: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly text: string;
  readonly drawnAt?: DrawnAt | undefined;
  /** Of a zone's picture: the step of getting it ready that it shows, by its key in the list. */
  readonly step?: string | undefined;
}

export interface WetFilmBody {
  readonly micron: readonly number[];
  /** For each reading the teeth it was read between: last wet, first dry, µm; left out where one figure was told. */
  readonly teeth?: readonly (readonly [number, number])[] | undefined;
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

/** What a batch took out of one tin. */
export interface FromTin {
  readonly part: string;
  readonly lotId: string;
  readonly litres: number;
}

/** An additive in the pot, with what its label says it does. */
export interface PouredAdditive {
  readonly name: string;
  readonly litres: number;
  /** Times of the sheet, as a multiple. */
  readonly potFactor: number;
  readonly windowFactor: number;
}

export const MEASURES = ['scale', 'cup', 'syringe', 'pump', 'stick'] as const;

export type Measure = (typeof MEASURES)[number];

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
  /** Stirring, minutes, before the stand; left out: it was stirred. */
  readonly stirMin?: number | undefined;
  /** The sheet's ratio for a named use that was mixed; left out: the sheet's own. */
  readonly use?: string | undefined;
  /** Why it was mixed outside the tolerance of its ratio. */
  readonly ratioReason?: string | undefined;
  readonly from?: readonly FromTin[] | undefined;
  readonly additives?: readonly PouredAdditive[] | undefined;
  readonly measuredBy?: Measure | undefined;
}

export type CoatEntry =
  | LogEntryOf<'started', StartedBody>
  | LogEntryOf<'reading', ReadingBody>
  | LogEntryOf<'wetFilm', WetFilmBody>
  | LogEntryOf<'paused', { readonly reason: string }>
  | LogEntryOf<'resumed', ResumedBody>
  | LogEntryOf<'covered', CoveredBody>
  | LogEntryOf<'picture', PictureBody>
  | LogEntryOf<'batchOn', { readonly batchId: string; readonly litres: number }>
  | LogEntryOf<'finished', FinishedBody>
  | LogEntryOf<'handTest', HandTestBody>
  | LogEntryOf<'note', NoteBody>
  | LogEntryOf<'withdrawn', { readonly reason: string }>;

export type BatchEntry =
  | LogEntryOf<'mixed', MixedBody>
  | LogEntryOf<'silenced', { readonly timer: BatchTimerName }>
  | LogEntryOf<'emptied', { readonly litresLeft: number }>;

/** What a zone's own log tells besides readings, notes and pictures: how it was got ready. */
export type ZoneEntry =
  | LogEntryOf<'cautioned', { readonly caution: Caution }>
  | LogEntryOf<'prepared', PreparedBody>
  | LogEntryOf<'prepPlanned', PrepPlanBody>
  | LogEntryOf<'dirtied', DirtiedBody>
  | LogEntryOf<'rustLooked', RustLookedBody>
  | LogEntryOf<'masked', MaskedBody>
  | LogEntryOf<'unmasked', { readonly job: string; readonly text?: string | undefined }>
  | LogEntryOf<'foundWork', FoundBody>
  | LogEntryOf<'structureAsked', AskedBody>
  | LogEntryOf<'wayOut', WayOutBody>;

/** What is logged once for the boat: her stands, and her waterline. */
export type BoatEntry =
  | LogEntryOf<'standsMoved', StandsMovedBody>
  | LogEntryOf<'stood', StoodBody>
  | LogEntryOf<'marked', MarkedBody>
  | LogEntryOf<'lineSet', LineSetBody>
  | LogEntryOf<'evidence', EvidenceBody>
  | LogEntryOf<'weights', WeightsBody>
  | LogEntryOf<'setOff', SetOffBody>
  | LogEntryOf<'planAccepted', PlanAcceptedBody>;

export type LogEntry = CoatEntry | BatchEntry | ZoneEntry | BoatEntry;

export const BATCH_TIMERS = ['stir', 'stand', 'pot'] as const;

export type BatchTimerName = (typeof BATCH_TIMERS)[number];

/** What can hurt someone at the hull, each shown at the step it belongs to. */
export const CAUTIONS = [
  'isocyanate',
  'epoxy',
  'solvent',
  'confined',
  'biocide',
  'hotPot',
  'rags',
  'staging',
  'oldPaint',
  'blasting',
  'hotWork',
  'acid',
] as const;

export type Caution = (typeof CAUTIONS)[number];

export type LogKind = LogEntry['kind'];

export const LOG_KINDS: Record<LogKind, LogEntry['stream'][]> = {
  started: ['coat'],
  reading: ['coat', 'zone'],
  wetFilm: ['coat'],
  batchOn: ['coat'],
  finished: ['coat'],
  handTest: ['coat'],
  paused: ['coat'],
  resumed: ['coat'],
  covered: ['coat'],
  picture: ['coat', 'zone'],
  note: ['coat', 'batch', 'zone'],
  withdrawn: ['coat', 'batch', 'zone', 'boat'],
  mixed: ['batch'],
  silenced: ['batch'],
  emptied: ['batch'],
  cautioned: ['zone'],
  prepared: ['zone'],
  prepPlanned: ['zone'],
  dirtied: ['zone'],
  rustLooked: ['zone'],
  masked: ['zone'],
  unmasked: ['zone'],
  foundWork: ['zone'],
  structureAsked: ['zone'],
  wayOut: ['zone'],
  standsMoved: ['boat'],
  stood: ['boat'],
  marked: ['boat'],
  lineSet: ['boat'],
  evidence: ['boat'],
  weights: ['boat'],
  setOff: ['boat'],
  planAccepted: ['boat'],
};

type WithoutRecordedAt<E> = E extends LogEntry ? Omit<E, 'recordedAt'> : never;

/** An entry as it is sent: when it was written down is the server's to say. */
export type NewEntry = WithoutRecordedAt<LogEntry>;
