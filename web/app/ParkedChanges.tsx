import { useState } from 'react';
import { deviceZone } from '../data/device';
import { now } from '../data/now';
import { TimeField } from '../parts/TimeField';
import { useObjectUrl } from '../parts/useObjectUrl';
import { rebasesOf, requestOf, wordsOf } from '../data/changes';
import { outbox } from '../data/outbox';
import type { Waiting } from '../data/waiting';
import { Differences } from '../parts/Differences';

/** What the server refused, and what waits behind it: each with its reason, its text and the ways on. */
export function ParkedChanges({ parked }: { parked: readonly Waiting[] }) {
  return (
    <ul className="sheet-rule pb-3">
      {parked.map((w) => (
        <ParkedRow key={w.id} waiting={w} />
      ))}
    </ul>
  );
}

function ParkedRow({ waiting }: { waiting: Waiting }) {
  const failure = waiting.parked;
  if (!failure) return null;
  const rebases = failure.code === 'stale' ? rebasesOf(waiting.change, failure.current) : [];
  const mine = requestOf(waiting.change).body as Record<string, unknown>;
  return (
    <li className="py-2">
      <p className="font-semibold">
        {waiting.label} <span className="quiet font-normal">({wordsOf(waiting.change)})</span>
      </p>
      <p>{failure.message}</p>
      {rebases.length > 0 && <AllDifferences mine={mine} theirs={failure.current as Record<string, unknown>} />}
      {failure.code === 'future' && <AtAnotherTime waiting={waiting} />}
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
            <button
              type="button"
              className={`btn ${failure.code === 'future' ? '' : 'btn-primary'}`}
              onClick={() => void outbox.retry(waiting.id)}
            >
              Send again
            </button>
            <button type="button" className="btn" onClick={() => void outbox.drop(waiting.id)}>
              Throw away
            </button>
          </>
        )}
      </div>
      {waiting.file && <WaitingFile file={waiting.file} label={waiting.label} />}
      {failure.code !== 'stale' && (
        <details className="mt-2">
          <summary className="link-row cursor-pointer underline underline-offset-4">All that it says</summary>
          <pre className="max-h-40 overflow-auto whitespace-pre-wrap text-sm quiet">
            {JSON.stringify(mine, null, 1)}
          </pre>
        </details>
      )}
    </li>
  );
}

/** An entry that bears a time to come, as a wrong clock gives it: the time can be put right, and it is sent. */
function AtAnotherTime({ waiting }: { waiting: Waiting }) {
  const [at, setAt] = useState(now());
  const { change } = waiting;
  if (change.kind !== 'entry' && change.kind !== 'picture') return null;
  const sendAt = () => {
    const entry = { ...change.entry, occurredAt: Math.round(Math.min(at, now())) };
    void outbox.retry(waiting.id, { ...change, entry } as typeof change);
  };
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3">
      <TimeField label="When it really was" at={at} onAt={setAt} zone={deviceZone()} />
      <button type="button" className="btn btn-primary" disabled={!Number.isFinite(at)} onClick={sendAt}>
        Send with this time
      </button>
    </div>
  );
}

function WaitingFile({ file, label }: { file: Blob; label: string }) {
  const url = useObjectUrl(file);
  return url && <img src={url} alt={label} className="mt-2 max-h-40" />;
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
