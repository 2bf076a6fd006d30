import { DateTime } from 'luxon';
import { useMemo, useState } from 'react';
import { v7 as uuid } from 'uuid';
import {
  AIR_FIELDS,
  AIR_UNITS,
  guessAirMapping,
  readAirTable,
  type AirField,
  type AirMapping,
  type AirUnit,
} from '#core/air/airTable';
import { dewPointC } from '#core/air/dewPoint';
import { counted } from '#core/units/format';
import { save, type BoatView } from '../../data/store';
import { FormProblem, SelectField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { momentWords } from '../../parts/words';
import { hasSlashes, hasZone, instantIn, type DateOrder } from './airTimes';

const MOST_BYTES = 2_000_000;
/** No forecast reaches further, and none is taken further back than a day. */
const AHEAD_MS = 45 * 86_400_000;
const BACK_MS = 86_400_000;

const FIELD_WORDS: Readonly<Record<AirField, string>> = {
  time: 'Time',
  air: 'Air temperature',
  rh: 'Humidity',
  dew: 'Dew point',
  wind: 'Wind',
  rain: 'Rain in the hour',
  sun: 'Sunshine',
  cloud: 'Cloud',
};

interface Sheet {
  readonly name: string;
  readonly headings: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** A forecast out of a file: which column tells what is seen, and changed, before it is taken. */
export function AirFile({ view, onTaken }: { view: BoatView; onTaken: () => void }) {
  const form = useAirFile(view, onTaken);
  const { sheet, read, times, zone } = form;
  return (
    <section aria-label="A forecast from a file" className="ruled py-2">
      <label className="flex flex-col gap-1">
        <span className="lab">
          Forecast by the hour, CSV: a time, the air, its humidity or dew point; wind, rain, sun
        </span>
        <input
          type="file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          className="file-input min-h-11"
          onChange={(e) => void form.open(e.target.files?.[0])}
        />
      </label>
      <FormProblem message={form.problem} />
      {sheet && read && (
        <>
          <Mapping sheet={sheet} mapping={form.mapping} onMapping={form.setMapping} />
          {times.length > 0 && !times.every(hasZone) && (
            <p className="py-1">Its times say no zone: they are read as on the clocks of {zone.replace(/_/g, ' ')}.</p>
          )}
          {times.some(hasSlashes) && (
            <SelectField
              label="Dates with slashes"
              options={[
                ['dayFirst', 'day first'],
                ['monthFirst', 'month first'],
              ]}
              value={form.order}
              onPick={form.setOrder}
            />
          )}
          <Found read={read} zone={zone} />
          <button
            type="button"
            className="btn btn-primary mt-2"
            disabled={read.problems.length > 0 || read.hours.length === 0}
            onClick={() => void form.take()}
          >
            Use {counted(read.hours.length, 'hour')}
          </button>
        </>
      )}
    </section>
  );
}

/** The file that was opened, how it is read, and how its hours are sent. */
function useAirFile({ boat, at }: BoatView, onTaken: () => void) {
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [mapping, setMapping] = useState<AirMapping>({});
  const [order, setOrder] = useState<DateOrder>('dayFirst');
  const [problem, setProblem] = useState<string | null>(null);
  const zone = boat.timeZone;
  const read = useMemo(
    () =>
      sheet &&
      readAirTable({
        rows: sheet.rows,
        mapping,
        now: at,
        instantOf: (text, before) => instantIn(text, { zone, order, before }),
      }),
    [sheet, mapping, at, zone, order],
  );
  const open = async (file: File | undefined) => {
    if (!file) return;
    const found = await readSheet(file);
    if (typeof found === 'string') return setProblem(found);
    setProblem(null);
    setSheet(found);
    setMapping(guessAirMapping(found.headings));
  };
  const take = async () => {
    const hours = (read?.hours ?? []).filter((h) => h.at > at - BACK_MS && h.at < at + AHEAD_MS);
    const outcome = await save(
      { kind: 'typedWeather', boatId: boat.id, issueId: uuid(), days: [], hours },
      'Forecast brought in',
      { inline: true },
    );
    if (outcome.ok) onTaken();
    else setProblem(outcome.failure.message);
  };
  const times = sheet && mapping.time ? sheet.rows.map((r) => r[mapping.time?.column ?? 0] ?? '') : [];
  return { sheet, mapping, setMapping, order, setOrder, problem, zone, read, times, open, take };
}

async function readSheet(file: File): Promise<Sheet | string> {
  if (file.size > MOST_BYTES)
    return `The file has ${Math.round(file.size / 1e6)} MB; a forecast of six weeks has far less than two. Choose the right one.`;
  const text = await file.text();
  if (text.includes('\u0000')) return 'This is not a text file. Save the table as CSV and choose that.';
  const { default: Papa } = await import('papaparse');
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const [headings, ...rows] = data;
  if (!headings || headings.length < 3 || rows.length === 0)
    return 'There is no table in this file: it needs a row of headings, and at least time, air and humidity below.';
  return { name: file.name, headings, rows };
}

function Mapping({
  sheet,
  mapping,
  onMapping,
}: {
  sheet: Sheet;
  mapping: AirMapping;
  onMapping: (mapping: AirMapping) => void;
}) {
  const put = (field: AirField, column: number, unit: AirUnit) => {
    const { [field]: _old, ...rest } = mapping;
    onMapping(column < 0 ? rest : { ...rest, [field]: { column, unit } });
  };
  return (
    <div className="grid gap-x-6 gap-y-1 py-2 sm:grid-cols-2 lg:grid-cols-4">
      {AIR_FIELDS.map((field) => {
        const units: readonly AirUnit[] = AIR_UNITS[field];
        const map = mapping[field];
        return (
          <div
            key={field}
            className={`grid items-end gap-2 ${units.length > 1 && map ? 'grid-cols-[minmax(0,1fr)_6.5rem]' : ''}`}
          >
            <SelectField
              label={FIELD_WORDS[field]}
              options={[
                ['-1', 'not in it'],
                ...sheet.headings.map((h, i) => [String(i), h.trim() || `column ${i + 1}`] as const),
              ]}
              value={String(map?.column ?? -1)}
              onPick={(c) => put(field, Number(c), map?.unit ?? (units[0] as AirUnit))}
            />
            {units.length > 1 && map && (
              <select
                className="select w-full"
                aria-label={`Unit of ${FIELD_WORDS[field].toLowerCase()}`}
                value={map.unit}
                onChange={(e) => put(field, map.column, e.target.value as AirUnit)}
              >
                {units.map((u) => (
                  <option key={u}>{u}</option>
                ))}
              </select>
            )}
          </div>
        );
      })}
    </div>
  );
}

function Found({ read, zone }: { read: ReturnType<typeof readAirTable>; zone: string }) {
  const { hours, problems, notes } = read;
  const last = hours[hours.length - 1];
  return (
    <>
      {problems.length > 0 && (
        <ul role="alert" className="border-l-4 border-error pl-3">
          {problems.map((p) => (
            <li key={p}>{p}</li>
          ))}
        </ul>
      )}
      {notes.map((n) => (
        <p key={n} className="border-l-4 border-warning pl-3">
          {n}
        </p>
      ))}
      {hours.length > 0 && (
        <table className="mt-2 text-sm" aria-label="The first hours as they are read">
          <thead>
            <tr className="lab text-left">
              <th className="pr-4">time</th>
              <th className="pr-4">air</th>
              <th className="pr-4">humidity</th>
              <th className="pr-4">dew point</th>
              <th className="pr-4">wind</th>
              <th>rain</th>
            </tr>
          </thead>
          <tbody>
            {hours.slice(0, 5).map((h) => (
              <tr key={h.at} className="fig">
                <td className="pr-4">{momentWords(h.at, zone)}</td>
                <td className="pr-4">
                  <Fig quantity="temperature" value={h.airC} />
                </td>
                <td className="pr-4">{Math.round(h.rh * 100)} %</td>
                <td className="pr-4">
                  <Fig quantity="temperature" value={dewPointC(h)} />
                </td>
                <td className="pr-4">{h.windMs === undefined ? '–' : <Fig quantity="windSpeed" value={h.windMs} />}</td>
                <td>{h.rainMm === undefined ? '–' : `${h.rainMm} mm`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {last && (
        <p className="quiet text-sm">
          To {DateTime.fromMillis(last.at, { zone }).toFormat('cccc d LLLL HH:mm')}; beyond that the stand-in goes on.
        </p>
      )}
    </>
  );
}
