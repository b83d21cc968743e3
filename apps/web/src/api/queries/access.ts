import type {
  AuditLine,
  Page,
  PersonShape,
  SessionLine,
  SessionShape,
  SignInOptions,
  TeamShape,
  TokenLine,
  WorkspaceShape,
} from '@haycart/api';
import type { ExchangeRate } from '@haycart/core';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { get, query } from '../client';
import { PAGE } from './page';

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: get<SessionShape>('/session'),
  retry: false,
  staleTime: Infinity,
});
export const signInOptionsQuery = queryOptions({
  queryKey: ['sign-in'],
  queryFn: get<SignInOptions>('/session/options'),
});
export const peopleQuery = queryOptions({
  queryKey: ['people', 'list'],
  queryFn: get<PersonShape[]>('/people'),
  staleTime: 60_000,
});
export const teamsQuery = queryOptions({
  queryKey: ['people', 'teams'],
  queryFn: get<TeamShape[]>('/teams'),
  staleTime: 60_000,
});
export const workspaceQuery = queryOptions({
  queryKey: ['people', 'workspace'],
  queryFn: get<WorkspaceShape>('/workspace'),
});
export const ratesQuery = queryOptions({
  queryKey: ['pipelines', 'rates'],
  queryFn: get<ExchangeRate[]>('/exchange-rates'),
});
/** What the audit is narrowed to. */
export interface AuditWish {
  actor?: string | undefined;
  command?: string | undefined;
  since?: string | undefined;
}
export const auditQuery = (wish: AuditWish) =>
  infiniteQueryOptions({
    queryKey: ['any', 'audit', wish],
    queryFn: ({ pageParam, signal }) =>
      get<Page<AuditLine>>(`/audit${query({ ...wish, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const tokensQuery = queryOptions({
  queryKey: ['tokens'],
  queryFn: get<TokenLine[]>('/tokens'),
});
export const mySessionsQuery = queryOptions({
  queryKey: ['my-sessions'],
  queryFn: get<SessionLine[]>('/account/sessions'),
});
