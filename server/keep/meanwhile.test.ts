import { createHash } from 'node:crypto';
import { createServer, request as httpRequest, Agent } from 'node:http';
import { existsSync, readFileSync, statSync, utimesSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import type { Keeping } from '#contracts/rows/keeping';
import type { Yard } from '#contracts/rows/yard';
import { boatFields, bytes, NOW, readTables, setUpBoat, startBody, testApp, uuid } from '../app.fixture';
import { boats } from '../db/schema';
import { folder } from './folder.fixture';
import { listBackups, UNNAMED_KEPT_MS } from './backups';
import { LongWork } from './longWork';

/** Saving goes on while a backup is made; long work tells how far it is; what nobody names any more goes. */

type Lines = { table?: string; rows?: { id: string; kind?: string }[]; change?: number }[];
const linesOf = (file: Buffer) =>
  gunzipSync(file)
    .toString()
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as Lines[number]);
const rowsIn = (lines: Lines, table: string) => lines.flatMap((l) => (l.table === table ? (l.rows ?? []) : []));

describe('a backup while others save', () => {
  it('has what stood at its change and nothing later, and saving does not wait for it', async () => {
    const dir = folder();
    const t = await testApp(dir);
    const set = await setUpBoat(t.agent);
    const numbers = new Map<string, number>();
    const saved = { during: 0, made: false };
    const making = t.yard.backups!.make('daily').finally(() => (saved.made = true));
    for (let n = 0; !saved.made || n < 10; n += 1) {
      const id = uuid();
      // Rows that people edit, and entries of the log, by turns.
      const path = n % 2 ? `/api/boats/${id}` : `/api/entries/${id}`;
      const body =
        n % 2
          ? boatFields
          : {
              ...startBody(set, id, NOW - n),
              body: { text: `${n}` },
              kind: 'note',
              stream: 'zone',
              streamId: set.zone,
            };
      await t.agent.put(path).send(body).expect(200);
      numbers.set(id, t.store.journal.n);
      if (!saved.made) saved.during += 1;
    }
    const backup = await making;
    expect(saved.during).toBeGreaterThan(0);
    const lines = linesOf(readFileSync(join(dir, 'backups', backup.name)));
    const there = new Set([...rowsIn(lines, 'boats'), ...rowsIn(lines, 'entries')].map((r) => r.id));
    for (const [id, n] of numbers) expect([n, there.has(id)]).toEqual([n, n <= backup.change]);
    expect(lines[0]?.change).toBe(backup.change);
    await t.close();
  });

  it('is made one at a time: a second one by hand is refused with a reason', async () => {
    const work = new LongWork(() => NOW);
    let end: () => void = () => undefined;
    const first = work.run('backup', () => new Promise<void>((done) => (end = done)));
    expect(() => work.run('backup', async () => undefined)).toThrow(/being made already/);
    await expect.poll(() => work.state?.kind).toBe('backup');
    end();
    await first;
    expect(work.state).toMatchObject({ step: 'ended', problem: null });
    await work.run('backup', async () => undefined);
  });

  it('that fails leaves nothing of it, says why, and saving goes on', async () => {
    const dir = folder();
    const t = await testApp(dir);
    await setUpBoat(t.agent);
    // The disk fills in the middle of it.
    Object.defineProperty(t.files, 'list', {
      value: () => {
        throw Object.assign(new Error('no space'), { code: 'ENOSPC' });
      },
    });
    await expect(t.yard.backups!.make('daily')).rejects.toThrow(/no space|is full/);
    expect(listBackups(dir)).toEqual([]);
    await t.agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(200);
    await t.close();
  });
});

