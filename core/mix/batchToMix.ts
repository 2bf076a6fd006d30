import { litresPerM2, type Taking } from '../film/layer';
import { USUAL_RATE_M2_PER_H } from '../film/spreading';
import type { Layer } from '../model/layer';
import type { SheetBody } from '../model/sheet';
import { Impossible } from '../impossible';
import { sheetThinnerOfMixed } from '../sheet/thinner';
import { largestBatchL, potLifeH } from './pot';
import { partShares, splitBatch, type Batch } from './splitBatch';

/** One zone that a batch is for, with the coat that goes onto it. */
export interface MixZone {
  readonly areaM2: number;
  readonly layer: Taking;
}

export interface MixWish {
  /** Area still to do, m², litres, or kg, both without thinner; whichever `by` says. Not a number: it cannot be read. */
  readonly by: 'area' | 'litres' | 'mass';
  readonly areaM2: number | null;
  readonly litres: number | null;
  readonly massKg?: number | null;
  /** Share in the sheet's own terms. */
  readonly thinner: number | null;
  /** Temperature of the paint in the pot, °C. */
  readonly potC: number | null;
}

export interface BatchToMix {
  /** What the zones take whole, m² and litres without thinner. */
  readonly wholeM2: number;
  readonly wholeL: number;
  readonly litresPerM2: number;
  /** Litres wished for, without thinner; 0 where that cannot be read. */
  readonly mixedL: number;
  /** What it does, m². */
  readonly doesM2: number;
  /** Null where the sheet has no pot life or the temperature is not known. */
  readonly pot: { readonly hours: number; readonly estimated: boolean } | null;
  /** The most that one painter puts on within the pot life, litres; null where there is none. */
  readonly largestL: number | null;
  readonly batch: Batch | null;
  /** Why there is no batch, in a sentence. */
  readonly problem: string | null;
  /** More thinner than the sheet allows. */
  readonly overThinned: boolean;
  /** Parts whose density is not on the sheet: what is to be weighed of them cannot be told. */
  readonly withoutDensity: readonly string[];
}

/**
 * The batch for some zones, all of one product: what they take, the parts of it, its pot life and the most that one
 * painter can put on within that.
 * @param options.zones at least one
 * @example batchToMix({
 *   sheet, // 3 : 1 by volume, 50 % solids
 *   zones: [{ areaM2: 10, layer: { dftMicron: 50, loss: 0, deadVolumeLPerM2: 0 } }],
 *   method: 'roller',
 *   wish: { by: 'area', areaM2: 10, litres: null, thinner: 0, potC: 20 },
 * }).mixedL // → 1
 */
export function batchToMix(options: {
  sheet: SheetBody;
  zones: readonly MixZone[];
  method: Layer['method'];
  wish: MixWish;
}): BatchToMix {
  const { sheet, zones, method, wish } = options;
  const { wholeM2, wholeL } = wholeOf(sheet, zones);
  const perM2 = wholeM2 > 0 ? wholeL / wholeM2 : 0;
  const wished = wishedL(sheet, wish, perM2);
  const mixedL = Number.isFinite(wished) && wished > 0 ? wished : 0;
  const { potC } = wish;
  const pot =
    sheet.potLife && potC !== null && Number.isFinite(potC) ? potLifeH({ table: sheet.potLife, tempC: potC }) : null;
  const thinner = wish.thinner !== null && Number.isFinite(wish.thinner) ? wish.thinner : 0;
  return {
    wholeM2,
    wholeL,
    litresPerM2: perM2,
    mixedL,
    doesM2: perM2 > 0 ? mixedL / perM2 : 0,
    pot,
    largestL:
      pot && perM2 > 0
        ? largestBatchL({
            potLifeH: pot.hours,
            inductionMin: sheet.inductionMin ?? 0,
            rateM2PerH: USUAL_RATE_M2_PER_H[method],
            painters: 1,
            litresPerM2: perM2,
          })
        : null,
    ...split(sheet, mixedL, thinner),
    overThinned: thinner > (sheet.thinner?.maxShare ?? 0),
    withoutDensity: sheet.parts.filter((p) => p.densityKgPerL === null).map((p) => p.name),
  };
}

/**
 * Litres without thinner that are wished for.
 * @returns not a number where they are to be weighed and a density is missing
 */
function wishedL(sheet: SheetBody, wish: MixWish, perM2: number): number {
  if (wish.by === 'mass') return (wish.massKg ?? 0) / (mixedKgPerL(sheet) ?? Number.NaN);
  return wish.by === 'litres' && wish.litres !== null ? wish.litres : (wish.areaM2 ?? 0) * perM2;
}

/**
 * kg a litre of the mixed paint weighs, without thinner; null where a density is not on the sheet.
 * @example mixedKgPerL({ ...sheet, parts: [{ name: 'Paint', role: 'base', ratio: 1, densityKgPerL: 1.3 }] }) // → 1.3
 */
export function mixedKgPerL(sheet: Pick<SheetBody, 'parts' | 'ratioBasis'>): number | null {
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  if (!shares || sheet.parts.some((p) => p.densityKgPerL === null)) return null;
  return sheet.parts.reduce((sum, p, i) => sum + (p.densityKgPerL as number) * (shares[i] as number), 0);
}

/** What some zones take whole, m² and litres without thinner. */
function wholeOf(sheet: SheetBody, zones: readonly MixZone[]): Pick<BatchToMix, 'wholeM2' | 'wholeL'> {
  return {
    wholeM2: zones.reduce((sum, z) => sum + z.areaM2, 0),
    wholeL: zones.reduce((sum, { areaM2, layer }) => sum + areaM2 * litresPerM2({ layer, sheet }), 0),
  };
}

/**
 * What of some zones is left to do by what was mixed for them, m², to a tenth.
 * @param options.mixedForL litres without thinner
 * @throws RangeError on impossible input
 * @example areaLeftM2({ sheet, zones: [{ areaM2: 9, layer }], mixedForL: 1.5 }) // → 2.3
 */
export function areaLeftM2(options: { sheet: SheetBody; zones: readonly MixZone[]; mixedForL: number }): number {
  const { wholeM2, wholeL } = wholeOf(options.sheet, options.zones);
  const { mixedForL } = options;
  return mixedForL > 0 && wholeL > 0 ? Math.max(0, Math.round(wholeM2 * (1 - mixedForL / wholeL) * 10) / 10) : wholeM2;
}

function split(sheet: SheetBody, mixedL: number, thinner: number): Pick<BatchToMix, 'batch' | 'problem'> {
  try {
    const share = sheetThinnerOfMixed(sheet, thinner);
    const batch = splitBatch({
      parts: sheet.parts,
      basis: sheet.ratioBasis,
      mixedL,
      thinner: { share, of: 'mixed' },
    });
    return { batch, problem: null };
  } catch (error) {
    if (error instanceof Impossible) return { batch: null, problem: error.message };
    throw error;
  }
}
