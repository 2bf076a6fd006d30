import { OWN_HEADER } from '#contracts/rows/door';
import { test as base, expect, DEMO, demoYard, noSidewaysScroll, useSettings, type OwnServer } from './fixtures';

/** These change a demo yard: one of their own. */
const test = base.extend<object, { yard: OwnServer }>({ yard: [demoYard(), { scope: 'worker' }] });
test.beforeEach(({ page }) => useSettings(page, {}));
test.use({ viewport: { width: 390, height: 844 } });

const ZONE = (n: number) => `01900000-0000-7000-8005-0000000000${n}`;
const [AFT, FORE, SIDES, BILGE] = [31, 32, 33, 34].map(ZONE) as [string, string, string, string];
const prep = (yard: OwnServer, zone: string) => `${yard.url}/boats/${DEMO.launch}/prep/${zone}`;

interface Entry {
  readonly id: string;
  readonly kind: string;
  readonly streamId: string;
  readonly supersedes: string | null;
  readonly body: Record<string, unknown>;
}
const entriesOf = async (yard: OwnServer, boat = DEMO.launch) =>
  ((await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as { entries: Entry[] }).entries;

test('a list is there without a word typed; a tap logs a step, undo takes it back', async ({ page, yard, faults }) => {
  await page.goto(prep(yard, BILGE));
  const steps = page.getByRole('list', { name: 'Steps', exact: true });
  await expect(steps.getByRole('listitem')).toHaveCount(7);
  await expect(steps).toContainText('24 h with a fan');
  // 6.5 m² at 2 L: 13 L, and 1 : 50 of it. [common practice]
  await expect(steps).toContainText('260 mL in 13 L of water, 1 : 50');
  await expect(page.getByRole('region', { name: 'Clocks of the surface' })).toContainText(/Drying.*dry /);
  await noSidewaysScroll(page);
  await page.getByRole('button', { name: 'Abrade: done now' }).click();
  await expect(page.getByRole('button', { name: 'Abrade: done, look at it' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Abrade: done now' })).toBeVisible();
  await expect
    .poll(async () => (await entriesOf(yard)).filter((e) => e.streamId === BILGE).map((e) => e.kind))
    .toEqual(expect.arrayContaining(['prepared', 'withdrawn']));
  expect(faults).toEqual([]);
});

test('washed down on by a neighbour: the wash comes back, on several zones at once, and Today says so', async ({
  page,
  yard,
}) => {
  await page.goto(prep(yard, AFT));
  await expect(page.getByRole('button', { name: 'Vacuum: done, look at it' })).toBeVisible();
  await page.getByRole('button', { name: 'Something fell on it' }).click();
  await page.getByRole('button', { name: 'Washed down on by a neighbour' }).click();
  await page.getByRole('checkbox', { name: 'Bottom, forward half' }).check();
  await page.getByRole('button', { name: 'Log it' }).click();
  await expect(page.getByText(/Vacuum .*washed down on by a neighbour .*since: again/)).toBeVisible();
  await expect
    .poll(async () =>
      (await entriesOf(yard))
        .filter((e) => e.kind === 'dirtied')
        .map((e) => e.streamId)
        .sort(),
    )
    .toEqual([AFT, FORE].sort());
  await page.goto(`${yard.url}/boats/${DEMO.launch}/today`);
  await expect(page.getByRole('link', { name: 'Get Bottom, aft half ready' })).toBeVisible();
  await page.getByRole('link', { name: 'Get Bottom, aft half ready' }).click();
  await page.getByRole('button', { name: 'Vacuum: done now' }).click();
  await expect(page.getByRole('button', { name: 'Vacuum: done, look at it' })).toBeVisible();
});

test('a step the next day: with its time, by whom, and not in the future', async ({ page, yard }) => {
  await page.goto(prep(yard, FORE));
  await page.getByRole('button', { name: 'Scrape', exact: true }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('When').fill('2026-05-20T09:00');
  await sheet.getByLabel('Who').fill('Bram');
  await sheet.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(sheet.getByRole('alert')).toHaveText(/This time has not come yet/);
  await sheet.getByLabel('When').fill('2026-05-13T16:30');
  await sheet.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(page.getByText(/yesterday 16:30, Bram/)).toBeVisible();
});

test('a step is left out with a reason, added and put first', async ({ page, yard }) => {
  await page.goto(prep(yard, FORE));
  const steps = page.getByRole('list', { name: 'Steps', exact: true });
  await page.getByRole('button', { name: /^Wipe/ }).last().click();
  await page.getByRole('button', { name: 'Leave it out' }).first().click();
  await page.getByRole('dialog').getByRole('button', { name: 'Leave it out' }).first().click();
  await expect(page.getByText(/whoever looks at it next year/)).toBeVisible();
  await page.getByLabel('Why it is left out').fill('The scuff was vacuumed twice');
  await page.getByRole('dialog').getByRole('button', { name: 'Leave it out' }).first().click();
  await expect(steps).toContainText('Left out: The scuff was vacuumed twice');
  await page.getByRole('button', { name: /change the list/ }).click();
  await page.getByLabel('In words').fill('Plug the log fitting');
  await page.getByRole('button', { name: 'Save the list' }).click();
  await expect(steps).toContainText('Plug the log fitting');
  await page.getByRole('button', { name: 'Change the order' }).click();
  const up = page.getByRole('button', { name: 'Plug the log fitting: earlier' });
  const place = async () =>
    (await steps.getByRole('listitem').allTextContents()).findIndex((t) => t.includes('Plug the log fitting'));
  const before = await place();
  await up.click();
  await expect.poll(place).toBe(before - 1);
});

test('fairing: the guide coat is blocked, the look finds lows, a third round begins where they are', async ({
  page,
  yard,
}) => {
  await page.goto(prep(yard, SIDES));
  await expect(page.getByRole('heading', { name: /Fairing, round 2/ })).toBeVisible();
  await page.getByRole('button', { name: 'Block: done now' }).click();
  await page.getByRole('button', { name: 'Look along it: done now' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(sheet.getByRole('alert')).toHaveText(/Say what the look found/);
  await sheet.getByRole('button', { name: 'Low places' }).click();
  await sheet.getByRole('group', { name: 'Topsides, port' }).click({ position: { x: 60, y: 25 } });
  await sheet.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(page.getByText('Found: low places', { exact: true })).toBeVisible();
  await expect(page.getByText('Round 3: the last look found more.')).toBeVisible();
});

test('rust: the share that is black says what is next; what is left wants a reason and a day', async ({
  page,
  yard,
}) => {
  await page.goto(prep(yard, FORE));
  await page.getByRole('button', { name: 'Look at rust' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel(/Converted/).fill('40');
  await expect(sheet.getByRole('status')).toContainText('60 % is still red');
  await sheet.getByLabel('Plate now, mm').fill('0.4 cm');
  await expect(sheet.getByText('80 % of the plate is left.')).toBeVisible();
  await sheet.getByLabel('Next').selectOption('leave');
  await sheet.getByRole('button', { name: 'Log the look' }).click();
  await expect(sheet.getByRole('alert')).toHaveText(/wants a reason and a day/);
  await sheet.getByLabel('Why it is left').fill('Behind the tank, the season ends');
  await sheet.getByLabel('To be done by').fill('2027-04-01');
  await sheet.getByRole('button', { name: 'Log the look' }).click();
  await expect(page.getByText('Left until 2027-04-01: Behind the tank, the season ends')).toBeVisible();
});

test('opening up finds more: open work with steps of its own, and the zone waits for it', async ({ page, yard }) => {
  await page.goto(prep(yard, BILGE));
  await page.getByRole('button', { name: 'Found something' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: /Log it/ }).click();
  await expect(sheet.getByText('Write what was found.')).toBeVisible();
  await sheet.getByLabel('What it takes').selectOption('repair');
  await sheet.getByLabel('What was found').fill('Soft limber board');
  await sheet.getByRole('button', { name: /Log it/ }).click();
  await expect(page.getByText('Soft limber board: back to what is sound, edges tapered.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Soft limber board: back to what is sound, edges tapered.')).toHaveCount(0);
  const openWork = async () =>
    (
      (await (await fetch(`${yard.url}/api/boats/${DEMO.launch}`)).json()) as {
        surfaces: { id: string; openWork: object[] }[];
      }
    ).surfaces.find((s) => s.id === BILGE)?.openWork;
  await expect.poll(openWork).toEqual([]);
});

test('no more is blasted than can be primed while it holds', async ({ page, yard }) => {
  await page.goto(prep(yard, AFT));
  await page.getByRole('button', { name: 'How much to blast' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Still to blast').fill('60');
  await sheet.getByLabel('Blasted in an hour').fill('8');
  await sheet.getByLabel('Primed in an hour, each').fill('10');
  await sheet.getByLabel('Painters').fill('2');
  await sheet.getByLabel('Hours between').fill('1');
  await sheet.getByLabel('Hours left for primer').fill('9');
  // Three hours of blasting in the four that bare metal holds, by hand: 24 m².
  await expect(sheet.getByRole('status')).toContainText('24.0 m²');
  await expect(sheet.getByRole('status')).toContainText('3 days for all of it');
  await sheet.getByLabel('Painters').fill('0');
  await expect(sheet.getByRole('alert')).toHaveText(/Painters must be more than zero/);
});

test('masking: tape on and off with its days, anodes hold up the launch until somebody has looked', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.launch}/prep/masking`);
  await noSidewaysScroll(page);
  const edges = page.getByRole('region', { name: 'Edges' });
  await expect(edges).toContainText(/On since .*off by/);
  await edges.getByRole('button', { name: 'Topsides / Bottom, forward half: tape is on' }).click();
  await page.getByLabel('Lives, days').fill('none');
  await page.getByRole('button', { name: 'It is on' }).click();
  await expect(page.getByText(/printed on the roll/)).toBeVisible();
  await page.getByLabel('Lives, days').fill('2');
  await page.getByRole('button', { name: 'It is on' }).click();
  await expect(edges.getByRole('button', { name: 'Tape is off' })).toHaveCount(2);
  await edges.getByRole('button', { name: 'Tape is off' }).first().click();
  await expect(edges.getByRole('button', { name: 'Tape is off' })).toHaveCount(1);
  const never = page.getByRole('region', { name: 'Never painted' });
  await expect(never.getByRole('status')).toContainText('to unmask or look at before she floats');
  for (const name of ['4 × Anode: clear', 'Propeller and shaft: clear'])
    await page.getByRole('button', { name }).click();
  await edges.getByRole('button', { name: 'Tape is off' }).click();
  await expect(page.getByText('All of it is clear: nothing here holds up the launch.')).toBeVisible();
});

test('what was masked and is no longer an edge of hers can still be said to be off', async ({ page, yard }) => {
  const put = (path: string, body: object) =>
    fetch(`${yard.url}/api/${path}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', [OWN_HEADER]: '1' },
      body: JSON.stringify(body),
    });
  const answer = await put('entries/01900000-0000-7000-8010-00000000abcd', {
    boatId: DEMO.gig,
    stream: 'zone',
    streamId: ZONE(21),
    kind: 'masked',
    occurredAt: Date.parse('2026-05-14T08:00:00Z'),
    painter: 'Ines',
    device: 'e2e',
    supersedes: null,
    body: { job: 'edge:gone', lifeDays: 3, pull: 'wet', text: 'Gunwale / Outside' },
  });
  expect(answer.status).toBe(200);
  await page.goto(`${yard.url}/boats/${DEMO.gig}/prep/masking`);
  await page.getByRole('button', { name: 'Gunwale / Outside: off' }).click();
  await expect(page.getByRole('button', { name: 'Gunwale / Outside: off' })).toHaveCount(0);
});

test('stands moved once for the boat: the pad comes free, the new place is a patch that shares her coats', async ({
  page,
  yard,
}) => {
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/prep/stands`);
  await page.getByLabel('New pads on Underwater hull').fill('0.4');
  await page.getByRole('button', { name: 'The yard has moved them' }).click();
  const alert = page.getByRole('alert');
  if (await alert.isVisible().catch(() => false)) {
    await expect(alert).toHaveText(/does not bear yet/);
    await page.getByLabel('Why they are moved').fill('Only the rudder is touched');
    await page.getByRole('button', { name: 'The yard has moved them' }).click();
  }
  await expect(page.getByText(/No stand patch waits|Underwater hull, new pads/).first()).toBeVisible();
  await expect
    .poll(async () => (await entriesOf(yard, DEMO.sloop)).filter((e) => e.kind === 'standsMoved').length)
    .toBe(1);
  const boat = (await (await fetch(`${yard.url}/api/boats/${DEMO.sloop}`)).json()) as {
    surfaces: { name: string; patchKind: string | null; sharedCoats: number | null; openWork: { done: boolean }[] }[];
  };
  const pad = boat.surfaces.find((s) => s.name === 'Underwater hull, new pads');
  expect(pad).toMatchObject({ patchKind: 'standPad', openWork: [{ done: false }] });
  expect(pad?.sharedCoats).toBeGreaterThan(0);
  expect(boat.surfaces.find((s) => s.name === 'Under the stands')?.openWork.every((w) => w.done)).toBe(true);
});

test('way out of the bilge: farthest first, the last by the exit, and who stays outside', async ({ page, yard }) => {
  await page.goto(prep(yard, BILGE));
  await page.getByRole('button', { name: 'Way out' }).click();
  const order = page.getByRole('list', { name: 'Order of the faces' });
  await expect(order.getByRole('listitem').first()).toContainText('Under the engine');
  await expect(order.getByRole('listitem').last()).toContainText('Bay under the hatch last, by the exit');
  await page.getByLabel('Who stays outside').fill('Bram');
  await page.getByRole('button', { name: 'Keep the order' }).click();
  await expect(page.getByText(/No forced air, outside: Bram/)).toBeVisible();
});

test('a picture of a step stands at the step', async ({ page, yard }) => {
  await page.goto(prep(yard, BILGE));
  await page.getByRole('button', { name: 'Look it over: done, look at it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Take a picture' }).click();
  await page.getByLabel('What it shows').fill('Behind the engine');
  // One pixel of PNG.
  const dot = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'dot.png', mimeType: 'image/png', buffer: Buffer.from(dot, 'base64') });
  const steps = page.getByRole('list', { name: 'Steps', exact: true });
  const step = steps.getByRole('listitem').filter({ hasText: 'Look it over' });
  await expect(step.getByRole('img', { name: 'Behind the engine' })).toBeVisible();
});

test('before a first coat it is asked once whether the structure is done', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.launch}/coat/start?on=${AFT}`);
  await expect(page.getByText('bare metal: primer by 12:28').first()).toBeVisible();
  const asked = page.getByRole('group', { name: 'Structure first' });
  await expect(asked).toContainText('First coat on Bottom, aft half');
  await asked.getByRole('button', { name: 'It is done' }).click();
  await expect(asked).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Start coat' })).toBeVisible();
  await expect(asked).toHaveCount(0);
});

test('what was abraded under Prep is what the coat is started over', async ({ page, yard }) => {
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/prep/01900000-0000-7000-8005-000000000011`);
  await page
    .getByRole('button', { name: /^Abrade/ })
    .last()
    .click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Grit').fill('150');
  await sheet.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Abrade: done, look at it' })).toBeVisible();
  await page.goto(`${yard.url}/boats/${DEMO.workboat}/coat/start?on=01900000-0000-7000-8005-000000000011`);
  await expect(page.getByLabel('Abraded with grit')).toHaveValue('150');
});

test('all of it is in the record, what was taken back struck through', async ({ page, yard }) => {
  await page.goto(prep(yard, BILGE));
  await page.getByRole('button', { name: 'Vacuum: done now' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Vacuum: done now' })).toBeVisible();
  await page.goto(`${yard.url}/boats/${DEMO.launch}/record`);
  const got = page.getByRole('region', { name: 'Got ready' });
  await expect(got).toContainText('Blast, profile 72 µm');
  await expect(got).toContainText('Masked: Topsides / Bottom, aft half');
  await expect(got).toContainText('How she stands: 4 points');
  await expect(got.locator('s').first()).toBeVisible();
});

test('a boat typed in fresh, US units, a half-hour zone: her list, doses in ounces, her day', async ({
  page,
  empty,
}) => {
  await page.context().clearCookies();
  await page.addInitScript(() =>
    localStorage.setItem(
      'jack-plane/settings',
      JSON.stringify({ painter: 'Ravi', device: 'p', units: { system: 'us' } }),
    ),
  );
  const id = '01900000-0000-7000-8001-00000000aaaa';
  const zone = '01900000-0000-7000-8005-00000000aaaa';
  const put = async (path: string, body: object) => {
    const answer = await fetch(`${empty.url}/api/${path}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', [OWN_HEADER]: '1' },
      body: JSON.stringify(body),
    });
    expect(answer.status, await answer.clone().text()).toBeLessThan(300);
  };
  await put(`boats/${id}`, {
    name: 'Long name of a boat that nobody would give her, but somebody did',
    hullMaterial: 'grp',
    keels: 'single',
    form: 'finKeel',
    loaM: 9,
    lwlM: 8,
    beamM: 3,
    draftM: 1.5,
    freeboardM: 1,
    place: 'Somewhere east',
    latitudeDeg: 18,
    timeZone: 'Asia/Kolkata',
    waters: 'salt',
    shelter: 'open',
    estimated: [],
    version: 0,
  });
  await put(`surfaces/${zone}`, {
    boatId: id,
    name: 'Bilge',
    kind: 'bilge',
    substrate: 'laminate',
    exposure: 'bilge',
    existing: 'bare',
    area: { method: 'typed', dimensions: {}, typed: { areaM2: 5, share: 0.1 } },
    sort: 1,
    version: 0,
  });
  await page.goto(`${empty.url}/boats/${id}/prep`);
  const steps = page.getByRole('list', { name: 'Steps', exact: true });
  await expect(steps.getByRole('listitem')).toHaveCount(7);
  // 5 m² at 2 L: 10 L of water and 0.2 L: 2.64 US gal and 6.8 fl oz, by hand.
  await expect(steps).toContainText(/6\.8 fl oz in 3 US gal|6\.8 fl oz in 2\.6/);
  await page.getByRole('button', { name: 'Degrease: done now' }).click();
  // 9:40 UTC is 15:10 there.
  await expect(steps).toContainText(/15:1\d, Ravi/);
  await expect(page.getByRole('region', { name: 'Clocks of the surface' })).toContainText('Drying');
});
