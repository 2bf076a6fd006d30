import { Suspense, useId, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { airStartsToAsk } from '#core/coat/airStarts';
import { mayGoOn, windowOpen, type ZoneStatus } from '#core/coat/zoneStatus';
import { useView } from '../../app/BoatShell';
import { useSettings } from '../../data/settings';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { bandOf, linesOf } from '../../parts/hullLines';
import { drawnZones } from '../../parts/ZoneRegion';
import { STATE_KEY, StateSwatch } from '../../parts/patterns';
import { Ribbon } from '../../parts/Ribbon';
import { ZoneBars } from '../../parts/ZoneBars';
import { drySpells } from '#core/air/dryHours';
import { Term } from '../../parts/Term';
import { Timers } from '../../parts/Timers';
import { NextClocks } from './NextClocks';
import { useWide } from '../../parts/useWide';
import type { Clock } from '#core/coat/clocks';
import { launchWords, SIMULATED_WORDS, STATE_WORDS } from '../../parts/words';
import { airLine, headline, nextName, windowLine, type Saying } from '../../parts/zoneWords';
import type { Boat } from '#contracts/rows/boat';
import type { BoatView } from '../../data/store';
import { part } from '../../parts/part';

const AirStartAsked = part(() => import('./AirStartAsked'), 'AirStartAsked');
const StartOdds = part(() => import('./StartOdds'), 'StartOdds');
const RIBBON_MS = 36 * 3_600_000;

/** What may go on now, what opens or closes next, the pots, the air; the next coat is started from here. */
export function TodayPlace() {
  const view = useView();
  const { units } = useSettings();
  const [picked, setPicked] = useState<string | null>(null);
  const wide = useWide();
  const { at, boat, surfaces, statuses, clocks } = view;
  const saying: Saying = { at, zone: boat.timeZone, units };
  const name = (surfaceId: string) => surfaces.find((s) => s.id === surfaceId)?.name ?? 'zone';
  const head = headline(statuses, name, saying);
  const drawn = drawnZones(view);
  const simulated = view.hours.some((h) => h.source === 'simulated' && h.at >= at && h.at < at + RIBBON_MS);

  if (surfaces.length === 0) {
    return <NoZones boat={boat} />;
  }
  const hers = (
    <div key="boat" className="min-w-0">
      <div className="mx-auto max-w-xl lg:max-w-none">
        <BoatDrawing
          boat={boat}
          zones={drawn}
          lines={linesOf(view.hull)}
          bandM={bandOf(surfaces)}
          selected={picked ?? head.surfaceId}
          onPick={setPicked}
          label={`${boat.name}: zones by state`}
        />
      </div>
      <PatternKey statuses={statuses} />
      <AirAhead view={view} at={at} clocks={clocks} boat={boat} name={name} simulated={simulated} />
      <NextClocks view={view} />
    </div>
  );
  const lists = (
    <div key="zones" className="min-w-0">
      {view.launch.map((l) => (
        <p key={l.surfaceId} role="alert" className="mb-2 border-l-4 border-error pl-3">
          {launchWords(l, name(l.surfaceId), at, boat.timeZone)}.
        </p>
      ))}
      <Timers view={view} />
      {airStartsToAsk(view.coats, at).length > 0 && (
        <Suspense fallback={null}>
          <AirStartAsked view={view} />
        </Suspense>
      )}
      <ZoneLists view={view} saying={saying} name={name} picked={picked} />
    </div>
  );
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,6fr)]">
      <h1 className="text-[2rem] lg:col-span-2 lg:text-[2.6rem]">{head.text}</h1>
      {wide ? [hers, lists] : [lists, hers]}
    </div>
  );
}

function NoZones({ boat }: { boat: Boat }) {
  return (
    <section className="max-w-prose py-6">
      <h1>No zones yet</h1>
      <p className="my-3">
        A zone is a part of the boat that gets one build-up: underwater hull, keel, topsides, bilge. Add the first one;
        its area comes from the boat’s own dimensions.
      </p>
      <Link to={`/boats/${boat.id}/hull/new`} className="btn btn-primary">
        Add a zone
      </Link>
    </section>
  );
}

/** States with a word of the trade for a name. */
const EXPLAINED = { shut: 'shut', bonds: 'bonds', abrade: 'abrade', closed: 'closed', openWork: 'openWork' } as const;

/** What the patterns of the drawing mean, those that are in it. */
function PatternKey({ statuses }: { statuses: ZoneStatus[] }) {
  return (
    <ul className="mt-1 flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="Patterns">
      {STATE_KEY.filter((state) => statuses.some((s) => s.state === state)).map((state) => (
        <li key={state} className="flex items-center gap-1.5">
          <StateSwatch state={state} colour="#9aa1a4" size={18} />{' '}
          {state in EXPLAINED ? (
            <Term of={EXPLAINED[state as keyof typeof EXPLAINED]}>{STATE_WORDS[state]}</Term>
          ) : (
            STATE_WORDS[state]
          )}
        </li>
      ))}
    </ul>
  );
}

