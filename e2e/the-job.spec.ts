import type { Page } from '@playwright/test';
import { DEMO, expect, NOW, test, useSettings } from './fixtures';
import { OWN_JSON } from '../scripts/server';

/** Counts what a thumb does: every tap on something of the page. */
function thumb(page: Page) {
  let taps = 0;
  return {
    async tap(name: RegExp | string, role: 'button' | 'link' | 'checkbox' = 'button') {
      await page.getByRole(role, { name }).first().click();
      taps += 1;
    },
    get taps() {
      return taps;
    },
  };
}

const field = (page: Page, label: string | RegExp) =>
  page.getByLabel(label, { exact: typeof label === 'string' }).first();

test('with the demo: the second coat is logged from Today, start and finish, in at most six taps', async ({
  page,
  demo,
  faults,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await useSettings(page, {});
  await page.goto(`${demo.url}/boats/${DEMO.gig}/today`);
  const hand = thumb(page);
  await hand.tap(/^Start topcoat 2 on Outside/, 'link');
  await expect(page.getByRole('button', { name: 'Comb' })).toBeVisible();
  await page.getByLabel('Surface', { exact: true }).fill('20');
  await page.getByLabel('Air', { exact: true }).fill('20');
  await page.getByLabel('Humidity', { exact: true }).fill('60');
  await expect(page.getByText('as you read it')).toBeVisible();
  // Abrading is planned before it: one tap says that it was done so.
  await hand.tap(/^With \d+, as planned$/);
  await hand.tap(/^Start coat$/);
  await expect(page.getByText('Comb for, wet')).toBeVisible();
  await hand.tap(/^Finish$/);
  await hand.tap(/^Finish now$/);
  await expect(page.getByRole('heading', { name: /The hand overrides the table/ })).toBeVisible();
  expect(hand.taps).toBeLessThanOrEqual(6);
  await page.reload();
  await expect(page.getByText('Into the water from')).toBeVisible();
  await expect(page.getByText(/Read air 20\.0 °C, humidity 60 %, surface 20\.0 °C/)).toBeVisible();
  expect(faults).toEqual([]);
});

test('by hand: from a bare zone to "not before", a thumb test that moves it, a correction that stays readable', async ({
  page,
  empty,
  faults,
}) => {
  await useSettings(page, {});
  await page.goto(empty.url);
  await expect(page.getByRole('heading', { name: 'What do you want to know first?' })).toBeVisible();
  await page.getByRole('link', { name: 'put in a boat' }).click();

  // A boat, with feet and inches and a name that tries things.
  await field(page, 'Name').fill("<script>alert('x')</script>");
  await field(page, 'Length').fill('31\'6"');
  await field(page, 'Waterline length').fill('8.1');
  await field(page, 'Beam').fill('310 cm');
  await field(page, 'Draught').fill('1,500');
  await field(page, 'Draught').blur();
  await expect(page.getByText('"1,500" could be 1500 or 1.500. Type it without the comma.')).toBeVisible();
  await field(page, 'Draught').fill('1.15');
  await field(page, 'Freeboard, mean').fill('3 ft 5 in');
  await page.getByText('Long keel', { exact: true }).click();
  await page.getByText('Twin bilge keels', { exact: true }).click();
  await expect(page.getByRole('img', { name: /in profile/ })).toBeVisible();
  await field(page, 'Out on').fill('2026-05-10');
  await field(page, 'Launch on').fill('2026-05-30');
  await field(page, 'Yard cost a day').fill('25');
  await field(page, 'Time zone').selectOption('Europe/Lisbon');
  await page.getByRole('checkbox', { name: /^Underwater hull/ }).uncheck();
  await page.getByRole('button', { name: 'Save' }).click();

  // A zone whose area comes from the dimensions, by hand: 8.1 × (3.1 + 1.15) × 0.75 = 25.8 m².
  await expect(page.getByRole('heading', { name: 'New zone' })).toBeVisible();
  await expect(page.getByRole('form', { name: 'New zone' }).getByText('25.8').first()).toBeVisible();
  await page.getByText('Why', { exact: true }).click();
  await expect(page.getByText('waterline length × (beam + draught) × k')).toBeVisible();
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('link', { name: 'Underwater hull', exact: true })).toBeVisible();
  await expect(page.getByRole('link', { name: "<script>alert('x')</script>", exact: true })).toBeVisible();

  // A quick sheet from the tin.
  await page.getByRole('link', { name: /^Film/ }).click();
  await page.getByRole('button', { name: 'Add a coat' }).click();
  await page.getByRole('link', { name: 'New sheet from the tin' }).click();
  await field(page, 'Product').fill('Tin epoxy');
  await field(page, 'Volume solids').fill('50');
  await field(page, 'Dry film per coat').fill('4 mil');
  await page.getByLabel('Ratio', { exact: true }).first().fill('3');
  await page.getByLabel('Ratio', { exact: true }).last().fill('1');
  await field(page, 'Pot life, column 1').fill('2');
  await field(page, 'Not below').fill('8');
  await field(page, 'Shortest, column 1').fill('6');
  await field(page, 'Longest without abrading, column 1').fill('2 d');
  await page.getByRole('button', { name: 'Save sheet' }).click();
  await expect(page.getByText('Say whether the ratio is by volume or by mass.').first()).toBeVisible();
  await page.getByText('By volume', { exact: true }).click();
  await page.getByRole('button', { name: 'Save sheet' }).click();
  // It goes on where it was, with the new product; Back does not open the form again.
  await expect(page.getByRole('heading', { name: /^Add a coat/ })).toBeVisible();
  await expect(field(page, 'Product')).toContainText('Tin epoxy');
  await field(page, 'Coats').fill('3');
  await page.getByRole('button', { name: 'Add 3 coats' }).click();
  // 101.6 µm dry at 50 % solids is 203 µm wet [P: standard coating arithmetic].
  await expect(page.getByText('203').first()).toBeVisible();
  await expect(
    page
      .getByRole('list', { name: 'Coats, the outermost first' })
      .getByRole('listitem')
      .filter({ hasText: 'Tin epoxy' }),
  ).toHaveCount(3);

  // Mixed by volume only, since the tin gives no densities.
  await page.getByRole('button', { name: 'Mix the next coat' }).click();
  await expect(page.getByText('No weighing: the density of Base and Hardener is not on the sheet.')).toBeVisible();
  await page.getByText('Volume', { exact: true }).click();
  await field(page, 'Mixed paint, without thinner').fill('2');
  const pour = page.getByRole('list', { name: 'Pour, in this order' });
  await expect(pour.getByText('1500 mL', { exact: true })).toBeVisible();
  await expect(pour.getByText('500 mL', { exact: true })).toBeVisible();

  // Yesterday's coat typed in today, under a typed forecast of a steady 20 °C.
  const boatPath = new URL(page.url()).pathname.replace(/\/mix.*/, '');
  await page.goto(`${empty.url}${boatPath}/coat/start`);
  await page.getByText('It was earlier', { exact: true }).click();
  await page.getByLabel('Started').fill('2026-05-13T10:00');
  await page.getByLabel('Finished').fill('2026-05-13T09:00');
  await page.getByRole('button', { name: 'Log this coat' }).click();
  await expect(page.getByText('The coat would finish before it started.')).toBeVisible();
  await page.getByLabel('Finished').fill('2026-05-13T12:00');
  await page.getByRole('button', { name: 'Log this coat' }).click();
  await expect(page.getByRole('heading', { name: /Underwater hull: barrier 1/ })).toBeVisible();
  await expect(page.getByText('Weather is simulated, not for painting by.')).toBeVisible();
  await expect(page.getByText('Not before ≈ estimated')).toBeVisible();

  // The hand overrides the table, and the entry can be taken back.
  await page.getByRole('button', { name: 'Print, nothing comes off' }).click();
  await expect(page.getByText('Not before (by thumb)')).toBeVisible();
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByText('Not before ≈ estimated')).toBeVisible();
  await expect(page.getByText('1 corrected or withdrawn')).toBeVisible();

  // A wrong finish is put right; what it said stays readable, in the record too.
  await page.getByRole('button', { name: /^Change: Finished/ }).click();
  await page.getByLabel('When it was').fill('2026-05-13T13:30');
  await page.getByRole('button', { name: 'Put right' }).click();
  await expect(page.getByText('2 corrected or withdrawn')).toBeVisible();
  await page.getByRole('link', { name: /^Record/ }).click();
  await expect(page.getByText('Finished Wed 13 May 2026, 13:30')).toBeVisible();
  await expect(page.getByText(/Corrected, said before/).first()).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV' }).click();
  expect((await download).suggestedFilename()).toContain('coat sheets.csv');

  // Today names what is next, and it all survives a reload.
  await page.getByRole('link', { name: /^Today/ }).click();
  await expect(page).toHaveURL(/today$/);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Underwater hull');
  expect(faults).toEqual([]);
});

