import { pouringUnit } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { shelfSays } from '#core/stores/lots';
import { partShares } from '#core/mix/splitBatch';
import { useStores } from '../../data/store';
import type { Stint } from '../../data/targets';
import { Fig } from '../../parts/Fig';
import type { Mix } from './useMix';

/** What the shelf says of the whole coat before the first pour: tins past their date, too little, what patches hold back. */
export function ShelfLine({ mix, stint }: { mix: Mix; stint: Stint }) {
  const { units } = useSettings();
  const { stores } = useStores();
  const { batch, wholeL, mixedForL, mixedL, mixedId, tins, chosen, sheet } = mix;
  if (!stores || !tins || !batch || mixedL <= 0 || mixedId !== null) return null;
  // What the coat still takes, or this pot where that is more.
  const times = Math.max(mixedL, wholeL - mixedForL) / mixedL;
  const shares = partShares({ parts: sheet.parts, basis: sheet.ratioBasis });
  const zones = chosen.map((z) => z.surfaceId);
  const heldL = stores.boats
    .flatMap((b) => b.needs)
    .filter((n) => n.patch && n.sheetId === stint.sheetId && !zones.includes(n.surfaceId))
    .reduce((sum, n) => sum + n.likelyL, 0);
  const { stale, short } = shelfSays({
    states: tins,
    sheetId: stint.sheetId,
    parts: batch.parts.map((p, i) => ({ name: p.name, wantL: p.volumeL * times, heldL: heldL * (shares?.[i] ?? 0) })),
  });
  const unit = pouringUnit('volume', units, Math.max(0, ...short.map((p) => p.wantL)));
  return (
    <>
      {stale.map((lot) => (
        <p key={lot.id} role="alert" className="mb-2 border-l-4 border-warning pl-3">
          A tin of {lot.part}
          {lot.batchNumber ? `, batch ${lot.batchNumber}` : ''}, <Fig quantity="volume" value={lot.nowL} />, is past its
          date since {lot.staleFrom}: look at it, stir it and try a patch first, or leave it.
        </p>
      ))}
      {short.length > 0 && (
        <p role="alert" className="mb-2 border-l-4 border-warning pl-3">
          Too little on the shelf for the whole coat:{' '}
          {short.map((p, i) => (
            <span key={p.name}>
              {i > 0 && '; '}
              <Fig quantity="volume" value={p.haveL} unit={unit} /> of{' '}
              <Fig quantity="volume" value={p.wantL} unit={unit} /> {p.name}
            </span>
          ))}
          {heldL > 0 && (
            <>
              , with <Fig quantity="volume" value={heldL} unit={unit} /> held back for patches
            </>
          )}
          . Get more before you start, or stop at an edge.
        </p>
      )}
    </>
  );
}
