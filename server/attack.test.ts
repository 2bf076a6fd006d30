import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seeded } from '#core/plan/seeded';
import { hostile, type HostileRequest } from './attack.fixture';
import { boatFields, entryFields, NOW, setUpBoat, startBody, testApp, uuid, zoneFields } from './app.fixture';

let t: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  t = await testApp();
});
afterAll(() => t.close());

const COUNT = 2000;

describe('hostile requests [OWASP ASVS 4.0.3, 5.1, 7.4.1, 13.2]', () => {
  it(`${COUNT} over every route: an answer that is true to each, never 5xx`, async () => {
    const seed = Number(process.env.JACKPLANE_SEED ?? Math.floor(Math.random() * 2 ** 31));
    process.stdout.write(`hostile requests from seed ${seed} (JACKPLANE_SEED)\n`);
    const r = seeded(seed);
    const [known, others] = [await setUpBoat(t.agent), await setUpBoat(t.agent)];
    const faults: string[] = [];
    const statuses = new Map<number, number>();
    const send = async (one: HostileRequest) => {
      const req = t.agent[one.method.toLowerCase() as 'put'](`/api${one.path}`);
      for (const [name, value] of Object.entries(one.headers)) req.set(name, value);
      const res = await (one.body === null ? req : req.send(one.body)).catch((error: Error) => ({
        status: 0,
        body: { error: { message: error.message } },
        text: '',
      }));
      statuses.set(res.status, (statuses.get(res.status) ?? 0) + 1);
      const { error } = res.body as { error?: { code?: string; message?: string } };
      const told =
        res.status < 400 ||
        one.method === 'HEAD' ||
        (typeof error?.code === 'string' && /\.$/.test(error.message ?? ''));
      if (res.status >= 500 || res.status === 0 || !told)
        faults.push(
          `${res.status} ${one.method} ${one.path.slice(0, 80)} ${String(one.body).slice(0, 200)}: ${error?.message}`,
        );
    };
    for (let sent = 0; sent < COUNT; sent += 8)
      await Promise.all(Array.from({ length: 8 }, () => send(hostile(r, known, others))));
    expect(faults).toEqual([]);
    // They were worth sending: some were taken, most refused in several ways.
    for (const status of [200, 400, 404, 409, 415, 422])
      expect(statuses.get(status) ?? 0, `answers with ${status}`).toBeGreaterThan(0);
    // And the yard can still be read, every boat of it.
    const { body } = await t.agent.get('/api/yard').expect(200);
    for (const { boat } of body.boats as { boat: { id: string } }[])
      await t.agent.get(`/api/boats/${boat.id}`).expect(200);
    await t.agent.get('/api/stores').expect(200);
    await t.agent.get('/api/backup').expect(200);
  });
});

