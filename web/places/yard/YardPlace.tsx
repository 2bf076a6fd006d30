import { PencilLine, Plus } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import type { Yard, YardBoat, YardZone } from '#contracts/rows/yard';
import { mayGoOn } from '#core/coat/zoneStatus';
import { boatProfile } from '#core/hull/profile';
import { useNow } from '../../data/now';
import { useYard } from '../../data/store';
import { ToDemo } from '../../parts/ToDemo';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { Fig } from '../../parts/Fig';
import { StateSwatch } from '../../parts/patterns';
import { clockTime, CLOCK_WORDS, launchWords, daysTo, SIMULATED_WORDS, STATE_WORDS } from '../../parts/words';

/** The hulls on their stands at one scale, and what the whole yard has to look out for. */
export function YardPlace() {
  const { data: yard, error, isPending } = useYard();
  if (isPending) {
    return (
      <div className="p-5" role="status" aria-label="Loading the yard">
        <div className="skeleton mb-4 h-52 w-full rounded-sm" />
        <div className="skeleton h-28 w-full rounded-sm" />
      </div>
    );
  }
  if (!yard) return <p className="p-5">{error?.message}</p>;
  const empty = yard.boats.length === 0;
  return (
    <div className="mx-auto w-full max-w-[88rem] px-3 pb-10 pt-4 sm:px-5">
      <div className="mb-3 flex flex-wrap items-baseline gap-4">
        <h1 className="mr-auto">{empty ? 'What do you want to know first?' : 'Boats in hand'}</h1>
        {!empty && (
          <>
            <Link to="/plan" className="btn">
              Plan
            </Link>
            <Link to="/log" className="btn">
              <PencilLine size={18} aria-hidden="true" /> Log a coat
            </Link>
            <Link to="/boats/new" className="btn btn-primary">
              <Plus size={18} aria-hidden="true" /> New boat
            </Link>
          </>
        )}
      </div>
      {empty ? (
        <EmptyYard />
      ) : (
        <>
          <Hard yard={yard} />
          <YardToday yard={yard} />
        </>
      )}
    </div>
  );
}

/** Where somebody may want to start, each to its first answer in one page. */
const DOORS = [
  {
    to: '/boats/new?for=buy',
    title: 'What to buy',
    line: 'Four figures of one boat: her areas, a usual build-up, litres and packs.',
  },
  {
    to: '/sums',
    title: 'How to mix a tin',
    line: 'The ratio from its label: parts by measure or scale, pot life, and when the next coat may go on.',
  },
  {
    to: '/log',
    title: 'Log a coat',
    line: 'Boat, zone, product, when. The rest is asked for later.',
  },
] as const;

function EmptyYard() {
  return (
    <section aria-label="Where to start" className="py-2">
      <ul className="grid gap-x-10 gap-y-6 border-y-2 border-base-content py-5 md:grid-cols-3">
        {DOORS.map((door) => (
          <li key={door.to}>
            <Link to={door.to} className="narrow link-row text-2xl font-semibold underline underline-offset-4">
              {door.title}
            </Link>
            <p className="quiet max-w-prose">{door.line}</p>
          </li>
        ))}
      </ul>
      <p className="max-w-prose pt-4">
        Or{' '}
        <Link to="/boats/new" className="underline underline-offset-4">
          put in a boat
        </Link>{' '}
        and plan from there; or look around first, at made-up boats in the middle of their coats. Nothing done there
        touches this yard.
      </p>
      <ToDemo className="mt-2" />
    </section>
  );
}

/** Pixels a metre, so that the longest boats fit side by side on a desk and each alone on a phone. */
const SCALE = 38;

function Hard({ yard }: { yard: Yard }) {
  const navigate = useNavigate();
  const widest = Math.max(...yard.boats.map((b) => boatProfile(b.boat).lengthM + 0.5));
  // On a narrow screen all shrink together: the scale stays one.
  return (
    <ul className="flex flex-wrap items-end gap-x-10 gap-y-6 border-b border-base-300 pb-5">
      {yard.boats.map((b) => (
        <li
          key={b.boat.id}
          className="flex min-w-0 flex-col"
          style={{
            width: `min(${(boatProfile(b.boat).lengthM + 0.5) * SCALE}px, ${((boatProfile(b.boat).lengthM + 0.5) / widest) * 100}%)`,
          }}
        >
          <div onClick={() => void navigate(`/boats/${b.boat.id}/today`)} className="cursor-pointer">
            <BoatDrawing boat={b.boat} zones={b.zones} />
          </div>
          <BoatCaption entry={b} now={yard.now} />
        </li>
      ))}
    </ul>
  );
}

