import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { SurfaceRow } from '#contracts/rows/boat';
import type { Change } from './changes';
import type { PictureChange } from './changes/picture';
import { Outbox } from './outbox';

// The program's own outbox starts as it is loaded, in a browser.
vi.hoisted(() => {
  const missing = globalThis as Partial<Pick<typeof globalThis, 'addEventListener' | 'navigator'>>;
  missing.addEventListener ??= () => undefined;
  missing.navigator ??= {} as Navigator;
});

/** A server that is away, a line that swallows what is sent, pictures that wait. */
const RealChannel = globalThis.BroadcastChannel;
type Answer = { status: number; body?: object } | 'silent' | 'swallowed';
let answer: (path: string) => Answer = () => ({ status: 200 });
let sent: { method: string; path: string; body: unknown }[] = [];
let online: () => void = () => undefined;

beforeEach(() => {
  sent = [];
  answer = () => ({ status: 200 });
  globalThis.indexedDB = new IDBFactory();
  vi.stubGlobal('addEventListener', (name: string, heard: () => void) => name === 'online' && (online = heard));
  vi.stubGlobal('BroadcastChannel', undefined);
  vi.stubGlobal('navigator', {});
  vi.stubGlobal('fetch', async (url: string, init: { method: string; body: unknown; signal: AbortSignal }) => {
    const path = url.replace('/api', '');
    const told = answer(path);
    if (told === 'silent') throw new TypeError('network');
    if (told === 'swallowed')
      return new Promise((_, fail) => init.signal.addEventListener('abort', () => fail(new TypeError('aborted'))));
    const body: unknown = typeof init.body === 'string' ? JSON.parse(init.body) : init.body;
    sent.push({ method: init.method, path, body });
    return new Response(JSON.stringify(told.body ?? {}), { status: told.status });
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const zone = (id: string): Change => ({
  kind: 'surface',
  row: { id, boatId: 'b', name: id, version: 0 } as SurfaceRow,
});
const picture = (id: string): PictureChange => ({
  kind: 'picture',
  entry: {
    id,
    boatId: 'b',
    stream: 'zone',
    streamId: 'z',
    kind: 'picture',
    supersedes: null,
    body: { hash: '', widthPx: 4, heightPx: 3, text: '' },
  } as unknown as PictureChange['entry'],
});
const until = (done: () => boolean) => vi.waitFor(() => expect(done()).toBe(true), { timeout: 4000, interval: 10 });
const said = (status: number, code: string, message: string) => ({ status, body: { error: { code, message } } });
/** Time passes by the second until something is so: a store that is no timer has its turn in between. */
async function inTime(done: () => boolean): Promise<void> {
  for (let second = 0; second < 600 && !done(); second += 1) {
    await vi.advanceTimersByTimeAsync(1000);
    await new Promise((next) => setImmediate(next));
  }
  expect(done()).toBe(true);
}
const stopTimers = () => vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });

describe('a server that is away', () => {
  it('parks nothing, however long it answers 502, 503, 504 or 507; all is sent when it is back, in order', async () => {
    stopTimers();
    const outbox = new Outbox();
    let storm = 0;
    answer = () => said([502, 503, 504, 507][(storm += 1) % 4] as number, 'busy', 'Not now.');
    const outcomes = Array.from({ length: 6 }, (_, i) => outbox.put(`${i}`, zone(`z${i}`), `zone ${i}`));
    await inTime(() => storm > 8);
    expect(outbox.snapshot().map((w) => w.parked)).toEqual([null, null, null, null, null, null]);
    expect(outbox.trouble()).toBe('Not now.');
    sent = [];
    answer = () => ({ status: 200 });
    await inTime(() => outbox.snapshot().length === 0);
    expect((await Promise.all(outcomes)).every((o) => o.ok)).toBe(true);
    expect(sent.map((s) => s.path)).toEqual([0, 1, 2, 3, 4, 5].map((i) => `/surfaces/z${i}`));
    expect(outbox.trouble()).toBeNull();
  });

  it('a refusal that comes after another tab has sent the same is none, in a page without locks', async () => {
    answer = () => 'silent';
    const first = new Outbox();
    const outcome = first.put('1', zone('z'), 'zone');
    await until(() => first.noAnswer());
    let refuse: () => void = () => undefined;
    const late = new Promise<void>((done) => (refuse = done));
    const quick = globalThis.fetch;
    // The first tab hangs on a slow line; the second one is answered meanwhile.
    let sends = 0;
    vi.stubGlobal('fetch', async (url: string, init: { method: string; body: unknown; signal: AbortSignal }) => {
      sends += 1;
      if (sends > 1) return quick(url, init as RequestInit);
      await late;
      return new Response(JSON.stringify(said(409, 'conflict', 'Somebody else changed it.').body), { status: 409 });
    });
    answer = () => ({ status: 200 });

    await until(() => sends === 1);
    const second = new Outbox();
    await until(() => sends === 2);
    await until(() => second.snapshot().length === 0);
    refuse();
    expect(await outcome).toEqual({ ok: true });
    expect(first.snapshot()).toEqual([]);
    const again = new Outbox();
    await again.drain();
    expect(again.snapshot()).toEqual([]);
  });

  it('one tap sends all that was parked, in its order', async () => {
    const outbox = new Outbox();
    answer = () => said(422, 'impossible', 'No.');
    for (const id of ['1', '2', '3']) await outbox.put(id, zone(`z${id}`), id);
    expect(outbox.snapshot().every((w) => w.parked !== null)).toBe(true);
    sent = [];
    answer = () => ({ status: 200 });
    await outbox.retryAll();
    await until(() => outbox.snapshot().length === 0);
    expect(sent.map((s) => s.path)).toEqual(['/surfaces/z1', '/surfaces/z2', '/surfaces/z3']);
  });
});

describe('a line that swallows what is sent', () => {
  it('is told as no answer yet, is given up by its limit, and what waited is sent without a reload', async () => {
    stopTimers();
    const outbox = new Outbox();
    answer = () => 'swallowed';
    const outcome = outbox.put('1', zone('z'), 'zone');
    await inTime(() => outbox.noAnswerYet());
    expect(outbox.noAnswer()).toBe(false);
    answer = () => ({ status: 200 });
    await inTime(() => outbox.snapshot().length === 0);
    expect(await outcome).toEqual({ ok: true });
    expect(outbox.noAnswerYet()).toBe(false);
  });

  it('is given up at once when the device comes back online', async () => {
    const outbox = new Outbox();
    answer = () => 'swallowed';
    const outcome = outbox.put('1', zone('z'), 'zone');
    await new Promise((done) => setTimeout(done, 50));
    answer = () => ({ status: 200 });
    const began = performance.now();
    online();
    expect(await outcome).toEqual({ ok: true });
    // Far sooner than the thirty seconds of a send.
    expect(performance.now() - began).toBeLessThan(15_000);
  });
});

describe('pictures', () => {
  const uploaded = (path: string): Answer =>
    path === '/files' ? { status: 200, body: { hash: 'f'.repeat(64) } } : { status: 200 };

  it('wait like any entry, under the id that they were taken with; their file goes first and names them', async () => {
    const outbox = new Outbox();
    answer = () => 'silent';
    const landed: Change[] = [];
    outbox.onLanded = (change) => landed.push(change);
    const file = new Blob(['a picture']);
    const outcome = outbox.put('1', picture('p1'), 'Picture kept', { file });
    await until(() => outbox.noAnswer());
    expect(outbox.snapshot()[0]?.file).toBeDefined();
    answer = uploaded;
    expect(await outcome).toEqual({ ok: true });
    expect(sent.map((s) => [s.method, s.path])).toEqual([
      ['POST', '/files'],
      ['PUT', '/entries/p1'],
    ]);
    expect((sent[1]?.body as { body: { hash: string } }).body.hash).toBe('f'.repeat(64));
    expect((landed[0] as PictureChange).entry.body.hash).toBe('f'.repeat(64));
  });

  it('three of them and two tabs are three entries, and outlive the tab', async () => {
    vi.stubGlobal('BroadcastChannel', RealChannel);
    let held: Promise<unknown> = Promise.resolve();
    vi.stubGlobal('navigator', {
      locks: { request: (_name: string, work: () => Promise<void>) => (held = held.then(work, work)) },
    });
    answer = () => 'silent';
    const first = new Outbox();
    for (const id of ['1', '2', '3']) void first.put(id, picture(`p${id}`), 'Picture kept', { file: new Blob([id]) });
    await until(() => first.snapshot().length === 3 && first.noAnswer());
    const second = new Outbox();
    await until(() => second.snapshot().length === 3);
    answer = uploaded;
    await until(() => first.snapshot().length === 0 && second.snapshot().length === 0);
    expect(sent.filter((s) => s.method === 'PUT').map((s) => s.path)).toEqual(
      ['1', '2', '3'].map((i) => `/entries/p${i}`),
    );
  });

  it('whose file the server will not have are parked with it', async () => {
    const outbox = new Outbox();
    answer = (path) => (path === '/files' ? said(413, 'too_large', 'Too large.') : { status: 200 });
    expect(await outbox.put('1', picture('p1'), 'Picture kept', { file: new Blob(['x']) })).toMatchObject({
      ok: false,
    });
    expect(outbox.snapshot()[0]).toMatchObject({ parked: { code: 'too_large' } });
    expect(outbox.snapshot()[0]?.file).toBeDefined();
  });
});
