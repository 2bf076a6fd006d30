import { ChevronLeft, ChevronRight, Download, Upload } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { checkStations, strayGirths } from '#core/hull/girths';
import { boatProfile } from '#core/hull/profile';
import { girthCells } from '#core/hull/tables';
import { areaBy } from '#core/hull/zoneArea';
import { NO_MODEL, type GirthRecord, type GirthStation } from '#core/model/area';
import type { SurfaceRow } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import { save, type BoatView } from '../../data/store';
import { BoatDrawing, type StationMark } from '../../parts/BoatDrawing';
import { FormProblem, QuantityField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { bandOf, linesOf } from '../../parts/hullLines';
import { saveCsv } from '../../parts/saveText';
import { attempt } from '../../parts/attempt';
import { Why } from '../../parts/Why';
import { shareWords } from '../../parts/words';
import { drawnZones } from '../../parts/ZoneRegion';
import { GirthImport } from './TableImport';

export function GirthPage() {
  const view = useView();
  const { surfaceId } = useParams();
  const surface = view.surfaces.find((s) => s.id === surfaceId);
  if (!surface) return <NotFound what="zone" />;
  return <Girths key={surface.id} view={view} surface={surface} />;
}

const MOST_STATIONS = 60;

/**
 * Taping a zone, one station after the other, by thumb under the hull. Every figure is kept as soon as it is
 * typed; stations may be left out and come back to.
 */
function Girths({ view, surface }: { view: BoatView; surface: SurfaceRow }) {
  const { boat, hull } = view;
  const usualLength = surface.kind === 'underwater' || surface.kind === 'bootTop' ? boat.lwlM : boat.loaM;
  const [draft, setDraft] = useState<GirthRecord>(
    () => surface.area.girths ?? { even: true, stations: evenStations(9, usualLength, []) },
  );
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      draft.stations.findIndex((s) => s.halfGirthM === null),
    ),
  );
  const [importing, setImporting] = useState(false);
  const first = useRef<HTMLDivElement>(null);
  const ahead = useRef(0);
  const { stations } = draft;
  const current = stations[at] as GirthStation;
  const length = (stations[stations.length - 1] as GirthStation).xM - (stations[0] as GirthStation).xM;

  // Undo, or another device, changes what is kept: shown here too. What was sent from here comes back as itself.
  const kept = keyOf(surface.area.girths ?? null);
  const [sent, setSent] = useState(kept);
  const [seen, setSeen] = useState(kept);
  if (kept !== seen) {
    setSeen(kept);
    if (kept !== sent && surface.area.girths) setDraft(surface.area.girths);
  }

  const problem = useMemo(() => problemOf(stations), [stations]);
  const strays = useMemo(
    () =>
      problem
        ? []
        : strayGirths({ stationsM: stations.map((s) => s.xM), halfGirthsM: stations.map((s) => s.halfGirthM) }),
    [stations, problem],
  );
  const result = useMemo(
    () =>
      attempt(() =>
        areaBy({ ...surface, boat, hull: hull ?? NO_MODEL, area: { ...surface.area, girths: draft } }, 'girths'),
      ),
    [surface, draft, boat, hull],
  );
  const stray = strays.find((s) => s.index === at);
  const inUse = surface.area.method === 'girths';

  /** Keep a record that makes sense; what does not stands here with its sentence until it does. */
  const keep = (record: GirthRecord, label: string, method = surface.area.method) => {
    if (problemOf(record.stations)) return;
    const area = { ...surface.area, girths: record, method };
    if (keyOf(record) === kept && method === surface.area.method) return;
    setSent(keyOf(record));
    // Two figures in a breath: the second stands on the first, though the page has not heard of it yet.
    const version = Math.max(surface.version, ahead.current);
    ahead.current = version + 1;
    void save({ kind: 'surface', row: { ...surface, area, version } }, label).then((outcome) => {
      if (!outcome.ok) ahead.current = 0;
    });
  };
  const type = (change: Partial<GirthStation>) =>
    setDraft({ ...draft, stations: stations.map((s, i) => (i === at ? { ...s, ...change } : s)) });
  const commit = () => keep(draft, `Station ${at + 1} of ${surface.name}`);
  const go = (to: number) => {
    commit();
    setAt(Math.min(stations.length - 1, Math.max(0, to)));
    first.current?.querySelector('input')?.focus();
  };
  const lay = (next: GirthRecord, label: string) => {
    setDraft(next);
    setAt(Math.min(at, next.stations.length - 1));
    keep(next, label);
  };

  const profile = boatProfile(boat, { lines: linesOf(hull) });
  const origin = surface.kind === 'underwater' || surface.kind === 'bootTop' ? profile.waterline[0] : 0;
  const marks: StationMark[] = stations.map((s, i) => ({
    x: origin + s.xM,
    label: String(i + 1),
    state: s.halfGirthM === null ? 'gap' : strays.some((q) => q.index === i) ? 'stray' : 'done',
    current: i === at,
  }));
  const from =
    surface.kind === 'underwater' ? 'the waterline down to the centreline' : 'the rail down to the waterline';

  return (
    <div className="grid min-w-0 gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]">
      <div className="flex flex-wrap items-baseline gap-x-4 lg:col-span-2">
        <h1 className="text-2xl">Girths of {surface.name}</h1>
        <Link to={`/boats/${boat.id}/hull/${surface.id}`} className="link-row underline underline-offset-4">
          Back to the zone
        </Link>
      </div>
      <section className="min-w-0" aria-label="Where you are">
        <div className="mx-auto max-w-xl lg:max-w-none">
          <BoatDrawing
            boat={boat}
            zones={drawnZones(view)}
            lines={linesOf(hull)}
            bandM={bandOf(view.surfaces)}
            stations={marks}
            stands={false}
            selected={surface.id}
            label={`Station ${at + 1} of ${stations.length}`}
          />
        </div>
        <div className="mt-1 flex items-center gap-2">
          <button
            type="button"
            className="btn btn-square"
            aria-label="Station before"
            disabled={at === 0}
            onClick={() => go(at - 1)}
          >
            <ChevronLeft aria-hidden="true" />
          </button>
          <p className="narrow grow text-center text-xl font-semibold">
            Station {at + 1} of {stations.length}, <Fig quantity="length" value={current.xM} /> from aft
          </p>
          <button
            type="button"
            className="btn btn-square"
            aria-label="Next station"
            disabled={at === stations.length - 1}
            onClick={() => go(at + 1)}
          >
            <ChevronRight aria-hidden="true" />
          </button>
        </div>
        <div
          ref={first}
          className="mt-2 grid grid-cols-2 gap-3"
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return;
            e.preventDefault();
            go(at + 1);
          }}
        >
          <QuantityField
            key={`g${at}`}
            label="Half-girth"
            quantity="length"
            value={current.halfGirthM}
            onValue={(halfGirthM) => type({ halfGirthM })}
            hint={`From ${from}`}
          />
          <QuantityField
            key={`b${at}`}
            label="Half-breadth, if you can"
            quantity="length"
            value={current.halfBreadthM}
            onValue={(halfBreadthM) => type({ halfBreadthM })}
            hint="From the centreline out, for the slope"
          />
          {!draft.even && (
            <QuantityField
              key={`x${at}`}
              label="Position from aft"
              quantity="length"
              value={current.xM}
              onValue={(xM) => type({ xM: xM ?? Number.NaN })}
            />
          )}
        </div>
        {stray && (
          <p role="status" className="mt-2 border-l-4 border-warning pl-3">
            Off the curve of its neighbours, which gives <Fig quantity="length" value={stray.expectedM} />. Tape it
            again, or leave it if the hull really turns there.
          </p>
        )}
        <FormProblem message={problem} />
      </section>
      <section className="min-w-0" aria-label="All stations">
        <div className="ruled flex flex-wrap items-baseline justify-between gap-x-4 pb-1">
          {result.value ? (
            <p className="text-2xl">
              <Fig quantity="area" value={result.value.areaM2} />{' '}
              <span className="narrow text-lg quiet">± {shareWords(result.value.share)}</span>
            </p>
          ) : (
            <p className="quiet">{result.problem}</p>
          )}
          <button
            type="button"
            className="btn btn-primary"
            disabled={!result.value || inUse}
            onClick={() => keep(draft, `${surface.name} by girths`, 'girths')}
          >
            {inUse ? 'In use for this zone' : 'Use it for this zone'}
          </button>
        </div>
        {result.value && <Why working={result.value.working} />}
        <ol className="sheet-rule mt-1 sm:columns-2 sm:gap-8 lg:columns-1" aria-label="Stations">
          {stations.map((s, i) => (
            <li key={i} className="break-inside-avoid">
              <button
                type="button"
                aria-current={i === at ? 'step' : undefined}
                onClick={() => go(i)}
                className={`min-h-11 flex w-full items-center gap-3 text-left lg:min-h-8 ${i === at ? 'bg-base-200 font-semibold' : ''}`}
              >
                <span className="narrow w-8 text-lg">{i + 1}</span>
                <Fig quantity="length" value={s.xM} className="w-20" />
                <span className="grow text-right">
                  {s.halfGirthM === null || Number.isNaN(s.halfGirthM) ? (
                    <span className="quiet">to tape</span>
                  ) : (
                    <Fig
                      quantity="length"
                      value={s.halfGirthM}
                      className={marks[i]?.state === 'stray' ? 'text-warning' : ''}
                    />
                  )}
                </span>
                <span className="w-24 text-right">
                  {s.halfBreadthM === null || Number.isNaN(s.halfBreadthM) ? (
                    <span className="quiet">·</span>
                  ) : (
                    <Fig quantity="length" value={s.halfBreadthM} />
                  )}
                </span>
              </button>
            </li>
          ))}
        </ol>
        <details className="mt-2">
          <summary className="link-row cursor-pointer underline underline-offset-4">
            How the stations are laid out
          </summary>
          <div className="grid grid-cols-2 gap-3">
            <TextField
              label="How many"
              inputMode="numeric"
              defaultValue={stations.length}
              key={stations.length}
              onBlur={(e) => {
                const n = Math.round(Number(e.target.value));
                if (n >= 2 && n <= MOST_STATIONS && n !== stations.length)
                  lay({ ...draft, even: true, stations: evenStations(n, length, stations) }, `${n} stations`);
              }}
              hint={`2 to ${MOST_STATIONS}; an odd number is best`}
            />
            <EvenLength
              length={length}
              onLength={(l) =>
                lay({ even: true, stations: evenStations(stations.length, l, stations) }, 'Stations laid out')
              }
            />
          </div>
          <label className="min-h-11 mt-2 flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox"
              checked={!draft.even}
              onChange={(e) =>
                lay(
                  {
                    even: !e.target.checked,
                    stations: e.target.checked ? stations : evenStations(stations.length, length, stations),
                  },
                  'Stations laid out',
                )
              }
            />
            Own positions, not evenly spaced
          </label>
        </details>
        <p className="mt-1 flex flex-wrap gap-x-5">
          <button type="button" className="btn btn-ghost px-0" onClick={() => setImporting(true)}>
            <Upload size={18} aria-hidden="true" /> From CSV
          </button>
          <button
            type="button"
            className="btn btn-ghost px-0"
            onClick={() => void saveCsv(`${boat.name} ${surface.name} girths.csv`, girthCells(stations))}
          >
            <Download size={18} aria-hidden="true" /> As CSV
          </button>
        </p>
        {importing && (
          <GirthImport
            onClose={() => setImporting(false)}
            onTake={(taken) => {
              setImporting(false);
              lay({ even: false, stations: taken }, `${taken.length} girths brought in`);
            }}
          />
        )}
      </section>
    </div>
  );
}

