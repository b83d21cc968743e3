import {
  blankRow,
  columnsOf,
  rowTexts,
  withCell,
  withRowMoved,
  withRows,
  type DecisionTable,
  type ExampleValue,
  type NeverCame,
  type TableAround,
  type TableCheck,
} from '@haycart/core';
import type { ReactNode } from 'react';
import { StateShape, type ShownState } from '../state-shape';
import { cellsNeverMet, unreadableCells } from './same-cells';
import type { CellAt } from './selection';

/** Of so many rows the way to each is shown. */
const MOST_LINKS = 6;
const LINK = 'text-slate underline-offset-2 hover:underline';

/** What the check found, each with what can be done about it. */
export function CheckPanel({
  table,
  around,
  check,
  checking,
  edit,
  goTo,
  neverCame = [],
  overlapsAreMeant = false,
  children,
}: {
  table: DecisionTable;
  around: TableAround;
  check: TableCheck | null;
  checking: boolean;
  edit: (change: (table: DecisionTable) => DecisionTable) => void;
  goTo: (cell: CellAt) => void;
  /** The cells that nothing met which came so far. */
  neverCame?: readonly NeverCame[];
  /** Whether rows are meant to overlap, since each is for what those before it left: then it is no finding. */
  overlapsAreMeant?: boolean;
  /** What else is found. */
  children?: ReactNode;
}) {
  const columns = columnsOf(table, around);
  const label = (column: number) => columns[column]?.input.label ?? table.outputs[column - columns.length]?.name ?? '';
  const example = (values: readonly ExampleValue[]) =>
    values.length
      ? values.map(({ column, words }, index) => (
          <span key={column}>
            {index > 0 && ', '}
            {label(column).toLowerCase()} <b className="font-semibold">{words}</b>
          </span>
        ))
      : 'any submission';
  const addRow = (values: readonly ExampleValue[]) => {
    edit((now) => {
      const row = values.reduce(
        (made, { column, words }) => withCell(made, column, words, now, around),
        blankRow(now.inputs.length),
      );
      return withRows(now, now.rows.length, [
        { ...row, when: row.when.map((cell) => (cell?.test === 'unread' ? null : cell)) },
      ]);
    });
    goTo({ row: table.rows.length, column: table.inputs.length });
  };
  const row = (at: number, column = 0) => (
    <button type="button" className={LINK} onClick={() => goTo({ row: at, column })}>
      row {at + 1}
    </button>
  );
  const rowLinks = (rows: readonly number[], column: number) => (
    <span>
      {rows.slice(0, MOST_LINKS).map((at, index) => (
        <span key={at}>
          {index > 0 && ', '}
          {row(at, column)}
        </span>
      ))}
      {rows.length > MOST_LINKS && ` and ${rows.length - MOST_LINKS} more`}
    </span>
  );
  const overlaps = overlapsAreMeant ? [] : (check?.overlaps ?? []);
  const unreadable = check ? unreadableCells(check) : [];
  const neverMet = cellsNeverMet(neverCame, (at, column) => rowTexts(table.rows[at]!, table, around)[column]!);
  return (
    <aside
      aria-label="Check"
      className="flex min-h-0 w-full flex-none flex-col overflow-y-auto border-ink bg-sheet px-5 py-4 max-lg:border-t-2 lg:w-[340px] lg:border-l-2"
    >
      <h2 className="text-lg leading-6">Check</h2>
      <p className="text-muted" aria-live="polite">
        {checking ? 'working it out' : 'exact, over all values that these columns can hold'}
      </p>
      <div className="mt-2 divide-y divide-line">
        {unreadable.map(({ column, text, rows }) => (
          <div key={`${column} ${text}`} className="py-3">
            <Finding
              state="failed"
              title={rows.length === 1 ? 'A cell cannot be read' : `${rows.length} cells cannot be read`}
            >
              {label(column)}, {rowLinks(rows, column)}: {text}
            </Finding>
          </div>
        ))}
        {check?.rows
          .filter(({ never, takenBefore, unreadable: wrong }) => takenBefore || (never && !wrong))
          .map((finding) => (
            <div key={finding.row} className="py-3">
              {finding.never && !finding.unreadable && (
                <Finding state="failed" title={<>Row {finding.row + 1} can never fit</>}>
                  No value of {finding.never.map(label).join(', ')} meets its cell. Look at{' '}
                  {row(finding.row, finding.never[0])}.
                </Finding>
              )}
              {finding.takenBefore && (
                <Finding
                  state="failed"
                  title={<>Row {finding.row + 1} can never fit</>}
                  actions={
                    <button
                      type="button"
                      className={LINK}
                      onClick={() => {
                        const to = Math.min(...finding.takenBefore!);
                        edit((now) => withRowMoved(now, finding.row, to));
                        goTo({ row: to, column: 0 });
                      }}
                    >
                      Move it above row {Math.min(...finding.takenBefore) + 1}
                    </button>
                  }
                >
                  {finding.takenBefore.map((before, index) => (
                    <span key={before}>
                      {index > 0 && (index === finding.takenBefore!.length - 1 ? ' and ' : ', ')}
                      {index === 0 ? <>{capital(row(before), before)}</> : row(before)}
                    </span>
                  ))}{' '}
                  {finding.takenBefore.length === 1 ? 'takes' : 'take'} every case of it before.
                </Finding>
              )}
            </div>
          ))}
        {neverMet.map(({ rows, column, text, came }) => (
          <div key={`${column} ${text}`} className="py-3">
            <Finding
              state="skipped"
              title={
                <>
                  {label(column)}: nothing that came meets “{text}”
                </>
              }
            >
              At {rowLinks(rows, column)}. What came so far:{' '}
              {came.slice(0, 5).map((text, index) => (
                <span key={text}>
                  {index > 0 && ', '}
                  <b className="font-semibold">{text}</b>
                </span>
              ))}
              {came.length > 5 && ` and ${came.length - 5} more`}.
            </Finding>
          </div>
        ))}
        {check?.gaps.map((gap, index) => (
          <div key={index} className="py-3">
            <Finding
              state={table.otherwise ? 'skipped' : 'held'}
              title={table.otherwise ? 'Decided otherwise' : 'No row fits'}
              actions={
                <button type="button" className={LINK} onClick={() => addRow(gap.example)}>
                  Add a row for it
                </button>
              }
            >
              For example: {example(gap.example)}.
            </Finding>
          </div>
        ))}
        {overlaps.map(({ rows: [one, other], example: both }) => (
          <div key={`${one} ${other}`} className="py-3">
            <Finding
              state={table.fits === 'one' ? 'failed' : 'skipped'}
              title={
                <>
                  Rows {one + 1} and {other + 1} overlap
                </>
              }
            >
              {capitalExample(example(both))} fits both.{' '}
              {table.fits === 'one' ? (
                'Exactly one row may fit.'
              ) : (
                <>{capital(row(one), one)} decides; they say different things.</>
              )}
            </Finding>
          </div>
        ))}
        {check && !check.rows.length && !check.gaps.length && !overlaps.length && (
          <div className="py-3">
            <Finding state="written" title="Every case has its row">
              {overlapsAreMeant
                ? 'No row is out of reach, and nothing is left out.'
                : 'No row is out of reach, none overlap, and nothing is left out.'}
            </Finding>
          </div>
        )}
        {check?.more && <p className="py-3 text-muted">There are more than are listed here.</p>}
        {check && !check.finished && (
          <p className="py-3 text-muted">
            The table is too tangled to check to the end. What is listed is right; there may be more.
          </p>
        )}
        {check && check.unsure.length > 0 && (
          <p className="py-3 text-muted">
            Nothing exact can be said of the cells marked with ~, such as “contains”: where it depends on them, nothing
            is claimed.
          </p>
        )}
        {children}
      </div>
    </aside>
  );
}

function Finding({
  state,
  title,
  actions,
  children,
}: {
  state: ShownState;
  title: ReactNode;
  actions?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div>
      <p className="flex items-center gap-2 font-semibold">
        <StateShape state={state} />
        <span>{title}</span>
      </p>
      <p className="mt-1 text-muted">{children}</p>
      {actions && <p className="mt-1 flex flex-wrap gap-3">{actions}</p>}
    </div>
  );
}

/** At the beginning of a sentence. */
function capital(link: ReactNode, _row: number): ReactNode {
  return <span className="[&>button]:first-letter:uppercase">{link}</span>;
}

function capitalExample(example: ReactNode): ReactNode {
  return <span className="inline-block first-letter:uppercase">{example}</span>;
}
