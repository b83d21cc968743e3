import { useMutation, useQueryClient } from '@tanstack/react-query';
import { counted } from '@haycart/core';
import { toast } from 'sonner';
import { call } from '../api/client';
import { sayDone } from '../components/say-done';
import { messageOf } from '../components/status';

interface Finishing {
  ids: string[];
  done: boolean;
}

/** Marks tasks as done, or as open again, with a way back. */
export function useFinish(then: () => void) {
  const client = useQueryClient();
  const send = (finishing: Finishing) => call<{ changed: number }>('POST', '/tasks/done', finishing);
  const settled = () => client.invalidateQueries({ queryKey: ['tasks'] });
  return useMutation({
    mutationFn: send,
    onSuccess: async ({ changed }, { ids, done }) => {
      then();
      await settled();
      sayDone(`${counted(changed, 'task')} marked as ${done ? 'done' : 'open'}.`, {
        label: 'Undo',
        act: () => void send({ ids, done: !done }).then(settled, (error: unknown) => toast.error(messageOf(error))),
      });
    },
    onError: (error) => toast.error(messageOf(error)),
  });
}
