import { shownUnit } from '#core/units/format';
import { useSettings } from '../../../data/settings';
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
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { Finding } from '#core/system/stack';
import { CoatRow, Insert } from './CoatRow';
import { TOP, type Pitch } from './layout';
import type { SectionCoat } from './coat';

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

const BY_HAND = { activationConstraint: { distance: 5 } };
const BY_KEY = { coordinateGetter: sortableKeyboardCoordinates };

/** The coats beside their section, the outermost on top: put in another order by hand or keyboard, one put in between. */
export function CoatRows({
  pitch,
  coats,
  ground,
  findings,
  selected,
  onPick,
  onFinding,
  onInsert,
  onOrder,
}: RowsProps) {
  const sensors = useSensors(useSensor(PointerSensor, BY_HAND), useSensor(KeyboardSensor, BY_KEY));
  const { units } = useSettings();
  const most = Math.max(0, ...coats.map((c) => c.takes?.litres.likely ?? 0));
  const unit = most > 0 ? shownUnit('volume', units, most) : undefined;
  const order = coats.map((c) => c.layer.id);
  const firstPlanned = coats.filter((c) => c.on).length;
  const place = (id: unknown) => {
    const at = order.indexOf(String(id));
    return `Coat ${at + 1}, ${coats[at]?.name ?? ''},`;
  };
  const accessibility = {
    announcements: {
      onDragStart: ({ active }: DragStartEvent) => `${place(active.id)} picked up.`,
      // Over itself, once the list is measured: only then do the arrow keys have somewhere to go.
      onDragOver: ({ active, over }: DragOverEvent) =>
        !over
          ? undefined
          : over.id === active.id
            ? `${place(active.id)} is at its own place. Arrow keys move it, space puts it down, escape leaves it.`
            : `${place(active.id)} is at the place of ${place(over.id)}.`,
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
              <CoatRow
                key={coat.layer.id}
                pitch={pitch}
                coat={coat}
                index={i}
                under={coats[i - 1]?.name ?? ground}
                unit={unit}
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
