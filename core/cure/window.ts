import type { TempSample } from '../air/weather';
import { instant } from '../guard';
import { isEstimated, timeLaw } from './arrhenius';
import type { TimeTable } from '../model/timeTable';
import { milestoneAt, milestoneFrom, progressAt } from './milestone';
import { temperatureAt } from '../air/surfaceSeries';
import { Impossible } from '../impossible';

/** `reached`: worked out; `beyondSeries`: later than the weather goes; `notOnSheet`: the sheet has no such time. */
export type WindowStatus = 'reached' | 'beyondSeries' | 'notOnSheet';

export interface OvercoatWindow {
  /** Not before, epoch ms. */
  readonly opensAt: number | null;
  /** Bonds as is until, epoch ms. */
  readonly bondsUntil: number | null;
  /** Closes even when abraded, epoch ms. */
  readonly closesAt: number | null;
  readonly status: {
    readonly opensAt: WindowStatus;
    readonly bondsUntil: WindowStatus;
    readonly closesAt: WindowStatus;
  };
  /**
   * Whether there is a time in which the next coat bonds without abrading. False when it is so cold that
   * the minimum comes after the tack limit; null when neither side is known.
   */
  readonly bonds: boolean | null;
  /** True when any time rests on a single figure of the sheet and the rule of thumb. */
  readonly estimated: boolean;
}

export interface OvercoatTables {
  /** Shortest time before the next coat; left out when the sheet gives none. */
  readonly minimum?: TimeTable;
  /** Longest time without abrading. */
  readonly tackLimit?: TimeTable;
  /** Longest time even when abraded. */
  readonly maximum?: TimeTable;
  readonly minCureC?: number;
}

/**
 * The window for the next coat. Minimums count from the last panel (`finishedAt`), limits from the first
 * (`startedAt`). [CP]
 *
 * @throws RangeError when the coat finished before it started, or a table or the series is impossible
 */
export function overcoatWindow(
  options: { startedAt: number; finishedAt: number; temps: readonly TempSample[] } & OvercoatTables,
): OvercoatWindow {
  const { temps, minimum, tackLimit, maximum, minCureC } = options;
  const startedAt = instant(options.startedAt, 'Start');
  const finishedAt = instant(options.finishedAt, 'Finish');
  if (finishedAt < startedAt) throw new Impossible('The coat finished before it started. Check the two times.');

  const cure = minCureC === undefined ? {} : { minCureC };
  const clock = (
    table: TimeTable | undefined,
    kind: 'minimum' | 'maximum',
    appliedAt: number,
  ): [number | null, WindowStatus] => {
    if (!table) return [null, 'notOnSheet'];
    const at = milestoneAt({ table, kind, appliedAt, temps, ...cure });
    return [at, at === null ? 'beyondSeries' : 'reached'];
  };
  const [opensAt, opens] = clock(minimum, 'minimum', finishedAt);
  const [bondsUntil, bonds] = clock(tackLimit, 'maximum', startedAt);
  const [closesAt, closes] = clock(maximum, 'maximum', startedAt);
  return {
    opensAt,
    bondsUntil,
    closesAt,
    status: { opensAt: opens, bondsUntil: bonds, closesAt: closes },
    bonds: bondingWindow(opensAt, opens, bondsUntil, bonds),
    estimated: [minimum, tackLimit, maximum].some((t) => t !== undefined && isEstimated(t)),
  };
}

function bondingWindow(
  opensAt: number | null,
  opens: WindowStatus,
  bondsUntil: number | null,
  bonds: WindowStatus,
): boolean | null {
  if (bonds === 'notOnSheet') return null;
  if (opens === 'notOnSheet') return null;
  if (bondsUntil === null) return opensAt === null ? null : true;
  return opensAt !== null && opensAt <= bondsUntil;
}

/** A hand test on a coat: the thumb (leaves a print, nothing comes off) or the abrasive (powders, does not gum). */
export interface HandTest {
  readonly test: 'thumb' | 'sanding';
  readonly at: number;
  readonly passed: boolean;
  /** The zone it was made on; left out or null: all that the coat is on. */
  readonly surfaceId?: string | null | undefined;
}

/** How long to wait before trying again, as a share of what has gone since the coat was finished. [M] */
const TRY_AGAIN_SHARE = 0.1;

/** A window as hand tests have moved it. */
export interface TestedWindow extends OvercoatWindow {
  /** The latest thumb test; null where none was made. */
  readonly handTest: HandTest | null;
  /**
   * A print past the worked-out limit: the coat may go on by hand until then, epoch ms. `bondsUntil` keeps what was
   * worked out.
   */
  readonly byHandUntil: number | null;
}

/**
 * The window after hand tests: the hand overrides the table and the clocks run on from there. [CP]
 *
 * The first print since the last test that failed opens the window at that moment, and the tack limit is counted on
 * from a coat that has just reached its minimum: the paint itself has said how far it is, faster or slower than the
 * table. Later prints say that it is still in its window and move nothing; one past the worked-out limit lets the
 * coat go on then, by hand. A test that fails keeps the window shut until it is worth trying again. The closing time
 * is the sheet's and is never moved.
 */
