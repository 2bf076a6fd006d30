import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import ICAL from 'ical.js';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { test as base, expect, DEMO, demoYard, noSidewaysScroll, useSettings, type OwnServer } from './fixtures';

/** These change a demo yard: one of their own. */
const test = base.extend<object, { yard: OwnServer }>({ yard: [demoYard(), { scope: 'worker' }] });
test.beforeEach(({ page }) => useSettings(page, {}));
test.use({ viewport: { width: 1280, height: 800 } });

const planOf = (yard: OwnServer, boat: string) => `${yard.url}/boats/${boat}/plan`;
/** The plan stands, and no better one is looked for: the search is ended, and keeps the best. */
async function settled(page: Page): Promise<void> {
  await expect(page.getByText(/Ready for the water|Not ready within/)).toBeVisible({ timeout: 60_000 });
  // Once more where the plan was made anew meanwhile.
  const looking = () =>
    page.evaluate(() => {
      for (const button of document.querySelectorAll('button'))
        if (button.textContent === 'Stop looking') button.click();
      return document.body.textContent.includes('looking for better');
    });
  await expect.poll(looking, { timeout: 60_000 }).toBe(false);
}
const steps = (page: Page, zone: string) =>
  page
    .locator('[data-task][role=button]')
    .filter({ has: page.locator(':scope') })
    .and(page.getByLabel(new RegExp(`^${zone}`)));

