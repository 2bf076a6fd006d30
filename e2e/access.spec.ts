import { readFileSync } from 'node:fs';
import { chunkOf, DEMO, expect, noSidewaysScroll, test, useSettings } from './fixtures';

const boat = `/boats/${DEMO.sloop}`;

test('each page has its title, says its heading and puts the focus there; the skip link passes the bench', async ({
  page,
  demo,
}) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}${boat}/today`);
  await expect(page).toHaveTitle(/^Twin keels.* · Jack Plane$/);
  await page.getByRole('link', { name: /^Record/ }).click();
  await expect(page).toHaveTitle('Coat sheets of Pewit’s Errand · Jack Plane');
  await expect(page.getByRole('heading', { level: 1 })).toBeFocused();
  await expect(page.locator('p[aria-live=polite]', { hasText: 'Coat sheets of Pewit’s Errand' })).toBeAttached();
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'To the content' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toBeFocused();
});

test('a refused form names its fields, and the first of them has the focus', async ({ page, demo }) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}/boats/new`);
  await page.getByLabel('Beam').fill('3');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const summary = page.getByRole('alert').filter({ hasText: 'fields want a look' });
  await expect(summary.getByRole('button', { name: 'Name' })).toBeVisible();
  await expect(summary.getByRole('button', { name: 'Draught' })).toBeVisible();
  await expect(page.getByLabel('Name')).toBeFocused();
  await summary.getByRole('button', { name: 'Draught' }).click();
  await expect(page.getByLabel('Draught', { exact: true })).toBeFocused();
  // What is half typed is asked about before a link leaves it.
  const asked = page.waitForEvent('dialog').then((d) => d.dismiss());
  await page.getByRole('link', { name: 'Stores' }).click();
  await asked;
  await expect(page.getByLabel('Beam')).toHaveValue('3');
});

/** Contrast of two colours as a browser computes them. [P: WCAG 2.2, relative luminance] */
const contrast = (a: string, b: string): number => {
  const luminance = (css: string) => {
    const [r, g, bl] = (/rgba?\(([^)]*)\)/.exec(css)?.[1] ?? '').split(/[ ,/]+/).map(Number);
    const linear = [r, g, bl].map((v) => {
      const c = (v as number) / 255;
      return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * linear[0]! + 0.7152 * linear[1]! + 0.0722 * linear[2]!;
  };
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
};

for (const theme of ['chalk', 'shed'] as const) {
  test(`edges of fields and buttons stand out 3 to 1, ${theme}`, async ({ page, demo }) => {
    expect(contrast('rgb(0, 0, 0)', 'rgb(255, 255, 255)')).toBeCloseTo(21, 6);
    await useSettings(page, { theme });
    for (const path of [`${boat}/coat/start`, '/settings', '/boats/new']) {
      await page.goto(demo.url + path);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      const edges = await page
        .locator('main :is(.input, .select, .checkbox, .btn:not(.btn-ghost))')
        .evaluateAll((all) => {
          // Colours in any notation, as the screen shows them.
          const canvas = document.createElement('canvas').getContext('2d', { willReadFrequently: true })!;
          const shown = (css: string) => {
            canvas.clearRect(0, 0, 1, 1);
            canvas.fillStyle = css;
            canvas.fillRect(0, 0, 1, 1);
            const [r, g, b] = canvas.getImageData(0, 0, 1, 1).data;
            return `rgb(${r}, ${g}, ${b})`;
          };
          const page = shown(getComputedStyle(document.documentElement).backgroundColor);
          return all.map((el) => {
            const style = getComputedStyle(el);
            const filled = el.classList.contains('btn-primary');
            return {
              what: el.outerHTML.slice(0, 90),
              edge: shown(filled ? style.backgroundColor : style.borderTopColor),
              page,
            };
          });
        });
      expect(edges.length).toBeGreaterThan(3);
      expect(edges.filter((e) => contrast(e.edge, e.page) < 3)).toEqual([]);
    }
  });
}

test('where the system sets the colours, what is chosen and where one is are told apart', async ({ page, demo }) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await useSettings(page, {});
  await page.goto(`${demo.url}${boat}/coat/start`);
  const background = (text: string) =>
    page.getByText(text, { exact: true }).evaluate((el) => getComputedStyle(el.closest('label, a')!).backgroundColor);
  expect(await background('Now')).not.toBe(await background('It was earlier'));
  expect(await background('Coat')).not.toBe(await background('Film'));
});

