import { test as base, DEMO, expect, useSettings } from './fixtures';
import { OWN_JSON } from '../scripts/server';

import { test, text, runs } from './filmHelp';

/** Data sheets. One demo yard for the file; each test changes its own corner. */
test('a sheet in full: a slip is marked where it stands, the meter tells what is missing, silence is not no', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/sheets/new/full`);
  await page.getByLabel('Product').fill('=HYPERLINK("x") primer');
  await page.getByLabel('Kind', { exact: true }).selectOption({ label: 'Primer' });
  // The ratio is on the sheet, and asked: nothing is assumed of it.
  await page.getByLabel('Ratio', { exact: true }).first().fill('3');
  await page.getByLabel('Ratio', { exact: true }).last().fill('1');
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
        { timeout: 60_000 },
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
