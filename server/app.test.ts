import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { boatFields, entryFields, HOUR, NOW, setUpBoat, startBody, testApp, uuid, zoneFields } from './app.fixture';
import { refused } from './refused.fixture';

let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

describe('the server', () => {
  it('tells its health and stamps every request', async () => {
    const res = await t.agent.get('/api/health').expect(200);
    expect(res.body).toMatchObject({ ok: true, now: NOW, frozen: true });
    expect(res.headers['x-request-id']).toMatch(/^[0-9a-f-]{36}$/);
  });
  it('allows nothing from other origins and works over plain http', async () => {
    const { headers } = await t.agent.get('/api/health');
    const csp = headers['content-security-policy'] as string;
    expect(csp).toContain("default-src 'self'");
    expect(csp).not.toMatch(/unsafe|upgrade-insecure-requests|https?:/);
    expect(headers['strict-transport-security']).toBeUndefined();
    expect(headers['x-powered-by']).toBeUndefined();
  });
  it('answers an unknown path in JSON', async () => {
    await refused(t.agent.get('/api/nothing/here'), 404, /nothing at GET/);
    await refused(t.agent.delete(`/api/boats/${uuid()}`), 404, /nothing at DELETE/);
  });
  it('refuses malformed JSON, a 5 MB body, wrong ids and unknown fields', async () => {
    await refused(
      t.agent.put(`/api/boats/${uuid()}`).set('Content-Type', 'application/json').send('{"name":'),
      400,
      /not valid JSON/,
    );
    await refused(t.agent.put(`/api/boats/${uuid()}`).send({ name: 'x'.repeat(5_000_000) }), 413, /too large/);
    await refused(t.agent.get('/api/boats/17'), 400, /id is not a valid id/);
    await refused(t.agent.get(`/api/boats/${uuid()}?x=1`), 400, /X is not known here/);
    await refused(t.agent.get('/api/boats/%E0%A4%A'), 400, /./);
    const error = await refused(
      t.agent.put(`/api/boats/${uuid()}`).send({ ...boatFields, wings: 2 }),
      400,
      /Wings is not known/,
    );
    expect(error.field).toBe('wings');
  });
});

