import type { AbradeFor, Layer } from '../model/layer';
import { notNegative } from '../guard';
import { partShares } from '../mix/splitBatch';
import type { SheetBody } from '../model/sheet';
import { sheetThinnerOfMixed } from '../sheet/thinner';
import type { Working } from '../why';
import { litresNeeded, spreadingRateM2PerL, wetFilmMicron } from './spreading';

/** A stripe coat by brush takes so much more of a coat. [M] */
export const STRIPE_SHARE = 0.1;

/**
 * Dry film, µm, that abrading takes off the coat beneath: levelling a third of it, scuffing for bond 7.5 (the
 * middle of 5–10), nibs 5. [M]
 */
export function filmLostMicron(abradeFor: AbradeFor, beneathMicron: number): number {
  const lost = { level: beneathMicron / 3, bond: 7.5, nibs: 5 }[abradeFor];
  return Math.min(lost, beneathMicron);
}

/** What one coat takes of every m²: it rests on the coat and its sheet, whatever it goes onto. */
export interface LayerPerM2 {
  readonly spreadingRateM2PerL: number;
  /** µm wet, thinner included. */
  readonly wetMicron: number;
  /** Unthinned mixed paint, with what soaks in and a stripe coat. */
  readonly litres: number;
  /** Empty where the sheet cannot tell its parts apart by volume. */
  readonly parts: readonly { readonly name: string; readonly litres: number }[];
  readonly thinnerL: number;
}

/** The figures of a coat that tell what it takes. */
export type Taking = Pick<Layer, 'dftMicron' | 'loss' | 'deadVolumeLPerM2'> & Pick<Layer, 'absorption' | 'stripe'>;

/** What of a sheet tells how far its paint goes. */
export type TakenFrom = Pick<SheetBody, 'solids'> & Partial<Pick<SheetBody, 'soldIn' | 'canCoversM2' | 'packs'>>;

/**
 * The can of a product that is sold in spray cans: litres in it, and m² it covers once; null for the others, and where its
 * sheet does not say.
 * @example sprayCan({ solids: 0.2, soldIn: 'aerosol', canCoversM2: 1.2, packs: [{ sizeL: 0.4 }] }) // → { sizeL: 0.4, coversM2: 1.2 }
 */
export function sprayCan({ soldIn, canCoversM2, packs }: TakenFrom): { sizeL: number; coversM2: number } | null {
  const sizeL = packs?.[0]?.sizeL;
  return soldIn === 'aerosol' && canCoversM2 && sizeL ? { sizeL, coversM2: canCoversM2 } : null;
}

/**
 * Unthinned mixed paint that a coat takes, L a m²: its film and the dead volume, what is lost on the way, what soaks in
 * and its stripe coat.
 * @throws RangeError on impossible input
 * @example litresPerM2({ layer, sheet }) * 9 // → 2
 */
export function litresPerM2({ layer, sheet }: { layer: Taking; sheet: TakenFrom }): number {
  const { dftMicron, loss, deadVolumeLPerM2 } = layer;
  // A can of spray covers what it says it does: nobody pours it, and what flies off is in that figure.
  const can = sprayCan(sheet);
  const plain = can
    ? can.sizeL / can.coversM2
    : litresNeeded({ areaM2: 1, dftMicron, solids: sheet.solids, loss, deadVolumeLPerM2 });
  return plain * (1 + notNegative(layer.absorption ?? 0, 'What soaks in') + (layer.stripe ? STRIPE_SHARE : 0));
}

/** @throws RangeError on impossible input */
export function layerPerM2({ layer, sheet }: { layer: Layer; sheet: SheetBody }): LayerPerM2 {
  const { solids } = sheet;
  const { dftMicron } = layer;
  const thinner = sheetThinnerOfMixed(sheet, layer.thinnerShare);
  const litres = litresPerM2({ layer, sheet });
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  return {
    spreadingRateM2PerL: spreadingRateM2PerL({ solids, dftMicron }),
    wetMicron: wetFilmMicron({ dftMicron, solids, thinner }),
    litres,
    parts:
      shares === null
        ? []
        : sheet.parts.map((part, i) => ({ name: part.name, litres: litres * (shares[i] as number) })),
    thinnerL: litres * thinner,
  };
}

/** Litres: likely, and the range that the area's ± gives. */
export interface Range {
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}

export interface LayerQuantities extends Omit<LayerPerM2, 'litres'> {
  /** Unthinned mixed paint. */
  readonly litres: Range;
}

/** A zone's area, m², and ± of it as a share (95 % half-width); its error carries straight to litres. */
export interface AreaOf {
  readonly areaM2: number;
  readonly areaShare: number;
}

/** Litres of every m² on an area. @throws RangeError on an area below 0 */
export function rangeOn(litresPerM2: number, { areaM2, areaShare }: AreaOf): Range {
  const likely = litresPerM2 * notNegative(areaM2, 'Area');
  return { low: likely * Math.max(0, 1 - areaShare), likely, high: likely * (1 + areaShare) };
}

/** What a coat takes on an area. @throws RangeError on an area below 0 */
export function layerOnArea(perM2: LayerPerM2, area: AreaOf): LayerQuantities {
  return {
    spreadingRateM2PerL: perM2.spreadingRateM2PerL,
    wetMicron: perM2.wetMicron,
    litres: rangeOn(perM2.litres, area),
    parts: perM2.parts.map((p) => ({ name: p.name, litres: p.litres * area.areaM2 })),
    thinnerL: perM2.thinnerL * area.areaM2,
  };
}

/**
 * What one coat takes on an area: coverage, wet film, litres with loss and dead volume, each part,
 * and thinner.
 * @throws RangeError on impossible input
 * @example
 *   layerQuantities({ areaM2: 10, areaShare: 0.1, layer, sheet }).litres // → { low: 2, likely: 2.222, high: 2.444 }
 */
export function layerQuantities(options: AreaOf & { layer: Layer; sheet: SheetBody }): LayerQuantities {
  return layerOnArea(layerPerM2(options), options);
}

/**
 * How the litres of a coat come about.
 * @example
 *   layerWorking({ areaM2: 10, areaShare: 0.1, layer, sheet }).formula // → 'area × (dry film + dead volume) ÷ volume solids ÷ (1 − loss) × (1 + what soaks in + stripe coat)'
 */
export function layerWorking({
  areaM2,
  areaShare,
  layer,
  sheet,
}: AreaOf & { layer: Layer; sheet: SheetBody }): Working {
  return {
    what: 'Litres of mixed paint, without thinner',
    formula: 'area × (dry film + dead volume) ÷ volume solids ÷ (1 − loss) × (1 + what soaks in + stripe coat)',
    inputs: [
      { name: 'area', value: areaM2, quantity: 'area' },
      { name: 'dry film', value: layer.dftMicron, quantity: 'film' },
      { name: 'dead volume in the profile, per m²', value: layer.deadVolumeLPerM2, quantity: 'volume' },
      { name: 'volume solids', value: sheet.solids, quantity: 'share' },
      { name: 'loss', value: layer.loss, quantity: 'share' },
      { name: 'what soaks in', value: layer.absorption ?? 0, quantity: 'share' },
      { name: 'stripe coat', value: layer.stripe ? STRIPE_SHARE : 0, quantity: 'share' },
    ],
    source: { label: 'P', name: 'standard coating arithmetic; loss is common practice' },
    mattersMost:
      areaShare > 0.1
        ? 'The area matters most: it is only known to ± ' + Math.round(areaShare * 100) + ' %.'
        : 'The dry film you really lay matters most: comb it.',
  };
}
