import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { entryFields, NOW, readTables, setUpBoat, startBody, testApp, uuid } from '../app.fixture';

let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

const restoreTo = (app: typeof t, file: Buffer) => app.agent.post('/api/restore').set('Content-Type', 'application/octet-stream').send(file);
const restore = (file: Buffer) => restoreTo(t, file);
const bytesOf = (request: ReturnType<typeof t.agent.get>) =>
  request.buffer(true).parse((res, done: (error: Error | null, body: Buffer) => void) => {
    const chunks: Buffer[] = [];
    res.on('data', (c: Buffer) => chunks.push(c));
    res.on('end', () => done(null, Buffer.concat(chunks)));
  });
const backUp = async () => bytesOf(t.agent.get('/api/backup'));
const linesOf = (file: Buffer) => gunzipSync(file).toString().trim().split('\n').map((l) => JSON.parse(l) as Record<string, unknown>);
const pack = (lines: object[]) => gzipSync(lines.map((l) => JSON.stringify(l)).join('\n'));

describe('back up and restore', () => {
  it('restores to identical data and files, and the log goes on', async () => {
    const set = await setUpBoat(t.agent);
    const coat = uuid();
    await t.agent.put(`/api/entries/${uuid()}`).send(startBody(set, coat, NOW)).expect(200);
    // A tin, a named build-up, a border's worth of the yard's own go with it.
    await t.agent.put(`/api/lots/${uuid()}`).send({ sheetId: set.sheet, part: 'Base', sizeL: 5, batchNumber: 'B', supplier: '', boughtOn: '2026-05-01', openedOn: null, expiresOn: null, leftL: 4, measuredAt: NOW, weighed: { grossKg: 6, tareKg: 0.3 }, note: '', version: 0 }).expect(200);
    await t.agent.put(`/api/named-build-ups/${uuid()}`).send({ name: 'Bottom', substrates: ['gelcoat'], exposure: 'immersed', bond: 'chemical', note: '', targetMicron: 250, layers: set.layers, version: 0 }).expect(200);
    // Larger than one piece, so that pieces are put together again.
    const content = Buffer.from(Array.from({ length: 2_000_000 }, (_, i) => (i * 31) % 251));
    const { body: stored } = await t.agent.post('/api/files').set('Content-Type', 'application/octet-stream').send(content).expect(200);
    const file = await backUp();
    expect(file.headers['content-disposition']).toContain('jack-plane-2026-05-14.jsonl.gz');
    const before = await readTables(t.db);
    await t.agent.put(`/api/entries/${uuid()}`).send(entryFields(set.boat, coat, 'note', NOW, { text: 'after the backup' })).expect(200);
    await setUpBoat(t.agent);
    const { body } = await restore(file.body as Buffer).expect(200);
    expect(body.rows).toBe(Object.values(before).reduce((n, rows) => n + rows.length, 0));
    expect(body.files).toBe(1);
    expect(await readTables(t.db)).toEqual(before);
    await t.agent.put(`/api/entries/${uuid()}`).send(entryFields(set.boat, coat, 'finished', NOW, { litresOn: null })).expect(200);
    // A fresh yard takes it too.
    const other = await testApp();
    await restoreTo(other, file.body as Buffer).expect(200);
    expect(await readTables(other.db)).toEqual(before);
    const back = await bytesOf(other.agent.get(`/api/files/${stored.hash}`));
    expect(Buffer.compare(back.body as Buffer, content)).toBe(0);
    await other.close();
  });
  it('still takes a backup of the second version, which knew neither tins nor what is decided of a build-up', async () => {
    const other = await testApp();
    await setUpBoat(other.agent);
    const before = await readTables(other.db);
    const news = ['borders', 'namedBuildUps', 'lots', 'yardRules'];
    const fields = ['namedId', 'targetMicron', 'overrides', 'records', 'waters', 'choices'];
    const strip = (row: object) => Object.fromEntries(Object.entries(row).filter(([key]) => !fields.includes(key)));
    const lines = linesOf((await bytesOf(other.agent.get('/api/backup'))).body as Buffer)
      .filter((l) => !news.includes(l.table as string))
      .map((l, i) => (i === 0 ? { ...l, version: 2 } : l.table === 'boats' || l.table === 'jobs' || l.table === 'buildUps' ? { ...l, rows: (l.rows as object[]).map(strip) } : l));
    await restoreTo(other, pack(lines)).expect(200);
    expect(await readTables(other.db)).toEqual(before);
    await other.close();
  });
  it('still takes a backup of the first version, one object without files', async () => {
    const lines = linesOf((await backUp()).body as Buffer);
    const tables: Record<string, unknown[]> = { boats: [], jobs: [], surfaces: [], buildUps: [], sheets: [], sheetRevisions: [], entries: [], weatherIssues: [], facts: [] };
    for (const line of lines) if (typeof line.table === 'string') tables[line.table] = [...(tables[line.table] ?? []), ...(line.rows as unknown[])];
    // Rows of that time knew no sides, notes and patches.
    tables.surfaces = (tables.surfaces ?? []).map((row) => Object.fromEntries(Object.entries(row as object).filter(([key]) => !['side', 'partShare', 'notes', 'maskList', 'openWork', 'parentId', 'patchKind', 'sharedCoats'].includes(key))));
    delete tables.hulls;
    const before = await readTables(t.db);
    const old = gzipSync(JSON.stringify({ format: 'jack-plane-backup', version: 1, createdAt: '2026-05-01T00:00:00.000Z', tables }));
    await restore(old).expect(200);
    expect(await readTables(t.db)).toEqual(before);
  });
  it('refuses a file of something else or a damaged one and leaves everything as it was', async () => {
    const before = await readTables(t.db);
    const lines = linesOf((await backUp()).body as Buffer);
    const [head, ...rest] = lines as [Record<string, unknown>, ...Record<string, unknown>[]];
    const refused = async (file: Buffer, message: RegExp) => {
      const { body } = await restore(file).expect(422);
      expect(body.error.message).toMatch(message);
    };
    await refused(Buffer.from('%PDF-1.7 a poem'), /not a backup of Jack Plane/);
    await refused(Buffer.alloc(0), /not a backup/);
    await refused(gzipSync('{"format":"jack-plane-backup"}'), /not a backup/);
    await refused(pack([{ ...head, version: 99 }, ...rest]), /newer version/);
    await refused(pack(lines.filter((l) => l.table !== 'boats')), /damaged and was not restored/);
    await refused(pack([head, { table: 'facts', rows: [{ key: 'x', value: 1, nonsense: true }] }, { end: true }]), /damaged/);
    await refused(pack(lines.slice(0, -1)), /damaged/);
    await refused(pack([head, { table: 'pg_user', rows: [] }, { end: true }]), /damaged/);
    await refused(pack([head, { file: 'a'.repeat(64), piece: 'aGVsbG8=' }, { file: 'a'.repeat(64), end: true }, { end: true }]), /damaged/);
    const packed = gzipSync(lines.map((l) => JSON.stringify(l)).join('\n'));
    await refused(packed.subarray(0, packed.length - 20), /damaged/);
    expect(await readTables(t.db)).toEqual(before);
  });
});
