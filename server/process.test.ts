import { execFileSync } from 'node:child_process';
import {
  closeSync,
  cpSync,
  existsSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import { uuid } from './app.fixture';
import { folder, putBoat, start, tidyUp, usedFolder } from './process.fixture';
import { OWN_JSON } from '../scripts/server';

afterEach(tidyUp);

describe('one process at a time owns a folder', () => {
  it('a second start exits with a clear sentence; the first goes on', async () => {
    const dir = await usedFolder();
    const first = start(dir);
    const address = await first.ready;
    const second = start(dir);
    const { code, err } = await second.exit;
    expect(code).toBe(1);
    expect(err).toContain(`The data folder ${dir} is in use by process ${first.child.pid}`);
    expect((await fetch(`${address}/api/health`)).status).toBe(200);
  });

  it('also from a process namespace of its own, where process ids say nothing; and it frees itself after a kill', async () => {
    const dir = await usedFolder();
    const first = start(dir);
    await first.ready;
    const inNamespace = () =>
      start(dir, {}, ['unshare', '--fork', '--kill-child', '--pid', '--mount-proc', '--user', '--map-root-user']);
    let namespaces = true;
    try {
      execFileSync(
        'unshare',
        ['--fork', '--kill-child', '--pid', '--mount-proc', '--user', '--map-root-user', 'true'],
        { stdio: 'ignore' },
      );
    } catch {
      // Where the system gives none, another process of the same one has to do.
      namespaces = false;
    }
    const second = namespaces ? inNamespace() : start(dir);
    expect((await second.exit).err).toMatch(/is in use by process \d+/);
    first.child.kill('SIGKILL');
    await first.exit;
    const third = namespaces ? inNamespace() : start(dir);
    expect(await third.ready).toMatch(/^http/);
  });

  it('stops cleanly on SIGTERM and SIGINT and gives the folder back', async () => {
    const dir = await usedFolder();
    for (const signal of ['SIGTERM', 'SIGINT'] as const) {
      const server = start(dir, { LOG_LEVEL: 'silent' });
      // The address is printed whatever the log level.
      await server.ready;
      server.child.kill(signal);
      expect((await server.exit).code).toBe(0);
      expect(JSON.parse(readFileSync(join(dir, 'state.json'), 'utf8'))).toMatchObject({ clean: true });
    }
  });
});

describe('what is said when it cannot start', () => {
  const complaint = async (dir: string, env: Record<string, string> = {}) => (await start(dir, env).exit).err;
  it('names the setting at fault', async () => {
    expect(await complaint(folder(), { JACKPLANE_NOW: 'teatime' })).toContain('JACKPLANE_NOW must be a date');
    expect(await complaint(folder(), { PORT: 'eighty' })).toContain('PORT must be a number');
    expect(await complaint(folder(), { PORT: '' })).toContain('Leave it out for 4620');
    expect(await complaint(folder(), { HOST: '0.0.0.0' })).toMatch(
      /opens the yard to the network.*set JACKPLANE_OPEN=1/,
    );
  });
  it('names the folder, the backup and the next step when a file stands in the way or the database is damaged', async () => {
    const dir = await usedFolder();
    rmSync(join(dir, 'files'), { recursive: true });
    writeFileSync(join(dir, 'files'), 'not a folder');
    expect(await complaint(dir)).toMatch(
      new RegExp(`In the data folder ${dir}.* a file stands where a folder should be.*There is no backup in`),
    );
    rmSync(join(dir, 'files'));
    const first = start(dir);
    await putBoat(await first.ready, uuid());
    await first.backedUp();
    first.child.kill('SIGTERM');
    await first.exit;
    rmSync(join(dir, 'pg', 'global'), { recursive: true });
    const said = await complaint(dir);
    expect(said).toContain(`The database in ${join(dir, 'pg')} cannot be read`);
    expect(said).toMatch(/The last backup is \d{8}T\d{6}Z-\d{12}-daily\.jsonl\.gz/);
    expect(said).toContain('npm run recover');
    // Nothing was touched on the way.
    expect(existsSync(join(dir, 'pg', 'PG_VERSION'))).toBe(true);
  });
  it('names a folder that may not be written', async () => {
    const dir = await usedFolder();
    const first = start(dir);
    await first.ready;
    first.child.kill('SIGTERM');
    await first.exit;
    // As another user, where there is one to be: root may write anything.
    if (process.getuid?.() !== 0) {
      execFileSync('chmod', ['a-w', dir]);
      expect(await complaint(dir)).toMatch(/may not be written by this user/);
      execFileSync('chmod', ['u+w', dir]);
    } else {
      execFileSync('chmod', ['-R', 'a+rX,go-w', dir]);
      expect((await start(dir, {}, ['setpriv', '--reuid=65534', '--clear-groups']).exit).err).toMatch(
        new RegExp(`The data folder ${dir}.* may not be written by this user`),
      );
    }
  });
});

describe('open to the network', () => {
  it('warns, prints the addresses that work, and answers at them and no other', async () => {
    const server = start(await usedFolder(), { HOST: '0.0.0.0', JACKPLANE_OPEN: '1', JACKPLANE_HOSTS: 'yard.example' });
    const address = await server.ready;
    expect(address).toMatch(/^http:\/\/127\.0\.0\.1:/);
    await expect.poll(() => server.out()).toContain('everyone on it may read and write here');
    expect(((await (await fetch(`${address}/api/health`)).json()) as { open: boolean }).open).toBe(true);
    for (const other of server
      .out()
      .match(/Also at (.*)\./)?.[1]
      ?.split(', ') ?? [])
      expect((await fetch(`${other}/api/health`)).status).toBe(200);
  });
});

/** What a power cut leaves: the folder as it was while the program ran, and another run of the system. */
async function powerCut(server: ReturnType<typeof start>, dir: string): Promise<void> {
  server.child.kill('SIGKILL');
  await server.exit;
  const state = JSON.parse(readFileSync(join(dir, 'state.json'), 'utf8')) as object;
  writeFileSync(join(dir, 'state.json'), JSON.stringify({ ...state, boot: 'the run before' }));
}

describe('what was acknowledged is there afterwards', () => {
  async function written(dir: string, count: number): Promise<{ server: ReturnType<typeof start>; ids: string[] }> {
    const server = start(dir);
    const address = await server.ready;
    const ids = Array.from({ length: count }, () => uuid());
    for (const id of ids) expect(await putBoat(address, id)).toBe(200);
    return { server, ids };
  }
  async function allThere(dir: string, ids: readonly string[]): Promise<ReturnType<typeof start>> {
    const server = start(dir);
    const address = await server.ready;
    for (const id of ids) expect((await fetch(`${address}/api/boats/${id}`)).status).toBe(200);
    return server;
  }
  const recover = (dir: string, ...args: string[]) =>
    execFileSync(process.execPath, ['dist-server/recover.js', ...args], {
      env: { ...process.env, JACKPLANE_DATA: dir },
    }).toString();

  it('after three rounds of kill -9 in the middle of writing', async () => {
    const dir = await usedFolder();
    const ids: string[] = [];
    for (let round = 0; round < 3; round += 1) {
      const server = start(dir);
      const address = await server.ready;
      let answered = 0;
      const writing = Array.from({ length: 12 }, async () => {
        const id = uuid();
        if ((await putBoat(address, id).catch(() => 0)) !== 200) return;
        ids.push(id);
        answered += 1;
        // Some are answered, some in hand, some on their way.
        if (answered === 3 + 2 * round) server.child.kill('SIGKILL');
      });
      await server.exit;
      await Promise.all(writing);
    }
    expect(ids.length).toBeGreaterThanOrEqual(3 + 5 + 7);
    await allThere(dir, ids);
  });

  it('after a power cut that took the database with it, without a hand being lifted', async () => {
    const dir = await usedFolder();
    const { server, ids } = await written(dir, 8);
    await server.backedUp();
    const more = uuid();
    await putBoat(await server.ready, more);
    await powerCut(server, dir);
    rmSync(join(dir, 'pg', 'base'), { recursive: true });
    const again = await allThere(dir, [...ids, more]);
    const { putRight } = (await (await fetch(`${await again.ready}/api/keeping`)).json()) as { putRight: string };
    expect(putRight).toContain('nothing that was saved is missing');
  });

  it('with the database deleted, truncated or one page of it flipped: recover puts it together', async () => {
    const dir = await usedFolder();
    const { server, ids } = await written(dir, 4);
    await server.backedUp();
    const late = uuid();
    await putBoat(await server.ready, late);
    server.child.kill('SIGKILL');
    await server.exit;
    const whole = `${dir}-whole`;
    cpSync(dir, whole, { recursive: true });
    const largest = (from: string): string =>
      readdirSync(from, { recursive: true, withFileTypes: true })
        .filter((f) => f.isFile())
        .map((f) => join(f.parentPath, f.name))
        .reduce((a, b) => (statSync(a).size >= statSync(b).size ? a : b));
    const harms: Record<string, () => void> = {
      deleted: () => rmSync(join(dir, 'pg'), { recursive: true }),
      truncated: () => truncateSync(join(dir, 'pg', 'global', 'pg_control'), 10),
      'one page flipped': () => {
        const fd = openSync(largest(join(dir, 'pg', 'base')), 'r+');
        writeSync(fd, Buffer.alloc(64, 0xa5), 0, 64, 8192 + 100);
        closeSync(fd);
      },
    };
    for (const [name, harm] of Object.entries(harms)) {
      rmSync(dir, { recursive: true });
      cpSync(whole, dir, { recursive: true });
      harm();
      expect(recover(dir), name).toContain('was put together from the backup');
      const again = await allThere(dir, [...ids, late]);
      again.child.kill('SIGKILL');
      await again.exit;
    }
    rmSync(whole, { recursive: true });
  });

  it('goes back to any earlier moment', async () => {
    const dir = await usedFolder();
    const { server, ids } = await written(dir, 2);
    await new Promise((done) => setTimeout(done, 1100));
    const then = new Date().toISOString();
    await new Promise((done) => setTimeout(done, 1100));
    const later = uuid();
    await putBoat(await server.ready, later);
    server.child.kill('SIGTERM');
    await server.exit;
    recover(dir, '--until', then);
    const again = await allThere(dir, ids);
    expect((await fetch(`${await again.ready}/api/boats/${later}`)).status).toBe(404);
    again.child.kill('SIGTERM');
    await again.exit;
    // What came after that moment was not thrown away: the old database is aside.
    expect(readdirSync(dir).filter((name) => name.startsWith('pg-aside-'))).toHaveLength(1);
  });

  it('with the journal cut in the middle of its last line: what stands before it', async () => {
    const dir = await usedFolder();
    const { server, ids } = await written(dir, 3);
    await powerCut(server, dir);
    const segment = readdirSync(join(dir, 'journal')).sort().pop() as string;
    const path = join(dir, 'journal', segment);
    const content = readFileSync(path);
    writeFileSync(
      path,
      Buffer.concat([content, content.subarray(content.lastIndexOf(10, content.length - 2) + 1, content.length - 40)]),
    );
    const again = await allThere(dir, ids);
    expect(await putBoat(await again.ready, uuid())).toBe(200);
  });
});

describe('the demo', () => {
  it('is made anew while untouched and left alone afterwards', async () => {
    const dir = await usedFolder();
    const demo = (now: string) => start(dir, { JACKPLANE_DEMO: '1', JACKPLANE_NOW: now, JACKPLANE_FREEZE: '1' });
    const stop = async (s: ReturnType<typeof start>) => {
      s.child.kill('SIGTERM');
      await s.exit;
    };
    type YardAnswer = {
      demo: boolean;
      boats: {
        boat: { id: string; name: string; version: number };
        job: { outOn: string };
        zones: { state: string; bondsUntil: number | null }[];
      }[];
    };
    const yard = async (address: string) => (await (await fetch(`${address}/api/yard`)).json()) as YardAnswer;

    const first = demo('2026-05-14T09:40:00Z');
    const before = await yard(await first.ready);
    expect(before.demo).toBe(true);
    expect(before.boats.map((b) => b.boat.name)).toEqual([
      'Grey Wether',
      'Pewit’s Errand',
      'Sallow Lass',
      'Umber Tern',
    ]);
    const sloop = before.boats[1]!;
    const closing = sloop.zones
      .filter((z) => z.state === 'bonds')
      .map((z) => ((z.bondsUntil as number) - Date.parse('2026-05-14T09:40:00Z')) / 3_600_000);
    expect(closing).toHaveLength(2);
    expect(Math.min(...closing)).toBeLessThan(2.5);
    expect(Math.max(...closing)).toBeGreaterThan(5);
    await stop(first);

    const later = demo('2026-06-20T09:40:00Z');
    const address = await later.ready;
    expect((await yard(address)).boats[1]?.job.outOn).toBe('2026-06-07');
    const boat = (await (await fetch(`${address}/api/boats/${sloop.boat.id}`)).json()) as { boat: object };
    await fetch(`${address}/api/boats/${sloop.boat.id}`, {
      method: 'PUT',
      headers: OWN_JSON,
      body: JSON.stringify({ ...boat.boat, id: undefined, name: 'Renamed by hand' }),
    });
    await stop(later);

    const touched = demo('2026-08-01T09:40:00Z');
    const kept = await yard(await touched.ready);
    expect(kept.boats.map((b) => b.boat.name)).toContain('Renamed by hand');
    expect(kept.boats.find((b) => b.boat.name === 'Renamed by hand')?.job.outOn).toBe('2026-06-07');
    await stop(touched);
  });
});