test('text at twice its size keeps rows apart and inside the page', async ({ page, demo }) => {
  await useSettings(page, {});
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 900 });
    for (const path of [`${boat}/film/${DEMO.hull}`, `${boat}/today`, `${boat}/mix?on=${DEMO.keels}`]) {
      await page.goto(demo.url + path);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await page.evaluate(() => {
        document.documentElement.style.fontSize = '200%';
        dispatchEvent(new Event('resize'));
      });
      // Rows of one list do not lie over one another.
      const over = await page.evaluate(() =>
        [...document.querySelectorAll('main ol, main ul')].flatMap((list) => {
          const rows = [...list.children].map((row) => row.getBoundingClientRect()).filter((r) => r.height > 0);
          return rows.flatMap((r, i) => {
            const next = rows[i + 1];
            return next &&
              next.top < r.bottom - 2 &&
              next.bottom > r.top + 2 &&
              next.left < r.right - 2 &&
              next.right > r.left + 2
              ? [`${list.getAttribute('aria-label') ?? list.className}: row ${i}`]
              : [];
          });
        }),
      );
      expect(over, `${path} at ${width}`).toEqual([]);
      const cut = await page
        .locator('main li .line-clamp-2')
        .evaluateAll(
          (all) =>
            all.filter((el) => el.getBoundingClientRect().bottom > el.closest('li')!.getBoundingClientRect().bottom + 3)
              .length,
        );
      expect(cut, `${path} at ${width}`).toBe(0);
      if (width === 1280) await noSidewaysScroll(page);
    }
  }
});

test('single keys can be switched off, undo and redo stay', async ({ page, demo }) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}${boat}/today`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('?');
  const sheet = page.getByRole('dialog', { name: 'Keys and words' });
  await expect(sheet.getByText('Bonds as is', { exact: true })).toBeVisible();
  await sheet.getByLabel('Single keys do this').uncheck();
  await page.keyboard.press('Escape');
  await page.keyboard.press('2');
  await expect(page).toHaveURL(/today$/);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Nothing to undo.')).toBeVisible();
});

test('a word of the trade explains itself at a tap', async ({ page, demo }) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}${boat}/today`);
  const meaning = page.getByText(/The next coat may go on now, without abrading/);
  await expect(meaning).toBeHidden();
  await page.getByRole('button', { name: 'bonds as is', exact: true }).click();
  await expect(meaning).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(meaning).toBeHidden();
});

test('the ribbon tells its dry hours in words, and each zone has a bar of its own', async ({ page, demo }) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}${boat}/today`);
  await expect(
    page.getByRole('img', { name: /^The hours ahead\. (Dry enough outdoors from|Not dry enough)/ }),
  ).toBeVisible();
  const bars = page.getByRole('group', { name: 'Windows of the zones over these hours' });
  await expect(bars.getByRole('img', { name: /^Twin keels: bonds as is until .*, then abrade first/ })).toBeVisible();
  await expect(bars.getByRole('img', { name: /^Rudder and skeg: shut until/ })).toBeVisible();
});

test('an estimate is read with its space: "about 13.61 L"', async ({ page, demo }) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}${boat}/film/${DEMO.hull}`);
  const litres = page.locator('.fig').filter({ hasText: '≈' }).first();
  // As it is read aloud: what is hidden from it is left out.
  const read = await litres.evaluate((el) => {
    const copy = el.cloneNode(true) as HTMLElement;
    copy.querySelectorAll('[aria-hidden=true]').forEach((hidden) => hidden.remove());
    return copy.textContent;
  });
  expect(read).toMatch(/^about [\d.]+ \S+$/);
});

