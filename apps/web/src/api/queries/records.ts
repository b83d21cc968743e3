import type {
  GroupCount,
  IdentityReport,
  DeletedRecord,
  MembershipLine,
  MergeShape,
  Page,
  PipelineGrid,
  RecordShape,
  RecordSheet,
  SavedView,
} from '@haycart/api';
import type { RecordKind } from '@haycart/core';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { get, query } from '../client';
import type { RecordPlural } from '../record-kinds';
import { PAGE } from './page';

export const mergesQuery = (record: string) =>
  queryOptions({
    queryKey: ['records', 'merges', record],
    queryFn: get<MergeShape[]>(`/merges?record=${record}`),
  });
export const identityQuery = (kind: RecordKind) =>
  queryOptions({
    queryKey: ['identity', kind],
    queryFn: get<IdentityReport>(`/identity?kind=${kind}`),
  });
/** What the grid of a pipeline is narrowed to, and over how many days conversion is counted. */
export interface GridWish {
  q?: string | undefined;
  filter?: string | undefined;
  days?: number | undefined;
}
export const gridQuery = (id: string, wish: GridWish) =>
  queryOptions({
    queryKey: ['records', 'grid', id, wish],
    queryFn: get<PipelineGrid>(`/pipelines/${id}/grid${query({ ...wish })}`),
    placeholderData: keepPreviousData,
  });
/** What a list of records is narrowed to and sorted by, as the server takes it. */
export interface RecordsWish {
  q?: string | undefined;
  filter?: string | undefined;
  sort?: string | undefined;
  /** The key of an intake that they came through. */
  through?: string | undefined;
}
export const recordsQuery = (kind: RecordPlural, wish: RecordsWish) =>
  infiniteQueryOptions({
    queryKey: ['records', 'list', kind, wish],
    queryFn: ({ pageParam, signal }) =>
      get<Page<RecordShape>>(`/${kind}${query({ ...wish, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const deletedRecordsQuery = (kind: RecordKind) =>
  infiniteQueryOptions({
    queryKey: ['records', 'deleted', kind],
    queryFn: ({ pageParam, signal }) =>
      get<Page<DeletedRecord>>(`/deleted-records${query({ kind, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
  });
export const recordCountQuery = (kind: RecordPlural, { q, filter, through }: RecordsWish) =>
  queryOptions({
    queryKey: ['records', 'count', kind, q, filter, through],
    queryFn: get<{ total: number }>(`/${kind}/count${query({ q, filter, through })}`),
    placeholderData: keepPreviousData,
  });
export const recordGroupsQuery = (kind: RecordPlural, by: string, { q, filter, through }: RecordsWish) =>
  queryOptions({
    queryKey: ['records', 'groups', kind, by, q, filter, through],
    queryFn: get<GroupCount[]>(`/${kind}/groups${query({ by, q, filter, through })}`),
    placeholderData: keepPreviousData,
  });
export const recordSheetQuery = (kind: string, id: string) =>
  queryOptions({
    queryKey: ['records', 'sheet', kind, id],
    queryFn: get<RecordSheet>(`/${kind}/${id}/sheet`),
    // Its history shows the mails and messages about it, and whether each was sent.
    meta: { topics: ['outbox'] },
  });
export const viewsQuery = queryOptions({
  queryKey: ['views'],
  queryFn: get<SavedView[]>('/views'),
  staleTime: 60_000,
});
export const membershipsQuery = (list: string) =>
  queryOptions({
    queryKey: ['records', 'memberships', list],
    queryFn: get<MembershipLine[]>(`/lists/${list}/memberships`),
  });
