import type { TempSample } from '../air/weather';
import { instant } from '../guard';
import type { MilestoneKind } from './arrhenius';
import type { TimeTable } from '../model/timeTable';
import { clockOf } from './preparedClock';

export interface MilestoneOptions {
  table: TimeTable;
  kind: MilestoneKind;
  /** Epoch ms from which the clock runs. */
  appliedAt: number;
  /** A surface series, ascending; never raw readings. Linear between samples. Not to be changed afterwards. */
  temps: readonly TempSample[];
  /** Lowest cure temperature of the sheet, °C: below it a minimum stands still. */
  minCureC?: number;
}

/**
 * When a milestone is reached: progress p = ∫ dt / t(T(t)) from `appliedAt` comes to 1. [P: Arrhenius,
 * additive progress]
 *
 * @returns epoch ms, or null when the series ends first
 * @throws Impossible on an empty or impossible table, a series out of order, or one that starts after
 * the coat went on (what the coat did before it cannot be known)
 */
export function milestoneAt(options: MilestoneOptions): number | null {
  return clockOf(options).reachedAt(instant(options.appliedAt, 'The time of the coat'));
}

/** Share of a milestone done at `at` (may be above 1); the series' end counts as the last moment known. */
export function progressAt(options: MilestoneOptions & { at: number }): number {
  return clockOf(options).progress(instant(options.appliedAt, 'The time of the coat'), options.at);
}

/** As `milestoneAt`, for a clock that already stood at `progress` (share) at `appliedAt`. */
export function milestoneFrom(options: MilestoneOptions & { progress: number }): number | null {
  return clockOf(options).reachedAt(instant(options.appliedAt, 'The time of the coat'), options.progress);
}
