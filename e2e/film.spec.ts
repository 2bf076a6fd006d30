import type { Route } from '@playwright/test';
import { DEMO, expect, moveCoat, useSettings } from './fixtures';

import { test, sloop, workboat, ids, bundleOf, buildUp, films, runs, litres } from './filmHelp';

/** Build-ups and their rules. One demo yard for the file; each test changes its own corner. */
test('a film is dragged, or moved by keys: litres and packs follow before it is let go, and it is saved once', async ({
  page,
  yard,
  faults,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/${ids.topsides}`);
  const face = page.getByRole('slider', { name: 'Dry film of coat 2, Lantern two-pack gloss' });
  await expect(face).toHaveAttribute('aria-valuetext', '40 µm');
  const before = await litres(page, 'Lantern two-pack gloss');
  const box = (await face.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y + box.height / 2 - 40, { steps: 4 });
  const dragged = Number(await face.getAttribute('aria-valuenow'));
  expect(dragged).toBeGreaterThan(45);
  // The scale stands still under the finger: 40 px are as many µm as they were when it was taken hold of.
  await expect.poll(() => litres(page, 'Lantern two-pack gloss')).toBeGreaterThan(before);
  // Nothing is written while it moves.
  expect(await films(yard, DEMO.sloop, ids.topsides)).toEqual([40, 40, 40]);
  await page.mouse.up();
  await expect.poll(() => films(yard, DEMO.sloop, ids.topsides)).toEqual([40, dragged, 40]);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(() => films(yard, DEMO.sloop, ids.topsides)).toEqual([40, 40, 40]);
  await face.focus();
  await page.keyboard.press('ArrowUp');
  await expect.poll(() => films(yard, DEMO.sloop, ids.topsides)).toEqual([40, 45, 40]);
  // By hand: 45 µm at 53 % solids is 85 µm wet [P: standard coating arithmetic].
  await expect(page.getByText('85 µm').first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect.poll(() => films(yard, DEMO.sloop, ids.topsides)).toEqual([40, 40, 40]);
  expect(faults).toEqual([]);
});

test('what the page says of a held film is what it says once that is saved, and what it said before once it is taken back', async ({
  page,
  yard,
  faults,
}) => {
  await useSettings(page, {});
  // Where the page stands: every figure of the section, of its coats and of the ledger, and every shape that is to scale.
  const told = () =>
    page.evaluate(() => {
      const texts = [...document.querySelectorAll('section')].map((section) => {
        const copy = section.cloneNode(true) as Element;
        // The ruler stands still while a film is held.
        copy.querySelectorAll('svg [aria-hidden]').forEach((mark) => mark.remove());
        return copy.textContent;
      });
      const shapes = [...document.querySelectorAll('svg[role=group] *')].map((e) =>
        ['points', 'd', 'y', 'height', 'aria-valuenow', 'aria-valuetext'].map((name) => e.getAttribute(name)).join(),
      );
      return { texts, shapes, titles: [...document.querySelectorAll('[title]')].map((e) => e.getAttribute('title')) };
    });
  for (const [path, product] of [
    [`${sloop}/film/${ids.topsides}`, 'coat 2, Lantern two-pack gloss'],
    [`${sloop}/film/${ids.underwater}`, 'coat 4, Saltgate 45 barrier'],
  ] as const) {
    await page.goto(yard.url + path);
    await page.waitForLoadState('networkidle');
    const face = page.getByRole('slider', { name: `Dry film of ${product}` });
    await expect(page.getByText('job’s packs')).toContainText('€');
    const zone = path.split('/').at(-1) as string;
    const was = await films(yard, DEMO.sloop, zone);
    const before = await told();
    const from = Number(await face.getAttribute('aria-valuenow'));
    const box = (await face.boundingBox())!;
    await page.mouse.move(box.x + 20, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + 20, box.y + box.height / 2 - 60, { steps: 9 });
    const held = await told();
    expect(held.texts).not.toEqual(before.texts);
    await page.mouse.move(box.x + 20, box.y + box.height / 2, { steps: 9 });
    expect(await told()).toEqual(before);
    await page.mouse.move(box.x + 20, box.y + box.height / 2 - 60, { steps: 9 });
    expect(await told()).toEqual(held);
    await page.mouse.up();
    await expect(page.getByRole('button', { name: 'Undo' }).last()).toBeVisible();
    expect((await told()).texts).toEqual(held.texts);
    await page.keyboard.press('Control+z');
    await expect.poll(told).toEqual(before);
    await page.mouse.move(box.x + 20, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + 20, box.y + box.height / 2 - 60, { steps: 9 });
    await page.mouse.up();
    await page.waitForLoadState('networkidle');
    const saved = await told();
    expect(saved.texts).toEqual(held.texts);
    await page.reload();
    await expect.poll(told).toEqual(saved);
    // Back by keys, 5 µm each time, kept down until it is there: the yard is another test's too.
    await face.focus();
    while (Number(await face.getAttribute('aria-valuenow')) > from) await page.keyboard.down('ArrowDown');
    await page.keyboard.up('ArrowDown');
    await expect.poll(told).toEqual(before);
    await page.waitForLoadState('networkidle');
    await expect.poll(() => films(yard, DEMO.sloop, zone)).toEqual(was);
  }
  expect(faults).toEqual([]);
});

test('packs that may be cut tell the whole of themselves as their title', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/${ids.underwater}`);
  const packs = page.locator('[data-product="Saltgate 45 barrier"] [role=cell]').last().locator('> span').last();
  await expect(packs).toContainText('×');
  await expect(packs).toHaveAttribute('title', (await packs.textContent())!);
});

