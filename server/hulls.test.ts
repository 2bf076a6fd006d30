import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BoatBundle } from '#contracts/rows/boat';
import { OWN_HEADER } from '#contracts/rows/door';
import { boatFields, NOW, setUpBoat, startBody, testApp, uuid, zoneFields } from './app.fixture';

let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

const offsets = {
  stationsM: [0, 4, 8],
  waterlinesM: [0, 0.5, 1],
  halfBreadthsM: [
    [0.5, 1, 1],
    [1, 1.2, 1.3],
    [0, 0, null],
  ],
  waterlineM: 0.5,
  fromBow: false,
  includeBottom: true,
};
const lines = {
  known: 'mesh',
  stationsM: [0, 8],
  heightsM: [-1, 1],
  halfBreadthsM: [
    [1, 1],
    [null, 1],
  ],
  topM: [1, 1],
  bottomM: [-1, -1],
};
const meshFields = (fileHash: string) => ({
  fileHash,
  fileName: 'hull.stl',
  bytes: 5,
  triangles: 12,
  placement: { unit: 'mm', forward: '+x', up: '+z', mirror: true },
  waterline: { heightM: 0.5, heelDeg: 0, trimDeg: 0 },
  bandM: 0.15,
  size: { lengthM: 8, beamM: 2.6, depthM: 2 },
  areas: { belowM2: 20, bandM2: 2, aboveM2: 14, volumeBelowM3: 5, cutShare: 0.1 },
  defects: null,
  waterlineGirthM: 17,
  lines,
});
const patchFields = (boatId: string, parentId: string, more: object = {}) => ({
  ...zoneFields(boatId),
  name: 'Pads',
  area: { method: 'typed', dimensions: {}, typed: { areaM2: 2, share: 0.1 } },
  parentId,
  patchKind: 'standPad',
  ...more,
});
const bundleOf = async (boat: string) => (await t.agent.get(`/api/boats/${boat}`).expect(200)).body as BoatBundle;
const message = async (request: Promise<{ status: number; body: { error: { message: string } } }>, status: number) => {
  const { status: found, body } = await request;
  expect(found).toBe(status);
  return body.error.message;
};

