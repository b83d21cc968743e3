import type { IntakeLine } from '@haycart/api';
import { intakeKind } from '@haycart/core';
import type { ColumnDef } from '@tanstack/react-table';
import { ExternalLink } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { count, percent } from '../components/format';
import { Mono } from '../components/sheet';
import { Sparkline } from '../components/sparkline';
import { StateShape } from '../components/state-shape';
import { Time } from '../components/time';
import { completionOf, type Line } from './intake-lines';

/** What the list of intakes can show, in the order in which it is offered. */
export const INTAKE_COLUMNS = {
  name: 'Intake',
  kind: 'Kind',
  state: 'State',
  views: 'Views, 30 days',
  starts: 'Began, 30 days',
  sends: 'Sent, 30 days',
  completion: 'Completion',
  pages: 'Seen on',
  month: 'Last 30 days',
  submissions: 'Submissions',
  last: 'Last',
  brought: 'Came through',
  routes: 'Feeds',
  link: 'Link',
  health: 'Health',
} as const;
export type IntakeColumn = keyof typeof INTAKE_COLUMNS;

/** What it shows before anybody chose. */
export const FIRST_COLUMNS: readonly IntakeColumn[] = [
  'name',
  'views',
  'completion',
  'pages',
  'month',
  'submissions',
  'last',
  'brought',
  'routes',
  'health',
];

type Cell = Omit<ColumnDef<Line>, 'header' | 'id' | 'cell'> & { show: (line: Line) => ReactNode };

const CELLS: Record<IntakeColumn, Cell> = {
  name: { meta: { width: 'minmax(0,2fr)', sortBy: 'name' }, show: (line) => <Name line={line} /> },
  kind: { meta: { width: '90px', wide: true, sortBy: 'kind' }, show: ({ kind }) => intakeKind(kind).label },
  state: { meta: { width: '120px', wide: true, sortBy: 'state' }, show: stateInWords },
  views: figure('views'),
  starts: figure('starts'),
  sends: figure('sends'),
  completion: {
    meta: { width: '104px', numeric: true, wide: true, sortBy: 'completion' },
    show: (line) => {
      const completion = completionOf(line);
      return completion === null ? '' : percent(completion);
    },
  },
  pages: {
    meta: { width: 'minmax(0,1.5fr)', wide: true },
    show: ({ figures, slug, key }) => (slug === null ? <Mono>{key}</Mono> : <SeenOn pages={figures?.pages ?? []} />),
  },
  month: {
    meta: { width: '124px', wide: true },
    show: ({ month }) => (
      <Sparkline
        values={month}
        label={`${count(month.reduce((a, b) => a + b, 0))} in the last 30 days, ${month[29]} today`}
      />
    ),
  },
  submissions: {
    meta: { width: '104px', numeric: true, sortBy: 'submissions' },
    show: ({ key, submissions }) =>
      submissions ? (
        <Inside to={`/submissions?intake=${key}`} title="The submissions">
          {count(submissions)}
        </Inside>
      ) : (
        <span className="text-muted">0</span>
      ),
  },
  last: {
    meta: { width: '84px', numeric: true, sortBy: 'last' },
    show: ({ lastAt }) => (lastAt ? <Time at={lastAt} /> : <span className="text-muted">never</span>),
  },
  brought: {
    meta: { width: '156px', wide: true },
    show: ({ key, submissions }) =>
      submissions > 0 && (
        <span className="flex gap-2.5">
          <Inside to={`/records/contacts?through=${key}`}>contacts</Inside>
          <Inside to={`/records/leads?through=${key}`}>leads</Inside>
          <Inside to={`/records/deals?through=${key}`}>deals</Inside>
        </span>
      ),
  },
  routes: {
    meta: { width: 'minmax(0,1.3fr)', wide: true },
    show: ({ routes }) =>
      routes.length ? (
        routes.map(({ name, state }) => (state === 'paused' ? `${name} (paused)` : name)).join(', ')
      ) : (
        <span className="text-muted">no route takes from it</span>
      ),
  },
  link: {
    meta: { width: 'minmax(0,1.2fr)', wide: true },
    show: ({ slug, state, address }) =>
      // The page of a form can be opened; other addresses are posted to.
      slug !== null && address !== null && state !== 'draft' ? (
        <a
          href={address}
          target="_blank"
          rel="noreferrer"
          onClick={(event) => event.stopPropagation()}
          className="inline-flex max-w-full items-center gap-1 text-slate hover:underline"
        >
          <Mono>{address}</Mono> <ExternalLink className="size-3 flex-none" aria-hidden />
        </a>
      ) : (
        <Mono>{slug === null ? address : ''}</Mono>
      ),
  },
  health: { meta: { width: 'minmax(0,1fr)', wide: true }, show: (line) => <Health intake={line} /> },
};

