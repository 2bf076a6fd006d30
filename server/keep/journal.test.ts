import { readFileSync, writeFileSync, writeSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { serve, boatFields, NOW, readTables, uuid } from '../app.fixture';
import { openDb } from '../db/open';
import { Store } from '../db/store';
import type { Op } from '../db/ops';
import { folder } from './folder.fixture';
import { FileStore } from './files';
import { LongWork } from './longWork';
import { Notices } from './notices';
import { Journal, readSegment, segmentFiles, type Disk } from './journal';
import type { Yard } from './yard';

/** A disk whose syncs are done when the test says so. */
function heldDisk() {
  const waiting: ((error: Error | null) => void)[] = [];
  const disk: Disk = { write: (fd, data) => writeSync(fd, data), sync: (_fd, done) => void waiting.push(done) };
  return { disk, waiting, release: (error: Error | null = null) => waiting.splice(0).forEach((done) => done(error)) };
}
const op = (name: string): Op => ['put', 'boats', { id: uuid(), name }];
const settled = async (promise: Promise<unknown>) => {
  let done = false;
  promise.then(
    () => (done = true),
    () => (done = true),
  );
  await new Promise((next) => setTimeout(next, 20));
  return done;
};

/** A yard on a database in memory with a journal on a disk of the test's own. */
async function yardOn(disk: Disk) {
  const open = await openDb({ at: 'memory' });
  await open.migrate();
  const dir = folder();
  const journal = new Journal(dir, disk);
  await journal.begin(NOW, { base: null });
  const store = new Store(open.db, journal, { now: () => NOW, demo: false });
  const yard: Yard = {
    store,
    files: new FileStore(null),
    backups: null,
    spool: folder(),
    work: new LongWork(() => NOW),
    notices: new Notices(null),
    putRight: null,
    forget: async () => undefined,
    close: () => open.close(),
  };
  return { dir, ...serve(yard, { now: () => NOW, frozen: true }) };
}

describe('the journal', () => {
  it('answers a write only after the sync, and those that arrive together share one', async () => {
    const held = heldDisk();
    const { agent, yard } = await yardOn(held.disk);
    const ids = Array.from({ length: 6 }, () => uuid());
    const answers = ids.map((id) =>
      agent
        .put(`/api/boats/${id}`)
        .send(boatFields)
        .then((res) => res.status),
    );
    await expect.poll(() => held.waiting.length).toBe(1);
    // All six are in the journal, none is acknowledged.
    await expect.poll(() => yard.store.journal.n).toBe(6);
    expect(await settled(Promise.race(answers))).toBe(false);
    let syncs = 0;
    while ((await settled(Promise.all(answers))) === false) {
      syncs += held.waiting.length;
      held.release();
    }
    expect(await Promise.all(answers)).toEqual(Array(6).fill(200));
    expect(syncs).toBeLessThan(6);
    await yard.close();
  });

  it('the same write sent again waits for the disk too: its first answer may never have come', async () => {
    const held = heldDisk();
    const { agent, yard } = await yardOn(held.disk);
    const id = uuid();
    const first = agent
      .put(`/api/boats/${id}`)
      .send(boatFields)
      .then((res) => res.status);
    await expect.poll(() => held.waiting.length).toBe(1);
    const again = agent
      .put(`/api/boats/${id}`)
      .send(boatFields)
      .then((res) => res.status);
    expect(await settled(again)).toBe(false);
    const letting = setInterval(() => held.release(), 5);
    expect(await Promise.all([first, again])).toEqual([200, 200]);
    clearInterval(letting);
    await yard.close();
  });

  it('with the disk full says so, keeps nothing of it, reads on, and takes it when there is room', async () => {
    let room = true;
    const disk: Disk = {
      write(fd, data) {
        if (room) return writeSync(fd, data);
        // A full disk takes what fits.
        writeSync(fd, data.subarray(0, 20));
        throw Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' });
      },
      sync: (_fd, done) => done(null),
    };
    const { agent, yard, dir } = await yardOn(disk);
    const [here, late] = [uuid(), uuid()];
    await agent.put(`/api/boats/${here}`).send(boatFields).expect(200);
    room = false;
    const { body } = await agent.put(`/api/boats/${late}`).send(boatFields).expect(507);
    expect(body.error).toMatchObject({ code: 'disk_full' });
    expect(body.error.message).toContain(`The disk with ${dir} is full: this was not saved.`);
    await agent.get(`/api/boats/${here}`).expect(200);
    await agent.get(`/api/boats/${late}`).expect(404);
    room = true;
    await agent.put(`/api/boats/${late}`).send(boatFields).expect(200);
    const [file] = segmentFiles(dir);
    expect(readSegment(file as string)).toMatchObject({ lastN: 2, damaged: [] });
    await yard.close();
  });

  it('after a failed sync nothing more is saved, since nobody knows what is on the disk; reading goes on', async () => {
    const held = heldDisk();
    const { agent, yard } = await yardOn(held.disk);
    const id = uuid();
    const answer = agent
      .put(`/api/boats/${id}`)
      .send(boatFields)
      .then((res) => res);
    await expect.poll(() => held.waiting.length).toBe(1);
    held.release(Object.assign(new Error('EIO'), { code: 'EIO' }));
    expect((await answer).status).toBe(503);
    expect((await agent.put(`/api/boats/${uuid()}`).send(boatFields)).body.error.message).toMatch(
      /cannot be written.*started again/,
    );
    await agent.get('/api/yard').expect(200);
    expect((await agent.get('/api/keeping')).body.journal.problem).toMatch(/EIO/);
    await yard.close();
  });

  it('takes back a change that the database refused, and goes on', async () => {
    const { agent, yard, db, dir } = await yardOn({
      write: (fd, data) => writeSync(fd, data),
      sync: (_fd, done) => done(null),
    });
    const id = uuid();
    await agent.put(`/api/boats/${id}`).send(boatFields).expect(200);
    const before = await readTables(db);
    await expect(yard.store.write((tx) => tx.add('boats', { ...boatFields, id, version: 1 }))).rejects.toThrow();
    expect(await readTables(db)).toEqual(before);
    await agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(200);
    expect(readSegment(segmentFiles(dir)[0] as string).records.map((r) => r.n)).toEqual([1, 4]);
    await yard.close();
  });

  it('reads back what was written; a cut last line is left out, a damaged one in the middle is named', async () => {
    const dir = folder();
    const journal = new Journal(dir);
    await journal.begin(NOW, { base: null });
    for (const name of ['a', 'b', 'c']) journal.append(NOW, [op(name)]);
    await journal.synced();
    journal.close();
    const [file] = segmentFiles(dir) as [string];
    const names = () => readSegment(file).records.map((r) => r.ops[0]?.[2].name);
    expect(names()).toEqual(['a', 'b', 'c']);
    const whole = readFileSync(file);
    writeFileSync(file, whole.subarray(0, whole.length - 5));
    expect(names()).toEqual(['a', 'b']);
    // Opened again it goes on after the last whole line.
    const again = new Journal(dir);
    expect(again.n).toBe(2);
    again.append(NOW, [op('d')]);
    again.close();
    expect(names()).toEqual(['a', 'b', 'd']);
    const flipped = Buffer.from(readFileSync(file));
    const second = flipped.indexOf('"name":"a"');
    flipped[second + 8] = 'x'.charCodeAt(0);
    writeFileSync(file, flipped);
    expect(readSegment(file)).toMatchObject({ damaged: [2], lastN: 3 });
    expect(names()).toEqual(['b', 'd']);
  });
});
