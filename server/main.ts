import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import { makeApp } from './app';
import { makeClock } from './clock';
import { readConfig } from './config';
import { openDb } from './db/open';
import { FileStore } from './files';
import { seedDemo } from './demo/seed';
import { FolderInUse } from './lock';

const log = pino({ level: process.env.LOG_LEVEL ?? 'info' });

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const clock = makeClock({ startAt: config.now, freeze: config.freeze });
  const { db, close } = await openDb(config.dataDir);
  const files = new FileStore(join(config.dataDir, 'files'));
  if (config.demo) await seedDemo(db, files, clock);

  const webDir = fileURLToPath(new URL('../dist', import.meta.url));
  const server = createServer(makeApp({ db, files, clock, demo: config.demo }, { log, webDir }));
  // A connection closed just as a phone sends on it looks like no answer: it is kept for as long as a pause at the hull.
  server.keepAliveTimeout = 75_000;
  await new Promise<void>((done, fail) => {
    server.once('error', fail);
    server.listen(config.port, config.host, done);
  }).catch(async (error: NodeJS.ErrnoException) => {
    await close();
    if (error.code === 'EADDRINUSE') throw new Error(`Port ${config.port} is taken. Set PORT to another one.`);
    throw error;
  });
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

  // Said last: whoever waits for it may stop us at once.
  const { port } = server.address() as AddressInfo;
  log.info({ dataDir: config.dataDir, demo: config.demo }, `Jack Plane is ready at http://${config.host}:${port}`);
}

main().catch((error: unknown) => {
  if (error instanceof FolderInUse) process.stderr.write(`${error.message}\n`);
  else process.stderr.write(`Jack Plane could not start: ${(error as Error).message}\n`);
  process.exit(1);
});
