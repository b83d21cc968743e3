import type { Page, TaskCounts, TaskLine, TaskState } from '@haycart/api';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { get, query } from '../client';
import { PAGE } from './page';

/** `owner`: the key of a person; absent for everybody. */
export interface TasksWish {
  owner?: string | undefined;
  state: TaskState;
}
export const tasksQuery = (wish: TasksWish) =>
  infiniteQueryOptions({
    queryKey: ['tasks', 'list', wish],
    queryFn: ({ pageParam, signal }) =>
      get<Page<TaskLine>>(`/tasks${query({ ...wish, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const taskCountsQuery = (owner: string | undefined) =>
  queryOptions({
    queryKey: ['tasks', 'count', owner ?? ''],
    queryFn: get<TaskCounts>(`/tasks/count${query({ owner })}`),
    placeholderData: keepPreviousData,
  });
