import type { Browser, Page } from '@playwright/test';
import { v7 as uuid } from 'uuid';
import { OWN_JSON } from '../scripts/server';

/** An eight-coat build-up on twelve zones, and dragging one of its films: for a test, and for the bench. */

async function put(url: string, body: object): Promise<void> {
  const res = await fetch(url, { method: 'PUT', headers: OWN_JSON, body: JSON.stringify(body) });
  if (!res.ok) throw new Error(await res.text());
}

/** Makes the boat in a demo yard. @returns the paths of the build-up's page, and of the section of one of its zones */
export async function twelveZones(url: string): Promise<{ buildUp: string; zone: string }> {
  const boat = uuid();
  const namedId = uuid();
  await put(`${url}/api/boats/${boat}`, {
    name: 'Twelve zones',
    hullMaterial: 'steel',
    keels: 'single',
    form: 'full',
    loaM: 14,
    lwlM: 13,
    beamM: 4,
    draftM: 1.5,
    freeboardM: 1.2,
    place: '',
    latitudeDeg: 50,
    timeZone: 'UTC',
    version: 0,
  });
  const { named } = (await (await fetch(`${url}/api/named-build-ups`)).json()) as {
    named: { name: string; layers: { id: string }[] }[];
  };
  const steel = named.find((n) => n.name === 'Steel bottom, blasted')?.layers ?? [];
  if (steel.length !== 8) throw new Error(`the steel starter has ${steel.length} coats, not eight`);
  const layers = () => steel.map((l) => ({ ...l, id: uuid() }));
  await put(`${url}/api/named-build-ups/${namedId}`, {
    name: 'Eight coats',
    substrates: ['steel'],
    exposure: 'immersed',
    bond: 'chemical',
    note: '',
    targetMicron: 300,
    layers: layers(),
    version: 0,
  });
  let surfaceId = '';
  for (let n = 0; n < 12; n += 1) {
    surfaceId = uuid();
    await put(`${url}/api/surfaces/${surfaceId}`, {
      boatId: boat,
      name: `Zone ${n + 1}`,
      kind: 'underwater',
      substrate: 'steel',
      exposure: 'immersed',
      existing: 'bare',
      area: { method: 'typed', dimensions: {}, typed: { areaM2: 3 + n * 2.3, share: 0.1 } },
      sort: n,
      version: 0,
    });
    await put(`${url}/api/build-ups/${uuid()}`, {
      boatId: boat,
      surfaceId,
      layers: layers(),
      namedId,
      targetMicron: 300,
      version: 0,
    });
  }
  return { buildUp: `/build-ups/${namedId}`, zone: `/boats/${boat}/film/${surfaceId}` };
}

/** What the page showed at one of its frames. */
export interface Seen {
  film: number;
  packs: string;
}

export const FRAMES = 120;

/**
 * Two seconds of dragging up and down, another film at every frame; or, as a control, a bare line of the same drawing moved as
 * often by script, which asks nothing of the product.
 * @returns what was seen at each frame, and how often Chromium's own trace tells of something
 */
export async function dragFilm(
  page: Page,
  browser: Browser,
  { control = false } = {},
): Promise<{ seen: Seen[]; count: (name: string) => number }> {
  const face = page.getByRole('slider', { name: 'Dry film of coat 3, Saltgate 45 barrier' });
  const box = await face.boundingBox();
  if (!box) throw new Error('the face of coat 3 is not on the page');
  const at = { x: box.x + 20, y: box.y + box.height / 2 };
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  await page.mouse.move(at.x, at.y - 4);
  await browser.startTracing(page, {
    categories: ['devtools.timeline.frame', 'disabled-by-default-devtools.timeline.frame'],
  });
  const seen = await page.evaluate(
    async ({ startY, frames, idle }) => {
      const slider = document.querySelector<SVGElement>('[role=slider][aria-label^="Dry film of coat 3"]')!;
      const packs = [...document.querySelectorAll('p span')].find((e) => e.textContent.startsWith('job’s packs'))!;
      const line = slider.ownerSVGElement!.querySelector(':scope > polyline:last-of-type')!;
      const pairs: { film: number; packs: string }[] = [];
      // A browser hands a hand's movements over at the start of a frame; so the first of these is too.
      await new Promise(requestAnimationFrame);
      for (let frame = 0; frame < frames; frame += 1) {
        // Far enough each time that the film is another one at every frame.
        const up = 4 + 9 * (frame % 24 < 12 ? frame % 12 : 12 - (frame % 12));
        if (idle) line.setAttribute('transform', `translate(0 ${up})`);
        else
          slider.dispatchEvent(
            new PointerEvent('pointermove', { bubbles: true, pointerId: 1, clientX: 0, clientY: startY - up }),
          );
        await new Promise(requestAnimationFrame);
        pairs.push({ film: Number(slider.getAttribute('aria-valuenow')), packs: packs.textContent });
      }
      line.removeAttribute('transform');
      return pairs;
    },
    { startY: at.y, frames: FRAMES, idle: control },
  );
  const { traceEvents } = JSON.parse((await browser.stopTracing()).toString()) as {
    traceEvents: { name: string }[];
  };
  await page.mouse.up();
  return { seen, count: (name) => traceEvents.filter((e) => e.name === name).length };
}
