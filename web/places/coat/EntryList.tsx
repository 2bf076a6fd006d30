import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { LogEntry } from '#core/model/log';
import { checkAppend } from '#core/coat/append';
import { type Coat } from '#core/coat/fold';
import { formatQuantity, type UnitChoice } from '#core/units/format';
import { now } from '../../data/now';
import { useSettings } from '../../data/settings';
import { logEntry, type BoatView } from '../../data/store';
import { FormProblem, QuantityField, TextField } from '../../parts/Field';
import { TimeField } from '../../parts/TimeField';
import { METHOD_WORDS, timeWords } from '../../parts/words';
import { Impossible } from '#core/impossible';

/** What was logged of a coat, in order; each entry can be corrected or withdrawn, and what it said before stays readable. */
export function EntryList({ view, coat }: { view: BoatView; coat: Coat }) {
  const log = useEntryList(view, coat);

  return (
    <section aria-labelledby="entries">
      <h2 id="entries" className="ruled pb-1">
        Logged
      </h2>
      <ol className="sheet-rule">
        {coat.entries.map((entry) => (
          <Entry entry={entry} log={log} key={entry.id} />
        ))}
      </ol>
      {coat.superseded.length > 0 && <SaidBefore coat={coat} log={log} />}
      <NoteField onNote={(text) => log.append({ kind: 'note', body: { text } }, 'Remark logged')} />
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
          aria-label={`Correct: ${entryWords(entry, log.saying)}`}
          onClick={() => (log.setProblem(null), log.setCorrecting(log.correcting === entry.id ? null : entry.id))}
        >
          Correct
        </button>
      </div>
      {log.correcting === entry.id && (
        <Correction
          entry={entry}
          zone={log.boat.timeZone}
          problem={log.problem}
          onSave={(occurredAt, body) =>
            log.append({ kind: entry.kind, body, occurredAt, supersedes: entry.id } as never, 'Entry corrected') &&
            log.setCorrecting(null)
          }
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

/** Which entry is being corrected, and how a correction is written. */
function useEntryList(view: BoatView, coat: Coat) {
  const { units } = useSettings();
  const saying: EntrySaying = { units, nameOf: (id) => view.surfaces.find((z) => z.id === id)?.name ?? 'removed zone' };
  const [correcting, setCorrecting] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { boat, at } = view;
  const log = view.entries;
  const when = (t: number) => timeWords(t, at, boat.timeZone);

  const append = (
    draft: Pick<LogEntry, 'kind' | 'body'> & { occurredAt?: number; supersedes?: string },
    label: string,
  ): boolean => {
    const entry = { boatId: boat.id, stream: 'coat' as const, streamId: coat.id, supersedes: null, ...draft };
    try {
      checkAppend(log, {
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
  const withdraw = (entry: LogEntry) =>
    append({ kind: 'withdrawn', body: { reason: '' }, supersedes: entry.id }, 'Entry withdrawn');
  return { when, saying, correcting, setProblem, setCorrecting, boat, problem, append, withdraw };
}

/** How entries are told: in which units, and what the zones are called. */
export interface EntrySaying {
  readonly units: UnitChoice;
  readonly nameOf: (surfaceId: string) => string;
}

/** An entry in a line. */
export function entryWords(entry: LogEntry, { units, nameOf }: EntrySaying): string {
  const on = (surfaceId: string | null | undefined) => (surfaceId ? ` on ${nameOf(surfaceId)}` : '');
  switch (entry.kind) {
    case 'started':
      return `Started by ${METHOD_WORDS[entry.body.method].toLowerCase()}${entry.body.thinner > 0 ? `, thinner ${formatQuantity('percent', entry.body.thinner, units)} of the mix` : ''}${entry.body.abradedGrit ? `, abraded with ${entry.body.abradedGrit} before` : ''}${entry.body.overrideReason ? `. Against advice: ${entry.body.overrideReason}` : ''}`;
    case 'reading': {
      const { airC, rh, surfaceC } = entry.body;
      const parts = [
        airC === null ? null : `air ${formatQuantity('temperature', airC, units)}`,
        rh === null ? null : `humidity ${formatQuantity('percent', rh, units, 0)}`,
        surfaceC === null
          ? null
          : `surface ${formatQuantity('temperature', surfaceC, units)}${on(entry.body.surfaceId)}`,
      ];
      return `Read ${parts.filter(Boolean).join(', ')}`;
    }
    case 'wetFilm':
      return `Comb ${entry.body.micron.map((m) => formatQuantity('film', m, units)).join(', ')} wet`;
    case 'batchOn':
      return `Batch of ${formatQuantity('volume', entry.body.litres, units)} on`;
    case 'finished':
      return `Finished${entry.body.litresOn === null ? '' : `, ${formatQuantity('volume', entry.body.litresOn, units)} put on`}`;
    case 'handTest':
      return entry.body.test === 'thumb'
        ? `Thumb test${on(entry.body.surfaceId)}: ${entry.body.passed ? 'print, nothing comes off' : 'still comes off'}`
        : `Sanding test${on(entry.body.surfaceId)}: ${entry.body.passed ? 'powders' : 'gums'}`;
    case 'note':
      return entry.body.text;
    case 'mixed':
      return `Mixed ${formatQuantity('volume', entry.body.totalL, units)}`;
    case 'silenced':
      return 'Timer silenced';
    case 'emptied':
      return 'Pot empty';
    case 'withdrawn':
      return 'Withdrawn';
  }
}

/** The time, and the figures that can be mistyped, of one entry. */
function Correction({
  entry,
  zone,
  problem,
  onSave,
  onWithdraw,
}: {
  entry: LogEntry;
  zone: string;
  problem: string | null;
  onSave: (occurredAt: number, body: object) => void;
  onWithdraw: () => void;
}) {
  const [at, setAt] = useState(entry.occurredAt);
  const [body, setBody] = useState<LogEntry['body']>(entry.body);
  const set = (change: object) => setBody({ ...body, ...change });
  const unread = Object.values(body).some((v) => typeof v === 'number' && Number.isNaN(v)) || !Number.isFinite(at);
  return (
    <div className="my-2 flex flex-col gap-3 border-l-2 border-base-content pl-3">
      <TimeField label="When it was" at={at} onAt={setAt} zone={zone} />
      {entry.kind === 'reading' && <ReadingFields body={body} set={set} />}
      {entry.kind === 'finished' && (
        <QuantityField
          label="Litres put on"
          quantity="volume"
          value={(body as { litresOn: number | null }).litresOn}
          onValue={(litresOn) => set({ litresOn })}
        />
      )}
      {entry.kind === 'batchOn' && (
        <QuantityField
          label="Litres of the batch"
          quantity="volume"
          value={(body as { litres: number }).litres}
          onValue={(litres) => set({ litres: litres ?? Number.NaN })}
        />
      )}
      {entry.kind === 'wetFilm' &&
        (body as { micron: number[] }).micron.map((m, i) => (
          <QuantityField
            key={i}
            label={`Comb reading ${i + 1}`}
            quantity="film"
            value={m}
            onValue={(v) =>
              set({ micron: (body as { micron: number[] }).micron.map((x, k) => (k === i ? (v ?? Number.NaN) : x)) })
            }
          />
        ))}
      {entry.kind === 'note' && (
        <TextField
          label="Remark"
          value={(body as { text: string }).text}
          onChange={(e) => set({ text: e.target.value })}
        />
      )}
      <FormProblem message={problem} />
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn btn-primary" disabled={unread} onClick={() => onSave(at, body)}>
          Put right
        </button>
        <button type="button" className="btn" onClick={onWithdraw}>
          It did not happen
        </button>
      </div>
    </div>
  );
}

function ReadingFields({ body, set }: { body: LogEntry['body']; set: (change: object) => void }) {
  return (
    <div className="grid grid-cols-3 gap-3">
      <QuantityField
        label="Air"
        quantity="temperature"
        value={(body as { airC: number | null }).airC}
        onValue={(airC) => set({ airC })}
      />
      <QuantityField
        label="Humidity"
        quantity="percent"
        value={(body as { rh: number | null }).rh}
        onValue={(rh) => set({ rh })}
      />
      <QuantityField
        label="Surface"
        quantity="temperature"
        value={(body as { surfaceC: number | null }).surfaceC}
        onValue={(surfaceC) => set({ surfaceC })}
      />
    </div>
  );
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
