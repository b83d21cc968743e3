import {
  cellSetting,
  columnValueText,
  missesBefore,
  readyTable,
  type DecidedTrace,
  type DecisionTable,
  type TableAround,
} from '@haycart/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Link } from 'react-router';
import { IconButton } from '../../components/button';
import { usePageKeys } from '../../components/list-keys';
import { Time } from '../../components/time';
import type { SampleChoice } from '../rehearsal';

/** As many rows are told of that came near. */
const MOST_MISSES = 8;

/** Which row decides for the sample, and what kept each row before it from fitting. */
export function SampleDecided({
  table,
  around,
  decided,
  choice: { samples, index, step },
}: {
  table: DecisionTable;
  around: TableAround;
  decided: DecidedTrace | undefined;
  choice: SampleChoice;
}) {
  usePageKeys({ '[': () => step(-1), ']': () => step(1) });
  const sample = samples[index];
  return (
    <section aria-label="This sample" className="py-3">
      <div className="flex items-center gap-1.5">
        <h3 className="mr-auto text-[14px] font-semibold">This sample: {decided ? rowText(decided) : 'not decided'}</h3>
        <IconButton label="Sample before ([)" disabled={index <= 0} onClick={() => step(-1)} className="!size-6">
          <ChevronLeft className="size-4" aria-hidden />
        </IconButton>
        <IconButton
          label="Next sample (])"
          disabled={index >= samples.length - 1}
          onClick={() => step(1)}
          className="!size-6"
        >
          <ChevronRight className="size-4" aria-hidden />
        </IconButton>
      </div>
      {sample && (
        <p className="text-muted">
          <Link to={`/submissions?open=${sample.id}`} className="hover:underline">
            {sample.who || sample.email || 'Unnamed'}
          </Link>
          , <Time at={sample.receivedAt} relative />
        </p>
      )}
      {decided && <Misses table={table} around={around} decided={decided} />}
    </section>
  );
}

function rowText({ row, otherwise }: DecidedTrace): string {
  if (row !== null) return `row ${row + 1}`;
  return otherwise ? 'otherwise' : 'no row fits';
}

function Misses({ table, around, decided }: { table: DecisionTable; around: TableAround; decided: DecidedTrace }) {
  const ready = readyTable(table, around);
  const until = decided.row ?? table.rows.length;
  const misses = missesBefore(ready, until, decided.values, cellSetting(around.destination, new Date().toISOString()));
  const first = Math.max(0, misses.length - MOST_MISSES);
  return (
    <>
      <p className="mt-1 text-muted">
        {ready.columns.map((column, index) => (
          <span key={index}>
            {index > 0 && ', '}
            {column.input.label}{' '}
            <b className="font-semibold">{columnValueText(decided.values[index] ?? null, column)}</b>
          </span>
        ))}
      </p>
      <ul className="mt-1 text-muted">
        {first > 0 && <li>{first} rows before do not fit either</li>}
        {misses.slice(first).map((column, index) =>
          column === null ? null : (
            <li key={index}>
              Row {first + index + 1}: not by {ready.columns[column]!.input.label}
            </li>
          ),
        )}
      </ul>
    </>
  );
}
