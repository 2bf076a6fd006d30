import { useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useOutletContext, useParams } from 'react-router';
import { weatherAt } from '#core/air/weather';
import { Refused } from '../data/api';
import { useBoat, useFetchedAhead, type BoatView } from '../data/store';
import { Fig } from '../parts/Fig';
import { counted } from '#core/units/format';
import { clockTime, CLOCK_WORDS, launchWords, daysTo, timeWords } from '../parts/words';
import { clockName } from '../parts/clockNames';
import { useWide } from '../parts/useWide';
import { PLACES } from './keys';
import { NotFound, NotShown } from './PlaceError';

/** The boat's view for every place on the bench. */
export function useView(): BoatView {
  return useOutletContext<BoatView>();
}

/** Job strip on top, bench of places, the place itself. On a phone the bench lies under the thumb. */
export function BoatShell() {
  const { boatId } = useParams();
  const { view, error } = useBoat(boatId);
  useFetchedAhead();
  const wide = useWide();
  if (error instanceof Refused && error.status === 422 && !view) return <NotShown why={error.message} />;
  if (error instanceof Refused && !view) return <NotFound what="boat" />;
  if (!view) return <Loading />;
  return (
    <>
      <JobStrip view={view} />
      {wide && <Bench view={view} wide />}
      <div className="mx-auto flex w-full max-w-[88rem] min-w-0 flex-1 flex-col px-3 pb-24 pt-3 sm:px-5 lg:pb-8">
        <Outlet context={view} />
      </div>
      {!wide && <Bench view={view} wide={false} />}
    </>
  );
}

function Loading() {
  return (
    <div className="p-5" role="status" aria-label="Loading the boat">
      <div className="skeleton mb-3 h-10 w-2/3 rounded-sm" />
      <div className="skeleton mb-3 h-56 w-full rounded-sm" />
      <div className="skeleton h-24 w-full rounded-sm" />
    </div>
  );
}

/** One ruled sentence: boat, day on the hard, the air now, the next clock to ring, days to launch. */
function JobStrip({ view }: { view: BoatView }) {
  const { boat, jobs, at, hours, clocks, surfaces } = view;
  const job = jobs[jobs.length - 1];
  const air = weatherAt(hours, at);
  const next = clocks.find((c) => c.kind !== 'lastStart');
  const then = clocks.find((c) => c.kind !== 'lastStart' && c !== next);
  const zone = next?.surfaceId ? surfaces.find((s) => s.id === next.surfaceId)?.name : next?.product || 'batch';
  const out = job ? -daysTo(job.outOn, at, boat.timeZone) + 1 : null;
  const launch = job?.inOn ? daysTo(job.inOn, at, boat.timeZone) : null;
  const simulated = view.hours.findLast((h) => h.at <= at)?.source === 'simulated';
  return (
    <p className="no-print ruled narrow flex flex-wrap items-baseline gap-x-4 gap-y-0 px-3 py-1.5 text-lg sm:px-5">
      <Link
        to={`/boats/${boat.id}/edit`}
        className="min-w-0 py-2 text-xl font-semibold wrap-anywhere underline decoration-1 underline-offset-4 lg:py-0"
      >
        {boat.name}
      </Link>
      {out !== null && out > 0 && <span className="hidden sm:inline">day {out} on the hard</span>}
      {air && (
        <Link
          to={`/boats/${boat.id}/weather`}
          className="link-row gap-x-1 underline decoration-dotted decoration-1 underline-offset-4 lg:min-h-0"
          aria-description="to the weather"
        >
          air <Fig quantity="temperature" value={air.airC} /> <Fig quantity="percent" value={air.rh} digits={0} />
          {simulated && <span className="quiet text-base"> simulated</span>}
        </Link>
      )}
      {!air && (
        <Link
          to={`/boats/${boat.id}/weather`}
          className="link-row underline decoration-dotted underline-offset-4 lg:min-h-0"
        >
          weather
        </Link>
      )}
      {boat.estimated.includes('loaM') && (
        <Link to={`/boats/${boat.id}/edit`} className="link-row font-semibold underline underline-offset-4 lg:min-h-0">
          her size is not known: type it
        </Link>
      )}
      {next && (
        <span>
          next: {zone} {CLOCK_WORDS[next.kind]} {clockTime(next, at, boat.timeZone)}
          {then && (
            <span className="hidden quiet xl:inline">
              {' '}
              · {clockName(view, then)} {CLOCK_WORDS[then.kind]} {clockTime(then, at, boat.timeZone)}
            </span>
          )}
        </span>
      )}
      {view.launch[0] && (
        <Link to={`/boats/${boat.id}/today`} className="font-semibold text-error">
          {launchWords(view.launch[0], view.zoneName(view.launch[0].surfaceId), at, boat.timeZone)}
        </Link>
      )}
      {launch !== null && (
        <span className="sm:ml-auto">
          {launch > 1
            ? `${launch} days to launch`
            : launch === 1
              ? 'launch tomorrow'
              : launch === 0
                ? 'launch today'
                : `launch was ${-launch} ${launch === -1 ? 'day' : 'days'} ago`}
        </span>
      )}
    </p>
  );
}

