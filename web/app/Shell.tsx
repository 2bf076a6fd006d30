import { Menu, Moon, Sun } from 'lucide-react';
import { Suspense, useEffect, useState } from 'react';
import { Link, NavLink, Outlet, ScrollRestoration, useNavigation } from 'react-router';
import { inDemo } from '../data/base';
import { useAskBeforeLeaving } from '../parts/useLeaveGuard';
import { changeSettings, useSettings } from '../data/settings';
import { useYard } from '../data/store';
import { useKeys } from './keys';
import { part } from '../parts/part';
import { focusHeading, PageTitle } from './pageTitle';

const YardNotices = part(() => import('./YardNotices'), 'YardNotices');
const Alarm = part(() => import('./Alarm'), 'Alarm');
const OutboxStrip = part(() => import('./OutboxStrip'), 'OutboxStrip');
const Toasts = part(() => import('./Toasts'), 'Toasts');
const KeySheet = part(() => import('./KeySheet'), 'KeySheet');

export function Shell() {
  const { theme } = useSettings();
  const [keysOpen, setKeysOpen] = useState(false);
  useKeys(() => setKeysOpen((open) => !open));
  useAskBeforeLeaving();
  const busy = useNavigation().state === 'loading';
  // Once it has come it is shown at once: its heading takes the focus.
  const slow = useAfter(SLOW_MS, busy) && busy;
  const { data: yard } = useYard();
  useEffect(() => {
    document.querySelector('meta[name=theme-color]')?.setAttribute('content', theme === 'shed' ? '#1a1d1f' : '#f6f3ec');
  }, [theme]);

  return (
    <div className="relative flex min-h-dvh flex-col">
      <a
        href="#place"
        className="btn btn-primary absolute left-2 top-2 z-50 -translate-y-20 focus:translate-y-0"
        onClick={(e) => {
          e.preventDefault();
          focusHeading();
        }}
      >
        To the content
      </a>
      <Header demo={yard?.demo ?? false} onKeys={() => setKeysOpen(true)} />
      <Suspense fallback={null}>{yard && <YardNotices yard={yard} />}</Suspense>
      <Suspense fallback={null}>
        <OutboxStrip />
      </Suspense>
      <Suspense fallback={null}>
        <Alarm />
      </Suspense>
      <main id="place" tabIndex={-1} className="flex min-w-0 flex-1 flex-col outline-none" aria-busy={busy}>
        {slow && <PlaceLoading />}
        <div className={slow ? 'hidden' : 'contents'}>
          <Suspense fallback={<PlaceLoading />}>
            <Outlet />
          </Suspense>
        </div>
      </main>
      <PageTitle />
      <Suspense fallback={null}>
        <Toasts />
      </Suspense>
      {keysOpen && (
        <Suspense fallback={null}>
          <KeySheet onClose={() => setKeysOpen(false)} />
        </Suspense>
      )}
      <ScrollRestoration />
    </div>
  );
}

/** A place that takes longer to come shows that it is coming. */
const SLOW_MS = 100;

/** Whether something has been so for a while. */
function useAfter(ms: number, so: boolean): boolean {
  const [after, setAfter] = useState(false);
  useEffect(() => {
    if (!so) return;
    const timer = setTimeout(() => setAfter(true), ms);
    return () => {
      clearTimeout(timer);
      setAfter(false);
    };
  }, [ms, so]);
  return after;
}

/** In place of a page that is on its way. */
export function PlaceLoading() {
  return (
    <div className="p-5" role="status" aria-label="Loading the page">
      <div className="skeleton mb-4 h-9 w-1/2 rounded-sm" />
      <div className="skeleton mb-3 h-40 w-full rounded-sm" />
      <div className="skeleton h-24 w-full rounded-sm" />
    </div>
  );
}

function Header({ demo, onKeys }: { demo: boolean; onKeys: () => void }) {
  return (
    <header className="no-print ruled flex items-center gap-x-1 px-3 sm:px-5">
      <Link to="/" className="narrow link-row mr-auto min-w-11 gap-2 text-xl font-semibold">
        <img src="/icon.svg" alt="" width="22" height="22" />
        <span className="sr-only sm:not-sr-only">Jack Plane</span>
      </Link>
      {inDemo ? (
        <a href="/" className="narrow link-row px-2 text-lg underline underline-offset-4">
          Leave the demo<span className="hidden sm:inline"> for your own yard</span>
        </a>
      ) : (
        demo && <span className="narrow quiet hidden px-2 text-base font-medium sm:inline">demo yard</span>
      )}
      <nav aria-label="Yard" className="flex items-center gap-x-1">
        {YARD_PLACES.map(({ to, name }) => (
          <NavLink
            key={to}
            to={to}
            className={({ isActive }) =>
              `narrow link-row px-1.5 text-lg sm:px-2 ${isActive ? 'font-semibold underline decoration-2 underline-offset-8' : ''}`
            }
          >
            {name}
          </NavLink>
        ))}
        <span className="hidden items-center sm:flex">
          <Preferences onKeys={onKeys} />
        </span>
      </nav>
      <button
        type="button"
        popoverTarget="more"
        aria-label="More: settings, units, theme, keys and words"
        className="grid min-h-11 min-w-11 place-items-center sm:hidden"
      >
        <Menu size={22} aria-hidden="true" />
      </button>
      <div
        id="more"
        popover="auto"
        className="inset-auto top-11 right-0 min-w-44 border border-base-content bg-base-100 p-2 text-base-content sm:hidden"
        onClick={(e) => e.currentTarget.hidePopover()}
      >
        <span className="flex flex-col items-start">
          <Preferences onKeys={onKeys} />
        </span>
      </div>
    </header>
  );
}

const YARD_PLACES = [
  { to: '/sheets', name: 'Sheets' },
  { to: '/build-ups', name: 'Build-ups' },
  { to: '/stores', name: 'Stores' },
  { to: '/sums', name: 'Sums' },
] as const;

/** What this device prefers, in the header or, on a phone, behind its button. */
function Preferences({ onKeys }: { onKeys: () => void }) {
  const { theme, units } = useSettings();
  const metric = units.system === 'metric';
  return (
    <>
      <Link to="/settings" className="narrow link-row px-2 text-lg">
        Settings
      </Link>
      <button
        type="button"
        className="narrow min-h-11 min-w-11 px-2 text-left text-lg underline decoration-dotted underline-offset-4"
        onClick={() => changeSettings({ units: { system: metric ? 'us' : 'metric' } })}
        aria-label={`Units: ${metric ? 'metric' : 'US'}. Switch to ${metric ? 'US' : 'metric'}.`}
      >
        {metric ? 'm · L · µm' : 'ft · gal · mil'}
      </button>
      <button
        type="button"
        className="narrow flex min-h-11 min-w-11 items-center gap-2 px-2 text-lg sm:justify-center"
        onClick={() => changeSettings({ theme: theme === 'chalk' ? 'shed' : 'chalk' })}
        aria-label={theme === 'chalk' ? 'Dark theme, for the shed' : 'Light theme, for the yard'}
      >
        {theme === 'chalk' ? <Moon size={20} aria-hidden="true" /> : <Sun size={20} aria-hidden="true" />}
        <span className="sm:hidden">{theme === 'chalk' ? 'dark' : 'light'}</span>
      </button>
      <button
        type="button"
        className="narrow flex min-h-11 min-w-11 items-center gap-2 px-2 text-lg sm:justify-center"
        onClick={onKeys}
        aria-label="Keys and words"
      >
        ?<span className="sm:hidden">keys and words</span>
      </button>
    </>
  );
}
