import { defineConfig } from '@playwright/test';
import { CHROMIUM, CHROMIUM_ARGS } from './scripts/browser';
import { fastTmp } from './scripts/tmp';

fastTmp();

export default defineConfig({
  testDir: 'e2e',
  fullyParallel: true,
  workers: 2,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  projects: [
    { name: 'interface', testIgnore: /page-stays-free/ },
    // What is timed runs when nothing else does.
    { name: 'alone', testMatch: /page-stays-free/, dependencies: ['interface'] },
  ],
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  outputDir: 'test-results/e2e',
  use: {
    launchOptions: { executablePath: CHROMIUM, args: CHROMIUM_ARGS },
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/Lisbon',
    trace: 'off',
    // Colours are judged as they are, not halfway from one theme to the other.
    contextOptions: { reducedMotion: 'reduce' },
  },
});
