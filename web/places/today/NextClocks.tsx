import { useState } from 'react';
import type { Clock } from '#core/coat/clocks';
import type { BoatView } from '../../data/store';
import { clockName, clockTitle } from '../../parts/clockNames';
import { ToCalendar } from '../../parts/ToCalendar';
import { clockTime, CLOCK_WORDS } from '../../parts/words';

const SHOWN = 8;

/** What opens, closes and rings next, each named by its coat, and each to be handed to a calendar. */
export function NextClocks({ view }: { view: BoatView }) {
  const { clocks, boat } = view;
  const [all, setAll] = useState(false);
  const shown = all ? clocks : clocks.slice(0, SHOWN);
  return (
    <section aria-labelledby="t-next" className="mt-3">
      <div className="ruled flex items-center justify-between">
        <h2 id="t-next">Next</h2>
        {clocks.length > 0 && (
          <ToCalendar
            name={`${boat.name} clocks`}
            label="All of them to the calendar, with alarms"
            words="All to the calendar"
            moments={clocks.map((c) => momentOf(view, c))}
          />
        )}
      </div>
      {clocks.length === 0 && <p className="py-2">No clock is running.</p>}
      <ol className="gap-x-8 sm:columns-2">
        {shown.map((c) => (
          <li
            key={`${c.kind}-${c.surfaceId ?? ''}-${c.batchId ?? ''}`}
            className="ruled flex break-inside-avoid items-center gap-3"
          >
            <span className="fig min-w-14 shrink-0 text-lg">{clockTime(c, view.at, boat.timeZone)}</span>
            <span className="min-w-0 flex-1 leading-tight">
              {clockName(view, c)} <span className="quiet">{CLOCK_WORDS[c.kind]}</span>
            </span>
            <ToCalendar
              name={clockTitle(view, c)}
              label={`${clockTitle(view, c)}: to the calendar`}
              moments={[momentOf(view, c)]}
            />
          </li>
        ))}
      </ol>
      {clocks.length > SHOWN && (
        <button type="button" className="link-row underline underline-offset-4" onClick={() => setAll(!all)}>
          {all ? 'Only the next' : `${clocks.length - SHOWN} more`}
        </button>
      )}
      {clocks.length > 0 && (
        <p className="text-sm quiet">
          A locked phone does not ring for a page: hand to its calendar what must not be missed.
        </p>
      )}
    </section>
  );
}

const momentOf = (view: BoatView, clock: Clock) => ({
  id: `${clock.kind}-${clock.coatId ?? clock.batchId ?? clock.surfaceId}-${clock.surfaceId ?? ''}`,
  at: clock.at,
  title: clockTitle(view, clock),
  where: [view.boat.name, view.boat.place].filter(Boolean).join(', '),
});
