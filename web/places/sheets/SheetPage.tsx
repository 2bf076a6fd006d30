import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { limitsInForce } from '#core/air/conditions';
import { sheetsDocument, sheetsToCells } from '#core/sheet/exchange';
import { sheetProblems, TABLE_NAMES, type TableName } from '#core/sheet/problems';
import type { SheetBody, SheetRevision } from '#core/model/sheet';
import type { TimeTable } from '#core/model/timeTable';
import type { SheetRow } from '#contracts/rows/sheet';
import { Details } from './Details';
import { Refused } from '../../data/api';
import { deviceZone } from '../../data/device';
import { save, useSheet } from '../../data/store';
import { useSettings } from '../../data/settings';
import { formatQuantity, plainNumber } from '#core/units/format';
import { NotFound } from '../../app/PlaceError';
import { Fig, Line } from '../../parts/Fig';
import { useSubmit } from '../../data/useSubmit';
import { FormProblem } from '../../parts/Field';
import { saveCsv, saveText } from '../../parts/saveText';
import { THINNER_WORDS } from '../../parts/choiceWords';
import { SHEET_KIND_WORDS, shareWords, spanWords, dateWords } from '../../parts/words';
import { AtTheTin } from './AtTheTin';
import { Meter } from './Meter';

/** A data sheet as the maker would print it, its revisions, and what it cannot answer yet. */
export function SheetPage() {
  const { sheetId } = useParams();
  const { data: sheet, error } = useSheet(sheetId);
  const navigate = useNavigate();
  const { failure, submit } = useSubmit();
  const [shown, setShown] = useState<string | null>(null);
  if (error instanceof Refused) return <NotFound what="data sheet" />;
  if (!sheet) return <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading the sheet" />;
  const revision = sheet.revisions.find((r) => r.id === shown) ?? sheet.current;
  const { body } = revision;
  const warnings = sheetProblems(body);
  const remove = async () => {
    if (
      await submit(
        {
          kind: 'sheet',
          id: sheet.id,
          revisionId: uuid(),
          body: sheet.current.body,
          withdrawn: sheet.withdrawn,
          deleted: true,
          version: sheet.version,
        },
        `${body.name} removed`,
      )
    )
      void navigate('/sheets');
  };
  return (
    <article className="mx-auto w-full max-w-6xl px-3 py-4 sm:px-5">
      <SheetHead body={body} sheet={sheet} remove={remove} />
      <FormProblem message={failure?.message ?? null} />
      {sheet.withdrawn && (
        <p className="border-l-4 border-warning bg-base-200 px-3 py-2">
          Withdrawn: it stays where it is in use and goes on no other zone.
        </p>
      )}
      {body.nameOnly && (
        <p className="my-2 border-l-4 border-warning bg-base-200 px-3 py-2">
          Only its name is known: ratio, solids and film below are stand-ins. Nothing is mixed or bought by them.{' '}
          <Link to={`/sheets/${sheet.id}/edit`} className="font-semibold underline underline-offset-4">
            Type its figures
          </Link>
        </p>
      )}
      {warnings.map((w) => (
        <p key={w.message} className="border-l-4 border-warning bg-base-200 px-3 py-2">
          {w.message}
        </p>
      ))}
      {!body.nameOnly && <AtTheTin key={revision.id} sheet={body} />}
      <MixAndFilm body={body} />
      <TimeGrid body={body} />
      <PacksAndRevisions body={body} sheet={sheet} revision={revision} setShown={setShown} />
      {body.caution && (
        <p className="border-l-4 border-base-content px-3 py-1">
          {body.caution} Follow the maker’s sheet and your local rules; ask a competent person where the law wants one.
        </p>
      )}
    </article>
  );
}

