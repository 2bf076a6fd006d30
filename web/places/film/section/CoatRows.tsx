import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragCancelEvent, type DragEndEvent, type DragOverEvent, type DragStartEvent } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { createContext, memo, use, useMemo, type ReactNode } from 'react';
import type { Finding } from '#core/system/stack';
import { Fig } from '../../../parts/Fig';
import { FindingMark } from '../FindingMark';
import { useSteady } from '../../../parts/useSteady';
import { ABRADE_FOR_WORDS } from '../../../parts/words';
import { TOP, type Pitch } from './layout';
import type { SectionCoat } from './Stack';

interface RowsProps {
  pitch: Pitch;
  coats: readonly SectionCoat[];
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

/** What the rows tell, handed past the list that puts them in order: that rests while only films change. */
const Told = createContext<RowsProps | null>(null);

/** The coats beside their section, the outermost on top: put in another order by hand or keyboard, one put in between. */
export function CoatRows(props: RowsProps) {
  const order = props.coats.map((c) => c.layer.id).reverse().join();
  const ids = useMemo(() => order.split(','), [order]);
  const pick = useSteady(props.onPick);
  const find = useSteady(props.onFinding);
  const insert = useSteady((at: number) => props.onInsert?.(at));
  const reorder = useSteady((layerIds: string[]) => props.onOrder?.(layerIds));
  const place = useSteady((id: unknown) => {
    const at = props.coats.findIndex((c) => c.layer.id === id);
    return `Coat ${at + 1}, ${props.coats[at]?.name ?? ''},`;
  });
  const rows = useMemo(() => ids.map((id, k) => <RowOf key={id} index={ids.length - 1 - k} onPick={pick} onFinding={find} onInsert={insert} />), [ids, pick, find, insert]);
  return (
    <Told value={props}>
      <Order ids={ids} place={place} onOrder={reorder} onTop={props.onInsert && props.coats.length > 0 ? insert : undefined}>
        {rows}
      </Order>
    </Told>
  );
}

const BY_HAND = { activationConstraint: { distance: 5 } };
const BY_KEY = { coordinateGetter: sortableKeyboardCoordinates };

const Order = memo(function Order({ ids, place, onOrder, onTop, children }: { ids: string[]; place: (id: unknown) => string; onOrder: (layerIds: string[]) => void; onTop: RowsProps['onInsert']; children: ReactNode }) {
  const sensors = useSensors(useSensor(PointerSensor, BY_HAND), useSensor(KeyboardSensor, BY_KEY));
  const accessibility = useMemo(
    () => ({
      announcements: {
        onDragStart: ({ active }: DragStartEvent) => `${place(active.id)} picked up. Arrow keys move it, space puts it down, escape leaves it.`,
        onDragOver: ({ active, over }: DragOverEvent) => (over && over.id !== active.id ? `${place(active.id)} is at the place of ${place(over.id)}.` : undefined),
        onDragEnd: ({ active }: DragEndEvent) => `${place(active.id)} put down.`,
        onDragCancel: ({ active }: DragCancelEvent) => `${place(active.id)} stays where it was.`,
      },
      screenReaderInstructions: { draggable: 'Press space to pick a coat up, arrow keys to move it, space to put it down.' },
    }),
    [place],
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const next = [...ids];
    next.splice(ids.indexOf(String(active.id)), 1);
    next.splice(ids.indexOf(String(over.id)), 0, String(active.id));
    onOrder(next.reverse());
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end} accessibility={accessibility}>
      <ol className="min-w-0 flex-1 overflow-x-clip" aria-label="Coats, the outermost first" reversed>
        <li style={{ height: TOP }} className="flex items-center justify-end">
          {onTop && <Insert label="Put a coat on top" onClick={() => onTop(ids.length)} />}
        </li>
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {children}
        </SortableContext>
      </ol>
    </DndContext>
  );
});

/** One of the coats, counted from the substrate out, with what the others mean to it. */
function RowOf({ index, onPick, onFinding, onInsert: insert }: { index: number } & Pick<RowsProps, 'onPick' | 'onFinding' | 'onInsert'>) {
  const { pitch, coats, ground, findings, selected, onInsert, onOrder } = use(Told) as RowsProps;
  const coat = coats[index];
  if (!coat) return null;
  const firstPlanned = coats.filter((c) => c.on).length;
  return (
    <Row
      pitch={pitch}
      coat={coat}
      index={index}
      under={coats[index - 1]?.name ?? ground}
      findings={findings.filter((f) => f.upper === index)}
      selected={coat.layer.id === selected}
      onPick={onPick}
      onFinding={onFinding}
      onInsert={onInsert && index >= firstPlanned ? insert : undefined}
      movable={onOrder !== undefined && !coat.on && coats.length - firstPlanned > 1}
    />
  );
}

