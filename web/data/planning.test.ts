import { DateTime } from 'luxon';
import { describe, expect, it } from 'vitest';
import type { Hand } from '#core/model/jobPlan';
import { USUAL_RULES } from '#contracts/rows/stores';
import { handsOf, handSpans, launchAt, planDays } from './planning';

const DAY = 86_400_000;
const hand: Hand = {
  name: 'Iris',
  fromMin: 480,
  toMin: 1080,
  weekdays: [1, 2, 3, 4, 5, 6, 7],
  off: [],
  perHourMinor: null,
  pace: 1,
};

describe('hours of people, in the boat’s own time', () => {
  // Days on which clocks change, by the rules of each place [P: IANA time zone database].
  it.each([
    ['Europe/London', '2026-03-29'],
    ['Europe/London', '2026-10-25'],
    ['America/New_York', '2026-03-08'],
    ['America/New_York', '2026-11-01'],
    // Half an hour.
    ['Australia/Lord_Howe', '2026-04-05'],
    ['Australia/Lord_Howe', '2026-10-04'],
    // No change, but half an hour off.
    ['Asia/Kolkata', '2026-03-29'],
  ])('in %s around %s a day begins at eight and ends at six, whatever the clocks do', (timeZone, date) => {
    const now = DateTime.fromISO(date, { zone: timeZone }).minus({ days: 1 }).set({ hour: 12 }).toMillis();
    const spans = handSpans(hand, { now, days: 3, timeZone });
    expect(spans.length).toBeGreaterThanOrEqual(4);
    for (const { from, to } of spans) {
      expect(DateTime.fromMillis(from, { zone: timeZone }).toFormat('HH:mm')).toBe('08:00');
      expect(DateTime.fromMillis(to, { zone: timeZone }).toFormat('HH:mm')).toBe('18:00');
      expect(to - from).toBe(10 * 3_600_000);
    }
  });

  it('a night shift over the change of clocks is as long as it is', () => {
    const night = { ...hand, fromMin: 0, toMin: 1440 };
    const long = (date: string) => {
      const now = DateTime.fromISO(date, { zone: 'Europe/London' }).toMillis();
      const [first] = handSpans(night, { now, days: 1, timeZone: 'Europe/London' });
      return (first!.to - first!.from) / 3_600_000;
    };
    expect([long('2026-03-29'), long('2026-10-25'), long('2026-06-01')]).toEqual([23, 25, 24]);
  });

  it('days off and days of the week are left out', () => {
    const now = Date.UTC(2026, 4, 11, 6);
    const off = { ...hand, weekdays: [1, 2, 3, 4, 5], off: [{ from: '2026-05-13', to: '2026-05-14' }] };
    const days = handSpans(off, { now, days: 7, timeZone: 'Etc/UTC' }).map((s) => new Date(s.from).getUTCDate());
    expect(days).toEqual([11, 12, 15, 18, 19]);
  });

  it('where nobody was named there is one painter, in the yard’s working day', () => {
    expect(handsOf(USUAL_RULES)).toMatchObject([{ fromMin: 480, toMin: 1080, pace: 1 }]);
    expect(handsOf({ ...USUAL_RULES, hands: [hand] })).toEqual([hand]);
  });

  it('a launch is in the morning of its day, and a plan reaches a week past it', () => {
    const at = launchAt('2026-10-25', 'Europe/London')!;
    expect(DateTime.fromMillis(at, { zone: 'Europe/London' }).toFormat('yyyy-LL-dd HH:mm')).toBe('2026-10-25 08:00');
    expect(launchAt(null, 'Europe/London')).toBeNull();
    expect([planDays(null, at), planDays(at, at - 40 * DAY), planDays(at, at - 400 * DAY)]).toEqual([21, 47, 120]);
  });
});
