import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { ReactNode } from 'react';
import './sortable.css';
import { words } from '../words/web';

interface Item {
  id: string;
  /** What it is called by ear. */
  name: string;
  row: ReactNode;
}

const Row = ({ item }: { item: Item }) => {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: item.id });
  return (
    <li
      ref={setNodeRef}
      className={isDragging ? 'lifted' : ''}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      {item.row}
      <button
        {...attributes}
        {...listeners}
        ref={setActivatorNodeRef}
        type="button"
        className="grip"
        aria-label={words.moveItem(item.name)}
      >
        <svg width={16} height={20} viewBox="0 0 16 20" aria-hidden fill="none" stroke="currentColor">
          <path d="M2 6h12M2 10h12M2 14h12" strokeWidth={1.6} strokeLinecap="round" />
        </svg>
      </button>
    </li>
  );
};

interface SortableProps {
  label: string;
  items: Item[];
  /** Told where an item was put, from 0. */
  onMove: (id: string, to: number) => void;
}

/** How far a finger goes before it drags. */
const DISTANCE = 4;

/** A list whose rows are put in order by dragging, or by keys: space lifts, arrows move, space puts down. */
export const Sortable = ({ label, items, onMove }: SortableProps) => {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DISTANCE } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const names = new Map(items.map(({ id, name }) => [id, name]));
  const place = (id: unknown) => items.findIndex((item) => item.id === id) + 1;
  const end = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onMove(String(active.id), place(over.id) - 1);
  };
  const said = (id: unknown) => names.get(String(id)) ?? '';
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={end}
      accessibility={{
        screenReaderInstructions: {
          draggable: words.spaceLiftsItArrowsMove,
        },
        announcements: {
          onDragStart: ({ active }) => words.saidLifted(said(active.id)),
          onDragOver: ({ active, over }) =>
            over ? words.saidAtPlacePlaceOf(said(active.id), place(over.id), items.length) : undefined,
          onDragEnd: ({ active, over }) =>
            over ? words.saidPutDownAtPlace(said(active.id), place(over.id)) : undefined,
          onDragCancel: ({ active }) => words.saidStaysWhereItWas(said(active.id)),
        },
      }}
    >
      <SortableContext items={items} strategy={verticalListSortingStrategy}>
        <ul className="sortable" aria-label={label}>
          {items.map((item) => (
            <Row key={item.id} item={item} />
          ))}
        </ul>
      </SortableContext>
    </DndContext>
  );
};
