import { createServer, request as httpRequest, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import pino from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { OWN_HEADER } from '#contracts/rows/door';
import { makeApp } from './app';
import { boatFields, readTables, setUpBoat, testApp, uuid } from './app.fixture';

// Points of OWASP ASVS 4.0.3 [P] are named beside the tests that stand for them.
let t: Awaited<ReturnType<typeof testApp>>;
let port: number;
const silent = pino({ level: 'silent' });
const server = createServer((req, res) => t.app(req, res));
beforeAll(async () => {
  t = await testApp();
  await setUpBoat(t.agent);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  port = (server.address() as AddressInfo).port;
});
afterAll(async () => {
  await new Promise((done) => server.close(done));
  await t.close();
});

const restoring = [
  Buffer.from('{"format":"jack-plane-backup","version":1,"createdAt":"2026-01-01T00:00:00Z","tables":{}}'),
] as const;

describe('another page [ASVS 4.2.2, 13.2.3]', () => {
  it('cannot restore, upload or write, by whatever a form or a simple request can send', async () => {
    const before = await readTables(t.db);
    const plain = request(t.app);
    const tries = [
      plain.post('/api/restore').set('Content-Type', 'text/plain').send(String(restoring[0])),
      plain.post('/api/restore').set('Content-Type', 'application/x-www-form-urlencoded').send('a=b'),
      plain.post('/api/restore').set('Content-Type', 'multipart/form-data; boundary=x').send('--x--'),
      plain.post('/api/restore').send(),
      plain.post('/api/files').set('Content-Type', 'text/plain').send('a mesh'),
      plain.put(`/api/boats/${uuid()}`).send(boatFields),
      t.agent.put(`/api/boats/${uuid()}`).set('Origin', 'http://evil.example').send(boatFields),
      t.agent.put(`/api/boats/${uuid()}`).set('Origin', 'null').send(boatFields),
      t.agent.put(`/api/boats/${uuid()}`).set('Sec-Fetch-Site', 'cross-site').send(boatFields),
      t.agent.put(`/api/boats/${uuid()}`).set('Sec-Fetch-Site', 'same-site').send(boatFields),
      t.agent
        .post('/api/restore')
        .set('Origin', 'http://evil.example')
        .set('Content-Type', 'application/gzip')
        .send(restoring[0]),
    ];
    for (const attempt of tries) expect((await attempt).status).toBe(403);
    expect(await readTables(t.db)).toEqual(before);
    expect(t.files.list()).toEqual([]);
  });

  it('our own page may, with its origin told or not', async () => {
    const own = (headers: Record<string, string>) =>
      new Promise<number | undefined>((done, fail) => {
        const body = JSON.stringify(boatFields);
        const req = httpRequest(
          {
            port,
            host: '127.0.0.1',
            method: 'PUT',
            path: `/api/boats/${uuid()}`,
            headers: {
              'Content-Type': 'application/json',
              'Content-Length': Buffer.byteLength(body),
              [OWN_HEADER]: '1',
              ...headers,
            },
          },
          (res: IncomingMessage) => {
            res.resume();
            done(res.statusCode);
          },
        );
        req.on('error', fail);
        req.end(body);
      });
    expect(await own({})).toBe(200);
    expect(await own({ Origin: `http://127.0.0.1:${port}`, 'Sec-Fetch-Site': 'same-origin' })).toBe(200);
    expect(await own({ Origin: `http://127.0.0.1:${port + 1}` })).toBe(403);
    expect(await own({ Origin: `http://localhost:${port}` })).toBe(403);
  });
});

describe('what is sent as something else [ASVS 13.1.5]', () => {
  it('is 415, with what is taken', async () => {
    const wrong = async (req: request.Test) => {
      const { status, body } = await req;
      expect(status).toBe(415);
      expect(body.error.message).toMatch(/^This takes (JSON|a file)/);
    };
    await wrong(t.agent.put(`/api/boats/${uuid()}`).set('Content-Type', 'text/plain').send(JSON.stringify(boatFields)));
    await wrong(t.agent.put(`/api/boats/${uuid()}`).set('Content-Type', 'application/xml').send('<boat/>'));
    await wrong(t.agent.post('/api/files').set('Content-Type', 'application/json').send('{}'));
    await wrong(t.agent.post('/api/restore').set('Content-Type', 'text/plain').send('x'));
  });
});

describe('a name that is not ours, pointed at this machine [ASVS 14.5.3; DNS rebinding]', () => {
  const asHost = (host: string, path = '/api/yard') =>
    new Promise<{ status: number | undefined; text: string }>((done, fail) => {
      const req = httpRequest({ port, host: '127.0.0.1', path, headers: { Host: host } }, (res) => {
        let text = '';
        res.on('data', (chunk: Buffer) => (text += chunk.toString()));
        res.on('end', () => done({ status: res.statusCode, text }));
      });
      req.on('error', fail);
      req.end();
    });
  it.each([
    'evil.example',
    `evil.example:80`,
    'localhost.evil.example',
    '127.0.0.1.evil.example',
    '10.0.0.1',
    '[::2]',
    'localhost',
    '127.0.0.1:1',
    'localhost:99999',
  ])('"%s" is answered 421, for reads too', async (host) => {
    for (const path of ['/api/yard', '/', '/api/health']) {
      const { status, text } = await asHost(host, path);
      expect([path, status]).toEqual([path, 421]);
      expect(text).toContain('JACKPLANE_HOSTS');
      expect(text).not.toContain('Test Punt');
    }
  });
  it('this machine’s own names with the port are ours, and what is configured', async () => {
    for (const host of [`127.0.0.1:${port}`, `localhost:${port}`, `LOCALHOST:${port}`, `[::1]:${port}`])
      expect((await asHost(host)).status).toBe(200);
    const named = request(
      makeApp({ ...t.context, hosts: ['yard.example', 'other.example:8080'] }, { log: silent, webDir: null }),
    );
    await named.get('/api/health').set('Host', 'yard.example').expect(200);
    await named.get('/api/health').set('Host', 'Yard.Example:443').expect(200);
    await named.get('/api/health').set('Host', 'other.example:8080').expect(200);
    await named.get('/api/health').set('Host', 'other.example').expect(421);
  });
});

describe('what a page may do [ASVS 14.4]', () => {
  it('is told with every answer: nothing from elsewhere, in no frame, not sniffed', async () => {
    const { headers } = await t.agent.get('/api/health').expect(200);
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-powered-by']).toBeUndefined();
    expect(headers['access-control-allow-origin']).toBeUndefined();
  });
});
