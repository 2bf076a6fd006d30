import { Impossible } from '../impossible';
import { partShares } from '../mix/splitBatch';
import type { SheetBody } from '../model/sheet';

/**
 * Thinner as a share of mixed paint, from a share told the sheet's way (of base or of mixed).
 * @example sheetThinnerOfMixed(sheet, 0.1) // → 0.1
 */
export function sheetThinnerOfMixed(sheet: Pick<SheetBody, 'parts' | 'ratioBasis' | 'thinner'>, share: number): number {
  if (share === 0 || sheet.thinner === null || sheet.thinner.of === 'mixed') return share;
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  if (shares === null)
    throw new Impossible('A share of the base cannot be turned into litres without the densities of the parts.');
  return share * (shares[0] as number);
}
