import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launch } from '../scripts/browser';
import { startServer } from '../scripts/server';
import { dragFilm, FRAMES, twelveZones } from '../e2e/dragging';
import { quantile } from './quantile';

const ROUNDS = 7;
const MOST_ROUNDS = 3 * ROUNDS;
/** Hundredths of a second in which a virtual machine's host ran something else, over which a round tells of that host. */
const STOLEN_MOST = 2;
/** Until what the last drag saved has come back. */
const REST_MS = 700;

/** Hundredths of a second that the host has taken from this machine so far; 0 where the system does not tell. */
function stolen(): number {
  try {
    return Number(readFileSync('/proc/stat', 'utf8').split('\n')[0]?.trim().split(/\s+/)[8] ?? 0);
  } catch {
    return 0;
  }
}

/**
 * Frames that Chromium drops while a film is dragged in an eight-coat build-up on twelve zones: on the page of the build-up
 * and in the section of one zone, beside those it drops on the same page while a line is moved as often by script. The two
 * take turns, after drags that only warm the page up. Rounds in which the host of a virtual machine ran something else
 * are told apart; what other work on the machine itself takes away shows in both.
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
      for (let i = 0; i < 3; i += 1) await dragFilm(page, browser);
      const dropped = { dragged: [] as number[], control: [] as number[] };
      const disturbed = { dragged: [] as number[], control: [] as number[] };
      let drawn = Infinity;
      for (let round = 0; round < MOST_ROUNDS && Math.min(dropped.dragged.length, dropped.control.length) < ROUNDS; round += 1) {
        for (const name of ['dragged', 'control'] as const) {
          await page.waitForTimeout(REST_MS);
          const before = stolen();
          const { count } = await dragFilm(page, browser, { control: name === 'control' });
          (stolen() - before > STOLEN_MOST ? disturbed : dropped)[name].push(count('DroppedFrame'));
          if (name === 'dragged') drawn = Math.min(drawn, count('DrawFrame'));
        }
      }
      const told = (name: 'dragged' | 'control') => `${inRounds(dropped[name])}${disturbed[name].length > 0 ? `, and with time taken by the machine's host ${inRounds(disturbed[name])}` : ''}`;
      console.log(`a film dragged over 8 coats on 12 zones, on the page of ${what}, by Chromium's trace: ${drawn} or more of ${FRAMES} changes drawn; frames dropped: ${told('dragged')}; a line moved by script there: ${told('control')}`);
      await page.close();
    }
  } finally {
    await browser.close();
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

function inRounds(list: readonly number[]): string {
  if (list.length === 0) return 'no round left';
  return `${Math.min(...list)} at best, ${quantile(list, 0.5)} in the middle of ${list.length} rounds (${list.join(', ')})`;
}
