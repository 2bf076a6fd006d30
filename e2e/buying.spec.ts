import { readFileSync } from 'node:fs';
import { expect, noSidewaysScroll, useSettings } from './fixtures';

import { test, sloop, workboat, text } from './filmHelp';

/** The shelf and what to buy. One demo yard for the file; each test changes its own corner. */
test('stores: a tin is put on the shelf, weighed, and the list takes it off what is to be bought', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${workboat}/film/buy`);
  const primer = page.locator('[data-product="Lantern two-pack gloss"]');
  await expect(primer).toContainText('on the shelf');
  await page.goto(`${yard.url}/stores`);
  await page.getByRole('button', { name: 'Tin', exact: true }).click();
  const form = page.getByRole('form', { name: 'Tin' });
  await form.getByLabel('Product').selectOption({ label: 'Lantern two-pack gloss' });
  await form.getByLabel('Part').selectOption('Base');
  await form.getByLabel('Holds when full').fill('5');
  await form.getByLabel('Batch number').fill('<b>LN 9</b>');
  await form.getByText('by weighing the tin', { exact: true }).click();
  await form.getByLabel('Tin with paint').fill('5.46');
  await form.getByLabel('Empty tin').fill('0.5');
  // (5.46 − 0.50) kg over 1.24 kg/L is 4.00 L, by hand.
  await expect(form.getByText('4.00 L')).toBeVisible();
  await form.getByLabel('Empty tin').fill('9');
  await expect(form.getByRole('alert')).toContainText(/weigh/);
  await form.getByLabel('Empty tin').fill('500 g');
  await form.getByRole('button', { name: 'Save tin' }).click();
  await expect(page.getByRole('button', { name: /<b>LN 9<\/b>: change or weigh it/ })).toContainText(
    '4.00 L of 5.00 L',
  );

  // Its hardener beside it: then the base counts.
  await page.getByRole('button', { name: 'One more tin of Lantern two-pack gloss' }).click();
  await form.getByLabel('Part').selectOption('Hardener');
  await form.getByLabel('Holds when full').fill('3');
  await form.getByLabel('Left', { exact: true }).fill('7');
  await expect(form.getByRole('alert')).toHaveText(
    'More is left than the tin holds. Check both figures and their units.',
  );
  await form.getByLabel('Left', { exact: true }).fill('2');
  await form.getByRole('button', { name: 'Save tin' }).click();
  await page.goto(`${yard.url}${workboat}/film/buy`);
  await expect(primer).toContainText('What is on the shelf is enough');
  await page.goto(`${yard.url}/stores`);
  await expect(page.getByRole('region', { name: 'Lantern two-pack gloss' })).toContainText('Grey Wether');
});

test('rules of the yard: how sure buying is, and what goes with a coat', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/stores`);
  await page.getByText('99 in 100', { exact: true }).click();
  await expect(page.getByText('Chance changed')).toBeVisible();
  await page.goto(`${yard.url}${sloop}/film/buy`);
  await expect(page.getByText(/Enough in 99 cases of 100/)).toBeVisible();
  await page.goto(`${yard.url}/stores`);
  await page.getByRole('button', { name: 'Consumable', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Save rules' })).toBeDisabled();
  await page.getByLabel('Name, new row').fill('Knee pads');
  await page.getByLabel('For, Knee pads').selectOption({ label: 'a job' });
  await page.getByLabel('How many, Knee pads').fill('two');
  await expect(page.getByText('Knee pads: type how many, as a number.')).toBeVisible();
  await page.getByLabel('How many, Knee pads').fill('2');
  await page.getByLabel('Price of a pack, Knee pads').fill('12,50');
  await page.getByRole('button', { name: 'Save rules' }).click();
  await expect(page.getByRole('button', { name: 'Save rules' })).toHaveCount(0);
  await page.goto(`${yard.url}${sloop}/film/buy`);
  await expect(page.getByRole('listitem').filter({ hasText: 'Knee pads' })).toContainText('25.00');
});

test('the shopping list: by supplier, with its money, as PDF and as CSV that runs nothing', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/buy`);
  await expect(page.getByRole('region', { name: 'Staithe Chandlery' })).toContainText('Saltgate 45 barrier');
  await page.getByText('Underwater hull', { exact: true }).click();
  await expect(page.getByText(/^Coat 4/).first()).toBeVisible();
  await expect(page.getByText(/Yard, \d+ days from haul-out to launch/)).toBeVisible();
  await expect(page.getByText(/Hold back for patches, unmixed/).first()).toBeVisible();
  await expect(page.getByText(/One size smaller/).first()).toBeVisible();
  const [pdf] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'PDF' }).click()]);
  expect(pdf.suggestedFilename()).toBe('Pewit’s Errand shopping list.pdf');
  const bytes = readFileSync(await pdf.path());
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
  expect(bytes.length).toBeGreaterThan(5000);
  expect(bytes.toString('latin1')).toMatch(/\/BaseFont \/[A-Z]{6}\+AtkinsonHyperlegibleNext/);
  expect(bytes.toString('latin1')).not.toContain('Roboto');
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
  const rows = (await text(csv)).trim().split('\r\n');
  expect(rows[0]).toBe('supplier,kind,what,pack,count,litres,price EUR');
  expect(rows.some((r) => r.startsWith('Staithe Chandlery,paint,Saltgate 45 barrier,'))).toBe(true);
  await page.setViewportSize({ width: 360, height: 740 });
  await noSidewaysScroll(page);
});
