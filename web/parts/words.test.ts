import { Settings } from 'luxon';
import { beforeEach, describe, expect, it } from 'vitest';
import { checkConditions } from '#core/air/conditions';
import { breakWords, dateWords, daysTo, dayWords, momentWords, spanWords, timerWords, timeWords } from './words';
import { fromGrid, toGrid } from '../places/sheets/grid';
import { sheet } from '#core/sheet/example.fixture';

const at = Date.UTC(2026, 2, 28, 12, 0);
const H = 3_600_000;
const zone = 'Europe/Lisbon';

// What the browser's language sets.
beforeEach(() => void (Settings.defaultLocale = 'en-GB'));

describe('times in words', () => {
  it('has day and month in the order of the reader', () => {
    expect(momentWords(at, zone)).toBe('Sat 28 Mar 2026, 12:00');
    Settings.defaultLocale = 'en-US';
    expect(timeWords(at + 240 * H, at, zone)).toBe('Apr 7 13:00');
    expect(dateWords(at, zone)).toBe('Mar 28, 2026');
    expect(dayWords('2026-04-07', zone)).toBe('Tue Apr 7');
  });
  it('names the day as far off as it is, in the boat’s zone, over a clock change', () => {
    expect(timeWords(at + 2 * H, at, zone)).toBe('14:00');
    // Clocks go forward in the night: 24 hours on it is an hour later by the clock.
    expect(timeWords(at + 24 * H, at, zone)).toBe('tomorrow 13:00');
    expect(timeWords(at - 24 * H, at, zone)).toBe('yesterday 12:00');
    expect(timeWords(at + 72 * H, at, zone)).toBe('Tue 13:00');
    expect(timeWords(at + 240 * H, at, zone)).toBe('7 Apr 13:00');
    expect(timeWords(Date.UTC(2026, 2, 29, 7, 30), at, 'America/Los_Angeles')).toBe('tomorrow 00:30');
  });
  it('counts civil days, not hours', () => {
    expect(daysTo('2026-03-29', at, zone)).toBe(1);
    expect(daysTo('2026-03-28', at, zone)).toBe(0);
    expect(daysTo('2026-03-20', at, zone)).toBe(-8);
  });
  it('tells spans and timers', () => {
    expect(spanWords(134 * 60_000)).toBe('2\u00a0h\u00a014\u00a0min');
    expect(spanWords(60 * H)).toBe('2\u00a0d\u00a012\u00a0h');
    expect(spanWords(-5)).toBe('0\u00a0min');
    expect(spanWords(Infinity)).toBe('no end');
    expect(timerWords(2 * H + 13 * 60_000 + 9000)).toBe('02:13:09');
    expect(timerWords(-65_000)).toBe('−00:01:05');
  });
  it('says what is wrong with the air in the units chosen, a spread without an offset', () => {
    const broken = { limit: 'spread', found: 1.8, needs: 3, usual: false, caution: false } as const;
    expect(breakWords({ ...broken, usual: true }, { system: 'metric' })).toBe(
      'too damp: spread 1.8 °C, usually needs 3.0 °C',
    );
    expect(breakWords(broken, { system: 'metric' })).toBe('too damp: spread 1.8 °C, needs 3.0 °C');
    expect(breakWords(broken, { system: 'us' })).toBe('too damp: spread 3.2 °F, needs 5.4 °F');
  });
  it('what is told as broken never reads like its limit, in either system', () => {
    const limits = { airMinC: 8, airMaxC: 35, surfaceMinC: 8, surfaceMaxC: 35, rhMax: 0.85, spreadMinC: 3 };
    let told = 0;
    for (let step = -200; step <= 200; step += 1) {
      const off = step / 4000;
      for (const conditions of [
        { airC: 20, rh: 0.6, surfaceC: 12.0044 + 3 + off },
        { airC: 20, rh: 0.85 + off, surfaceC: 25 },
        { airC: 8 + off, rh: 0.5, surfaceC: 12 },
        { airC: 20, rh: 0.5, surfaceC: 35 + off },
        { airC: 20, rh: 0.5, surfaceC: 20, windMs: 8 + off },
      ])
        for (const broken of checkConditions({ conditions, limits, method: 'roller' }).breaks)
          for (const system of ['metric', 'us'] as const) {
            const [found, needs] = breakWords(broken, { system }).match(/-?[\d.]+/g) ?? [];
            expect(found, JSON.stringify({ broken, system })).not.toBe(needs);
            told += 1;
          }
    }
    expect(told).toBeGreaterThan(1000);
  });
});

describe('the time grid of a sheet', () => {
  it('turns a sheet into texts and back into the same tables', () => {
    const { potLife, touchDry, sandable, immersion, fullCure, overcoat } = sheet;
    expect(fromGrid(toGrid(sheet))).toEqual({ potLife, touchDry, sandable, immersion, fullCure, overcoat });
  });
  it('reads units, leaves empty cells out and marks what it cannot read', () => {
    const grid = {
      temps: [10, 20],
      rows: { potLife: ['', '90 min'], touchDry: ['soon', '2'] },
      overcoat: [
        { after: 'any' as const, alwaysAbrade: false, minimum: ['', ''], tackLimit: ['', '1 month'], maximum: [] },
      ],
    };
    const tables = fromGrid(grid);
    expect(tables.potLife).toEqual([{ tempC: 20, hours: 1.5 }]);
    expect(tables.touchDry?.[0]?.hours).toBeNaN();
    expect(tables.overcoat[0]).toMatchObject({ minimum: [], tackLimit: [{ tempC: 20, hours: 730 }] });
    expect(tables.sandable).toBeNull();
  });
});
