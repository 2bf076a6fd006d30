import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { chunkOf, DEMO, demoYard, expect, test, useSettings, type OwnServer } from './fixtures';

/** Other pages, other tabs, a full device, no signal: what reaches the yard, and what is said of the rest. */
const own = test.extend<{ yard: OwnServer }>({ yard: demoYard() });
const sloop = `/boats/${DEMO.sloop}`;

own(
  'a page from elsewhere cannot erase the yard, write into it or read it, by form, fetch or frame',
  async ({ page, yard }) => {
    const hooks = `
    window.results = {};
    const api = ${JSON.stringify(yard.url)} + '/api';
    const empty = JSON.stringify({ format: 'jack-plane-backup', version: 1, createdAt: '2026-01-01T00:00:00Z', tables: {} });
    const tell = (name, promise) => promise.then((r) => { window.results[name] = r.type === 'opaque' ? 'opaque' : r.status; }, () => { window.results[name] = 'refused'; });
    tell('restore as text', fetch(api + '/restore', { method: 'POST', mode: 'no-cors', headers: { 'Content-Type': 'text/plain' }, body: empty }));
    tell('upload', fetch(api + '/files', { method: 'POST', mode: 'no-cors', body: 'a mesh' }));
    tell('with the header', fetch(api + '/restore', { method: 'POST', headers: { 'X-Jack-Plane': '1', 'Content-Type': 'application/octet-stream' }, body: empty }));
    tell('read', fetch(api + '/yard').then((r) => r));
    const form = Object.assign(document.createElement('form'), { method: 'post', enctype: 'text/plain', action: api + '/restore', target: 'frame' });
    form.append(Object.assign(document.createElement('input'), { name: empty.slice(0, -1) + ',"x":"', value: '"}' }));
    document.body.append(Object.assign(document.createElement('iframe'), { name: 'frame' }), form);
    form.submit();`;
    const evil = createServer((_req, res) =>
      res
        .setHeader('Content-Type', 'text/html')
        .end(`<!doctype html><title>Elsewhere</title><body><script>${hooks}</script>`),
    );
    await new Promise<void>((done) => evil.listen(0, '127.0.0.1', done));
    const before = await (await fetch(`${yard.url}/api/yard`)).text();
    await page.goto(`http://localhost:${(evil.address() as AddressInfo).port}/`);
    await expect
      .poll(() => page.evaluate(() => Object.keys((window as unknown as { results: object }).results).length))
      .toBe(4);
    const results = await page.evaluate(() => (window as unknown as { results: Record<string, unknown> }).results);
    // What another page may send without asking comes back unreadable; what it must ask for is refused by the browser.
    expect(results).toMatchObject({ 'with the header': 'refused', read: 'refused' });
    await page.waitForTimeout(300);
    expect(await (await fetch(`${yard.url}/api/yard`)).text()).toBe(before);
    expect(
      ((await (await fetch(`${yard.url}/api/keeping`)).json()) as { backups: { why: string }[] }).backups.filter(
        (b) => b.why === 'before-restore',
      ),
    ).toEqual([]);
    await new Promise((done) => evil.close(done));
  },
);

