import { defineConfig } from 'vitest/config';
import { withoutPostgres } from './scripts/postgres';
import { fastTmp } from './scripts/tmp';

fastTmp();

/** Tests of the routes: they run on both databases. */
const ROUTES = ['app', 'sheets', 'hulls', 'stores', 'weather', 'together', 'onServer'].map(
  (name) => `server/${name}.test.ts`,
);

export default defineConfig(async () => {
  const missing = await withoutPostgres();
  if (missing !== null) process.stdout.write(`Not run on a PostgreSQL server, for there is none here: ${missing}\n`);
  const common = {
    environment: 'node',
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // Each PGlite is a whole database: no more of them at once than the machine has cores.
    maxWorkers: 2,
  } as const;
  return {
    test: {
      maxWorkers: 2,
      projects: [
        {
          test: {
            ...common,
            name: 'core',
            include: ['core/**/*.test.ts', 'contracts/**/*.test.ts'],
            // Nothing in the core remembers: what one file has loaded serves the next.
            isolate: false,
          },
        },
        {
          test: {
            ...common,
            name: 'all',
            include: ['server/**/*.test.ts', 'web/**/*.test.ts'],
            exclude: ['server/onServer.test.ts', 'node_modules/**'],
            globalSetup: 'scripts/builtServer.ts',
          },
        },
        ...(missing === null
          ? [{ test: { ...common, name: 'postgres', include: ROUTES, globalSetup: 'scripts/postgres.ts' } }]
          : []),
      ],
    },
  };
});
