'use client';
/** A list whose lines are put in another order by drag and by keyboard. Each line takes part by `useSortable` under its id. */
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { ReactNode } from 'react';

export function SortableList({
  id,
  items,
  onDrop,
  children,
}: {
  id: string;
  /** The ids of the lines in their order. */
  items: string[];
  /** A line was dropped on another one. */
  onDrop: (dragged: string, over: string) => void;
  children: ReactNode;
}) {
  const sensors = useSensors(
    // A click is no drag.
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (over !== null && over.id !== active.id) onDrop(String(active.id), String(over.id));
      }}
    >
      <SortableContext items={items} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}
