import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Finding } from '#core/system/stack';
import type { Unit } from '#core/units/quantities';
import { ABRADE_FOR_WORDS } from '../../../parts/choiceWords';
import { Fig } from '../../../parts/Fig';
import { FindingMark } from '../FindingMark';
import type { SectionCoat } from './coat';
import type { Pitch } from './layout';

interface RowProps {
  pitch: Pitch;
  coat: SectionCoat;
  index: number;
  under: string;
  /** Litres of all coats in one unit. */
  unit: Unit | undefined;
  /** Those about this coat only. */
  findings: readonly Finding[];
  selected: boolean;
  onPick: (layerId: string) => void;
  onFinding: (finding: Finding) => void;
  onInsert?: ((at: number) => void) | undefined;
  movable: boolean;
}

export function CoatRow({
  pitch,
  coat,
  index,
  under,
  unit,
  findings,
  selected,
  onPick,
  onFinding,
  onInsert,
  movable,
}: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: coat.layer.id,
    disabled: !movable,
  });
  const own = findings.filter((f) => f.lower === null);
  const between = findings.filter((f) => f.lower !== null);
  const { layer } = coat;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition, height: pitch.row + pitch.strip }}
      className={`min-w-0 ${isDragging ? 'relative z-10 bg-base-200 opacity-90' : ''}`}
    >
      <div className={`flex min-w-0 items-center ${selected ? 'bg-base-200' : ''}`} style={{ height: pitch.row }}>
        {movable ? (
          <button
            type="button"
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            className="grid h-full w-11 shrink-0 cursor-grab lg:w-8 touch-none place-items-center"
            aria-label={`Move coat ${index + 1}, ${coat.name}`}
          >
            <span className="h-[7px] w-4 border-y-2 border-base-content/55" aria-hidden="true" />
          </button>
        ) : (
          <span className="w-11 shrink-0 lg:w-8" />
        )}
        <button
          type="button"
          className="flex h-full min-w-0 flex-1 items-center gap-2 text-left"
          aria-pressed={selected}
          onClick={() => onPick(layer.id)}
        >
          <span
            className="inline-block h-6 w-3.5 shrink-0 border border-base-content"
            style={{ background: layer.colourHex }}
            aria-hidden="true"
          />
          <span className="narrow line-clamp-2 min-w-0 flex-1 text-lg leading-[1.1] wrap-anywhere">
            <span className="quiet">{index + 1}</span> <span className="font-semibold">{coat.name}</span>{' '}
            <span className="quiet">
              {layer.colour}
              {coat.on ? ' · on' : ''}
            </span>
          </span>
          <Fig quantity="film" value={layer.dftMicron} className="min-w-12 shrink-0 text-right text-lg" />
        </button>
        <Marks findings={own} onFinding={onFinding} />
      </div>
      <div
        className="flex min-w-0 items-center gap-1 border-t border-dashed border-base-300 pl-11 lg:pl-8"
        style={{ height: pitch.strip }}
      >
        <span className="narrow quiet line-clamp-2 min-w-0 flex-1 text-base leading-[1.15]">{onto(coat, under)}</span>
        {coat.takes && <Takes {...coat.takes} unit={unit} tight={between.length > 1} />}
        <Marks findings={between} onFinding={onFinding} />
        {onInsert && <Insert label={`Put a coat between ${under} and ${coat.name}`} onClick={() => onInsert(index)} />}
      </div>
    </li>
  );
}

/** Wet film, spreading rate and litres, as far as there is room for them. */
function Takes({
  wetMicron,
  spreadingRateM2PerL,
  litres,
  unit,
  tight,
}: NonNullable<SectionCoat['takes']> & { unit: Unit | undefined; tight: boolean }) {
  return (
    <span className="narrow min-w-0 shrink-0 text-base whitespace-nowrap">
      wet <Fig quantity="film" value={wetMicron} className="inline-block min-w-11 text-right" />
      <span className="ml-2.5 hidden 2xl:inline">
        <Fig quantity="spreadingRate" value={spreadingRateM2PerL} className="inline-block min-w-16 text-right" />
      </span>
      <span className={`ml-2.5 hidden ${tight ? '2xl:inline' : 'sm:inline'}`}>
        <Fig
          quantity="volume"
          value={litres.likely}
          approx
          {...(unit ? { unit } : {})}
          className="inline-block min-w-14 text-right"
        />
      </span>
    </span>
  );
}

/** How a coat goes onto what lies beneath it. */
export function onto({ layer }: SectionCoat, under: string): string {
  const words = [
    layer.prep === 'tackWindow'
      ? 'as is, in the window'
      : layer.prep === 'abrade'
        ? `abrade ${layer.grit ?? ''} ${ABRADE_FOR_WORDS[layer.abradeFor ?? 'bond']}`.replace('  ', ' ')
        : `on ${under}`,
  ];
  if (layer.wipe) words.push('wipe');
  if (layer.mask) words.push('mask');
  if (layer.stripe) words.push('stripe coat');
  if (layer.holdMonths) words.push(`holds ${layer.holdMonths} months`);
  return words.join(' · ');
}

function Marks({ findings, onFinding }: { findings: readonly Finding[]; onFinding: (finding: Finding) => void }) {
  return findings.map((f) => (
    <button
      key={f.rule}
      type="button"
      className="grid h-full min-w-11 shrink-0 lg:min-w-8 place-items-center"
      aria-label={f.reason}
      title={f.reason}
      onClick={() => onFinding(f)}
    >
      <FindingMark severity={f.severity} />
    </button>
  ));
}

export function Insert({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <button
      type="button"
      className="quiet grid h-full w-11 shrink-0 place-items-center text-xl lg:w-9 leading-none hover:font-semibold"
      aria-label={label}
      title={label}
      onClick={onClick}
    >
      <span aria-hidden="true">+</span>
    </button>
  );
}
