import type { SheetBody } from '#core/model/sheet';
import { lotStates, type LotState } from '#core/stores/lots';
import type { Stores } from '#contracts/rows/stores';

/** The yard's tins as they are now, by what batches took and by the shelf lives of their sheets. */
export const tinsNow = (stores: Stores, sheetOf: (sheetId: string) => SheetBody | undefined): LotState[] =>
  lotStates({
    lots: stores.lots,
    pours: stores.pours,
    today: stores.today,
    shelfOf: (id) => sheetOf(id) ?? {},
  });