test('a coat is put in between, told how it goes on, and taken by another product; the section tells coats and film', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/${ids.bootTop}`);
  await page
    .getByRole('button', { name: 'Put a coat between Lantern two-pack gloss and Lantern two-pack gloss' })
    .click();
  await page.getByLabel('Product').selectOption({ label: 'Lantern undercoat — undercoat' });
  await page.getByRole('button', { name: 'Add coat' }).click();
  await expect
    .poll(() => runs(page))
    .toEqual(['1 × Lantern two-pack gloss', '1 × Lantern undercoat', '1 × Lantern two-pack gloss']);
  await page.getByRole('button', { name: /^2 Lantern undercoat/ }).click();
  await page.getByText('over abrading', { exact: true }).click();
  await page.getByLabel('Grit', { exact: true }).fill('180');
  await page.getByLabel('Abraded', { exact: true }).selectOption({ label: 'to level' });
  await page.getByText('wipe', { exact: true }).click();
  await page.getByRole('button', { name: 'Save coat' }).click();
  await expect(page.getByText('abrade 180 to level · wipe')).toBeVisible();
  await expect
    .poll(async () => (await buildUp(yard, DEMO.sloop, ids.bootTop)).layers[1])
    .toMatchObject({ prep: 'abrade', grit: 180, abradeFor: 'level', wipe: true });
  // Levelling takes a third of the coat beneath [M]: 40 + 50 + 40 less 40/3, and less 7.5 for the bond of the last.
  await expect(page.getByText('109 µm').first()).toBeVisible();
  await moveCoat(page, /^Move coat 2, Lantern undercoat/, 'ArrowDown');
  await expect.poll(() => runs(page)).toEqual(['1 × Lantern undercoat', '2 × Lantern two-pack gloss']);
});

test('a stop stands at its interface; its ways out are a click away, and it can be let stand in writing', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  // Slow sheets: a way out taken before they are there waits for them.
  const late = async (route: Route) => {
    await new Promise((go) => setTimeout(go, 1500));
    await route.continue();
  };
  await page.route('**/api/sheets', late, { times: 1 });
  await page.goto(`${yard.url}${workboat}/film/${ids.wheelhouse}`);
  const stop = page.locator('[data-rule=strongOverOnePack]');
  await expect(stop).toContainText(
    'Stop. Lantern two-pack gloss has a strong solvent and goes over an unknown old coating: it can lift and wrinkle it.',
  );
  await page
    .getByRole('list', { name: 'Coats, the outermost first' })
    .getByRole('button', { name: /it can lift and wrinkle it/ })
    .click();

  await stop.getByRole('button', { name: 'Put a tie coat between' }).click();
  await expect(stop).toHaveCount(0);
  await expect.poll(async () => (await buildUp(yard, DEMO.workboat, ids.wheelhouse)).layers.length).toBe(3);
  await page.keyboard.press('Control+z');
  await expect(stop).toBeVisible();

  // At the hull an open stop asks for its reason too.
  await page.goto(`${yard.url}${workboat}/coat/start?on=${ids.wheelhouse}`);
  await expect(page.getByText(/Against it: .*it can lift and wrinkle it/)).toBeVisible();

  await page.goto(`${yard.url}${workboat}/film/${ids.wheelhouse}`);
  await stop.getByRole('button', { name: 'Let it stand' }).click();
  await stop.getByLabel('It stands, because').fill('no');
  await expect(stop.getByRole('button', { name: 'Let it stand' })).toBeDisabled();
  await stop.getByLabel('It stands, because').fill('=The owner wants it so, test patch next week.');
  await stop.getByRole('button', { name: 'Let it stand' }).click();
  await expect(stop).toContainText('Let stand by Ines: =The owner wants it so');
  await page.locator('[data-rule=oldCoatingUntested]').getByRole('button', { name: 'Record an adhesion test' }).click();
  await page.getByLabel('What was found').fill('Class 1, port side.');
  await page.getByRole('dialog').getByRole('button', { name: 'Adhesion test' }).click();
  await expect(page.locator('[data-rule=oldCoatingUntested]')).toHaveCount(0);
  await expect(page.getByText('adhesion test (Class 1, port side)')).toBeVisible();

  await page.goto(`${yard.url}${workboat}/coat/start?on=${ids.wheelhouse}`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Lantern two-pack gloss');
  await expect(page.getByText(/lift and wrinkle/)).toHaveCount(0);
  await page.goto(`${yard.url}${workboat}/record`);
  await expect(page.getByText(/Wheelhouse front: let stand against a rule\. =The owner wants it so/)).toBeVisible();
});

test('a named build-up: who follows, who departed, brought in line, changed for all its zones, copied', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/build-ups/${ids.yardBottom}`);
  await expect(page.getByRole('heading', { name: '3 zones follow, 1 departed' })).toBeVisible();
  await expect(page.getByText('departed: coat 4 is thicker.')).toBeVisible();
  await page.getByRole('button', { name: 'Bring in line' }).click();
  await expect(page.getByRole('heading', { name: '4 zones follow' })).toBeVisible();
  await expect.poll(() => films(yard, DEMO.sloop, DEMO.keels)).toEqual([70, 70, 70, 70, 50, 50, 50]);

  const litresOf = async (zone: string) =>
    Number(
      await page
        .getByRole('listitem')
        .filter({ has: page.getByRole('link', { name: zone, exact: true }) })
        .locator('.fig')
        .last()
        .textContent(),
    );
  // The four barrier coats 13.61 L, the tie coat 2.89 L and the two of antifouling 5.06 L of the zone's own page.
  expect(await litresOf('Underwater hull')).toBeCloseTo(13.61 + 2.89 + 5.06, 1);
  const face = page.getByRole('slider', { name: 'Dry film of coat 7, Kelpward hard antifouling' });
  await face.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  // 60 µm of the coat take 60/50 of its 2.53 L, before anything is saved.
  expect(await litresOf('Underwater hull')).toBeCloseTo(13.61 + 2.89 + 2.53 + (2.53 * 60) / 50, 1);
  await expect(page.getByText('Changed, not saved: saving puts it on 4 zones too.')).toBeVisible();
  expect(await films(yard, DEMO.sloop, DEMO.hull)).toEqual([70, 70, 70, 70, 50, 50, 50]);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  for (const zone of [DEMO.hull, DEMO.keels, DEMO.rudder])
    await expect.poll(() => films(yard, DEMO.sloop, zone)).toEqual([70, 70, 70, 70, 50, 50, 60]);
  await expect(page.getByRole('heading', { name: '4 zones follow' })).toBeVisible();

  await page.goto(`${yard.url}/build-ups`);
  await page.getByLabel('Substrate').selectOption('laminate');
  await page.getByLabel('Exposure').selectOption('immersed');
  await page.getByRole('button', { name: 'Copy Yard bottom: barrier, tie coat, antifouling' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Yard bottom: barrier, tie coat, antifouling, copy');
  await expect(page.getByRole('heading', { name: 'On no zone yet' })).toBeVisible();
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('copy', { exact: false }).filter({ hasText: 'removed' })).toBeVisible();
});

