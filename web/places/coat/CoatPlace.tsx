import { Link } from 'react-router';
import { useView } from '../../app/BoatShell';
import { Timers } from '../../parts/Timers';
import { StateSwatch } from '../../parts/patterns';
import { timeWords } from '../../parts/words';

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
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-2">
      <section aria-labelledby="going-on">
        <h1 id="going-on" className="ruled pb-1 text-2xl">
          {inHand.length === 0 ? 'No coat going on' : 'Going on'}
        </h1>
        <Timers view={view} />
        <ul className="sheet-rule">{inHand.map(row)}</ul>
        <Link to={`/boats/${boat.id}/coat/start`} className="btn btn-primary mt-3">
          Start a coat
        </Link>
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
