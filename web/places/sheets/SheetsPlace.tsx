import { Download, Upload } from 'lucide-react';
import { Suspense, useState } from 'react';
import { Link } from 'react-router';
import { completeness } from '#core/sheet/completeness';
import { sheetsDocument, sheetsToCells } from '#core/sheet/exchange';
import { SHEET_KINDS, type SheetKind } from '#core/model/sheet';
import type { SheetRow } from '#contracts/rows/sheet';
import type { SheetBody } from '#core/model/sheet';
import { save, useLibrary, useSheets, useStores } from '../../data/store';
import { takeSheets } from '../../data/usual';
import { SelectField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { saveCsv, saveText } from '../../parts/saveText';
import { CHEMISTRY_WORDS } from '../../parts/choiceWords';
import { SHEET_KIND_WORDS, shareWords } from '../../parts/words';
import { counted } from '#core/units/format';
import { part } from '../../parts/part';

const SheetImport = part(() => import('./SheetImport'), 'SheetImport');

/** Every data sheet of the yard: found by name, in from a file, out to one. */
export function SheetsPlace() {
  const { data: sheets, isPending } = useSheets();
  const [find, setFind] = useState('');
  const [kind, setKind] = useState<SheetKind | ''>('');
  const [withdrawn, setWithdrawn] = useState(false);
  const [importing, setImporting] = useState(false);
  const wanted = find.trim().toLowerCase();
  const shown = (sheets ?? []).filter(
    ({ current: { body }, ...s }) =>
      (withdrawn || !s.withdrawn) &&
      (kind === '' || body.kind === kind) &&
      `${body.name} ${body.maker} ${body.code} ${body.chemistry ?? ''}`.toLowerCase().includes(wanted),
  );
  const bodies = shown.map((s) => s.current.body);
  return (
    <div className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5">
      <div className="ruled flex flex-wrap items-center gap-3 pb-2">
        <h1 className="mr-auto">Data sheets</h1>
        <Link to="/sheets/new/quick" className="btn btn-primary">
          Quick, from the tin
        </Link>
        <Link to="/sheets/new/full" className="btn">
          Full sheet
        </Link>
      </div>
      {isPending && <div className="skeleton my-4 h-40 rounded-sm" role="status" aria-label="Loading sheets" />}
      {sheets?.length === 0 && <NoSheets />}
      {sheets && sheets.length > 0 && (
        <FindSheets
          find={find}
          setFind={setFind}
          kind={kind}
          setKind={setKind}
          withdrawn={withdrawn}
          setWithdrawn={setWithdrawn}
        />
      )}
      {sheets && sheets.length > 0 && shown.length === 0 && (
        <p className="py-2 quiet">No sheet is like that. Look for less of its name.</p>
      )}
      <ul className="sheet-rule">
        {shown.map((sheet) => (
          <OneSheet key={sheet.id} sheet={sheet} />
        ))}
      </ul>
      <TakeOutAndIn setImporting={setImporting} shown={shown} bodies={bodies} />
      {sheets && <MadeUp have={sheets} />}
      <p className="mt-3 text-sm quiet">Always follow the maker’s current sheet. The sheets of the demo are made up.</p>
      {importing && sheets && (
        <Suspense fallback={null}>
          <SheetImport have={sheets} onClose={() => setImporting(false)} />
        </Suspense>
      )}
    </div>
  );
}

function NoSheets() {
  return (
    <div className="max-w-prose py-4">
      <p>
        No sheet yet. Take the tin in your hand: ratio, solids, film per coat and two overcoat times are enough for a
        quick sheet, about a minute’s typing.
      </p>
      <p className="mt-2 quiet">
        A full sheet from the maker’s page gives windows on real temperature instead of estimates.
      </p>
    </div>
  );
}

function FindSheets({
  find,
  setFind,
  kind,
  setKind,
  withdrawn,
  setWithdrawn,
}: {
  find: string;
  setFind: (value: string) => void;
  kind: SheetKind | '';
  setKind: (value: SheetKind | '') => void;
  withdrawn: boolean;
  setWithdrawn: (value: boolean) => void;
}) {
  return (
    <div className="grid items-end gap-3 py-3 sm:grid-cols-[1fr_14rem_auto]">
      <TextField
        label="Find"
        type="search"
        value={find}
        onChange={(e) => setFind(e.target.value)}
        placeholder="name, maker, code or chemistry"
      />
      <SelectField
        label="Kind"
        options={[['', 'all kinds'], ...SHEET_KINDS.map((k) => [k, SHEET_KIND_WORDS[k]] as const)]}
        value={kind}
        onPick={setKind}
      />
      <label className="link-row gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={withdrawn}
          onChange={(e) => setWithdrawn(e.target.checked)}
        />{' '}
        withdrawn too
      </label>
    </div>
  );
}

function TakeOutAndIn({
  setImporting,
  shown,
  bodies,
}: {
  setImporting: (value: boolean) => void;
  shown: SheetRow[];
  bodies: SheetBody[];
}) {
  return (
    <div className="mt-4 flex flex-wrap gap-3">
      <button type="button" className="btn" onClick={() => setImporting(true)}>
        <Upload size={17} aria-hidden="true" /> From a file
      </button>
      {shown.length > 0 && (
        <>
          <button
            type="button"
            className="btn"
            onClick={() => saveText('data sheets.json', sheetsDocument(bodies), 'application/json')}
          >
            <Download size={17} aria-hidden="true" /> {shown.length} as JSON
          </button>
          <button type="button" className="btn" onClick={() => void saveCsv('data sheets.csv', sheetsToCells(bodies))}>
            <Download size={17} aria-hidden="true" /> {shown.length} as CSV
          </button>
        </>
      )}
    </div>
  );
}

function OneSheet({ sheet }: { sheet: SheetRow }) {
  const { body } = sheet.current;
  const share = completeness(body).share;
  return (
    <li>
      <Link to={`/sheets/${sheet.id}`} className="flex min-h-12 flex-wrap items-center gap-x-4 gap-y-1 py-2">
        <span className="flex w-12" aria-hidden="true">
          {body.colours.slice(0, 3).map((c, i) => (
            <span
              key={`${c.name}${i}`}
              className="inline-block h-7 w-4 border border-base-content"
              style={{ background: c.hex }}
            />
          ))}
        </span>
        <span className="min-w-0 flex-1 basis-52">
          <span className="font-semibold break-words underline decoration-1 underline-offset-4">{body.name}</span>{' '}
          <span className="quiet">{body.maker}</span>
          <span className="block text-sm quiet">
            {SHEET_KIND_WORDS[body.kind]}
            {body.chemistry ? `, ${CHEMISTRY_WORDS[body.chemistry].toLowerCase()}` : ''} ·{' '}
            {body.parts.length > 1 ? `${body.parts.map((p) => p.ratio).join(' : ')} by ${body.ratioBasis}` : 'one part'}{' '}
            · {shareWords(body.solids)} solids
            {body.quick ? ' · quick' : ''}
            {sheet.withdrawn ? ' · withdrawn' : ''}
            {sheet.usedOn > 0 ? ` · on ${counted(sheet.usedOn, 'zone')}` : ''}
          </span>
        </span>
        <span className="narrow quiet text-base">answers {Math.round(share * 100)} %</span>
        <Fig quantity="film" value={body.dftMicron} className="w-16 text-right text-lg" />
      </Link>
    </li>
  );
}

/** What ships with the product to try it with. */
function MadeUp({ have }: { have: readonly SheetRow[] }) {
  const { data: library } = useLibrary();
  const { stores } = useStores();
  const missing = library?.sheets.filter((s) => !have.some((h) => h.id === s.id)) ?? [];
  if (missing.length === 0) return null;
  return (
    <section id="library" aria-labelledby="library-title" className="mt-6 border-t border-base-300 pt-3">
      <h2 id="library-title">Made-up sheets to try with</h2>
      <p className="max-w-prose py-1">
        {missing.length} sheets of products that do not exist, of every kind and chemistry. Good for learning what the
        rules say; not for buying, and not for painting by.
      </p>
      <button
        type="button"
        className="btn"
        onClick={() =>
          void save(takeSheets(missing, stores?.rules.currency ?? 'EUR'), `${missing.length} made-up sheets taken in`)
        }
      >
        Take them in
      </button>
    </section>
  );
}
