import type { OutboxLine, OutboxShape } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Button } from './button';
import { messageOf } from './status';

/** What can be done with something in the outbox: send it again, or cancel it. */
export function OutboxActions({ line: { id, state } }: { line: Pick<OutboxLine, 'id' | 'state'> }) {
  const client = useQueryClient();
  const act = useMutation({
    mutationFn: (what: 'retry' | 'cancel') => call<OutboxShape>('POST', `/outbox/${id}/${what}`),
    onSuccess: (_, what) => toast(what === 'retry' ? 'It is sent again.' : 'Cancelled.'),
    onError: (error) => toast.error(messageOf(error)),
    onSettled: () => client.invalidateQueries({ queryKey: ['outbox'] }),
  });
  return (
    <span className="inline-flex gap-2">
      {state !== 'waiting' && (
        <Button disabled={act.isPending} onClick={() => act.mutate('retry')}>
          Send again
        </Button>
      )}
      {(state === 'waiting' || state === 'given-up') && (
        <Button disabled={act.isPending} onClick={() => act.mutate('cancel')}>
          Cancel
        </Button>
      )}
    </span>
  );
}
