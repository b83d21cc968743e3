import type { DoneEdit, HistoryEntry, RecordShape } from '@haycart/api';
import { showFieldValue, type FieldDefinition, type JsonValue } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { History, Pencil } from 'lucide-react';
import { useState } from 'react';
import { ApiError, call } from '../api/client';
import { offerUndo } from '../api/edits';
import { pipelinesQuery } from '../api/queries';
import { PLURALS } from '../api/record-kinds';
import { Button, IconButton } from '../components/button';
import { Chip } from '../components/colour-mark';
import { editableValue, FieldInput } from '../components/field-input';
import { exactTime } from '../components/format';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { TraceOfValue } from './trace-of-value';

/** The values of a record, by group: edited in their place, each with where it came from. */
export function Values({
  record,
  fields,
  history,
}: {
  record: RecordShape;
  fields: readonly FieldDefinition[];
  history: readonly HistoryEntry[];
}) {
  const [traced, setTraced] = useState<string | null>(null);
  const [edited, setEdited] = useState<string | null>(null);
  const [blanks, setBlanks] = useState(false);
  const filled = (field: FieldDefinition) =>
    record.values[field.key] !== undefined && !(repeats(field.key, record.values) && edited !== field.key);
  const shown = fields.filter((field) => filled(field) || field.key === edited || (blanks && mayEdit(field)));
  const others = fields.filter((field) => !shown.includes(field) && mayEdit(field));
  const single = others.filter(({ key }) => repeats(key, record.values));
  const blank = others.filter((field) => !single.includes(field));
  const more = [
    ['Blank:', blank],
    ['Holds one, add another to:', single],
  ] as const;
  const groups = [...new Set(shown.map(({ group = '' }) => group))].sort((a, b) =>
    a === '' ? -1 : b === '' ? 1 : a.localeCompare(b),
  );
  return (
    <Sheet>
      <h2 className="border-b border-line px-4 py-2.5 text-base">Values</h2>
      {groups.map((group) => (
        <section key={group}>
          {group && <h3 className="border-b border-hair bg-ground px-4 py-1 text-label text-muted">{group}</h3>}
          <ul>
            {shown
              .filter((field) => (field.group ?? '') === group)
              .map((field) => (
                <li key={field.key} className="border-b border-hair last:border-b-0">
                  {edited === field.key ? (
                    <EditedValue record={record} field={field} close={() => setEdited(null)} />
                  ) : (
                    <ValueLine
                      record={record}
                      field={field}
                      traced={traced === field.key}
                      trace={() => setTraced(traced === field.key ? null : field.key)}
                      edit={mayEdit(field) ? () => setEdited(field.key) : undefined}
                    />
                  )}
                  {traced === field.key && edited !== field.key && <TraceOfValue field={field} history={history} />}
                </li>
              ))}
          </ul>
        </section>
      ))}
      {(others.length > 0 || blanks) && (
        <p className="border-t border-line px-4 py-2 text-small text-muted">
          {blanks ? (
            <button type="button" className="text-slate hover:underline" onClick={() => setBlanks(false)}>
              Leave out the blank ones
            </button>
          ) : (
            more
              .filter(([, listed]) => listed.length > 0)
              .map(([what, listed]) => (
                <span key={what} className="block">
                  {what}{' '}
                  {listed.map(({ key, label }, index) => (
                    <span key={key}>
                      {index > 0 && ', '}
                      <button type="button" className="text-slate hover:underline" onClick={() => setEdited(key)}>
                        {label}
                      </button>
                    </span>
                  ))}
                </span>
              ))
          )}
        </p>
      )}
    </Sheet>
  );
}

function ValueLine({
  record,
  field,
  traced,
  trace,
  edit,
}: {
  record: RecordShape;
  field: FieldDefinition;
  traced: boolean;
  trace: () => void;
  edit: (() => void) | undefined;
}) {
  return (
    <div
      className={`group grid grid-cols-[minmax(0,140px)_minmax(0,1fr)_auto] items-start gap-3 px-4 hover:bg-raised ${traced ? 'bg-straw-soft shadow-[inset_4px_0_0_var(--color-straw)]' : ''}`}
    >
      <span className="py-1.5 text-muted" title={field.help}>
        {field.label}
      </span>
      {edit ? (
        <button
          type="button"
          onClick={edit}
          className="min-w-0 cursor-text py-1.5 text-left [overflow-wrap:anywhere] whitespace-pre-line"
        >
          <span className="sr-only">Edit {field.label}: </span>
          <Shown record={record} field={field} />
        </button>
      ) : (
        <span className="min-w-0 py-1.5 [overflow-wrap:anywhere] whitespace-pre-line">
          <Shown record={record} field={field} />
        </span>
      )}
      <span className="flex py-0.5 text-muted">
        {edit && (
          <IconButton
            label={`Edit ${field.label} here`}
            tabIndex={-1}
            className="!size-7 opacity-0 group-hover:opacity-100"
            onClick={edit}
          >
            <Pencil className="size-3.5" aria-hidden />
          </IconButton>
        )}
        {record.values[field.key] !== undefined && (
          <IconButton
            label={`Where ${field.label} came from`}
            aria-expanded={traced}
            className="!size-7"
            onClick={trace}
          >
            <History className="size-3.5" aria-hidden />
          </IconButton>
        )}
      </span>
    </div>
  );
}

