import {
  chunkOf,
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

/** Planning at the desk: zones, sheets, build-ups. One demo yard for the file; each test changes its own corner. */
const test = base.extend<object, { yard: OwnServer }>({
  yard: [demoYard(), { scope: 'worker' }],
});
test.describe.configure({ mode: 'default' });
const sloop = `/boats/${DEMO.sloop}`;

interface Bundle {
  surfaces: {
    id: string;
    name: string;
    areaM2: number;
    grossM2: number;
    area: { method: string; typed: { areaM2: number } | null; dimensions: { draftM?: number } };
  }[];
  buildUps: { surfaceId: string; layers: { dftMicron: number; colour: string; method: string; loss: number }[] }[];
}
const bundleOf = async (yard: OwnServer, boat: string = DEMO.sloop) =>
  (await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as Bundle;

test('an area keeps what was typed for each method, and follows the boat’s dimensions', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/hull/${DEMO.hull}`);
  const form = page.getByRole('form', { name: 'Underwater hull' });
  // 8.1 × (3.1 + 0.55) × 0.75 = 22.2 m², by hand.
  await expect(form.getByText('22.2', { exact: true }).first()).toBeVisible();
  await expect(page.getByText(/type the draught of the canoe body/)).toBeVisible();
  await form.getByText('Typed in', { exact: true }).click();
  await form.getByLabel('Area', { exact: true }).fill('250 sq ft');
  await form.getByLabel('± how far off it may be').fill('4');
  await expect(form.getByText('23.2', { exact: true }).first()).toBeVisible();
  await form.getByText('From dimensions', { exact: true }).click();
  await expect(form.getByText('22.2', { exact: true }).first()).toBeVisible();
  await form.getByText('Typed in', { exact: true }).click();
  await expect(form.getByLabel('Area', { exact: true })).toHaveValue('23.226');
  await form.getByText('From dimensions', { exact: true }).click();
  await form.getByLabel('Draught to reckon with').fill('2 ft');
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('heading', { name: 'Zones' })).toBeVisible();
  const hull = (await bundleOf(yard)).surfaces.find((s) => s.id === DEMO.hull)!;
  expect(hull.grossM2).toBeCloseTo(8.1 * (3.1 + 0.6096) * 0.75, 6);
  // What stands on stands is a patch of its own.
  expect(hull.areaM2).toBeCloseTo(hull.grossM2 - 4 * 0.3 * 0.25, 6);
  expect(hull.area).toMatchObject({ method: 'dimensions', typed: { areaM2: 250 * 0.09290304 } });

  await page.getByRole('link', { name: 'Change the dimensions' }).click();
  await page.getByLabel('Waterline length').fill('99');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Waterline length should be between 1.2 and 60 m')).toBeVisible();
  await page.getByLabel('Waterline length').fill('9.9');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/The waterline is longer than the boat/)).toBeVisible();
  await page.getByLabel('Waterline length').fill('8.2');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page).toHaveURL(/today$/);
  expect((await bundleOf(yard)).surfaces.find((s) => s.id === DEMO.hull)!.grossM2).toBeCloseTo(
    8.2 * (3.1 + 0.6096) * 0.75,
    6,
  );
});

test('a kind of zone without a rule of thumb asks for a measured area', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/hull/new`);
  await page.getByLabel('Kind of zone').selectOption('anchorLocker');
  await expect(page.getByLabel('Name')).toHaveValue('Anchor locker');
  await expect(page.getByLabel('Exposure')).toHaveValue('interior');
  await expect(page.getByRole('radio', { name: /Typed in/ })).toBeChecked();
  await expect(page.getByRole('radio', { name: /From dimensions/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByText('Area must be a number.')).toBeVisible();
  await page.getByLabel('Area', { exact: true }).fill('lots');
  await page.getByLabel('Area', { exact: true }).blur();
  await expect(page.getByText('"lots" could not be read. Type it as 24 or 258 ft2.')).toBeVisible();
  await page.getByLabel('Area', { exact: true }).fill('1.8');
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('link', { name: 'Anchor locker', exact: true })).toBeVisible();
});

test('a zone is picked on the drawing by hand and by key', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/hull`);
  await page.getByRole('button', { name: /^Twin keels: bonds as is/ }).click();
  await expect(page).toHaveURL(new RegExp(DEMO.keels));
  await page.goto(`${yard.url}${sloop}/hull`);
  await page.getByRole('button', { name: /^Rudder and skeg: shut/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(new RegExp(DEMO.rudder));
});

test('a build-up is added to, changed, put in order and thinned out; warnings come before saving', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/film`);
  await page.getByRole('navigation', { name: 'Zones' }).getByRole('link', { name: 'Bilge under the sole' }).click();
  await expect(page.getByText('Nothing is planned here yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a coat' }).click();
  await page.getByLabel('Product').selectOption({ label: 'Saltgate 45 barrier — barrier' });
  await page.getByLabel('Coats').fill('2');
  await expect(page.getByText(/Colours alternate, so that a missed patch shows/)).toBeVisible();
  await page.getByText('Brush', { exact: true }).click();
  await page.getByRole('button', { name: 'Add 2 coats' }).click();
  await page.getByRole('button', { name: 'Add a coat' }).click();
  await page.getByLabel('Product').selectOption({ label: 'Millpond bilge white — bilge coating' });
  await page.getByRole('button', { name: 'Add coat' }).click();
  const zone = (await bundleOf(yard)).surfaces.find((s) => s.name === 'Bilge under the sole')!;
  const layers = async () => (await bundleOf(yard)).buildUps.find((b) => b.surfaceId === zone.id)!.layers;
  await expect.poll(async () => (await layers()).map((l) => l.colour)).toEqual(['grey', 'white', 'white']);
  expect((await layers())[0]).toMatchObject({ method: 'brush', loss: 0.05 });
  await expect(page.getByRole('group', { name: 'Section to scale', description: '200 µm' })).toBeVisible();

  await page.getByRole('button', { name: /^1 Saltgate/ }).click();
  await page.getByLabel('Dry film', { exact: true }).fill('200');
  await expect(page.getByText(/Thicker than the sheet’s largest dry film/)).toBeVisible();
  await page.getByLabel('Thinner, share of the mix').fill('20');
  await expect(page.getByText(/More thinner than the sheet’s 10 %/)).toBeVisible();
  await page.getByLabel('Dry film', { exact: true }).fill('thick');
  await expect(page.getByRole('button', { name: 'Save coat' })).toBeDisabled();
  await page.getByLabel('Dry film', { exact: true }).fill('90');
  await page.getByLabel('Thinner, share of the mix').fill('5 %');
  await page.getByRole('button', { name: 'Save coat' }).click();
  await expect.poll(async () => (await layers())[0]?.dftMicron).toBe(90);
  // 90 µm · 1.05 / 0.5 = 189 µm wet [P: standard coating arithmetic].
  await expect(page.getByText('189 µm').first()).toBeVisible();

  // By keyboard: picked up, moved one down in the list, which is one nearer to the substrate, put down.
  await moveCoat(page, /^Move coat 3/, 'ArrowDown');
  await expect.poll(async () => (await layers()).map((l) => l.dftMicron)).toEqual([90, 60, 70]);
  await page.getByRole('button', { name: /^2 Millpond/ }).click();
  await page.getByRole('button', { name: 'Take out' }).click();
  await expect.poll(async () => (await layers()).map((l) => l.dftMicron)).toEqual([90, 70]);
  await expect(page.getByRole('button', { name: 'Undo' }).last()).toBeVisible();
});

