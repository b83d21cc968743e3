import type { HistoryEntry, NoteShape, RecordSheet } from '@haycart/api';
import { CHANNEL_WORDS, showRecordValue, type FieldDefinition } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { useDestination } from '../api/destination';
import { submissionQuery } from '../api/queries';
import { takeBack } from '../api/edits';
import { PLURALS } from '../api/record-kinds';
import { Button } from '../components/button';
import { OUTBOX_KINDS, OUTBOX_WORDS } from '../components/outbox-state';
import { StateShape, type ShownState } from '../components/state-shape';
import { Sheet } from '../components/sheet';
import { Loading, messageOf } from '../components/status';
import { Time } from '../components/time';
import { Change } from '../components/value';
import { WhatWasSent } from '../components/what-was-sent';
import { repeats } from './values';

/** One thing that happened to a record. */
type Happening =
  | { of: 'submissions' | 'changes'; at: string; id: string; entry: HistoryEntry }
  | { of: 'notes'; at: string; id: string; note: NoteShape }
  | {
      of: 'tasks' | 'sent' | 'consent' | 'files';
      at: string;
      id: string;
      text: string;
      by: string;
      /** Of what was to be sent, where it is not. */
      state?: ShownState;
    };

const KINDS = ['submissions', 'changes', 'notes', 'tasks', 'sent', 'consent', 'files'] as const;

/** Everything that happened to a record in one line of time, narrowed to what one wants to see. */
export function RecordHistory({
  sheet,
  fields,
  notes,
}: {
  sheet: RecordSheet;
  fields: readonly FieldDefinition[];
  notes: readonly NoteShape[];
}) {
  const [only, setOnly] = useState<(typeof KINDS)[number] | null>(null);
  const all = happenings(sheet, notes);
  const shown = only ? all.filter(({ of }) => of === only) : all;
  return (
    <Sheet className="self-stretch">
      <header className="flex flex-wrap items-center gap-2 border-b border-line px-4 py-2">
        <h2 className="mr-auto text-base">History</h2>
        <label className="text-muted">
          <span className="sr-only">Show</span>
          <select
            value={only ?? ''}
            onChange={({ target }) => setOnly((target.value || null) as typeof only)}
            className="h-7 cursor-pointer rounded border border-line bg-sheet px-1 font-semibold text-ink"
          >
            <option value="">everything</option>
            {KINDS.filter((kind) => all.some(({ of }) => of === kind)).map((kind) => (
              <option key={kind} value={kind}>
                {kind}
              </option>
            ))}
          </select>
        </label>
      </header>
      <NewNote sheet={sheet} />
      <ol className="px-4">
        {shown.map((one) => (
          <li key={one.id} className="border-b border-hair py-2.5 last:border-b-0">
            {'entry' in one ? (
              <Entry entry={one.entry} sheet={sheet} fields={fields} />
            ) : 'note' in one ? (
              <Note note={one.note} sheet={sheet} />
            ) : (
              <p className="flex items-baseline gap-2">
                <span className="min-w-0 flex-1">
                  {one.state && <StateShape state={one.state} />} {one.text}{' '}
                  <span className="text-muted">by {one.by}</span>
                </span>
                <Time at={one.at} relative className="flex-none text-small text-muted" />
              </p>
            )}
          </li>
        ))}
      </ol>
    </Sheet>
  );
}

