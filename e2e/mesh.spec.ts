import { createHash } from 'node:crypto';
import { readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { DEMO, expect, useSettings } from './fixtures';

import { test, hullOf, PUNT, PUNT_ASCII, bundleOf } from './hullHelp';

test.describe.configure({ mode: 'default' });

test('a mesh in millimetres is laid along the boat, checked, cut, kept with its file, and used', async ({
  page,
  yard,
  faults,
}) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}/boats/new`);
  await page.getByLabel('Name').fill('Mesh Punt');
  for (const [label, value] of [
    ['Length', '4'],
    ['Waterline length', '3.6'],
    ['Beam', '1.4'],
    ['Draught', '0.15'],
    ['Freeboard', '0.35'],
  ] as const)
    await page.getByLabel(label).first().fill(value);
  await page.getByRole('checkbox', { name: /^Underwater hull/ }).uncheck();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page).toHaveURL(/hull\/new$/);
  const boat = /boats\/([^/]+)/.exec(page.url())?.[1] as string;
  await page.goto(`${yard.url}${hullOf(boat)}/new`);
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('heading', { name: 'Zones' })).toBeVisible();
  await page.getByRole('link', { name: 'Bring in a mesh' }).click();
  await page.getByLabel(/STL or OBJ file/).setInputFiles(PUNT);
  await expect(page.getByText('28 triangles', { exact: false })).toBeVisible();
  await expect(page.getByLabel('Unit of the file')).toHaveValue('mm');
  await expect(page.getByText('The mesh is closed and sound.')).toBeVisible();
  await expect(page.getByText(/comes out at/)).toHaveCount(0);
  // Taken for metres, it is four kilometres long, and that is said.
  await page.getByLabel('Unit of the file').selectOption('m');
  await expect(page.getByText(/The length comes out at 4000.00 m; the boat’s own is 4.00 m/)).toBeVisible();
  await page.getByLabel('Unit of the file').selectOption('mm');
  await expect(page.getByText(/comes out at/)).toHaveCount(0);

  const below = page.locator('dl div', { hasText: /^Below the waterline/ }).locator('dd');
  const before = Number.parseFloat((await below.textContent()) as string);
  const line = page.getByLabel('Waterline above the lowest point');
  await line.fill('25 cm');
  await expect.poll(async () => Number.parseFloat((await below.textContent()) as string)).toBeGreaterThan(before + 0.4);
  await page.getByLabel('Trim, down by the bow, °').fill('x');
  await expect(page.getByText('Type degrees, for example 1.5 or −2.')).toBeVisible();
  await page.getByLabel('Trim, down by the bow, °').fill('-1');

  // The water in the 3D view is a handle for the waterline.
  const scene = page.getByRole('application');
  await scene.scrollIntoViewIfNeeded();
  // It is drawn by a worker that has to be fetched first: tried again until it answers.
  await expect(async () => {
    await scene.scrollIntoViewIfNeeded();
    const box = (await scene.boundingBox())!;
    await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.5);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.5 - 20, { steps: 4 });
    await page.mouse.up();
    await expect.poll(async () => Number(await line.inputValue()), { timeout: 2000 }).toBeGreaterThan(0.27);
  }).toPass({ timeout: 40_000 });
  // A slow machine may still be at what was dragged, which then comes between taking out what stands there and typing.
  await expect(async () => {
    await line.fill('0.15');
    await expect(line).toHaveValue('0.15', { timeout: 500 });
  }).toPass({ timeout: 20_000 });
  await page.getByLabel('Trim, down by the bow, °').fill('0');

  await expect(page.getByRole('checkbox', { name: /Underwater hull/ })).toBeChecked();
  await page.getByRole('button', { name: 'Keep it with the boat' }).click();
  await expect(page.getByText('Drawn from her mesh.')).toBeVisible();
  await expect.poll(async () => (await bundleOf(yard, boat)).surfaces[0]?.area.method).toBe('mesh');
  const { hull, surfaces } = await bundleOf(yard, boat);
  expect(hull?.mesh?.size.lengthM).toBeCloseTo(4, 2);
  expect(surfaces[0]?.areaM2).toBeCloseTo(hull?.mesh?.areas.belowM2 as number, 9);
  const sent = readFileSync(PUNT);
  expect(hull?.mesh?.fileHash).toBe(createHash('sha256').update(sent).digest('hex'));
  expect(
    Buffer.compare(
      Buffer.from(await (await fetch(`${yard.url}/api/files/${hull?.mesh?.fileHash}`)).arrayBuffer()),
      sent,
    ),
  ).toBe(0);

  await page.getByRole('link', { name: 'Mesh of the hull' }).click();
  await page.getByRole('button', { name: /Open punt-binary.stl/ }).click();
  await expect(line).toHaveValue('0.15');
  await expect(page.getByText('28 triangles', { exact: false })).toBeVisible();
  // Undo takes back first the zone, then the mesh.
  await page.goto(`${yard.url}${hullOf(boat)}`);
  expect(faults).toEqual([]);
});

test('what is no mesh is refused in a sentence, and what was there stays', async ({ page, yard }, info) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${hullOf(DEMO.workboat)}/mesh`);
  await page.getByRole('button', { name: /Open grey wether/ }).click();
  await expect(page.getByText('Below the waterline', { exact: true })).toBeVisible();
  await page.getByLabel('Waterline above the lowest point').fill('0.6');
  const whole = readFileSync(PUNT);
  const huge = info.outputPath('huge.stl');
  writeFileSync(huge, '');
  truncateSync(huge, 200 * 1024 * 1024);
  const write = (name: string, content: string | Buffer) => {
    const path = info.outputPath(name);
    writeFileSync(path, content);
    return path;
  };
  const choose = page.getByLabel(/STL or OBJ file/);
  for (const [path, sentence] of [
    [write('note.stl', 'the boat is at the far end'), /too short to be one/],
    [write('cut.stl', whole.subarray(0, 700)), /speaks of 28 triangles and holds 12. It was cut off/],
    [
      write('cut-ascii.stl', readFileSync(PUNT_ASCII, 'utf8').slice(0, 900)),
      /stops after \d triangles without its end/,
    ],
    [write('void.stl', 'solid void\nendsolid void\n'), /not one triangle/],
    [write('face.obj', 'v 0 0 0\nv 1 0 0\nf 1 2 7\n'), /Line 3: there is no vertex 7/],
    [huge, /The file has 200 MB; up to 100 MB are read/],
  ] as const) {
    await choose.setInputFiles(path);
    await expect(page.getByRole('alert')).toContainText(sentence);
    await expect(page.getByLabel('Waterline above the lowest point')).toHaveValue('0.6');
  }
});
