import { Suspense, type ComponentType, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { NotFound } from '../../app/PlaceError';
import { useView } from '../../app/BoatShell';
import { useWide } from '../../parts/useWide';
import type { PlanAnswer, PlanWeather } from '../../workers/plan';
import { chartRows, type ChartRow } from './chartRows';
import { PhonePlan } from './PhonePlan';
import { PlanSays } from './PlanSays';
import { RehearsalStrip } from './RehearsalStrip';
import { HoldButton, TaskPanel } from './TaskPanel';
import type { Beside } from './planWords';
import { moveBy, windowAround, ZOOMS, type TimeWindow } from './timeScale';
import { usePlan, type BoatPlan } from './usePlan';
import { useRehearsal } from './useRehearsal';
import { WindowChart } from './WindowChart';
import { part } from '../../parts/part';

const DAY_MS = 86_400_000;

const PlannedReal = part(() => import('./PlannedReal'), 'PlannedReal');
const FitHours = part(() => import('./FitHours'), 'FitHours');
const PlannedBy = part(() => import('./PlannedBy'), 'PlannedBy');

/** The parts of the place beside the plan itself. */
const PARTS: Readonly<Record<string, ComponentType>> = { by: PlannedBy, hours: FitHours, real: PlannedReal };

/** The air, the clocks, and a job that fits between them; beside it what she is planned by, the fit hours, the past. */
export function PlanPlace() {
  const { part } = useParams();
  if (part === undefined) return <PlanOfBoat />;
  const Part = Object.hasOwn(PARTS, part) ? PARTS[part] : undefined;
  return Part ? (
    <Suspense fallback={<p role="status">Loading …</p>}>
      <Part />
    </Suspense>
  ) : (
    <NotFound />
  );
}

function PlanOfBoat() {
  const view = useView();
  const plan = usePlan(view);
  const { answer, problem } = plan;
  if (view.surfaces.length === 0)
    return (
      <section className="max-w-prose py-6">
        <h1>Nothing to plan yet</h1>
        <p className="my-3">A plan follows from her zones and their coats. Add the first zone, then its film.</p>
        <Link to={`/boats/${view.boat.id}/hull/new`} className="btn btn-primary">
          Add a zone
        </Link>
      </section>
    );
  if (problem)
    return (
      <p role="alert" className="max-w-prose border-l-4 border-error py-2 pl-3">
        {problem}
      </p>
    );
  if (!answer)
    return (
      <div className="py-4" role="status">
        <p>Planning …</p>
        <div className="skeleton mt-3 h-72 w-full rounded-sm" />
      </div>
    );
  if (answer.zones.length === 0)
    return (
      <section className="max-w-prose py-6">
        <h1>Nothing left to plan</h1>
        <p className="my-3">
          Every zone has the coats of its film, or none planned. Coats are planned under{' '}
          <Link to={`/boats/${view.boat.id}/film`} className="underline underline-offset-4">
            Film
          </Link>
          .
        </p>
      </section>
    );
  return <Planned plan={plan} answer={answer} />;
}

function Planned({ plan, answer }: { plan: BoatPlan; answer: PlanAnswer }) {
  const wide = useWide();
  const [selected, setSelected] = useState<string | null>(null);
  const { shown: planned, tried, move } = useTrial(plan, answer);
  const { shown, weather, rehearsing, begin } = useRehearsal(plan, planned);
  const rows = useMemo(() => chartRows(plan.view, shown), [plan.view, shown]);
  const [beside, setBeside] = useState<Beside | null>(null);
  return (
    <div className="min-w-0">
      <div className="ruled flex flex-wrap items-center gap-x-4 gap-y-1 pb-1">
        <h1 className="text-2xl">Plan</h1>
        {!rehearsing && (
          <PlanSays plan={plan} answer={shown} trial={tried} onRehearse={begin} beside={beside} onBeside={setBeside} />
        )}
      </div>
      {rehearsing && <RehearsalStrip plan={plan} rehearsing={rehearsing} />}
      {wide ? (
        <ChartSide
          plan={plan}
          answer={shown}
          weather={weather}
          rows={rows}
          selected={selected}
          onSelect={setSelected}
          onMove={rehearsing ? nothing : move}
          beside={beside}
        />
      ) : (
        <PhonePlan plan={plan} answer={shown} rows={rows} selected={selected} onSelect={setSelected} />
      )}
    </div>
  );
}

/** A plan with a task moved by hand, while that is tried; a plan made anew takes its place. */
function useTrial(plan: BoatPlan, answer: PlanAnswer) {
  const [trial, setTrial] = useState<{ of: PlanAnswer; found: PlanAnswer } | null>(null);
  const asked = useRef(0);
  const move = (id: string, start: number, letGo: boolean) => {
    asked.current += 1;
    const mine = asked.current;
    if (letGo) plan.lock(id, start);
    void plan.moved(id, start).then((found) => {
      if (mine === asked.current && found) setTrial({ of: answer, found });
    });
  };
  const tried = trial?.of === answer;
  return { shown: tried ? trial.found : answer, tried, move };
}

/** In a rehearsal nothing is moved by hand. */
const nothing = () => undefined;

function ChartSide({
  plan,
  answer,
  weather,
  rows,
  selected,
  onSelect,
  onMove,
  beside,
}: {
  beside: Beside | null;
  plan: BoatPlan;
  answer: PlanAnswer;
  weather: PlanWeather | undefined;
  rows: readonly ChartRow[];
  selected: string | null;
  onSelect: (task: string | null) => void;
  onMove: (task: string, start: number, letGo: boolean) => void;
}) {
  const { view, names, locked, launchAt } = plan;
  const whole = useMemo(() => wholeOf(answer, launchAt), [answer, launchAt]);
  const [zoom, setZoom] = useState(0);
  const [seen, setSeen] = useState<TimeWindow | null>(null);
  const sizeOf = (level: number) => (ZOOMS[level] as (typeof ZOOMS)[number]).ms;
  const other = useMemo(() => beside && new Map(beside.tasks.map((t) => [t.id, t.start])), [beside]);
  const window = seen ?? windowAround(whole, sizeOf(zoom), answer.now);
  const task = answer.plan.tasks.find((t) => t.id === selected) ?? null;
  const zoomTo = (next: number) => {
    const level = Math.max(0, Math.min(ZOOMS.length - 1, next));
    setZoom(level);
    setSeen(level === 0 ? null : windowAround(whole, sizeOf(level), task?.start ?? answer.now));
  };
  usePlanKeys({
    zoomBy: (by) => zoomTo(zoom + by),
    panBy: (share) => setSeen(moveBy(window, whole, (window.to - window.from) * share)),
    lock: () => task && plan.lock(task.id, locked.has(task.id) ? null : task.start),
  });
  return (
    <>
      <Zooms zoom={zoom} onZoom={zoomTo} />
      <WindowChart
        rows={rows}
        answer={answer}
        weather={weather}
        seen={window}
        names={names}
        timeZone={view.boat.timeZone}
        launchAt={launchAt}
        selected={selected}
        locked={locked}
        beside={other}
        onSelect={onSelect}
        onMove={onMove}
        onPan={(ms) => setSeen(moveBy(window, whole, ms))}
        openFor={plan.open}
      />
      {task && (
        <TaskPanel plan={plan} answer={answer} task={task}>
          <HoldButton plan={plan} task={task} />
        </TaskPanel>
      )}
    </>
  );
}

function Zooms({ zoom, onZoom }: { zoom: number; onZoom: (level: number) => void }) {
  return (
    <div className="flex flex-wrap items-center gap-1 py-1" role="group" aria-label="Zoom">
      {ZOOMS.map((z, i) => (
        <button
          key={z.name}
          type="button"
          className={`btn btn-sm ${i === zoom ? 'btn-primary' : ''}`}
          aria-pressed={i === zoom}
          onClick={() => onZoom(i)}
        >
          {z.name}
        </button>
      ))}
      <span className="quiet ml-2 text-sm">
        on the film: lines shut, dots bonds as is, scratches abrade first · strokes under it: prep · drag a coat, or use
        the arrow keys on it
      </span>
    </div>
  );
}

function wholeOf(answer: PlanAnswer, launchAt: number | null): TimeWindow {
  const last = Math.max(
    answer.now + 5 * DAY_MS,
    ...answer.plan.tasks.map((t) => t.end),
    launchAt ?? 0,
    ...Object.values(answer.ready).map((r) => r ?? 0),
  );
  return { from: answer.now - DAY_MS / 2, to: Math.min(answer.until, last + 1.5 * DAY_MS) };
}

function usePlanKeys({
  zoomBy,
  panBy,
  lock,
}: {
  zoomBy: (by: number) => void;
  panBy: (share: number) => void;
  lock: () => void;
}): void {
  useEffect(() => {
    const press = (event: globalThis.KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey || event.ctrlKey || event.metaKey) return;
      const target = event.target as HTMLElement | null;
      if (target?.matches('input, textarea, select')) return;
      if (event.key === '+' || event.key === '=') zoomBy(1);
      else if (event.key === '-') zoomBy(-1);
      else if (event.key === 'ArrowLeft') panBy(-0.25);
      else if (event.key === 'ArrowRight') panBy(0.25);
      else if (event.key === 'l') lock();
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  });
}
