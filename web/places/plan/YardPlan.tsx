import { DateTime } from 'luxon';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { LaunchOdds } from '#core/plan/odds';
import { counted } from '#core/units/format';
import { handsAtWork, handsOf, launchAt, outAt, planDays, shedSpans, standing } from '../../data/planning';
import { useBoats, useStores, useYard, type BoatView } from '../../data/store';
import { useZonePlace } from '../../data/useZonePlace';
import { dateWords, timeWords } from '../../parts/words';
import type { PlanAnswer, PlanRequest } from '../../workers/plan';
import { namesOf, type PlanNames } from './planWords';
import { useSteady } from './planRequest';
import { YardChart } from './YardChart';
import { usePlanWorker, type Planning } from './usePlanWorker';

const DAY_MS = 86_400_000;
const MEMBERS = 40;

/** One plan over all boats: they share painters and days. Each with her date, her odds, and what comes next by whom. */
export function YardPlan() {
  const { data: yard } = useYard();
  const ids = useMemo(() => (yard?.boats ?? []).map((b) => b.boat.id), [yard]);
  const views = useBoats(ids);
  const plan = useYardPlan(views.length === ids.length ? views : []);
  if (!yard || (ids.length > 0 && !plan.answer && !plan.problem))
    return (
      <p role="status" className="p-5">
        Planning the yard …
      </p>
    );
  return (
    <div className="mx-auto w-full max-w-5xl min-w-0 px-3 py-3 sm:px-5">
      <h1 className="ruled text-2xl">Plan of the yard</h1>
      {ids.length === 0 && <p className="py-3">There is no boat to plan. Take one in, and her plan is part of this.</p>}
      {plan.problem && (
        <p role="alert" className="border-l-4 border-error pl-3">
          {plan.problem}
        </p>
      )}
      {plan.answer && <YardChart views={views} answer={plan.answer} weather={plan.weather[0]} />}
      {plan.answer && (
        <p className="quiet text-sm">A step up for each coat on any of her zones. Green: ready. Dashed: her launch.</p>
      )}
      <Sheds views={views} />
      {plan.answer && <Boats views={views} plan={plan} answer={plan.answer} />}
      {plan.answer && <Hands views={views} answer={plan.answer} />}
    </div>
  );
}

function useYardPlan(views: readonly BoatView[]): Planning {
  const { stores } = useStores();
  const first = views[0];
  const place = useZonePlace(first?.boat.timeZone ?? 'Etc/UTC');
  const rules = stores?.rules ?? null;
  const request = useMemo((): PlanRequest | null => {
    if (!rules || !first || place.isPending) return null;
    const now = first.at;
    const dates = views
      .map((v) => launchAt(v.jobs[v.jobs.length - 1]?.inOn, v.boat.timeZone))
      .filter((d) => d !== null);
    const outs = views.map(outAt).filter((d) => d !== null);
    const days = planDays(
      dates.length > 0 ? Math.max(...dates) : null,
      now,
      outs.length > 0 ? Math.max(...outs) : null,
    );
    return {
      now,
      days,
      boats: views.map((v) => standing(v, place.data?.longitudeDeg ?? 0)),
      hands: handsAtWork(handsOf(rules), { now, days, timeZone: first.boat.timeZone }),
      rates: rules.rates,
      dryFactors: first.dryFactors ?? {},
      accepted: null,
    };
  }, [rules, first, views, place.isPending, place.data]);
  return usePlanWorker(useSteady(request));
}

