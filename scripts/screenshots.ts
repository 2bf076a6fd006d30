import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { launch } from './browser';
import { startServer } from './server';

/**
 * Pictures of the main views from the demo data, its clock stopped, into docs/screenshots (or the folder
 * given). `npm run build` first. Names after it choose some: `npm run screenshots -- /tmp/x today mix`.
 */
const BOAT = '01900000-0000-7000-8001-000000000001';
const HULL = '01900000-0000-7000-8005-000000000001';
const KEELS = '01900000-0000-7000-8005-000000000002';
const LAUNCH = '01900000-0000-7000-8001-000000000004';
const SHEET = '01900000-0000-7000-8002-000000000001';
const desk = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };

const VIEWS: Record<string, { path: string; size: typeof desk; dark?: boolean; us?: boolean; full?: boolean }> = {
  yard: { path: '/', size: desk },
  today: { path: `/boats/${BOAT}/today`, size: desk },
  'today-phone': { path: `/boats/${BOAT}/today`, size: phone },
  hull: { path: `/boats/${BOAT}/hull`, size: desk },
  film: { path: `/boats/${BOAT}/film/${HULL}`, size: desk },
  stores: { path: '/stores', size: desk },
  prep: { path: `/boats/${LAUNCH}/prep/01900000-0000-7000-8005-000000000031`, size: desk },
  'prep-phone': { path: `/boats/${LAUNCH}/prep/01900000-0000-7000-8005-000000000032`, size: phone },
  waterline: { path: `/boats/${LAUNCH}/hull/waterline`, size: desk },
  mix: { path: `/boats/${BOAT}/mix?on=${KEELS}`, size: desk },
  plan: { path: 'window-chart', size: desk },
  'plan-phone': { path: 'plan-down', size: phone },
  'coat-phone': { path: 'going-on', size: phone },
  record: { path: `/boats/${BOAT}/record`, size: desk },
  weather: { path: `/boats/${BOAT}/weather`, size: desk },
  sheet: { path: `/sheets/${SHEET}`, size: desk },
  'tin-phone': { path: 'tin', size: phone },
  'log-phone': { path: '/log', size: phone },
  'today-shed': { path: `/boats/${BOAT}/today`, size: desk, dark: true, us: true },
};
const EXTRA: typeof VIEWS = {
  shopping: { path: `/boats/${BOAT}/film/buy`, size: desk },
  ledger: { path: `/stores/ledger/${SHEET}`, size: desk },
  'planned-by': { path: `/boats/${LAUNCH}/plan/by`, size: desk },
  'build-up': { path: '/build-ups/01900000-0000-7000-8014-000000000090', size: desk },
  'mix-phone': { path: `/boats/${BOAT}/mix?on=${KEELS}`, size: phone },
  'start-phone': { path: `/boats/${BOAT}/coat/start?on=${KEELS}`, size: phone },
  'girths-phone': { path: `/boats/${BOAT}/hull/${HULL}/girths`, size: phone },
  'film-stop': {
    path: `/boats/01900000-0000-7000-8001-000000000002/film/01900000-0000-7000-8005-000000000014`,
    size: desk,
  },
  coat: { path: 'finished', size: desk },
  'sheet-edit': { path: `/sheets/${SHEET}/edit`, size: desk },
  mesh: { path: 'mesh', size: desk },
  'boat-new': { path: 'boat-new', size: desk },
  'film-coat': { path: 'film-coat', size: desk },
  'film-us': { path: `/boats/${BOAT}/film/${KEELS}`, size: desk, us: true, dark: true },
  'film-empty': { path: `/boats/${BOAT}/film/01900000-0000-7000-8005-000000000006`, size: desk },
  'film-named': { path: 'film-named', size: desk },
  schools: { path: `/boats/${BOAT}/film/${HULL}/schools`, size: desk },
  borders: { path: `/boats/${BOAT}/film/borders`, size: desk },
  swap: { path: `/boats/${BOAT}/film/swap`, size: desk },
  'build-ups': { path: '/build-ups', size: desk },
  'stores-phone': { path: '/stores', size: phone },
  'shopping-phone': { path: `/boats/${BOAT}/film/buy`, size: phone },
  'sheet-page': { path: `/sheets/${SHEET}`, size: desk, full: true },
  'sheets-phone': { path: '/sheets', size: phone },
  'yard-phone': { path: '/', size: phone },
  'film-phone': { path: `/boats/${BOAT}/film/${HULL}`, size: phone },
  start: { path: `/boats/${BOAT}/coat/start?on=${KEELS}`, size: desk },
  zone: { path: `/boats/${BOAT}/hull/${HULL}`, size: desk, full: true },
  'start-pads': { path: `/boats/${BOAT}/coat/start?on=01900000-0000-7000-8005-000000000007`, size: desk },
  girths: { path: `/boats/${BOAT}/hull/${HULL}/girths`, size: desk },
  shapes: { path: `/boats/${BOAT}/hull/01900000-0000-7000-8005-000000000007/shapes`, size: desk },
  offsets: { path: `/boats/${BOAT}/hull/offsets`, size: desk },
  'patch-new': { path: `/boats/${BOAT}/hull/${HULL}/patch`, size: desk },
  'mesh-phone': { path: 'mesh', size: phone },
  'zone-phone': { path: `/boats/${BOAT}/hull/${HULL}`, size: phone },
  'hull-plan': { path: 'hull-plan', size: desk },
  section: { path: 'section', size: desk },
  'zone-new': { path: `/boats/${BOAT}/hull/new`, size: desk },
  'hull-phone': { path: `/boats/${BOAT}/hull`, size: phone },
  'sheet-new': { path: '/sheets/new/quick', size: phone },
  'sheet-full': { path: '/sheets/new/full', size: desk },
  sheets: { path: '/sheets', size: desk },
  settings: { path: '/settings', size: desk },
  'settings-phone': { path: '/settings', size: phone, full: true },
  'coat-place': { path: `/boats/${BOAT}/coat`, size: phone },
  'record-phone': { path: `/boats/${BOAT}/record`, size: phone },
  'weather-phone': { path: `/boats/${BOAT}/weather`, size: phone },
  'mix-us': { path: `/boats/${BOAT}/mix?on=${HULL}`, size: desk, us: true, dark: true },
  notfound: { path: '/nowhere', size: phone },
};

