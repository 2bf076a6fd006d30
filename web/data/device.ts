import type { UnitSystem } from '#core/units/quantities';

/** What the device tells of where it is, for whoever has not chosen yet. */

export const deviceZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

const US_ZONES =
  /^(US\/|America\/(New_York|Detroit|Chicago|Denver|Boise|Phoenix|Los_Angeles|Anchorage|Juneau|Sitka|Nome|Yakutat|Metlakatla|Adak|Menominee|Indiana|Indianapolis|Kentucky|Louisville|North_Dakota)|Pacific\/Honolulu)/;

/** US units where the clock is set to a time zone of theirs; a browser that speaks their English is sold everywhere. */
export function usualUnits(zone = deviceZone(), language = navigator.language): UnitSystem {
  const knowsPlace = zone.includes('/') && !zone.startsWith('Etc/');
  return (knowsPlace ? US_ZONES.test(zone) : language.endsWith('-US')) ? 'us' : 'metric';
}

export const usualTheme = (): 'chalk' | 'shed' =>
  matchMedia('(prefers-color-scheme: dark)').matches ? 'shed' : 'chalk';

export interface ZonePlace {
  /** Degrees, rounded: of the town that the time zone is named after. */
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
  readonly currency: string;
}

/** Where on the globe a time zone is, as its tables say, and what is paid with there. */
export async function placeOfZone(zone: string): Promise<ZonePlace | null> {
  const [{ default: places }, { default: currencies }] = await Promise.all([
    import('./timeZonePlaces.json'),
    import('country-to-currency'),
  ]);
  const found = (places as unknown as Record<string, [string, number, number] | undefined>)[zone];
  if (!found) return null;
  const [country, latitudeDeg, longitudeDeg] = found;
  const currency = (currencies as Record<string, string | undefined>)[country] ?? 'EUR';
  return { latitudeDeg: Math.max(-75, Math.min(75, latitudeDeg)), longitudeDeg, currency };
}
