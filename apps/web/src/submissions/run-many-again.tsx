import { counted } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Button } from '../components/button';
import { messageOf } from '../components/status';

/** What is done with several submissions at once: those set aside are released, those that failed are run again. */
export function RunManyAgain({
  chosen,
  released,
  clear,
}: {
  chosen: ReadonlySet<string>;
  released: boolean;
  clear: () => void;
}) {
  const client = useQueryClient();
  const run = useMutation({
    mutationFn: () => call<{ queued: number }>('POST', '/submissions/run-again', { ids: [...chosen] }),
    onSuccess: ({ queued }) => {
      clear();
      void client.invalidateQueries({ queryKey: ['submissions'] });
      toast.success(`${counted(queued, 'submission')} on the way, as if just arrived.`);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <div role="toolbar" aria-label="What to do with the chosen" className="mb-2 flex items-center gap-2">
      <b>{chosen.size} chosen</b>
      <Button look="main" className="!h-7" disabled={run.isPending} onClick={() => run.mutate()}>
        {released ? 'Release them' : 'Run them again'}
      </Button>
      <Button className="!h-7" onClick={clear}>
        Choose none
      </Button>
    </div>
  );
}
