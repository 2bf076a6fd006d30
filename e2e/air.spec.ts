import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { v7 as uuid } from 'uuid';
import { test as base, expect, DEMO, demoYard, NOW, useSettings, type OwnServer } from './fixtures';

/** Forecasts and typical years out of files, good and bad; a start against the air asked about next day. */
const test = base.extend<object, { yard: OwnServer }>({ yard: [demoYard(), { scope: 'worker' }] });
test.beforeEach(({ page }) => useSettings(page, {}));

const HOUR = 3_600_000;
const at = (hour: number) => new Date(Date.parse(NOW) + hour * HOUR).toISOString();
const csv = (head: string, rows: readonly string[]) => ({
  name: 'forecast.csv',
  mimeType: 'text/csv',
  buffer: Buffer.from([head, ...rows].join('\r\n')),
});
const hoursFrom = (from: number, count: number, row: (i: number) => string) =>
  Array.from({ length: count }, (_, i) => `${at(from + i)},${row(i)}`);

async function bringIn(page: Page, file: ReturnType<typeof csv> | string) {
  const panel = page.getByRole('region', { name: 'A forecast from a file' });
  if (!(await panel.isVisible())) await page.getByRole('button', { name: 'Forecast from a file' }).click();
  await panel.locator('input[type=file]').setInputFiles(file);
  return panel;
}

interface Told {
  typedHours: { airC: number }[] | null;
  hours: { at: number; airC: number; source: string }[];
  jobs: { planning: { typicalYear?: { name: string } | null } | null }[];
}
const told = async (yard: OwnServer, boat: string) =>
  (await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as Told;

test('a forecast in °F with a hole: columns are guessed, changed and seen before it counts; undo takes it back', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/weather`);
  const rows = [...hoursFrom(0, 20, (i) => `${60 + i},55,0`), ...hoursFrom(30, 20, () => '50,60,0')];
  const panel = await bringIn(page, csv('time,temp,rh,rain', rows));
  await expect(panel.getByRole('alert')).toContainText(
    'Line 2: an air temperature of 60 °C cannot be. If the column is in °F, say so.',
  );
  await expect(panel.getByRole('button', { name: /^Use/ })).toBeDisabled();
  await panel.getByLabel('Unit of air temperature').selectOption('°F');
  await expect(panel.getByRole('alert')).toBeHidden();
  await expect(panel).toContainText('It says nothing for more than three hours in 1 place');
  // 60 °F is 15.6 °C. [P: NIST SP 811]
  await expect(panel.getByRole('table', { name: 'The first hours as they are read' })).toContainText('15.6');
  await panel.getByRole('button', { name: 'Use 40 hours' }).click();
  await expect.poll(async () => (await told(yard, DEMO.sloop)).typedHours?.length).toBe(40);
  await expect(page.getByText(/As in the file that was brought in/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await told(yard, DEMO.sloop)).typedHours).toBeNull();
});

test('files that cannot be: twice the same hour, all past, no table, too large, times on a clock without a zone', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/weather`);
  let panel = await bringIn(page, csv('time,temp,rh', [`${at(0)},14,60`, `${at(0)},15,60`]));
  await expect(panel.getByRole('alert')).toContainText('Line 3 tells of the same time as line 2');
  panel = await bringIn(
    page,
    csv(
      'time,temp,rh',
      hoursFrom(-30, 20, () => '14,60'),
    ),
  );
  await expect(panel.getByRole('alert')).toContainText('It ends before now');
  panel = await bringIn(page, csv('nothing', ['at all']));
  await expect(panel).toContainText('There is no table in this file');
  const large = test.info().outputPath('large.csv');
  writeFileSync(large, 'time,temp,rh\n'.padEnd(3_000_000, '0'));
  panel = await bringIn(page, large);
  await expect(panel).toContainText('The file has 3 MB');
  const local = (hour: number) => `2026-05-${hour < 24 ? 15 : 16} ${String(hour % 24).padStart(2, '0')}:00`;
  panel = await bringIn(
    page,
    csv(
      'time;temp;rh',
      Array.from({ length: 30 }, (_, i) => `${local(i)};14,5;60`),
    ),
  );
  await expect(panel).toContainText('Its times say no zone: they are read as on the clocks of Atlantic/Canary');
  await expect(panel.getByRole('table')).toContainText('Fri 15 May 2026, 00:00');
  await expect(panel.getByRole('button', { name: 'Use 30 hours' })).toBeEnabled();
});

