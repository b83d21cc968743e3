import type { RecordShape, TaskShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { peopleQuery, sessionQuery } from '../api/queries';
import { PLURALS } from '../api/record-kinds';
import { Button, IconButton } from '../components/button';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { isOverdue, TaskDue } from '../components/task-due';

/** What is to be done about a record, by whom and until when. */
export function Tasks({ record, tasks }: { record: RecordShape; tasks: readonly TaskShape[] }) {
  const client = useQueryClient();
  const people = useQuery(peopleQuery).data ?? [];
  const me = useQuery(sessionQuery).data?.person.key;
  const on = `/${PLURALS[record.kind]}/${record.id}/tasks`;
  const [text, setText] = useState('');
  const [owner, setOwner] = useState<string>();
  const [due, setDue] = useState('');
  const settled = {
    onSuccess: () => client.invalidateQueries({ queryKey: ['records', 'sheet'] }),
    onError: (error: unknown) => toast.error(messageOf(error)),
  };
  const add = useMutation({
    mutationFn: () =>
      call('POST', on, { text: text.trim(), owner: owner ?? record.owner ?? me, ...(due ? { due } : {}) }),
    ...settled,
  });
  const change = useMutation({
    mutationFn: ({ id, done }: { id: string; done: boolean }) => call('PATCH', `${on}/${id}`, { done }),
    ...settled,
  });
  const remove = useMutation({ mutationFn: (id: string) => call('DELETE', `${on}/${id}`), ...settled });
  const name = (key: string | null) => people.find((one) => one.key === key)?.name ?? 'nobody';
  return (
    <Sheet className="px-4 py-3">
      <h2 className="mb-1 text-base">Tasks</h2>
      <ul>
        {tasks.map(({ id, text: what, body, priority, owner: who, due: until, doneAt, doneBy }) => (
          <li key={id} className="flex items-center gap-3 border-b border-hair py-1">
            <input
              type="checkbox"
              aria-label={`${what} is done`}
              className="size-4 flex-none accent-green"
              checked={change.isPending && change.variables.id === id ? change.variables.done : doneAt !== null}
              onChange={({ target }) => change.mutate({ id, done: target.checked })}
            />
            <span className="min-w-0 flex-1">
              <span className={`[overflow-wrap:anywhere] ${doneAt ? 'text-muted line-through' : ''}`}>{what}</span>
              {body && !doneAt && (
                <span className="block text-small whitespace-pre-line text-muted [overflow-wrap:anywhere]">{body}</span>
              )}
            </span>
            <span className={`flex-none text-small ${!doneAt && isOverdue(until) ? 'text-brick' : 'text-muted'}`}>
              {doneAt ? (
                `done by ${doneBy}`
              ) : (
                <>
                  {priority === 'high' && <b className="font-semibold text-ink">high, </b>}
                  {name(who)}
                  {until && (
                    <>
                      , due <TaskDue due={until} />
                    </>
                  )}
                </>
              )}
            </span>
            <IconButton
              label={`Remove the task ${what}`}
              className="!size-7 text-muted"
              onClick={() => remove.mutate(id)}
            >
              <Trash2 className="size-3.5" aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex flex-wrap gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!text.trim()) return;
          add.mutate();
          setText('');
          setDue('');
        }}
      >
        <input
          aria-label="New task"
          placeholder="What is to be done"
          value={text}
          onChange={({ target }) => setText(target.value)}
          className="h-8 min-w-40 flex-1 rounded border-[1.5px] border-line bg-raised px-2"
        />
        <select
          aria-label="By whom"
          value={owner ?? record.owner ?? me ?? ''}
          onChange={({ target }) => setOwner(target.value)}
          className="h-8 rounded border-[1.5px] border-line bg-raised px-1"
        >
          {people
            .filter(({ active }) => active)
            .map(({ key, name: person }) => (
              <option key={key} value={key}>
                {person}
              </option>
            ))}
        </select>
        <input
          aria-label="Until when"
          type="date"
          value={due}
          onChange={({ target }) => setDue(target.value)}
          className="h-8 rounded border-[1.5px] border-line bg-raised px-1"
        />
        <Button type="submit" disabled={!text.trim() || add.isPending}>
          Add
        </Button>
      </form>
    </Sheet>
  );
}
