import { Link } from 'react-router';
import { useView } from '../../app/BoatShell';
import { Timers } from '../../parts/Timers';
import { StateSwatch } from '../../parts/patterns';
import { timeWords } from '../../parts/words';
import { mayGoOn, windowOpen } from '#core/coat/zoneStatus';
import type { BoatView } from '../../data/store';
import { WindowRibbon } from './WindowRibbon';
import { nextName, windowLine } from '../../parts/zoneWords';

/** Coats going on, and those finished of late, for a hand test or a correction. */
export function CoatPlace() {
  const view = useView();
  const { coats, boat, sheetById, at } = view;
  const names = (ids: readonly { surfaceId: string }[]) => ids.map((t) => view.zoneName(t.surfaceId)).join(', ');
  const inHand = coats.filter((c) => c.finishedAt === null);
  const done = coats.filter((c) => c.finishedAt !== null).reverse();
  const row = (c: (typeof coats)[number]) => (
    <li key={c.id}>
      <Link to={`/boats/${boat.id}/coat/${c.id}`} className="flex min-h-12 items-center gap-3 py-1.5">
        <StateSwatch state={c.finishedAt === null ? 'inHand' : 'complete'} colour={c.colourHex} />
        <span className="min-w-0 flex-1">
          <span className="font-semibold underline decoration-1 underline-offset-4">{names(c.on)}</span>
          <span className="block text-sm quiet">
            {sheetById.get(c.sheetRevisionId)?.body.name}, {c.colour}
          </span>
        </span>
        <span className="fig text-right">{timeWords(c.finishedAt ?? c.startedAt, at, boat.timeZone)}</span>
      </Link>
    </li>
  );
  return (
    <div
      className={`grid min-w-0 gap-x-10 gap-y-4 ${done.length > 0 ? 'lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]' : ''}`}
    >
      <section aria-labelledby="going-on">
        <h1 id="going-on" className="ruled pb-1 text-2xl">
          {inHand.length === 0 ? 'No coat going on' : 'Going on'}
        </h1>
        <Timers view={view} />
        <ul className="sheet-rule">{inHand.map(row)}</ul>
        <Link to={`/boats/${boat.id}/coat/start`} className="btn btn-primary mt-3">
          Start a coat
        </Link>
        <ToCome view={view} />
      </section>
      <section aria-labelledby="finished">
        <h2 id="finished" className="ruled pb-1">
          Finished
        </h2>
        {done.length === 0 && (
          <p className="py-2 quiet">
            Nothing yet. A coat put on yesterday can be typed in today: start it with “It was earlier”.
          </p>
        )}
        <ul className="sheet-rule">{done.slice(0, 12).map(row)}</ul>
      </section>
    </div>
  );
}

/** Zones with a coat to come, those it may go onto first, each a tap from its start. */
function ToCome({ view }: { view: BoatView }) {
  const { boat, at, statuses } = view;
  const open = statuses.filter((s) => s.nextLayer && windowOpen(s));
  const list = [...open.filter(mayGoOn), ...open.filter((s) => !mayGoOn(s))];
  if (list.length === 0) return null;
  return (
    <section aria-labelledby="to-come" className="mt-4">
      <h2 id="to-come" className="ruled pb-1">
        To come
      </h2>
      <ul className="sheet-rule">
        {list.map((s) => (
          <li key={s.surfaceId}>
            <Link
              to={`/boats/${boat.id}/coat/start?on=${s.surfaceId}`}
              className="flex min-h-12 items-center gap-3 py-1.5"
            >
              <StateSwatch state={s.state} colour={s.colourHex} />
              <span className="min-w-0 flex-1">
                <span className="font-semibold underline decoration-1 underline-offset-4">
                  {view.zoneName(s.surfaceId)}
                </span>{' '}
                <span className="quiet">{nextName(s)}</span>
                <span className="block text-sm quiet">
                  {windowLine(s, { at, zone: boat.timeZone })}
                  {mayGoOn(s) ? '' : '; the air is against it now'}
                </span>
              </span>
            </Link>
            {s.lastCoat && s.clocks && (
              <WindowRibbon view={view} coat={s.lastCoat} surfaceId={s.surfaceId} clocks={s.clocks} />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
