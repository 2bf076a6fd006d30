import { Link } from 'react-router';
import { prepOf } from '#core/prep/prepLog';
import { counted } from '#core/units/format';
import type { BoatView } from '../../data/store';
import { listOf, logOnZones, TAP } from './usePrep';

/** Before a coat: what of its zones is not got ready yet; and, once before a first coat, whether the structure is done. */
export function BeforeCoat({ view, surfaceIds }: { view: BoatView; surfaceIds: readonly string[] }) {
  const zones = surfaceIds.flatMap((id) => view.surfaces.filter((s) => s.id === id));
  const lists = zones.flatMap((surface) => {
    const list = listOf(view, surface);
    return list && list.open > 0 ? [{ surface, open: list.open }] : [];
  });
  const unasked = zones.filter((z) => {
    const status = view.statuses.find((s) => s.surfaceId === z.id);
    return status?.lastCoat === null && prepOf(view.entries, z.id).structureDone === null;
  });
  const [first] = unasked;
  return (
    <>
      {first && (
        <div className="border-l-4 border-base-content bg-base-200 px-3 py-2" role="group" aria-label="Structure first">
          <p>
            First coat on {unasked.map((z) => z.name).join(', ')}: is all welding, drilling, glassing and fairing there
            done? Paint over it is lost.
          </p>
          <p className="mt-2 flex flex-wrap gap-3">
            <button
              type="button"
              className="btn"
              onClick={() =>
                void logOnZones(
                  view,
                  unasked.map((z) => z.id),
                  { kind: 'structureAsked', body: { structureDone: true } },
                  'Structure is done',
                  TAP,
                )
              }
            >
              It is done
            </button>
            <Link className="btn" to={`/boats/${view.boat.id}/prep/${first.id}`}>
              There is more: log it under Prep
            </Link>
          </p>
        </div>
      )}
      {lists.map(({ surface, open }) => (
        <p key={surface.id} className="text-sm">
          {surface.name}: {counted(open, 'step')} of getting ready not logged.{' '}
          <Link
            to={`/boats/${view.boat.id}/prep/${surface.id}`}
            className="link-row underline decoration-1 underline-offset-4"
          >
            Prep
          </Link>
        </p>
      ))}
    </>
  );
}
