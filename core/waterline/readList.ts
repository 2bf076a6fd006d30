import { parseQuantity } from '../units/parse';
import type { UnitSystem } from '../units/quantities';

/** One station of a list that was read out. */
export interface ReadStation {
  readonly no: number;
  /** m; null for a station that was left out. */
  readonly valueM: number | null;
}

export interface ReadList {
  readonly stations: readonly ReadStation[];
  /** Numbers between the first and the last that have no figure. */
  readonly gaps: readonly number[];
  /** The first thing that cannot be read, in a sentence; null where all can. */
  readonly problem: string | null;
}

/** How a station that cannot be reached is said. */
const GAP = /^(-+|–|gap|none|no|x|leave)$/i;
/** A station's own number in front of its figure: "12: 52.5", "no. 12 52.5". */
const NUMBERED = /^(?:no\.?|station|#)?\s*(\d{1,4})\s*[:=)]\s*(.+)$/i;

/**
 * A list as one person reads it out and another types or dictates it: a figure a station, in order, each on a line of
 * its own or behind a semicolon, with its number where the order jumps ("7: 52.5"); "gap" for one that was left out.
 * Plain figures may stand in one line with spaces between. Figures without a unit are in the unit of the device.
 * @param options.first number of the first station
 * @example
 *   readList({ text: '52.5; 53\n5: 54', first: 1, system: 'metric' }).gaps // → [3, 4]
 */
export function readList(options: { text: string; first: number; system: UnitSystem }): ReadList {
  const { text, first, system } = options;
  const stations = new Map<number, number | null>();
  let no = first;
  for (const item of itemsOf(text)) {
    const numbered = NUMBERED.exec(item);
    if (numbered) no = Number(numbered[1]);
    const figure = (numbered?.[2] ?? item).trim();
    if (stations.has(no))
      return { stations: [], gaps: [], problem: `Station ${no} comes twice. Take one of them out.` };
    if (GAP.test(figure)) stations.set(no, null);
    else {
      const parsed = parseQuantity({ quantity: 'width', text: figure, system });
      if (!parsed.ok) return { stations: [], gaps: [], problem: `Station ${no}, “${figure}”: ${parsed.message}` };
      stations.set(no, parsed.value);
    }
    no += 1;
  }
  const list = [...stations].map(([number, valueM]) => ({ no: number, valueM })).sort((a, b) => a.no - b.no);
  const has = new Set(list.filter((s) => s.valueM !== null).map((s) => s.no));
  const last = list.at(-1)?.no ?? 0;
  const gaps: number[] = [];
  for (let n = list[0]?.no ?? 1; n <= last; n += 1) if (!has.has(n)) gaps.push(n);
  return { stations: list, gaps, problem: null };
}

function itemsOf(text: string): string[] {
  const lines = text
    .split(/[\n;]+/)
    .map((t) => t.trim())
    .filter(Boolean);
  return lines.flatMap((line) => (/^[\d.]+(\s+[\d.]+)+$/.test(line) ? line.split(/\s+/) : [line]));
}
