import fc from 'fast-check';
import { AstroTime, Body, Equator, Horizon, Observer } from 'astronomy-engine';
import { getPosition } from 'suncalc';
import { describe, expect, it } from 'vitest';
import {
  allowedStarts,
  colourAbsorptance,
  dewPointC,
  EPW_MOST_BYTES,
  clearBeamWm2,
  faceSunWm2,
  heating,
  milestoneAt,
  NO_LIMITS,
  parseEpw,
  solAirC,
  surfaceByFace,
  typicalHours,
  underShelter,
  type ShelterSpan,
  type WeatherHour,
} from '../index';

const H = 3_600_000;
const T0 = Date.UTC(2026, 5, 21);
const sunAt = (latitudeDeg: number, longitudeDeg: number) => (at: number) => {
  const { azimuth, altitude } = getPosition(new Date(at), latitudeDeg, longitudeDeg);
  return { azimuthDeg: azimuth, altitudeDeg: altitude };
};
const midsummer: WeatherHour[] = Array.from({ length: 49 }, (_, i) => {
  const height = Math.sin((sunAt(50, 0)(T0 + i * H).altitudeDeg * Math.PI) / 180);
  return { at: T0 + i * H, airC: 18, rh: 0.6, windMs: 2, rainMm: 0, cloud: 0, sunWm2: Math.max(0, 950 * height) };
});

describe('sol-air temperature [P: ASHRAE Fundamentals, chapter on nonresidential cooling loads; figures from memory]', () => {
  // Its tables take 0.052 m²K/W for dark and 0.026 for light faces, and 3.9 K less on level ones: 63 W/m² over 16.3.
  it.each([
    [30, 900, 0.052, 3.9, 72.9],
    [30, 900, 0.026, 3.9, 49.5],
    [25, 0, 0.052, 3.9, 21.1],
    [32, 400, 0.052, 0, 52.8],
  ])(
    'air %d °C, %d W/m²: what the table has for α/h %d and %d K to the sky',
    (airC, incidentWm2, ratio, sky, wanted) => {
      const filmWm2K = 16.3;
      expect(
        solAirC({ airC, incidentWm2, absorptance: ratio * filmWm2K, filmWm2K, skyLossWm2: sky * filmWm2K }),
      ).toBeCloseTo(wanted, 1);
    },
  );
  it('refuses what cannot be', () => {
    const fine = { airC: 20, incidentWm2: 500, absorptance: 0.5, filmWm2K: 17, skyLossWm2: 0 };
    expect(() => solAirC({ ...fine, absorptance: 1.2 })).toThrow(/share/);
    expect(() => solAirC({ ...fine, filmWm2K: 0 })).toThrow(/more than zero/);
    expect(() => solAirC({ ...fine, incidentWm2: -1 })).toThrow(/less than zero/);
  });
});

describe('where the sun stands', () => {
  it.each([
    [50, 0],
    [40.7, -74],
    [-31.5, 159],
    [70, 25],
  ])('at %d°, %d°: as an astronomical library has it, within half a degree, all year', (latitude, longitude) => {
    for (let day = 0; day < 365; day += 9) {
      const at = Date.UTC(2026, 0, 1, (day * 7) % 24) + day * 24 * H;
      const observer = new Observer(latitude, longitude, 0);
      const time = new AstroTime(new Date(at));
      const { ra, dec } = Equator(Body.Sun, time, observer, true, true);
      const wanted = Horizon(time, observer, ra, dec);
      const found = sunAt(latitude, longitude)(at);
      expect(Math.abs(found.altitudeDeg - wanted.altitude)).toBeLessThan(0.5);
      if (Math.abs(wanted.altitude) < 80) {
        const off = Math.abs(((found.azimuthDeg - wanted.azimuth + 540) % 360) - 180);
        expect(off * Math.cos((wanted.altitude * Math.PI) / 180)).toBeLessThan(0.5);
      }
    }
  });
});

