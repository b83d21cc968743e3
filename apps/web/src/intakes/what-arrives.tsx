import type { ProfileFieldShape, ProfileShape } from '@haycart/api';
import { counted } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { profileQuery } from '../api/queries';
import { Button, IconButton } from '../components/button';
import { count, percent } from '../components/format';
import { Mono, Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { NamesFromDocument } from './names-from-document';
import { Time } from '../components/time';

const KINDS: Record<ProfileFieldShape['kind'], string> = {
  email: 'e-mail',
  phone: 'phone',
  web: 'web address',
  date: 'date',
  'date-time': 'time',
  money: 'money',
  'whole-number': 'whole number',
  decimal: 'number',
  'yes-no': 'yes or no',
  country: 'country',
  id: 'id',
  list: 'list',
  'long-text': 'long text',
  text: 'text',
};
const SHOWN = 40;

/** Every field that an intake has really received: what it holds, how full it is, and a name where the sender has none. */
export function WhatArrives({ intakeKey }: { intakeKey: string }) {
  const profile = useQuery(profileQuery(intakeKey)).data;
  const [all, setAll] = useState(false);
  if (!profile?.fields.length) return null;
  const { submissions, fields, beyond } = profile;
  return (
    <Sheet className="mt-5 overflow-x-auto">
      <header className="flex items-baseline gap-3 px-4 pt-3 pb-2">
        <h2 className="text-base">What arrives</h2>
        <span className="text-muted">
          {counted(fields.length, 'field')} in {counted(submissions, 'submission')}
          {beyond > 0 && `, and ${count(beyond)} more that are not told apart`}
        </span>
        <NamesFromDocument intakeKey={intakeKey} fields={fields} />
      </header>
      <table className="w-full min-w-[860px]">
        <thead>
          <tr className="border-b border-line text-left text-label text-muted">
            <th className="px-4 py-1.5 font-semibold">Field</th>
            <th className="px-2 py-1.5 font-semibold">Holds</th>
            <th className="px-2 py-1.5 text-right font-semibold">Filled</th>
            <th className="px-2 py-1.5 text-right font-semibold">Values</th>
            <th className="px-2 py-1.5 font-semibold">For example</th>
            <th className="px-4 py-1.5 text-right font-semibold">Last</th>
          </tr>
        </thead>
        <tbody>
          {fields.slice(0, all ? undefined : SHOWN).map((field) => (
            <FieldLine key={field.key} field={field} submissions={submissions} intakeKey={intakeKey} />
          ))}
        </tbody>
      </table>
      {!all && fields.length > SHOWN && (
        <Button className="m-3" onClick={() => setAll(true)}>
          Show all {count(fields.length)}
        </Button>
      )}
    </Sheet>
  );
}

function FieldLine({
  field,
  submissions,
  intakeKey,
}: {
  field: ProfileFieldShape;
  submissions: number;
  intakeKey: string;
}) {
  const { key, label, kind, filled, distinct, more, examples, also, lastFilled, dateOrder } = field;
  return (
    <tr className="border-b border-hair last:border-b-0">
      <td className="max-w-0 px-4 py-1.5" style={{ width: '30%' }}>
        <FieldName field={field} intakeKey={intakeKey} />
        {label !== key && <Mono className="block truncate text-muted">{key}</Mono>}
        {also.length > 0 && (
          <span className="block truncate text-small text-muted" title={also.join(', ')}>
            also written {also.join(', ')}
          </span>
        )}
      </td>
      <td className="px-2 py-1.5 whitespace-nowrap">
        {KINDS[kind]}
        {dateOrder && (
          <span className="block text-small text-muted">
            {dateOrder === 'day-first' ? 'the day comes first' : 'the month comes first'}
          </span>
        )}
      </td>
      <td className="px-2 py-1.5 text-right tabular-nums" title={`${count(filled)} of ${count(submissions)}`}>
        {percent(filled / submissions)}
      </td>
      <td className="px-2 py-1.5 text-right tabular-nums">
        {count(distinct)}
        {more && '+'}
      </td>
      <td className="max-w-0 truncate px-2 py-1.5" style={{ width: '32%' }} title={examples.join('\n')}>
        {examples.join(', ') || <span className="text-muted">never filled</span>}
      </td>
      <td className="px-4 py-1.5 text-right whitespace-nowrap text-muted">{lastFilled && <Time at={lastFilled} />}</td>
    </tr>
  );
}

/** What a field is called; a person names it once, where the sender gives only an id. */
function FieldName({ field: { key, label, named }, intakeKey }: { field: ProfileFieldShape; intakeKey: string }) {
  const client = useQueryClient();
  const [typed, setTyped] = useState<string | null>(null);
  const name = useMutation({
    mutationFn: (wanted: string | null) =>
      call<ProfileShape>('PUT', `/intakes/${encodeURIComponent(intakeKey)}/profile/names`, {
        names: { [key]: wanted },
      }),
    onSuccess: (profile) => {
      client.setQueryData(profileQuery(intakeKey).queryKey, profile);
      setTyped(null);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  if (typed === null)
    return (
      <span className="flex items-center gap-1">
        {label === key ? <Mono className="truncate">{key}</Mono> : <b className="truncate font-semibold">{label}</b>}
        <IconButton
          label={`Name ${label}`}
          className="!size-6 flex-none text-muted"
          onClick={() => setTyped(named ? label : '')}
        >
          <Pencil className="size-3" aria-hidden />
        </IconButton>
      </span>
    );
  return (
    <form
      className="flex items-center gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        name.mutate(typed.trim() || null);
      }}
    >
      <TextField
        label={`Name of ${key}`}
        hideLabel
        autoFocus
        maxLength={200}
        placeholder="What is asked there"
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
        onKeyDown={({ key: pressed }) => pressed === 'Escape' && setTyped(null)}
      />
      <Button type="submit" className="!h-8" disabled={name.isPending}>
        Keep
      </Button>
    </form>
  );
}
