import { Link, useParams } from 'react-router';
import type { LedgerCheck } from '#core/mix/ratioLedger';
import type { SheetBody } from '#core/model/sheet';
import { counted, pouringUnit } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { NotFound } from '../../app/PlaceError';
import { deviceZone } from '../../data/device';
import { useNow } from '../../data/now';
import { useSettings } from '../../data/settings';
import { useSheets } from '../../data/store';
import { useLedgerOf, type LedgerOf } from '../../data/useLedgerOf';
import { Fig } from '../../parts/Fig';
import { timeWords } from '../../parts/words';
import { Drift } from './Drift';

/** Parts used by the log against what the tins say is left, look by look. */
export function LedgerPage() {
  const { sheetId } = useParams();
  const { data: sheets } = useSheets();
  const sheet = sheets?.find((s) => s.id === sheetId)?.current.body;
  const ledger = useLedgerOf(sheetId, sheet);
  const { units } = useSettings();
  if (sheets && !sheet) return <NotFound what="data sheet" />;
  if (!sheet || !ledger)
    return <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading the ledger" />;
  const unit = pouringUnit('volume', units, 1);
  const checks = [...ledger.checks].reverse();
  return (
    <div className="mx-auto flex w-full max-w-5xl flex-col gap-4 px-3 py-4 sm:px-5">
      <div className="ruled flex flex-wrap items-baseline gap-x-4 pb-2">
        <h1 className="mr-auto">Ratio ledger, {sheet.name}</h1>
        <Link to="/stores" className="link-row underline underline-offset-4">
          To the tins
        </Link>
      </div>
      <p className="max-w-prose">
        What the batches say was used of each part against what the tins say is left. It cannot tell pouring from
        spilling: it says how much is unexplained, since when, and which batches lie between.
      </p>
      {checks.length === 0 ? (
        <Nothing ledger={ledger} />
      ) : (
        <>
          <Verdict ledger={ledger} sheet={sheet} unit={unit} />
          <Drift ledger={ledger} sheet={sheet} unit={unit} />
          <section aria-labelledby="looks">
            <h2 id="looks" className="ruled pb-1">
              Looks at the tins
            </h2>
            {checks.map((check) => (
              <Check key={check.at} check={check} ledger={ledger} sheet={sheet} unit={unit} />
            ))}
          </section>
        </>
      )}
    </div>
  );
}

function Nothing({ ledger }: { ledger: LedgerOf }) {
  return (
    <p className="max-w-prose border-l-4 border-base-content pl-3">
      {ledger.kits.length === 0
        ? 'No tin of it is on the shelf. Put its parts in under Stores, each as its own tin.'
        : `${counted(ledger.batches.length, 'batch', 'batches')} since its tins came in, and none was looked at since. Weigh the tins under Stores: base and hardener on one day.`}
    </p>
  );
}

function Verdict({ ledger, sheet, unit }: { ledger: LedgerOf; sheet: SheetBody; unit: Unit }) {
  const last = ledger.checks[ledger.checks.length - 1] as LedgerCheck;
  const off = sheet.parts
    .map((p, i) => ({ name: p.name, litres: last.unexplainedL[i] as number }))
    .filter((p) => Math.abs(p.litres) > 0.01);
  if (last.withinTolerance)
    return <p className="text-2xl font-semibold">The tins and the batches agree, within the tolerance.</p>;
  return (
    <div role="alert" className="border-l-4 border-error pl-3">
      <p className="text-2xl font-semibold">
        {off.map((p, i) => (
          <span key={p.name}>
            {i > 0 && ', '}
            <Fig quantity="volume" value={Math.abs(p.litres)} unit={unit} /> of {p.name}{' '}
            {p.litres > 0 ? 'more is gone' : 'less is gone'} than the batches explain
          </span>
        ))}
      </p>
      <p>
        Over-poured, under-poured or spilt: {counted(last.suspects.length, 'batch', 'batches')} since the last look that
        agreed {last.suspects.length === 1 ? 'is' : 'are'} suspect.
      </p>
    </div>
  );
}

function Check({ check, ledger, sheet, unit }: { check: LedgerCheck; ledger: LedgerOf; sheet: SheetBody; unit: Unit }) {
  const now = useNow(60_000);
  const zone = deviceZone();
  return (
    <section className="border-b border-base-300 py-2" aria-label={timeWords(check.at, now, zone)}>
      <p className="flex flex-wrap items-baseline gap-x-4">
        <span className="fig text-lg">{timeWords(check.at, now, zone)}</span>
        <span className={check.withinTolerance ? 'quiet' : 'font-semibold text-error'}>
          {check.withinTolerance ? 'agrees' : 'does not agree'}
        </span>
      </p>
      <div className="overflow-x-auto">
        <table className="w-full max-w-2xl text-right">
          <thead>
            <tr className="lab">
              <th className="text-left font-normal">Part</th>
              <th className="font-normal">should be left</th>
              <th className="font-normal">is left</th>
              <th className="font-normal">unexplained</th>
            </tr>
          </thead>
          <tbody>
            {sheet.parts.map((p, i) => (
              <tr key={p.name}>
                <th scope="row" className="text-left font-normal">
                  {p.name}
                </th>
                <td>
                  <Fig quantity="volume" value={check.expectedL[i] as number} unit={unit} />
                </td>
                <td>
                  <Fig quantity="volume" value={check.leftL[i] as number} unit={unit} />
                </td>
                <td>
                  <Fig quantity="volume" value={check.unexplainedL[i] as number} unit={unit} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {check.suspects.length > 0 && <Suspects ids={check.suspects} ledger={ledger} now={now} zone={zone} />}
    </section>
  );
}

/** The batches that are suspect, and the coats they are in. */
function Suspects({ ids, ledger, now, zone }: { ids: readonly string[]; ledger: LedgerOf; now: number; zone: string }) {
  return (
    <details open className="mt-1">
      <summary className="link-row cursor-pointer">Suspect batches, and the coats they are in</summary>
      <ul className="sheet-rule">
        {ids.map((id) => {
          const batch = ledger.rows.get(id);
          if (!batch) return null;
          return (
            <li key={id} className="py-1">
              <span className="fig">{timeWords(batch.at, now, zone)}</span> {batch.boatName},{' '}
              <Fig quantity="volume" value={batch.partsL.reduce((a, b) => a + b, 0)} />
              {batch.use && <span className="quiet"> in the ratio for {batch.use}</span>}
              {batch.coats.length === 0 && <span className="quiet"> in no coat</span>}
              {batch.coats.map((c) => (
                <Link
                  key={c.coatId}
                  to={`/boats/${batch.boatId}/coat/${c.coatId}`}
                  className="link-row ml-3 underline underline-offset-4"
                >
                  {c.zones.join(', ')}
                </Link>
              ))}
            </li>
          );
        })}
      </ul>
    </details>
  );
}
