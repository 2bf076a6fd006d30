import { describe, expect, it } from 'vitest';
import { spoken, spokenIn } from '../parts/english';
import { placeOfZone, usualUnits } from './device';

describe('what a device tells of where it is', () => {
  it('US units by its time zone, by its language only where it knows no place', () => {
    expect(usualUnits('America/New_York', 'en-GB')).toBe('us');
    expect(usualUnits('Europe/Amsterdam', 'en-US')).toBe('metric');
    expect(usualUnits('UTC', 'en-US')).toBe('us');
    expect(usualUnits('America/Toronto', 'en-CA')).toBe('metric');
  });
  it('latitude and currency of its time zone [P: tz database, zone.tab; ISO 4217]', async () => {
    expect(await placeOfZone('Europe/London')).toEqual({ latitudeDeg: 52, longitudeDeg: 0, currency: 'GBP' });
    // An older name, as browsers have it; half-hour zone.
    expect(await placeOfZone('Asia/Calcutta')).toEqual({ latitudeDeg: 23, longitudeDeg: 88, currency: 'INR' });
    expect(await placeOfZone('Australia/Lord_Howe')).toEqual({ latitudeDeg: -32, longitudeDeg: 159, currency: 'AUD' });
    expect(await placeOfZone('Nowhere/Here')).toBeNull();
  });
  it('speaks of draft and fiberglass where units are US, or as it is told', () => {
    const us = { words: null, units: { system: 'us' as const } };
    expect(spokenIn(us)).toBe('us');
    expect(spokenIn({ ...us, words: 'uk' })).toBe('uk');
    expect(spoken('Draught of the body; GRP gelcoat, light grey', 'us')).toBe(
      'Draft of the body; fiberglass gelcoat, light gray',
    );
    expect(spoken('GRP bottom', 'us')).toBe('Fiberglass bottom');
    expect(spoken('Draught', 'uk')).toBe('Draught');
  });
});
