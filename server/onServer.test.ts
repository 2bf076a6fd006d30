import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import pg from 'pg';
import type { BoatBundle } from '#contracts/rows/boat';
import { boatFields, entryFields, NOW, readTables, serve, setUpBoat, uuid } from './app.fixture';
import { beginHistory, openYard, type Yard } from './keep/yard';
import { newDatabase } from './postgres.fixture';

/** A data folder whose database is on a PostgreSQL server. */
const folders: string[] = [];
const open: Yard[] = [];
const newFolder = () => {
  folders.push(mkdtempSync(join(tmpdir(), 'jack-plane-on-server-')));
  return folders[folders.length - 1] as string;
};
async function openOn(dataDir: string, databaseUrl: string): Promise<Yard> {
  const yard = await openYard({ dataDir, databaseUrl, now: () => NOW });
  open.push(yard);
  await beginHistory(yard, 'first');
  return yard;
}
const close = async (yard: Yard) => {
  open.splice(open.indexOf(yard), 1);
  await yard.close();
};
afterEach(async () => {
  for (const yard of [...open]) await close(yard);
  for (const dir of folders.splice(0)) rmSync(dir, { recursive: true, force: true });
});
const clock = { now: () => NOW, frozen: true };

describe('a database on a server', () => {
  it('holds what was written after it was closed and opened again', async () => {
    const [dir, url] = [newFolder(), (await newDatabase())!];
    const first = await openOn(dir, url);
    const set = await setUpBoat(serve(first, clock).agent);
    await close(first);
    const again = await openOn(dir, url);
    expect(again.putRight).toBeNull();
    await serve(again, clock).agent.get(`/api/boats/${set.boat}`).expect(200);
  });

  it('is one program’s at a time', async () => {
    const url = (await newDatabase())!;
    const first = await openOn(newFolder(), url);
    const other = newFolder();
    await expect(openOn(other, url)).rejects.toThrow('Another Jack Plane has the database at DATABASE_URL open.');
    await close(first);
    // It holds that first yard now, which the other folder knows nothing of.
    await expect(openOn(other, url)).rejects.toThrow(/knows nothing of/);
  });

  it('that is empty is filled from the last backup and the journal of the folder', async () => {
    const dir = newFolder();
    const first = await openOn(dir, (await newDatabase())!);
    const set = await setUpBoat(serve(first, clock).agent);
    const before = await readTables(first.store.db);
    await close(first);
    const moved = await openOn(dir, (await newDatabase())!);
    expect(moved.putRight).toMatch(/was filled from the last backup and the journal/);
    expect(await readTables(moved.store.db)).toEqual(before);
    await serve(moved, clock).agent.get(`/api/boats/${set.boat}`).expect(200);
  });

  it('whose connections break is told as away, and what was sent then is there once it is sent again', async () => {
    const url = (await newDatabase())!;
    const yard = await openOn(newFolder(), url);
    const { agent } = serve(yard, clock);
    const set = await setUpBoat(agent);
    // As an administrator would: every connection of this database ends, but for the one that asks, and the lock's.
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    await client.query(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()
         and pid not in (select pid from pg_locks where locktype = 'advisory')`,
    );
    await client.end();
    const note = entryFields(set.boat, set.zone, 'reading', NOW, { airC: 12, rh: 0.6, surfaceC: 11 });
    const id = uuid();
    const send = () => agent.put(`/api/entries/${id}`).send({ ...note, stream: 'zone' });
    const first = await send();
    expect([200, 503]).toContain(first.status);
    expect((await send()).status).toBe(200);
    const { body } = await agent.get(`/api/boats/${set.boat}`).expect(200);
    expect((body as BoatBundle).entries.filter((e) => e.id === id)).toHaveLength(1);
  });

  it('that goes away is waited for: 503 with a sentence, what is known is read, and nothing acknowledged is missing', async () => {
    const [url, dir] = [(await newDatabase())!, newFolder()];
    const yard = await openOn(dir, url);
    const { agent } = serve(yard, clock);
    const set = await setUpBoat(agent);
    await agent.get('/api/yard').expect(200);
    const database = new URL(url).pathname.slice(1);
    const admin = new pg.Client({ connectionString: Object.assign(new URL(url), { pathname: '/postgres' }).href });
    await admin.connect();
    // As a server that goes down: no connection is left, the lock's neither, and none is taken.
    await admin.query(`alter database ${database} allow_connections false`);
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [database]);
    await expect.poll(() => yard.store.away).toMatch(/does not answer/);
    const [kept, late] = [uuid(), uuid()];
    const note = (n: number) => ({
      ...entryFields(set.boat, set.zone, 'reading', NOW - n, { airC: 12, rh: 0.6, surfaceC: 11 }),
      stream: 'zone',
    });
    const { body } = await agent.put(`/api/entries/${kept}`).send(note(1)).expect(503);
    expect((body as { error: { message: string } }).error.message).toMatch(/tried again until it does/);
    // What is known is told all the same.
    await agent.get(`/api/boats/${set.boat}`).expect(200);
    const told = (await agent.get('/api/yard').expect(200)).body as { savingWaits: string | null; boats: unknown[] };
    expect(told).toMatchObject({ savingWaits: expect.stringMatching(/does not answer/) as string });
    expect(told.boats).toHaveLength(1);
    await admin.query(`alter database ${database} allow_connections true`);
    await admin.end();
    await expect.poll(() => yard.store.away, { timeout: 30_000 }).toBeNull();
    await agent.put(`/api/entries/${kept}`).send(note(1)).expect(200);
    await agent.put(`/api/entries/${late}`).send(note(2)).expect(200);
    const { entries } = (await agent.get(`/api/boats/${set.boat}`).expect(200)).body as BoatBundle;
    expect(entries.map((e) => e.id).sort()).toEqual([kept, late].sort());
  });

  it('that comes back without what was acknowledged gets it from the journal before anything else is written', async () => {
    const [url, dir] = [(await newDatabase())!, newFolder()];
    const yard = await openOn(dir, url);
    const { agent } = serve(yard, clock);
    const set = await setUpBoat(agent);
    const lost = uuid();
    await agent
      .put(`/api/boats/${lost}`)
      .send({ ...boatFields, name: 'Acknowledged' })
      .expect(200);
    const n = yard.store.journal.n;
    const admin = new pg.Client({ connectionString: url });
    await admin.connect();
    await admin.query('delete from boats where id = $1', [lost]);
    await admin.query(`update facts set value = jsonb_set(value, '{n}', '${n - 1}') where key = 'lastChange'`);
    await admin.query(
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
    );
    await admin.end();
    await expect.poll(() => yard.store.away, { timeout: 30_000 }).toBeNull();
    await expect.poll(async () => (await agent.get(`/api/boats/${lost}`)).status, { timeout: 30_000 }).toBe(200);
    await agent.get(`/api/boats/${set.boat}`).expect(200);
  });

  it('that cannot be reached is told with what to do', async () => {
    await expect(openOn(newFolder(), 'postgres://yard@127.0.0.1:1/nowhere')).rejects.toThrow(
      /cannot be reached: .*Start its server, or mend the address/,
    );
  });
});
