import {
  OUTPUT_TYPES,
  withDecidedOutputChanged,
  withoutOutput,
  withTable,
  type DecisionTable,
  type OutputType,
  type TableAround,
} from '@haycart/core';
import { useState } from 'react';
import { Button } from '../../components/button';
import { SelectField, TextField } from '../../components/text-field';
import { useDraft } from '../draft';

const TYPE_WORDS: Readonly<Record<OutputType, string>> = {
  text: 'a text',
  pipeline: 'a pipeline',
  stage: 'a stage',
  owner: 'who gets it: a person or a team',
  person: 'a person',
  team: 'a team',
  tag: 'a tag',
  list: 'a list',
  number: 'a number or an amount',
  'yes-no': 'yes or no',
  'when-matched': 'what happens to a known record',
  again: 'what a second enquiry does',
};

/** What an output is called and what it says. */
export function OutputSettings({ table, at, around }: { table: DecisionTable; at: number; around: TableAround }) {
  const output = table.outputs[at]!;
  const change = useDraft(({ change }) => change);
  const [name, setName] = useState(output.name);
  const taken = table.outputs.some((other, index) => index !== at && other.name === name.trim());
  const put = (next: typeof output) =>
    change((route) => withDecidedOutputChanged(route, table.name, at, next, around.destination));
  return (
    <div className="grid gap-3">
      <TextField
        label="Name of the output"
        value={name}
        error={taken ? 'Another output has this name.' : undefined}
        onChange={({ target }) => setName(target.value)}
        onBlur={() =>
          name.trim() !== '' && !taken && name.trim() !== output.name && put({ ...output, name: name.trim() })
        }
      />
      <TypeChoice value={output.type} change={(type) => put({ ...output, type })} />
      <Button
        look="danger"
        className="justify-self-start"
        onClick={() => change((route) => withTable(route, table.name, (now) => withoutOutput(now, at)))}
      >
        Remove the output
      </Button>
    </div>
  );
}

/** Adds an output. */
export function NewOutput({
  table,
  edit,
}: {
  table: DecisionTable;
  edit: (change: (table: DecisionTable) => DecisionTable) => void;
}) {
  const [name, setName] = useState('');
  const [type, setType] = useState<OutputType>('text');
  const taken = table.outputs.some((other) => other.name === name.trim());
  return (
    <div className="grid content-start gap-3">
      <h3 className="text-[14px] font-semibold">An output</h3>
      <TextField
        label="Name of the new output"
        value={name}
        error={taken ? 'Another output has this name.' : undefined}
        onChange={({ target }) => setName(target.value)}
      />
      <TypeChoice value={type} change={setType} />
      <Button
        className="justify-self-start"
        disabled={name.trim() === '' || taken}
        onClick={() => {
          edit((now) => ({ ...now, outputs: [...now.outputs, { name: name.trim(), type }] }));
          setName('');
        }}
      >
        Add the output
      </Button>
    </div>
  );
}

function TypeChoice({ value, change }: { value: OutputType; change: (type: OutputType) => void }) {
  return (
    <SelectField label="It says" value={value} onChange={({ target }) => change(target.value as OutputType)}>
      {OUTPUT_TYPES.map((type) => (
        <option key={type} value={type}>
          {TYPE_WORDS[type]}
        </option>
      ))}
    </SelectField>
  );
}
