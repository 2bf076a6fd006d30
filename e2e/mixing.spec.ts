import { readFileSync } from 'node:fs';
import { test as base, expect, DEMO, demoYard, noSidewaysScroll, useSettings, type OwnServer } from './fixtures';

/** These change a demo yard: one of their own. */
const test = base.extend<object, { yard: OwnServer }>({ yard: [demoYard(), { scope: 'worker' }] });
test.beforeEach(({ page }) => useSettings(page, {}));

interface Entry {
  readonly kind: string;
  readonly streamId: string;
  readonly body: Record<string, unknown>;
}
const logOf = async (yard: OwnServer, boat: string) =>
  ((await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as { entries: Entry[] }).entries;
const last = async (yard: OwnServer, boat: string, kind: string) =>
  (await logOf(yard, boat)).findLast((e) => e.kind === kind)?.body;

test('poured step by step: too much hardener is mended with base, and what went in is what is logged', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/mix?on=${DEMO.keels}`);
  const pour = page.getByRole('list', { name: 'Pour, in this order' });
  await page.getByText('Volume', { exact: true }).click();
  await page.getByLabel('Mixed paint, without thinner').fill('1');
  // 750 and 250 mL of 3 : 1.
  await pour.getByRole('checkbox', { name: /^Base/ }).check();
  await page.getByRole('button', { name: 'Other amount of Hardener' }).click();
  await page.getByLabel('Really poured of Hardener').fill('300 ml');
  const off = page.getByRole('alert').filter({ hasText: 'Off its ratio' });
  await expect(off).toContainText('3.00 : 1.20 instead of 3.00 : 1.00');
  await expect(off).toContainText('Add 150 mL of Base');
  // Nothing is logged until it is mended, or a reason stands.
  const mixed = page.getByRole('button', { name: /^All in/ });
  await expect(mixed).toBeDisabled();
  // What is ticked outlives a look elsewhere and a reload.
  await page.reload();
  await expect(page.getByRole('alert').filter({ hasText: 'Off its ratio' })).toBeVisible();
  await page.getByRole('button', { name: 'It is added' }).click();
  await expect(off).toHaveCount(0);
  await mixed.click();
  await expect
    .poll(async () =>
      ((await last(yard, DEMO.sloop, 'mixed'))?.parts as Record<string, number>[] | undefined)?.map((p) => ({
        ...p,
        volumeL: Number(p.volumeL?.toFixed(6)),
        massKg: Number(p.massKg?.toFixed(6)),
      })),
    )
    .toEqual([
      { name: 'Base', volumeL: 0.9, massKg: 1.368 },
      { name: 'Hardener', volumeL: 0.3, massKg: 0.303 },
    ]);
});

test('off its ratio with a reason stays marked on the coat; a tin past its date says so and is named', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/mix?on=${DEMO.rudder}`);
  await page.getByText('Volume', { exact: true }).click();
  await page.getByLabel('Mixed paint, without thinner').fill('0.4');
  await page.getByRole('button', { name: 'Other amount of Hardener' }).click();
  await page.getByLabel('Really poured of Hardener').fill('120 ml');
  await page.getByLabel('Or: why it is used all the same').fill('cold, the foreman asked for it');
  await page.getByLabel('Tin of Base').selectOption({ label: 'a tin that is not on the shelf' });
  await page.getByRole('button', { name: /^All in/ }).click();
  await expect.poll(async () => (await last(yard, DEMO.sloop, 'mixed'))?.ratioReason).toMatch(/foreman/);
  const from = (await last(yard, DEMO.sloop, 'mixed'))?.from as { part: string }[];
  expect(from.map((f) => f.part)).toEqual(['Hardener']);
  await page.getByRole('link', { name: 'Start the coat with it' }).click();
  await page.getByLabel('Start all the same, because').fill('for the test');
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(
    page.getByText(/Off its ratio: 3\.00 : 1\.20 instead of 3\.00 : 1\.00\. cold, the foreman/),
  ).toBeVisible();
});

