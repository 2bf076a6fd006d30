import { resolve } from 'node:path';

export interface Config {
  readonly port: number;
  readonly host: string;
  /** Folder of the database. */
  readonly dataDir: string;
  /** Where the clock starts, epoch ms; null for the real one. */
  readonly now: number | null;
  readonly freeze: boolean;
  readonly demo: boolean;
}

/** Read the environment. @throws Error with a sentence when a value cannot be used */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const demo = env.JACKPLANE_DEMO === '1';
  const port = Number(env.PORT ?? 4620);
  if (!Number.isInteger(port) || port < 0 || port > 65_535) throw new Error(`PORT must be a number from 0 to 65535, not "${env.PORT}".`);
  const now = env.JACKPLANE_NOW ? Date.parse(env.JACKPLANE_NOW) : null;
  if (now !== null && Number.isNaN(now)) throw new Error(`JACKPLANE_NOW must be a date like 2026-05-14T09:30:00Z, not "${env.JACKPLANE_NOW}".`);
  return {
    port,
    host: env.HOST ?? '127.0.0.1',
    dataDir: resolve(env.JACKPLANE_DATA ?? (demo ? '.data/demo' : '.data/yard')),
    now,
    freeze: env.JACKPLANE_FREEZE === '1',
    demo,
  };
}
