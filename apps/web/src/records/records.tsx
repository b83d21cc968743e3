import { listedFields, RECORD_KINDS, writeSort, type RecordCondition, type RecordKind } from '@haycart/core';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { ArchiveRestore, Plus, X } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { Link, NavLink, useNavigate, useParams } from 'react-router';
import {
  fieldsQuery,
  intakeQuery,
  pipelinesQuery,
  recordCountQuery,
  recordsQuery,
  teamsQuery,
  viewsQuery,
} from '../api/queries';
import { useWords } from '../api/words';
import { KIND_OF, PLURALS, type RecordPlural } from '../api/record-kinds';
import { Button, buttonLook } from '../components/button';
import { asGroup } from '../components/condition-builder';
import { ColumnsMenu } from '../components/columns-menu';
import { DataTable } from '../components/data-table';
import { FilterWords } from '../components/filter-words';
import { PageHead } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { TextField } from '../components/text-field';
import { TakeAway, type TakeAwayFormat } from '../components/take-away';
import { BulkBar, type Chosen } from './bulk-bar';
import { GroupCounts } from './group-counts';
import { nextSort, sortOf, useListState } from './list-state';
import { NewRecord } from './new-record';
import { LINKED, recordColumns } from './record-columns';
import { ViewsMenu } from './views-menu';

const NOTHING: Chosen = { ids: new Set(), all: null };

const FORMATS: TakeAwayFormat[] = [
  { format: 'csv', name: 'CSV', about: 'the columns shown, for any spreadsheet' },
  { format: 'xlsx', name: 'XLSX', about: 'the columns shown, numbers as numbers' },
  { format: 'jsonl', name: 'JSON Lines', about: 'all of each record, for scripts' },
];
const VCARD: TakeAwayFormat = { format: 'vcf', name: 'vCard', about: 'for address books' };

/** Columns that stand in a file: how many contacts and deals there are is no value of a record. */
const isTakenAway = (key: string) => key !== 'contacts' && key !== 'deals';

/** Contacts, companies, leads and deals: filtered, sorted and counted as one likes; all of it stands in the address. */
export function Records() {
  const plural = (useParams().kind ?? 'contacts') as RecordPlural;
  const fields = useQuery(fieldsQuery);
  const views = useQuery(viewsQuery);
  if (!(plural in KIND_OF))
    return <Empty title="There are no such records">Choose contacts, companies, leads or deals.</Empty>;
  if (fields.isError) return <Failed error={fields.error} retry={() => void fields.refetch()} />;
  if (!fields.data || views.isPending) return <Loading lines={18} />;
  return <RecordList key={plural} kind={KIND_OF[plural]} />;
}

