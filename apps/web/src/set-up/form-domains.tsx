import type { FormDomainShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { formDomainsQuery } from '../api/queries';
import { Button } from '../components/button';
import { Copyable } from '../components/copyable';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Failed, Loading, messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { Time } from '../components/time';

/** The company's own domains for its forms: claimed, proven to be theirs, removed. */
export function FormDomains() {
  const domains = useQuery(formDomainsQuery);
  const [host, setHost] = useState('');
  const client = useQueryClient();
  const add = useMutation({
    mutationFn: () => call<FormDomainShape>('POST', '/form-domains', { host }),
    onSuccess: () => {
      setHost('');
      void client.invalidateQueries({ queryKey: formDomainsQuery.queryKey });
    },
  });
  return (
    <Sheet className="p-4">
      <h2 className="text-base">Domains for forms</h2>
      <p className="mb-3 text-muted">
        Forms can be reached under a domain of yours, such as forms.example.com, once you have shown that it is yours.
      </p>
      <form
        className="mb-2 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <div className="min-w-0 flex-1">
          <TextField
            label="Domain"
            placeholder="forms.example.com"
            spellCheck={false}
            value={host}
            error={add.isError ? messageOf(add.error) : undefined}
            onChange={({ target }) => {
              setHost(target.value);
              add.reset();
            }}
          />
        </div>
        <Button type="submit" disabled={!host.trim() || add.isPending}>
          Add it
        </Button>
      </form>
      {domains.isPending ? (
        <Loading lines={2} />
      ) : domains.isError ? (
        <Failed error={domains.error} retry={() => void domains.refetch()} />
      ) : (
        <ul aria-label="Domains for forms">
          {domains.data.map((domain) => (
            <DomainLine key={domain.host} domain={domain} />
          ))}
        </ul>
      )}
    </Sheet>
  );
}

function DomainLine({ domain }: { domain: FormDomainShape }) {
  const { host, record, provenAt, checkedAt, problem } = domain;
  const client = useQueryClient();
  const [removing, setRemoving] = useState(false);
  const check = useMutation({
    mutationFn: () => call<FormDomainShape>('POST', `/form-domains/${host}/check`),
    onSuccess: (now) => {
      if (now.provenAt && !now.problem) toast.success(`${host} is yours, and leads to your forms.`);
    },
    onError: (error) => toast.error(messageOf(error)),
    onSettled: () => client.invalidateQueries({ queryKey: formDomainsQuery.queryKey }),
  });
  return (
    <li className="border-t border-hair py-3">
      <div className="flex items-center gap-2">
        <StateShape state={provenAt ? 'written' : 'held'} />
        <b className="min-w-0 flex-1 truncate">{host}</b>
        <span className="text-small text-muted">
          {provenAt ? (
            <>
              yours since <Time at={provenAt} />
            </>
          ) : (
            'not shown to be yours yet'
          )}
        </span>
        <Button className="!h-7" onClick={() => check.mutate()} disabled={check.isPending}>
          {check.isPending ? 'Looking…' : 'Check'}
        </Button>
        <Button className="!h-7" look="danger" onClick={() => setRemoving(true)}>
          Remove
        </Button>
      </div>
      {problem && (
        <p role="status" className="mt-1 text-brick">
          {problem}{' '}
          {checkedAt && (
            <span className="text-muted">
              Looked at <Time at={checkedAt} />.
            </span>
          )}
        </p>
      )}
      {!provenAt && (
        <div className="mt-2 flex flex-col gap-1.5">
          <p className="text-muted">
            Enter this TXT record where the domain is managed, let {host} point to this server, and press Check.
          </p>
          <Copyable text={record.name} label="name of the record" />
          <Copyable text={record.text} label="text of the record" />
        </div>
      )}
      {removing && <RemoveDomain host={host} close={() => setRemoving(false)} />}
    </li>
  );
}

function RemoveDomain({ host, close }: { host: string; close: () => void }) {
  const client = useQueryClient();
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/form-domains/${host}`),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: formDomainsQuery.queryKey });
      close();
    },
  });
  return (
    <Dialog open close={close} title={`Remove ${host}`}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          remove.mutate();
        }}
      >
        <p>Links and embed codes under {host} stop working. The forms themselves, and their other address, stay.</p>
        <DialogActions error={remove.error} close={close} action="Remove it" disabled={remove.isPending} />
      </form>
    </Dialog>
  );
}
