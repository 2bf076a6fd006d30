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

/** What Chromium's trace tells of the frames of a drag: its event of a frame that missed its time says whether something of it was presented all the same. */
interface Told {
  /** Nothing was presented: a dropped frame. */
  readonly dropped: number;
  /** Presented at its time without what the page had changed, which followed late: a partially presented frame. */
  readonly partial: number;
}

/**
 * Frames that Chromium drops, and those it presents without the page's change (the names are those of its developer tools'
 * track of frames, from memory), while a film is dragged in an eight-coat build-up on twelve zones: on the page of the build-up
 * and in the section of one zone, beside those it drops on the same page while a line is moved as often by script. The two
 * take turns, after drags that only warm the page up. Rounds in which the host of a virtual machine ran something else
 * are told apart; what other work on the machine itself takes away shows in both.
 */
export async function frames(): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), 'jack-plane-bench-'));
  const server = await startServer({
    JACKPLANE_DEMO: '1',
    JACKPLANE_DATA: data,
    JACKPLANE_NOW: '2026-05-14T09:40:00Z',
    JACKPLANE_FREEZE: '1',
  });
  const browser = await launch();
  try {
    const paths = await twelveZones(server.url);
    for (const [what, path] of [
      ['the build-up', paths.buildUp],
      ['a zone', paths.zone],
    ] as const) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
      await page.goto(server.url + path);
      await page.getByRole('slider').first().waitFor();
      await page.waitForLoadState('networkidle');
      for (let i = 0; i < 3; i += 1) await dragFilm(page, browser);
      const still = { dragged: [] as Told[], control: [] as Told[] };
      const disturbed = { dragged: [] as Told[], control: [] as Told[] };
      let drawn = Infinity;
      for (
        let round = 0;
        round < MOST_ROUNDS && Math.min(still.dragged.length, still.control.length) < ROUNDS;
        round += 1
      ) {
        for (const name of ['dragged', 'control'] as const) {
          await page.waitForTimeout(REST_MS);
          const before = stolen();
          const { count } = await dragFilm(page, browser, { control: name === 'control' });
          const partial = count('DroppedFrame', ({ hasPartialUpdate }) => hasPartialUpdate === true);
          (stolen() - before > STOLEN_MOST ? disturbed : still)[name].push({
            dropped: count('DroppedFrame') - partial,
            partial,
          });
          if (name === 'dragged') drawn = Math.min(drawn, count('DrawFrame'));
        }
      }
      const told = (name: 'dragged' | 'control') =>
        `${inRounds(still[name])}${disturbed[name].length > 0 ? `; with time taken by the machine's host ${inRounds(disturbed[name])}` : ''}`;
      console.log(
        `a film dragged over 8 coats on 12 zones, on the page of ${what}, by Chromium's trace: ${drawn} or more of ${FRAMES} changes drawn\n  dragged: ${told('dragged')}\n  a line moved by script there: ${told('control')}`,
      );
      await page.close();
    }
  } finally {
    await browser.close();
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

function inRounds(rounds: readonly Told[]): string {
  if (rounds.length === 0) return 'no round left';
  const each = (of: (round: Told) => number) =>
    `${quantile(rounds.map(of), 0.5)} in the middle of ${rounds.length} rounds (${rounds.map(of).join(', ')})`;
  return `dropped ${each((r) => r.dropped)}, partially presented ${each((r) => r.partial)}`;
}
