import { readFileSync } from 'node:fs';
import type { Download, Page } from '@playwright/test';
import {
  DEMO,
  demoYard,
  expect,
  moveCoat,
  noSidewaysScroll,
  test as base,
  useSettings,
  type OwnServer,
} from './fixtures';
import { OWN_JSON } from '../scripts/server';

/** Build-ups, their rules, the shelf and what to buy. One demo yard for the file; each test changes its own corner. */
const test = base.extend<object, { yard: OwnServer }>({
  yard: [demoYard(), { scope: 'worker' }],
});
const sloop = `/boats/${DEMO.sloop}`;
const workboat = `/boats/${DEMO.workboat}`;
const ids = {
  underwater: '01900000-0000-7000-8005-000000000001',
  topsides: '01900000-0000-7000-8005-000000000005',
  bootTop: '01900000-0000-7000-8005-000000000004',
  wheelhouse: '01900000-0000-7000-8005-000000000014',
  gigOutside: '01900000-0000-7000-8005-000000000021',
  yardBottom: '01900000-0000-7000-8014-000000000090',
};

interface Bundle {
  buildUps: {
    surfaceId: string;
    namedId: string | null;
    targetMicron: number | null;
    overrides: { reason: string }[];
    records: { kind: string; note: string }[];
    layers: { dftMicron: number; sheetRevisionId: string; prep?: string; method: string; grit?: number }[];
  }[];
  borders: { rule: string; widthM: number; epoxyRunsOn: boolean }[];
  jobs: { choices: { bond: string; packs: string } | null }[];
}
const bundleOf = async (yard: OwnServer, boat: string) =>
  (await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as Bundle;
const buildUp = async (yard: OwnServer, boat: string, zone: string) =>
  (await bundleOf(yard, boat)).buildUps.find((b) => b.surfaceId === zone)!;
const films = async (yard: OwnServer, boat: string, zone: string) =>
  (await buildUp(yard, boat, zone)).layers.map((l) => l.dftMicron);
const text = async (download: Download) => readFileSync(await download.path(), 'utf8');
/** The build-up as it is told in coats: "4 × Saltgate 45 barrier grey, white". */
const runs = (page: Page) =>
  page
    .getByRole('list', { name: 'In coats and in film' })
    .getByRole('listitem')
    .evaluateAll((items) =>
      items.map((li) =>
        [...li.children]
          .slice(0, 2)
          .map((part) => part.textContent.trim())
          .join(' '),
      ),
    );
const litres = async (page: Page, product: string) =>
  Number.parseFloat(
    (await page.locator(`[data-product="${product}"] .fig`).first().textContent())!
      .replace(/[^\d.]/, '')
      .replace('≈', ''),
  );

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
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
  const rows = (await text(csv)).trim().split('\r\n');
  expect(rows[0]).toBe('supplier,kind,what,pack,count,litres,price EUR');
  expect(rows.some((r) => r.startsWith('Staithe Chandlery,paint,Saltgate 45 barrier,'))).toBe(true);
  await page.setViewportSize({ width: 360, height: 740 });
  await noSidewaysScroll(page);
});