test('a forecast typed in becomes the weather that windows run on', async ({ page, empty }) => {
  await useSettings(page, {});
  await seed(empty.url);
  await page.goto(`${empty.url}/boats/${IDS.boat}/weather`);
  await expect(page.getByText('All of it simulated, not for painting by.')).toBeVisible();
  const low = page.getByLabel('Low');
  const high = page.getByLabel('High');
  const humid = page.getByRole('textbox', { name: 'Humidity' });
  await low.nth(0).fill('50 F');
  await high.nth(0).fill('20');
  await page.getByRole('button', { name: 'Use this forecast' }).click();
  await expect(page.getByText(/type low, high and humidity, or leave the whole day empty/)).toBeVisible();
  await humid.nth(0).fill('60');
  await low.nth(1).fill('11');
  await high.nth(1).fill('8');
  await humid.nth(1).fill('60');
  await page.getByRole('button', { name: 'Use this forecast' }).click();
  await expect(page.getByText(/Swap them/)).toBeVisible();
  await high.nth(1).fill('18');
  await page.getByRole('button', { name: 'Use this forecast' }).click();
  await expect(page.getByText('As typed where typed')).toBeVisible();
  await expect(low.nth(0)).toHaveValue('10');
  const bundle = (await (await fetch(`${empty.url}/api/boats/${IDS.boat}`)).json()) as {
    hours: { source: string; airC: number }[];
  };
  const typed = bundle.hours.filter((h) => h.source === 'typed');
  expect(typed.length).toBe(49);
  expect(Math.max(...typed.map((h) => h.airC))).toBeCloseTo(20, 6);
});

