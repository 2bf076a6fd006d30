import type { PrepStep } from '#core/prep/prepSteps';
import { FAIRING_STAGES, USUAL_ROUNDS, type Fairing } from '#core/prep/fairing';
import type { SurfaceRow } from '#contracts/rows/boat';
import type { BoatView } from '../../data/store';
import { FOUND_WORDS, PREP_WORDS } from '../../parts/prepWords';
import { timeWords } from '../../parts/words';
import { closeWork } from './usePrep';
import { Where } from './Where';

/** Rounds of fairing: fill, guide coat, block, look, as many as it takes, with what each found and where. */
export function FairingRounds({
  view,
  surface,
  fairing,
  onOpen,
}: {
  view: BoatView;
  surface: SurfaceRow;
  fairing: Fairing;
  onOpen: (step: PrepStep) => void;
}) {
  const { rounds, next } = fairing;
  const when = (t: number) => timeWords(t, view.at, view.boat.timeZone);
  const work = surface.openWork.find((w) => w.kind === 'fairing' && !w.done);
  if (rounds.length === 0)
    return surface.exposure === 'interior' || surface.exposure === 'bilge' || surface.exposure === 'tank' ? null : (
      <p>
        <button type="button" className="link-row underline underline-offset-4" onClick={() => onOpen(fillStep(0))}>
          Begin fairing: fill, guide coat, block, look
        </button>
      </p>
    );
  return (
    <section aria-labelledby="fairing">
      <h2 id="fairing" className="ruled pb-1">
        Fairing, round {rounds.length}
        <span className="quiet font-normal"> of {Math.max(USUAL_ROUNDS, rounds.length)} or so</span>
      </h2>
      <Where view={view} surface={surface} marks={rounds.flatMap((r) => r.places)} />
      <ol className="sheet-rule">
        {rounds.map((r) => (
          <li key={r.no} className="py-1.5">
            <p className="flex flex-wrap gap-x-4">
              <span className="font-semibold">{r.no}</span>
              {FAIRING_STAGES.map((s) => (
                <span key={s} className={r.at[s] === null ? 'quiet' : ''}>
                  {r.at[s] === null ? '·' : '✓'} {PREP_WORDS[s].toLowerCase()}
                  {r.at[s] !== null && <span className="narrow quiet"> {when(r.at[s])}</span>}
                </span>
              ))}
            </p>
            {r.found.length > 0 && (
              <p className="text-sm">Found: {r.found.map((f) => FOUND_WORDS[f].toLowerCase()).join(', ')}</p>
            )}
          </li>
        ))}
      </ol>
      {next === null && work && (
        <button
          type="button"
          className="btn"
          onClick={() => closeWork(surface, work.id, `${surface.name}: fairing done`)}
        >
          It is fair: close the open work
        </button>
      )}
      {next === null && (
        <button
          type="button"
          className="link-row underline underline-offset-4"
          onClick={() => onOpen(fillStep(rounds.length))}
        >
          Another round
        </button>
      )}
    </section>
  );
}

const fillStep = (no: number): PrepStep => ({
  key: `fairing${no}:fill`,
  kind: 'fill',
  state: 'toDo',
  source: 'work',
  why: 'Low places, proud of the face; then a guide coat over all of it.',
  needs: {},
  done: null,
  ranOut: null,
  reason: null,
});
