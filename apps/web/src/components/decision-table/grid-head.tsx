import { factsOf, fieldLabel, type DecisionTable, type TableAround } from '@haycart/core';
import type { ReactNode } from 'react';
import { Plus } from 'lucide-react';
import { Popover } from '../popover';

const HEAD = 'flex h-full w-full flex-col items-start justify-center overflow-hidden px-2 text-left';

/** What can be changed about the columns of a table, as what each of them opens. */
export interface ColumnSettings {
  input: (at: number) => ReactNode;
  output: (at: number) => ReactNode;
  add: ReactNode;
}

/** The names of the columns; each opens what it tests or says. It stays above the rows. */
export function GridHead({
  table,
  around,
  template,
  total,
  settings,
}: {
  table: DecisionTable;
  around: TableAround;
  template: string;
  /** How many submissions were counted; undefined where nobody counts. */
  total: number | null | undefined;
  settings: ColumnSettings | undefined;
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
      {total !== undefined && (
        <div
          role="columnheader"
          className="flex items-center justify-end border-l border-hair pr-2 text-label font-semibold"
        >
          {total === null ? 'Took' : `Of ${total.toLocaleString('en-GB')}`}
        </div>
      )}
      {table.inputs.map((input, at) => (
        <div key={at} role="columnheader" className="min-w-0 border-l border-hair">
          <Head label={`Column ${input.label}`} name={input.label} about={partName(input.of, around)} isCode>
            {settings?.input(at)}
          </Head>
        </div>
      ))}
      {table.outputs.map((output, at) => (
        <div
          key={output.name}
          role="columnheader"
          className={`min-w-0 bg-ground/50 ${at === 0 ? 'border-l-2 border-ink' : 'border-l border-hair'}`}
        >
          <Head label={`Output ${output.name}`} name={output.name} about={output.type}>
            {settings?.output(at)}
          </Head>
        </div>
      ))}
      <div
        role="columnheader"
        className="flex min-w-0 items-center justify-between border-l border-hair pl-2 pr-1 font-semibold text-muted"
      >
        Note
        {settings && (
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
            {settings.add}
          </Popover>
        )}
      </div>
    </div>
  );
}

/** What a column is called, and of what it is; it opens what can be changed about it. */
function Head({
  label,
  name,
  about,
  isCode = false,
  children,
}: {
  label: string;
  name: string;
  about: string;
  isCode?: boolean;
  children: ReactNode;
}) {
  const words = (
    <>
      <span className="w-full truncate font-semibold">{name}</span>
      <span className={`w-full truncate text-[11.5px] text-muted ${isCode ? 'font-mono' : ''}`}>{about}</span>
    </>
  );
  if (!children) return <div className={HEAD}>{words}</div>;
  return (
    <Popover
      label={label}
      trigger={
        <button type="button" className={`${HEAD} hover:bg-hair`} aria-label={label}>
          {words}
        </button>
      }
    >
      {children}
    </Popover>
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
