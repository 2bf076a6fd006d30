import { describe, expect, it } from 'vitest';
import { dewPointC, FORECAST_DAYS, memberOf, simulateForecast } from '../index';

const H = 3_600_000;
const D = 24 * H;
const T0 = Date.UTC(2026, 4, 1);
const PLACE = { seed: 'Sallow Haven', latitudeDeg: 28, utcOffsetH: 0 };
const run = (from: number, to: number, issuedAt: number, at = PLACE) =>
  simulateForecast({ ...at, from, hours: (to - from) / H + 1, issuedAt });
const issueTime = (at: number) => Math.floor(at / (6 * H)) * 6 * H;

describe('the weather simulator', () => {
  const year = run(T0, T0 + 365 * D, T0 + 365 * D);
  it('is the same every time for a place, and another one elsewhere', () => {
    expect(run(T0, T0 + D, T0)).toEqual(run(T0, T0 + D, T0));
    expect(run(T0, T0 + D, T0)).not.toEqual(run(T0, T0 + D, T0, { ...PLACE, seed: 'Elsewhere' }));
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
      const at = { seed: name, latitudeDeg: 50, utcOffsetH: 0 };
      const spring = run(Date.UTC(2026, 2, 1), Date.UTC(2026, 5, 1), Date.UTC(2026, 5, 1), at);
      const mean = spring.reduce((sum, h) => sum + h.rh, 0) / spring.length;
      expect(mean).toBeGreaterThan(0.75);
      expect(mean).toBeLessThan(0.85);
      const rain = spring.filter((h) => (h.rainMm ?? 0) > 0);
      expect(rain.length).toBeGreaterThan(20);
      for (const hour of rain) expect(hour.rh).toBeGreaterThan(0.8);
    }
  });
  it('goes on as a typical year beyond sixteen days, and is revised from issue to issue', () => {
    const told = run(T0, T0 + 40 * D, T0);
    const later = run(T0 + 20 * D, T0 + 40 * D, T0 + 6 * H);
    const beyond = (hours: typeof told) =>
      hours.filter((h) => h.at > T0 + (FORECAST_DAYS + 1) * D && h.at > T0 + 20 * D);
    expect(beyond(told)).toEqual(beyond(later));
    expect(told.slice(24, 240)).not.toEqual(run(T0 + D, T0 + 10 * D - H, T0 + 6 * H));
  });
});

describe('the weathers that a forecast allows', () => {
  const hours = run(T0, T0 + 12 * D, T0);
  const members = Array.from({ length: 200 }, (_, m) => memberOf(hours, { seed: 'odds', issuedAt: T0, member: m + 1 }));
  const mean = (list: readonly number[]) => list.reduce((sum, x) => sum + x, 0) / list.length;

  it('are the same again from the same seed, another each, and told by the forecast itself', () => {
    expect(memberOf(hours, { seed: 'odds', issuedAt: T0, member: 1 })).toEqual(members[0]);
    expect(members[0]).not.toEqual(members[1]);
    expect(simulateForecast({ ...PLACE, from: T0, hours: hours.length, issuedAt: T0, member: 4 })).toEqual(
      memberOf(hours, { seed: PLACE.seed, issuedAt: T0, member: 4 }),
    );
  });
  it('are physical: humidity a share, no dew point above the air, warmest in the afternoon over the days', () => {
    for (const member of members.slice(0, 40)) {
      const at = (hour: number) => mean(member.filter((h) => new Date(h.at).getUTCHours() === hour).map((h) => h.airC));
      expect(at(15)).toBeGreaterThan(at(5));
      for (const hour of member) {
        expect(hour.rh).toBeGreaterThan(0);
        expect(hour.rh).toBeLessThanOrEqual(1);
        expect(dewPointC(hour)).toBeLessThanOrEqual(hour.airC + 0.005);
      }
    }
  });
  it('lie about the forecast: their mean near it, their distance from it growing with the days ahead', () => {
    const spread = (i: number) => {
      const values = members.map((m) => m[i]!.airC);
      return Math.sqrt(mean(values.map((v) => (v - mean(values)) ** 2)));
    };
    for (let i = 0; i < hours.length; i += 7)
      expect(Math.abs(mean(members.map((m) => m[i]!.airC)) - hours[i]!.airC)).toBeLessThan(0.35);
    expect(spread(0)).toBeCloseTo(0, 9);
    const days = [0, 1, 2, 3, 4].map((d) => mean(Array.from({ length: 24 }, (_, h) => spread(d * 24 + h))));
    days.slice(1).forEach((s, d) => expect(s).toBeGreaterThan(days[d]!));
    // No further off than a forecast is found to be against what came. [common practice: a day and a half to three degrees after five days]
    expect(mean(Array.from({ length: 24 }, (_, h) => spread(6 * 24 + h)))).toBeLessThan(3);
    const wet = (list: readonly { rainMm?: number }[]) => mean(list.map((h) => ((h.rainMm ?? 0) > 0 ? 1 : 0)));
    expect(Math.abs(mean(members.map((m) => wet(m))) - wet(hours))).toBeLessThan(0.05);
  });
  it('says what cannot be', () => {
    expect(() => run(T0, T0 + D, NaN)).toThrow(/date and time/);
    expect(() => run(T0, T0 + D, T0, { ...PLACE, latitudeDeg: 120 })).toThrow(/latitude/);
  });
});
