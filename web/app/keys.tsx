import { useEffect } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { settings } from '../data/settings';
import { redo, undo } from '../data/store';

/** The bench, left to right. A place keeps its digit even while its neighbours are not there yet. */
export const PLACES = [
  { key: '1', path: 'today', name: 'Today' },
  { key: '2', path: 'hull', name: 'Hull' },
  { key: '3', path: 'film', name: 'Film' },
  { key: '4', path: 'prep', name: 'Prep' },
  { key: '5', path: 'plan', name: 'Plan' },
  { key: '6', path: 'mix', name: 'Mix' },
  { key: '7', path: 'coat', name: 'Coat' },
  { key: '9', path: 'record', name: 'Record' },
] as const;

/** Where "new" leads from a path. */
function newPath(pathname: string, boatId: string | undefined): string {
  if (pathname.startsWith('/sheets')) return '/sheets/new/quick';
  if (pathname.startsWith('/stores')) return '/stores?new';
  if (pathname.startsWith('/build-ups')) return '/build-ups?new';
  if (!boatId) return pathname === '/' ? '/boats/new' : pathname;
  if (pathname.includes('/hull')) return `/boats/${boatId}/hull/new`;
  if (pathname.includes('/film')) return `/sheets/new/quick?back=${encodeURIComponent(pathname)}`;
  return `/boats/${boatId}/coat/start`;
}

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) ||
      target.closest('dialog[open]') !== null)
  );
}

/** Open all workings on the page, or close them when any is open. */
function toggleWorkings(): void {
  const all = [...document.querySelectorAll<HTMLDetailsElement>('details[data-why]')];
  const open = all.every((d) => !d.open);
  for (const d of all) d.open = open;
}

/** Single keys, which do nothing while typing, and undo. */
export function useKeys(onHelp: () => void): void {
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  const { boatId } = useParams();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey) return;
      if (typing(event.target)) return;
      const key = event.key.toLowerCase();
      if (event.ctrlKey || event.metaKey) {
        if (key !== 'z' && key !== 'y') return;
        event.preventDefault();
        if (key === 'y' || event.shiftKey) redo();
        else undo();
        return;
      }
      if (!settings().keys) return;
      const place = PLACES.find((p) => p.key === event.key);
      if (place && boatId) void navigate(`/boats/${boatId}/${place.path}`);
      else if (event.key === '0') void navigate('/');
      else if (event.key === 'n') void navigate(newPath(pathname, boatId));
      else if (event.key === 'm' && boatId) void navigate(`/boats/${boatId}/mix${search}`);
      else if (event.key === 'w') toggleWorkings();
      else if (event.key === '?') onHelp();
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, [navigate, pathname, search, boatId, onHelp]);
}
