import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launch } from '../scripts/browser';
import { startServer } from '../scripts/server';
import { dragFilm, FRAMES, twelveZones } from '../e2e/dragging';

const ROUNDS = 5;

/**
 * Frames that Chromium drops while a film is dragged in an eight-coat build-up on twelve zones, beside those it drops
 * on the same page while a line is moved as often by script. The two take turns, and the best of each counts.
 */
export async function frames(): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const server = await startServer({ JACKPLANE_DEMO: '1', JACKPLANE_DATA: data, JACKPLANE_NOW: '2026-05-14T09:40:00Z', JACKPLANE_FREEZE: '1' });
  const browser = await launch();
  try {
    const path = await twelveZones(server.url);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
    await page.goto(server.url + path);
    await page.getByRole('heading', { name: '12 zones follow' }).waitFor();
    await page.waitForLoadState('networkidle');
    const best = { dragged: { drawn: 0, dropped: Infinity }, control: { drawn: 0, dropped: Infinity } };
    for (let round = 0; round < ROUNDS; round += 1) {
      for (const name of ['dragged', 'control'] as const) {
        const { drawn, dropped } = await dragFilm(page, browser, name === 'control');
        if (dropped < best[name].dropped) best[name] = { drawn, dropped };
      }
    }
    const told = ({ drawn, dropped }: { drawn: number; dropped: number }) => `${drawn} of ${FRAMES} changes drawn, ${dropped} frames dropped`;
    console.log(`a film dragged over 8 coats on 12 zones, by Chromium's trace, best of ${ROUNDS}: ${told(best.dragged)}; a line moved by script on the same page: ${told(best.control)}`);
  } finally {
    await browser.close();
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  }
}
