import { PERMISSIONS, type AuditLine, type Permission } from '@haycart/api';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { ColumnDef } from '@tanstack/react-table';
import { useMemo } from 'react';
import { auditQuery, peopleQuery, tokensQuery } from '../api/queries';
import { DataTable } from '../components/data-table';
import { ListFilters } from '../components/list-filters';
import { periodFilter, periodIn, sinceOf } from '../components/period';
import { Empty, Failed, Loading } from '../components/status';
import { TakeAway, type TakeAwayFormat } from '../components/take-away';
import { Time } from '../components/time';
import { useAddress } from '../state/use-address';
import { SetUpPage } from './set-up-page';

const AREAS: Record<Permission, string> = {
  submissions: 'Submissions',
  intakes: 'Intakes',
  forms: 'Forms',
  sheets: 'Files',
  routes: 'Routes',
  records: 'Records',
  decisions: 'To decide',
  outbox: 'Outbox',
  channels: 'Channels',
  mail: 'Mail',
  identity: 'Recognition',
  'set-up': 'Set up',
  people: 'People',
  account: 'Signing in and tokens',
};
const FORMATS: readonly TakeAwayFormat[] = [
  { format: 'csv', name: 'CSV', about: 'for any spreadsheet' },
  { format: 'xlsx', name: 'XLSX', about: 'a workbook' },
  { format: 'jsonl', name: 'JSON Lines', about: 'for programs' },
];
const COLUMNS: ColumnDef<AuditLine>[] = [
  {
    id: 'at',
    header: 'When',
    cell: ({ row }) => <Time at={row.original.at} />,
    meta: { width: 'clamp(64px,18vw,140px)' },
  },
  {
    id: 'who',
    header: 'Who',
    cell: ({ row: { original } }) => (
      <>
        {original.actor.name}
        {original.actor.kind === 'token' && <span className="text-muted"> (token)</span>}
      </>
    ),
    meta: { width: 'clamp(84px,22vw,200px)' },
  },
  {
    id: 'what',
    header: 'What',
    cell: ({ row }) => <span title={row.original.text}>{row.original.text}</span>,
    meta: { width: 'minmax(0,1fr)' },
  },
  {
    id: 'area',
    header: 'Where',
    cell: ({ row }) => areaOf(row.original),
    meta: { width: '180px', wide: true },
  },
];

/** Who did what and when, the latest first: every change that a person or a script made on purpose. */
export function AuditSetUp() {
  const [params, narrow] = useAddress();
  const people = useQuery(peopleQuery).data ?? [];
  const tokens = useQuery(tokensQuery).data ?? [];
  const period = periodIn(params.get('period'));
  const actor = params.get('who') ?? undefined;
  const command = params.get('where') ?? undefined;
  const wish = useMemo(() => ({ actor, command, since: sinceOf(period) }), [actor, command, period]);
  const lines = useInfiniteQuery(auditQuery(wish));
  return (
    <SetUpPage
      about="who did what, and when"
      action={<TakeAway path="/audit" wish={wish} formats={FORMATS} className="" />}
    >
      <ListFilters
        filters={[
          periodFilter('in', period, (value) => narrow('period', value)),
          {
            label: 'by',
            any: 'anybody',
            value: actor ?? '',
            options: [
              ...people.map(({ id, name }) => [id, name] as const),
              ...tokens.map(({ id, name }) => [id, `${name} (token)`] as const),
            ],
            choose: (value) => narrow('who', value),
          },
          {
            label: 'where',
            any: 'everywhere',
            value: command ?? '',
            options: PERMISSIONS.map((one) => [one, AREAS[one]] as const),
            choose: (value) => narrow('where', value),
          },
        ]}
      />
      {lines.isPending ? (
        <Loading lines={12} />
      ) : lines.isError ? (
        <Failed error={lines.error} retry={() => void lines.refetch()} />
      ) : (
        <div className="flex h-[calc(100vh-265px)] min-h-64 flex-col">
          <DataTable
            label="Audit"
            columns={COLUMNS}
            rows={lines.data.pages.flatMap(({ items }) => items)}
            nameOf={({ text }) => text}
            more={lines.hasNextPage && !lines.isFetchingNextPage ? () => void lines.fetchNextPage() : undefined}
            empty={<Empty title="Nothing of this kind">What people and scripts change shows up here by itself.</Empty>}
          />
        </div>
      )}
    </SetUpPage>
  );
}

function areaOf({ command }: AuditLine): string {
  return AREAS[command.slice(0, command.indexOf('.')) as Permission];
}