/** Views that are reached by doing something first. */
const WORKBOAT = '01900000-0000-7000-8001-000000000002';
/** The plan stands, and no better one is looked for. */
const planned = async (page: Page) => {
  await page.getByText('Ready for the water').waitFor();
  await page.getByText('looking for better').waitFor({ state: 'hidden', timeout: 120_000 });
};
const STEPS: Record<string, { path: string; then: (page: Page) => Promise<void> }> = {
  'boat-new': {
    path: '/boats/new?for=buy',
    then: async (page) => {
      await page.getByLabel('Name').fill('Marsh Hen');
      await page.getByLabel('Length', { exact: true }).fill('9.6');
      await page.getByLabel('Beam').fill('3.1');
      await page.getByLabel('Draught', { exact: true }).fill('1.5');
    },
  },
  tin: {
    path: `/sums?sheet=${SHEET}`,
    then: async (page) => {
      await page.getByLabel('How much base').fill('1.2');
      await page.getByLabel('At', { exact: true }).fill('14');
      await page.locator('h1').click();
    },
  },
  mesh: {
    path: `/boats/${WORKBOAT}/hull/mesh`,
    then: async (page) => {
      await page.getByRole('button', { name: /Open grey wether/ }).click();
      await page.getByText('Below the waterline', { exact: true }).waitFor();
      // The scene draws in a worker of its own, a frame or two later.
      await page.waitForTimeout(2500);
    },
  },
  'film-coat': {
    path: `/boats/${BOAT}/film/${HULL}`,
    then: (page) => page.getByRole('button', { name: /^5 Saltgate tie/ }).click(),
  },
  'film-named': {
    path: `/boats/${BOAT}/film/${KEELS}`,
    then: (page) => page.getByRole('button', { name: 'Named build-ups' }).click(),
  },
  'window-chart': { path: `/boats/${BOAT}/plan`, then: planned },
  'plan-down': { path: `/boats/${LAUNCH}/plan`, then: planned },
  'hull-plan': { path: `/boats/${WORKBOAT}/hull`, then: (page) => page.getByRole('button', { name: 'Plan' }).click() },
  section: { path: `/boats/${BOAT}/hull`, then: (page) => page.getByRole('button', { name: 'Section' }).click() },
};

const [out = 'docs/screenshots', ...names] = process.argv.slice(2);
const all = { ...VIEWS, ...EXTRA };
const chosen = names.length > 0 ? names : Object.keys(VIEWS);
const data = mkdtempSync(join(tmpdir(), 'jack-plane-pictures-'));
mkdirSync(out, { recursive: true });
const server = await startServer({
  JACKPLANE_DEMO: '1',
  JACKPLANE_DATA: data,
  JACKPLANE_NOW: '2026-05-14T09:40:00Z',
  JACKPLANE_FREEZE: '1',
});
const browser = await launch();
try {
  const coats = async (boat: string) =>
    (
      (await (await fetch(`${server.url}/api/boats/${boat}`)).json()) as {
        entries: { stream: string; streamId: string; kind: string }[];
      }
    ).entries.filter((e) => e.stream === 'coat');
  const goingOn = (await coats(WORKBOAT)).findLast((e) => e.kind === 'started')?.streamId;
  const finished = (await coats(BOAT)).filter((e) => e.kind === 'finished').at(-2)?.streamId;
  for (const name of chosen) {
    const view = all[name];
    if (!view) throw new Error(`There is no view ${name}. Choose from ${Object.keys(all).join(', ')}.`);
    const steps = STEPS[view.path];
    const path = steps
      ? steps.path
      : view.path === 'going-on'
        ? `/boats/${WORKBOAT}/coat/${goingOn}`
        : view.path === 'finished'
          ? `/boats/${BOAT}/coat/${finished}`
          : view.path;
    const page = await browser.newPage({
      viewport: view.size,
      deviceScaleFactor: 1,
      reducedMotion: 'reduce',
      timezoneId: 'Atlantic/Canary',
      locale: 'en-GB',
    });
    page.on('console', (m) => m.type() === 'error' && console.error(`${name}: ${m.text()}`));
    page.on('pageerror', (e) => console.error(`${name}: ${e.message}`));
    await page.addInitScript(
      (s) => localStorage.setItem('jack-plane/settings', s),
      JSON.stringify({
        painter: 'Ines',
        theme: view.dark ? 'shed' : 'chalk',
        units: { system: view.us ? 'us' : 'metric' },
      }),
    );
    await page.goto(server.url + path, { waitUntil: 'networkidle' });
    await page.waitForSelector('h1');
    if (steps) await steps.then(page);
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: join(out, `${name}.png`), fullPage: view.full ?? false });
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    if (wide > 0) console.error(`${name}: scrolls sideways by ${wide} px`);
    await page.close();
  }
} finally {
  await browser.close();
  await server.stop();
  rmSync(data, { recursive: true, force: true });
}