/** The places that stay under the thumb on a phone; the others are one tap away. */
const AT_HAND: readonly string[] = ['today', 'mix', 'coat', 'film'];

function Bench({ view, wide }: { view: BoatView; wide: boolean }) {
  const figures = benchFigures(view);
  const { pathname } = useLocation();
  const shown = wide ? PLACES : AT_HAND.flatMap((path) => PLACES.filter((p) => p.path === path));
  const others = PLACES.filter((p) => !shown.includes(p));
  const away = others.some((p) => pathname.includes(`/${p.path}`));
  return (
    <nav
      aria-label="Bench"
      className="no-print fixed inset-x-0 bottom-0 z-20 border-t border-base-300 bg-base-100 pb-[env(safe-area-inset-bottom)] lg:static lg:border-b lg:border-t-0 lg:px-5"
    >
      <ul className="grid grid-cols-5 lg:flex lg:gap-8">
        {shown.map((place) => (
          <li key={place.path} className="min-w-0">
            <NavLink to={`/boats/${view.boat.id}/${place.path}`} className={({ isActive }) => placeLink(isActive)}>
              <span className="text-lg">{place.name}</span>
              <span className="quiet max-w-full truncate text-sm lg:text-base">{figures[place.path]}</span>
            </NavLink>
          </li>
        ))}
        {!wide && (
          <li className="min-w-0">
            <MorePlaces boatId={view.boat.id} places={others} figures={figures} away={away} />
          </li>
        )}
      </ul>
    </nav>
  );
}

const placeLink = (active: boolean) =>
  `place-link narrow flex flex-col items-center justify-center px-0.5 leading-tight lg:min-h-11 lg:flex-row lg:items-baseline lg:gap-2 lg:py-2 ${active ? 'border-t-4 border-base-content font-semibold lg:border-b-4 lg:border-t-0' : 'border-t-4 border-transparent lg:border-b-4 lg:border-t-0'}`;

/** The places that a phone has no room for, above the bench while they are asked for. */
function MorePlaces({
  boatId,
  places,
  figures,
  away,
}: {
  boatId: string;
  places: readonly (typeof PLACES)[number][];
  figures: Record<string, string>;
  away: boolean;
}) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" aria-expanded={open} className={`w-full ${placeLink(away)}`} onClick={() => setOpen(!open)}>
        <span className="text-lg">More</span>
        <span className="quiet text-sm" aria-hidden="true">
          ⋯
        </span>
      </button>
      {open && (
        <ul className="absolute inset-x-0 bottom-full border-t border-base-300 bg-base-100 px-3">
          {places.map((place) => (
            <li key={place.path} className="border-b border-base-300 last:border-0">
              <NavLink
                to={`/boats/${boatId}/${place.path}`}
                className="narrow flex min-h-12 items-center justify-between gap-3 text-lg"
                onClick={() => setOpen(false)}
              >
                {place.name} <span className="quiet">{figures[place.path]}</span>
              </NavLink>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** Days to the launch, or nothing. */
function launchFigure({ jobs, at, boat }: BoatView): string {
  const inOn = jobs[jobs.length - 1]?.inOn;
  return inOn ? `${daysTo(inOn, at, boat.timeZone)} d` : '·';
}

/** What each place would say if it had one word. */
function benchFigures(view: BoatView): Record<(typeof PLACES)[number]['path'], string> {
  const { statuses, timers, at, clocks, boat, surfaces, coats } = view;
  const open = statuses.filter((s) => s.state === 'bonds' || s.state === 'ready').length;
  const next = clocks.find((c) => c.kind !== 'lastStart');
  const inHand = coats.filter((c) => c.finishedAt === null).length;
  const pot = timers.find((t) => t.dueAt > at && !t.silenced);
  const done = statuses.reduce((sum, s) => sum + s.layersDone, 0);
  const unready = statuses.filter((s) => s.state === 'unready').length;
  const planned = statuses.reduce((sum, s) => sum + s.layersPlanned, 0);
  return {
    today: next ? clockTime(next, at, boat.timeZone) : open > 0 ? `${open} open` : '·',
    hull: counted(surfaces.length, 'zone'),
    film: `${done}/${planned}`,
    prep: unready > 0 ? `${unready} unready` : '·',
    plan: launchFigure(view),
    mix: pot ? timeWords(pot.dueAt, at, boat.timeZone) : '·',
    coat: inHand > 0 ? `${inHand} going on` : '·',
    record: String(coats.length),
  };
}
