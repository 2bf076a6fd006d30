import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  hoursAtTemperature,
  milestoneAt,
  overcoatWindow,
  progressAt,
  sandableAt,
  surfaceSeries,
  windowAfterHandTests,
  type TempSample,
  type TimeTable,
} from '../index';

const H = 3_600_000;
const T0 = Date.UTC(2026, 4, 1);
const steady = (tempC: number, hours = 400): TempSample[] => [
  { at: T0, tempC },
  { at: T0 + hours * H, tempC },
];

const table: TimeTable = [
  { tempC: 5, hours: 24 },
  { tempC: 15, hours: 10 },
  { tempC: 25, hours: 5 },
];

describe('time at a temperature', () => {
  it('is the sheet itself at its columns', () => {
    for (const column of table) {
      expect(hoursAtTemperature({ table, tempC: column.tempC, kind: 'minimum' })).toBeCloseTo(column.hours, 10);
      expect(hoursAtTemperature({ table, tempC: column.tempC, kind: 'maximum' })).toBeCloseTo(column.hours, 10);
    }
  });
  it('follows Arrhenius between columns: k = A·exp(−Ea/RT) from two points in closed form [P: Arrhenius 1889]', () => {
    const R = 8.314462618;
    const k1 = 1 / 24;
    const k2 = 1 / 10;
    const Ea = (R * Math.log(k2 / k1)) / (1 / 278.15 - 1 / 288.15);
    const A = k1 * Math.exp(Ea / (R * 278.15));
    for (const tempC of [6, 8.5, 11, 14]) {
      const closedForm = 1 / (A * Math.exp(-Ea / (R * (tempC + 273.15))));
      expect(hoursAtTemperature({ table, tempC, kind: 'minimum' })).toBeCloseTo(closedForm, 9);
    }
  });
  it('errs to the safe side outside the columns', () => {
    expect(hoursAtTemperature({ table, tempC: 35, kind: 'minimum' })).toBe(5);
    expect(hoursAtTemperature({ table, tempC: 35, kind: 'maximum' })).toBeLessThan(5);
    expect(hoursAtTemperature({ table, tempC: 0, kind: 'minimum' })).toBeGreaterThan(24);
    expect(hoursAtTemperature({ table, tempC: 0, kind: 'maximum' })).toBe(24);
  });
  it('stands still below the cure temperature, for a minimum only', () => {
    expect(hoursAtTemperature({ table, tempC: 4, kind: 'minimum', minCureC: 5 })).toBe(Infinity);
    expect(hoursAtTemperature({ table, tempC: 5, kind: 'minimum', minCureC: 5 })).toBeCloseTo(24, 10);
    expect(hoursAtTemperature({ table, tempC: 4, kind: 'maximum', minCureC: 5 })).toBe(24);
  });
  it('doubles the rate for 10 °C from a single figure [CP]', () => {
    const one = [{ tempC: 20, hours: 4 }];
    expect(hoursAtTemperature({ table: one, tempC: 10, kind: 'minimum' })).toBeCloseTo(8, 10);
    expect(hoursAtTemperature({ table: one, tempC: 0, kind: 'minimum' })).toBeCloseTo(16, 10);
    expect(hoursAtTemperature({ table: one, tempC: 30, kind: 'minimum' })).toBe(4);
    expect(hoursAtTemperature({ table: one, tempC: 30, kind: 'maximum' })).toBeCloseTo(2, 10);
    expect(hoursAtTemperature({ table: one, tempC: 10, kind: 'maximum' })).toBe(4);
  });
  it.each([
    [[], /time table is empty/],
    [[{ tempC: 20, hours: 0 }], /more than zero/],
    [[{ tempC: 20, hours: -3 }], /more than zero/],
    [[{ tempC: Number.NaN, hours: 3 }], /must be a number/],
    [
      [
        { tempC: 20, hours: 3 },
        { tempC: 20, hours: 4 },
      ],
      /20 °C twice/,
    ],
    [[{ tempC: -300, hours: 3 }], /absolute zero/],
  ] as [TimeTable, RegExp][])('refuses the table %o', (bad, message) => {
    expect(() => hoursAtTemperature({ table: bad, tempC: 20, kind: 'minimum' })).toThrow(RangeError);
    expect(() => hoursAtTemperature({ table: bad, tempC: 20, kind: 'minimum' })).toThrow(message);
  });
});

