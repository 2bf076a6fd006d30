import { calibratedArea, calibratedShare } from '#core/hull/calibrated';
import type { Coat } from '#core/coat/fold';
import { paintContradicts } from '#core/hull/calibrated';
import { save, type BoatView } from '../../data/store';
import { Fig } from '../../parts/Fig';
import { paintedCoats } from '../../parts/painted';
import { shareWords } from '../../parts/words';

/** What a finished coat tells of its zone's area: litres over wet film, beside what was reckoned with. */
export function PaintSays({ view, coat }: { view: BoatView; coat: Coat }) {
  const zone = view.surfaces.find((s) => s.id === coat.on[0]?.surfaceId);
  const told = zone && paintedCoats(view, zone.id).find((p) => p.coat.id === coat.id);
  if (!zone || !told) return null;
  // Of what is on the hull, thinner and all, what makes the film.
  const { litres, wetFilmMicron, readings } = told;
  const painted = { areaM2: calibratedArea({ litres, wetFilmMicron, thinner: 0 }), share: calibratedShare(readings) };
  const covered = coat.covered.find((c) => c.surfaceId === zone.id)?.share ?? 1;
  const estimate = { areaM2: zone.areaM2 * covered, share: zone.areaShare };
  const inUse = zone.area.method === 'calibrated' && zone.area.calibrated?.coatId === coat.id;
  const contradicts = !inUse && paintContradicts({ estimate, painted });
  const use = () =>
    void save(
      {
        kind: 'surface',
        row: {
          ...zone,
          area: {
            ...zone.area,
            method: 'calibrated',
            calibrated: { coatId: coat.id, litres, wetFilmMicron, thinner: 0, readings },
          },
        },
      },
      `${zone.name} by the paint it took`,
    );
  return (
    <section
      aria-label="Area by the paint"
      className={`border-l-4 pl-3 ${contradicts ? 'border-warning' : 'border-base-300'}`}
    >
      <p>
        By its litres and its comb, this coat covered <Fig quantity="area" value={painted.areaM2} className="text-xl" />{' '}
        ± {shareWords(painted.share)}.{' '}
        {inUse ? (
          'That is the area in use.'
        ) : (
          <>
            {covered < 1 ? `What was ticked of ${zone.name}` : zone.name} was reckoned at{' '}
            <Fig quantity="area" value={estimate.areaM2} /> ± {shareWords(estimate.share)}:{' '}
            {contradicts ? 'further apart than both allow.' : 'they agree.'}
          </>
        )}
      </p>
      {!inUse && covered >= 1 && (
        <button type="button" className="btn mt-1" onClick={use}>
          Use it for the coats to come
        </button>
      )}
    </section>
  );
}
