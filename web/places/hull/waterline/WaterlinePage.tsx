import { Download, Plus } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { lineCells } from '#core/waterline/lineTable';
import { useView } from '../../../app/BoatShell';
import type { BoatView } from '../../../data/store';
import { Fig } from '../../../parts/Fig';
import { saveCsv, saveText } from '../../../parts/saveText';
import { EvidenceForm, EvidenceList } from './Evidence';
import { LineDrawing } from './LineDrawing';
import { LinePanel } from './LinePanel';
import { lineSvg } from './lineSvg';
import { MarkForm, MarkList } from './Marks';
import { SetOff } from './SetOff';
import { StandingForm, StandingLine } from './StandingForm';
import { newLine, useWaterline, type Waterline } from './useWaterline';
import { Weights } from './Weights';

/** The waterline found, faired and put where it is to be: how she stands, marks, candidate lines, weight to come. */
export function WaterlinePage() {
  const view = useView();
  const w = useWaterline(view);
  const { boat } = view;
  const [open, setOpen] = useState<string | null>(w.log.stood ? (w.line ? 'line' : 'marks') : 'stood');
  const part = (key: string, title: string, said: ReactNode, inside: ReactNode) => (
    <Part title={title} said={said} open={open === key} onToggle={() => setOpen(open === key ? null : key)}>
      {inside}
    </Part>
  );
  const add = () => void w.setLine(newLine(`Line ${w.lines.length + 1}`), 'Line begun').then(() => setOpen('marks'));
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
      <div className="ruled flex flex-wrap items-center gap-3 pb-1 lg:col-span-2">
        <h1 className="mr-auto text-2xl">Waterline of {boat.name}</h1>
        <Out view={view} waterline={w} />
        <button type="button" className="btn" onClick={add}>
          <Plus size={18} aria-hidden="true" /> Line
        </button>
        <Link to={`/boats/${boat.id}/hull`} className="btn">
          Back to Hull
        </Link>
      </div>
      <section className="min-w-0 self-start lg:sticky lg:top-3" aria-label="Drawing">
        <LineDrawing view={view} waterline={w} />
        <p className="text-sm quiet">
          {w.shape.known === 'dimensions'
            ? 'Her shape is drawn from her dimensions: breadths and flare are by eye until offsets or a mesh are known.'
            : `Her shape is from her ${w.shape.known}.`}{' '}
          A first line is provisional until she has floated loaded.
        </p>
        <p className="narrow mt-1 flex flex-wrap gap-x-5 text-base quiet">
          <span>whole: the line</span>
          <span>dashes: other candidates</span>
          <span>○ marks, × strays</span>
          <span>◇ where it was, with its ±</span>
          <span>dots: the water with the weights to come</span>
        </p>
      </section>
      <div className="min-w-0">
        {part('stood', 'How she stands', <StandingLine waterline={w} />, <StandingForm view={view} waterline={w} />)}
        {part(
          'marks',
          'Marks',
          w.line
            ? `${w.line.marks.length}${w.line.faired?.strays.length ? `, ${w.line.faired.strays.length} stray` : ''}`
            : 'none yet',
          <>
            <MarkForm view={view} waterline={w} />
            <MarkList view={view} waterline={w} />
          </>,
        )}
        {part('line', 'Lines', w.line?.line.name ?? 'none yet', <LinePanel waterline={w} />)}
        {part(
          'evidence',
          'Where it was',
          w.log.evidence.length === 0 ? 'nothing noted' : String(w.log.evidence.length),
          <>
            <EvidenceForm view={view} waterline={w} />
            <EvidenceList view={view} waterline={w} />
          </>,
        )}
        {part(
          'weights',
          'Weight to come',
          w.water.value && w.water.value.addedKg !== 0 ? (
            <>
              <Fig quantity="width" value={w.water.value.sinkM} /> deeper
            </>
          ) : (
            'none'
          ),
          <Weights view={view} waterline={w} />,
        )}
        {part('setOff', 'Set it off', `${w.table.length} stations`, <SetOff view={view} waterline={w} />)}
      </div>
    </div>
  );
}

/** One part of the work, opened in its turn. */
function Part({
  title,
  said,
  open,
  onToggle,
  children,
}: {
  title: string;
  said: ReactNode;
  open: boolean;
  onToggle: () => void;
  children: ReactNode;
}) {
  return (
    <details open={open} className="border-b border-base-300">
      <summary
        className="link-row w-full cursor-pointer justify-between gap-4"
        onClick={(e) => {
          e.preventDefault();
          onToggle();
        }}
      >
        <span className="narrow text-xl font-semibold">{title}</span>
        <span className="min-w-0 text-right quiet">{said}</span>
      </summary>
      {open && <div className="flex flex-col gap-3 pb-4">{children}</div>}
    </details>
  );
}

/** The line as a table and as a drawing, to take to the hull or to keep once primer hides it. */
function Out({ view, waterline: w }: { view: BoatView; waterline: Waterline }) {
  if (!w.line) return null;
  const { name } = view.boat;
  return (
    <>
      <button type="button" className="btn" onClick={() => void saveCsv(`${name} waterline.csv`, lineCells(w.table))}>
        <Download size={18} aria-hidden="true" /> Table
      </button>
      <button
        type="button"
        className="btn"
        onClick={() => saveText(`${name} waterline.svg`, lineSvg(view, w), 'image/svg+xml')}
      >
        <Download size={18} aria-hidden="true" /> SVG
      </button>
    </>
  );
}