own('places at the hull that were never opened open while the server is away', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/today`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Twin keels');
  // Fetched ahead, once the page has nothing else to do.
  const places = [
    'mix/MixPlace',
    'coat/CoatPlace',
    'coat/StartCoat',
    'coat/CoatSheet',
    'film/FilmPlace',
    'hull/HullPlace',
  ];
  const files = [...places, 'record/RecordPlace'].map((place) => chunkOf(place).slice(2));
  const fetched = () => page.evaluate(() => performance.getEntriesByType('resource').map((r) => r.name));
  await expect
    .poll(
      async () => {
        const names = await fetched();
        return files.filter((file) => !names.some((name) => name.endsWith(file)));
      },
      { timeout: 30_000 },
    )
    .toEqual([]);
  await yard.stop('SIGKILL');
  for (const [name, heading] of [
    ['Mix', /Mix/],
    ['Coat', /./],
    ['Film', /./],
    ['Hull', /./],
    ['Record', /./],
  ] as const) {
    await page
      .getByRole('navigation', { name: 'Bench' })
      .getByRole('link', { name: new RegExp(`^${name}`) })
      .click();
    await expect(page).toHaveURL(new RegExp(`/${name.toLowerCase()}`));
    await expect(page.getByRole('heading', { level: 1 })).toContainText(heading);
  }
});

own('two tabs write at once: each is done with saving, and both see everything', async ({ page, context, yard }) => {
  await useSettings(page, {});
  const other = await context.newPage();
  const tabs = [page, other];
  for (const tab of tabs) await tab.goto(`${yard.url}${sloop}/hull/new`);
  // No answer for a moment, so that both wait in the one outbox of the device.
  await context.route('**/api/surfaces/**', (route) => route.abort());
  for (const [i, tab] of tabs.entries()) {
    await tab.getByLabel('Name').fill(`Zone of tab ${i}`);
    await tab.getByRole('button', { name: 'Save zone' }).click();
  }
  await expect(other.getByText(/2 entries are kept on this device/)).toBeVisible();
  await context.unroute('**/api/surfaces/**');
  for (const tab of tabs) {
    await expect(tab.getByText('Saving…')).toHaveCount(0, { timeout: 30_000 });
    for (const i of [0, 1])
      await expect(tab.getByRole('link', { name: `Zone of tab ${i}`, exact: true })).toBeVisible({ timeout: 30_000 });
  }
});

own(
  'a full device: the entry is sent at once; while it cannot be it is named, and does not count as logged',
  async ({ page, yard }) => {
    await useSettings(page, {});
    await page.addInitScript(() => {
      IDBObjectStore.prototype.add = () => {
        throw new DOMException('full', 'QuotaExceededError');
      };
    });
    await page.goto(`${yard.url}${sloop}/coat/start?on=${DEMO.keels}`);
    await page.route('**/api/entries/**', (route) => route.abort());
    await page.getByRole('button', { name: 'Start coat' }).click();
    await expect(page.getByText(/This device is full: .* not logged until sent\. Do not close this tab/)).toBeVisible();
    const started = async () =>
      (
        (await (await fetch(`${yard.url}/api${sloop}`)).json()) as { entries: { kind: string; recordedAt: number }[] }
      ).entries.filter((e) => e.kind === 'started').length;
    const before = await started();
    await page.unroute('**/api/entries/**');
    await expect.poll(started, { timeout: 30_000 }).toBe(before + 1);
    await expect(page.getByText(/This device is full/)).toBeHidden();
  },
);

own(
  'a change at which the server itself fails is put aside with what it said, and the next one goes on',
  async ({ page, yard }) => {
    await useSettings(page, {});
    await page.goto(`${yard.url}${sloop}/hull/${DEMO.rudder}`);
    await page.route('**/api/surfaces/**', (route) =>
      route.fulfill({
        status: 500,
        contentType: 'application/json',
        body: JSON.stringify({ error: { code: 'internal', message: 'Something went wrong on the server.' } }),
      }),
    );
    await page.getByRole('button', { name: 'Remove zone' }).click();
    await page.getByRole('button', { name: 'Remove it all the same' }).click();
    await expect(page.getByText('1 entry was not taken: look')).toBeVisible({ timeout: 20_000 });
    await page.getByRole('button', { name: /not taken/ }).click();
    await expect(page.getByText('Something went wrong on the server.')).toBeVisible();
    await page.unroute('**/api/surfaces/**');
    await page.getByRole('button', { name: 'Send again' }).click();
    await expect(page.getByText('was not taken')).toBeHidden();
    await expect
      .poll(async () =>
        ((await (await fetch(`${yard.url}/api${sloop}`)).json()) as { surfaces: { name: string }[] }).surfaces.some(
          (s) => s.name === 'Rudder and skeg',
        ),
      )
      .toBe(false);
  },
);

own('an undo that no longer applies says so', async ({ page, yard }) => {
  await useSettings(page, {});
  await page.goto(`${yard.url}${sloop}/hull/${DEMO.rudder}`);
  await page.getByLabel('Name').fill('Rudder by hand');
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeVisible();
  // Someone else changes the same zone meanwhile.
  const bundle = (await (await fetch(`${yard.url}/api${sloop}`)).json()) as { surfaces: Record<string, unknown>[] };
  const {
    id,
    areaM2: _a,
    areaShare: _s,
    grossM2: _g,
    ...row
  } = bundle.surfaces.find((s) => s.name === 'Rudder by hand') as Record<string, unknown>;
  const res = await fetch(`${yard.url}/api/surfaces/${id as string}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'X-Jack-Plane': '1' },
    body: JSON.stringify({ ...row, name: 'Rudder of theirs' }),
  });
  expect(res.status).toBe(200);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/^Not taken back: .* was changed again since/)).toBeVisible();
  await expect(page.getByText(/^Taken back/)).toHaveCount(0);
});

own('a backup is put in place, what was here before is named, and put back', async ({ page, yard }) => {
  await useSettings(page, {});
  const backup = Buffer.from(await (await fetch(`${yard.url}/api/backup`)).arrayBuffer());
  await page.goto(`${yard.url}${sloop}/hull/${DEMO.rudder}`);
  await page.getByLabel('Name').fill('Rudder after the backup');
  await page.getByRole('button', { name: 'Save zone' }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeVisible();
  await page.goto(`${yard.url}/settings`);
  await page
    .getByLabel('Restore from a backup')
    .setInputFiles({ name: 'yard.jsonl.gz', mimeType: 'application/gzip', buffer: backup });
  await page.getByRole('button', { name: 'Replace everything with this backup' }).click();
  await expect(
    page.getByText(/What was here before is kept: \d{8}T\d{6}Z-\d{12}-before-restore\.jsonl\.gz/),
  ).toBeVisible({ timeout: 20_000 });
  const names = async () =>
    ((await (await fetch(`${yard.url}/api${sloop}`)).json()) as { surfaces: { name: string }[] }).surfaces.map(
      (s) => s.name,
    );
  expect(await names()).toContain('Rudder and skeg');
  await page.getByRole('button', { name: 'Put back what was here' }).click();
  await expect.poll(names).toContain('Rudder after the backup');
  await expect(page.getByText(/Last good backup: .*read back and found whole/)).toBeVisible();
});
