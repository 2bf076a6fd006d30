import type { TempSample } from '../air/weather';
import { instant } from '../guard';
import { Impossible } from '../impossible';
import { timeLaw, type MilestoneKind } from './arrhenius';
import type { TimeTable } from '../model/timeTable';

const HOUR_MS = 3_600_000;
// Gauss–Legendre, three points on [0, 1]: exact to degree five, ample on pieces without a kink.
const OUTER = 0.5 - Math.sqrt(0.6) / 2;
/** No piece longer than this, so that steep laws over a big swing stay well inside a second. */
const PIECE_MS = HOUR_MS;
/** What rounding may take off a sum of thousands of pieces. */
const ROUNDING = 1e-12;

export interface ClockOptions {
  readonly table: TimeTable;
  readonly kind: MilestoneKind;
  /** A surface series, ascending; never raw readings. Linear between samples. */
  readonly temps: readonly TempSample[];
  /** Lowest cure temperature of the sheet, °C: below it a minimum stands still. */
  readonly minCureC?: number;
}

/** The clock of one time table on one surface series: asked as often as wanted, worked out once. */
export interface PreparedClock {
  /** Share of the milestone done between two instants (epoch ms, inside the series); may be above 1. */
  progress(from: number, to: number): number;
  /**
   * When a clock started at `appliedAt` with `progress` done comes to 1, epoch ms; null when the series ends first.
   * @throws Impossible when the series starts after `appliedAt`: what the coat did before it cannot be known
   */
  reachedAt(appliedAt: number, progress?: number): number | null;
  /** Progress from `from` to each of `count` instants `stepMs` apart, the first being `from` itself. */
  along(from: number, stepMs: number, count: number): Float64Array;
}

/**
 * Progress p = ∫ dt / t(T(t)) along a surface series, summed up once (only as far as it is asked for) and looked up by
 * bisection. [P: Arrhenius, additive progress]
 *
 * @throws Impossible on an empty or impossible table, a series out of order or with a temperature missing
 * @example
 *   (prepareClock({ table: [{ tempC: 20, hours: 4 }], kind: 'minimum', temps }).reachedAt(noon) - noon) / hour // → 4
 */
export function prepareClock(options: ClockOptions): PreparedClock {
  const { table, kind, temps, minCureC } = options;
  const hoursAt = timeLaw(minCureC === undefined ? { table, kind } : { table, kind, minCureC });
  const first = temps[0];
  if (!first)
    return { progress: () => 0, reachedAt: () => null, along: (_from, _stepMs, count) => new Float64Array(count) };
  checkSeries(temps);
  const endsAt = (temps[temps.length - 1] as TempSample).at;
  // The rate has a kink where the law changes piece and a jump where a minimum starts to run.
  const kinks = [...table.map((c) => c.tempC), ...(minCureC === undefined ? [] : [minCureC])];
  const { at, tempC, more } = piecesOf(temps, kinks);

  /** Progress from the start of piece `i` to `to` within it. */
  const within = (i: number, to: number): number => {
    const from = at[i] as number;
    const length = to - from;
    if (length <= 0) return 0;
    const a = tempC[i] as number;
    const slope = ((tempC[i + 1] as number) - a) / ((at[i + 1] as number) - from);
    const rate = (share: number) => 1 / hoursAt(a + slope * share * length);
    return ((5 * rate(OUTER) + 8 * rate(0.5) + 5 * rate(1 - OUTER)) * length) / (18 * HOUR_MS);
  };
  const sums = [0];
  const sumUpTo = (i: number) => {
    for (let known = sums.length - 1; known < i; known += 1)
      sums.push((sums[known] as number) + within(known, at[known + 1] as number));
  };
  const sumAt = (instant: number): number => {
    while ((at[at.length - 1] as number) < instant && more());
    const i = lastAtOrBefore(at, instant, at.length - 1);
    sumUpTo(i);
    return i === at.length - 1 ? (sums[i] as number) : (sums[i] as number) + within(i, instant);
  };

  return {
    progress(from, to) {
      return to <= from ? 0 : sumAt(Math.min(to, endsAt)) - sumAt(from);
    },
    along(from, stepMs, count) {
      const start = sumAt(from);
      return Float64Array.from({ length: count }, (_, k) => sumAt(from + k * stepMs) - start);
    },
    reachedAt(appliedAt, progress = 0) {
      instant(appliedAt, 'The time of the coat');
      if (appliedAt < first.at)
        throw new Impossible('The temperatures start after the coat went on. Load or type the weather of that time.');
      if (progress >= 1) return appliedAt;
      if (appliedAt > endsAt) return null;
      const goal = sumAt(appliedAt) + 1 - progress;
      const last = () => sums[sums.length - 1] as number;
      while (last() < goal && (sums.length < at.length || more())) sumUpTo(sums.length);
      if (last() < goal) return last() >= goal - ROUNDING ? endsAt : null;
      // The last node before the goal: the piece after it holds the moment.
      const i = lastBelow(sums, goal, sums.length - 1);
      return Math.round(solve(i, goal - (sums[i] as number)));
    },
  };

  /** The instant within piece `i` at which its progress comes to `wanted`: Newton's steps, kept inside a shrinking bracket. */
  function solve(i: number, wanted: number): number {
    let low = at[i] as number;
    let high = at[i + 1] as number;
    const a = tempC[i] as number;
    const slope = ((tempC[i + 1] as number) - a) / (high - low);
    const start = low;
    let guess = low + ((high - low) * wanted) / ((sums[i + 1] as number) - (sums[i] as number));
    for (let step = 0; step < 60 && high - low > 0.25; step += 1) {
      const off = within(i, guess) - wanted;
      if (off >= 0) high = guess;
      else low = guess;
      const next = guess - off * hoursAt(a + slope * (guess - start)) * HOUR_MS;
      if (Math.abs(next - guess) < 0.05) return next;
      guess = next > low && next < high ? next : (low + high) / 2;
    }
    return guess;
  }
}

