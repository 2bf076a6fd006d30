import { Moon, Sun } from 'lucide-react';
import { Suspense, useEffect, useState } from 'react';
import { Link, Outlet, ScrollRestoration, useNavigation } from 'react-router';
import { changeSettings, useSettings } from '../data/settings';
import { useYard } from '../data/store';
import { Alarm } from './Alarm';
import { KeySheet } from './KeySheet';
import { useKeys } from './keys';
import { OutboxStrip } from './OutboxStrip';
import { Toasts } from './Toasts';
import { YardNotices } from './YardNotices';

export function Shell() {
  const { theme, units } = useSettings();
  const [keysOpen, setKeysOpen] = useState(false);
  useKeys(() => setKeysOpen((open) => !open));
  const busy = useNavigation().state === 'loading';
  const { data: yard } = useYard();
  useEffect(() => {
    document.querySelector('meta[name=theme-color]')?.setAttribute('content', theme === 'shed' ? '#1a1d1f' : '#f6f3ec');
  }, [theme]);

  return (
    <div className="relative flex min-h-dvh flex-col">
      <a href="#place" className="btn btn-primary absolute left-2 top-2 z-50 -translate-y-20 focus:translate-y-0">
        To the content
      </a>
      <header className="no-print ruled flex flex-wrap items-center gap-x-1 px-3 sm:px-5">
        <Link to="/" className="narrow link-row mr-auto gap-2 text-xl font-semibold">
          <img src="/icon.svg" alt="" width="22" height="22" />
          <span className="sr-only sm:not-sr-only">Jack Plane</span>
          {yard?.demo && <span className="narrow quiet hidden text-base font-medium sm:inline">demo yard</span>}
        </Link>
        <Link to="/sheets" className="narrow link-row px-2 text-lg">
          Sheets
        </Link>
        <Link to="/build-ups" className="narrow link-row hidden px-2 text-lg sm:inline-flex">
          Build-ups
        </Link>
        <Link to="/stores" className="narrow link-row px-2 text-lg">
          Stores
        </Link>
        <Link to="/settings" className="narrow link-row px-2 text-lg">
          Settings
        </Link>
        <button
          type="button"
          className="narrow min-h-11 min-w-11 px-2 text-lg underline decoration-dotted underline-offset-4"
          onClick={() => changeSettings({ units: { system: units.system === 'metric' ? 'us' : 'metric' } })}
          aria-label={`Units: ${units.system === 'metric' ? 'metric' : 'US'}. Switch to ${units.system === 'metric' ? 'US' : 'metric'}.`}
        >
          <span className="sm:hidden">{units.system === 'metric' ? 'm' : 'ft'}</span>
          <span className="hidden sm:inline">{units.system === 'metric' ? 'm · L · µm' : 'ft · gal · mil'}</span>
        </button>
        <button
          type="button"
          className="min-h-11 grid min-w-11 place-items-center"
          onClick={() => changeSettings({ theme: theme === 'chalk' ? 'shed' : 'chalk' })}
          aria-label={theme === 'chalk' ? 'Dark theme, for the shed' : 'Light theme, for the yard'}
        >
          {theme === 'chalk' ? <Moon size={20} aria-hidden="true" /> : <Sun size={20} aria-hidden="true" />}
        </button>
        <button
          type="button"
          className="narrow min-h-11 hidden min-w-11 text-lg sm:block"
          onClick={() => setKeysOpen(true)}
          aria-label="Keyboard keys"
        >
          ?
        </button>
      </header>
      {yard && <YardNotices yard={yard} />}
      <OutboxStrip />
      <Alarm />
      <main
        id="place"
        tabIndex={-1}
        className={`flex min-w-0 flex-1 flex-col outline-none ${busy ? 'opacity-70' : ''}`}
        aria-busy={busy}
      >
        <Suspense>
          <Outlet />
        </Suspense>
      </main>
      <Toasts />
      {keysOpen && <KeySheet onClose={() => setKeysOpen(false)} />}
      <ScrollRestoration />
    </div>
  );
}
