import type { Page } from '@playwright/test';
import { withDemo } from './withDemo';
import { DEMO } from '../e2e/fixtures';

const DRAGS = 10;
const GOOD_DRAGS = 9;
/** Longer than this the page does not answer a hand. */
const LONG_MS = 50;
const STEPS = 20;

/** Longest task of the page while a coat is dragged to and fro, ms; 0: none of 50 ms or more. */
async function longestIn(page: Page, by: number): Promise<number> {
  const coat = page.locator('[data-task^="coat:"][role=button]').first();
  const box = await coat.boundingBox();
  if (!box) throw new Error('There is no coat to drag.');
  await page.evaluate(() => {
    const tasks: number[] = [];
    const observer = new PerformanceObserver((list) => tasks.push(...list.getEntries().map((e) => e.duration)));
    observer.observe({ type: 'longtask' });
    Object.assign(window, { longTasks: tasks, longObserver: observer });
  });
  const [x, y] = [box.x + 12, box.y + 20];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= STEPS; i += 1) {
    await page.mouse.move(x + (i * by) / STEPS, y);
    await page.waitForTimeout(30);
  }
  // Back to where it was: nothing is to be saved.
  await page.mouse.move(x, y);
  await page.mouse.up();
  await page.waitForTimeout(400);
  return page.evaluate(() => {
    const held = window as unknown as { longTasks: number[]; longObserver: PerformanceObserver };
    held.longObserver.disconnect();
    return Math.max(0, ...held.longTasks);
  });
}

/** A coat of the demo's sloop dragged in the window chart: what the page itself is busy with meanwhile. */
export async function planDrags(): Promise<void> {
  await withDemo(async (url, browser) => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
    await page.goto(`${url}/boats/${DEMO.sloop}/plan`);
    await page.getByRole('button', { name: 'Stop looking' }).click();
    await page.getByRole('button', { name: 'Days', exact: true }).click();
    await longestIn(page, 100);
    const drags: number[] = [];
    for (let i = 0; i < DRAGS; i += 1) drags.push(await longestIn(page, 80 + i * 12));
    const good = drags.filter((d) => d <= LONG_MS).length;
    console.log(
      `a coat dragged in the window chart: ${good} of ${DRAGS} drags without a task over ${LONG_MS} ms (wanted ${GOOD_DRAGS}); longest of each, ms: ${drags.map((d) => Math.round(d)).join(' ')}`,
    );
  });
}