test('against the air and the window a start needs its reason in writing', async ({ page, demo }) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}/boats/${DEMO.sloop}/coat/start?on=${DEMO.rudder}`);
  await page.getByLabel('Humidity', { exact: true }).fill('140');
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByText('Humidity is between 1 and 100 %')).toBeVisible();
  await page.getByLabel('Air', { exact: true }).fill('18');
  await page.getByLabel('Humidity', { exact: true }).fill('92');
  await page.getByLabel('Surface', { exact: true }).fill('18');
  await expect(
    page.getByText(/Now: too damp: spread 1\.3 °C, needs 3\.0 °C; too humid: 92 %, at most 85 %/),
  ).toBeVisible();
  await expect(
    page.getByText(/Against it: Rudder and skeg: not before .*; the air is outside the limits/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByText('Write why you start all the same.')).toBeVisible();
  await expect(page.getByLabel('Air', { exact: true })).toHaveValue('18');
});

test('mixing weighs by density, sizes by dragging, and says when a batch is too big for its pot life', async ({
  page,
  demo,
}) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}/boats/${DEMO.sloop}/mix?on=${DEMO.keels}`);
  // 6.4 m² · 0.070 mm / 0.5 / 0.9 = 0.996 L, 3:1 by volume at 1.52 and 1.01 kg/L, by hand.
  const pour = page.getByRole('list', { name: 'Pour, in this order' });
  await expect(pour).toContainText('747 mL');
  await page.getByText('Scale', { exact: true }).click();
  await expect(pour).toContainText('to 1135 g');
  await expect(pour).toContainText('to 1386 g');
  const pot = page.getByRole('slider', { name: /Level in the pot/ });
  await pot.press('ArrowUp');
  await expect(pot).toHaveAttribute('aria-valuetext', '1050 mL');
  await page.getByRole('checkbox', { name: /Underwater hull/ }).click();
  await expect(page.getByRole('checkbox', { name: /Underwater hull/ })).toBeChecked();
  await page.getByLabel('Temperature of the paint').fill('35');
  await expect(page.getByText(/More than goes on within the pot life/)).toBeVisible();
  await page.getByRole('button', { name: /^Make it/ }).click();
  await expect(page.getByText(/More than goes on/)).toBeHidden();
});

