import type { FieldShape, FieldUse, LabelUse, PipelineShape, PlaceUse, SetUpChange } from '@haycart/api';
import type { Destination, ReadyCheck } from '@haycart/core';
import { queryOptions } from '@tanstack/react-query';
import { get } from '../client';

export const pipelinesQuery = queryOptions({
  queryKey: ['pipelines', 'list'],
  queryFn: get<PipelineShape[]>('/pipelines'),
  staleTime: 60_000,
});
export const placeUsesQuery = queryOptions({
  queryKey: ['records', 'place-uses'],
  queryFn: get<PlaceUse[]>('/set-up/place-uses'),
});
export const fieldUsesQuery = queryOptions({
  queryKey: ['fields', 'uses'],
  queryFn: get<FieldUse[]>('/set-up/field-uses'),
});
export const setUpChangesQuery = queryOptions({
  queryKey: ['pipelines', 'changes'],
  queryFn: get<SetUpChange[]>('/set-up/changes'),
});
export const fieldsQuery = queryOptions({
  queryKey: ['fields', 'list'],
  queryFn: get<FieldShape[]>('/fields'),
  staleTime: 60_000,
});
/** All that a route is planned against, as the server plans it. */
export const destinationQuery = queryOptions({
  queryKey: ['fields', 'destination'],
  queryFn: get<Destination>('/destination'),
  staleTime: 60_000,
  meta: { topics: ['pipelines', 'people', 'labels', 'identity', 'channels'] },
});
export const labelsQuery = (kind: 'tags' | 'lists') =>
  queryOptions({ queryKey: ['labels', kind], queryFn: get<LabelUse[]>(`/${kind}`) });
export const readinessQuery = queryOptions({
  queryKey: ['any', 'readiness'],
  queryFn: get<ReadyCheck[]>('/set-up/readiness'),
});