describe('boats, haul-outs and zones', () => {
  it('keeps a boat as it was typed, hostile names included', async () => {
    for (const name of [
      "'; drop table boats; --",
      '<script>alert(1)</script>',
      '=cmd()',
      'Ünïcøde 船',
      'x'.repeat(120),
    ]) {
      const id = uuid();
      await t.agent
        .put(`/api/boats/${id}`)
        .send({ ...boatFields, name })
        .expect(200);
      const { body } = await t.agent.get(`/api/boats/${id}`).expect(200);
      expect(body.boat.name).toBe(name);
    }
  });
  it('refuses absurd boats with a sentence and the field', async () => {
    const put = (change: object) => t.agent.put(`/api/boats/${uuid()}`).send({ ...boatFields, ...change });
    expect((await refused(put({ loaM: 900 }), 400, /Length overall must be at most 100/)).field).toBe('loaM');
    expect((await refused(put({ loaM: 90 }), 422, /between 1.5 and 60 m/)).field).toBe('loaM');
    expect((await refused(put({ lwlM: 9 }), 422, /longer than the boat/)).field).toBe('lwlM');
    await refused(put({ beamM: 0 }), 400, /Beam must be more than zero/);
    await refused(put({ draftM: -1 }), 400, /Draught must be more than zero/);
    await refused(put({ freeboardM: '1,500' }), 400, /Freeboard must be a number/);
    await refused(put({ name: '   ' }), 400, /Name is empty/);
    await refused(put({ timeZone: 'Moon/Base' }), 422, /not a time zone/);
  });
  it('sends the same create twice: one row', async () => {
    const id = uuid();
    const first = await t.agent.put(`/api/boats/${id}`).send(boatFields).expect(200);
    const again = await t.agent.put(`/api/boats/${id}`).send(boatFields).expect(200);
    expect(first.body).toMatchObject({ changed: true, row: { version: 1 } });
    expect(again.body).toMatchObject({ changed: false, row: { version: 1 } });
  });
  it('two tabs edit one row: the second gets 409 with the newer row, nothing is written', async () => {
    const id = uuid();
    await t.agent.put(`/api/boats/${id}`).send(boatFields).expect(200);
    await t.agent
      .put(`/api/boats/${id}`)
      .send({ ...boatFields, name: 'First tab', version: 1 })
      .expect(200);
    const error = await refused(
      t.agent.put(`/api/boats/${id}`).send({ ...boatFields, name: 'Second tab', version: 1 }),
      409,
      /changed meanwhile/,
    );
    expect(error).toMatchObject({ code: 'stale', current: { name: 'First tab', version: 2 } });
    expect((await t.agent.get(`/api/boats/${id}`)).body.boat.name).toBe('First tab');
  });
  it('a removed boat is gone and comes back by undo', async () => {
    const id = uuid();
    await t.agent.put(`/api/boats/${id}`).send(boatFields).expect(200);
    await t.agent
      .put(`/api/boats/${id}`)
      .send({ ...boatFields, version: 1, deleted: true })
      .expect(200);
    await refused(t.agent.get(`/api/boats/${id}`), 404, /no such boat/);
    await t.agent
      .put(`/api/boats/${id}`)
      .send({ ...boatFields, version: 2 })
      .expect(200);
    await t.agent.get(`/api/boats/${id}`).expect(200);
  });
  it('a haul-out has dates in order and a boat', async () => {
    const { boat } = await setUpBoat(t.agent);
    const job = {
      boatId: boat,
      outOn: '2026-05-01',
      inOn: '2026-05-20',
      yardCostPerDayMinor: 2500,
      currency: 'EUR',
      version: 0,
    };
    await t.agent.put(`/api/jobs/${uuid()}`).send(job).expect(200);
    await refused(
      t.agent.put(`/api/jobs/${uuid()}`).send({ ...job, inOn: '2026-04-20' }),
      422,
      /launch is before the haul-out/,
    );
    await refused(t.agent.put(`/api/jobs/${uuid()}`).send({ ...job, outOn: '1 May' }), 400, /date like 2026-05-31/);
    await refused(t.agent.put(`/api/jobs/${uuid()}`).send({ ...job, boatId: uuid() }), 404, /no such boat/);
  });
  it('a zone’s area follows the boat’s own dimensions', async () => {
    const { boat, zone } = await setUpBoat(t.agent);
    const before = (await t.agent.get(`/api/boats/${boat}`)).body.surfaces[0];
    expect(before.areaM2).toBeCloseTo(7 * (2.6 + 1.1) * 0.75, 9);
    await t.agent
      .put(`/api/boats/${boat}`)
      .send({ ...boatFields, lwlM: 7.5, version: 1 })
      .expect(200);
    expect((await t.agent.get(`/api/boats/${boat}`)).body.surfaces[0].areaM2).toBeCloseTo(7.5 * 3.7 * 0.75, 9);
    await refused(
      t.agent.put(`/api/surfaces/${zone}`).send({ ...zoneFields(boat), kind: 'rudder', version: 1 }),
      422,
      /no rule of thumb/,
    );
    const other = await setUpBoat(t.agent);
    await refused(
      t.agent.put(`/api/surfaces/${zone}`).send({ ...zoneFields(other.boat), version: 1 }),
      422,
      /another boat/,
    );
  });
});

