import { useEffect, useState } from 'react';
import { outbox, useOutbox, type Waiting } from '../data/outbox';
import { rebasesOf, requestOf } from '../data/changes';

/** What has not reached the server yet, and what it refused. Nothing typed is ever thrown away unasked. */
export function OutboxStrip() {
  const waiting = useOutbox();
  const [open, setOpen] = useState(false);
  const parked = waiting.filter((w) => w.parked !== null);
  const unsent = waiting.length - parked.length;
  const silent = outbox.noAnswer() && unsent > 0;
  const trouble = outbox.trouble();
  // Only in this tab: the device had no room for it.
  const loose = waiting.filter((w) => !w.kept);
  useLeaveWarning(loose.length > 0);
  if (!silent && parked.length === 0 && loose.length === 0) return null;
  return (
    <div className="no-print ruled bg-base-200 px-4" role="status">
      <div className="flex flex-wrap items-center gap-x-4">
        {silent && (
          <span className="link-row">
            {trouble ? `The server could not save it: ${trouble} Trying again.` : `No answer from the server.`} {unsent} {unsent === 1 ? 'entry is' : 'entries are'} kept {loose.length > 0 ? 'in this tab' : 'on this device'} and will be sent.
          </span>
        )}
        {loose.length > 0 && (
          <span className="link-row font-semibold text-error">
            This device is full: {loose.map((w) => `"${w.label}"`).join(', ')} {loose.length === 1 ? 'is' : 'are'} not logged until sent. Do not close this tab; make room on the device.
          </span>
        )}
        {parked.length > 0 && (
          <button type="button" className="narrow hand text-lg font-semibold text-error underline underline-offset-4" aria-expanded={open} onClick={() => setOpen(!open)}>
            {parked.length} {parked.length === 1 ? 'entry was' : 'entries were'} not taken: look
          </button>
        )}
      </div>
      {open && (
        <ul className="sheet-rule pb-3">
          {parked.map((w) => (
            <ParkedRow key={w.id} waiting={w} />
          ))}
        </ul>
      )}
    </div>
  );
}

function ParkedRow({ waiting }: { waiting: Waiting }) {
  const failure = waiting.parked;
  if (!failure) return null;
  const rebases = failure.code === 'stale' ? rebasesOf(waiting.change, failure.current) : [];
  const mine = requestOf(waiting.change).body as Record<string, unknown>;
  return (
    <li className="py-2">
      <p className="font-semibold">{waiting.label}</p>
      <p>{failure.message}</p>
      {rebases.length > 0 && <AllDifferences mine={mine} theirs={failure.current as Record<string, unknown>} />}
      <div className="mt-2 flex flex-wrap gap-2">
        {rebases.length > 0 ? (
          <>
            <button type="button" className="btn btn-primary" onClick={() => void outbox.keepMine(waiting.id, rebases)}>
              Keep mine
            </button>
            <button type="button" className="btn" onClick={() => void outbox.drop(waiting.id)}>
              Keep theirs
            </button>
          </>
        ) : (
          <>
            <button type="button" className="btn btn-primary" onClick={() => void outbox.retry(waiting.id)}>
              Send again
            </button>
            <button type="button" className="btn" onClick={() => void outbox.drop(waiting.id)}>
              Throw away
            </button>
          </>
        )}
      </div>
      {failure.code !== 'stale' && <pre className="mt-2 max-h-40 overflow-auto whitespace-pre-wrap text-sm quiet">{JSON.stringify(mine, null, 1)}</pre>}
    </li>
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

/** Differences of a change of one row, or of several, each with the row that stands there for its zone. */
function AllDifferences({ mine, theirs }: { mine: Record<string, unknown>; theirs: Record<string, unknown> }) {
  if (!Array.isArray(mine.rows)) return <Differences mine={mine} theirs={theirs} />;
  const others = (theirs.rows ?? []) as Record<string, unknown>[];
  return others.map((other) => {
    const own = (mine.rows as Record<string, unknown>[]).find((r) => r.surfaceId === other.surfaceId);
    return own && <Differences key={String(other.id)} mine={own} theirs={other} />;
  });
}

/** The fields in which two versions of a row differ, side by side. */
export function Differences({ mine, theirs }: { mine: Record<string, unknown>; theirs: Record<string, unknown> }) {
  const fields = Object.keys(mine).filter((key) => key !== 'version' && key !== 'id' && key in theirs && JSON.stringify(mine[key]) !== JSON.stringify(theirs[key]));
  return (
    <table className="mt-2 w-full text-left text-sm">
      <thead>
        <tr>
          <th className="lab pr-3">Differs in</th>
          <th className="lab pr-3">Yours</th>
          <th className="lab">Theirs, saved</th>
        </tr>
      </thead>
      <tbody>
        {fields.map((field) => (
          <tr key={field} className="align-top">
            <td className="pr-3">{field}</td>
            <td className="break-words pr-3">{show(mine[field])}</td>
            <td className="break-words">{show(theirs[field])}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const show = (value: unknown) => (typeof value === 'object' ? JSON.stringify(value) : String(value));
