import { describe, expect, it } from 'vitest';
import { boatFields, HOUR, NOW, readTables, setUpBoat, startBody, testApp, uuid } from '../app.fixture';
import { folder } from './folder.fixture';
import { listBackups } from './backups';
import { rebuild } from './rebuild';

/** The server's clock and the phone's, each wrong in its way: a right answer or a sentence, and nothing lost. */
const DAY = 24 * HOUR;

async function logging() {
  const t = await testApp();
  const set = await setUpBoat(t.agent);
  const note = (at: number, id = uuid()) =>
    t.agent.put(`/api/entries/${id}`).send({
      ...startBody(set, uuid(), at),
      kind: 'note',
      stream: 'zone',
      streamId: set.zone,
      body: { text: 'sanded' },
    });
  return { ...t, set, note };
}

describe('an entry from a time to come', () => {
  it('of a phone a day ahead is refused with both times, and taken once its time is set right', async () => {
    const t = await logging();
    const id = uuid();
    const { body } = await t.note(NOW + DAY, id).expect(422);
    expect(body.error).toMatchObject({ code: 'future', field: 'occurredAt' });
    // NOW is 10:00 UTC; Lisbon keeps summer time in May.
    expect(body.error.message).toMatch(/says 15 May 2026 11:00, and it is 14 May 2026 11:00 by the server’s clock/);
    await t.note(NOW - HOUR, id).expect(200);
    await t.close();
  });

  it('waits where it is the server that fell behind its own last entry, and is taken as it is when it is right again', async () => {
    const t = await logging();
    await t.note(NOW).expect(200);
    t.clock.at = NOW - 30 * DAY;
    const id = uuid();
    const { body } = await t.note(NOW, id).expect(503);
    expect(body.error.code).toBe('clock_behind');
    expect(body.error.message).toMatch(
      /The clock of the server stands at 14 April 2026 11:00, before its last entry of 14 May 2026 11:00\. Set it right/,
    );
    t.clock.at = NOW + HOUR;
    await t.note(NOW, id).expect(200);
    await t.close();
  });

  it('of a phone a month back is taken with its own time: whoever typed it may be writing down what was', async () => {
    const t = await logging();
    const { body } = await t.note(NOW - 30 * DAY).expect(200);
    expect(body).toMatchObject({ occurredAt: NOW - 30 * DAY, recordedAt: NOW });
    await t.close();
  });
});

describe('a clock that goes back by an hour every minute', () => {
  it('loses nothing: all is there, put together again in its order, and the net holds', async () => {
    const dir = folder();
    const t = await testApp(dir);
    const saved: string[] = [];
    for (let minute = 0; minute < 30; minute += 1) {
      t.clock.at = NOW - minute * HOUR;
      const id = uuid();
      await t.agent
        .put(`/api/boats/${id}`)
        .send({ ...boatFields, name: `Minute ${minute}` })
        .expect(200);
      await t.agent
        .put(`/api/boats/${id}`)
        .send({ ...boatFields, name: `Minute ${minute}, later`, version: 1 })
        .expect(200);
      saved.push(id);
      await t.yard.backups!.daily();
    }
    expect(listBackups(dir).length).toBeGreaterThan(1);
    const before = await readTables(t.db);
    await t.agent.get('/api/yard').expect(200);
    await t.close();
    // From the backups and the journal alone.
    const built = await rebuild(dir, { until: null, atLeast: saved.length * 2 });
    expect(built.backup).not.toBeNull();
    const again = await testApp(dir);
    const after = await readTables(again.db);
    expect(after.boats).toEqual(before.boats);
    expect(after.boats).toHaveLength(saved.length);
    expect(after.boats?.every((b) => String(b.name).endsWith('later'))).toBe(true);
    await again.close();
  }, 120_000);
});
