import { useState, type ReactNode } from 'react';
import type { OffsetTable } from '#core/hull/offsets';
import {
  guessGirthColumns,
  hasHeadings,
  readGirthTable,
  readOffsetCells,
  seemsDecimalComma,
  TABLE_UNITS,
  unitInHeadings,
  type BadCell,
  type GirthColumns,
  type TableStyle,
  type TableUnit,
} from '#core/hull/tables';
import type { GirthStation } from '#core/model/area';
import { FormProblem, SelectField } from '../../parts/Field';
import { MESH_UNIT_WORDS } from '../../parts/choiceWords';
import { useModal } from '../../parts/useModal';
import { counted } from '#core/units/format';

const MOST_BYTES = 2 * 1024 * 1024;
const SHOWN_ROWS = 14;

interface Sheet {
  name: string;
  cells: string[][];
}

/** A girth table out of a CSV file: its columns are said what they are, bad cells are named, then it is taken. */
export function GirthImport({ onTake, onClose }: { onTake: (stations: GirthStation[]) => void; onClose: () => void }) {
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [style, setStyle] = useState<TableStyle>({ unit: 'm', decimalComma: false });
  const [columns, setColumns] = useState<GirthColumns>({ position: 0, halfGirth: 1, halfBreadth: -1 });
  const take = (next: Sheet) => {
    const guessed = guessStyle(next.cells);
    setStyle(guessed);
    setColumns(guessGirthColumns(next.cells[0] ?? []));
    setSheet(next);
  };
  const headings = sheet ? hasHeadings(sheet.cells, style) : false;
  const read = sheet ? readGirthTable({ cells: sheet.cells, columns, style, headings }) : null;
  const options = [
    ['-1', 'not there'] as const,
    ...Array.from({ length: width(sheet) }, (_, i) => [String(i), columnName(sheet, i, headings)] as const),
  ];
  const pick = (key: keyof GirthColumns, label: string) => (
    <SelectField
      label={label}
      options={options}
      value={String(columns[key])}
      onPick={(v) => setColumns({ ...columns, [key]: Number(v) })}
    />
  );
  return (
    <ImportDialog title="Girths from a CSV file" onClose={onClose} onSheet={take} sheet={sheet} bad={read?.bad ?? []}>
      {sheet && read && (
        <>
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
            {pick('position', 'Position')}
            {pick('halfGirth', 'Half-girth')}
            {pick('halfBreadth', 'Half-breadth')}
            <StyleFields style={style} onStyle={setStyle} />
          </div>
          <Preview cells={sheet.cells} bad={read.bad} />
          <BadList bad={read.bad} />
          <button
            type="button"
            className="btn btn-primary mt-2"
            disabled={read.stations.length < 2}
            onClick={() => onTake(read.stations)}
          >
            Take {read.stations.length} stations in
          </button>
          {read.stations.length < 2 && (
            <p className="text-sm text-error">
              Two stations with a position are needed. Check which column it stands in.
            </p>
          )}
        </>
      )}
    </ImportDialog>
  );
}

/** A table of offsets out of a CSV file. */
export function OffsetImport({ onTake, onClose }: { onTake: (table: OffsetTable) => void; onClose: () => void }) {
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [style, setStyle] = useState<TableStyle>({ unit: 'm', decimalComma: false });
  const [stationsAcross, setAcross] = useState(false);
  const take = (next: Sheet) => {
    setStyle(guessStyle(next.cells));
    setAcross(/water|wl|height/i.test(next.cells[0]?.[0] ?? ''));
    setSheet(next);
  };
  const read = sheet ? readOffsetCells({ cells: sheet.cells, stationsAcross, style }) : null;
  const usable = read !== null && read.table.stationsM.length >= 2 && read.table.waterlinesM.length >= 2;
  return (
    <ImportDialog title="Offsets from a CSV file" onClose={onClose} onSheet={take} sheet={sheet} bad={read?.bad ?? []}>
      {sheet && read && (
        <>
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
            <SelectField
              label="Stations run"
              options={[
                ['down', 'down the first column'],
                ['across', 'along the first row'],
              ]}
              value={stationsAcross ? 'across' : 'down'}
              onPick={(v) => setAcross(v === 'across')}
            />
            <StyleFields style={style} onStyle={setStyle} />
          </div>
          <Preview cells={sheet.cells} bad={read.bad} />
          <BadList bad={read.bad} />
          <button type="button" className="btn btn-primary mt-2" disabled={!usable} onClick={() => onTake(read.table)}>
            Take {read.table.stationsM.length} stations and {read.table.waterlinesM.length} waterlines in
          </button>
          {!usable && (
            <p className="text-sm text-error">
              Two stations and two waterlines with their positions are needed. Check which way the table runs.
            </p>
          )}
        </>
      )}
    </ImportDialog>
  );
}