interface RowProps {
  pitch: Pitch;
  coat: SectionCoat;
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

/** A row is drawn anew only when something that it tells has changed: while one film is dragged the others rest. */
function sameRow(a: RowProps, b: RowProps): boolean {
  const told = ({ coat: { layer, name, on, takes } }: RowProps) => [layer, name, on, takes?.wetMicron, takes?.spreadingRateM2PerL, takes?.litres.likely];
  const rest = ({ pitch, index, under, selected, onPick, onFinding, onInsert, movable }: RowProps) => [pitch, index, under, selected, onPick, onFinding, onInsert, movable];
  const reasons = ({ findings }: RowProps) => findings.map((f) => f.reason);
  const flat = (p: RowProps) => [...told(p), ...rest(p), ...reasons(p)];
  const [x, y] = [flat(a), flat(b)];
  return x.length === y.length && x.every((v, i) => Object.is(v, y[i]));
}

const Row = memo(function Row({ pitch, coat, index, under, findings, selected, onPick, onFinding, onInsert, movable }: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({ id: coat.layer.id, disabled: !movable });
  const own = findings.filter((f) => f.lower === null);
  const between = findings.filter((f) => f.lower !== null);
  const { layer } = coat;
  return (
    <li ref={setNodeRef} style={{ transform: CSS.Transform.toString(transform), transition, height: pitch.row + pitch.strip }} className={`box-of-its-own min-w-0 ${isDragging ? 'relative z-10 bg-base-200 opacity-90' : ''}`}>
      <div className={`flex min-w-0 items-center ${selected ? 'bg-base-200' : ''}`} style={{ height: pitch.row }}>
        {movable ? (
          <button type="button" ref={setActivatorNodeRef} {...attributes} {...listeners} className="grid h-full w-8 shrink-0 cursor-grab touch-none place-items-center" aria-label={`Move coat ${index + 1}, ${coat.name}`}>
            <span className="h-[7px] w-4 border-y-2 border-base-content/55" aria-hidden="true" />
          </button>
        ) : (
          <span className="w-8 shrink-0" />
        )}
        <button type="button" className="flex h-full min-w-0 flex-1 items-center gap-2 text-left" aria-pressed={selected} onClick={() => onPick(layer.id)}>
          <span className="inline-block h-6 w-3.5 shrink-0 border border-base-content" style={{ background: layer.colourHex }} aria-hidden="true" />
          <span className="narrow min-w-0 flex-1 truncate text-lg leading-tight">
            <span className="quiet">{index + 1}</span> <span className="font-semibold">{coat.name}</span> <span className="quiet">{layer.colour}{coat.on ? ' · on' : ''}</span>
          </span>
          <Fig quantity="film" value={layer.dftMicron} className="text-lg" />
        </button>
        <Marks findings={own} onFinding={onFinding} />
      </div>
      <div className="flex min-w-0 items-center gap-1 border-t border-dashed border-base-300 pl-8" style={{ height: pitch.strip }}>
        <span className="narrow quiet min-w-0 flex-1 truncate text-base">{onto(coat, under)}</span>
        {coat.takes && (
          <span className="narrow flex shrink-0 items-baseline gap-2.5 text-base whitespace-nowrap">
            <span>
              wet <Fig quantity="film" value={coat.takes.wetMicron} />
            </span>
            <span className="hidden xl:inline">
              <Fig quantity="spreadingRate" value={coat.takes.spreadingRateM2PerL} />
            </span>
            <span className="hidden sm:inline">
              <Fig quantity="volume" value={coat.takes.litres.likely} approx />
            </span>
          </span>
        )}
        <Marks findings={between} onFinding={onFinding} />
        {onInsert && <Insert label={`Put a coat between ${under} and ${coat.name}`} onClick={() => onInsert(index)} />}
      </div>
    </li>
  );
}, sameRow);

/** How a coat goes onto what lies beneath it. */
function onto({ layer }: SectionCoat, under: string): string {
  const words = [layer.prep === 'tackWindow' ? 'as is, in the window' : layer.prep === 'abrade' ? `abrade ${layer.grit ?? ''} ${ABRADE_FOR_WORDS[layer.abradeFor ?? 'bond']}`.replace('  ', ' ') : `on ${under}`];
  if (layer.wipe) words.push('wipe');
  if (layer.mask) words.push('mask');
  if (layer.stripe) words.push('stripe coat');
  if (layer.holdMonths) words.push(`holds ${layer.holdMonths} months`);
  return words.join(' · ');
}

function Marks({ findings, onFinding }: { findings: readonly Finding[]; onFinding: (finding: Finding) => void }) {
  return findings.map((f) => (
    <button key={f.rule} type="button" className="grid h-full min-w-8 shrink-0 place-items-center" aria-label={f.reason} title={f.reason} onClick={() => onFinding(f)}>
      <FindingMark severity={f.severity} />
    </button>
  ));
}

function Insert({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <button type="button" className="quiet grid h-full w-9 shrink-0 place-items-center text-xl leading-none hover:font-semibold" aria-label={label} title={label} onClick={onClick}>
      <span aria-hidden="true">+</span>
    </button>
  );
}