describe('milestones on a changing temperature', () => {
  it('at a constant temperature is the table', () => {
    expect(milestoneAt({ table, kind: 'minimum', appliedAt: T0, temps: steady(15) })).toBe(T0 + 10 * H);
  });
  it('adds up two constant steps by hand: 6 h of 24 at 5 °C is a quarter, the rest of 10 h at 15 °C', () => {
    const temps = [
      { at: T0, tempC: 5 },
      { at: T0 + 6 * H, tempC: 5 },
      { at: T0 + 6 * H + 1, tempC: 15 },
      { at: T0 + 90 * H, tempC: 15 },
    ];
    const at = milestoneAt({ table, kind: 'minimum', appliedAt: T0, temps }) as number;
    expect(Math.abs(at - (T0 + 13.5 * H))).toBeLessThan(100);
  });
  it('stops the clock of a minimum through a cold night, not that of a maximum', () => {
    const temps = [
      { at: T0, tempC: 15 },
      { at: T0 + 4 * H, tempC: 15 },
      { at: T0 + 4 * H + 1, tempC: 2 },
      { at: T0 + 14 * H, tempC: 2 },
      { at: T0 + 14 * H + 1, tempC: 15 },
      { at: T0 + 60 * H, tempC: 15 },
    ];
    const minimum = milestoneAt({ table, kind: 'minimum', appliedAt: T0, temps, minCureC: 5 }) as number;
    expect(Math.abs(minimum - (T0 + 20 * H))).toBeLessThan(100);
    const maximum = milestoneAt({ table, kind: 'maximum', appliedAt: T0, temps, minCureC: 5 }) as number;
    expect(Math.abs(maximum - (T0 + (14 + 10 * (1 - 0.4 - 10 / 24)) * H))).toBeLessThan(200);
  });
  it('is null when the weather ends first, and refuses weather that starts too late', () => {
    expect(milestoneAt({ table, kind: 'minimum', appliedAt: T0, temps: steady(15, 9.9) })).toBeNull();
    expect(milestoneAt({ table, kind: 'minimum', appliedAt: T0, temps: [] })).toBeNull();
    expect(() => milestoneAt({ table, kind: 'minimum', appliedAt: T0 - 1, temps: steady(15) })).toThrow(
      /start after the coat/,
    );
    expect(() => milestoneAt({ table, kind: 'minimum', appliedAt: T0, temps: [...steady(15)].reverse() })).toThrow(
      RangeError,
    );
    expect(() =>
      milestoneAt({
        table,
        kind: 'minimum',
        appliedAt: T0,
        temps: [
          { at: T0, tempC: 15 },
          { at: T0 + H, tempC: Number.NaN },
        ],
      }),
    ).toThrow(/temperature of the series is missing/);
    expect(() => milestoneAt({ table, kind: 'minimum', appliedAt: Number.NaN, temps: steady(15) })).toThrow(RangeError);
  });

  // Hourly normals of a real town, °C [NOAA 1981–2010 normals; see fixtures/README.md].
  const csv = readFileSync(new URL('fixtures/hourly-normals.csv', import.meta.url), 'utf8');
  const [head, ...rows] = csv.trim().split('\n');
  const column = (head as string).split(',').indexOf('temperature');
  const normals: TempSample[] = rows.map((row, i) => ({ at: T0 + i * H, tempC: Number(row.split(',')[column]) }));

  it('agrees with an independent fine-step integration on real hourly temperatures', () => {
    expect(normals.length).toBeGreaterThan(8000);
    expect(normals.every((s) => Number.isFinite(s.tempC))).toBe(true);
    // Written apart from the core: own interpolation in 1/T, midpoint steps of ten seconds.
    const rate = (tempC: number, kind: 'minimum' | 'maximum') => {
      const K = (c: number) => 1 / (c + 273.15);
      if (kind === 'minimum' && tempC < 6) return 0;
      if (kind === 'minimum' && tempC >= 25) return 1 / 5;
      if (kind === 'maximum' && tempC <= 5) return 1 / 24;
      const [a, b] = tempC < 15 ? [table[0], table[1]] : [table[1], table[2]];
      const f = (K(tempC) - K(a!.tempC)) / (K(b!.tempC) - K(a!.tempC));
      return 1 / (a!.hours ** (1 - f) * b!.hours ** f);
    };
    for (const start of [10, 1003, 2500, 4321, 6000, 8000]) {
      for (const kind of ['minimum', 'maximum'] as const) {
        const appliedAt = T0 + start * H + 17 * 60_000;
        let p = 0;
        let at = appliedAt;
        while (p < 1) {
          const mid = at + 5000;
          const i = Math.floor((mid - T0) / H);
          const f = (mid - T0) / H - i;
          p += rate(normals[i]!.tempC * (1 - f) + normals[i + 1]!.tempC * f, kind) * (10 / 3600);
          at += 10_000;
        }
        const ours = milestoneAt({ table, kind, appliedAt, temps: normals, minCureC: 6 }) as number;
        expect(Math.abs(ours - at)).toBeLessThan(60_000);
      }
    }
  });
  it('progress is the share of the sheet’s own time at a steady temperature of its table', () => {
    for (const { tempC, hours } of table) {
      const temps = Array.from({ length: Math.ceil(hours) + 3 }, (_, i) => ({ at: T0 + i * H, tempC }));
      for (const share of [0.25, 0.5, 1])
        expect(progressAt({ table, kind: 'minimum', appliedAt: T0, temps, at: T0 + share * hours * H })).toBeCloseTo(
          share,
          6,
        );
      expect(((milestoneAt({ table, kind: 'minimum', appliedAt: T0, temps }) as number) - T0) / H).toBeCloseTo(
        hours,
        4,
      );
    }
  });
  it('warmer is never later', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -5, max: 40, noNaN: true }), { minLength: 30, maxLength: 60 }),
        fc.double({ min: 0, max: 15, noNaN: true }),
        fc.constantFrom('minimum' as const, 'maximum' as const),
        (airs, warmer, kind) => {
          const series = (add: number) => airs.map((c, i) => ({ at: T0 + i * H, tempC: c + add }));
          const cool = milestoneAt({ table, kind, appliedAt: T0, temps: series(0), minCureC: 5 });
          const warm = milestoneAt({ table, kind, appliedAt: T0, temps: series(warmer), minCureC: 5 });
          if (cool !== null) expect(warm as number).toBeLessThanOrEqual(cool + 1);
        },
      ),
    );
  });
});