/** Equal for records of the same figures, whatever the order of their keys. */
function keyOf(record: GirthRecord | null): string {
  return JSON.stringify(record && [record.even, record.stations.map((s) => [s.xM, s.halfGirthM, s.halfBreadthM])]);
}

function EvenLength({ length, onLength }: { length: number; onLength: (length: number) => void }) {
  const [value, setValue] = useState<number | null>(length);
  return (
    <div onBlur={() => value !== null && value > 0 && value !== length && onLength(value)}>
      <QuantityField
        label="From first to last"
        quantity="length"
        value={value}
        onValue={setValue}
        hint="Along the waterline or the rail"
      />
    </div>
  );
}

/** Stations evenly along a length; figures taped before stay with their number. */
function evenStations(count: number, lengthM: number, old: readonly GirthStation[]): GirthStation[] {
  return Array.from({ length: count }, (_, i) => ({
    xM: Number(((lengthM * i) / (count - 1)).toFixed(4)),
    halfGirthM: old[i]?.halfGirthM ?? null,
    halfBreadthM: old[i]?.halfBreadthM ?? null,
  }));
}

function problemOf(stations: readonly GirthStation[]): string | null {
  if (stations.some((s) => Number.isNaN(s.halfGirthM) || Number.isNaN(s.halfBreadthM)))
    return 'A figure cannot be read. Type it again, or leave it empty.';
  if (stations.some((s) => (s.halfGirthM ?? 0) < 0 || (s.halfBreadthM ?? 0) < 0))
    return 'A length cannot be less than zero.';
  return attempt(() => checkStations(stations.map((s) => s.xM))).problem;
}
