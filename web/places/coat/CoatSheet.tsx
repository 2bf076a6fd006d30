import { useState } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { type Coat } from '#core/coat/fold';
import { measuredFilm } from '#core/coat/measuredFilm';
import { wetFilmMicron } from '#core/film/spreading';
import { finishProblem } from '#core/coat/paintOn';
import type { FinishedBody } from '#core/model/log';
import type { SheetBody } from '#core/model/sheet';
import { CombField } from './CombField';
import { Finished } from './Finished';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import { now } from '../../data/now';
import { logEntry, type BoatView } from '../../data/store';
import { FormProblem, QuantityField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { TimeField } from '../../parts/TimeField';
import { coatName, METHOD_WORDS } from '../../parts/words';
import { EntryList } from './EntryList';
import { PaintSays } from './PaintSays';
import { counted } from '#core/units/format';

/** One coat: while it goes on the wet film in huge figures; once finished its clocks and hand tests. */
export function CoatSheet() {
  const view = useView();
  const { coatId } = useParams();
  const coat = view.coats.find((c) => c.id === coatId);
  if (!coat)
    return view.entries.some((e) => e.streamId === coatId) ? (
      <Navigate to={`/boats/${view.boat.id}/coat`} replace />
    ) : (
      <NotFound what="coat" />
    );
  const sheet = view.sheetById.get(coat.sheetRevisionId)?.body;
  if (!sheet) return <NotFound what="data sheet" />;
  const zones = coat.on.map((t) => view.zoneName(t.surfaceId));
  const number = view.coats.filter(
    (c) =>
      c.sheetRevisionId === coat.sheetRevisionId &&
      c.startedAt <= coat.startedAt &&
      c.on.some((t) => coat.on.some((o) => o.surfaceId === t.surfaceId)),
  ).length;
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-2">
      <div className="flex min-w-0 flex-col gap-3">
        <header>
          <h1 className="text-[1.9rem]">
            {zones.join(', ')}: {coatName(sheet.kind, number)}
          </h1>
          <p>
            {sheet.name}, {coat.colour}, {METHOD_WORDS[coat.method].toLowerCase()} ·{' '}
            {coat.finishedAt === null ? 'going on' : 'finished'}
          </p>
        </header>
        {coat.finishedAt === null ? (
          <GoingOn view={view} coat={coat} sheet={sheet} />
        ) : (
          <Finished view={view} coat={coat} />
        )}
        {coat.finishedAt !== null && <PaintSays view={view} coat={coat} />}
      </div>
      <div className="min-w-0">
        <EntryList view={view} coat={coat} />
      </div>
    </div>
  );
}

function GoingOn({ view, coat, sheet }: { view: BoatView; coat: Coat; sheet: SheetBody }) {
  const target = wetFilmMicron({ dftMicron: coat.dftMicron, solids: sheet.solids, thinner: coat.thinner });
  const film = measuredFilm(coat, sheet.solids);
  return (
    <>
      <section className="border-y-2 border-base-content py-2" aria-label="Wet film">
        <p className="lab">Comb for, wet</p>
        <p>
          <Fig quantity="film" value={target} className="text-7xl leading-none lg:text-8xl" />
        </p>
        <p className="quiet">
          dries to <Fig quantity="film" value={coat.dftMicron} />
        </p>
        {film && (
          <p className="mt-1">
            {counted(film.readings, 'reading')}, mean{' '}
            <Fig quantity="film" value={film.wetMicron} className="text-2xl" /> wet ={' '}
            <Fig quantity="film" value={film.dryMicron} className="text-2xl" /> dry
            {film.wetMicron < target * 0.85
              ? ': too thin, go heavier'
              : film.wetMicron > target * 1.25
                ? ': too heavy, it may sag'
                : ': on target'}
          </p>
        )}
      </section>
      <CombField boatId={view.boat.id} coat={coat} />
      <Finish view={view} coat={coat} />
    </>
  );
}

/** When it was finished and where its paint went. */
function Finish({ view, coat }: { view: BoatView; coat: Coat }) {
  const { boat } = view;
  const mixedL = coat.batches.reduce((sum, b) => sum + b.litres, 0);
  const [said, setSaid] = useState<FinishedBody>({ litresOn: null, leftL: null, lostL: null });
  const [earlier, setEarlier] = useState(false);
  const [finishedAt, setFinishedAt] = useState(() => now());
  const [problem, setProblem] = useState<string | null>(null);
  const [challenged, setChallenged] = useState(false);
  const say = (change: Partial<FinishedBody>) => {
    setSaid({ ...said, ...change });
    setChallenged(false);
  };
  const finish = () => {
    const at = earlier ? finishedAt : now();
    if (!Number.isFinite(at) || at > now()) return setProblem('The finish has not come yet. Check the date and time.');
    if (at < coat.startedAt) return setProblem('The coat would finish before it started. Check the time.');
    const wrong = finishProblem({ said, mixedL });
    if (wrong && !(wrong.challenge && challenged)) {
      setChallenged(wrong.challenge);
      return setProblem(wrong.text);
    }
    setProblem(null);
    void logEntry(
      { boatId: boat.id, stream: 'coat', streamId: coat.id, kind: 'finished', occurredAt: at, body: said },
      'Coat finished',
    );
    return undefined;
  };
  return (
    <section className="flex flex-col gap-3 border-t border-base-300 pt-3" aria-label="Finish">
      {earlier && <TimeField label="Finished" at={finishedAt} onAt={setFinishedAt} zone={boat.timeZone} />}
      {mixedL > 0 ? (
        <>
          <p>
            <Fig quantity="volume" value={mixedL} /> mixed for it.
          </p>
          <div className="grid grid-cols-2 gap-3">
            <QuantityField
              label="Left in the pot"
              quantity="volume"
              value={said.leftL ?? null}
              onValue={(leftL) => say({ leftL })}
              hint="It stays for the next coat while it lives."
            />
            <QuantityField
              label="Lost on tray and roller"
              quantity="volume"
              value={said.lostL ?? null}
              onValue={(lostL) => say({ lostL })}
              hint="Left empty: as the build-up reckons"
            />
          </div>
        </>
      ) : (
        <QuantityField
          label="Litres on the hull, if known"
          quantity="volume"
          value={said.litresOn}
          onValue={(litresOn) => say({ litresOn })}
          hint="With the comb they tell the area that was really covered."
        />
      )}
      <FormProblem message={problem} />
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn btn-primary grow text-xl lg:grow-0 lg:px-10" onClick={finish}>
          {challenged ? 'It was that much all the same' : earlier ? 'Finish at that time' : 'Finish now'}
        </button>
        {!earlier && (
          <button type="button" className="btn" onClick={() => setEarlier(true)}>
            It was earlier
          </button>
        )}
        <Link to={`/boats/${boat.id}/mix?on=${coat.on.map((t) => t.surfaceId).join(',')}`} className="btn">
          Mix
        </Link>
      </div>
    </section>
  );
}
