import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Lesson } from '#core/coat/lesson';
import { partShares } from '#core/mix/splitBatch';
import { RATIO_TOLERANCE } from '#core/mix/strokes';
import type { SheetBody } from '#core/model/sheet';
import { productLedger, type ProductLedger } from '#core/stores/productLedger';
import type { LedgerBatchRow, LedgerFacts } from '#contracts/rows/stores';
import { call } from './api';

export interface LedgerOf extends ProductLedger {
  readonly rows: ReadonlyMap<string, LedgerBatchRow>;
  readonly lessons: readonly Lesson[];
  readonly toleranceShare: number;
  /** Batches that the newest look at the tins leaves suspect. */
  readonly suspects: readonly string[];
}

/** The ratio ledger of a product: what the batches took against what the tins say; null until it is known. */
export function useLedgerOf(sheetId: string | undefined, sheet: SheetBody | undefined): LedgerOf | null {
  const { data } = useQuery({
    queryKey: ['ledger', sheetId],
    queryFn: () => call<LedgerFacts>('GET', `/ratio-ledger/${sheetId}`),
    enabled: sheetId !== undefined,
  });
  return useMemo(() => {
    if (!data || !sheet) return null;
    const ratio = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
    if (!ratio) return null;
    const toleranceShare = sheet.ratioTolerance ?? RATIO_TOLERANCE;
    const { lots, batches } = data;
    const made = productLedger({ parts: sheet.parts.map((p) => p.name), ratio, lots, batches, toleranceShare });
    const last = made.checks[made.checks.length - 1];
    return {
      ...made,
      toleranceShare,
      lessons: data.lessons,
      rows: new Map(batches.map((b) => [b.id, b])),
      suspects: last?.suspects ?? [],
    };
  }, [data, sheet]);
}
