import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragCancelEvent,
  type DragEndEvent,
  type DragOverEvent,
  type DragStartEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { computed, type ReadonlySignal } from '@preact/signals-core';
import { useMemo } from 'react';
import type { Finding } from '#core/system/stack';
import { LiveFig, useLive } from '../../../parts/live';
import { FindingMark } from '../FindingMark';
import { ABRADE_FOR_WORDS } from '../../../parts/choiceWords';
import { TOP, type Pitch } from './layout';
import type { SectionCoat } from './Stack';

interface RowsProps {
  pitch: Pitch;
  coats: ReadonlySignal<readonly SectionCoat[]>;
  /** What the first coat goes onto. */
  ground: string;
  findings: readonly Finding[];
  selected: string | null;
  onPick: (layerId: string) => void;
  onFinding: (finding: Finding) => void;
  onInsert?: ((at: number) => void) | undefined;
  /** New order of all coats, substrate out. */
  onOrder?: ((layerIds: string[]) => void) | undefined;
}

const BY_HAND = { activationConstraint: { distance: 5 } };
const BY_KEY = { coordinateGetter: sortableKeyboardCoordinates };

/** The coats beside their section, the outermost on top: put in another order by hand or keyboard, one put in between. */
export function CoatRows({
  pitch,
  coats: live,
  ground,
  findings,
  selected,
  onPick,
  onFinding,
  onInsert,
  onOrder,
}: RowsProps) {
  const sensors = useSensors(useSensor(PointerSensor, BY_HAND), useSensor(KeyboardSensor, BY_KEY));
  const coats = live.peek();
  const counted = useLive(useMemo(() => computed(() => live.value.every((c) => c.takes !== null)), [live]));
  const order = coats.map((c) => c.layer.id);
  const firstPlanned = coats.filter((c) => c.on).length;
  const place = (id: unknown) => {
    const at = order.indexOf(String(id));
    return `Coat ${at + 1}, ${coats[at]?.name ?? ''},`;
  };
  const accessibility = {
    // What it tells is fixed to the window: within the page it would be carried up through all boxes around it at each layout.
    container: document.body,
    announcements: {
      onDragStart: ({ active }: DragStartEvent) =>
        `${place(active.id)} picked up. Arrow keys move it, space puts it down, escape leaves it.`,
      onDragOver: ({ active, over }: DragOverEvent) =>
        over && over.id !== active.id ? `${place(active.id)} is at the place of ${place(over.id)}.` : undefined,
      onDragEnd: ({ active }: DragEndEvent) => `${place(active.id)} put down.`,
      onDragCancel: ({ active }: DragCancelEvent) => `${place(active.id)} stays where it was.`,
    },
    screenReaderInstructions: {
      draggable: 'Press space to pick a coat up, arrow keys to move it, space to put it down.',
    },
  };
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id || !onOrder) return;
    onOrder(arrayMove(order, order.indexOf(String(active.id)), order.indexOf(String(over.id))));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end} accessibility={accessibility}>
      <ol className="min-w-0 flex-1 overflow-x-clip" aria-label="Coats, the outermost first" reversed>
        <li style={{ height: TOP }} className="flex items-center justify-end">
          {onInsert && coats.length > 0 && <Insert label="Put a coat on top" onClick={() => onInsert(coats.length)} />}
        </li>
        <SortableContext items={[...order].reverse()} strategy={verticalListSortingStrategy}>
          {coats
            .map((coat, i) => (
              <Row
                key={coat.layer.id}
                pitch={pitch}
                live={() => live.value[i] as SectionCoat}
                counted={counted}
                index={i}
                under={coats[i - 1]?.name ?? ground}
                findings={findings.filter((f) => f.upper === i)}
                selected={coat.layer.id === selected}
                onPick={onPick}
                onFinding={onFinding}
                onInsert={i >= firstPlanned ? onInsert : undefined}
                movable={onOrder !== undefined && !coat.on && coats.length - firstPlanned > 1}
              />
            ))
            .reverse()}
        </SortableContext>
      </ol>
    </DndContext>
  );
}

