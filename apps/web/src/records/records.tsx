import type { RecordShape } from '@haycart/api';
import { pipelineOf, showPhone, stageOf, type FieldValue } from '@haycart/core';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { ColumnDef } from '@tanstack/react-table';
import { useEffect, useState } from 'react';
import { Link, NavLink, useNavigate, useParams, useSearchParams } from 'react-router';
import { pipelinesQuery, recordsQuery, type RecordPlural } from '../api/queries';
import { DataTable } from '../components/data-table';
import { count, money, recordNumber } from '../components/format';
import { Mono, PageHead } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { TextField } from '../components/text-field';
import { Time } from '../components/time';

const KINDS: Record<RecordPlural, string> = { contacts: 'Contacts', companies: 'Companies', deals: 'Deals' };
const text = (value: FieldValue | undefined) => (typeof value === 'string' ? value : '');

const NUMBER: ColumnDef<RecordShape> = {
  header: 'No.',
  meta: { width: '76px', wide: true },
  cell: ({ row: { original } }) => <Mono className="text-muted">{recordNumber(original.kind, original.number)}</Mono>,
};
const UPDATED: ColumnDef<RecordShape> = {
  header: 'Changed',
  meta: { width: '96px', numeric: true },
  cell: ({ row: { original } }) => <Time at={original.updatedAt} />,
};
const field = (header: string, key: string, width: string, wide = true): ColumnDef<RecordShape> => ({
  header,
  meta: { width, wide },
  cell: ({ row: { original } }) => text(original.values[key]),
});
const name = (plural: RecordPlural): ColumnDef<RecordShape> => ({
  header: 'Name',
  meta: { width: 'minmax(0,1.4fr)' },
  cell: ({ row: { original } }) => (
    <Link
      to={`/records/${plural}/${original.id}`}
      onClick={(event) => event.stopPropagation()}
      className="font-semibold hover:underline"
    >
      {original.name}
    </Link>
  ),
});
const linked = (header: string, key: string, plural: RecordPlural): ColumnDef<RecordShape> => ({
  header,
  meta: { width: 'minmax(0,1.2fr)', wide: true },
  cell: ({ row: { original } }) => {
    const link = original.links[key]?.[0];
    return (
      link && (
        <Link
          to={`/records/${plural}/${link.id}`}
          onClick={(event) => event.stopPropagation()}
          className="hover:underline"
        >
          {link.name}
        </Link>
      )
    );
  },
});
const counted = (header: string, key: string): ColumnDef<RecordShape> => ({
  header,
  meta: { width: '80px', numeric: true, wide: true },
  cell: ({ row: { original } }) => original.links[key]?.length ?? '',
});

const COLUMNS: Record<RecordPlural, ColumnDef<RecordShape>[]> = {
  contacts: [
    NUMBER,
    name('contacts'),
    field('E-mail', 'email', 'minmax(0,1.5fr)', false),
    {
      header: 'Phone',
      meta: { width: '148px', wide: true },
      cell: ({ row: { original } }) => showPhone(text(original.values.phone)),
    },
    linked('Company', 'company', 'companies'),
    field('First source', 'source', 'minmax(0,1fr)'),
    counted('Deals', 'deals'),
    UPDATED,
  ],
  companies: [
    NUMBER,
    name('companies'),
    field('Domain', 'domain', 'minmax(0,1.3fr)', false),
    field('Country', 'country', '80px'),
    field('First source', 'source', 'minmax(0,1fr)'),
    counted('Contacts', 'contacts'),
    counted('Deals', 'deals'),
    UPDATED,
  ],
  deals: [
    NUMBER,
    name('deals'),
    linked('Contact', 'contacts', 'contacts'),
    {
      header: 'Pipeline',
      meta: { width: '110px', wide: true },
      cell: ({ row: { original } }) => <PlaceName record={original} of="pipeline" />,
    },
    {
      header: 'Stage',
      meta: { width: '110px' },
      cell: ({ row: { original } }) => <PlaceName record={original} of="stage" />,
    },
    {
      header: 'Value',
      meta: { width: '120px', numeric: true, wide: true },
      cell: ({ row: { original } }) => {
        const { value } = original.values;
        return typeof value === 'object' && 'currency' in value ? money(value) : '';
      },
    },
    field('Source', 'source', 'minmax(0,1fr)'),
    UPDATED,
  ],
};

/** Where a deal stands, by the names that its pipeline and stage have now. */
function PlaceName({ record: { values }, of }: { record: RecordShape; of: 'pipeline' | 'stage' }) {
  const pipelines = useQuery(pipelinesQuery).data ?? [];
  const pipeline = pipelineOf({ pipelines }, text(values.pipeline));
  const named = of === 'pipeline' ? pipeline : stageOf(pipeline, text(values.stage));
  return <>{named?.name ?? text(values[of])}</>;
}

/** Contacts, companies and deals: the latest changed first, found by name, e-mail or domain. */
export function Records() {
  const kind = (useParams().kind ?? 'contacts') as RecordPlural;
  if (!(kind in KINDS)) return <Empty title="There are no such records">Choose contacts, companies or deals.</Empty>;
  return <RecordList key={kind} kind={kind} />;
}

function RecordList({ kind }: { kind: RecordPlural }) {
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '';
  const [typed, setTyped] = useState(q);
  const navigate = useNavigate();
  useEffect(() => {
    if (typed === q) return;
    const timer = window.setTimeout(() => setParams(typed ? { q: typed } : {}, { replace: true }), 200);
    return () => window.clearTimeout(timer);
  }, [typed, q, setParams]);
  const list = useInfiniteQuery(recordsQuery(kind, q));
  const total = list.data?.pages[0]?.total;
  return (
    <div className="flex h-full flex-col p-5">
      <PageHead title={KINDS[kind]} aside={total !== undefined && `${count(total)}${q ? ` with “${q}”` : ''}`}>
        <nav aria-label="Kind of record" className="flex overflow-hidden rounded border border-line bg-sheet">
          {Object.entries(KINDS).map(([key, words]) => (
            <NavLink
              key={key}
              to={`/records/${key}`}
              className={({ isActive }) =>
                `px-3 py-1 leading-[22px] ${isActive ? 'bg-ink text-sheet' : 'hover:bg-raised'}`
              }
            >
              {words}
            </NavLink>
          ))}
        </nav>
        <div className="w-60">
          <TextField
            label={`Find ${kind}`}
            hideLabel
            type="search"
            placeholder={kind === 'companies' ? 'Name or domain' : kind === 'deals' ? 'Name' : 'Name or e-mail'}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
          />
        </div>
      </PageHead>
      {list.isPending ? (
        <Loading lines={16} />
      ) : list.isError ? (
        <Failed error={list.error} retry={() => void list.refetch()} />
      ) : (
        <DataTable
          label={KINDS[kind]}
          columns={COLUMNS[kind]}
          rows={list.data.pages.flatMap(({ items }) => items)}
          total={total}
          open={({ id }) => void navigate(`/records/${kind}/${id}`)}
          more={list.hasNextPage && !list.isFetchingNextPage ? () => void list.fetchNextPage() : undefined}
          empty={
            <Empty title={q ? `Nothing has “${q}”` : 'Nobody is here yet'}>
              {q ? 'Try a part of the name or address.' : 'Records appear when a route writes its first submission.'}
            </Empty>
          }
        />
      )}
    </div>
  );
}