describe('the sides of a hull', () => {
  const side = (azimuthDeg: number, hex = '#203040', tiltDeg = 90) =>
    surfaceByFace({
      weather: midsummer,
      face: { azimuthDeg, tiltDeg, absorptance: colourAbsorptance(hex), openness: 1 },
      sunAt: sunAt(50, 0),
      readings: [],
    });
  const at = (series: ReturnType<typeof side>, hour: number) => series.find((s) => s.at === T0 + hour * H)!.tempC;

  it('the east side is warm in the morning, the west side in the evening, neither at night', () => {
    expect(at(side(90), 8)).toBeGreaterThan(at(side(270), 8) + 8);
    expect(at(side(270), 17)).toBeGreaterThan(at(side(90), 17) + 8);
    expect(Math.abs(at(side(90), 24) - at(side(270), 24))).toBeLessThan(0.01);
  });
  it('a white side stays cooler than a dark one, a deck gets colder than the air under a clear sky', () => {
    expect(at(side(180, '#ffffff'), 12)).toBeLessThan(at(side(180, '#101820'), 12) - 5);
    expect(at(side(0, '#ffffff', 0), 24)).toBeLessThan(18 - 2);
    expect(at(side(0, '#ffffff', 0), 24)).toBeGreaterThan(18 - 6);
  });
  it('level ground gets what the weather says, a face turned from the sun only what the sky and ground send', () => {
    const sun = { azimuthDeg: 180, altitudeDeg: 30 };
    const face = { azimuthDeg: 0, tiltDeg: 90, absorptance: 0.5, openness: 1 };
    expect(faceSunWm2({ sunWm2: 400, sun, face: { ...face, tiltDeg: 0 } })).toBeCloseTo(400, 6);
    expect(faceSunWm2({ sunWm2: 400, sun, face })).toBeLessThan(150);
    expect(faceSunWm2({ sunWm2: 400, sun, face: { ...face, azimuthDeg: 180 } })).toBeGreaterThan(400);
  });
  it('low sun brings no more than gets through the air, whatever the forecast says lies on the ground', () => {
    // Beam through a clear sky at an air mass of 1, 2 and about 10.3 [P: Meinel and Meinel 1976; air mass by Kasten and
    // Young 1989: 1.00, 1.99 and 10.3 at 90°, 30° and 5°].
    expect([90, 30, 5].map((h) => Math.round(clearBeamWm2(h) / 10) * 10)).toEqual([950, 770, 240]);
    fc.assert(
      fc.property(
        fc.record({
          altitudeDeg: fc.double({ min: -5, max: 90, noNaN: true }),
          sunWm2: fc.double({ min: 0, max: 1100, noNaN: true }),
          airC: fc.double({ min: -10, max: 48, noNaN: true }),
          windMs: fc.double({ min: 0, max: 12, noNaN: true }),
          tiltDeg: fc.integer({ min: 0, max: 180 }),
        }),
        ({ altitudeDeg, sunWm2, airC, windMs, tiltDeg }) => {
          const [sample] = surfaceByFace({
            weather: [{ at: T0, airC, rh: 0.4, sunWm2, windMs, cloud: 0 }],
            face: { azimuthDeg: 90, tiltDeg, absorptance: 0.95, openness: 1 },
            sunAt: () => ({ azimuthDeg: 90, altitudeDeg }),
            readings: [],
          });
          return sample!.tempC <= 85 && sample!.tempC >= airC - 15;
        },
      ),
    );
  });
  it('a reading moves it, and fades', () => {
    const moved = surfaceByFace({
      weather: midsummer,
      face: { azimuthDeg: 90, tiltDeg: 90, absorptance: 0.6, openness: 1 },
      sunAt: sunAt(50, 0),
      readings: [{ at: T0 + 26 * H, surfaceC: 25 }],
    });
    expect(at(moved, 26)).toBeCloseTo(25, 6);
    expect(moved.find((s) => s.at === T0 + 40 * H)!.tempC).toBeCloseTo(
      surfaceByFace({
        weather: midsummer,
        face: { azimuthDeg: 90, tiltDeg: 90, absorptance: 0.6, openness: 1 },
        sunAt: sunAt(50, 0),
        readings: [],
      }).find((s) => s.at === T0 + 40 * H)!.tempC,
      6,
    );
  });
});