function RecordList({ kind }: { kind: RecordKind }) {
  const plural = PLURALS[kind];
  const words = useWords();
  const navigate = useNavigate();
  const views = useQuery(viewsQuery).data ?? [];
  const pipelines = useQuery(pipelinesQuery).data ?? [];
  const teams = useQuery(teamsQuery).data ?? [];
  const known = useQuery(fieldsQuery).data;
  const own = useMemo(() => (known ?? []).filter(({ record }) => record === kind), [known, kind]);
  const fields = useMemo(() => listedFields(kind, own), [kind, own]);
  const state = useListState(kind, views);
  const { view, q } = state;
  const [typed, setTyped] = useState(q);
  const [chosen, setChosen] = useState<Chosen>(NOTHING);
  const [making, setMaking] = useState(false);
  useEffect(() => {
    if (typed === q) return;
    const timer = window.setTimeout(() => state.setQ(typed), 200);
    return () => window.clearTimeout(timer);
  }, [typed, q, state]);
  const wish = {
    q: q || undefined,
    filter: view.filter ? JSON.stringify(view.filter) : undefined,
    sort: view.sort ? writeSort(view.sort) : undefined,
    through: state.through || undefined,
  };
  const list = useInfiniteQuery(recordsQuery(plural, wish));
  const listed = list.data?.pages[0];
  const counted = useQuery({
    ...recordCountQuery(plural, wish),
    enabled: list.isSuccess && listed?.total === undefined,
  });
  const total = listed?.total ?? counted.data?.total;
  const labels = {
    company: 'Company',
    contacts: kind === 'company' ? 'Contacts' : 'Contact',
    deals: kind === 'company' ? words.Many('deal') : words.One('deal'),
  };
  const columns = recordColumns({ fields, pipelines, view, labels });
  const choices = [
    ...fields,
    ...LINKED.filter((key) => LINKED_ON[kind].includes(key)).map((key) => ({ key, label: labels[key] })),
  ];
  const narrow = (part: RecordCondition) => {
    const group = view.filter ? asGroup(view.filter) : { all: [] };
    state.change({ filter: 'all' in group ? { all: [...group.all, part] } : { all: [group, part] } });
  };
  const rows = list.data?.pages.flatMap(({ items }) => items) ?? [];
  const count = chosen.all?.total ?? chosen.ids.size;
  return (
    <div className="flex h-full flex-col overflow-y-auto p-5">
      <PageHead title={words.Many(kind)} aside={total !== undefined && total.toLocaleString('en-GB')}>
        {kind !== 'deal' && (
          <Link to={`/records/recognition?kind=${kind}`} className={buttonLook('quiet')}>
            Recognition
          </Link>
        )}
        <nav
          aria-label="Kind of record"
          className="flex max-w-full overflow-hidden rounded border border-line bg-sheet"
        >
          {RECORD_KINDS.map((one) => (
            <NavLink
              key={one}
              to={`/records/${PLURALS[one]}`}
              className={({ isActive }) =>
                `px-3 py-1 leading-[22px] max-sm:px-2 ${isActive ? 'bg-ink text-sheet' : 'hover:bg-raised'}`
              }
            >
              {words.Many(one)}
            </NavLink>
          ))}
        </nav>
        <div className="w-52 max-sm:w-full">
          <TextField
            label={`Find ${words.many(kind)}`}
            hideLabel
            type="search"
            placeholder={
              { company: 'Name or domain', deal: 'Name', contact: 'Name or e-mail', lead: 'Name or e-mail' }[kind]
            }
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
          />
        </div>
        <Button look="main" onClick={() => setMaking(true)}>
          <Plus className="size-4" aria-hidden /> New {words.one(kind)}
        </Button>
      </PageHead>
      <div className="mb-2 flex flex-none items-start gap-1.5 max-md:flex-wrap">
        <div className="flex min-w-0 flex-1 flex-wrap items-start gap-1.5 max-md:basis-full">
          <ViewsMenu kind={kind} views={views} state={state} />
          <FilterWords
            filter={view.filter}
            terms={{ fields, teams }}
            change={(filter) => {
              setChosen(NOTHING);
              // Absent and “nothing” differ: a kept view may have a filter of its own.
              state.change({ filter: filter as RecordCondition });
            }}
          />
          <Through intake={state.through} leave={state.leaveThrough} />
          <GroupCounts
            kind={kind}
            by={view.group}
            fields={fields}
            wish={wish}
            choose={(group) => state.change({ group: group as string })}
            narrow={narrow}
          />
        </div>
        <span className="flex gap-1.5">
          <ColumnsMenu columns={view.columns} choices={choices} change={(next) => state.change({ columns: next })} />
          <TakeAway
            path={`/${plural}`}
            wish={{
              ...wish,
              columns: view.columns
                .map(({ field }) => field)
                .filter(isTakenAway)
                .join(','),
            }}
            formats={kind === 'contact' ? [...FORMATS, VCARD] : FORMATS}
          />
          <Link
            to={`/records/deleted/${plural}`}
            aria-label={`Deleted ${words.many(kind)}`}
            title={`Deleted ${words.many(kind)}`}
            className={`${buttonLook('quiet')} !h-7 !px-1.5`}
          >
            <ArchiveRestore className="size-3.5" aria-hidden />
          </Link>
        </span>
      </div>
      {count > 0 && (
        <BulkBar
          kind={kind}
          chosen={chosen}
          fields={fields}
          everything={
            !chosen.all && total !== undefined && total > chosen.ids.size && rows.every(({ id }) => chosen.ids.has(id))
              ? { total, choose: () => setChosen({ ids: chosen.ids, all: { query: set(wish), total } }) }
              : null
          }
          clear={() => setChosen(NOTHING)}
        />
      )}
      {list.isPending ? (
        <Loading lines={16} />
      ) : list.isError ? (
        <Failed error={list.error} retry={() => void list.refetch()} />
      ) : (
        <DataTable
          label={words.Many(kind)}
          columns={columns}
          rows={rows}
          total={total}
          nameOf={({ name }) => name}
          open={({ id }) => void navigate(`/records/${plural}/${id}`)}
          more={list.hasNextPage && !list.isFetchingNextPage ? () => void list.fetchNextPage() : undefined}
          sort={{ ...sortOf(view), choose: (field) => state.change({ sort: nextSort(view.sort, field) }) }}
          choice={{
            chosen: chosen.ids,
            choose: (ids, add) =>
              setChosen(({ ids: before }) => {
                const next = new Set(before);
                for (const id of ids)
                  if (add) next.add(id);
                  else next.delete(id);
                return { ids: next, all: null };
              }),
          }}
          resize={(column, width) =>
            state.change({ columns: view.columns.map((one) => (one.field === column ? { ...one, width } : one)) })
          }
          empty={
            <Empty title={q || view.filter || state.through ? 'Nothing fits' : `There are no ${words.many(kind)} yet`}>
              {q || view.filter || state.through
                ? 'Try a part of the name or address, or take a filter away.'
                : 'Records appear when a route writes its first submission, or when you make one.'}
            </Empty>
          }
        />
      )}
      {making && <NewRecord kind={kind} fields={own} close={() => setMaking(false)} />}
    </div>
  );
}

/** The intake that the records shown came through, with the way out. */
function Through({ intake, leave }: { intake: string; leave: () => void }) {
  const known = useQuery({ ...intakeQuery(intake), enabled: intake !== '' }).data;
  if (!intake) return null;
  return (
    <span className="inline-flex h-7 items-center gap-1.5 rounded border border-straw bg-straw-soft px-2">
      came through {known ? known.name : 'one intake'}
      <button type="button" aria-label="Records from anywhere" onClick={leave} className="text-muted hover:text-ink">
        <X className="size-3.5" aria-hidden />
      </button>
    </span>
  );
}

const LINKED_ON: Record<RecordKind, readonly string[]> = {
  contact: ['company', 'deals'],
  company: ['company', 'contacts', 'deals'],
  lead: [],
  deal: ['company', 'contacts'],
};

function set(wish: Record<string, string | undefined>): Record<string, string> {
  return Object.fromEntries(Object.entries(wish).filter((entry): entry is [string, string] => entry[1] !== undefined));
}