function happenings({ history, tasks, consents, files, sent }: RecordSheet, notes: readonly NoteShape[]): Happening[] {
  return [
    ...history.map((entry): Happening => ({
      of: entry.cause.submission ? 'submissions' : 'changes',
      at: entry.at,
      id: entry.id,
      entry,
    })),
    ...notes.map((note): Happening => ({ of: 'notes', at: note.at, id: note.id, note })),
    ...tasks.flatMap(({ id, text, at, by, doneAt, doneBy }): Happening[] => [
      { of: 'tasks', at, id, text: `Task: ${text}`, by },
      ...(doneAt ? [{ of: 'tasks' as const, at: doneAt, id: `${id} done`, text: `Done: ${text}`, by: doneBy! }] : []),
    ]),
    ...sent.map(({ id, kind, to, state, at, says, why, by }): Happening => ({
      of: 'sent',
      at,
      id,
      text: `${OUTBOX_KINDS[kind] ?? kind} to ${to}${state === 'done' ? '' : `, ${OUTBOX_WORDS[state].word}`}: ${says}${why && state !== 'done' ? ` (${why})` : ''}`,
      by,
      ...(state === 'done' ? {} : { state: OUTBOX_WORDS[state].shape }),
    })),
    ...consents.map(({ id, channel, state, words, at, by }): Happening => ({
      of: 'consent',
      at,
      id,
      text: `Consent to ${CHANNEL_WORDS[channel]} ${state}: “${words}”`,
      by,
    })),
    ...files.map(({ id, name, at, by }): Happening => ({ of: 'files', at, id, text: `File ${name} added`, by })),
  ].sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : 0));
}

function NewNote({ sheet: { record } }: { sheet: RecordSheet }) {
  const [text, setText] = useState('');
  const client = useQueryClient();
  const add = useMutation({
    mutationFn: () => call('POST', `/${PLURALS[record.kind]}/${record.id}/notes`, { text: text.trim() }),
    onSuccess: async () => {
      setText('');
      await client.invalidateQueries({ queryKey: ['records', 'sheet'] });
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <form
      className="flex items-end gap-2 border-b border-line px-4 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim()) add.mutate();
      }}
    >
      <textarea
        aria-label="New note"
        placeholder="Note what was said"
        rows={text ? 3 : 1}
        value={text}
        onChange={({ target }) => setText(target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && text.trim()) add.mutate();
        }}
        className="min-h-8 min-w-0 flex-1 rounded border-[1.5px] border-line bg-raised px-2 py-1"
      />
      <Button type="submit" disabled={!text.trim() || add.isPending}>
        Note
      </Button>
    </form>
  );
}

function Note({ note, sheet: { record } }: { note: NoteShape; sheet: RecordSheet }) {
  const [typed, setTyped] = useState<string | null>(null);
  const client = useQueryClient();
  const on = `/${PLURALS[record.kind]}/${record.id}/notes/${note.id}`;
  const settled = {
    onSuccess: async () => {
      setTyped(null);
      await client.invalidateQueries({ queryKey: ['records', 'sheet'] });
    },
    onError: (error: unknown) => toast.error(messageOf(error)),
  };
  const save = useMutation({ mutationFn: () => call('PATCH', on, { text: typed!.trim() }), ...settled });
  const remove = useMutation({ mutationFn: () => call('DELETE', on), ...settled });
  return (
    <>
      <p className="flex items-baseline gap-2">
        <span className="min-w-0 flex-1">
          <b className="font-semibold">{note.title || 'Note'}</b> by {note.by}
          {note.changedAt && <span className="text-muted">, changed since</span>}
        </span>
        <Time at={note.at} relative className="flex-none text-small text-muted" />
      </p>
      {typed === null ? (
        <p className="mt-0.5 whitespace-pre-line [overflow-wrap:anywhere]">{note.text}</p>
      ) : (
        <textarea
          autoFocus
          aria-label="Note"
          rows={4}
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
          className="mt-1 w-full rounded border-[1.5px] border-line bg-raised px-2 py-1"
        />
      )}
      <p className="mt-0.5 flex gap-3 text-small">
        {typed === null ? (
          <>
            <button type="button" className="text-slate hover:underline" onClick={() => setTyped(note.text)}>
              Edit
            </button>
            <button type="button" className="text-slate hover:underline" onClick={() => remove.mutate()}>
              Remove for good
            </button>
          </>
        ) : (
          <>
            <button
              type="button"
              className="text-slate hover:underline"
              disabled={!typed.trim()}
              onClick={() => save.mutate()}
            >
              Save
            </button>
            <button type="button" className="text-slate hover:underline" onClick={() => setTyped(null)}>
              Cancel
            </button>
          </>
        )}
      </p>
    </>
  );
}

