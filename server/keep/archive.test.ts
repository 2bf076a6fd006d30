import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { entryFields, NOW, readTables, setUpBoat, startBody, testApp, uuid } from '../app.fixture';

let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

const restoreTo = (app: typeof t, file: Buffer) =>
  app.agent.post('/api/restore').set('Content-Type', 'application/octet-stream').send(file);
const restore = (file: Buffer) => restoreTo(t, file);
const bytesOf = (request: ReturnType<typeof t.agent.get>) =>
  request.buffer(true).parse((res, done: (error: Error | null, body: Buffer) => void) => {
    const chunks: Buffer[] = [];
    res.on('data', (c: Buffer) => chunks.push(c));
    res.on('end', () => done(null, Buffer.concat(chunks)));
  });
const backUp = async () => bytesOf(t.agent.get('/api/backup'));
const linesOf = (file: Buffer) =>
  gunzipSync(file)
    .toString()
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as Record<string, unknown>);
const pack = (lines: object[]) => gzipSync(lines.map((l) => JSON.stringify(l)).join('\n'));

describe('back up and restore', () => {
  it('restores to identical data and files, and the log goes on', async () => {
    const set = await setUpBoat(t.agent);
    const coat = uuid();
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(set, coat, NOW))
      .expect(200);
    // A tin, a named build-up, a border's worth of the yard's own go with it.
    await t.agent
      .put(`/api/lots/${uuid()}`)
      .send({
        sheetId: set.sheet,
        part: 'Base',
        sizeL: 5,
        batchNumber: 'B',
        supplier: '',
        boughtOn: '2026-05-01',
        openedOn: null,
        expiresOn: null,
        leftL: 4,
        measuredAt: NOW,
        weighed: { grossKg: 6, tareKg: 0.3 },
        note: '',
        version: 0,
      })
      .expect(200);
    await t.agent
      .put(`/api/named-build-ups/${uuid()}`)
      .send({
        name: 'Bottom',
        substrates: ['gelcoat'],
        exposure: 'immersed',
        bond: 'chemical',
        note: '',
        targetMicron: 250,
        layers: set.layers,
        version: 0,
      })
      .expect(200);
    // Larger than one piece, so that pieces are put together again.
    const content = Buffer.from(Array.from({ length: 2_000_000 }, (_, i) => (i * 31) % 251));
    const { body: stored } = await t.agent
      .post('/api/files')
      .set('Content-Type', 'application/octet-stream')
      .send(content)
      .expect(200);
    const file = await backUp();
    expect(file.headers['content-disposition']).toContain('jack-plane-2026-05-14.jsonl.gz');
    const before = await readTables(t.db);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(entryFields(set.boat, coat, 'note', NOW, { text: 'after the backup' }))
      .expect(200);
    await setUpBoat(t.agent);
    const { body } = await restore(file.body as Buffer).expect(200);
    expect(body.rows).toBe(Object.values(before).reduce((n, rows) => n + rows.length, 0));
    expect(body.files).toBe(1);
    expect(await readTables(t.db)).toEqual(before);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(entryFields(set.boat, coat, 'finished', NOW, { litresOn: null }))
      .expect(200);
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
      .map((l, i) =>
        i === 0
          ? { ...l, version: 2 }
          : l.table === 'boats' || l.table === 'jobs' || l.table === 'buildUps'
            ? { ...l, rows: (l.rows as object[]).map(strip) }
            : l,
      );
    await restoreTo(other, pack(lines)).expect(200);
    expect(await readTables(other.db)).toEqual(before);
    await other.close();
  });
  it('still takes a backup of the first version, one object without files', async () => {
    const lines = linesOf((await backUp()).body as Buffer);
    const tables: Record<string, unknown[]> = {
      boats: [],
      jobs: [],
      surfaces: [],
      buildUps: [],
      sheets: [],
      sheetRevisions: [],
      entries: [],
      weatherIssues: [],
      facts: [],
    };
    for (const line of lines)
      if (typeof line.table === 'string')
        tables[line.table] = [...(tables[line.table] ?? []), ...(line.rows as unknown[])];
    // Rows of that time knew no sides, notes and patches.
    tables.surfaces = (tables.surfaces ?? []).map((row) =>
      Object.fromEntries(
        Object.entries(row as object).filter(
          ([key]) =>
            !['side', 'partShare', 'notes', 'maskList', 'openWork', 'parentId', 'patchKind', 'sharedCoats'].includes(
              key,
            ),
        ),
      ),
    );
    delete tables.hulls;
    const before = await readTables(t.db);
    const old = gzipSync(
      JSON.stringify({ format: 'jack-plane-backup', version: 1, createdAt: '2026-05-01T00:00:00.000Z', tables }),
    );
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
    await refused(
      pack([head, { table: 'facts', rows: [{ key: 'x', value: 1, nonsense: true }] }, { end: true }]),
      /damaged/,
    );
    await refused(pack(lines.slice(0, -1)), /damaged/);
    await refused(pack([head, { table: 'pg_user', rows: [] }, { end: true }]), /damaged/);
    await refused(
      pack([head, { file: 'a'.repeat(64), piece: 'aGVsbG8=' }, { file: 'a'.repeat(64), end: true }, { end: true }]),
      /damaged/,
    );
    const packed = gzipSync(lines.map((l) => JSON.stringify(l)).join('\n'));
    await refused(packed.subarray(0, packed.length - 20), /damaged/);
    expect(await readTables(t.db)).toEqual(before);
  });
});

