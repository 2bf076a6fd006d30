import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { USUAL_HEAT } from '#core/air/shelter';
import type { JobPlan, JobShelter } from '#core/model/jobPlan';
import { SHELTERS, type Shelter } from '#core/model/surface';
import type { YardRules } from '#contracts/rows/stores';
import { formatQuantity } from '#core/units/format';
import { heatOf, shedSpans } from '../../data/planning';
import { settings } from '../../data/settings';
import { save, useStores, useYard, type BoatView } from '../../data/store';
import { QuantityField } from '../../parts/Field';
import { SHELTER_WORDS } from '../../parts/choiceWords';
import { dateWords, moneyWords } from '../../parts/words';
import { useDays } from './useDays';
import { ZonesOf } from './ZonesOf';

/** A part of what a haul-out is planned by, and how it is changed. */
export interface Part {
  view: BoatView;
  planning: JobPlan;
  change: (more: Partial<JobPlan>, label: string) => void;
}

/** Tents, covers and sheds for some days, over her or over some zones, heated and dried. */
export function Shelters({ view, planning, change }: Part) {
  const { stores } = useStores();
  return (
    <section aria-labelledby="by-shelter" className="ruled py-2">
      <h2 id="by-shelter">Shelter for a while</h2>
      {stores && <Standing view={view} planning={planning} change={change} rules={stores.rules} />}
      <NewShelter view={view} planning={planning} change={change} />
      {stores && planning.shelters.some((s) => s.heatedToC !== null) && <Heat rules={stores.rules} />}
    </section>
  );
}

/** Those that are set up, each to be taken off. */
function Standing({ view, planning, change, rules }: Part & { rules: YardRules }) {
  const zone = view.boat.timeZone;
  return (
    <ul>
      {planning.shelters.map((s) => {
        const heat = heatOf(view, [s], rules);
        return (
          <li key={s.id} className="flex flex-wrap items-center gap-3">
            <span>
              {SHELTER_WORDS[s.cover]} over {s.zoneIds.length === 0 ? 'her' : s.zoneIds.map(view.zoneName).join(', ')},{' '}
              {dateWords(s.from, zone)} to {dateWords(s.to, zone)}
              {s.heatedToC !== null && `, heated to ${degrees(s.heatedToC)}`}
              {s.driedToRh !== null && `, dried to ${Math.round(s.driedToRh * 100)} %`}
              {heat.kWh > 0 &&
                `: about ${degreeHours(heat.degreeHours)} to come, ${Math.round(heat.kWh)} kWh, ${moneyWords(heat.costMinor, rules.currency)}`}
            </span>
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => change({ shelters: planning.shelters.filter((x) => x.id !== s.id) }, 'Shelter taken off')}
            >
              Take off
            </button>
          </li>
        );
      })}
    </ul>
  );
}

const degrees = (tempC: number) => formatQuantity('temperature', tempC, settings().units, 0);

/** Degrees over hours, in the degrees of the device. */
const degreeHours = (value: number) =>
  settings().units.system === 'us' ? `${Math.round(value * 1.8)} °F·h` : `${Math.round(value)} °C·h`;

const number = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')));

function shelterProblem(planning: JobPlan, { from, to, zoneIds, cover, heatedToC, driedToRh }: JobShelter) {
  if (heatedToC !== null && !(heatedToC > -20 && heatedToC <= 40))
    return `A heater is set to between ${degrees(-20)} and ${degrees(40)}.`;
  if (driedToRh !== null && !(driedToRh >= 0.1 && driedToRh <= 1)) return 'A dryer is set to between 10 and 100 %.';
  if (cover === 'cover' && (heatedToC !== null || driedToRh !== null))
    return 'Under a cover the air comes and goes: neither heat nor dryness stays. Choose a tent or a building.';
  const over = (s: JobShelter) =>
    s.zoneIds.length === 0 || zoneIds.length === 0 || s.zoneIds.some((z) => zoneIds.includes(z));
  return planning.shelters.some((s) => s.from < to && from < s.to && over(s))
    ? 'Another shelter stands there in that time. Take it off, or choose other days or zones.'
    : null;
}

function NewShelter({ view, planning, change }: Part) {
  const days = useDays(view);
  const [cover, setCover] = useState<Shelter>('tent');
  const [zoneIds, setZoneIds] = useState<readonly string[]>([]);
  const [heatedToC, setHeat] = useState<number | null>(null);
  const [driedToRh, setDry] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { data: yard } = useYard();
  const others = (yard?.boats ?? []).filter((b) => b.boat.id !== view.boat.id);
  const taken = shedSpans(others.map(({ boat, job }) => ({ boat, jobs: job ? [job] : [] }))).filter(
    (s) => s.from < days.to() && days.from() < s.to,
  );
  const add = () => {
    const shelter: JobShelter = {
      id: uuid(),
      zoneIds,
      from: days.from(),
      to: days.to(),
      cover,
      heatedToC,
      driedToRh,
    };
    const wrong = days.problem ?? shelterProblem(planning, shelter);
    setProblem(wrong);
    if (!wrong) change({ shelters: [...planning.shelters, shelter] }, 'Shelter added');
  };
  return (
    <>
      <div className="flex flex-wrap items-end gap-2">
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
        <ZonesOf view={view} label="Over" zoneIds={zoneIds} onZones={setZoneIds} />
        {days.fields}
        <div className="w-32">
          <QuantityField label="Heated to" quantity="temperature" value={heatedToC} onValue={setHeat} />
        </div>
        <div className="w-32">
          <QuantityField label="Dried to" quantity="percent" value={driedToRh} onValue={setDry} />
        </div>
        <button type="button" className="btn btn-sm" onClick={add}>
          Add
        </button>
      </div>
      {cover === 'building' && taken.length > 0 && (
        <p className="border-l-4 border-warning pl-3">
          {[...new Set(taken.map((s) => s.boat))].join(', ')} {taken.length > 1 ? 'have' : 'has'} the shed in that time.
        </p>
      )}
      {problem && (
        <p role="alert" className="text-error">
          {problem}
        </p>
      )}
    </>
  );
}

/** What a heated shelter loses for each degree, and what heat costs: what its price rests on. */
function Heat({ rules }: { rules: YardRules }) {
  const heat = rules.heat ?? USUAL_HEAT;
  const put = (more: Partial<{ wattsPerC: number; priceMinorPerKWh: number }>) =>
    void save({ kind: 'rules', row: { ...rules, heat: { ...heat, ...more } } }, 'Heat');
  const field = (label: string, value: number, take: (value: number) => void, least: number) => (
    <label className="flex items-center gap-1">
      {label}{' '}
      <input
        key={value}
        className="input input-sm narrow-field"
        inputMode="decimal"
        defaultValue={value}
        onBlur={(e) => {
          const typed = number(e.target.value);
          if (typed !== null && typed >= least && typed !== value) take(typed);
        }}
      />
    </label>
  );
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pt-1">
      {field('it loses, W for each °C', heat.wattsPerC, (wattsPerC) => put({ wattsPerC }), 1)}
      {field(
        `a kWh costs, ${rules.currency}`,
        heat.priceMinorPerKWh / 100,
        (price) => put({ priceMinorPerKWh: price * 100 }),
        0,
      )}
      <span className="quiet text-sm">
        Heaters want air from outside and somebody near: follow their maker and local rules on fumes and fire.
      </span>
    </div>
  );
}
