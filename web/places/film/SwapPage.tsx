import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Surface } from '#core/model/surface';
import { packsMinor } from '#core/stores/money';
import type { Finding } from '#core/system/stack';
import { useView } from '../../app/BoatShell';
import { save, useSheets } from '../../data/store';
import { SelectField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { moneyWords, SHEET_KIND_WORDS } from '../../parts/words';
import { FindingMark } from './FindingMark';
import { productsToCome, swapped } from './swapped';
import { useJobLedger, type JobLedger } from './useLedger';
import { counted } from '#core/units/format';

/** Another product for one, on every zone of the job: what it would change is shown before anything is written. */
export function SwapPage() {
  const swap = useSwap();

  if (!swap.sheets) return <div className="skeleton h-64 rounded-sm" role="status" aria-label="Loading sheets" />;
  const go = () => {
    if (!swap.drafts || !swap.to) return;
    const rows = [...swap.drafts].map(([surfaceId, layers]) => ({
      ...(swap.buildUps.find((b) => b.surfaceId === surfaceId) as (typeof swap.buildUps)[number]),
      layers,
    }));
    void save(
      { kind: 'buildUps', boatId: swap.boat.id, rows },
      `${swap.to.current.body.name} on ${counted(rows.length, 'zone')}`,
    );
    void swap.navigate(`/boats/${swap.boat.id}/film`);
  };
  return (
    <div className="min-w-0 max-w-5xl">
      <div className="ruled flex flex-wrap items-center gap-3 pb-1">
        <h1 className="mr-auto text-2xl">Change a product throughout the job</h1>
        <Link to={`/boats/${swap.boat.id}/film`} className="btn">
          Back to the section
        </Link>
      </div>
      {swap.used.length === 0 || !swap.to ? (
        <p className="py-3 quiet">No coat is still to go on, or there is no other sheet to change to.</p>
      ) : (
        <>
          <TwoProducts swap={swap} />
          <p className="quiet">
            Each coat takes the film and the colours of the new sheet. Coats that are on stay as they were logged.
          </p>
          <h2 className="ruled mt-4 pb-1">What it changes</h2>
          <ul className="sheet-rule">
            {swap.surfaces.map(
              (surface) =>
                swap.drafts?.has(surface.id) && (
                  <ZoneChange key={surface.id} surface={surface} before={swap.before} after={swap.after} />
                ),
            )}
          </ul>
          {swap.drafts?.size === 0 && <p className="py-2">No coat that is still to go on is of it.</p>}
          <p className="flex flex-wrap items-baseline gap-x-6 border-t-2 border-base-content py-2">
            <span>packs for the whole job</span>
            <span>
              now{' '}
              <span className="fig text-lg">
                {moneyWords(packsMinor(swap.before.ledger.products), swap.before.currency)}
              </span>
            </span>
            <span>
              then{' '}
              <span className="fig text-lg">
                {moneyWords(packsMinor(swap.after.ledger.products), swap.after.currency)}
              </span>
            </span>
          </p>
          <button
            type="button"
            className="btn btn-primary"
            disabled={!swap.drafts || swap.drafts.size === 0}
            onClick={go}
          >
            Change it on {counted(swap.drafts?.size ?? 0, 'zone')}
          </button>
        </>
      )}
    </div>
  );
}

function TwoProducts({ swap }: { swap: ReturnType<typeof useSwap> }) {
  return (
    <div className="grid gap-3 py-3 sm:grid-cols-2">
      <SelectField
        label="Instead of"
        options={swap.used.map((r) => [r.sheetId, r.body.name] as const)}
        value={swap.from?.sheetId ?? ''}
        onPick={swap.setFrom}
      />
      <SelectField
        label="Take"
        options={swap.others.map(
          (s) => [s.id, `${s.current.body.name} — ${SHEET_KIND_WORDS[s.current.body.kind].toLowerCase()}`] as const,
        )}
        value={swap.to?.id ?? ''}
        onPick={swap.setTo}
      />
    </div>
  );
}

/** Two products, and what the boat's coats and litres become with one in place of the other. */
function useSwap() {
  const view = useView();
  const navigate = useNavigate();
  const { boat, buildUps, surfaces } = view;
  const { data: sheets } = useSheets();
  const [fromId, setFrom] = useState('');
  const [toId, setTo] = useState('');
  const used = useMemo(() => productsToCome(view), [view]);
  const from = used.find((r) => r.sheetId === fromId) ?? used[0];
  const others = useMemo(
    () =>
      (sheets ?? [])
        .filter((s) => !s.withdrawn && s.id !== from?.sheetId)
        .sort(
          (a, b) => Number(b.current.body.kind === from?.body.kind) - Number(a.current.body.kind === from?.body.kind),
        ),
    [sheets, from],
  );
  const to = others.find((s) => s.id === toId) ?? others[0];
  const target = to?.current;
  const drafts = useMemo(
    () => (from && target ? swapped(view, from.sheetId, target) : undefined),
    [view, from, target],
  );
  const before = useJobLedger(view);
  const after = useJobLedger(view, drafts);
  return { sheets, drafts, to, buildUps, boat, navigate, used, from, setFrom, others, setTo, surfaces, before, after };
}

function ZoneChange({ surface, before, after }: { surface: Surface; before: JobLedger; after: JobLedger }) {
  const [was, will] = [before, after].map((j) => j.ledger.zones.find((z) => z.surfaceId === surface.id));
  const findingKey = (f: Finding) => `${f.rule}${f.upper}`;
  const fresh = (will?.findings ?? []).filter(
    (f) => f.severity !== 'note' && !was?.findings.some((o) => findingKey(o) === findingKey(f)),
  );
  const gone = (was?.findings ?? []).filter(
    (f) => f.severity !== 'note' && !will?.findings.some((o) => findingKey(o) === findingKey(f)),
  );
  return (
    <li className="py-2">
      <p className="flex flex-wrap items-baseline gap-x-5">
        <span className="font-semibold">{surface.name}</span>
        {was?.perM2 && will?.perM2 && (
          <>
            <span>
              film <Fig quantity="film" value={was.perM2.total.keptMicron} /> →{' '}
              <Fig quantity="film" value={will.perM2.total.keptMicron} />
            </span>
            <span>
              litres <Fig quantity="volume" value={was.perM2.total.litres * surface.areaM2} approx /> →{' '}
              <Fig quantity="volume" value={will.perM2.total.litres * surface.areaM2} approx />
            </span>
          </>
        )}
      </p>
      {fresh.map((f) => (
        <p key={findingKey(f)} className="flex items-start gap-2">
          <FindingMark severity={f.severity} /> {f.reason}
        </p>
      ))}
      {gone.map((f) => (
        <p key={findingKey(f)} className="text-sm quiet">
          No longer: {f.reason}
        </p>
      ))}
      {fresh.length === 0 && gone.length === 0 && <p className="text-sm quiet">The rules find nothing new.</p>}
    </li>
  );
}
