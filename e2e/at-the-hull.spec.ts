import { DEMO, demoYard, expect, test as base, useSettings, type OwnServer } from './fixtures';

/** A phone at the hull: everything here is done at 390 × 844. One demo yard for the file. */
const test = base.extend<object, { yard: OwnServer }>({
  yard: [demoYard(), { scope: 'worker' }],
});
test.describe.configure({ mode: 'default' });
test.use({ viewport: { width: 390, height: 844 } });
test.beforeEach(({ page }) => useSettings(page, {}));

interface Entry {
  id: string;
  kind: string;
  stream: string;
  streamId: string;
  painter: string;
  occurredAt: number;
  body: Record<string, never>;
}
const logOf = async (yard: OwnServer, boat: string) =>
  ((await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as { entries: Entry[] }).entries;

test('one batch and one stint over two zones, from the pot to the record', async ({ page, yard }) => {
  const boat = `${yard.url}/boats/${DEMO.sloop}`;
  await page.goto(`${boat}/mix?on=${DEMO.hull},${DEMO.keels}`);
  // 22.174 m² less 0.3 m² under the stands, and 6.4 m², at 70 µm, 50 % solids, 10 % loss: 4.398 L, by hand.
  await expect(page.getByRole('region', { name: 'Size of the batch' })).toContainText('4.398 L');
  await page.getByLabel('Thinner, of the mix').fill('5');
  await expect(page.getByRole('list', { name: 'Pour, in this order' })).toContainText('0.220 L');
  await page.getByRole('button', { name: 'All in: stir, start the clocks' }).click();
  // Two minutes to stir, fifteen to stand.
  await expect(page.getByRole('list', { name: 'Pots in use' })).toContainText('00:17:00');
  await page.getByRole('link', { name: 'Start the coat with it' }).click();
  await expect(page.getByRole('checkbox', { name: /^the batch, 4\.62 L, mixed/ })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: /Underwater hull/ })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: /Twin keels/ })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: /Rudder/ })).not.toBeChecked();
  // The stand is not over: it asks, and the entry says so.
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByText(/Against it: the batch has to stand until/)).toBeVisible();
  await expect(page.getByText('Write why you start all the same.')).toBeVisible();
  await page.getByLabel('Start all the same, because').fill('mixed warm, on the maker’s word');
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByText(/Against advice \(the batch had not stood\): mixed warm/)).toBeVisible();
  await expect(page.getByRole('heading', { name: /^Underwater hull, Twin keels: barrier/ })).toBeVisible();

  // The comb: too thin, then on target; the mean tells.
  await page.getByRole('button', { name: 'Comb', exact: true }).click();
  await page.getByRole('button', { name: 'Log', exact: true }).first().click();
  await expect(page.getByText('Type the comb reading, for example 150 or 6 mil.')).toBeVisible();
  await page.getByLabel('Comb reading').fill('100');
  await page.getByRole('button', { name: 'Log', exact: true }).first().click();
  await expect(page.getByText(/too thin, go heavier/)).toBeVisible();
  // Several in one go, logged by Enter.
  await page.getByRole('button', { name: 'Comb', exact: true }).click();
  await page.getByLabel('Comb reading').fill('180 140');
  await page.getByLabel('Comb reading').press('Enter');
  await expect(page.getByText('mean of 3 readings')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Wet film' })).toContainText('140');
  await expect(page.getByText(/on target/)).toBeVisible();
  // More left than was mixed cannot be; left and lost that fit are what they are.
  await page.getByRole('button', { name: 'Finish', exact: true }).click();
  await page.getByLabel('Left in the pot').fill('5');
  await page.getByRole('button', { name: 'Finish now' }).click();
  await expect(page.getByText(/More is left than was mixed for it/)).toBeVisible();
  await page.getByLabel('Left in the pot').fill('0,2');
  await page.getByLabel('Lost on tray and roller').fill('0,3');
  await page.getByRole('button', { name: 'Finish now' }).click();

  // Both zones have their own window now.
  await expect(page.getByRole('region', { name: 'Window on Underwater hull' })).toContainText('Not before');
  await expect(page.getByRole('region', { name: 'Window on Twin keels' })).toContainText('Bonds as is until');
  await expect
    .poll(async () => (await logOf(yard, DEMO.sloop)).findLast((e) => e.kind === 'finished')?.body)
    .toEqual({ litresOn: null, leftL: 0.2, lostL: 0.3 });
  const log = await logOf(yard, DEMO.sloop);
  const start = log.findLast((e) => e.kind === 'started')!;
  expect(log.filter((e) => e.streamId === start.streamId).map((e) => e.kind)).toEqual([
    'started',
    'batchOn',
    'wetFilm',
    'wetFilm',
    'finished',
  ]);
  expect(start.painter).toBe('Ines');
  await page.getByRole('navigation', { name: 'Bench' }).getByRole('button', { name: 'More' }).click();
  await page.getByRole('link', { name: /^Record/ }).click();
  await expect(page.getByRole('article').first()).toContainText('Underwater hull, Twin keels');
  await expect(page.getByRole('article').first()).toContainText('3 combed');
  await expect(page.getByRole('article').first()).toContainText('Base + Hardener');
  await expect(page.getByRole('article').first()).toContainText(/4\.618 L mixed, 0\.200 L left.*0\.300 L lost/);
  await expect(page.getByRole('article').first()).toContainText('4.118 L on the hull');
});

