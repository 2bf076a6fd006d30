import { useState } from 'react';
import { Link } from 'react-router';
import type { LaunchOdds } from '#core/plan/odds';
import { planChanges } from '#core/plan/planChanges';
import { planCost } from '#core/plan/planCost';
import { counted } from '#core/units/format';
import { dateWords, moneyWords, SIMULATED_WORDS, timeWords } from '../../parts/words';
import type { PlanAnswer } from '../../workers/plan';
import { PlanOut } from './PlanOut';
import { asAccepted, changeWords } from './planWords';
import type { BoatPlan } from './usePlan';
import { useWays, WaysOut } from './WaysOut';

const DAY_MS = 86_400_000;
const MEMBERS = 60;

/** What the plan comes to, in a sentence; what breaks; what has changed; the odds and the ways out. */
export function PlanSays({
  plan,
  answer,
  trial,
  onRehearse,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  trial: boolean;
  onRehearse: () => void;
}) {
  const { view, launchAt } = plan;
  const ready = answer.ready[view.boat.id] ?? null;
  const zone = view.boat.timeZone;
  const late = launchAt !== null && (ready === null || ready > launchAt);
  const room = launchAt !== null && ready !== null ? Math.floor((launchAt - ready) / DAY_MS) : null;
  const forced = answer.plan.score[3];
  return (
    <>
      <p className="narrow text-lg">
        {ready === null ? (
          <strong>Not ready within {Math.round((answer.until - answer.now) / DAY_MS)} days</strong>
        ) : (
          <>
            Ready for the water <strong>{timeWords(ready, answer.now, zone)}</strong>
          </>
        )}
        {launchAt !== null && ready !== null && (
          <>
            {', '}
            {late ? (
              <strong className="text-error">
                {counted(Math.max(1, Math.ceil((ready - launchAt) / DAY_MS)), 'day')} too late for{' '}
                {dateWords(launchAt, zone)}
              </strong>
            ) : (
              `${counted(room ?? 0, 'day')} of room`
            )}
          </>
        )}
        {forced > 0 && <>, {counted(forced, 'abrading')} more than need be</>}
        {plan.busy && !trial && <span className="quiet"> · looking for better</span>}
        {trial && <span className="quiet"> · tried by hand</span>}
      </p>
      <div className="basis-full">
        <Broken plan={plan} answer={answer} />
        <Standing
          plan={plan}
          answer={answer}
          onRehearse={onRehearse}
          late={late || answer.plan.violations.length > 0}
        />
        <Changed plan={plan} answer={answer} />
        {view.hours.some((h) => h.at > answer.now && h.source === 'simulated') && (
          <p className="quiet text-sm">The air ahead is {SIMULATED_WORDS}.</p>
        )}
      </div>
    </>
  );
}

