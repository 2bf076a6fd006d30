import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Boat } from '#contracts/boat';
import { boatFields, HOUR, NOW, testApp, uuid } from './app.fixture';
import { weatherIssues } from './db/schema';
import { boatWeather, hoursOfTypedDays, putTypedWeather } from './weather';

let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

async function makeBoat(): Promise<Boat> {
  const id = uuid();
  await t.agent.put(`/api/boats/${id}`).send(boatFields).expect(200);
  return (await t.agent.get(`/api/boats/${id}`)).body.boat as Boat;
}
const issuesOf = (boat: Boat) => t.db.select().from(weatherIssues).where(eq(weatherIssues.boatId, boat.id));
const gaps = (hours: { at: number }[]) => hours.slice(1).filter((h, i) => h.at - (hours[i] as { at: number }).at !== HOUR);
const day = (date: string, lowC: number, highC: number) => ({ date, lowC, highC, rh: 0.6, dewC: null, rainFrom: null, rainTo: null, windMs: null });

describe('the weather of a boat', () => {
  it('covers from before it is needed to ten days ahead, hour by hour without a gap', async () => {
    const boat = await makeBoat();
    const from = NOW - 20 * 24 * HOUR;
    const { hours } = await boatWeather(t.db, boat, NOW, from);
    expect(hours[0]?.at).toBeLessThanOrEqual(from);
    expect(hours[hours.length - 1]?.at).toBeGreaterThan(NOW + 9.5 * 24 * HOUR);
    expect(gaps(hours)).toEqual([]);
  });
  it('asks the simulator once an issue, however often it is looked at', async () => {
    const boat = await makeBoat();
    const first = await boatWeather(t.db, boat, NOW, NOW - 24 * HOUR);
    const count = (await issuesOf(boat)).length;
    const again = await boatWeather(t.db, boat, NOW + HOUR, NOW - 24 * HOUR);
    expect(await issuesOf(boat)).toHaveLength(count);
    expect(again.hours).toEqual(first.hours);
    await boatWeather(t.db, boat, NOW + 7 * HOUR, NOW - 24 * HOUR);
    expect(await issuesOf(boat)).toHaveLength(count + 1);
  });
  it('two looks at once do not double an issue', async () => {
    const boat = await makeBoat();
    await Promise.all([1, 2, 3].map(() => boatWeather(t.db, boat, NOW + 30 * HOUR, NOW)));
    const stamps = (await issuesOf(boat)).map((i) => `${i.source}/${i.issuedAt}`);
    expect(new Set(stamps).size).toBe(stamps.length);
  });
  it('fills in earlier days when a coat of last week is typed in, and changes no hour already known', async () => {
    const boat = await makeBoat();
    const before = await boatWeather(t.db, boat, NOW, NOW - 24 * HOUR);
    const after = await boatWeather(t.db, boat, NOW, NOW - 9 * 24 * HOUR);
    expect(after.hours[0]?.at).toBeLessThanOrEqual(NOW - 9 * 24 * HOUR);
    expect(gaps(after.hours)).toEqual([]);
    const known = new Map(after.hours.map((h) => [h.at, h.airC]));
    for (const hour of before.hours) expect(known.get(hour.at)).toBe(hour.airC);
  });
  it('has no gap after a fortnight in which nobody looked', async () => {
    const boat = await makeBoat();
    await boatWeather(t.db, boat, NOW, NOW - 24 * HOUR);
    const { hours } = await boatWeather(t.db, boat, NOW + 14 * 24 * HOUR, NOW - 24 * HOUR);
    expect(gaps(hours)).toEqual([]);
  });
  it('a typed forecast wins for its days only, and a newer one replaces what it said of the future', async () => {
    const boat = await makeBoat();
    await putTypedWeather(t.db, boat, uuid(), [day('2026-05-15', 11, 19), day('2026-05-16', 12, 20)], NOW);
    const first = await boatWeather(t.db, boat, NOW, NOW);
    expect(first.hours.filter((h) => h.source === 'typed')).toHaveLength(49);
    expect(first.typedDays.map((d) => d.date)).toEqual(['2026-05-15', '2026-05-16']);
    await putTypedWeather(t.db, boat, uuid(), [day('2026-05-15', 5, 9)], NOW);
    const second = await boatWeather(t.db, boat, NOW, NOW);
    const typed = second.hours.filter((h) => h.source === 'typed');
    expect(typed).toHaveLength(25);
    expect(Math.max(...typed.map((h) => h.airC))).toBeCloseTo(9, 9);
  });
  it('the same typed issue sent twice is one', async () => {
    const boat = await makeBoat();
    const id = uuid();
    await putTypedWeather(t.db, boat, id, [day('2026-05-15', 11, 19)], NOW);
    await putTypedWeather(t.db, boat, id, [day('2026-05-15', 11, 19)], NOW);
    expect((await issuesOf(boat)).filter((i) => i.source === 'typed')).toHaveLength(1);
  });
  it('lays typed days on the boat’s own calendar, over a clock change', () => {
    // Lisbon goes forward on 29 March 2026: that day has 23 hours.
    const hours = hoursOfTypedDays([day('2026-03-29', 8, 16)], 'Europe/Lisbon');
    expect(hours[0]?.at).toBe(Date.UTC(2026, 2, 29, 0));
    expect(hours[hours.length - 1]?.at).toBe(Date.UTC(2026, 2, 29, 23));
    expect(hours).toHaveLength(24);
  });
});
