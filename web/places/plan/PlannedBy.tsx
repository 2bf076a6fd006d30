import { DateTime } from 'luxon';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { NO_JOB_PLAN, type JobAppointment, type JobPlan } from '#core/model/jobPlan';
import { useView } from '../../app/BoatShell';
import { save } from '../../data/store';
import { Painters } from './Painters';
import { Shelters, type Part } from './Shelters';
import { useDays } from './useDays';
import { ZonesOf } from './ZonesOf';

/** What she is planned by: people's hours, her place in the yard, shelter, appointments, zones kept apart. */
export function PlannedBy() {
  const view = useView();
  const job = view.jobs[view.jobs.length - 1];
  const planning = job?.planning ?? NO_JOB_PLAN;
  const change = (more: Partial<JobPlan>, label: string) => {
    if (job) void save({ kind: 'job', row: { ...job, planning: { ...planning, ...more } } }, label);
  };
  return (
    <div className="max-w-4xl min-w-0">
      <div className="ruled flex flex-wrap items-baseline gap-3">
        <h1 className="text-2xl">Planned by</h1>
        <Link className="link-row underline underline-offset-4 lg:min-h-0" to={`/boats/${view.boat.id}/plan`}>
          Back to the plan
        </Link>
      </div>
      <Painters />
      <section aria-labelledby="by-yard" className="ruled py-2">
        <h2 id="by-yard">Her place in the yard</h2>
        <div className="flex flex-wrap items-center gap-x-6">
          <label className="link-row gap-2">
            <input
              type="checkbox"
              className="checkbox"
              checked={planning.lamps}
              onChange={(e) => change({ lamps: e.target.checked }, e.target.checked ? 'Lamps' : 'No lamps')}
            />
            Lamps: work goes on after dusk
          </label>
          <label className="link-row gap-2">
            Her bow points to
            <select
              className="select wide-field"
              value={planning.headingDeg === null ? '' : String(Math.round(planning.headingDeg / 45) * 45)}
              onChange={(e) =>
                change({ headingDeg: e.target.value === '' ? null : Number(e.target.value) }, 'Where her bow points')
              }
            >
              <option value="">not known: both sides alike</option>
              {['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'].map(
                (name, i) => (
                  <option key={name} value={i * 45}>
                    {name}
                  </option>
                ),
              )}
            </select>
          </label>
        </div>
      </section>
      <Shelters view={view} planning={planning} change={change} />
      <Appointments view={view} planning={planning} change={change} />
      <Apart view={view} planning={planning} change={change} />
    </div>
  );
}

function Appointments({ view, planning, change }: Part) {
  const days = useDays(view);
  const [name, setName] = useState('The yard moves her');
  const [kind, setKind] = useState<JobAppointment['kind']>('move');
  const [zoneIds, setZoneIds] = useState<readonly string[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const zone = view.boat.timeZone;
  const add = () => {
    const wrong = days.problem ?? (name.trim() === '' ? 'Name it, so that the plan can say it.' : null);
    setProblem(wrong);
    if (wrong) return;
    const appointment: JobAppointment = {
      id: uuid(),
      kind,
      name: name.trim(),
      from: days.from(),
      to: days.to(),
      zoneIds,
    };
    change({ appointments: [...planning.appointments, appointment] }, 'Appointment added');
  };
  return (
    <section aria-labelledby="by-appointments" className="ruled py-2">
      <h2 id="by-appointments">Appointments</h2>
      <p className="quiet">
        Nobody works there meanwhile. Where she is moved, coats below the waterline are hard enough for slings by then,
        or come afterwards; what lay under the stands is painted after it.
      </p>
      <ul>
        {planning.appointments.map((a) => (
          <li key={a.id} className="flex flex-wrap items-center gap-3">
            {a.name}
            {a.zoneIds.length > 0 && ` (${a.zoneIds.map(view.zoneName).join(', ')})`}:{' '}
            {DateTime.fromMillis(a.from, { zone }).toFormat('ccc d LLL HH:mm')} to{' '}
            {DateTime.fromMillis(a.to, { zone }).toFormat(a.to - a.from > 86_400_000 ? 'ccc d LLL HH:mm' : 'HH:mm')}
            <button
              type="button"
              className="btn btn-sm"
              onClick={() =>
                change({ appointments: planning.appointments.filter((x) => x.id !== a.id) }, 'Appointment taken off')
              }
            >
              Take off
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        <select
          className="select select-sm wide-field"
          aria-label="Kind of appointment"
          value={kind}
          onChange={(e) => setKind(e.target.value as JobAppointment['kind'])}
        >
          <option value="move">she is moved</option>
          <option value="other">something else</option>
        </select>
        <input
          className="input input-sm wide-field"
          aria-label="Name of the appointment"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <ZonesOf view={view} label="Takes up" zoneIds={zoneIds} onZones={setZoneIds} />
        {days.fields}
        <button type="button" className="btn btn-sm" onClick={add}>
          Add
        </button>
      </div>
      {problem && (
        <p role="alert" className="text-error">
          {problem}
        </p>
      )}
    </section>
  );
}

function Apart({ view, planning, change }: Part) {
  const [a, setA] = useState(view.surfaces[0]?.id ?? '');
  const [b, setB] = useState(view.surfaces[1]?.id ?? '');
  const name = (id: string) => view.surfaces.find((s) => s.id === id)?.name ?? 'a zone that is gone';
  const choose = (label: string, value: string, set: (id: string) => void) => (
    <select
      className="select select-sm wide-field"
      aria-label={label}
      value={value}
      onChange={(e) => set(e.target.value)}
    >
      {view.surfaces.map((s) => (
        <option key={s.id} value={s.id}>
          {s.name}
        </option>
      ))}
    </select>
  );
  if (view.surfaces.length < 2) return null;
  const same = a === b || planning.apart.some((p) => p.zones.includes(a) && p.zones.includes(b));
  return (
    <section aria-labelledby="by-apart" className="py-2">
      <h2 id="by-apart">Not worked together</h2>
      <ul>
        {planning.apart.map((p) => (
          <li key={p.zones.join()} className="flex flex-wrap items-center gap-3">
            {name(p.zones[0])} and {name(p.zones[1])}
            {p.untilDry ? ', until dry' : ''}
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => change({ apart: planning.apart.filter((x) => x !== p) }, 'May be worked together')}
            >
              Take off
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        {choose('One zone', a, setA)} and {choose('Other zone', b, setB)}
        <button
          type="button"
          className="btn btn-sm"
          disabled={same}
          onClick={() => change({ apart: [...planning.apart, { zones: [a, b], untilDry: true }] }, 'Kept apart')}
        >
          Keep apart
        </button>
      </div>
    </section>
  );
}
