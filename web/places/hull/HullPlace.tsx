import { Box, Plus, Table2, Waves } from 'lucide-react';
import { Suspense } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { NO_MODEL } from '#core/model/area';
import { totalArea } from '#core/hull/netAreas';
import { zoneArea } from '#core/hull/zoneArea';
import { blockingWork } from '#core/coat/zoneState';
import { type ZoneStatus } from '#core/coat/zoneStatus';
import type { SurfaceRow } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import type { BoatView } from '../../data/store';
import { Fig } from '../../parts/Fig';
import { StateSwatch } from '../../parts/patterns';
import { useSpoken } from '../../parts/spoken';
import { Why } from '../../parts/Why';
import { drawnZones } from '../../parts/ZoneRegion';
import {
  AREA_METHOD_WORDS,
  EXISTING_WORDS,
  EXPOSURE_WORDS,
  MASKED_WORDS,
  OPEN_WORK_WORDS,
  PATCH_WORDS,
  SIDE_WORDS,
  SUBSTRATE_WORDS,
} from '../../parts/choiceWords';
import { shareWords } from '../../parts/words';
import { HullDrawing } from './HullDrawing';
import { bandOf, linesOf } from '../../parts/hullLines';
import { part } from '../../parts/part';

const ZoneForm = part(() => import('./ZoneForm'), 'ZoneForm');

/** The boat drawn from the best that is known of her, her zones and patches, their areas and how they were found. */
export function HullPlace() {
  const view = useView();
  const { surfaceId } = useParams();
  const makingPatch = useLocation().pathname.endsWith('/patch');
  const navigate = useNavigate();
  const { boat, surfaces, hull } = view;
  const say = useSpoken();
  const base = `/boats/${boat.id}/hull`;
  const selected = surfaces.find((s) => s.id === surfaceId) ?? null;
  if (surfaceId && surfaceId !== 'new' && !selected) return <NotFound what="zone" />;
  const total = totalArea(surfaces);
  const parentOf = (zone: SurfaceRow | null) => surfaces.find((s) => s.id === zone?.parentId) ?? null;
  // A form that is done with is not gone back to.
  const back = () => void navigate(base, { replace: true });
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,6fr)]">
      <section className="min-w-0 self-start lg:sticky lg:top-3" aria-label="Drawing">
        <HullDrawing
          boat={boat}
          zones={drawnZones(view)}
          lines={linesOf(hull)}
          bandM={bandOf(surfaces)}
          selected={surfaceId ?? null}
          onPick={(id) => void navigate(`${base}/${id}`)}
        />
        <dl className="narrow mt-2 grid grid-cols-3 gap-x-6 gap-y-1 border-t border-base-300 pt-2 text-base sm:grid-cols-6">
          {(
            [
              ['overall', boat.loaM, 'loaM'],
              ['waterline', boat.lwlM, 'lwlM'],
              ['beam', boat.beamM, 'beamM'],
              ['draught', boat.draftM, 'draftM'],
              ['freeboard', boat.freeboardM, 'freeboardM'],
            ] as const
          ).map(([label, value, figure]) => (
            <div key={label}>
              <dt className="quiet">{say(label)}</dt>
              <dd>
                <Fig quantity="length" value={value} approx={boat.estimated.includes(figure)} />
              </dd>
            </div>
          ))}
          <div>
            <dt className="quiet">all zones</dt>
            <dd>
              <Fig quantity="area" value={total.areaM2} approx={total.share > 0.1} />
              {surfaces.length > 0 && <span className="quiet block">± {shareWords(total.share)}</span>}
            </dd>
          </div>
        </dl>
        <HullLinks view={view} base={base} />
        <WorkAndMasks surfaces={surfaces} />
      </section>
      <div className="min-w-0">
        <Suspense fallback={<div className="skeleton h-64 rounded-sm" role="status" aria-label="Loading the zone" />}>
          {surfaceId === 'new' ? (
            <ZoneForm key="new" view={view} surface={null} parent={null} onDone={back} />
          ) : selected && makingPatch ? (
            <ZoneForm key={`${selected.id} patch`} view={view} surface={null} parent={selected} onDone={back} />
          ) : selected ? (
            <ZoneForm key={selected.id} view={view} surface={selected} parent={parentOf(selected)} onDone={back} />
          ) : (
            <ZoneList view={view} base={base} />
          )}
        </Suspense>
      </div>
    </div>
  );
}

/** What is known of the hull as a whole, and where it is changed. */
function HullLinks({ view, base }: { view: BoatView; base: string }) {
  const { boat, hull } = view;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-x-5 text-sm">
      <Link to={`/boats/${boat.id}/edit`} className="link-row underline underline-offset-4">
        Change the dimensions
      </Link>
      <Link to={`${base}/offsets`} className="link-row gap-1 underline underline-offset-4">
        <Table2 size={16} aria-hidden="true" /> {hull?.offsets ? 'Table of offsets' : 'Type or import offsets'}
      </Link>
      <Link to={`${base}/mesh`} className="link-row gap-1 underline underline-offset-4">
        <Box size={16} aria-hidden="true" /> {hull?.mesh ? 'Mesh of the hull' : 'Bring in a mesh'}
      </Link>
      <Link to={`${base}/waterline`} className="link-row gap-1 underline underline-offset-4">
        <Waves size={16} aria-hidden="true" /> Waterline
      </Link>
    </p>
  );
}

