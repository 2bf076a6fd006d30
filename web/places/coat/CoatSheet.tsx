import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { measuredFilm, zoneReadings, type Coat } from '#core/coat/fold';
import { coatClocks, type CoatClocks } from '#core/coat/coatClocks';
import { zoneSeries } from '#core/coat/zoneSeries';
import { wetFilmMicron } from '#core/film/spreading';
import type { SheetBody } from '#core/model/sheet';
import type { ClockInputs } from '#core/coat/coatClocks';
import type { TestedWindow } from '#core/cure/window';
import type { Boat } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import { now } from '../../data/now';
import { logEntry, type BoatView } from '../../data/store';
import { FormProblem, QuantityField } from '../../parts/Field';
import { Fig, Line } from '../../parts/Fig';
import { TimeField } from '../../parts/TimeField';
import { coatName, METHOD_WORDS, SIMULATED_WORDS, timeWords } from '../../parts/words';
import { EntryList } from './EntryList';
import { PaintSays } from './PaintSays';
import { counted } from '#core/units/format';

/** One coat: while it goes on the wet film in huge figures; once finished its clocks and hand tests. */
export function CoatSheet() {
  const view = useView();
  const { coatId } = useParams();
  const coat = view.coats.find((c) => c.id === coatId);
  if (!coat) return <NotFound what="coat" />;
  const sheet = view.sheetById.get(coat.sheetRevisionId)?.body;
  if (!sheet) return <NotFound what="data sheet" />;
  const zones = coat.on.map((t) => view.surfaces.find((s) => s.id === t.surfaceId)?.name ?? 'removed zone');
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
  const { boat } = view;
  const [litres, setLitres] = useState<number | null>(null);
  const [earlier, setEarlier] = useState(false);
  const [finishedAt, setFinishedAt] = useState(() => now());
  const [problem, setProblem] = useState<string | null>(null);
  const target = wetFilmMicron({ dftMicron: coat.dftMicron, solids: sheet.solids, thinner: coat.thinner });
  const film = measuredFilm(coat, sheet.solids);
  const base = { boatId: boat.id, stream: 'coat' as const, streamId: coat.id };
  const finish = () => {
    const at = earlier ? finishedAt : now();
    if (!Number.isFinite(at) || at > now()) return setProblem('The finish has not come yet. Check the date and time.');
    if (at < coat.startedAt) return setProblem('The coat would finish before it started. Check the time.');
    if (litres !== null && (Number.isNaN(litres) || litres < 0))
      return setProblem('The litres cannot be read. Type them again or leave them empty.');
    setProblem(null);
    void logEntry({ ...base, kind: 'finished', occurredAt: at, body: { litresOn: litres } }, 'Coat finished');
    return undefined;
  };
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
      <CombField boatId={boat.id} coat={coat} />
      <section className="flex flex-col gap-3 border-t border-base-300 pt-3" aria-label="Finish">
        {earlier && <TimeField label="Finished" at={finishedAt} onAt={setFinishedAt} zone={boat.timeZone} />}
        <QuantityField
          label="Litres put on, if known"
          quantity="volume"
          value={litres}
          onValue={setLitres}
          hint="With the comb they tell the area that was really covered."
        />
        <FormProblem message={problem} />
        <div className="flex flex-wrap gap-3">
          <button type="button" className="btn btn-primary grow text-xl lg:grow-0 lg:px-10" onClick={finish}>
            {earlier ? 'Finish at that time' : 'Finish now'}
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
    </>
  );
}

/** A wet-film reading; on a coat that is finished already it counts as read at the finish. */
function CombField({ boatId, coat }: { boatId: string; coat: Coat }) {
  const [wet, setWet] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const log = () => {
    if (wet === null || Number.isNaN(wet) || wet <= 0)
      return setProblem('Type the comb reading, for example 150 or 6 mil.');
    setProblem(null);
    void logEntry(
      {
        boatId,
        stream: 'coat',
        streamId: coat.id,
        kind: 'wetFilm',
        body: { micron: [wet] },
        ...(coat.finishedAt === null ? {} : { occurredAt: coat.finishedAt }),
      },
      'Comb reading logged',
    );
    setWet(null);
    return undefined;
  };
  return (
    <div className="grid grid-cols-[1fr_auto] items-end gap-3">
      <QuantityField
        label="Comb reading"
        quantity="film"
        value={wet}
        onValue={setWet}
        error={problem ?? undefined}
        hint={coat.finishedAt === null ? undefined : 'Combed while it was wet, written down now.'}
      />
      <button type="button" className="btn" onClick={log}>
        Log
      </button>
    </div>
  );
}