/** The air of the next hours with the clocks that run in it. */
function AirAhead({
  view,
  at,
  clocks,
  boat,
  name,
  simulated,
}: {
  view: BoatView;
  at: number;
  clocks: Clock[];
  boat: Boat;
  name: (surfaceId: string) => string;
  simulated: boolean;
}) {
  const spells = useMemo(() => drySpells({ hours: view.hours, from: at, until: at + RIBBON_MS }), [view.hours, at]);
  return (
    <div className="mt-3">
      <Ribbon
        hours={view.hours}
        spells={spells}
        from={at}
        until={at + RIBBON_MS}
        clocks={clocks}
        timeZone={boat.timeZone}
        name={name}
      />
      <ZoneBars
        statuses={view.statuses}
        name={name}
        from={at}
        until={at + RIBBON_MS}
        spells={spells}
        timeZone={boat.timeZone}
      />
      {simulated && (
        <p className="text-sm">
          Weather is {SIMULATED_WORDS}.{' '}
          <Link to={`/boats/${boat.id}/weather`} className="underline underline-offset-4">
            Type your own forecast
          </Link>
          .
        </p>
      )}
    </div>
  );
}

/** What opens or closes next. */
/** All zones, by what may be done about them just now. */
function ZoneLists({
  view,
  saying,
  name,
  picked,
}: {
  view: BoatView;
  saying: Saying;
  name: (surfaceId: string) => string;
  picked: string | null;
}) {
  const { boat, statuses } = view;
  const inHand = statuses.filter((s) => s.state === 'inHand');
  const now = statuses.filter(mayGoOn);
  const rest = statuses.filter((s) => !inHand.includes(s) && !now.includes(s) && s.state !== 'leftBare');
  return (
    <>
      <ZoneList
        title="Going on"
        rows={inHand}
        {...{ view, name, saying, picked }}
        action={(s) => (
          <Link className="btn btn-primary" to={`/boats/${boat.id}/coat/${s.lastCoat?.id}?ask=finish`}>
            Finish
          </Link>
        )}
      />
      <ZoneList
        title="May go on now"
        rows={now}
        none="Nothing just now."
        {...{ view, name, saying, picked }}
        action={(s) => (
          <Link
            className="btn"
            to={`/boats/${boat.id}/coat/start?on=${s.surfaceId}`}
            aria-label={`Start ${nextName(s)} on ${name(s.surfaceId)}`}
          >
            Start
          </Link>
        )}
      />
      <div className="mt-3">
        <ZoneList
          title="Not yet"
          rows={rest}
          {...{ view, name, saying, picked }}
          action={(s) => <NotYet status={s} boatId={boat.id} name={name(s.surfaceId)} />}
        />
      </div>
    </>
  );
}

/** What may be done about a zone whose coat cannot go on yet. */
function NotYet({ status: s, boatId, name }: { status: ZoneStatus; boatId: string; name: string }) {
  if (s.state === 'noBuildUp')
    return (
      <Link className="btn" to={`/boats/${boatId}/film/${s.surfaceId}`}>
        Build up
      </Link>
    );
  if (s.state === 'unready' || s.state === 'openWork')
    return (
      <Link className="btn" to={`/boats/${boatId}/prep/${s.surfaceId}`} aria-label={`Get ${name} ready`}>
        Prep
      </Link>
    );
  // Its window is open, and the air is against it: a start asks why.
  if (windowOpen(s))
    return (
      <Link
        className="btn"
        to={`/boats/${boatId}/coat/start?on=${s.surfaceId}`}
        aria-label={`Start ${nextName(s)} on ${name}`}
      >
        Start
      </Link>
    );
  if (s.state === 'shut')
    return (
      <Link className="btn" to={`/boats/${boatId}/coat/${s.lastCoat?.id}?ask=finish`}>
        Test
      </Link>
    );
  return null;
}

/** Zones in one state of the day, each with what may be done about it; nothing where there are none and no word for it. */
function ZoneList({
  title,
  rows,
  none,
  name,
  saying,
  picked,
  action,
  view,
}: {
  view: BoatView;
  title: string;
  rows: readonly ZoneStatus[];
  none?: string;
  name: (surfaceId: string) => string;
  saying: Saying;
  picked: string | null;
  action: (status: ZoneStatus) => React.ReactNode;
}) {
  const id = useId();
  if (rows.length === 0 && none === undefined) return null;
  return (
    <section aria-labelledby={id}>
      <h2 id={id} className="ruled pb-1">
        {title}
      </h2>
      {rows.length === 0 && <p className="py-2">{none}</p>}
      <ul className="sheet-rule">
        {rows.map((s) => (
          <ZoneRow
            key={s.surfaceId}
            view={view}
            status={s}
            name={name(s.surfaceId)}
            saying={saying}
            chosen={picked === s.surfaceId}
          >
            {action(s)}
          </ZoneRow>
        ))}
      </ul>
    </section>
  );
}

function ZoneRow({
  view,
  status,
  name,
  saying,
  chosen,
  children,
}: {
  view: BoatView;
  status: ZoneStatus;
  name: string;
  saying: Saying;
  chosen: boolean;
  children?: React.ReactNode;
}) {
  const air = status.state === 'inHand' || status.state === 'shut' ? '' : airLine(status, saying);
  return (
    <li className={`flex items-center gap-3 py-1.5 ${chosen ? 'bg-base-200' : ''}`}>
      <StateSwatch state={status.state} colour={status.colourHex} />
      <span className="min-w-0 flex-1 leading-snug">
        <span className="font-semibold">{name}</span> {status.nextLayer && <span>{nextName(status)}</span>}
        <span className="block text-[0.95rem]">{windowLine(status, saying)}</span>
        {air && (
          <span className="block text-[0.95rem] quiet">
            {air}
            <Suspense fallback={null}>
              <StartOdds view={view} status={status} />
            </Suspense>
          </span>
        )}
      </span>
      {children}
    </li>
  );
}
