import { Link } from 'react-router';
import type { Coat } from '#core/coat/fold';
import type { SheetRevision } from '#core/model/sheet';
import { batchRatio } from '#core/sheet/useRatio';
import { plainNumber } from '#core/units/format';
import type { BoatView } from '../../data/store';
import { useLedgerOf } from '../../data/useLedgerOf';
import { attempt } from '../../parts/attempt';

/** What stays marked on a coat: batches off their ratio or in another one, and those that the ratio ledger leaves suspect. */
export function RatioMark({ view, coat, revision }: { view: BoatView; coat: Coat; revision: SheetRevision }) {
  const ledger = useLedgerOf(revision.sheetId, revision.body);
  const own = view.batches.filter((b) => coat.batches.some((on) => on.batchId === b.id));
  const said = (list: readonly number[]) => list.map((r) => plainNumber(r, 2)).join(' : ');
  const suspect = own.filter((b) => ledger?.suspects.includes(b.id));
  return (
    <>
      {own.map((batch) => {
        const ratio = attempt(() => batchRatio({ sheet: revision.body, batch })).value;
        if (!batch.use && (ratio === null || ratio.withinTolerance)) return null;
        return (
          <p key={batch.id} className="border-l-4 border-warning pl-3">
            {batch.use ? `Mixed ${ratio ? said(ratio.wanted) : ''} for ${batch.use}. ` : ''}
            {ratio && !ratio.withinTolerance
              ? `Off its ratio: ${said(ratio.poured)} instead of ${said(ratio.wanted)}. ${batch.ratioReason ?? ''}`
              : ''}
          </p>
        );
      })}
      {suspect.length > 0 && (
        <p role="alert" className="border-l-4 border-error pl-3">
          The tins say that more or less of a part is gone than the batches explain, and a batch of this coat is among
          the suspect ones.{' '}
          <Link to={`/stores/ledger/${revision.sheetId}`} className="underline underline-offset-4">
            Ratio ledger
          </Link>
        </p>
      )}
    </>
  );
}
