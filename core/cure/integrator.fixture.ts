import { segmentAt } from '../air/segment';
import type { TempSample } from '../air/weather';
import { instant } from '../guard';
import { Impossible } from '../impossible';
import { timeLaw } from './arrhenius';
import type { MilestoneOptions } from './milestone';

const HOUR_MS = 3_600_000;
// Gauss–Legendre, three points on [0, 1]: exact to degree five, ample on pieces without a kink.
const GAUSS = [
  { x: 0.5 - Math.sqrt(0.6) / 2, w: 5 / 18 },
  { x: 0.5, w: 8 / 18 },
  { x: 0.5 + Math.sqrt(0.6) / 2, w: 5 / 18 },
] as const;
/** No piece longer than this, so that steep laws over a big swing stay well inside a second. */
const PIECE_MS = HOUR_MS;

/**
 * Tests only: the integrator that walks the series piece by piece at every question, kept as the oracle of the
 * prepared clock. When a milestone is reached: progress p = ∫ dt / t(T(t)) from `appliedAt` comes to 1. [P: Arrhenius,
 * additive progress]
 *
 * @returns epoch ms, or null when the series ends first
 * @throws RangeError on an empty or impossible table, a series out of order, or one that starts after
 * the coat went on (what the coat did before it cannot be known)
 */
export function integratedMilestoneAt(options: MilestoneOptions): number | null {
  return reach(options, 0, 1).at;
}

function reach(
  options: MilestoneOptions,
  startProgress: number,
  goal: number,
): { at: number | null; progress: number } {
  const { table, kind, temps, minCureC } = options;
  const appliedAt = instant(options.appliedAt, 'The time of the coat');
  const hoursAt = timeLaw(minCureC === undefined ? { table, kind } : { table, kind, minCureC });
  const first = temps[0];
  if (!first) return { at: null, progress: startProgress };
  if (appliedAt < first.at) {
    throw new Impossible('The temperatures start after the coat went on. Load or type the weather of that time.');
  }
  // The integrand has a kink where the law changes piece and a jump where a minimum starts to run.
  const kinks = [...table.map((c) => c.tempC), ...(minCureC === undefined ? [] : [minCureC])];
  let progress = startProgress;

  for (let i = segmentAt(temps, appliedAt); i + 1 < temps.length; i += 1) {
    const a = temps[i] as TempSample;
    const b = temps[i + 1] as TempSample;
    if (!(b.at > a.at)) throw new Impossible('The temperatures must be in order of time.');
    if (!Number.isFinite(a.tempC) || !Number.isFinite(b.tempC))
      throw new Impossible('A temperature of the series is missing. Load or type the weather again.');
    if (b.at <= appliedAt) continue;
    const slope = (b.tempC - a.tempC) / (b.at - a.at);
    const from = Math.max(a.at, appliedAt);
    for (const [start, end] of pieces(a, b, from, kinks)) {
      const gain = (to: number): number => {
        let sum = 0;
        for (const { x, w } of GAUSS) sum += w / hoursAt(a.tempC + slope * (start + (to - start) * x - a.at));
        return (sum * (to - start)) / HOUR_MS;
      };
      const whole = gain(end);
      if (progress + whole >= goal) return { at: solve(gain, start, end, goal - progress), progress: goal };
      progress += whole;
    }
  }
  return { at: null, progress };
}

/** A segment from `from` on, cut where the temperature crosses a kink of the law and into pieces of an hour at most. */
function pieces(a: TempSample, b: TempSample, from: number, kinks: readonly number[]): [number, number][] {
  const crossed = kinks.filter((c) => (c > a.tempC && c < b.tempC) || (c < a.tempC && c > b.tempC));
  if (crossed.length === 0 && b.at - from <= PIECE_MS) return [[from, b.at]];
  const marks = [from, b.at];
  for (const c of crossed) {
    const at = a.at + ((c - a.tempC) / (b.tempC - a.tempC)) * (b.at - a.at);
    if (at > from) marks.push(at);
  }
  for (let at = from + PIECE_MS; at < b.at; at += PIECE_MS) marks.push(at);
  marks.sort((x, y) => x - y);
  return marks
    .slice(1)
    .flatMap((end, k): [number, number][] => (end > (marks[k] as number) ? [[marks[k] as number, end]] : []));
}

/** The instant in [start, end] where the rising `gain` comes to `wanted`. */
function solve(gain: (to: number) => number, start: number, end: number, wanted: number): number {
  let lo = start;
  let hi = end;
  while (hi - lo > 0.25) {
    const mid = (lo + hi) / 2;
    if (gain(mid) >= wanted) hi = mid;
    else lo = mid;
  }
  return Math.round(hi);
}
