import type { Coat } from '#core/coat/fold';
import { counted } from '#core/units/format';
import { Fig } from '../../../parts/Fig';
import type { InHandFacts } from './useInHand';

/** Below and above this share of the target a film is too thin, or may sag. [CP] */
const THIN = 0.85;
const HEAVY = 1.25;
const SHOWN = 24;

/** What to comb for, in huge figures, and the readings so far as a strip against it. */
export function WetFilm({ coat, facts }: { coat: Coat; facts: InHandFacts }) {
  const { targetMicron, film } = facts;
  return (
    <section className="border-y-2 border-base-content py-1" aria-label="Wet film">
      <div className="flex items-end justify-between gap-3">
        <p className="leading-none">
          <span className="lab block">Comb for, wet</span>
          <Fig quantity="film" value={targetMicron} className="text-7xl leading-none lg:text-8xl" />
        </p>
        <p className="text-right leading-tight">
          <span className="quiet block text-sm">
            dries to <Fig quantity="film" value={coat.dftMicron} />
          </span>
          {film ? (
            <>
              <span className="block text-sm">mean of {counted(film.readings, 'reading')}</span>
              <Fig quantity="film" value={film.wetMicron} className="text-4xl" />
              <span className={`block ${film.wetMicron < targetMicron * THIN ? 'font-semibold text-error' : ''}`}>
                {film.wetMicron < targetMicron * THIN
                  ? 'too thin, go heavier'
                  : film.wetMicron > targetMicron * HEAVY
                    ? 'too heavy, it may sag'
                    : 'on target'}{' '}
                <span className="quiet">
                  = <Fig quantity="film" value={film.dryMicron} /> dry
                </span>
              </span>
            </>
          ) : (
            <span className="quiet block">nothing combed yet</span>
          )}
        </p>
      </div>
      {film && <Strip coat={coat} targetMicron={targetMicron} />}
      {facts.byPaintMicron !== null && (
        <p className="text-sm">
          By what left the pots over what is done: <Fig quantity="film" value={facts.byPaintMicron} approx /> wet
        </p>
      )}
    </section>
  );
}

const WIDTH = 340;
const HEIGHT = 34;

/** The last readings, oldest left, between nothing and twice the target. */
function Strip({ coat, targetMicron }: { coat: Coat; targetMicron: number }) {
  const all = coat.wetFilms.flatMap((w) => w.micron.map((micron, i) => ({ micron, teeth: w.teeth?.[i] })));
  const readings = all.slice(-SHOWN);
  const y = (micron: number) => HEIGHT - Math.min(1, micron / (targetMicron * 2)) * HEIGHT;
  const x = (i: number) => ((i + 0.5) / Math.max(8, readings.length)) * WIDTH;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="mt-1 block h-9 w-full"
      preserveAspectRatio="none"
      role="img"
      aria-label={`The last ${counted(readings.length, 'reading')} against the target`}
    >
      <rect
        y={y(targetMicron * HEAVY)}
        width={WIDTH}
        height={y(targetMicron * THIN) - y(targetMicron * HEAVY)}
        fill="currentColor"
        opacity=".14"
      />
      <path d={`M0 ${y(targetMicron)}H${WIDTH}`} stroke="currentColor" strokeDasharray="5 4" />
      {readings.map(({ micron, teeth }, i) => (
        <path
          key={i}
          d={teeth ? `M${x(i)} ${y(teeth[0])}V${y(teeth[1])}` : `M${x(i) - 4} ${y(micron)}h8`}
          stroke={micron < targetMicron * THIN ? '#9a231b' : 'currentColor'}
          strokeWidth="4"
        />
      ))}
    </svg>
  );
}
