import type { OutboxLine, OutboxShape, OutboxState, Page, SigningShape } from '@haycart/api';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { get, query } from '../client';
import { PAGE } from './page';

export interface OutboxWish {
  state?: OutboxState | undefined;
  kind?: string | undefined;
  to?: string | undefined;
}
export const outboxQuery = (wish: OutboxWish) =>
  infiniteQueryOptions({
    queryKey: ['outbox', 'list', wish],
    queryFn: ({ pageParam, signal }) =>
      get<Page<OutboxLine>>(`/outbox${query({ ...wish, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const outboxOfRunQuery = (run: string) =>
  queryOptions({ queryKey: ['outbox', 'run', run], queryFn: get<Page<OutboxLine>>(`/outbox${query({ run })}`) });
export const outboxItemQuery = (id: string) =>
  queryOptions({ queryKey: ['outbox', 'one', id], queryFn: get<OutboxShape>(`/outbox/${id}`) });
export const signingQuery = queryOptions({
  queryKey: ['outbox-signing'],
  queryFn: get<SigningShape>('/outbox-signing'),
});
