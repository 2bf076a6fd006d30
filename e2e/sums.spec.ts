import { expect, noSidewaysScroll, test, useSettings } from './fixtures';

test('sums without a boat: each by hand, all of it in the address', async ({ page, demo, faults }) => {
  await useSettings(page, {});
  await page.goto(demo.url);
  await page.getByRole('navigation', { name: 'Yard' }).getByRole('link', { name: 'Sums' }).click();
  const result = (label: string) => page.getByText(label, { exact: true }).locator('..');

  // 10 m² × 100 µm / 50 % / (1 − 10 %) = 2.22 L, wet 200 µm. [P: standard coating arithmetic]
  await page.getByText('Area, litres, film', { exact: true }).click();
  await page.getByLabel('Volume solids').fill('50');
  await page.getByLabel('Area', { exact: true }).fill('10');
  await page.getByLabel('Dry film', { exact: true }).fill('100');
  await page.getByLabel('Loss').fill('10');
  await expect(result('Paint, without thinner')).toContainText('2.22 L');
  await expect(result('Wet film')).toContainText('200 µm');
  // The other way round: what is typed of litres and film tells the area.
  await page.getByLabel('Area', { exact: true }).fill('');
  await page.getByLabel('Paint', { exact: true }).fill('4.5');
  await expect(page.locator('main').getByText('20.3')).toBeVisible();

  // 20 °C at 60 % is 12.0 °C of dew point; a surface at 14 °C is 2 °C above it. [P: psychrometric tables]
  await page.getByText('Dew point', { exact: true }).first().click();
  await page.getByLabel('Air').fill('20');
  await page.getByLabel('Humidity').fill('60');
  await page.getByLabel('Surface').fill('14');
  await expect(page.locator('main')).toContainText('12.0 °C');
  await expect(page.getByText('too damp by what is usual')).toBeVisible();

  // 0.4 L over π · 5² cm² is 5.1 cm. [P: volume of a cylinder]
  await page.getByText('Marks on a pot', { exact: true }).click();
  await page.getByLabel('Ratio, by volume').fill('4:1');
  await page.getByLabel('The mix', { exact: true }).fill('0.5');
  await page.getByLabel('Across, at the bottom').fill('10');
  await page.getByLabel('Depth').fill('20');
  await expect(result('Base to')).toContainText('5.1 cm');
  await page.getByLabel('Depth').fill('4');
  await expect(page.getByRole('alert')).toContainText('It does not fit');

  // 3 : 1 with 30 and 10 mL a stroke: as many of each.
  await page.getByText('Pump strokes', { exact: true }).click();
  await page.getByLabel('Ratio, by volume').fill('3:1');
  await page.getByLabel('The mix, about').fill('0.4');
  await page.getByLabel('Base, a stroke').fill('0.03');
  await page.getByLabel('Hardener, a stroke').fill('0.01');
  await expect(result('Base')).toContainText('10 strokes');
  await expect(page.getByText('within 5 % of the ratio')).toBeVisible();

  // 1 : 50 in 80 L.
  await page.getByText('Wash', { exact: true }).click();
  await page.getByLabel('Water').fill('80');
  await page.getByLabel('One part to').fill('1:50');
  await expect(result('Concentrate')).toContainText('1.60 L');

  // As a link it says the same elsewhere.
  const other = await page.context().newPage();
  await other.goto(page.url());
  await expect(other.getByText('Concentrate', { exact: true }).locator('..')).toContainText('1.60 L');
  await other.setViewportSize({ width: 360, height: 740 });
  await noSidewaysScroll(other);
  expect(faults).toEqual([]);
});
