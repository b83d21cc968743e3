import type { EntryLinkShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link2 } from 'lucide-react';
import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { entryLinkQuery } from '../api/queries';
import { Button } from '../components/button';
import { Copyable } from '../components/copyable';
import { Dialog } from '../components/dialog';
import { Failed, Loading, messageOf } from '../components/status';
import { EntryDesk } from './entry-desk';

/** Quick entry for whoever is signed in. */
export function QuickEntry() {
  const { id = '' } = useParams();
  const link = useQuery(entryLinkQuery(id));
  const [sharing, setSharing] = useState(false);
  if (link.isPending) return <Loading />;
  if (link.isError) return <Failed error={link.error} retry={() => void link.refetch()} />;
  return (
    <>
      <EntryDesk
        key={link.data.secret}
        secret={link.data.secret}
        signedIn
        actions={
          <Button onClick={() => setSharing(true)}>
            <Link2 className="size-4" aria-hidden /> Link without sign-in
          </Button>
        }
      />
      {sharing && <EntryLink form={id} link={link.data} close={() => setSharing(false)} />}
    </>
  );
}

/** The person's own link, for a phone or a desk where nobody signs in. */
function EntryLink({ form, link, close }: { form: string; link: EntryLinkShape; close: () => void }) {
  const client = useQueryClient();
  const [params] = useSearchParams();
  const renew = useMutation({
    mutationFn: () => call<EntryLinkShape>('POST', `/forms/${form}/entry-link/renew`),
    onSuccess: (fresh) => {
      client.setQueryData(entryLinkQuery(form).queryKey, fresh);
      toast.success('There is a new link. The one before does not work any more.');
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const presets = params.toString();
  return (
    <Dialog open close={close} title="Your link into this form">
      <p className="mb-2 text-muted">
        Whoever has it enters in your name without signing in, and sees what became of it. It carries the source and the
        other presets of this page.
      </p>
      <Copyable text={`${window.location.origin}${link.address}${presets ? `?${presets}` : ''}`} label="entry link" />
      <div className="mt-3 flex items-center justify-between gap-3">
        <span className="text-small text-muted">Got into the wrong hands?</span>
        <Button onClick={() => renew.mutate()} disabled={renew.isPending}>
          Make a new one
        </Button>
      </div>
    </Dialog>
  );
}