function Broken({ plan, answer }: { plan: BoatPlan; answer: PlanAnswer }) {
  const { violations } = answer.plan;
  if (violations.length === 0) return null;
  const [first, ...rest] = violations;
  return (
    <div role="status" className="max-w-prose border-l-4 border-error py-1 pl-3">
      <p>{plan.names.say(first?.sentence ?? '')}</p>
      {rest.length > 0 && (
        <details>
          <summary className="link-row cursor-pointer lg:min-h-0">and {rest.length} more</summary>
          <ul>
            {rest.slice(0, 30).map((v) => (
              <li key={`${v.task}${v.limit}${v.sentence}`}>{plan.names.say(v.sentence)}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

/** Cost, odds and ways out, asked for when they are wanted. */
function Standing({
  plan,
  answer,
  late,
  onRehearse,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  late: boolean;
  onRehearse: () => void;
}) {
  const { view, rules } = plan;
  const [odds, setOdds] = useState<{ of: PlanAnswer; found: LaunchOdds } | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [open, setOpen] = useState(false);
  const asked = useWays(plan, answer);
  const job = view.jobs[view.jobs.length - 1];
  const cost = planCost({
    tasks: answer.plan.tasks,
    perHourMinor: Object.fromEntries((rules?.hands ?? []).map((h) => [h.name, h.perHourMinor ?? 0])),
    now: answer.now,
    readyAt: answer.ready[view.boat.id] ?? answer.until,
    yardPerDayMinor: job?.yardCostPerDayMinor ?? 0,
    heatMinor: 0,
  });
  const ask = async () => {
    setShare(0);
    plan.stop();
    const found = await plan.odds(MEMBERS, setShare);
    setShare(null);
    if (found) setOdds({ of: answer, found });
  };
  const current = odds?.of === answer ? odds.found : null;
  const currency = job?.currency ?? 'EUR';
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span>
          {Math.round(cost.hours)} h of work
          {cost.totalMinor > 0 && (
            <>
              , {moneyWords(cost.totalMinor, currency)} with {counted(cost.days, 'day')} on the hard
            </>
          )}
        </span>
        <button type="button" className="btn btn-sm" disabled={share !== null} onClick={() => void ask()}>
          {share === null ? 'Odds' : `Odds: ${Math.round(share * 100)} %`}
        </button>
        <button
          type="button"
          className={`btn btn-sm ${late ? 'btn-primary' : ''}`}
          aria-expanded={open}
          onClick={() => {
            if (!open) asked.ask();
            setOpen(!open);
          }}
        >
          Ways out
        </button>
        <button type="button" className="btn btn-sm" onClick={() => void plan.accept(current?.share ?? null)}>
          Accept this plan
        </button>
        <button type="button" className="btn btn-sm" onClick={onRehearse}>
          Rehearse
        </button>
        {plan.busy && (
          <button type="button" className="btn btn-sm" onClick={plan.stop}>
            Stop looking
          </button>
        )}
        <PlanLinks plan={plan} answer={answer} />
      </div>
      {current && <OddsWords plan={plan} odds={current} now={answer.now} />}
      {open && <WaysOut plan={plan} answer={answer} cost={cost} asked={asked} />}
    </>
  );
}

function PlanLinks({ plan, answer }: { plan: BoatPlan; answer: PlanAnswer }) {
  const { view } = plan;
  return (
    <>
      <Link to={`/boats/${view.boat.id}/plan/by`} className="link-row underline underline-offset-4 lg:min-h-0">
        Painters, shelter, appointments
      </Link>
      <Link to="/plan" className="link-row underline underline-offset-4 lg:min-h-0">
        All boats
      </Link>
      <PlanOut plan={plan} answer={answer} />
    </>
  );
}

function OddsWords({ plan, odds, now }: { plan: BoatPlan; odds: LaunchOdds; now: number }) {
  const { launchAt, view, names } = plan;
  const at = (t: number | null) => (t === null ? 'not in these days' : timeWords(t, now, view.boat.timeZone));
  const { early, likely, late } = odds.finish;
  return (
    <section aria-label="Odds" className="my-1 max-w-prose border-l-2 border-base-300 pl-3">
      <p>
        Lived through in {odds.members} weathers that the forecast allows, replanned every morning:{' '}
        {launchAt === null ? (
          'no date to make.'
        ) : (
          <strong>she makes the date in {Math.round(odds.share * 10)} of 10.</strong>
        )}{' '}
        Ready early {at(early)}, likely {at(likely)}, late {at(late)}.
      </p>
      {odds.breaks.length > 0 && (
        <p>
          What most often breaks it:{' '}
          {odds.breaks
            .slice(0, 3)
            .map((b) => `${names.say(b.task)} (${Math.round(b.share * 100)} %)`)
            .join(', ')}
          .
        </p>
      )}
    </section>
  );
}

/** What is other than in the plan that was accepted. */
function Changed({ plan, answer }: { plan: BoatPlan; answer: PlanAnswer }) {
  const { accepted, names, view } = plan;
  if (!accepted) return null;
  const zone = view.boat.timeZone;
  const changes = planChanges({ before: accepted.body.tasks, after: asAccepted(answer, names), since: answer.now });
  const when = timeWords(accepted.at, answer.now, zone);
  if (changes.length === 0) return <p className="quiet">As it was accepted {when}.</p>;
  return (
    <details className="max-w-prose">
      <summary className="link-row cursor-pointer lg:min-h-0">
        {counted(changes.length, 'change')} since the plan of {when}:{' '}
        {changeWords(changes[0] as (typeof changes)[number], answer.now, zone)}
      </summary>
      <ul className="pl-4">
        {changes.slice(0, 40).map((c) => (
          <li key={c.task}>{changeWords(c, answer.now, zone)}</li>
        ))}
      </ul>
    </details>
  );
}
