import { useMemo } from 'react';
import { partShares } from '#core/mix/splitBatch';
import { USUAL_KIT, type Kit } from '#core/model/kit';
import type { PaintMethod } from '#core/model/paintMethod';
import type { SheetBody } from '#core/model/sheet';
import { onShelf, type LotState } from '#core/stores/lots';
import { rateOf } from '../../data/rates';
import { useSheets, useStores } from '../../data/store';
import { tinsNow } from '../../data/tins';

/** What the yard has of a product, and what it measures with. */
export function useShelf(
  sheetId: string,
  sheet: SheetBody,
  method: PaintMethod,
): { rateM2PerH: number; kit: Kit; tins: readonly LotState[] | null; haveL: readonly number[] | null } {
  const { stores } = useStores();
  const { data: sheets } = useSheets();
  const tins = useMemo(() => {
    if (!stores) return null;
    const thinner = sheet.thinner?.name;
    return tinsNow(stores, (id) => sheets?.find((s) => s.id === id)?.current.body).filter(
      (s) => s.sheetId === sheetId || (thinner !== undefined && s.part === thinner),
    );
  }, [stores, sheets, sheetId, sheet]);
  return {
    rateM2PerH: rateOf(stores?.rules, sheetId, method),
    kit: stores?.rules.kit ?? USUAL_KIT,
    tins,
    haveL: tins ? onShelf(tins, sheetId, sheet.parts) : null,
  };
}

/** What can be mixed of what is on the shelf in date, litres without thinner, in the ratio of a sheet; null where that is not known. */
export function mixableL(
  sheet: Pick<SheetBody, 'parts' | 'ratioBasis'>,
  haveL: readonly number[] | null,
): number | null {
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  return shares && haveL ? Math.min(...shares.map((s, i) => (haveL[i] as number) / s)) : null;
}
