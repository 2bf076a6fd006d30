import type { RatioPart } from '#core/mix/splitBatch';
import { parsePlain } from '#core/units/parse';

const NAMES = ['Base', 'Hardener', 'Third part', 'Fourth part'];

/** "4:1", "3 : 1 : 0,5": parts by their place; null while it cannot be read as a ratio. */
export function partsOf(text: string): RatioPart[] | null {
  const ratios = text.split(/[:/]|\bto\b/i).map(parsePlain);
  if (ratios.length < 2 || ratios.length > NAMES.length || ratios.some((r) => r === null || !(r > 0))) return null;
  return ratios.map((ratio, i) => ({ name: NAMES[i] as string, ratio: ratio as number }));
}