describe('the log', () => {
  it('takes a coat from start to finish, and the same entry twice as one', async () => {
    const set = await setUpBoat(t.agent);
    const coat = uuid();
    const first = uuid();
    await t.agent
      .put(`/api/entries/${first}`)
      .send(startBody(set, coat, NOW - 2 * HOUR))
      .expect(200);
    await t.agent
      .put(`/api/entries/${first}`)
      .send(startBody(set, coat, NOW - 2 * HOUR))
      .expect(200);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(entryFields(set.boat, coat, 'finished', NOW - HOUR, { litresOn: 3 }))
      .expect(200);
    const { body } = await t.agent.get(`/api/boats/${set.boat}`);
    expect(body.entries.map((e: { kind: string }) => e.kind)).toEqual(['started', 'finished']);
    expect(body.entries[0].recordedAt).toBe(NOW);
    // Another device starts the same layer of the same zone: one layer is one coat.
    await refused(
      t.agent.put(`/api/entries/${uuid()}`).send(startBody(set, uuid(), NOW - HOUR / 2)),
      422,
      /This coat is on already/,
    );
    await refused(
      t.agent.put(`/api/entries/${first}`).send(startBody(set, coat, NOW - 3 * HOUR)),
      409,
      /already has this id/,
    );
  });
  it('refuses a finish before the start, a coat in the future and one on a zone without build-up', async () => {
    const set = await setUpBoat(t.agent);
    const coat = uuid();
    await refused(t.agent.put(`/api/entries/${uuid()}`).send(startBody(set, uuid(), NOW + HOUR)), 422, /not come yet/);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(set, coat, NOW - HOUR))
      .expect(200);
    await refused(
      t.agent
        .put(`/api/entries/${uuid()}`)
        .send(entryFields(set.boat, coat, 'finished', NOW - 2 * HOUR, { litresOn: null })),
      422,
      /finish before it started/,
    );
    const bare = uuid();
    await t.agent
      .put(`/api/surfaces/${bare}`)
      .send({ ...zoneFields(set.boat), name: 'Bare zone' })
      .expect(200);
    const onBare = startBody(set, uuid(), NOW);
    onBare.body.on = [{ surfaceId: bare, layerId: set.layers[0]?.id }];
    await refused(
      t.agent.put(`/api/entries/${uuid()}`).send(onBare),
      422,
      /Bare zone has no build-up yet. Add its coats under Film/,
    );
    const gone = startBody(set, uuid(), NOW);
    gone.body.on = [{ surfaceId: set.zone, layerId: uuid() }];
    await refused(t.agent.put(`/api/entries/${uuid()}`).send(gone), 422, /no longer in the build-up/);
  });
  it('refuses 140 % humidity, RH 0 and a reading on somebody else’s zone', async () => {
    const set = await setUpBoat(t.agent);
    const other = await setUpBoat(t.agent);
    const coat = uuid();
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(set, coat, NOW))
      .expect(200);
    const reading = (rh: number) =>
      t.agent
        .put(`/api/entries/${uuid()}`)
        .send(entryFields(set.boat, coat, 'reading', NOW, { airC: 18, rh, surfaceC: 17 }));
    await refused(reading(1.4), 400, /Humidity must be at most 1/);
    await refused(reading(0), 400, /Humidity must be more than 0/);
    await reading(0.6).expect(200);
    const elsewhere = {
      ...entryFields(set.boat, other.zone, 'reading', NOW, { airC: 18, rh: 0.5, surfaceC: 17 }),
      stream: 'zone',
    };
    await refused(t.agent.put(`/api/entries/${uuid()}`).send(elsewhere), 404, /no such zone/);
  });
  it('a correction supersedes; both stay readable; the CSV tells the corrected time', async () => {
    const set = await setUpBoat(t.agent);
    const coat = uuid();
    const wrong = uuid();
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(set, coat, NOW - 3 * HOUR))
      .expect(200);
    await t.agent
      .put(`/api/entries/${wrong}`)
      .send(entryFields(set.boat, coat, 'finished', NOW - 2 * HOUR, { litresOn: 3 }))
      .expect(200);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(entryFields(set.boat, coat, 'finished', NOW - HOUR, { litresOn: 4 }, wrong))
      .expect(200);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(entryFields(set.boat, coat, 'note', NOW, { text: '=HYPERLINK("x")' }))
      .expect(200);
    const csv = await t.agent.get(`/api/boats/${set.boat}/coat-sheets.csv`).expect(200);
    expect(csv.headers['content-disposition']).toContain('Test Punt coat sheets.csv');
    const [row] = Papa.parse<Record<string, string>>(csv.text, { header: true }).data;
    expect(row).toMatchObject({
      zone: 'Underwater hull',
      product: 'Example barrier',
      finished: '2026-05-14T10:00:00+01:00',
      'litres on': '4',
      'corrected entries': '1',
    });
    expect(row?.notes).toBe('\'=HYPERLINK("x")');
    expect((await t.agent.get(`/api/boats/${set.boat}`)).body.entries).toHaveLength(4);
  });
  it('keeps ten entries sent at once, and no half of one that fails', async () => {
    const set = await setUpBoat(t.agent);
    const coat = uuid();
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(set, coat, NOW))
      .expect(200);
    const notes = Array.from({ length: 10 }, (_, i) =>
      t.agent.put(`/api/entries/${uuid()}`).send(entryFields(set.boat, coat, 'note', NOW, { text: `note ${i}` })),
    );
    const statuses = (await Promise.all(notes)).map((r) => r.status);
    expect(statuses).toEqual(Array(10).fill(200));
    expect((await t.agent.get(`/api/boats/${set.boat}`)).body.entries).toHaveLength(11);
  });
});

