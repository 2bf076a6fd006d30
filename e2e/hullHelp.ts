import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { DEMO, demoYard, test as base, type OwnServer } from './fixtures';

/** Measuring hulls, by tape, table and file. One demo yard for the file; each test measures its own zones or boat. */
export const test = base.extend<object, { yard: OwnServer }>({
  yard: [demoYard(), { scope: 'worker' }],
});
export const hullOf = (boat: string) => `/boats/${boat}/hull`;
export const PUNT = fileURLToPath(new URL('../core/hull/fixtures/punt-binary.stl', import.meta.url));
export const PUNT_ASCII = fileURLToPath(new URL('../core/hull/fixtures/punt-ascii.stl', import.meta.url));

export interface Bundle {
  hull: {
    offsets: { stationsM: number[]; waterlinesM: number[]; halfBreadthsM: (number | null)[][] } | null;
    mesh: { fileHash: string; size: { lengthM: number }; areas: { belowM2: number } } | null;
  } | null;
  surfaces: {
    id: string;
    name: string;
    parentId: string | null;
    areaM2: number;
    grossM2: number;
    area: {
      method: string;
      girths?: { stations: { xM: number; halfGirthM: number | null; halfBreadthM: number | null }[] } | null;
    };
  }[];
}
export const bundleOf = async (yard: OwnServer, boat: string) =>
  (await (await fetch(`${yard.url}/api/boats/${boat}`)).json()) as Bundle;
export const stationsOf = async (yard: OwnServer) =>
  (await bundleOf(yard, DEMO.sloop)).surfaces.find((s) => s.id === DEMO.hull)!.area.girths!.stations;

/** What a click downloads, as text. */
export async function download(page: Page, click: () => Promise<void>): Promise<{ name: string; text: string }> {
  const waiting = page.waitForEvent('download');
  await click();
  const file = await waiting;
  return { name: file.suggestedFilename(), text: readFileSync(await file.path(), 'utf8') };
}