test('a surface reading moves the window, and taking it back moves it again', async ({ page, yard }) => {
  const rudder = (await logOf(yard, DEMO.sloop)).findLast(
    (e) => e.kind === 'started' && JSON.stringify(e.body).includes(DEMO.rudder),
  )!;
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat/${rudder.streamId}`);
  const window = page.getByRole('region', { name: 'Window on Rudder and skeg' });
  const opens = () => window.getByText('Not before', { exact: true }).locator('..').innerText();
  await expect(window).toContainText('Not before');
  const before = await opens();
  await page.getByLabel('Surface now').fill('warm');
  await page.getByRole('button', { name: 'Log', exact: true }).first().click();
  await expect(page.getByText(/Type the surface temperature|could not be read/).first()).toBeVisible();
  await page.getByLabel('Surface now').fill('95 F');
  await page.getByRole('button', { name: 'Log', exact: true }).first().click();
  await expect(page.getByText('Read surface 35.0 °C')).toBeVisible();
  expect(await opens()).not.toBe(before);
  await page.getByText('Why these times').click();
  await expect(page.getByText(/2 surface readings moved it/)).toBeVisible();
  await page.getByRole('button', { name: 'Change: Read surface 35.0 °C' }).click();
  await page.getByRole('button', { name: 'It did not happen' }).click();
  await expect(page.getByText('1 corrected or withdrawn')).toBeVisible();
  expect(await opens()).toBe(before);
});

test('sanding tests: gums means later, powders means now', async ({ page, yard }) => {
  const rudder = (await logOf(yard, DEMO.sloop)).findLast(
    (e) => e.kind === 'started' && JSON.stringify(e.body).includes(DEMO.rudder),
  )!;
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat/${rudder.streamId}`);
  await page.getByRole('button', { name: 'Gums' }).click();
  await expect(page.getByText('Dry to sand (by hand)')).toBeVisible();
  await expect(page.getByText('Sanding test: gums')).toBeVisible();
  await page.getByRole('button', { name: 'Powders' }).click();
  await expect(page.getByText('Dry to sand (by hand)').locator('..')).toContainText('10:40');
});

