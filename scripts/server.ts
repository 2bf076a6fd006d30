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
  const child = spawn(process.execPath, ['dist-server/main.js'], { env: { ...process.env, PORT: '0', LOG_LEVEL: 'info', ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
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
