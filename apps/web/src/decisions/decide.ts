import type { Decided } from '@haycart/api';
import type { FieldValue } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { messageOf } from '../components/status';

/** What is decided, and about which of those that wait. */
export interface Deciding {
  ids: readonly string[];
  /** One of the decision’s choices. */
  action: string;
  option?: string;
  /** The record that a submission means. */
  record?: string;
  values?: Readonly<Record<string, FieldValue | null>>;
  whole?: boolean;
  /** Why, where a reason is kept. */
  note?: string;
}

/** Decides; what was done is told, and the list is read anew. */
export function useDecide(done: (ids: readonly string[]) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (deciding: Deciding) => call<Decided>('POST', '/decisions/decide', deciding),
    onSuccess: ({ text }, { ids }) => {
      toast(text);
      done(ids);
    },
    onError: (error) => toast.error(messageOf(error)),
    onSettled: () => client.invalidateQueries({ queryKey: ['any'] }),
  });
}
