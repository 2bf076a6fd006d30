import { DateTime } from 'luxon';
import psychrolib from 'psychrolib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  dewPointC,
  dewSpreadC,
  fromCore,
  hourlyFromDays,
  mergeIssues,
  unbrokenHours,
  weatherGaps,
  relativeHumidity,
  surfaceSeries,
  temperatureAt,
  weatherAt,
  type WeatherHour,
} from '../index';

const H = 3_600_000;
const T0 = Date.UTC(2026, 4, 1);

describe('dew point', () => {
  it.each([
    [20, 0.8, 16.4],
    [10, 0.5, 0.0],
    [25, 0.6, 16.7],
  ])('%d °C at %d is %d °C [P: WMO No. 8, by its formula]', (airC, rh, dew) => {
    expect(dewPointC({ airC, rh })).toBeCloseTo(dew, 1);
  });
  it('agrees within 0.1 °C with psychrolib wherever the dew point is 0 °C or more [P: ASHRAE Fundamentals]', () => {
    psychrolib.SetUnitSystem(psychrolib.SI);
    let compared = 0;
    for (let airC = 0; airC <= 45; airC += 1) {
      for (let rh = 0.1; rh <= 1.0001; rh += 0.05) {
        const theirs = psychrolib.GetTDewPointFromRelHum(airC, Math.min(1, rh));
        if (theirs < 0) continue;
        compared += 1;
        expect(Math.abs(dewPointC({ airC, rh: Math.min(1, rh) }) - theirs)).toBeLessThanOrEqual(0.1);
      }
    }
    expect(compared).toBeGreaterThan(400);
  });
  it('is the air itself at 100 %, and inverts to the humidity', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -30, max: 50, noNaN: true }),
        fc.double({ min: 0.02, max: 1, noNaN: true }),
        (airC, rh) => {
          const dewC = dewPointC({ airC, rh });
          expect(dewC).toBeLessThanOrEqual(airC + 1e-9);
          expect(relativeHumidity({ airC, dewC })).toBeCloseTo(rh, 8);
        },
      ),
    );
  });
  it('a spread told in °F is 1.8 times that in °C, no offset', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 40, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 40, noNaN: true }),
        (airC, rh, surfaceC) => {
          const spread = dewSpreadC({ surfaceC, airC, rh });
          const inF = fromCore('temperature', 'F', surfaceC) - fromCore('temperature', 'F', dewPointC({ airC, rh }));
          expect(fromCore('temperatureDifference', 'F', spread)).toBeCloseTo(inF, 8);
        },
      ),
    );
  });
  it.each([
    [{ airC: 20, rh: 0 }, /humidity must be more than zero/],
    [{ airC: 20, rh: 1.4 }, /humidity cannot be more than 100/],
    [{ airC: Number.NaN, rh: 0.5 }, /Air temperature must be a number/],
    [{ airC: 300, rh: 0.5 }, /Check the unit/],
    [{ airC: 20, rh: -0.5 }, /more than zero/],
  ])('refuses %o', (input, message) => {
    expect(() => dewPointC(input)).toThrow(RangeError);
    expect(() => dewPointC(input)).toThrow(message);
  });
});

const flat = (count: number, airC: number, extra: Partial<WeatherHour> = {}): WeatherHour[] =>
  Array.from({ length: count }, (_, i) => ({ at: T0 + i * H, airC, rh: 0.5, ...extra }));