function StyleFields({ style, onStyle }: { style: TableStyle; onStyle: (style: TableStyle) => void }) {
  return (
    <>
      <SelectField
        label="Bare figures are"
        options={TABLE_UNITS.map((u) => [u, MESH_UNIT_WORDS[u]] as const)}
        value={style.unit}
        onPick={(unit: TableUnit) => onStyle({ ...style, unit })}
      />
      <label className="min-h-11 flex items-center gap-2 self-end">
        <input
          type="checkbox"
          className="checkbox"
          checked={style.decimalComma}
          onChange={(e) => onStyle({ ...style, decimalComma: e.target.checked })}
        />{' '}
        decimal comma
      </label>
    </>
  );
}

function guessStyle(cells: readonly (readonly string[])[]): TableStyle {
  return { unit: unitInHeadings(cells[0] ?? []) ?? 'm', decimalComma: seemsDecimalComma(cells) };
}

const width = (sheet: Sheet | null) => Math.max(0, ...(sheet?.cells ?? []).map((r) => r.length));
const columnName = (sheet: Sheet | null, i: number, headings: boolean) =>
  headings && sheet?.cells[0]?.[i]?.trim() ? sheet.cells[0][i] : `column ${i + 1}`;

function ImportDialog({
  title,
  onClose,
  onSheet,
  sheet,
  children,
}: {
  title: string;
  onClose: () => void;
  onSheet: (sheet: Sheet) => void;
  sheet: Sheet | null;
  bad: readonly BadCell[];
  children: ReactNode;
}) {
  const dialog = useModal();
  const [problem, setProblem] = useState<string | null>(null);
  const read = async (file: File | undefined) => {
    if (!file) return;
    setProblem(null);
    if (file.size > MOST_BYTES)
      return setProblem('The file is larger than 2 MB, which no table of a hull is. Choose the right one.');
    const { default: Papa } = await import('papaparse');
    const text = await file.text();
    if (text.includes('\u0000')) return setProblem('This is not a text file. Save the table as CSV and choose that.');
    const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
    if (data.length < 2 || width({ name: '', cells: data }) < 2)
      return setProblem('There is no table in this file: it needs rows and columns. Save it as CSV and choose that.');
    onSheet({ name: file.name, cells: data });
  };
  return (
    <dialog ref={dialog} className="modal" onClose={onClose} aria-label={title}>
      <div className="modal-box max-w-4xl rounded-sm">
        <h2 className="mb-2">{title}</h2>
        <label className="flex flex-col gap-1">
          <span className="lab">{sheet ? sheet.name : 'File with commas, semicolons or tabs between its columns'}</span>
          <input
            type="file"
            accept=".csv,.txt,.tsv,text/csv,text/plain"
            className="file-input min-h-11"
            onChange={(e) => void read(e.target.files?.[0])}
          />
        </label>
        <FormProblem message={problem} />
        <div className="mt-3 min-w-0">{children}</div>
        <div className="modal-action">
          <button type="button" className="btn" onClick={() => dialog.current?.close()}>
            Close
          </button>
        </div>
      </div>
    </dialog>
  );
}

function Preview({ cells, bad }: { cells: readonly (readonly string[])[]; bad: readonly BadCell[] }) {
  const isBad = (r: number, c: number) => bad.find((b) => b.row === r + 1 && b.column === c + 1);
  return (
    <div
      className="mt-3 max-h-64 overflow-auto border border-base-300"
      tabIndex={0}
      role="region"
      aria-label="Preview of the table"
    >
      <table className="narrow w-full text-sm">
        <tbody>
          {cells.slice(0, SHOWN_ROWS).map((row, r) => (
            <tr key={r} className={r > 0 ? 'border-t border-base-300' : 'font-semibold'}>
              <td className="quiet px-1 text-right">{r + 1}</td>
              {row.map((cell, c) => {
                const problem = isBad(r, c);
                return (
                  <td
                    key={c}
                    className={`px-2 text-right ${problem ? 'bg-error text-error-content' : ''}`}
                    title={problem?.message}
                  >
                    {cell}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {cells.length > SHOWN_ROWS && <p className="px-2 text-sm quiet">and {cells.length - SHOWN_ROWS} more rows</p>}
    </div>
  );
}

function BadList({ bad }: { bad: readonly BadCell[] }) {
  if (bad.length === 0) return null;
  return (
    <div className="mt-2 border-l-4 border-warning pl-3 text-sm">
      <p className="font-semibold">{counted(bad.length, 'cell is', 'cells are')} left empty:</p>
      <ul className="max-h-32 overflow-auto" tabIndex={0} aria-label="Cells left empty">
        {bad.slice(0, 40).map((b) => (
          <li key={`${b.row} ${b.column}`}>
            Row {b.row}, column {b.column}: {b.message}
          </li>
        ))}
      </ul>
    </div>
  );
}