test('record and shopping list print as documents: light, numbered, nothing to press', async ({ page, demo }) => {
  await useSettings(page, { theme: 'shed' });
  for (const path of [`${boat}/record`, `${boat}/film/buy`]) {
    await page.goto(demo.url + path);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('navigation', { name: 'Bench' })).toBeHidden();
    expect(await page.locator('main .btn:visible').count()).toBe(0);
    const [paper, ink] = await page.evaluate(() => [
      getComputedStyle(document.documentElement).backgroundColor,
      getComputedStyle(document.querySelector('h1')!).color,
    ]);
    expect([paper, ink]).toEqual(['rgb(255, 255, 255)', 'rgb(0, 0, 0)']);
    const css = readFileSync('web/app/app.css', 'utf8');
    expect(css).toContain('counter(page)');
    await page.emulateMedia({ media: 'screen' });
  }
});

test('a boat typed while the server is away stands in the yard, and is sent when it is back', async ({
  page,
  empty,
}) => {
  await useSettings(page, {});
  await page.goto(`${empty.url}/boats/new`);
  await expect(page.getByLabel('Name')).toBeVisible();
  await expect(page.getByText('To paint')).toBeVisible();
  await empty.stop();
  await page.getByLabel('Name').fill('Night Heron');
  await page.getByLabel('Length', { exact: true }).fill('8');
  await page.getByLabel('Beam').fill('2.6');
  await page.getByLabel('Draught', { exact: true }).fill('1.2');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  // No "Saving…" that hangs: the page goes on with what is kept on the device.
  await expect(page.getByRole('link', { name: 'Underwater hull', exact: true })).toBeVisible();
  await expect(page.getByText(/kept on this device and will be sent/)).toBeVisible();
  await page.getByRole('link', { name: 'Jack Plane' }).click();
  await expect(page.getByRole('link', { name: 'Night Heron' })).toBeVisible();
  await empty.start();
  await expect(page.getByText(/kept on this device/)).toBeHidden({ timeout: 30_000 });
  const yard = (await (await page.request.get(`${empty.url}/api/yard`)).json()) as {
    boats: { boat: { name: string } }[];
  };
  expect(yard.boats.map((b) => b.boat.name)).toEqual(['Night Heron']);
});

test('a slow line shows a skeleton at once, never a white page', async ({ page, demo }) => {
  await useSettings(page, {});
  await page.goto(`${demo.url}${boat}/today`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  let release: () => void = () => undefined;
  const held = new Promise<void>((done) => (release = done));
  await page.route(chunkOf('weather/WeatherPlace'), async (route) => {
    await held;
    await route.continue();
  });
  await page.getByRole('link', { name: /^air/ }).click();
  await expect(page.getByRole('status', { name: 'Loading the page' })).toBeVisible();
  release();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Weather at');
});

test('on a phone the places lie beneath the page and are tabbed to after it; on a desk before', async ({
  page,
  demo,
}) => {
  await useSettings(page, {});
  for (const [width, benchFirst] of [
    [1280, true],
    [390, false],
  ] as const) {
    await page.setViewportSize({ width, height: 844 });
    await page.goto(`${demo.url}${boat}/today`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    const first = await page.evaluate(() => {
      const bench = document.querySelector('nav[aria-label=Bench]')!;
      const heading = document.querySelector('main h1')!;
      return (bench.compareDocumentPosition(heading) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
    });
    expect(first).toBe(benchFirst);
    // What is read in order is seen in order: of two blocks of the page the later one never lies above.
    const tops = await page
      .locator('main h1, main h2')
      .evaluateAll((all) => all.map((h) => h.getBoundingClientRect().top));
    if (width === 390) expect(tops).toEqual([...tops].sort((a, b) => a - b));
  }
});
