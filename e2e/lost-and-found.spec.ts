import { readFileSync, writeFileSync } from 'node:fs';
import { DEMO, demoYard, expect, moveCoat, test, useSettings, type OwnServer } from './fixtures';
import { OWN_JSON } from '../scripts/server';

/** Two tabs, no signal, restarts, undo, back-ups: nothing that was typed is lost. */
const sloop = `/boats/${DEMO.sloop}`;

/** A demo yard of one's own, for tests that change what others look at. */
const own = test.extend<{ yard: OwnServer }>({ yard: demoYard() });

own('two tabs edit one zone: the second sees both, keeps its text and chooses', async ({ page, context, yard }) => {
  await useSettings(page, {});
  const path = `${yard.url}${sloop}/hull/${DEMO.hull}`;
  const other = await context.newPage();
  for (const tab of [page, other]) {
    await tab.goto(path);
    await expect(tab.getByLabel('Name')).toHaveValue('Underwater hull');
  }
  // The second tab must not hear of the first one's change before it saves.
  await other.route('**/api/boats/*', (route) =>
    route.request().method() === 'GET' ? route.abort() : route.continue(),
  );
  await page.getByLabel('Name').fill('First tab hull');
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('link', { name: 'First tab hull', exact: true })).toBeVisible();

  await other.getByLabel('Name').fill('Second tab hull');
  await other.getByRole('button', { name: 'Save zone' }).click();
  await expect(other.getByRole('alert')).toContainText('changed meanwhile');
  await expect(other.getByRole('cell', { name: 'First tab hull', exact: true })).toBeVisible();
  await expect(other.getByLabel('Name')).toHaveValue('Second tab hull');
  await other.unroute('**/api/boats/*');
  await other.getByRole('button', { name: 'Keep what stands here' }).click();
  await expect(other.getByRole('link', { name: 'Second tab hull', exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByText('Second tab hull').first()).toBeVisible();
});

own(
  'the server restarts in the middle of an entry: what was typed is kept, shown, and saved afterwards',
  async ({ page, yard }) => {
    await useSettings(page, {});
    await page.goto(`${yard.url}${sloop}/hull/new`);
    await page.getByLabel('Name').fill('Typed while it was down');
    await yard.stop('SIGKILL');
    await page.getByRole('button', { name: 'Save zone' }).click();
    await expect(page.getByText(/No answer from the server\. 1 entry is kept on this device/)).toBeVisible();
    await expect(page.getByRole('link', { name: 'Typed while it was down', exact: true })).toBeVisible();
    await yard.start();
    await expect(page.getByText(/kept on this device/)).toBeHidden({ timeout: 30_000 });
    await expect(page.getByRole('link', { name: 'Typed while it was down', exact: true })).toBeVisible();
    const bundle = (await (await fetch(`${yard.url}/api${sloop}`)).json()) as { surfaces: { name: string }[] };
    expect(bundle.surfaces.filter((s) => s.name === 'Typed while it was down')).toHaveLength(1);
  },
);

own(
  'with no signal a coat is started and finished, kept over a reload of the tab, and sent in order later',
  async ({ page, yard }) => {
    await useSettings(page, {});
    await page.goto(`${yard.url}${sloop}/coat/start?on=${DEMO.keels}`);
    await expect(page.getByRole('button', { name: 'Start coat' })).toBeVisible();
    // The places of the coat are fetched before the signal goes.
    await page.evaluate(() =>
      Promise.all(
        [...document.querySelectorAll('link[rel=modulepreload]')].map((l) => fetch((l as HTMLLinkElement).href)),
      ),
    );
    await page.goto(`${yard.url}${sloop}/coat`);
    await page.getByRole('region', { name: 'Finished' }).getByRole('link', { name: 'Underwater hull' }).first().click();
    await expect(page.getByText('The hand overrides the table')).toBeVisible();
    await page.goto(`${yard.url}${sloop}/coat/start?on=${DEMO.keels}`);
    await expect(page.getByRole('button', { name: 'Start coat' })).toBeVisible();
    await page.route('**/api/**', (route) => route.abort());
    await page.getByRole('button', { name: 'Start coat' }).click();
    await expect(page.getByText('Comb for, wet')).toBeVisible();
    await page.getByRole('button', { name: 'Comb', exact: true }).click();
    await page.getByLabel('Comb reading').fill('6 mil');
    await page.getByRole('button', { name: 'Log', exact: true }).first().click();
    await expect(page.getByText('mean of 1 reading')).toBeVisible();
    await page.getByRole('button', { name: 'Finish', exact: true }).click();
    await page.getByRole('button', { name: 'Finish now' }).click();
    await expect(page.getByText('The hand overrides the table')).toBeVisible();
    await expect(page.getByText(/3 entries are kept on this device/)).toBeVisible();
    await page.unroute('**/api/**');
    await page.reload();
    const last = async () =>
      (
        (await (await fetch(`${yard.url}/api${sloop}`)).json()) as {
          entries: { kind: string; body: { micron?: number[] } }[];
        }
      ).entries.slice(-3);
    await expect
      .poll(async () => (await last()).map((e) => e.kind), { timeout: 30_000 })
      .toEqual(['started', 'wetFilm', 'finished']);
    expect((await last())[1]?.body.micron?.[0]).toBeCloseTo(152.4, 6);
    await expect(page.getByText(/kept on this device/)).toBeHidden();
  },
);

own('an entry that lands while the first answer is on its way is shown all the same', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/hull/${DEMO.hull}`);
  await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Underwater hull');
  await page.route('**/api/**', (route) => route.abort());
  await page.getByRole('textbox', { name: 'Name' }).fill('Named without a signal');
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByText(/1 entry is kept on this device/)).toBeVisible();
  // Opened again, the page asks for the boat, then sends what was kept; the answer from before comes last.
  const fresh = await page.context().newPage();
  await page.close();
  let askedAt = 0;
  let landed: () => void = () => undefined;
  const hasLanded = new Promise<void>((done) => (landed = done));
  await fresh.route('**/api/**', async (route) => {
    const request = route.request();
    const asks = request.method() === 'GET' && request.url().endsWith(`/api${sloop}`);
    if (request.method() === 'PUT') {
      await expect.poll(() => askedAt).toBeGreaterThan(0);
      await route.fulfill({ response: await route.fetch() });
      landed();
    } else if (asks && askedAt === 0) {
      const before = await route.fetch();
      askedAt = Date.now();
      await hasLanded;
      await fresh.waitForTimeout(300);
      await route.fulfill({ response: before });
    } else await route.continue();
  });
  await fresh.goto(`${yard.url}${sloop}/hull/${DEMO.hull}`);
  await hasLanded;
  await expect(fresh.getByRole('textbox', { name: 'Name' })).toHaveValue('Named without a signal');
});

own('a refused entry is parked with its text; what depends on it waits; the rest goes on', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/${DEMO.rudder}`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Rudder and skeg');
  const first = (await (await fetch(`${yard.url}/api${sloop}`)).json()) as {
    buildUps: { id: string; surfaceId: string; version: number; layers: object[]; boatId: string }[];
  };
  const row = first.buildUps.find((b) => b.surfaceId === DEMO.rudder)!;
  await page.route('**/api/boats/*', (route) =>
    route.request().method() === 'GET' ? route.abort() : route.continue(),
  );
  await fetch(`${yard.url}/api/build-ups/${row.id}`, {
    method: 'PUT',
    headers: OWN_JSON,
    body: JSON.stringify({
      boatId: row.boatId,
      surfaceId: row.surfaceId,
      version: row.version,
      layers: row.layers.slice(0, 5),
    }),
  });
  await moveCoat(page, /^Move coat 4/, 'ArrowUp');
  await expect(page.getByText('1 entry was not taken: look')).toBeVisible();
  await page.unroute('**/api/boats/*');
  await page.getByRole('button', { name: /not taken/ }).click();
  await expect(page.getByRole('columnheader', { name: 'Yours' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep mine' }).click();
  await expect(page.getByText('was not taken')).toBeHidden();
  const saved = async () =>
    ((await (await fetch(`${yard.url}/api${sloop}`)).json()) as typeof first).buildUps.find((b) => b.id === row.id);
  // Sent anew behind the scenes: the list is gone before the answer is here.
  await expect.poll(async () => (await saved())?.version).toBe(row.version + 2);
  expect((await saved())?.layers).toHaveLength(7);
});

own('undo takes back a removed zone and a changed build-up, from the toast and by key', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/hull/${DEMO.rudder}`);
  await page.getByRole('button', { name: 'Remove zone' }).click();
  // Coats are logged on it: it is said what stays before it goes.
  await expect(page.getByText(/coats are logged on Rudder and skeg\. The record keeps them/)).toBeVisible();
  await page.getByRole('button', { name: 'Remove it all the same' }).click();
  await expect(page.getByRole('link', { name: 'Rudder and skeg', exact: true })).toHaveCount(0);
  await page.getByRole('link', { name: /^Record/ }).click();
  await expect(page.getByRole('link', { name: 'Rudder and skeg (removed)' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Rudder and skeg', exact: true }).first()).toBeVisible();
  await page.goto(`${yard.url}${sloop}/film/${DEMO.hull}`);
  await page.getByRole('button', { name: /^6 Kelpward/ }).click();
  await page.getByLabel('Dry film', { exact: true }).fill('3 mil');
  await page.getByRole('button', { name: 'Save coat' }).click();
  await expect(page.getByText('76 µm').first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('76 µm')).toHaveCount(0);
});

own('units switch at any time, everywhere, and typed ones are read in any case', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/${DEMO.hull}`);
  await expect(page.getByText('140 µm').first()).toBeVisible();
  await page.getByRole('button', { name: /Switch to US/ }).click();
  // On a wide screen there is room for the spreading rate.
  await page.setViewportSize({ width: 1600, height: 900 });
  // 140 µm is 5.5 mil; 7.14 m²/L is 291 ft²/gal [P: 1604 · 0.5 / 2.756 mil].
  await expect(page.getByText('5.5 mil').first()).toBeVisible();
  await expect(page.getByText('291 ft²/gal').first()).toBeVisible();
  await page.goto(`${yard.url}/settings`);
  await page.getByText('Mix them by quantity').click();
  await page.getByLabel('Film thickness').selectOption('metric');
  await page.goto(`${yard.url}${sloop}/film/${DEMO.hull}`);
  await expect(page.getByText('140 µm').first()).toBeVisible();
  await expect(page.getByText('291 ft²/gal').first()).toBeVisible();
  await page.reload();
  await expect(page.getByText('291 ft²/gal').first()).toBeVisible();
});

own('keys lead through the places and rest while typing', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/today`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Twin keels');
  for (const [key, path] of [
    ['2', 'hull'],
    ['3', 'film'],
    ['4', 'prep'],
    ['6', 'mix'],
    ['7', 'coat'],
    ['9', 'record'],
    ['1', 'today'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(page).toHaveURL(new RegExp(`/${path}$`));
  }
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { name: 'Zones' })).toBeVisible();
  await page.keyboard.press('w');
  await expect(page.getByText('waterline length × (beam + draught) × k')).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'New zone' })).toBeVisible();
  await page.getByLabel('Name').fill('');
  await page.getByLabel('Name').pressSequentially('n 1 m ?');
  await expect(page.getByLabel('Name')).toHaveValue('n 1 m ?');
  await expect(page).toHaveURL(/\/hull\/new$/);
  await page.keyboard.press('Escape');
  await page.locator('body').click({ position: { x: 5, y: 400 } });
  // What is half typed is asked about: first it stays, then it is left.
  const stays = page.waitForEvent('dialog').then((ask) => ask.dismiss());
  await page.keyboard.press('0');
  await stays;
  await expect(page.getByLabel('Name')).toHaveValue('n 1 m ?');
  const leaves = page.waitForEvent('dialog').then((ask) => ask.accept());
  await page.keyboard.press('0');
  await leaves;
  await expect(page.getByRole('heading', { name: 'Boats in hand' })).toBeVisible();
  // A new one where one is: a tin in the stores, a build-up among the build-ups.
  await page.goto(`${yard.url}/stores`);
  await expect(page.getByRole('heading', { name: 'Stores' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('form', { name: 'Tin' })).toBeVisible();
  await page.goto(`${yard.url}/build-ups`);
  await expect(page.getByRole('heading', { name: 'Build-ups' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'New build-up' })).toBeVisible();
});

own(
  'back up gives one file and restore takes it; a file of something else is refused',
  async ({ page, yard }, info) => {
    await useSettings(page, {});
    await page.goto(`${yard.url}/settings`);
    const waiting = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Back up' }).click();
    const download = await waiting;
    expect(download.suggestedFilename()).toBe('jack-plane-2026-05-14.jsonl.gz');
    const file = info.outputPath('backup.jsonl.gz');
    await download.saveAs(file);
    expect(readFileSync(file).length).toBeGreaterThan(1000);

    await page.goto(`${yard.url}${sloop}/edit`);
    await page.getByRole('button', { name: 'Remove boat' }).click();
    await expect(page.getByRole('heading', { name: 'Boats in hand' })).toBeVisible();
    await expect(page.getByRole('link', { name: 'Pewit’s Errand' })).toHaveCount(0);

    await page.goto(`${yard.url}/settings`);
    const wrong = info.outputPath('poem.txt');
    writeFileSync(wrong, 'Roses are red');
    await page.getByLabel('Restore from a backup').setInputFiles(wrong);
    await page.getByRole('button', { name: /Replace everything/ }).click();
    await expect(page.getByRole('alert')).toContainText('not a backup of Jack Plane');
    await page.getByLabel('Restore from a backup').setInputFiles(file);
    await page.getByRole('button', { name: /Replace everything/ }).click();
    await expect(page.getByText(/Restored: \d+ rows/)).toBeVisible();
    await page.goto(yard.url);
    await expect(page.getByRole('link', { name: 'Pewit’s Errand', exact: true })).toBeVisible();
  },
);

own('a withdrawn sheet stays where it is used and cannot go on elsewhere', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/sheets/${DEMO.barrier}`);
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByText(/Withdrawn: it stays where it is in use/)).toBeVisible();
  await page.goto(`${yard.url}${sloop}/film/${DEMO.hull}`);
  await expect(page.getByRole('button', { name: /^1 Saltgate 45 barrier/ })).toBeVisible();
  await page.getByRole('button', { name: 'Add a coat' }).click();
  await expect(page.getByLabel('Product').locator('option', { hasText: 'Saltgate 45 barrier' })).toHaveCount(0);
});
