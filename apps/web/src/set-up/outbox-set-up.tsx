import type { OutboxLine, OutboxState } from '@haycart/api';
import { hostOf } from '@haycart/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import type { ColumnDef } from '@tanstack/react-table';
import { useState } from 'react';
import { outboxQuery } from '../api/queries';
import { Button } from '../components/button';
import { DataTable } from '../components/data-table';
import { ListFilter } from '../components/list-filter';
import { OUTBOX_KINDS, OUTBOX_WORDS, OutboxAbout, OutboxStateWord } from '../components/outbox-state';
import { Empty, Failed, Loading } from '../components/status';
import { Time } from '../components/time';
import { useAddress } from '../state/use-address';
import { OutboxItem } from './outbox-item';
import { SetUpPage } from './set-up-page';
import { SigningSecret } from './signing-secret';

const COLUMNS: ColumnDef<OutboxLine>[] = [
  {
    id: 'at',
    header: 'Time',
    cell: ({ row }) => <Time at={row.original.createdAt} />,
    meta: { width: 'clamp(64px,16vw,120px)' },
  },
  {
    id: 'state',
    header: 'State',
    cell: ({ row }) => <OutboxStateWord state={row.original.state} />,
    meta: { width: 'clamp(96px,22vw,112px)' },
  },
  {
    id: 'kind',
    header: 'How',
    cell: ({ row: { original } }) => OUTBOX_KINDS[original.kind] ?? original.kind,
    meta: { width: '108px', wide: true },
  },
  {
    id: 'to',
    header: 'To',
    cell: ({ row: { original } }) => <span title={original.to}>{hostOf(original.to) ?? original.to}</span>,
    meta: { width: 'minmax(0,1fr)' },
  },
  {
    id: 'route',
    header: 'Route',
    cell: ({ row }) => row.original.route.name,
    meta: { width: 'minmax(0,1fr)', wide: true },
  },
  {
    id: 'tries',
    header: 'Tries',
    cell: ({ row }) => row.original.attempts,
    meta: { width: '56px', numeric: true, wide: true },
  },
  {
    id: 'about',
    header: 'Sent, or last error',
    cell: ({ row }) => <OutboxAbout line={row.original} />,
    meta: { width: 'minmax(0,2fr)', wide: true },
  },
];

/** What follow-ups send to the outside, the latest first: what was sent, what waits, and what was given up and why. */
export function OutboxSetUp() {
  const [params, set] = useAddress();
  const [signing, setSigning] = useState(false);
  const state = (params.get('state') ?? undefined) as OutboxState | undefined;
  const kind = params.get('kind') ?? undefined;
  const to = params.get('to') ?? undefined;
  const lines = useInfiniteQuery(outboxQuery({ state, kind, to }));
  const open = params.get('open');
  return (
    <SetUpPage
      about="what follow-ups send to the outside"
      action={<Button onClick={() => setSigning(true)}>Signing secret…</Button>}
    >
      <div className="flex flex-wrap gap-2">
        <ListFilter
          label="state"
          any="any"
          value={state ?? ''}
          options={Object.entries(OUTBOX_WORDS).map(([key, { word }]) => [key, word] as const)}
          choose={(value) => set('state', value)}
        />
        <ListFilter
          label="how"
          any="any way"
          value={kind ?? ''}
          options={Object.entries(OUTBOX_KINDS)}
          choose={(value) => set('kind', value)}
        />
        <input
          key={to}
          type="search"
          aria-label="To whom"
          placeholder="to an address or a number"
          defaultValue={to}
          maxLength={2_000}
          onKeyDown={({ key, currentTarget }) => key === 'Enter' && set('to', currentTarget.value.trim())}
          onBlur={({ target }) => set('to', target.value.trim())}
          className="h-7 w-56 rounded border border-line bg-raised px-2"
        />
      </div>
      {lines.isPending ? (
        <Loading lines={12} />
      ) : lines.isError ? (
        <Failed error={lines.error} retry={() => void lines.refetch()} />
      ) : (
        <div className="flex h-[calc(100vh-265px)] min-h-64 flex-col">
          <DataTable
            label="Outbox"
            columns={COLUMNS}
            rows={lines.data.pages.flatMap(({ items }) => items)}
            nameOf={({ to }) => to}
            open={({ id }) => set('open', id)}
            opened={open ?? undefined}
            more={lines.hasNextPage && !lines.isFetchingNextPage ? () => void lines.fetchNextPage() : undefined}
            empty={
              <Empty title={state || kind || to ? 'Nothing of this kind' : 'Nothing has been sent yet'}>
                A route sends something when its follow-ups say so: open a route, <i>Follow up</i>,{' '}
                <i>Add a follow-up</i>.
              </Empty>
            }
          />
        </div>
      )}
      {open && <OutboxItem id={open} close={() => set('open', null)} />}
      {signing && <SigningSecret close={() => setSigning(false)} />}
    </SetUpPage>
  );
}
