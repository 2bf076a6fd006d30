import { DateTime } from 'luxon';
import { describe, expect, it } from 'vitest';
import { filmInTime } from './filmInTime';
import { planCoats } from './planCoats';
import type { PlanProblem } from './problem';
import { planSession } from './session';

const H = 3_600_000;
const table = (hours: number) => [{ tempC: 20, hours }];
const LIMITS = { airMinC: null, airMaxC: null, surfaceMinC: null, surfaceMaxC: null, rhMax: null, spreadMinC: null };

/** A coat on since an evening, twelve hours to the next one and twenty until it must be abraded, at 20 °C all along. */
function overNight(doneAt: number, hands: { from: number; to: number }[]): PlanProblem {
  const now = doneAt;
  const until = now + 60 * H;
  const hours = Array.from({ length: 66 }, (_, i) => doneAt + (i - 3) * H);
  const coat = {
    zone: 'bottom',
    kind: 'coat' as const,
    after: [],
    fresh: [],
    lock: null,
    product: 'primer',
    method: 'roller' as const,
    limits: LIMITS as never,
    touchDry: table(2),
    minCureC: null,
    immersion: null,
  };
  return {
    version: 1,
    gridMin: 15,
    now,
    until,
    slackCapH: 24,
    changeoverMin: 0,
    series: {
      bottom: {
        air: hours.map((at) => ({ at, airC: 20, rh: 0.5 })),
        surface: hours.map((at) => ({ at, tempC: 20 })),
      },
    },
    boats: [{ id: 'boat', launchAt: null }],
    zones: [{ id: 'bottom', boat: 'boat', series: 'bottom', sheltered: true, open: null }],
    painters: [{ id: 'Iris', available: hands }],
    appointments: [],
    notTogether: [],
    tasks: [
      { ...coat, id: 'first', crews: [], over: null, done: { startedAt: doneAt - H, finishedAt: doneAt } },
      {
        ...coat,
        id: 'second',
        crews: [{ painters: ['Iris'], hours: 1 }],
        done: null,
        over: {
          coat: 'first',
          minimum: table(12),
          tackLimit: table(20),
          maximum: null,
          alwaysAbrade: false,
          chained: false,
          sandable: null,
          abrade: null,
        },
      },
    ],
  };
}

describe('a window over a change of clocks', () => {
  // Twelve hours are twelve hours, whatever the clock on the wall does; days of change by the rules of each place
  // [P: IANA time zone database]. From 20:00 the evening before, at a steady 20 °C.
  it.each([
    ['Europe/London', '2026-03-28T20:00', '09:00', '16:00'],
    ['Europe/London', '2026-10-24T20:00', '07:00', '14:00'],
    ['America/New_York', '2026-03-07T20:00', '09:00', '16:00'],
    ['America/New_York', '2026-10-31T20:00', '07:00', '14:00'],
    ['Australia/Lord_Howe', '2026-10-03T20:00', '08:30', '15:30'],
    ['Australia/Lord_Howe', '2026-04-04T20:00', '07:30', '14:30'],
  ])('in %s from %s opens at %s and closes at %s', (zone, evening, opens, bondsUntil) => {
    const doneAt = DateTime.fromISO(evening, { zone }).toMillis();
    const wall = (at: number | null) => DateTime.fromMillis(at ?? NaN, { zone }).toFormat('HH:mm');
    const day = DateTime.fromMillis(doneAt, { zone }).plus({ days: 1 });
    const at = (hour: number) => day.set({ hour, minute: 0 }).toMillis();
    const problem = overNight(doneAt, [{ from: at(8), to: at(18) }]);
    const session = planSession(problem);
    const plan = planCoats(problem, { steps: 5 });
    const [first] = filmInTime(session, plan)['bottom'] ?? [];
    expect([wall(first!.opensAt), wall(first!.bondsUntil)]).toEqual([opens, bondsUntil]);
    // She begins at eight at the soonest, and not before the coat lets her.
    const second = plan.tasks.find((t) => t.id === 'second');
    expect(wall(second!.start)).toBe(opens > '08:00' ? opens : '08:00');
  });
});