test('whole strokes of the yard’s pumps, with the ratio that they really give', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/mix?on=${DEMO.keels}`);
  // The shelf has answered: what it says moves the page no more.
  await expect(page.getByLabel('Tin of Base')).toBeVisible();
  await page.getByText('Pump', { exact: true }).click();
  await page.getByLabel('Pump of Base').selectOption({ label: 'Red pump, 30 mL' });
  await page.getByLabel('Pump of Hardener').selectOption({ label: 'White pump, 10 mL' });
  // One stroke of each is 30 : 10.
  await expect(page.getByText('Whole strokes give 3.00 : 1.00, within the tolerance.')).toBeVisible();
  const pour = page.getByRole('list', { name: 'Pour, in this order' });
  await expect(
    pour
      .getByText(/^\d+ strokes$/)
      .or(pour.getByText('strokes'))
      .first(),
  ).toBeVisible();
  // A new pump is calibrated once, and kept.
  await page.getByRole('link', { name: 'Pots and pumps' }).click();
  await page.getByRole('button', { name: 'Pump', exact: true }).click();
  await page.getByLabel('Name').nth(5).fill('Green pump');
  await page.getByLabel('A stroke gives').last().fill('28.5 ml');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Pots and pumps saved')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Name').nth(5)).toHaveValue('Green pump');
});

test('the simulated scale: tared first, read as it is poured, put back when it reads less', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/mix?on=${DEMO.keels}`);
  await page.getByText('Volume', { exact: true }).click();
  await page.getByLabel('Mixed paint, without thinner').fill('0.04');
  // The shelf has answered: what it says moves the page no more.
  await expect(page.getByLabel('Tin of Base')).toBeVisible();
  await page.getByText('Scale', { exact: true }).click();
  await page.getByLabel('Read a scale (simulated)').check();
  const scale = page.getByRole('region', { name: 'Bench scale, simulated' });
  await expect(scale.getByRole('alert')).toContainText('Tare it under the empty pot');
  await scale.getByRole('button', { name: 'Tare' }).click();
  await expect(scale.getByRole('alert')).toHaveCount(0);
  const pour = scale.getByRole('button', { name: 'Pour (hold)' });
  const reading = async () => Number((await scale.getByRole('status').innerText()).replace(/[^\d.]/g, ''));
  for (let drops = 0; drops < 200 && (await reading()) < 45; drops += 1) await pour.click();
  await scale.getByRole('button', { name: 'Base is in' }).click();
  await expect(page.getByRole('checkbox', { name: /^Base/ })).toBeChecked();
  await scale.getByRole('button', { name: 'Take 20 g off' }).click();
  await expect(scale.getByRole('alert')).toContainText('reads less than before');
});

test('a mixing stick is a page of PDF; a clock is handed to the calendar with an alarm', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/mix?on=${DEMO.keels}`);
  const stick = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Mixing stick' }).click();
  const pdf = readFileSync(await (await stick).path());
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/today`);
  await expect(page.getByText('A locked phone does not ring for a page')).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'All of them to the calendar, with alarms' }).click();
  const text = readFileSync(await (await file).path(), 'utf8');
  expect(text).toContain('BEGIN:VALARM');
  expect(text.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThan(2);
});

test('what was worked out at the tin is kept as a batch of a boat', async ({ page, yard }) => {
  await page.goto(`${yard.url}/sums?sheet=${DEMO.barrier}&of=0&amount=0.75`);
  await page.getByRole('link', { name: /^Keep 1\.00 L as a batch for Twin keels/ }).click();
  await expect(page.getByRole('region', { name: 'Size of the batch' })).toContainText('1000 mL');
  await expect(page.getByRole('list', { name: 'Pour, in this order' })).toContainText('750 mL');
});

test('cautions are read once a day, and that is in the log', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/mix?on=${DEMO.keels}`);
  const cautions = page.getByRole('region', { name: 'Cautions' });
  await expect(cautions).toContainText('Epoxy sensitises');
  await expect(cautions).toContainText('your local rules');
  await cautions.getByRole('button', { name: 'Read' }).click();
  await expect(cautions).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('region', { name: 'Size of the batch' })).toBeVisible();
  await expect(cautions).toHaveCount(0);
  await expect.poll(async () => (await last(yard, DEMO.sloop, 'cautioned'))?.caution).toBeTruthy();
});

test('the ratio ledger says what is unexplained, since when, and in which coats; the coats say it too', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/stores`);
  await page.getByRole('region', { name: 'Saltgate 45 barrier' }).getByRole('link', { name: 'ratio ledger' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Ratio ledger, Saltgate 45 barrier');
  await expect(page.getByText('It cannot tell pouring from spilling', { exact: false })).toBeVisible();
  await expect(page.getByRole('alert')).toContainText(/12\d mL of Hardener more is gone than the batches explain/);
  await page
    .getByRole('link', { name: /Underwater hull|Twin keels/ })
    .first()
    .click();
  await expect(page.getByRole('alert').filter({ hasText: 'among the suspect ones' })).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goBack();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await noSidewaysScroll(page);
});
