import { counted } from '#core/units/format';
import { dateWords } from '../../parts/words';
import type { BoatPlan } from './usePlan';
import type { Rehearsing } from './useRehearsal';

/** A rehearsal is told as one, on every day of it; what came in the way is named. */
export function RehearsalStrip({ plan, rehearsing }: { plan: BoatPlan; rehearsing: Rehearsing }) {
  const { day, days, member, go, another, end } = rehearsing;
  const today = days[day];
  const zone = plan.view.boat.timeZone;
  return (
    <section aria-label="Rehearsal" className="my-1 border-4 border-double border-base-content px-3 py-2">
      <p className="flex flex-wrap items-center gap-3">
        <strong>Rehearsal, nothing is logged.</strong> Weather {member} of those that may come; day {day + 1} of{' '}
        {days.length}
        {today && `, ${dateWords(today.at, zone)}`}
        <button type="button" className="btn btn-sm" disabled={day === 0} onClick={() => go(day - 1)}>
          Day before
        </button>
        <button type="button" className="btn btn-sm" disabled={day >= days.length - 1} onClick={() => go(day + 1)}>
          Next day
        </button>
        <button type="button" className="btn btn-sm" onClick={another}>
          Another weather
        </button>
        <button type="button" className="btn btn-sm btn-primary" onClick={end}>
          Back to the plan
        </button>
      </p>
      <input
        type="range"
        className="range range-sm w-full max-w-xl"
        aria-label="Day of the rehearsal"
        min={0}
        max={Math.max(0, days.length - 1)}
        value={day}
        onChange={(e) => go(Number(e.target.value))}
      />
      <p>
        {today && today.broke.length > 0
          ? `This morning ${counted(today.broke.length, 'thing')} no longer held and was planned again: ${today.broke
              .slice(0, 4)
              .map((id) => plan.names.say(id))
              .join(', ')}.`
          : 'The plan held this morning.'}
      </p>
    </section>
  );
}
