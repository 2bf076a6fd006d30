import { litresPerM2, type Taking } from '../film/layer';
import { USUAL_RATE_M2_PER_H } from '../film/spreading';
import type { Layer } from '../model/layer';
import type { PouredAdditive } from '../model/log';
import type { SheetBody } from '../model/sheet';
import { Impossible } from '../impossible';
import { sheetThinnerOfMixed } from '../sheet/thinner';
import { forUse } from '../sheet/useRatio';
import { planBatches, type BatchPlan } from './batchPlan';
import { batchLimitL, potLifeH } from './pot';
import { partShares, splitBatch, type Batch } from './splitBatch';

/** One zone that a batch is for, with the coat that goes onto it. */
export interface MixZone {
  readonly areaM2: number;
  readonly layer: Taking;
}

export interface MixWish {
  /**
   * Area still to do, m², litres, or kg, both without thinner, or what the tins still give; whichever `by` says. Not a
   * number: it cannot be read.
   */
  readonly by: 'area' | 'litres' | 'mass' | 'cans';
  readonly areaM2: number | null;
  readonly litres: number | null;
  readonly massKg?: number | null;
  /** What can be mixed of what is left in the tins, litres without thinner. */
  readonly cansL?: number | null;
  /** Named use whose ratio is mixed; left out or null: the sheet's own. */
  readonly use?: string | null;
  /** Additives by the sheet's names, each a share of the mixed paint. */
  readonly additives?: Readonly<Record<string, number>>;
  /** People at it; left out or null: one. */
  readonly painters?: number | null;
  /** m² an hour of one painter; left out or null: what is usual by that way of putting it on. */
  readonly rateM2PerH?: number | null;
  /** Litres a m² that it really takes; left out or null: as it is worked out. */
  readonly litresPerM2?: number | null;
  /** The most that one batch may hold, L, as somebody decided; left out or null: by the rule. */
  readonly limitL?: number | null;
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
  /** As it is worked out, whatever was taken in its place. */
  readonly plannedLPerM2: number;
  /** Litres wished for, without thinner; 0 where that cannot be read. */
  readonly mixedL: number;
  /** What it does, m². */
  readonly doesM2: number;
  /** Null where the sheet has no pot life or the temperature is not known. */
  readonly pot: { readonly hours: number; readonly estimated: boolean } | null;
  /** The most that goes on within the pot life, litres: by the rule, and as it is in force. Null where there is none. */
  readonly ruleL: number | null;
  readonly limitL: number | null;
  readonly painters: number;
  readonly rateM2PerH: number;
  /** Batches for what is still to go on; null where the stand eats the pot life. */
  readonly plan: BatchPlan | null;
  readonly additives: readonly PouredAdditive[];
  readonly batch: Batch | null;
  /** Why there is no batch, in a sentence. */
  readonly problem: string | null;
  /** More thinner than the sheet allows. */
  readonly overThinned: boolean;
  /** Parts whose density is not on the sheet: what is to be weighed of them cannot be told. */
  readonly withoutDensity: readonly string[];
}

/** A figure that was typed and can be counted on; null for nothing, and for what cannot be read. */
const usable = (value: number | null | undefined): number | null =>
  value != null && Number.isFinite(value) && value > 0 ? value : null;

/** The additives wished for, as they are poured. */
function additivesOf(sheet: SheetBody, { additives = {} }: MixWish, mixedL: number): PouredAdditive[] {
  return (sheet.additives ?? []).flatMap(({ name, potFactor, windowFactor }) => {
    const share = usable(additives[name]);
    return share === null ? [] : [{ name, litres: share * mixedL, potFactor, windowFactor }];
  });
}

/** Pot life at the temperature of the pot, with its additives. */
function potOf(sheet: SheetBody, { potC }: MixWish, additives: readonly PouredAdditive[]): BatchToMix['pot'] {
  if (!sheet.potLife || potC === null || !Number.isFinite(potC)) return null;
  const { hours, estimated } = potLifeH({ table: sheet.potLife, tempC: potC });
  return { hours: additives.reduce((h, a) => h * a.potFactor, hours), estimated };
}

/**
 * The batch for some zones, all of one product: what they take, the parts of it, its pot life, the most that its painters
 * can put on within that, and in how many batches what is still to do is mixed.
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
  const { zones, method, wish } = options;
  const sheet = forUse(options.sheet, wish.use);
  const whole = wholeOf(sheet, zones);
  const { wholeM2 } = whole;
  const real = usable(wish.litresPerM2);
  const wholeL = real === null ? whole.wholeL : real * wholeM2;
  const perM2 = wholeM2 > 0 ? wholeL / wholeM2 : 0;
  const wished = wishedL(sheet, wish, perM2);
  const mixedL = Number.isFinite(wished) && wished > 0 ? wished : 0;
  const additives = additivesOf(sheet, wish, mixedL);
  const pot = potOf(sheet, wish, additives);
  const painters = Math.max(1, usable(wish.painters) ?? 1);
  const rateM2PerH = usable(wish.rateM2PerH) ?? USUAL_RATE_M2_PER_H[method];
  const inductionH = (sheet.inductionMin ?? 0) / 60;
  const ruleL =
    pot && perM2 > 0
      ? batchLimitL({ potLifeH: pot.hours, inductionH, rateM2PerH, painters, litresPerM2: perM2 })
      : null;
  const limitL = usable(wish.limitL) ?? ruleL;
  const stillM2 = usable(wish.areaM2) ?? 0;
  const thinner = wish.thinner !== null && Number.isFinite(wish.thinner) ? wish.thinner : 0;
  return {
    wholeM2,
    wholeL,
    litresPerM2: perM2,
    plannedLPerM2: wholeM2 > 0 ? whole.wholeL / wholeM2 : 0,
    mixedL,
    doesM2: perM2 > 0 ? mixedL / perM2 : 0,
    pot,
    ruleL,
    limitL,
    painters,
    rateM2PerH,
    plan: planBatches({ stillL: stillM2 * perM2, limitL }),
    additives,
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
  if (wish.by === 'cans') return wish.cansL ?? Number.NaN;
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
