import { Pencil } from 'lucide-react';
import { useFormContext } from 'react-hook-form';
import { BOOT_TOP_BAND_M } from '#core/hull/area';
import { WEAR_PLACES } from '#core/hull/wear';
import { areaBy, methodsFor } from '#core/hull/zoneArea';
import { type AreaQuestion, usualPart, usualRange } from '#core/hull/areaMethods';
import { MESH_PARTS, type AreaMethod } from '#core/model/area';
import { spreadOf } from '#core/hull/uncertainty';
import type { ZoneArea } from '#core/hull/area';
import type { BoatView } from '../../data/store';
import { attempt } from '../../parts/attempt';
import { Fig } from '../../parts/Fig';
import { FormNumber, FormQuantity, FormTick, FormSelect } from '../../parts/form';
import { Why } from '../../parts/Why';
import { AREA_METHOD_WORDS, MESH_PART_WORDS, WEAR_WORDS } from '../../parts/choiceWords';
import { Term } from '../../parts/Term';
import { shareWords } from '../../parts/words';
import { paintedCoats } from '../../parts/painted';

const ESTIMATES = new Set<AreaMethod>(['dimensions', 'denny']);

type Page = 'girths' | 'shapes' | 'offsets' | 'mesh';
const PAGES: Partial<Record<AreaMethod, { page: Page; words: string }>> = {
  girths: { page: 'girths', words: 'Tape' },
  shapes: { page: 'shapes', words: 'Shapes' },
  offsets: { page: 'offsets', words: 'Offsets' },
  mesh: { page: 'mesh', words: 'Mesh' },
};

/**
 * The ways to the zone's area, side by side: which is in use, what each gives and how well, and how far they are
 * apart. The figures of the one in use are typed here, or on a page of their own.
 */
export function AreaMethods({
  view,
  surfaceId,
  question,
  onPick,
  onMeasure,
}: {
  view: BoatView;
  surfaceId: string;
  question: AreaQuestion;
  onPick: (method: AreaMethod) => void;
  onMeasure: (page: Page) => void;
}) {
  const { kind, patchKind = null, area } = question;
  // A method that lacks its figures says so itself.
  const found = methodsFor(kind, patchKind).map((method) => {
    const { value: area, problem } = attempt(() => areaBy(question, method));
    return { method, area, problem };
  });
  const areas = found.flatMap((f) => (f.area ? [f.area.areaM2] : []));
  const spread = spreadOf(areas);
  const inUse = found.find((f) => f.method === area.method);
  return (
    <fieldset className="border-t border-base-300 pt-2">
      <legend className="sr-only">Area</legend>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <span className="lab">Area, by the way in use</span>
        {inUse?.area ? (
          <span className="text-right">
            <Fig quantity="area" value={inUse.area.areaM2} approx={ESTIMATES.has(area.method)} className="text-3xl" />{' '}
            <span className="narrow text-lg quiet">± {shareWords(inUse.area.share)}</span>
          </span>
        ) : (
          <span className="max-w-sm text-sm quiet">{inUse?.problem}</span>
        )}
      </div>
      <div className="sheet-rule mt-1" role="radiogroup" aria-label="How the area is found">
        {found.map(({ method, area: result, problem }) => (
          <OneMethod
            key={method}
            method={method}
            on={method === area.method}
            result={result}
            problem={problem}
            onPick={onPick}
            onMeasure={onMeasure}
            asked={{ question, view, surfaceId }}
          />
        ))}
      </div>
      {spread !== null && (
        <p className="text-sm quiet">
          {areas.length} ways done, from <Fig quantity="area" value={Math.min(...areas)} /> to{' '}
          <Fig quantity="area" value={Math.max(...areas)} />: {shareWords(spread)} apart.
        </p>
      )}
    </fieldset>
  );
}

function OneMethod({
  method,
  on,
  result,
  problem,
  onPick,
  onMeasure,
  asked,
}: {
  method: AreaMethod;
  on: boolean;
  result: ZoneArea | null;
  problem: string | null;
  onPick: (method: AreaMethod) => void;
  onMeasure: (page: Page) => void;
  asked: FiguresOf;
}) {
  const page = PAGES[method];
  const Figures = FIGURES[method];
  return (
    <div className={on ? 'border-l-4 border-base-content bg-base-200 pl-2' : 'pl-3'}>
      <div className="flex items-center gap-2">
        <label className="min-h-11 flex min-w-0 grow items-center gap-2">
          <input
            type="radio"
            name="area-method"
            className="radio radio-sm"
            value={method}
            checked={on}
            onChange={() => onPick(method)}
          />
          <span className={`min-w-0 ${on ? 'font-semibold' : ''}`}>{AREA_METHOD_WORDS[method]}</span>
        </label>
        <span className="narrow shrink-0 text-right">
          {result ? (
            <>
              <Fig quantity="area" value={result.areaM2} approx={ESTIMATES.has(method)} className="text-lg" />{' '}
              <span className="quiet">± {shareWords(result.share)}</span>
            </>
          ) : (
            <span className="quiet" title={problem ?? undefined}>
              not done
            </span>
          )}
        </span>
        {page && (
          <button type="button" className="btn btn-ghost px-2" onClick={() => onMeasure(page.page)}>
            <Pencil size={16} aria-hidden="true" /> {page.words}
          </button>
        )}
      </div>
      {on && (
        <div className="pb-2">
          {Figures && <Figures {...asked} />}
          {result && <Why working={result.working} />}
        </div>
      )}
    </div>
  );
}

/** What the figures of a method are asked for. */
interface FiguresOf {
  question: AreaQuestion;
  view: BoatView;
  surfaceId: string;
}

