import type { SheetRevision } from '#core/model/sheet';
import type { SheetRow } from '#contracts/rows/sheet';

/** Which product a revision belongs to: of the yard's sheets as they are now, and of older ones that are still in use. */
export function sheetIdsOf(
  sheets: readonly SheetRow[],
  used: readonly SheetRevision[] = [],
): (revisionId: string) => string {
  const ids = new Map([
    ...used.map((r) => [r.id, r.sheetId] as const),
    ...sheets.map((s) => [s.current.id, s.id] as const),
  ]);
  return (revisionId) => ids.get(revisionId) ?? revisionId;
}
