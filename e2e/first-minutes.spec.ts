import type { Page } from '@playwright/test';
import { expect, noSidewaysScroll, test } from './fixtures';

/** An empty yard as a new user meets it: three aims, each counted in views, fields and taps. */

/** Counts what a hand does: pages that were opened, fields that were typed into, taps. */
class Hand {
  views = 0;
  fields = 0;
  taps = 0;
  private at = '';
  constructor(readonly page: Page) {
    page.on('framenavigated', (frame) => {
      const { pathname } = new URL(frame.url());
      if (frame === page.mainFrame() && pathname !== this.at) {
        this.at = pathname;
        this.views += 1;
      }
    });
  }
  async type(label: string, text: string): Promise<void> {
    this.fields += 1;
    await this.page.getByLabel(label, { exact: true }).fill(text);
  }
  async tap(role: 'link' | 'button', name: string | RegExp): Promise<void> {
    this.taps += 1;
    await this.page.getByRole(role, { name }).tap();
  }
}

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('buy: four figures give areas, a usual build-up, litres and packs', async ({ page, empty, faults }) => {
    const hand = new Hand(page);
    await page.goto(empty.url);
    await hand.tap('link', 'What to buy');
    await hand.type('Name', 'Marsh Hen');
    await hand.type('Length', '9.6');
    await hand.type('Beam', '3.1');
    await hand.type('Draught', '1.5');
    // (9.6 · 0.86) × (3.1 + 1.5) × 0.5 for a fin keel, by hand: 18.99, the waterline being an estimate.
    await expect(page.getByText(/19\.0/)).toBeVisible();
    await expect(page.getByText(/Left empty: ≈ 8\.26 m, from her length and form/)).toBeVisible();
    await expect(page.getByText('± 18 %').first()).toBeVisible();
    await expect(page.getByLabel('Build-up of underwater hull')).toContainText('GRP bottom, in the tack window');
    await hand.tap('button', 'Show what to buy');
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Shopping list of Marsh Hen');
    const barrier = page.locator('[data-product="Saltgate 45 barrier"]');
    await expect(barrier).toContainText(/L/);
    await expect(barrier).toContainText(/enough in 9\d cases of 100|enough practically always/);
    await expect(barrier.getByRole('img', { name: /Needed about .* shelf and packs hold/ })).toBeVisible();
    await noSidewaysScroll(page);
    expect(hand.views).toBeLessThanOrEqual(4);
    expect(hand.fields).toBeLessThanOrEqual(6);
    // One undo takes back the boat, her zone and what was taken in for it.
    await page.getByRole('button', { name: 'Undo' }).tap();
    await expect(page.getByText('Taken back: Marsh Hen saved')).toBeVisible();
    for (const [path, list] of [
      ['/api/sheets', (body: unknown) => body as unknown[]],
      ['/api/named-build-ups', (body: { named: unknown[] }) => body.named],
      ['/api/yard', (body: { boats: unknown[] }) => body.boats],
    ] as const) {
      const answer = (await (await page.request.get(empty.url + path)).json()) as never;
      expect((list as (body: never) => unknown[])(answer), path).toEqual([]);
    }
    expect(faults).toEqual([]);
  });

  test('at a tin: how much hardener, and until when to overcoat at 14 °C, on one page', async ({ page, empty }) => {
    const hand = new Hand(page);
    await page.goto(empty.url);
    await hand.tap('link', 'How to mix a tin');
    await expect(page.getByRole('heading', { name: 'At the tin' })).toBeVisible();
    const before = hand.views;
    // A ratio from the label: 1.2 L of base at 4 : 1 wants 0.3 L of hardener.
    await hand.type('Ratio', '4:1');
    await hand.type('How much base', '1.2');
    const amounts = page.getByRole('region', { name: 'Amounts' });
    await expect(amounts.getByRole('row', { name: /Hardener/ })).toContainText('300 mL');
    await expect(amounts.getByRole('row', { name: /Mix/ })).toContainText('1500 mL');
    await page.getByText('the mix', { exact: true }).tap();
    await expect(amounts.getByRole('row', { name: /Base/ })).toContainText('960 mL');
    // A sheet tells the times too.
    await page.getByLabel('By', { exact: true }).selectOption({ label: 'Saltgate 45 barrier (made up)' });
    await hand.type('At', '14');
    const times = page.getByRole('region', { name: 'Times' });
    // Between 9 h at 10 °C and 5 h at 20 °C, ln t linear in 1/T: 7.08 h at 14 °C, worked by hand.
    await expect(times.getByRole('row', { name: /Next coat not before/ })).toContainText(/7\sh\s5\smin/);
    await expect(times.getByRole('row', { name: /Next coat as is, until/ })).toContainText(/32\sh/);
    await expect(page.getByRole('img', { name: /Times over temperature/ })).toBeVisible();
    expect(hand.fields).toBeLessThanOrEqual(3);
    expect(hand.views - before).toBe(0);
    await noSidewaysScroll(page);
  });

  test('log: a coat is written down with nothing but names, and what cannot be told is said', async ({
    page,
    empty,
    faults,
  }) => {
    const hand = new Hand(page);
    await page.goto(empty.url);
    await hand.tap('link', 'Log a coat');
    hand.taps += 2;
    await hand.type('Boat', 'Marsh Hen');
    await hand.type('Product', 'Old blue tin');
    await expect(page.getByText(/her size: areas and litres are stand-ins/)).toBeVisible();
    await hand.tap('button', 'Log this coat');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Underwater hull');
    expect(hand.views).toBeLessThanOrEqual(3);
    expect(hand.taps).toBeLessThanOrEqual(8);
    await expect(page.getByText('her size is not known: type it')).toBeVisible();
    await page.getByRole('link', { name: 'Mix', exact: false }).first().tap();
    await page.goto(`${empty.url}/sheets`);
    await page.getByRole('link', { name: /Old blue tin/ }).tap();
    await expect(page.getByText(/Only its name is known: ratio, solids and film below are stand-ins/)).toBeVisible();
    // Its figures typed, it is a sheet like any other.
    await page.getByRole('link', { name: 'Type its figures' }).tap();
    await page.getByLabel('Volume solids').fill('45');
    await page.getByLabel('Dry film per coat').fill('50');
    await page.getByRole('button', { name: 'Save sheet' }).tap();
    await expect(page.getByRole('heading', { name: 'At the tin' })).toBeVisible();
    await expect(page.getByText(/Only its name is known/)).toHaveCount(0);
    expect(faults).toEqual([]);
  });
});

