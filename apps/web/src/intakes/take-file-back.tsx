import type { SheetFileShape, SheetTakeBackRehearsal } from '@haycart/api';
import { counted } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { Failed, Loading } from '../components/status';
import { WhatGoesBack } from '../components/what-goes-back';

/** Takes back all that the rows of a file wrote, after showing what that does. */
export function TakeFileBack({ file, close }: { file: SheetFileShape; close: () => void }) {
  const client = useQueryClient();
  const path = `/sheets/files/${file.id}/take-back`;
  const rehearsal = useQuery({
    queryKey: ['records', 'take-back', file.id],
    queryFn: () => call<SheetTakeBackRehearsal>('POST', `${path}/rehearse`),
    retry: false,
  });
  const act = useMutation({
    mutationFn: () => call('POST', path),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['submissions'] });
      close();
    },
  });
  return (
    <Dialog
      open
      close={close}
      title={`Take back ${file.name}`}
      description="What its rows wrote goes back, where nobody touched it since. Rows that wait are routed no more. The file stays: bring it again, or let another route take its rows."
    >
      {rehearsal.isPending ? (
        <Loading lines={3} />
      ) : rehearsal.isError ? (
        <Failed error={rehearsal.error} retry={() => void rehearsal.refetch()} />
      ) : (
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            act.mutate();
          }}
        >
          <WhatGoesBack rehearsal={rehearsal.data} />
          {rehearsal.data.of > rehearsal.data.runs && (
            <p className="text-muted">
              This is of the latest {rehearsal.data.runs.toLocaleString('en-GB')} of {counted(rehearsal.data.of, 'run')}
              ; the others go the same way.
            </p>
          )}
          <DialogActions
            error={act.error}
            close={close}
            action={rehearsal.data.of ? `Take back ${counted(rehearsal.data.of, 'run')}` : 'Take back what waits'}
            disabled={act.isPending}
          />
        </form>
      )}
    </Dialog>
  );
}