test('a stand timer is an instant: it survives a reload and a restart, and shouts', async ({ page, empty }) => {
  await useSettings(page, {});
  await seed(empty.url);
  await page.goto(`${empty.url}/boats/${IDS.boat}/mix`);
  await page.getByRole('button', { name: 'All in: stir, start the clocks' }).click();
  await expect(page.getByRole('list', { name: 'Pots in use' })).toContainText(/00:16:\d\d/);
  await page.reload();
  await expect(page.getByRole('list', { name: 'Pots in use' })).toContainText(/00:16:\d\d/);
  await expect(page.getByRole('alert')).toHaveCount(0);
  // A second pot beside it, as another phone would log it.
  const { entries } = (await (await fetch(`${empty.url}/api/boats/${IDS.boat}`)).json()) as {
    entries: Record<string, unknown>[];
  };
  const { id: _id, recordedAt: _recorded, ...mixed } = entries.find((e) => e.kind === 'mixed')!;
  const put = await fetch(`${empty.url}/api/entries/01910000-0000-7000-8000-0000000000f1`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'X-Jack-Plane': '1' },
    body: JSON.stringify({ ...mixed, streamId: '01910000-0000-7000-8000-0000000000f2' }),
  });
  expect(put.status).toBe(200);
  await empty.stop();
  // Twenty minutes later by the server's clock.
  await empty.start({ JACKPLANE_NOW: new Date(Date.parse(NOW) + 20 * 60_000).toISOString() });
  await page.goto(`${empty.url}/`);
  await expect(page.getByRole('alert')).toContainText('has stood, may be used');
  await expect.poll(() => page.title()).toContain('Has stood');
  // One line for both, with product and boat; it opens to each.
  await expect(page.getByRole('alert')).toContainText(/Seeded epoxy .* Typed Boat/);
  await page.getByRole('button', { name: /^2 ringing: show each/ }).click();
  await expect(page.getByRole('alert').getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: 'Silence all' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

const IDS = {
  boat: '01910000-0000-7000-8000-000000000001',
  zone: '01910000-0000-7000-8000-000000000002',
  sheet: '01910000-0000-7000-8000-000000000003',
  revision: '01910000-0000-7000-8000-000000000004',
  build: '01910000-0000-7000-8000-000000000005',
  layer: '01910000-0000-7000-8000-000000000006',
};

/** A boat with one zone and one two-pack coat on an empty yard, through the API. */
export async function seed(url: string): Promise<void> {
  const put = async (path: string, body: object) => {
    const res = await fetch(`${url}/api${path}`, { method: 'PUT', headers: OWN_JSON, body: JSON.stringify(body) });
    if (!res.ok) throw new Error(await res.text());
  };
  await put(`/boats/${IDS.boat}`, {
    name: 'Typed Boat',
    hullMaterial: 'grp',
    keels: 'single',
    form: 'finKeel',
    loaM: 8,
    lwlM: 7,
    beamM: 2.6,
    draftM: 1.2,
    freeboardM: 0.9,
    place: 'Pond',
    latitudeDeg: 40,
    timeZone: 'Europe/Lisbon',
    version: 0,
  });
  await put(`/surfaces/${IDS.zone}`, {
    boatId: IDS.boat,
    name: 'Underwater hull',
    kind: 'underwater',
    substrate: 'gelcoat',
    exposure: 'immersed',
    existing: 'bare',
    area: { method: 'dimensions', dimensions: {}, typed: null },
    sort: 1,
    version: 0,
  });
  const at20 = (hours: number) => [{ tempC: 20, hours }];
  await put(`/sheets/${IDS.sheet}`, {
    revisionId: IDS.revision,
    version: 0,
    body: {
      name: 'Seeded epoxy',
      maker: '',
      code: '',
      kind: 'barrier',
      quick: false,
      ratioBasis: 'volume',
      solids: 0.5,
      dftMicron: 80,
      dftMaxMicron: null,
      thinner: null,
      inductionMin: 15,
      potLife: at20(2),
      touchDry: at20(3),
      sandable: null,
      immersion: null,
      fullCure: null,
      parts: [
        { name: 'Base', role: 'base', ratio: 2, densityKgPerL: 1.4 },
        { name: 'Hardener', role: 'hardener', ratio: 1, densityKgPerL: 1 },
      ],
      overcoat: [{ after: 'any', minimum: at20(5), tackLimit: at20(24), maximum: null, alwaysAbrade: false }],
      limits: { airMinC: null, airMaxC: null, surfaceMinC: null, surfaceMaxC: null, rhMax: null, spreadMinC: null },
      minCureC: null,
      packs: [],
      colours: [{ name: 'grey', hex: '#888888' }],
      caution: '',
    },
  });
  await put(`/build-ups/${IDS.build}`, {
    boatId: IDS.boat,
    surfaceId: IDS.zone,
    version: 0,
    layers: [
      {
        id: IDS.layer,
        sheetRevisionId: IDS.revision,
        dftMicron: 80,
        method: 'roller',
        thinnerShare: 0,
        loss: 0.1,
        deadVolumeLPerM2: 0,
        colour: 'grey',
        colourHex: '#888888',
      },
    ],
  });
}
