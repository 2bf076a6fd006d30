import { writeFileSync } from 'node:fs';
import { DEMO, expect, noSidewaysScroll, useSettings } from './fixtures';

import { test, hullOf, bundleOf, stationsOf, download } from './hullHelp';

test.describe.configure({ mode: 'default' });

test('girths are taped by thumb: each is kept at once, gaps wait, a stray one is pointed at, undo takes it back', async ({
  page,
  yard,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await useSettings(page, {});
  await page.goto(`${yard.url}${hullOf(DEMO.sloop)}/${DEMO.hull}/girths`);
  // The first gap is where taping goes on.
  await expect(page.getByText('Station 3 of 9')).toBeVisible();
  const girth = page.getByLabel('Half-girth');
  await girth.fill('4\' 7 1/2"');
  await page.getByLabel('Half-breadth, if you can').fill('1.17');
  await page.getByLabel('Half-breadth, if you can').press('Enter');
  await expect(page.getByText('Station 4 of 9')).toBeVisible();
  await expect
    .poll(async () => (await stationsOf(yard))[2])
    .toMatchObject({ halfGirthM: expect.closeTo(1.4097, 6), halfBreadthM: 1.17 });
  await noSidewaysScroll(page);

  // Misread by thirty centimetres: the curve of the neighbours says so.
  await girth.fill('1.19');
  await expect(page.getByText(/Off the curve of its neighbours, which gives/)).toBeVisible();
  await page.getByRole('button', { name: 'Next station' }).click();
  await expect.poll(async () => (await stationsOf(yard))[3]?.halfGirthM).toBe(1.19);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await stationsOf(yard))[3]?.halfGirthM).toBeGreaterThan(1.4);
  await page.getByRole('button', { name: 'Station before' }).click();
  await expect(page.getByText(/Off the curve/)).toBeHidden();
  await expect(girth).not.toHaveValue('1.19');

  // What cannot be read stays, with its sentence, and is not sent.
  await girth.fill('about two');
  await girth.blur();
  await expect(page.getByText('A figure cannot be read. Type it again, or leave it empty.')).toBeVisible();
  await girth.fill('1.47');
  await page.getByRole('button', { name: 'Use it for this zone' }).click();
  await expect(page.getByRole('button', { name: 'In use for this zone' })).toBeVisible();
  await page.getByRole('link', { name: 'Back to the zone' }).click();
  await expect(page.getByRole('radio', { name: /Girths with a tape/ })).toBeChecked();
  await expect(page.getByText(/ways done, from/)).toBeVisible();
  const zone = (await bundleOf(yard, DEMO.sloop)).surfaces.find((s) => s.id === DEMO.hull)!;
  expect(zone.area.method).toBe('girths');
  expect(zone.areaM2).toBeGreaterThan(15);
});

