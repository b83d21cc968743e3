import type { ComparisonShape } from '@haycart/api';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, get } from '../api/client';
import { messageOf } from '../components/status';

/** How often the progress of a comparison is asked for, in milliseconds. */
const ASK_MS = 400;

/** What is compared: versions by number, the running one and the draft where none is named. */
export interface ComparisonWish {
  before?: number;
  after?: number;
  since?: string;
  until?: string;
  last?: number;
}

/** Two versions of a route over past submissions: begun, followed while it works, and cancelled. */
export function useComparison(routeId: string) {
  const [id, setId] = useState<string | null>(null);
  const at = `/routes/${routeId}/comparisons`;
  const begin = useMutation({
    mutationFn: (wish: ComparisonWish) => call<ComparisonShape>('POST', at, wish),
    onSuccess: (begun) => setId(begun.id),
    onError: (error) => toast.error(messageOf(error)),
  });
  const found = useQuery({
    queryKey: ['comparison', routeId, id],
    queryFn: get<ComparisonShape>(`${at}/${id}`),
    enabled: id !== null,
    refetchInterval: ({ state }) => (state.data && state.data.state !== 'working' ? false : ASK_MS),
  });
  const cancel = useMutation({
    mutationFn: () => call<ComparisonShape>('POST', `${at}/${id}/cancel`),
    onSuccess: () => found.refetch(),
  });
  return {
    found: id === null ? undefined : found.data,
    begin: begin.mutate,
    beginning: begin.isPending,
    cancel: () => cancel.mutate(),
  };
}
