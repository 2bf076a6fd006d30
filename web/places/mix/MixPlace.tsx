import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { SheetBody } from '#core/model/sheet';
import { useView } from '../../app/BoatShell';
import { stintFor, stintsInHand, stintsOf } from '../../data/targets';
import { useWide } from '../../parts/useWide';
import { Timers } from '../../parts/Timers';
import { nextName } from '../../parts/zoneWords';
import { BatchView } from './BatchView';
import { MixWishes } from './MixWishes';
import { ShelfLine } from './ShelfLine';
import { useMix, type MixProps } from './useMix';

/** One batch at a time, in large figures. */
export function MixPlace() {
  const view = useView();
  const [search, setSearch] = useSearchParams();
  // What is going on comes first: a pot mixed now is most likely for that.
  const stints = useMemo(() => [...stintsInHand(view), ...stintsOf(view)], [view]);
  const found = stintFor(stints, search.get('on')?.split(',') ?? []);
  const running = <Timers view={view} />;
  if (!found) {
    return (
      <section className="max-w-prose py-4">
        {running}
        <h1>Nothing to mix</h1>
        <p className="my-3">No zone has a coat to come. Plan the next one under Film.</p>
        <Link to={`/boats/${view.boat.id}/film`} className="btn btn-primary">
          To Film
        </Link>
      </section>
    );
  }
  // At once, not as a transition: a box ticked with a glove must not wait for the page.
  const pick = (ids: string[]) => setSearch({ on: ids.join(',') }, { replace: true, flushSync: true });
  return (
    <div className="min-w-0">
      {running}
      <MixOne
        key={found.stint.key}
        view={view}
        stints={stints}
        stint={found.stint}
        chosen={found.chosen}
        onPick={pick}
        litres={litresOf(search.get('litres'))}
      />
    </div>
  );
}

/** Litres that were worked out elsewhere, in the address. */
const litresOf = (text: string | null): number | null => (text !== null && Number(text) > 0 ? Number(text) : null);

function MixOne(props: MixProps) {
  const mix = useMix(props);
  const wide = useWide();
  if (mix.sheet.nameOnly) return <NameOnly sheet={mix.sheet} sheetId={props.stint.sheetId} />;
  const forWhat = (
    <section key="for" className="flex min-w-0 flex-col gap-3" aria-label="For what">
      <MixWishes {...props} mix={mix} />
    </section>
  );
  const batch = (
    <section key="batch" className="min-w-0" aria-label="The batch">
      <ShelfLine mix={mix} stint={props.stint} />
      <BatchView mix={mix} view={props.view} stint={props.stint} />
    </section>
  );
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <h1 className="text-2xl lg:col-span-2">
        Mix {mix.sheet.name}, {nextName(mix.first)}
        {props.stint.coat && <span className="quiet"> — for the coat that is going on</span>}
      </h1>
      {wide ? [forWhat, batch] : [batch, forWhat]}
    </div>
  );
}

/** Nobody has typed how it is mixed: a guess from here would end up in a pot. */
function NameOnly({ sheet, sheetId }: { sheet: SheetBody; sheetId: string }) {
  return (
    <section className="max-w-prose py-4">
      <h1>Mix {sheet.name}</h1>
      <p className="my-3">
        Only its name is known. Type ratio, solids and film from the tin, and the batch is worked out here.
      </p>
      <Link to={`/sheets/${sheetId}/edit`} className="btn btn-primary">
        Type its figures
      </Link>
    </section>
  );
}