interface Bundle {
  jobs: { planning: { locks: { task: string; start: number }[]; lamps: boolean; shelters: unknown[] } | null }[];
  entries: { kind: string; body: { tasks: unknown[] } }[];
}
const bundleOf = async (yard: OwnServer, boat: string) =>
  (await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as Bundle;
const rulesOf = async (yard: OwnServer) =>
  (
    (await (await fetch(`${yard.url}/api/stores`)).json()) as {
      rules: { hands: { name: string; weekdays: number[]; off: { from: string; to: string }[] }[] };
    }
  ).rules;

test('a plan is there without a word typed: when she is ready, her film growing in time, why each step is there', async ({
  page,
  yard,
  faults,
}) => {
  await page.goto(planOf(yard, DEMO.launch));
  await expect(page.getByText(/Ready for the water/)).toBeVisible();
  await expect(page.getByRole('group', { name: /Window chart/ })).toBeVisible();
  const coats = steps(page, 'Topsides, ');
  expect(await coats.count()).toBeGreaterThan(2);
  await coats.last().focus();
  const panel = page.getByRole('region', { name: 'This step' });
  await expect(panel).toContainText('Topsides:');
  await expect(panel).toContainText('Why there');
  // `w` opens and closes the workings.
  const open = () => panel.locator('details').evaluate((d: HTMLDetailsElement) => d.open);
  expect(await open()).toBe(true);
  await page.keyboard.press('w');
  expect(await open()).toBe(false);
  await page.keyboard.press('w');
  await expect(panel.getByText(/\S+ .*\./).first()).toBeVisible();
  await page.getByRole('button', { name: 'Hours', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Hours', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('-');
  await expect(page.getByRole('button', { name: 'Days', exact: true })).toHaveAttribute('aria-pressed', 'true');
  expect(faults).toEqual([]);
});

test('a coat is moved by the keyboard and held there; the rest follows, and undo lets it go', async ({
  page,
  yard,
}) => {
  await page.goto(planOf(yard, DEMO.launch));
  await settled(page);
  const coat = steps(page, 'Bottom, aft half, barrier 2').first();
  const before = await coat.getAttribute('aria-label');
  await coat.focus();
  await page.keyboard.press('ArrowRight');
  await expect(coat).not.toHaveAttribute('aria-label', before ?? '');
  const locks = async () => (await bundleOf(yard, DEMO.launch)).jobs.at(-1)?.planning?.locks ?? [];
  await expect.poll(async () => (await locks()).length).toBe(1);
  await expect(page.getByRole('button', { name: 'Let it go' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await locks()).length).toBe(0);
});

test('a coat is dragged: it lands where it may start, and stays there', async ({ page, yard }) => {
  await page.goto(planOf(yard, DEMO.sloop));
  await settled(page);
  await page.getByRole('button', { name: 'Days', exact: true }).click();
  const coat = page.locator('[data-task^="coat:"][role=button]').first();
  const before = (await coat.getAttribute('aria-label')) ?? '';
  const box = (await coat.boundingBox())!;
  // Its name reaches further than the step itself.
  const [x, y] = [box.x + 12, box.y + 20];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 8; i += 1) await page.mouse.move(x + i * 12, y);
  await expect(page.getByText('tried by hand')).toBeVisible();
  await page.mouse.up();
  const locks = async () => (await bundleOf(yard, DEMO.sloop)).jobs.at(-1)?.planning?.locks ?? [];
  await expect.poll(async () => (await locks()).length).toBe(1);
  const [lock] = await locks();
  expect(before).toContain(':');
  expect(lock!.start % (15 * 60_000)).toBe(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await locks()).length).toBe(0);
});

test('odds and ways out are really planned; one is looked at beside, and taken with a click', async ({
  page,
  yard,
}) => {
  test.slow();
  await page.goto(planOf(yard, DEMO.gig));
  await settled(page);
  await page.getByRole('button', { name: 'Odds' }).click();
  await expect(page.getByText(/Lived through in \d+ weathers/)).toBeVisible({ timeout: 120_000 });
  await expect(page.getByText(/makes the date in \d+ of 10/)).toBeVisible();
  await page.getByRole('button', { name: 'Ways out' }).click();
  const ways = page.getByRole('region', { name: 'Ways out' });
  await expect(ways.getByText('planning …')).toHaveCount(0, { timeout: 120_000 });
  const way = (name: string) => ways.getByRole('listitem').filter({ hasText: name });
  await expect(way('One painter more')).toContainText(/ready .*costs another painter/);
  await expect(way('A tent over her, heated to 16 °C')).toContainText('costs a tent and its heat');
  await expect(way('alone under a tent')).toContainText(/ready .*costs a small tent/);
  await ways.getByRole('button', { name: 'What each adds to the odds' }).click();
  await expect(way('Lamps')).toContainText(/in time in \d+ of 10/, { timeout: 120_000 });
  await expect(way('Move the launch by a week')).toContainText(/in time in \d+ of 10/, { timeout: 120_000 });
  await page.getByRole('button', { name: 'Show beside it: Two hours more a day' }).click();
  await expect(page.getByText('Dashed beside it: Two hours more a day.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await page.getByRole('button', { name: 'Take it: Lamps: work past dusk' }).click();
  await expect.poll(async () => (await bundleOf(yard, DEMO.gig)).jobs.at(-1)?.planning?.lamps).toBe(true);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await bundleOf(yard, DEMO.gig)).jobs.at(-1)?.planning?.lamps ?? false).toBe(false);
});

test('a weather is lived through day by day, marked as a rehearsal, and nothing is logged', async ({ page, yard }) => {
  await page.goto(planOf(yard, DEMO.launch));
  await settled(page);
  const before = (await bundleOf(yard, DEMO.launch)).entries.length;
  await page.getByRole('button', { name: 'Rehearse' }).click();
  const rehearsal = page.getByRole('region', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Rehearsal, nothing is logged', { timeout: 60_000 });
  await expect(rehearsal).toContainText(/day 1 of \d+/);
  await rehearsal.getByRole('button', { name: 'Next hour' }).click();
  await expect(rehearsal).toContainText(/day 1 of \d+.* 11:45/);
  await expect(rehearsal).toContainText(/Air \d.*dew point \d/);
  await rehearsal.getByRole('button', { name: 'Next day' }).click();
  await expect(rehearsal).toContainText(/day 2 of \d+/);
  await expect(rehearsal).toContainText(/The plan held this morning|no longer held and was planned again/);
  await rehearsal.getByRole('button', { name: 'Another weather' }).click();
  await expect(rehearsal).toContainText('Weather 2 of those that may come');
  await rehearsal.getByRole('button', { name: 'Back to the plan' }).click();
  await expect(rehearsal).toBeHidden();
  expect((await bundleOf(yard, DEMO.launch)).entries).toHaveLength(before);
});

test('an accepted plan is kept; a lost day moves it, in words; planned and real stand side by side', async ({
  page,
  yard,
}) => {
  await page.goto(planOf(yard, DEMO.gig));
  await settled(page);
  await page.getByRole('button', { name: 'Accept this plan' }).click();
  await expect(page.getByText(/As it was accepted/)).toBeVisible();
  await expect
    .poll(async () => (await bundleOf(yard, DEMO.gig)).entries.filter((e) => e.kind === 'planAccepted').length)
    .toBe(1);
  await page.getByRole('button', { name: 'Today is lost' }).click();
  await expect(page.getByText(/change(s)? since the plan of .* moves to .*; ready .*, was /)).toBeVisible({
    timeout: 60_000,
  });
  await page.getByText(/change(s)? since the plan of/).click();
  await page.getByRole('button', { name: 'Show it beside this one' }).click();
  await expect(page.getByText(/Dashed beside it: the plan accepted/)).toBeVisible();
  await page.getByRole('link', { name: 'Planned and real' }).click();
  await expect(page.getByRole('img', { name: 'Planned and real, by zone' })).toBeVisible();
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: /planned .*, to come/ })
      .first(),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Back to the plan' }).click();
  // More of it by hand: something else, for some days.
  await page.getByRole('link', { name: 'Painters, shelter, appointments' }).click();
  const appointments = page.getByRole('region', { name: 'Appointments' });
  await expect(appointments).toContainText('A lost day');
  await page.getByLabel('Name of the appointment').fill('Engine out');
  await page.getByLabel('Kind of appointment').selectOption('other');
  await appointments.getByLabel('from').fill('2026-05-14T11:00');
  await appointments.getByLabel('to', { exact: true }).fill('2026-05-13T12:00');
  await appointments.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(appointments.getByRole('alert')).toHaveText('It ends before it begins. Check the two times.');
  await appointments.getByLabel('to', { exact: true }).fill('2026-05-17T12:00');
  await appointments.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(appointments).toContainText('Engine out: Thu 14 May 11:00 to Sun 17 May 12:00');
});

test('hours fit to paint: each side a row, first and last start with what limits them, another coat asked about', async ({
  page,
  yard,
  faults,
}) => {
  await page.goto(`${planOf(yard, DEMO.sloop)}/hours`);
  const chart = page.getByRole('group', { name: 'Hours fit to paint, by zone' });
  await expect(chart.getByRole('button', { name: 'Topsides, port' })).toBeVisible({ timeout: 60_000 });
  await chart.getByRole('button', { name: 'Topsides, starboard' }).click();
  const words = page.getByRole('region', { name: 'First and last start' });
  await expect(words).toContainText('Topsides, starboard: topcoat 1');
  // It rains from Thursday evening: what closes the day is told, and when.
  await expect(words).toContainText(/Thursday 14 May: first start \d\d:\d\d, last start \d\d:\d\d/);
  await expect(words).toContainText(/Later: .* at \d\d:\d\d/);
  await page.getByLabel('Coat', { exact: true }).selectOption({ label: 'Saltgate 45 barrier' });
  await page.getByLabel('By', { exact: true }).selectOption('spray');
  await expect(words.getByRole('heading')).toHaveText('Topsides, starboard');
  await page.getByRole('button', { name: 'Days after' }).click();
  await expect(words).toContainText(/Sunday 17 May|Monday 18 May/);
  expect(faults).toEqual([]);
});

test('calendar, day sheets and CSV: read by a second parser, the same ids each time', async ({ page, yard }) => {
  await page.goto(planOf(yard, DEMO.launch));
  await settled(page);
  const file = async (button: string) => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click(),
    ]);
    return readFileSync(await download.path());
  };
  const events = async () => {
    const parsed = new ICAL.Component(ICAL.parse((await file('Plan as a calendar file')).toString('utf8')) as never);
    return parsed.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  };
  const first = await events();
  expect(first.length).toBeGreaterThan(20);
  expect(new Set(first.map((e) => e.uid)).size).toBe(first.length);
  expect(first.every((e) => e.endDate.toJSDate() > e.startDate.toJSDate())).toBe(true);
  expect(first.some((e) => e.summary.includes('launch'))).toBe(true);
  expect((await events()).map((e) => e.uid)).toEqual(first.map((e) => e.uid));
  const csv = (await file('Plan as CSV')).toString('utf8').split('\r\n');
  expect(csv[0]).toBe('start,end,zone,kind,task,painters,why');
  expect(csv.length).toBeGreaterThan(20);
  const pdf = await file('Day sheets as PDF');
  const document = await getDocument({ data: new Uint8Array(pdf) }).promise;
  const text = (await (await document.getPage(1)).getTextContent()).items
    .map((i) => ('str' in i ? i.str : ''))
    .join(' ');
  expect(text).toContain('Umber Tern');
  expect(text).toMatch(/Ines|Tomasz/);
});