test('logging asks for what is missing, keeps what was typed, and undo takes the coat back', async ({
  page,
  empty,
}) => {
  await page.goto(`${empty.url}/log`);
  await page.getByRole('button', { name: 'Log this coat' }).click();
  await expect(page.getByRole('alert')).toHaveText('Type what the boat is called.');
  await page.getByLabel('Boat', { exact: true }).fill('Marsh Hen');
  await page.getByLabel('Product', { exact: true }).fill('Blue');
  await page.reload();
  await expect(page.getByLabel('Boat', { exact: true })).toHaveValue('Marsh Hen');
  await page.getByRole('button', { name: 'Log this coat' }).click();
  await expect(page.getByText('Coat logged')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Taken back: Coat logged')).toBeVisible();
  // Done again by keyboard.
  await page.locator('h1').first().click();
  await page.keyboard.press('Control+y');
  await expect(page.getByText('Done again: Coat logged')).toBeVisible();
  // The same boat again, and a coat of what is planned there next.
  await page.goto(`${empty.url}/log`);
  await page.getByLabel('Zone', { exact: true }).selectOption({ label: 'Underwater hull' });
  await page.getByLabel('Product', { exact: true }).selectOption({ label: 'Blue' });
  await page.getByText('It starts now', { exact: true }).click();
  await page.getByRole('button', { name: 'To its start' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Blue');
  await expect(page.getByRole('button', { name: 'Start coat' })).toBeVisible();
});

test('the demo yard is a tap away and touches nothing of one’s own', async ({ page, empty }) => {
  await page.goto(empty.url);
  await page.getByRole('link', { name: 'Look around the demo yard' }).click();
  await expect(page.getByRole('heading', { name: 'Boats in hand' })).toBeVisible({ timeout: 60_000 });
  expect(new URL(page.url()).pathname).toBe('/demo/');
  await page
    .getByRole('link', { name: /Pewit’s Errand/ })
    .first()
    .click();
  await page.getByRole('link', { name: /^Hull/ }).click();
  await page.getByRole('link', { name: 'Add a zone' }).click();
  await page.getByLabel('Name').fill('Made in the demo');
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('link', { name: 'Made in the demo', exact: true })).toBeVisible();
  await page.getByRole('link', { name: /Leave the demo/ }).click();
  await expect(page.getByRole('link', { name: 'What to buy' })).toBeVisible();
  const yard = (await (await page.request.get(`${empty.url}/api/yard`)).json()) as { boats: unknown[]; demo: boolean };
  expect(yard).toMatchObject({ boats: [], demo: false });
});

test.describe('in Boston', () => {
  test.use({ locale: 'en-US', timezoneId: 'America/New_York' });
  test('units, words, currency, place and packs are those of the device', async ({ page, empty }) => {
    await page.goto(`${empty.url}/boats/new?for=buy`);
    await page.getByLabel('Name').fill('Marsh Hen');
    await page.getByLabel('Length', { exact: true }).fill('31’ 6”');
    await page.getByLabel('Beam').fill('10');
    await page.getByLabel('Draft', { exact: true }).fill('5');
    await expect(page.getByLabel('What is she made of')).toContainText('Fiberglass');
    await expect(page.getByLabel('Currency')).toHaveValue('USD');
    await expect(page.getByText('Left empty: ≈ 41°, by the time zone')).toBeVisible();
    await page.getByRole('button', { name: 'Show what to buy' }).click();
    const barrier = page.locator('[data-product="Saltgate 45 barrier"]');
    await expect(barrier).toContainText(/× 1 gal kit/);
    await expect(page.getByRole('main')).not.toContainText('€');
    // One product in one unit: no ounces beside gallons.
    await expect(barrier).not.toContainText('fl oz');
  });
});
