import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { JobPlan, JobShelter } from '#core/model/jobPlan';
import { SHELTERS, type Shelter } from '#core/model/surface';
import type { BoatView } from '../../data/store';
import { SHELTER_WORDS } from '../../parts/choiceWords';
import { dateWords } from '../../parts/words';
import { useDays } from './useDays';

/** A part of what a haul-out is planned by, and how it is changed. */
export interface Part {
  view: BoatView;
  planning: JobPlan;
  change: (more: Partial<JobPlan>, label: string) => void;
}

/** Tents, covers and sheds for some days, heated and dried. */
export function Shelters({ view, planning, change }: Part) {
  const days = useDays(view);
  const [cover, setCover] = useState<Shelter>('tent');
  const [heat, setHeat] = useState('');
  const [dry, setDry] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const add = () => {
    const heatedToC = heat.trim() === '' ? null : Number(heat.replace(',', '.'));
    const driedToRh = dry.trim() === '' ? null : Number(dry.replace(',', '.')) / 100;
    const wrong =
      days.problem ??
      (heatedToC !== null && !(heatedToC > -20 && heatedToC <= 40)
        ? 'A heater is set to between −20 and 40 °C.'
        : null) ??
      (driedToRh !== null && !(driedToRh >= 0.1 && driedToRh <= 1) ? 'A dryer is set to between 10 and 100 %.' : null);
    setProblem(wrong);
    if (wrong) return;
    const shelter: JobShelter = {
      id: uuid(),
      zoneIds: [],
      from: days.from(),
      to: days.to(),
      cover,
      heatedToC,
      driedToRh,
    };
    if (planning.shelters.some((s) => s.from < shelter.to && shelter.from < s.to))
      return setProblem('Another shelter stands over her in that time. Take it off, or choose other days.');
    change({ shelters: [...planning.shelters, shelter] }, 'Shelter added');
  };
  return (
    <section aria-labelledby="by-shelter" className="ruled py-2">
      <h2 id="by-shelter">Shelter for a while</h2>
      <Standing view={view} planning={planning} change={change} />
      <div className="flex flex-wrap items-center gap-2">
        <select
          className="select select-sm wide-field"
          aria-label="Kind of shelter"
          value={cover}
          onChange={(e) => setCover(e.target.value as Shelter)}
        >
          {SHELTERS.filter((s) => s !== 'open').map((s) => (
            <option key={s} value={s}>
              {SHELTER_WORDS[s]}
            </option>
          ))}
        </select>
        {days.fields}
        <label className="flex items-center gap-1">
          heated to °C{' '}
          <input
            className="input input-sm narrow-field"
            inputMode="decimal"
            value={heat}
            onChange={(e) => setHeat(e.target.value)}
          />
        </label>
        <label className="flex items-center gap-1">
          dried to %{' '}
          <input
            className="input input-sm narrow-field"
            inputMode="decimal"
            value={dry}
            onChange={(e) => setDry(e.target.value)}
          />
        </label>
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

/** Those that are set up, each to be taken off. */
function Standing({ view, planning, change }: Part) {
  const zone = view.boat.timeZone;
  return (
    <ul>
      {planning.shelters.map((s) => (
        <li key={s.id} className="flex flex-wrap items-center gap-3">
          {SHELTER_WORDS[s.cover]} {dateWords(s.from, zone)} to {dateWords(s.to, zone)}
          {s.heatedToC !== null && `, heated to ${s.heatedToC} °C`}
          {s.driedToRh !== null && `, dried to ${Math.round(s.driedToRh * 100)} %`}
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => change({ shelters: planning.shelters.filter((x) => x.id !== s.id) }, 'Shelter taken off')}
          >
            Take off
          </button>
        </li>
      ))}
    </ul>
  );
}
