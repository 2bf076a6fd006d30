import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from '@playwright/test';
import { launch } from '../scripts/browser';
import { startServer } from '../scripts/server';

/** A demo yard of its own at a stopped time, and a browser, for as long as a measure takes. */
export async function withDemo(measure: (url: string, browser: Browser) => Promise<void>): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const server = await startServer({
    JACKPLANE_DEMO: '1',
    JACKPLANE_DATA: data,
    JACKPLANE_NOW: '2026-05-14T09:40:00Z',
    JACKPLANE_FREEZE: '1',
  });
  const browser = await launch();
  try {
    await measure(server.url, browser);
  } finally {
    await browser.close();
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  }
}
