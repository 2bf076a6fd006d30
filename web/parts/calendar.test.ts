import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { calendarText } from './calendar';

const at = Date.UTC(2026, 5, 1, 16, 20);
const moments = [
  { id: 'opens-c1-z', at, title: 'Keel, “Saltgate”; barrier: opens', where: 'Pewit’s Errand, Long, Quay' },
  { id: 'pot-b1', at: at + 3_600_000, title: 'Pot life ends', where: '' },
];

describe('clocks in a calendar, by a second parser [P: RFC 5545]', () => {
  const read = async () => {
    const calendar = new ICAL.Component(ICAL.parse(await calendarText(moments, at - 60_000)) as never);
    return { calendar, events: calendar.getAllSubcomponents('vevent') };
  };
  it('each is an event at its instant, its words as they were, commas and all', async () => {
    const { events } = await read();
    const told = events.map((e) => new ICAL.Event(e));
    expect(told.map((e) => e.startDate.toJSDate().getTime())).toEqual(moments.map((m) => m.at));
    expect(told.map((e) => e.summary)).toEqual(moments.map((m) => m.title));
    expect(told[0]?.location).toBe(moments[0]?.where);
    expect(new Set(told.map((e) => e.uid)).size).toBe(2);
  });
  it('each rings five minutes before and at its moment', async () => {
    const { events } = await read();
    for (const e of events) {
      const alarms = e.getAllSubcomponents('valarm');
      expect(alarms.map((a) => a.getFirstPropertyValue('action'))).toEqual(['DISPLAY', 'DISPLAY']);
      const triggers = alarms.map((a) => (a.getFirstPropertyValue('trigger') as ICAL.Duration).toSeconds());
      expect(triggers).toEqual([-300, 0]);
    }
  });
  it('names who wrote it and its version', async () => {
    const { calendar } = await read();
    expect(calendar.getFirstPropertyValue('version')).toBe('2.0');
    expect(String(calendar.getFirstPropertyValue('prodid'))).toContain('Jack Plane');
  });
});