describe('surface series', () => {
  it('is the air where nothing is read', () => {
    expect(surfaceSeries({ weather: flat(3, 12), readings: [] })).toEqual([
      { at: T0, tempC: 12 },
      { at: T0 + H, tempC: 12 },
      { at: T0 + 2 * H, tempC: 12 },
    ]);
  });
  it('goes through a reading and fades back over six hours', () => {
    const series = surfaceSeries({ weather: flat(24, 12), readings: [{ at: T0 + 3.5 * H, surfaceC: 18 }] });
    const at = (h: number) => temperatureAt(series, T0 + h * H);
    expect(at(3)).toBe(12);
    expect(at(3.5)).toBe(18);
    expect(at(6.5)).toBeCloseTo(15, 6);
    // At 9:00 half an hour of six is left, 0.5 °C; at 10:00 none: halfway between, a quarter.
    expect(at(9.5)).toBeCloseTo(12.25, 6);
    expect(at(12)).toBe(12);
  });
  it('keeps the night between an evening and a morning reading', () => {
    // Air 18 °C by day, 4 °C by night; a straight line between two 18 °C readings would miss it.
    const weather = Array.from({ length: 25 }, (_, i) => ({ at: T0 + i * H, airC: i > 4 && i < 20 ? 4 : 18 }));
    const series = surfaceSeries({
      weather,
      readings: [
        { at: T0, surfaceC: 18 },
        { at: T0 + 24 * H, surfaceC: 18 },
      ],
    });
    expect(temperatureAt(series, T0 + 12 * H)).toBe(4);
  });
  it('a later reading replaces an earlier one', () => {
    const series = surfaceSeries({
      weather: flat(24, 10),
      readings: [
        { at: T0 + 2 * H, surfaceC: 20 },
        { at: T0 + 4 * H, surfaceC: 11 },
      ],
    });
    expect(temperatureAt(series, T0 + 4 * H)).toBe(11);
    expect(temperatureAt(series, T0 + 5 * H)).toBeLessThan(11);
  });
  it('a reading says nothing of the time before it', () => {
    // 10 °C all day, 30 °C read one minute before the hour: half an hour before that it was still 10 °C.
    const series = surfaceSeries({ weather: flat(3, 10), readings: [{ at: T0 + 59 * 60_000, surfaceC: 30 }] });
    expect(temperatureAt(series, T0 + 30 * 60_000)).toBeCloseTo(10, 6);
    expect(temperatureAt(series, T0 + 58.9 * 60_000)).toBeCloseTo(10, 6);
    expect(temperatureAt(series, T0 + 59 * 60_000)).toBeCloseTo(30, 6);
    // Read on the hour, it leaves the hour before alone as well.
    const onTheHour = surfaceSeries({ weather: flat(3, 10), readings: [{ at: T0 + H, surfaceC: 30 }] });
    expect(temperatureAt(onTheHour, T0 + H / 2)).toBeCloseTo(10, 6);
    expect(temperatureAt(onTheHour, T0 + H)).toBeCloseTo(30, 6);
    // A second reading leaves the fading of the first as it was.
    const two = surfaceSeries({
      weather: flat(8, 10),
      readings: [
        { at: T0, surfaceC: 16 },
        { at: T0 + 3.5 * H, surfaceC: 30 },
      ],
    });
    expect(temperatureAt(two, T0 + 3.25 * H)).toBeCloseTo(10 + 6 * (1 - 3.25 / 6), 3);
  });
  it('sun warms an open face and a clear night cools it', () => {
    const sun = surfaceSeries({ weather: flat(2, 20, { sunWm2: 500, cloud: 0 }), readings: [], openness: 1 });
    const night = surfaceSeries({ weather: flat(2, 20, { sunWm2: 0, cloud: 0 }), readings: [], openness: 1 });
    expect(sun[0]?.tempC).toBeCloseTo(26, 6);
    expect(night[0]?.tempC).toBeCloseTo(17.5, 6);
    expect(surfaceSeries({ weather: flat(2, 20, { sunWm2: 500, cloud: 0 }), readings: [] })[0]?.tempC).toBe(20);
  });
  it('refuses no weather, weather out of order and absurd readings', () => {
    expect(() => surfaceSeries({ weather: [], readings: [] })).toThrow(/no weather/);
    expect(() => surfaceSeries({ weather: flat(3, 10).reverse(), readings: [] })).toThrow(/order of time/);
    expect(() => surfaceSeries({ weather: flat(3, 10), readings: [{ at: T0, surfaceC: 400 }] })).toThrow(RangeError);
  });
});

