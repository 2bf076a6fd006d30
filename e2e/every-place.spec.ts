import AxeBuilder from '@axe-core/playwright';
import { DEMO, expect, noSidewaysScroll, test, useSettings } from './fixtures';

const boat = `/boats/${DEMO.sloop}`;
const PLACES = [
  ['yard', '/', 'Boats in hand'],
  ['new boat', '/boats/new', 'New boat'],
  ['log a coat', '/log', 'Log a coat'],
  ['at the tin', `/sums?sheet=${DEMO.barrier}`, 'At the tin'],
  ['boat', `${boat}/edit`, 'Pewit’s Errand'],
  ['today', `${boat}/today`, 'Twin keels'],
  ['hull', `${boat}/hull`, 'Zones'],
  ['zone', `${boat}/hull/${DEMO.hull}`, 'Underwater hull'],
  ['new zone', `${boat}/hull/new`, 'New zone'],
  ['new patch', `${boat}/hull/${DEMO.hull}/patch`, 'New patch'],
  ['girths', `${boat}/hull/${DEMO.hull}/girths`, 'Girths of Underwater hull'],
  ['shapes', `${boat}/hull/01900000-0000-7000-8005-000000000007/shapes`, 'Shapes of Under the stands'],
  ['offsets', `${boat}/hull/offsets`, 'Table of offsets'],
  ['mesh', `${boat}/hull/mesh`, 'Mesh of the hull'],
  ['film', `${boat}/film/${DEMO.hull}`, 'Underwater hull'],
  ['film with a stop', `/boats/${DEMO.workboat}/film/01900000-0000-7000-8005-000000000014`, 'Wheelhouse front'],
  ['schools', `${boat}/film/${DEMO.hull}/schools`, 'Schools, on Underwater hull'],
  ['borders', `${boat}/film/borders`, 'Borders between zones'],
  ['change a product', `${boat}/film/swap`, 'Change a product throughout the job'],
  ['shopping list', `${boat}/film/buy`, 'Shopping list of Pewit’s Errand'],
  ['stores', '/stores', 'Stores'],
  ['ratio ledger', `/stores/ledger/${DEMO.barrier}`, 'Ratio ledger, Saltgate 45 barrier'],
  ['pots and pumps', '/stores/kit', 'Pots, pumps, syringes'],
  ['coat in hand', `/boats/${DEMO.workboat}/coat/01900000-0000-7000-8008-000000000106`, 'Topsides: topcoat 1'],
  ['build-ups', '/build-ups', 'Build-ups'],
  ['build-up', '/build-ups/01900000-0000-7000-8014-000000000090', 'Yard bottom'],
  ['unknown build-up', '/build-ups/01900000-0000-7000-8014-00000000ffff', 'There is no such build-up here'],
  ['prep', `/boats/${DEMO.launch}/prep`, 'Bilge under the sole'],
  ['prep of a zone', `/boats/${DEMO.launch}/prep/01900000-0000-7000-8005-000000000033`, 'Topsides'],
  ['masking', `/boats/${DEMO.launch}/prep/masking`, 'Masking of Umber Tern'],
  ['stands', `${boat}/prep/stands`, 'Stands and blocks'],
  ['plan', `/boats/${DEMO.launch}/plan`, 'Plan'],
  ['plan of the yard', '/plan', 'Plan of the yard'],
  ['hours fit to paint', `${boat}/plan/hours`, 'Hours fit to paint'],
  ['planned and real', `${boat}/plan/real`, 'Planned and real'],
  ['planned by', `/boats/${DEMO.launch}/plan/by`, 'Planned by'],
  ['waterline', `/boats/${DEMO.launch}/hull/waterline`, 'Waterline of Umber Tern'],
  ['mix', `${boat}/mix?on=${DEMO.keels}`, 'Mix Saltgate 45 barrier'],
  ['coat', `${boat}/coat`, 'No coat going on'],
  ['start', `${boat}/coat/start?on=${DEMO.keels}`, 'Saltgate 45 barrier'],
  ['record', `${boat}/record`, 'Coat sheets of Pewit’s Errand'],
  ['weather', `${boat}/weather`, 'Weather at Sallow Haven'],
  ['sheets', '/sheets', 'Data sheets'],
  ['sheet', `/sheets/${DEMO.barrier}`, 'Saltgate 45 barrier'],
  ['revise sheet', `/sheets/${DEMO.barrier}/edit`, 'Revise Saltgate 45 barrier'],
  ['quick sheet', '/sheets/new/quick', 'Quick sheet'],
  ['full sheet', '/sheets/new/full', 'Data sheet'],
  ['settings', '/settings', 'This device'],
  ['nowhere', '/nowhere', 'There is no such place here'],
  ['unknown boat', '/boats/01900000-0000-7000-8001-00000000ffff/today', 'There is no such boat here'],
  ['unknown zone', `${boat}/hull/01900000-0000-7000-8001-00000000ffff`, 'There is no such zone here'],
  ['unknown coat', `${boat}/coat/01900000-0000-7000-8001-00000000ffff`, 'There is no such coat here'],
] as const;

for (const [name, path, heading] of PLACES) {
  test(`${name}: loads by its address, axe finds nothing in either theme, no sideways scroll at 360 px`, async ({
    page,
    demo,
    faults,
  }) => {
    await useSettings(page, {});
    await page.goto(demo.url + path);
    await expect(page.getByRole('heading', { level: 1 })).toContainText(heading);
    await page.waitForLoadState('networkidle');
    for (const theme of ['chalk', 'shed']) {
      await page.evaluate((t) => {
        document.documentElement.dataset.theme = t;
      }, theme);
      // There are no frames: one look in the page itself, at what is wrong and no more.
      const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode();
      // The page is the same in both but for its colours.
      const { violations } = await (theme === 'chalk' ? axe : axe.withTags(['cat.color'])).analyze();
      expect(violations.map((v) => `${theme}: ${v.id} ${v.nodes[0]?.html}`)).toEqual([]);
    }
    await page.setViewportSize({ width: 360, height: 740 });
    await noSidewaysScroll(page);
    expect(faults).toEqual([]);
  });
}

test('targets at the hull are at least 44 px', async ({ page, demo }) => {
  await useSettings(page, {});
  await page.setViewportSize({ width: 390, height: 844 });
  for (const path of [
    `${boat}/hull/${DEMO.hull}/girths`,
    `${boat}/today`,
    `${boat}/hull`,
    `${boat}/film/${DEMO.hull}`,
    `${boat}/coat`,
    `${boat}/coat/start?on=${DEMO.keels}`,
    `${boat}/mix?on=${DEMO.keels}`,
    '/log',
    '/sums',
  ]) {
    await page.goto(demo.url + path);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    // Links inside a sentence are as high as its line; everything else is a target of its own.
    const small = await page
      .locator(
        ':is(main, header, nav) :is(button, a, select, summary, input[type=text], input[type=checkbox], label:has(input)):visible',
      )
      .evaluateAll((all) =>
        all
          .filter((el) => !el.closest('p, figcaption') && !(el.matches('input') && el.closest('label')))
          .map((el) => ({
            text: el.textContent || el.getAttribute('aria-label') || el.id,
            box: (el.closest('.input') ?? el).getBoundingClientRect(),
          }))
          // What is only there for a reader of the screen has no size.
          .filter(({ box }) => box.height > 1 && (box.height < 43.5 || box.width < 43.5))
          .map(({ text, box }) => `${text} ${Math.round(box.width)}×${Math.round(box.height)}`),
      );
    expect(small, path).toEqual([]);
  }
});
