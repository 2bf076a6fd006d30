import { CalendarPlus } from 'lucide-react';
import { now } from '../data/now';
import { toast } from '../data/toasts';
import { calendarText, type CalendarMoment } from './calendar';
import { saveText } from './saveText';

/** Hands moments to the phone's own calendar. */
export function ToCalendar({
  name,
  moments,
  label,
  words,
}: {
  name: string;
  moments: readonly CalendarMoment[];
  label: string;
  /** Shown beside the sign; left out: the sign alone. */
  words?: string;
}) {
  const hand = () =>
    void calendarText(moments, now()).then(
      (text) => saveText(`${name}.ics`, text, 'text/calendar'),
      () => toast('The calendar file could not be made just now. Try again with a signal.'),
    );
  return (
    <button type="button" className="btn btn-ghost min-w-11 px-2" aria-label={label} title={label} onClick={hand}>
      <CalendarPlus size={20} aria-hidden="true" /> {words}
    </button>
  );
}