test('a zone takes a build-up, keeps its own as a named one, and sets the film it wants', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/01900000-0000-7000-8005-000000000006`);
  await page.getByRole('button', { name: 'Take a build-up' }).click();
  const starter = page.getByRole('listitem').filter({ hasText: 'Bilge and lockers, one-pack' });
  await starter.getByRole('button', { name: 'Take' }).click();
  await expect.poll(() => runs(page)).toEqual(['3 × Millpond bilge white']);
  await page.getByRole('button', { name: 'Named build-ups' }).click();
  await expect(page.getByText('Follows')).toContainText('Bilge and lockers, one-pack.');
  await page.getByLabel('Film wanted in all').fill('10 mil');
  await page.getByRole('button', { name: 'Set target' }).click();
  // Three coats of 60 µm, two of them scuffed: below 254 µm.
  await expect(page.locator('[data-rule=totalBelowTarget]')).toContainText('below its target of 254 µm (10.0 mil)');
  await page.locator('[data-rule=totalBelowTarget]').getByRole('button').first().click();
  await expect(page.locator('[data-rule=totalBelowTarget]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Named build-ups' }).click();
  await expect(page.getByText(/departs from it: 2 coats more/)).toBeVisible();
  await page.getByLabel('Give this zone’s coats a name').fill('Bilge, thick');
  await page.getByRole('button', { name: 'Name it' }).click();
  await page.getByRole('button', { name: 'Named build-ups' }).click();
  await expect(page.getByText('Follows')).toContainText('Bilge, thick.');
});

test('schools: chosen for the job, compared on a zone, and taken for it', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/${DEMO.rudder}/schools`);
  await expect(page.getByRole('row', { name: /^Cure, abrade, coat/ })).toBeVisible();
  const figures = async (name: RegExp) =>
    (await page.getByRole('row', { name }).getByRole('cell').allTextContents()).map((t) => t.trim());
  const [chemical, mechanical] = [await figures(/^In the tack window/), await figures(/^Cure, abrade, coat/)];
  // Abrading takes film and time.
  expect(Number.parseFloat(mechanical[1]!)).toBeLessThan(Number.parseFloat(chemical[1]!));
  expect(Number.parseFloat(mechanical[6]!)).toBeGreaterThanOrEqual(Number.parseFloat(chemical[6]!));
  await page.getByText('Cure, abrade, coat', { exact: true }).first().click();
  await page.getByText('One-pack', { exact: true }).click();
  await expect
    .poll(async () => (await bundleOf(yard, DEMO.sloop)).jobs.at(-1)?.choices)
    .toMatchObject({ bond: 'mechanical', packs: 'onePack' });
  await page.getByRole('button', { name: 'Take: Cure, abrade, coat' }).click();
  // The coats that are on stay as they were.
  await expect
    .poll(async () => (await buildUp(yard, DEMO.sloop, DEMO.rudder)).layers.map((l) => l.prep ?? ''))
    .toEqual(['abrade', 'tackWindow', 'abrade', 'abrade', 'abrade', 'abrade', 'abrade']);
  await page.getByLabel('Compared at').fill('5');
  await expect(page.getByRole('row', { name: /^In the tack window/ })).toContainText(/no window|its figures/);
});

