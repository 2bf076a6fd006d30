import { Suspense, useEffect, useState } from 'react';
import { outbox, useOutbox } from '../data/outbox';
import { counted } from '#core/units/format';
import { part } from '../parts/part';

const ParkedChanges = part(() => import('./ParkedChanges'), 'ParkedChanges');

/** What has not reached the server yet, and what it refused. Nothing typed is ever thrown away unasked. */
export function OutboxStrip() {
  const waiting = useOutbox();
  const [open, setOpen] = useState(false);
  const parked = waiting.filter((w) => w.parked !== null);
  const unsent = waiting.length - parked.length;
  const silent = outbox.noAnswer() && unsent > 0;
  const late = !silent && outbox.noAnswerYet() && unsent > 0;
  const trouble = outbox.trouble();
  // Only in this tab: the device had no room for it.
  const loose = waiting.filter((w) => !w.kept);
  useLeaveWarning(loose.length > 0);
  if (!silent && !late && parked.length === 0 && loose.length === 0) return null;
  return (
    <div className="no-print ruled bg-base-200 px-4" role="status">
      <div className="flex flex-wrap items-center gap-x-4">
        {late && (
          <span className="link-row">
            No answer yet: {counted(unsent, 'entry waits', 'entries wait')} on this device (
            {waiting
              .filter((w) => w.parked === null)
              .slice(0, 3)
              .map((w) => w.label)
              .join(', ')}
            {unsent > 3 ? ' …' : ''}).
          </span>
        )}
        {silent && (
          <span className="link-row">
            {trouble ?? 'No answer from the server.'} {counted(unsent, 'entry is', 'entries are')} kept{' '}
            {loose.length > 0 ? 'in this tab' : 'on this device'} and will be sent.
          </span>
        )}
        {loose.length > 0 && (
          <span className="link-row font-semibold text-error">
            This device is full: {loose.map((w) => `"${w.label}"`).join(', ')} {loose.length === 1 ? 'is' : 'are'} not
            logged until sent. Do not close this tab.
          </span>
        )}
        {parked.length > 0 && (
          <button
            type="button"
            className="narrow min-h-11 text-lg font-semibold text-error underline underline-offset-4"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            {counted(parked.length, 'entry was', 'entries were')} not taken: look
          </button>
        )}
        {parked.length > 1 && (
          <button
            type="button"
            className="narrow min-h-11 text-lg underline underline-offset-4"
            onClick={() => void outbox.retryAll()}
          >
            Send all again
          </button>
        )}
      </div>
      {open && (
        <Suspense>
          <ParkedChanges parked={parked} />
        </Suspense>
      )}
    </div>
  );
}

/** A tab that holds what is nowhere else is not closed without a question. */
function useLeaveWarning(on: boolean): void {
  useEffect(() => {
    if (!on) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [on]);
}
