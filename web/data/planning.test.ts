import { DateTime } from 'luxon';
import { describe, expect, it } from 'vitest';
import type { Hand } from '#core/model/jobPlan';
import { USUAL_RULES } from '#contracts/rows/stores';
import { handsOf, handSpans, heatOf, launchAt, planDays, shedSpans } from './planning';
import type { BoatView } from './store';

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
    expect([planDays(null, at), planDays(at, at - 40 * DAY), planDays(at, at - 400 * DAY)]).toEqual([21, 47, 180]);
  });
});

describe('shelter', () => {
  const at = Date.UTC(2026, 4, 14);
  const shelter = (more: object) => ({
    id: 's',
    zoneIds: [],
    from: at,
    to: at + 10 * 3_600_000,
    cover: 'tent' as const,
    heatedToC: 20,
    driedToRh: null,
    ...more,
  });
  const view = {
    at,
    boat: { name: 'Her', place: 'Quay', timeZone: 'Etc/UTC', latitudeDeg: 50 },
    hours: Array.from({ length: 48 }, (_, i) => ({ at: at + i * 3_600_000, airC: 10, rh: 0.7, source: 'typed' })),
  } as unknown as BoatView;

  it('a heater costs its degrees, its hours, what the tent loses and what a kWh costs', () => {
    // 10 °C for 10 h through 200 W/°C: 100 °C·h, 20 kWh, at 0.25 each 5.00. By hand.
    const heat = { wattsPerC: 200, priceMinorPerKWh: 25 };
    expect(heatOf(view, [shelter({})], { heat })).toEqual({ degreeHours: 100, kWh: 20, costMinor: 500 });
    // Five hours of it are over.
    const later = { ...view, at: at + 5 * 3_600_000 } as BoatView;
    expect(heatOf(later, [shelter({})], { heat }).kWh).toBe(10);
    expect(heatOf(view, [shelter({ heatedToC: null })], { heat }).costMinor).toBe(0);
    expect(heatOf(view, [shelter({ heatedToC: 5 })], { heat }).costMinor).toBe(0);
  });

  it('the shed of two boats at once is named on both', () => {
    const boat = (name: string, from: number, to: number) =>
      ({
        boat: { name },
        jobs: [{ planning: { shelters: [shelter({ id: name, from, to, cover: 'building' })] } }],
      }) as never;
    const spans = shedSpans([boat('A', 0, 10), boat('B', 5, 12), boat('C', 12, 20)]);
    expect(spans.map((s) => [s.boat, s.with])).toEqual([
      ['A', ['B']],
      ['B', ['A']],
      ['C', []],
    ]);
  });
});
