import type { ProfileFieldShape } from '@haycart/api';
import { fieldsOf, fillFrom, type Destination, type RouteDefinition } from '@haycart/core';
import { useState } from 'react';
import { Mono } from '../components/sheet';
import { Popover } from '../components/popover';
import { changeFill } from './draft';
import { DragAnswer } from './drag-answer';

/** An incoming field that no field of a record takes yet: dragged onto a line, or pressed and given one of the fields of the records. */
export function UseAnswer({
  answer: { key, label, examples },
  sample,
  definition,
  incoming,
  destination,
}: {
  answer: ProfileFieldShape;
  sample: string | undefined;
  definition: RouteDefinition;
  incoming: readonly ProfileFieldShape[];
  destination: Destination;
}) {
  const [open, setOpen] = useState(false);
  const [find, setFind] = useState('');
  const wanted = find.trim().toLowerCase();
  const groups = definition.writes.map((write) => ({
    write,
    fields: fieldsOf(destination, write.record).filter(
      ({ kept, label: name }) => !kept && name.toLowerCase().includes(wanted),
    ),
  }));
  return (
    <DragAnswer answer={key}>
      <Popover
        label={`Where ${label} goes`}
        open={open}
        onOpenChange={setOpen}
        trigger={
          <button
            type="button"
            title={[key, sample || examples[0]].join(': ')}
            className="inline-flex max-w-[260px] cursor-pointer items-baseline gap-1.5 rounded-sm bg-slate-soft px-1.5 text-ink hover:outline-1 hover:outline-slate"
          >
            {label === key ? <Mono className="truncate">{key}</Mono> : <span className="truncate">{label}</span>}
            <span className="max-w-[110px] truncate text-muted">{sample}</span>
          </button>
        }
      >
        <input
          aria-label="Find a field"
          placeholder="Find a field of a record"
          value={find}
          onChange={({ target }) => setFind(target.value)}
          className="mb-2 h-8 w-full rounded border-[1.5px] border-line bg-sheet px-2"
        />
        {groups.map(({ write, fields }) => (
          <section key={write.as} aria-label={`Fields of the ${write.record}`}>
            {fields.length > 0 && <h4 className="px-1 text-label text-muted first-letter:uppercase">{write.record}</h4>}
            <ul>
              {fields.map((field) => {
                const fed = write.fills.some(({ field: one, value }) => one === field.key && value.parts.length > 0);
                return (
                  <li key={field.key}>
                    <button
                      type="button"
                      className="flex h-7 w-full items-center gap-2 rounded px-1 text-left hover:bg-hair"
                      onClick={() => {
                        setOpen(false);
                        changeFill(write.as, field.key, (fill) =>
                          fed
                            ? { ...fill, value: { ...fill.value, parts: [...fill.value.parts, { answer: key }] } }
                            : { ...fill, ...fillFrom(key, field, incoming, destination) },
                        );
                      }}
                    >
                      <span className="min-w-0 flex-1 truncate">{field.label}</span>
                      {fed && <span className="flex-none text-small text-muted">beside what feeds it</span>}
                    </button>
                  </li>
                );
              })}
            </ul>
          </section>
        ))}
      </Popover>
    </DragAnswer>
  );
}