interface RowProps {
  pitch: Pitch;
  live: () => SectionCoat;
  /** Whether it is known what it takes. */
  counted: boolean;
  index: number;
  under: string;
  /** Those about this coat only. */
  findings: readonly Finding[];
  selected: boolean;
  onPick: RowsProps['onPick'];
  onFinding: RowsProps['onFinding'];
  onInsert: RowsProps['onInsert'];
  movable: boolean;
}

function Row({
  pitch,
  live,
  counted,
  index,
  under,
  findings,
  selected,
  onPick,
  onFinding,
  onInsert,
  movable,
}: RowProps) {
  const coat = live();
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
      className={`box-of-its-own min-w-0 ${isDragging ? 'relative z-10 bg-base-200 opacity-90' : ''}`}
    >
      <div className={`flex min-w-0 items-center ${selected ? 'bg-base-200' : ''}`} style={{ height: pitch.row }}>
        {movable ? (
          <button
            type="button"
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            className="grid h-full w-8 shrink-0 cursor-grab touch-none place-items-center"
            aria-label={`Move coat ${index + 1}, ${coat.name}`}
          >
            <span className="h-[7px] w-4 border-y-2 border-base-content/55" aria-hidden="true" />
          </button>
        ) : (
          <span className="w-8 shrink-0" />
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
          <span className="narrow flex-1 cut text-lg leading-tight">
            <span className="quiet">{index + 1}</span> <span className="font-semibold">{coat.name}</span>{' '}
            <span className="quiet">
              {layer.colour}
              {coat.on ? ' · on' : ''}
            </span>
          </span>
          <LiveFig quantity="film" of={() => live().layer.dftMicron} className="min-w-12 shrink-0 text-right text-lg" />
        </button>
        <Marks findings={own} onFinding={onFinding} />
      </div>
      <div
        className="flex min-w-0 items-center gap-1 border-t border-dashed border-base-300 pl-8"
        style={{ height: pitch.strip }}
      >
        <span className="narrow quiet flex-1 cut text-base">{onto(coat, under)}</span>
        {counted && (
          <span className="narrow min-w-0 shrink-0 text-base whitespace-nowrap">
            <span>
              wet{' '}
              <LiveFig
                quantity="film"
                of={() => live().takes?.wetMicron ?? 0}
                className="inline-block min-w-11 text-right"
              />
            </span>
            <span className="ml-2.5 hidden xl:inline">
              <LiveFig
                quantity="spreadingRate"
                of={() => live().takes?.spreadingRateM2PerL ?? 0}
                className="inline-block min-w-16 text-right"
              />
            </span>
            <span className="ml-2.5 hidden sm:inline">
              <LiveFig
                quantity="volume"
                of={() => live().takes?.litres.likely ?? 0}
                approx
                className="inline-block min-w-14 text-right"
              />
            </span>
          </span>
        )}
        <Marks findings={between} onFinding={onFinding} />
        {onInsert && <Insert label={`Put a coat between ${under} and ${coat.name}`} onClick={() => onInsert(index)} />}
      </div>
    </li>
  );
}

/** How a coat goes onto what lies beneath it. */
function onto({ layer }: SectionCoat, under: string): string {
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
      className="grid h-full min-w-8 shrink-0 place-items-center"
      aria-label={f.reason}
      title={f.reason}
      onClick={() => onFinding(f)}
    >
      <FindingMark severity={f.severity} />
    </button>
  ));
}

function Insert({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <button
      type="button"
      className="quiet grid h-full w-9 shrink-0 place-items-center text-xl leading-none hover:font-semibold"
      aria-label={label}
      title={label}
      onClick={onClick}
    >
      <span aria-hidden="true">+</span>
    </button>
  );
}
