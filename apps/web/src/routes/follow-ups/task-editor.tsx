import { TASK_PRIORITIES, type DueIn, type OwnerRule, type TaskPriority, type Value } from '@haycart/core';
import { OwnerChoice } from '../../components/owner-choice';
import { useTables } from '../draft';
import { SelectField, TextField } from '../../components/text-field';
import { useWords } from '../../api/words';
import type { EditorProps } from './editor';
import { RecordRow, ValueRow } from './rows';
import { without } from './without';

const UNITS = [
  ['hours working', 'working hours'],
  ['hours', 'hours'],
  ['days working', 'working days'],
  ['days', 'days'],
] as const;

/** What a task is called and says, whose it is, and when it is due. */
export function TaskEditor({ followUp, put, definition, destination, incoming, sample }: EditorProps) {
  const tables = useTables();
  const words = useWords();
  const { writes } = definition;
  const record = writes.find(({ as }) => as === followUp.on)?.record ?? 'contact';
  const due = followUp.due as DueIn | undefined;
  const parts = { writes, incoming, sample };
  return (
    <>
      <RecordRow name="About" value={followUp.on} change={(on) => put({ ...followUp, on })} writes={writes} />
      <ValueRow
        {...parts}
        name="Title"
        label="the title"
        value={followUp.title as Value}
        change={(title = { parts: [] }) => put({ ...followUp, title })}
      />
      <ValueRow
        {...parts}
        name="More"
        label="more about it"
        value={followUp.body as Value | undefined}
        change={(body) => put(without(followUp, 'body', body))}
      />
      <span className="text-muted">For</span>
      <OwnerChoice
        tables={tables}
        label="Who gets the task"
        hideLabel
        nobody={`whoever owns the ${words.one(record)}`}
        record={record}
        owner={followUp.owner as OwnerRule | undefined}
        destination={destination}
        change={(owner) => put(without(followUp, 'owner', owner))}
      />
      <span className="text-muted">Due</span>
      <div className="flex flex-wrap items-center gap-2">
        <SelectField
          label="When it is due"
          hideLabel
          value={due ? `${due.unit}${due.working ? ' working' : ''}` : ''}
          onChange={({ target }) => {
            const [unit, working] = target.value.split(' ');
            const next = { in: due?.in ?? 2, unit: unit as DueIn['unit'], ...(working ? { working: true } : {}) };
            put(without(followUp, 'due', target.value ? next : undefined));
          }}
        >
          <option value="">at any time</option>
          {UNITS.map(([key, name]) => (
            <option key={key} value={key}>
              after {name}
            </option>
          ))}
        </SelectField>
        {due && (
          <TextField
            label={`How many ${due.unit}`}
            hideLabel
            type="number"
            min={0}
            max={100_000}
            value={due.in}
            onChange={({ target }) => put({ ...followUp, due: { ...due, in: Math.max(0, Number(target.value) || 0) } })}
            className="!w-24 text-right tabular-nums"
          />
        )}
        <SelectField
          label="How urgent"
          hideLabel
          value={String(followUp.priority ?? 'normal')}
          onChange={({ target }) => {
            const priority = target.value as TaskPriority;
            put(without(followUp, 'priority', priority === 'normal' ? undefined : priority));
          }}
        >
          {TASK_PRIORITIES.toReversed().map((priority) => (
            <option key={priority} value={priority}>
              {priority} priority
            </option>
          ))}
        </SelectField>
      </div>
    </>
  );
}
