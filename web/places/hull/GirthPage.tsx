import { ChevronLeft, ChevronRight, Download, Upload } from 'lucide-react';
import { useRef, useState, type RefObject } from 'react';
import { Link, useParams } from 'react-router';
import { evenStations, MOST_STATIONS } from '#core/hull/stations';
import { boatProfile } from '#core/hull/profile';
import { girthCells } from '#core/hull/tables';
import { type GirthStation } from '#core/model/area';
import type { SurfaceRow, Boat, HullRow } from '#contracts/rows/boat';
import type { StrayGirth } from '#core/hull/girths';
import { useGirths } from './useGirths';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import { type BoatView } from '../../data/store';
import { BoatDrawing, type StationMark } from '../../parts/BoatDrawing';
import { FormProblem, QuantityField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { bandOf, linesOf } from '../../parts/hullLines';
import { saveCsv } from '../../parts/saveText';
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

/**
 * Taping a zone, one station after the other, by thumb under the hull. Every figure is kept as soon as it is
 * typed; stations may be left out and come back to.
 */
function Girths({ view, surface }: { view: BoatView; surface: SurfaceRow }) {
  const first = useRef<HTMLDivElement>(null);
  const g = useGirths(view, surface, first);

  const marks = stationMarks({ boat: g.boat, hull: g.hull, surface, stations: g.stations, strays: g.strays, at: g.at });

  const from =
    surface.kind === 'underwater' ? 'the waterline down to the centreline' : 'the rail down to the waterline';

  return (
    <div className="grid min-w-0 gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]">
      <div className="flex flex-wrap items-baseline gap-x-4 lg:col-span-2">
        <h1 className="text-2xl">Girths of {surface.name}</h1>
        <Link to={`/boats/${g.boat.id}/hull/${surface.id}`} className="link-row underline underline-offset-4">
          Back to the zone
        </Link>
      </div>
      <AtStation g={g} first={first} view={view} marks={marks} surface={surface} from={from} />
      <AllStations g={g} surface={surface} marks={marks} />
    </div>
  );
}

/** The station that is being taped. */
function AtStation({
  g,
  first,
  view,
  marks,
  surface,
  from,
}: {
  g: ReturnType<typeof useGirths>;
  first: RefObject<HTMLDivElement | null>;
  view: BoatView;
  marks: StationMark[];
  surface: SurfaceRow;
  from: 'the waterline down to the centreline' | 'the rail down to the waterline';
}) {
  return (
    <section className="min-w-0" aria-label="Where you are">
      <div className="mx-auto max-w-xl lg:max-w-none">
        <BoatDrawing
          boat={g.boat}
          zones={drawnZones(view)}
          lines={linesOf(g.hull)}
          bandM={bandOf(view.surfaces)}
          stations={marks}
          stands={false}
          selected={surface.id}
          label={`Station ${g.at + 1} of ${g.stations.length}`}
        />
      </div>
      <StationSteps g={g} />
      <StationFields g={g} first={first} from={from} />
      {g.stray && (
        <p role="status" className="mt-2 border-l-4 border-warning pl-3">
          Off the curve of its neighbours, which gives <Fig quantity="length" value={g.stray.expectedM} />. Tape it
          again, or leave it if the hull really turns there.
        </p>
      )}
      <FormProblem message={g.problem} />
    </section>
  );
}

function StationSteps({ g }: { g: ReturnType<typeof useGirths> }) {
  return (
    <div className="mt-1 flex items-center gap-2">
      <button
        type="button"
        className="btn btn-square"
        aria-label="Station before"
        disabled={g.at === 0}
        onClick={() => g.go(g.at - 1)}
      >
        <ChevronLeft aria-hidden="true" />
      </button>
      <p className="narrow grow text-center text-xl font-semibold">
        Station {g.at + 1} of {g.stations.length}, <Fig quantity="length" value={g.current.xM} /> from aft
      </p>
      <button
        type="button"
        className="btn btn-square"
        aria-label="Next station"
        disabled={g.at === g.stations.length - 1}
        onClick={() => g.go(g.at + 1)}
      >
        <ChevronRight aria-hidden="true" />
      </button>
    </div>
  );
}

function StationFields({
  g,
  first,
  from,
}: {
  g: ReturnType<typeof useGirths>;
  first: RefObject<HTMLDivElement | null>;
  from: 'the waterline down to the centreline' | 'the rail down to the waterline';
}) {
  return (
    <div
      ref={first}
      className="mt-2 grid grid-cols-2 gap-3"
      onBlur={g.commit}
      onKeyDown={(e) => {
        if (e.key !== 'Enter') return;
        e.preventDefault();
        g.go(g.at + 1);
      }}
    >
      <QuantityField
        key={`g${g.at}`}
        label="Half-girth"
        quantity="length"
        value={g.current.halfGirthM}
        onValue={(halfGirthM) => g.type({ halfGirthM })}
        hint={`From ${from}`}
      />
      <QuantityField
        key={`b${g.at}`}
        label="Half-breadth, if you can"
        quantity="length"
        value={g.current.halfBreadthM}
        onValue={(halfBreadthM) => g.type({ halfBreadthM })}
        hint="From the centreline out, for the slope"
      />
      {!g.draft.even && (
        <QuantityField
          key={`x${g.at}`}
          label="Position from aft"
          quantity="length"
          value={g.current.xM}
          onValue={(xM) => g.type({ xM: xM ?? Number.NaN })}
        />
      )}
    </div>
  );
}

/** All stations and the area they give. */
function AllStations({
  g,
  surface,
  marks,
}: {
  g: ReturnType<typeof useGirths>;
  surface: SurfaceRow;
  marks: StationMark[];
}) {
  return (
    <section className="min-w-0" aria-label="All stations">
      <div className="ruled flex flex-wrap items-baseline justify-between gap-x-4 pb-1">
        {g.result.value ? (
          <p className="text-2xl">
            <Fig quantity="area" value={g.result.value.areaM2} />{' '}
            <span className="narrow text-lg quiet">± {shareWords(g.result.value.share)}</span>
          </p>
        ) : (
          <p className="quiet">{g.result.problem}</p>
        )}
        <button
          type="button"
          className="btn btn-primary"
          disabled={!g.result.value || g.inUse}
          onClick={() => g.keep(g.draft, `${surface.name} by girths`, 'girths')}
        >
          {g.inUse ? 'In use for this zone' : 'Use it for this zone'}
        </button>
      </div>
      {g.result.value && <Why working={g.result.value.working} />}
      <StationList g={g} marks={marks} />
      <StationLayout g={g} />
      <p className="mt-1 flex flex-wrap gap-x-5">
        <button type="button" className="btn btn-ghost px-0" onClick={() => g.setImporting(true)}>
          <Upload size={18} aria-hidden="true" /> From CSV
        </button>
        <button
          type="button"
          className="btn btn-ghost px-0"
          onClick={() => void saveCsv(`${g.boat.name} ${surface.name} girths.csv`, girthCells(g.stations))}
        >
          <Download size={18} aria-hidden="true" /> As CSV
        </button>
      </p>
      {g.importing && (
        <GirthImport
          onClose={() => g.setImporting(false)}
          onTake={(taken) => {
            g.setImporting(false);
            g.lay({ even: false, stations: taken }, `${taken.length} girths brought in`);
          }}
        />
      )}
    </section>
  );
}

function StationList({ g, marks }: { g: ReturnType<typeof useGirths>; marks: StationMark[] }) {
  return (
    <ol className="sheet-rule mt-1 sm:columns-2 sm:gap-8 lg:columns-1" aria-label="Stations">
      {g.stations.map((s, i) => (
        <li key={i} className="break-inside-avoid">
          <button
            type="button"
            aria-current={i === g.at ? 'step' : undefined}
            onClick={() => g.go(i)}
            className={`min-h-11 flex w-full items-center gap-3 text-left lg:min-h-8 ${i === g.at ? 'bg-base-200 font-semibold' : ''}`}
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
  );
}

function StationLayout({ g }: { g: ReturnType<typeof useGirths> }) {
  return (
    <details className="mt-2">
      <summary className="link-row cursor-pointer underline underline-offset-4">How the stations are laid out</summary>
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label="How many"
          inputMode="numeric"
          defaultValue={g.stations.length}
          key={g.stations.length}
          onBlur={(e) => {
            const n = Math.round(Number(e.target.value));
            if (n >= 2 && n <= MOST_STATIONS && n !== g.stations.length)
              g.lay({ ...g.draft, even: true, stations: evenStations(n, g.length, g.stations) }, `${n} stations`);
          }}
          hint={`2 to ${MOST_STATIONS}; an odd number is best`}
        />
        <EvenLength
          length={g.length}
          onLength={(l) =>
            g.lay({ even: true, stations: evenStations(g.stations.length, l, g.stations) }, 'Stations laid out')
          }
        />
      </div>
      <label className="min-h-11 mt-2 flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={!g.draft.even}
          onChange={(e) =>
            g.lay(
              {
                even: !e.target.checked,
                stations: e.target.checked ? g.stations : evenStations(g.stations.length, g.length, g.stations),
              },
              'Stations laid out',
            )
          }
        />
        Own positions, not evenly spaced
      </label>
    </details>
  );
}

/** Where the stations lie on the drawing of the boat. */
function stationMarks({
  boat,
  hull,
  surface,
  stations,
  strays,
  at,
}: {
  boat: Boat;
  hull: HullRow | null;
  surface: SurfaceRow;
  stations: readonly GirthStation[];
  strays: StrayGirth[];
  at: number;
}) {
  const profile = boatProfile(boat, { lines: linesOf(hull) });
  const origin = surface.kind === 'underwater' || surface.kind === 'bootTop' ? profile.waterline[0] : 0;
  const marks: StationMark[] = stations.map((s, i) => ({
    x: origin + s.xM,
    label: String(i + 1),
    state: s.halfGirthM === null ? 'gap' : strays.some((q) => q.index === i) ? 'stray' : 'done',
    current: i === at,
  }));
  return marks;
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
