import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launch } from '../scripts/browser';
import { startServer } from '../scripts/server';
import { dragFilm, FRAMES, twelveZones } from '../e2e/dragging';

const ROUNDS = 7;

/**
 * Frames that Chromium drops while a film is dragged in an eight-coat build-up on twelve zones: on the page of the build-up
 * and in the section of one zone, beside those it drops on the same page while a line is moved as often by script. The two
 * take turns, after one drag that only warms the page up; what other work on the machine takes away shows in both.
 */
export async function frames(): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const server = await startServer({ JACKPLANE_DEMO: '1', JACKPLANE_DATA: data, JACKPLANE_NOW: '2026-05-14T09:40:00Z', JACKPLANE_FREEZE: '1' });
  const browser = await launch();
  try {
    const paths = await twelveZones(server.url);
    for (const [what, path] of [['the build-up', paths.buildUp], ['a zone', paths.zone]] as const) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
      await page.goto(server.url + path);
      await page.getByRole('slider').first().waitFor();
      await page.waitForLoadState('networkidle');
      await dragFilm(page, browser);
      const dropped = { dragged: [] as number[], control: [] as number[] };
      let drawn = Infinity;
      for (let round = 0; round < ROUNDS; round += 1) {
        for (const name of ['dragged', 'control'] as const) {
          const seen = await dragFilm(page, browser, name === 'control');
          dropped[name].push(seen.dropped);
          if (name === 'dragged') drawn = Math.min(drawn, seen.drawn);
        }
      }
      const told = (list: number[]) => `${Math.min(...list)} at best, ${[...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]} in the middle (${list.join(', ')})`;
      console.log(`a film dragged over 8 coats on 12 zones, on the page of ${what}, by Chromium's trace: ${drawn} or more of ${FRAMES} changes drawn; frames dropped in ${ROUNDS} rounds ${told(dropped.dragged)}; a line moved by script there ${told(dropped.control)}`);
      await page.close();
    }
  } finally {
    await browser.close();
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  }
}
