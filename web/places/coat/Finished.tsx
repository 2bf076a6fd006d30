import { useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
import { zoneReadings, type Coat, testedOn } from '#core/coat/fold';
import { measuredFilm } from '#core/coat/measuredFilm';
import { coatClocks, driesBy, type CoatClocks } from '#core/coat/coatClocks';
import { zoneSeries } from '#core/coat/zoneSeries';
import type { ClockInputs } from '#core/coat/coatClocks';
import type { TestedWindow } from '#core/cure/window';
import type { Boat } from '#contracts/rows/boat';
import { CombField } from './CombField';
import { dryFactorOf } from './dryFactorOf';
import { WindowRibbon } from './WindowRibbon';
import { logEntry, type BoatView } from '../../data/store';
import { FormProblem, QuantityField, SelectField } from '../../parts/Field';
import { Fig, Line } from '../../parts/Fig';
import { clockTime, SIMULATED_WORDS, timeWords } from '../../parts/words';

export function Finished({ view, coat }: { view: BoatView; coat: Coat }) {
  const { boat } = view;
  const several = coat.on.length > 1;
  const [testedId, setTested] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const test = (kind: 'thumb' | 'sanding', passed: boolean) => {
    if (several && testedId === '') return setProblem('Choose the zone that was tested: each dries in its own time.');
    setProblem(null);
    const body = { test: kind, passed, ...(several ? { surfaceId: testedId } : {}) };
    void logEntry(
      { boatId: boat.id, stream: 'coat', streamId: coat.id, kind: 'handTest', body },
      kind === 'thumb' ? 'Thumb test logged: the clocks follow the hand' : 'Sanding test logged',
    );
    return undefined;
  };
  return (
    <>
      {coat.on.map((target) => (
        <ZoneWindow key={target.surfaceId} view={view} coat={coat} surfaceId={target.surfaceId} />
      ))}
      {measuredFilm(coat, 1) === null && <CombField boatId={boat.id} coat={coat} />}
      <section aria-labelledby="tests" className="border-t border-base-300 pt-2">
        <h2 id="tests">The hand overrides the table</h2>
        {several && (
          <SelectField
            label="Tested on"
            value={testedId}
            options={[
              ['', 'choose the zone'],
              ...coat.on.map((t) => [t.surfaceId, view.zoneName(t.surfaceId)] as const),
            ]}
            onPick={setTested}
          />
        )}
        <FormProblem message={problem} />
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
  const temps = zoneSeries(surface, view.hours, readings, view.boat);
  const covered = temps[0] !== undefined && coat.startedAt >= temps[0].at;
  const clocks = covered
    ? coatClocks({
        coat: driesBy(testedOn(coat, [surface.id, surface.parentId ?? null]), dryFactorOf(view, coat)),
        sheet,
        following,
        temps,
        readings,
        hours: view.hours,
      })
    : null;
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
        <>
          <WindowRibbon view={view} coat={coat} surfaceId={surfaceId} clocks={clocks} />
          <Clocks clocks={clocks} view={view} surfaceId={surfaceId} last={following === null} />
        </>
      ) : (
        <p>No weather is known for the day of this coat. Type it under the weather and the window follows.</p>
      )}
    </section>
  );
}

function Clocks({
  clocks,
  view,
  surfaceId,
  last,
}: {
  clocks: CoatClocks;
  view: BoatView;
  surfaceId: string;
  last: boolean;
}) {
  const { at, boat } = view;
  const { window, inputs } = clocks;
  const when = (t: number | null, otherwise: string) =>
    t === null ? (
      <span className="quiet">{otherwise}</span>
    ) : (
      <span className="fig text-xl">{clockTime({ at: t, approx: t > inputs.knownUntil }, at, boat.timeZone)}</span>
    );
  const status = (s: 'reached' | 'beyondSeries' | 'notOnSheet') =>
    s === 'notOnSheet' ? 'not on the sheet' : 'after the forecast ends';
  const est = window?.estimated ? ' ≈ estimated' : '';
  return (
    <>
      <div className="sheet-rule">
        <Line label="Touch dry">{when(clocks.touchDryAt, 'not on the sheet or after the forecast')}</Line>
        {clocks.handleAt !== null && <Line label="Dry to handle">{when(clocks.handleAt, '')}</Line>}
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
        {last && <Water clocks={clocks} when={when} />}
      </div>
      {window?.bonds === false && !clocks.alwaysAbrade && (
        <p className="mt-1 border-l-4 border-warning pl-3">
          The minimum comes after the tack limit. Two ways out: warm the surface, or let it cure and abrade.
        </p>
      )}
      <WhyClocks inputs={inputs} window={window} at={at} boat={boat} />
      <SurfaceReading view={view} surfaceId={surfaceId} />
      {[window?.opensAt, window?.bondsUntil, clocks.immersionAt].some((t) => t != null && t > inputs.knownUntil) && (
        <p className="text-sm">≈ Beyond the forecast: on what is typical for the season here.</p>
      )}
      {inputs.sources.includes('simulated') && <p className="text-sm">Weather is {SIMULATED_WORDS}.</p>}
    </>
  );
}

/** When the last coat may meet the water, how long it may wait for it, and when it is fully cured. */
function Water({ clocks, when }: { clocks: CoatClocks; when: (t: number | null, otherwise: string) => ReactNode }) {
  return (
    <>
      <Line label="Into the water from">{when(clocks.immersionAt, 'not on the sheet or after the forecast')}</Line>
      {clocks.immersionUntil !== null && <Line label="Into the water until">{when(clocks.immersionUntil, '')}</Line>}
      {clocks.curedAt !== null && <Line label="Fully cured">{when(clocks.curedAt, '')}</Line>}
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
            'A single figure is taken to halve or double with every 10 °C, 18 °F (common practice): an estimate.'}
        </p>
        {window?.handTest && (
          <p>The thumb test of {timeWords(window.handTest.at, at, boat.timeZone)} overrides the table.</p>
        )}
        <p>What matters most is the surface temperature: log a reading on the hull, morning and evening.</p>
      </div>
    </details>
  );
}

function SurfaceReading({ view, surfaceId }: { view: BoatView; surfaceId: string }) {
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
        body: { airC: null, rh: null, surfaceC, surfaceId },
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