describe('what was found in an attack stays mended', () => {
  const refused = async (req: ReturnType<typeof t.agent.put>, status: number, message: RegExp) => {
    const res = await req;
    expect([res.status, res.body.error?.message]).toEqual([status, expect.stringMatching(message)]);
  };
  const put = (path: string, body: object) => t.agent.put(`/api${path}`).send(body);

  it('ids are lower-case UUIDs and nothing else, also within a body', async () => {
    const set = await setUpBoat(t.agent);
    const coat = uuid();
    await refused(put(`/entries/${uuid()}`, startBody(set, coat.toUpperCase(), NOW)), 400, /not a valid id/);
    await refused(put(`/entries/${uuid().toUpperCase()}`, startBody(set, coat, NOW)), 400, /not a valid id/);
    await refused(put(`/boats/{${uuid()}}`, boatFields), 400, /not a valid id/);
    // The log of that coat works from its start to its end.
    await put(`/entries/${uuid()}`, startBody(set, coat, NOW)).expect(200);
    await put(`/entries/${uuid()}`, entryFields(set.boat, coat, 'finished', NOW, { litresOn: 1 })).expect(200);
  });
  it('an entry under an id that another boat’s log has is 409, and nothing of it is left', async () => {
    const [set, other] = [await setUpBoat(t.agent), await setUpBoat(t.agent)];
    const id = uuid();
    await put(`/entries/${id}`, startBody(set, uuid(), NOW)).expect(200);
    await refused(put(`/entries/${id}`, startBody(other, uuid(), NOW)), 409, /already has this id/);
    expect((await t.agent.get(`/api/boats/${other.boat}`)).body.entries).toEqual([]);
  });
  it('days that no calendar has are refused', async () => {
    const set = await setUpBoat(t.agent);
    const job = {
      boatId: set.boat,
      outOn: '2026-05-01',
      inOn: null,
      yardCostPerDayMinor: null,
      currency: 'EUR',
      version: 0,
    };
    for (const outOn of ['2026-02-30', '2026-02-29', '2026-04-31', '0000-01-01', '2026-00-10'])
      await refused(put(`/jobs/${uuid()}`, { ...job, outOn }), 400, /must be a date like/);
    await put(`/jobs/${uuid()}`, { ...job, outOn: '2028-02-29' }).expect(200);
  });
  it('text without end of file and half characters is refused, whole emoji are not', async () => {
    await refused(put(`/boats/${uuid()}`, { ...boatFields, name: 'a\u0000b' }), 400, /cannot be kept/);
    await refused(put(`/boats/${uuid()}`, { ...boatFields, place: 'x \ud83d' }), 400, /cannot be kept/);
    await put(`/boats/${uuid()}`, { ...boatFields, name: 'Drop 💧' }).expect(200);
  });
  it('what is removed still needs what it names', async () => {
    const set = await setUpBoat(t.agent);
    const border = {
      boatId: set.boat,
      upperId: set.zone,
      lowerId: uuid(),
      rule: 'butt',
      widthM: 0,
      epoxyRunsOn: true,
      handStripM: 0,
      note: '',
      deleted: true,
      version: 0,
    };
    await refused(put(`/borders/${uuid()}`, border), 404, /no such zone/);
    await refused(
      put(`/lots/${uuid()}`, {
        sheetId: uuid(),
        part: 'Base',
        sizeL: 5,
        batchNumber: '',
        supplier: '',
        boughtOn: null,
        openedOn: null,
        expiresOn: null,
        leftL: 5,
        measuredAt: NOW,
        weighed: null,
        note: '',
        deleted: true,
        version: 0,
      }),
      404,
      /no such data sheet/,
    );
    await refused(
      put(`/surfaces/${uuid()}`, { ...zoneFields(set.boat), parentId: uuid(), patchKind: 'standPad', deleted: true }),
      404,
      /no such zone/,
    );
  });
  it('a revision id of another sheet is 409, a figure beyond the database 400', async () => {
    const set = await setUpBoat(t.agent);
    const body = (await t.agent.get(`/api/sheets/${set.sheet}`)).body.current.body as object;
    await refused(put(`/sheets/${uuid()}`, { revisionId: set.revision, body, version: 0 }), 409, /already has this id/);
    await refused(put(`/boats/${set.boat}`, { ...boatFields, version: 2 ** 31 }), 400, /at most/);
  });
  it('a row cannot be moved to another boat, nor a build-up to another zone', async () => {
    const [set, other] = [await setUpBoat(t.agent), await setUpBoat(t.agent)];
    const job = uuid();
    const fields = {
      boatId: set.boat,
      outOn: '2026-05-01',
      inOn: null,
      yardCostPerDayMinor: null,
      currency: 'EUR',
      version: 0,
    };
    await put(`/jobs/${job}`, fields).expect(200);
    await refused(put(`/jobs/${job}`, { ...fields, boatId: other.boat, version: 1 }), 422, /belongs to another boat/);
    await refused(
      put(`/surfaces/${set.zone}`, { ...zoneFields(other.boat), version: 1 }),
      422,
      /belongs to another boat/,
    );
    const second = uuid();
    await put(`/surfaces/${second}`, { ...zoneFields(set.boat), name: 'Second' }).expect(200);
    await refused(
      put(`/build-ups/${set.buildUp}`, { boatId: set.boat, surfaceId: second, layers: [], version: 1 }),
      422,
      /belongs to another zone/,
    );
  });
  it('a slip of the program is 500 and logged, whatever it threw; a sentence of the core is 422', async () => {
    const { errorHandler } = await import('./errors');
    const { Impossible } = await import('#core/impossible');
    const answer = (error: Error) => {
      const logged: unknown[] = [];
      let status = 0;
      let told = '';
      const res = {
        headersSent: false,
        status: (s: number) => (
          (status = s),
          { json: (b: { error: { message: string } }) => (told = b.error.message) }
        ),
      };
      errorHandler({ error: (what: unknown) => logged.push(what) } as never)(
        error,
        { id: 1 } as never,
        res as never,
        () => undefined,
      );
      return [status, told, logged.length];
    };
    expect(answer(new RangeError('Invalid array length'))).toEqual([
      500,
      'Something went wrong on the server. Nothing was saved. Try again.',
      1,
    ]);
    expect(answer(new Impossible('The low is above the high. Swap them.'))).toEqual([
      422,
      'The low is above the high. Swap them.',
      0,
    ]);
    expect(
      answer(Object.assign(new Error('query'), { cause: Object.assign(new Error('page'), { code: 'XX001' }) })),
    ).toEqual([503, expect.stringContaining('npm run recover'), 1]);
    expect(answer(Object.assign(new Error('x'), { code: '23505' }))).toEqual([409, expect.any(String), 0]);
  });
});
