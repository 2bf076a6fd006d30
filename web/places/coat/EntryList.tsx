import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { checkAppend } from '#core/coat/append';
import { batchFollows } from '#core/coat/correct';
import { standing, type Coat } from '#core/coat/fold';
import { Impossible } from '#core/impossible';
import type { LogEntry, MixedBody } from '#core/model/log';
import { now } from '../../data/now';
import { useSettings } from '../../data/settings';
import { logEntry, type BoatView, type EntryDraft } from '../../data/store';
import { TextField } from '../../parts/Field';
import { timeWords } from '../../parts/words';
import { Correction } from './Correction';
import { entryWords, type EntrySaying } from './entryWords';

/** What was logged of a coat, in order; each entry can be corrected or withdrawn, and what it said before stays readable. */
export function EntryList({ view, coat }: { view: BoatView; coat: Coat }) {
  const log = useEntryList(view, coat);
  // The batches are told where they went on: a mistake in one is put right here.
  const batchIds = coat.batches.map((b) => b.batchId);
  const mixed = standing(view.entries).filter((e) => e.kind === 'mixed' && batchIds.includes(e.streamId));
  const all = [...coat.entries, ...mixed].sort((a, b) => a.occurredAt - b.occurredAt);
  // Of panels ticked one after the other the last says all.
  const told = all.filter((e, i) => !(e.kind === 'covered' && all[i + 1]?.kind === 'covered'));
  return (
    <section aria-labelledby="entries">
      <h2 id="entries" className="ruled pb-1">
        Logged
      </h2>
      <ol className="sheet-rule">
        {told.map((entry) => (
          <Entry entry={entry} log={log} key={entry.id} />
        ))}
      </ol>
      {coat.superseded.length > 0 && <SaidBefore coat={coat} log={log} />}
      <NoteField onNote={log.note} />
    </section>
  );
}

function Entry({ entry, log }: { entry: LogEntry; log: ReturnType<typeof useEntryList> }) {
  return (
    <li className="py-1.5">
      <div className="flex items-baseline gap-3">
        <span className="fig w-24 shrink-0 whitespace-normal sm:w-32">{log.when(entry.occurredAt)}</span>
        <span className="min-w-0 flex-1 break-words">
          {entryWords(entry, log.saying)}
          <span className="block text-sm quiet">
            {entry.painter || 'no name'}
            {entry.recordedAt - entry.occurredAt > 10 * 60_000 ? `, written down ${log.when(entry.recordedAt)}` : ''}
            {entry.supersedes ? ', corrected' : ''}
          </span>
        </span>
        <button
          type="button"
          className="narrow min-h-11 min-w-11 shrink-0 underline underline-offset-4"
          aria-expanded={log.correcting === entry.id}
          aria-label={`Change: ${entryWords(entry, log.saying)}`}
          onClick={() => (log.setProblem(null), log.setCorrecting(log.correcting === entry.id ? null : entry.id))}
        >
          Change
        </button>
      </div>
      {log.correcting === entry.id && (
        <Correction
          entry={entry}
          view={log.view}
          problem={log.problem}
          onSave={(occurredAt, body) => log.correct(entry, occurredAt, body) && log.setCorrecting(null)}
          onWithdraw={() => log.withdraw(entry) && log.setCorrecting(null)}
        />
      )}
    </li>
  );
}

function SaidBefore({ coat, log }: { coat: Coat; log: ReturnType<typeof useEntryList> }) {
  return (
    <details className="mt-1">
      <summary className="link-row narrow cursor-pointer underline decoration-1 underline-offset-4">
        {coat.superseded.length} corrected or withdrawn
      </summary>
      <ol className="sheet-rule">
        {coat.superseded.map((entry) => (
          <li key={entry.id} className="flex items-baseline gap-3 py-1.5">
            <span className="fig w-24 shrink-0 whitespace-normal line-through sm:w-32">
              {log.when(entry.occurredAt)}
            </span>
            <span className="min-w-0">
              <s>{entryWords(entry, log.saying)}</s>
              <span className="block text-sm quiet">
                {entry.painter || 'no name'}, written down {log.when(entry.recordedAt)}
              </span>
            </span>
          </li>
        ))}
      </ol>
    </details>
  );
}

type Draft = Pick<LogEntry, 'kind' | 'body'> & { occurredAt?: number; supersedes?: string };

/** Which entry is being corrected, and how a correction is written. */
function useEntryList(view: BoatView, coat: Coat) {
  const navigate = useNavigate();
  const { units } = useSettings();
  const saying: EntrySaying = { units, nameOf: view.zoneName };
  const [correcting, setCorrecting] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { boat, at } = view;
  const when = (t: number) => timeWords(t, at, boat.timeZone);

  const draftOf = (draft: Draft, of: Pick<LogEntry, 'stream' | 'streamId'>): EntryDraft => ({
    boatId: boat.id,
    supersedes: null,
    ...draft,
    stream: of.stream,
    streamId: of.streamId,
  });
  const append = (draft: Draft, label: string, of: Pick<LogEntry, 'stream' | 'streamId'>): boolean => {
    const entry = draftOf(draft, of);
    try {
      checkAppend(view.entries, {
        ...entry,
        id: uuid(),
        occurredAt: draft.occurredAt ?? now(),
        recordedAt: now(),
        painter: '',
        device: '',
      } as LogEntry);
      if ((draft.occurredAt ?? 0) > now()) throw new Impossible('This time has not come yet. Check the date and time.');
    } catch (error) {
      setProblem((error as Error).message);
      return false;
    }
    setProblem(null);
    void logEntry(entry, label);
    return true;
  };
  const note = (text: string) =>
    append({ kind: 'note', body: { text } }, 'Remark logged', { stream: 'coat', streamId: coat.id });
  const correct = (was: LogEntry, occurredAt: number, body: LogEntry['body']): boolean => {
    const draft = { kind: was.kind, body, occurredAt, supersedes: was.id };
    if (!append(draft, 'Entry corrected', was)) return false;
    if (was.kind === 'mixed')
      for (const { of, body: follows } of batchFollows({
        entries: view.entries,
        was,
        totalL: (body as MixedBody).totalL,
      }))
        void logEntry(
          draftOf({ kind: of.kind, body: follows, occurredAt: of.occurredAt, supersedes: of.id }, of),
          'Batch on corrected',
          { quiet: true },
        );
    return true;
  };
  /** A start that did not happen takes the whole coat with it, and its page. */
  const withdraw = (was: LogEntry): boolean => {
    const draft = { kind: 'withdrawn', body: { reason: '' }, supersedes: was.id } as const;
    const done = append(draft, was.kind === 'started' ? 'Coat withdrawn' : 'Entry withdrawn', was);
    if (done && was.kind === 'started') void navigate(`/boats/${boat.id}/coat`, { replace: true });
    return done;
  };
  return { when, saying, correcting, setProblem, setCorrecting, view, coat, problem, note, correct, withdraw };
}

function NoteField({ onNote }: { onNote: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <div className="mt-2 grid grid-cols-[1fr_auto] items-end gap-3">
      <TextField label="Remark" value={text} onChange={(e) => setText(e.target.value)} />
      <button
        type="button"
        className="btn"
        disabled={text.trim() === ''}
        onClick={() => {
          onNote(text.trim());
          setText('');
        }}
      >
        Log
      </button>
    </div>
  );
}