function Shown({ record, field }: { record: RecordShape; field: FieldDefinition }) {
  const pipelines = useQuery(pipelinesQuery).data ?? [];
  const value = record.values[field.key];
  if (value === undefined) return <span className="text-faint">blank</span>;
  const pipeline = pipelines.find(({ key }) => key === record.values.pipeline);
  if (field.key === 'pipeline') return pipeline?.name ?? String(value);
  if (field.key === 'stage') return pipeline?.stages.find(({ key }) => key === value)?.name ?? String(value);
  if (field.type === 'date-time') return exactTime(String(value));
  if (field.options && Array.isArray(value))
    return (
      <span className="flex flex-wrap gap-1">
        {value.map((key) => {
          const option = field.options!.find((one) => one.key === key);
          return <Chip key={key} name={option?.label ?? key} colour={option?.colour} />;
        })}
      </span>
    );
  const option = field.options?.find(({ key }) => key === value);
  if (option?.colour) return <Chip name={option.label} colour={option.colour} />;
  return showFieldValue(field, value);
}

/** One value while it is edited. What somebody else changed meanwhile is told, and nothing is overwritten unasked. */
function EditedValue({ record, field, close }: { record: RecordShape; field: FieldDefinition; close: () => void }) {
  const client = useQueryClient();
  // What stood here when the editing began: a later change of somebody else must not be overwritten unseen.
  const [was] = useState(editableValue(record.values[field.key]));
  const [value, setValue] = useState<JsonValue>(was);
  const save = useMutation({
    mutationFn: (anyway: boolean) =>
      call<DoneEdit>('PATCH', `/${PLURALS[record.kind]}/${record.id}`, {
        values: { [field.key]: Array.isArray(value) ? value.filter((one) => one !== '') : value },
        ...(anyway ? {} : { was: { [field.key]: was } }),
      }),
    onSuccess: async (done) => {
      await client.invalidateQueries({ queryKey: ['records'] });
      close();
      offerUndo(client, done);
    },
  });
  const conflict = save.error instanceof ApiError && save.error.problem.code === 'changed-meanwhile';
  const press = (event: React.KeyboardEvent) => {
    if (event.key === 'Escape') close();
    if (event.key === 'Enter' && field.type !== 'long-text' && field.type !== 'several-of') {
      event.preventDefault();
      save.mutate(false);
    }
  };
  return (
    <form
      noValidate
      onKeyDown={press}
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(false);
      }}
      className="grid grid-cols-[minmax(0,140px)_minmax(0,1fr)] gap-3 bg-raised px-4 py-2 shadow-[inset_4px_0_0_var(--color-slate)]"
    >
      <span className="pt-1.5 text-muted">{field.label}</span>
      <span className="flex min-w-0 flex-col gap-2">
        <FieldInput
          field={field}
          label={field.label}
          value={value}
          change={setValue}
          autoFocus
          invalid={save.isError}
        />
        {field.help && <span className="text-small text-muted">{field.help}</span>}
        {save.isError && (
          <span role="alert" className="text-small text-brick">
            {conflict ? (save.error as ApiError).problem.detail : messageOf(save.error)}
          </span>
        )}
        <span className="flex gap-2">
          {conflict ? (
            <Button look="main" onClick={() => save.mutate(true)}>
              Put mine in its place
            </Button>
          ) : (
            <Button look="main" type="submit" disabled={save.isPending}>
              Save
            </Button>
          )}
          <Button onClick={close}>{conflict ? 'Keep theirs' : 'Cancel'}</Button>
        </span>
      </span>
    </form>
  );
}

/** Whether people set a field by hand. */
function mayEdit({ kept, byHand }: FieldDefinition): boolean {
  return !kept || byHand === true;
}

/** A list of one says nothing that the field beside it does not say. */
export function repeats(key: string, values: RecordShape['values']): boolean {
  const value = values[key];
  return (key === 'emails' || key === 'phones') && Array.isArray(value) && value.length < 2;
}
