import { afterEach, describe, expect, it, vi } from 'vitest';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import { sheet } from '#core/sheet/example.fixture';
import { call, Fault, NoAnswer, Refused } from './api';
import type { BoatView } from './store';
import { stintFor, stintsInHand, stintsOf } from './targets';

const revision = (id: string, sheetId: string) => ({
  id,
  sheetId,
  revision: 1,
  createdAt: 0,
  body: { ...sheet, name: sheetId },
});
const status = (surfaceId: string, sheetRevisionId: string | null, state: ZoneStatus['state'] = 'ready') =>
  ({
    surfaceId,
    state,
    nextLayer: sheetRevisionId === null ? null : { id: `layer of ${surfaceId}`, sheetRevisionId },
  }) as unknown as ZoneStatus;
const view = (statuses: ZoneStatus[]) =>
  ({
    statuses,
    sheetById: new Map(
      [revision('r1', 'epoxy'), revision('r2', 'epoxy'), revision('r3', 'gloss')].map((r) => [r.id, r]),
    ),
  }) as unknown as BoatView;

describe('stints', () => {
  it('gather the zones whose next coat is of one product, revisions and all', () => {
    const stints = stintsOf(view([status('hull', 'r1'), status('sides', 'r3'), status('keel', 'r2')]));
    expect(stints.map((s) => [s.name, s.zones.map((z) => z.surfaceId)])).toEqual([
      ['epoxy', ['hull', 'keel']],
      ['gloss', ['sides']],
    ]);
  });
  it('leave out zones in hand, complete ones and sheets that are not here', () => {
    expect(
      stintsOf(view([status('hull', 'r1', 'inHand'), status('keel', null, 'complete'), status('deck', 'gone')])),
    ).toEqual([]);
  });
  it('of a coat that is going on stand before those to come, with its own product', () => {
    const going = {
      ...view([status('hull', 'r3', 'inHand'), status('sides', 'r3')]),
      buildUps: [{ surfaceId: 'hull', layers: [{ id: 'a', sheetRevisionId: 'r2' }] }],
      coats: [
        {
          id: 'coat',
          finishedAt: null,
          sheetRevisionId: 'r1',
          dftMicron: 70,
          method: 'roller',
          on: [{ surfaceId: 'hull', layerId: 'a' }],
        },
        { id: 'done', finishedAt: 1, sheetRevisionId: 'r1', on: [{ surfaceId: 'sides', layerId: 'b' }] },
      ],
    } as unknown as BoatView;
    going.statuses.forEach((s) => Object.assign(s, { coats: [] }));
    const stints = [...stintsInHand(going), ...stintsOf(going)];
    expect(stints.map((s) => [s.key, s.name])).toEqual([
      ['coat', 'epoxy'],
      ['gloss', 'gloss'],
    ]);
    const found = stintFor(stints, ['hull']);
    expect(found?.stint.coat?.id).toBe('coat');
    expect(found?.chosen[0]?.nextLayer).toMatchObject({ id: 'a', dftMicron: 70 });
  });
  it('are found from the zones an address names; those of other products are not mixed in', () => {
    const stints = stintsOf(view([status('hull', 'r1'), status('keel', 'r1'), status('sides', 'r3')]));
    const chosen = (ids: string[]) => stintFor(stints, ids)?.chosen.map((z) => z.surfaceId);
    expect(chosen(['keel'])).toEqual(['keel']);
    expect(chosen(['keel', 'hull'])).toEqual(['hull', 'keel']);
    expect(chosen(['sides'])).toEqual(['sides']);
    expect(chosen(['keel', 'sides'])).toEqual(['keel']);
    expect(chosen([])).toEqual(['hull']);
    expect(chosen(['nonsense'])).toEqual(['hull']);
    expect(stintFor([], ['hull'])).toBeNull();
  });
});

