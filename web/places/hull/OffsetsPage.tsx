import { Download, Plus, Upload } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { linesFromOffsets } from '#core/hull/lines';
import { checkOffsets } from '#core/hull/offsets';
import { offsetCells } from '#core/hull/tables';
import { areaBy } from '#core/hull/zoneArea';
import { usualRange } from '#core/hull/areaMethods';
import type { OffsetRecord } from '#core/model/area';
import type { HullRow } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { Differences } from '../../parts/Differences';
import { useSubmit } from '../../data/useSubmit';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { FormProblem, QuantityCell, QuantityField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { bandOf } from '../../parts/hullLines';
import { saveCsv } from '../../parts/saveText';
import { attempt } from '../../parts/attempt';
import { drawnZones } from '../../parts/ZoneRegion';
import { OffsetImport } from './TableImport';

const MOST = 60;

/** The boat's table of offsets: half-breadths at stations and waterlines, typed or brought in. */
export function OffsetsPage() {
  const t = useOffsets();

  return (
    <div className="flex min-w-0 flex-col gap-3">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">Table of offsets</h1>
        <Link to={`/boats/${t.boat.id}/hull`} className="link-row underline underline-offset-4">
          Back to the hull
        </Link>
      </div>
      <div className="grid min-w-0 gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
        <OffsetsDrawn t={t} />
        <OffsetsOptions t={t} />
      </div>
      <div className="max-w-full overflow-x-auto" tabIndex={0} role="region" aria-label="Half-breadths">
        <OffsetsTable t={t} />
      </div>
      <FormProblem message={t.failure?.message ?? t.checked} />
      {t.theirs && <Differences mine={{ offsets: t.table }} theirs={t.theirs} />}
      <div className="flex gap-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={t.sending || t.checked !== null}
          onClick={() => void t.onSave()}
        >
          {t.sending ? 'Saving…' : t.theirs ? 'Keep what stands here' : 'Save offsets'}
        </button>
      </div>
      {t.importing && (
        <OffsetImport
          onClose={() => t.setImporting(false)}
          onTake={(taken) => {
            t.setImporting(false);
            t.setTable({ ...t.table, ...taken });
          }}
        />
      )}
    </div>
  );
}

function OffsetsDrawn({ t }: { t: ReturnType<typeof useOffsets> }) {
  return (
    <div className="min-w-0">
      {t.drawable ? (
        <BoatDrawing
          boat={t.boat}
          zones={drawnZones(t.view)}
          lines={t.drawable}
          bandM={t.band}
          stands={false}
          label={`${t.boat.name}, drawn from these offsets`}
        />
      ) : (
        <p className="quiet py-6">The hull is drawn here once the table holds some half-breadths.</p>
      )}
      <dl className="narrow mt-2 flex flex-wrap gap-x-8">
        {t.found.map(({ kind, area }) => (
          <div key={kind}>
            <dt className="quiet">{kind === 'underwater' ? 'below the waterline' : 'above it'}</dt>
            <dd className="text-xl">{area ? <Fig quantity="area" value={area.areaM2} /> : '·'}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

function OffsetsOptions({ t }: { t: ReturnType<typeof useOffsets> }) {
  return (
    <div className="grid grid-cols-1 content-start gap-3 sm:grid-cols-2">
      <QuantityField
        label="Height she floats at"
        quantity="length"
        value={t.table.waterlineM}
        onValue={(v) => t.setTable({ ...t.table, waterlineM: v ?? Number.NaN })}
        hint="On the table’s own heights"
      />
      <div>
        <label className="min-h-11 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={t.table.fromBow}
            onChange={(e) => t.setTable({ ...t.table, fromBow: e.target.checked })}
          />{' '}
          Stations count from the bow
        </label>
        <label className="min-h-11 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={t.table.includeBottom}
            onChange={(e) => t.setTable({ ...t.table, includeBottom: e.target.checked })}
          />{' '}
          Bottom is flat inside the lowest waterline
        </label>
      </div>
      <p className="flex flex-wrap gap-x-5 sm:col-span-2">
        <button type="button" className="btn btn-ghost px-0" onClick={() => t.setImporting(true)}>
          <Upload size={18} aria-hidden="true" /> From CSV
        </button>
        <button
          type="button"
          className="btn btn-ghost px-0"
          onClick={() => void saveCsv(`${t.boat.name} offsets.csv`, offsetCells(t.table))}
        >
          <Download size={18} aria-hidden="true" /> As CSV
        </button>
      </p>
    </div>
  );
}

function OffsetsTable({ t }: { t: ReturnType<typeof useOffsets> }) {
  return (
    <table className="narrow">
      <WaterlineHeads t={t} />
      <tbody>
        {t.stationsM.map((x, i) => (
          <StationRow i={i} x={x} t={t} key={i} />
        ))}
        <LastRow t={t} />
      </tbody>
    </table>
  );
}

function WaterlineHeads({ t }: { t: ReturnType<typeof useOffsets> }) {
  return (
    <thead>
      <tr>
        <th className="lab px-1 text-left">station, from {t.table.fromBow ? 'the bow' : 'aft'} ↓ height →</th>
        {t.waterlinesM.map((z, k) => (
          <th key={k} className="p-0.5">
            <QuantityCell
              label={`Height of waterline ${k + 1}`}
              quantity="length"
              value={Number.isNaN(z) ? null : z}
              onValue={(v) =>
                t.setTable({ ...t.table, waterlinesM: t.waterlinesM.map((w, n) => (n === k ? (v ?? Number.NaN) : w)) })
              }
            />
          </th>
        ))}
        <th>
          <button
            type="button"
            className="btn btn-ghost btn-square"
            aria-label="Add a waterline"
            onClick={t.addWaterline}
            disabled={t.waterlinesM.length >= MOST}
          >
            <Plus size={18} aria-hidden="true" />
          </button>
        </th>
      </tr>
    </thead>
  );
}

function StationRow({ i, x, t }: { i: number; x: number; t: ReturnType<typeof useOffsets> }) {
  return (
    <tr>
      <th className="p-0.5">
        <QuantityCell
          label={`Position of station ${i + 1}`}
          quantity="length"
          value={Number.isNaN(x) ? null : x}
          onValue={(v) =>
            t.setTable({ ...t.table, stationsM: t.stationsM.map((s, n) => (n === i ? (v ?? Number.NaN) : s)) })
          }
        />
      </th>
      {t.waterlinesM.map((_, k) => (
        <td key={k} className="p-0.5">
          <QuantityCell
            label={`Half-breadth, station ${i + 1}, waterline ${k + 1}`}
            quantity="length"
            value={t.halfBreadthsM[i]?.[k] ?? null}
            onValue={(y) => t.setCell(i, k, y)}
          />
        </td>
      ))}
      <td>
        {t.stationsM.length > 2 && (
          <button
            type="button"
            className="btn btn-ghost btn-square"
            aria-label={`Remove station ${i + 1}`}
            onClick={() => t.dropStation(i)}
          >
            ×
          </button>
        )}
      </td>
    </tr>
  );
}

function LastRow({ t }: { t: ReturnType<typeof useOffsets> }) {
  return (
    <tr>
      <td>
        <button type="button" className="btn btn-ghost" onClick={t.addStation} disabled={t.stationsM.length >= MOST}>
          <Plus size={18} aria-hidden="true" /> Station
        </button>
      </td>
      {t.waterlinesM.map((_, k) => (
        <td key={k} className="text-center">
          {t.waterlinesM.length > 2 && (
            <button
              type="button"
              className="btn btn-ghost btn-square"
              aria-label={`Remove waterline ${k + 1}`}
              onClick={() => t.dropWaterline(k)}
            >
              ×
            </button>
          )}
        </td>
      ))}
    </tr>
  );
}

/** A table of offsets as it is typed, what it comes to, and how it is kept. */
function useOffsets() {
  const view = useView();
  const navigate = useNavigate();
  const { boat, hull } = view;
  const row = useMemo<HullRow>(
    () => hull ?? { id: uuid(), boatId: boat.id, offsets: null, mesh: null, version: 0, deleted: false },
    [hull, boat.id],
  );
  const [table, setTable] = useState<OffsetRecord>(
    () => hull?.offsets ?? blank(boat.loaM, boat.draftM, boat.freeboardM),
  );
  const [importing, setImporting] = useState(false);
  const { failure, theirs, sending, submit } = useSubmit();
  const { stationsM, waterlinesM, halfBreadthsM } = table;
  const checked = useMemo(() => check(table), [table]);
  const drawable = useMemo(
    () => (checked === null && halfBreadthsM.flat().some((y) => y !== null && y > 0) ? linesFromOffsets(table) : null),
    [checked, table, halfBreadthsM],
  );
  const band = bandOf(view.surfaces);
  const areaOf = (kind: 'underwater' | 'topsides') =>
    areaBy(
      {
        kind,
        boat,
        hull: { offsets: table, mesh: null },
        area: { method: 'offsets', dimensions: {}, typed: null, offsets: usualRange(kind, band) },
      },
      'offsets',
    );
  const found = (['underwater', 'topsides'] as const).map((kind) => ({
    kind,
    area: drawable && attempt(() => areaOf(kind)).value,
  }));

  const edit = tableEdits({ setTable, table, halfBreadthsM, stationsM, waterlinesM });

  const onSave = async () => {
    const version = theirs ? theirs.version : row.version;
    if (await submit({ kind: 'hull', row: { ...row, version, offsets: table } }, 'Offsets saved'))
      void navigate(`/boats/${boat.id}/hull`);
  };
  return {
    boat,
    drawable,
    view,
    band,
    found,
    table,
    setTable,
    setImporting,
    waterlinesM,
    addWaterline: edit.addWaterline,
    stationsM,
    halfBreadthsM,
    setCell: edit.setCell,
    dropStation: edit.dropStation,
    addStation: edit.addStation,
    dropWaterline: edit.dropWaterline,
    failure,
    checked,
    theirs,
    sending,
    onSave,
    importing,
  };
}

/** What may be done to a table of offsets. */
function tableEdits({
  setTable,
  table,
  halfBreadthsM,
  stationsM,
  waterlinesM,
}: {
  setTable: (value: OffsetRecord) => void;
  table: OffsetRecord;
  halfBreadthsM: readonly (readonly (number | null)[])[];
  stationsM: readonly number[];
  waterlinesM: readonly number[];
}) {
  const setCell = (i: number, k: number, y: number | null) =>
    setTable({
      ...table,
      halfBreadthsM: halfBreadthsM.map((r, n) => (n === i ? r.map((v, m) => (m === k ? y : v)) : r)),
    });
  const addStation = () =>
    setTable({
      ...table,
      stationsM: [...stationsM, next(stationsM)],
      halfBreadthsM: [...halfBreadthsM, waterlinesM.map(() => null)],
    });
  const addWaterline = () =>
    setTable({
      ...table,
      waterlinesM: [...waterlinesM, next(waterlinesM)],
      halfBreadthsM: halfBreadthsM.map((r) => [...r, null]),
    });
  const dropStation = (i: number) =>
    setTable({
      ...table,
      stationsM: stationsM.filter((_, n) => n !== i),
      halfBreadthsM: halfBreadthsM.filter((_, n) => n !== i),
    });
  const dropWaterline = (k: number) =>
    setTable({
      ...table,
      waterlinesM: waterlinesM.filter((_, n) => n !== k),
      halfBreadthsM: halfBreadthsM.map((r) => r.filter((_, n) => n !== k)),
    });
  return { addWaterline, setCell, dropStation, addStation, dropWaterline };
}

const next = (list: readonly number[]) =>
  Number(((list[list.length - 1] ?? 0) + ((list[list.length - 1] ?? 1) - (list[list.length - 2] ?? 0))).toFixed(3));

function blank(loaM: number, draftM: number, freeboardM: number): OffsetRecord {
  const even = (n: number, to: number) => Array.from({ length: n }, (_, i) => Number(((to * i) / (n - 1)).toFixed(3)));
  const stationsM = even(7, loaM);
  const waterlinesM = even(6, draftM + freeboardM);
  return {
    stationsM,
    waterlinesM,
    halfBreadthsM: stationsM.map(() => waterlinesM.map(() => null)),
    waterlineM: draftM,
    fromBow: false,
    includeBottom: true,
  };
}

function check(table: OffsetRecord): string | null {
  if (!Number.isFinite(table.waterlineM)) return 'Type the height at which she floats.';
  if (table.halfBreadthsM.flat().some((y) => Number.isNaN(y)))
    return 'A half-breadth cannot be read. Type it again, or leave it empty.';
  return attempt(() => checkOffsets(table)).problem;
}
