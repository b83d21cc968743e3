import type {
  BandFigures,
  FieldKeyShape,
  FieldShape,
  FieldUse,
  HistoryEntry,
  HomeShape,
  IntakeLine,
  IntakeShape,
  Page,
  PipelineGrid,
  PipelineShape,
  PlaceUse,
  RecordShape,
  RouteLine,
  RouteShape,
  RunShape,
  SearchHit,
  SessionShape,
  SetUpChange,
  SignInOptions,
  SubmissionDetail,
  SubmissionShape,
  TouchShape,
} from '@haycart/api';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { call, query } from './client';

/** The first part of each key is the topic whose change makes it stale; see `useLiveUpdates`. */
export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: () => call<SessionShape>('GET', '/session'),
  retry: false,
  staleTime: Infinity,
});
export const signInOptionsQuery = queryOptions({
  queryKey: ['sign-in'],
  queryFn: () => call<SignInOptions>('GET', '/session/options'),
});
export const bandQuery = queryOptions({ queryKey: ['any', 'band'], queryFn: () => call<BandFigures>('GET', '/band') });
export const homeQuery = queryOptions({ queryKey: ['any', 'home'], queryFn: () => call<HomeShape>('GET', '/home') });
export const intakeLinesQuery = queryOptions({
  queryKey: ['submissions', 'intake-lines'],
  queryFn: () => call<IntakeLine[]>('GET', '/intake-lines'),
});
export const intakeQuery = (id: string) =>
  queryOptions({ queryKey: ['intakes', id], queryFn: () => call<IntakeShape>('GET', `/intakes/${id}`) });
export const fieldKeysQuery = (intake: string) =>
  queryOptions({
    queryKey: ['intakes', intake, 'keys'],
    queryFn: () => call<FieldKeyShape[]>('GET', `/intakes/${intake}/field-keys`),
    staleTime: 30_000,
  });

export interface SubmissionFilter {
  intake?: string | undefined;
  outcome?: string | undefined;
  since?: string | undefined;
  route?: string | undefined;
}

const PAGE = 100;

export const submissionsQuery = (filter: SubmissionFilter) =>
  infiniteQueryOptions({
    queryKey: ['submissions', 'list', filter],
    queryFn: ({ pageParam }) =>
      call<Page<SubmissionShape>>('GET', `/submissions${query({ ...filter, limit: PAGE, after: pageParam })}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const outcomesQuery = (filter: SubmissionFilter) =>
  queryOptions({
    queryKey: ['submissions', 'outcomes', filter],
    queryFn: () => call<Record<string, number>>('GET', `/submission-outcomes${query({ ...filter })}`),
    placeholderData: keepPreviousData,
  });
export const latestSubmissionsQuery = (intake: string, limit: number) =>
  queryOptions({
    queryKey: ['submissions', 'latest', intake, limit],
    queryFn: () => call<Page<SubmissionShape>>('GET', `/submissions${query({ intake, limit })}`),
    placeholderData: keepPreviousData,
  });
export const submissionQuery = (id: string) =>
  queryOptions({
    queryKey: ['submissions', 'one', id],
    queryFn: () => call<SubmissionDetail>('GET', `/submissions/${id}`),
  });
export const runQuery = (id: string) =>
  queryOptions({ queryKey: ['runs', id], queryFn: () => call<RunShape>('GET', `/runs/${id}`) });

export const routesQuery = queryOptions({
  queryKey: ['routes', 'list'],
  queryFn: () => call<RouteLine[]>('GET', '/routes'),
});
export const routeQuery = (id: string) =>
  queryOptions({
    queryKey: ['route', id],
    queryFn: () => call<RouteShape>('GET', `/routes/${id}`),
    staleTime: Infinity,
    gcTime: 0,
  });
export const pipelinesQuery = queryOptions({
  queryKey: ['pipelines', 'list'],
  queryFn: () => call<PipelineShape[]>('GET', '/pipelines'),
  staleTime: 60_000,
});
export const placeUsesQuery = queryOptions({
  queryKey: ['records', 'place-uses'],
  queryFn: () => call<PlaceUse[]>('GET', '/set-up/place-uses'),
});
export const fieldUsesQuery = queryOptions({
  queryKey: ['fields', 'uses'],
  queryFn: () => call<FieldUse[]>('GET', '/set-up/field-uses'),
});
export const setUpChangesQuery = queryOptions({
  queryKey: ['pipelines', 'changes'],
  queryFn: () => call<SetUpChange[]>('GET', '/set-up/changes'),
});
export const fieldsQuery = queryOptions({
  queryKey: ['fields', 'list'],
  queryFn: () => call<FieldShape[]>('GET', '/fields'),
  staleTime: 60_000,
});
export const gridQuery = (id: string) =>
  queryOptions({
    queryKey: ['records', 'grid', id],
    queryFn: () => call<PipelineGrid>('GET', `/pipelines/${id}/grid`),
    placeholderData: keepPreviousData,
  });

export type RecordPlural = 'contacts' | 'companies' | 'deals';

export const recordsQuery = (kind: RecordPlural, q: string) =>
  infiniteQueryOptions({
    queryKey: ['records', 'list', kind, q],
    queryFn: ({ pageParam }) =>
      call<Page<RecordShape>>('GET', `/${kind}${query({ q, limit: PAGE, after: pageParam })}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const recordQuery = (kind: string, id: string) =>
  queryOptions({ queryKey: ['records', 'one', kind, id], queryFn: () => call<RecordShape>('GET', `/${kind}/${id}`) });
export const historyQuery = (kind: string, id: string) =>
  queryOptions({
    queryKey: ['records', 'history', kind, id],
    queryFn: () => call<HistoryEntry[]>('GET', `/${kind}/${id}/history`),
  });
export const touchesQuery = (kind: string, id: string) =>
  queryOptions({
    queryKey: ['records', 'touches', kind, id],
    queryFn: () => call<TouchShape[]>('GET', `/${kind}/${id}/touches`),
  });
export const searchQuery = (text: string) =>
  queryOptions({
    queryKey: ['search', text],
    queryFn: () => call<SearchHit[]>('GET', `/search${query({ q: text })}`),
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
  });