describe('shelter', () => {
  const span = (more: Partial<ShelterSpan>): ShelterSpan => ({
    from: T0 + 10 * H,
    to: T0 + 20 * H,
    cover: 'tent',
    heatedToC: null,
    driedToRh: null,
    ...more,
  });
  const wet = midsummer.map((h) => ({ ...h, rainMm: 2 }));
  const noon = (hours: readonly WeatherHour[]) => hours.find((h) => h.at === T0 + 12 * H)!;
  it('keeps the rain out, and nothing before or after its span', () => {
    const under = underShelter(wet, [span({ cover: 'cover' })]);
    expect(noon(under).rainMm).toBe(0);
    expect(under[9]!.rainMm).toBe(2);
    expect(under[20]!.rainMm).toBe(2);
  });
  it('heat leaves the dew point where it was, so that the air dries; a dryer dries it at the same warmth', () => {
    const heated = noon(underShelter(midsummer, [span({ heatedToC: 28 })]));
    expect(heated.airC).toBeGreaterThanOrEqual(28);
    expect(dewPointC(heated)).toBeCloseTo(dewPointC(noon(midsummer)), 6);
    const dried = noon(underShelter(midsummer, [span({ cover: 'building', driedToRh: 0.4 })]));
    expect(dried.rh).toBe(0.4);
    expect(dried.airC).toBe(18);
  });
  it('a tent that is told to be heated and has no heater is only a tent; an open yard cannot be heated', () => {
    expect(noon(underShelter(midsummer, [span({ cover: 'open', heatedToC: 28 })])).airC).toBe(18);
    const hours = midsummer.slice(0, 24);
    expect(heating({ hours, spans: [span({})], wattsPerC: 100, priceMinorPerKWh: 30 }).costMinor).toBe(0);
    // Ten hours, ten degrees, 200 W for each: 20 kWh.
    const cost = heating({
      hours,
      spans: [span({ cover: 'building', heatedToC: 28 })],
      wattsPerC: 200,
      priceMinorPerKWh: 30,
    });
    expect(cost).toEqual({ degreeHours: 100, kWh: 20, costMinor: 600 });
  });
  it('says what cannot be', () => {
    expect(() => underShelter(midsummer, [span({}), span({ from: T0 + 19 * H, to: T0 + 22 * H })])).toThrow(/overlap/);
    expect(() => underShelter(midsummer, [span({ heatedToC: 80 })])).toThrow(/heater/);
    expect(() => underShelter(midsummer, [span({ to: T0 })])).toThrow(/ends before/);
  });
});

/** A year built by hand to the published format: eight lines of header, 35 fields a row, hour 1 ending at 01:00. */
function epw(change: (fields: string[], row: number) => string[] = (f) => f): string {
  const header = [
    'LOCATION,Sallow Haven,-,XXX,made by hand,000000,50.10,-4.20,0.0,12.0',
    'DESIGN CONDITIONS,0',
    'TYPICAL/EXTREME PERIODS,0',
    'GROUND TEMPERATURES,0',
    'HOLIDAYS/DAYLIGHT SAVINGS,No,0,0,0',
    'COMMENTS 1,made by hand',
    'COMMENTS 2,',
    'DATA PERIODS,1,1,Data,Sunday, 1/ 1,12/31',
  ];
  const rows: string[] = [];
  for (let i = 0; i < 8760; i += 1) {
    const day = new Date(Date.UTC(2025, 0, 1) + Math.floor(i / 24) * 24 * H);
    const hour = (i % 24) + 1;
    const fields = [
      '1999',
      `${day.getUTCMonth() + 1}`,
      `${day.getUTCDate()}`,
      `${hour}`,
      '60',
      'A7A7A7',
      '12.5',
      '9.0',
      '79',
      '101300',
      '0',
      '0',
      '320',
      '410',
      '300',
      '200',
      '0',
      '0',
      '0',
      '0',
      '240',
      '4.1',
      '6',
      '6',
      '20.0',
      '2000',
      '9',
      '999999999',
      '15',
      '0.1000',
      '0',
      '88',
      '0.2',
      '0.0',
      '1.0',
    ];
    rows.push(change(fields, i).join(','));
  }
  return [...header, ...rows].join('\r\n');
}