/** The columns that are shown, in their order. */
export function intakeColumns(keys: readonly IntakeColumn[]): ColumnDef<Line>[] {
  return keys.map((key) => {
    const { show, ...rest } = CELLS[key];
    return { ...rest, id: key, header: INTAKE_COLUMNS[key], cell: ({ row }) => show(row.original) };
  });
}

export function isIntakeColumn(key: string): key is IntakeColumn {
  return Object.hasOwn(INTAKE_COLUMNS, key);
}

function figure(of: 'views' | 'starts' | 'sends'): Cell {
  return {
    meta: { width: '116px', numeric: true, wide: true, sortBy: of },
    show: ({ figures }) => (figures ? count(figures[of]) : ''),
  };
}

/** A link inside a line that leads elsewhere itself. */
function Inside({ to, title, children }: { to: string; title?: string; children: ReactNode }) {
  return (
    <Link to={to} title={title} className="text-slate hover:underline" onClick={(event) => event.stopPropagation()}>
      {children}
    </Link>
  );
}

function Name({ line: { key, name, like, forColleagues } }: { line: Line }) {
  return (
    <Link to={`/intakes/${key}`} className="font-semibold hover:underline" onClick={(event) => event.stopPropagation()}>
      {name}
      {forColleagues && <span className="ml-2 text-small font-normal text-muted">for colleagues</span>}
      {like && (
        <span className="ml-2 text-small font-normal text-brick" title={`Nearly the same name as “${like}”`}>
          like “{like}”
        </span>
      )}
    </Link>
  );
}

function stateInWords({ state, kind, trial }: IntakeLine): string {
  if (trial) return 'two versions';
  return state === 'live' ? intakeKind(kind).whileOpen : state;
}

function SeenOn({ pages }: { pages: readonly string[] }) {
  const [first] = pages;
  if (!first) return null;
  return (
    <span title={pages.join('\n')}>
      {first.replace(/^https?:\/\//, '')}
      {pages.length > 1 && <span className="text-muted"> + {pages.length - 1}</span>}
    </span>
  );
}

/** From here on files are soon refused, and somebody should know before. */
const FILES_WARNING = 0.8;

function Health({ intake }: { intake: IntakeLine }) {
  if (intake.state !== 'live')
    return <span className="text-muted">{intake.state === 'draft' ? 'draft, not published' : 'closed'}</span>;
  if (intake.filesTaken >= FILES_WARNING)
    return (
      <span className="inline-flex items-center gap-2">
        <StateShape state="held" /> files take {Math.floor(intake.filesTaken * 100)} % of their room
      </span>
    );
  if (intake.failed)
    return (
      <Inside to={`/submissions?intake=${intake.key}&outcome=failed`}>
        <span className="inline-flex items-center gap-2">
          <StateShape state="failed" /> {intake.failed} failed
        </span>
      </Inside>
    );
  return intake.submissions ? (
    <span className="flex items-center gap-2">
      <StateShape state="written" /> all written
    </span>
  ) : (
    <span className="text-muted">nothing yet</span>
  );
}
