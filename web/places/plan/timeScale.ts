import { DateTime } from 'luxon';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** What of the plan's time is seen. */
export interface TimeWindow {
  readonly from: number;
  readonly to: number;
}

/** From the whole season to the hours of a day: how much is seen at once. */
export const ZOOMS = [
  { name: 'Season', ms: Infinity },
  { name: 'Two weeks', ms: 14 * DAY_MS },
  { name: 'Days', ms: 4 * DAY_MS },
  { name: 'Hours', ms: 30 * HOUR_MS },
] as const;

/** The part of the whole that a zoom shows around an instant. */
export function windowAround(whole: TimeWindow, ms: number, at: number): TimeWindow {
  const size = Math.min(ms, whole.to - whole.from);
  const from = Math.min(Math.max(whole.from, at - size * 0.25), whole.to - size);
  return { from, to: from + size };
}

export const moveBy = (seen: TimeWindow, whole: TimeWindow, ms: number): TimeWindow => {
  const size = seen.to - seen.from;
  const from = Math.min(Math.max(whole.from, seen.from + ms), whole.to - size);
  return { from, to: from + size };
};

/** Days and, where there is room, hours along a stretch of time, in the boat's own zone. */
export function ticks(
  { from, to }: TimeWindow,
  zone: string,
  width: number,
): { at: number; text: string; day: boolean }[] {
  const days = (to - from) / DAY_MS;
  const perDay = width / days;
  const stepH = perDay > 500 ? 2 : perDay > 220 ? 6 : perDay > 110 ? 12 : 24;
  const skip = perDay < 12 ? 7 : perDay < 34 ? 3 : perDay < 50 ? 2 : 1;
  const out: { at: number; text: string; day: boolean }[] = [];
  let day = DateTime.fromMillis(from, { zone }).startOf('day');
  for (let n = 0; day.toMillis() < to; n += 1, day = day.plus({ days: 1 }))
    for (let h = 0; h < 24; h += stepH) {
      const at = day.set({ hour: h }).toMillis();
      if (at < from || at >= to || (h === 0 && n % skip !== 0)) continue;
      const name = perDay > 60 ? 'ccc d LLL' : perDay > 34 ? 'ccc d' : 'd LLL';
      out.push({ at, text: h === 0 ? day.toFormat(name) : day.set({ hour: h }).toFormat('HH'), day: h === 0 });
    }
  return out;
}
