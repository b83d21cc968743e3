import type { SigningShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { signingQuery } from '../api/queries';
import { Button } from '../components/button';
import { Copyable } from '../components/copyable';
import { Dialog } from '../components/dialog';
import { Failed, Loading, messageOf } from '../components/status';

/** The secret by which receivers tell that a post is from here, with the way to replace it. */
export function SigningSecret({ close }: { close: () => void }) {
  const client = useQueryClient();
  const signing = useQuery(signingQuery);
  const [sure, setSure] = useState(false);
  const replace = useMutation({
    mutationFn: () => call<SigningShape>('POST', '/outbox-signing/replace'),
    onSuccess: (made) => {
      client.setQueryData(signingQuery.queryKey, made);
      setSure(false);
      toast('Replaced. Give the new secret to every receiver.');
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <Dialog
      open
      close={close}
      title="Signing secret"
      description="Every post carries webhook-id, webhook-timestamp and webhook-signature, as Standard Webhooks defines. With this secret a receiver can check that it came from here."
    >
      {signing.isPending ? (
        <Loading lines={2} />
      ) : signing.isError ? (
        <Failed error={signing.error} retry={() => void signing.refetch()} />
      ) : (
        <div className="flex flex-col gap-3">
          <Copyable text={signing.data.secret} label="signing secret" />
          {sure ? (
            <div className="flex flex-wrap items-center justify-end gap-2">
              <p className="min-w-0 flex-1">Receivers refuse posts until they have the new one.</p>
              <Button onClick={() => setSure(false)}>Keep this one</Button>
              <Button look="main" disabled={replace.isPending} onClick={() => replace.mutate()}>
                Replace it
              </Button>
            </div>
          ) : (
            <div className="flex justify-end">
              <Button onClick={() => setSure(true)}>Replace…</Button>
            </div>
          )}
        </div>
      )}
    </Dialog>
  );
}
