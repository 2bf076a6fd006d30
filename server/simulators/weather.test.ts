import { describe, expect, it } from 'vitest';
import { dewPointC } from '#core/air/dewPoint';
import { issueTime, simulateWeather } from './weather';

const H = 3_600_000;
const D = 24 * H;
const place = { name: 'Sallow Haven', latitudeDeg: 28, utcOffsetH: 0 };
const T0 = Date.UTC(2026, 4, 1);
const run = (from: number, to: number, issuedAt: number, at = place) =>
  simulateWeather({ place: at, from, to, issuedAt });

describe('the weather simulator', () => {
  const year = run(T0, T0 + 365 * D, T0 + 365 * D);
  it('is the same every time for a place, and another one elsewhere', () => {
    expect(run(T0, T0 + D, T0)).toEqual(run(T0, T0 + D, T0));
    expect(run(T0, T0 + D, T0)).not.toEqual(run(T0, T0 + D, T0, { ...place, name: 'Elsewhere' }));
  });
  it('stays physical: air never below its dew point, no sun at night, humidity a share', () => {
    for (const hour of year) {
      expect(hour.rh).toBeGreaterThan(0.1);
      expect(hour.rh).toBeLessThanOrEqual(1);
      expect(dewPointC(hour)).toBeLessThanOrEqual(hour.airC);
      if (new Date(hour.at).getUTCHours() < 3) expect(hour.sunWm2).toBe(0);
      if ((hour.rainMm ?? 0) > 0) expect(hour.cloud).toBeGreaterThan(0.4);
    }
  });
  it('has warmer afternoons than dawns, warmer summers than winters, and some rain', () => {
    const mean = (pick: (h: (typeof year)[number]) => boolean) => {
      const list = year.filter(pick);
      return list.reduce((sum, h) => sum + h.airC, 0) / list.length;
    };
    const hour = (h: { at: number }) => new Date(h.at).getUTCHours();
    const month = (h: { at: number }) => new Date(h.at).getUTCMonth();
    expect(mean((h) => hour(h) === 15)).toBeGreaterThan(mean((h) => hour(h) === 4) + 3);
    expect(mean((h) => month(h) === 6)).toBeGreaterThan(mean((h) => month(h) === 0) + 5);
    const wet = year.filter((h) => (h.rainMm ?? 0) > 0).length / year.length;
    expect(wet).toBeGreaterThan(0.01);
    expect(wet).toBeLessThan(0.3);
  });
  it('is right about the past and less sure the further it looks', () => {
    const truth = new Map(year.map((h) => [h.at, h.airC]));
    const off = { near: 0, far: 0 };
    for (let day = 20; day < 320; day += 3) {
      const issuedAt = issueTime(T0 + day * D);
      const told = run(issuedAt - D, issuedAt + 6 * D, issuedAt);
      for (const hour of told) {
        const error = Math.abs(hour.airC - (truth.get(hour.at) as number));
        if (hour.at <= issuedAt) expect(error).toBe(0);
        else if (hour.at < issuedAt + D) off.near += error;
        else if (hour.at > issuedAt + 5 * D) off.far += error;
      }
    }
    expect(off.far).toBeGreaterThan(3 * off.near);
    expect(off.near).toBeGreaterThan(0);
  });
  it('has the humidity of a maritime spring at 50° N, and rain falls through damp air [common practice: long-time means]', () => {
    for (const name of ['Westhaven', 'Plover Quay', 'Sandgate']) {
      const at = { name, latitudeDeg: 50, utcOffsetH: 0 };
      const spring = run(Date.UTC(2026, 2, 1), Date.UTC(2026, 5, 1), Date.UTC(2026, 5, 1), at);
      const mean = spring.reduce((sum, h) => sum + h.rh, 0) / spring.length;
      expect(mean).toBeGreaterThan(0.75);
      expect(mean).toBeLessThan(0.85);
      const rain = spring.filter((h) => (h.rainMm ?? 0) > 0);
      expect(rain.length).toBeGreaterThan(20);
      for (const hour of rain) expect(hour.rh).toBeGreaterThan(0.8);
    }
  });
});
