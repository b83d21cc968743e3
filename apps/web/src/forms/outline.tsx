import { isQuestion, stepsOf, type Destination, type FormDefinition, type FormItem, type Problem } from '@haycart/core';
import { closestCenter, DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { IconButton } from '../components/button';
import { Key, Mono } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { AddContent } from './add-content';
import { AddQuestion } from './add-question';
import { edit } from './draft';
import { FormParts } from './form-parts';
import type { Chosen } from './chosen';
import { ItemEditor } from './item-editor';
import { itemWords } from './item-words';

interface OutlineProps {
  /** The key of the form's intake. */
  intake: string;
  /** The form that visitors see; null until there is one. */
  published: FormDefinition | null;
  form: FormDefinition;
  /** The form with what it follows: what visitors would read. */
  shown: FormDefinition;
  destination: Destination;
  problems: readonly Problem[];
  chosen: Chosen;
  choose: (chosen: Chosen) => void;
}

/** Everything of a form in its order; what is chosen opens in its place. */
export function Outline(props: OutlineProps) {
  const { form, chosen, choose } = props;
  const [said, setSaid] = useState('');
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const names = form.items.map(({ name }) => name);
  const move = (name: string, to: number) => {
    if (to < 0 || to >= names.length) return;
    edit({ do: 'move', name, to });
    setSaid(`Now at place ${to + 1} of ${names.length}.`);
  };
  const at = chosen && 'item' in chosen ? names.indexOf(chosen.item) + 1 : names.length;
  const added = (items: readonly FormItem[]) => {
    edit({ do: 'add', items, at: at || names.length });
    choose({ item: items.at(-1)!.name });
  };
  return (
    <>
      <FormParts form={form} shown={props.shown} part="head" chosen={chosen} choose={choose} />
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (over && over.id !== active.id) move(String(active.id), names.indexOf(String(over.id)));
        }}
      >
        <SortableContext items={names} strategy={verticalListSortingStrategy}>
          <ol aria-label="Outline">
            {form.items.map((item, index) => (
              <Line key={item.name} {...props} item={item} index={index} move={move} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <p role="status" className="sr-only">
        {said}
      </p>
      <div className="flex flex-wrap items-center gap-2 px-4 py-3">
        <AddQuestion form={form} destination={props.destination} add={added} />
        <AddContent form={form} add={added} />
      </div>
      <FormParts form={form} shown={props.shown} part="after" chosen={chosen} choose={choose} />
      <FormParts form={form} shown={props.shown} part="page" chosen={chosen} choose={choose} />
      <FormParts form={form} shown={props.shown} part="languages" chosen={chosen} choose={choose} />
      <p className="px-4 py-3 text-small text-muted max-lg:hidden">
        <Key>Alt</Key> <Key>↑</Key> <Key>↓</Key> move what you are in, <Key>Del</Key> removes it.
      </p>
    </>
  );
}

function Line({
  intake,
  published,
  item,
  index,
  form,
  shown,
  destination,
  problems,
  chosen,
  choose,
  move,
}: OutlineProps & { item: FormItem; index: number; move: (name: string, to: number) => void }) {
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: item.name });
  const open = chosen !== null && 'item' in chosen && chosen.item === item.name;
  const own = problems.filter(({ at = '' }) => at === `/items/${index}` || at.startsWith(`/items/${index}/`));
  const worst = own.some(({ severity }) => severity === 'error') ? 'failed' : own.length ? 'held' : null;
  const words = itemWords(item, destination.fields);
  const remove = () => {
    edit({ do: 'remove', name: item.name });
    if (open) choose(null);
  };
  const press = (event: React.KeyboardEvent) => {
    const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
    if (by) {
      event.preventDefault();
      move(item.name, index + by);
    } else if (event.key === 'Delete') remove();
  };
  const steps = stepsOf(form).length;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`${isDragging ? 'relative z-10 opacity-70' : ''} ${item.type === 'step' && steps > 1 ? 'mt-2' : ''} ${open ? 'bg-straw-soft/40' : ''}`}
    >
      <div
        className={`flex items-center gap-1 pr-2 pl-1 ${open ? 'border-l-4 border-straw bg-straw-soft' : 'border-l-4 border-transparent hover:bg-raised'}`}
      >
        <button
          type="button"
          {...listeners}
          aria-label={`Move ${words}`}
          onKeyDown={press}
          className="flex h-8 w-6 flex-none cursor-grab touch-none items-center justify-center text-faint hover:text-ink"
        >
          <GripVertical className="size-4" aria-hidden />
        </button>
        <button
          type="button"
          aria-expanded={open}
          onKeyDown={press}
          onClick={() => choose(open ? null : { item: item.name })}
          className={`flex h-8 min-w-0 flex-1 items-center gap-2 text-left ${item.type === 'step' ? 'font-semibold text-muted' : open ? 'font-semibold' : ''}`}
        >
          {worst && <StateShape state={worst} />}
          <span className={`min-w-0 truncate ${item.type === 'hidden' ? 'font-mono text-[12.5px]' : ''}`}>{words}</span>
          {isQuestion(item) && item.required && <span className="flex-none text-small text-muted">required</span>}
          {item.shownWhen && <span className="flex-none text-small text-muted">if</span>}
        </button>
        <Mono className="flex-none text-muted">{mark(item)}</Mono>
        {open && (
          <IconButton label={`Remove ${words}`} className="!size-7 text-muted" onClick={remove}>
            <Trash2 className="size-3.5" aria-hidden />
          </IconButton>
        )}
      </div>
      {open && (
        <ItemEditor
          key={item.name}
          item={item}
          intake={intake}
          shown={shown.items[index]!}
          form={form}
          shownForm={shown}
          destination={destination}
          problems={own}
          isPublished={published?.items.some(({ name }) => name === item.name) ?? false}
          renamed={(to) => choose({ item: to })}
        />
      )}
    </li>
  );
}

/** What stands at the end of a line: the record that a question feeds, or its kind. */
function mark(item: FormItem): string {
  if (!isQuestion(item)) return item.type === 'step' ? 'step' : 'content';
  if (item.type === 'hidden') return item.from ? 'address' : 'fixed';
  if (item.type === 'consent') return item.version ? `consent v${item.version}` : 'consent';
  if (item.feeds) return item.feeds.record;
  return item.type === 'file' ? 'file' : 'answer';
}
