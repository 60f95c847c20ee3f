/** A list that is put in order by dragging its rows by a grip, or with the keyboard. */
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { GripVertical } from 'lucide-react';
import type { CSSProperties, ReactNode } from 'react';
import styles from './ui.module.css';

/** A list whose entries can be put in another order, by dragging or by keys. */
export function SortableList(props: {
  /** Tells this list from others on the page. */
  name: string;
  ids: readonly string[];
  onMove: (from: number, to: number) => void;
  children: ReactNode;
}) {
  const { name, ids, onMove, children } = props;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    const from = ids.indexOf(String(active.id));
    const to = over ? ids.indexOf(String(over.id)) : -1;
    if (from >= 0 && to >= 0 && from !== to) onMove(from, to);
  };
  return (
    <DndContext id={name} sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** What an entry of such a list is given: where it is put, and its handle. */
export type SortableRow = {
  readonly ref: (element: HTMLElement | null) => void;
  readonly style: CSSProperties;
  readonly grip: ReactNode;
};

/** What a row needs: a place to be measured, how it moves, and its grip. `what` is said to a screen reader. */
export function useSortableRow(id: string, what: string): SortableRow {
  const sortable = useSortable({ id });
  const { transform } = sortable;
  return {
    ref: sortable.setNodeRef,
    style: {
      transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined,
      transition: sortable.transition,
    },
    grip: (
      <button
        type="button"
        className={styles.grip}
        {...sortable.attributes}
        {...sortable.listeners}
        aria-label={`Move ${what}`}
        title="Drag to change the order"
      >
        <GripVertical size={15} />
      </button>
    ),
  };
}
