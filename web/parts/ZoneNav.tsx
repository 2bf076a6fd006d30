import { Link } from 'react-router';
import type { BoatView } from '../data/store';
import { StateSwatch } from './patterns';

/** The zones of a boat in a row, each as it stands; one is looked at. */
export function ZoneNav({ view, surfaceId, place }: { view: BoatView; surfaceId: string; place: 'film' | 'prep' }) {
  const { surfaces, statuses, boat } = view;
  return (
    <nav
      aria-label="Zones"
      className="-mx-3 flex gap-x-4 overflow-x-auto px-3 whitespace-nowrap lg:col-span-2 lg:mx-0 lg:flex-wrap lg:px-0"
    >
      {surfaces.map((s, i) => (
        <Link
          key={s.id}
          to={`/boats/${boat.id}/${place}/${s.id}`}
          aria-current={s.id === surfaceId ? 'page' : undefined}
          className={`narrow link-row gap-1.5 text-lg lg:min-h-9 ${s.id === surfaceId ? 'font-semibold underline decoration-2 underline-offset-8' : ''}`}
        >
          <StateSwatch state={statuses[i]?.state ?? 'ready'} colour={statuses[i]?.colourHex ?? null} size={16} />{' '}
          {s.name}
        </Link>
      ))}
    </nav>
  );
}
