import { createServer, type Server } from 'node:http';
import { isIPv6, type AddressInfo } from 'node:net';
import { networkInterfaces } from 'node:os';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import { makeApp } from './app';
import { makeClock } from './clock';
import { readConfig, type Config } from './config';
import type { Context } from './context';
import { DEMO_PATH } from '#contracts/rows/door';
import { LookAround } from './demo/lookAround';
import { seedDemo } from './demo/seed';
import { beginHistory, openYard } from './keep/yard';
import { patient } from './patient';
import { Summaries } from './summaries';

const log = pino({ level: process.env.LOG_LEVEL ?? 'info' });
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const clock = makeClock({ startAt: config.now, freeze: config.freeze });
  const yard = await openYard({
    dataDir: config.dataDir,
    databaseUrl: config.databaseUrl,
    now: clock.now,
    demo: config.demo,
  });
  const { store } = yard;
  if (yard.putRight) log.warn(yard.putRight);
  for (const { text } of yard.notices.list) log.warn(text);
  if (config.demo) await seedDemo(yard, clock);
  await beginHistory(yard, config.demo ? 'demo' : 'first');

  const context: Context = {
    yard,
    store,
    clock,
    demo: config.demo,
    open: config.open,
    hosts: config.hosts,
    summaries: new Summaries(store, clock, config, yard.notices),
  };
  const webDir = fileURLToPath(new URL('../dist', import.meta.url));
  const beside = config.demo ? null : new LookAround(clock, config, log);
  const demo = beside ? { path: DEMO_PATH, handler: beside.handler } : undefined;
  const server = createServer(makeApp(context, { log, webDir, ...(demo ? { demo } : {}) }));
  patient(server);
  await listen(server, config).catch(async (error: unknown) => {
    await yard.close();
    throw error;
  });
  stopInOrder(server, async () => {
    await beside?.close();
    await yard.close();
  });

  // Said last, whatever the log level: whoever waits for it may stop us at once.
  const { port } = server.address() as AddressInfo;
  const [address, ...others] = addresses(config.host, port);
  process.stdout.write(`Jack Plane is ready at ${address}\n`);
  if (config.open) {
    process.stdout.write(
      `It is open to the network: everyone on it may read and write here.${others.length > 0 ? ` Also at ${others.join(', ')}.` : ''}\n`,
    );
    log.warn({ host: config.host }, 'open to the network: everyone on it may write');
  }
  log.info({ dataDir: config.dataDir, demo: config.demo }, 'started');
  yard.backups?.startDaily((problem) => log.error({ problem }, 'the daily backup failed'));
}

function listen(server: Server, config: Config): Promise<void> {
  return new Promise<void>((done, fail) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE') fail(new Error(`Port ${config.port} is taken. Set PORT to another one.`));
      else if (error.code === 'EACCES')
        fail(new Error(`Port ${config.port} may not be used by this user. Set PORT to one above 1023.`));
      else if (error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND')
        fail(new Error(`HOST=${config.host} is no address of this machine. Leave HOST out, or set it to one that is.`));
      else fail(error);
    });
    server.listen(config.port, config.host, done);
  });
}

/** The addresses under which it answers, the first one for this machine. */
function addresses(host: string, port: number): string[] {
  const written = (a: string) => `http://${isIPv6(a) ? `[${a}]` : a}:${port}`;
  if (host !== '0.0.0.0' && host !== '::') return [written(host)];
  const own = Object.values(networkInterfaces()).flatMap((list) =>
    (list ?? [])
      .filter((a) => !a.internal && (host === '::' || a.family === 'IPv4') && !a.address.startsWith('fe80'))
      .map((a) => a.address),
  );
  return ['127.0.0.1', ...own].map(written);
}

function stopInOrder(server: Server, close: () => Promise<void>): void {
  let stopping = false;
  const stop = (signal: string) => {
    if (stopping) return;
    stopping = true;
    log.info({ signal }, 'stopping');
    server.close(() => {
      close().then(
        () => process.exit(0),
        (error: unknown) => {
          log.error({ err: error }, 'the database did not close cleanly');
          process.exit(1);
        },
      );
    });
    // Requests in hand are finished; idle connections are not waited for.
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 3000).unref();
  };
  process.on('SIGINT', () => stop('SIGINT'));
  process.on('SIGTERM', () => stop('SIGTERM'));
}

main().catch((error: unknown) => {
  process.stderr.write(
    `${error instanceof Error && error.name === 'FolderInUse' ? '' : 'Jack Plane could not start: '}${(error as Error).message}\n`,
  );
  process.exit(1);
});