describe('calling the server', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
  });
  const answering = (response: () => Response | Promise<never>) => vi.stubGlobal('fetch', async () => response());
  const refusal = (status: number, error: object) => new Response(JSON.stringify({ error }), { status });

  it('hands over what was answered', async () => {
    answering(() => new Response('{"ok":true}', { status: 200 }));
    expect(await call('GET', '/health')).toEqual({ ok: true });
  });
  it('tells a refusal with its reason from no answer at all', async () => {
    answering(() => refusal(409, { code: 'stale', message: 'Changed.', field: 'name', current: { version: 2 } }));
    const refused = await call('PUT', '/boats/x', {}).catch((e: unknown) => e);
    expect(refused).toBeInstanceOf(Refused);
    expect(refused).toMatchObject({
      status: 409,
      code: 'stale',
      message: 'Changed.',
      field: 'name',
      current: { version: 2 },
    });
    answering(() => Promise.reject<never>(new TypeError('offline')));
    expect(await call('GET', '/yard').catch((e: unknown) => e)).toBeInstanceOf(NoAnswer);
  });
  it('takes a gateway’s page and a 404 without our shape for no answer: they say nothing about the entry', async () => {
    for (const response of [
      () => new Response('<html>Bad gateway</html>', { status: 502 }),
      () => new Response('Not found', { status: 404 }),
    ]) {
      answering(response);
      expect(await call('PUT', '/boats/x', {}).catch((e: unknown) => e)).toBeInstanceOf(NoAnswer);
    }
  });
  it('tells a fault of the server, with what it said, from silence and from a refusal', async () => {
    answering(() => refusal(500, { code: 'internal', message: 'It went wrong.' }));
    const fault = await call('PUT', '/boats/x', {}).catch((e: unknown) => e);
    expect(fault).toBeInstanceOf(Fault);
    expect(fault).toMatchObject({ status: 500, code: 'internal', message: 'It went wrong.' });
  });
  it('takes 502, 503, 504 and 507 for silence, and keeps what was said', async () => {
    for (const status of [502, 503, 504, 507]) {
      answering(() => refusal(status, { code: 'disk_full', message: 'The disk is full.' }));
      const silence = await call('PUT', '/boats/x', {}).catch((e: unknown) => e);
      expect(silence).toBeInstanceOf(NoAnswer);
      expect(silence).toMatchObject({ said: 'The disk is full.' });
    }
  });
  it('gives up a line that swallows what is sent, by its limit and when it is told to', async () => {
    vi.stubGlobal(
      'fetch',
      (_url: string, { signal }: { signal: AbortSignal }) =>
        new Promise((_, fail) => signal.addEventListener('abort', () => fail(new TypeError('aborted')))),
    );
    expect(await call('PUT', '/x', {}, { limitMs: 20 }).catch((e: unknown) => e)).toBeInstanceOf(NoAnswer);
    const ending = new AbortController();
    const hanging = call('PUT', '/x', {}, { signal: ending.signal }).catch((e: unknown) => e);
    ending.abort();
    expect(await hanging).toBeInstanceOf(NoAnswer);
  });
  it('carries our own header with what changes something, and with nothing else', async () => {
    const seen: (string | undefined)[] = [];
    vi.stubGlobal('fetch', async (_url: string, init: { headers: Record<string, string> }) => {
      seen.push(init.headers['X-Jack-Plane']);
      return new Response('{}');
    });
    await call('GET', '/yard');
    await call('PUT', '/x', {});
    await call('POST', '/y');
    expect(seen).toEqual([undefined, '1', '1']);
  });
  it('sends JSON as JSON and a file as it is', async () => {
    const seen: { body: unknown; type: string }[] = [];
    vi.stubGlobal('fetch', async (_url: string, init: { body: unknown; headers: Record<string, string> }) => {
      seen.push({ body: init.body, type: init.headers['Content-Type'] as string });
      return new Response('{}');
    });
    const file = new Blob(['abc']);
    await call('PUT', '/x', { a: 1 });
    await call('POST', '/restore', file);
    expect(seen).toEqual([
      { body: '{"a":1}', type: 'application/json' },
      { body: file, type: 'application/octet-stream' },
    ]);
  });
});
