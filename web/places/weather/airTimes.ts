import { DateTime } from 'luxon';
import { instantsOf } from '../../parts/localTime';

/** How a date with slashes is meant. */
export type DateOrder = 'dayFirst' | 'monthFirst';

const HOURS = ['HH:mm', 'H:mm', 'HH:mm:ss', 'h:mm a', 'h:mma'];
const LOCAL = HOURS.flatMap((h) => [`yyyy-LL-dd ${h}`, `yyyy/LL/dd ${h}`, `d.L.yyyy ${h}`]);
const SLASHED = {
  dayFirst: HOURS.map((h) => `d/L/yyyy ${h}`),
  monthFirst: HOURS.map((h) => `L/d/yyyy ${h}`),
};
/** A time that says its own distance from UTC. */
const WITH_ZONE = /(z|utc|gmt|[+-]\d{2}:?\d{2})$/i;

export const hasSlashes = (text: string): boolean => /^\d{1,2}\/\d{1,2}\/\d{4}/.test(text.trim());
export const hasZone = (text: string): boolean => WITH_ZONE.test(text.trim()) || /^\d{10,13}$/.test(text.trim());

/**
 * A time of a table as epoch ms: with its own offset, or as it stands on a clock in a zone. The hour that comes twice when
 * clocks go back is the later one where the table has passed the first.
 */
export function instantIn(
  text: string,
  { zone, order, before }: { zone: string; order: DateOrder; before: number | null },
): number | null {
  const said = text.trim().replace(/[Tt](?=\d)/, ' ');
  if (/^\d{10}$/.test(said)) return Number(said) * 1000;
  if (/^\d{13}$/.test(said)) return Number(said);
  if (hasZone(said)) {
    const iso = DateTime.fromISO(said.replace(/\s*(utc|gmt)$/i, 'Z').replace(' ', 'T'), { setZone: true });
    return iso.isValid ? iso.toMillis() : null;
  }
  for (const format of [...LOCAL, ...SLASHED[order]]) {
    const local = DateTime.fromFormat(said, format, { zone: 'utc', locale: 'en' });
    if (!local.isValid) continue;
    const found = instantsOf(local.toFormat("yyyy-LL-dd'T'HH:mm"), zone);
    return found.find((at) => before === null || at > before) ?? found[0] ?? null;
  }
  return null;
}
