import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import type { KeptBackup, Keeping } from '#contracts/rows/keeping';
import { boatFields, bytes, NOW, readTables, serve, setUpBoat, testApp, uuid } from '../app.fixture';
import { isTouched } from '../db/touched';
import { folder } from './folder.fixture';
import { backupName, keptByRule, listBackups } from './backups';
import { Journal, segmentFiles } from './journal';
import { checkArchive } from './restore';

const DAY = 86_400_000;
describe('automatic backups', () => {
  const daily = (count: number, at = (i: number) => NOW - (count - 1 - i) * DAY): KeptBackup[] =>
    Array.from({ length: count }, (_, i) => {
      const why = i % 40 === 7 ? 'before-restore' : 'daily';
      return { name: `${i}-${why}`, at: at(i), change: i, why, bytes: 1 };
    });
  const keptOf = (list: readonly KeptBackup[]) => list.filter((b) => keptByRule(list).has(b.name));

  it('are kept by their rule: seven daily ones, then one a week for eight, the last twelve of the others', () => {
    const kept = keptOf(daily(120));
    const ages = (why: string) => kept.filter((b) => b.why === why).map((b) => Math.round((NOW - b.at) / DAY));
    // The newest of a week is its Sunday; NOW is a Thursday, and 32 days before it is one from before a restore.
    expect(ages('daily')).toEqual([53, 46, 39, 33, 25, 18, 11, 7, 6, 5, 4, 3, 2, 1, 0]);
    expect(ages('before-restore')).toEqual([112, 72, 32]);
  });

  it('lose nothing to a clock that is wrong: one that is 400 days ahead for a day, or goes back by the hour', () => {
    const list = daily(60);
    const usual = keptOf(list).map((b) => b.name);
    const odd = list.map((b, i) => (i === 30 ? { ...b, at: b.at + 400 * DAY } : b));
    expect(keptOf(odd).filter((b) => !usual.includes(b.name) && b.change !== 30)).toHaveLength(0);
    expect(usual.filter((name) => !keptByRule(odd).has(name)).length).toBeLessThanOrEqual(1);
    const back = daily(60, (i) => NOW - i * 3_600_000);
    expect(
      keptOf(back)
        .filter((b) => b.why === 'daily')
        .slice(-7)
        .map((b) => b.change),
    ).toEqual([53, 54, 55, 56, 57, 58, 59]);
  });

  it('are not pruned while the clock stands more than a day from the last change', async () => {
    const dir = folder();
    const t = await testApp(dir);
    for (let day = 0; day < 12; day += 1) {
      t.clock.at = NOW + day * DAY;
      await t.agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(200);
      await t.yard.backups!.daily();
    }
    const [backups, segments] = [listBackups(dir), segmentFiles(join(dir, 'journal'))];
    expect(backups.length).toBeGreaterThanOrEqual(7);
    t.clock.at = NOW + 412 * DAY;
    await t.agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(200);
    t.clock.at = NOW + 812 * DAY;
    await t.yard.backups!.daily();
    expect(listBackups(dir).map((b) => b.name)).toEqual([...backups.map((b) => b.name), expect.any(String)]);
    expect(segmentFiles(join(dir, 'journal')).length).toBe(segments.length + 1);
    // Nothing was changed since: no backup is made of the same again.
    t.clock.at = NOW + 813 * DAY;
    await t.yard.backups!.daily();
    expect(listBackups(dir)).toHaveLength(backups.length + 1);
    await t.close();
  });

  it('are read back, cut the journal, and lie with their files beside them', async () => {
    const dir = folder();
    const t = await testApp(dir);
    await setUpBoat(t.agent);
    const content = Buffer.from('a mesh');
    const { body: stored } = await t.agent
      .post('/api/files')
      .set('Content-Type', 'application/octet-stream')
      .send(content)
      .expect(200);
    const made = await t.yard.backups!.make('daily');
    expect(made.change).toBe(t.store.journal.n);
    expect(readFileSync(join(dir, 'backups', 'files', stored.hash))).toEqual(content);
    expect(segmentFiles(join(dir, 'journal'))).toHaveLength(2);
    const keeping = (await t.agent.get('/api/keeping').expect(200)).body as Keeping;
    expect(keeping).toMatchObject({
      dataDir: dir,
      backups: [{ name: made.name, why: 'daily' }],
      backupProblem: null,
      open: false,
    });
    expect(keeping.journal.onDisk).toBe(keeping.journal.changes);
    await t.close();
  });
});