const minimum: TimeTable = [
  { tempC: 10, hours: 10 },
  { tempC: 20, hours: 5 },
  { tempC: 30, hours: 3 },
];
const tackLimit: TimeTable = [
  { tempC: 10, hours: 48 },
  { tempC: 20, hours: 24 },
  { tempC: 30, hours: 12 },
];

describe('overcoat window', () => {
  it('counts the minimum from the last panel and the limits from the first', () => {
    const window = overcoatWindow({
      startedAt: T0,
      finishedAt: T0 + 3 * H,
      temps: steady(20),
      minimum,
      tackLimit,
      maximum: [{ tempC: 20, hours: 100 }],
    });
    expect(window).toMatchObject({ opensAt: T0 + 8 * H, bondsUntil: T0 + 24 * H, closesAt: T0 + 100 * H, bonds: true });
    expect(window.status).toEqual({ opensAt: 'reached', bondsUntil: 'reached', closesAt: 'reached' });
    expect(window.estimated).toBe(true);
  });
  it('tells what is not on the sheet from what the weather does not reach', () => {
    const window = overcoatWindow({ startedAt: T0, finishedAt: T0 + H, temps: steady(20, 10), minimum, tackLimit });
    expect(window.status).toEqual({ opensAt: 'reached', bondsUntil: 'beyondSeries', closesAt: 'notOnSheet' });
    expect(window.bondsUntil).toBeNull();
    expect(window.estimated).toBe(false);
  });
  it('has no bonding window when the cold stops the minimum but not the tack limit', () => {
    const temps = [...Array(240)].map((_, i) => ({ at: T0 + i * H, tempC: 4 }));
    const window = overcoatWindow({ startedAt: T0, finishedAt: T0 + H, temps, minimum, tackLimit, minCureC: 5 });
    expect(window).toMatchObject({ opensAt: null, bondsUntil: T0 + 48 * H, bonds: false });
  });
  it('refuses a finish before the start', () => {
    expect(() => overcoatWindow({ startedAt: T0 + H, finishedAt: T0, temps: steady(20), minimum })).toThrow(
      /finished before it started/,
    );
  });
  it('inside the columns and above the lowest cure temperature, a minimum is not after its limit', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 10, max: 30, noNaN: true }), { minLength: 60, maxLength: 60 }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (airs, applyH) => {
          const temps = airs.map((tempC, i) => ({ at: T0 + i * H, tempC }));
          const window = overcoatWindow({
            startedAt: T0,
            finishedAt: T0 + applyH * H,
            temps,
            minimum,
            tackLimit,
            minCureC: 5,
          });
          if (window.opensAt !== null && window.bondsUntil !== null)
            expect(window.opensAt).toBeLessThanOrEqual(window.bondsUntil);
        },
      ),
    );
  });
});

