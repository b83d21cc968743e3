import type { DoneEdit, FieldMoveRehearsal, FieldUse, TypeChangeRehearsal } from '@haycart/api';
import {
  canBeUnique,
  counted,
  FIELD_TYPES,
  listInWords,
  RECORD_KINDS,
  type FieldType,
  type RecordKind,
} from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../api/client';
import { offerUndo } from '../api/edits';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { count } from '../components/format';
import { messageOf } from '../components/status';
import { SelectField, TextArea, TextField } from '../components/text-field';
import { TYPE_WORDS } from '../components/field-words';
import { useFieldChange } from '../components/use-field-change';

/** Everything about a field that is not on its line: help, group, no two alike, its type, and the record it is on. */
export function FieldDialog({
  field,
  groups,
  close,
}: {
  field: FieldUse;
  groups: readonly string[];
  close: () => void;
}) {
  const change = useFieldChange(field);
  const [help, setHelp] = useState(field.help ?? '');
  const [group, setGroup] = useState(field.group ?? '');
  return (
    <Dialog open close={close} wide title={field.label} description={aboutField(field)}>
      <div className="flex flex-col gap-5">
        <form
          className="grid gap-3 sm:grid-cols-2"
          onSubmit={(event) => {
            event.preventDefault();
            change.mutate({ help: help.trim(), group: group.trim() }, { onSuccess: close });
          }}
        >
          <TextArea
            label="Help"
            rows={2}
            placeholder="What belongs in here, in a sentence"
            value={help}
            onChange={({ target }) => setHelp(target.value)}
          />
          <div className="flex flex-col gap-3">
            <TextField
              label="Group"
              list="field-groups"
              placeholder="The heading it is listed under"
              value={group}
              onChange={({ target }) => setGroup(target.value)}
            />
            <datalist id="field-groups">
              {groups.map((one) => (
                <option key={one} value={one} />
              ))}
            </datalist>
            {canBeUnique(field) && (
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4 accent-green"
                  checked={field.unique ?? false}
                  disabled={change.isPending}
                  onChange={({ target }) => change.mutate({ unique: target.checked })}
                />
                No two records hold the same
              </label>
            )}
          </div>
          <div className="flex justify-end sm:col-span-2">
            <Button look="main" type="submit" disabled={change.isPending}>
              Save help and group
            </Button>
          </div>
        </form>
        {!field.builtIn && (
          <>
            <ChangeType field={field} close={close} />
            <MoveField field={field} close={close} />
          </>
        )}
      </div>
    </Dialog>
  );
}

function ChangeType({ field, close }: { field: FieldUse; close: () => void }) {
  const client = useQueryClient();
  const [type, setType] = useState<FieldType>(field.type);
  const [clear, setClear] = useState(false);
  const on = `/fields/${field.record}/${field.key}/type`;
  const rehearsal = useQuery({
    queryKey: ['fields', 'type', field.record, field.key, type],
    queryFn: () => call<TypeChangeRehearsal>('POST', `${on}/rehearse`, { type }),
    enabled: type !== field.type,
  });
  const change = useMutation({
    mutationFn: () => call<DoneEdit>('POST', on, { type, clearMisfits: clear }),
    onSuccess: async (done) => {
      await client.invalidateQueries({ queryKey: ['fields'] });
      offerUndo(client, { ...done, edit: null });
      close();
    },
  });
  const shown = type !== field.type && rehearsal.data;
  return (
    <Part title="Another type">
      <SelectField label="Type" hideLabel value={type} onChange={({ target }) => setType(target.value as FieldType)}>
        {FIELD_TYPES.map((one) => (
          <option key={one} value={one}>
            {TYPE_WORDS[one]}
          </option>
        ))}
      </SelectField>
      {shown && (
        <div className="mt-2">
          <p>
            {shown.records === 0
              ? 'Nothing is held yet, so nothing changes.'
              : `${count(shown.fit)} of ${counted(shown.records, 'value')} fit.`}
          </p>
          <ul className="mt-1 text-small">
            {shown.examples.map(({ from, to }) => (
              <li key={from} className="flex gap-2">
                <span className="min-w-0 truncate text-muted">{from}</span>
                <span aria-label="becomes">→</span>
                <span className="min-w-0 truncate">{to}</span>
              </li>
            ))}
            {shown.misfits.map(({ value, records }) => (
              <li key={value} className="flex gap-2 text-brick">
                <span className="min-w-0 truncate">“{value}”</span> does not fit, on {counted(records, 'record')}
              </li>
            ))}
          </ul>
          {shown.misfitRecords > 0 && (
            <label className="mt-2 flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-green"
                checked={clear}
                onChange={({ target }) => setClear(target.checked)}
              />
              Clear the {counted(shown.misfitRecords, 'value')} that {shown.misfitRecords === 1 ? 'does' : 'do'} not fit
            </label>
          )}
          {change.isError && (
            <p role="alert" className="text-brick">
              {messageOf(change.error)}
            </p>
          )}
          <Button
            className="mt-2"
            disabled={change.isPending || (shown.misfitRecords > 0 && !clear)}
            onClick={() => change.mutate()}
          >
            Make it {TYPE_WORDS[type]}
          </Button>
        </div>
      )}
    </Part>
  );
}