test('past the bonding window a coat is started only over an abraded one, and the grit stands in the record', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/today`);
  await expect(page.getByText(/abrade first: it bonded as is until/)).toBeVisible();
  await page.getByRole('link', { name: /^Start barrier 1 on Underwater hull/ }).click();
  await expect(page.getByText(/Against it: Underwater hull: abrade first/)).toBeVisible();
  await page.getByLabel('Abraded with grit').fill('medium');
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByText('Type the grit as a number, for example 180.')).toBeVisible();
  await page.getByLabel('Abraded with grit').fill('180');
  await expect(page.getByText(/Against it/)).toBeHidden();
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByText('Comb for, wet')).toBeVisible();
  await expect(page.getByText(/Started by roller, abraded with 180 for bond before/)).toBeVisible();
});

test('a coat that never was is taken back whole, and the page that follows exists', async ({ page, yard }) => {
  const started = (await logOf(yard, DEMO.workboat)).findLast((e) => e.kind === 'started')!;
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/coat/${started.streamId}`);
  await page.getByLabel('Remark').fill('Wrong boat!');
  await page.getByRole('button', { name: 'Log', exact: true }).last().click();
  await page.getByRole('button', { name: 'Change: Wrong boat!' }).click();
  await page.getByRole('button', { name: 'It did not happen' }).click();
  await expect(page.getByText('1 corrected or withdrawn')).toBeVisible();
  await page.getByRole('button', { name: /^Change: Started/ }).click();
  await page.getByRole('button', { name: 'The whole coat did not happen' }).click();
  await expect(page).toHaveURL(new RegExp(`/boats/${DEMO.workboat}/coat$`));
  await expect(page.getByRole('heading', { name: /Going on|No coat going on/ })).toBeVisible();
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/today`);
  await expect(page.getByRole('link', { name: /^Start barrier 1 on Underwater hull/ })).toBeVisible();
});

test('the coat in hand is finished from Today, at a time before now, never after', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/today`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Topsides: coat going on since');
  await page.getByRole('link', { name: 'Finish' }).click();
  await page.getByRole('button', { name: 'It was earlier' }).click();
  await page.getByLabel('Finished').fill('2026-05-14T23:00');
  await page.getByRole('button', { name: 'Finish at that time' }).click();
  await expect(page.getByText('The finish has not come yet.')).toBeVisible();
  await page.getByLabel('Finished').fill('2026-05-13T08:00');
  await page.getByRole('button', { name: 'Finish at that time' }).click();
  await expect(page.getByText('The coat would finish before it started.')).toBeVisible();
  await page.getByLabel('Finished').fill('2026-05-14T10:30');
  await page.getByRole('button', { name: 'Finish at that time' }).click();
  await expect(page.getByText('The hand overrides the table')).toBeVisible();
  // 10:30 at the boat, whatever zone the phone is in.
  await expect
    .poll(async () => (await logOf(yard, DEMO.workboat)).findLast((e) => e.kind === 'finished')?.occurredAt)
    .toBe(Date.UTC(2026, 4, 14, 9, 30));
  // Its pot went with it: nothing was said to be left.
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/mix`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Mix ');
  await expect(page.getByRole('list', { name: 'Pots in use' })).toHaveCount(0);
});

test('Mix on a coat that is going on mixes for that coat, and the pot belongs to it', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.gig}/coat/start`);
  const product = (await page.getByRole('heading', { level: 1 }).textContent())!.split(',')[0]!;
  const reason = page.getByLabel('Start all the same, because');
  if (await reason.isVisible()) await reason.fill('Tried for the test');
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByRole('button', { name: 'Finish', exact: true })).toBeVisible();
  const coatId = page.url().split('/').pop()!;
  await page.getByRole('link', { name: 'Next batch' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(`Mix ${product}`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('for the coat that is going on');
  await page.getByRole('textbox', { name: 'Area to do' }).fill('3');
  await page.getByRole('button', { name: 'Stirred: start the clocks' }).click();
  await page.getByRole('link', { name: 'Back to the coat' }).click();
  await expect(page).toHaveURL(new RegExp(coatId));
  await expect(page.getByRole('listitem').filter({ hasText: /^.*Batch of .* on/ })).toHaveCount(1);
  await expect
    .poll(async () => (await logOf(yard, DEMO.gig)).filter((e) => e.kind === 'batchOn' && e.streamId === coatId).length)
    .toBe(1);
  // The next pot is for what is left.
  await page.getByRole('link', { name: 'Next batch' }).click();
  await expect(page.getByText('Less what was mixed for it', { exact: false })).toBeVisible();
});

test('what is left in the pot serves the next coat; what was said of a batch and a start can all be put right', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.gig}/coat`);
  await page.getByRole('region', { name: 'Going on' }).getByRole('link').first().click();
  await page.getByRole('button', { name: 'Finish', exact: true }).click();
  await page.getByLabel('Left in the pot').fill('0.1');
  await page.getByRole('button', { name: 'Finish now' }).click();
  await expect(page.getByText('The hand overrides the table')).toBeVisible();
  const coatId = page.url().split('/').pop()!;
  const entries = async () => (await logOf(yard, DEMO.gig)).filter((e) => e.streamId === coatId);

  // The batch was another one than was logged: its litres, and with them those of the coat.
  await page
    .getByRole('button', { name: /^Change: Mixed / })
    .first()
    .click();
  await page.getByLabel('Thinner', { exact: true }).fill('0.05');
  await page.getByRole('button', { name: 'Put right' }).click();
  await expect(page.getByText(/^Mixed .*thinner 50 mL/)).toBeVisible();
  await expect.poll(async () => (await entries()).filter((e) => e.kind === 'batchOn').length).toBe(2);

  // The start too: its colour and what it was abraded with.
  await page.getByRole('button', { name: /^Change: Started/ }).click();
  await page.getByLabel('Abraded with grit').fill('240');
  await page.getByLabel('Abraded', { exact: true }).selectOption({ label: 'nibs only' });
  await page.getByLabel('Method').selectOption({ label: 'Brush' });
  await page.getByRole('button', { name: 'Put right' }).click();
  await expect(page.getByText(/Started by brush.*abraded with 240 nibs only before/)).toBeVisible();

  // What another coat left goes on with the next one of the same paint.
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat/start?on=${DEMO.rudder}`);
  await expect(page.getByRole('checkbox', { name: /^the rest, 200 mL, mixed/ })).toBeChecked();
});

