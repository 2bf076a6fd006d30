import { DateTime } from 'luxon';
import { useState } from 'react';
import type { PlannedTask } from '#core/plan/problem';
import type { PlanAnswer } from '../../workers/plan';
import type { ChartRow } from './chartRows';
import { HoldButton, TaskPanel } from './TaskPanel';
import type { BoatPlan } from './usePlan';

/** On a phone one zone at a time, time downwards: the film grows to the right as the days go down. */
export function PhonePlan({
  plan,
  answer,
  rows,
  selected,
  onSelect,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  rows: readonly ChartRow[];
  selected: string | null;
  onSelect: (task: string | null) => void;
}) {
  const { view } = plan;
  const [zone, setZone] = useState(rows[0]?.zoneId ?? '');
  const row = rows.find((r) => r.zoneId === zone) ?? rows[0];
  if (!row) return null;
  const days = new Map<string, ChartRow['tasks'][number][]>();
  for (const task of row.tasks) {
    const day = DateTime.fromMillis(task.start, { zone: view.boat.timeZone }).toFormat('cccc d LLL');
    days.set(day, [...(days.get(day) ?? []), task]);
  }
  return (
    <div className="min-w-0">
      <nav aria-label="Zones" className="-mx-3 flex gap-x-4 overflow-x-auto px-3 whitespace-nowrap">
        {rows.map((r) => (
          <button
            key={r.zoneId}
            type="button"
            aria-pressed={r.zoneId === row.zoneId}
            className={`narrow link-row text-lg ${r.zoneId === row.zoneId ? 'font-semibold underline decoration-2 underline-offset-8' : ''}`}
            onClick={() => setZone(r.zoneId)}
          >
            {r.name}
          </button>
        ))}
      </nav>
      {row.tasks.length === 0 && <p className="py-3">Nothing of this zone fits into the plan.</p>}
      {[...days].map(([day, tasks]) => (
        <section key={day} aria-label={day} className="border-l-2 border-base-content pl-3">
          <h2 className="narrow pt-2 text-lg">{day}</h2>
          {tasks.map((task) => (
            <PhoneStep
              key={task.id}
              plan={plan}
              answer={answer}
              row={row}
              task={task}
              open={selected === task.id}
              onSelect={onSelect}
            />
          ))}
        </section>
      ))}
    </div>
  );
}

/** A step of the day: a coat with the film up to it, or work; opened by a tap. */
function PhoneStep({
  plan,
  answer,
  row,
  task,
  open,
  onSelect,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  row: ChartRow;
  task: PlannedTask;
  open: boolean;
  onSelect: (task: string | null) => void;
}) {
  const { names, view, locked } = plan;
  const upTo = row.coats.findIndex((c) => c.step.task === task.id);
  const coat = row.coats[upTo];
  const micron = row.baseMicron + row.coats.slice(0, upTo + 1).reduce((sum, c) => sum + c.micron, 0);
  return (
    <div>
      <button
        type="button"
        aria-expanded={open}
        className="grid min-h-12 w-full grid-cols-[5.5rem_minmax(0,1fr)] items-center gap-x-2 text-left"
        onClick={() => onSelect(open ? null : task.id)}
      >
        <span className="fig">{DateTime.fromMillis(task.start, { zone: view.boat.timeZone }).toFormat('HH:mm')}</span>
        <span className="min-w-0">
          {coat && (
            <span
              className="block h-3 border border-base-content"
              style={{ width: `${Math.round((micron / row.fullMicron) * 100)}%`, background: coat.hex }}
              aria-hidden="true"
            />
          )}
          <span className="block truncate">
            {names.of(task.id)}
            {locked.has(task.id) ? ' (held)' : ''}, {task.painters.join(' and ')}
          </span>
        </span>
      </button>
      {open && (
        <TaskPanel plan={plan} answer={answer} task={task}>
          <HoldButton plan={plan} task={task} />
        </TaskPanel>
      )}
    </div>
  );
}