function ZoneList({ view, base }: { view: BoatView; base: string }) {
  const { surfaces, statuses } = view;
  const statusOf = (id: string) => statuses.find((s) => s.surfaceId === id);
  return (
    <section aria-labelledby="zones">
      <div className="ruled flex items-center gap-3 pb-1">
        <h1 id="zones" className="mr-auto text-2xl">
          Zones
        </h1>
        <Link to={`${base}/new`} className="btn btn-primary">
          <Plus size={18} aria-hidden="true" /> Add a zone
        </Link>
      </div>
      {surfaces.length === 0 && (
        <p className="max-w-prose py-3">
          Start with what gets painted first. “Underwater hull” takes its area from the boat’s dimensions; a tape along
          the hull, her drawings or the litres of the first coat will make it better.
        </p>
      )}
      <ul className="sheet-rule">
        {surfaces
          .filter((s) => !s.parentId)
          .map((s) => (
            <li key={s.id} className="py-1">
              <ZoneRow view={view} base={base} surface={s} status={statusOf(s.id)} />
              <ul className="ml-5 border-l border-base-300 pl-3">
                {surfaces
                  .filter((p) => p.parentId === s.id)
                  .map((p) => (
                    <li key={p.id}>
                      <ZoneRow view={view} base={base} surface={p} status={statusOf(p.id)} />
                    </li>
                  ))}
              </ul>
            </li>
          ))}
      </ul>
    </section>
  );
}

function ZoneRow({
  view,
  base,
  surface: s,
  status,
}: {
  view: BoatView;
  base: string;
  surface: SurfaceRow;
  status: ZoneStatus | undefined;
}) {
  const { boat, hull } = view;
  const say = useSpoken();
  const open = blockingWork(s);
  return (
    <div className="flex items-center gap-3 py-0.5">
      <StateSwatch state={status?.state ?? 'ready'} colour={status?.colourHex ?? null} size={s.parentId ? 20 : 28} />
      <div className="min-w-0 flex-1">
        <div className="flex flex-wrap items-baseline gap-x-4">
          <Link
            to={`${base}/${s.id}`}
            className="link-row font-semibold underline decoration-1 underline-offset-4 lg:min-h-8"
          >
            {s.name}
          </Link>
          {!s.parentId && (
            <Link
              to={`${base}/${s.id}/patch`}
              className="link-row text-sm underline decoration-1 underline-offset-4 lg:min-h-7"
              aria-label={`Add a patch to ${s.name}`}
            >
              + patch
            </Link>
          )}
        </div>
        <div className="flex flex-wrap items-baseline gap-x-4">
          <p className="text-sm quiet">
            {s.patchKind
              ? PATCH_WORDS[s.patchKind]
              : `${say(SUBSTRATE_WORDS[s.substrate])} · ${EXISTING_WORDS[s.existing].toLowerCase()} · ${EXPOSURE_WORDS[s.exposure].toLowerCase()}`}
            {s.side !== 'both' && ` · ${SIDE_WORDS[s.side].toLowerCase()}`}
          </p>
          <Why working={zoneArea({ ...s, boat, hull: hull ?? NO_MODEL }).working} />
        </div>
        {open.length > 0 && (
          <p className="text-sm font-semibold">Open: {open.map((w) => w.note || w.kind).join('; ')}</p>
        )}
      </div>
      <p className="max-w-[9rem] shrink-0 text-right sm:max-w-none">
        <Fig
          quantity="area"
          value={s.areaM2}
          approx={s.area.method === 'dimensions' || s.area.method === 'denny'}
          className={s.parentId ? 'text-lg' : 'text-xl'}
        />
        <span className="narrow block text-base quiet">
          ± {shareWords(s.areaShare)} · {AREA_METHOD_WORDS[s.area.method].toLowerCase()}
        </span>
        {s.grossM2 - s.areaM2 > 1e-6 && (
          <span className="narrow block text-sm quiet">
            patches out of <Fig quantity="area" value={s.grossM2} />
          </span>
        )}
      </p>
    </div>
  );
}

/** Beneath the drawing, where there is room: what is to be done and masked before paint, over all zones. */
function WorkAndMasks({ surfaces }: { surfaces: readonly SurfaceRow[] }) {
  const work = surfaces.flatMap((s) => blockingWork(s).map((w) => ({ ...w, zone: s.name })));
  const masks = surfaces.flatMap((s) => s.maskList.map((m) => ({ ...m, zone: s.name })));
  return (
    <div className="mt-3 hidden gap-x-8 gap-y-3 lg:grid lg:grid-cols-2">
      <div>
        <h2 className="ruled pb-1">To do before paint</h2>
        {work.length === 0 && <p className="py-1.5 quiet">Nothing is open.</p>}
        <ul className="sheet-rule">
          {work.map((w) => (
            <li key={`${w.zone}${w.id}`} className="py-1.5">
              <span className="font-semibold">{w.zone}</span> {OPEN_WORK_WORDS[w.kind].toLowerCase()}
              {w.note && <span className="block text-sm quiet">{w.note}</span>}
            </li>
          ))}
        </ul>
      </div>
      <div>
        <h2 className="ruled pb-1">To mask or take off</h2>
        {masks.length === 0 && <p className="py-1.5 quiet">Nothing is listed on a zone.</p>}
        <ul className="sheet-rule">
          {masks.map((m) => (
            <li key={m.id} className="py-1.5">
              <span className="fig">{m.count} ×</span> {MASKED_WORDS[m.thing].toLowerCase()}{' '}
              <span className="quiet">{m.zone}</span>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
