import { useState } from 'react';
import { overrideKey, type Override } from '#core/system/mend';
import type { Layer } from '#core/model/layer';
import type { Finding, Mend, ZoneRecord } from '#core/system/stack';
import { TextField } from '../../parts/Field';
import { RECORD_WORDS, SEVERITY_WORDS } from '../../parts/choiceWords';
import { FindingMark } from './FindingMark';

/** Findings of one zone: what is wrong in a sentence, the ways out a click away, a stop let stand only in writing. */
export function FindingsPanel({
  findings,
  layers,
  overrides,
  records,
  shown,
  onMend,
  onLetStand,
  onTakeBack,
}: {
  findings: readonly Finding[];
  layers: readonly Layer[];
  overrides: readonly Override[];
  records: readonly ZoneRecord[];
  /** Rule to open, from a mark in the section. */
  shown: string | null;
  onMend: (mend: Mend) => void;
  /** Left out where no stop can be let stand: that is a zone's own affair. */
  onLetStand?: ((finding: Finding, reason: string) => void) | undefined;
  onTakeBack?: ((override: Override) => void) | undefined;
}) {
  if (layers.length === 0) return null;
  return (
    <section aria-labelledby="findings">
      <h2 id="findings" className="ruled pb-1">
        {findings.length === 0 ? 'It holds together' : 'What the rules say'}
      </h2>
      {findings.length === 0 && (
        <p className="py-1.5 quiet">Every coat may lie on the one beneath it, as far as the sheets tell.</p>
      )}
      <ul className="sheet-rule">
        {findings.map((f, i) => {
          const key = overrideKey(f, layers);
          return (
            <OneFinding
              key={`${key}${i}`}
              finding={f}
              stands={overrides.find((o) => o.key === key) ?? null}
              open={shown === `${f.rule}${f.upper}`}
              onMend={onMend}
              onLetStand={onLetStand}
              onTakeBack={onTakeBack}
            />
          );
        })}
      </ul>
      {records.length > 0 && (
        <p className="border-t border-base-300 py-1.5 text-sm">
          <span className="lab">On record:</span>{' '}
          {records
            .map((r) => `${RECORD_WORDS[r.kind].toLowerCase()}${r.note ? ` (${r.note.replace(/\.$/, '')})` : ''}`)
            .join('; ')}
          .
        </p>
      )}
    </section>
  );
}

function OneFinding({
  finding,
  stands,
  open,
  onMend,
  onLetStand,
  onTakeBack,
}: {
  finding: Finding;
  stands: Override | null;
  open: boolean;
  onMend: (mend: Mend) => void;
  onLetStand: ((finding: Finding, reason: string) => void) | undefined;
  onTakeBack: ((override: Override) => void) | undefined;
}) {
  const [reason, setReason] = useState<string | null>(null);
  const short = reason !== null && reason.trim().length < 3;
  return (
    <li className={`flex gap-2.5 py-1.5 ${open ? 'bg-base-200' : ''}`} data-rule={finding.rule}>
      <span className="pt-0.5">
        <FindingMark severity={finding.severity} />
      </span>
      <div className="min-w-0 flex-1">
        <p>
          <span className="font-semibold">{SEVERITY_WORDS[finding.severity]}.</span> {finding.reason}
        </p>
        {stands ? (
          <p className="text-sm">
            Let stand{stands.painter ? ` by ${stands.painter}` : ''}: {stands.reason}{' '}
            <button
              type="button"
              className="link-row underline underline-offset-4"
              onClick={() => onTakeBack?.(stands)}
            >
              Take back
            </button>
          </p>
        ) : (
          <Ways finding={finding} onMend={onMend} onLetStand={onLetStand} reason={reason} setReason={setReason} />
        )}
        {reason !== null && !stands && (
          <Reason reason={reason} setReason={setReason} short={short} onLetStand={onLetStand} finding={finding} />
        )}
      </div>
    </li>
  );
}

/** What may be done about it. */
function Ways({
  finding,
  onMend,
  onLetStand,
  reason,
  setReason,
}: {
  finding: Finding;
  onMend: (mend: Mend) => void;
  onLetStand: ((finding: Finding, reason: string) => void) | undefined;
  reason: string | null;
  setReason: (value: string | null) => void;
}) {
  return (
    <div className="mt-0.5 flex flex-wrap gap-x-5">
      {finding.mends.map((m) => (
        <button
          key={m.words}
          type="button"
          className="narrow link-row text-lg font-semibold underline decoration-1 underline-offset-4 lg:min-h-8"
          onClick={() => onMend(m)}
        >
          {m.words}
        </button>
      ))}
      {onLetStand && finding.severity === 'stop' && reason === null && (
        <button
          type="button"
          className="narrow link-row quiet text-lg underline decoration-dotted underline-offset-4 lg:min-h-8"
          onClick={() => setReason('')}
        >
          Let it stand
        </button>
      )}
    </div>
  );
}

function Reason({
  reason,
  setReason,
  short,
  onLetStand,
  finding,
}: {
  reason: string;
  setReason: (value: string | null) => void;
  short: boolean;
  onLetStand: ((finding: Finding, reason: string) => void) | undefined;
  finding: Finding;
}) {
  return (
    <div className="mt-1 flex flex-wrap items-end gap-3">
      <div className="min-w-52 flex-1">
        <TextField
          label="It stands, because"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          hint="Three letters or more; it stands in the record."
        />
      </div>
      <button type="button" className="btn" disabled={short} onClick={() => onLetStand?.(finding, reason.trim())}>
        Let it stand
      </button>
      <button type="button" className="btn btn-ghost" onClick={() => setReason(null)}>
        Back
      </button>
    </div>
  );
}
