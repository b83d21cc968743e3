import type { Balance, BandFigures, DecisionList, DecisionShape, HomeShape, SearchHit } from '@haycart/api';
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { get, query } from '../client';

export const bandQuery = queryOptions({ queryKey: ['any', 'band'], queryFn: get<BandFigures>('/band') });
export const decisionsQuery = (most: number) =>
  queryOptions({
    queryKey: ['any', 'decisions', most],
    queryFn: get<DecisionList>(`/decisions${query({ limit: String(most) })}`),
    placeholderData: keepPreviousData,
  });
export const decisionQuery = (id: string) =>
  queryOptions({
    queryKey: ['decisions', id],
    queryFn: get<DecisionShape>(`/decisions/${id}`),
    retry: false,
  });
export const homeQuery = queryOptions({ queryKey: ['any', 'home'], queryFn: get<HomeShape>('/home') });
/** What became of all that was acknowledged in the last days. */
export const balanceQuery = (days: number) =>
  queryOptions({
    queryKey: ['submissions', 'balance', days],
    queryFn: get<Balance>(`/reports/balance${query({ days })}`),
    meta: { topics: ['runs'] },
  });
export const searchQuery = (text: string) =>
  queryOptions({
    queryKey: ['search', text],
    queryFn: get<SearchHit[]>(`/search${query({ q: text })}`),
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
  });