function SheetHead({
  body,
  sheet,
  remove,
}: {
  body: SheetBody;
  sheet: SheetRow & { revisions: SheetRevision[] };
  remove: () => Promise<void>;
}) {
  return (
    <header className="flex flex-wrap items-start gap-x-6 gap-y-2 border-b-2 border-base-content pb-3">
      <div className="mr-auto min-w-0">
        <p className="lab">{SHEET_KIND_WORDS[body.kind]}</p>
        <h1 className="break-words text-3xl">{body.name}</h1>
        <p>
          {[body.maker, body.code].filter(Boolean).join(' · ')}{' '}
          {body.quick && <span className="approx">quick sheet from the tin</span>}
        </p>
      </div>
      <div className="flex flex-wrap gap-2">
        <Link to={`/sheets/${sheet.id}/edit`} className="btn btn-primary">
          Revise
        </Link>
        <button
          type="button"
          className="btn"
          onClick={() =>
            void save(
              {
                kind: 'sheet',
                id: sheet.id,
                revisionId: uuid(),
                body: sheet.current.body,
                withdrawn: !sheet.withdrawn,
                deleted: false,
                version: sheet.version,
              },
              sheet.withdrawn ? `${body.name} is back` : `${body.name} withdrawn`,
            )
          }
        >
          {sheet.withdrawn ? 'Bring back' : 'Withdraw'}
        </button>
        <button
          type="button"
          className="btn"
          onClick={() => saveText(`${body.name}.json`, sheetsDocument([body]), 'application/json')}
        >
          <Download size={17} aria-hidden="true" /> JSON
        </button>
        <button type="button" className="btn" onClick={() => void saveCsv(`${body.name}.csv`, sheetsToCells([body]))}>
          <Download size={17} aria-hidden="true" /> CSV
        </button>
        <button type="button" className="btn btn-ghost text-error" onClick={() => void remove()}>
          Remove
        </button>
      </div>
    </header>
  );
}

function MixAndFilm({ body }: { body: SheetBody }) {
  return (
    <div className="grid gap-x-12 md:grid-cols-2">
      <section className="sheet-rule py-2" aria-label="Mixing">
        <Line label={body.parts.length > 1 ? `Ratio, by ${body.ratioBasis}` : 'Parts'}>
          <span className="fig">
            {body.parts.map((p) => plainNumber(p.ratio, Number.isInteger(p.ratio) ? 0 : 1)).join(' : ')}
          </span>
        </Line>
        {body.parts.map((part) => (
          <Line key={part.name} label={part.name}>
            {part.densityKgPerL ? (
              <Fig quantity="density" value={part.densityKgPerL} />
            ) : (
              <span className="quiet">density not given: no weighing</span>
            )}
          </Line>
        ))}
        <Line label="Volume solids">
          <span className="fig">{shareWords(body.solids)}</span>
        </Line>
        <Line label="Thinner">
          {body.thinner
            ? `${body.thinner.name}${body.thinner.family ? ` (${THINNER_WORDS[body.thinner.family]})` : ''}, up to ${shareWords(body.thinner.maxShare)} of ${body.thinner.of === 'base' ? 'the base' : 'the mix'}`
            : 'none'}
        </Line>
        <Line label="Stand after mixing">{body.inductionMin ? `${body.inductionMin} min` : 'none'}</Line>
      </section>
      <section className="sheet-rule py-2" aria-label="Film and limits">
        <Line label="Dry film per coat">
          <Fig quantity="film" value={body.dftMicron} />
        </Line>
        <Line label="Largest dry film">
          {body.dftMaxMicron ? <Fig quantity="film" value={body.dftMaxMicron} /> : 'not given'}
        </Line>
        <Limits body={body} />
      </section>
      <Details body={body} />
    </div>
  );
}

