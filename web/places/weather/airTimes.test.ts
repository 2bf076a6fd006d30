import { describe, expect, it } from 'vitest';
import { guessAirMapping, readAirTable } from '#core/air/airTable';
import { hasSlashes, hasZone, instantIn, type DateOrder } from './airTimes';

const H = 3_600_000;
const read = (text: string, zone = 'Etc/UTC', order: DateOrder = 'dayFirst', before: number | null = null) =>
  instantIn(text, { zone, order, before });

describe('times of a forecast', () => {
  const nine = Date.UTC(2026, 4, 14, 9);

  it.each([
    ['2026-05-14T09:00Z'],
    ['2026-05-14T10:00+01:00'],
    ['2026-05-14 09:00 UTC'],
    ['2026-05-14 09:00'],
    ['2026-05-14T09:00:00'],
    ['14.5.2026 09:00'],
    ['14/5/2026 9:00 AM'],
    ['1778749200'],
    ['1778749200000'],
  ])('%s is nine o’clock on 14 May', (text) => {
    expect(read(text)).toBe(nine);
  });

  it('slashes are read as they are said to be, and what is no time is none', () => {
    expect(read('5/4/2026 09:00', 'Etc/UTC', 'dayFirst')).toBe(Date.UTC(2026, 3, 5, 9));
    expect(read('5/4/2026 09:00', 'Etc/UTC', 'monthFirst')).toBe(Date.UTC(2026, 4, 4, 9));
    expect([read('soon'), read(''), read('2026-13-40 09:00'), read('25:00')]).toEqual([null, null, null, null]);
    expect([hasSlashes('5/4/2026 09:00'), hasSlashes('2026/05/04 09:00')]).toEqual([true, false]);
    expect([hasZone('2026-05-14T09:00Z'), hasZone('2026-05-14 09:00'), hasZone('1778749200')]).toEqual([
      true,
      false,
      true,
    ]);
  });

  it('on the clocks of a zone half an hour off, and of one in summer time', () => {
    expect(read('2026-05-14 14:30', 'Asia/Kolkata')).toBe(nine);
    expect(read('2026-05-14 10:00', 'Europe/London')).toBe(nine);
  });

  // Clocks go back at 02:00 on 25 October 2026 in London: the hour from one to two comes twice. [P: IANA time zone database]
  it('a night in which clocks go back has its hour twice, in order, and no line is lost', () => {
    const local = ['00:00', '01:00', '01:00', '02:00', '03:00'].map((t) => [`2026-10-25 ${t}`, '9', '80']);
    const { hours, problems } = readAirTable({
      rows: local,
      mapping: guessAirMapping(['time', 'temp', 'rh']),
      instantOf: (text, before) => read(text, 'Europe/London', 'dayFirst', before),
      now: Date.UTC(2026, 9, 24),
    });
    expect(problems).toEqual([]);
    expect(hours.map((h) => (h.at - (hours[0]?.at ?? 0)) / H)).toEqual([0, 1, 2, 3, 4]);
  });

  // And forward at 01:00 on 29 March: an hour that no clock shows falls on the one after it.
  it('an hour that clocks leave out is refused with its line', () => {
    const local = ['00:00', '01:00', '02:00'].map((t) => [`2026-03-29 ${t}`, '9', '80']);
    const { problems } = readAirTable({
      rows: local,
      mapping: guessAirMapping(['time', 'temp', 'rh']),
      instantOf: (text, before) => read(text, 'Europe/London', 'dayFirst', before),
      now: Date.UTC(2026, 2, 28),
    });
    expect(problems).toEqual(['Line 4 tells of the same time as line 3. Take one of them out.']);
  });
});
