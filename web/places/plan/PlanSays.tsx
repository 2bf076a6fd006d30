import { DateTime } from 'luxon';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import type { JobAppointment, PlanAcceptedBody } from '#core/model/jobPlan';
import type { LaunchOdds } from '#core/plan/odds';
import { planChanges } from '#core/plan/planChanges';
import type { PlanCost } from '#core/plan/planCost';
import { counted } from '#core/units/format';
import { dateWords, moneyWords, SIMULATED_WORDS, timeWords } from '../../parts/words';
import type { PlanAnswer } from '../../workers/plan';
import { moneyOf } from './planMoney';
import { PlanOut } from './PlanOut';
import { asAccepted, changeWords, firstOf, isLate, type Beside } from './planWords';
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
  beside,
  onBeside,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  trial: boolean;
  onRehearse: (member: number) => void;
  beside: Beside | null;
  onBeside: (other: Beside | null) => void;
}) {
  const { view, launchAt } = plan;
  const ready = answer.ready[view.boat.id] ?? null;
  const zone = view.boat.timeZone;
  const late = isLate(ready, launchAt);
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
        <Broken plan={plan} answer={answer} late={late} />
        <Standing
          plan={plan}
          answer={answer}
          onRehearse={onRehearse}
          late={late || answer.plan.violations.length > 0}
          onBeside={onBeside}
        />
        {beside && (
          <p>
            <span className="text-info">Dashed beside it:</span> {beside.name}.{' '}
            <button type="button" className="underline underline-offset-4" onClick={() => onBeside(null)}>
              Take it away
            </button>
          </p>
        )}
        <Changed plan={plan} answer={answer} onBeside={onBeside} />
        {view.hours.some((h) => h.at > answer.now && h.source === 'simulated') && (
          <p className="quiet text-sm">The air ahead is {SIMULATED_WORDS}.</p>
        )}
      </div>
    </>
  );
}

