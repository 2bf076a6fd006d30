import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { expect, test } from '@playwright/test';

/** What the build says of each module that is fetched by itself. */
interface Chunk {
  readonly file: string;
  readonly imports?: readonly string[];
}
const manifest = JSON.parse(readFileSync('dist/.vite/manifest.json', 'utf8')) as Record<string, Chunk>;

/** Scripts that come with a module, its own among them. */
function scriptsOf(name: string, seen = new Set<string>()): Set<string> {
  const chunk = manifest[name];
  if (!chunk) throw new Error(`the build has no ${name}`);
  if (seen.has(chunk.file)) return seen;
  seen.add(chunk.file);
  for (const needed of chunk.imports ?? []) scriptsOf(needed, seen);
  return seen;
}
const kB = (files: Iterable<string>) =>
  [...files].reduce((sum, file) => sum + gzipSync(readFileSync(`dist/${file}`)).length / 1000, 0);

const FIRST_KB = 181;
/** kB of gzipped JavaScript that each may bring beyond the first screen. A form brings the checks of what is typed in it. */
const BUDGETS_KB: Readonly<Record<string, number>> = {
  'places/buildups/BuildUpPage.tsx': 63,
  'places/buildups/BuildUpsPlace.tsx': 31,
  'places/buy/BuyPlace.tsx': 49,
  'places/coat/CoatPlace.tsx': 12,
  'places/coat/CoatSheet.tsx': 56,
  'places/coat/StartCoat.tsx': 56,
  'places/film/BordersPage.tsx': 30,
  'places/film/EditLayer.tsx': 32,
  'places/film/FilmPlace.tsx': 68,
  'places/film/SchoolsPage.tsx': 37,
  'places/film/SwapPage.tsx': 34,
  'places/hull/GirthPage.tsx': 29,
  'places/hull/HullPlace.tsx': 24,
  'places/hull/MeshPage.tsx': 27,
  'places/hull/OffsetsPage.tsx': 28,
  'places/hull/ShapesPage.tsx': 32,
  'places/hull/ZoneForm.tsx': 104,
  'places/hull/waterline/WaterlinePage.tsx': 44,
  'places/ledger/LedgerPage.tsx': 9,
  'places/log/LogCoat.tsx': 27,
  'places/mix/MixPlace.tsx': 38,
  'places/mix/stick.ts': 1,
  'places/plan/FitHours.tsx': 67,
  'places/plan/PlanPlace.tsx': 60,
  'places/plan/PlannedBy.tsx': 27,
  'places/plan/PlannedReal.tsx': 28,
  'places/plan/YardPlan.tsx': 22,
  'places/prep/MaskingPage.tsx': 40,
  'places/prep/PrepPlace.tsx': 51,
  'places/prep/StandsPage.tsx': 40,
  'places/record/RecordPlace.tsx': 19,
  'places/settings/SettingsPlace.tsx': 8,
  'places/sheets/SheetForm.tsx': 97,
  'places/sheets/SheetImport.tsx': 68,
  'places/sheets/SheetPage.tsx': 22,
  'places/sheets/SheetsPlace.tsx': 20,
  'places/sheets/TimeCurve.tsx': 185,
  'places/stores/KitPage.tsx': 8,
  'places/stores/StoresPlace.tsx': 37,
  'places/sums/SumsPlace.tsx': 17,
  'places/today/AirStartAsked.tsx': 22,
  'places/today/StartOdds.tsx': 4,
  'places/today/TodayPlace.tsx': 17,
  'places/weather/AirChart.tsx': 185,
  'places/weather/AirFile.tsx': 10,
  'places/weather/TypicalYearFile.tsx': 8,
  'places/weather/WeatherPlace.tsx': 10,
  'places/yard/BoatForm.tsx': 104,
};

const first = scriptsOf('index.html');

test('the first screen brings at most 181 kB of gzipped JavaScript', () => {
  expect(kB(first)).toBeLessThanOrEqual(FIRST_KB);
});

test('every place keeps within its budget beyond the first screen, and each has one', () => {
  const places = Object.keys(manifest).filter((name) => name.startsWith('places/'));
  expect(places.sort()).toEqual(Object.keys(BUDGETS_KB).sort());
  const over = places.flatMap((name) => {
    const beyond = kB([...scriptsOf(name)].filter((file) => !first.has(file)));
    return beyond > (BUDGETS_KB[name] as number) ? [`${name}: ${beyond.toFixed(1)} kB`] : [];
  });
  expect(over).toEqual([]);
});