export function windowAfterHandTests(
  options: {
    startedAt: number;
    finishedAt: number;
    temps: readonly TempSample[];
    tests: readonly HandTest[];
  } & OvercoatTables,
): TestedWindow {
  const table = overcoatWindow(options);
  const { finishedAt } = options;
  const thumb = latest(options.tests, 'thumb', finishedAt);
  if (!thumb) return { ...table, handTest: null, byHandUntil: null };

  if (!thumb.passed) {
    const again = thumb.at + TRY_AGAIN_SHARE * (thumb.at - finishedAt);
    const later = table.status.opensAt === 'beyondSeries' ? null : Math.round(Math.max(table.opensAt ?? 0, again));
    const status = { ...table.status, opensAt: later === null ? ('beyondSeries' as const) : ('reached' as const) };
    return {
      ...table,
      opensAt: later,
      status,
      bonds: bondingWindow(later, status.opensAt, table.bondsUntil, status.bondsUntil),
      estimated: true,
      handTest: thumb,
      byHandUntil: null,
    };
  }

  const proof = firstPrint(options.tests, finishedAt) ?? thumb;
  const late = table.bondsUntil !== null && proof.at > table.bondsUntil;
  const bondsUntil = late ? table.bondsUntil : tackLimitFrom(proof.at, options);
  const status: OvercoatWindow['status'] = {
    ...table.status,
    opensAt: 'reached',
    bondsUntil: !options.tackLimit ? 'notOnSheet' : bondsUntil === null ? 'beyondSeries' : 'reached',
  };
  const past = bondsUntil !== null && thumb.at > bondsUntil;
  // A print on a coat whose limit was over before: it was open by the table before the hand came.
  const opensAt = late ? Math.min(table.opensAt ?? proof.at, proof.at) : proof.at;
  return {
    ...table,
    opensAt,
    bondsUntil,
    status,
    bonds: bondingWindow(opensAt, 'reached', bondsUntil, status.bondsUntil),
    handTest: thumb,
    byHandUntil: past ? Math.round(thumb.at + TRY_AGAIN_SHARE * (thumb.at - finishedAt)) : null,
  };
}

/** The first print since the last thumb test that failed: that one proves the minimum. */
function firstPrint(tests: readonly HandTest[], finishedAt: number): HandTest | undefined {
  const thumbs = tests.filter((t) => t.test === 'thumb' && t.at >= finishedAt);
  const failedAt = Math.max(-Infinity, ...thumbs.filter((t) => !t.passed).map((t) => t.at));
  return thumbs
    .filter((t) => t.passed && t.at >= failedAt)
    .reduce<HandTest | undefined>((first, t) => (first && first.at <= t.at ? first : t), undefined);
}

/** The tack limit counted on from a print: the coat has just reached its minimum, however long that took. */
function tackLimitFrom(
  printAt: number,
  options: { startedAt: number; temps: readonly TempSample[] } & OvercoatTables,
): number | null {
  const { temps, minimum, tackLimit, minCureC } = options;
  if (!tackLimit) return null;
  const cure = minCureC === undefined ? {} : { minCureC };
  const tempC = temperatureAt(temps, printAt);
  const limitH = timeLaw({ table: tackLimit, kind: 'maximum' })(tempC);
  // Without a minimum, or where the cold has stopped it, the coat counts as far along as the table says.
  const minimumH = minimum ? timeLaw({ table: minimum, kind: 'minimum', ...cure })(tempC) : Infinity;
  const done = Number.isFinite(minimumH)
    ? Math.min(1, minimumH / limitH)
    : Math.min(1, progressAt({ table: tackLimit, kind: 'maximum', appliedAt: options.startedAt, temps, at: printAt }));
  return milestoneFrom({ table: tackLimit, kind: 'maximum', appliedAt: printAt, temps, progress: done });
}

/** The latest test of a kind since the coat was finished; of two at one moment the one logged last. */
function latest(tests: readonly HandTest[], kind: HandTest['test'], finishedAt: number): HandTest | undefined {
  return tests
    .filter((t) => t.test === kind && t.at >= finishedAt)
    .reduce<HandTest | undefined>((last, t) => (last && last.at > t.at ? last : t), undefined);
}

/**
 * When the coat can be sanded: the sheet's time from the last panel, or the latest sanding test where
 * one was made. [CP]
 */
export function sandableAt(options: {
  finishedAt: number;
  temps: readonly TempSample[];
  table?: TimeTable;
  minCureC?: number;
  tests: readonly HandTest[];
}): { at: number | null; by: 'hand' | 'sheet' | 'notOnSheet'; tryAgain: boolean } {
  const { table, temps, finishedAt, minCureC } = options;
  const test = latest(options.tests, 'sanding', finishedAt);
  if (test?.passed) return { at: test.at, by: 'hand', tryAgain: false };
  const bySheet = table
    ? milestoneAt({
        table,
        kind: 'minimum',
        appliedAt: finishedAt,
        temps,
        ...(minCureC === undefined ? {} : { minCureC }),
      })
    : null;
  if (test) {
    const again = Math.round(test.at + TRY_AGAIN_SHARE * (test.at - finishedAt));
    return { at: table && bySheet === null ? null : Math.max(again, bySheet ?? 0), by: 'hand', tryAgain: true };
  }
  return { at: bySheet, by: table ? 'sheet' : 'notOnSheet', tryAgain: false };
}