function Entry({
  entry,
  sheet: { record },
  fields,
}: {
  entry: HistoryEntry;
  sheet: RecordSheet;
  fields: readonly FieldDefinition[];
}) {
  const client = useQueryClient();
  const destination = useDestination();
  const { at, cause, values, diff } = entry;
  const created = Object.keys(diff.created).length > 0;
  const order = (wanted: string) => fields.findIndex(({ key }) => key === wanted);
  const shown = values
    .filter(
      ({ field, after }) => fields[order(field)]?.type !== 'date-time' && !repeats(field, { [field]: after ?? '' }),
    )
    .sort((a, b) => order(a.field) - order(b.field));
  return (
    <>
      <p className="flex items-baseline gap-2">
        <span className="min-w-0 flex-1">
          <b className="font-semibold">{whatHappened(entry, created, shown.length > 0)}</b> by{' '}
          {cause.submission ? (
            <Link to={`/submissions?open=${cause.submission}`} className="text-slate underline underline-offset-2">
              the route {cause.label}
            </Link>
          ) : (
            cause.label || 'somebody'
          )}
          {cause.edit?.takenBack && <span className="text-muted">, taken back since</span>}
        </span>
        {cause.edit && !cause.edit.takenBack && (
          <button
            type="button"
            className="flex-none text-small text-slate hover:underline"
            onClick={() => void takeBack(client, cause.id)}
          >
            Take back
          </button>
        )}
        <Time at={at} relative className="flex-none text-small text-muted" />
      </p>
      {shown.length > 0 && (
        <dl className="mt-1 grid grid-cols-[minmax(0,110px)_minmax(0,1fr)] gap-x-3 text-[13px]">
          {shown.map(({ field, label, before, after }) => {
            const words = (value: typeof before) =>
              destination ? showRecordValue(destination, record.kind, field, value, record.values) : '';
            return (
              <div key={field} className="contents">
                <dt className="text-muted">{label}</dt>
                <dd className="min-w-0">
                  <Change before={created ? undefined : words(before)} after={words(after)} />
                </dd>
              </div>
            );
          })}
        </dl>
      )}
      {cause.submission && <WhatCame submission={cause.submission} intake={cause.intake} page={cause.page} />}
    </>
  );
}

/** What a submission came through, and when one asks all that was sent. */
function WhatCame({
  submission,
  intake,
  page,
}: {
  submission: string;
  intake: string | undefined;
  page: string | undefined;
}) {
  const [open, setOpen] = useState(false);
  const sent = useQuery({ ...submissionQuery(submission), enabled: open });
  return (
    <>
      <p className="flex flex-wrap gap-x-2 text-small text-muted">
        <span className="min-w-0 [overflow-wrap:anywhere]">
          {[intake && `through ${intake}`, page && `from ${page}`].filter(Boolean).join(', ')}
        </span>
        <button
          type="button"
          aria-expanded={open}
          className="text-slate hover:underline"
          onClick={() => setOpen((before) => !before)}
        >
          What was sent
        </button>
      </p>
      {open && sent.isPending && <Loading lines={3} />}
      {sent.isError && <p className="text-brick">{messageOf(sent.error)}</p>}
      {open && sent.data && <WhatWasSent submission={sent.data} />}
    </>
  );
}

function whatHappened({ cause, diff }: HistoryEntry, created: boolean, changed: boolean): string {
  if (Object.keys(diff.removed).length) return 'Deleted';
  if (cause.kind === 'take-back') return created ? 'Brought back' : 'Taken back';
  if (cause.kind === 'merge') return 'Merged';
  if (created) return cause.kind === 'import' ? 'Brought in from a file' : 'Created';
  if (changed) return 'Changed';
  if (cause.kind === 'run' && !diff.linked.length && !diff.unlinked.length) return 'Came again, nothing changed';
  return diff.unlinked.length ? 'Unlinked' : 'Linked';
}
