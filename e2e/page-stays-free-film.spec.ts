import { dragFilm, FRAMES, twelveZones } from './dragging';
import { demoYard, expect, test as base, useSettings, type OwnServer } from './fixtures';

const test = base.extend<{ yard: OwnServer }>({ yard: demoYard() });

/** Runs after all the other tests, with the machine to itself: see playwright.config.ts. */
test('a film dragged in an eight-coat build-up on twelve zones: litres, packs and findings follow at every frame', async ({
  page,
  yard,
  browser,
}) => {
  test.slow();
  const { buildUp } = await twelveZones(yard.url);
  await useSettings(page, {});
  await page.goto(yard.url + buildUp);
  await expect(page.getByRole('heading', { name: '12 zones follow' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  const { seen } = await dragFilm(page, browser);
  // Another film at every frame, and its money with it in that same frame: one film has one price, whenever it is
  // passed, and more film never costs less.
  expect(seen.filter((s, i) => i > 0 && s.film !== seen[i - 1]?.film).length).toBeGreaterThan(FRAMES * 0.9);
  const priceOf = new Map<number, number>();
  for (const { film, packs } of seen) {
    const price = Number(packs.replace(/[^\d]/g, ''));
    if (priceOf.has(film)) expect(priceOf.get(film)).toBe(price);
    priceOf.set(film, price);
  }
  expect(priceOf.size).toBeGreaterThan(8);
  const rising = [...priceOf].sort((a, b) => a[0] - b[0]).map(([, price]) => price);
  expect(rising).toEqual([...rising].sort((a, b) => a - b));
  expect(new Set(rising).size).toBeGreaterThan(4);
});
