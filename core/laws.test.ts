import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  between,
  boatProfile,
  hourlyFromDays,
  hoursAtTemperature,
  batchLimitL,
  fillHeightsMm,
  layerQuantities,
  litresNeeded,
  mergeIssues,
  milestoneAt,
  outlineAreaM2,
  overcoatWindow,
  packsToBuy,
  spreadingRateM2PerL,
  startAdvice,
  surfaceSeries,
  temperatureAt,
  topsidesAreaM2,
  underwaterAreaM2,
  windowAfterHandTests,
  type Layer,
  type TempSample,
  type TimeTable,
} from './index';
import { sheet } from './sheet/example.fixture';

/** Laws that hold whatever the figures: conservation, order, and the safe side. */
const H = 3_600_000;
const T0 = Date.UTC(2026, 4, 1);
const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const airs = (count: number) => fc.array(num(-5, 38), { minLength: count, maxLength: count });
const series = (values: number[]): TempSample[] => values.map((tempC, i) => ({ at: T0 + i * H, tempC }));
/** A table that gets quicker as it gets warmer, as a sheet's does. */
const table: fc.Arbitrary<TimeTable> = fc
  .tuple(num(0, 12), num(5, 12), num(5, 12), num(1, 40), num(0.2, 0.9), num(0.2, 0.9))
  .map(([t, d1, d2, h, f1, f2]) => [
    { tempC: t, hours: h },
    { tempC: t + d1, hours: h * f1 },
    { tempC: t + d1 + d2, hours: h * f1 * f2 },
  ]);

describe('cure', () => {
  it('a minimum is never quicker than the hottest column, a maximum never slower than the coldest', () => {
    fc.assert(
      fc.property(table, num(-30, 60), (t, tempC) => {
        const hottest = Math.min(...t.map((c) => c.hours));
        const coldest = Math.max(...t.map((c) => c.hours));
        expect(hoursAtTemperature({ table: t, tempC, kind: 'minimum' })).toBeGreaterThanOrEqual(hottest - 1e-9);
        expect(hoursAtTemperature({ table: t, tempC, kind: 'maximum' })).toBeLessThanOrEqual(coldest + 1e-9);
      }),
    );
  });
  it('read as a minimum a time is never shorter than read as a maximum: it errs to the safe side', () => {
    fc.assert(
      fc.property(table, num(-30, 60), (t, tempC) => {
        const minimum = hoursAtTemperature({ table: t, tempC, kind: 'minimum' });
        const maximum = hoursAtTemperature({ table: t, tempC, kind: 'maximum' });
        expect(minimum).toBeGreaterThanOrEqual(maximum - 1e-9);
      }),
    );
  });
  it('does not care in which order the columns are typed', () => {
    fc.assert(
      fc.property(table, num(-10, 45), fc.constantFrom('minimum' as const, 'maximum' as const), (t, tempC, kind) => {
        expect(hoursAtTemperature({ table: [...t].reverse(), tempC, kind })).toBe(
          hoursAtTemperature({ table: t, tempC, kind }),
        );
      }),
    );
  });
  it('a later start is never reached earlier', () => {
    fc.assert(
      fc.property(table, airs(80), num(0, 20), num(0, 10), (t, values, start, later) => {
        const at = (h: number) =>
          milestoneAt({ table: t, kind: 'minimum', appliedAt: T0 + h * H, temps: series(values), minCureC: 3 });
        const first = at(start);
        const second = at(start + later);
        if (first !== null && second !== null) expect(second).toBeGreaterThanOrEqual(first - 1);
        if (first === null) expect(second).toBeNull();
      }),
    );
  });
  it('more samples on the same straight lines change nothing', () => {
    fc.assert(
      fc.property(table, airs(50), (t, values) => {
        const coarse = series(values);
        const fine = coarse.flatMap((s, i) => {
          const next = coarse[i + 1];
          return next
            ? [
                s,
                { at: s.at + H / 4, tempC: s.tempC + (next.tempC - s.tempC) / 4 },
                { at: s.at + H / 2, tempC: (s.tempC + next.tempC) / 2 },
              ]
            : [s];
        });
        const a = milestoneAt({ table: t, kind: 'minimum', appliedAt: T0, temps: coarse, minCureC: 3 });
        const b = milestoneAt({ table: t, kind: 'minimum', appliedAt: T0, temps: fine, minCureC: 3 });
        expect(a === null).toBe(b === null);
        if (a !== null && b !== null) expect(Math.abs(a - b)).toBeLessThan(2000);
      }),
    );
  });
  it('a longer application moves the opening, not the limits', () => {
    fc.assert(
      fc.property(table, airs(80), num(0.1, 6), (t, values, applyH) => {
        const tackLimit = t.map((c) => ({ ...c, hours: c.hours * 4 }));
        const of = (hours: number) =>
          overcoatWindow({ startedAt: T0, finishedAt: T0 + hours * H, temps: series(values), minimum: t, tackLimit });
        expect(of(applyH).bondsUntil).toBe(of(0).bondsUntil);
        const [slow, quick] = [of(applyH).opensAt, of(0).opensAt];
        if (slow !== null && quick !== null) expect(slow).toBeGreaterThanOrEqual(quick);
      }),
    );
  });
  it('a thumb print opens the window at that very moment, whatever the table says, or past its limit lets it go on by hand', () => {
    fc.assert(
      fc.property(table, airs(120), num(1, 40), (t, values, hour) => {
        const tackLimit = t.map((c) => ({ ...c, hours: c.hours * 3 }));
        const coat = { startedAt: T0, finishedAt: T0 + H, temps: series(values), minimum: t, tackLimit, minCureC: 3 };
        const at = Math.round(T0 + hour * H);
        const untested = overcoatWindow(coat);
        const window = windowAfterHandTests({ ...coat, tests: [{ test: 'thumb', at, passed: true }] });
        if (untested.bondsUntil !== null && at > untested.bondsUntil) {
          expect(window.bondsUntil).toBe(untested.bondsUntil);
          expect(window.byHandUntil).toBeGreaterThanOrEqual(at);
          return;
        }
        expect(window.opensAt).toBe(at);
      }),
    );
  });
  it('from a print on, at a steady temperature of its table, the tack limit is what the sheet has beyond its minimum', () => {
    // By hand: the print says that the coat stands at its minimum, 5 of 24 h at 20 °C; 19 h are left, whenever it came.
    const steady = Array.from({ length: 80 }, (_, i) => ({ at: T0 + i * H, tempC: 20 }));
    for (const hour of [3, 5, 9, 20]) {
      const { bondsUntil } = windowAfterHandTests({
        startedAt: T0,
        finishedAt: T0 + H,
        temps: steady,
        minimum: [{ tempC: 20, hours: 5 }],
        tackLimit: [{ tempC: 20, hours: 24 }],
        tests: [{ test: 'thumb', at: T0 + hour * H, passed: true }],
      });
      expect(((bondsUntil as number) - T0) / H).toBeCloseTo(hour + 19, 3);
    }
  });
});