describe('a restore', () => {
  it('keeps what was here before, says where, and can be taken back', async () => {
    const dir = folder();
    const t = await testApp(dir);
    const first = await setUpBoat(t.agent);
    const file = (await bytes(t.agent.get('/api/backup'))).body as Buffer;
    await setUpBoat(t.agent);
    const { body: mesh } = await t.agent
      .post('/api/files')
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from('only now'))
      .expect(200);
    const now = await readTables(t.db);
    const { body } = await t.agent.post('/api/restore').set('Content-Type', 'application/gzip').send(file).expect(200);
    expect(body.before).toMatch(/-before-restore\.jsonl\.gz$/);
    expect((await readTables(t.db)).boats?.map((b) => b.id)).toEqual([first.boat]);
    // What is not in the backup is gone, its file too.
    await t.agent.get(`/api/files/${mesh.hash}`).expect(404);
    const back = (await t.agent.post(`/api/backups/${body.before}/restore`).expect(200)).body as { before: string };
    expect(await readTables(t.db)).toEqual(now);
    await t.agent.get(`/api/files/${mesh.hash}`).expect(200);
    expect(back.before).not.toBe(body.before);
    await t.agent.post('/api/backups/..%2f..%2fstate.json/restore').expect(404);
    await t.close();
    // And it is all there at the next start.
    const again = await testApp(dir);
    expect(await readTables(again.db)).toEqual(now);
    await again.close();
  });

  it('that was interrupted before it held is finished at the next start, one before that never happened', async () => {
    const dir = folder();
    const t = await testApp(dir);
    await setUpBoat(t.agent);
    const file = (await bytes(t.agent.get('/api/backup'))).body as Buffer;
    const wanted = await readTables(t.db);
    await t.agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(200);
    await t.close();
    // As it is when the program stops after the new history began and before the database had it.
    const journal = new Journal(join(dir, 'journal'));
    const base = backupName(NOW, journal.n, 'restored');
    mkdirSync(join(dir, 'backups'), { recursive: true });
    writeFileSync(join(dir, 'backups', base), file);
    await journal.begin(NOW, { base });
    journal.close();
    writeFileSync(join(dir, 'incoming', 'restore-of-before'), 'half a backup');
    const again = await testApp(dir);
    expect(again.yard.putRight).toMatch(/stopped while a backup was put in place/);
    expect(await readTables(again.db)).toEqual(wanted);
    expect(readdirSync(join(dir, 'incoming'))).toEqual([]);
    await again.close();
  });

  it('of a refused backup leaves no file of it behind, in the yard or on the way', async () => {
    const dir = folder();
    const t = await testApp(dir);
    await setUpBoat(t.agent);
    const before = await readTables(t.db);
    const lines = gunzipSync((await bytes(t.agent.get('/api/backup'))).body as Buffer)
      .toString()
      .trim()
      .split('\n');
    const piece = Buffer.from('from a stranger');
    const hash = createHash('sha256').update(piece).digest('hex');
    const withFile = [
      ...lines.slice(0, -1),
      JSON.stringify({ file: hash, piece: piece.toString('base64') }),
      JSON.stringify({ file: hash, end: true }),
    ];
    const orphan = withFile.map((l) =>
      l.startsWith('{"table":"surfaces"') ? l.replaceAll(/"boatId":"[^"]*"/g, `"boatId":"${uuid()}"`) : l,
    );
    for (const bad of [
      withFile,
      orphan.concat(
        JSON.stringify({
          end: true,
          sha256: createHash('sha256')
            .update(`${orphan.join('\n')}\n`)
            .digest('hex'),
        }),
      ),
    ]) {
      const { body } = await t.agent
        .post('/api/restore')
        .set('Content-Type', 'application/octet-stream')
        .send(gzipSync(bad.join('\n') + '\n'))
        .expect(422);
      expect(body.error.message).toMatch(/Everything here is as it was/);
    }
    expect(t.files.list()).toEqual([]);
    expect(readdirSync(join(dir, 'incoming'))).toEqual([]);
    expect(await readTables(t.db)).toEqual(before);
    // The journal goes on in the history it was in.
    await t.agent.put(`/api/boats/${uuid()}`).send(boatFields).expect(200);
    await t.close();
    expect(listBackups(dir).some((b) => b.why === 'restored')).toBe(false);
    expect(existsSync(join(dir, 'pg'))).toBe(true);
  });
});

describe('what a demo and an older folder need', () => {
  it('a demo that was restored stays touched, and is not made anew over what was put in it', async () => {
    const t = await testApp();
    await setUpBoat(t.agent);
    const file = (await bytes(t.agent.get('/api/backup'))).body as Buffer;
    const demo = serve(t.yard, t.clock, true);
    await demo.agent.post('/api/restore').set('Content-Type', 'application/gzip').send(file).expect(200);
    expect(await isTouched(t.db)).toBe(true);
    await t.close();
  });

  it('a database that is to be brought up to date is backed up first, whole and readable', async () => {
    const dir = folder();
    const t = await testApp(dir);
    const set = await setUpBoat(t.agent);
    const before = await readTables(t.db);
    // As a program of before would have left it: the last four migrations have not been seen.
    for (const [table, column] of [
      ['boats', 'shelter'],
      ['surfaces', 'shelter'],
      ['surfaces', 'holds'],
      ['yard_rules', 'work_from_min'],
      ['yard_rules', 'work_to_min'],
      ['yard_rules', 'currency'],
      ['boats', 'estimated'],
      ['lots', 'past'],
      ['yard_rules', 'kit'],
      ['yard_rules', 'rates'],
      ['yard_rules', 'drying'],
      ['yard_rules', 'hands'],
      ['yard_rules', 'heat'],
      ['typed_forecasts', 'hours'],
      ['jobs', 'planning'],
    ] as const)
      await t.db.execute(sql.raw(`alter table ${table} drop column ${column}`));
    await t.db.execute(
      sql`create table weather_issues (id uuid primary key, boat_id uuid, source text, issued_at bigint, typed_days jsonb)`,
    );
    await t.db.execute(sql`insert into weather_issues values (${uuid()}, ${set.boat}, 'typed', ${NOW}, '[]')`);
    await t.db.execute(
      sql`delete from drizzle.__drizzle_migrations where id > (select max(id) - 6 from drizzle.__drizzle_migrations)`,
    );
    await t.close();
    const again = await testApp(dir);
    const [update] = listBackups(dir).filter((b) => b.why === 'before-update');
    const archive = await checkArchive(join(dir, 'backups', update!.name), {});
    expect(archive.rows).toBe(Object.values(before).reduce((n, rows) => n + rows.length, 0) + 1);
    // What had been typed is there afterwards, as a forecast of today's form.
    expect((await readTables(again.db)).typedForecasts).toMatchObject([{ boatId: set.boat, issuedAt: NOW, days: [] }]);
    await again.close();
  });
});