describe('hand tests', () => {
  const coat = { startedAt: T0, finishedAt: T0 + H, temps: steady(20), minimum, tackLimit };
  const thumb = (hours: number, passed: boolean) => ({ test: 'thumb' as const, at: T0 + hours * H, passed });

  it('an early print opens the window then and shortens the tack time by as much as the table says remains', () => {
    const window = windowAfterHandTests({ ...coat, tests: [thumb(4, true)] });
    expect(window.opensAt).toBe(T0 + 4 * H);
    // At 20 °C the limit is 24 h and the minimum 5 h, so 19 h are left from the print.
    expect(Math.abs((window.bondsUntil as number) - (T0 + 23 * H))).toBeLessThan(1000);
    expect(window.handTest?.passed).toBe(true);
  });
  it('a late print on a slow coat runs on from there', () => {
    const window = windowAfterHandTests({ ...coat, tests: [thumb(12, true)] });
    expect(window.opensAt).toBe(T0 + 12 * H);
    expect(Math.abs((window.bondsUntil as number) - (T0 + 31 * H))).toBeLessThan(1000);
  });
  it('the first print proves the minimum; a later one says still in it and moves nothing', () => {
    const once = windowAfterHandTests({ ...coat, tests: [thumb(6, true)] });
    const twice = windowAfterHandTests({ ...coat, tests: [thumb(6, true), thumb(23, true)] });
    expect(twice).toMatchObject({ opensAt: once.opensAt, bondsUntil: once.bondsUntil, byHandUntil: null });
    // Worked by hand: at 20 °C minimum 5 h and limit 24 h, so 19 h are left from the print at 6 h.
    expect(Math.abs((twice.bondsUntil as number) - (T0 + 25 * H))).toBeLessThan(1000);
    // A test that failed in between starts it anew.
    const anew = windowAfterHandTests({ ...coat, tests: [thumb(6, true), thumb(7, false), thumb(9, true)] });
    expect(anew.opensAt).toBe(T0 + 9 * H);
  });
  it('a print past the worked-out limit lets the coat go on by hand, and keeps both times', () => {
    const window = windowAfterHandTests({ ...coat, tests: [thumb(6, true), thumb(31, true)] });
    expect(Math.abs((window.bondsUntil as number) - (T0 + 25 * H))).toBeLessThan(1000);
    expect(window.byHandUntil).toBe(T0 + 34 * H); // a tenth of the 30 h since the finish
    const only = windowAfterHandTests({ ...coat, tests: [thumb(31, true)] });
    expect(Math.abs((only.bondsUntil as number) - (T0 + 24 * H))).toBeLessThan(1000);
    expect(only).toMatchObject({ opensAt: T0 + 6 * H, byHandUntil: T0 + 34 * H });
  });
  it('one that fails keeps it shut until it is worth trying again', () => {
    const window = windowAfterHandTests({ ...coat, tests: [thumb(8, false)] });
    expect(window.opensAt).toBe(T0 + 8.7 * H);
    expect(window.estimated).toBe(true);
  });
  it('the latest test counts, and one before the finish does not', () => {
    expect(windowAfterHandTests({ ...coat, tests: [thumb(8, false), thumb(9, true)] }).opensAt).toBe(T0 + 9 * H);
    expect(windowAfterHandTests({ ...coat, tests: [thumb(9, false), thumb(9, true)] }).opensAt).toBe(T0 + 9 * H);
    expect(windowAfterHandTests({ ...coat, tests: [thumb(0.5, true)] }).opensAt).toBe(T0 + 6 * H);
    expect(windowAfterHandTests({ ...coat, tests: [] })).toMatchObject({ opensAt: T0 + 6 * H, handTest: null });
  });
  it('in cold that stops the table the hand still opens it', () => {
    const window = windowAfterHandTests({ ...coat, temps: steady(3), minCureC: 5, tests: [thumb(30, true)] });
    expect(window.opensAt).toBe(T0 + 30 * H);
    expect(window.bondsUntil).toBeGreaterThan(T0 + 30 * H);
    expect(window.bonds).toBe(true);
  });
  it('sanding: by the sheet, by hand when it powders, later when it gums', () => {
    const options = { finishedAt: T0, temps: steady(20), table: [{ tempC: 20, hours: 16 }] };
    expect(sandableAt({ ...options, tests: [] })).toEqual({ at: T0 + 16 * H, by: 'sheet', tryAgain: false });
    expect(sandableAt({ ...options, tests: [{ test: 'sanding', at: T0 + 12 * H, passed: true }] })).toEqual({
      at: T0 + 12 * H,
      by: 'hand',
      tryAgain: false,
    });
    expect(sandableAt({ ...options, tests: [{ test: 'sanding', at: T0 + 20 * H, passed: false }] })).toEqual({
      at: T0 + 22 * H,
      by: 'hand',
      tryAgain: true,
    });
    expect(sandableAt({ finishedAt: T0, temps: steady(20), tests: [] })).toEqual({
      at: null,
      by: 'notOnSheet',
      tryAgain: false,
    });
  });
});

it('a window on a real series needs the night that a straight line between readings would skip', () => {
  const weather = Array.from({ length: 72 }, (_, i) => ({
    at: T0 + i * H,
    airC: 12 + 7 * Math.sin(((i - 9) / 24) * 2 * Math.PI),
  }));
  const readings = [
    { at: T0 + 15 * H, surfaceC: 20 },
    { at: T0 + 39 * H, surfaceC: 20 },
  ];
  const temps = surfaceSeries({ weather, readings });
  const real = milestoneAt({ table: minimum, kind: 'minimum', appliedAt: T0 + 20 * H, temps }) as number;
  const line = milestoneAt({
    table: minimum,
    kind: 'minimum',
    appliedAt: T0 + 20 * H,
    temps: readings.map((r) => ({ at: r.at, tempC: r.surfaceC })),
  }) as number;
  expect(real - line).toBeGreaterThan(1.5 * H);
});