test('the whole yard in one plan: every boat with her date, and who does what next', async ({ page, yard }) => {
  await page.goto(yard.url);
  await page.getByRole('main').getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Plan of the yard' })).toBeVisible();
  const boats = page.getByRole('region', { name: 'Boats' });
  await expect(boats.getByRole('listitem')).toHaveCount(4, { timeout: 60_000 });
  for (const name of ['Pewit’s Errand', 'Umber Tern'])
    await expect(boats.getByRole('listitem').filter({ hasText: name })).toContainText(
      /ready .*(of room|too late)|not ready/,
    );
  await expect(page.getByRole('region', { name: 'The next two days' })).toContainText(/Ines/);
  await expect(page.getByRole('group', { name: 'All boats on one time' })).toContainText('Umber Tern');
  await boats.getByRole('link', { name: 'Umber Tern' }).click();
  await expect(page).toHaveURL(/\/plan$/);
});

test('painters of the yard: hours, days and names, and a heater that cannot be is refused', async ({ page, yard }) => {
  await page.goto(`${planOf(yard, DEMO.launch)}/by`);
  const painters = page.getByRole('region', { name: 'Painters of the yard' });
  await painters.getByRole('group', { name: 'Days of Tomasz' }).getByLabel('Sat').check();
  await expect
    .poll(async () => (await rulesOf(yard)).hands.find((h) => h.name === 'Tomasz')?.weekdays)
    .toEqual([1, 2, 3, 4, 5, 6]);
  await painters.getByLabel('First day off of Tomasz').fill('2026-05-18');
  await painters.getByLabel('Last day off of Tomasz').fill('2026-05-16');
  await expect(painters).toContainText('The last day is before the first.');
  await painters.getByLabel('Last day off of Tomasz').fill('2026-05-20');
  await painters.getByRole('button', { name: 'Days off' }).nth(1).click();
  await expect
    .poll(async () => (await rulesOf(yard)).hands.find((h) => h.name === 'Tomasz')?.off)
    .toEqual([{ from: '2026-05-18', to: '2026-05-20' }]);
  await painters.getByRole('button', { name: 'Tomasz is there again 18 May to 20 May' }).click();
  await expect.poll(async () => (await rulesOf(yard)).hands.find((h) => h.name === 'Tomasz')?.off).toEqual([]);
  await painters.getByRole('button', { name: 'Add a painter' }).click();
  await expect.poll(async () => (await rulesOf(yard)).hands.length).toBe(3);
  const shelter = page.getByRole('region', { name: 'Shelter for a while' });
  await shelter.getByLabel('Heated to').fill('80 °C');
  await shelter.getByRole('button', { name: 'Add' }).click();
  await expect(shelter.getByRole('alert')).toContainText('between −20 °C and 40 °C');
  await expect(shelter.getByLabel('Heated to')).toHaveValue(/80/);
  // Over one zone, heated: what it costs is told, and another one there in that time is refused.
  await shelter.getByLabel('Heated to').fill('25');
  await shelter.getByText('Over: all of her').click();
  await shelter.getByRole('group', { name: 'Over' }).getByLabel('Topsides').check();
  await shelter.getByLabel('to', { exact: true }).fill('2026-05-18T12:00');
  await shelter.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(shelter.getByRole('listitem')).toContainText(
    /over Topsides, .*heated to 25 °C: about \d+ °C·h to come, \d+ kWh, €/,
  );
  await shelter.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(shelter.getByRole('alert')).toContainText('Another shelter stands there in that time');
});

test('on a phone one zone at a time, time downwards, and the bench has the plan under More', async ({ page, yard }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${yard.url}/boats/${DEMO.launch}/today`);
  await page.getByRole('navigation', { name: 'Bench' }).getByRole('button', { name: 'More' }).click();
  await page.getByRole('navigation', { name: 'Bench' }).getByRole('link', { name: /^Plan/ }).click();
  await expect(page.getByText(/Ready for the water/)).toBeVisible();
  await page.getByRole('button', { name: 'Topsides' }).click();
  const first = page
    .getByRole('region')
    .filter({ has: page.getByRole('heading', { level: 2 }) })
    .first();
  await expect(first).toBeVisible();
  await page.getByRole('button', { name: /:\d\d primer 2/ }).click();
  await expect(page.getByRole('region', { name: 'This step' })).toContainText('Why there');
  await noSidewaysScroll(page);
});