test('girths come from a CSV with semicolons and decimal commas; bad cells are named; the export holds the same', async ({
  page,
  yard,
}, info) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${hullOf(DEMO.sloop)}/new`);
  await page.getByLabel('Kind of zone').selectOption('topsides');
  await page.getByLabel('Name').fill('Rail to waterline');
  await page.getByRole('button', { name: 'Tape' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Girths of Rail to waterline');
  const file = info.outputPath('girths.csv');
  writeFileSync(
    file,
    '\uFEFFTape girth (mm);Station (mm);note\r\n1100,5;4000;ok\r\nabout;2000;hm\r\n1000;0;\r\n"4\' 1 1/4""";6000;inches\r\n',
  );
  await page.getByRole('button', { name: 'From CSV' }).click();
  await page.getByLabel(/File with commas/).setInputFiles(file);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Bare figures are')).toHaveValue('mm');
  await expect(dialog.getByLabel('decimal comma')).toBeChecked();
  await expect(dialog.getByLabel('Position')).toHaveValue('1');
  await dialog.getByLabel('Half-breadth').selectOption('not there');
  await expect(dialog.getByText(/Row 3, column 1: "about" could not be read/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Take 4 stations in' }).click();
  const stations = async () =>
    (await bundleOf(yard, DEMO.sloop)).surfaces.find((s) => s.name === 'Rail to waterline')?.area.girths?.stations;
  await expect.poll(async () => (await stations())?.length).toBe(4);
  expect((await stations())?.map((s) => [s.xM, s.halfGirthM])).toEqual([
    [0, 1],
    [2, null],
    [4, 1.1005],
    [6, expect.closeTo(1.25095, 6)],
  ]);
  const { name, text } = await download(page, () => page.getByRole('button', { name: 'As CSV' }).click());
  expect(name).toContain('Rail to waterline girths.csv');
  expect(text.trim().split('\r\n')).toEqual([
    'position (m),half-girth (m),half-breadth (m)',
    '0,1,',
    '2,,',
    '4,1.1005,',
    '6,1.251,',
  ]);

  // A picture is no table, and what was taken in stays.
  const picture = info.outputPath('hull.csv');
  writeFileSync(picture, Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13, 1, 2, 3]));
  await page.getByRole('button', { name: 'From CSV' }).click();
  await page.getByLabel(/File with commas/).setInputFiles(picture);
  await expect(page.getByText(/not a text file/)).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByText('Station 1 of 4')).toBeVisible();
});

test('a table of offsets is brought in, corrected by hand, kept, exported, and used beside the other ways', async ({
  page,
  yard,
}, info) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${hullOf(DEMO.gig)}/offsets`);
  await expect(page.getByText('The hull is drawn here once')).toBeVisible();
  const file = info.outputPath('offsets.csv');
  // Waterlines down, stations along the first row: a wall-sided box of 6 m × 1.5 m, 0.8 m deep; one cell is bad.
  writeFileSync(file, 'height (m),0,2,4,6\n0,0.75,0.75,0.75,0.75\n0.4,0.75,oops,0.75,0.75\n0.8,0.75,0.75,0.75,0.75\n');
  await page.getByRole('button', { name: 'From CSV' }).click();
  await page.getByLabel(/File with commas/).setInputFiles(file);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Stations run')).toHaveValue('across');
  await expect(dialog.getByText(/Row 3, column 3/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Take 4 stations and 3 waterlines in' }).click();
  await page.getByLabel('Half-breadth, station 2, waterline 2').fill('750 mm');
  await page.getByLabel('Height she floats at').fill('0.3');
  // By hand: sides 2·6·0.3 and the flat bottom 6·1.5 below; 2·6·0.5 above.
  await expect(page.getByText('12.6', { exact: true })).toBeVisible();
  await expect(page.getByText('6.0', { exact: true }).last()).toBeVisible();
  await page.getByLabel('Position of station 4').fill('3');
  await expect(page.getByText('Station 4 comes before station 3. Put them in order.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save offsets' })).toBeDisabled();
  await page.getByLabel('Position of station 4').fill('6');
  await page.getByRole('button', { name: 'Save offsets' }).click();
  await expect(page.getByText('Drawn from her table of offsets.')).toBeVisible();
  expect((await bundleOf(yard, DEMO.gig)).hull?.offsets).toMatchObject({
    stationsM: [0, 2, 4, 6],
    waterlinesM: [0, 0.4, 0.8],
  });

  await page.getByRole('link', { name: 'Outside, to the gunwale', exact: true }).click();
  await page.getByRole('radio', { name: /Table of offsets/ }).check();
  await page.getByLabel('Up to, above the waterline').fill('0.2');
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('heading', { name: 'Zones' })).toBeVisible();
  await expect
    .poll(async () => (await bundleOf(yard, DEMO.gig)).surfaces.find((s) => s.name.startsWith('Outside'))?.areaM2)
    .toBeCloseTo(2 * 6 * 0.2, 6);
  await page.getByRole('link', { name: 'Table of offsets' }).click();
  const { text } = await download(page, () => page.getByRole('button', { name: 'As CSV' }).click());
  expect(text.split('\r\n')[0]).toBe('station (m),0,0.4,0.8');
});

test('patches: cut out of their zone or laid on it, bands worked out from the hull, open work holds up the coat', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${hullOf(DEMO.workboat)}`);
  const before = (await bundleOf(yard, DEMO.workboat)).surfaces.find((s) => s.name === 'Topsides')!;
  await page.getByRole('link', { name: 'Add a patch to Topsides' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('New patch');
  await page.getByLabel('Kind of patch on Topsides').selectOption('bondingStrip');
  await page.getByLabel('Area', { exact: true }).fill('1.2');
  await page.getByRole('button', { name: 'Open work' }).click();
  await page.getByLabel('What and where').fill('rubbing strake goes on here');
  await page.getByRole('button', { name: 'Save patch' }).click();
  await expect(page.getByText('Open: rubbing strake goes on here')).toBeVisible();
  await expect
    .poll(async () => (await bundleOf(yard, DEMO.workboat)).surfaces.find((s) => s.name === 'Topsides')?.areaM2)
    .toBeCloseTo(before.areaM2 - 1.2, 6);

  await page.getByRole('link', { name: 'Add a patch to Underwater hull' }).click();
  await page.getByLabel('Kind of patch on Underwater hull').selectOption('highWear');
  await expect(page.getByRole('radio', { name: /Length × width/ })).toBeChecked();
  await page.getByLabel('Width, round the edge').fill('0.4');
  await page.getByRole('button', { name: 'Save patch' }).click();
  await expect(page.getByRole('link', { name: 'High-wear band', exact: true })).toBeVisible();
  const after = (await bundleOf(yard, DEMO.workboat)).surfaces;
  const bottom = after.find((s) => s.name === 'Underwater hull')!;
  expect(bottom.areaM2).toBe(bottom.grossM2);
  expect(after.find((s) => s.name === 'High-wear band')?.areaM2).toBeGreaterThan(4);

  // A patch larger than its zone is refused, and what was typed stays.
  await page.getByRole('link', { name: 'Bonding strip, left bare', exact: true }).click();
  await page.getByLabel('Area', { exact: true }).fill('200');
  await page.getByRole('button', { name: 'Save patch' }).click();
  await expect(page.getByText(/The patches cut out of Topsides are larger than it is/)).toBeVisible();
  await expect(page.getByLabel('Area', { exact: true })).toHaveValue('200');

  // Under the stands of the sloop work is open: a start asks for its reason.
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat/start?on=01900000-0000-7000-8005-000000000007`);
  await expect(page.getByText(/Against it: Under the stands: stands to be moved, still open/)).toBeVisible();
  await page.getByRole('button', { name: 'Start coat' }).click();
  await expect(page.getByText('Something stands against it. Write why you start all the same.')).toBeVisible();
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/hull/01900000-0000-7000-8005-000000000007`);
  await page.getByLabel('done').check();
  await page.getByRole('button', { name: 'Save patch' }).click();
  await expect(page.getByText(/Open: The yard moves/)).toBeHidden();
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat/start?on=01900000-0000-7000-8005-000000000007`);
  // Only what its plan asks for is left to be told.
  await expect(page.getByText(/^Against it: abrading was planned before it/)).toBeVisible();
  await expect(page.getByText(/still open/)).toBeHidden();
  await expect(page.getByText('Masked first')).toBeHidden();
});

