import {
  capitalised,
  factsOf,
  fieldLabel,
  INPUT_KINDS,
  inputAsFor,
  parseKey,
  recordWord,
  withInput,
  withInputChanged,
  withoutInput,
  type DecisionInput,
  type DecisionTable,
  type InputAs,
  type Part,
  type TableAround,
} from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { profileQuery } from '../../api/queries';
import { Button } from '../../components/button';
import { SelectField, TextField } from '../../components/text-field';
import { useOpenedRoute } from '../route-pages';

/** What a column of tests looks at, and how it is read. */
export function InputSettings({
  table,
  at,
  around,
  edit,
}: {
  table: DecisionTable;
  at: number;
  around: TableAround;
  edit: (change: (table: DecisionTable) => DecisionTable) => void;
}) {
  const input = table.inputs[at]!;
  const [label, setLabel] = useState(input.label);
  const put = (next: DecisionInput) => edit((now) => withInputChanged(now, at, next, around));
  const moment = 'visit' in input.of && input.of.visit === 'receivedAt';
  const ofRecord = 'write' in input.of;
  return (
    <div className="grid gap-3">
      <TextField
        label="Name of the column"
        value={label}
        onChange={({ target }) => setLabel(target.value)}
        onBlur={() => label.trim() !== '' && label !== input.label && put({ ...input, label: label.trim() })}
      />
      <PartChoice
        label="Looks at"
        part={input.of}
        table={table}
        around={around}
        change={(of) => put(settled({ ...input, of }))}
      />
      {!ofRecord && (
        <SelectField
          label="Read as"
          value={input.as ?? 'text'}
          onChange={({ target }) => put({ ...input, as: target.value as InputAs })}
        >
          {INPUT_KINDS.map(({ as, label: words }) => (
            <option key={as} value={as}>
              {words}
            </option>
          ))}
        </SelectField>
      )}
      {input.as === 'region' && (
        <PartChoice
          label="Postal code"
          part={input.postcode}
          table={table}
          around={around}
          change={(postcode) => put({ ...input, postcode })}
        />
      )}
      {moment && (
        <TextField
          label="Time zone"
          placeholder="UTC"
          help="Such as Europe/London; clocks that change are minded."
          defaultValue={input.timeZone ?? ''}
          onBlur={({ target }) => {
            const { timeZone: _, ...rest } = input;
            put(target.value.trim() === '' ? rest : { ...rest, timeZone: target.value.trim() });
          }}
        />
      )}
      <Button look="danger" className="justify-self-start" onClick={() => edit((now) => withoutInput(now, at))}>
        Remove the column
      </Button>
    </div>
  );
}

/** A value of a record is read by its field. */
function settled(input: DecisionInput): DecisionInput {
  if (!('write' in input.of)) return input;
  const { as: _, postcode: __, timeZone: ___, ...rest } = input;
  return rest;
}

/** The last part of a key as a heading: `Glass m2` of `business.glass_m2`. */
function lastWordOf(key: string): string {
  return capitalised(String(parseKey(key)?.at(-1) ?? key).replaceAll('_', ' '));
}

/** Adds a column of tests. */
export function NewInput({
  table,
  around,
  edit,
}: {
  table: DecisionTable;
  around: TableAround;
  edit: (change: (table: DecisionTable) => DecisionTable) => void;
}) {
  const [part, setPart] = useState<Part | undefined>(undefined);
  const names = usePartNames(table, around);
  const add = () => {
    if (!part) return;
    const found = names.find((one) => one.value === JSON.stringify(part));
    const as = 'visit' in part && part.visit === 'receivedAt' ? 'weekday' : (found?.as ?? 'text');
    const label = 'answer' in part && found?.label === part.answer ? lastWordOf(part.answer) : found?.label;
    edit((now) => withInput(now, { of: part, label: label ?? 'Column', ...(as === 'text' ? {} : { as }) }));
    setPart(undefined);
  };
  return (
    <div className="grid content-start gap-3">
      <h3 className="text-[14px] font-semibold">A column of tests</h3>
      <PartChoice label="Looks at" part={part} table={table} around={around} change={setPart} />
      <Button className="justify-self-start" disabled={!part} onClick={add}>
        Add the test
      </Button>
    </div>
  );
}

interface PartName {
  group: string;
  label: string;
  value: string;
  /** How an answer is read, by what it looks like. */
  as?: InputAs;
}

/** Everything that a column may look at. */
function usePartNames(table: DecisionTable, { destination, writes, tables }: TableAround): PartName[] {
  const { definition } = useOpenedRoute();
  const intake = definition.from[0] ?? '';
  const fields = useQuery({ ...profileQuery(intake), enabled: intake !== '' }).data?.fields ?? [];
  const name = (group: string, label: string, part: Part): PartName => ({ group, label, value: JSON.stringify(part) });
  const visit = ['channel', 'source', 'medium', 'campaign', 'page', 'referrer'].map((one) =>
    name('The visit', one, { visit: one }),
  );
  return [
    ...fields.map(({ key, label, kind }) => ({ ...name('Answers', label, { answer: key }), as: inputAsFor(kind) })),
    name('When it came', 'Time of arrival', { visit: 'receivedAt' }),
    ...visit,
    ...writes.flatMap(({ as, record }) => {
      const fed = definition.writes.find((write) => write.as === as)?.fills.map(({ field }) => field) ?? [];
      const word = recordWord(destination, record);
      return [
        ...factsOf(record).map((fact) => name(`The ${word}`, fact.label, { write: as, field: fact.key })),
        ...[...new Set([...fed, 'owner'])].map((field) =>
          name(`The ${word}`, fieldLabel(destination, record, field), { write: as, field }),
        ),
      ];
    }),
    ...tables.flatMap((other) =>
      other.outputs.map((output) =>
        name(`The table ${other.name}`, output.name, { decision: other.name, output: output.name }),
      ),
    ),
  ].filter(({ group }) => group !== `The table ${table.name}`);
}

function PartChoice({
  label,
  part,
  table,
  around,
  change,
}: {
  label: string;
  part: Part | undefined;
  table: DecisionTable;
  around: TableAround;
  change: (part: Part) => void;
}) {
  const names = usePartNames(table, around);
  const value = part ? JSON.stringify(part) : '';
  const groups = [...new Set(names.map(({ group }) => group))];
  return (
    <SelectField label={label} value={value} onChange={({ target }) => change(JSON.parse(target.value) as Part)}>
      {!names.some((one) => one.value === value) && (
        <option value={value} disabled={value === ''}>
          {part && 'answer' in part ? part.answer : part ? value : 'choose what it looks at'}
        </option>
      )}
      {groups.map((group) => (
        <optgroup key={group} label={group}>
          {names
            .filter((one) => one.group === group)
            .map((one) => (
              <option key={one.value} value={one.value}>
                {one.label}
              </option>
            ))}
        </optgroup>
      ))}
    </SelectField>
  );
}
