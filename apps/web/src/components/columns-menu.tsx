import type { FieldDefinition, ListView } from '@haycart/core';
import { DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Columns3, GripVertical } from 'lucide-react';
import { useState } from 'react';
import { Button } from './button';
import { Popover } from './popover';

/** Which columns a list shows, and in which order. */
export function ColumnsMenu({
  columns,
  choices,
  change,
  className = '!h-7',
}: {
  columns: ListView['columns'];
  choices: readonly Pick<FieldDefinition, 'key' | 'label'>[];
  change: (columns: ListView['columns']) => void;
  /** Its height, where it stands among others. */
  className?: string;
}) {
  const [find, setFind] = useState('');
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const label = (key: string) => choices.find((one) => one.key === key)?.label ?? key;
  const hidden = choices.filter(
    ({ key, label: name }) =>
      !columns.some(({ field }) => field === key) && name.toLowerCase().includes(find.trim().toLowerCase()),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const place = (id: unknown) => columns.findIndex(({ field }) => field === id);
    if (over && active.id !== over.id) change(arrayMove(columns, place(active.id), place(over.id)));
  };
  return (
    <Popover
      label="Columns"
      align="end"
      trigger={
        <Button className={className}>
          <Columns3 className="size-3.5" aria-hidden /> Columns
        </Button>
      }
    >
      <p className="mb-1 text-small text-muted">Shown, from left to right. Drag to order.</p>
      <DndContext sensors={sensors} onDragEnd={drop}>
        <SortableContext items={columns.map(({ field }) => field)} strategy={verticalListSortingStrategy}>
          <ul>
            {columns.map(({ field }) => (
              <ShownColumn
                key={field}
                id={field}
                name={label(field)}
                hide={columns.length > 1 ? () => change(columns.filter((one) => one.field !== field)) : undefined}
              />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      <input
        aria-label="Find a column"
        placeholder="Find a column to show"
        value={find}
        onChange={({ target }) => setFind(target.value)}
        className="mt-3 mb-1 h-8 w-full rounded border-[1.5px] border-line bg-sheet px-2"
      />
      <ul className="max-h-48 overflow-y-auto">
        {hidden.map(({ key, label: name }) => (
          <li key={key}>
            <label className="flex h-7 cursor-pointer items-center gap-2 rounded px-1 hover:bg-hair">
              <input
                type="checkbox"
                className="size-4 accent-green"
                checked={false}
                onChange={() => change([...columns, { field: key }])}
              />
              {name}
            </label>
          </li>
        ))}
      </ul>
    </Popover>
  );
}

function ShownColumn({ id, name, hide }: { id: string; name: string; hide: (() => void) | undefined }) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className="flex h-7 items-center gap-2 rounded bg-raised px-1 hover:bg-hair"
    >
      <button
        type="button"
        aria-label={`Move ${name}`}
        className="cursor-grab touch-none text-muted"
        {...attributes}
        {...listeners}
      >
        <GripVertical className="size-4" aria-hidden />
      </button>
      <label className="flex min-w-0 flex-1 cursor-pointer items-center gap-2">
        <input type="checkbox" className="size-4 accent-green" checked disabled={!hide} onChange={hide} />
        <span className="truncate">{name}</span>
      </label>
    </li>
  );
}
