import { Lock, LockOpen } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { PlannedTask } from '#core/plan/problem';
import { timeWords } from '../../parts/words';
import type { PlanAnswer } from '../../workers/plan';
import { whenWords } from './planWords';
import type { BoatPlan } from './usePlan';

/** One task of the plan: when, who, why there, and its window. */
export function TaskPanel({
  plan,
  answer,
  task,
  children,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  task: PlannedTask;
  children?: ReactNode;
}) {
  const { names, view } = plan;
  const zone = view.boat.timeZone;
  const film = answer.films[task.zone]?.find((f) => f.task === task.id);
  const at = (t: number) => timeWords(t, answer.now, zone);
  return (
    <section aria-label="This step" className="ruled mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-2">
      <h2 className="text-xl">
        {names.zone(task.zone)}: {names.of(task.id)}
      </h2>
      <span>{whenWords(task, answer.now, zone)}</span>
      {children}
      <details data-why className="basis-full" open>
        <summary className="link-row cursor-pointer lg:min-h-0">Why there</summary>
        <p>{names.say(task.why)}</p>
        {film && (
          <p className="quiet">
            {film.dryAt !== null && `Touch dry ${at(film.dryAt)}. `}
            {film.opensAt !== null && film.opensAt > film.end && `The next coat opens ${at(film.opensAt)}. `}
            {film.bondsUntil !== null && `It bonds as is until ${at(film.bondsUntil)}. `}
            {film.closesAt !== null && `Closed even when abraded after ${at(film.closesAt)}. `}
            {film.waterFrom !== null && `To the water from ${at(film.waterFrom)}.`}
          </p>
        )}
      </details>
      <Link
        className="link-row underline underline-offset-4 lg:min-h-0"
        to={`/boats/${view.boat.id}/${task.kind === 'coat' ? 'film' : 'prep'}/${task.zone}`}
      >
        {task.kind === 'coat' ? 'Its film' : 'Its list'}
      </Link>
    </section>
  );
}

/** Hold a task where it is, or let it go. */
export function HoldButton({ plan: { lock, locked }, task }: { plan: BoatPlan; task: PlannedTask }) {
  const held = locked.has(task.id);
  return (
    <button type="button" className="btn btn-sm" onClick={() => lock(task.id, held ? null : task.start)}>
      {held ? <LockOpen size={16} aria-hidden="true" /> : <Lock size={16} aria-hidden="true" />}
      {held ? 'Let it go' : 'Hold it here'}
    </button>
  );
}
