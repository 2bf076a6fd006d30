import { useState } from 'react';
import { Link } from 'react-router';
import type { ZoneStatus } from '#core/coat/zoneStatus';
import { useView } from '../../app/BoatShell';
import { useSettings } from '../../data/settings';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { bandOf, linesOf } from '../../parts/hullLines';
import { drawnZones } from '../../parts/ZoneRegion';
import { STATE_KEY, StateSwatch } from '../../parts/patterns';
import { Ribbon } from '../../parts/Ribbon';
import { Timers } from '../../parts/Timers';
import { CLOCK_WORDS, SIMULATED_WORDS, STATE_WORDS, timeWords } from '../../parts/words';
import { airLine, headline, nextName, windowLine, type Saying } from '../../parts/zoneWords';

const RIBBON_MS = 36 * 3_600_000;

/** What may go on now, what opens or closes next, the pots, the air; the next coat is started from here. */
export function TodayPlace() {
  const view = useView();
  const { units } = useSettings();
  const [picked, setPicked] = useState<string | null>(null);
  const { at, boat, surfaces, statuses, clocks } = view;
  const saying: Saying = { at, zone: boat.timeZone, units };
  const name = (surfaceId: string) => surfaces.find((s) => s.id === surfaceId)?.name ?? 'zone';
  const head = headline(statuses, name, saying);
  const drawn = drawnZones(view);
  const inHand = statuses.filter((s) => s.state === 'inHand');
  const now = statuses.filter(
    (s) => s.state === 'bonds' || s.state === 'ready' || s.state === 'abrade' || s.state === 'closed',
  );
  const rest = statuses.filter((s) => !inHand.includes(s) && !now.includes(s));
  const simulated = view.hours.some((h) => h.source === 'simulated' && h.at >= at && h.at < at + RIBBON_MS);

  if (surfaces.length === 0) {
    return (
      <section className="max-w-prose py-6">
        <h1>No zones yet</h1>
        <p className="my-3">
          A zone is a part of the boat that gets one build-up: underwater hull, keel, topsides, bilge. Add the first
          one; its area comes from the boat’s own dimensions.
        </p>
        <Link to={`/boats/${boat.id}/hull/new`} className="btn btn-primary">
          Add a zone
        </Link>
      </section>
    );
  }
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,6fr)]">
      <h1 className="order-1 text-[2rem] lg:col-span-2 lg:text-[2.6rem]">{head.text}</h1>
      <div className="order-3 min-w-0 lg:order-2">
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
        <ul className="mt-1 flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="Patterns">
          {STATE_KEY.filter((state) => statuses.some((s) => s.state === state)).map((state) => (
            <li key={state} className="flex items-center gap-1.5">
              <StateSwatch state={state} colour="#9aa1a4" size={18} /> {STATE_WORDS[state]}
            </li>
          ))}
        </ul>
        <div className="mt-3">
          <Ribbon
            hours={view.hours}
            from={at}
            until={at + RIBBON_MS}
            clocks={clocks}
            timeZone={boat.timeZone}
            name={name}
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
        <section aria-labelledby="t-next" className="mt-3">
          <h2 id="t-next" className="ruled pb-1">
            Next
          </h2>
          {clocks.length === 0 && <p className="py-2">No clock is running.</p>}
          <ol className="gap-x-8 sm:columns-2">
            {clocks.slice(0, 8).map((c) => (
              <li
                key={`${c.kind}-${c.surfaceId ?? c.batchId}`}
                className="ruled flex break-inside-avoid items-baseline gap-3 py-1"
              >
                <span className="fig min-w-14 shrink-0 text-lg">{timeWords(c.at, at, boat.timeZone)}</span>
                <span className="min-w-0">
                  {c.surfaceId ? name(c.surfaceId) : 'batch'} <span className="quiet">{CLOCK_WORDS[c.kind]}</span>
                </span>
              </li>
            ))}
          </ol>
        </section>
      </div>
      <div className="order-2 min-w-0 lg:order-3">
        <Timers view={view} />
        {inHand.length > 0 && (
          <section aria-labelledby="t-hand">
            <h2 id="t-hand" className="ruled pb-1">
              Going on
            </h2>
            <ul className="sheet-rule">
              {inHand.map((s) => (
                <ZoneRow
                  key={s.surfaceId}
                  status={s}
                  name={name(s.surfaceId)}
                  saying={saying}
                  chosen={picked === s.surfaceId}
                >
                  <Link className="btn btn-primary" to={`/boats/${boat.id}/coat/${s.lastCoat?.id}`}>
                    Finish
                  </Link>
                </ZoneRow>
              ))}
            </ul>
          </section>
        )}
        <section aria-labelledby="t-now">
          <h2 id="t-now" className="ruled pb-1">
            May go on now
          </h2>
          {now.length === 0 && <p className="py-2">Nothing just now.</p>}
          <ul className="sheet-rule">
            {now.map((s) => (
              <ZoneRow
                key={s.surfaceId}
                status={s}
                name={name(s.surfaceId)}
                saying={saying}
                chosen={picked === s.surfaceId}
              >
                <Link
                  className="btn"
                  to={`/boats/${boat.id}/coat/start?on=${s.surfaceId}`}
                  aria-label={`Start ${nextName(s)} on ${name(s.surfaceId)}`}
                >
                  Start
                </Link>
              </ZoneRow>
            ))}
          </ul>
        </section>
        {rest.length > 0 && (
          <section aria-labelledby="t-rest" className="mt-3">
            <h2 id="t-rest" className="ruled pb-1">
              Not yet
            </h2>
            <ul className="sheet-rule">
              {rest.map((s) => (
                <ZoneRow
                  key={s.surfaceId}
                  status={s}
                  name={name(s.surfaceId)}
                  saying={saying}
                  chosen={picked === s.surfaceId}
                >
                  {s.state === 'noBuildUp' && (
                    <Link className="btn" to={`/boats/${boat.id}/film/${s.surfaceId}`}>
                      Build up
                    </Link>
                  )}
                  {s.state === 'shut' && (
                    <Link className="btn" to={`/boats/${boat.id}/coat/${s.lastCoat?.id}`}>
                      Test
                    </Link>
                  )}
                </ZoneRow>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}

function ZoneRow({
  status,
  name,
  saying,
  chosen,
  children,
}: {
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
        {air && <span className="block text-[0.95rem] quiet">{air}</span>}
      </span>
      {children}
    </li>
  );
}