describe('weather', () => {
  it('is simulated until typed; a typed day becomes its hours', async () => {
    const { boat } = await setUpBoat(t.agent);
    const simulated = (await t.agent.get(`/api/boats/${boat}`)).body;
    expect(simulated.hours.length).toBeGreaterThan(24 * 9);
    expect(new Set(simulated.hours.map((h: { source: string }) => h.source))).toEqual(new Set(['simulated']));
    const day = { date: '2026-05-15', lowC: 9, highC: 19, rh: 0.7, dewC: null, rainFrom: 14, rainTo: 16, windMs: null };
    await t.agent
      .put(`/api/boats/${boat}/typed-weather/${uuid()}`)
      .send({ days: [day] })
      .expect(200);
    const typed = (await t.agent.get(`/api/boats/${boat}`)).body;
    expect(typed.typedDays).toEqual([day]);
    const hours = typed.hours.filter((h: { source: string }) => h.source === 'typed');
    expect(hours).toHaveLength(25);
    expect(Math.max(...hours.map((h: { airC: number }) => h.airC))).toBeCloseTo(19, 9);
    // 15:00 in Lisbon in May is 14:00 UTC.
    expect(hours.find((h: { airC: number }) => Math.abs(h.airC - 19) < 1e-9).at).toBe(Date.UTC(2026, 4, 15, 14));
    await t.agent.put(`/api/boats/${boat}/typed-weather/${uuid()}`).send({ days: [] }).expect(200);
    expect((await t.agent.get(`/api/boats/${boat}`)).body.typedDays).toEqual([]);
  });
  it('of a file counts hour by hour in place of what was typed, and must be in order and near', async () => {
    const { boat } = await setUpBoat(t.agent);
    const hour = (i: number, airC = 11) => ({ at: NOW + i * 3_600_000, airC, rh: 0.6, rainMm: 0 });
    const put = (hours: unknown) => t.agent.put(`/api/boats/${boat}/typed-weather/${uuid()}`).send({ days: [], hours });
    await put([hour(1), hour(2, 12)]).expect(200);
    const bundle = (await t.agent.get(`/api/boats/${boat}`)).body;
    expect(bundle.typedHours).toEqual([hour(1), hour(2, 12)]);
    expect(bundle.hours.filter((h: { source: string }) => h.source === 'typed')).toMatchObject([
      { airC: 11 },
      { airC: 12 },
    ]);
    await refused(put([hour(2), hour(1)]), 422, /not in order/);
    await refused(put([hour(24 * 60)]), 422, /No forecast reaches so far/);
    await refused(put([{ ...hour(1), airC: 140 }]), 400, /Air must be/);
    await put(null).expect(200);
    expect((await t.agent.get(`/api/boats/${boat}`)).body.typedHours).toBeNull();
  });
  it('is put right in the past by what was read in the open air, not by what was read in a tent', async () => {
    const { boat, zone } = await setUpBoat(t.agent);
    const at = NOW - 2 * 3_600_000;
    const told = async () => {
      const { hours } = (await t.agent.get(`/api/boats/${boat}`)).body;
      return (hours as { at: number; airC: number }[]).find((h) => h.at === Math.floor(at / 3_600_000) * 3_600_000)!
        .airC;
    };
    const before = await told();
    const read = (airC: number) =>
      t.agent
        .put(`/api/entries/${uuid()}`)
        .send({ ...entryFields(boat, zone, 'reading', at, { airC, rh: null, surfaceC: null }), stream: 'zone' });
    await read(before + 4).expect(200);
    expect(await told()).toBeGreaterThan(before + 2);
    const [row] = (await t.agent.get(`/api/boats/${boat}`)).body.surfaces;
    const { areaM2: _a, areaShare: _s, grossM2: _g, id: _id, ...fields } = row;
    await t.agent.put(`/api/surfaces/${zone}`).send({ ...fields, shelter: 'tent' });
    expect(await told()).toBe(before);
  });
  it('asks again when a typed day cannot be', async () => {
    const { boat } = await setUpBoat(t.agent);
    const day = {
      date: '2026-05-15',
      lowC: 29,
      highC: 19,
      rh: 0.7,
      dewC: null,
      rainFrom: null,
      rainTo: null,
      windMs: null,
    };
    const put = (change: object) =>
      t.agent.put(`/api/boats/${boat}/typed-weather/${uuid()}`).send({ days: [{ ...day, ...change }] });
    await refused(put({}), 422, /Swap them/);
    await refused(put({ lowC: 9, rh: null }), 422, /humidity or the dew point/);
    await refused(put({ lowC: 9, rh: 1.4 }), 400, /Humidity must be at most 1/);
    expect((await t.agent.get(`/api/boats/${boat}`)).body.typedDays).toEqual([]);
  });
  it('revises the forecast as time passes but not the past', async () => {
    const { boat } = await setUpBoat(t.agent);
    const job = {
      boatId: boat,
      outOn: '2026-05-10',
      inOn: null,
      yardCostPerDayMinor: null,
      currency: 'EUR',
      version: 0,
    };
    await t.agent.put(`/api/jobs/${uuid()}`).send(job).expect(200);
    const at = (body: { hours: { at: number; airC: number }[] }, hour: number) =>
      body.hours.find((h) => h.at === NOW + hour * HOUR)?.airC;
    const before = (await t.agent.get(`/api/boats/${boat}`)).body;
    t.clock.at = NOW + 48 * HOUR;
    const after = (await t.agent.get(`/api/boats/${boat}`)).body;
    t.clock.at = NOW;
    expect(at(after, -5)).toBe(at(before, -5));
    expect(at(after, 100)).toBeDefined();
    expect(at(after, 100)).not.toBe(at(before, 100));
  });
});

describe('the yard', () => {
  it('lists every boat with the state of its zones', async () => {
    const set = await setUpBoat(t.agent);
    const { body } = await t.agent.get('/api/yard').expect(200);
    const mine = body.boats.find((b: { boat: { id: string } }) => b.boat.id === set.boat);
    expect(mine.zones).toEqual([
      expect.objectContaining({ name: 'Underwater hull', state: 'ready', nextName: 'Example barrier' }),
    ]);
    expect(mine.air).toMatchObject({ simulated: true });
  });
});
