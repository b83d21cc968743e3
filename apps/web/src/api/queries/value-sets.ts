import type { ValueSetShape } from '@haycart/api';
import { queryOptions } from '@tanstack/react-query';
import { get } from '../client';

/** Sets and the routes that use them. */
export const valueSetsQuery = queryOptions({
  queryKey: ['labels', 'value-sets'],
  queryFn: get<ValueSetShape[]>('/value-sets'),
  meta: { topics: ['labels', 'routes'] },
});
