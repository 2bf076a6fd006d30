import { readFileSync } from 'node:fs';
import type { Download, Page } from '@playwright/test';
import { DEMO, demoYard, test as base, type OwnServer } from './fixtures';

/** Build-ups, their rules, the shelf and what to buy. One demo yard for the file; each test changes its own corner. */
export const test = base.extend<object, { yard: OwnServer }>({
  yard: [demoYard(), { scope: 'worker' }],
});
export const sloop = `/boats/${DEMO.sloop}`;
export const workboat = `/boats/${DEMO.workboat}`;
export const ids = {
  underwater: '01900000-0000-7000-8005-000000000001',
  topsides: '01900000-0000-7000-8005-000000000005',
  bootTop: '01900000-0000-7000-8005-000000000004',
  wheelhouse: '01900000-0000-7000-8005-000000000014',
  gigOutside: '01900000-0000-7000-8005-000000000021',
  yardBottom: '01900000-0000-7000-8014-000000000090',
};

export interface Bundle {
  buildUps: {
    surfaceId: string;
    namedId: string | null;
    targetMicron: number | null;
    overrides: { reason: string }[];
    records: { kind: string; note: string }[];
    layers: { dftMicron: number; sheetRevisionId: string; prep?: string; method: string; grit?: number }[];
  }[];
  borders: { rule: string; widthM: number; epoxyRunsOn: boolean }[];
  jobs: { choices: { bond: string; packs: string } | null }[];
}
export const bundleOf = async (yard: OwnServer, boat: string) =>
  (await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as Bundle;
export const buildUp = async (yard: OwnServer, boat: string, zone: string) =>
  (await bundleOf(yard, boat)).buildUps.find((b) => b.surfaceId === zone)!;
export const films = async (yard: OwnServer, boat: string, zone: string) =>
  (await buildUp(yard, boat, zone)).layers.map((l) => l.dftMicron);
export const text = async (download: Download) => readFileSync(await download.path(), 'utf8');
/** The build-up as it is told in coats: "4 × Saltgate 45 barrier grey, white". */
export const runs = (page: Page) =>
  page
    .getByRole('list', { name: 'In coats and in film' })
    .getByRole('listitem')
    .evaluateAll((items) =>
      items.map((li) =>
        [...li.children]
          .slice(0, 2)
          .map((part) => part.textContent.trim())
          .join(' '),
      ),
    );
export const litres = async (page: Page, product: string) =>
  Number.parseFloat(
    (await page.locator(`[data-product="${product}"] .fig`).first().textContent())!
      // An estimate is read as "about".
      .replace(/^\D+/, ''),
  );
