import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Impossible, overcoatWindow, prepareClock, type TempSample, type TimeTable } from '../index';
import { integratedMilestoneAt } from './integrator.fixture';

const H = 3_600_000;
const T0 = Date.UTC(2026, 2, 1);

/** Numbers from a seed, 0 to 1 (mulberry32), so that ten thousand cases are the same ones every time. */
function random(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

function aSeries(r: () => number): TempSample[] {
  const meanC = -4 + 34 * r();
  const swingC = 14 * r();
  const out: TempSample[] = [];
  let at = T0 + Math.round(r() * H);
  for (let i = 0; i < 40 + 460 * r(); i += 1) {
    out.push({ at, tempC: meanC + swingC * Math.sin((at / H / 24) * 2 * Math.PI) + 6 * (r() - 0.5) });
    // Mostly hourly; readings lie between, and now and then hours are missing.
    at += r() < 0.1 ? Math.round(1 + 20 * 60_000 * r()) : r() < 0.05 ? 7 * H : H;
  }
  return out;
}

function aTable(r: () => number): TimeTable {
  const columns = 1 + Math.floor(4 * r());
  let hours = 2 + 200 * r();
  return Array.from({ length: columns }, (_, i) => ({
    tempC: 2 + 9 * i + Math.round(4 * r()),
    hours: (hours *= 0.35 + 0.6 * r()),
  }));
}

describe('a prepared clock', () => {
  it('tells the windows of 10 000 random coats as the integrator walking each series does, to a second', () => {
    const r = random(20_260_514);
    let worst = 0;
    let opened = 0;
    for (let n = 0; n < 2000; n += 1) {
      const temps = aSeries(r);
      const tables = { minimum: aTable(r), tackLimit: aTable(r), maximum: aTable(r) };
      const minCureC = Math.round(10 * r());
      for (let k = 0; k < 5; k += 1) {
        const startedAt = temps[0]!.at + Math.round(r() * 0.6 * (temps[temps.length - 1]!.at - temps[0]!.at));
        const finishedAt = startedAt + Math.round(8 * H * r());
        const got = overcoatWindow({ startedAt, finishedAt, temps, ...tables, minCureC });
        const wanted = [
          integratedMilestoneAt({ table: tables.minimum, kind: 'minimum', appliedAt: finishedAt, temps, minCureC }),
          integratedMilestoneAt({ table: tables.tackLimit, kind: 'maximum', appliedAt: startedAt, temps, minCureC }),
          integratedMilestoneAt({ table: tables.maximum, kind: 'maximum', appliedAt: startedAt, temps, minCureC }),
        ];
        [got.opensAt, got.bondsUntil, got.closesAt].forEach((at, i) => {
          const other = wanted[i] as number | null;
          if (at === null || other === null) expect(at).toBe(other);
          else worst = Math.max(worst, Math.abs(at - other));
        });
        if (got.opensAt !== null) opened += 1;
      }
    }
    expect(worst).toBeLessThan(1000);
    // The cases are worth something: most of them have an answer.
    expect(opened).toBeGreaterThan(3000);
  });

  it('is the closed form at a constant rate and across a jump of it: 4 h at 20 °C, the clock standing still for 3', () => {
    const temps = [0, 2, 2.001, 5, 5.001, 40].map((h, i) => ({ at: T0 + h * H, tempC: i === 2 || i === 3 ? 1 : 20 }));
    const clock = prepareClock({ table: [{ tempC: 20, hours: 4 }], kind: 'minimum', temps, minCureC: 5 });
    expect(Math.abs((clock.reachedAt(T0) as number) - (T0 + 7 * H))).toBeLessThan(10_000);
    expect(clock.progress(T0, T0 + 2 * H)).toBeCloseTo(0.5, 9);
    expect(clock.progress(T0 + 3 * H, T0 + 4 * H)).toBe(0);
    expect(clock.reachedAt(T0 + 6 * H, 0.5)).toBe(T0 + 8 * H);
    expect(clock.reachedAt(T0 + 6 * H, 1)).toBe(T0 + 6 * H);
    expect(clock.reachedAt(T0 + 37 * H)).toBeNull();
    expect(clock.reachedAt(T0 + 41 * H)).toBeNull();
  });

  it('adds up: what is done by way of any moment between is what is done at once', () => {
    const temps = aSeries(random(7));
    const clock = prepareClock({ table: aTable(random(8)), kind: 'minimum', temps, minCureC: 4 });
    const [first, last] = [temps[0]!.at, temps[temps.length - 1]!.at];
    fc.assert(
      fc.property(fc.tuple(...Array(3).fill(fc.double({ min: 0, max: 1, noNaN: true }))), (shares) => {
        const [a, b, c] = (shares as number[]).map((s) => first + s * (last - first)).sort((x, y) => x - y) as [
          number,
          number,
          number,
        ];
        expect(clock.progress(a, b) + clock.progress(b, c)).toBeCloseTo(clock.progress(a, c), 9);
      }),
    );
  });

  it('refuses a series that starts after the coat, and one that cannot be', () => {
    const temps = [
      { at: T0, tempC: 20 },
      { at: T0 + H, tempC: 20 },
    ];
    const options = { table: [{ tempC: 20, hours: 4 }], kind: 'minimum' as const };
    expect(() => prepareClock({ ...options, temps }).reachedAt(T0 - 1)).toThrow(Impossible);
    expect(() => prepareClock({ ...options, temps: [...temps].reverse() })).toThrow('in order of time');
    expect(() => prepareClock({ ...options, temps: [{ at: T0, tempC: Number.NaN }] })).toThrow('missing');
    expect(prepareClock({ ...options, temps: [] }).reachedAt(T0)).toBeNull();
  });
});