test('borders are added, held against their rule, changed and taken out', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film/borders`);
  await expect(page.getByText(/the antifouling goes over the topcoat, never under it/)).toBeVisible();
  await page.getByRole('button', { name: 'Border', exact: true }).click();
  await page.getByLabel('Above').selectOption({ label: 'Underwater hull' });
  await page.getByLabel('Below').selectOption({ label: 'Underwater hull' });
  await expect(page.getByText('A border lies between two zones. Choose another one.')).toBeVisible();
  await page.getByLabel('Below').selectOption({ label: 'Twin keels' });
  await page.getByText('leave a stripe between', { exact: true }).click();
  await page.getByLabel('Width', { exact: true }).fill('8 in');
  await page.getByLabel('the epoxy runs on across it').uncheck();
  await page.getByRole('button', { name: 'Save border' }).click();
  await expect(page.getByText(/The epoxy stops at the line between Underwater hull and Twin keels/)).toBeVisible();
  await expect
    .poll(async () => (await bundleOf(yard, DEMO.sloop)).borders.find((b) => b.rule === 'stripe'))
    .toMatchObject({ widthM: 0.2032, epoxyRunsOn: false });
  await page.getByRole('button', { name: /border of Underwater hull and Twin keels/ }).click();
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('Underwater hull over Twin keels')).toHaveCount(0);
});

test('a product is changed throughout the job, its consequences first; one undo takes all of it back', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${workboat}/film/swap`);
  const bottom = '01900000-0000-7000-8005-000000000011';
  const before = await films(yard, DEMO.workboat, bottom);
  await page.getByLabel('Instead of').selectOption({ label: 'Dunlin copper-free' });
  await page.getByLabel('Take').selectOption({ label: 'Kelpward hard antifouling — antifouling' });
  await expect(
    page.getByText(/Kelpward hard antifouling holds copper: on aluminium it corrodes the hull/).first(),
  ).toBeVisible();
  await page.getByLabel('Take').selectOption({ label: 'Dunlin fresh-water hard — antifouling' });
  await expect(page.getByText(/holds copper/)).toHaveCount(0);
  await page.getByRole('button', { name: /^Change it on 1 zone/ }).click();
  await expect
    .poll(async () => (await buildUp(yard, DEMO.workboat, bottom)).layers.at(-1)?.sheetRevisionId)
    .not.toBe(undefined);
  await expect(page.getByRole('button', { name: /Dunlin fresh-water hard/ }).first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /Dunlin fresh-water hard/ })).toHaveCount(0);
  await expect.poll(() => films(yard, DEMO.workboat, bottom)).toEqual(before);
});
