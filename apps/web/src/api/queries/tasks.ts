import type { AnswerLine, Fairness, GivenLine, Page, TaskCounts, TaskLine, TaskState } from '@haycart/api';
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

/** What waits for its first answer from somebody; from anybody when not said. */
export const answersQuery = (owner: string | undefined) =>
  queryOptions({
    queryKey: ['records', 'answers', owner],
    queryFn: get<AnswerLine[]>(`/answers${query({ owner })}`),
    meta: { topics: ['tasks'] },
  });
/** Who was given how much in the last days. */
export const fairnessQuery = (days: number) =>
  queryOptions({ queryKey: ['records', 'fairness', days], queryFn: get<Fairness>(`/fairness${query({ days })}`) });
/** What was given last, by one team or by all, and why. */
export const givenLatelyQuery = (team: string | null) =>
  queryOptions({
    queryKey: ['records', 'given', team],
    queryFn: get<GivenLine[]>(`/fairness/latest${query({ team: team ?? undefined })}`),
  });