/** A year by the published format, made up: a cold one, so that it is known again. */
function epw(rows: number): string {
  const heads = [
    'LOCATION,Made-up Point,XX,XXX,None,000000,28.1,-15.4,0.0,5.0',
    ...['DESIGN CONDITIONS', 'TYPICAL/EXTREME PERIODS', 'GROUND TEMPERATURES', 'HOLIDAYS/DAYLIGHT SAVINGS'],
    ...['COMMENTS 1', 'COMMENTS 2', 'DATA PERIODS,1,1,Data,Sunday,1/1,12/31'],
  ];
  const start = Date.UTC(2001, 0, 1);
  const lines = Array.from({ length: rows }, (_, i) => {
    const day = new Date(start + i * HOUR);
    const cells = Array<string>(35).fill('0');
    cells[0] = '2001';
    cells[1] = String(day.getUTCMonth() + 1);
    cells[2] = String(day.getUTCDate());
    cells[3] = String(day.getUTCHours() + 1);
    [cells[6], cells[7], cells[8], cells[21], cells[22], cells[33]] = ['3.5', '-4.0', '58', '2.0', '5', '0'];
    return cells.join(',');
  });
  return [...heads, ...lines].join('\r\n');
}

test('a typical year: cut off and too large are refused in a sentence, a whole one is what the plan goes on with', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.launch}/weather`);
  await page.getByRole('button', { name: 'Typical year' }).click();
  const panel = page.getByRole('region', { name: 'A typical year' });
  const input = panel.locator('input[type=file]');
  const file = (text: string) => ({ name: 'place.epw', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await input.setInputFiles(file(epw(300)));
  await expect(panel).toContainText('The file ends after 308 lines');
  const large = test.info().outputPath('large.epw');
  writeFileSync(large, Buffer.alloc(50_000_000, 'x'));
  await input.setInputFiles(large);
  await expect(panel).toContainText('The file has 50 MB');
  await input.setInputFiles(file(epw(8760)));
  await expect(panel).toContainText('Beyond the forecast plans go on with the typical year of Made-up Point');
  await expect
    .poll(async () => (await told(yard, DEMO.launch)).jobs.at(-1)?.planning?.typicalYear?.name)
    .toBe('Made-up Point');
  // In air of 3.5 °C nothing of hers can be put on beyond the forecast: the plan says so.
  await page.goto(`${yard.url}/boats/${DEMO.launch}/plan`);
  await expect(page.getByText(/Ready for the water|Not ready within/)).toBeVisible({ timeout: 60_000 });
  await page.goto(`${yard.url}/boats/${DEMO.launch}/weather`);
  await page.getByRole('button', { name: 'Typical year' }).click();
  await panel.getByRole('button', { name: 'Take off' }).click();
  await expect.poll(async () => (await told(yard, DEMO.launch)).jobs.at(-1)?.planning?.typicalYear).toBeNull();
});

test('a start that is offered says in how many weathers it holds', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/today`);
  const may = page.getByRole('region', { name: 'May go on now' });
  await expect(may.getByRole('listitem').filter({ hasText: 'Underwater hull' })).toContainText(/; holds in \d+ of 10/);
});

test('a coat begun against the air is asked about the next day, and the answer stands on its sheet', async ({
  page,
  yard,
}) => {
  const bundle = (await (await fetch(`${yard.url}/api/boats/${DEMO.gig}`)).json()) as {
    surfaces: { id: string }[];
    buildUps: { surfaceId: string; layers: { id: string; sheetRevisionId: string }[] }[];
  };
  const buildUp = bundle.buildUps.find((b) => b.layers.length > 0)!;
  const coat = uuid();
  const put = (kind: string, hoursAgo: number, body: object) =>
    fetch(`${yard.url}/api/entries/${uuid()}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', 'X-Jack-Plane': '1' },
      body: JSON.stringify({
        boatId: DEMO.gig,
        stream: 'coat',
        streamId: coat,
        kind,
        occurredAt: Date.parse(NOW) - hoursAgo * HOUR,
        painter: 'Ines',
        device: 'test',
        supersedes: null,
        body,
      }),
    });
  const started = await put('started', 20, {
    on: [{ surfaceId: buildUp.surfaceId, layerId: buildUp.layers.at(-1)!.id }],
    sheetRevisionId: buildUp.layers.at(-1)!.sheetRevisionId,
    method: 'roller',
    thinner: 0,
    dftMicron: 60,
    colour: 'grey',
    colourHex: '#888888',
    overrideReason: 'To level before it warms.',
    abradedGrit: null,
    against: ['air'],
  });
  expect(started.status).toBe(200);
  expect((await put('finished', 19, { litresOn: null })).status).toBe(200);
  await page.goto(`${yard.url}/boats/${DEMO.gig}/today`);
  const ask = page.getByRole('region', { name: 'How it turned out' });
  await expect(ask).toContainText(/begun against the air yesterday.* How did it turn out\?/i);
  await ask.getByLabel('Otherwise, in words').fill('Levelled well, a little dull forward.');
  await ask.getByRole('button', { name: 'Put down' }).click();
  await expect(ask).toBeHidden();
  await page.goto(`${yard.url}/boats/${DEMO.gig}/coat/${coat}`);
  await expect(page.getByText('Levelled well, a little dull forward.').first()).toBeVisible();
});
