import { ArrowDown, ArrowUp, Check, RotateCcw } from 'lucide-react';
import { useState } from 'react';
import type { StepNeeds } from '#core/prep/asked';
import type { PrepList, PrepStep, RanOut, StepState } from '#core/prep/prepSteps';
import type { PreparedBody } from '#core/model/prep';
import { prepOf, type PrepLog } from '#core/prep/prepLog';
import type { SurfaceRow } from '#contracts/rows/boat';
import { BASE } from '../../data/base';
import type { BoatView } from '../../data/store';
import { Fig } from '../../parts/Fig';
import { ABRADE_FOR_WORDS, OPEN_WORK_WORDS } from '../../parts/choiceWords';
import { DIRT_WORDS, PREP_WORDS, WAY_WORDS } from '../../parts/prepWords';
import { timeWords } from '../../parts/words';
import { ListForm } from './ListForm';
import { closeWork, logOnZones, planOf, TAP } from './usePrep';

const STATE_NOTES: Record<StepState, string> = {
  toDo: 'to do',
  done: 'done',
  again: 'again',
  leftOut: 'left out',
  ifNeeded: 'if needed',
};

/** The list in order. A tap on the box logs a step as done now; a tap on its name opens it. */
export function Steps({
  view,
  surface,
  list,
  onOpen,
}: {
  view: BoatView;
  surface: SurfaceRow;
  list: PrepList;
  onOpen: (step: PrepStep) => void;
}) {
  const [changing, setChanging] = useState(false);
  const [arranging, setArranging] = useState(false);
  return (
    <>
      <ol className="sheet-rule border-y border-base-300" aria-label="Steps">
        {list.steps.map((step, i) => (
          <Row
            key={step.key}
            view={view}
            surface={surface}
            step={step}
            onOpen={() => onOpen(step)}
            move={arranging ? (by) => move(view, surface, list, i, by) : null}
          />
        ))}
      </ol>
      <p className="flex flex-wrap items-center gap-x-5">
        <button type="button" className="link-row underline underline-offset-4" onClick={() => setChanging(true)}>
          {list.way ? WAY_WORDS[list.way] : 'Between coats'}: change the list
        </button>
        {list.steps.length > 1 && (
          <button
            type="button"
            className="link-row underline underline-offset-4"
            aria-pressed={arranging}
            onClick={() => setArranging(!arranging)}
          >
            {arranging ? 'Order is right' : 'Change the order'}
          </button>
        )}
      </p>
      <WorkDone surface={surface} list={list} />
      {changing && <ListForm view={view} surface={surface} list={list} onClose={() => setChanging(false)} />}
    </>
  );
}

/** Open work of which every step is done is closed with a tap. */
function WorkDone({ surface, list }: { surface: SurfaceRow; list: PrepList }) {
  const done = surface.openWork.filter((w) => {
    const steps = list.steps.filter((s) => s.workId === w.id);
    return !w.done && steps.length > 0 && steps.every((s) => s.state === 'done' || s.state === 'leftOut');
  });
  return done.map((w) => (
    <button
      key={w.id}
      type="button"
      className="btn"
      onClick={() => closeWork(surface, w.id, `${surface.name}: ${w.note || OPEN_WORK_WORDS[w.kind]} done`)}
    >
      {w.note || OPEN_WORK_WORDS[w.kind]}: all done, close it
    </button>
  ));
}

function move(view: BoatView, surface: SurfaceRow, list: PrepList, from: number, by: -1 | 1): void {
  const keys = list.steps.map((s) => s.key);
  const [key] = keys.splice(from, 1);
  if (key === undefined) return;
  keys.splice(from + by, 0, key);
  void logOnZones(
    view,
    [surface.id],
    { kind: 'prepPlanned', body: { ...planOf(view, surface.id), order: keys } },
    'Order of the steps changed',
    TAP,
  );
}

function Row({
  view,
  surface,
  step,
  onOpen,
  move,
}: {
  view: BoatView;
  surface: SurfaceRow;
  step: PrepStep;
  onOpen: () => void;
  move: ((by: -1 | 1) => void) | null;
}) {
  const { kind, state, why, done, ranOut, reason, source } = step;
  const name = nameOfStep(step);
  const when = (t: number) => timeWords(t, view.at, view.boat.timeZone);
  const over = state === 'done' || state === 'leftOut';
  return (
    <li className="flex items-start gap-3 py-1">
      <button
        type="button"
        className={`btn btn-square mt-0.5 shrink-0 ${state === 'done' ? 'btn-primary' : ''}`}
        aria-label={state === 'done' ? `${name}: done, look at it` : `${name}: done now`}
        onClick={() => (state === 'done' || needsAsking(step) ? onOpen() : quick(view, surface, step))}
      >
        {state === 'done' ? (
          <Check aria-hidden="true" />
        ) : state === 'again' ? (
          <RotateCcw size={18} aria-hidden="true" />
        ) : null}
      </button>
      <div className="min-w-0 flex-1 leading-snug">
        <button type="button" className="link-row w-full flex-wrap gap-x-3 text-left lg:min-h-8" onClick={onOpen}>
          <span
            className={`text-lg font-semibold underline decoration-1 underline-offset-4 ${state === 'leftOut' ? 'line-through' : ''}`}
          >
            {name}
          </span>
          <Needs needs={step.needs} />
          {state !== 'toDo' && <span className="narrow text-base">{STATE_NOTES[state]}</span>}
        </button>
        {state === 'again' && ranOut && <p className="font-semibold">{ranOutWords(kind, done, ranOut, when)}</p>}
        {state === 'done' && <p className="quiet text-sm">{doneWords(done, ranOut, when)}</p>}
        <StepPictures pictures={prepOf(view.entries, surface.id).pictures.filter((p) => p.step === step.key)} />
        {reason !== null && <p className="quiet text-sm">Left out: {reason}</p>}
        {!over && source !== 'added' && (
          <p className="quiet text-sm">
            {why}
            {source === 'sheet' && ' By the sheet.'}
          </p>
        )}
      </div>
      {move && (
        <span className="flex shrink-0">
          <button
            type="button"
            className="btn btn-ghost btn-square"
            aria-label={`${name}: earlier`}
            onClick={() => move(-1)}
          >
            <ArrowUp size={18} aria-hidden="true" />
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-square"
            aria-label={`${name}: later`}
            onClick={() => move(1)}
          >
            <ArrowDown size={18} aria-hidden="true" />
          </button>
        </span>
      )}
    </li>
  );
}

