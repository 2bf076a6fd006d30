import { DateTime } from 'luxon';
import { useState } from 'react';
import type { BoatView } from '../../data/store';

/** A stretch of days, typed once and added. */
export function useDays(view: BoatView) {
  const zone = view.boat.timeZone;
  const today = DateTime.fromMillis(view.at, { zone });
  const [from, setFrom] = useState(today.plus({ days: 1 }).toFormat("yyyy-LL-dd'T'09:00"));
  const [to, setTo] = useState(today.plus({ days: 1 }).toFormat("yyyy-LL-dd'T'12:00"));
  const at = (text: string) => DateTime.fromISO(text, { zone }).toMillis();
  const fields = (
    <>
      <label className="flex items-center gap-1">
        from{' '}
        <input
          type="datetime-local"
          className="input input-sm wide-field"
          value={from}
          onChange={(e) => setFrom(e.target.value)}
        />
      </label>
      <label className="flex items-center gap-1">
        to{' '}
        <input
          type="datetime-local"
          className="input input-sm wide-field"
          value={to}
          onChange={(e) => setTo(e.target.value)}
        />
      </label>
    </>
  );
  const problem = !(at(to) > at(from)) ? 'It ends before it begins. Check the two times.' : null;
  return { fields, problem, from: () => at(from), to: () => at(to) };
}
