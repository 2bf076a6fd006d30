import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Boat } from '#contracts/rows/boat';
import { many } from '#core/many.fixture';
import { boatFields, HOUR, NOW, readTables, testApp, uuid } from './app.fixture';
import { rawRows } from './db/open';
import { boatWeather, hoursOfTypedDays } from './weather';

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
const weather = async (boat: Boat, now: number, from: number) =>
  boatWeather((await t.store.boats.get(boat.id))!, now, from);
const type = (boat: Boat, days: object[], id = uuid()) =>
  t.agent.put(`/api/boats/${boat.id}/typed-weather/${id}`).send({ days });
const gaps = (hours: { at: number }[]) =>
  hours.slice(1).filter((h, i) => h.at - (hours[i] as { at: number }).at !== HOUR);
const day = (date: string, lowC: number, highC: number) => ({
  date,
  lowC,
  highC,
  rh: 0.6,
  dewC: null,
  rainFrom: null,
  rainTo: null,
  windMs: null,
});
const DAY = 24 * HOUR;

describe('the weather of a boat', () => {
  it('covers from before it is needed to ten days ahead, hour by hour without a gap', async () => {
    const boat = await makeBoat();
    const from = NOW - 20 * DAY;
    const { hours } = await weather(boat, NOW, from);
    expect(hours[0]?.at).toBeLessThanOrEqual(from);
    expect(hours[hours.length - 1]?.at).toBeGreaterThan(NOW + 9.5 * DAY);
    expect(gaps(hours)).toEqual([]);
  });
  it('is read without a word being written', async () => {
    const boat = await makeBoat();
    const before = JSON.stringify(await readTables(t.db));
    await t.agent.get(`/api/boats/${boat.id}`).expect(200);
    await t.agent.get('/api/yard').expect(200);
    t.clock.at = NOW + 400 * DAY;
    await t.agent.get(`/api/boats/${boat.id}`).expect(200);
    t.clock.at = NOW;
    expect(JSON.stringify(await readTables(t.db))).toBe(before);
  });
  it('keeps to what was in force for every hour that has passed, whoever looked when', async () => {
    const boat = await makeBoat();
    const then = await weather(boat, NOW, NOW - 9 * DAY);
    const later = await weather(boat, NOW + 14 * DAY, NOW - 9 * DAY);
    const known = new Map(later.hours.map((h) => [h.at, h]));
    const past = then.hours.filter((h) => h.at <= NOW);
    expect(past.length).toBeGreaterThan(9 * 24);
    for (const hour of past) expect(known.get(hour.at)).toEqual(hour);
    expect(gaps(later.hours)).toEqual([]);
    // And what was said of the days ahead was not right to the last tenth.
    const ahead = then.hours.filter((h) => h.at > NOW + 5 * DAY);
    expect(ahead.some((h) => Math.abs((known.get(h.at)?.airC ?? 0) - h.airC) > 0.3)).toBe(true);
  });
  it('a boat that is placed elsewhere keeps her past weather', async () => {
    const boat = await makeBoat();
    const before = await weather(boat, NOW, NOW - 5 * DAY);
    const north = { latitudeDeg: 65, place: 'Far north' };
    await t.agent
      .put(`/api/boats/${boat.id}`)
      .send({ ...boatFields, ...north, version: 1 })
      .expect(200);
    const after = await weather({ ...boat, ...north }, NOW, NOW - 5 * DAY);
    const known = new Map(after.hours.map((h) => [h.at, h.airC]));
    for (const hour of before.hours.filter((h) => h.at < NOW - 6 * HOUR)) expect(known.get(hour.at)).toBe(hour.airC);
    const mean = (hours: { at: number; airC: number }[]) =>
      hours.filter((h) => h.at > NOW + HOUR).reduce((sum, h, _i, all) => sum + h.airC / all.length, 0);
    expect(mean(after.hours)).toBeLessThan(mean(before.hours) - 2);
  });
  it('a typed forecast wins for its days only, and a newer one replaces what it said of the future', async () => {
    const boat = await makeBoat();
    await type(boat, [day('2026-05-15', 11, 19), day('2026-05-16', 12, 20)]).expect(200);
    const first = await weather(boat, NOW, NOW);
    expect(first.hours.filter((h) => h.source === 'typed')).toHaveLength(49);
    expect(first.typedDays.map((d) => d.date)).toEqual(['2026-05-15', '2026-05-16']);
    await type(boat, [day('2026-05-15', 5, 9)]).expect(200);
    const second = await weather(boat, NOW + 1, NOW);
    const typed = second.hours.filter((h) => h.source === 'typed');
    expect(typed).toHaveLength(25);
    expect(Math.max(...typed.map((h) => h.airC))).toBeCloseTo(9, 9);
  });
  it('the same typed forecast sent twice is one; another one under its id is refused', async () => {
    const boat = await makeBoat();
    const id = uuid();
    await type(boat, [day('2026-05-15', 11, 19)], id).expect(200);
    await type(boat, [day('2026-05-15', 11, 19)], id).expect(200);
    expect((await type(boat, [day('2026-05-15', 11, 25)], id).expect(409)).body.error.message).toMatch(
      /already has this id/,
    );
    const other = await makeBoat();
    await type(other, [day('2026-05-15', 11, 19)], id).expect(409);
    expect((await readTables(t.db)).typedForecasts?.filter((r) => r.id === id)).toHaveLength(1);
  });
  it('refuses days that no forecast reaches', async () => {
    const boat = await makeBoat();
    expect((await type(boat, [day('2026-08-15', 11, 19)]).expect(422)).body.error.message).toMatch(
      /No forecast reaches as far as 2026-08-15/,
    );
    expect((await type(boat, [day('2026-02-30', 11, 19)]).expect(400)).body.error.message).toMatch(
      /must be a date like/,
    );
  });
  it('a clock set back or ahead by a day, a month, a year: what was known then, and no hole', async () => {
    const boat = await makeBoat();
    await type(boat, [day('2026-05-15', 2, 3)]).expect(200);
    for (const days of [-365, -30, -1, 0, 1, 30, 365]) {
      const now = NOW + days * DAY;
      const { hours, typedDays } = await weather(boat, now, now - 3 * DAY);
      expect(gaps(hours)).toEqual([]);
      expect(hours[0]!.at).toBeLessThanOrEqual(now - 3 * DAY);
      expect(hours[hours.length - 1]!.at).toBeGreaterThan(now + 9 * DAY);
      // The forecast typed at NOW is not known before it, and not of use long after.
      expect(typedDays.length > 0).toBe(days >= 0 && days < 40);
      expect(hours.some((h) => h.source === 'typed')).toBe(days === 0 || days === 1);
    }
  });
  it('a year of running and of typing forecasts, or a fifth of one, adds less than 3 MB a boat and year', async () => {
    const boat = await makeBoat();
    const bytes = async () =>
      (await rawRows(t.db, sql`select pg_database_size(current_database())::float8 as n`))[0]?.n as number;
    const before = await bytes();
    for (let d = 0; d < many(365); d += 1) {
      t.clock.at = NOW + d * DAY;
      const date = (k: number) => new Date(t.clock.at + k * DAY).toISOString().slice(0, 10);
      await type(
        boat,
        Array.from({ length: 7 }, (_, k) => day(date(k), 5 + (d % 7), 15 + (d % 5))),
      ).expect(200);
      if (d % 30 === 0) await t.agent.get(`/api/boats/${boat.id}`).expect(200);
    }
    t.clock.at = NOW;
    const grown = (await bytes()) - before;
    expect(grown).toBeGreaterThan(0);
    expect(grown).toBeLessThan(many(3 * 1024 * 1024));
  });
  it('lays typed days on the boat’s own calendar, over a clock change', () => {
    // Lisbon goes forward on 29 March 2026: that day has 23 hours.
    const hours = hoursOfTypedDays([day('2026-03-29', 8, 16)], 'Europe/Lisbon');
    expect(hours[0]?.at).toBe(Date.UTC(2026, 2, 29, 0));
    expect(hours[hours.length - 1]?.at).toBe(Date.UTC(2026, 2, 29, 23));
    expect(hours).toHaveLength(24);
  });
});