describe('what is known of a hull', () => {
  it('a table of offsets is kept with the boat, and zones take their areas from it', async () => {
    const set = await setUpBoat(t.agent);
    const hull = uuid();
    await t.agent.put(`/api/hulls/${hull}`).send({ boatId: set.boat, offsets, mesh: null, version: 0 }).expect(200);
    await t.agent
      .put(`/api/surfaces/${set.zone}`)
      .send({
        ...zoneFields(set.boat),
        version: 1,
        area: { method: 'offsets', dimensions: {}, typed: null, offsets: { fromM: null, toM: 0 } },
      })
      .expect(200);
    const { hull: kept, surfaces } = await bundleOf(set.boat);
    expect(kept).toMatchObject({ id: hull, version: 1, offsets });
    expect(surfaces[0]?.areaM2).toBeGreaterThan(8);
    expect(surfaces[0]?.areaShare).toBe(0.03);
    // What zones rest on cannot be taken away from under them.
    expect(
      await message(
        t.agent.put(`/api/hulls/${hull}`).send({ boatId: set.boat, offsets: null, mesh: null, version: 1 }),
        422,
      ),
    ).toMatch(/no table of offsets/);
    expect((await bundleOf(set.boat)).hull?.offsets).toEqual(offsets);
    // Twice the same is once; another row for the same boat and a stale one are refused with the newer.
    await t.agent.put(`/api/hulls/${hull}`).send({ boatId: set.boat, offsets, mesh: null, version: 0 }).expect(200);
    await t.agent.put(`/api/hulls/${uuid()}`).send({ boatId: set.boat, offsets, mesh: null, version: 0 }).expect(409);
    const { body } = await t.agent
      .put(`/api/hulls/${hull}`)
      .send({ boatId: set.boat, offsets: { ...offsets, waterlineM: 0.6 }, mesh: null, version: 0 })
      .expect(409);
    expect(body.error.current.version).toBe(1);
  });
  it('refuses offsets that are none, in a sentence', async () => {
    const set = await setUpBoat(t.agent);
    const put = (change: object) =>
      t.agent
        .put(`/api/hulls/${uuid()}`)
        .send({ boatId: set.boat, offsets: { ...offsets, ...change }, mesh: null, version: 0 });
    expect(await message(put({ stationsM: [0, 8, 4] }), 422)).toMatch(/Station 3 comes before/);
    expect(await message(put({ waterlinesM: [0, 0.5, 0.5] }), 422)).toMatch(/Waterlines 2 and 3 are at the same place/);
    expect(await message(put({ halfBreadthsM: [[1]] }), 422)).toMatch(/3 stations but 1 rows/);
    expect(await message(put({ stationsM: [0] }), 400)).toMatch(/Stations has too few rows/);
    expect(
      await message(
        put({
          halfBreadthsM: [
            [1, 2, -3],
            [1, 1, 1],
            [1, 1, 1],
          ],
        }),
        400,
      ),
    ).toMatch(/at least 0/);
    expect((await bundleOf(set.boat)).hull).toBeNull();
  });
  it('a mesh needs its file, and gives each part its area', async () => {
    const set = await setUpBoat(t.agent);
    const hull = uuid();
    const put = (mesh: object, version = 0) =>
      t.agent.put(`/api/hulls/${hull}`).send({ boatId: set.boat, offsets: null, mesh, version });
    expect(await message(put(meshFields('b'.repeat(64))), 422)).toMatch(/did not arrive/);
    const content = Buffer.from('solid hull\nendsolid hull\n');
    const { body: stored } = await t.agent
      .post('/api/files')
      .set('Content-Type', 'application/octet-stream')
      .send(content)
      .expect(200);
    expect(stored).toEqual({ hash: createHash('sha256').update(content).digest('hex'), bytes: content.length });
    await put(meshFields(stored.hash)).expect(200);
    const part = (name: string, version: number) =>
      t.agent
        .put(`/api/surfaces/${set.zone}`)
        .send({
          ...zoneFields(set.boat),
          version,
          area: { method: 'mesh', dimensions: {}, typed: null, mesh: { part: name } },
        })
        .expect(200);
    expect((await part('below', 1)).body.row.areaM2).toBe(20);
    expect((await part('aboveWaterline', 2)).body.row.areaM2).toBe(16);
    expect((await part('whole', 3)).body.row.areaM2).toBe(36);
    const got = await t.agent.get(`/api/files/${stored.hash}`).expect(200);
    expect(Buffer.from(got.body as Buffer).equals(content)).toBe(true);
  });
});

describe('files', () => {
  it('the same content is one file; nothing and too much are refused', async () => {
    const send = (content: Buffer) =>
      t.agent.post('/api/files').set('Content-Type', 'application/octet-stream').send(content);
    const [a, b] = [await send(Buffer.from('abc')).expect(200), await send(Buffer.from('abc')).expect(200)];
    expect(a.body.hash).toBe(b.body.hash);
    expect(await message(send(Buffer.alloc(0)), 400)).toMatch(/empty/);
    const { body } = (await t.agent
      .post('/api/files')
      .set('Content-Type', 'application/octet-stream')
      .set('Content-Length', String(200 * 1024 * 1024))
      .send('x')
      .catch((e: { response?: { body: unknown } }) => e.response ?? { body: null })) as {
      body: { error: { message: string } } | null;
    };
    if (body) expect(body.error.message).toMatch(/larger than 100 MB/);
    await t.agent.get(`/api/files/${'0'.repeat(64)}`).expect(404);
    await t.agent.get('/api/files/..%2f..%2fetc%2fpasswd').expect(400);
  });
  it('a file cut off on its way leaves nothing behind, and is no fault of the server', async () => {
    const { createServer, request: httpRequest } = await import('node:http');
    const server = createServer(t.app);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as { port: number };
    const before = t.files.list();
    await new Promise<void>((done) => {
      const req = httpRequest({
        port,
        host: '127.0.0.1',
        path: '/api/files',
        method: 'POST',
        headers: { 'Content-Length': 5000, 'Content-Type': 'application/octet-stream', [OWN_HEADER]: '1' },
      });
      req.on('error', () => done());
      req.write(Buffer.alloc(1000), () => setTimeout(() => req.destroy(), 50));
    });
    await new Promise((done) => setTimeout(done, 100));
    expect(t.files.list()).toEqual(before);
    // Answered as before.
    await t.agent.get('/api/health').expect(200);
    await new Promise((done) => server.close(done));
  });
  it('a stream that grows past the limit leaves nothing behind', async () => {
    const { Readable } = await import('node:stream');
    const before = t.files.list();
    await expect(t.files.put(Readable.from([Buffer.alloc(600), Buffer.alloc(600)]), 1000)).rejects.toThrow(
      /larger than/,
    );
    expect(t.files.list()).toEqual(before);
  });
});