test('the drawing in three views: zones are picked on it, and it leaves as SVG', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${hullOf(DEMO.sloop)}`);
  for (const view of ['Profile', 'Plan', 'Section'] as const) {
    await page.getByRole('button', { name: view, exact: true }).click();
    const { name, text } = await download(page, () => page.getByRole('button', { name: 'SVG' }).click());
    expect(name).toBe(`Pewit’s Errand ${view.toLowerCase()}.svg`);
    const drawn = await page.evaluate((svg) => {
      const root = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
      return { tag: root.tagName, width: root.getAttribute('width'), paths: root.querySelectorAll('path').length };
    }, text);
    expect(drawn.tag).toBe('svg');
    expect(drawn.width).toMatch(/^\d+(\.\d)?mm$/);
    expect(drawn.paths).toBeGreaterThan(3);
  }
  const cut = page.getByLabel('Where the section is cut, from aft');
  await cut.fill('0.2');
  await expect(page.getByText('1.92', { exact: true })).toBeVisible();
  await page
    .getByRole('group', { name: /section, looking forward/ })
    .getByRole('button', { name: /Topsides/ })
    .focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Topsides');
});

test('the litres and the comb of a coat tell its area, beside the estimate, and may be used from then on', async ({
  page,
  yard,
}) => {
  await useSettings(page, {});
  const bundle = (await (await fetch(`${yard.url}/api/boats/${DEMO.sloop}`)).json()) as {
    entries: { kind: string; streamId: string; body: { on?: { surfaceId: string }[] } }[];
  };
  const coat = bundle.entries
    .filter((e) => e.kind === 'started' && e.body.on?.length === 1 && e.body.on[0]?.surfaceId === DEMO.keels)
    .at(-1)!;
  await page.goto(`${yard.url}/boats/${DEMO.sloop}/coat/${coat.streamId}`);
  await expect(page.getByText(/By its litres and its comb, this coat covered/)).toBeVisible();
  await page.getByRole('button', { name: 'Use it for the coats to come' }).click();
  await expect(page.getByText('That is the area in use.')).toBeVisible();
  await expect
    .poll(async () => (await bundleOf(yard, DEMO.sloop)).surfaces.find((s) => s.id === DEMO.keels)?.area.method)
    .toBe('calibrated');
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect
    .poll(async () => (await bundleOf(yard, DEMO.sloop)).surfaces.find((s) => s.id === DEMO.keels)?.area.method)
    .toBe('typed');
});

test('shapes are added up and taken off, with their ±', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${hullOf(DEMO.sloop)}/new`);
  await page.getByLabel('Kind of zone').selectOption('lockers');
  await page.getByLabel('Area', { exact: true }).fill('3');
  await page.getByRole('button', { name: 'Shapes' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Shapes of Lockers');
  const add = async (shape: string, figures: Record<string, string>) => {
    await page.getByRole('button', { name: 'Shape', exact: true }).click();
    const row = page.getByRole('listitem').last();
    await row.getByLabel('Shape', { exact: true }).selectOption(shape);
    for (const [label, value] of Object.entries(figures)) await row.getByLabel(label, { exact: true }).fill(value);
    return row;
  };
  await add('box', { Length: '1', Width: '0.8', Height: '0.5' });
  await expect(page.getByText('2.6', { exact: true }).first()).toBeVisible();
  const hatch = await add('rectangle', { Length: '2', Width: '2' });
  await hatch.getByLabel('take off').check();
  await expect(page.getByText(/The deductions are as large as the whole/)).toBeVisible();
  await hatch.getByLabel('Length', { exact: true }).fill('40 cm');
  await hatch.getByLabel('Width', { exact: true }).fill('40 cm');
  await page.getByRole('button', { name: 'Save and use it' }).click();
  await expect(page.getByRole('radio', { name: /Sum of shapes/ })).toBeChecked();
  await expect
    .poll(async () => (await bundleOf(yard, DEMO.sloop)).surfaces.find((s) => s.name === 'Lockers')?.areaM2)
    .toBeCloseTo(2.6 - 0.16, 9);
});
