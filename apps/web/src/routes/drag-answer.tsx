import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import { changeFill } from './draft';

/** The line of the mapping that something is dropped on. */
interface DropLine {
  as: string;
  field: string;
}

/** Where incoming fields are dragged onto lines of the mapping. By keyboard they are picked in the line itself. */
export function DragAnswers({ children }: { children: ReactNode }) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={({ active, over }) => {
        const line = over?.data.current as DropLine | undefined;
        const { answer } = (active.data.current ?? {}) as { answer?: string };
        if (!line || answer === undefined) return;
        changeFill(line.as, line.field, (fill) => ({
          ...fill,
          value: { ...fill.value, parts: [...fill.value.parts, { answer }] },
        }));
      }}
    >
      {children}
    </DndContext>
  );
}

/** An incoming field that can be dragged. */
export function DragAnswer({ answer, children }: { answer: string; children: ReactNode }) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: `answer ${answer}`, data: { answer } });
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      className={`inline-flex cursor-grab touch-none ${isDragging ? 'relative z-50 opacity-80' : ''}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      {children}
    </span>
  );
}

/** Makes a line take an answer that is dropped on it, beside what feeds it already. */
export function useAnswerDrop(
  as: string,
  field: string,
): { ref: (element: HTMLElement | null) => void; isOver: boolean } {
  const { setNodeRef, isOver } = useDroppable({ id: `line ${as} ${field}`, data: { as, field } satisfies DropLine });
  return { ref: setNodeRef, isOver };
}
