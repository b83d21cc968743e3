import type { Page, RunShape, SubmissionDetail, SubmissionShape } from '@haycart/api';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { get, query } from '../client';
import { PAGE } from './page';

export interface SubmissionFilter {
  intake?: string | undefined;
  outcome?: string | undefined;
  since?: string | undefined;
  route?: string | undefined;
  q?: string | undefined;
  sort?: string | undefined;
}
export const submissionsQuery = (filter: SubmissionFilter) =>
  infiniteQueryOptions({
    queryKey: ['submissions', 'list', filter],
    queryFn: ({ pageParam, signal }) =>
      get<Page<SubmissionShape>>(`/submissions${query({ ...filter, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const outcomesQuery = (filter: SubmissionFilter) =>
  queryOptions({
    queryKey: ['submissions', 'outcomes', filter],
    queryFn: get<Record<string, number>>(`/submission-outcomes${query({ ...filter })}`),
    placeholderData: keepPreviousData,
  });
export const latestSubmissionsQuery = (intake: string, limit: number) =>
  queryOptions({
    queryKey: ['submissions', 'latest', intake, limit],
    queryFn: get<Page<SubmissionShape>>(`/submissions${query({ intake, limit })}`),
    placeholderData: keepPreviousData,
  });
export const submissionQuery = (id: string) =>
  queryOptions({
    queryKey: ['submissions', 'one', id],
    queryFn: get<SubmissionDetail>(`/submissions/${id}`),
  });
export const runQuery = (id: string) => queryOptions({ queryKey: ['runs', id], queryFn: get<RunShape>(`/runs/${id}`) });
/** A run with the account of one of its attempts. */
export const attemptQuery = (run: string, attempt: string) =>
  queryOptions({
    queryKey: ['runs', run, attempt],
    queryFn: get<RunShape>(`/runs/${run}/attempts/${attempt}`),
  });