/** The first coat that breaks, and why; the rest folded away. */
function Broken({ plan, answer, late }: { plan: BoatPlan; answer: PlanAnswer; late: boolean }) {
  const { violations } = answer.plan;
  const { names, view } = plan;
  const first = firstOf(answer, late);
  if (!first && violations.length === 0) return null;
  const rest = violations.filter((v) => v.sentence !== first?.sentence);
  const zone = first && (answer.plan.tasks.find((t) => t.id === first.task)?.zone ?? zoneOfTask(answer, first.task));
  const end = answer.plan.tasks.find((t) => t.id === first?.task)?.end;
  return (
    <div role="status" className="max-w-prose border-l-4 border-error py-1 pl-3">
      {first ? (
        <p>
          <strong>
            It breaks first on {names.zone(zone ?? '')}, {names.of(first.task)}.
          </strong>{' '}
          {first.kind === 'late' && end !== undefined
            ? `It is on ${timeWords(end, answer.now, view.boat.timeZone)} in this plan, and has to cure before the water.`
            : names.say(first.sentence)}
        </p>
      ) : (
        <p>{names.say(rest[0]?.sentence ?? '')}</p>
      )}
      {rest.length > 0 && (
        <details>
          <summary className="link-row cursor-pointer lg:min-h-0">and {rest.length} more</summary>
          <ul>
            {rest.slice(0, 30).map((v) => (
              <li key={`${v.task}${v.limit}${v.sentence}`}>{names.say(v.sentence)}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

const zoneOfTask = ({ labels }: PlanAnswer, task: string) => labels.find((l) => l.task === task)?.zoneId;

/** Cost, odds and ways out, asked for when they are wanted. */
function Standing({
  plan,
  answer,
  late,
  onRehearse,
  onBeside,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  late: boolean;
  onRehearse: (member: number) => void;
  onBeside: (other: Beside) => void;
}) {
  const { view } = plan;
  const [odds, setOdds] = useState<{ of: PlanAnswer; found: LaunchOdds } | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [open, setOpen] = useState(false);
  const asked = useWays(plan, answer);
  const job = view.jobs[view.jobs.length - 1];
  const cost = moneyOf(plan, {
    plan: answer.plan,
    now: answer.now,
    readyAt: answer.ready[view.boat.id] ?? answer.until,
    shelters: plan.planning.shelters,
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
        <CostWords cost={cost} currency={currency} />
        <button type="button" className="btn btn-sm" disabled={share !== null} onClick={() => void ask()}>
          {share === null ? 'Odds' : `Odds: ${Math.round(share * 100)} %`}
        </button>
        <button
          type="button"
          className={`btn btn-sm ${late ? 'btn-primary' : ''}`}
          aria-expanded={open}
          onClick={() => {
            if (!open) void asked.ask();
            setOpen(!open);
          }}
        >
          Ways out
        </button>
        <button type="button" className="btn btn-sm" onClick={() => void plan.accept(current?.share ?? null)}>
          Accept this plan
        </button>
        <button type="button" className="btn btn-sm" onClick={() => onRehearse(1)}>
          Rehearse
        </button>
        <LostDay plan={plan} answer={answer} />
        {plan.busy && (
          <button type="button" className="btn btn-sm" onClick={plan.stop}>
            Stop looking
          </button>
        )}
        <PlanLinks plan={plan} answer={answer} />
      </div>
      {current && <OddsWords plan={plan} odds={current} now={answer.now} onRehearse={onRehearse} />}
      {open && <WaysOut plan={plan} answer={answer} cost={cost} asked={asked} onBeside={onBeside} />}
    </>
  );
}

/** What the plan costs, and what each day of it does. */
function CostWords({ cost, currency }: { cost: PlanCost; currency: string }) {
  const perDay = cost.days > 0 ? Math.round((cost.yardMinor + cost.heatMinor) / cost.days) : 0;
  return (
    <span>
      {Math.round(cost.hours)} h of work
      {cost.totalMinor > 0 && (
        <>
          , {moneyWords(cost.totalMinor, currency)} with {counted(cost.days, 'day')} on the hard
          {cost.heatMinor > 0 && ` and ${moneyWords(cost.heatMinor, currency)} of heat`}
        </>
      )}
      {perDay > 0 && `; a day more costs ${moneyWords(perDay, currency)}`}
    </span>
  );
}

/** Rain, a broken pump, nobody there: nothing is done any more today, and the rest follows. */
function LostDay({ plan, answer }: { plan: BoatPlan; answer: PlanAnswer }) {
  const { view, planning } = plan;
  const to = DateTime.fromMillis(answer.now, { zone: view.boat.timeZone }).endOf('day').toMillis() + 1;
  const today = answer.plan.tasks.some((t) => t.start < to);
  if (!today || view.jobs.length === 0) return null;
  const lost: JobAppointment = { id: uuid(), kind: 'other', name: 'A lost day', from: answer.now, to, zoneIds: [] };
  return (
    <button
      type="button"
      className="btn btn-sm"
      onClick={() => plan.change({ appointments: [...planning.appointments, lost] }, 'Today is lost')}
    >
      Today is lost
    </button>
  );
}

function PlanLinks({ plan, answer }: { plan: BoatPlan; answer: PlanAnswer }) {
  const { view } = plan;
  return (
    <>
      <Link to={`/boats/${view.boat.id}/plan/by`} className="link-row underline underline-offset-4 lg:min-h-0">
        Painters, shelter, appointments
      </Link>
      <Link to={`/boats/${view.boat.id}/plan/hours`} className="link-row underline underline-offset-4 lg:min-h-0">
        Hours fit to paint
      </Link>
      {plan.accepted && (
        <Link to={`/boats/${view.boat.id}/plan/real`} className="link-row underline underline-offset-4 lg:min-h-0">
          Planned and real
        </Link>
      )}
      <Link to="/plan" className="link-row underline underline-offset-4 lg:min-h-0">
        All boats
      </Link>
      <PlanOut plan={plan} answer={answer} />
    </>
  );
}

function OddsWords({
  plan,
  odds,
  now,
  onRehearse,
}: {
  plan: BoatPlan;
  odds: LaunchOdds;
  now: number;
  onRehearse: (member: number) => void;
}) {
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
      {odds.missed[0] !== undefined && (
        <button type="button" className="btn btn-sm" onClick={() => onRehearse(odds.missed[0] as number)}>
          Live through one that misses it
        </button>
      )}
    </section>
  );
}

/** "; still ready 22 May 09:00; 1 abrading more": what the changes come to. */
function inAll({ tasks, finish }: PlanAcceptedBody, { plan, now }: PlanAnswer, zone: string): string {
  const was = finish === null ? null : timeWords(finish, now, zone);
  const is = plan.finish === null ? null : timeWords(plan.finish, now, zone);
  const ready =
    is === null
      ? '; not ready in its days'
      : was === is
        ? `; still ready ${is}`
        : `; ready ${is}, was ${was ?? 'never'}`;
  const abradings = (list: readonly { kind: string; start: number }[]) =>
    list.filter((t) => t.kind === 'abrade' && t.start >= now).length;
  const more = abradings(plan.tasks) - abradings(tasks);
  return `${ready}${more === 0 ? '' : `; ${counted(Math.abs(more), 'abrading')} ${more > 0 ? 'more' : 'fewer'}`}`;
}

/** What is other than in the plan that was accepted. */
function Changed({
  plan,
  answer,
  onBeside,
}: {
  plan: BoatPlan;
  answer: PlanAnswer;
  onBeside: (other: Beside) => void;
}) {
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
        {inAll(accepted.body, answer, zone)}
      </summary>
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => onBeside({ name: `the plan accepted ${when}`, tasks: accepted.body.tasks })}
      >
        Show it beside this one
      </button>
      <ul className="pl-4">
        {changes.slice(0, 40).map((c) => (
          <li key={c.task}>{changeWords(c, answer.now, zone)}</li>
        ))}
      </ul>
    </details>
  );
}
