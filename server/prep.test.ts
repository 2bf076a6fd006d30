import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BoatBundle } from '#contracts/rows/boat';
import { prepOf } from '#core/prep/prepLog';
import { foldWaterline } from '#core/waterline/waterlineLog';
import { bytes, HOUR, NOW, setUpBoat, testApp, uuid } from './app.fixture';

let t: Awaited<ReturnType<typeof testApp>>;
let set: Awaited<ReturnType<typeof setUpBoat>>;
beforeAll(async () => {
  t = await testApp();
  set = await setUpBoat(t.agent);
});
afterAll(() => t.close());

const entry = (stream: 'zone' | 'boat', kind: string, body: object, more: object = {}) =>
  t.agent.put(`/api/entries/${uuid()}`).send({
    boatId: set.boat,
    stream,
    streamId: stream === 'zone' ? set.zone : set.boat,
    kind,
    occurredAt: NOW - HOUR,
    painter: 'Ada',
    device: 'd',
    supersedes: null,
    body,
    ...more,
  });
const bundle = async () => (await t.agent.get(`/api/boats/${set.boat}`).expect(200)).body as BoatBundle;
const refused = async (sent: ReturnType<typeof entry>): Promise<[number, string]> => {
  const { status, body } = await sent;
  return [status, (body as { error: { message: string } }).error.message];
};

describe('entries of a zone that is got ready', () => {
  it('are taken, superseded and withdrawn, and what was said before stays', async () => {
    const wrong = await entry('zone', 'prepared', { step: 'degrease', waterL: 20, concentrateL: 4 }).expect(200);
    const { id } = wrong.body as { id: string };
    await entry('zone', 'prepared', { step: 'degrease', waterL: 20, concentrateL: 0.4 }, { supersedes: id }).expect(
      200,
    );
    await entry('zone', 'dirtied', { by: 'washingDown', text: 'the boat to windward' }).expect(200);
    const log = prepOf((await bundle()).entries, set.zone);
    expect(log.done.map((d) => d.concentrateL)).toEqual([0.4]);
    expect(log.superseded.map((e) => e.id)).toEqual([id]);
    await entry('zone', 'withdrawn', { reason: '' }, { supersedes: log.dirtied[0]?.id }).expect(200);
    expect(prepOf((await bundle()).entries, set.zone).dirtied).toEqual([]);
  });

  it('are refused with a reason where they cannot be', async () => {
    expect(await refused(entry('zone', 'prepared', { step: 'rinse' }, { occurredAt: NOW + HOUR }))).toEqual([
      422,
      'This time has not come yet: it says 14 May 2026 12:00, and it is 14 May 2026 11:00 by the server’s clock. Check the date and time.',
    ]);
    const body = { convertedShare: 0.4, next: 'leave', reason: 'the season ends' };
    expect(await refused(entry('zone', 'rustLooked', body))).toEqual([400, expect.stringContaining('By when')]);
    expect((await refused(entry('zone', 'rustLooked', { ...body, dueOn: '2027-04-31' })))[0]).toBe(400);
    await entry('zone', 'rustLooked', { ...body, dueOn: '2027-04-30' }).expect(200);
    const masked = { job: 'anode', lifeDays: 3, pull: 'wet' };
    expect((await refused(entry('zone', 'masked', masked)))[0]).toBe(400);
    expect((await refused(entry('zone', 'masked', { ...masked, job: 'edge:b', lifeDays: 0 })))[0]).toBe(400);
    expect(
      await refused(
        entry('zone', 'prepPlanned', { way: null, added: [], leftOut: [{ key: 'wipe', reason: '' }], order: [] }),
      ),
    ).toEqual([400, expect.stringContaining('The reason')]);
    expect((await refused(entry('zone', 'prepared', { step: 'rinse' }, { streamId: uuid() })))[0]).toBe(404);
    expect((await refused(entry('boat', 'prepared', { step: 'rinse' })))[0]).toBe(422);
  });
});

describe('entries of the boat as a whole', () => {
  const mark = { lineId: uuid(), xM: 2, side: 'port', by: 'level', from: 'rail', valueM: 0.52, no: 5 };

  it('belong to this boat, and to zones that she has', async () => {
    expect((await refused(entry('boat', 'marked', mark, { streamId: uuid() })))[0]).toBe(404);
    const moved = { freed: [uuid()], now: [], text: '' };
    expect((await refused(entry('boat', 'standsMoved', moved)))[0]).toBe(404);
    await entry('boat', 'standsMoved', { ...moved, freed: [set.zone] }).expect(200);
    expect((await refused(entry('zone', 'marked', mark)))[0]).toBe(422);
  });

  it('are there again after a backup is put back', async () => {
    await entry('boat', 'marked', mark).expect(200);
    await entry('boat', 'stood', {
      points: [{ name: 'Stem', xM: 8, yM: 0, onBoatM: 1, aboveGroundM: 2.1 }],
    }).expect(200);
    const before = foldWaterline((await bundle()).entries);
    expect(before.marks.map((m) => m.valueM)).toEqual([0.52]);
    const archive = (await bytes(t.agent.get('/api/backup'))).body as Buffer;
    const again = await testApp();
    await again.agent.post('/api/restore').set('content-type', 'application/gzip').send(archive).expect(200);
    const restored = (await again.agent.get(`/api/boats/${set.boat}`).expect(200)).body as BoatBundle;
    expect(foldWaterline(restored.entries)).toEqual(before);
    expect(prepOf(restored.entries, set.zone).rust).toEqual(prepOf((await bundle()).entries, set.zone).rust);
    await again.close();
  });

  it('say what is wrong with a weight, a point, a line', async () => {
    const weights = {
      items: [{ name: '', kg: 1e9, xM: 1, yM: 0 }],
      water: 'sea',
      displacementKg: null,
      coefficient: null,
    };
    expect(await refused(entry('boat', 'weights', weights))).toEqual([400, expect.stringContaining('The weight')]);
    expect((await refused(entry('boat', 'weights', { ...weights, items: [], coefficient: 1.4 })))[0]).toBe(400);
    expect((await refused(entry('boat', 'stood', { points: [] })))[0]).toBe(400);
    const line = {
      lineId: uuid(),
      name: ' ',
      levelM: 0,
      noiseM: null,
      raiseM: 0,
      bandM: 0,
      bandMode: 'height',
      chosen: true,
    };
    expect(await refused(entry('boat', 'lineSet', line))).toEqual([400, expect.stringContaining('Name of the line')]);
  });
});
