import { describe, expect, it } from 'vitest';
import { instantsOf } from './localTime';

const utc = (...parts: [number, number, number, number, number]) => Date.UTC(...parts);

// When clocks change: IANA time zone database [P], as shipped with the platform.
describe('a time as it is typed at the boat', () => {
  it('comes twice in the hour in which clocks go back, and both can be meant', () => {
    // Lisbon, 25 October 2026, 02:00 summer time becomes 01:00.
    expect(instantsOf('2026-10-25T01:30', 'Europe/Lisbon')).toEqual([utc(2026, 9, 25, 0, 30), utc(2026, 9, 25, 1, 30)]);
    // New York, 1 November 2026, 02:00 becomes 01:00.
    expect(instantsOf('2026-11-01T01:30', 'America/New_York')).toEqual([
      utc(2026, 10, 1, 5, 30),
      utc(2026, 10, 1, 6, 30),
    ]);
    // Lord Howe goes back by half an hour, on 5 April 2026 at 02:00.
    expect(instantsOf('2026-04-05T01:45', 'Australia/Lord_Howe')).toEqual([
      utc(2026, 3, 4, 14, 45),
      utc(2026, 3, 4, 15, 15),
    ]);
  });
  it('comes once otherwise, on the same day too and where the offset is half an hour', () => {
    expect(instantsOf('2026-10-25T00:59', 'Europe/Lisbon')).toEqual([utc(2026, 9, 24, 23, 59)]);
    expect(instantsOf('2026-10-25T02:00', 'Europe/Lisbon')).toEqual([utc(2026, 9, 25, 2, 0)]);
    expect(instantsOf('2026-05-14T09:40', 'Asia/Kolkata')).toEqual([utc(2026, 4, 14, 4, 10)]);
  });
  it('that is skipped is moved on with the clocks; nonsense is none', () => {
    // Lisbon, 29 March 2026, 01:00 becomes 02:00.
    expect(instantsOf('2026-03-29T01:30', 'Europe/Lisbon')).toEqual([utc(2026, 2, 29, 1, 30)]);
    expect(instantsOf('', 'Europe/Lisbon')).toEqual([]);
    expect(instantsOf('teatime', 'Europe/Lisbon')).toEqual([]);
  });
});