describe('an archive that means harm, or met some', () => {
  const sent = (file: Buffer) => t.agent.post('/api/restore').set('Content-Type', 'application/gzip').send(file);
  const still = async (before: object) => {
    expect(await readTables(t.db)).toEqual(before);
    await t.agent.get('/api/health').expect(200);
  };
  const head = {
    format: 'jack-plane-backup',
    version: 4,
    createdAt: '2026-05-14T10:00:00.000Z',
    history: null,
    change: 0,
  };

  it('of which one bit was flipped is refused, wherever that was', async () => {
    await setUpBoat(t.agent);
    const packed = (await backUp()).body as Buffer;
    const plain = gunzipSync(packed);
    const before = await readTables(t.db);
    for (let i = 0; i < 24; i += 1) {
      const [whole, at] = [i % 2 === 0 ? packed : plain, 0] as const;
      const flipped = Buffer.from(whole);
      const byte = 12 + Math.floor(((flipped.length - 40) * (i + 0.5)) / 24) + at;
      flipped[byte] = (flipped[byte] as number) ^ (1 << (i % 8));
      const { status } = await sent(flipped);
      expect(status, `byte ${byte} of the ${i % 2 === 0 ? 'packed' : 'plain'} one`).toBe(422);
    }
    await still(before);
  });

  it('cut anywhere is refused', async () => {
    const packed = (await backUp()).body as Buffer;
    const before = await readTables(t.db);
    for (const share of [0.01, 0.3, 0.7, 0.99])
      await sent(packed.subarray(0, Math.floor(packed.length * share))).expect(422);
    await still(before);
  });

  it('that unpacks to gigabytes, to one endless line or to files without end is refused, and takes no memory', async () => {
    const before = await readTables(t.db);
    const zeros = Buffer.alloc(64 * 1024 * 1024);
    const piece = JSON.stringify({ file: 'a'.repeat(64), piece: Buffer.alloc(700_000).toString('base64') });
    const bombs: [string, Buffer, RegExp][] = [
      [
        'one line of 400 MB',
        gzipSync(Buffer.concat([Buffer.from(`${JSON.stringify(head)}\n`), ...Array(6).fill(zeros)])),
        /line of it is far too long/,
      ],
      [
        'a file past the limit, whose stream must settle',
        gzipSync(`${JSON.stringify(head)}\n${Array(160).fill(piece).join('\n')}\n`),
        /too large|larger than any yard/,
      ],
      [
        'more rows than any yard',
        gzipSync(
          `${JSON.stringify(head)}\n${Array(2000)
            .fill(JSON.stringify({ table: 'facts', rows: Array(10_000).fill({}) }))
            .join('\n')}\n`,
        ),
        /facts: Key is missing|larger than any yard/,
      ],
      [
        'a table of the prototype',
        pack([head, { table: '__proto__', rows: [{}] }, { end: true }]),
        /which no yard has/,
      ],
      [
        'deep brackets',
        gzipSync(
          `${JSON.stringify(head)}\n{"table":"boats","rows":[${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)}]}\n`,
        ),
        /damaged/,
      ],
      [
        'a row twice',
        pack([
          { ...head, version: 3 },
          { table: 'facts', rows: Array(2).fill({ key: 'demoTouched', value: true }) },
          { end: true },
        ]),
        /do not hold together/,
      ],
    ];
    for (const [name, bomb, message] of bombs) {
      const idle = process.memoryUsage().rss;
      let most = 0;
      const watching = setInterval(() => (most = Math.max(most, process.memoryUsage().rss - idle)), 20);
      const { status, body } = await sent(bomb);
      clearInterval(watching);
      expect(status, name).toBe(422);
      expect(body.error.message, name).toMatch(message);
      expect(most / 1024 / 1024, name).toBeLessThan(300);
    }
    await still(before);
  });

  it('holds every row to the contract of a write, and references to what is there', async () => {
    const set = await setUpBoat(t.agent);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(set, uuid(), NOW))
      .expect(200);
    const lines = linesOf((await backUp()).body as Buffer)
      .map((l, i) => (i === 0 ? { ...l, version: 3 } : l))
      .filter((l) => !l.end);
    const before = await readTables(t.db);
    const changed = (table: string, change: (row: Record<string, unknown>) => object) =>
      pack([
        ...lines.map((l) =>
          l.table === table
            ? { ...l, rows: (l.rows as Record<string, unknown>[]).map((r, i) => (i === 0 ? change(r) : r)) }
            : l,
        ),
        { end: true },
      ]);
    const cases: [Buffer, RegExp][] = [
      [changed('boats', (r) => ({ ...r, loaM: -4 })), /boats: Length overall must be more than zero/],
      [changed('boats', (r) => ({ ...r, name: 'half a \ud83d' })), /boats: name holds a character that cannot be/],
      [changed('jobs', (r) => r), /./],
      [changed('surfaces', (r) => ({ ...r, id: String(r.id).toUpperCase() })), /surfaces: Id is not a valid id/],
      [changed('surfaces', (r) => ({ ...r, parentId: uuid(), patchKind: 'standPad' })), /a patch in it has no zone/],
      [changed('entries', (r) => ({ ...r, kind: 'sang' })), /entries: Kind is not one of the choices/],
      [changed('entries', (r) => ({ ...r, supersedes: uuid() })), /corrects one that is not there/],
      [
        changed('buildUps', (r) => ({
          ...r,
          layers: (r.layers as object[]).map((l) => ({ ...l, sheetRevisionId: uuid() })),
        })),
        /a coat in it has no data sheet/,
      ],
      [changed('surfaces', (r) => ({ ...r, boatId: uuid() })), /do not hold together|which is not there|not there/],
      [
        changed('surfaces', (r) => ({
          ...r,
          area: { ...(r.area as object), method: 'mesh', mesh: { part: 'below' } },
        })),
        /damaged/,
      ],
    ];
    for (const [file, message] of cases.filter((_, i) => i !== 2)) {
      const { status, body } = await sent(file);
      expect([status, body.error.message]).toEqual([422, expect.stringMatching(message)]);
    }
    await still(before);
  });
});
