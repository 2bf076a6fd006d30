import { DateTime } from 'luxon';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { earlyStart } from '#core/air/earlyStart';
import { PAINT_METHODS, type PaintMethod } from '#core/model/paintMethod';
import { useView } from '../../app/BoatShell';
import { useSettings } from '../../data/settings';
import { handsOf } from '../../data/planning';
import { Fig } from '../../parts/Fig';
import { SelectField } from '../../parts/Field';
import { breakWords, METHOD_WORDS, SIMULATED_WORDS } from '../../parts/words';
import type { OtherCoat, PlanWeather, ZoneHours } from '../../workers/plan';
import { FitChart, rowKey, rowName } from './FitChart';
import { usePlan, type BoatPlan } from './usePlan';

const DAY_MS = 86_400_000;
const DAYS = 3;

/** Which side is fit in which hours: for each zone when a coat may be begun and stays safe until it is touch dry. */
export function FitHours() {
  const view = useView();
  const plan = usePlan(view);
  const [day, setDay] = useState(0);
  const [sheetId, setSheetId] = useState('');
  const [method, setMethod] = useState<PaintMethod>('roller');
  const [picked, setPicked] = useState<string | null>(null);
  const zone = view.boat.timeZone;
  const from = useMemo(
    () => DateTime.fromMillis(view.at, { zone }).startOf('day').plus({ days: day }).toMillis(),
    [view.at, zone, day],
  );
  const other = useMemo((): OtherCoat | null => {
    const sheet = view.sheetById.get(sheetId)?.body;
    return sheet ? { limits: sheet.limits, method, touchDry: sheet.touchDry, minCureC: sheet.minCureC } : null;
  }, [view.sheetById, sheetId, method]);
  const rows = useFit(plan, Math.max(from, plan.answer?.now ?? from), from + DAYS * DAY_MS, other);
  const own = rows?.find((r) => rowKey(r) === picked) ?? rows?.[0];
  return (
    <div className="min-w-0">
      <div className="ruled flex flex-wrap items-baseline gap-3">
        <h1 className="text-2xl">Hours fit to paint</h1>
        <Link className="link-row underline underline-offset-4 lg:min-h-0" to={`/boats/${view.boat.id}/plan`}>
          Back to the plan
        </Link>
      </div>
      <Asked
        plan={plan}
        day={day}
        onDay={setDay}
        sheetId={sheetId}
        onSheet={setSheetId}
        method={method}
        onMethod={setMethod}
      />
      {plan.problem && (
        <p role="alert" className="border-l-4 border-error pl-3">
          {plan.problem}
        </p>
      )}
      {!rows && !plan.problem && <p role="status">Working out …</p>}
      {rows?.length === 0 && <p className="py-3">No zone has a coat to come: plan one under Film first.</p>}
      {rows && own && (
        <>
          <FitChart
            plan={plan}
            rows={rows}
            seen={{ from, to: from + DAYS * DAY_MS }}
            picked={rowKey(own)}
            onPick={setPicked}
          />
          <FitWords plan={plan} row={own} other={other !== null} />
        </>
      )}
      {plan.planning.headingDeg === null && (
        <p className="quiet text-sm">
          Nobody has said which way her bow points: both sides are alike until{' '}
          <Link className="underline underline-offset-4" to={`/boats/${view.boat.id}/plan/by`}>
            it is said
          </Link>
          .
        </p>
      )}
      <p className="quiet text-sm">
        {view.hours.some((h) => h.at > view.at && h.source === 'simulated') && `The air ahead is ${SIMULATED_WORDS}. `}
        Read the surface at the hull before each coat.
      </p>
    </div>
  );
}

/** Asked anew when the plan's weather, the days or the coat are others. */
function useFit(plan: BoatPlan, from: number, to: number, other: OtherCoat | null): readonly ZoneHours[] | null {
  const { fit, weather } = plan;
  const [rows, setRows] = useState<readonly ZoneHours[] | null>(null);
  useEffect(() => {
    if (weather.length === 0) return;
    let current = true;
    void fit(from, to, other).then((found) => current && setRows(found));
    return () => {
      current = false;
    };
  }, [fit, weather, from, to, other]);
  return rows;
}

