import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { readSheetCells, readSheetsDocument, SHEETS_FILE_MAX, type SheetsRead } from '#core/sheet/exchange';
import { sheetProblems } from '#core/sheet/problems';
import type { SheetBody } from '#core/model/sheet';
import { sheetContent } from '#contracts/schemas/sheet';
import type { SheetRow } from '#contracts/rows/sheet';
import { OPTIONS, sentence } from '#contracts/schemas/messages';
import { useSubmit } from '../../data/useSubmit';
import { FormProblem } from '../../parts/Field';
import { SHEET_KIND_WORDS } from '../../parts/words';
import { useModal } from '../../parts/useModal';
import { counted } from '#core/units/format';

/** What becomes of one row of a file. */
interface Row {
  readonly name: string;
  readonly kind: string;
  readonly body: SheetBody | null;
  /** Why it is not taken. */
  readonly problems: readonly string[];
  /** A sheet of that name and code is here: it would stand beside it. */
  readonly alike: boolean;
}

/** Sheets out of a file: every one is looked over and named before any is taken in. */
export function SheetImport({ have, onClose }: { have: readonly SheetRow[]; onClose: () => void }) {
  const dialog = useModal();
  const read = useSheetImport(have, () => dialog.current?.close());

  return (
    <dialog ref={dialog} className="modal" onClose={onClose} aria-labelledby="import-title">
      <div className="modal-box max-w-4xl rounded-sm">
        <h2 id="import-title">Sheets from a file</h2>
        <label className="mt-2 flex flex-col gap-1">
          <span className="lab">JSON or CSV, as they are exported here</span>
          <input
            type="file"
            accept=".json,.csv,application/json,text/csv"
            className="file-input min-h-11"
            onChange={(e) => void read.read(e.target.files?.[0])}
          />
        </label>
        <FormProblem message={read.problem ?? read.failure?.message ?? null} />
        {read.rows && (
          <ul className="sheet-rule mt-3 max-h-96 overflow-auto" tabIndex={0} aria-label="Sheets in the file">
            {read.rows.map((row, i) => (
              <OneRow i={i} row={row} read={read} key={i} />
            ))}
          </ul>
        )}
        <div className="modal-action">
          <button type="button" className="btn" onClick={() => dialog.current?.close()}>
            Close
          </button>
          {read.rows && (
            <button
              type="button"
              className="btn btn-primary"
              disabled={read.usable.length === 0 || read.sending}
              onClick={() => void read.take()}
            >
              Take {counted(read.usable.length, 'sheet')} in
            </button>
          )}
        </div>
      </div>
    </dialog>
  );
}

function OneRow({ i, row, read }: { i: number; row: Row; read: ReturnType<typeof useSheetImport> }) {
  return (
    <li className="flex items-start gap-3 py-1.5">
      <input
        type="checkbox"
        className="checkbox mt-1"
        aria-label={`Take ${row.name} in`}
        disabled={row.body === null}
        checked={row.body !== null && !read.left.has(i)}
        onChange={(e) =>
          read.setLeft(new Set(e.target.checked ? [...read.left].filter((x) => x !== i) : [...read.left, i]))
        }
      />
      <div className="min-w-0">
        <p>
          <span className="font-semibold break-words">{row.name}</span> <span className="quiet">{row.kind}</span>
        </p>
        {row.alike && row.body && (
          <p className="text-sm">A sheet of this name and code is here already: taken in, it stands beside it.</p>
        )}
        {row.problems.map((p) => (
          <p key={p} className={`text-sm ${row.body ? '' : 'text-error'}`}>
            {p}
          </p>
        ))}
      </div>
    </li>
  );
}

/** A file of sheets: read, looked over, and taken in. */
function useSheetImport(have: readonly SheetRow[], close: () => void) {
  const [rows, setRows] = useState<Row[] | null>(null);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const { failure, sending, submit } = useSubmit();
  const read = async (file: File | undefined) => {
    if (!file) return;
    setRows(null);
    setProblem(null);
    if (file.size > SHEETS_FILE_MAX)
      return setProblem('This file is too large for data sheets. Split it, or choose another one.');
    const text = (await file.text()).replace(/^\uFEFF/, '');
    const found = await readFile(file.name, text);
    if ('problem' in found) return setProblem(found.problem);
    const looked = found.rows.map((row) => lookOver(row, have));
    setRows(looked);
    setLeft(new Set(looked.flatMap((r, i) => (r.alike ? [i] : []))));
  };
  const usable = rows?.flatMap((r, i) => (r.body && !left.has(i) ? [r.body] : [])) ?? [];
  const take = async () => {
    const sheets = usable.map((body) => ({ id: uuid(), revisionId: uuid(), body }));
    // The server takes a request of up to 1 MB.
    if (JSON.stringify(sheets).length > 1_000_000)
      return setProblem('These are too many sheets for one go. Leave some out and take them in a second one.');
    if (
      await submit(
        { kind: 'sheetImport', id: uuid(), taken: true, sheets },
        `${counted(sheets.length, 'sheet')} taken in`,
      )
    )
      close();
  };
  return { read, problem, failure, rows, left, setLeft, usable, sending, take };
}

async function readFile(name: string, text: string): Promise<SheetsRead> {
  const json = /\.json$/i.test(name) || /^\s*[{[]/.test(text);
  if (json) return readSheetsDocument(text);
  if (text.includes('\u0000'))
    return { problem: 'This is not a text file. Save the sheets as CSV or JSON and choose that.' };
  const { default: Papa } = await import('papaparse');
  return readSheetCells(Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' }).data);
}

const SHOWN_PROBLEMS = 4;

function lookOver(row: unknown, have: readonly SheetRow[]): Row {
  const told = (row ?? {}) as { name?: unknown; kind?: unknown };
  const name =
    typeof told.name === 'string' && told.name.trim() ? told.name.trim().slice(0, 120) : 'a sheet without a name';
  const { value, error } = sheetContent.validate(row, { ...OPTIONS, abortEarly: false });
  if (error) {
    const more = error.details.length - SHOWN_PROBLEMS;
    return {
      name,
      kind: '',
      body: null,
      problems: [
        ...error.details.slice(0, SHOWN_PROBLEMS).map((d) => `${d.path.join('.')}: ${sentence(d.message)}`),
        ...(more > 0 ? [`and ${more} more`] : []),
      ],
      alike: false,
    };
  }
  const body = value as SheetBody;
  const problems = sheetProblems(body);
  const stops = problems.filter((p) => p.severity === 'stop');
  const alike = have.some((s) => s.current.body.name === body.name && s.current.body.code === body.code);
  return {
    name,
    kind: SHEET_KIND_WORDS[body.kind].toLowerCase(),
    body: stops.length > 0 ? null : body,
    problems: (stops.length > 0 ? stops : problems).map((p) => p.message),
    alike,
  };
}