function Boats({ views, plan, answer }: { views: readonly BoatView[]; plan: Planning; answer: PlanAnswer }) {
  const [share, setShare] = useState<number | null>(null);
  const [odds, setOdds] = useState<LaunchOdds | null>(null);
  const ask = async () => {
    setShare(0);
    plan.stop();
    const found = await plan.odds(MEMBERS, setShare);
    setShare(null);
    setOdds(found);
  };
  return (
    <section aria-label="Boats" className="py-2">
      <p className="flex flex-wrap items-center gap-3">
        {plan.busy ? 'Looking for a better one …' : 'All boats in one plan, with the yard’s own painters.'}
        <button type="button" className="btn btn-sm" disabled={share !== null} onClick={() => void ask()}>
          {share === null ? 'Odds of each' : `Odds: ${Math.round(share * 100)} %`}
        </button>
      </p>
      <ul>
        {views.map((view) => (
          <li key={view.boat.id} className="ruled flex flex-wrap items-baseline gap-x-4 py-2">
            <Link
              className="link-row min-w-44 text-lg font-semibold underline underline-offset-4 lg:min-h-0"
              to={`/boats/${view.boat.id}/plan`}
            >
              {view.boat.name}
            </Link>
            <span>{boatWords(view, answer)}</span>
            {odds && <span className="ml-auto">{oddsWords(view, odds)}</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Who has the shed when; two at once are named. */
function Sheds({ views }: { views: readonly BoatView[] }) {
  const spans = shedSpans(views);
  if (spans.length === 0) return null;
  const zone = views[0]?.boat.timeZone ?? 'Etc/UTC';
  return (
    <section aria-label="The shed" className="py-1">
      <ul>
        {spans.map((s) => (
          <li key={s.id}>
            {s.boat} has the shed from {dateWords(s.from, zone)} to {dateWords(s.to, zone)}
            {s.with.length > 0 && (
              <strong className="text-error">
                {' '}
                together with {s.with.join(', ')}: if it holds one, move one of them
              </strong>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function boatWords(view: BoatView, answer: PlanAnswer): string {
  if (!answer.boats.some((b) => b.id === view.boat.id)) return 'nothing left to plan';
  const launch = launchAt(view.jobs[view.jobs.length - 1]?.inOn, view.boat.timeZone);
  const ready = answer.ready[view.boat.id] ?? null;
  if (ready === null) return `not ready within ${Math.round((answer.until - answer.now) / DAY_MS)} days`;
  const when = `ready ${timeWords(ready, answer.now, view.boat.timeZone)}`;
  if (launch === null) return `${when}, no date`;
  const days = Math.floor(Math.abs(launch - ready) / DAY_MS);
  return ready <= launch
    ? `${when}, ${counted(days, 'day')} of room`
    : `${when}, ${counted(Math.max(1, days), 'day')} too late`;
}

function oddsWords(view: BoatView, odds: LaunchOdds): string {
  const own = odds.boats.find((b) => b.id === view.boat.id);
  return own ? `makes her date in ${Math.round(own.share * 10)} of 10` : '';
}

/** What each painter does in the next two days, over all boats. */
function Hands({ views, answer }: { views: readonly BoatView[]; answer: PlanAnswer }) {
  const soon = answer.plan.tasks.filter((t) => t.start < answer.now + 2 * DAY_MS);
  const painters = [...new Set(soon.flatMap((t) => t.painters))];
  const zone = views[0]?.boat.timeZone ?? 'Etc/UTC';
  const boatOf = new Map(views.flatMap((v) => v.surfaces.map((s) => [s.id, v] as const)));
  const names = new Map(views.map((v): [string, PlanNames] => [v.boat.id, yardNames(v, answer)]));
  return (
    <section aria-label="The next two days" className="py-2">
      <h2>The next two days</h2>
      <div className="grid gap-x-8 sm:grid-cols-2">
        {painters.map((painter) => (
          <div key={painter}>
            <h3 className="narrow pt-2 text-lg">{painter}</h3>
            <ul>
              {soon
                .filter((t) => t.painters.includes(painter))
                .map((t) => {
                  const view = boatOf.get(t.zone);
                  const said = view ? names.get(view.boat.id) : undefined;
                  return (
                    <li key={t.id} className="grid grid-cols-[7.5rem_minmax(0,1fr)] gap-x-2">
                      <span className="fig">
                        {DateTime.fromMillis(t.start, { zone }).toFormat('ccc HH:mm')}–
                        {DateTime.fromMillis(t.end, { zone }).toFormat('HH:mm')}
                      </span>
                      <span>
                        {view?.boat.name}, {said?.zone(t.zone)}: {said?.of(t.id)}
                      </span>
                    </li>
                  );
                })}
            </ul>
          </div>
        ))}
      </div>
    </section>
  );
}

const yardNames = (view: BoatView, answer: PlanAnswer): PlanNames =>
  namesOf(answer, {
    sheetById: view.sheetById,
    zoneName: view.zoneName,
    boat: () => view.boat.name,
    appointment: () => 'the appointment',
  });