describe('weather', () => {
  it('a typed hour wins over a simulated one, a later issue over an earlier', () => {
    const hour = (airC: number): WeatherHour => ({ at: T0, airC, rh: 0.6 });
    const merged = mergeIssues([
      { source: 'typed', issuedAt: T0 - 9, hours: [hour(11), { ...hour(13), at: T0 + H }] },
      { source: 'simulated', issuedAt: T0 + 9, hours: [hour(20), { ...hour(21), at: T0 + H }] },
      { source: 'typed', issuedAt: T0 - 3, hours: [hour(12)] },
    ]);
    // The day taken out of the newer typed forecast is no longer forecast by the older one.
    expect(merged.map((h) => [h.airC, h.source])).toEqual([
      [12, 'typed'],
      [21, 'simulated'],
    ]);
  });
  it('a typed hour replaces the simulated ones of its time where clocks stand half an hour off', () => {
    const at = (k: number) => T0 + k * H;
    const hours = mergeIssues([
      { source: 'simulated', issuedAt: 0, hours: [0, 1, 2, 3, 4, 5].map((k) => ({ at: at(k), airC: 25, rh: 0.5 })) },
      { source: 'typed', issuedAt: 0, hours: [1.5, 2.5, 3.5].map((k) => ({ at: at(k), airC: 10, rh: 0.5 })) },
    ]);
    expect(hours.map((h) => [(h.at - T0) / H, h.airC])).toEqual([
      [0, 25],
      [1.5, 10],
      [2.5, 10],
      [3.5, 10],
      [5, 25],
    ]);
    // A coat that wants 4 h at 20 °C and twice that at 10 °C is not helped by warmth nobody forecast.
    expect(weatherAt(hours, at(2))?.airC).toBe(10);
  });
  it('keeps what an older issue said of the time before the newer one', () => {
    const at = (h: number, airC: number): WeatherHour => ({ at: T0 + h * H, airC, rh: 0.6 });
    const merged = mergeIssues([
      { source: 'typed', issuedAt: T0, hours: [at(0, 10), at(1, 11), at(2, 12)] },
      { source: 'typed', issuedAt: T0 + 2 * H, hours: [at(2, 20), at(3, 21)] },
    ]);
    expect(merged.map((h) => h.airC)).toEqual([10, 11, 20, 21]);
  });
  it('is not joined by a line over more than three hours, and the gap is told', () => {
    const at = (h: number, airC: number): WeatherHour => ({ at: T0 + h * H, airC, rh: 0.6 });
    const hours = [at(0, 10), at(1, 11), at(4, 14), at(9, 30), at(10, 31)];
    expect(weatherGaps(hours)).toEqual([{ from: T0 + 4 * H, to: T0 + 9 * H }]);
    // Three hours are a line, five are not; the hours at either side of a gap still hold.
    expect(weatherAt(hours, T0 + 2.5 * H)?.airC).toBeCloseTo(12.5, 9);
    expect(weatherAt(hours, T0 + 6 * H)).toBeNull();
    expect([weatherAt(hours, T0 + 4 * H)?.airC, weatherAt(hours, T0 + 9 * H)?.airC]).toEqual([14, 30]);
    expect(unbrokenHours(hours, T0 + 2 * H).map((h) => h.airC)).toEqual([10, 11, 14]);
    expect(unbrokenHours(hours, T0 + 9.5 * H).map((h) => h.airC)).toEqual([30, 31]);
    expect(unbrokenHours(hours, T0 + 6 * H)).toEqual([]);
  });
  it('of an issue from later than now is not known', () => {
    const hour = (airC: number): WeatherHour => ({ at: T0, airC, rh: 0.6 });
    const issues = [
      { source: 'typed' as const, issuedAt: T0 - 9, hours: [hour(11)] },
      { source: 'typed' as const, issuedAt: T0 + 9, hours: [hour(20)] },
    ];
    expect(mergeIssues(issues, T0).map((h) => h.airC)).toEqual([11]);
    expect(mergeIssues(issues, T0 + 9).map((h) => h.airC)).toEqual([20]);
  });
  it('reads between hours, and says nothing outside', () => {
    const hours: WeatherHour[] = [
      { at: T0, airC: 10, rh: 0.6, rainMm: 2 },
      { at: T0 + H, airC: 14, rh: 0.8, rainMm: 0 },
    ];
    expect(weatherAt(hours, T0 + H / 4)).toMatchObject({ airC: 11, rainMm: 2 });
    expect(weatherAt(hours, T0 - 1)).toBeNull();
    expect(weatherAt(hours, T0 + H + 1)).toBeNull();
  });
  it('turns typed days into hours with the low at six and the high at three', () => {
    const day = (n: number) => ({ startsAt: T0 + n * 24 * H, endsAt: T0 + (n + 1) * 24 * H });
    const hours = hourlyFromDays([
      { ...day(0), lowC: 8, highC: 19, dewC: 7, rainHours: [[3, 5]] },
      { ...day(1), lowC: 10, highC: 17, rh: 0.7 },
    ]);
    expect(hours).toHaveLength(49);
    const airs = hours.map((h) => h.airC);
    expect(hours[6]?.airC).toBeCloseTo(8, 9);
    expect(hours[15]?.airC).toBeCloseTo(19, 9);
    expect(hours[30]?.airC).toBeCloseTo(10, 9);
    expect(Math.min(...airs.slice(0, 24))).toBeGreaterThanOrEqual(8 - 1e-9);
    expect(hours.filter((h) => (h.rainMm ?? 0) > 0).map((h) => (h.at - T0) / H)).toEqual([3, 4]);
    expect(dewPointC({ airC: hours[15]?.airC as number, rh: hours[15]?.rh as number })).toBeCloseTo(7, 6);
    // RH typed for a day holds at its mean temperature.
    expect(dewPointC({ airC: hours[39]?.airC as number, rh: hours[39]?.rh as number })).toBeCloseTo(
      dewPointC({ airC: 13.5, rh: 0.7 }),
      6,
    );
  });
  it('keeps a day of 23 hours 23 hours long', () => {
    const hours = hourlyFromDays([{ startsAt: T0, endsAt: T0 + 23 * H, lowC: 5, highC: 12, rh: 0.6 }]);
    expect(hours[hours.length - 1]?.at).toBe(T0 + 23 * H);
  });
  it.each(['2026-03-29', '2026-10-25', '2026-06-10'])(
    'keeps the low at six, the high at three and rain at its hours by the clock on %s [reference: Luxon]',
    (date) => {
      const start = DateTime.fromISO(date, { zone: 'Europe/Paris' });
      const hours = hourlyFromDays([
        {
          startsAt: start.toMillis(),
          endsAt: start.plus({ days: 1 }).toMillis(),
          lowC: 5,
          highC: 15,
          dewC: 2,
          rainHours: [[8, 10]],
        },
      ]);
      const local = hours.map((h) => ({
        ...h,
        clock: DateTime.fromMillis(h.at, { zone: 'Europe/Paris' }).toFormat('H'),
      }));
      expect(local.find((h) => h.airC === Math.min(...hours.map((x) => x.airC)))?.clock).toBe('6');
      expect(local.find((h) => h.airC === Math.max(...hours.map((x) => x.airC)))?.clock).toBe('15');
      expect(local.filter((h) => (h.rainMm ?? 0) > 0).map((h) => h.clock)).toEqual(['8', '9']);
    },
  );
  it('asks for what is missing', () => {
    const day = { startsAt: T0, endsAt: T0 + 24 * H, lowC: 5, highC: 12 };
    expect(() => hourlyFromDays([])).toThrow(/at least one day/);
    expect(() => hourlyFromDays([day])).toThrow(/humidity or the dew point/);
    expect(() => hourlyFromDays([{ ...day, lowC: 20, rh: 0.5 }])).toThrow(/Swap them/);
    expect(() =>
      hourlyFromDays([
        { ...day, rh: 0.5 },
        { ...day, rh: 0.5 },
      ]),
    ).toThrow(/overlap/);
  });
});
