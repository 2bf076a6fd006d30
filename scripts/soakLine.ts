import 'fake-indexeddb/auto';
import { createServer, request as httpRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import { v7 as uuid } from 'uuid';
import { boatFields } from '../server/app.fixture';
import type { Attack } from './soakKeep';
import type { RunningServer } from './server';

/** What the line does with a request. */
type Mood = 'through' | 'swallows' | 'storm';

/** A line to a server that swallows what is sent, or answers 503 in its place, as it is told. */
async function badLine(server: RunningServer, mood: () => Mood) {
  const to = new URL(server.url);
  const line = createServer((req, res) => {
    const now = mood();
    if (now === 'swallows') return req.resume();
    if (now === 'storm') {
      req.resume();
      res.writeHead(503, { 'Content-Type': 'text/html' }).end('<html>Busy</html>');
      return;
    }
    const on = httpRequest(
      {
        host: to.hostname,
        port: to.port,
        method: req.method,
        path: req.url,
        headers: { ...req.headers, host: to.host },
      },
      (answer) => {
        res.writeHead(answer.statusCode ?? 502, answer.headers);
        answer.pipe(res);
      },
    );
    on.on('error', () => res.destroy());
    req.pipe(on);
  });
  await new Promise<void>((done) => line.listen(0, '127.0.0.1', done));
  const { port } = line.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}`,
    close: () => {
      line.closeAllConnections();
      line.close();
    },
  };
}

/** Entries of a page's own outbox through a bad line: none is lost, none parked, and they land in their order. */
export async function badLines(server: RunningServer, entries: number, r: () => number): Promise<Attack> {
  let mood: Mood = 'through';
  const line = await badLine(server, () => mood);
  const heard = new Set<() => void>();
  const device = globalThis as unknown as Record<string, unknown>;
  device.addEventListener = (name: string, on: () => void) => name === 'online' && heard.add(on);
  device.navigator ??= {};
  const plain = globalThis.fetch;
  globalThis.fetch = (path, init) => plain(`${line.url}${String(path)}`, init);
  try {
    const { Outbox, outbox } = await import('../web/data/outbox');
    // Two tabs of one page, without the locks of a browser.
    const tabs = [outbox, new Outbox()] as const;
    const landed = new Set<string>();
    for (const tab of tabs) tab.onLanded = (change) => change.kind === 'boat' && landed.add(change.row.id);
    const ids = Array.from({ length: entries }, () => uuid());
    const outcomes = ids.map((id, n) => {
      const row = { ...boatFields, id, deleted: false, estimated: [], shelter: 'open', waters: null };
      return tabs[n % 2 ? 1 : 0].put(id, { kind: 'boat', row } as unknown as Parameters<typeof outbox.put>[1], 'boat');
    });
    const until = Date.now() + 180_000;
    while (landed.size < entries && Date.now() < until) {
      mood = (['through', 'swallows', 'storm'] as const)[Math.floor(r() * 3)] as Mood;
      await new Promise((next) => setTimeout(next, 200 + r() * 600));
      // As when a phone finds its signal again.
      if (mood === 'swallows') for (const on of heard) on();
    }
    mood = 'through';
    for (const on of heard) on();
    await Promise.race([Promise.all(outcomes), new Promise((end) => setTimeout(end, 60_000))]);
    const parked = outbox.snapshot().filter((w) => w.parked !== null).length;
    const lost = ids.length - landed.size;
    const disorder = tabs.reduce((sum, _, tab) => {
      const own = ids.filter((_id, n) => n % 2 === tab);
      return sum + [...landed].filter((id) => own.includes(id)).filter((id, i) => id !== own[i]).length;
    }, 0);
    return {
      what: 'a line that swallows, and a storm of 503',
      done: entries,
      wrong: lost + parked + disorder,
      note: `${landed.size} landed, ${lost} missing, ${parked} parked, ${disorder} out of order`,
    };
  } finally {
    globalThis.fetch = plain;
    line.close();
  }
}