/** Series that were looked over: they are never changed in place. */
const sound = new WeakSet<readonly TempSample[]>();

/** @throws Impossible on a series out of order or with a temperature missing */
function checkSeries(temps: readonly TempSample[]): void {
  if (sound.has(temps)) return;
  let before = -Infinity;
  for (const { at, tempC } of temps) {
    if (!(at > before)) throw new Impossible('The temperatures must be in order of time.');
    if (!Number.isFinite(tempC)) throw missing();
    before = at;
  }
  sound.add(temps);
}

/**
 * The series cut where the temperature crosses a kink of the law and into pieces of an hour at most, from its beginning as
 * far as it is wanted: `more` cuts the next stretch, and says whether there was one.
 */
function piecesOf(
  temps: readonly TempSample[],
  kinks: readonly number[],
): { at: number[]; tempC: number[]; more(): boolean } {
  const first = temps[0] as TempSample;
  const at = [first.at];
  const tempC = [first.tempC];
  let next = 1;
  const more = (): boolean => {
    const a = temps[next - 1] as TempSample;
    const b = temps[next];
    if (!b) return false;
    next += 1;
    const marks: number[] = [];
    for (const c of kinks)
      if ((c > a.tempC && c < b.tempC) || (c < a.tempC && c > b.tempC))
        marks.push(a.at + ((c - a.tempC) / (b.tempC - a.tempC)) * (b.at - a.at));
    for (let mark = a.at + PIECE_MS; mark < b.at; mark += PIECE_MS) marks.push(mark);
    if (marks.length > 1) marks.sort((x, y) => x - y);
    for (const mark of marks) {
      if (mark <= (at[at.length - 1] as number) || mark >= b.at) continue;
      at.push(mark);
      tempC.push(a.tempC + ((b.tempC - a.tempC) * (mark - a.at)) / (b.at - a.at));
    }
    at.push(b.at);
    tempC.push(b.tempC);
    return true;
  };
  return { at, tempC, more };
}

const missing = () => new Impossible('A temperature of the series is missing. Load or type the weather again.');

/** Index of the last instant at or before `wanted`. */
function lastAtOrBefore(at: readonly number[], wanted: number, last: number): number {
  let low = 0;
  let high = last;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((at[middle] as number) <= wanted) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Index of the last sum below `goal`; sums rise up to index `last`, which is at the goal or above. */
function lastBelow(sums: readonly number[], goal: number, last: number): number {
  let low = 0;
  let high = last - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((sums[middle] as number) < goal) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Enough for all tables of a yard; a caller that makes new ones for each question does not pile them up. */
const KEPT_MOST = 256;
const kept = new WeakMap<readonly TempSample[], Map<TimeTable, [string, PreparedClock][]>>();

/** The prepared clock of a table on a series, kept for as long as the series is: neither may be changed in place. */
export function clockOf(options: ClockOptions): PreparedClock {
  const { temps, table, kind, minCureC } = options;
  const name = `${kind} ${minCureC}`;
  let ofSeries = kept.get(temps);
  if (!ofSeries) kept.set(temps, (ofSeries = new Map()));
  const ofTable = ofSeries.get(table);
  const found = ofTable?.find(([n]) => n === name)?.[1];
  if (found) return found;
  const clock = prepareClock(options);
  if (ofTable) ofTable.push([name, clock]);
  else {
    if (ofSeries.size >= KEPT_MOST) ofSeries.clear();
    ofSeries.set(table, [[name, clock]]);
  }
  return clock;
}