function Asked({
  plan,
  day,
  onDay,
  sheetId,
  onSheet,
  method,
  onMethod,
}: {
  plan: BoatPlan;
  day: number;
  onDay: (day: number) => void;
  sheetId: string;
  onSheet: (id: string) => void;
  method: PaintMethod;
  onMethod: (method: PaintMethod) => void;
}) {
  const sheets = [...plan.view.sheetById.values()].sort((a, b) => a.body.name.localeCompare(b.body.name));
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-1 py-1">
      <SelectField
        label="Coat"
        options={[['', 'the next one of each zone'], ...sheets.map((s) => [s.id, s.body.name] as const)]}
        value={sheetId}
        onPick={onSheet}
      />
      {sheetId !== '' && (
        <SelectField
          label="By"
          options={PAINT_METHODS.map((m) => [m, METHOD_WORDS[m]] as const)}
          value={method}
          onPick={onMethod}
        />
      )}
      <div className="flex gap-2 pb-1" role="group" aria-label="Days">
        <button type="button" className="btn btn-sm" disabled={day === 0} onClick={() => onDay(day - DAYS)}>
          Days before
        </button>
        <button type="button" className="btn btn-sm" disabled={day >= 12} onClick={() => onDay(day + DAYS)}>
          Days after
        </button>
      </div>
    </div>
  );
}

/** The spells of one zone in sentences: first start, last start, what limits each, and an early start where it pays. */
function FitWords({ plan, row, other }: { plan: BoatPlan; row: ZoneHours; other: boolean }) {
  const { view, names, boatWeather } = plan;
  const { units } = useSettings();
  const zone = view.boat.timeZone;
  const at = (t: number) => DateTime.fromMillis(t, { zone }).toFormat('HH:mm');
  return (
    <section aria-label="First and last start" className="max-w-prose py-2">
      <h2>
        {rowName(row, names)}
        {!other && `: ${names.of(row.task)}`}
      </h2>
      {row.spells.length === 0 && <p>In none of these hours can it be begun and stay safe until it is touch dry.</p>}
      <ul>
        {row.spells.map((spell) => {
          const early = plan.rules && earlyOf(spell, row, plan, boatWeather);
          const { openedBy, closedBy } = spell;
          return (
            <li key={spell.from} className="ruled py-1.5">
              <p>
                <strong>
                  {DateTime.fromMillis(spell.from, { zone }).toFormat('cccc d LLL')}: first start {at(spell.from)}, last
                  start{' '}
                  {sameDay(spell.from, spell.to, zone)
                    ? at(spell.to)
                    : DateTime.fromMillis(spell.to, { zone }).toFormat('ccc HH:mm')}
                  .
                </strong>
              </p>
              {openedBy && (
                <p>
                  Sooner: {breakWords(openedBy.break, units)} at {at(openedBy.at)}.
                </p>
              )}
              {closedBy && (
                <p>
                  Later: {breakWords(closedBy.break, units)} at {at(closedBy.at)}
                  {closedBy.beforeDryMin !== null && closedBy.beforeDryMin > 0
                    ? `, ${closedBy.beforeDryMin} min before touch dry`
                    : ''}
                  .
                </p>
              )}
              {early && (
                <p className="border-l-4 border-success pl-3">
                  Start at {at(early.at)} and it levels before it warms: the surface is at{' '}
                  <Fig quantity="temperature" value={early.surfaceC} /> then, and comes to{' '}
                  <Fig quantity="temperature" value={early.laterC} /> later in the morning.
                </p>
              )}
            </li>
          );
        })}
      </ul>
      <p className="quiet text-sm">
        A start outside these hours asks for a reason where the coat is begun, and the next day how it turned out.{' '}
        <Link className="underline underline-offset-4" to={`/boats/${view.boat.id}/coat/start?on=${row.zoneId}`}>
          Begin the coat
        </Link>
      </p>
    </section>
  );
}

const sameDay = (a: number, b: number, zone: string) =>
  DateTime.fromMillis(a, { zone }).hasSame(DateTime.fromMillis(b, { zone }), 'day');

/** An early start by daylight, against the hour at which the yard begins. */
function earlyOf(spell: ZoneHours['spells'][number], row: ZoneHours, plan: BoatPlan, weather: PlanWeather | undefined) {
  if (!plan.rules) return null;
  const zone = plan.view.boat.timeZone;
  const begin = Math.min(...handsOf(plan.rules).map((h) => h.fromMin));
  const midnight = DateTime.fromMillis(spell.from, { zone }).startOf('day');
  const usual = midnight.plus({ minutes: begin + 90 }).toMillis();
  const light = weather?.daylight.find((d) => d.to > midnight.toMillis() + DAY_MS / 2);
  const from = plan.planning.lamps ? spell.from : Math.max(spell.from, light?.from ?? spell.from);
  if (from > spell.to || usual > spell.to) return null;
  return earlyStart({ spell: { from, to: spell.to }, usual, surface: row.surface });
}
