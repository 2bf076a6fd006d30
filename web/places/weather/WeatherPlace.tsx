import { DateTime } from 'luxon';
import { Suspense, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { dewPointC, relativeHumidity } from '#core/air/dewPoint';
import { hourlyFromDays } from '#core/air/typedDays';
import { weatherGaps } from '#core/air/weather';
import type { TypedDayRow } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { save, type BoatView } from '../../data/store';
import { Choice, FormProblem, QuantityField, TextField } from '../../parts/Field';
import { dayWords, SIMULATED_WORDS, timeWords } from '../../parts/words';
import { part } from '../../parts/part';

const AirChart = part(() => import('./AirChart'), 'AirChart');
const AirFile = part(() => import('./AirFile'), 'AirFile');
const TypicalYearFile = part(() => import('./TypicalYearFile'), 'TypicalYearFile');
const DAYS = 7;

interface Draft {
  date: string;
  lowC: number | null;
  highC: number | null;
  moist: number | null;
  rainFrom: string;
  rainTo: string;
  windMs: number | null;
}

/** The air of the days around now, and a forecast typed in from wherever the painter trusts. */
export function WeatherPlace() {
  const view = useView();
  const { boat, hours, at } = view;
  return (
    <div className="min-w-0">
      <h1 className="text-2xl">Weather at {boat.place || 'the boat'}</h1>
      <p className="mb-2">
        {hours.some((h) => h.source === 'typed' && h.at > at)
          ? `${view.typedHours ? 'As in the file that was brought in' : 'As typed where typed'}; otherwise ${SIMULATED_WORDS}.`
          : `All of it ${SIMULATED_WORDS}. Type your own forecast below: windows then run on it.`}
      </p>
      {weatherGaps(hours).map((gap) => (
        <p key={gap.from} className="mb-2 border-l-4 border-warning bg-base-200 px-3 py-2">
          Nothing is known of the air from {timeWords(gap.from, at, boat.timeZone)} to{' '}
          {timeWords(gap.to, at, boat.timeZone)}: clocks are not worked out beyond that. Type the days between.
        </p>
      ))}
      <Suspense fallback={<div className="skeleton h-72 rounded-sm" role="status" aria-label="Loading the chart" />}>
        <AirChart hours={hours} at={at} zone={boat.timeZone} />
      </Suspense>
      <Files view={view} />
      <TypedForecast key={view.typedDays.map((d) => JSON.stringify(d)).join()} view={view} />
    </div>
  );
}

/** What can be brought in as a file: a forecast by the hour, a typical year for the time beyond it. */
function Files({ view }: { view: BoatView }) {
  const [open, setOpen] = useState<'forecast' | 'year' | null>(null);
  const opener = (which: 'forecast' | 'year', words: string) => (
    <button
      type="button"
      className="btn"
      aria-expanded={open === which}
      onClick={() => setOpen(open === which ? null : which)}
    >
      {words}
    </button>
  );
  return (
    <div className="mt-3">
      <div className="flex flex-wrap gap-3">
        {opener('forecast', 'Forecast from a file')}
        {opener('year', 'Typical year')}
      </div>
      <Suspense fallback={<p role="status">Loading …</p>}>
        {open === 'forecast' && <AirFile view={view} onTaken={() => setOpen(null)} />}
        {open === 'year' && <TypicalYearFile view={view} />}
      </Suspense>
    </div>
  );
}

/** The same dampness told the other way, at the day's mean temperature; empty where that is not known. */
function converted(day: Draft, to: 'rh' | 'dew'): number | null {
  if (day.lowC === null || day.highC === null || day.moist === null) return null;
  try {
    const airC = (day.lowC + day.highC) / 2;
    return to === 'dew' ? dewPointC({ airC, rh: day.moist }) : relativeHumidity({ airC, dewC: day.moist });
  } catch {
    return null;
  }
}

function TypedForecast({ view }: { view: BoatView }) {
  const form = useTypedForecast(view);

  return (
    <form
      className="mt-4"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void form.submit();
      }}
    >
      <MoistChoice form={form} />
      <ul className="sheet-rule">
        {form.days.map((d, i) => (
          <TypedDay d={d} i={i} form={form} key={d.date} />
        ))}
      </ul>
      <p className="my-2 text-sm quiet">
        Each day becomes its hours: the low about six, the high about three, the day’s dew point held through it. Days
        left empty keep what was there.
      </p>
      <FormProblem message={form.problem} />
      <button type="submit" className="btn btn-primary mt-2">
        Use this forecast
      </button>
    </form>
  );
}

function MoistChoice({ form }: { form: ReturnType<typeof useTypedForecast> }) {
  return (
    <div className="ruled flex flex-wrap items-end gap-4 pb-2">
      <h2 className="mr-auto">Type a forecast</h2>
      <Choice
        label="Dampness as"
        options={[
          ['rh', 'Humidity'],
          ['dew', 'Dew point'],
        ]}
        value={form.moistBy}
        onPick={(next) => {
          form.setMoistBy(next);
          form.setDays(form.days.map((d) => ({ ...d, moist: converted(d, next) })));
        }}
      />
    </div>
  );
}

