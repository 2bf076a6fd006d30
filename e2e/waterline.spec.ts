import { readFile } from 'node:fs/promises';
import { test as base, expect, DEMO, demoYard, noSidewaysScroll, useSettings, type OwnServer } from './fixtures';

/** These change a demo yard: one of their own. */
const test = base.extend<object, { yard: OwnServer }>({ yard: [demoYard(), { scope: 'worker' }] });
test.beforeEach(({ page }) => useSettings(page, {}));

const page1 = (yard: OwnServer, boat: string) => `${yard.url}/boats/${boat}/hull/waterline`;
const open = (page: import('@playwright/test').Page, part: string) =>
  page.locator('summary').filter({ hasText: part }).click();

test('how she stands, by hand: two points leave out what they cannot tell, a third tells it', async ({
  page,
  yard,
  faults,
}) => {
  await page.goto(page1(yard, DEMO.gig));
  const type = async (no: number, figures: readonly string[]) => {
    const fields = ['forward', 'to port', 'on the boat', 'above ground'];
    for (const [i, figure] of figures.entries())
      await page.getByRole('textbox', { name: `Point ${no}, ${fields[i]}` }).fill(figure);
  };
  await type(1, ['0', '0', '0.4', '1.4']);
  await type(2, ['5', '0', '0.4', '1.65']);
  // 0.25 m over 5 m: atan 0.05 = 2.86°.
  await expect(page.getByText('2.86° bow up')).toBeVisible();
  await expect(page.getByText(/heel is not told/)).toBeVisible();
  await type(3, ['2.5', '-0.5', '0.4']);
  await page.getByRole('button', { name: 'Keep how she stands' }).click();
  await expect(page.getByRole('alert')).toHaveText(/is not complete/);
  await page.getByRole('textbox', { name: 'Point 3, above ground' }).fill('1.5');
  // 0.025 m down over 0.5 m to starboard: port up by atan 0.05.
  await expect(page.getByText('2.86° bow up, 2.86° port up').first()).toBeVisible();
  await page.getByRole('button', { name: 'Keep how she stands' }).click();
  await expect(page.getByText('How she stands', { exact: true }).first()).toBeVisible();
  await page.reload();
  await expect(page.getByText('2.86° bow up, 2.86° port up').first()).toBeVisible();
  expect(faults).toEqual([]);
});

test('a list read in with a gap and a slip: the gap is named, the stray too, and it does not pull the line', async ({
  page,
  yard,
}) => {
  await page.goto(page1(yard, DEMO.sloop));
  await open(page, 'Marks');
  await page.getByRole('button', { name: 'Read a whole list in' }).click();
  await page.getByLabel('The figure is').selectOption('line');
  // On a straight line of 1 cm a station, two stations out: one missing, one typed in metres.
  await page.getByLabel('Figures, a station each').fill('5\n6.1\n6.9\n8\n9.1\ngap\n1100\n11.9\n13\n14.1\n15');
  await expect(page.getByRole('status').filter({ hasText: '10 read' })).toContainText('missing: 6');
  await page.getByRole('button', { name: 'Read them in' }).click();
  const marks = page.getByRole('list', { name: 'Marks' });
  await expect(marks.getByRole('listitem')).toHaveCount(10);
  await expect(marks.getByText(/strays by/)).toHaveCount(1);
  // The line there is 11 cm high: 1100 cm is 1089 cm off it.
  await expect(marks.getByRole('listitem').filter({ hasText: 'strays by' })).toContainText(
    /108[89]\.\d cm, above the rail/,
  );
  await expect(page.getByText('Stations without a mark: port 6')).toBeVisible();
  await open(page, 'Set it off');
  const station = page.getByRole('list', { name: 'Stations to set off' }).getByRole('listitem').nth(6);
  await expect(station).toContainText('3.00 m');
});

test('the line of the launch: smoothness, raised, boot-top, weights to come, evidence; table and drawing out', async ({
  page,
  yard,
}) => {
  await page.goto(page1(yard, DEMO.launch));
  await expect(page.getByText('9, 1 stray')).toBeVisible();
  const list = page.getByRole('list', { name: 'Candidate lines' });
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await page.getByLabel('Raised by').fill('3');
  await page.getByLabel('Name').focus();
  await expect(page.getByText(/Along the skin that is 3\.\d cm to/)).toBeVisible();
  const smooth = page.getByLabel(/Smoothness/);
  await smooth.focus();
  await page.keyboard.press('Home');
  await expect(page.getByRole('button', { name: 'Find it from the marks' })).toBeVisible();
  // With no freedom at all the line goes through every mark: none strays.
  await expect(page.locator('summary').filter({ hasText: 'Marks' })).toContainText(/^Marks9$/);
  await page.getByRole('button', { name: 'Find it from the marks' }).click();
  await expect(page.getByText('9, 1 stray')).toBeVisible();
  await open(page, 'Weight to come');
  await expect(page.getByText(/deeper, 0\.\d+° bow down/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Weighs', exact: true }).first().fill('9000 kg');
  await page.getByRole('button', { name: 'Keep the weights' }).click();
  await expect(page.getByText(/more than the 3900 kg she weighs herself/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Weighs', exact: true }).first().fill('90');
  await page.getByRole('button', { name: 'Keep the weights' }).click();
  await expect(page.getByText(/more than the 3900 kg/)).toHaveCount(0);
  await open(page, 'Where it was');
  await expect(page.getByText(/Lower edge of the cooling inlet/)).toBeVisible();
  const [table] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Table' }).click(),
  ]);
  const rows = (await readFile(await table.path(), 'utf8')).trim().split(/\r?\n/);
  expect(rows[0]).toBe(
    'station,forward_m,height_m,below_rail_m,above_ground_port_m,above_ground_starboard_m,flare_deg,boot_top_height_m,boot_top_width_m',
  );
  expect(rows).toHaveLength(19);
  const [drawing] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'SVG' }).click(),
  ]);
  const svg = await readFile(await drawing.path(), 'utf8');
  // 8.4 m at a tenth, with its margins: 870 mm.
  expect(svg).toContain('width="870.0mm"');
  expect(svg).toContain('<title>Umber Tern, Old line, found, 1 : 10, mm below the rail</title>');
});

test('on a phone: a mark by the thumb, the place goes on by itself; a station is ticked as set off', async ({
  page,
  yard,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(page1(yard, DEMO.workboat));
  await open(page, 'Marks');
  await page.getByLabel('The figure is').selectOption('rail');
  for (const cm of ['72', '70.5', '69']) {
    await page.getByLabel('Below the rail').last().fill(cm);
    await page.getByRole('button', { name: 'Mark it, on to the next' }).click();
    await expect(page.getByLabel('Below the rail').last()).toHaveValue('');
  }
  await expect(page.getByLabel('Forward of the stern')).toHaveValue('1.5');
  await page.getByLabel('Below the rail').last().fill('-90');
  await page.getByRole('button', { name: 'Mark it, on to the next' }).click();
  await expect(page.getByRole('alert')).toHaveText(/above the rail: a metre for a centimetre/);
  await noSidewaysScroll(page);
  await open(page, 'Set it off');
  const first = page.getByRole('list', { name: 'Stations to set off' }).getByRole('checkbox').first();
  await first.click();
  await expect(first).toBeChecked();
  await expect(page.getByText(/^1 of \d+ set off/)).toBeVisible();
  await page.reload();
  await open(page, 'Set it off');
  await expect(first).toBeChecked();
});