describe('a restore', () => {
  it('tells how it ended to a page that comes back, and what is saved meanwhile is told to wait', async () => {
    const t = await testApp(folder());
    const set = await setUpBoat(t.agent);
    const file = (await bytes(t.agent.get('/api/backup'))).body as Buffer;
    const held = t.store.replace('A backup is being put in place.', async () => {
      const { body } = await t.agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(503);
      expect(body.error.message).toBe('A backup is being put in place.');
      expect(((await t.agent.get('/api/yard')).body as Yard).savingWaits).toBe('A backup is being put in place.');
    });
    await held;
    await t.agent.post('/api/restore').set('Content-Type', 'application/gzip').send(file).expect(200);
    const { work } = (await t.agent.get('/api/keeping').expect(200)).body as Keeping;
    expect(work).toMatchObject({ kind: 'restore', step: 'ended', problem: null, restored: { files: 0 } });
    expect(work?.endedAt).not.toBeNull();
    expect((await readTables(t.db)).boats?.map((b) => b.id)).toEqual([set.boat]);
    await t.close();
  });

  it('of a boat in a time zone that nobody knows is refused, for her past places too', async () => {
    const t = await testApp(folder());
    const set = await setUpBoat(t.agent);
    await t.agent
      .put(`/api/boats/${set.boat}`)
      .send({ ...boatFields, place: 'Elsewhere', version: 1 })
      .expect(200);
    const lines = linesOf((await bytes(t.agent.get('/api/backup'))).body as Buffer) as unknown as Record<
      string,
      unknown
    >[];
    for (const table of ['boats', 'pastPlaces']) {
      const bad = lines
        .filter((l) => !('end' in l))
        .map((l) =>
          l.table === table ? { ...l, rows: (l.rows as object[]).map((r) => ({ ...r, timeZone: 'Mars/Base' })) } : l,
        );
      const packed = gzipSync(
        [{ ...bad[0], version: 3 }, ...bad.slice(1), { end: true }].map((l) => `${JSON.stringify(l)}\n`).join(''),
      );
      const { body } = await t.agent
        .post('/api/restore')
        .set('Content-Type', 'application/octet-stream')
        .send(packed)
        .expect(422);
      expect(body.error.message).toMatch(/Time zone "Mars\/Base" is not one that this program knows/);
    }
    await t.close();
  });
});

describe('an archive of 21 000 files', () => {
  it('is put in place like any other, and the yard is there afterwards', async () => {
    const COUNT = 21_000;
    const piece = (n: number) => Buffer.from(`picture ${n}`);
    const hashOf = (content: Buffer) => createHash('sha256').update(content).digest('hex');
    const t = await testApp(folder());
    const set = await setUpBoat(t.agent);
    const [head, ...rows] = linesOf((await bytes(t.agent.get('/api/backup'))).body as Buffer) as unknown as object[];
    const fileLines = function* (count: number) {
      for (let n = 0; n < count; n += 1) {
        const content = piece(n);
        const file = hashOf(content);
        yield JSON.stringify({ file, piece: content.toString('base64') });
        yield JSON.stringify({ file, end: true });
      }
    };
    // Of version 3, whose end bears no checksum of the whole.
    const packed = gzipSync(
      [
        JSON.stringify({ ...head, version: 3 }),
        ...rows.slice(0, -1).map((l) => JSON.stringify(l)),
        ...fileLines(COUNT),
        '{"end":true}',
      ].join('\n') + '\n',
    );
    const restore = () => t.agent.post('/api/restore').set('Content-Type', 'application/octet-stream').send(packed);
    // Where the machine is slow it is taken as long work, and told of afterwards.
    expect([200, 202]).toContain((await restore()).status);
    await expect
      .poll(async () => ((await t.agent.get('/api/keeping')).body as Keeping).work, { timeout: 100_000, interval: 500 })
      .toMatchObject({ kind: 'restore', step: 'ended', problem: null, restored: { files: COUNT } });
    expect(t.files.list()).toHaveLength(COUNT);
    expect(t.files.has(hashOf(piece(COUNT - 1)))).toBe(true);
    expect((await readTables(t.db)).boats?.map((b) => b.id)).toEqual([set.boat]);
    await t.agent.get('/api/yard').expect(200);
    await t.close();
  }, 180_000);
});