function TypedDay({ d, i, form }: { d: Draft; i: number; form: ReturnType<typeof useTypedForecast> }) {
  return (
    <li className="grid grid-cols-3 items-start gap-3 py-2 lg:grid-cols-[8rem_repeat(6,minmax(0,1fr))]">
      <p className="narrow col-span-3 self-center text-lg lg:col-span-1">
        {i === 0 ? 'today' : dayWords(d.date, form.boat.timeZone)}
      </p>
      <QuantityField label="Low" quantity="temperature" value={d.lowC} onValue={(lowC) => form.set(i, { lowC })} />
      <QuantityField label="High" quantity="temperature" value={d.highC} onValue={(highC) => form.set(i, { highC })} />
      <QuantityField
        label={form.moistBy === 'rh' ? 'Humidity' : 'Dew point'}
        quantity={form.moistBy === 'rh' ? 'percent' : 'temperature'}
        value={d.moist}
        onValue={(moist) => form.set(i, { moist })}
      />
      <TextField
        label="Rain from, h"
        inputMode="numeric"
        value={d.rainFrom}
        onChange={(e) => form.set(i, { rainFrom: e.target.value })}
      />
      <TextField
        label="Rain to, h"
        inputMode="numeric"
        value={d.rainTo}
        onChange={(e) => form.set(i, { rainTo: e.target.value })}
      />
      <QuantityField label="Wind" quantity="windSpeed" value={d.windMs} onValue={(windMs) => form.set(i, { windMs })} />
    </li>
  );
}

/** Days as they are typed, what stands against them, and how they are sent. */
function useTypedForecast(view: BoatView) {
  const { boat, at, typedDays } = view;
  const today = DateTime.fromMillis(at, { zone: boat.timeZone }).startOf('day');
  const [moistBy, setMoistBy] = useState<'rh' | 'dew'>(typedDays.some((d) => d.dewC !== null) ? 'dew' : 'rh');
  const [days, setDays] = useState<Draft[]>(() =>
    Array.from({ length: DAYS }, (_, i) => {
      const date = today.plus({ days: i }).toISODate() as string;
      const old = typedDays.find((d) => d.date === date);
      return {
        date,
        lowC: old?.lowC ?? null,
        highC: old?.highC ?? null,
        moist: old ? (old.rh ?? old.dewC) : null,
        rainFrom: old?.rainFrom?.toString() ?? '',
        rainTo: old?.rainTo?.toString() ?? '',
        windMs: old?.windMs ?? null,
      };
    }),
  );
  const [problem, setProblem] = useState<string | null>(null);
  const set = (i: number, change: Partial<Draft>) => setDays(days.map((d, k) => (k === i ? { ...d, ...change } : d)));

  const submit = async () => {
    const rows: TypedDayRow[] = [];
    for (const d of days) {
      const name = dayWords(d.date, boat.timeZone);
      if (d.lowC === null && d.highC === null && d.moist === null) continue;
      if ([d.lowC, d.highC, d.moist].some((v) => v === null || Number.isNaN(v)) || Number.isNaN(d.windMs))
        return setProblem(
          `${name}: type low, high and ${moistBy === 'rh' ? 'humidity' : 'dew point'}, or leave the whole day empty.`,
        );
      const rain = [d.rainFrom, d.rainTo].map((t) => (t.trim() === '' ? null : Number(t)));
      if (rain.some((v) => v !== null && !(v >= 0 && v <= 24)) || (rain[0] === null) !== (rain[1] === null))
        return setProblem(`${name}: rain needs two hours of the day between 0 and 24, or none.`);
      if (rain[0] !== null && (rain[0] as number) >= (rain[1] as number))
        return setProblem(`${name}: rain ends before it starts. Swap the two hours.`);
      rows.push({
        date: d.date,
        lowC: d.lowC as number,
        highC: d.highC as number,
        rh: moistBy === 'rh' ? d.moist : null,
        dewC: moistBy === 'dew' ? d.moist : null,
        rainFrom: rain[0] ?? null,
        rainTo: rain[1] ?? null,
        windMs: d.windMs,
      });
    }
    try {
      for (const r of rows)
        hourlyFromDays([
          {
            startsAt: 0,
            endsAt: 86_400_000,
            lowC: r.lowC,
            highC: r.highC,
            ...(r.rh === null ? {} : { rh: r.rh }),
            ...(r.dewC === null ? {} : { dewC: r.dewC }),
          },
        ]);
    } catch (error) {
      return setProblem((error as Error).message);
    }
    setProblem(null);
    const outcome = await save(
      { kind: 'typedWeather', boatId: boat.id, issueId: uuid(), days: rows },
      rows.length === 0 ? 'Typed forecast cleared' : 'Forecast typed in',
      { inline: true },
    );
    if (!outcome.ok) setProblem(outcome.failure.message);
    return undefined;
  };
  return { submit, moistBy, setMoistBy, setDays, days, boat, set, problem };
}
