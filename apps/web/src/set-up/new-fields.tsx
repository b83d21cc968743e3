import type { FieldShape } from '@haycart/api';
import { FIELD_TYPES, fieldsFromText, hasOptions, headerRow, type FieldType, type RecordKind } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { TextArea } from '../components/text-field';
import { TYPE_WORDS } from '../components/field-words';

/** Makes one field or many from a pasted list or a sheet's header row, with types that their labels suggest. */
export function NewFields({
  record,
  labels,
  close,
}: {
  record: RecordKind;
  labels: readonly string[];
  close: () => void;
}) {
  const client = useQueryClient();
  const [text, setText] = useState('');
  const [types, setTypes] = useState<Record<string, FieldType>>({});
  const [options, setOptions] = useState<Record<string, string>>({});
  const taken = new Set(labels.map((label) => label.toLowerCase()));
  const listed = fieldsFromText(text).map((field) => ({
    ...field,
    type: types[field.label] ?? field.type,
    taken: taken.has(field.label.toLowerCase()),
  }));
  const wanted = listed.filter((field) => !field.taken);
  const make = useMutation({
    mutationFn: () =>
      call<FieldShape[]>(
        'POST',
        '/fields',
        wanted.map(({ label, type }) => ({
          record,
          label,
          type,
          ...(hasOptions({ type }) ? { options: optionsFrom(options[label] ?? '') } : {}),
        })),
      ),
    onSuccess: async (made) => {
      await client.invalidateQueries({ queryKey: ['fields'] });
      toast(made.length === 1 ? `Made the field ${made[0]!.label}.` : `Made ${made.length} fields.`);
      close();
    },
  });
  return (
    <Dialog open wide close={close} title={`New fields of the ${record}`}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <TextArea
          label="Labels"
          help="One a line, or the header row of a sheet, pasted. Types are guessed, and yours to change."
          autoFocus
          rows={4}
          value={text}
          placeholder={'Wanted by\nRidge height'}
          onChange={({ target }) => setText(target.value)}
        />
        <HeaderFromFile read={setText} />
        {listed.length > 0 && (
          <ul className="flex flex-col" aria-label="Fields to make">
            {listed.map(({ label, type, taken: has }) => (
              <li
                key={label}
                className="grid grid-cols-[minmax(0,1fr)_150px] items-center gap-2 border-b border-hair py-1"
              >
                <span className={`truncate font-semibold ${has ? 'text-muted line-through' : ''}`}>{label}</span>
                {has ? (
                  <span className="text-small text-muted">is there already</span>
                ) : (
                  <select
                    aria-label={`Type of ${label}`}
                    value={type}
                    onChange={({ target }) => setTypes({ ...types, [label]: target.value as FieldType })}
                    className="h-8 cursor-pointer rounded border border-line bg-raised px-1.5"
                  >
                    {FIELD_TYPES.map((one) => (
                      <option key={one} value={one}>
                        {TYPE_WORDS[one]}
                      </option>
                    ))}
                  </select>
                )}
                {!has && hasOptions({ type }) && (
                  <input
                    aria-label={`Options of ${label}`}
                    placeholder="Its options, with commas between"
                    value={options[label] ?? ''}
                    onChange={({ target }) => setOptions({ ...options, [label]: target.value })}
                    className="col-span-2 h-8 rounded border border-faint bg-raised px-2"
                  />
                )}
              </li>
            ))}
          </ul>
        )}
        <DialogActions
          error={make.error}
          close={close}
          action={wanted.length > 1 ? `Make ${wanted.length} fields` : 'Make the field'}
          disabled={!wanted.length || make.isPending}
        />
      </form>
    </Dialog>
  );
}

/** As much of a file as its header row can be, in bytes. */
const HEADER_BYTES = 1_000_000;

function HeaderFromFile({ read }: { read: (row: string) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button type="button" className="-mt-2 self-start" onClick={() => input.current?.click()}>
        <FileUp className="size-3.5" aria-hidden /> Take the header row of a CSV file
      </Button>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,text/csv"
        aria-label="CSV file"
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          const file = target.files?.[0];
          if (file)
            void file
              .slice(0, HEADER_BYTES)
              .text()
              .then((csv) => read(headerRow(csv)));
          target.value = '';
        }}
      />
    </>
  );
}

function optionsFrom(text: string): { label: string }[] {
  return text
    .split(',')
    .map((label) => ({ label: label.trim() }))
    .filter(({ label }) => label !== '');
}