function Finished({ view, coat }: { view: BoatView; coat: Coat }) {
  const { boat } = view;
  const test = (kind: 'thumb' | 'sanding', passed: boolean) =>
    void logEntry(
      { boatId: boat.id, stream: 'coat', streamId: coat.id, kind: 'handTest', body: { test: kind, passed } },
      kind === 'thumb' ? 'Thumb test logged: the clocks follow the hand' : 'Sanding test logged',
    );
  return (
    <>
      {coat.on.map((target) => (
        <ZoneWindow key={target.surfaceId} view={view} coat={coat} surfaceId={target.surfaceId} />
      ))}
      {measuredFilm(coat, 1) === null && <CombField boatId={boat.id} coat={coat} />}
      <section aria-labelledby="tests" className="border-t border-base-300 pt-2">
        <h2 id="tests">The hand overrides the table</h2>
        <div className="mt-1 grid gap-3 sm:grid-cols-2">
          <div>
            <p className="lab">Thumb test</p>
            <div className="flex flex-wrap gap-2">
              <button type="button" className="btn" onClick={() => test('thumb', true)}>
                Print, nothing comes off
              </button>
              <button type="button" className="btn" onClick={() => test('thumb', false)}>
                Still comes off
              </button>
            </div>
          </div>
          <div>
            <p className="lab">Sanding test</p>
            <div className="flex flex-wrap gap-2">
              <button type="button" className="btn" onClick={() => test('sanding', true)}>
                Powders
              </button>
              <button type="button" className="btn" onClick={() => test('sanding', false)}>
                Gums
              </button>
            </div>
          </div>
        </div>
      </section>
    </>
  );
}

/** The clocks of this coat on one zone, for what came or comes next there. */
function ZoneWindow({ view, coat, surfaceId }: { view: BoatView; coat: Coat; surfaceId: string }) {
  const surface = view.surfaces.find((s) => s.id === surfaceId);
  const status = view.statuses.find((s) => s.surfaceId === surfaceId);
  const sheet = view.sheetById.get(coat.sheetRevisionId)?.body;
  if (!surface || !status || !sheet) return null;
  const later = status.coats.find((c) => c.startedAt > coat.startedAt);
  const following = later ? (view.sheetById.get(later.sheetRevisionId)?.body ?? null) : status.nextSheet;
  const readings = zoneReadings(view.entries, surfaceId);
  const temps = zoneSeries(surface, view.hours, readings);
  const covered = temps[0] !== undefined && coat.startedAt >= temps[0].at;
  const clocks = covered ? coatClocks({ coat, sheet, following, temps, readings, hours: view.hours }) : null;
  return (
    <section className="border-t-2 border-base-content pt-1" aria-label={`Window on ${surface.name}`}>
      <h2>
        {surface.name}
        {later ? (
          <span className="quiet"> — coated over {timeWords(later.startedAt, view.at, view.boat.timeZone)}</span>
        ) : following ? (
          <span className="quiet"> — before {following.name}</span>
        ) : null}
      </h2>
      {clocks ? (
        <Clocks clocks={clocks} view={view} last={following === null} />
      ) : (
        <p>No weather is known for the day of this coat. Type it under the weather and the window follows.</p>
      )}
    </section>
  );
}