function MoveField({ field, close }: { field: FieldUse; close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const words = useWords();
  const [to, setTo] = useState<RecordKind | ''>('');
  const on = `/fields/${field.record}/${field.key}/move`;
  const rehearsal = useQuery({
    queryKey: ['fields', 'move', field.record, field.key, to],
    queryFn: () => call<FieldMoveRehearsal>('POST', `${on}/rehearse`, { to }),
    enabled: to !== '',
  });
  const move = useMutation({
    mutationFn: () => call<DoneEdit>('POST', on, { to }),
    onSuccess: async (done) => {
      await client.invalidateQueries({ queryKey: ['fields'] });
      close();
      await navigate(`/set-up/fields/${to}`);
      offerUndo(client, { ...done, edit: null });
    },
  });
  const shown = to !== '' && rehearsal.data;
  return (
    <Part title="Another record">
      <SelectField
        label="Move to"
        hideLabel
        value={to}
        onChange={({ target }) => setTo(target.value as RecordKind | '')}
      >
        <option value="">stays on the {words.one(field.record)}</option>
        {RECORD_KINDS.filter((kind) => kind !== field.record).map((kind) => (
          <option key={kind} value={kind}>
            moves to the {words.one(kind)}
          </option>
        ))}
      </SelectField>
      {shown && (
        <div className="mt-2">
          <ul className="text-small">
            <li>
              {words.counted(shown.moved, to)} {shown.moved === 1 ? 'gets' : 'get'} a value from what is linked.
            </li>
            {shown.several > 0 && (
              <li>{counted(shown.several, 'value')} give way to a later one of the same record.</li>
            )}
            {shown.nowhere > 0 && (
              <li className="text-brick">
                {counted(shown.nowhere, 'value')} {shown.nowhere === 1 ? 'has' : 'have'} nothing linked to go to, and
                stay out of sight on the old field.
              </li>
            )}
            {shown.routes.map(({ id, name, follows }) => (
              <li key={id} className={follows ? '' : 'text-brick'}>
                The route {name} {follows ? 'follows.' : `writes no ${words.one(to)}; change it first.`}
              </li>
            ))}
          </ul>
          {move.isError && (
            <p role="alert" className="text-brick">
              {messageOf(move.error)}
            </p>
          )}
          <Button
            className="mt-2"
            disabled={move.isPending || shown.routes.some(({ follows }) => !follows)}
            onClick={() => move.mutate()}
          >
            Move it to the {words.one(to)}
          </Button>
        </div>
      )}
    </Part>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="border-t border-line pt-3">
      <h3 className="mb-1.5 text-[14px]">{title}</h3>
      {children}
    </section>
  );
}

function aboutField({ type, filled, views, forms }: FieldUse): string {
  const asked = forms.length
    ? ` The ${forms.length === 1 ? 'form' : 'forms'} ${listInWords(forms.map(({ name }) => name))} ${forms.length === 1 ? 'asks' : 'ask'} for it.`
    : '';
  const named = views.length
    ? ` The ${views.length === 1 ? 'view' : 'views'} ${listInWords(views.map(({ name }) => name))} ${views.length === 1 ? 'names' : 'name'} it.`
    : '';
  return `A ${TYPE_WORDS[type]} field, ${counted(filled, 'value')} held.${asked}${named}`;
}
