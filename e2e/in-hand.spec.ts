import { test as base, expect, DEMO, demoYard, noSidewaysScroll, useSettings, type OwnServer } from './fixtures';

/** These change a demo yard: one of their own. */
const test = base.extend<object, { yard: OwnServer }>({ yard: [demoYard(), { scope: 'worker' }] });
test.beforeEach(({ page }) => useSettings(page, {}));
test.use({ viewport: { width: 390, height: 844 } });

interface Entry {
  readonly kind: string;
  readonly streamId: string;
  readonly body: Record<string, unknown>;
}
const boatOf = async (yard: OwnServer, boat: string) =>
  (await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as {
    entries: Entry[];
    surfaces: {
      name: string;
      parentId: string | null;
      sharedCoats: number | null;
      areaM2: number;
      patchKind: string;
    }[];
  };

test('one screen on a phone: nothing to scroll for, everything a thumb away', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/coat`);
  await page
    .getByRole('region', { name: 'Going on' })
    .getByRole('link', { name: /Topsides/ })
    .click();
  await expect(page.getByText('Comb for, wet')).toBeVisible();
  const finish = (await page.getByRole('button', { name: 'Finish', exact: true }).boundingBox())!;
  const bench = (await page.getByRole('navigation', { name: 'Bench' }).boundingBox())!;
  expect(finish.y + finish.height).toBeLessThanOrEqual(bench.y);
  for (const name of ['Comb', 'Pause', 'Remark', 'Picture', 'Finish']) {
    const box = (await page.getByRole('button', { name, exact: true }).boundingBox())!;
    expect(Math.min(box.width, box.height), name).toBeGreaterThanOrEqual(44);
  }
  await noSidewaysScroll(page);
});

test('over two zones it still is one screen, their panels one zone at a time', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat/start?on=${DEMO.hull},${DEMO.keels}`);
  const reason = page.getByLabel('Start all the same, because');
  await expect(page.getByRole('button', { name: 'Start coat' })).toBeVisible();
  if (await reason.isVisible()) await reason.fill('for the test');
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByRole('region', { name: 'Panels of Underwater hull' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Panels of' }).selectOption({ index: 1 });
  await expect(page.getByRole('region', { name: 'Panels of Twin keels' })).toBeVisible();
  await page.getByRole('checkbox', { name: /^Panel 1 of/ }).click();
  await expect(page.getByRole('region', { name: 'Panels of Twin keels' })).toContainText(/1 of \d+ panels/);
  const finish = (await page.getByRole('button', { name: 'Finish', exact: true }).boundingBox())!;
  const bench = (await page.getByRole('navigation', { name: 'Bench' }).boundingBox())!;
  expect(finish.y + finish.height).toBeLessThanOrEqual(bench.y);
  await page.getByRole('button', { name: 'Finish', exact: true }).click();
  await page.getByRole('button', { name: 'Finish now' }).click();
  await expect(page.getByRole('region', { name: 'Without paint on Underwater hull' })).toHaveCount(0);
});

test('half a coat: panels, comb by its teeth, a remark on the drawing, a picture, a pause; the rest is a patch', async ({
  page,
  yard,
  faults,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/coat`);
  await page
    .getByRole('region', { name: 'Going on' })
    .getByRole('link', { name: /Topsides/ })
    .click();
  const panels = page.getByRole('region', { name: 'Panels of Topsides' });
  await expect(panels).toContainText(/0 of \d+ panels/);
  const of = Number(/of (\d+) panels/.exec(await panels.innerText())![1]);
  for (let n = 1; n <= of / 2; n += 1) await page.getByRole('checkbox', { name: `Panel ${n} of ${of}` }).click();
  await expect(panels).toContainText(`${of / 2} of ${of} panels`);
  // Ticked twice is not done.
  await page.getByRole('checkbox', { name: `Panel 1 of ${of}` }).click();
  await expect(panels).toContainText(`${of / 2 - 1} of ${of} panels`);
  await page.getByRole('checkbox', { name: `Panel 1 of ${of}` }).click();

  await page.getByRole('button', { name: 'Comb', exact: true }).click();
  await page.getByLabel('Last wet').fill('100');
  await page.getByLabel('First dry').fill('75');
  await expect(page.getByText('The dry tooth must be higher than the wet one.', { exact: false })).toBeVisible();
  await page.getByLabel('Last wet').fill('70');
  await page.getByLabel('First dry').fill('80');
  await page.getByRole('button', { name: 'Log the teeth' }).click();
  await expect(page.getByText('mean of 1 reading')).toBeVisible();

  await page.getByRole('button', { name: 'Remark', exact: true }).click();
  await page.getByRole('button', { name: 'Log the remark' }).click();
  await expect(page.getByText('Tap a word, or type what you saw.')).toBeVisible();
  await page.getByRole('button', { name: 'sag' }).click();
  await page
    .getByRole('dialog')
    .getByRole('group', { name: 'Topsides, port' })
    .click({ position: { x: 60, y: 20 } });
  await page.getByRole('button', { name: 'Log the remark' }).click();
  await expect(page.getByText('sag on Topsides')).toBeVisible();

  // A file that is no picture is said to be none, and nothing is lost.
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByLabel('What it shows').fill('sag under the rail');
  const picture = page.getByRole('dialog').locator('input[type=file]');
  await picture.setInputFiles({ name: 'list.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
  await expect(page.getByText('This file is no picture that can be read here.', { exact: false })).toBeVisible();
  await expect(page.getByLabel('What it shows')).toHaveValue('sag under the rail');
  await picture.setInputFiles('docs/screenshots/today.png');
  await expect(page.getByRole('img', { name: 'sag under the rail' })).toBeVisible();

  // Another pair of hands, from now on.
  await page.getByRole('button', { name: 'Ines', exact: true }).click();
  await page.getByLabel('Who is at it').fill('Ines, Tom');
  await page.getByRole('button', { name: 'From now on' }).click();
  await expect(page.getByText('Went on, Ines, Tom')).toBeVisible();
  await expect(page.getByRole('button', { name: '2 painters' })).toBeVisible();

  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await page.getByRole('button', { name: 'Read the hygrometer (simulated)' }).click();
  await expect(page.getByRole('dialog').getByLabel('Humidity')).not.toHaveValue('');
  await page.getByRole('button', { name: 'Rain', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('paused');
  // It rests over a reload, and goes on where it was.
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('paused');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByText('Went on', { exact: true })).toBeVisible();

  await page.getByRole('button', { name: 'Finish', exact: true }).click();
  await expect(page.getByText(`As ticked: ${of / 2} of ${of}`)).toBeVisible();
  await page.getByRole('button', { name: 'Finish now' }).click();
  const rest = page.getByRole('region', { name: 'Without paint on Topsides' });
  await expect(rest).toContainText('Part of Topsides has no paint of this coat.');
  await rest.getByRole('button', { name: 'Make it a patch' }).click();
  await expect(page.getByText('The rest of Topsides is a patch of its own').first()).toBeVisible();
  await expect
    .poll(async () => (await boatOf(yard, DEMO.workboat)).surfaces.filter((s) => s.patchKind === 'uncoated'))
    .toMatchObject([{ name: 'Topsides, left without coat 1', sharedCoats: 0 }]);
  const { entries, surfaces } = await boatOf(yard, DEMO.workboat);
  const patch = surfaces.find((s) => s.patchKind === 'uncoated')!;
  // Half of what it was, to a tenth of a square metre: the zone is the other half.
  const zone = surfaces.find((s) => s.name === 'Topsides')!;
  expect(Math.abs(patch.areaM2 - zone.areaM2)).toBeLessThan(0.1);
  expect(entries.filter((e) => e.kind === 'picture')).toHaveLength(1);
  expect(entries.findLast((e) => e.kind === 'wetFilm')?.body).toEqual({ micron: [75], teeth: [[70, 80]] });
  // The patch waits for its own first coat.
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/coat`);
  await expect(page.getByRole('link', { name: /^Topsides, left without coat 1/ })).toBeVisible();
  expect(faults).toEqual([]);
});

test('with no signal a picture waits on the device and is sent later', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat`);
  await page.getByRole('region', { name: 'To come' }).getByRole('link').first().click();
  const reason = page.getByLabel('Start all the same, because');
  await expect(page.getByRole('button', { name: 'Start coat' })).toBeVisible();
  if (await reason.isVisible()) await reason.fill('for the test');
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByText('Comb for, wet')).toBeVisible();
  await page.route('**/api/**', (route) => route.abort());
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('dialog').locator('input[type=file]').setInputFiles('docs/screenshots/today.png');
  await expect(page.getByText('On this device, to be sent')).toBeVisible();
  await page.unroute('**/api/**');
  await page.reload();
  await expect
    .poll(async () => (await boatOf(yard, DEMO.sloop)).entries.filter((e) => e.kind === 'picture').length, {
      timeout: 30_000,
    })
    .toBe(1);
  await expect(page.getByText(/on this device/)).toHaveCount(0);
});
