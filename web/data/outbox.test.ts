import 'fake-indexeddb/auto';
import { IDBFactory, IDBObjectStore } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { NewEntry } from '#core/model/log';
import type { BuildUpRow, SurfaceRow } from '#contracts/rows/boat';
import { rebasesOf, type Change } from './changes';
import { Outbox } from './outbox';

// The program's own outbox starts as it is loaded, in a browser.
vi.hoisted(() => {
  const missing = globalThis as Partial<Pick<typeof globalThis, 'addEventListener' | 'navigator'>>;
  missing.addEventListener ??= () => undefined;
  missing.navigator ??= {} as Navigator;
});

/** The one of the platform: other tests have none. */
const RealChannel = globalThis.BroadcastChannel;

/** A server that answers as told; what it was sent stands in `sent`. */
let sent: { path: string; body: Record<string, unknown> }[] = [];
let answer: (path: string) => { status: number; body?: object } | 'silent' = () => ({ status: 200 });

beforeEach(() => {
  sent = [];
  answer = () => ({ status: 200 });
  globalThis.indexedDB = new IDBFactory();
  vi.stubGlobal('addEventListener', () => undefined);
  vi.stubGlobal('BroadcastChannel', undefined);
  vi.stubGlobal('navigator', {});
  vi.stubGlobal('fetch', async (url: string, init: { body: string }) => {
    const path = url.replace('/api', '');
    const told = answer(path);
    if (told === 'silent') throw new TypeError('network');
    sent.push({ path, body: JSON.parse(init.body) as Record<string, unknown> });
    return new Response(JSON.stringify(told.body ?? {}), { status: told.status });
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
});

const refusal = (code = 'impossible', status = 422, current?: object) => ({
  status,
  body: { error: { code, message: 'No.', current } },
});
const zone = (id: string, version = 0): Change => ({
  kind: 'surface',
  row: { id, boatId: 'b', name: id, version } as SurfaceRow,
});
const build = (id: string, surfaceId: string): Change => ({
  kind: 'buildUp',
  row: {
    id,
    boatId: 'b',
    surfaceId,
    layers: [],
    namedId: null,
    targetMicron: null,
    overrides: [],
    records: [],
    version: 0,
    deleted: false,
  },
});
const entry = (id: string, kind: string, streamId: string, body: object = {}): Change => ({
  kind: 'entry',
  entry: { id, boatId: 'b', stream: 'coat', streamId, kind, body, supersedes: null } as unknown as NewEntry,
});
const paths = () => sent.map((s) => s.path);
const until = (done: () => boolean) => vi.waitFor(() => expect(done()).toBe(true), { timeout: 4000, interval: 10 });

describe('the outbox', () => {
  it('sends in order, tells what landed, and is empty then', async () => {
    const outbox = new Outbox();
    const landed: Change[] = [];
    outbox.onLanded = (change) => landed.push(change);
    const outcomes = await Promise.all([
      outbox.put('1', zone('z'), 'zone'),
      outbox.put('2', build('u', 'z'), 'build-up'),
      outbox.put('3', entry('e', 'note', 'c'), 'note'),
    ]);
    expect(outcomes).toEqual([{ ok: true }, { ok: true }, { ok: true }]);
    expect(paths()).toEqual(['/surfaces/z', '/build-ups/u', '/entries/e']);
    expect(landed).toHaveLength(3);
    await until(() => outbox.snapshot().length === 0);
  });

  it('with no answer keeps everything, says so, and sends once there is one', async () => {
    const outbox = new Outbox();
    answer = () => 'silent';
    const outcome = outbox.put('1', zone('z'), 'zone');
    void outbox.put('2', zone('y'), 'zone');
    await until(() => outbox.noAnswer());
    expect(outbox.snapshot().map((w) => w.id)).toEqual(['1', '2']);
    expect(sent).toEqual([]);
    answer = () => ({ status: 200 });
    expect(await outcome).toEqual({ ok: true });
    await until(() => outbox.snapshot().length === 0);
    expect(paths()).toEqual(['/surfaces/z', '/surfaces/y']);
    expect(outbox.noAnswer()).toBe(false);
  });

  it('takes a server that is going down for silence, not for a refusal', async () => {
    const outbox = new Outbox();
    let calls = 0;
    answer = () => {
      calls += 1;
      return calls === 1
        ? { status: 503 }
        : calls === 2
          ? { status: 500, body: { error: { code: 'internal', message: 'Oops.' } } }
          : { status: 200 };
    };
    expect(await outbox.put('1', zone('z'), 'zone')).toEqual({ ok: true });
    expect(calls).toBe(3);
  });

  it('survives the tab: another one finds what was not sent', async () => {
    const first = new Outbox();
    answer = () => 'silent';
    void first.put('1', zone('z'), 'kept');
    await until(() => first.noAnswer());
    answer = () => ({ status: 200 });
    const second = new Outbox();
    await until(() => paths().includes('/surfaces/z'));
    await until(() => second.snapshot().length === 0);
  });

  it('parks a refused entry and what depends on it; the rest goes on', async () => {
    const outbox = new Outbox();
    answer = (path) => (path === '/surfaces/z' ? refusal() : { status: 200 });
    const refused = outbox.put('1', zone('z'), 'zone z');
    void outbox.put('2', build('u', 'z'), 'build-up of z');
    void outbox.put('3', entry('s', 'started', 'c', { on: [{ surfaceId: 'z', layerId: 'l' }] }), 'start on z');
    void outbox.put('4', entry('f', 'finished', 'c'), 'finish');
    const other = outbox.put('5', zone('y'), 'zone y');
    expect(await refused).toMatchObject({ ok: false, failure: { status: 422, message: 'No.' } });
    expect(await other).toEqual({ ok: true });
    expect(paths()).toEqual(['/surfaces/z', '/surfaces/y']);
    expect(outbox.snapshot().map((w) => [w.id, w.parked?.code])).toEqual([
      ['1', 'impossible'],
      ['2', 'behind'],
      ['3', 'behind'],
      ['4', 'behind'],
    ]);
    expect(outbox.snapshot()[1]?.parked?.message).toBe('Waits for "zone z".');
  });

  it('a parked entry sent again takes what waited behind it along', async () => {
    const outbox = new Outbox();
    answer = (path) => (path === '/surfaces/z' ? refusal('stale', 409, { version: 4 }) : { status: 200 });
    expect(await outbox.put('1', zone('z', 2), 'zone')).toMatchObject({
      ok: false,
      failure: { code: 'stale', current: { version: 4 } },
    });
    void outbox.put('2', zone('y'), 'other');
    await until(() => paths().includes('/surfaces/y'));
    answer = () => ({ status: 200 });
    await outbox.retry('1', zone('z', 4));
    await until(() => outbox.snapshot().length === 0);
    expect(sent[sent.length - 1]).toMatchObject({ path: '/surfaces/z', body: { version: 4 } });
  });

  it('hands a refusal back to the form it came from, and keeps nothing of it', async () => {
    const outbox = new Outbox();
    answer = () => refusal();
    expect(await outbox.put('1', zone('z'), 'zone', { inline: true })).toMatchObject({ ok: false });
    expect(outbox.snapshot()).toEqual([]);
  });

  it('throws a parked entry away when a person says so', async () => {
    const outbox = new Outbox();
    answer = () => refusal();
    await outbox.put('1', zone('z'), 'zone');
    await outbox.drop('1');
    expect(outbox.snapshot()).toEqual([]);
    const again = new Outbox();
    await new Promise((done) => setTimeout(done, 50));
    expect(again.snapshot()).toEqual([]);
  });

  it('puts aside a change at which the server itself fails, after a few tries, and goes on with the others', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'], shouldAdvanceTime: true, advanceTimeDelta: 400 });
    const outbox = new Outbox();
    let faults = 0;
    answer = (path) => {
      if (path !== '/surfaces/z') return { status: 200 };
      faults += 1;
      return { status: 500, body: { error: { code: 'internal', message: 'Something went wrong on the server.' } } };
    };
    const bad = outbox.put('1', zone('z'), 'zone z');
    void outbox.put('2', build('u', 'z'), 'build-up');
    const good = outbox.put('3', zone('y'), 'zone y');
    await until(() => outbox.trouble() !== null);
    expect(await bad).toMatchObject({ ok: false, failure: { status: 500, code: 'internal' } });
    expect(await good).toEqual({ ok: true });
    expect(faults).toBe(4);
    expect(outbox.trouble()).toBeNull();
    expect(outbox.snapshot().map((w) => [w.id, w.parked?.code, w.parked?.behind])).toEqual([
      ['1', 'internal', undefined],
      ['2', 'behind', '1'],
    ]);
    // What waits behind it can be sent by itself, at any time.
    await outbox.retry('2');
    await until(() => outbox.snapshot().length === 1);
    expect(paths()).toContain('/build-ups/u');
    vi.useRealTimers();
  });

  it('sends what waited behind a change that is given up: "keep theirs" strands nothing', async () => {
    const outbox = new Outbox();
    answer = (path) =>
      path === '/build-ups/u' ? refusal('stale', 409, { id: 'theirs', surfaceId: 'z', version: 3 }) : { status: 200 };
    await outbox.put('1', build('u', 'z'), 'build-up');
    answer = (path) =>
      path === '/build-ups/u'
        ? refusal('stale', 409, { id: 'theirs', surfaceId: 'z', version: 3 })
        : path.startsWith('/entries')
          ? refusal('no_layer')
          : { status: 200 };
    void outbox.put(
      '2',
      { ...build('u', 'z'), row: { ...(build('u', 'z') as { row: BuildUpRow }).row, version: 1 } } as Change,
      'another film',
    );
    await until(() => outbox.snapshot().length === 2 && outbox.snapshot().every((w) => w.parked !== null));
    void outbox.put('3', entry('s', 'started', 'c', { on: [{ surfaceId: 'z', layerId: 'l' }] }), 'start');
    await until(() => outbox.snapshot().length === 3 && outbox.snapshot()[2]?.parked !== null);
    await outbox.drop('1');
    await outbox.drop('2');
    // Each was heard: nothing waits for something that is gone.
    await until(() => outbox.snapshot().every((w) => w.parked?.code === 'no_layer'));
    expect(outbox.snapshot().map((w) => [w.id, w.parked?.code])).toEqual([['3', 'no_layer']]);
    answer = () => ({ status: 200 });
    await outbox.retry('3');
    await until(() => outbox.snapshot().length === 0);
  });

  it('"keep mine" puts a first build-up made on two devices, and what was written after it, on top of theirs', async () => {
    const outbox = new Outbox();
    const mine = build('mine', 'z') as { kind: 'buildUp'; row: BuildUpRow };
    const current = { id: 'theirs', surfaceId: 'z', version: 4 };
    answer = (path) => (path === '/build-ups/mine' ? refusal('stale', 409, current) : { status: 200 });
    await outbox.put('1', mine, 'first coats');
    void outbox.put('2', { kind: 'buildUp', row: { ...mine.row, version: 1, targetMicron: 300 } }, 'target');
    await until(() => outbox.snapshot().length === 2 && outbox.snapshot().every((w) => w.parked !== null));
    const [parked] = outbox.snapshot();
    const rebases = rebasesOf(parked!.change, parked!.parked?.current);
    await outbox.keepMine('1', rebases);
    await until(() => outbox.snapshot().length === 0);
    expect(
      sent.filter((s) => s.path === '/build-ups/theirs').map((s) => [s.body.version, s.body.targetMicron]),
    ).toEqual([
      [4, null],
      [5, 300],
    ]);
  });

  it('"keep mine" of several zones at once takes each where it stands', async () => {
    const outbox = new Outbox();
    const row = (id: string, surfaceId: string, version: number) => ({
      ...(build(id, surfaceId) as { row: BuildUpRow }).row,
      version,
    });
    const many: Change = {
      kind: 'buildUps',
      boatId: 'b',
      rows: [row('u', 'z', 2), row('new', 'y', 0), row('w', 'x', 5)],
    };
    answer = () =>
      refusal('stale', 409, {
        rows: [
          { id: 'u', surfaceId: 'z', version: 3 },
          { id: 'other', surfaceId: 'y', version: 1 },
        ],
      });
    const refused = await outbox.put('1', many, 'three zones');
    answer = () => ({ status: 200 });
    await outbox.keepMine('1', rebasesOf(many, refused.ok ? null : refused.failure.current));
    await until(() => outbox.snapshot().length === 0);
    expect((sent[sent.length - 1]?.body.rows as BuildUpRow[]).map((r) => [r.id, r.surfaceId, r.version])).toEqual([
      ['u', 'z', 3],
      ['other', 'y', 1],
      ['w', 'x', 5],
    ]);
  });

  it('in two tabs each hears what became of its own, whichever sent it', async () => {
    vi.stubGlobal('BroadcastChannel', RealChannel);
    let held: Promise<unknown> = Promise.resolve();
    vi.stubGlobal('navigator', {
      locks: { request: (_name: string, work: () => Promise<void>) => (held = held.then(work, work)) },
    });
    const tabs = [new Outbox(), new Outbox()] as const;
    const landed: string[][] = [[], []];
    tabs.forEach((tab, i) => (tab.onLanded = (change) => landed[i]?.push((change as { row: SurfaceRow }).row.id)));
    answer = (path) => (path.startsWith('/surfaces/bad') ? refusal() : { status: 200 });
    const outcomes = await Promise.all(
      Array.from({ length: 12 }, (_, i) =>
        tabs[(i % 2) as 0].put(`${i}`, zone(`${i % 3 === 2 ? 'bad' : 'z'}${i}`), `zone ${i}`, { inline: i % 4 === 0 }),
      ),
    );
    expect(outcomes.map((o) => o.ok)).toEqual(Array.from({ length: 12 }, (_, i) => i % 3 !== 2));
    expect(paths()).toHaveLength(12);
    await until(() => tabs.every((tab) => tab.snapshot().length === 3));
    // Those of forms were handed back, the others are parked, the same in both.
    expect(tabs[0].snapshot().map((w) => w.id)).toEqual(tabs[1].snapshot().map((w) => w.id));
    await until(() => landed.every((list) => new Set(list).size === 8));
  });

  it('with the device full sends at once, and says what is kept nowhere; nothing of it counts as logged before', async () => {
    const full = vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const outbox = new Outbox();
    answer = () => 'silent';
    const outcome = outbox.put('1', zone('z'), 'zone');
    await until(() => outbox.noAnswer());
    expect(outbox.snapshot()).toMatchObject([{ id: '1', kept: false }]);
    full.mockRestore();
    void outbox.put('2', zone('y'), 'zone');
    await until(() => outbox.snapshot().length === 2);
    expect(outbox.snapshot().map((w) => w.kept)).toContain(true);
    answer = () => ({ status: 200 });
    expect(await outcome).toEqual({ ok: true });
    await until(() => outbox.snapshot().length === 0);
    expect(paths().sort()).toEqual(['/surfaces/y', '/surfaces/z']);
  });

  it('tells those who listen, each time the list changes', async () => {
    const outbox = new Outbox();
    const seen: number[] = [];
    const stop = outbox.store.subscribe(() => seen.push(outbox.snapshot().length));
    await outbox.put('1', zone('z'), 'zone');
    stop();
    const before = seen.length;
    expect(Math.max(...seen)).toBe(1);
    expect(seen[seen.length - 1]).toBe(0);
    await outbox.put('2', zone('y'), 'zone');
    expect(seen).toHaveLength(before);
  });

  it('works without a store on the device, until the tab is closed', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new Error('not here');
      },
    });
    const outbox = new Outbox();
    expect(await outbox.put('1', zone('z'), 'zone')).toEqual({ ok: true });
    expect(paths()).toEqual(['/surfaces/z']);
  });
});