function BoatCaption({ entry, now }: { entry: YardBoat; now: number }) {
  const { boat, job, air } = entry;
  const launch = job?.inOn ? daysTo(job.inOn, now, boat.timeZone) : null;
  return (
    <div className="mt-1 min-w-0">
      <Link
        to={`/boats/${boat.id}/today`}
        className="narrow link-row max-w-full text-xl font-semibold underline decoration-1 underline-offset-4"
      >
        <span className="min-w-0 wrap-anywhere">{boat.name}</span>
      </Link>
      <p className="narrow text-base">
        <Fig quantity="length" value={boat.loaM} digits={1} />
        {launch !== null && (
          <span> · {launch >= 0 ? `${launch} days to launch` : `launch was ${-launch} days ago`}</span>
        )}
        {entry.problem && <strong className="block text-error">She cannot be worked out. {entry.problem}</strong>}
        {entry.launchAgainst[0] && (
          <strong className="block text-error">
            {launchWords(entry.launchAgainst[0], entry.launchAgainst[0].name, now, boat.timeZone)}
          </strong>
        )}
        {air && (
          <span>
            {' '}
            · air <Fig quantity="temperature" value={air.airC} />
          </span>
        )}
      </p>
    </div>
  );
}

function YardToday({ yard }: { yard: Yard }) {
  const at = Math.max(useNow(30_000), yard.now);
  const list = yard.boats.flatMap((b) => b.zones.map((z) => ({ boat: b.boat, zone: z })));
  const open = list.filter(
    ({ zone }) => zone.state === 'inHand' || (zone.state !== 'closed' && mayGoOn({ ...zone, advice: zone })),
  );
  const coming = yard.boats
    .flatMap((b) =>
      b.clocks.map((clock) => ({
        boat: b.boat,
        clock,
        name: b.zones.find((z) => z.surfaceId === clock.surfaceId)?.name ?? (clock.product || 'batch'),
      })),
    )
    .filter(({ clock }) => clock.at > at && clock.kind !== 'lastStart')
    .sort((a, b) => a.clock.at - b.clock.at);
  const simulated = yard.boats.some((b) => b.air?.simulated);
  // Times are each boat's own: where they are not the reader's, they say so.
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const several = new Set(yard.boats.map((b) => b.boat.timeZone)).size > 1;
  return (
    <div className="mt-5 grid gap-x-10 gap-y-6 lg:grid-cols-2">
      <section aria-labelledby="yard-open">
        <h2 id="yard-open" className="ruled pb-1">
          May go on now
        </h2>
        {open.length === 0 && <p className="py-3">Nothing just now.</p>}
        <ul className="sheet-rule">
          {open.map(({ boat, zone }) => (
            <li key={zone.surfaceId}>
              <Link to={`/boats/${boat.id}/today`} className="flex min-h-12 items-center gap-3 py-1.5">
                <StateSwatch state={zone.state} colour={zone.colourHex} />
                <span className="min-w-0 flex-1 wrap-anywhere">
                  <span className="font-semibold">{zone.name}</span> <span className="quiet">{boat.name}</span>
                  <span className="block">{zoneLine(zone, at, boat.timeZone, several && boat.timeZone !== own)}</span>
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <section aria-labelledby="yard-next">
        <h2 id="yard-next" className="ruled pb-1">
          Opens or closes next
        </h2>
        {coming.length === 0 && <p className="py-3">No clock is running.</p>}
        <ol className="sheet-rule">
          {coming.slice(0, 8).map(({ boat, clock, name }) => (
            <li key={`${clock.kind}-${clock.surfaceId ?? clock.batchId}`}>
              <Link to={`/boats/${boat.id}/today`} className="flex min-h-12 items-baseline gap-3 py-1.5">
                <span className="fig w-32 shrink-0 text-xl">
                  {clockTime(clock, at, boat.timeZone, several && boat.timeZone !== own)}
                </span>
                <span className="min-w-0 wrap-anywhere">
                  {name} {CLOCK_WORDS[clock.kind]} <span className="quiet">{boat.name}</span>
                </span>
              </Link>
            </li>
          ))}
        </ol>
        {simulated && <p className="pt-2 text-sm quiet">Weather is {SIMULATED_WORDS}.</p>}
      </section>
    </div>
  );
}

function zoneLine(zone: YardZone, at: number, timeZone: string, foreign: boolean): string {
  const when = (t: number) => clockTime({ at: t, approx: false }, at, timeZone, foreign);
  const window =
    zone.state === 'bonds' && zone.bondsUntil ? `bonds as is until ${when(zone.bondsUntil)}` : STATE_WORDS[zone.state];
  if (zone.state === 'inHand') return window;
  const bondsFirst =
    zone.state === 'bonds' &&
    zone.bondsUntil !== null &&
    zone.lastStartAt !== null &&
    zone.bondsUntil <= zone.lastStartAt;
  const air = zone.nowHolds
    ? bondsFirst
      ? 'the air holds longer'
      : zone.lastStartAt
        ? `last start ${when(zone.lastStartAt)}`
        : 'air is good'
    : zone.firstStartAt
      ? `air good from ${when(zone.firstStartAt)}`
      : 'air does not hold today';
  return `${window}; ${air}`;
}