function Clocks({ clocks, view, last }: { clocks: CoatClocks; view: BoatView; last: boolean }) {
  const { at, boat } = view;
  const when = (t: number | null, otherwise: string) =>
    t === null ? (
      <span className="quiet">{otherwise}</span>
    ) : (
      <span className="fig text-xl">{timeWords(t, at, boat.timeZone)}</span>
    );
  const { window, inputs } = clocks;
  const status = (s: 'reached' | 'beyondSeries' | 'notOnSheet') =>
    s === 'notOnSheet' ? 'not on the sheet' : 'after the forecast ends';
  const est = window?.estimated ? ' ≈ estimated' : '';
  return (
    <>
      <div className="sheet-rule">
        <Line label="Touch dry">{when(clocks.touchDryAt, 'not on the sheet or after the forecast')}</Line>
        {window && !last && (
          <>
            <Line label={`Not before${window.handTest?.passed ? ' (by thumb)' : est}`}>
              {when(window.opensAt, status(window.status.opensAt))}
            </Line>
            {clocks.alwaysAbrade ? (
              <Line label="Bonds as is">never: the sheet always asks for abrading</Line>
            ) : window.bonds === false ? (
              <Line label="Bonds as is">no bonding window: it is too cold for one</Line>
            ) : (
              <Line label={`Bonds as is until${est}`}>{when(window.bondsUntil, status(window.status.bondsUntil))}</Line>
            )}
            {window.byHandUntil !== null && (
              <Line label="By thumb it still bonds until">{when(window.byHandUntil, '')}</Line>
            )}
            <Line label="Abrade first">
              {window.bondsUntil ? (
                <span>after {timeWords(window.bondsUntil, at, boat.timeZone)}</span>
              ) : (
                <span className="quiet">{clocks.alwaysAbrade ? 'always' : 'not known'}</span>
              )}
            </Line>
            <Line label="Closes, even abraded">{when(window.closesAt, status(window.status.closesAt))}</Line>
          </>
        )}
        <Line label={`Dry to sand${clocks.sand.by === 'hand' ? ' (by hand)' : ''}`}>
          {when(clocks.sand.at, clocks.sand.by === 'notOnSheet' ? 'not on the sheet' : 'after the forecast ends')}
        </Line>
        {last && (
          <Line label="Into the water from">{when(clocks.immersionAt, 'not on the sheet or after the forecast')}</Line>
        )}
      </div>
      {window?.bonds === false && !clocks.alwaysAbrade && (
        <p className="mt-1 border-l-4 border-warning pl-3">
          The minimum comes after the tack limit. Two ways out: warm the surface, or let it cure and abrade.
        </p>
      )}
      <WhyClocks inputs={inputs} window={window} at={at} boat={boat} />
      <SurfaceReading view={view} />
      {inputs.sources.includes('simulated') && <p className="text-sm">Weather is {SIMULATED_WORDS}.</p>}
    </>
  );
}

function WhyClocks({
  inputs,
  window,
  at,
  boat,
}: {
  inputs: ClockInputs;
  window: TestedWindow | null;
  at: number;
  boat: Boat;
}) {
  return (
    <details data-why className="text-sm">
      <summary className="link-row narrow cursor-pointer text-base underline decoration-1 underline-offset-4">
        Why these times
      </summary>
      <div className="border-l-2 border-base-300 pl-3">
        <p>Minimums run from the finish, the last panel; limits from the start, the first panel.</p>
        <p>
          On the surface temperature: <Fig quantity="temperature" value={inputs.startTempC} /> at the start,{' '}
          <Fig quantity="temperature" value={inputs.lowestC} /> to{' '}
          <Fig quantity="temperature" value={inputs.highestC} /> while it ran.
        </p>
        <p>
          Weather: {inputs.sources.includes('simulated') ? SIMULATED_WORDS : 'as you typed it'}
          {inputs.sources.length > 1 ? ', partly as you typed it' : ''};{' '}
          {inputs.readings === 0
            ? 'no surface reading'
            : `${inputs.readings} surface ${inputs.readings === 1 ? 'reading' : 'readings'}`}{' '}
          moved it.
        </p>
        <p>
          Between the sheet’s columns the logarithm of the time is linear in 1/T (published: Arrhenius).{' '}
          {window?.estimated &&
            'A single figure is taken to halve or double with every 10 °C (common practice): an estimate.'}
        </p>
        {window?.handTest && (
          <p>The thumb test of {timeWords(window.handTest.at, at, boat.timeZone)} overrides the table.</p>
        )}
        <p>What matters most is the surface temperature: log a reading on the hull, morning and evening.</p>
      </div>
    </details>
  );
}

function SurfaceReading({ view }: { view: BoatView }) {
  const { coatId } = useParams();
  const [surfaceC, setSurface] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const log = () => {
    if (surfaceC === null || Number.isNaN(surfaceC)) return setProblem('Type the surface temperature, for example 16.');
    setProblem(null);
    void logEntry(
      {
        boatId: view.boat.id,
        stream: 'coat',
        streamId: coatId as string,
        kind: 'reading',
        body: { airC: null, rh: null, surfaceC },
      },
      'Surface reading logged',
    );
    setSurface(null);
    return undefined;
  };
  return (
    <div className="mt-1 grid grid-cols-[1fr_auto] items-end gap-3 pb-2">
      <QuantityField
        label="Surface now"
        quantity="temperature"
        value={surfaceC}
        onValue={setSurface}
        error={problem ?? undefined}
      />
      <button type="button" className="btn" onClick={log}>
        Log
      </button>
    </div>
  );
}
