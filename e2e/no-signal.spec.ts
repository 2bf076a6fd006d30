import { DEMO, chunkOf, demoYard, expect, noSidewaysScroll, test, useSettings, type OwnServer } from './fixtures';

/** The signal goes: every place opens whole all the same, and what cannot be sent is told of. */
const own = test.extend<{ yard: OwnServer }>({ yard: demoYard() });
const sloop = `/boats/${DEMO.sloop}`;

own('each place of the boat opens cold and whole with the server away', async ({ page, yard, faults }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/mix?on=${DEMO.keels}`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Mix');
  await expect(page.locator('html[data-ahead=all]')).toBeAttached({ timeout: 60_000 });
  await yard.stop('SIGKILL');
  const bench = page.getByRole('navigation', { name: 'Bench' });
  for (const [place, heading] of [
    ['Today', 'Twin keels'],
    ['Hull', 'Zones'],
    ['Film', 'Underwater hull'],
    ['Prep', /./],
    ['Plan', 'Plan'],
    ['Coat', /./],
    ['Record', 'Coat sheets'],
    ['Mix', 'Mix'],
  ] as const) {
    await bench.getByRole('link', { name: new RegExp(`^${place}`) }).click();
    await expect(page.getByRole('heading', { level: 1 }).first(), place).toContainText(heading);
    await expect(page.getByText('could not be shown'), place).toHaveCount(0);
    await expect(page.getByText('This part could not be fetched'), place).toHaveCount(0);
  }
  // The pages at the hull behind them: a start, a coat that is on, a zone.
  await bench.getByRole('link', { name: /^Hull/ }).click();
  await page.getByRole('link', { name: 'Underwater hull', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Underwater hull');
  await bench.getByRole('link', { name: /^Coat/ }).click();
  await page.getByRole('region', { name: 'To come' }).getByRole('link').first().click();
  await expect(page.getByRole('button', { name: 'Start coat' })).toBeVisible();
  await bench.getByRole('link', { name: /^Coat/ }).click();
  await page.getByRole('region', { name: 'Finished' }).getByRole('link').first().click();
  await expect(page.getByText('The hand overrides the table')).toBeVisible();
  for (const name of ['Sheets', 'Build-ups', 'Stores', 'Sums', 'Settings']) {
    await page.getByRole('link', { name, exact: true }).click();
    await expect(page.getByText('could not be shown'), name).toHaveCount(0);
    await expect(page.getByRole('heading', { level: 1 }), name).toBeVisible();
  }
  expect(faults).toEqual([]);
});

own(
  'a part that cannot be fetched says so in its place; the rest stands, and it is tried again',
  async ({ page, yard }) => {
    await useSettings(page, {});
    await page.route(chunkOf('film/EditLayer'), (route) => route.abort());
    await page.goto(`${yard.url}${sloop}/film/${DEMO.hull}`);
    await page.getByRole('button', { name: /^1 Saltgate 45 barrier/ }).click();
    await expect(page.getByText('This part could not be fetched')).toBeVisible();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Underwater hull');
    await page.unroute(chunkOf('film/EditLayer'));
    await page.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByLabel('Dry film', { exact: true })).toBeVisible();
  },
);

own('settings of another shape blank no place', async ({ page, yard, faults }) => {
  await useSettings(page, { units: 'metric', theme: 3, words: {} });
  for (const place of ['today', 'film', 'mix']) {
    await page.goto(`${yard.url}${sloop}/${place}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(page.getByText('could not be shown')).toHaveCount(0);
  }
  expect(faults).toEqual([]);
});

own('a line that swallows what is sent is told of with what waits', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/hull/new`);
  await page.getByLabel('Name').fill('Typed into a hole');
  let swallowed = true;
  await page.route('**/api/surfaces/*', (route) => (swallowed ? new Promise(() => undefined) : route.continue()));
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByText(/No answer yet: 1 entry waits on this device/)).toBeVisible();
  swallowed = false;
  await page.evaluate(() => dispatchEvent(new Event('online')));
  await expect(page.getByText(/No answer yet/)).toBeHidden();
  const names = async () =>
    ((await (await fetch(`${yard.url}/api${sloop}`)).json()) as { surfaces: { name: string }[] }).surfaces.map(
      (s) => s.name,
    );
  await expect.poll(names).toContain('Typed into a hole');
});

own(
  'entries that bear a time to come are told with both times, and sent with the right one',
  async ({ page, yard }) => {
    await useSettings(page, {});
    await page.setViewportSize({ width: 390, height: 844 });
    const workboat = `/boats/${DEMO.workboat}`;
    await page.goto(`${yard.url}${workboat}/coat`);
    await page
      .getByRole('region', { name: 'Going on' })
      .getByRole('link', { name: /Topsides/ })
      .click();
    // As a phone whose clock is a day ahead sends them; the server's answer is its own.
    await page.route('**/api/entries/*', (route) => {
      const entry = route.request().postDataJSON() as { occurredAt: number };
      return route.continue({ postData: JSON.stringify({ ...entry, occurredAt: entry.occurredAt + 86_400_000 }) });
    });
    const comb = async (micron: string) => {
      await page.getByRole('button', { name: 'Comb', exact: true }).click();
      await page.getByLabel('Comb reading').fill(micron);
      await page.getByRole('dialog').getByRole('button', { name: 'Log', exact: true }).first().click();
      await expect(page.getByRole('dialog')).toBeHidden();
    };
    await comb('110');
    await expect(page.getByText('1 entry was not taken: look')).toBeVisible();
    await comb('120');
    await expect(page.getByText('2 entries were not taken: look')).toBeVisible();
    await page.getByRole('button', { name: /not taken/ }).click();
    await expect(page.getByText(/it says 15 May 2026 10:\d\d, and it is 14 May 2026 10:\d\d by the/)).toHaveCount(2);
    await noSidewaysScroll(page);
    await page.unroute('**/api/entries/*');
    await page.getByRole('button', { name: 'Send with this time' }).first().click();
    await expect(page.getByText('1 entry was not taken: look')).toBeVisible();
    await comb('130');
    await page.getByRole('button', { name: 'Send again' }).click();
    await expect(page.getByText('not taken')).toHaveCount(0);
    const combed = async () =>
      (
        (await (await fetch(`${yard.url}/api${workboat}`)).json()) as {
          entries: { kind: string; occurredAt: number; body: { micron?: number[] } }[];
        }
      ).entries.filter((e) => e.kind === 'wetFilm' && [110, 120, 130].includes(e.body.micron?.[0] ?? 0));
    await expect.poll(async () => (await combed()).length).toBe(3);
    expect((await combed()).every((e) => e.occurredAt < Date.parse('2026-05-14T12:00:00Z'))).toBe(true);
  },
);