describe('patches', () => {
  it('a carved patch is taken out of its zone’s area; gone with its zone and back with it', async () => {
    const set = await setUpBoat(t.agent);
    const pads = uuid();
    const whole = (await bundleOf(set.boat)).surfaces[0]?.areaM2 as number;
    await t.agent.put(`/api/surfaces/${pads}`).send(patchFields(set.boat, set.zone)).expect(200);
    const { surfaces } = await bundleOf(set.boat);
    expect(surfaces.find((s) => s.id === set.zone)).toMatchObject({
      areaM2: expect.closeTo(whole - 2, 9),
      grossM2: expect.closeTo(whole, 9),
    });
    await t.agent
      .put(`/api/surfaces/${set.zone}`)
      .send({ ...zoneFields(set.boat), version: 1, deleted: true })
      .expect(200);
    expect((await bundleOf(set.boat)).surfaces).toEqual([]);
    await t.agent
      .put(`/api/surfaces/${set.zone}`)
      .send({ ...zoneFields(set.boat), version: 2 })
      .expect(200);
    expect((await bundleOf(set.boat)).surfaces.map((s) => s.id).sort()).toEqual([set.zone, pads].sort());
  });
  it('refuses a patch larger than its zone, on a patch, on another boat, or half told; nothing is written', async () => {
    const set = await setUpBoat(t.agent);
    const other = await setUpBoat(t.agent);
    const put = (fields: object, at = uuid()) => t.agent.put(`/api/surfaces/${at}`).send(fields);
    expect(
      await message(
        put(
          patchFields(set.boat, set.zone, {
            area: { method: 'typed', dimensions: {}, typed: { areaM2: 500, share: 0.1 } },
          }),
        ),
        422,
      ),
    ).toMatch(/cut out of Underwater hull are larger/);
    const pads = uuid();
    await put(patchFields(set.boat, set.zone), pads).expect(200);
    expect(await message(put(patchFields(set.boat, pads)), 422)).toMatch(/cannot lie on another patch/);
    expect(await message(put(patchFields(set.boat, other.zone)), 404)).toMatch(/no such zone/);
    expect(await message(put(patchFields(set.boat, set.zone, { patchKind: null })), 422)).toMatch(
      /both its zone and its kind/,
    );
    expect((await bundleOf(set.boat)).surfaces).toHaveLength(2);
    // Shrinking the boat until the patch no longer fits is refused too.
    await put(
      patchFields(set.boat, set.zone, {
        version: 1,
        area: { method: 'typed', dimensions: {}, typed: { areaM2: 15, share: 0.1 } },
      }),
      pads,
    ).expect(200);
    expect(
      await message(t.agent.put(`/api/boats/${set.boat}`).send({ ...boatFields, lwlM: 3, version: 1 }), 422),
    ).toMatch(/larger than it is/);
    expect((await bundleOf(set.boat)).boat.lwlM).toBe(boatFields.lwlM);
  });
});

