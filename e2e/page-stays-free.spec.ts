import { writeFileSync } from 'node:fs';
import { binaryStl, ellipsoid } from '../core/hull/solids.fixture';
import { DEMO, expect, test, useSettings } from './fixtures';

/** Runs after all the other tests, with the machine to itself: see playwright.config.ts. */
test('a million triangles never hold the page for 50 ms, and can be called off', async ({ page, demo }, info) => {
  test.slow();
  const big = info.outputPath('ball.stl');
  writeFileSync(big, binaryStl(ellipsoid(3.6, 1.25, 0.7, 501)));
  await useSettings(page, {});
  const choose = page.getByLabel(/STL or OBJ file/);
  /** One import, the first of it called off. The tasks that held the page, ms. */
  const bringIn = async (): Promise<number[]> => {
    await page.goto(`${demo.url}/boats/${DEMO.workboat}/hull/mesh`);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mesh of the hull');
    await page.waitForLoadState('networkidle');
    // The first touch of a page makes the alarm's sound ready; that is no part of the import.
    await page.getByRole('heading', { level: 1 }).click();
    await page.evaluate(() => {
      const seen: number[] = [];
      (window as unknown as { longTasks: number[] }).longTasks = seen;
      new PerformanceObserver((list) => list.getEntries().forEach((e) => seen.push(Math.round(e.duration)))).observe({
        type: 'longtask',
      });
    });
    await choose.setInputFiles(big);
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByRole('button', { name: 'Cancel' })).toBeHidden();
    await choose.setInputFiles(big);
    await expect(page.getByText('1,002,000 triangles', { exact: false })).toBeVisible({ timeout: 60_000 });
    await expect(page.getByText('The mesh is closed and sound.')).toBeVisible({ timeout: 60_000 });
    return page.evaluate(() => (window as unknown as { longTasks: number[] }).longTasks);
  };
  // A task's length is told by the clock on the wall: on two cores another process may stretch one. What
  // the import itself does too long, it does every time.
  let long = await bringIn();
  for (let again = 0; again < 3 && long.length > 0; again += 1) long = await bringIn();
  expect(long).toEqual([]);
  // 4π·(((ab)^p + (ac)^p + (bc)^p)/3)^(1/p), p = 1.6075, right within 1.2 % [Thomsen’s formula, from memory].
  const p = 1.6075;
  const area = 4 * Math.PI * (((3.6 * 1.25) ** p + (3.6 * 0.7) ** p + (1.25 * 0.7) ** p) / 3) ** (1 / p);
  const all = Number.parseFloat(
    (await page
      .locator('dl div', { hasText: /^All of it/ })
      .locator('dd')
      .textContent()) as string,
  );
  expect(Math.abs(all / area - 1)).toBeLessThan(0.015);
});
