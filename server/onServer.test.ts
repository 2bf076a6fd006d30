import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import pg from 'pg';
import type { BoatBundle } from '#contracts/rows/boat';
import { entryFields, NOW, readTables, serve, setUpBoat, uuid } from './app.fixture';
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

  it('that cannot be reached is told with what to do', async () => {
    await expect(openOn(newFolder(), 'postgres://yard@127.0.0.1:1/nowhere')).rejects.toThrow(
      /cannot be reached: .*Start its server, or mend the address/,
    );
  });
});