/** Methods whose figures are few enough to be typed here. */
const FIGURES: Partial<Record<AreaMethod, (props: FiguresOf) => React.ReactNode>> = {
  typed: TypedFigures,
  dimensions: DimensionFigures,
  denny: DennyFigures,
  offsets: OffsetFigures,
  mesh: MeshFigures,
  band: BandFigures,
  calibrated: Painted,
};

const GRID = 'grid grid-cols-1 gap-3 sm:grid-cols-2';

function TypedFigures() {
  return (
    <div className={GRID}>
      <FormQuantity name="area.typed.areaM2" label="Area" quantity="area" />
      <FormQuantity
        name="area.typed.share"
        label="± how far off it may be"
        quantity="percent"
        hint="Taped 5 %, by eye 20 %"
      />
    </div>
  );
}

function DimensionFigures(props: FiguresOf) {
  const { kind } = props.question;
  return (
    <>
      <OwnDimension {...props} />
      {(kind === 'underwater' || kind === 'topsides') && (
        <FormTick name="area.dimensions.lapped" label="Lapped planking: a tenth more skin" />
      )}
    </>
  );
}

/** What the zone itself adds to the boat's dimensions. */
function OwnDimension({ question, view, surfaceId }: FiguresOf) {
  if (question.kind === 'underwater') {
    const keelsApart = view.surfaces.some(
      (s) => s.id !== surfaceId && !s.parentId && (s.kind === 'keel' || s.kind === 'rudder'),
    );
    return (
      <FormQuantity
        name="area.dimensions.draftM"
        label="Draught to reckon with"
        quantity="length"
        placeholder={view.boat.draftM}
        hint={
          keelsApart
            ? 'Keel or rudder are zones of their own: type the draught of the canoe body, so that they are not counted twice.'
            : 'Left empty, the draught overall: keel and rudder are then included.'
        }
      />
    );
  }
  if (question.kind === 'deck')
    return <FormQuantity name="area.dimensions.openingsM2" label="Openings to take off" quantity="area" />;
  if (question.kind === 'bootTop')
    return (
      <FormQuantity
        name="area.dimensions.bandM"
        label="Height of the band"
        quantity="length"
        placeholder={BOOT_TOP_BAND_M}
      />
    );
  return null;
}

function DennyFigures({ view }: FiguresOf) {
  return (
    <div className={GRID}>
      <FormQuantity
        name="area.denny.displacedM3"
        label="Displaced volume"
        quantity="volume"
        scale={1000}
        inputMode="text"
        hint={
          <>
            Her mass in tonnes over 1.025 (sea water): type it like 4.2 m3. <Term of="denny">Denny–Mumford?</Term>
          </>
        }
      />
      <FormQuantity
        name="area.denny.draftM"
        label="Draught of the body"
        quantity="length"
        placeholder={view.boat.draftM}
      />
    </div>
  );
}

function OffsetFigures({ question }: FiguresOf) {
  const usual = usualRange(question.kind);
  return (
    <div className={GRID}>
      <FormQuantity
        name="area.offsets.fromM"
        label="From, above the waterline"
        quantity="length"
        placeholder={usual.fromM ?? 'the bottom'}
        hint="Left empty, from the bottom"
      />
      <FormQuantity
        name="area.offsets.toM"
        label="Up to, above the waterline"
        quantity="length"
        placeholder={usual.toM ?? 'the rail'}
        hint="Left empty, up to the rail"
      />
    </div>
  );
}

function MeshFigures({ question }: FiguresOf) {
  return (
    <FormSelect
      name="area.mesh.part"
      label={`Part of the mesh, usually: ${MESH_PART_WORDS[usualPart(question.kind)].toLowerCase()}`}
      options={MESH_PARTS.map((part) => [part, MESH_PART_WORDS[part]] as const)}
    />
  );
}

function BandFigures() {
  return (
    <div className={GRID}>
      <FormSelect
        name="area.band.place"
        label="Where it wears"
        options={WEAR_PLACES.map((place) => [place, WEAR_WORDS[place]] as const)}
      />
      <FormQuantity name="area.band.widthM" label="Width, round the edge" quantity="length" />
      <FormQuantity
        name="area.band.lengthM"
        label="Length, if taped"
        quantity="length"
        hint="Left empty, it comes from the hull"
      />
    </div>
  );
}

function Painted({ view, surfaceId }: FiguresOf) {
  const { setValue } = useFormContext();
  const coats = paintedCoats(view, surfaceId);
  return (
    <>
      {coats.length > 0 && (
        <div className="mb-2 flex flex-wrap gap-2">
          {coats.map(({ coat, name, litres, wetFilmMicron, readings }) => (
            <button
              key={coat.id}
              type="button"
              className="btn"
              onClick={() =>
                setValue(
                  'area.calibrated',
                  { coatId: coat.id, litres, wetFilmMicron, readings, thinner: 0 },
                  { shouldDirty: true },
                )
              }
            >
              Take {name}: <Fig quantity="volume" value={litres} /> at <Fig quantity="film" value={wetFilmMicron} />
            </button>
          ))}
        </div>
      )}
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        <FormQuantity
          name="area.calibrated.litres"
          label="Litres of the film, thinner included"
          quantity="volume"
          hint="On the hull, without what a blast profile, edges and tray took"
        />
        <FormQuantity name="area.calibrated.wetFilmMicron" label="Mean wet film" quantity="film" />
        <FormNumber name="area.calibrated.readings" label="Comb readings" hint="More readings, smaller ±" />
      </div>
    </>
  );
}