function PacksAndRevisions({
  body,
  sheet,
  revision,
  setShown,
}: {
  body: SheetBody;
  sheet: SheetRow & { revisions: SheetRevision[] };
  revision: SheetRevision;
  setShown: (value: string | null) => void;
}) {
  return (
    <div className="grid gap-x-12 md:grid-cols-2">
      <section className="sheet-rule py-2" aria-label="Packs">
        {body.packs.length === 0 && (
          <p className="py-1.5 quiet">No packs given: nothing can be bought from this sheet.</p>
        )}
        {body.packs.map((pack) => (
          <Line key={`${pack.name}${pack.sizeL}`} label={pack.name || 'pack'}>
            {pack.part && <span className="quiet">{pack.part} only </span>}
            <Fig quantity="volume" value={pack.sizeL} />{' '}
            {pack.priceMinor !== null && <span className="fig ml-2">{(pack.priceMinor / 100).toFixed(2)}</span>}
            {pack.breaks?.map((b) => (
              <span key={b.from} className="quiet">
                , from {b.from} {(b.priceMinor / 100).toFixed(2)}
              </span>
            ))}
            {pack.supplier && <span className="block text-sm quiet">{pack.supplier}</span>}
          </Line>
        ))}
      </section>
      <section className="py-2" aria-label="Revisions">
        <Meter sheet={body} />
        <p className="lab mt-3">Revisions</p>
        <ul>
          {sheet.revisions.map((r) => (
            <li key={r.id}>
              <button
                type="button"
                className={`link-row ${r.id === revision.id ? 'font-semibold' : 'underline underline-offset-4'}`}
                aria-pressed={r.id === revision.id}
                onClick={() => setShown(r.id)}
              >
                Revision {r.revision}, {dateWords(r.createdAt, deviceZone())}
              </button>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

function Limits({ body }: { body: SheetBody }) {
  const { units } = useSettings();
  const range = (low: number | null, high: number | null) => {
    const show = (c: number) => formatQuantity('temperature', c, units, 0);
    if (low === null && high === null) return 'not given';
    return low !== null && high !== null
      ? `${show(low)} to ${show(high)}`
      : low !== null
        ? `from ${show(low)}`
        : `to ${show(high as number)}`;
  };
  const { limits } = body;
  const inForce = limitsInForce({ limits });
  return (
    <>
      <Line label="Air">{range(limits.airMinC, limits.airMaxC)}</Line>
      <Line label="Surface">{range(limits.surfaceMinC, limits.surfaceMaxC)}</Line>
      <Line label="Humidity, at most">
        {shareWords(inForce.rhMax.at)}
        {inForce.rhMax.usual && ' (usual)'}
      </Line>
      <Line label="Spread, at least">
        {limits.spreadMinC === null ? (
          <span>
            <Fig quantity="temperatureDifference" value={inForce.spreadMinC.at} digits={0} /> (usual)
          </span>
        ) : (
          <Fig quantity="temperatureDifference" value={limits.spreadMinC} />
        )}
      </Line>
      <Line label="Does not cure below">
        {body.minCureC === null ? 'not given' : <Fig quantity="temperature" value={body.minCureC} digits={0} />}
      </Line>
    </>
  );
}

/** Milestones down, temperatures across, as on a printed sheet. */
function TimeGrid({ body }: { body: SheetBody }) {
  const { units } = useSettings();
  const single = (from: number, to?: number) =>
    (Object.entries(TABLE_NAMES) as [TableName, string][])
      .slice(from, to)
      .map(([key, name]): [string, TimeTable | null] => [name, body[key] ?? null]);
  const rows: [string, TimeTable | null][] = [
    ...single(0, 3),
    ...body.overcoat.flatMap((o): [string, TimeTable | null][] => {
      const before = o.after === 'any' ? 'any coat' : SHEET_KIND_WORDS[o.after].toLowerCase();
      return [
        [`Overcoat by ${before}, shortest`, o.minimum],
        [`— longest as is${o.alwaysAbrade ? ' (always abrade)' : ''}`, o.tackLimit],
        ['— longest, even abraded', o.maximum],
      ];
    }),
    ...single(3),
  ];
  const temps = [...new Set(rows.flatMap(([, table]) => table?.map((c) => c.tempC) ?? []))].sort((a, b) => a - b);
  if (temps.length === 0)
    return <p className="py-3 quiet">No times given: no windows can be worked out from this sheet.</p>;
  return (
    <div className="overflow-x-auto py-2" tabIndex={0} role="group" aria-label="Times by temperature">
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-base-content">
            <th className="lab py-1 pr-4">Times</th>
            {temps.map((t) => (
              <th key={t} scope="col" className="fig py-1 pl-4 text-right text-base">
                {formatQuantity('temperature', t, units, 0)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows
            .filter(([, table]) => table)
            .map(([label, table], i) => (
              <tr key={`${label}${i}`} className="border-b border-base-300">
                <th scope="row" className="py-1.5 pr-4 font-normal">
                  {label}
                </th>
                {temps.map((t) => {
                  const hours = table?.find((c) => c.tempC === t)?.hours;
                  return (
                    <td key={t} className="fig py-1.5 pl-4 text-right">
                      {hours === undefined ? <span className="quiet">·</span> : spanWords(hours * 3_600_000)}
                    </td>
                  );
                })}
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  );
}
