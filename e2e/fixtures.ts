import { readFileSync, rmSync } from 'node:fs';
import { test as base, expect, type Page } from '@playwright/test';
import { startServer, usedFolder, type RunningServer } from '../scripts/server';

/** Thursday 14 May 2026, 10:40 at the demo yard. */
export const NOW = '2026-05-14T09:40:00Z';

/** A real server of one's own, on its own folder; restarted on the same port and folder where a test asks. */
export class OwnServer {
  private dir: string | null = null;
  private running: RunningServer | null = null;
  url = '';
  constructor(private readonly env: Record<string, string>) {}
  async start(more: Record<string, string> = {}): Promise<void> {
    const port = this.url ? new URL(this.url).port : '0';
    this.dir ??= await usedFolder(this.env);
    this.running = await startServer({ JACKPLANE_DATA: this.dir, PORT: port, ...this.env, ...more });
    this.url = this.running.url;
  }
  async stop(signal?: NodeJS.Signals): Promise<void> {
    await this.running?.stop(signal);
  }
  remove(): void {
    if (this.dir !== null) rmSync(this.dir, { recursive: true, force: true });
  }
}

export interface Worker {
  /** The demo yard, shared by the tests of a worker that only look or that make what they need. */
  demo: OwnServer;
}
export interface Fixtures {
  /** An empty yard with a running clock, for one test. */
  empty: OwnServer;
  /** Whatever the page did wrong: errors in it, and requests to other machines. */
  faults: string[];
}

/** A server for as long as a fixture lasts. */
async function serving(env: Record<string, string>, use: (server: OwnServer) => Promise<void>): Promise<void> {
  const server = new OwnServer(env);
  await server.start();
  await use(server);
  await server.stop();
  server.remove();
}

/** A demo yard, its clock stopped. Each call is a fixture of its own: files that change a yard must not share one. */
export const demoYard =
  () =>
  async ({}, use: (server: OwnServer) => Promise<void>) =>
    serving({ JACKPLANE_DEMO: '1', JACKPLANE_NOW: NOW, JACKPLANE_FREEZE: '1' }, use);

export const test = base.extend<Fixtures, Worker>({
  demo: [demoYard(), { scope: 'worker' }],
  empty: async ({}, use) => serving({ JACKPLANE_NOW: NOW }, use),
  faults: async ({ page }, use) => {
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    page.on(
      'console',
      (m) => m.type() === 'error' && !/Failed to load resource|ERR_CONNECTION/.test(m.text()) && faults.push(m.text()),
    );
    page.on(
      'request',
      (request) =>
        !/^(http:\/\/127\.0\.0\.1|data:|blob:)/.test(request.url()) && faults.push(`went outside: ${request.url()}`),
    );
    await use(faults);
  },
});

export { expect };

export const DEMO = {
  sloop: '01900000-0000-7000-8001-000000000001',
  workboat: '01900000-0000-7000-8001-000000000002',
  launch: '01900000-0000-7000-8001-000000000004',
  gig: '01900000-0000-7000-8001-000000000003',
  hull: '01900000-0000-7000-8005-000000000001',
  keels: '01900000-0000-7000-8005-000000000002',
  rudder: '01900000-0000-7000-8005-000000000003',
  barrier: '01900000-0000-7000-8002-000000000001',
};

/** Nothing sticks out to the right; names what does. */
/** Addresses that the file of a place of the built interface is asked for under. */
export function chunkOf(place: string): string {
  const manifest = JSON.parse(readFileSync('dist/.vite/manifest.json', 'utf8')) as Record<string, { file: string }>;
  const chunk = manifest[`places/${place}.tsx`];
  if (!chunk) throw new Error(`No place ${place} was built.`);
  return `**/${chunk.file}`;
}

export async function noSidewaysScroll(page: Page): Promise<void> {
  const out = () =>
    page.evaluate(() => {
      if (document.documentElement.scrollWidth <= window.innerWidth) return [];
      const wide = [...document.querySelectorAll('body *')].filter(
        (e) => e.getBoundingClientRect().right > window.innerWidth + 0.5,
      );
      return [
        `${location.pathname} is ${document.documentElement.scrollWidth} wide`,
        ...wide.slice(-4).map((e) => e.outerHTML.slice(0, 200)),
      ];
    });
  // A drawing that was measured for another width takes a moment to follow.
  await expect.poll(out).toEqual([]);
}

export async function useSettings(page: Page, settings: object): Promise<void> {
  await page.addInitScript(
    (s) => {
      if (!localStorage.getItem('jack-plane/settings')) localStorage.setItem('jack-plane/settings', s);
    },
    JSON.stringify({ painter: 'Ines', device: 'e2e', ...settings }),
  );
}

/** Put a coat of a section one place further in the list, by keyboard, as fast as the list tells that it follows. */
export async function moveCoat(page: Page, name: RegExp, key: 'ArrowUp' | 'ArrowDown'): Promise<void> {
  await page.getByRole('button', { name }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/is at its own place\. Arrow keys move it/)).toBeAttached();
  // The sensor begins to listen in a timer of its own; timers run in order, keys may come before them.
  await page.evaluate(() => new Promise((done) => setTimeout(done)));
  await page.keyboard.press(key);
  await expect(page.getByText(/is at the place of/)).toBeAttached();
  await page.keyboard.press('Space');
  await expect(page.getByText(/put down\./)).toBeAttached();
}
