import type { DeletedRecord, DoneEdit } from '@haycart/api';
import { counted, RECORD_KINDS, type RecordKind } from '@haycart/core';
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import type { ColumnDef } from '@tanstack/react-table';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { call } from '../api/client';
import { deletedRecordsQuery } from '../api/queries';
import { KIND_OF, PLURALS, type RecordPlural } from '../api/record-kinds';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { recordNumber } from '../components/format';
import { DataTable } from '../components/data-table';
import { sayDone } from '../components/say-done';
import { Mono, PageHead } from '../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { Time } from '../components/time';

/** What people deleted: nothing of it is lost, and each can be brought back. */
export function DeletedRecords() {
  const plural = (useParams().kind ?? 'contacts') as RecordPlural;
  if (!(plural in KIND_OF))
    return <Empty title="There are no such records">Choose contacts, companies, leads or deals.</Empty>;
  return <DeletedList key={plural} kind={KIND_OF[plural]} />;
}

function DeletedList({ kind }: { kind: RecordKind }) {
  const words = useWords();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const list = useInfiniteQuery(deletedRecordsQuery(kind));
  const bringBack = useMutation({
    mutationFn: (ids: readonly string[]) => call<DoneEdit>('POST', '/deleted-records/bring-back', { ids }),
    onSuccess: async (done, ids) => {
      setChosen(new Set());
      await client.invalidateQueries({ queryKey: ['records'] });
      const [only] = ids;
      sayDone(
        `${done.text}.`,
        ids.length === 1
          ? { label: 'Open it', act: () => void navigate(`/records/${PLURALS[kind]}/${only}`) }
          : undefined,
      );
    },
  });
  const columns: ColumnDef<DeletedRecord>[] = [
    { id: 'name', header: 'Name', cell: ({ row }) => row.original.name, meta: { width: 'minmax(0,2fr)' } },
    {
      id: 'number',
      header: 'Number',
      cell: ({ row }) => <Mono>{recordNumber(kind, row.original.number)}</Mono>,
      meta: { width: '90px', wide: true },
    },
    {
      id: 'detail',
      header: kind === 'company' ? 'Domain' : 'E-mail',
      cell: ({ row }) => row.original.detail,
      meta: { width: 'minmax(0,2fr)', wide: true },
    },
    { id: 'by', header: 'Deleted by', cell: ({ row }) => row.original.by, meta: { width: 'minmax(92px,1fr)' } },
    {
      id: 'at',
      header: 'When',
      cell: ({ row }) => <Time at={row.original.at} />,
      meta: { width: '130px', wide: true },
    },
    {
      id: 'back',
      header: '',
      cell: ({ row }) => (
        <button
          type="button"
          disabled={bringBack.isPending}
          onClick={() => bringBack.mutate([row.original.id])}
          className="text-slate hover:underline"
        >
          Bring back
        </button>
      ),
      meta: { width: '96px' },
    },
  ];
  const rows = list.data?.pages.flatMap(({ items }) => items) ?? [];
  return (
    <div className="flex h-full flex-col overflow-y-auto p-5">
      <PageHead title={`Deleted ${words.many(kind)}`}>
        <nav aria-label="Kind of record" className="flex max-w-full flex-wrap gap-3">
          {RECORD_KINDS.filter((one) => one !== kind).map((one) => (
            <Link key={one} to={`/records/deleted/${PLURALS[one]}`} className="text-slate hover:underline">
              Deleted {words.many(one)}
            </Link>
          ))}
        </nav>
      </PageHead>
      <p className="mb-3 text-muted">
        Each is kept as it was, with its notes, tasks and files, and comes back with the links to what is there.{' '}
        <Link to={`/records/${PLURALS[kind]}`} className="text-slate hover:underline">
          To the {words.many(kind)}
        </Link>
      </p>
      {bringBack.isError && (
        <p role="alert" className="mb-2 text-brick">
          {messageOf(bringBack.error)}
        </p>
      )}
      {chosen.size > 0 && (
        <p className="mb-2 flex items-center gap-3">
          <b>{chosen.size} chosen</b>
          <Button disabled={bringBack.isPending} onClick={() => bringBack.mutate([...chosen])}>
            Bring back {counted(chosen.size, words.one(kind), words.many(kind))}
          </Button>
        </p>
      )}
      {list.isPending ? (
        <Loading lines={12} />
      ) : list.isError ? (
        <Failed error={list.error} retry={() => void list.refetch()} />
      ) : (
        <DataTable
          label={`Deleted ${words.many(kind)}`}
          columns={columns}
          rows={rows}
          nameOf={({ name }) => name}
          more={list.hasNextPage && !list.isFetchingNextPage ? () => void list.fetchNextPage() : undefined}
          choice={{
            chosen,
            choose: (ids, add) =>
              setChosen((before) => new Set(add ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id)))),
          }}
          empty={<Empty title={`No ${words.one(kind)} was deleted`}>What somebody deletes is kept here.</Empty>}
        />
      )}
    </div>
  );
}