test('a sheet in full: a slip is marked where it stands, the meter tells what is missing, silence is not no', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/sheets/new/full`);
  await page.getByLabel('Product').fill('=HYPERLINK("x") primer');
  await page.getByLabel('Kind', { exact: true }).selectOption({ label: 'Primer' });
  await page.getByText('By volume', { exact: true }).click();
  await page.getByLabel('Volume solids').fill('150 %');
  await page.getByLabel('Dry film per coat').fill('3 mil');
  await page.getByLabel('Touch dry, column 1').fill('3');
  await page.getByLabel('Touch dry, column 2').fill('5');
  await expect(page.getByRole('list', { name: 'Looks like a slip' })).toContainText(
    'Touch dry: 5 h at 20 °C is longer than 3 h at 10 °C',
  );
  await expect(page.getByLabel('Touch dry, column 2')).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByRole('img', { name: 'Times over temperature: Touch dry' })).toBeVisible();
  await expect(page.getByText('No window for the next coat.')).toBeVisible();
  await page.getByLabel('Touch dry, column 2').fill('90 min');
  await expect(page.getByLabel('Touch dry, column 2')).not.toHaveAttribute('aria-invalid', 'true');
  await page.getByRole('button', { name: 'Save sheet' }).click();
  await expect(page.getByText('Volume solids is too large. Check the unit.').first()).toBeVisible();
  await page.getByLabel('Volume solids').fill('62');
  await page.getByLabel('Chemistry').selectOption({ label: 'Epoxy' });
  await page.getByLabel('May be immersed').selectOption('yes');
  await page.getByRole('button', { name: 'Way of putting it on' }).click();
  await page.getByLabel('By', { exact: true }).selectOption({ label: 'Roller' });
  await page.getByRole('button', { name: 'Pack', exact: true }).click();
  await page.getByLabel('Name', { exact: true }).fill('1 gal kit');
  await page.getByLabel('Size').fill('1 gal');
  await page.getByLabel('Price', { exact: true }).fill('99.90');
  await page.getByRole('button', { name: 'Save sheet' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('=HYPERLINK("x") primer');
  await expect(page.getByText('may be immersed')).toBeVisible();
  await expect(page.getByText('stands it')).toHaveCount(0);

  // Out as CSV it runs nothing, and it comes in again.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV' }).click(),
  ]);
  const csv = await text(download);
  expect(csv).toContain(`'=HYPERLINK`);
  await page.goto(`${yard.url}/sheets`);
  await page.getByRole('button', { name: 'From a file' }).click();
  const file = page.getByLabel('JSON or CSV, as they are exported here');
  await file.setInputFiles({ name: 'sheets.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(
    page.getByText('A sheet of this name and code is here already: taken in, it stands beside it.'),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take 0 sheets in' })).toBeDisabled();
  await page.getByLabel('Take =HYPERLINK("x") primer in').check();
  await page.getByRole('button', { name: 'Take 1 sheet in' }).click();
  await page.getByLabel('Find').fill('HYPERLINK');
  await expect(page.getByRole('listitem').filter({ hasText: '=HYPERLINK' })).toHaveCount(2);
});

test('files of sheets: what is wrong with them is said, one by one, and nothing is taken until it is asked for', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/sheets`);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /as JSON/ }).click(),
  ]);
  const document = JSON.parse(await text(download)) as { sheets: Record<string, unknown>[] };
  await page.getByRole('button', { name: 'From a file' }).click();
  const file = page.getByLabel('JSON or CSV, as they are exported here');
  const give = (name: string, content: string) =>
    file.setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(content) });
  await give('other.json', JSON.stringify({ paints: [{ brand: 'x' }] }));
  await expect(page.getByRole('alert')).toContainText('This is no file of data sheets');
  await give('bomb.json', '['.repeat(200_000));
  await expect(page.getByRole('alert')).toContainText('This is no JSON file, or it was cut off');
  await give('many.json', JSON.stringify({ ...document, sheets: Array.from({ length: 10_000 }, () => ({})) }));
  await expect(page.getByRole('alert')).toContainText(
    'There are 10000 sheets in this file; up to 300 are taken at a time. Split it.',
  );
  await give('table.csv', 'zone,litres\nhull,3');
  await expect(page.getByRole('alert')).toContainText('no table of data sheets');
  const [one] = document.sheets;
  await give(
    'mixed.json',
    JSON.stringify({
      ...document,
      sheets: [
        { ...one, name: 'Sound one', code: 'NEW' },
        { ...one, name: 'Solid', solids: 1.5 },
        { ...one, name: 'Backwards', dftMaxMicron: 1 },
        7,
      ],
    }),
  );
  const list = page.getByRole('list', { name: 'Sheets in the file' });
  await expect(list.getByRole('listitem').filter({ hasText: 'Solid' })).toContainText(
    'Volume solids must be at most 1',
  );
  await expect(list.getByRole('listitem').filter({ hasText: 'Backwards' })).toContainText(
    'The largest dry film is below the recommended one',
  );
  await expect(list.getByRole('listitem').filter({ hasText: 'a sheet without a name' })).toBeVisible();
  await page.getByRole('button', { name: 'Take 1 sheet in' }).click();
  await page.getByLabel('Find').fill('Sound one');
  await expect(page.getByRole('listitem').filter({ hasText: 'Sound one' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Sound one' })).toHaveCount(0);
});

test('a sheet in use is not removed but withdrawn; two people editing one see both', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/sheets/${DEMO.barrier}`);
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('alert')).toContainText('Saltgate 45 barrier is in use: ');
  await expect(page.getByRole('alert')).toContainText('Withdraw it instead');

  await page.goto(`${yard.url}/sheets/${DEMO.barrier}/edit`);
  await page.getByLabel('Code').fill('MINE');
  const { current, version } = (await (await fetch(`${yard.url}/api/sheets/${DEMO.barrier}`)).json()) as {
    current: { body: object };
    version: number;
  };
  const put = await fetch(`${yard.url}/api/sheets/${DEMO.barrier}`, {
    method: 'PUT',
    headers: OWN_JSON,
    body: JSON.stringify({
      revisionId: '01900000-0000-7000-8099-000000000001',
      body: { ...current.body, code: 'THEIRS', solids: 0.51 },
      version,
    }),
  });
  expect(put.status).toBe(200);
  await page.getByRole('button', { name: 'Save sheet' }).click();
  await expect(page.getByText(/Saved meanwhile: Saltgate 45 barrier, 3 : 1, solids 51 %/)).toBeVisible();
  await expect(page.getByLabel('Code')).toHaveValue('MINE');
  await page.getByRole('button', { name: 'Keep what stands here' }).click();
  await expect(page.getByRole('button', { name: /^Revision 3/ })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByText('Tidewrack Coatings · MINE')).toBeVisible();
});

