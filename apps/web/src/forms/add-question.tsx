import type { FieldShape } from '@haycart/api';
import {
  askableFields,
  FIELD_TYPES,
  hasOptions,
  newItemName,
  QUESTION_TYPE_LIST,
  questionFor,
  questionsOf,
  RECORD_KINDS,
  suggestedType,
  type Destination,
  type FieldDefinition,
  type FieldType,
  type FormDefinition,
  type Question,
  type QuestionTypeName,
  type RecordKind,
} from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { call } from '../api/client';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { TYPE_WORDS } from '../components/field-words';
import { PickFields } from '../components/pick-fields';
import { Popover } from '../components/popover';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';

/** Adds a question: one that asks for a field there is, for a field made on the spot, or for something else. */
export function AddQuestion({
  form,
  destination,
  add,
}: {
  form: FormDefinition;
  destination: Destination;
  add: (questions: readonly Question[]) => void;
}) {
  const [open, setOpen] = useState(false);
  const [find, setFind] = useState('');
  const asked = new Set(questionsOf(form).flatMap(({ feeds }) => (feeds ? [`${feeds.record} ${feeds.field}`] : [])));
  const wanted = find.trim().toLowerCase();
  const fields = askableFields(destination.fields).filter(
    ({ record, key, label }) => !asked.has(`${record} ${key}`) && label.toLowerCase().includes(wanted),
  );
  const put = (questions: readonly Question[]) => {
    add(questions);
    setOpen(false);
    setFind('');
  };
  const putFields = (chosen: readonly FieldDefinition[]) =>
    put(
      chosen.reduce<Question[]>((made, field) => {
        const name = newItemName(field.key, { items: [...form.items, ...made] });
        return [...made, questionFor(field, name, destination)];
      }, []),
    );
  const kinds = QUESTION_TYPE_LIST.filter(({ label }) => label.toLowerCase().includes(wanted));
  return (
    <Popover
      label="Add a question"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button>
          <Plus className="size-4" aria-hidden /> Add a question
        </Button>
      }
    >
      <TextField
        label="Find a field, or name a new one"
        value={find}
        autoFocus
        onChange={({ target }) => setFind(target.value)}
      />
      <PickFields fields={fields} take={putFields} verb="Ask for" />
      {wanted && !fields.some(({ label }) => label.toLowerCase() === wanted) && (
        <NewField label={find.trim()} form={form} destination={destination} made={(question) => put([question])} />
      )}
      {kinds.length > 0 && (
        <section className="mt-3">
          <h3 className="text-small text-muted">An unmapped answer</h3>
          {kinds.map(({ name, label }) => (
            <Pick key={name} name={label} choose={() => put([plainQuestion(name, label, form)])} />
          ))}
        </section>
      )}
    </Popover>
  );
}

function Pick({ name, choose }: { name: string; choose: () => void }) {
  return (
    <button type="button" onClick={choose} className="block w-full rounded px-2 py-1 text-left hover:bg-straw-soft">
      {name}
    </button>
  );
}

function plainQuestion(type: QuestionTypeName, label: string, form: FormDefinition): Question {
  const name = newItemName(type === 'hidden' ? 'hidden' : label, form);
  if (type === 'one-of' || type === 'several-of')
    return { name, type, label, options: [1, 2].map((n) => ({ value: `option-${n}`, label: `Option ${n}` })) };
  if (type === 'consent')
    return { name, type, label: 'You may write to me. I can stop this at any time.', version: '1' };
  return { name, type, label: type === 'hidden' ? '' : label };
}

/** Makes a field of a record without leaving the form, and asks for it. */
function NewField({
  label,
  form,
  destination,
  made,
}: {
  label: string;
  form: FormDefinition;
  destination: Destination;
  made: (question: Question) => void;
}) {
  const client = useQueryClient();
  const words = useWords();
  const [record, setRecord] = useState<RecordKind>('contact');
  const [type, setType] = useState<FieldType | null>(null);
  const chosen = type ?? suggestedType(label);
  const [options, setOptions] = useState('');
  const make = useMutation({
    mutationFn: () => {
      const listed = options
        .split(',')
        .map((one) => ({ label: one.trim() }))
        .filter((one) => one.label);
      const field = { record, label, type: chosen, ...(hasOptions({ type: chosen }) ? { options: listed } : {}) };
      return call<FieldShape[]>('POST', '/fields', [field]);
    },
    onSuccess: async ([field]) => {
      await client.invalidateQueries({ queryKey: ['fields'] });
      made(questionFor(field!, newItemName(field!.key, form), destination));
    },
  });
  const select = 'h-8 min-w-0 flex-1 cursor-pointer rounded border border-faint bg-sheet px-1.5';
  return (
    <section className="mt-3 rounded border border-line p-2">
      <h3 className="mb-1.5">
        New field <b>{label}</b>
      </h3>
      <div className="flex gap-1.5">
        <select
          aria-label="Record of the new field"
          className={select}
          value={record}
          onChange={({ target }) => setRecord(target.value as RecordKind)}
        >
          {RECORD_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {words.One(kind)}
            </option>
          ))}
        </select>
        <select
          aria-label="Type of the new field"
          className={select}
          value={chosen}
          onChange={({ target }) => setType(target.value as FieldType)}
        >
          {FIELD_TYPES.filter((one) => one !== 'person' && one !== 'date-time').map((one) => (
            <option key={one} value={one}>
              {TYPE_WORDS[one]}
            </option>
          ))}
        </select>
      </div>
      {hasOptions({ type: chosen }) && (
        <input
          aria-label="Options of the new field"
          placeholder="Its options, with commas between"
          value={options}
          onChange={({ target }) => setOptions(target.value)}
          className="mt-1.5 h-8 w-full rounded border border-faint bg-sheet px-2"
        />
      )}
      {make.isError && (
        <p role="alert" className="mt-1 text-small text-brick">
          {messageOf(make.error)}
        </p>
      )}
      <Button className="mt-2" disabled={make.isPending} onClick={() => make.mutate()}>
        Make it and ask for it
      </Button>
    </section>
  );
}
