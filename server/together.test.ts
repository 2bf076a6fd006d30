import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { entryFields, NOW, setUpBoat, startBody, testApp, uuid } from './app.fixture';
import type { LogEntry } from '#core/model/log';
import type { BoatBundle } from '#contracts/rows/boat';

/** What several phones do at the same moment: it comes out as if they had come one after the other. */
let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

const bundleOf = async (boat: string) => (await t.agent.get(`/api/boats/${boat}`).expect(200)).body as BoatBundle;

describe('several at once', () => {
  it('one of two starts of a coat stands, the other is refused with a reason', async () => {
    const set = await setUpBoat(t.agent);
    const coat = uuid();
    const answers = await Promise.all(
      ['Ada', 'Ben', 'Cyd'].map((painter) =>
        t.agent.put(`/api/entries/${uuid()}`).send({ ...startBody(set, coat, NOW), painter }),
      ),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 422, 422]);
    for (const { body } of answers.filter((a) => a.status === 422))
      expect((body as { error: { message: string } }).error.message).toMatch(/already started/);
    expect((await bundleOf(set.boat)).entries.filter((e: LogEntry) => e.kind === 'started')).toHaveLength(1);
  });

  it('one entry sent many times at once is one entry', async () => {
    const set = await setUpBoat(t.agent);
    const [coat, id] = [uuid(), uuid()];
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(set, coat, NOW))
      .expect(200);
    const note = entryFields(set.boat, coat, 'note', NOW, { text: 'once' });
    const answers = await Promise.all(Array.from({ length: 6 }, () => t.agent.put(`/api/entries/${id}`).send(note)));
    expect(answers.map((a) => a.status)).toEqual([200, 200, 200, 200, 200, 200]);
    expect((await bundleOf(set.boat)).entries.filter((e) => e.id === id)).toHaveLength(1);
  });

  it('of two changes of one row from one version, one stands and the other hears of it', async () => {
    const set = await setUpBoat(t.agent);
    const { boat } = await bundleOf(set.boat);
    const { id: _id, ...fields } = boat;
    const answers = await Promise.all(
      ['Left', 'Right'].map((name) => t.agent.put(`/api/boats/${set.boat}`).send({ ...fields, name })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    expect((await bundleOf(set.boat)).boat.version).toBe(boat.version + 1);
  });

  it('a bundle is of one moment, whatever is written meanwhile', async () => {
    const set = await setUpBoat(t.agent);
    // Both rows of a change carry one number: a bundle between them would show two.
    const second = uuid();
    const { surfaces } = await bundleOf(set.boat);
    const { id: _id, areaM2: _a, areaShare: _s, grossM2: _g, ...zone } = surfaces[0]!;
    await t.agent
      .put(`/api/surfaces/${second}`)
      .send({ ...zone, version: 0, sort: 2 })
      .expect(200);
    const two = { boat: set.boat, first: set.buildUp, second: uuid() };
    const rows = (version: number) =>
      [
        [two.first, set.zone],
        [two.second, second],
      ].map(([id, surfaceId], i) => ({
        id,
        boatId: set.boat,
        surfaceId,
        layers: set.layers.map((l) => ({ ...l, id: uuid() })),
        namedId: null,
        targetMicron: 100 + version,
        overrides: [],
        records: [],
        version: i === 0 ? version : version - 1,
        deleted: false,
      }));
    const state = { writing: true };
    const reading = (async () => {
      const seen: (number | null)[][] = [];
      while (state.writing) seen.push((await bundleOf(set.boat)).buildUps.map((b) => b.targetMicron));
      return seen;
    })();
    for (let version = 1; version <= 12; version += 1)
      await t.agent
        .put(`/api/boats/${set.boat}/build-ups`)
        .send({ rows: rows(version) })
        .expect(200);
    state.writing = false;
    const seen = (await reading).filter((targets) => targets.length === 2);
    expect(seen.length).toBeGreaterThan(0);
    for (const [first, other] of seen) expect(first).toBe(other);
  });
});