base(
  'a fresh yard: made-up sheets taken in, a usual build-up on a steel hull, its list to buy',
  async ({ page, empty, faults }) => {
    await useSettings(page, {});
    const boat = '01900000-0000-7000-8001-0000000000aa';
    const zone = '01900000-0000-7000-8005-0000000000aa';
    const put = async (path: string, body: object) =>
      expect(
        (await fetch(`${empty.url}/api${path}`, { method: 'PUT', headers: OWN_JSON, body: JSON.stringify(body) }))
          .status,
      ).toBe(200);
    await put(`/boats/${boat}`, {
      name: 'Iron Kettle',
      hullMaterial: 'steel',
      keels: 'single',
      form: 'full',
      loaM: 12,
      lwlM: 11,
      beamM: 3.6,
      draftM: 1.2,
      freeboardM: 1.1,
      place: '',
      latitudeDeg: 50,
      timeZone: 'UTC',
      version: 0,
    });
    await put(`/surfaces/${zone}`, {
      boatId: boat,
      name: 'Bottom',
      kind: 'underwater',
      substrate: 'steel',
      exposure: 'immersed',
      existing: 'bare',
      area: { method: 'dimensions', dimensions: {}, typed: null },
      sort: 1,
      version: 0,
    });
    await page.goto(`${empty.url}/stores`);
    await expect(page.getByText('Nothing is on the shelf yet.')).toBeVisible();
    await page.goto(`${empty.url}/build-ups`);
    await expect(page.getByText('No build-up has a name yet.')).toBeVisible();
    await page.getByRole('button', { name: /^Take the \d+ usual ones in/ }).click();
    await expect(page.getByRole('link', { name: 'Steel bottom, blasted' })).toBeVisible();
    await expect
      .poll(
        async () =>
          ((await (await fetch(`${empty.url}/api/named-build-ups`)).json()) as { named: object[] }).named.length,
      )
      .toBeGreaterThan(20);
    await page.goto(`${empty.url}/boats/${boat}/film/${zone}`);
    await page.getByRole('button', { name: 'Take a build-up' }).click();
    await page
      .getByRole('listitem')
      .filter({ hasText: 'Steel bottom, blasted' })
      .getByRole('button', { name: 'Take' })
      .click();
    await expect
      .poll(async () => (await runs(page)).slice(0, 2))
      .toEqual(['1 × Hawser epoxy primer', '4 × Saltgate 45 barrier grey, white, grey, white']);
    // Four coats of 70 µm; the first is not abraded, nor are those that follow in their window.
    await expect(page.getByRole('list', { name: 'In coats and in film' }).getByRole('listitem').nth(1)).toContainText(
      '280 µm',
    );
    await page.getByRole('link', { name: 'Shopping list' }).click();
    // No haul-out yet: nothing of it breaks the list.
    await expect(page.getByRole('region', { name: 'Staithe Chandlery' })).toContainText('Hawser epoxy primer');
    await expect(page.getByText('Yard, 0 days from haul-out to launch')).toBeVisible();
    expect(faults).toEqual([]);
  },
);
