import { pouringUnit } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { lotStates, shelfSays } from '#core/stores/lots';
import { useSheets, useStores } from '../../data/store';
import type { Stint } from '../../data/targets';
import { Fig } from '../../parts/Fig';
import type { Mix } from './useMix';

/** What the shelf says before the first pour: tins past their date, too little for the coat. */
export function ShelfLine({ mix, stint }: { mix: Mix; stint: Stint }) {
  const { units } = useSettings();
  const { stores } = useStores();
  const { data: sheets } = useSheets();
  const { batch, wholeL, mixedForL, mixedL, mixedId } = mix;
  if (!stores || !batch || mixedL <= 0 || mixedId !== null) return null;
  const states = lotStates({
    lots: stores.lots,
    pours: stores.pours,
    today: stores.today,
    shelfOf: (id) => sheets?.find((s) => s.id === id)?.current.body ?? {},
  });
  // What the coat still takes, or this pot where that is more.
  const times = Math.max(mixedL, wholeL - mixedForL) / mixedL;
  const { stale, short } = shelfSays({
    states,
    sheetId: stint.sheetId,
    parts: batch.parts.map((p) => ({ name: p.name, wantL: p.volumeL * times })),
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
      {short.map((p) => (
        <p key={p.name} role="alert" className="mb-2 border-l-4 border-warning pl-3">
          The shelf has <Fig quantity="volume" value={p.haveL} unit={unit} /> of {p.name}; the coat takes{' '}
          <Fig quantity="volume" value={p.wantL} unit={unit} />. Get more before you start, or stop at an edge.
        </p>
      ))}
    </>
  );
}