describe('EPW files [P: EnergyPlus, Auxiliary Programs: EPW format]', () => {
  it('reads place and hours of a file built by hand', () => {
    const { place, hours } = parseEpw(epw((f, i) => (i === 40 ? [...f.slice(0, 33), '1.4', '1.0'] : f)));
    expect(place).toEqual({
      name: 'Sallow Haven',
      country: 'XXX',
      latitudeDeg: 50.1,
      longitudeDeg: -4.2,
      utcOffsetH: 0,
    });
    expect(hours).toHaveLength(8760);
    expect(hours[0]).toEqual({ at: 0, airC: 12.5, rh: 0.79, windMs: 4.1, sunWm2: 410, cloud: 0.6, rainMm: 0 });
    expect(hours[40]!.rainMm).toBe(1.4);
  });
  it('takes missing figures from the hour before, and rain from the codes where none was measured', () => {
    const { hours } = parseEpw(
      epw((f, i) => {
        const fields = [...f];
        if (i === 5) fields[6] = '99.9';
        if (i === 6) fields[33] = '999';
        if (i === 7) [fields[26], fields[27], fields[33]] = ['0', '919999999', '999'];
        return fields;
      }),
    );
    expect(hours[5]!.airC).toBe(12.5);
    expect(hours[6]!.rainMm).toBe(0);
    expect(hours[7]!.rainMm).toBe(1);
  });
  it('lays a typical year on the calendar, by the clock of the file', () => {
    const year = parseEpw(epw((f, i) => [...f.slice(0, 6), String(i % 24), ...f.slice(7)]));
    const hours = typicalHours(year, Date.UTC(2027, 1, 3, 5, 20), 3);
    expect(hours.map((h) => [new Date(h.at).getUTCHours(), h.airC])).toEqual([
      [6, 6],
      [7, 7],
      [8, 8],
    ]);
  });
  it('says with the line what is wrong: cut off, too large, not a file of this kind, figures that cannot be', () => {
    const whole = epw();
    expect(() => parseEpw(whole.slice(0, whole.length / 2))).toThrow(/ends after|cut off/);
    expect(() => parseEpw(whole.slice(0, -60))).toThrow(/Line 8768|ends after/);
    expect(() => parseEpw('x'.repeat(EPW_MOST_BYTES + 1))).toThrow(/12 MB/);
    expect(() => parseEpw('at,airC\n1,2')).toThrow(/LOCATION/);
    expect(() => parseEpw(epw((f, i) => (i === 2 ? [...f.slice(0, 6), '212', ...f.slice(7)] : f)))).toThrow(
      /air temperature/,
    );
    expect(() => parseEpw(epw((f, i) => (i === 2 ? [...f.slice(0, 6), '75', ...f.slice(7)] : f)))).toThrow(/Line 11/);
    expect(() => parseEpw(epw((f, i) => (i === 9 ? [...f.slice(0, 3), '9', ...f.slice(4)] : f)))).toThrow(
      /out of order/,
    );
  });
});

describe('the hours in which a coat may be put on', () => {
  // Spread falls by a degree an hour from 8 at noon: below 3 after 17:00.
  const evening: WeatherHour[] = Array.from({ length: 25 }, (_, i) => ({
    at: T0 + i * H,
    airC: 20,
    rh: 0.5,
    windMs: 2,
    rainMm: 0,
  }));
  const dew = dewPointC({ airC: 20, rh: 0.5 });
  const surface = evening.map(({ at }, i) => ({ at, tempC: dew + (i < 6 ? 1 + i / 2.5 : i <= 12 ? 8 : 20 - i) }));
  const ask = {
    series: { air: evening, surface },
    limits: { ...NO_LIMITS, airMinC: 5, surfaceMinC: 5 },
    method: 'roller' as const,
  };

  it('from when the spread has opened, to the last start that is dry before it closes', () => {
    const touchDry = [{ tempC: 15, hours: 2 }];
    const found = allowedStarts({ ...ask, durationH: 1, touchDry, from: T0, to: T0 + 24 * H });
    expect(found).toHaveLength(1);
    const [spell] = found;
    // Open at 05:00 (spread 3), shut a moment after 17:00.
    expect((spell!.from - T0) / H).toBe(5);
    expect(spell!.openedBy!.break.limit).toBe('spread');
    const dryAt = (start: number) =>
      milestoneAt({ table: touchDry, kind: 'minimum', appliedAt: start + H, temps: surface })!;
    expect(dryAt(spell!.to)).toBeLessThanOrEqual(T0 + 17 * H);
    expect(dryAt(spell!.to + H / 4)).toBeGreaterThan(T0 + 17 * H - H / 4);
    const { closedBy } = spell!;
    expect(closedBy).toMatchObject({ at: T0 + 17.25 * H, break: { limit: 'spread', needs: 3 } });
    expect(closedBy!.break.found).toBeCloseTo(2.75, 6);
  });
  it('without a touch-dry time only while it is put on, and never past the end of the weather', () => {
    const [spell] = allowedStarts({ ...ask, durationH: 1, from: T0, to: T0 + 24 * H });
    expect((spell!.to - T0) / H).toBe(16);
    expect(allowedStarts({ ...ask, durationH: 1, from: T0 + 20 * H, to: T0 + 60 * H })).toEqual([]);
    const calm = { ...ask, series: { air: evening, surface: evening.map(({ at }) => ({ at, tempC: 20 })) } };
    expect(allowedStarts({ ...calm, durationH: 2, from: T0, to: T0 + 48 * H })).toMatchObject([
      { from: T0, to: T0 + 22 * H, closedBy: null },
    ]);
  });
});
