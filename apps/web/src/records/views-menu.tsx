import type { SavedView } from '@haycart/api';
import type { ListView, RecordKind } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Bookmark, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Button, IconButton } from '../components/button';
import { Popover } from '../components/popover';
import { sayDone } from '../components/say-done';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import type { ListState } from './list-state';

/** Kept ways to look at a list: everybody's and one's own. */
export function ViewsMenu({ kind, views, state }: { kind: RecordKind; views: readonly SavedView[]; state: ListState }) {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const client = useQueryClient();
  const done = () => client.invalidateQueries({ queryKey: ['views'] });
  const keep = useMutation({
    mutationFn: () =>
      call<SavedView>('POST', '/views', { record: kind, name: name.trim(), view: tidy(state.view), shared }),
    onSuccess: async (view) => {
      await done();
      setName('');
      setOpen(false);
      state.choose(view);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const change = useMutation({
    mutationFn: (view: SavedView) => call('PATCH', `/views/${view.id}`, { view: tidy(state.view) }),
    onSuccess: async (_answer, view) => {
      await done();
      state.choose(view);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const remove = useMutation({
    mutationFn: ({ id }: SavedView) => call('DELETE', `/views/${id}`),
    onSuccess: (_answer, view) => {
      if (state.from?.id === view.id) state.choose(null);
      sayDone(`The view ${view.name} is gone.`, {
        label: 'Bring back',
        act: () => {
          const { record, name: called, view: look, shared: ours } = view;
          void call('POST', '/views', { record, name: called, view: look, shared: ours }).then(done);
        },
      });
      return done();
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const own = views.filter(({ record }) => record === kind);
  const title = state.from ? `${state.from.name}${state.differs ? ', changed' : ''}` : 'Views';
  return (
    <Popover
      label="Views"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button className="!h-7 max-w-56">
          <Bookmark className="size-3.5 flex-none" aria-hidden /> <span className="truncate">{title}</span>
        </Button>
      }
    >
      <ul className="mb-3">
        <ViewLine name="As lists begin" chosen={!state.from} choose={() => state.choose(null)} />
        {own.map((view) => (
          <ViewLine
            key={view.id}
            name={view.name}
            note={view.shared ? 'everybody’s' : 'yours'}
            chosen={state.from?.id === view.id}
            choose={() => state.choose(view)}
            remove={() => remove.mutate(view)}
          />
        ))}
      </ul>
      {state.from && state.differs && (
        <Button className="mb-3 w-full justify-center" onClick={() => change.mutate(state.from!)}>
          Keep the changes in {state.from.name}
        </Button>
      )}
      <form
        className="flex flex-col gap-2 border-t border-line pt-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) keep.mutate();
        }}
      >
        <TextField
          label="Keep what is shown as"
          placeholder="Growers in the Netherlands"
          value={name}
          onChange={({ target }) => setName(target.value)}
        />
        <label className="flex items-center gap-2 text-muted">
          <input
            type="checkbox"
            className="size-4 accent-green"
            checked={shared}
            onChange={({ target }) => setShared(target.checked)}
          />
          for everybody
        </label>
        <Button look="main" type="submit" disabled={!name.trim() || keep.isPending}>
          Keep the view
        </Button>
      </form>
    </Popover>
  );
}

function ViewLine({
  name,
  note,
  chosen,
  choose,
  remove,
}: {
  name: string;
  note?: string;
  chosen: boolean;
  choose: () => void;
  remove?: () => void;
}) {
  return (
    <li className={`flex items-center rounded ${chosen ? 'bg-straw-soft' : 'hover:bg-hair'}`}>
      <button type="button" onClick={choose} className="flex h-8 min-w-0 flex-1 items-center gap-2 px-2 text-left">
        <span className="min-w-0 flex-1 truncate">{name}</span>
        {note && <span className="text-small text-muted">{note}</span>}
      </button>
      {remove && (
        <IconButton label={`Remove the view ${name}`} className="!size-7 text-muted" onClick={remove}>
          <Trash2 className="size-3.5" aria-hidden />
        </IconButton>
      )}
    </li>
  );
}

function tidy({ columns, filter, sort, group }: ListView): ListView {
  return { columns, ...(filter ? { filter } : {}), ...(sort ? { sort } : {}), ...(group ? { group } : {}) };
}
