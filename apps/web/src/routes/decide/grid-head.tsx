import { factsOf, fieldLabel, type DecisionTable, type TableAround } from '@haycart/core';
import { Plus } from 'lucide-react';
import { Popover } from '../../components/popover';
import { InputSettings, NewInput } from './input-settings';
import { NewOutput, OutputSettings } from './output-settings';

const HEAD = 'flex h-full w-full flex-col items-start justify-center overflow-hidden px-2 text-left hover:bg-hair';

/** The names of the columns; each opens what it tests or says. It stays above the rows. */
export function GridHead({
  table,
  around,
  template,
  total,
  edit,
}: {
  table: DecisionTable;
  around: TableAround;
  template: string;
  /** How many submissions were counted. */
  total: number | null;
  edit: (change: (table: DecisionTable) => DecisionTable) => void;
}) {
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="sticky top-0 z-10 grid h-[49px] border-b border-line bg-sheet"
      style={{ gridTemplateColumns: template }}
    >
      <div role="columnheader">
        <span className="sr-only">Row</span>
      </div>
      <div
        role="columnheader"
        className="flex items-center justify-end border-l border-hair pr-2 text-label font-semibold"
      >
        {total === null ? 'Took' : `Of ${total.toLocaleString('en-GB')}`}
      </div>
      {table.inputs.map((input, at) => (
        <div key={at} role="columnheader" className="min-w-0 border-l border-hair">
          <Popover
            label={`Column ${input.label}`}
            trigger={
              <button type="button" className={HEAD} aria-label={`Column ${input.label}`}>
                <span className="w-full truncate font-semibold">{input.label}</span>
                <span className="w-full truncate font-mono text-[11.5px] text-muted">{partName(input.of, around)}</span>
              </button>
            }
          >
            <InputSettings table={table} at={at} around={around} edit={edit} />
          </Popover>
        </div>
      ))}
      {table.outputs.map((output, at) => (
        <div
          key={output.name}
          role="columnheader"
          className={`min-w-0 bg-ground/50 ${at === 0 ? 'border-l-2 border-ink' : 'border-l border-hair'}`}
        >
          <Popover
            label={`Output ${output.name}`}
            trigger={
              <button type="button" className={HEAD} aria-label={`Output ${output.name}`}>
                <span className="w-full truncate font-semibold">{output.name}</span>
                <span className="w-full truncate text-[11.5px] text-muted">{output.type}</span>
              </button>
            }
          >
            <OutputSettings table={table} at={at} around={around} />
          </Popover>
        </div>
      ))}
      <div
        role="columnheader"
        className="flex min-w-0 items-center justify-between border-l border-hair pl-2 pr-1 font-semibold text-muted"
      >
        Note
        <Popover
          label="Add a column"
          wide
          align="end"
          trigger={
            <button
              type="button"
              aria-label="Add a column"
              title="Add a column"
              className="flex size-7 flex-none items-center justify-center rounded hover:bg-hair"
            >
              <Plus className="size-4" aria-hidden />
            </button>
          }
        >
          <div className="grid gap-4 sm:grid-cols-2">
            <NewInput table={table} around={around} edit={edit} />
            <NewOutput table={table} edit={edit} />
          </div>
        </Popover>
      </div>
    </div>
  );
}

function partName(part: DecisionTable['inputs'][number]['of'], { destination, writes }: TableAround): string {
  if ('answer' in part) return part.answer;
  if ('visit' in part) return part.visit;
  if ('text' in part) return `“${part.text}”`;
  if ('decision' in part) return `${part.decision}, ${part.output}`;
  const record = writes.find(({ as }) => as === part.write)?.record;
  const fact = record && factsOf(record).find(({ key }) => key === part.field);
  return `${part.write}, ${fact?.label ?? (record ? fieldLabel(destination, record, part.field) : part.field)}`;
}
