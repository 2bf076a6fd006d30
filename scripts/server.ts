import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spawn, type ChildProcess } from 'node:child_process';

/** Headers of a change as our own page sends it. */
export const OWN_JSON = { 'Content-Type': 'application/json', 'X-Jack-Plane': '1' };

export interface RunningServer {
  readonly url: string;
  readonly child: ChildProcess;
  stop(signal?: NodeJS.Signals): Promise<void>;
}

/** Start the server, as `npm run build` made it, as its own process; resolves when it says it is ready. For tests, pictures and the benchmark. */
export async function startServer(env: Record<string, string>): Promise<RunningServer> {
  const child = spawn(process.execPath, ['dist-server/main.js'], {
    env: { ...process.env, PORT: '0', LOG_LEVEL: 'info', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let err = '';
  child.stderr.on('data', (chunk: Buffer) => (err += chunk.toString()));
  const url = await new Promise<string>((done, fail) => {
    let out = '';
    child.stdout.on('data', (chunk: Buffer) => {
      out += chunk.toString();
      const found = /ready at (http:\/\/[\d.:]+)/.exec(out);
      if (found) done(found[1] as string);
    });
    child.once('exit', (code) => fail(new Error(`The server exited with ${code}: ${err}`)));
  });
  return {
    url,
    child,
    stop: (signal = 'SIGTERM') =>
      new Promise((done) => {
        if (child.exitCode !== null || child.signalCode !== null) return done();
        child.once('exit', () => done());
        child.kill(signal);
      }),
  };
}

const used = new Map<string, Promise<string>>();

/** A folder in which the server ran once, in an environment: making a yard takes seconds, copying one does not. */
export async function usedFolder(env: Record<string, string> = {}): Promise<string> {
  const key = JSON.stringify(env);
  let template = used.get(key);
  if (!template) {
    const dir = mkdtempSync(join(tmpdir(), 'jack-plane-used-'));
    process.once('exit', () => rmSync(dir, { recursive: true, force: true }));
    template = startServer({ ...env, JACKPLANE_DATA: dir })
      .then((server) => server.stop())
      .then(() => dir);
    used.set(key, template);
  }
  const dir = mkdtempSync(join(tmpdir(), 'jack-plane-test-'));
  cpSync(await template, dir, { recursive: true });
  return dir;
}
