import { defineConfig } from 'vitest/config';
import { fastTmp } from './scripts/tmp';

fastTmp();

export default defineConfig({
  test: {
    include: ['core/**/*.test.ts', 'contracts/**/*.test.ts', 'server/**/*.test.ts', 'web/**/*.test.ts'],
    environment: 'node',
    globalSetup: 'scripts/builtServer.ts',
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // Each PGlite is a whole database: no more of them at once than the machine has cores.
    maxWorkers: 2,
  },
});