test('a coat written down next day is judged by its own moment, with the batch that nobody logged', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat/start?on=${DEMO.rudder}`);
  await page.getByText('It was earlier', { exact: true }).click();
  // Half an hour before the coat beneath it was put on.
  const beneath = (await logOf(yard, DEMO.sloop)).findLast(
    (e) => e.kind === 'started' && JSON.stringify(e.body).includes(DEMO.rudder),
  )!;
  const local = (at: number) => new Date(at + 3_600_000).toISOString().slice(0, 16);
  await page.getByLabel('Started').fill(local(beneath.occurredAt - 1_800_000));
  await page.getByLabel('Finished').fill(local(beneath.occurredAt - 600_000));
  await expect(page.getByText(/Against it:.*Rudder and skeg: a coat beneath it was not on yet/)).toBeVisible();
  await page.getByLabel(/^Mixed (for it|besides)/).fill('1');
  await page.getByLabel('On the hull, if known').fill('0.9');
  await page.getByRole('button', { name: 'Log this coat' }).click();
  await expect(page.getByText('Write why you start all the same.')).toBeVisible();
  // A look at another page and back keeps what was typed.
  await page.getByRole('link', { name: 'Mix first' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Mix ');
  await page.goBack();
  await expect(page.getByLabel('On the hull, if known')).toHaveValue('0.9');
  await page.getByLabel('Start all the same, because').fill('written down from the tin lid');
  await page.getByRole('button', { name: 'Log this coat' }).click();
  await expect(
    page.getByText(/Against advice \(.*before the coat beneath.*written down from the tin lid/),
  ).toBeVisible();
  await expect(page.getByText(/^Mixed .*Base .*Hardener/)).toBeVisible();
  await expect(page.getByText(/Finished, 900 mL on the hull/)).toBeVisible();
});