describe('air', () => {
  it('a surface goes through every reading, and is the weather again six hours after the last', () => {
    fc.assert(
      fc.property(
        airs(40),
        fc.uniqueArray(fc.integer({ min: 0, max: 1500 }), { minLength: 1, maxLength: 5 }),
        num(-5, 45),
        (values, minutes, surfaceC) => {
          const weather = values.map((airC, i) => ({ at: T0 + i * H, airC }));
          const readings = minutes.map((m) => ({ at: T0 + m * 60_000, surfaceC }));
          const temps = surfaceSeries({ weather, readings });
          for (const reading of readings) expect(temperatureAt(temps, reading.at)).toBeCloseTo(surfaceC, 6);
          const quiet = T0 + Math.ceil((Math.max(...minutes) + 361) / 60) * H;
          expect(temperatureAt(temps, quiet)).toBeCloseTo(
            temperatureAt(surfaceSeries({ weather, readings: [] }), quiet),
            6,
          );
          expect(temps.every((s, i) => i === 0 || s.at > (temps[i - 1] as TempSample).at)).toBe(true);
        },
      ),
    );
  });
  it('typed days stay between their lows and highs, and humidity is a share', () => {
    const day = fc.tuple(num(-10, 20), num(0, 20), num(0.2, 1));
    fc.assert(
      fc.property(fc.array(day, { minLength: 1, maxLength: 6 }), (days) => {
        const hours = hourlyFromDays(
          days.map(([lowC, swing, rh], i) => ({
            startsAt: T0 + i * 24 * H,
            endsAt: T0 + (i + 1) * 24 * H,
            lowC,
            highC: lowC + swing,
            rh,
          })),
        );
        const low = Math.min(...days.map(([l]) => l));
        const high = Math.max(...days.map(([l, s]) => l + s));
        for (const h of hours) {
          expect(h.airC).toBeGreaterThanOrEqual(low - 1e-9);
          expect(h.airC).toBeLessThanOrEqual(high + 1e-9);
          expect(h.rh).toBeGreaterThan(0);
          expect(h.rh).toBeLessThanOrEqual(1);
        }
      }),
    );
  });
  it('merging keeps one sample an hour, in order, whatever was issued when', () => {
    const issue = fc.record({
      source: fc.constantFrom('typed' as const, 'simulated' as const),
      issued: fc.integer({ min: 0, max: 48 }),
      from: fc.integer({ min: 0, max: 48 }),
      count: fc.integer({ min: 0, max: 30 }),
    });
    fc.assert(
      fc.property(fc.array(issue, { maxLength: 6 }), (issues) => {
        const merged = mergeIssues(
          issues.map((i, n) => ({
            source: i.source,
            issuedAt: T0 + i.issued * H,
            hours: Array.from({ length: i.count }, (_, k) => ({
              at: T0 + (i.from + k) * H,
              airC: n,
              rh: 0.5,
            })),
          })),
        );
        // Hour by hour, by looking: the last typed issue that still speaks of it, else the last simulated one.
        const told = (h: number) =>
          (['typed', 'simulated'] as const)
            .map((source) => {
              const own = issues
                .map((i, n) => ({ ...i, n }))
                .filter((i) => i.source === source)
                .sort((a, b) => a.issued - b.issued);
              return own.findLast((i, k) => h >= i.from && h < i.from + i.count && h < (own[k + 1]?.issued ?? Infinity))
                ?.n;
            })
            .find((n) => n !== undefined);
        const expected = Array.from({ length: 80 }, (_, h) => h).flatMap((h) => {
          const n = told(h);
          return n === undefined ? [] : [[h, n]];
        });
        expect(merged.map((m) => [(m.at - T0) / H, m.airC])).toEqual(expected);
      }),
    );
  });
  it('a bigger stint never has a later last start', () => {
    fc.assert(
      fc.property(
        airs(60),
        fc.array(num(0.3, 0.98), { minLength: 60, maxLength: 60 }),
        num(0, 4),
        num(0, 3),
        (values, humid, small, more) => {
          const hours = values.map((airC, i) => ({ at: T0 + i * H, airC, rh: humid[i] as number }));
          const limits = {
            airMinC: null,
            airMaxC: null,
            surfaceMinC: null,
            surfaceMaxC: null,
            rhMax: null,
            spreadMinC: null,
          };
          const advise = (applyHours: number) =>
            startAdvice({
              now: T0,
              hours,
              surface: series(values),
              limits,
              method: 'roller',
              applyHours,
              touchDry: [{ tempC: 20, hours: 2 }],
            });
          const quick = advise(small);
          const slow = advise(small + more);
          if (slow.nowHolds) expect(quick.nowHolds).toBe(true);
          if (slow.nowHolds && quick.nowHolds)
            expect(slow.lastStartAt as number).toBeLessThanOrEqual(quick.lastStartAt as number);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('film, packs and pots', () => {
  const layer: Layer = {
    id: 'l',
    sheetRevisionId: 'r',
    dftMicron: 80,
    method: 'roller',
    thinnerShare: 0,
    loss: 0.1,
    deadVolumeLPerM2: 0,
    colour: '',
    colourHex: '#888888',
  };
  it('parts add up to the litres, more area never needs less, and the range holds the likely figure', () => {
    fc.assert(
      fc.property(num(0.1, 500), num(0, 100), num(0, 0.5), num(10, 300), (areaM2, more, areaShare, dftMicron) => {
        const of = (area: number) =>
          layerQuantities({ areaM2: area, areaShare, layer: { ...layer, dftMicron }, sheet });
        const q = of(areaM2);
        expect(q.parts.reduce((sum, p) => sum + p.litres, 0)).toBeCloseTo(q.litres.likely, 6);
        expect(q.litres.low).toBeLessThanOrEqual(q.litres.likely);
        expect(q.litres.high).toBeGreaterThanOrEqual(q.litres.likely);
        expect(of(areaM2 + more).litres.likely).toBeGreaterThanOrEqual(q.litres.likely);
        expect(q.litres.likely * q.spreadingRateM2PerL * (1 - layer.loss)).toBeCloseTo(areaM2, 6);
      }),
    );
  });
  it('litres and coverage are two ways of saying one thing', () => {
    fc.assert(
      fc.property(num(0.1, 500), num(10, 500), num(0.1, 1), (areaM2, dftMicron, solids) => {
        expect(litresNeeded({ areaM2, dftMicron, solids }) * spreadingRateM2PerL({ solids, dftMicron })).toBeCloseTo(
          areaM2,
          6,
        );
      }),
    );
  });
  it('packs cover the need, and one fewer would not', () => {
    const pack = fc.record({
      name: fc.constant('p'),
      sizeL: num(0.1, 25),
      priceMinor: fc.integer({ min: 1, max: 50_000 }),
    });
    fc.assert(
      fc.property(num(0.01, 200), fc.array(pack, { minLength: 1, maxLength: 5 }), (needL, packs) => {
        const bought = packsToBuy({ needL, packs, onHandL: 0 });
        const litres = bought.packs.reduce((sum, p) => sum + p.count * p.sizeL, 0);
        expect(litres).toBeGreaterThanOrEqual(needL - 1e-4);
        for (const p of bought.packs) expect(litres - p.sizeL).toBeLessThan(needL);
        const oneSize = Math.min(...packs.map((p) => Math.max(1, Math.ceil(needL / p.sizeL - 1e-9)) * p.priceMinor));
        expect(bought.costMinor).toBeLessThanOrEqual(oneSize);
      }),
    );
  });
  it('a pot filled part by part stands as high as all of it poured at once', () => {
    fc.assert(
      fc.property(fc.array(num(0, 0.5), { minLength: 1, maxLength: 4 }), num(100, 600), (litres, topMm) => {
        const pot = { bottomMm: 200, topMm, depthMm: 1000 };
        const marks = fillHeightsMm({ pot, volumesL: litres });
        const whole = fillHeightsMm({ pot, volumesL: [litres.reduce((a, b) => a + b, 0)] });
        expect(marks[marks.length - 1]).toBeCloseTo(whole[0] as number, 6);
      }),
    );
  });
  it('a longer pot life or another painter never makes the largest batch smaller', () => {
    fc.assert(
      fc.property(num(0.2, 8), num(0, 4), num(0, 30), (potLife, more, standMin) => {
        const of = (potLifeH: number, painters: number) =>
          batchLimitL({ potLifeH, inductionH: standMin / 60, rateM2PerH: 10, painters, litresPerM2: 0.2 });
        expect(of(potLife + more, 1)).toBeGreaterThanOrEqual(of(potLife, 1));
        expect(of(potLife, 2)).toBeCloseTo(2 * of(potLife, 1), 9);
      }),
    );
  });
});

describe('hull', () => {
  it('areas scale with the square of the boat', () => {
    fc.assert(
      fc.property(
        num(2, 20),
        num(0.5, 5),
        num(0.2, 3),
        num(1.1, 3),
        fc.constantFrom('full' as const, 'longKeel' as const, 'finKeel' as const),
        (lwlM, beamM, draftM, s, form) => {
          expect(underwaterAreaM2({ lwlM: lwlM * s, beamM: beamM * s, draftM: draftM * s, form })).toBeCloseTo(
            underwaterAreaM2({ lwlM, beamM, draftM, form }) * s * s,
            6,
          );
          expect(topsidesAreaM2({ loaM: lwlM * s, beamM: beamM * s, freeboardM: draftM * s })).toBeCloseTo(
            topsidesAreaM2({ loaM: lwlM, beamM, freeboardM: draftM }) * s * s,
            6,
          );
        },
      ),
    );
  });
  it('a drawing has no hole in it: bands cut at any heights add up', () => {
    fc.assert(
      fc.property(
        num(3, 15),
        num(0.4, 2),
        num(0.3, 1.5),
        fc.constantFrom('full' as const, 'longKeel' as const, 'finKeel' as const),
        num(-0.3, 0),
        num(0, 0.3),
        (loaM, draftM, freeboardM, form, low, high) => {
          const { hull } = boatProfile({
            loaM,
            lwlM: loaM * 0.88,
            beamM: loaM / 3,
            draftM,
            freeboardM,
            form,
            keels: 'single',
          });
          const parts = [between(hull, -Infinity, low), between(hull, low, high), between(hull, high, Infinity)];
          expect(parts.reduce((sum, p) => sum + outlineAreaM2(p), 0)).toBeCloseTo(outlineAreaM2(hull), 6);
        },
      ),
    );
  });
});