test('a sheet is revised: coats keep the revision they were logged under', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/sheets/${DEMO.barrier}/edit`);
  await page.getByLabel('Pot life, column 1').fill('soon');
  await page.getByRole('button', { name: 'Save sheet' }).click();
  await expect(page.getByText(/A time in the grid cannot be read/).first()).toBeVisible();
  await page.getByLabel('Pot life, column 1').fill('5');
  await page.getByLabel('Shortest, column 2').first().fill('30');
  await page.getByRole('button', { name: 'Save sheet' }).click();
  await expect(
    page.getByRole('alert').filter({
      hasText: /At 20 °C the shortest overcoat time \(30 h\) is above the longest without abrading \(24 h\)/,
    }),
  ).toBeVisible();
  await page.getByLabel('Shortest, column 2').first().fill('330 min');
  await page.getByLabel('Volume solids').fill('52');
  await page.getByRole('button', { name: 'Save sheet' }).click();
  await expect(page.getByRole('button', { name: /^Revision 2/ })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('group', { name: 'Times by temperature' }).getByText('5 h 30 min')).toBeVisible();
  await page.getByRole('button', { name: /^Revision 1/ }).click();
  await expect(page.getByText('50 %', { exact: true })).toBeVisible();
  await page.goto(`${yard.url}${sloop}/record`);
  await expect(page.getByText(/Saltgate 45 barrier, revision 1/).first()).toBeVisible();
  await expect(page.getByText(/revision 2/)).toHaveCount(0);
});

test('a place that breaks says so and leaves the rest of the page standing', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/`);
  await expect(page.getByRole('heading', { name: 'Boats in hand' })).toBeVisible();
  await page.route(chunkOf('sheets/SheetsPlace'), (route) => route.abort());
  await page.getByRole('link', { name: 'Sheets' }).click();
  await expect(page.getByRole('heading', { name: 'This place could not be shown' })).toBeVisible();
  await page.getByRole('link', { name: 'To the yard' }).click();
  await expect(page.getByRole('heading', { name: 'Boats in hand' })).toBeVisible();
});

test('long names and many zones neither push the page sideways nor hide what they are', async ({ page, yard }) => {
  await useSettings(page, {});
  const {
    buildUps: _b,
    surfaces: _s,
    ...rest
  } = (await bundleOf(yard, DEMO.gig)) as Bundle & { boat: Record<string, unknown> };
  const { id: _id, ...boat } = rest.boat;
  const name =
    'Grandmother’s Extraordinarily-Long-And-Unbroken-NameThatNobodyEverShortened-Under-Any-Circumstances'.slice(0, 118);
  const put = await fetch(`${yard.url}/api/boats/${DEMO.gig}`, {
    method: 'PUT',
    headers: OWN_JSON,
    body: JSON.stringify({ ...boat, name }),
  });
  expect(put.status).toBe(200);
  await page.setViewportSize({ width: 360, height: 740 });
  for (const path of ['/', `/boats/${DEMO.gig}/today`, `/boats/${DEMO.gig}/record`, `/boats/${DEMO.gig}/edit`]) {
    await page.goto(yard.url + path);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.waitForLoadState('networkidle');
    await noSidewaysScroll(page);
  }
});
