import { DateTime } from 'luxon';
import { dewPointC } from '#core/air/dewPoint';
import { counted, formatQuantity } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { dateWords } from '../../parts/words';
import type { BoatPlan } from './usePlan';
import type { Rehearsing } from './useRehearsal';

const DAY_H = 24;

/** A rehearsal is told as one, in every hour of it; the air, who is at what, and what came in the way in the morning. */
export function RehearsalStrip({ plan, rehearsing }: { plan: BoatPlan; rehearsing: Rehearsing }) {
  const { day, days, member, hour, hours, at, go, another, end } = rehearsing;
  const zone = plan.view.boat.timeZone;
  const dayStart = (index: number) => Math.round(((days[index]?.at ?? at) - (days[0]?.at ?? at)) / 3_600_000);
  return (
    <section aria-label="Rehearsal" className="my-1 border-4 border-double border-base-content px-3 py-2">
      <p className="flex flex-wrap items-center gap-3">
        <strong>Rehearsal, nothing is logged.</strong> Weather {member} of those that may come; day {day + 1} of{' '}
        {days.length}, {dateWords(at, zone)} {DateTime.fromMillis(at, { zone }).toFormat('HH:mm')}
        <button
          type="button"
          className="btn btn-sm"
          disabled={day === 0}
          onClick={() => go(Math.min(hour - DAY_H, dayStart(day - 1)))}
        >
          Day before
        </button>
        <button type="button" className="btn btn-sm" disabled={hour <= 0} onClick={() => go(hour - 1)}>
          Hour before
        </button>
        <button type="button" className="btn btn-sm" disabled={hour >= hours} onClick={() => go(hour + 1)}>
          Next hour
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={day >= days.length - 1}
          onClick={() => go(Math.max(hour + 1, dayStart(day + 1)))}
        >
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
        aria-label="Hour of the rehearsal"
        min={0}
        max={hours}
        value={hour}
        onChange={(e) => go(Number(e.target.value))}
      />
      <Now plan={plan} rehearsing={rehearsing} />
    </section>
  );
}

function Now({ plan, rehearsing: { day, days, air, going } }: { plan: BoatPlan; rehearsing: Rehearsing }) {
  const { units } = useSettings();
  const today = days[day];
  const degrees = (tempC: number) => formatQuantity('temperature', tempC, units);
  return (
    <>
      {air && (
        <p>
          Air {degrees(air.airC)}, dew point {degrees(dewPointC(air))}
          {(air.rainMm ?? 0) > 0 && ', rain'}.{' '}
          {going.length === 0
            ? 'Nobody is at work on her.'
            : going
                .map((t) => `${t.painters.join(' and ')}: ${plan.names.zone(t.zone)}, ${plan.names.of(t.id)}`)
                .join('; ') + '.'}
        </p>
      )}
      <p>
        {today && today.broke.length > 0
          ? `This morning ${counted(today.broke.length, 'thing')} no longer held and was planned again: ${today.broke
              .slice(0, 4)
              .map((id) => plan.names.say(id))
              .join(', ')}.`
          : 'The plan held this morning.'}
      </p>
    </>
  );
}