/** "17:03, Ines; holds until 21:03" */
function doneWords(done: PrepStep['done'], ranOut: RanOut | null, when: (t: number) => string): string {
  const by = done ? [when(done.at), done.painter, done.text].filter(Boolean).join(', ') : 'dry by its clock';
  return ranOut ? `${by}; holds until ${when(ranOut.at)}` : by;
}

/** Pictures of one step, each opening whole. */
function StepPictures({ pictures }: { pictures: PrepLog['pictures'] }) {
  if (pictures.length === 0) return null;
  return (
    <p className="flex flex-wrap gap-2 py-1">
      {pictures.map((p) => (
        <a key={p.id} href={`${BASE}/api/pictures/${p.hash}`} target="_blank" rel="noreferrer">
          <img
            src={`${BASE}/api/pictures/${p.hash}`}
            width={p.widthPx}
            height={p.heightPx}
            loading="lazy"
            alt={p.text || 'Picture of the step'}
            className="h-14 w-14 object-cover"
          />
        </a>
      ))}
    </p>
  );
}

export const nameOfStep = (step: Pick<PrepStep, 'kind' | 'source' | 'why'>): string =>
  step.source === 'added' || step.kind === 'other' ? step.why : PREP_WORDS[step.kind];

/** What a tap alone cannot tell: what was found, how deep the profile is, which faces were burnt. */
const needsAsking = ({ kind, state }: PrepStep): boolean =>
  state === 'leftOut' ||
  kind === 'blast' ||
  kind === 'inspect' ||
  kind === 'weld' ||
  kind === 'grind' ||
  kind === 'convert';

/** What a step is logged with where nothing else is said. */
export function usualBody(step: PrepStep): PreparedBody {
  const { kind, key, source, workId, needs } = step;
  const { grit, abradeFor, waterL, concentrateL } = needs;
  return {
    step: kind,
    ...(source === 'added' ? { key, text: step.why } : {}),
    ...(workId ? { workId } : {}),
    ...(grit ? { grit } : {}),
    ...(abradeFor ? { abradeFor } : {}),
    ...(waterL ? { waterL } : {}),
    ...(concentrateL ? { concentrateL } : {}),
  };
}

const quick = (view: BoatView, surface: SurfaceRow, step: PrepStep) =>
  void logOnZones(
    view,
    [surface.id],
    { kind: 'prepared', body: usualBody(step) },
    `${surface.name}: ${nameOfStep(step).toLowerCase()}`,
    TAP,
  );

/** "washed Mon 10:20, rain since: again" */
function ranOutWords(
  kind: PrepStep['kind'],
  done: PrepStep['done'],
  ranOut: RanOut,
  when: (t: number) => string,
): string {
  const did = `${PREP_WORDS[kind]}${done ? ` ${when(done.at)}` : ''}`;
  if (ranOut.by === 'step') return `${did}, ${PREP_WORDS[ranOut.kind].toLowerCase()} ${when(ranOut.at)} since: again`;
  if (ranOut.by === 'time') return `${did}, bare metal held until ${when(ranOut.at)}: again`;
  if (ranOut.by === 'rust') return `${did}, still red ${when(ranOut.at)}: again`;
  const what = ranOut.by === 'rain' ? 'rain' : DIRT_WORDS[ranOut.by].toLowerCase();
  return `${did}, ${what} ${when(ranOut.at)} since: again`;
}

/** What a step takes: grit, litres, hours, µm. */
export function Needs({ needs }: { needs: StepNeeds }) {
  const { grit, abradeFor, waterL, parts, concentrateL, dryH, fan, moistureMax, profileMicron, cleanliness } = needs;
  return (
    <span className="narrow flex flex-wrap items-baseline gap-x-3 text-lg">
      {grit !== undefined && (
        <span>
          {grit} grit{abradeFor ? ` ${ABRADE_FOR_WORDS[abradeFor]}` : ''}
        </span>
      )}
      {concentrateL !== undefined ? (
        <span>
          <Fig quantity="volume" value={concentrateL} /> in <Fig quantity="volume" value={waterL ?? 0} digits={0} /> of
          water, 1 : {parts}
        </span>
      ) : (
        waterL !== undefined && (
          <span>
            <Fig quantity="volume" value={waterL} digits={0} /> of water
          </span>
        )
      )}
      {dryH !== undefined && (
        <span>
          {dryH} h{fan ? ' with a fan' : ''}
        </span>
      )}
      {moistureMax !== undefined && (
        <span>
          under <Fig quantity="percent" value={moistureMax} digits={0} /> damp
        </span>
      )}
      {profileMicron && (
        <span>
          <Fig quantity="film" value={profileMicron[0]} />–<Fig quantity="film" value={profileMicron[1]} />
        </span>
      )}
      {cleanliness && <span>{cleanliness}</span>}
    </span>
  );
}
