import type { DoneEdit, LabelUse } from '@haycart/api';
import { COLOUR_MARKS, type ColourMark as Mark } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { offerUndo } from '../api/edits';
import { labelsQuery, membershipsQuery } from '../api/queries';
import { Button, IconButton } from '../components/button';
import { ColourMark } from '../components/colour-mark';
import { count } from '../components/format';
import { Popover } from '../components/popover';
import { Sheet } from '../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { Time } from '../components/time';
import { ColumnHeads, type ColumnHead } from './column-heads';
import { CopyKey } from '../components/copy-key';
import { SavedField } from './saved-field';
import { SetUpPage } from './set-up-page';

type Kind = 'tags' | 'lists';
const ONE: Record<Kind, string> = { tags: 'tag', lists: 'list' };
const GRID =
  'grid grid-cols-[28px_minmax(0,1fr)_64px_36px] items-center gap-x-3 px-3 lg:grid-cols-[28px_minmax(0,1.4fr)_84px_minmax(0,1fr)_minmax(0,220px)_36px]';
const COLUMNS: ColumnHead[] = [
  { name: 'Mark', silent: true, narrow: true },
  { name: 'Name', narrow: true },
  { name: 'Records', look: 'text-right', narrow: true },
  { name: 'Key', look: 'px-1.5' },
  { name: 'Merge' },
  { name: 'Change', silent: true, narrow: true },
];

/** Tags on records, or lists of contacts: their names and marks, how many carry them, merged and deleted. */
export function LabelsSetUp({ kind }: { kind: Kind }) {
  const labels = useQuery(labelsQuery(kind));
  const [open, setOpen] = useState<string | null>(null);
  if (labels.isPending) return <Loading />;
  if (labels.isError) return <Failed error={labels.error} retry={() => void labels.refetch()} />;
  return (
    <SetUpPage about={kind === 'tags' ? 'words that any record can carry' : 'lists that contacts can be on'}>
      <NewLabel kind={kind} known={labels.data} />
      <Sheet>
        {labels.data.length ? (
          <div role="table" aria-label={kind === 'tags' ? 'Tags' : 'Lists'}>
            <ColumnHeads grid={GRID} columns={COLUMNS} />
            {labels.data.map((label) => (
              <LabelLine
                key={label.key}
                kind={kind}
                label={label}
                others={labels.data.filter(({ key }) => key !== label.key)}
                opened={open === label.key}
                open={() => setOpen(open === label.key ? null : label.key)}
              />
            ))}
          </div>
        ) : (
          <Empty title={`There is no ${ONE[kind]} yet`}>Type a name above to make the first.</Empty>
        )}
      </Sheet>
    </SetUpPage>
  );
}

function useLabelChange(kind: Kind) {
  const client = useQueryClient();
  return {
    onSuccess: (answer: unknown) => {
      void client.invalidateQueries({ queryKey: ['labels'] });
      void client.invalidateQueries({ queryKey: ['fields'] });
      void client.invalidateQueries({ queryKey: ['records'] });
      const done = answer as Partial<DoneEdit> | undefined;
      if (done?.text && done.edit !== undefined) offerUndo(client, done as DoneEdit);
    },
    onError: (error: unknown) => toast.error(messageOf(error)),
    scope: { id: `labels ${kind}` },
  };
}

function NewLabel({ kind, known }: { kind: Kind; known: readonly LabelUse[] }) {
  const [name, setName] = useState('');
  const colour = COLOUR_MARKS[known.length % COLOUR_MARKS.length];
  const settled = useLabelChange(kind);
  const add = useMutation({
    mutationFn: () => call('POST', `/${kind}`, { name: name.trim(), colour }),
    ...settled,
    onSuccess: () => {
      setName('');
      settled.onSuccess(undefined);
    },
  });
  return (
    <form
      className="flex max-w-md gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) add.mutate();
      }}
    >
      <input
        aria-label={`Name of a new ${ONE[kind]}`}
        placeholder={`New ${ONE[kind]}`}
        value={name}
        onChange={({ target }) => setName(target.value)}
        className="h-8 flex-1 rounded border border-faint bg-raised px-2.5"
      />
      <Button look="main" type="submit" disabled={!name.trim() || add.isPending}>
        Make it
      </Button>
    </form>
  );
}