describe('a boat that cannot be worked out', () => {
  it('is listed with the reason, the others as usual', async () => {
    const t = await testApp(folder());
    const [bad, good] = [await setUpBoat(t.agent), await setUpBoat(t.agent)];
    await t.db.update(boats).set({ timeZone: 'Mars/Base' }).where(eq(boats.id, bad.boat));
    t.store.boats.forget();
    const { boats: told } = (await t.agent.get('/api/yard').expect(200)).body as Yard;
    const of = (id: string) => told.find((b) => b.boat.id === id)!;
    expect(of(bad.boat).problem).toMatch(/\.$/);
    expect(of(good.boat).problem).toBeUndefined();
    expect(of(good.boat).zones).toHaveLength(1);
    await t.agent.get('/api/stores').expect(200);
    await t.close();
  });
});

describe('files that no row names', () => {
  it('go after thirty days, from beside the backups too; what is named, and what just came, stays', async () => {
    const dir = folder();
    const t = await testApp(dir);
    const set = await setUpBoat(t.agent);
    const sent = async (text: string) =>
      (
        await t.agent
          .post('/api/files')
          .set('Content-Type', 'application/octet-stream')
          .send(Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.from(text)]))
          .expect(200)
      ).body.hash as string;
    const [named, old, fresh] = [await sent('named'), await sent('old'), await sent('fresh')];
    const picture = { hash: named, widthPx: 4, heightPx: 3, text: '' };
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send({ ...startBody(set, uuid(), NOW), kind: 'picture', stream: 'zone', streamId: set.zone, body: picture })
      .expect(200);
    const long = new Date(Date.now() - UNNAMED_KEPT_MS - 60_000);
    for (const hash of [named, old]) utimesSync(join(dir, 'files', hash), long, long);
    await t.yard.backups!.prune();
    expect(t.files.list().sort()).toEqual([named, fresh].sort());
    // Named a moment ago, it counts from now on.
    expect(Date.now() - statSync(join(dir, 'files', named)).mtimeMs).toBeLessThan(60_000);
    expect(existsSync(join(dir, 'backups', 'files', old))).toBe(false);
    await t.close();
  });
});

describe('the line', () => {
  it('of a refused upload is closed or can be used again: the next request on it is answered', async () => {
    const t = await testApp(folder());
    const server = createServer(t.app);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as AddressInfo;
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    const ask = (method: string, path: string, headers: Record<string, string>, body: Buffer | null) =>
      new Promise<number>((done, fail) => {
        const req = httpRequest({ agent, host: '127.0.0.1', port, method, path, headers }, (res) => {
          res.resume();
          res.on('end', () => done(res.statusCode ?? 0));
        });
        req.on('error', fail);
        req.end(body ?? undefined);
      });
    // As a disk that fills in the middle of it.
    const full = Object.assign(new Error('no space'), { code: 'ENOSPC' });
    Object.defineProperty(t.files, 'put', {
      value: async (source: AsyncIterable<Buffer>) => {
        for await (const chunk of source) if (chunk.length > 0) throw full;
      },
    });
    const own = { 'X-Jack-Plane': '1', 'Content-Type': 'application/octet-stream' };
    for (let round = 0; round < 3; round += 1) {
      expect(await ask('POST', '/api/files', own, Buffer.alloc(4 * 1024 * 1024))).toBe(507);
      expect(await ask('GET', '/api/health', {}, null)).toBe(200);
    }
    agent.destroy();
    server.closeAllConnections();
    server.close();
    await t.close();
  });

  it('is not for pages from elsewhere, reading neither', async () => {
    const t = await testApp(folder());
    for (const site of ['cross-site', 'same-site'])
      for (const path of ['/api/backup', '/api/yard', '/api/health'])
        expect((await t.agent.get(path).set('Sec-Fetch-Site', site)).status).toBe(403);
    for (const site of ['same-origin', 'none'])
      expect((await t.agent.get('/api/health').set('Sec-Fetch-Site', site)).status).toBe(200);
    await t.close();
  });
});
