import type { SubmissionShape } from '@haycart/api';
import { type ListView } from '@haycart/core';
import type { ColumnDef } from '@tanstack/react-table';
import type { ReactNode } from 'react';
import { Mono } from '../components/sheet';
import { StateShape, stateOf } from '../components/state-shape';
import { Time } from '../components/time';

interface Column {
  label: string;
  width: string;
  /** Left out on narrow screens. */
  wide: boolean;
  /** What the list can be sorted by. */
  sortBy?: string;
  cell: (submission: SubmissionShape) => ReactNode;
}

const COLUMNS: Record<string, Column> = {
  received: {
    label: 'Arrived',
    width: '92px',
    wide: false,
    sortBy: 'received',
    cell: ({ receivedAt }) => (
      <Mono>
        <Time at={receivedAt} />
      </Mono>
    ),
  },
  intake: { label: 'Intake', width: 'minmax(0,0.9fr)', wide: true, cell: ({ intake }) => intake.name },
  who: {
    label: 'Who',
    width: 'minmax(0,1.1fr)',
    wide: false,
    sortBy: 'who',
    cell: ({ who, unreadable }) =>
      who ? (
        <span className="font-semibold">{who}</span>
      ) : (
        <span className="text-muted">{unreadable ? 'unreadable' : 'unnamed'}</span>
      ),
  },
  email: { label: 'E-mail', width: 'minmax(0,1.3fr)', wide: true, sortBy: 'email', cell: ({ email }) => email },
  source: { label: 'Source', width: 'minmax(0,0.9fr)', wide: true, cell: ({ source }) => source },
  outcome: {
    label: 'Outcome',
    width: 'minmax(0,1.4fr)',
    wide: false,
    cell: (submission) => <Outcome submission={submission} />,
  },
  routes: {
    label: 'Routes',
    width: 'minmax(0,1.1fr)',
    wide: true,
    cell: ({ runs }) => runs.map(({ route }) => route.name).join(', '),
  },
  medium: { label: 'Medium', width: '92px', wide: true, cell: ({ medium }) => medium },
  campaign: {
    label: 'Campaign',
    width: 'minmax(0,0.9fr)',
    wide: true,
    cell: ({ campaign }) => campaign,
  },
  page: { label: 'Page', width: 'minmax(0,1.1fr)', wide: true, cell: ({ visit }) => visit.page },
  id: { label: 'Id', width: 'minmax(0,1.2fr)', wide: true, cell: ({ id }) => <Mono>{id}</Mono> },
};

/** The columns that the list begins with, and those that are left of it beside an open submission. */
export const FIRST_COLUMNS = ['received', 'who', 'email', 'intake', 'source', 'outcome'];
export const COLUMNS_BESIDE = ['received', 'who', 'outcome'].map((field) => ({ field }));
export const COLUMN_CHOICES = Object.entries(COLUMNS).map(([key, { label }]) => ({ key, label }));

export function submissionColumns(shown: ListView['columns']): ColumnDef<SubmissionShape>[] {
  return shown.flatMap(({ field }) => {
    const column = COLUMNS[field];
    if (!column) return [];
    const { label, width, wide, sortBy, cell } = column;
    return [
      {
        id: field,
        header: label,
        meta: { width, wide, ...(sortBy ? { sortBy } : {}) },
        cell: ({ row }) => cell(row.original),
      },
    ];
  });
}

function Outcome({ submission }: { submission: SubmissionShape }) {
  const run = submission.runs[0];
  if (!run) {
    const state = stateOf(submission);
    return (
      <span className="flex min-w-0 items-center gap-2">
        <StateShape state={state} />
        <span className="truncate">
          {state === 'set-aside'
            ? `Set aside: ${submission.suspicion?.reasons[0] ?? ''}`
            : state === 'waiting'
              ? 'Waiting'
              : state === 'cancelled'
                ? 'Cancelled with its file'
                : 'No route takes it'}
        </span>
      </span>
    );
  }
  return (
    <span className="flex items-center gap-2">
      <StateShape state={run.outcome} word />
      <span className="truncate">{run.summary}</span>
      {submission.runs.length > 1 && <span className="flex-none text-muted">+{submission.runs.length - 1}</span>}
    </span>
  );
}