function LabelLine({
  kind,
  label,
  others,
  opened,
  open,
}: {
  kind: Kind;
  label: LabelUse;
  others: readonly LabelUse[];
  opened: boolean;
  open: () => void;
}) {
  const settled = useLabelChange(kind);
  const on = `/${kind}/${label.key}`;
  const change = useMutation({
    mutationFn: (wish: { name?: string; colour?: Mark | null }) => call('PATCH', on, wish),
    ...settled,
  });
  const merge = useMutation({ mutationFn: (into: string) => call('POST', `${on}/merge`, { into }), ...settled });
  const remove = useMutation({ mutationFn: () => call('DELETE', on), ...settled });
  const taken = (name: string) => others.some((one) => one.name.toLowerCase() === name.trim().toLowerCase());
  return (
    <div className="border-b border-hair last:border-b-0">
      <div role="row" className={`${GRID} min-h-9`}>
        <span role="cell">
          <ChooseMark name={label.name} colour={label.colour} choose={(colour) => change.mutate({ colour })} />
        </span>
        <span role="cell" className="-ml-2 min-w-0">
          <SavedField
            label={`Name of ${label.name}`}
            value={label.name}
            className="font-semibold"
            check={(name) =>
              name.trim() === '' ? 'It needs a name.' : taken(name) ? 'There is one of that name; merge the two.' : null
            }
            save={(name) => change.mutate({ name })}
          />
        </span>
        <span role="cell" className="text-right">
          {kind === 'lists' ? (
            <button type="button" className="text-slate hover:underline" aria-expanded={opened} onClick={open}>
              {count(label.records)}
            </button>
          ) : (
            count(label.records)
          )}
        </span>
        <span role="cell" className="min-w-0 max-lg:hidden">
          <CopyKey text={label.key} />
        </span>
        <span role="cell" className="max-lg:hidden">
          <select
            aria-label={`Merge ${label.name} into`}
            className="h-7 w-full rounded border border-line bg-raised px-1 text-muted"
            value=""
            disabled={!others.length || merge.isPending}
            onChange={({ target }) => merge.mutate(target.value)}
          >
            <option value="">merge into …</option>
            {others.map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </span>
        <span role="cell" className="flex justify-end">
          <IconButton
            label={`Delete ${label.name}`}
            className="!size-7 text-muted"
            disabled={remove.isPending}
            onClick={() => remove.mutate()}
          >
            <Trash2 className="size-3.5" aria-hidden />
          </IconButton>
        </span>
      </div>
      {opened && <Memberships list={label.key} />}
    </div>
  );
}

function ChooseMark({ name, colour, choose }: { name: string; colour: Mark | null; choose: (mark: Mark) => void }) {
  return (
    <Popover
      label="Mark"
      trigger={
        <button
          type="button"
          aria-label={`Mark of ${name}: ${colour ?? 'none'}`}
          className="flex size-7 items-center justify-center rounded hover:bg-hair"
        >
          <ColourMark colour={colour} />
        </button>
      }
    >
      <ul className="grid grid-cols-4 gap-1">
        {COLOUR_MARKS.map((mark) => (
          <li key={mark}>
            <button
              type="button"
              aria-pressed={mark === colour}
              onClick={() => choose(mark)}
              className={`flex h-8 w-full items-center justify-center gap-1.5 rounded text-small ${mark === colour ? 'bg-straw-soft' : 'hover:bg-hair'}`}
            >
              <ColourMark colour={mark} /> {mark}
            </button>
          </li>
        ))}
      </ul>
    </Popover>
  );
}

function Memberships({ list }: { list: string }) {
  const lines = useQuery(membershipsQuery(list));
  const filter = JSON.stringify({ all: [{ of: { field: 'lists' }, test: 'is-any-of', value: [list] }] });
  return (
    <div className="border-t border-hair bg-raised px-4 py-2">
      <Link
        to={`/records/contacts?${new URLSearchParams({ filter }).toString()}`}
        className="text-slate hover:underline"
      >
        Everybody who is on it now
      </Link>
      <ul className="mt-1 max-h-60 overflow-y-auto">
        {lines.data?.map(({ contact, name, joinedAt, leftAt }, index) => (
          <li key={index} className="flex gap-3 border-b border-hair py-1 last:border-b-0">
            <Link to={`/records/contacts/${contact}`} className="min-w-0 flex-1 truncate hover:underline">
              {name}
            </Link>
            <span className="flex-none text-small text-muted">
              came <Time at={joinedAt} />
              {leftAt && (
                <>
                  , left <Time at={leftAt} />
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