describe('shapes and other ways to an area', () => {
  const zone = (boat: string, area: object) => ({
    ...zoneFields(boat),
    kind: 'lockers',
    exposure: 'interior',
    area: { dimensions: {}, typed: null, ...area },
  });
  const shape = (figure: object, more: object = {}) => ({
    id: uuid(),
    name: 'side',
    figure,
    count: 1,
    deduct: false,
    share: 0.05,
    group: null,
    ...more,
  });
  it('keeps the figures of each and works each out', async () => {
    const set = await setUpBoat(t.agent);
    const area = {
      method: 'shapes',
      shapes: [
        shape({ kind: 'box', lengthM: 1, widthM: 1, heightM: 0.5 }),
        shape({ kind: 'circle', diameterM: 0.2 }, { count: 2, deduct: true }),
      ],
      denny: { displacedM3: 4, draftM: null },
      calibrated: { coatId: null, litres: 2, wetFilmMicron: 200, thinner: 0.1, readings: 5 },
    };
    const { body } = await t.agent.put(`/api/surfaces/${uuid()}`).send(zone(set.boat, area)).expect(200);
    expect(body.row.areaM2).toBeCloseTo(3 - 2 * Math.PI * 0.01, 9);
    expect(body.row.area).toMatchObject(area);
  });
  it.each([
    [{ method: 'shapes', shapes: [] }, 422, /no shape yet/],
    [{ method: 'shapes', shapes: [shape({ kind: 'box', lengthM: 1, widthM: 1 })] }, 400, /height/i],
    [{ method: 'shapes', shapes: [shape({ kind: 'moon', diameterM: 1 })] }, 400, /./],
    [
      {
        method: 'shapes',
        shapes: [shape({ kind: 'circle', diameterM: 1 }), shape({ kind: 'circle', diameterM: 2 }, { deduct: true })],
      },
      422,
      /deductions/,
    ],
    [
      {
        method: 'girths',
        girths: {
          even: false,
          stations: [
            { xM: 0, halfGirthM: 1, halfBreadthM: null },
            { xM: 0, halfGirthM: 1, halfBreadthM: null },
          ],
        },
      },
      422,
      /same place/,
    ],
    [
      { method: 'calibrated', calibrated: { coatId: null, litres: 2, wetFilmMicron: 0, thinner: 0, readings: 5 } },
      400,
      /Wet film must be more than zero/,
    ],
    [
      { method: 'band', band: { place: 'keelBottom', widthM: 0, lengthM: null } },
      400,
      /Width of the band must be more than zero/,
    ],
    [{ method: 'dimensions' }, 422, /no rule of thumb/],
  ])('refuses %j', async (area, status, sentence) => {
    const set = await setUpBoat(t.agent);
    expect(await message(t.agent.put(`/api/surfaces/${uuid()}`).send(zone(set.boat, area)), status)).toMatch(sentence);
  });
});

describe('open work', () => {
  it('holds up a coat until it is done or someone writes why not', async () => {
    const set = await setUpBoat(t.agent);
    const work = { id: uuid(), kind: 'hotWork', note: 'bracket', done: false };
    await t.agent
      .put(`/api/surfaces/${set.zone}`)
      .send({ ...zoneFields(set.boat), version: 1, openWork: [work] })
      .expect(200);
    const start = startBody(set, uuid(), NOW);
    expect(await message(t.agent.put(`/api/entries/${uuid()}`).send(start), 422)).toMatch(
      /has open work\. Mark it done under Hull/,
    );
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send({ ...start, body: { ...start.body, overrideReason: 'other end of the boat' } })
      .expect(200);
    const again = await setUpBoat(t.agent);
    await t.agent
      .put(`/api/surfaces/${again.zone}`)
      .send({ ...zoneFields(again.boat), version: 1, openWork: [{ ...work, done: true }] })
      .expect(200);
    await t.agent
      .put(`/api/entries/${uuid()}`)
      .send(startBody(again, uuid(), NOW))
      .expect(200);
  });
});
