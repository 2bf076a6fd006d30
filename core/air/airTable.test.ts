import { describe, expect, it } from 'vitest';
import { withAirReadings } from './airReadings';
import { guessAirMapping, readAirTable, type AirMapping } from './airTable';
import { dewPointC } from './dewPoint';

const T0 = Date.UTC(2026, 4, 14);
const H = 3_600_000;
const iso = (text: string) => (Number.isFinite(Date.parse(text)) ? Date.parse(text) : null);
const at = (hour: number) => new Date(T0 + hour * H).toISOString();

const read = (rows: string[][], mapping: AirMapping = guessAirMapping(['time', 'temp', 'rh', 'rain'])) =>
  readAirTable({ rows, mapping, instantOf: iso, now: T0 });

describe('columns of a table of weather', () => {
  it('are told by their headings, units too', () => {
    expect(
      guessAirMapping(['valid_time', 'temp_F', 'RH (%)', 'dew point °F', 'wind (mph)', 'rain (in)', 'wind dir']),
    ).toEqual({
      time: { column: 0, unit: 'local' },
      air: { column: 1, unit: '°F' },
      rh: { column: 2, unit: '%' },
      dew: { column: 3, unit: '°F' },
      wind: { column: 4, unit: 'mph' },
      rain: { column: 5, unit: 'in' },
    });
    expect(guessAirMapping(['dir', 'x'])).toEqual({});
  });
  it('are missed by name', () => {
    expect(read([[at(0), '1']], {}).problems).toEqual(['Say which column holds the time.']);
    expect(read([[at(0), '1']], guessAirMapping(['time', 'temp'])).problems).toEqual([
      'Say which column holds the humidity or the dew point.',
    ]);
  });
});

describe('hours of a table', () => {
  it('in other units come out as they are here', () => {
    // 77 °F = 25 °C, 59 °F = 15 °C; 10 mph = 4.4704 m/s; 0.1 in = 2.54 mm. [P: NIST SP 811, conversion factors]
    const mapping = guessAirMapping(['time', 'temp (°F)', 'dew (°F)', 'wind (mph)', 'rain (in)']);
    const { hours, problems } = read([[at(0), '77', '59', '10', '0.1']], mapping);
    expect(problems).toEqual([]);
    expect(hours[0]).toMatchObject({ at: T0, airC: 25, windMs: 4.4704, rainMm: 2.54 });
    // Dew point 15 °C in air of 25 °C is 54 % by the Magnus formula with the coefficients of WMO No. 8.
    expect(hours[0]?.rh).toBeCloseTo(0.538, 2);
  });
  it('take a decimal comma, and quarters of an hour as one hour with their rain', () => {
    const { hours } = read([
      [at(0), '12,5', '80', '0,2'],
      [at(0.25), '12,6', '80', '0,3'],
      [at(1), '13', '75', ''],
    ]);
    expect(hours.map((h) => [h.at, h.airC, h.rainMm])).toEqual([
      [T0, 12.5, 0.5],
      [T0 + H, 13, undefined],
    ]);
  });
  it('in the wrong unit are refused by line, and a mild forecast in °F is doubted', () => {
    expect(read([[at(0), '68', '60', '0']]).problems).toEqual([
      'Line 2: an air temperature of 68 °C cannot be. If the column is in °F, say so.',
    ]);
    const spring = Array.from({ length: 24 }, (_, i) => [at(i), String(38 + (i % 12)), '60', '0']);
    expect(read(spring).notes).toEqual(['It is never colder than 38 °C in it. If the column is in °F, say so.']);
    expect(read([[at(0), '12', '0.7', '0']]).problems).toEqual([]);
    const share = { ...guessAirMapping(['time', 'temp']), rh: { column: 2, unit: 'share' as const } };
    expect(read([[at(0), '12', '70']], share).problems[0]).toMatch(/humidity of 70 cannot be. If it is in %, say so/);
  });
  it('that come twice, are no time, or are all past say which and what to do', () => {
    expect(
      read([
        [at(0), '12', '70', '0'],
        [at(0), '13', '70', '0'],
      ]).problems,
    ).toEqual(['Line 3 tells of the same time as line 2. Take one of them out.']);
    expect(read([['soon', '12', '70', '0']]).problems[0]).toMatch(/Line 2: “soon” is no time/);
    expect(read([[at(-5), '12', '70', '0']]).problems).toEqual([
      'It ends before now: nothing of it lies ahead. Bring in a newer one.',
    ]);
    expect(read([[at(0), '', '70', '0']]).problems[0]).toMatch(/air temperature “” is no number/);
    const many = Array.from({ length: 9 }, () => ['soon', '12', '70', '0']);
    expect(read(many).problems).toHaveLength(6);
  });
  it('with a hole say so, and a dew point above the air is refused', () => {
    expect(
      read([
        [at(0), '12', '70', '0'],
        [at(9), '12', '70', '0'],
      ]).notes,
    ).toEqual(['It says nothing for more than three hours in 1 place: the stand-in tells of those.']);
    const swapped = guessAirMapping(['time', 'dew', 'temp']);
    expect(read([[at(0), '18', '9']], swapped).problems[0]).toMatch(/dew point is above the air/);
  });
});

describe('air as it was read at the hull', () => {
  const steady = Array.from({ length: 25 }, (_, i) => ({ at: T0 + i * H, airC: 15, rh: 0.7 }));
  const by = (hours: readonly { at: number; airC: number }[], hour: number) =>
    hours.find((h) => h.at === T0 + hour * H)?.airC;

  it('holds at its time, fades within three hours, and goes over into the next one', () => {
    const one = withAirReadings(steady, [{ at: T0 + 10 * H, airC: 18, rh: null }], T0 + 24 * H);
    expect([6, 8, 10, 11, 13].map((h) => by(one, h))).toEqual([15, 16, 18, 17, 15]);
    const two = withAirReadings(
      steady,
      [
        { at: T0 + 10 * H, airC: 18, rh: null },
        { at: T0 + 12 * H, airC: 16, rh: null },
      ],
      T0 + 24 * H,
    );
    expect([10, 11, 12].map((h) => by(two, h))).toEqual([18, 17, 16]);
  });
  it('keeps the dew point where only the air was read, and leaves what lies ahead', () => {
    const read = withAirReadings(steady, [{ at: T0 + 10 * H, airC: 18, rh: null }], T0 + 10 * H);
    expect(dewPointC(read[10] as (typeof read)[number])).toBeCloseTo(dewPointC(steady[10] as (typeof steady)[number]));
    expect(by(read, 11)).toBe(15);
    const damp = withAirReadings(steady, [{ at: T0 + 10 * H, airC: 15, rh: 0.9 }], T0 + 24 * H);
    expect(damp[10]?.rh).toBeCloseTo(0.9, 6);
  });
});
